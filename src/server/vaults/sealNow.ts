/**
 * The same blob as `seal` of core/crypto (AES-256-GCM, NIST SP 800-38D), made at once by Node's own cipher: Web Crypto
 * hands each to another thread, and ten thousand short texts wait longer for that than for being sealed.
 */
import { createCipheriv, createDecipheriv, randomBytes } from "node:crypto";
import { associated, type Binding, FORMAT, KEY_LENGTH, NONCE_LENGTH, SealError, TAG_LENGTH } from "../../core/crypto";

/**
 * @param key 32 bytes
 * @throws RangeError when the key has another length, or the binding holds its separator
 */
export function sealNow(key: Uint8Array, plaintext: string, binding: Binding): Buffer {
  if (key.length !== KEY_LENGTH) throw new RangeError(`a key has ${KEY_LENGTH} bytes`);
  const nonce = randomBytes(NONCE_LENGTH);
  const cipher = createCipheriv("aes-256-gcm", key, nonce).setAAD(associated(binding));
  const sealed = [cipher.update(plaintext, "utf8"), cipher.final()];
  return Buffer.concat([Buffer.of(FORMAT), nonce, ...sealed, cipher.getAuthTag()]);
}

/**
 * The text of such a blob.
 * @throws SealError when key, binding or a single bit of the blob is another
 */
export function openNow(key: Uint8Array, blob: Uint8Array, binding: Binding): string {
  if (blob[0] !== FORMAT || blob.length < 1 + NONCE_LENGTH + TAG_LENGTH) throw new SealError("not a sealed blob");
  const end = blob.length - TAG_LENGTH;
  try {
    const decipher = createDecipheriv("aes-256-gcm", key, blob.subarray(1, 1 + NONCE_LENGTH), {
      authTagLength: TAG_LENGTH,
    })
      .setAAD(associated(binding))
      .setAuthTag(blob.subarray(end));
    return Buffer.concat([decipher.update(blob.subarray(1 + NONCE_LENGTH, end)), decipher.final()]).toString("utf8");
  } catch {
    throw new SealError(`a sealed blob of ${binding[0]} does not open`);
  }
}
