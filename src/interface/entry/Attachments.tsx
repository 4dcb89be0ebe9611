"use client";

import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { DropZone, FileTrigger, isFileDropItem } from "react-aria-components";
import styled from "styled-components";
import { atLeast } from "@/core/access/level";
import { exactTime, sayDay } from "@/core/time";
import { type Answer, runCommand, runQuery, useCommand } from "../shared/ask";
import { Act, Button, Notice, Row } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { proving } from "../shared/proving";
import { save } from "../shared/save";
import { sendFile } from "../shared/sendFile";
import { AttachmentPreview } from "./AttachmentPreview";
import { attachments as t } from "./strings";
import type { EntryView } from "./types";

type File_ = EntryView["attachments"][number];

const Section = styled.section`
  margin-top: 32px;
  h2 { padding-bottom: 6px; border-bottom: 1px solid var(--edge); }
  li { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 4px 24px; align-items: baseline; padding: 8px 0; border-bottom: 1px solid var(--rule); overflow-wrap: anywhere; }
  .do { display: flex; gap: 16px; }
  @media (max-width: 719px) { li { grid-template-columns: minmax(0, 1fr); } }
`;

const Drop = styled(DropZone)`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
  margin-top: 12px;
  padding: 10px 14px;
  border: 1px dashed var(--edge);
  &[data-drop-target] { background: var(--pick); border-style: solid; }
`;

export const sayBytes = (bytes: number): string => {
  if (bytes < 1024) return t.bytes(bytes);
  if (bytes < 1024 * 1024) return t.kb(Math.round(bytes / 1024));
  return t.mb((bytes / 1024 / 1024).toFixed(1));
};

/** Files kept with an entry: dropped or chosen, opened here from Reveal up. */
export function Attachments({ entry, now }: { entry: EntryView; now: number }) {
  const mayEdit = atLeast(entry.level, "edit") && entry.binnedAt === null;
  const mayOpen = atLeast(entry.level, "reveal") && entry.binnedAt === null;
  const { sending, wrong, send, stop } = useSending(entry.id);
  const [shown, setShown] = useState<{ file: File_; blob: Blob } | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  if (entry.attachments.length === 0 && !mayEdit) return null;
  const get = async (file: File_, how: "opened" | "saved") => {
    setRefused(null);
    const answer = await proving(() => fetchFile(file, how));
    if (!answer.ok) setRefused(answer.refused.message || null);
    else if (how === "opened") setShown({ file, blob: answer.result });
    else save(answer.result, file.name);
  };
  return (
    <Section aria-label={t.attachments}>
      <h2>{t.attachments}</h2>
      <ul>
        {entry.attachments.map((file) => (
          <li key={file.id}>
            <span>
              <b>{file.name}</b>{" "}
              <span className="soft small" title={exactTime(file.at, entry.zone)}>
                {file.type === "other" ? "" : `${file.type}, `}
                {sayBytes(file.size)}, {file.by && t.by(file.by)}
                {sayDay(file.at, now, entry.zone)}
              </span>
            </span>
            <span className="do">
              {mayOpen && file.type !== "other" && (
                <Act onPress={() => get(file, "opened")} aria-label={t.open(file.name)}>
                  {t.open2}
                </Act>
              )}
              {mayOpen && (
                <Act onPress={() => get(file, "saved")} aria-label={t.download(file.name)}>
                  {t.downloadIt}
                </Act>
              )}
              {mayEdit && (file.own || entry.level === "steward") && <Remove file={file} />}
            </span>
          </li>
        ))}
      </ul>
      {!mayOpen && entry.attachments.length > 0 && (
        <p className="soft small" style={{ marginTop: 8 }}>
          {t.youNeedRevealToOpenThem}
        </p>
      )}
      {refused && (
        <Notice data-tone="bad" role="alert" style={{ marginTop: 8 }}>
          {refused}
        </Notice>
      )}
      {mayEdit && (
        <Drop
          aria-label={t.dropFilesHere}
          onDrop={async (event) => {
            const files = await Promise.all(event.items.filter(isFileDropItem).map((item) => item.getFile()));
            void send(files);
          }}
        >
          {sending ? (
            <>
              <span role="status">{t.encryptingOf(sending.name, sending.part, sending.of)}</span>
              <Button onPress={stop}>{t.stop}</Button>
            </>
          ) : (
            <>
              <FileTrigger allowsMultiple onSelect={(list) => void send([...(list ?? [])])}>
                <Button>{t.attachFiles}</Button>
              </FileTrigger>
              <span className="soft small">{t.orDropThemHereTheyAreEncrypted}</span>
            </>
          )}
        </Drop>
      )}
      {wrong && (
        <Notice data-tone="bad" role="alert" style={{ marginTop: 8 }}>
          {wrong}
        </Notice>
      )}
      {shown && (
        <AttachmentPreview
          file={shown.file}
          blob={shown.blob}
          onSave={() => save(shown.blob, shown.file.name)}
          onClose={() => setShown(null)}
        />
      )}
    </Section>
  );
}

function Remove({ file }: { file: File_ }) {
  const remove = useCommand("vaults.removeAttachment");
  const [asking, setAsking] = useState(false);
  return (
    <>
      <Act onPress={() => setAsking(true)} aria-label={t.deleteWord(file.name)}>
        {t.deleteWord2}
      </Act>
      <Dialog title={t.deleteWord(file.name)} open={asking} onClose={() => setAsking(false)}>
        <p>{t.itIsDeletedForGoodAttachments}</p>
        {remove.refused && (
          <Notice data-tone="bad" role="alert" style={{ marginTop: 12 }}>
            {remove.refused.message}
          </Notice>
        )}
        <Row style={{ marginTop: 16 }}>
          <Button look="harm" isDisabled={remove.running} onPress={() => remove.run({ attachmentId: file.id })}>
            {t.deleteWord2}
          </Button>
          <Button onPress={() => setAsking(false)}>{t.cancel}</Button>
        </Row>
      </Dialog>
    </>
  );
}

async function fetchFile(file: File_, how: "opened" | "saved"): Promise<Answer<Blob>> {
  const opened = await runCommand("vaults.openAttachment", {
    attachmentId: file.id,
    how,
  });
  if (!opened.ok) return opened;
  const parts: Blob[] = [];
  for (let number = 0; number < opened.result.pieces; number++) {
    const input = { attachmentId: file.id, number, ticket: opened.result.ticket };
    const answer = await runQuery("vaults.attachmentPiece", input);
    if (!answer.ok) return answer;
    // As a blob at once: the browser may put it on its disk, so that the whole need not stand in memory.
    parts.push(new Blob([bytesOf(answer.result.piece)]));
  }
  return { ok: true, result: new Blob(parts) };
}

const bytesOf = (base64: string) => Uint8Array.from(atob(base64), (character) => character.charCodeAt(0));

interface Sending {
  name: string;
  part: number;
  of: number;
}

/** Files one after the other, each piece by piece; stopped, what was sent of the last one is taken away. */
function useSending(entryId: string) {
  const router = useRouter();
  const [sending, setSending] = useState<Sending | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const stopped = useRef(false);
  const send = async (files: File[]) => {
    stopped.current = false;
    const messages: string[] = [];
    for (const file of files) {
      if (stopped.current) break;
      const onPart = (part: number, of: number) => setSending({ name: file.name, part, of });
      const message = await sendFile(entryId, file, onPart, () => stopped.current).catch(() =>
        t.thisFileCannotBeRead(file.name),
      );
      if (message && !stopped.current) messages.push(message);
    }
    setSending(null);
    setWrong(messages.length > 0 ? messages.join(" ") : null);
    router.refresh();
  };
  return {
    sending,
    wrong,
    send,
    stop: () => {
      stopped.current = true;
    },
  };
}
