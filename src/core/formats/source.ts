/** What a file is, by what stands in it, and its entries or its table. An age file is opened first. */
import { armor, Decrypter } from "age-encryption";
import type { Kind } from "../kinds/kind";
import { readCsv } from "./csv";
import { fromExchange, isExchange } from "./exchange";
import { fromOtpauth, fromVcard, isOtpauth, isVcard } from "./lines";
import type { ReadRow } from "./rows";
import { decodeText } from "./text";
import { type Part, partsOf, readJson, readXml } from "./tree";

/** A table whose columns somebody has to say the meaning of, or entries that say themselves what they are. */
export type Source =
  | { shape: "table"; format: "CSV" | "XML" | "JSON"; encoding: string; separator: string | null; parts: Part[] }
  | {
      shape: "entries";
      format: "credential exchange" | "one-time codes" | "contacts";
      rows: ReadRow[];
      missing: Kind[];
    };

const AGE = "age-encryption.org/v1";
const ARMOURED = "-----BEGIN AGE ENCRYPTED FILE-----";

const beginning = (bytes: Uint8Array) =>
  String.fromCharCode(...bytes.subarray(0, 64))
    .replace(/^\u00ef\u00bb\u00bf/, "")
    .trimStart();

/** Whether it is encrypted with age, in its binary or its text form. */
export const isAge = (bytes: Uint8Array): boolean => {
  const start = beginning(bytes);
  return start.startsWith(AGE) || start.startsWith(ARMOURED);
};

/**
 * @param secret a passphrase, or an identity ("AGE-SECRET-KEY-1…")
 * @throws RangeError where it does not open
 */
export async function openAge(bytes: Uint8Array, secret: string): Promise<Uint8Array> {
  const opener = new Decrypter();
  try {
    if (/^AGE-SECRET-KEY-1/i.test(secret.trim())) opener.addIdentity(secret.trim().toUpperCase());
    else opener.addPassphrase(secret);
    const sealed = beginning(bytes).startsWith(ARMOURED) ? armor.decode(new TextDecoder().decode(bytes).trim()) : bytes;
    return await opener.decrypt(sealed);
  } catch {
    throw new RangeError("This does not open the file. Try again.");
  }
}

/** @throws RangeError with a sentence for people when nothing can be made of it */
export function readSource(bytes: Uint8Array, own: readonly Kind[] = []): Source {
  const start = beginning(bytes);
  if (start.startsWith("PK")) throw new RangeError("This is an archive. Extract the file first.");
  const { text, encoding } = decodeText(bytes);
  const first = text
    .replace(/^\uFEFF/, "")
    .trimStart()
    .slice(0, 1);
  if (first === "{" || first === "[") {
    const json = readJson(text);
    if (isExchange(json)) return { shape: "entries", format: "credential exchange", ...fromExchange(json, own) };
    return { shape: "table", format: "JSON", encoding, separator: null, parts: partsOf(json) };
  }
  if (first === "<") return { shape: "table", format: "XML", encoding, separator: null, parts: partsOf(readXml(text)) };
  if (isOtpauth(text)) return { shape: "entries", format: "one-time codes", rows: fromOtpauth(text), missing: [] };
  if (isVcard(text)) return { shape: "entries", format: "contacts", rows: fromVcard(text), missing: [] };
  const { header, rows, separator, ragged } = readCsv(text);
  const part: Part = { name: "", header, rows, folders: [], ragged };
  return { shape: "table", format: "CSV", encoding, separator, parts: [part] };
}
