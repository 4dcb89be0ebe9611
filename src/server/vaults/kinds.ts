/** Kinds: those that are there from the start, and the organisation's own, which administrators make. */

import { count, eq, sql } from "drizzle-orm";
import { z } from "zod";
import type { Kind } from "../../core/kinds/kind";
import { kindFrom, type OwnKind, ownKindSchema } from "../../core/kinds/own";
import { isReadyKind, READY_KINDS, readyKind } from "../../core/kinds/ready";
import { byName } from "../byName";
import { isAdministrator, personIdOf } from "../caller";
import { type Context, command, idSchema, none, query } from "../command";
import { onceIn, type Reader } from "../database/client";
import { entries, entryVersions, kinds } from "../database/schema";
import { uuidv7 } from "../ids";
import { requireAdministrator } from "../people/administrators";
import { notFound, Refused } from "../refused";
import { lookAgainAt } from "../upkeep/lookingAgain";
import { drawn, dropPicture, keepPicture, pictureInput } from "./drawing";
import { pictureAddress } from "./pictureAddress";
import { kinds as t } from "./strings";

type KindRow = typeof kinds.$inferSelect;

const toKind = (row: KindRow): Kind => ({
  id: row.id,
  name: row.name,
  purpose: row.purpose,
  fields: row.fields,
  own: true,
  ...(row.title && { title: row.title }),
  ...(row.oldAfter !== null && { oldAfter: row.oldAfter }),
  ...(row.closedAt !== null && { closed: true }),
  ...(row.pictureId !== null && { picture: pictureAddress(row.id, row.pictureId) }),
});

/** One kind by its id. @throws Refused where there is none */
export async function kindOf(tx: Reader, id: string): Promise<Kind> {
  if (isReadyKind(id)) return readyKind(id);
  const [row] = await tx.select().from(kinds).where(eq(kinds.id, id));
  if (!row) throw new Refused("bad-input", t.thisKindDoesNotExist, "kind");
  return toKind(row);
}

/** All of them, by id: entries only ever hold one of these. */
export const kindsById = (tx: Reader): Promise<ReadonlyMap<string, Kind>> =>
  onceIn(tx, "kinds", async () => {
    const own = (await tx.select().from(kinds)).map(toKind);
    return new Map([...READY_KINDS, ...own].map((kind) => [kind.id, kind]));
  });

/** What new entries can be. */
export const kindList = query({
  name: "vaults.kindList",
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, role }) => {
    const used = new Map(
      (await tx.select({ kind: entries.kind, entries: count() }).from(entries).groupBy(entries.kind)).map((row) => [
        row.kind,
        row.entries,
      ]),
    );
    const administrator = role !== null && isAdministrator(role);
    const own = [...(await kindsById(tx)).values()].filter((kind) => kind.own).sort(byName);
    return {
      // Kinds are the organisation's; a guest is offered them only to add entries with.
      kinds: [...READY_KINDS, ...own.filter((kind) => !kind.closed)],
      own: me.guest ? [] : own.map((kind) => ({ ...kind, entries: administrator ? (used.get(kind.id) ?? 0) : null })),
      mayMake: administrator,
    };
  },
});

async function requireOwnKind(context: Pick<Context<{ kindId: string }, Reader>, "tx" | "input" | "role">) {
  requireAdministrator(context, t.onlyAnAdministratorCanCreate);
  const [row] = await context.tx.select().from(kinds).where(eq(kinds.id, context.input.kindId));
  if (!row) throw notFound();
  const [used] = await context.tx.select({ entries: count() }).from(entries).where(eq(entries.kind, row.id));
  // Earlier versions of what has become another kind hold values in its fields as well.
  const [version] = await context.tx
    .select({ id: entryVersions.id })
    .from(entryVersions)
    .where(sql`json_extract(open, '$.kind') = ${row.id}`)
    .limit(1);
  return { row, entries: used!.entries, inUse: used!.entries > 0 || version !== undefined };
}

/** Two kinds of one name could not be told apart where one chooses. */
async function refuseSameName(tx: Reader, name: string, except: string | null) {
  const same = [...(await kindsById(tx)).values()].find(
    (kind) => kind.id !== except && kind.name.toLowerCase() === name.toLowerCase(),
  );
  if (same) throw new Refused("conflict", t.thereIsAlreadyAKindCalled(same.name), "kind.name");
}

function fieldsOf(draft: OwnKind, before: Kind | null, inUse: boolean) {
  try {
    return kindFrom(draft, before, inUse, uuidv7);
  } catch (error) {
    throw error instanceof RangeError ? new Refused("conflict", error.message, "kind.fields") : error;
  }
}

export const createKind = command({
  name: "vaults.createKind",
  input: z.strictObject({ kind: ownKindSchema }),
  by: ["person"],
  allow: (context) => requireAdministrator(context, t.onlyAnAdministratorCanCreate),
  run: async ({ tx, input, caller, at }) => {
    await refuseSameName(tx, input.kind.name, null);
    const kindId = uuidv7();
    const { fields, title } = fieldsOf(input.kind, null, false);
    await tx.insert(kinds).values({
      id: kindId,
      name: input.kind.name,
      purpose: input.kind.purpose,
      oldAfter: input.kind.oldAfter,
      fields: [...fields],
      title: title ?? null,
      createdAt: at,
      createdBy: personIdOf(caller),
      changedAt: at,
    });
    return { kindId };
  },
  journal: ({ input, result }) => ({ subject: result.kindId, names: { [result.kindId]: input.kind.name } }),
  says: ({ subject }) => `created the kind ${subject}`,
  tell: () => ["everyone"],
});

export const changeKind = command({
  name: "vaults.changeKind",
  input: z.strictObject({ kindId: idSchema, kind: ownKindSchema }),
  by: ["person"],
  allow: requireOwnKind,
  run: async ({ tx, input, at, allowed }) => {
    await refuseSameName(tx, input.kind.name, input.kindId);
    const { fields, title } = fieldsOf(input.kind, toKind(allowed.row), allowed.inUse);
    await tx
      .update(kinds)
      .set({
        name: input.kind.name,
        purpose: input.kind.purpose,
        oldAfter: input.kind.oldAfter,
        fields: [...fields],
        title: title ?? null,
        changedAt: at,
      })
      .where(eq(kinds.id, input.kindId));
    if (input.kind.oldAfter !== allowed.row.oldAfter)
      await lookAgainAt(tx, sql`select node_id from entries where kind = ${input.kindId}`);
  },
  journal: ({ input }) => ({ subject: input.kindId, names: { [input.kindId]: input.kind.name } }),
  says: ({ subject }) => `changed the kind ${subject}`,
  tell: () => ["everyone"],
});

/** Closed to new entries, and open to them again. */
export const closeKind = command({
  name: "vaults.closeKind",
  input: z.strictObject({ kindId: idSchema, closed: z.boolean() }),
  by: ["person"],
  allow: requireOwnKind,
  run: async ({ tx, input, at }) => {
    await tx
      .update(kinds)
      .set({ closedAt: input.closed ? at : null })
      .where(eq(kinds.id, input.kindId));
  },
  journal: ({ input, allowed }) => ({
    subject: input.kindId,
    details: { closed: input.closed },
    names: { [input.kindId]: allowed.row.name },
  }),
  says: ({ details, subject }) =>
    details.closed ? `stopped offering the kind ${subject}` : `offered the kind ${subject} again`,
  tell: () => ["everyone"],
});

/** Entries in the bin hold their kind as well: only one that nothing ever used is deleted. */
export const deleteKind = command({
  name: "vaults.deleteKind",
  input: z.strictObject({ kindId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    const allowed = await requireOwnKind(context);
    if (allowed.entries > 0)
      throw new Refused(
        "conflict",
        t.ofThisKindItCannotBeDeleted(
          allowed.entries.toLocaleString("en-GB"),
          allowed.entries === 1 ? "entry is" : "entries are",
        ),
      );
    if (allowed.inUse) throw new Refused("conflict", t.earlierVersionsOfEntriesAreOf);
    return allowed;
  },
  run: async ({ tx, input, allowed }) => {
    await tx.delete(kinds).where(eq(kinds.id, input.kindId));
    await dropPicture(tx, allowed.row.pictureId);
  },
  journal: ({ input, allowed }) => ({ subject: input.kindId, names: { [input.kindId]: allowed.row.name } }),
  says: ({ subject }) => `deleted the kind ${subject}`,
  tell: () => ["everyone"],
});

export const setKindPicture = command({
  name: "vaults.setKindPicture",
  input: z.strictObject({ kindId: idSchema, picture: pictureInput }),
  by: ["person"],
  mayPrepare: requireOwnKind,
  prepare: drawn,
  allow: requireOwnKind,
  run: async ({ tx, input, caller, at, allowed, prepared }) => {
    const pictureId = await keepPicture(tx, allowed.row.pictureId, prepared, personIdOf(caller), at);
    await tx.update(kinds).set({ pictureId }).where(eq(kinds.id, input.kindId));
  },
  journal: ({ input, allowed }) => ({
    subject: input.kindId,
    details: { changed: "picture" },
    names: { [input.kindId]: allowed.row.name },
  }),
  says: ({ subject }) => `changed the picture of the kind ${subject}`,
  tell: () => ["everyone"],
});
