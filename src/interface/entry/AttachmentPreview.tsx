"use client";

import { useEffect, useRef, useState } from "react";
import styled from "styled-components";
import { PICTURE_TYPES } from "@/core/formats/fileType";
import { Button, Row } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { attachmentPreview as t } from "./strings";

const Frame = styled.div`
  max-height: 60vh;
  overflow: auto;
  border: 1px solid var(--rule);
  img, canvas { display: block; max-width: 100%; }
  pre { padding: 12px; white-space: pre-wrap; overflow-wrap: anywhere; font: 400 14px/20px var(--mono); }
`;

/** More of a text than this is not drawn. */
const MOST_TEXT = 200_000;

interface PreviewProps {
  file: { name: string; type: string };
  blob: Blob;
  onSave: () => void;
  onClose: () => void;
}

/** A picture, a PDF or text, without leaving the page: drawn here, never handed to the browser as a page. */
export function AttachmentPreview({ file, blob, onSave, onClose }: PreviewProps) {
  return (
    <Dialog title={file.name} open onClose={onClose} wide>
      <Frame tabIndex={0} role="group" aria-label={file.name}>
        {file.type === "text" ? (
          <TextOf blob={blob} />
        ) : file.type === "PDF" ? (
          <Pdf blob={blob} />
        ) : (
          <Picture blob={blob} type={file.type} name={file.name} />
        )}
      </Frame>
      <Row style={{ marginTop: 16 }}>
        <Button onPress={onSave}>{t.save}</Button>
        <Button onPress={onClose}>{t.close}</Button>
      </Row>
    </Dialog>
  );
}

function TextOf({ blob }: { blob: Blob }) {
  const [text, setText] = useState("");
  useEffect(() => void blob.slice(0, MOST_TEXT).text().then(setText), [blob]);
  return (
    <pre>
      {text}
      {blob.size > MOST_TEXT && "\n…"}
    </pre>
  );
}

function Picture({ blob, type, name }: { blob: Blob; type: string; name: string }) {
  const [address, setAddress] = useState<string | null>(null);
  useEffect(() => {
    const made = URL.createObjectURL(new Blob([blob], { type: PICTURE_TYPES[type as "PNG"] }));
    setAddress(made);
    return () => URL.revokeObjectURL(made);
  }, [blob, type]);
  return address && <img src={address} alt={name} />;
}

const MOST_PAGES = 50;

function Pdf({ blob }: { blob: Blob }) {
  const place = useRef<HTMLDivElement>(null);
  const [wrong, setWrong] = useState(false);
  useEffect(() => {
    let current = true;
    const draw = async () => {
      const pdf = await import("pdfjs-dist");
      pdf.GlobalWorkerOptions.workerSrc = new URL("pdfjs-dist/build/pdf.worker.min.mjs", import.meta.url).href;
      const document_ = await pdf.getDocument({ data: await blob.arrayBuffer(), isEvalSupported: false }).promise;
      for (let number = 1; number <= Math.min(document_.numPages, MOST_PAGES); number++) {
        const page = await document_.getPage(number);
        const viewport = page.getViewport({ scale: 1.5 });
        const canvas = document.createElement("canvas");
        canvas.width = viewport.width;
        canvas.height = viewport.height;
        canvas.setAttribute("role", "img");
        canvas.setAttribute("aria-label", `Page ${number}`);
        if (!current) break;
        place.current?.append(canvas);
        await page.render({ canvas, viewport }).promise;
      }
      await document_.destroy();
    };
    draw().catch(() => current && setWrong(true));
    return () => {
      current = false;
    };
  }, [blob]);
  return wrong ? <p style={{ padding: 12 }}>{t.thisPdfCannotBeShownHere}</p> : <div ref={place} />;
}
