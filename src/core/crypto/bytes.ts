/** Bytes and their textual forms; runs on any platform with Web Crypto. */
import { sha256 as digest } from "@noble/hashes/sha2.js";

const encoder = new TextEncoder();
const decoder = new TextDecoder("utf-8", { fatal: true });

export type Bytes = Uint8Array<ArrayBuffer>;

export const utf8 = (text: string): Bytes => encoder.encode(text) as Bytes;
/** @throws TypeError when the bytes are not UTF-8 */
export const fromUtf8 = (bytes: Uint8Array): string => decoder.decode(bytes);

export function concat(...parts: Uint8Array[]): Bytes {
  const whole = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}

export const toHex = (bytes: Uint8Array): string =>
  Array.from(bytes, (byte) => byte.toString(16).padStart(2, "0")).join("");

/** @throws RangeError when the text is not pairs of hexadecimal digits */
export function fromHex(text: string): Bytes {
  if (!/^(?:[0-9a-f]{2})*$/i.test(text)) throw new RangeError("not hexadecimal");
  return Uint8Array.from(text.match(/../g) ?? [], (pair) => Number.parseInt(pair, 16));
}

/** base64url without padding, RFC 4648 section 5. */
export function toBase64Url(bytes: Uint8Array): string {
  let binary = "";
  for (const byte of bytes) binary += String.fromCharCode(byte);
  return btoa(binary).replaceAll("+", "-").replaceAll("/", "_").replace(/=+$/, "");
}

export function fromBase64Url(text: string): Bytes {
  const binary = atob(text.replaceAll("-", "+").replaceAll("_", "/"));
  return Uint8Array.from(binary, (c) => c.charCodeAt(0));
}

/** RFC 4648, section 4. */
export const toBase64 = (bytes: Uint8Array): string => {
  let text = "";
  for (let at = 0; at < bytes.length; at += 32_768) text += String.fromCharCode(...bytes.subarray(at, at + 32_768));
  return btoa(text);
};

/** @throws for what is not base64 */
export const fromBase64 = (text: string): Bytes => Uint8Array.from(atob(text), (one) => one.charCodeAt(0));

export const randomBytes = (length: number): Bytes => crypto.getRandomValues(new Uint8Array(length));

/** SHA-256, FIPS 180-4. At once: handing a few hundred bytes to another thread takes longer than hashing them. */
export const sha256 = (data: Uint8Array): Bytes => new Uint8Array(digest(data));

/** Same length and same bytes, in time that depends on the length only. */
export function sameBytes(a: Uint8Array, b: Uint8Array): boolean {
  if (a.length !== b.length) return false;
  let differs = 0;
  for (let i = 0; i < a.length; i++) differs |= a[i]! ^ b[i]!;
  return differs === 0;
}
