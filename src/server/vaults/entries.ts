/** Entries of any kind: made and changed. */
import { and, eq } from "drizzle-orm";
import { z } from "zod";
import { atLeast, type Level } from "../../core/access";
import type { Kind } from "../../core/kinds/kind";
import { WEBSITE_LOGIN } from "../../core/kinds/ready";
import { NO_STEPS, type SignInSteps, stepsSchema } from "../../core/signin/steps";
import { type Allowed, type Asking, requireLevel } from "../access/load";
import { peopleNames } from "../access/peopleNames";
import { personIdOf } from "../caller";
import { type Context, command, idSchema } from "../command";
import { entries, entryVersions, firstSeen, nodes, places } from "../database/schema";
import { uuidv7 } from "../ids";
import type { JournalEntry } from "../journal/append";
import { fieldsChanged } from "../journal/says";
import { requireMayAdd } from "../lanyard/allowed";
import { tellStewards } from "../people/telling";
import { notFound, Refused } from "../refused";
import { fieldsOf, type VersionRow, valuesIn } from "./composing";
import { requirePlace } from "./folders";
import { kindOf } from "./kinds";
import type { SealedValues } from "./sealing";
import { entries as t } from "./strings";
import { openValues } from "./vaultKeys";
import { changedWords, currentVersion, type EntryRow, flatValues, requireSameWay, writeVersion } from "./writing";

/** What new entries can be is looked up within the act: organisations have kinds of their own. */
export const kindSchema = z.string().min(1).max(64);

/** The gate for acts on an entry: level, and not in the bin. */
export async function requireEntry(context: Asking, entryId: string, needed: Level) {
  const allowed = await requireLevel(context, entryId, needed);
  const [entry] = await context.tx.select().from(entries).where(eq(entries.nodeId, entryId));
  return { ...allowed, entry: requireOutOfBin(entry && { entry }, allowed).entry };
}

/** @throws Refused for what is set aside */
export function requireInUse(entry: { asideAt: number | null; name: string }): void {
  if (entry.asideAt !== null) throw new Refused("conflict", t.isSetAsideAnyoneWithEditOn(entry.name));
}

/** Ids of the entries that one act is for. */
export const severalIds = z
  .array(idSchema)
  .min(1, t.chooseAnEntry)
  .max(500, t.atMost500EntriesAtOnce)
  .transform((ids) => [...new Set(ids)]);

/** The same gate for several: all of them or none. `lines` is what the journal keeps, a line each. */
export async function requireEntries(context: Asking, entryIds: readonly string[], needed: Level) {
  const found: { entry: EntryRow; vaultId: string; level: Level; parentId: string }[] = [];
  for (const entryId of entryIds) {
    const { entry, vaultId, level, path } = await requireEntry(context, entryId, needed);
    found.push({ entry, vaultId, level, parentId: path[0].parentId! });
  }
  return {
    found,
    lines: (details?: JournalEntry["details"]) =>
      found.map(({ entry, vaultId }) => ({
        node: entry.nodeId,
        vault: vaultId,
        ...(details && { details }),
        names: { [entry.nodeId]: entry.name },
      })),
    topics: [...new Set(found.map(({ vaultId }) => `vault:${vaultId}` as const))],
  };
}

/** @throws Refused for an entry that is not there, or lies in the bin; only its stewards learn the second */
export function requireOutOfBin<R extends { entry: { binnedAt: number | null } }>(
  found: R | undefined,
  { level }: Pick<Allowed, "level">,
): R {
  if (!found) throw notFound();
  if (found.entry.binnedAt !== null) {
    if (!atLeast(level, "steward")) throw notFound();
    throw new Refused("conflict", t.thisEntryIsInTheBinRestore);
  }
  return found;
}

interface NewEntry {
  parentId: string;
  vaultId: string;
  kind: string;
  values: Record<string, unknown>;
  /** Who wrote it; OUTSIDE for somebody whom Galtry does not know. */
  personId: string;
  how: "captured" | "written";
  steps?: SignInSteps | undefined;
}

/** A new entry with its place and first version. */
export async function insertEntry(
  { tx, at, commandId, app }: Pick<Context<unknown>, "tx" | "at" | "commandId" | "app">,
  { parentId, vaultId, kind: kindId, values, personId, how, steps = NO_STEPS }: NewEntry,
): Promise<{ entryId: string; versionId: string; name: string }> {
  const entryId = uuidv7();
  await tx.insert(nodes).values({ id: entryId, type: "entry", createdAt: at, createdBy: personId });
  await tx.insert(places).values({ id: uuidv7(), nodeId: entryId, parentId, vaultId, validFrom: at, commandId });
  const kind = await kindOf(tx, kindId);
  if (kind.closed) throw new Refused("conflict", t.isNoLongerOfferedForNewEntries(kind.name), "kind");
  const written = await writeVersion(
    { tx, app },
    {
      ...{ kind, entryId, vaultId, number: 1, personId, at, how },
      values: valuesIn(kind, values),
      before: { fields: {}, code: null },
    },
  );
  await tx.insert(entries).values({ nodeId: entryId, steps, ...written.row, createdAt: at, createdBy: personId });
  return { entryId, versionId: written.row.versionId, name: written.row.name };
}

export const addEntry = command({
  name: "vaults.addEntry",
  input: z.strictObject({
    parentId: idSchema,
    kind: kindSchema.default(WEBSITE_LOGIN.id),
    values: flatValues,
    captured: z.boolean().default(false),
    steps: stepsSchema.optional(),
  }),
  by: ["person", "lanyard"],
  allow: async (context) => {
    if (context.caller.kind === "lanyard") await requireMayAdd(context.tx, context.me);
    return requirePlace(context, context.input.parentId, "edit");
  },
  run: async (context) => {
    const { tx, input, me, caller, at, allowed } = context;
    const personId = personIdOf(caller);
    const { parentId, kind, values, steps } = input;
    const how = input.captured ? "captured" : "written";
    const made = await insertEntry(context, { parentId, vaultId: allowed.vaultId, kind, values, personId, how, steps });
    await tx.insert(firstSeen).values({ personId, entryId: made.entryId, at }).onConflictDoNothing();
    // What somebody from outside adds is seen by its stewards at once.
    if (me.guest) await tellStewards(tx, [made.entryId], (name) => t.aGuestAdded(me.name, name), at, personId);
    return made;
  },
  journal: ({ input, result, allowed }) => ({
    node: result.entryId,
    vault: allowed.vaultId,
    details: { captured: input.captured },
    names: { [result.entryId]: result.name },
  }),
  says: ({ details, it }) => (details.captured ? `added ${it} with Lanyard` : `added ${it}`),
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

export const changeEntry = command({
  name: "vaults.changeEntry",
  input: z.strictObject({
    entryId: idSchema,
    baseVersionId: idSchema,
    values: flatValues,
    captured: z.boolean().default(false),
  }),
  by: ["person", "lanyard"],
  allow: (context) => requireEntry(context, context.input.entryId, "edit"),
  run: async (context) => {
    const { tx, input, caller, at, app, allowed } = context;
    const kind = await kindOf(tx, allowed.entry.kind);
    const values = valuesIn(kind, input.values);
    const current = await currentVersion(tx, allowed.entry);
    const before = await openValues(tx, app.keys, current);
    if (current.id !== input.baseVersionId)
      throw await overtaken(context, kind, allowed.entry, current, before, input.baseVersionId);
    await requireSameWay(context, allowed.entry, allowed, values);
    const written = await writeVersion(context, {
      kind,
      entryId: input.entryId,
      vaultId: current.vaultId,
      number: current.number + 1,
      personId: personIdOf(caller),
      at,
      values,
      before,
      how: input.captured ? "captured" : "written",
      earlier: { version: current, kind },
    });
    await tx.update(entries).set(written.row).where(eq(entries.nodeId, input.entryId));
    return { versionId: written.row.versionId, changed: changedWords(kind, written.changed), name: written.row.name };
  },
  journal: ({ input, result, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { changed: result.changed, captured: input.captured },
    names: { [input.entryId]: result.name },
  }),
  says: ({ details, place }) => `edited ${fieldsChanged(details.changed)}${place("of")}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

/** Somebody saved in between: what stands there now, so that the page can show both. Secrets are named, not shown. */
async function overtaken(
  { tx, app, me }: Pick<Context<unknown>, "tx" | "app" | "me">,
  kind: Kind,
  entry: EntryRow,
  current: VersionRow,
  now: SealedValues,
  baseId: string,
): Promise<Refused> {
  const who = (await peopleNames(tx, me, [current.createdBy]))(current.createdBy);
  const [base] = await tx
    .select()
    .from(entryVersions)
    .where(and(eq(entryVersions.id, baseId), eq(entryVersions.entryId, entry.nodeId)));
  const then = base ? await openValues(tx, app.keys, base) : null;
  const { fields: open, ...rest } = current.open as { fields: Record<string, string> };
  const seen = kind.fields.filter((field) => field.class === "identifier").map(({ id }) => [id, now.fields[id] ?? ""]);
  const secrets = kind.fields.filter((field) => field.class === "secret");
  const differs = (id: string) => then === null || fieldsOf(then)[id] !== fieldsOf(now)[id];
  return new Refused("conflict", t.changedThisEntryWhileYouWere(who || "Someone"), undefined, {
    versionId: current.id,
    by: who || null,
    at: current.createdAt,
    theirs: { ...rest, ...open, ...Object.fromEntries(seen) },
    secretsChanged: secrets.filter(({ id }) => differs(id)).map(({ id }) => id),
  });
}
