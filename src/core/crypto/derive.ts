/** Keys from keys (HKDF with SHA-256, RFC 5869) and keyed fingerprints (HMAC with SHA-256, RFC 2104). */
import { hmac as mac } from "@noble/hashes/hmac.js";
import { sha256 } from "@noble/hashes/sha2.js";
import { type Bytes, utf8 } from "./bytes";
import { KEY_LENGTH } from "./seal";

/** 32 bytes for one purpose; the salt is empty because the input is already uniform (RFC 5869 section 3.1). */
export async function deriveKey(key: Uint8Array, purpose: string): Promise<Bytes> {
  const base = await crypto.subtle.importKey("raw", key as Bytes, "HKDF", false, ["deriveBits"]);
  const bits = await crypto.subtle.deriveBits(
    { name: "HKDF", hash: "SHA-256", salt: new Uint8Array(), info: utf8(purpose) },
    base,
    KEY_LENGTH * 8,
  );
  return new Uint8Array(bits);
}

export const hmac = (key: Uint8Array, data: Uint8Array): Bytes => new Uint8Array(mac(sha256, key, data));
