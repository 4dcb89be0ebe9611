/** Vault keys: made, kept wrapped by the root key's own, and what they have sealed opened. */
import { and, desc, eq } from "drizzle-orm";
import { type Bytes, KEY_LENGTH, open, randomBytes, seal, toHex } from "../../core/crypto";
import { onceIn, type Reader, type Transaction } from "../database/client";
import { vaultKeys } from "../database/schema";
import type { KeyRing } from "../keys/keyFile";
import { openVersion, type SealedValues, type SealedVersion, type VaultKey } from "./sealing";

const keyBinding = (vaultId: string, version: number) => ["vault key", vaultId, String(version)] as const;

/** @param version one more than that of the vault's newest key; what is sealed from now on is sealed with this one */
export async function makeVaultKey(
  tx: Transaction,
  keys: KeyRing,
  vaultId: string,
  at: number,
  version = 1,
): Promise<void> {
  const wrapped = await seal(keys.vaults, randomBytes(KEY_LENGTH), keyBinding(vaultId, version));
  await tx.insert(vaultKeys).values({ vaultId, version, wrapped: Buffer.from(wrapped), createdAt: at });
}

/** The newest key of a vault, or the one of a version. */
export async function vaultKey(tx: Reader, keys: KeyRing, vaultId: string, version?: number): Promise<VaultKey> {
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

/** @throws SealError when the blob is not this version's own */
export async function openValues(tx: Reader, keys: KeyRing, row: SealedVersion): Promise<SealedValues> {
  // A page opens many versions of one vault.
  const { key } = await onceIn(tx, `vault key ${row.vaultId} ${row.keyVersion}`, () =>
    vaultKey(tx, keys, row.vaultId, row.keyVersion),
  );
  return openVersion(key, row);
}
