/**
 * The same blob as `seal` of core/crypto (AES-256-GCM, NIST SP 800-38D), made at once by Node's own cipher: Web Crypto
 * hands each to another thread, and ten thousand short texts wait longer for that than for being sealed.
 */
import { createCipheriv, randomBytes } from "node:crypto";
import { associated, type Binding, FORMAT, KEY_LENGTH, NONCE_LENGTH } from "../../core/crypto";

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
