/**
 * Sealing: AES-256-GCM (NIST SP 800-38D) with a random 96-bit nonce.
 *
 * A sealed blob is `0x01 ‖ nonce (12) ‖ ciphertext ‖ tag (16)`. What the blob belongs to is bound as additional
 * authenticated data, so that a blob moved to another row does not open.
 */
import { type Bytes, concat, randomBytes, utf8 } from "./bytes";

export const FORMAT = 1;
export const NONCE_LENGTH = 12;
export const TAG_LENGTH = 16;
export const KEY_LENGTH = 32;

export class SealError extends Error {
  override name = "SealError";
}

/** What a blob belongs to: a purpose and the ids it is bound to. None may hold the separator. */
export type Binding = readonly [purpose: string, ...ids: string[]];

/**
 * @param key 32 bytes
 * @throws RangeError when the key has another length
 */
export async function seal(key: Uint8Array, plaintext: Uint8Array, binding: Binding): Promise<Bytes> {
  const nonce = randomBytes(NONCE_LENGTH);
  const sealed = await crypto.subtle.encrypt(
    { name: "AES-GCM", iv: nonce, additionalData: associated(binding) },
    await cipherKey(key),
    plaintext as Bytes,
  );
  return concat(Uint8Array.of(FORMAT), nonce, new Uint8Array(sealed));
}

/** @throws SealError when key, binding or a single bit of the blob is not the one it was sealed with */
export async function open(key: Uint8Array, blob: Uint8Array, binding: Binding): Promise<Bytes> {
  if (blob[0] !== FORMAT || blob.length < 1 + NONCE_LENGTH + TAG_LENGTH) throw new SealError("not a sealed blob");
  try {
    const opened = await crypto.subtle.decrypt(
      {
        name: "AES-GCM",
        iv: blob.slice(1, 1 + NONCE_LENGTH) as Bytes,
        additionalData: associated(binding),
      },
      await cipherKey(key),
      blob.slice(1 + NONCE_LENGTH) as Bytes,
    );
    return new Uint8Array(opened);
  } catch {
    throw new SealError(`a sealed blob of ${binding[0]} does not open`);
  }
}

export function associated(binding: Binding): Bytes {
  if (binding.some((part) => part.includes("\u0000"))) throw new RangeError("a binding holds the separator");
  return utf8(binding.join("\u0000"));
}

/** As browsers and Node both have it: neither has a type of the other's name. */
type ImportedKey = Awaited<ReturnType<typeof crypto.subtle.importKey>>;

/** Imported once for each key's array, which is not written over while it is held. */
const imported = new WeakMap<Uint8Array, Promise<ImportedKey>>();

async function cipherKey(key: Uint8Array): Promise<ImportedKey> {
  if (key.length !== KEY_LENGTH) throw new RangeError(`a key has ${KEY_LENGTH} bytes`);
  const known = imported.get(key);
  if (known) return known;
  const made = crypto.subtle.importKey("raw", key as Bytes, "AES-GCM", false, ["encrypt", "decrypt"]);
  imported.set(key, made);
  return made;
}
