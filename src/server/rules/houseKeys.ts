/** The keys of the house, for its owners: how old each is, and rotating those of the vaults, all at once or some. */
import { statSync } from "node:fs";
import { and, asc, eq, sql } from "drizzle-orm";
import { z } from "zod";
import { byName } from "../byName";
import { type Context, command, idSchema, none, query } from "../command";
import type { Reader, Transaction } from "../database/client";
import { providers, vaultKeys } from "../database/schema";
import type { Galtry } from "../galtry";
import { keyFilePath } from "../keys/keyFile";
import { timeZone } from "../organisation";
import { requireJustProved } from "../people/waysIn/ways";
import { Refused } from "../refused";
import { makeVaultKey } from "../vaults/vaultKeys";
import { houseKeys as t } from "./strings";

const requireOwner = ({ role }: Pick<Context<unknown, Reader>, "role">): void => {
  if (role !== "owner") throw new Refused("not-allowed", t.onlyOwners);
};

export interface VaultKeyState {
  vaultId: string;
  name: string;
  version: number;
  madeAt: number;
  /** What earlier versions encrypted is being encrypted anew. */
  rotating: boolean;
  stopped: boolean;
}

/** Of each vault the newest version of its key. */
async function vaultKeyStates(tx: Reader): Promise<VaultKeyState[]> {
  const rows = await tx.all<Omit<VaultKeyState, "rotating" | "stopped"> & { rotating: number; stopped: number }>(sql`
    select k.vault_id as vaultId, v.name as name, k.version as version, k.created_at as madeAt,
      exists (select 1 from vault_keys e where e.vault_id = k.vault_id and e.version < k.version
        and e.unused_since is null) as rotating,
      k.stopped_at is not null as stopped
    from vault_keys k join vaults v on v.node_id = k.vault_id
    where k.version = (select max(n.version) from vault_keys n where n.vault_id = k.vault_id)`);
  return rows
    .map((row) => ({ ...row, rotating: row.rotating === 1, stopped: row.stopped === 1 && row.rotating === 1 }))
    .sort(byName);
}

/** When the key file was last wrapped anew: at the start, or as the root key was rotated. */
const wrappedAt = (app: Galtry): number => Math.round(statSync(keyFilePath(app.configuration.dataFolder)).mtimeMs);

export const houseKeys = query({
  name: "rules.houseKeys",
  input: none,
  by: ["person"],
  allow: requireOwner,
  run: async ({ tx, app }) => ({
    vaults: await vaultKeyStates(tx),
    root: { number: app.keys.generation, at: wrappedAt(app) },
    providers: await tx
      .select({ id: providers.id, name: providers.name, secretAt: providers.secretAt, scimAt: providers.scimAt })
      .from(providers)
      .orderBy(asc(providers.name)),
    zone: await timeZone(tx),
  }),
});

const some = z.strictObject({ vaultIds: z.array(idSchema).min(1).max(1_000) });

async function statesOf(tx: Reader, vaultIds: readonly string[]): Promise<VaultKeyState[]> {
  const wanted = new Set(vaultIds);
  return (await vaultKeyStates(tx)).filter(({ vaultId }) => wanted.has(vaultId));
}

const lines = (rows: readonly VaultKeyState[], details: (row: VaultKeyState) => Record<string, number | boolean>) =>
  rows.map((row) => ({
    ...{ node: row.vaultId, vault: row.vaultId, details: details(row), names: { [row.vaultId]: row.name } },
  }));

/** A new key for each that is not being rotated; what is there is encrypted anew beside the work of people. */
export const rotateVaultKeys = command({
  name: "rules.rotateVaultKeys",
  input: some,
  by: ["person"],
  allow: (context) => {
    requireOwner(context);
    requireJustProved(context);
  },
  run: async ({ tx, input, at, app }) => {
    const resting = (await statesOf(tx, input.vaultIds)).filter(({ rotating }) => !rotating);
    if (resting.length === 0) throw new Refused("conflict", t.allAreBeingRotated);
    for (const { vaultId, version } of resting) await makeVaultKey(tx, app.keys, vaultId, at, version + 1);
    return resting;
  },
  journal: ({ result }) => lines(result, ({ version }) => ({ version: version + 1 })),
  says: ({ place }) => `rotated the encryption key${place("of")}`,
  tell: ({ result }) => result.map(({ vaultId }) => `vault:${vaultId}` as const),
});

/** Stops what is under way, or goes on with it. */
export const stopVaultKeys = command({
  name: "rules.stopVaultKeys",
  input: some.extend({ stopped: z.boolean() }),
  by: ["person"],
  allow: requireOwner,
  run: async ({ tx, input: { vaultIds, stopped }, at }) => {
    const those = (await statesOf(tx, vaultIds)).filter((row) => row.rotating && row.stopped !== stopped);
    for (const row of those) await setStopped(tx, row, stopped ? at : null);
    return those;
  },
  journal: ({ input, result }) => lines(result, () => ({ stopped: input.stopped })),
  says: ({ details, place }) =>
    `${details.stopped ? "stopped" : "resumed"} the rotation of the encryption key${place("of")}`,
  tell: ({ result }) => result.map(({ vaultId }) => `vault:${vaultId}` as const),
});

const setStopped = (tx: Transaction, { vaultId, version }: VaultKeyState, stoppedAt: number | null) =>
  tx
    .update(vaultKeys)
    .set({ stoppedAt })
    .where(and(eq(vaultKeys.vaultId, vaultId), eq(vaultKeys.version, version)));
