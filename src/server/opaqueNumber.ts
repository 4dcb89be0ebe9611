/**
 * Running numbers that go to browsers (lines of the Journal, what was told) would say how much happens in the whole
 * organisation: they go there as one block of AES-256 (FIPS 197) each, and come back as that.
 */
import { createCipheriv, createDecipheriv } from "node:crypto";
import { hmac, utf8 } from "../core/crypto";
import type { KeyRing } from "./keys/keyFile";

type Purpose = "journal" | "live";

const keyFor = (keys: Pick<KeyRing, "fingerprints">) => hmac(keys.fingerprints, utf8("opaque numbers"));
const markOf = (purpose: Purpose) => Buffer.from(purpose.padEnd(8)).subarray(0, 8);

/** The same number for the same purpose is the same text. */
export function hideNumber(keys: Pick<KeyRing, "fingerprints">, purpose: Purpose, number: number): string {
  const block = Buffer.alloc(16);
  markOf(purpose).copy(block);
  block.writeBigUInt64BE(BigInt(number), 8);
  return createCipheriv("aes-256-ecb", keyFor(keys), null).setAutoPadding(false).update(block).toString("base64url");
}

/** @returns null for a text that is no number hidden for this purpose */
export function shownNumber(keys: Pick<KeyRing, "fingerprints">, purpose: Purpose, text: string): number | null {
  const sealed = Buffer.from(text, "base64url");
  if (sealed.length !== 16) return null;
  const block = createDecipheriv("aes-256-ecb", keyFor(keys), null).setAutoPadding(false).update(sealed);
  return block.subarray(0, 8).equals(markOf(purpose)) ? Number(block.readBigUInt64BE(8)) : null;
}
