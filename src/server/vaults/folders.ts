/** Folders of a vault: made, renamed, put in the bin and back as one thing. */
import { and, eq, inArray, isNull, sql } from "drizzle-orm";
import { z } from "zod";
import type { Level } from "../../core/access";
import { type Asking, loadPath, requireLevel } from "../access/load";
import { personIdOf } from "../caller";
import { command, idSchema, nameSchema } from "../command";
import type { Reader } from "../database/client";
import { entries, folders, nodes, places, vaults } from "../database/schema";
import { uuidv7 } from "../ids";
import { notFound, Refused } from "../refused";
import { folders as t } from "./strings";

/** Deeper than this nobody finds anything; it also bounds the walks. */
export const DEEPEST = 30;

/** @throws Refused for what is no place: entries, and folders that are not there or lie in the bin */
export async function requirePlace(context: Asking, parentId: string, needed: Level) {
  const { tx } = context;
  const path = await loadPath(tx, parentId);
  if (path[0]?.type !== "vault" && path[0]?.type !== "folder") throw notFound();
  const allowed = await requireLevel(context, parentId, needed);
  if (await isBinned(tx, parentId)) throw new Refused("conflict", t.thisFolderIsInTheBinRestore);
  const [vault] = await tx.select({ at: vaults.asideAt }).from(vaults).where(eq(vaults.nodeId, allowed.vaultId));
  if (vault && vault.at !== null) throw new Refused("conflict", t.thisVaultIsSetAsideBringIt);
  return { ...allowed, depth: path.length };
}

export async function isBinned(tx: Reader, nodeId: string): Promise<boolean> {
  const [entry] = await tx.select({ at: entries.binnedAt }).from(entries).where(eq(entries.nodeId, nodeId));
  const [folder] = await tx.select({ at: folders.binnedAt }).from(folders).where(eq(folders.nodeId, nodeId));
  return (entry ?? folder)?.at != null;
}

/** How many folders lie within one another in this one, itself included. */
export async function heightOf(tx: Reader, folderId: string): Promise<number> {
  const inside = new Set(await idsBelow(tx, folderId));
  let most = 1;
  for (const id of inside) {
    const path = await loadPath(tx, id);
    if (path[0]?.type === "folder") most = Math.max(most, path.findIndex((node) => node.id === folderId) + 1);
  }
  return most;
}

async function requireFolder(context: Asking, folderId: string, needed: Level) {
  const allowed = await requireLevel(context, folderId, needed);
  const [folder] = await context.tx.select().from(folders).where(eq(folders.nodeId, folderId));
  if (!folder) throw notFound();
  return { ...allowed, folder };
}

export const createFolder = command({
  name: "vaults.createFolder",
  input: z.strictObject({ parentId: idSchema, name: nameSchema }),
  by: ["person"],
  allow: async (context) => {
    const allowed = await requirePlace(context, context.input.parentId, "edit");
    if (allowed.depth > DEEPEST) throw new Refused("bad-input", t.foldersNestAtMostDeep(DEEPEST), "parentId");
    return allowed;
  },
  run: async ({ tx, input, caller, at, commandId, allowed }) => {
    const folderId = uuidv7();
    await tx.insert(nodes).values({ id: folderId, type: "folder", createdAt: at, createdBy: personIdOf(caller) });
    await tx.insert(places).values({
      id: uuidv7(),
      nodeId: folderId,
      parentId: input.parentId,
      vaultId: allowed.vaultId,
      validFrom: at,
      commandId,
    });
    await tx.insert(folders).values({ nodeId: folderId, name: input.name });
    return { folderId };
  },
  journal: ({ input, result, allowed }) => ({
    node: result.folderId,
    vault: allowed.vaultId,
    names: { [result.folderId]: input.name },
  }),
  says: ({ place }) => `created the folder${place("")}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

export const renameFolder = command({
  name: "vaults.renameFolder",
  input: z.strictObject({ folderId: idSchema, name: nameSchema }),
  by: ["person"],
  allow: (context) => requireFolder(context, context.input.folderId, "edit"),
  run: async ({ tx, input }) => {
    await tx.update(folders).set({ name: input.name }).where(eq(folders.nodeId, input.folderId));
  },
  journal: ({ input, allowed }) => ({
    node: input.folderId,
    vault: allowed.vaultId,
    names: { [input.folderId]: input.name },
  }),
  says: ({ it }) => `renamed ${it}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

/** Everything below a node, itself included. */
export async function idsBelow(tx: Reader, nodeId: string): Promise<string[]> {
  const rows = await tx.all<{ id: string }>(sql`
    with recursive down(id) as (
      select ${nodeId}
      union all
      select p.node_id from places p join down on p.parent_id = down.id where p.valid_until is null
    )
    select id from down`);
  return rows.map((row) => row.id);
}

/** With all that lies in it: nobody uses any of it, and it comes back as one thing. */
export const binFolder = command({
  name: "vaults.binFolder",
  input: z.strictObject({ folderId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    const allowed = await requireFolder(context, context.input.folderId, "steward");
    if (allowed.folder.binnedAt !== null) throw new Refused("conflict", t.thisFolderIsAlreadyInTheBin);
    const below = await idsBelow(context.tx, context.input.folderId);
    // Somebody else may be the only steward of something within: it is not taken away from them.
    for (const id of below) await requireWithin(context, id);
    return { ...allowed, below };
  },
  run: async ({ tx, input, caller, at, allowed }) => {
    const { folderId } = input;
    const gone = { binnedAt: at, binnedBy: personIdOf(caller) };
    for (const some of chunks(allowed.below)) {
      await tx
        .update(entries)
        .set({ ...gone, binnedWith: folderId })
        .where(and(inArray(entries.nodeId, some), isNull(entries.binnedAt)));
      await tx
        .update(folders)
        .set({ ...gone, binnedWith: folderId })
        .where(and(inArray(folders.nodeId, some), isNull(folders.binnedAt)));
    }
    return { things: allowed.below.length - 1 };
  },
  journal: ({ input, result, allowed }) => ({
    node: input.folderId,
    vault: allowed.vaultId,
    details: { things: result.things },
    names: { [input.folderId]: allowed.folder.name },
  }),
  says: ({ it }) => `put ${it} in the bin, with everything in it`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

async function requireWithin(context: Asking, nodeId: string): Promise<void> {
  try {
    await requireLevel(context, nodeId, "steward");
  } catch {
    throw new Refused("not-allowed", t.somethingInThisFolderHasOther);
  }
}

export const restoreFolder = command({
  name: "vaults.restoreFolder",
  input: z.strictObject({ folderId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    const allowed = await requireFolder(context, context.input.folderId, "steward");
    const { folder } = allowed;
    if (folder.binnedAt === null) throw new Refused("conflict", t.thisFolderIsNotInTheBin);
    if (folder.binnedWith !== folder.nodeId) throw new Refused("conflict", t.itWentIntoTheBinWithThe);
    return allowed;
  },
  run: async ({ tx, input }) => {
    const back = { binnedAt: null, binnedBy: null, binnedWith: null };
    await tx.update(entries).set(back).where(eq(entries.binnedWith, input.folderId));
    await tx.update(folders).set(back).where(eq(folders.binnedWith, input.folderId));
  },
  journal: ({ input, allowed }) => ({
    node: input.folderId,
    vault: allowed.vaultId,
    names: { [input.folderId]: allowed.folder.name },
  }),
  says: ({ it }) => `restored ${it}, with everything in it`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

/** SQLite takes so many values in one statement. */
function* chunks<T>(all: readonly T[], size = 500): Generator<T[]> {
  for (let i = 0; i < all.length; i += size) yield all.slice(i, i + size);
}
