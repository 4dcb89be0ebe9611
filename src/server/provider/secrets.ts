/** Client secrets and verifiers: sealed under a key of this Galtry, bound to what they are for. */
import { deriveKey, fromUtf8, open, seal, utf8 } from "../../core/crypto";
import type { KeyRing } from "../keys/keyFile";

const key = (keys: KeyRing) => deriveKey(keys.fingerprints, "identity providers");

export const sealText = async (keys: KeyRing, text: string, what: string, id: string): Promise<Buffer> =>
  Buffer.from(await seal(await key(keys), utf8(text), ["provider", what, id]));

export const openText = async (keys: KeyRing, sealed: Uint8Array, what: string, id: string): Promise<string> =>
  fromUtf8(await open(await key(keys), new Uint8Array(sealed), ["provider", what, id]));
