/** Writes what is taken out, beside the page: the whole is text that nobody but the person's own disk gets. */
import { armor, Encrypter } from "age-encryption";
import { toExchange } from "@/core/formats/exchange";
import type { TakenEntry } from "@/core/formats/taken";
import { takenCsv } from "@/core/formats/takenCsv";
import { takenPage } from "@/core/formats/takenPage";

export interface TakeOutAsk {
  id: number;
  format: "exchange" | "csv" | "page";
  entries: TakenEntry[];
  about: { organisation: string; person: string; mail: string; at: number; title: string };
  /** Encrypted with age: with a passphrase, or to recipients ("age1…"). */
  lock: { passphrase: string } | { recipients: string[] } | null;
}

function write({ format, entries, about }: TakeOutAsk): string {
  if (format === "csv") return takenCsv(entries);
  if (format === "page") return takenPage(entries, about.title);
  return JSON.stringify(toExchange(entries, about), null, 1);
}

async function locked(text: string, lock: NonNullable<TakeOutAsk["lock"]>): Promise<string> {
  const sealer = new Encrypter();
  if ("passphrase" in lock) sealer.setPassphrase(lock.passphrase);
  else
    for (const recipient of lock.recipients)
      try {
        sealer.addRecipient(recipient);
      } catch {
        throw new RangeError(`“${recipient}” is not a recipient: they begin with age1.`);
      }
  return armor.encode(await sealer.encrypt(text));
}

addEventListener("message", ({ data }: MessageEvent<TakeOutAsk>) => {
  (async () => {
    const text = write(data);
    return data.lock ? locked(text, data.lock) : text;
  })().then(
    (answer) => postMessage({ id: data.id, answer }),
    (error) =>
      postMessage({ id: data.id, wrong: error instanceof RangeError ? error.message : "It could not be written." }),
  );
});
