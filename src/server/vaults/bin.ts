/** Entries put in the bin, back from it, and deleted for good. */
import { and, eq, inArray, isNotNull, isNull, lt, sql } from "drizzle-orm";
import { z } from "zod";
import { BIN_DAYS } from "../../core/binDays";
import { refuseWithoutSteward } from "../access/grants";
import { type Asking, requireLevel } from "../access/load";
import { requireYes } from "../access/requests/approvals";
import { personIdOf } from "../caller";
import { command, idSchema } from "../command";
import type { Transaction } from "../database/client";
import { entries, folders, places } from "../database/schema";
import { uuidv7 } from "../ids";
import { tellStewards } from "../people/telling";
import { notFound, Refused } from "../refused";
import { requireEntries, requireEntry, severalIds } from "./entries";
import { eraseNodes } from "./erasing";
import { idsBelow, requirePlace } from "./folders";
import { bin as t } from "./strings";
import type { EntryRow } from "./writing";

const NOT_BINNED = { binnedAt: null, binnedBy: null, binnedWith: null };

export const binEntry = command({
  name: "vaults.binEntry",
  input: z.strictObject({ entryIds: severalIds }),
  by: ["person"],
  allow: (context) => requireEntries(context, context.input.entryIds, "steward"),
  run: async ({ tx, input, caller, at }) => {
    await tx
      .update(entries)
      .set({ binnedAt: at, binnedBy: personIdOf(caller) })
      .where(inArray(entries.nodeId, input.entryIds));
  },
  journal: ({ allowed }) => allowed.lines(),
  says: ({ it }) => `put ${it} in the bin`,
  tell: ({ allowed }) => allowed.topics,
});

/** So long what somebody added with Lanyard can be taken back by the one who added it. */
const UNDO_MS = 10 * 60_000;

/** Taken back right after it was added, unchanged, by whoever added it: into the bin. */
export const undoAdd = command({
  name: "vaults.undoAdd",
  input: z.strictObject({ entryId: idSchema }),
  by: ["lanyard"],
  allow: async (context) => {
    const { me, at, input } = context;
    const allowed = await requireEntry(context, input.entryId, "edit");
    const { createdBy, createdAt, changedAt } = allowed.entry;
    if (createdBy !== me.id || changedAt !== createdAt || at - createdAt > UNDO_MS)
      throw new Refused("conflict", t.thisCanNoLongerBeUndone);
    return allowed;
  },
  run: async ({ tx, input, me, at }) => {
    await tx.update(entries).set({ binnedAt: at, binnedBy: me.id }).where(eq(entries.nodeId, input.entryId));
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    names: { [input.entryId]: allowed.entry.name },
  }),
  says: ({ it }) => `put ${it} in the bin, right after adding it`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

/** In the bin, for its stewards. */
async function requireBinned(context: Asking, entryIds: readonly string[]) {
  const found: { entry: EntryRow; vaultId: string; parentId: string }[] = [];
  for (const entryId of entryIds) {
    const allowed = await requireLevel(context, entryId, "steward");
    const [entry] = await context.tx.select().from(entries).where(eq(entries.nodeId, entryId));
    if (!entry) throw notFound();
    if (entry.binnedAt === null) throw new Refused("conflict", t.isNotInTheBin(entry.name));
    found.push({ entry, vaultId: allowed.vaultId, parentId: allowed.path[0].parentId! });
  }
  return found;
}

const linesOf = (found: Awaited<ReturnType<typeof requireBinned>>) =>
  found.map(({ entry, vaultId }) => ({ node: entry.nodeId, vault: vaultId, names: { [entry.nodeId]: entry.name } }));
const topicsOf = (found: Awaited<ReturnType<typeof requireBinned>>) =>
  found.map(({ vaultId }) => `vault:${vaultId}` as const);

/** To where it was, or to the place that is said: the way back when its folder lies in the bin. */
export const restoreEntry = command({
  name: "vaults.restoreEntry",
  input: z.strictObject({ entryIds: severalIds, parentId: idSchema.optional() }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input } = context;
    const found = await requireBinned(context, input.entryIds);
    const place = input.parentId === undefined ? null : await requirePlace(context, input.parentId, "edit");
    // Elsewhere others may be its stewards, and say the yes.
    if (place)
      for (const { entry, parentId } of found) if (parentId !== input.parentId) await requireYes(context, entry);
    for (const { vaultId, parentId } of found) {
      if (place && place.vaultId !== vaultId)
        throw new Refused("bad-input", t.restoreItWithinItsVaultFirst, "parentId");
      if (place) continue;
      const [folder] = await tx.select().from(folders).where(eq(folders.nodeId, parentId));
      if (folder && folder.binnedAt !== null)
        throw new Refused("conflict", t.itIsInTheFolderWhichIs(folder.name), undefined, { placeGone: true });
    }
    return found;
  },
  run: async (context) => {
    const { tx, input, at, commandId, allowed } = context;
    await tx.update(entries).set(NOT_BINNED).where(inArray(entries.nodeId, input.entryIds));
    const { parentId } = input;
    if (parentId === undefined) return;
    for (const { entry, vaultId } of allowed.filter((one) => one.parentId !== parentId))
      await refuseWithoutSteward(context, entry.nodeId, async () => {
        await tx
          .update(places)
          .set({ validUntil: at })
          .where(and(eq(places.nodeId, entry.nodeId), isNull(places.validUntil)));
        await tx
          .insert(places)
          .values({ id: uuidv7(), nodeId: entry.nodeId, parentId, vaultId, validFrom: at, commandId });
      });
  },
  journal: ({ allowed }) => linesOf(allowed),
  says: ({ it }) => `restored ${it}`,
  tell: ({ allowed }) => topicsOf(allowed),
});

export const eraseEntry = command({
  name: "vaults.eraseEntry",
  input: z.strictObject({ entryIds: severalIds }),
  by: ["person"],
  allow: (context) => requireBinned(context, context.input.entryIds),
  run: async ({ tx, input, me, at }) => {
    await tellStewards(tx, input.entryIds, (node) => t.deletedForGood(me.name, node), at, me.id);
    await eraseNodes(tx, input.entryIds, at);
  },
  journal: ({ allowed }) => linesOf(allowed),
  says: ({ it }) => `deleted ${it} for good`,
  tell: ({ allowed }) => topicsOf(allowed),
});

/** With all that lies in it, also what lay in the bin before it. */
export const eraseFolder = command({
  name: "vaults.eraseFolder",
  input: z.strictObject({ folderId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input } = context;
    const allowed = await requireLevel(context, input.folderId, "steward");
    const [folder] = await tx.select().from(folders).where(eq(folders.nodeId, input.folderId));
    if (!folder) throw notFound();
    if (folder.binnedAt === null) throw new Refused("conflict", t.thisFolderIsNotInTheBin);
    const below = await idsBelow(tx, input.folderId);
    for (const id of below) await requireLevel(context, id, "steward");
    return { ...allowed, folder, below };
  },
  run: async ({ tx, input, me, at, allowed }) => {
    const says = (node: string) => t.deletedTheFolderForGoodWith(me.name, node);
    await tellStewards(tx, [input.folderId], says, at, me.id);
    return eraseBelow(tx, allowed.below, at);
  },
  journal: ({ input, result, allowed }) => ({
    node: input.folderId,
    vault: allowed.vaultId,
    details: { things: result },
    names: { [input.folderId]: allowed.folder.name },
  }),
  says: ({ it }) => `deleted ${it} for good, with everything in it`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

async function eraseBelow(tx: Transaction, ids: readonly string[], at: number): Promise<number> {
  const kept = await tx
    .select({ id: entries.nodeId })
    .from(entries)
    .where(inArray(entries.nodeId, [...ids]));
  await eraseNodes(tx, ids, at);
  return kept.length;
}

/** So many in one go, so that nobody waits for it. */
const SWEPT_AT_ONCE = 100;

/** What lay in the bin for its days is deleted for good. Says whether there may be more. */
export const emptyBins = command({
  name: "vaults.emptyBins",
  input: z.strictObject({}),
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, at }) => {
    const over = at - BIN_DAYS * 24 * 3_600_000;
    const rows = await tx
      .select({ id: entries.nodeId, name: entries.name, vaultId: places.vaultId })
      .from(entries)
      .innerJoin(places, and(eq(places.nodeId, entries.nodeId), isNull(places.validUntil)))
      .where(and(isNotNull(entries.binnedAt), lt(entries.binnedAt, over)))
      .limit(SWEPT_AT_ONCE);
    await eraseNodes(
      tx,
      rows.map((row) => row.id),
      at,
    );
    // Folders go once nothing lies in them.
    const empty = await tx.all<{ id: string }>(sql`
      select f.node_id as id from folders f where f.binned_at < ${over} and not exists (
        select 1 from places p where p.parent_id = f.node_id and p.valid_until is null)`);
    await eraseNodes(
      tx,
      empty.map((row) => row.id),
      at,
    );
    return { rows, more: rows.length === SWEPT_AT_ONCE || empty.length > 0 };
  },
  journal: ({ result }) =>
    result.rows.map((row) => ({ node: row.id, vault: row.vaultId, person: null, names: { [row.id]: row.name } })),
  says: ({ it }) => `deleted ${it} for good after ${BIN_DAYS} days in the bin`,
  tell: ({ result }) => result.rows.map((row) => `vault:${row.vaultId}` as const),
});
