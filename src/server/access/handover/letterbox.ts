/**
 * Letterboxes: the other way round from handing over. Somebody outside is asked for a secret by a link, and drops it in
 * without an account: as text, of a limited size, once, until it ends by itself. It lands in one folder, sealed on
 * arrival; whoever asked is not told what it is before they may and do look.
 */

import { and, desc, eq } from "drizzle-orm";
import { z } from "zod";
import { atLeast } from "../../../core/access/index";
import { type Context, command, idSchema, nameSchema, query, type Topic } from "../../command";
import type { Reader } from "../../database/client";
import { letterboxes, OUTSIDE, persons } from "../../database/schema";
import { uuidv7 } from "../../ids";
import { loadHome } from "../../organisation";
import { addNotice, tellStewards } from "../../people/telling";
import { newToken, tokenHash } from "../../people/tokens";
import { notFound, Refused } from "../../refused";
import { insertEntry } from "../../vaults/entries";
import { isBinned } from "../../vaults/folders";
import { requireLevel, resolveAt } from "../load";
import { nodeName } from "../nodeName";
import { letterbox as t } from "../strings";

const LONGEST_MS = 90 * 86_400_000;
const MOST_LABELS = 6;
const MOST_OPEN = 50;

type Letterbox = typeof letterboxes.$inferSelect;
type Asking = Pick<Context<unknown, Reader>, "tx" | "me" | "at">;

async function requireFolder(context: Asking, nodeId: string) {
  const held = await requireLevel(context, nodeId, "steward");
  if (held.path[0].type !== "folder") throw new Refused("bad-input", t.aLetterboxBelongsToAFolder, "nodeId");
  if (await isBinned(context.tx, nodeId)) throw notFound();
  return { vaultId: held.vaultId, node: await nodeName(context.tx, nodeId) };
}

export const createLetterbox = command({
  name: "access.createLetterbox",
  input: z.strictObject({
    nodeId: idSchema,
    name: nameSchema,
    labels: z
      .array(z.string().trim().min(1, t.nameTheEntry).max(80))
      .min(1, t.nameTheEntry)
      .max(MOST_LABELS, t.aLetterboxHasAtMostFields(MOST_LABELS))
      .refine((all) => new Set(all.map((one) => one.toLowerCase())).size === all.length, t.giveEachFieldADifferentName),
    until: z.number().int(),
  }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, at } = context;
    const allowed = await requireFolder(context, input.nodeId);
    if (input.until <= at) throw new Refused("bad-input", t.theEndDateIsInThePast, "until");
    if (input.until > at + LONGEST_MS) throw new Refused("bad-input", t.aLetterboxCanLastAtMost90, "until");
    const all = await tx.select().from(letterboxes).where(eq(letterboxes.nodeId, input.nodeId));
    if (all.filter((one) => endOf(one, at) === null).length >= MOST_OPEN)
      throw new Refused("conflict", t.aFolderHasAtMostOpen(MOST_OPEN));
    return allowed;
  },
  run: async ({ tx, input, me, at, app }) => {
    const token = newToken();
    await tx.insert(letterboxes).values({
      ...{ id: uuidv7(), tokenHash: tokenHash(token), nodeId: input.nodeId, makerId: me.id, name: input.name },
      ...{ labels: input.labels, madeAt: at, expiresAt: input.until },
    });
    const address = new URL("/letterbox", app.configuration.publicUrl);
    address.hash = token;
    return { address: address.href };
  },
  journal: ({ input, allowed }) => ({
    node: input.nodeId,
    vault: allowed.vaultId,
    details: { what: input.name, until: input.until },
    names: { [input.nodeId]: allowed.node },
  }),
  says: ({ details, place, until }) => `created a letterbox for ${details.what}${place("in")}${until}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

export type LetterboxEnd = "dropped" | "closed" | "expired";

const endOf = (row: Letterbox, at: number): LetterboxEnd | null =>
  row.droppedAt !== null ? "dropped" : row.closedAt !== null ? "closed" : row.expiresAt <= at ? "expired" : null;

const byToken = async (tx: Reader, token: string): Promise<Letterbox | undefined> =>
  (
    await tx
      .select()
      .from(letterboxes)
      .where(eq(letterboxes.tokenHash, tokenHash(token)))
  )[0];

const tokenSchema = z.string().max(100);

/** Whoever hung it may still put things into its folder: otherwise it is closed. */
async function folderStands(tx: Reader, row: Letterbox, at: number): Promise<string | null> {
  const found = await resolveAt(tx, row.makerId, row.nodeId, at);
  if (!found || !atLeast(found.resolution.level, "edit") || (await isBinned(tx, row.nodeId))) return null;
  return found.path[0].vaultId;
}

/** What is asked for and by whom, for whoever has the link. Of the folder and of what else is there: nothing. */
export const lookAtLetterbox = query({
  name: "access.lookAtLetterbox",
  input: z.strictObject({ token: tokenSchema }),
  by: ["nobody", "person"],
  allow: async ({ tx, input }) => {
    const row = await byToken(tx, input.token);
    if (!row) throw notFound();
    return row;
  },
  run: async ({ tx, at, allowed }) => {
    const home = await loadHome(tx);
    const [maker] = await tx.select({ name: persons.name }).from(persons).where(eq(persons.id, allowed.makerId));
    const end = endOf(allowed, at) ?? ((await folderStands(tx, allowed, at)) === null ? "closed" : null);
    return {
      organisation: home.name,
      zone: home.zone,
      from: maker?.name ?? "",
      end,
      /** Of what has ended nothing more is said. */
      name: end === null ? allowed.name : "",
      labels: end === null ? allowed.labels : [],
      expiresAt: allowed.expiresAt,
    };
  },
});

const ENDED: Record<LetterboxEnd, string> = {
  dropped: t.somethingHasAlreadyBeenSent,
  closed: t.thisLetterboxIsClosed,
  expired: t.thisLetterboxHasExpired,
};

export const sendToLetterbox = command({
  name: "access.sendToLetterbox",
  input: z.strictObject({
    token: tokenSchema,
    /** One for each label, in their order. */
    values: z.array(z.string().max(10_000, t.atMost10000CharactersEach)).min(1).max(MOST_LABELS),
    from: z.string().trim().max(100, t.aNameHasAtMost100Characters).default(""),
  }),
  by: ["nobody", "person"],
  allow: async ({ tx, input, at }) => {
    const row = await byToken(tx, input.token);
    if (!row) throw notFound();
    const end = endOf(row, at);
    if (end !== null) throw new Refused("ended", ENDED[end]);
    const vaultId = await folderStands(tx, row, at);
    if (vaultId === null) throw new Refused("ended", ENDED.closed);
    if (input.values.length !== row.labels.length || input.values.every((value) => value.trim() === ""))
      throw new Refused("bad-input", t.fillInAtLeastOneField, "values");
    return { row, vaultId, node: await nodeName(tx, row.nodeId) };
  },
  // Whoever drops it in is told that it is in, and nothing of where.
  run: async (context) => {
    const { tx, input, at, allowed } = context;
    const { row, vaultId } = allowed;
    const extras = row.labels.map((label, i) => ({ id: uuidv7(), label, class: "secret", value: input.values[i] }));
    const description = `received through a letterbox${input.from ? ` from ${input.from}` : ""}`;
    const made = await insertEntry(context, {
      ...{ parentId: row.nodeId, vaultId, kind: "note", personId: OUTSIDE, how: "written" },
      values: { name: row.name, description, extras: extras.filter(({ value }) => value?.trim()) },
    });
    await tx.update(letterboxes).set({ droppedAt: at, entryId: made.entryId }).where(eq(letterboxes.id, row.id));
    await addNotice(tx, {
      to: row.makerId,
      at,
      sort: "watch",
      text: t.wasReceivedThroughYour(row.name),
      nodeId: made.entryId,
    });
    await tellStewards(tx, [made.entryId], (name) => t.wasReceivedFromSomeoneOutside(name), at, row.makerId);
    return null;
  },
  journal: ({ allowed }) => ({
    node: allowed.row.nodeId,
    vault: allowed.vaultId,
    details: { what: allowed.row.name },
    names: { [allowed.row.nodeId]: allowed.node },
  }),
  says: ({ details, place }) => `received ${details.what} through a letterbox${place("in")}`,
  tell: ({ allowed }): Topic[] => [`vault:${allowed.vaultId}`, `person:${allowed.row.makerId}`],
});

export const closeLetterbox = command({
  name: "access.closeLetterbox",
  input: z.strictObject({ letterboxId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    const [row] = await context.tx.select().from(letterboxes).where(eq(letterboxes.id, context.input.letterboxId));
    if (!row) throw notFound();
    const allowed = await requireFolder(context, row.nodeId);
    if (endOf(row, context.at) !== null) throw new Refused("conflict", t.itHasAlreadyEnded);
    return { ...allowed, row };
  },
  run: async ({ tx, input, at }) => {
    await tx.update(letterboxes).set({ closedAt: at }).where(eq(letterboxes.id, input.letterboxId));
  },
  journal: ({ allowed }) => ({
    node: allowed.row.nodeId,
    vault: allowed.vaultId,
    details: { what: allowed.row.name },
    names: { [allowed.row.nodeId]: allowed.node },
  }),
  says: ({ details, place }) => `closed the letterbox for ${details.what}${place("in")}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

/** The letterboxes at a folder, latest first, for its stewards. */
export const letterboxList = query({
  name: "access.letterboxList",
  input: z.strictObject({ nodeId: idSchema }),
  by: ["person"],
  allow: (context) => requireLevel(context, context.input.nodeId, "steward"),
  run: async ({ tx, input, at }) => {
    const rows = await tx
      .select({ box: letterboxes, by: persons.name })
      .from(letterboxes)
      .innerJoin(persons, eq(persons.id, letterboxes.makerId))
      .where(and(eq(letterboxes.nodeId, input.nodeId)))
      .orderBy(desc(letterboxes.madeAt))
      .limit(20);
    return rows.map(({ box, by }) => ({
      ...{ id: box.id, name: box.name, labels: box.labels, by, madeAt: box.madeAt, expiresAt: box.expiresAt },
      ...{ end: endOf(box, at), droppedAt: box.droppedAt, entryId: box.entryId },
    }));
  },
});
