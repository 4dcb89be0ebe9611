"use client";

import { useEffect, useMemo, useRef, useState } from "react";
import type { Meaning } from "@/core/formats/columns";
import type { Likeness } from "@/server/vaults/importing";
import { runCommand } from "../shared/ask";
import { type Answered, workerCall } from "../shared/workerCall";
import type { BringInAsk, Chunk, Login, Looked, Opened } from "./bringIn.worker";

/** Larger files are refused before they are read: no table of passwords is so large. */
const MOST_BYTES = 64 * 1024 * 1024;
const COMPARED_AT_ONCE = 500;

export interface Alike {
  same: number[];
  otherPassword: number[];
}

export type Step =
  | { step: "choose" }
  | { step: "columns"; file: string; opened: Opened }
  | { step: "look"; file: string; opened: Opened; looked: Looked; alike: Alike }
  | { step: "running"; done: number; of: number; stopping: boolean }
  | { step: "over"; importId: string };

/** The steps of bringing a file in; its rows stay in a worker until they are sent. */
export function useBringIn() {
  const [step, setStep] = useState<Step>({ step: "choose" });
  const [busy, setBusy] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const stopping = useRef(false);
  const worker = useMemo(
    () => workerCall<BringInAsk>(() => new Worker(new URL("./bringIn.worker.ts", import.meta.url), { type: "module" })),
    [],
  );
  useEffect(() => () => worker.end(), [worker]);

  const fail = (says: string) => {
    setBusy(null);
    setWrong(says);
  };

  const open = async (file: File) => {
    setWrong(null);
    if (file.size > MOST_BYTES)
      return fail(
        `${file.name} has ${Math.round(file.size / 1024 / 1024).toLocaleString("en-GB")} MB; at most 64 MB are read. Cut it in parts.`,
      );
    setBusy("Reading the file.");
    const bytes = new Uint8Array(await file.arrayBuffer());
    const { answer, wrong: refused } = await worker.ask<Opened>({ ask: "open", bytes }, [bytes.buffer]);
    if (refused !== null) return fail(refused);
    setBusy(null);
    setStep({ step: "columns", file: file.name, opened: answer });
  };

  const look = async (meanings: Meaning[], keepFolders: boolean) => {
    if (step.step !== "columns" && step.step !== "look") return;
    setWrong(null);
    setBusy("Looking over every row.");
    const { answer: looked, wrong: refused } = await worker.ask<Looked>({ ask: "look", meanings, keepFolders });
    if (refused !== null) return fail(refused);
    const alike: Alike = { same: [], otherPassword: [] };
    for (let from = 0; from < looked.good; from += COMPARED_AT_ONCE) {
      setBusy(
        `Comparing with what is kept: ${from.toLocaleString("en-GB")} of ${looked.good.toLocaleString("en-GB")}.`,
      );
      const logins = await worker.ask<Login[]>({ ask: "logins", from, count: COMPARED_AT_ONCE });
      const answer = await runCommand<Likeness[]>("vaults.compareRows", { rows: logins.answer ?? [] });
      if (!answer.ok) return fail(answer.refused.message);
      for (const [i, likeness] of answer.result.entries())
        if (likeness !== "new") (likeness === "same" ? alike.same : alike.otherPassword).push(from + i);
    }
    setBusy(null);
    setStep({ step: "look", file: step.file, opened: step.opened, looked, alike });
  };

  const bringIn = async (parentId: string, leave: number[]) => {
    setWrong(null);
    const left = await worker.ask<number>({ ask: "leave", these: leave });
    const of = left.answer ?? 0;
    stopping.current = false;
    const begun = await runCommand<{ importId: string }>("vaults.beginImport", { parentId });
    if (!begun.ok) return fail(begun.refused.message);
    const { importId } = begun.result;
    const stop = async (says: string) => {
      await runCommand("vaults.cancelImport", { importId });
      // Back to where it was looked over: what was chosen is still there.
      setStep(step);
      fail(says);
    };
    for (let from: number | null = 0, done = 0; from !== null; ) {
      setStep({ step: "running", done, of, stopping: stopping.current });
      if (stopping.current) return stop("Stopped. Nothing was brought in.");
      const { answer: chunk }: Answered<Chunk> = await worker.ask<Chunk>({ ask: "chunk", from });
      const sent = await runCommand("vaults.importChunk", { importId, rows: chunk!.rows });
      if (!sent.ok) return stop(`${sent.refused.message} Nothing was brought in.`);
      done += chunk!.rows.length;
      from = chunk!.next;
    }
    const published = await runCommand("vaults.publishImport", { importId });
    if (!published.ok) return stop(`${published.refused.message} Nothing was brought in.`);
    worker.end();
    setStep({ step: "over", importId });
  };

  return {
    step,
    busy,
    wrong,
    open,
    look,
    bringIn,
    stop: () => {
      stopping.current = true;
    },
    again: () => {
      setWrong(null);
      setStep({ step: "choose" });
    },
  };
}
