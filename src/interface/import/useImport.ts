"use client";

import { useEffect, useMemo, useRef, useState } from "react";
import type { Meaning } from "@/core/formats/columns";
import type { Kind } from "@/core/kinds/kind";
import { drawnFrom } from "@/core/kinds/own";
import { runCommand, runQuery } from "../shared/ask";
import { sendFile } from "../shared/sendFile";
import { type Answered, workerCall } from "../shared/workerCall";
import type { Chunk, ImportMessage, Line, Login, Looked, Opened, OpenedEntries, OpenedTable } from "./import.worker";
import { sendChunks } from "./sendChunks";
import { useImport as t } from "./strings";

/** Larger files are refused before they are read: no table of passwords is so large. */
const MOST_BYTES = 64 * 1024 * 1024;
const COMPARED_AT_ONCE = 500;
const MOST_FILES = 2000;

/** What is done with a row that is like an entry that is kept. */
export type Choice = "skip" | "update" | "both";

export interface Alike {
  /** By place among the rows that can be kept. */
  at: number;
  /** Same password as well. */
  same: boolean;
  /** The entry, where its password may be changed. */
  entryId: string | null;
}

export type Step =
  | { step: "choose" }
  | { step: "locked"; file: string; bytes: Uint8Array }
  | { step: "columns"; file: string; opened: OpenedTable | OpenedEntries }
  | { step: "files"; files: File[] }
  | { step: "look"; file: string; opened: OpenedTable | OpenedEntries; looked: Looked; alike: Alike[] }
  | { step: "running"; done: number; of: number; what: string; stopping: boolean }
  | { step: "over"; importId: string };

/** The steps of bringing a file in; its rows stay in a worker until they are sent. */
export function useImport() {
  const [step, setStep] = useState<Step>({ step: "choose" });
  const [busy, setBusy] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const stopping = useRef(false);
  const worker = useMemo(
    () =>
      workerCall<ImportMessage>(() => new Worker(new URL("./import.worker.ts", import.meta.url), { type: "module" })),
    [],
  );
  useEffect(() => () => worker.end(), [worker]);

  const fail = (says: string) => {
    setBusy(null);
    setWrong(says);
  };

  const read = async (file: string, bytes: Uint8Array, secret: string | null) => {
    setWrong(null);
    setBusy(secret === null ? t.readingTheFile : t.openingTheFile);
    const kinds = await runQuery("vaults.kindList", {});
    const own = kinds.ok ? kinds.result.own : [];
    const { answer, wrong: refused } = await worker.ask<Opened>({ ask: "open", bytes, secret, own });
    if (refused !== null) return fail(refused);
    setBusy(null);
    if (answer.shape === "locked") setStep({ step: "locked", file, bytes });
    else setStep({ step: "columns", file, opened: answer });
  };

  const open = async (file: File) => {
    if (file.size > MOST_BYTES)
      return fail(t.hasMbAtMost64MbCan(file.name, Math.round(file.size / 1024 / 1024).toLocaleString("en-GB")));
    await read(file.name, new Uint8Array(await file.arrayBuffer()), null);
  };

  const openFiles = (files: File[]) => {
    setWrong(null);
    const some = files.filter((file) => file.size > 0);
    if (some.length === 0) return fail(t.thereAreNoFilesInItOr);
    if (some.length > MOST_FILES) return fail(t.tooManyFiles(some.length));
    setStep({ step: "files", files: some });
  };

  /** Makes a kind that the file brings, and reads the file again with it. */
  const createKind = async (kind: Kind): Promise<boolean> => {
    if (step.step !== "columns") return false;
    setWrong(null);
    const made = await runCommand("vaults.createKind", { kind: drawnFrom(kind) });
    if (!made.ok) {
      fail(made.refused.message);
      return false;
    }
    const kinds = await runQuery("vaults.kindList", {});
    const { answer } = await worker.ask<Opened>({ ask: "again", own: kinds.ok ? kinds.result.own : [] });
    if (answer && answer.shape !== "locked") setStep({ ...step, opened: answer });
    return true;
  };

  const choosePart = async (part: number) => {
    if (step.step !== "columns") return;
    const { answer } = await worker.ask<OpenedTable>({ ask: "part", part });
    if (answer) setStep({ ...step, opened: answer });
  };

  const look = async (meanings: Meaning[], keepFolders: boolean) => {
    if (step.step !== "columns" && step.step !== "look") return;
    setWrong(null);
    setBusy(t.checkingEveryRow);
    const { answer: looked, wrong: refused } = await worker.ask<Looked>({ ask: "look", meanings, keepFolders });
    if (refused !== null) return fail(refused);
    const alike: Alike[] = [];
    for (let from = 0; from < looked.good; from += COMPARED_AT_ONCE) {
      setBusy(t.comparingWithTheEntriesIn(from.toLocaleString("en-GB"), looked.good.toLocaleString("en-GB")));
      const logins = await worker.ask<Login[]>({ ask: "logins", from, count: COMPARED_AT_ONCE });
      const answer = await runCommand("vaults.compareRows", { rows: logins.answer ?? [] });
      if (!answer.ok) return fail(answer.refused.message);
      for (const [i, { likeness, entryId }] of answer.result.entries())
        if (likeness !== "new") alike.push({ at: from + i, same: likeness === "same", entryId });
    }
    setBusy(null);
    // What was chosen for the columns is there still for whoever goes back to them.
    const { opened } = step;
    const kept =
      opened.shape === "table"
        ? { ...opened, columns: opened.columns.map((column, i) => ({ ...column, guess: meanings[i] ?? column.guess })) }
        : opened;
    setStep({ step: "look", file: step.file, opened: kept, looked, alike });
  };

  const backToColumns = () => {
    if (step.step === "look") setStep({ step: "columns", file: step.file, opened: step.opened });
  };

  const lines = async (from: number, count: number): Promise<Line[]> =>
    (await worker.ask<Line[]>({ ask: "lines", from, count })).answer ?? [];

  /** Gives null where it was stopped or refused, and says so. */
  const sendAll = async (parentId: string, next: (from: number) => Promise<Chunk>, of: number, what: string) => {
    stopping.current = false;
    const sent = await sendChunks({
      begin: () => runCommand("vaults.beginImport", { parentId }),
      send: (importId, rows) => runCommand("vaults.importChunk", { importId, rows }),
      publish: (importId) => runCommand("vaults.publishImport", { importId }),
      cancel: (importId) => runCommand("vaults.cancelImport", { importId }),
      next,
      stopped: () => stopping.current,
      onProgress: (done) => setStep({ step: "running", done, of, what, stopping: stopping.current }),
    });
    if (sent.end === "published") return sent;
    // Back to where it was looked over: what was chosen is still there.
    setStep(step);
    fail(
      sent.end === "stopped"
        ? t.stoppedNothingWasImported
        : sent.end === "refused"
          ? t.nothingWasImported(sent.says)
          : sent.end === "not-published"
            ? t.nothingWasImported2(sent.says)
            : sent.says,
    );
    return null;
  };

  const bringIn = async (parentId: string, leave: number[], updates: [number, string][]) => {
    setWrong(null);
    const left = await worker.ask<number>({ ask: "decide", leave, updates });
    const next = async (from: number) => {
      const { answer }: Answered<Chunk> = await worker.ask<Chunk>({ ask: "chunk", from });
      return answer!;
    };
    const sent = await sendAll(parentId, next, left.answer ?? 0, t.areEncryptedNobodySeesAnyOf);
    if (!sent) return;
    worker.end();
    setStep({ step: "over", importId: sent.importId });
  };

  /** A document for each file, and the file attached to it. */
  const bringInFiles = async (parentId: string, keepFolders: boolean) => {
    if (step.step !== "files") return;
    setWrong(null);
    const { files } = step;
    const rows = files.map((file) => documentOf(file, keepFolders));
    const next = async (from: number): Promise<Chunk> => ({
      rows: rows.slice(from, from + 100),
      next: from + 100 < rows.length ? from + 100 : null,
    });
    const sent = await sendAll(parentId, next, files.length, t.haveTheirEntry);
    if (!sent) return;
    for (const [at, file] of files.entries()) {
      setStep({ step: "running", done: at, of: files.length, what: t.areEncrypted, stopping: stopping.current });
      const refused = stopping.current
        ? "Stopped."
        : await sendFile(
            sent.entryIds[at]!,
            file,
            () => undefined,
            () => stopping.current,
          ).catch(() => t.cannotBeRead(file.name));
      if (refused === null) continue;
      await runCommand("vaults.undoImport", { importId: sent.importId });
      setStep(step);
      return fail(t.whatWasImportedOfItIsIn(refused));
    }
    setStep({ step: "over", importId: sent.importId });
  };

  return {
    step,
    busy,
    wrong,
    open,
    openFiles,
    unlock: (secret: string) => (step.step === "locked" ? read(step.file, step.bytes, secret) : undefined),
    choosePart,
    createKind,
    look,
    backToColumns,
    lines,
    bringIn,
    bringInFiles,
    stop: () => {
      stopping.current = true;
    },
    again: () => {
      setWrong(null);
      setStep({ step: "choose" });
    },
  };
}

/** Named by the file; its folders are those of the disk, below the one that was chosen. */
function documentOf(file: File, keepFolders: boolean) {
  const way = file.webkitRelativePath.split("/").slice(1, -1);
  const folder = way.map((part) => part.trim().slice(0, 200)).filter(Boolean);
  const name =
    file.name
      .replace(/[\u0000-\u001f\u007f]/g, " ")
      .trim()
      .slice(0, 200) || "Document";
  return { kind: "document", values: { name }, folder: keepFolders ? folder.slice(0, 20) : [] };
}
