"use client";

import { useRouter } from "next/navigation";
import { type DragEvent, useEffect, useRef, useState } from "react";
import styled from "styled-components";
import type { Place } from "@/server/vaults/places";
import { Button, CheckField, ChoiceField, Notice, Row, Stack, TextField } from "../shared/controls";
import { Form } from "../shared/Form";
import { ColumnsStep } from "./ColumnsStep";
import { LookStep } from "./LookStep";
import { bringIn as t } from "./strings";
import { useImport } from "./useImport";

const Drop = styled.div`
  display: grid;
  justify-items: start;
  gap: 14px;
  padding: 28px 24px;
  border: 1.5px dashed var(--edge);
  background: var(--sheet);
  &[data-over="true"] { border-color: var(--copper); background: var(--pick); }
`;

interface BringInProps {
  vaultId: string;
  places: Place[];
  start: string;
  mayMakeKinds: boolean;
}

/** A file becomes entries: chosen, understood, looked over, brought in as a whole or not at all. */
export function ImportFile({ vaultId, places, start, mayMakeKinds }: BringInProps) {
  const router = useRouter();
  const bringing = useImport();
  const { step, busy, wrong } = bringing;
  const [parentId, setParentId] = useState(start);
  useEffect(() => {
    if (step.step === "over") router.push(`/vaults/${vaultId}/imports/${step.importId}`);
  }, [step, router, vaultId]);
  const where = <Where places={places} parentId={parentId} setParentId={setParentId} />;
  return (
    <Stack style={{ maxWidth: 860 }}>
      {wrong && (
        <Notice data-tone="bad" role="alert">
          {wrong}
        </Notice>
      )}
      {busy && (
        <Notice role="status" data-tone="good">
          {busy}
        </Notice>
      )}
      {step.step === "choose" && <Choose onFile={bringing.open} onFiles={bringing.openFiles} busy={busy !== null} />}
      {step.step === "locked" && (
        <Locked file={step.file} busy={busy !== null} onSecret={bringing.unlock} onAgain={bringing.again} />
      )}
      {step.step === "columns" && (
        <ColumnsStep
          key={`${step.file} ${step.opened.shape === "table" ? step.opened.part : ""}`}
          file={step.file}
          opened={step.opened}
          where={where}
          busy={busy !== null}
          onPart={bringing.choosePart}
          onMakeKind={mayMakeKinds ? bringing.createKind : null}
          onLook={bringing.look}
          onAgain={bringing.again}
        />
      )}
      {step.step === "files" && (
        <FilesStep
          files={step.files}
          where={where}
          onGo={(keepFolders) => bringing.bringInFiles(parentId, keepFolders)}
          onAgain={bringing.again}
        />
      )}
      {step.step === "look" && (
        <LookStep
          step={step}
          lines={bringing.lines}
          onGo={(leave, updates) => bringing.bringIn(parentId, leave, updates)}
          onAgain={bringing.again}
          onColumns={step.opened.shape === "table" ? bringing.backToColumns : null}
        />
      )}
      {step.step === "running" && (
        <section aria-live="polite">
          <p style={{ marginBottom: 10 }}>
            <b>{t.ofWord(step.done.toLocaleString("en-GB"), step.of.toLocaleString("en-GB"))}</b> {step.what}
          </p>
          <progress value={step.done} max={step.of} style={{ width: "100%" }} aria-label={t.imported} />
          <Row style={{ marginTop: 12 }}>
            <Button onPress={bringing.stop} isDisabled={step.stopping}>
              {t.stop}
            </Button>
          </Row>
        </section>
      )}
      {step.step === "over" && <p role="status">{t.theImportIsComplete}</p>}
    </Stack>
  );
}

interface WhereProps {
  places: Place[];
  parentId: string;
  setParentId: (id: string) => void;
}

function Where({ places, parentId, setParentId }: WhereProps) {
  return (
    <ChoiceField label={t.importTo} value={parentId} onText={setParentId}>
      {places.map((place) => (
        <option key={place.id} value={place.id}>
          {place.name}
        </option>
      ))}
    </ChoiceField>
  );
}

interface ChooseProps {
  onFile: (file: File) => void;
  onFiles: (files: File[]) => void;
  busy: boolean;
}

function Choose({ onFile, onFiles, busy }: ChooseProps) {
  const input = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    const file = event.dataTransfer.files[0];
    if (file) onFile(file);
  };
  return (
    <>
      <Drop
        data-over={over}
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={drop}
      >
        <p>{t.orChooseOneBrowsersAndOther(<b>{t.dropAFileHere}</b>)}</p>
        <Button look="go" onPress={() => input.current?.click()} isDisabled={busy}>
          {t.chooseAFile}
        </Button>
        <p className="soft small">{t.csvXmlOrJsonFromAnyProgram}</p>
        <input
          ref={input}
          type="file"
          aria-label={t.file}
          hidden
          onChange={(event) => {
            const file = event.target.files?.[0];
            if (file) onFile(file);
            event.target.value = "";
          }}
        />
      </Drop>
      <Row>
        <Button onPress={() => folder.current?.click()} isDisabled={busy}>
          {t.aFolderOfFilesAsDocuments}
        </Button>
        <input
          ref={(element) => {
            folder.current = element;
            element?.setAttribute("webkitdirectory", "");
          }}
          type="file"
          aria-label={t.folderOfFiles}
          hidden
          multiple
          onChange={(event) => {
            onFiles([...(event.target.files ?? [])]);
            event.target.value = "";
          }}
        />
      </Row>
    </>
  );
}

interface LockedProps {
  file: string;
  busy: boolean;
  onSecret: (secret: string) => void;
  onAgain: () => void;
}

/** An age file: what opens it stays in this browser. */
function Locked({ file, busy, onSecret, onAgain }: LockedProps) {
  const [secret, setSecret] = useState("");
  return (
    <Form
      verb={t.open}
      onSend={() => onSecret(secret)}
      running={busy}
      unready={secret === ""}
      acts={<Button onPress={onAgain}>{t.chooseAnotherFile}</Button>}
    >
      <p>{t.isEncryptedWithAgeItIsOpened(<b>{file}</b>)}</p>
      <TextField
        label={t.passphraseOrIdentity}
        type="password"
        autoComplete="off"
        value={secret}
        onText={setSecret}
        hint={t.anIdentityBeginsWithAgeSecret}
        autoFocus
      />
    </Form>
  );
}

interface FilesProps {
  files: File[];
  where: React.ReactNode;
  onGo: (keepFolders: boolean) => void;
  onAgain: () => void;
}

function FilesStep({ files, where, onGo, onAgain }: FilesProps) {
  const [keepFolders, setKeepFolders] = useState(true);
  const size = files.reduce((sum, file) => sum + file.size, 0);
  return (
    <Form
      verb={t.importDocuments(files.length)}
      onSend={() => onGo(keepFolders)}
      acts={<Button onPress={onAgain}>{t.chooseAnotherFile}</Button>}
    >
      <p>{t.filesToImport(files.length, (size / 1024 / 1024).toFixed(1))}</p>
      {where}
      <CheckField
        label={t.createTheFoldersOfTheDisk}
        hint={t.foldersThatDoNotExistYetAre}
        checked={keepFolders}
        onTick={setKeepFolders}
      />
    </Form>
  );
}
