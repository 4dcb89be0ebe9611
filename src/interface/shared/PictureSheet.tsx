"use client";

import { useRef, useState } from "react";
import type { InputOf } from "@/server/registry";
import { useCommand } from "./ask";
import { Button, Notice, Row } from "./controls";
import { Dialog } from "./Dialog";
import { Stamp } from "./Stamp";
import { pictureSheet as t } from "./strings";

const MOST_BYTES = 2 * 1024 * 1024;

type PictureCommand = "vaults.setPicture" | "vaults.setVaultPicture" | "vaults.setKindPicture";

interface PictureSheetProps {
  name: string;
  /** Address of what is shown now. */
  picture: string | null;
  /** It has a picture of its own, which can be taken away. */
  own: boolean;
  command: PictureCommand;
  /** Sets the picture, as base64, or takes it away. */
  inputOf: (picture: string | null) => InputOf<PictureCommand>;
  onClose: () => void;
}

/** A picture instead of the stamp: made small on the server, and nothing of the file is kept. */
export function PictureSheet({ name, picture, own, command, inputOf, onClose }: PictureSheetProps) {
  const set = useCommand(command);
  const input = useRef<HTMLInputElement>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const send = async (file: File | undefined) => {
    if (!file) return;
    setWrong(null);
    if (file.size > MOST_BYTES) return setWrong(t.aPictureHasAtMost2Mb);
    const bytes = new Uint8Array(await file.arrayBuffer());
    let text = "";
    for (let at = 0; at < bytes.length; at += 32_768) text += String.fromCharCode(...bytes.subarray(at, at + 32_768));
    if ((await set.run(inputOf(btoa(text)))).ok) onClose();
  };
  return (
    <Dialog title={t.pictureOf(name)} open onClose={onClose}>
      <Row style={{ gap: 20, marginBottom: 16 }}>
        <Stamp name={name} picture={picture} large />
        <span className="soft">{t.pngJpegWebpOrSvgAtMost}</span>
      </Row>
      {(wrong ?? set.refused) && (
        <Notice data-tone="bad" role="alert" style={{ marginBottom: 12 }}>
          {wrong ?? set.refused?.message}
        </Notice>
      )}
      <input
        ref={input}
        type="file"
        hidden
        aria-label={t.picture}
        accept="image/png,image/jpeg,image/webp,image/svg+xml"
        onChange={(event) => void send(event.target.files?.[0])}
      />
      <Row>
        <Button look="go" onPress={() => input.current?.click()} isDisabled={set.running}>
          {t.chooseAPicture}
        </Button>
        {own && (
          <Button
            onPress={async () => {
              if ((await set.run(inputOf(null))).ok) onClose();
            }}
            isDisabled={set.running}
          >
            {t.remove}
          </Button>
        )}
        <Button onPress={onClose}>{t.close}</Button>
      </Row>
    </Dialog>
  );
}
