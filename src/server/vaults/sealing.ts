/**
 * Vault keys and what they seal. A version's identifiers and secrets are one blob, bound to vault, entry and
 * version: moved to another row it does not open.
 */
import { createHmac } from "node:crypto";
import { and, desc, eq } from "drizzle-orm";
import { type Bytes, fromUtf8, KEY_LENGTH, open, randomBytes, seal, toHex, utf8 } from "../../core/crypto";
import { PASSWORD, USER_NAME } from "../../core/kinds/kind";
import type { CodeSettings } from "../../core/signin/code";
import type { Reader, Transaction } from "../database/client";
import { type attachments, type entryVersions, vaultKeys } from "../database/schema";
import type { KeyRing } from "../keys/keyFile";

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

const keyBinding = (vaultId: string, version: number) => ["vault key", vaultId, String(version)] as const;
const versionBinding = (vaultId: string, entryId: string, versionId: string) =>
  ["entry version", vaultId, entryId, versionId] as const;

export async function makeVaultKey(tx: Transaction, keys: KeyRing, vaultId: string, at: number): Promise<void> {
  const wrapped = await seal(keys.vaults, randomBytes(KEY_LENGTH), keyBinding(vaultId, 1));
  await tx.insert(vaultKeys).values({ vaultId, version: 1, wrapped: Buffer.from(wrapped), createdAt: at });
}

/** The newest key of a vault, or the one of a version. */
export async function vaultKey(tx: Reader, keys: KeyRing, vaultId: string, version?: number) {
  const [row] = await tx
    .select()
    .from(vaultKeys)
    .where(
      version === undefined
        ? eq(vaultKeys.vaultId, vaultId)
        : and(eq(vaultKeys.vaultId, vaultId), eq(vaultKeys.version, version)),
    )
    .orderBy(desc(vaultKeys.version))
    .limit(1);
  if (!row) throw new Error("a vault has no key");
  return { version: row.version, key: await unwrap(keys, vaultId, row.version, row.wrapped) };
}

export type VaultKey = Awaited<ReturnType<typeof vaultKey>>;

const MOST_UNWRAPPED = 500;
/** Unwrapped keys, by their wrapped form: held as long as the root key that opens them. */
const unwrapped = new WeakMap<KeyRing, Map<string, Promise<Bytes>>>();

function unwrap(keys: KeyRing, vaultId: string, version: number, wrapped: Uint8Array): Promise<Bytes> {
  const held = unwrapped.get(keys) ?? new Map<string, Promise<Bytes>>();
  unwrapped.set(keys, held);
  const mark = `${vaultId} ${version} ${toHex(wrapped)}`;
  const known = held.get(mark);
  if (known) return known;
  if (held.size >= MOST_UNWRAPPED) held.clear();
  const key = open(keys.vaults, wrapped, keyBinding(vaultId, version));
  held.set(mark, key);
  key.catch(() => held.delete(mark));
  return key;
}

/** With the newest key of the vault. */
export async function sealValues(
  { version, key }: VaultKey,
  ids: { vaultId: string; entryId: string; versionId: string },
  values: SealedValues,
) {
  const sealed = await seal(key, utf8(JSON.stringify(values)), versionBinding(ids.vaultId, ids.entryId, ids.versionId));
  return { keyVersion: version, sealed: Buffer.from(sealed) };
}

/** @throws SealError when the blob is not this version's own */
export async function openValues(
  tx: Reader,
  keys: KeyRing,
  row: Pick<typeof entryVersions.$inferSelect, "id" | "entryId" | "vaultId" | "keyVersion" | "sealed">,
): Promise<SealedValues> {
  const { key } = await vaultKey(tx, keys, row.vaultId, row.keyVersion);
  return JSON.parse(fromUtf8(await open(key, row.sealed, versionBinding(row.vaultId, row.entryId, row.id))));
}

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
export const fingerprint = (keys: KeyRing, field: string, value: string): string =>
  createHmac("sha256", keys.fingerprints).update(`${field}\u0000${value}`, "utf8").digest("hex");
