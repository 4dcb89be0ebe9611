/** Entries of any kind: made, changed, revealed, binned and restored. */
import { and, desc, eq } from "drizzle-orm";
import { z } from "zod";
import { atLeast, type Level } from "../../core/access";
import { CODE, fieldOf, fieldWord, type Kind, PASSWORD, SIGN_IN_PAGE, USER_NAME } from "../../core/kinds/kind";
import { isReadyKind, readyKind, WEBSITE_LOGIN } from "../../core/kinds/ready";
import { type EntryValues, readValues } from "../../core/kinds/values";
import { hostOf } from "../../core/signin/address";
import { codeAt } from "../../core/signin/code";
import { siteOf } from "../../core/signin/site";
import { NO_STEPS, stepsSchema } from "../../core/signin/steps";
import { type Allowed, type Asking, requireLevel } from "../access/load";
import { personIdOf } from "../caller";
import { command, idSchema } from "../command";
import type { Reader, Transaction } from "../database/client";
import {
  type ExtraField,
  entries,
  entryVersions,
  fingerprints,
  folders,
  met,
  nodes,
  persons,
  places,
  type SightingHow,
  sightings,
} from "../database/schema";
import type { Galtry } from "../galtry";
import { uuidv7 } from "../ids";
import { badInput, notFound, Refused } from "../refused";
import { requirePlace } from "./folders";
import { fingerprint, openValues, type SealedValues, sealValues, type VaultKey, vaultKey } from "./sealing";

/** One key for each value (core/kinds/values.ts); read once the kind is known. */
export const flatValues = z.record(z.string().max(80), z.unknown());
export const kindSchema = z.string().refine(isReadyKind, "There is no such kind.");

export type EntryRow = typeof entries.$inferSelect;
export type VersionRow = typeof entryVersions.$inferSelect;

/** The gate for acts on an entry: level, and not in the bin. */
export async function requireEntry(context: Asking, entryId: string, needed: Level) {
  const allowed = await requireLevel(context, entryId, needed);
  const [entry] = await context.tx.select().from(entries).where(eq(entries.nodeId, entryId));
  return { ...allowed, entry: requireOutOfBin(entry && { entry }, allowed).entry };
}

/** @throws Refused for an entry that is not there, or lies in the bin; only its stewards learn the second */
export function requireOutOfBin<R extends { entry: { binnedAt: number | null } }>(
  found: R | undefined,
  { level }: Pick<Allowed, "level">,
): R {
  if (!found) throw notFound();
  if (found.entry.binnedAt !== null) {
    if (!atLeast(level, "steward")) throw notFound();
    throw new Refused("conflict", "This entry is in the bin. Restore it first.");
  }
  return found;
}

export async function currentVersion(tx: Reader, entry: Pick<EntryRow, "versionId">): Promise<VersionRow> {
  const [version] = await tx.select().from(entryVersions).where(eq(entryVersions.id, entry.versionId));
  if (!version) throw new Error("an entry has no version");
  return version;
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
  allow: (context) => requirePlace(context, context.input.parentId, "edit"),
  run: async ({ tx, input, caller, at, commandId, house, allowed }) => {
    const entryId = uuidv7();
    const personId = personIdOf(caller)!;
    await tx.insert(nodes).values({ id: entryId, type: "entry", createdAt: at, createdBy: personId });
    await tx.insert(places).values({
      id: uuidv7(),
      nodeId: entryId,
      parentId: input.parentId,
      vaultId: allowed.vaultId,
      validFrom: at,
      commandId,
    });
    const kind = readyKind(input.kind);
    const written = await writeVersion(tx, house, {
      kind,
      entryId,
      vaultId: allowed.vaultId,
      number: 1,
      personId,
      at,
      values: valuesIn(kind, input.values),
      before: { fields: {}, code: null },
      how: input.captured ? "captured" : "written",
    });
    await tx.insert(entries).values({
      nodeId: entryId,
      kind: kind.id,
      steps: input.steps ?? NO_STEPS,
      ...written.row,
      createdAt: at,
      createdBy: personId,
    });
    await tx.insert(met).values({ personId, entryId, at }).onConflictDoNothing();
    return { entryId, versionId: written.row.versionId, name: written.row.name };
  },
  journal: ({ input, result, allowed }) => ({
    node: result.entryId,
    vault: allowed.vaultId,
    details: { captured: input.captured },
    names: { [result.entryId]: result.name },
  }),
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
  run: async ({ tx, input, caller, at, house, allowed }) => {
    const kind = readyKind(allowed.entry.kind);
    const values = valuesIn(kind, input.values);
    const current = await currentVersion(tx, allowed.entry);
    const before = await openValues(tx, house.keys, current);
    if (current.id !== input.baseVersionId)
      throw await overtaken(tx, house, kind, allowed.entry, current, before, input.baseVersionId);
    const written = await writeVersion(tx, house, {
      kind,
      entryId: input.entryId,
      vaultId: current.vaultId,
      number: current.number + 1,
      personId: personIdOf(caller)!,
      at,
      values,
      before,
      how: input.captured ? "captured" : "written",
      earlier: current,
    });
    await tx.update(entries).set(written.row).where(eq(entries.nodeId, input.entryId));
    return { versionId: written.row.versionId, changed: written.changed, name: written.row.name };
  },
  journal: ({ input, result, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: {
      changed: [
        ...new Set(result.changed.map((id) => COMMON_WORDS[id] ?? fieldWord(readyKind(allowed.entry.kind), id))),
      ].join(", "),
      captured: input.captured,
    },
    names: { [input.entryId]: result.name },
  }),
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

/** Read by the entry's kind, once that is known. */
export function valuesIn(kind: Kind, flat: Record<string, unknown>): EntryValues {
  try {
    return readValues(kind, flat);
  } catch (error) {
    throw error instanceof z.ZodError ? badInput(error, ["values"]) : error;
  }
}

interface WriteVersion {
  kind: Kind;
  entryId: string;
  vaultId: string;
  number: number;
  personId: string;
  at: number;
  values: EntryValues;
  before: SealedValues;
  how: SightingHow;
  earlier?: VersionRow;
}

/** A new version, sealed, with all that is written beside it; nothing is written here. What was left out stays. */
export async function composeVersion(key: VaultKey, house: Galtry, write: WriteVersion) {
  const { kind, values, before, entryId, vaultId, personId, at, how } = write;
  const versionId = uuidv7();
  const after = hiddenValues(kind, values, before);
  const extras: ExtraField[] = values.extras.map(({ id, label, class: fieldClass, value }) =>
    fieldClass === "open" ? { id, label, class: fieldClass, value: value ?? "" } : { id, label, class: fieldClass },
  );
  const open = {
    name: values.name,
    description: values.description,
    signInPage: values.signInPage,
    reach: values.reach,
    fields: openFields(kind, values),
    notes: values.notes,
    tags: values.tags,
    extras,
    useSeesUserName: values.useSeesUserName,
  };
  const sealed = await sealValues(key, { vaultId, entryId, versionId }, after);
  const old = fieldsOf(before);
  const marks = Object.entries(fieldsOf(after)).map(([field, value]) => ({
    field,
    fingerprint: fingerprint(house.keys, field, value),
    // Whoever writes a secret has seen it.
    seen: isSecret(kind, field) && value !== old[field],
  }));
  const host = hostOf(values.signInPage) ?? "";
  return {
    changed: changedFields(write.earlier?.open ?? {}, open, before, after),
    version: {
      id: versionId,
      entryId,
      number: write.number,
      vaultId,
      ...sealed,
      open,
      createdAt: at,
      createdBy: personId,
      // A version that the site refused stays refused while what is sent to it stays the same.
      refusedAt: write.earlier?.refusedAt && sameLogin(before, after) ? write.earlier.refusedAt : null,
    },
    fingerprints: marks.map((mark) => ({ versionId, field: mark.field, fingerprint: mark.fingerprint })),
    sightings: marks
      .filter((mark) => mark.seen)
      .map((mark) => ({ id: uuidv7(), entryId, field: mark.field, fingerprint: mark.fingerprint, personId, at, how })),
    row: {
      ...open,
      host,
      site: siteOf(host),
      hasCode: after.code !== null,
      versionId,
      changedAt: at,
      changedBy: personId,
    },
  };
}

/** Writes a new version and says what the entry's row becomes. */
async function writeVersion(tx: Transaction, house: Galtry, write: WriteVersion) {
  const composed = await composeVersion(await vaultKey(tx, house.keys, write.vaultId), house, write);
  await tx.insert(entryVersions).values(composed.version);
  if (composed.fingerprints.length > 0) await tx.insert(fingerprints).values(composed.fingerprints);
  if (composed.sightings.length > 0) await tx.insert(sightings).values(composed.sightings);
  return composed;
}

/** Values of the classes identifier and secret as they are from now on; empty ones are not kept. */
function hiddenValues(kind: Kind, values: EntryValues, before: SealedValues): SealedValues {
  const given: [string, string | undefined][] = [
    ...kind.fields
      .filter((field) => field.class !== "open" && field.id !== CODE)
      .map(({ id }): [string, string | undefined] => [id, values.fields[id]]),
    ...values.extras
      .filter((extra) => extra.class !== "open")
      .map(({ id, value }): [string, string | undefined] => [`extra:${id}`, value]),
  ];
  return {
    fields: Object.fromEntries(
      given.map(([id, value]) => [id, value ?? before.fields[id] ?? ""]).filter(([, value]) => value !== ""),
    ),
    code: values.code === undefined ? before.code : values.code,
  };
}

const openFields = (kind: Kind, values: EntryValues): Record<string, string> =>
  Object.fromEntries(
    kind.fields
      .filter((field) => field.class === "open" && field.id !== SIGN_IN_PAGE)
      .map(({ id }) => [id, values.fields[id] ?? ""]),
  );

/** A new version that differs in its password only. */
export async function writePassword(
  tx: Transaction,
  house: Galtry,
  entry: EntryRow,
  current: VersionRow,
  password: string,
  personId: string,
  at: number,
) {
  const before = await openValues(tx, house.keys, current);
  const written = await writeVersion(tx, house, {
    kind: readyKind(entry.kind),
    entryId: entry.nodeId,
    vaultId: current.vaultId,
    number: current.number + 1,
    personId,
    at,
    values: { ...entry, code: undefined, fields: { ...entry.fields, [PASSWORD]: password } },
    before,
    how: "captured",
    earlier: current,
  });
  await tx.update(entries).set(written.row).where(eq(entries.nodeId, entry.nodeId));
  return { versionId: written.row.versionId };
}

const sameLogin = (a: SealedValues, b: SealedValues) =>
  a.fields[USER_NAME] === b.fields[USER_NAME] &&
  a.fields[PASSWORD] === b.fields[PASSWORD] &&
  a.code?.secret === b.code?.secret;

/** Secrets and identifiers by field name, for fingerprints and comparison. */
export const fieldsOf = ({ fields, code }: SealedValues): Record<string, string> =>
  code ? { ...fields, [CODE]: code.secret } : fields;

/** Extra fields that are not open count as secrets, whichever they are. */
export const isSecret = (kind: Kind, field: string) => (fieldOf(kind, field)?.class ?? "secret") === "secret";

export async function noteSighting(
  tx: Transaction,
  seen: { entryId: string; field: string; mark: string; personId: string; at: number; how: SightingHow },
) {
  await tx.insert(sightings).values({
    id: uuidv7(),
    entryId: seen.entryId,
    field: seen.field,
    fingerprint: seen.mark,
    personId: seen.personId,
    at: seen.at,
    how: seen.how,
  });
}

/** What every entry has, in a sentence; fields of the kind have their own labels. */
const COMMON_WORDS: Record<string, string> = {
  name: "name",
  description: "description",
  notes: "notes",
  tags: "tags",
  extras: "extra fields",
  reach: "where it is offered",
  useSeesUserName: "who sees the user name",
};

function changedFields(
  openBefore: Record<string, unknown>,
  openAfter: Record<string, unknown>,
  before: SealedValues,
  after: SealedValues,
): string[] {
  const flat = ({ fields, ...rest }: Record<string, unknown>): Record<string, unknown> => ({
    ...rest,
    ...(fields as object),
  });
  const [was, is] = [flat(openBefore), flat(openAfter)];
  const open = Object.keys(is).filter((key) => JSON.stringify(was[key]) !== JSON.stringify(is[key]));
  const [old, now] = [fieldsOf(before), fieldsOf(after)];
  const sealed = [...new Set([...Object.keys(old), ...Object.keys(now)])].filter(
    (key) => (old[key] ?? "") !== (now[key] ?? ""),
  );
  return [...open, ...sealed];
}

/** Somebody saved in between: what stands there now, so that the page can show both. Secrets are named, not shown. */
async function overtaken(
  tx: Reader,
  house: Galtry,
  kind: Kind,
  entry: EntryRow,
  current: VersionRow,
  now: SealedValues,
  baseId: string,
): Promise<Refused> {
  const [who] = await tx.select({ name: persons.name }).from(persons).where(eq(persons.id, current.createdBy));
  const [base] = await tx
    .select()
    .from(entryVersions)
    .where(and(eq(entryVersions.id, baseId), eq(entryVersions.entryId, entry.nodeId)));
  const then = base ? await openValues(tx, house.keys, base) : null;
  const { fields: open, ...rest } = current.open as { fields: Record<string, string> };
  const seen = kind.fields.filter((field) => field.class === "identifier").map(({ id }) => [id, now.fields[id] ?? ""]);
  const secrets = kind.fields.filter((field) => field.class === "secret");
  const differs = (id: string) => then === null || fieldsOf(then)[id] !== fieldsOf(now)[id];
  return new Refused(
    "conflict",
    `${who?.name ?? "Somebody"} changed this entry while you were editing it.`,
    undefined,
    {
      versionId: current.id,
      by: who?.name ?? null,
      at: current.createdAt,
      theirs: { ...rest, ...open, ...Object.fromEntries(seen) },
      secretsChanged: secrets.filter(({ id }) => differs(id)).map(({ id }) => id),
    },
  );
}

/** Shows or copies one secret: a journal line and a sighting each time. */
export const revealField = command({
  name: "vaults.reveal",
  input: z.strictObject({
    entryId: idSchema,
    /** A field of the kind, or `extra:ID`. */
    field: z.string().min(1).max(80),
    how: z.enum(["revealed", "copied"]),
  }),
  by: ["person"],
  allow: (context) => requireEntry(context, context.input.entryId, "reveal"),
  run: async ({ tx, input, caller, at, house, allowed }) => {
    const version = await currentVersion(tx, allowed.entry);
    const values = await openValues(tx, house.keys, version);
    const hidden = fieldsOf(values);
    if (!Object.hasOwn(hidden, input.field)) throw notFound();
    const value = hidden[input.field]!;
    if (input.field === CODE) {
      const { code, leftMs } = codeAt(values.code!, at);
      return { value: code, leftMs, versionId: version.id };
    }
    await noteSighting(tx, {
      entryId: input.entryId,
      field: input.field,
      mark: fingerprint(house.keys, input.field, value),
      personId: personIdOf(caller)!,
      at,
      how: input.how,
    });
    return { value, leftMs: null, versionId: version.id };
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { field: fieldWord(readyKind(allowed.entry.kind), input.field), how: input.how },
    names: { [input.entryId]: allowed.entry.name },
  }),
  tell: ({ input, allowed }) => [`vault:${allowed.vaultId}`],
});

export const binEntry = command({
  name: "vaults.bin",
  input: z.strictObject({ entryId: idSchema }),
  by: ["person"],
  allow: (context) => requireEntry(context, context.input.entryId, "steward"),
  run: async ({ tx, input, caller, at }) => {
    await tx
      .update(entries)
      .set({ binnedAt: at, binnedBy: personIdOf(caller) })
      .where(eq(entries.nodeId, input.entryId));
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    names: { [input.entryId]: allowed.entry.name },
  }),
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

export const restoreEntry = command({
  name: "vaults.restore",
  input: z.strictObject({ entryId: idSchema }),
  by: ["person"],
  allow: async (context): Promise<Allowed & { entry: EntryRow }> => {
    const { tx, input } = context;
    const allowed = await requireLevel(context, input.entryId, "steward");
    const [entry] = await tx.select().from(entries).where(eq(entries.nodeId, input.entryId));
    if (!entry) throw notFound();
    const [folder] = await tx
      .select({ name: folders.name, binnedAt: folders.binnedAt })
      .from(folders)
      .where(eq(folders.nodeId, allowed.path[0]!.parentId!));
    if (folder?.binnedAt != null)
      throw new Refused(
        "conflict",
        `It lies in the folder ${folder.name}, which is in the bin too: restore that first.`,
      );
    return { ...allowed, entry };
  },
  run: async ({ tx, input }) => {
    await tx
      .update(entries)
      .set({ binnedAt: null, binnedBy: null, binnedWith: null })
      .where(eq(entries.nodeId, input.entryId));
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    names: { [input.entryId]: allowed.entry.name },
  }),
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

/** Guarded fill may be switched on by the entry's steward only; plain http is accepted in words. */
export const changeSigningIn = command({
  name: "vaults.changeSigningIn",
  input: z.strictObject({ entryId: idSchema, guardedFill: z.boolean(), plainHttp: z.boolean() }),
  by: ["person"],
  allow: (context) => requireEntry(context, context.input.entryId, "steward"),
  run: async ({ tx, input }) => {
    await tx
      .update(entries)
      .set({ guardedFill: input.guardedFill, plainHttp: input.plainHttp })
      .where(eq(entries.nodeId, input.entryId));
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { guardedFill: input.guardedFill, plainHttp: input.plainHttp },
    names: { [input.entryId]: allowed.entry.name },
  }),
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

/** Hosts a sign-in passes through, choices it makes, where it signs out. */
export const changeSteps = command({
  name: "vaults.changeSteps",
  input: z.strictObject({ entryId: idSchema, steps: stepsSchema }),
  by: ["person"],
  allow: (context) => requireEntry(context, context.input.entryId, "edit"),
  run: async ({ tx, input }) => {
    await tx.update(entries).set({ steps: input.steps }).where(eq(entries.nodeId, input.entryId));
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { hosts: input.steps.hosts.length, choices: Object.keys(input.steps.choices).length },
    names: { [input.entryId]: allowed.entry.name },
  }),
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

/** The site refused this version; somebody with Edit lets it be sent once more. */
export const tryOnceMore = command({
  name: "vaults.tryOnceMore",
  input: z.strictObject({ entryId: idSchema }),
  by: ["person"],
  allow: (context) => requireEntry(context, context.input.entryId, "edit"),
  run: async ({ tx, allowed }) => {
    await tx.update(entryVersions).set({ refusedAt: null }).where(eq(entryVersions.id, allowed.entry.versionId));
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    names: { [input.entryId]: allowed.entry.name },
  }),
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

/** Latest versions first; only their numbers, moments and makers. */
export async function versionLines(tx: Reader, entryId: string) {
  return tx
    .select({
      id: entryVersions.id,
      number: entryVersions.number,
      at: entryVersions.createdAt,
      by: entryVersions.createdBy,
    })
    .from(entryVersions)
    .where(eq(entryVersions.entryId, entryId))
    .orderBy(desc(entryVersions.number));
}
