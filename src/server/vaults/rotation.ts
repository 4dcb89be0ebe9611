/**
 * Rotation of a vault's key. A new version of the key seals whatever is written from then on; what earlier versions
 * sealed is sealed anew piece by piece, beside the work of people. Every blob names the version of its key and changes
 * together with it, so that it opens at each moment, however often this is stopped, ended or run twice at once. An
 * earlier version goes once nothing has needed it for a while, and the database refuses to let it go before.
 */
import { and, desc, eq, inArray, isNotNull, isNull, lt, notExists, sql } from "drizzle-orm";
import { z } from "zod";
import { requireLevel } from "../access/load";
import { nodeName } from "../access/nodeName";
import { type Context, command, idSchema, none, query } from "../command";
import { inJson } from "../database/bulk";
import type { Reader } from "../database/client";
import {
  attachmentPieces,
  attachments,
  entryVersions,
  imports,
  places,
  signIns,
  vaultKeys,
  vaults,
} from "../database/schema";
import type { Galtry } from "../galtry";
import { endLease, holdLease, LEASE_MS } from "../lease";
import { timeZone } from "../organisation";
import { notFound, Refused } from "../refused";
import { dropCodes } from "../signin/askedCodes";
import { resealChanges } from "../signin/passwordChanges";
import { resealJars } from "../signin/sealed";
import { dropPictures } from "../signin/testing";
import { openPiece, openVersion, orSealError, sealPiece, sealValues } from "./sealing";
import { rotation as t } from "./strings";
import { makeVaultKey, vaultKey } from "./vaultKeys";

/** Blobs that are sealed anew in one transaction; a piece of an attachment has a mebibyte. */
const VERSIONS_AT_ONCE = 50;
const PIECES_AT_ONCE = 2;
const JARS_AT_ONCE = 50;
/** Whoever has read a row finds its key for so long. */
export const UNUSED_MS = 10 * 60_000;

const inVault = z.strictObject({ vaultId: idSchema });

const byStewards = async (context: Context<{ vaultId: string }, Reader>) => {
  const { tx, input } = context;
  await requireLevel(context, input.vaultId, "steward");
  const keys = await keysOf(tx, input.vaultId);
  if (keys.length === 0) throw notFound();
  return { keys, newest: keys[0]!, name: await nodeName(tx, input.vaultId) };
};

/** The newest first. */
const keysOf = (tx: Reader, vaultId: string) =>
  tx.select().from(vaultKeys).where(eq(vaultKeys.vaultId, vaultId)).orderBy(desc(vaultKeys.version));

const line =
  (details: (allowed: Awaited<ReturnType<typeof byStewards>>) => Record<string, string | number>) =>
  ({ input, allowed }: { input: { vaultId: string }; allowed: Awaited<ReturnType<typeof byStewards>> }) => ({
    node: input.vaultId,
    vault: input.vaultId,
    details: details(allowed),
    names: { [input.vaultId]: allowed.name },
  });

type Key = typeof vaultKeys.$inferSelect;
const underWay = (keys: readonly Key[]) =>
  keys.some(({ version, unusedSince }) => version !== keys[0]!.version && unusedSince === null);

export const rotateKey = command({
  name: "vaults.rotateKey",
  input: inVault,
  by: ["person"],
  allow: byStewards,
  run: async ({ tx, input, at, app, allowed: { keys, newest } }) => {
    if (underWay(keys)) throw new Refused("conflict", t.theKeyOfThisVaultIsAlready);
    await makeVaultKey(tx, app.keys, input.vaultId, at, newest.version + 1);
  },
  journal: line(({ newest }) => ({ version: newest.version + 1 })),
  says: ({ place }) => `rotated the encryption key${place("of")}`,
  tell: ({ input }) => [`vault:${input.vaultId}`],
});

/** For the operator: a new key for every vault whose key is not being rotated. */
export const rotateAllKeys = command({
  name: "vaults.rotateAllKeys",
  input: none,
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, at, app }) => {
    const rotated: { vaultId: string; name: string; version: number }[] = [];
    const all = await tx.select({ vaultId: vaults.nodeId, name: vaults.name }).from(vaults);
    for (const { vaultId, name } of all) {
      const keys = await keysOf(tx, vaultId);
      if (keys.length === 0 || underWay(keys)) continue;
      const version = keys[0]!.version + 1;
      await makeVaultKey(tx, app.keys, vaultId, at, version);
      rotated.push({ vaultId, name, version });
    }
    return { rotated, of: all.length };
  },
  journal: ({ result }) =>
    result.rotated.map(({ vaultId, name, version }) => ({
      ...{ node: vaultId, vault: vaultId, details: { version }, names: { [vaultId]: name } },
    })),
  says: ({ place }) => `rotated the encryption key${place("of")}`,
  tell: ({ result }) => result.rotated.map(({ vaultId }) => `vault:${vaultId}` as const),
});

/** Stops the rest of it, or goes on. What is sealed anew by then stays so. */
export const stopRotation = command({
  name: "vaults.stopRotation",
  input: inVault.extend({ stopped: z.boolean() }),
  by: ["person"],
  allow: byStewards,
  run: async ({ tx, input, at, allowed: { newest } }) => {
    await tx
      .update(vaultKeys)
      .set({ stoppedAt: input.stopped ? at : null })
      .where(and(eq(vaultKeys.vaultId, input.vaultId), eq(vaultKeys.version, newest.version)));
  },
  journal: ({ input, allowed }) => ({ ...line(() => ({}))({ input, allowed }), details: { stopped: input.stopped } }),
  says: ({ details, place }) =>
    `${details.stopped ? "stopped" : "resumed"} the rotation of the encryption key${place("of")}`,
  tell: ({ input }) => [`vault:${input.vaultId}`],
});

/** For the vault's stewards: how old its key is, and how far a rotation has come. */
export const keyState = query({
  name: "vaults.keyState",
  input: inVault,
  by: ["person"],
  allow: byStewards,
  run: async ({ tx, input, at, allowed: { keys, newest } }) => {
    const [sealed] = await tx.all<{ all: number; left: number }>(sql`
      select count(*) as "all", coalesce(sum(key_version < ${newest.version}), 0) as "left" from (
        select key_version from entry_versions where vault_id = ${input.vaultId}
        union all
        select coalesce(p.key_version, a.key_version) from attachments a
          join attachment_pieces p on p.attachment_id = a.id where a.vault_id = ${input.vaultId})`);
    return {
      version: newest.version,
      madeAt: newest.createdAt,
      stopped: newest.stoppedAt !== null,
      rotating: underWay(keys),
      all: sealed?.all ?? 0,
      left: sealed?.left ?? 0,
      now: at,
      zone: await timeZone(tx),
    };
  },
});

/** Under an earlier version than the newest. */
const olderVersions = (tx: Reader, vaultId: string, newest: number, without: readonly string[]) =>
  tx
    .select()
    .from(entryVersions)
    .where(
      and(
        eq(entryVersions.vaultId, vaultId),
        lt(entryVersions.keyVersion, newest),
        sql`not ${inJson(entryVersions.id, without)}`,
      ),
    )
    .limit(VERSIONS_AT_ONCE);

/** Those of attachments that are whole; what is still coming up is sealed by whoever sends it. */
const olderPieces = (tx: Reader, vaultId: string, newest: number, without: readonly string[]) =>
  tx
    .select({ file: attachments, piece: attachmentPieces })
    .from(attachments)
    .innerJoin(attachmentPieces, eq(attachmentPieces.attachmentId, attachments.id))
    .where(
      and(
        eq(attachments.vaultId, vaultId),
        lt(attachments.keyVersion, newest),
        sql`${attachments.completeAt} is not null`,
        sql`coalesce(${attachmentPieces.keyVersion}, ${attachments.keyVersion}) < ${newest}`,
        sql`not ${inJson(attachments.id, without)}`,
      ),
    )
    .limit(PIECES_AT_ONCE);

const olderJars = (tx: Reader, vaultId: string, newest: number) =>
  tx
    .select({ id: signIns.id, jar: signIns.jar, keyVersion: signIns.keyVersion })
    .from(places)
    .innerJoin(signIns, eq(signIns.entryId, places.nodeId))
    .where(
      and(
        eq(places.vaultId, vaultId),
        isNull(places.validUntil),
        isNotNull(signIns.jar),
        lt(signIns.keyVersion, newest),
      ),
    )
    .limit(JARS_AT_ONCE);

/** What was read, opened and sealed anew before the transaction that writes it. */
async function sealedAnew(app: Galtry, vaultId: string, damaged: readonly string[]) {
  const [newest] = await keysOf(app.db, vaultId);
  if (!newest || newest.stoppedAt !== null) return null;
  const fresh = await vaultKey(app.db, app.keys, vaultId, newest.version);
  const broken: string[] = [];
  const versions = [];
  for (const row of await olderVersions(app.db, vaultId, newest.version, damaged)) {
    const old = await vaultKey(app.db, app.keys, vaultId, row.keyVersion);
    const values = await openVersion(old.key, row).catch(orSealError);
    if (values) versions.push({ row, sealed: sealValues(fresh, { ...row, versionId: row.id }, values).sealed });
    else broken.push(row.id);
  }
  const pieces = [];
  if (versions.length + broken.length === 0)
    for (const { file, piece } of await olderPieces(app.db, vaultId, newest.version, damaged)) {
      const old = await vaultKey(app.db, app.keys, vaultId, piece.keyVersion ?? file.keyVersion);
      const bytes = await openPiece(old, file, piece.number, piece.sealed).catch(orSealError);
      if (bytes) pieces.push({ file, piece, sealed: await sealPiece(fresh, file, piece.number, bytes) });
      else broken.push(file.id);
    }
  return { newest: newest.version, versions, pieces, broken };
}

/** Some of what earlier versions of the key sealed, sealed anew. */
export const rotateSome = command({
  name: "vaults.rotateSome",
  input: inVault.extend({ damaged: z.array(z.string()) }),
  by: ["server"],
  internal: true,
  lowPriority: true,
  prepare: ({ input, app }) => sealedAnew(app, input.vaultId, input.damaged),
  allow: () => undefined,
  run: async ({ tx, input: { vaultId }, app, prepared }) => {
    const [newest] = await keysOf(tx, vaultId);
    // Somebody stopped it, or another version came meanwhile: what was sealed anew is of no use.
    if (!prepared || !newest || newest.stoppedAt !== null || newest.version !== prepared.newest)
      return { more: false, moved: 0, broken: [] };
    const { version } = newest;
    for (const { row, sealed } of prepared.versions)
      await tx
        .update(entryVersions)
        .set({ sealed, keyVersion: version })
        .where(
          and(
            eq(entryVersions.id, row.id),
            eq(entryVersions.vaultId, vaultId),
            eq(entryVersions.keyVersion, row.keyVersion),
          ),
        );
    // What went to another vault and came back meanwhile was sealed anew on the way, and is not this piece any more.
    for (const { file, piece, sealed } of prepared.pieces)
      await tx
        .update(attachmentPieces)
        .set({ sealed, keyVersion: version })
        .where(
          and(
            eq(attachmentPieces.attachmentId, file.id),
            eq(attachmentPieces.number, piece.number),
            sql`coalesce(${attachmentPieces.keyVersion}, ${file.keyVersion}) = ${piece.keyVersion ?? file.keyVersion}`,
            inArray(
              attachmentPieces.attachmentId,
              tx
                .select({ id: attachments.id })
                .from(attachments)
                .where(
                  and(
                    eq(attachments.id, file.id),
                    eq(attachments.vaultId, vaultId),
                    eq(attachments.keyVersion, file.keyVersion),
                  ),
                ),
            ),
          ),
        );
    const wholes = [...new Set(prepared.pieces.map(({ file }) => file.id))];
    if (wholes.length > 0)
      await tx
        .update(attachments)
        .set({ keyVersion: version })
        .where(
          and(
            inArray(attachments.id, wholes),
            eq(attachments.vaultId, vaultId),
            notExists(
              tx
                .select({ one: sql`1` })
                .from(attachmentPieces)
                .where(
                  and(
                    eq(attachmentPieces.attachmentId, attachments.id),
                    sql`coalesce(${attachmentPieces.keyVersion}, 0) < ${version}`,
                  ),
                ),
            ),
          ),
        );
    const { broken } = prepared;
    const blobs = prepared.versions.length + prepared.pieces.length;
    const jars = blobs + broken.length === 0 ? await olderJars(tx, vaultId, version) : [];
    await resealJars(tx, app, jars, vaultId, vaultId);
    await dropPictures(tx, { vaultId, before: version });
    await dropCodes(tx, vaultId, version);
    await resealChanges(tx, app, { vaultId, before: version }, vaultId, vaultId);
    const moved = blobs + jars.length;
    return { more: moved + broken.length > 0, moved, broken };
  },
  journal: null,
  tell: () => [],
});

/** Earlier versions that nothing needs: marked, and after a while dropped. */
export const dropKeys = command({
  name: "vaults.dropKeys",
  input: inVault,
  by: ["server"],
  internal: true,
  lowPriority: true,
  allow: () => undefined,
  run: async ({ tx, input: { vaultId }, at }) => {
    const [newest, ...earlier] = await keysOf(tx, vaultId);
    if (!newest || earlier.length === 0) return;
    const needed = await tx.all<{ version: number | null }>(sql`
      select distinct key_version as "version" from entry_versions
        where vault_id = ${vaultId} and key_version < ${newest.version}
      union select a.key_version from attachments a where a.vault_id = ${vaultId} and a.key_version < ${newest.version}
      union select p.key_version from attachments a join attachment_pieces p on p.attachment_id = a.id
        where a.vault_id = ${vaultId} and p.key_version < ${newest.version}
      union select s.key_version from places p join sign_ins s on s.entry_id = p.node_id and s.jar is not null
        where p.vault_id = ${vaultId} and p.valid_until is null and s.key_version < ${newest.version}
      union select c.key_version from places p join password_changes c on c.entry_id = p.node_id and c.sealed is not null
        where p.vault_id = ${vaultId} and p.valid_until is null and c.key_version < ${newest.version}`);
    // What is being brought in was sealed with the version that was the newest when it came, and lies apart until then.
    const [open] = await tx
      .select({ id: imports.id })
      .from(imports)
      .where(and(eq(imports.vaultId, vaultId), isNull(imports.publishedAt), isNull(imports.cancelledAt)))
      .limit(1);
    for (const { version, unusedSince } of earlier) {
      const here = and(eq(vaultKeys.vaultId, vaultId), eq(vaultKeys.version, version));
      const used = open !== undefined || needed.some((one) => one.version === version);
      if (!used && unusedSince !== null && at - unusedSince >= UNUSED_MS) await tx.delete(vaultKeys).where(here);
      else if (used === (unusedSince !== null))
        await tx
          .update(vaultKeys)
          .set({ unusedSince: used ? null : at })
          .where(here);
    }
  },
  journal: null,
  tell: () => [],
});

const WORK = "vaults.rotate";
const SERVER = { kind: "server" } as const;

/** Where nothing could be done, it is looked at again after so long, or once another key is rotated. */
const IDLE_MS = 60_000;

/** Goes on with every rotation that is under way, in one process at a time. */
export class Rotating {
  #busy = false;
  #closed = false;
  #idle = { since: 0, vaults: "" };

  constructor(private readonly app: Galtry) {}

  /** Ends after the blobs that it is at. */
  close = () => {
    this.#closed = true;
  };

  /** @returns how many vaults it went on with; null where another look is still under way, here or elsewhere */
  async look(at = Date.now()): Promise<number | null> {
    if (this.#busy) return null;
    this.#busy = true;
    try {
      const turning = await this.app.db.all<{ vaultId: string; version: number }>(sql`
        select n.vault_id as "vaultId", n.version as "version" from vault_keys n
        where n.stopped_at is null
          and not exists (select 1 from vault_keys l where l.vault_id = n.vault_id and l.version > n.version)
          and exists (select 1 from vault_keys e where e.vault_id = n.vault_id and e.version < n.version)`);
      const these = JSON.stringify(turning);
      if (turning.length === 0 || (these === this.#idle.vaults && at - this.#idle.since < IDLE_MS)) return 0;
      if (!(await holdLease(this.app, WORK))) return null;
      let moved = false;
      try {
        for (const { vaultId } of turning) {
          moved = (await this.#rotate(vaultId)) || moved;
          if (this.#closed) break;
          await dropKeys.execute(this.app, { vaultId }, SERVER, at);
        }
      } finally {
        await endLease(this.app, WORK);
      }
      this.#idle = { since: at, vaults: moved ? "" : these };
      return turning.length;
    } finally {
      this.#busy = false;
    }
  }

  /** @returns whether anything was sealed anew */
  async #rotate(vaultId: string): Promise<boolean> {
    const damaged: string[] = [];
    let moved = false;
    let held = Date.now();
    for (let more = true; more && !this.#closed; ) {
      const done = await rotateSome.execute(this.app, { vaultId, damaged }, SERVER);
      more = done.more;
      moved ||= done.moved > 0;
      damaged.push(...done.broken);
      if (Date.now() - held > LEASE_MS / 3) {
        held = Date.now();
        if (!(await holdLease(this.app, WORK))) break;
      }
    }
    return moved;
  }
}
