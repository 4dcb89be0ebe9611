/**
 * Copies, and moves to another vault. A copy takes the current values, the attachments and who has seen them; no
 * grants and no earlier versions. A move to another vault seals all of it anew under that vault's key, and drops the
 * grants that were set on it.
 */
import { and, eq, inArray, isNull } from "drizzle-orm";
import { z } from "zod";
import { atLeast, type Level, type Step } from "../../core/access";
import { refuseWithoutSteward } from "../access/grants";
import { type Asking, loadPath, loadSteps, requireLevel } from "../access/load";
import { nodeName } from "../access/nodeName";
import { requireYes } from "../access/requests/approvals";
import { personIdOf } from "../caller";
import { type Context, command, idSchema, query } from "../command";
import type { Reader, Transaction } from "../database/client";
import {
  attachmentPieces,
  attachments,
  entries,
  entryVersions,
  folders,
  grants,
  nodes,
  places,
  separations,
  sightings,
} from "../database/schema";
import type { Galtry } from "../galtry";
import { uuidv7 } from "../ids";
import { tellStewards } from "../people/telling";
import { Refused } from "../refused";
import { resealChanges } from "../signin/passwordChanges";
import { moveJars } from "../signin/sealed";
import { dropPictures } from "../signin/testing";
import { currentMarks } from "./currentMarks";
import { duplicatePicture } from "./drawing";
import { DEEPEST, heightOf, idsBelow, isBinned, requirePlace } from "./folders";
import { kindOf } from "./kinds";
import { accessEffects, type MoveEffect } from "./moving";
import { openPiece, sealPiece, sealValues } from "./sealing";
import { copying as t } from "./strings";
import { openValues, vaultKey } from "./vaultKeys";
import { currentVersion, type EntryRow, valuesOfVersion, writeVersion } from "./writing";

const MOST_CARRIED = 500;

const carrying = z.strictObject({ nodeIds: z.array(idSchema).min(1).max(MOST_CARRIED), parentId: idSchema });
type Carrying = z.output<typeof carrying>;

/** What lies in the nodes and is not in the bin, folders before what is in them. */
async function carried(tx: Reader, nodeIds: readonly string[]) {
  const below: string[] = [];
  for (const id of nodeIds) below.push(...(await idsBelow(tx, id)));
  const ids = [...new Set(below)];
  const [kept, places_] = await Promise.all([
    tx.select().from(entries).where(inArray(entries.nodeId, ids)),
    tx
      .select({ nodeId: places.nodeId, parentId: places.parentId })
      .from(places)
      .where(and(inArray(places.nodeId, ids), isNull(places.validUntil))),
  ]);
  const inFolders = await tx.select().from(folders).where(inArray(folders.nodeId, ids));
  return {
    ids,
    entries: kept,
    folders: inFolders.sort((a, b) => ids.indexOf(a.nodeId) - ids.indexOf(b.nodeId)),
    parentOf: new Map(places_.map((row) => [row.nodeId, row.parentId!])),
  };
}

/** As what it would be at the new place, where no grants of its own stand on it. */
const bareAt =
  (above: readonly Step[]) =>
  (node: string): Step[] => [{ node, separate: false, grants: [] }, ...above];

async function requireCarry(context: Asking & { input: Carrying }, needed: Level) {
  const { tx, input, at } = context;
  const place = await requirePlace(context, input.parentId, "edit");
  const above = (await loadPath(tx, input.parentId)).map((node) => node.id);
  let fromVault = "";
  for (const nodeId of input.nodeIds) {
    const held = await requireLevel(context, nodeId, needed);
    fromVault = held.vaultId;
    const [node] = held.path;
    if (node!.type === "vault") throw new Refused("bad-input", t.aVaultCannotBeMovedOr, "nodeIds");
    if (above.includes(nodeId)) throw new Refused("bad-input", t.aFolderCannotGoIntoItself, "parentId");
    if (await isBinned(tx, nodeId)) throw new Refused("conflict", t.whatIsInTheBinCannotBe);
    if (node!.type === "folder" && place.depth + (await heightOf(tx, nodeId)) > DEEPEST)
      throw new Refused("bad-input", t.foldersNestAtMostDeep(DEEPEST), "parentId");
  }
  const load = await carried(tx, input.nodeIds);
  if (load.entries.length > MOST_CARRIED)
    throw new Refused("bad-input", t.atMostEntriesAtOnceThisWould(MOST_CARRIED, load.entries.length));
  for (const id of load.ids) await requireLevel(context, id, needed);
  const { steps } = await loadSteps(tx, input.parentId);
  const after = bareAt(steps);
  const effects = await accessEffects(tx, input.nodeIds, (_moved, id) => after(id), at);
  return { vaultId: place.vaultId, fromVault, load, effects };
}

const gained = (effects: readonly MoveEffect[]) =>
  effects.filter((one) => one.after !== "none" && !(one.before !== "none" && atLeast(one.before, one.after)));

/** Somebody would have more of the copy than of the entry: giving that is for its steward. */
async function requireCopy(context: Asking & { input: Carrying }) {
  const allowed = await requireCarry(context, "edit");
  if (gained(allowed.effects).length > 0 && !(await isStewardOf(context, allowed.load.ids)))
    throw new Refused("not-allowed", t.morePeopleWouldHaveAccessToThe);
  // A copy may have other stewards, who would say the yes.
  for (const entry of allowed.load.entries) await requireYes(context, entry);
  return allowed;
}

async function isStewardOf(context: Asking, ids: readonly string[]): Promise<boolean> {
  try {
    for (const id of ids) await requireLevel(context, id, "steward");
    return true;
  } catch (error) {
    if (error instanceof Refused) return false;
    throw error;
  }
}

async function requireMoveAcross(context: Asking & { input: Carrying }) {
  const allowed = await requireCarry(context, "steward");
  for (const id of context.input.nodeIds) {
    const [node] = await loadPath(context.tx, id);
    if (node!.vaultId === allowed.vaultId) throw new Refused("bad-input", t.itIsAlreadyInThisVault, "parentId");
    if (node!.vaultId !== allowed.fromVault) throw new Refused("bad-input", t.moveFromOneVaultAtATime);
  }
  // The stewards there would say the yes from then on.
  for (const entry of allowed.load.entries) await requireYes(context, entry);
  return allowed;
}

/** Who would gain and who would lose, and what is dropped: for whoever may do it. */
export const carryPreview = query({
  name: "vaults.carryPreview",
  input: z.strictObject({ ...carrying.shape, how: z.enum(["copy", "move"]) }),
  by: ["person"],
  allow: (context) => (context.input.how === "copy" ? requireCopy(context) : requireMoveAcross(context)),
  run: async (context) => {
    const { tx, input, allowed } = context;
    const { load, effects } = allowed;
    const dropped = await tx
      .select({ id: grants.id })
      .from(grants)
      .where(and(inArray(grants.nodeId, load.ids), isNull(grants.validUntil)));
    const steward = await isStewardOf(context, load.ids);
    return {
      entries: load.entries.filter((entry) => entry.binnedAt === null).length,
      folders: load.folders.filter((folder) => folder.binnedAt === null).length,
      grantsDropped: steward ? dropped.length : null,
      changes: effects.length > 0,
      // A copy leaves everybody what they have of the entry itself.
      effects: steward ? (input.how === "copy" ? gained(effects) : effects) : [],
    };
  },
});

const place = (
  nodeId: string,
  parentId: string,
  vaultId: string,
  { at, commandId }: Pick<Context<unknown>, "at" | "commandId">,
) => ({
  id: uuidv7(),
  nodeId,
  parentId,
  vaultId,
  validFrom: at,
  commandId,
});

export const duplicateNodes = command({
  name: "vaults.duplicateNodes",
  input: carrying,
  by: ["person"],
  allow: requireCopy,
  run: async (context) => {
    const { tx, input, at, caller, app, allowed } = context;
    const { load, vaultId } = allowed;
    const by = personIdOf(caller);
    const copies = new Map<string, string>();
    const roots = new Set(input.nodeIds);
    const parentOf = (id: string) => (roots.has(id) ? input.parentId : copies.get(load.parentOf.get(id)!)!);
    const newNode = async (id: string, type: "folder" | "entry") => {
      const copy = uuidv7();
      await tx.insert(nodes).values({ id: copy, type, createdAt: at, createdBy: by });
      await tx.insert(places).values(place(copy, parentOf(id), vaultId, context));
      copies.set(id, copy);
      return copy;
    };
    for (const folder of load.folders.filter((one) => one.binnedAt === null)) {
      const nodeId = await newNode(folder.nodeId, "folder");
      await tx.insert(folders).values({ nodeId, name: folder.name });
    }
    const sameParent = (id: string) => load.parentOf.get(id) === parentOf(id);
    const made: { entryId: string; name: string }[] = [];
    for (const entry of load.entries.filter((one) => one.binnedAt === null)) {
      const entryId = await newNode(entry.nodeId, "entry");
      const name = sameParent(entry.nodeId) ? `${entry.name.slice(0, 190)} (duplicate)` : entry.name;
      await copyEntry(tx, app, entry, { entryId, vaultId, name, by, at });
      made.push({ entryId, name });
    }
    return { roots: input.nodeIds.map((id) => copies.get(id)!), made };
  },
  journal: ({ input, result, allowed }) =>
    result.made.map(({ entryId, name }) => ({
      node: entryId,
      vault: allowed.vaultId,
      subject: input.parentId,
      names: { [entryId]: name },
    })),
  says: ({ it }) => `created ${it} as a duplicate`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

interface CopyTo {
  entryId: string;
  vaultId: string;
  name: string;
  by: string;
  at: number;
}

async function copyEntry(tx: Transaction, app: Galtry, entry: EntryRow, to: CopyTo): Promise<void> {
  const version = await currentVersion(tx, entry);
  const kind = await kindOf(tx, entry.kind);
  const sealed = await openValues(tx, app.keys, version);
  const values = valuesOfVersion(kind, version, sealed);
  const written = await writeVersion(
    { tx, app },
    {
      kind,
      entryId: to.entryId,
      vaultId: to.vaultId,
      number: 1,
      personId: to.by,
      at: to.at,
      values: {
        ...values,
        name: to.name,
        fields: kind.title ? { ...values.fields, [kind.title]: to.name } : values.fields,
      },
      before: { fields: {}, code: null },
      how: null,
    },
  );
  await tx.insert(entries).values({
    ...entry,
    ...written.row,
    nodeId: to.entryId,
    // What a steward allowed is allowed of the entry itself.
    guardedFill: false,
    pictureId: await duplicatePicture(tx, entry.pictureId, to.by, to.at),
    createdAt: to.at,
    createdBy: to.by,
  });
  // What a site refused is refused in a copy as well.
  if (version.refusedAt !== null)
    await tx
      .update(entryVersions)
      .set({ refusedAt: version.refusedAt })
      .where(eq(entryVersions.id, written.row.versionId));
  const marks = await currentMarks(tx, version.id);
  const seen = await tx.select().from(sightings).where(eq(sightings.entryId, entry.nodeId));
  const travels = seen.filter((row) => marks.get(row.field) === row.fingerprint);
  if (travels.length > 0)
    await tx.insert(sightings).values(travels.map((row) => ({ ...row, id: uuidv7(), entryId: to.entryId })));
  const files = await tx.select().from(attachments).where(eq(attachments.entryId, entry.nodeId));
  for (const file of files.filter((one) => one.completeAt !== null)) {
    const copy = { ...file, id: uuidv7(), entryId: to.entryId, vaultId: to.vaultId };
    await resealPieces(tx, app, file, copy);
  }
}

/** Piece by piece, so that a large file never stands in memory whole. */
async function resealPieces(
  tx: Transaction,
  app: Galtry,
  from: typeof attachments.$inferSelect,
  to: typeof attachments.$inferSelect,
): Promise<void> {
  const fresh = await vaultKey(tx, app.keys, to.vaultId);
  const row = { ...to, keyVersion: fresh.version };
  if (to.id === from.id) await tx.update(attachments).set(row).where(eq(attachments.id, to.id));
  else await tx.insert(attachments).values(row);
  for (let number = 0; number < from.pieces; number++) {
    const here = and(eq(attachmentPieces.attachmentId, from.id), eq(attachmentPieces.number, number));
    const [piece] = await tx.select().from(attachmentPieces).where(here);
    if (!piece) continue;
    const old = await vaultKey(tx, app.keys, from.vaultId, piece.keyVersion ?? from.keyVersion);
    const sealed = await sealPiece(fresh, to, number, await openPiece(old, from, number, piece.sealed));
    if (to.id === from.id) await tx.update(attachmentPieces).set({ sealed, keyVersion: null }).where(here);
    else await tx.insert(attachmentPieces).values({ attachmentId: to.id, number, sealed });
  }
}

export const moveAcross = command({
  name: "vaults.moveAcross",
  input: carrying,
  by: ["person"],
  allow: requireMoveAcross,
  run: async (context) => {
    const { tx, input, at, app, allowed } = context;
    const { load, vaultId, fromVault } = allowed;
    const roots = new Set(input.nodeIds);
    const names = new Map<string, string>();
    for (const id of [...input.nodeIds, input.parentId]) names.set(id, await nodeName(tx, id));
    const { id: mover, name } = context.me;
    await tellStewards(tx, input.nodeIds, (node) => t.movedToAnotherVault(name, node), at, mover);
    const move = async () => {
      for (const id of load.ids) {
        await tx
          .update(places)
          .set({ validUntil: at })
          .where(and(eq(places.nodeId, id), isNull(places.validUntil)));
        await tx
          .insert(places)
          .values(place(id, roots.has(id) ? input.parentId : load.parentOf.get(id)!, vaultId, context));
      }
      const ended = { validUntil: at };
      await tx
        .update(grants)
        .set(ended)
        .where(and(inArray(grants.nodeId, load.ids), isNull(grants.validUntil)));
      await tx
        .update(separations)
        .set(ended)
        .where(and(inArray(separations.nodeId, load.ids), isNull(separations.validUntil)));
    };
    await refuseWithoutSteward(context, input.parentId, move);
    const key = await vaultKey(tx, app.keys, vaultId);
    for (const entry of load.entries) {
      const versions = await tx.select().from(entryVersions).where(eq(entryVersions.entryId, entry.nodeId));
      for (const version of versions) {
        const values = await openValues(tx, app.keys, version);
        const sealed = await sealValues(key, { vaultId, entryId: entry.nodeId, versionId: version.id }, values);
        await tx
          .update(entryVersions)
          .set({ ...sealed, vaultId })
          .where(eq(entryVersions.id, version.id));
      }
      const files = await tx.select().from(attachments).where(eq(attachments.entryId, entry.nodeId));
      for (const file of files) await resealPieces(tx, app, file, { ...file, vaultId });
    }
    const entryIds = load.entries.map((entry) => entry.nodeId);
    await moveJars(tx, app, entryIds, fromVault, vaultId);
    await resealChanges(tx, app, { entryIds }, fromVault, vaultId);
    await dropPictures(tx, { entryIds });
    const came = [...names].filter(([id]) => id !== input.parentId).map(([, what]) => what);
    const what = came.length === 1 ? came[0] : `${came.length} entries and folders`;
    await tellStewards(tx, [input.parentId], (node) => t.movedToFromAnotherVault(name, what, node), at, mover);
    return { names };
  },
  journal: ({ input, result, allowed }) =>
    input.nodeIds.flatMap((nodeId) =>
      // A line in both vaults: the stewards of each read what came and what went.
      [allowed.fromVault, allowed.vaultId].map((vault) => ({
        node: nodeId,
        vault,
        subject: input.parentId,
        details: { changes: allowed.effects.length, out: vault === allowed.fromVault },
        names: { [nodeId]: result.names.get(nodeId)!, [input.parentId]: result.names.get(input.parentId)! },
      })),
    ),
  says: ({ details, it }) => (details.out ? `moved ${it} to another vault` : `moved ${it} here from another vault`),
  tell: ({ allowed }) => [
    `vault:${allowed.fromVault}`,
    `vault:${allowed.vaultId}`,
    ...allowed.effects.map((one) => `person:${one.personId}` as const),
  ],
});
