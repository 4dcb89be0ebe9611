/** Writes what is taken out, beside the page, part by part: nobody but the person's own disk gets it. */
import { Encrypter } from "age-encryption";
import { exchangeWriter } from "@/core/formats/exchange";
import type { TakenEntry, TakenWriter } from "@/core/formats/taken";
import { csvWriter } from "@/core/formats/takenCsv";
import { pageWriter } from "@/core/formats/takenPage";
import type { Kind } from "@/core/kinds/kind";
import { exportWorker as t } from "./strings";

export interface TakenFile {
  format: "exchange" | "csv" | "page";
  about: { organisation: string; person: string; mail: string; at: number; title: string };
  /** Of the organisation's own, those that entries have. */
  kinds: Kind[];
  /** Encrypted with age: with a passphrase, or to recipients ("age1…"). */
  lock: { passphrase: string } | { recipients: string[] } | null;
}

export type TakeOutAsk =
  | { id: number; ask: "check"; lock: TakenFile["lock"] }
  | ({ id: number; ask: "begin" } & TakenFile)
  | { id: number; ask: "add"; entries: TakenEntry[] }
  | { id: number; ask: "end" };

interface File {
  writer: TakenWriter;
  into: WritableStreamDefaultWriter<string>;
  whole: Promise<Blob>;
}

let file: File | null = null;

function writerOf({ format, about, kinds }: TakenFile): TakenWriter {
  if (format === "csv") return csvWriter();
  return format === "page" ? pageWriter(about.title) : exchangeWriter(about, kinds);
}

/** @throws RangeError naming what is no recipient */
function encrypterOf(lock: NonNullable<TakenFile["lock"]>): Encrypter {
  const encrypter = new Encrypter();
  if ("passphrase" in lock) encrypter.setPassphrase(lock.passphrase);
  else
    for (const recipient of lock.recipients)
      try {
        encrypter.addRecipient(recipient);
      } catch {
        throw new RangeError(t.isNotARecipientTheyBeginWith(recipient));
      }
  return encrypter;
}

async function encrypted(clear: ReadableStream<Uint8Array>, lock: TakenFile["lock"]) {
  return lock ? encrypterOf(lock).encrypt(clear) : clear;
}

async function answer(data: TakeOutAsk): Promise<Blob | null> {
  switch (data.ask) {
    case "check":
      if (data.lock) encrypterOf(data.lock);
      return null;
    case "begin": {
      const bytes = new TextEncoderStream();
      const clear = bytes.readable as ReadableStream<Uint8Array>;
      const whole = encrypted(clear, data.lock).then((stream) => new Response(stream as BodyInit).blob());
      file = { writer: writerOf(data), into: bytes.writable.getWriter(), whole };
      return null;
    }
    case "add":
      await file!.into.write(file!.writer.add(data.entries));
      return null;
    case "end": {
      const { writer, into, whole } = file!;
      await into.write(writer.end());
      await into.close();
      file = null;
      return whole;
    }
  }
}

addEventListener("message", ({ data }: MessageEvent<TakeOutAsk>) => {
  answer(data).then(
    (given) => postMessage({ id: data.id, answer: given }),
    (error) =>
      postMessage({ id: data.id, wrong: error instanceof RangeError ? error.message : t.theFileCouldNotBeWrittenTry }),
  );
});
