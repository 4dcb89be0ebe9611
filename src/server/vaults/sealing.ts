/**
 * What vault keys seal. A version's identifiers and secrets are one blob, bound to vault, entry and version: moved to
 * another row it does not open. Nothing here reads the database, so that a thread beside the server's can seal too.
 */
import { createHmac } from "node:crypto";
import { type Bytes, open, SealError, seal } from "../../core/crypto";
import { PASSWORD, USER_NAME } from "../../core/kinds/kind";
import type { CodeSettings } from "../../core/signin/code";
import type { attachments, entryVersions } from "../database/schema";
import type { KeyRing } from "../keys/keyFile";
import { openNow, sealNow } from "./sealNow";

export interface SealedValues {
  /** Identifiers and secrets that are filled in, by field id; those of extra fields as `extra:ID`. */
  fields: Record<string, string>;
  code: CodeSettings | null;
}

/** What is typed into a sign-in page. */
export const loginOf = ({ fields, code }: SealedValues) => ({
  userName: fields[USER_NAME] ?? "",
  password: fields[PASSWORD] ?? "",
  code,
});

/** A vault's key, and which of its versions it is. */
export interface VaultKey {
  version: number;
  key: Bytes;
}

export type SealedVersion = Pick<
  typeof entryVersions.$inferSelect,
  "id" | "entryId" | "vaultId" | "keyVersion" | "sealed"
>;

/** For what goes on without a blob that does not open; throws whatever else is wrong. */
export function orSealError(error: unknown): null {
  if (error instanceof SealError) return null;
  throw error;
}

const versionBinding = (vaultId: string, entryId: string, versionId: string) =>
  ["entry version", vaultId, entryId, versionId] as const;

/** With the newest key of the vault. */
export function sealValues(
  { version, key }: VaultKey,
  ids: { vaultId: string; entryId: string; versionId: string },
  values: SealedValues,
) {
  const sealed = sealNow(key, JSON.stringify(values), versionBinding(ids.vaultId, ids.entryId, ids.versionId));
  return { keyVersion: version, sealed };
}

/** @throws SealError when the blob is not this version's own */
export const openVersion = async (key: Bytes, row: SealedVersion): Promise<SealedValues> =>
  JSON.parse(openNow(key, row.sealed, versionBinding(row.vaultId, row.entryId, row.id)));

type Attachment = Pick<typeof attachments.$inferSelect, "id" | "entryId" | "vaultId" | "pieces">;

/** A piece opens only as the one it is: in its place, of so many, of this attachment of this entry in this vault. */
const pieceBinding = (file: Attachment, number: number) =>
  ["attachment", file.vaultId, file.entryId, file.id, String(number), String(file.pieces)] as const;

export const sealPiece = async ({ key }: VaultKey, file: Attachment, number: number, piece: Uint8Array) =>
  Buffer.from(await seal(key, piece, pieceBinding(file, number)));

/** @throws SealError when it is not this piece of this attachment */
export const openPiece = ({ key }: VaultKey, file: Attachment, number: number, sealed: Uint8Array) =>
  open(key, sealed, pieceBinding(file, number));

/** Keyed fingerprint of a value: the same value in the same kind of field gives the same one. */
export const fingerprint = (keys: Pick<KeyRing, "fingerprints">, field: string, value: string): string =>
  createHmac("sha256", keys.fingerprints).update(`${field}\u0000${value}`, "utf8").digest("hex");
