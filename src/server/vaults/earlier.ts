/**
 * Earlier versions: what was changed when by whom, secrets revealed one at a time, fields brought back. An old
 * password is a secret still, at the level Edit.
 */
import { and, desc, eq, inArray, lt } from "drizzle-orm";
import { z } from "zod";
import { CODE, type Field, fieldOf, fieldWord, type Kind, SIGN_IN_PAGE } from "../../core/kinds/kind";
import type { EntryValues } from "../../core/kinds/values";
import { type Classes, classOf, shownToMore, stricter } from "../../core/kinds/visibility";
import { codeAt } from "../../core/signin/code";
import type { Asking } from "../access/load";
import { peopleNames } from "../access/peopleNames";
import { personIdOf } from "../caller";
import { command, idSchema, query } from "../command";
import type { Reader } from "../database/client";
import { entryVersions } from "../database/schema";
import { fieldsChanged } from "../journal/says";
import { notFound, Refused } from "../refused";
import { changedFields, classesOf, fieldsOf, type VersionRow } from "./composing";
import { requireEntries, requireEntry } from "./entries";
import { kindOf } from "./kinds";
import { requireRevealGates } from "./revealGates";
import { fingerprint, type SealedValues } from "./sealing";
import { MOST_REWRITTEN } from "./several";
import { earlier as t } from "./strings";
import { openValues } from "./vaultKeys";
import { currentVersion, noteSighting, rewrite, valuesOfVersion } from "./writing";

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

/** More are there, and come back by asking for those before. */
const SHOWN_AT_ONCE = 50;

export interface EarlierValue {
  id: string;
  label: string;
  class: Field["class"];
  form: Field["form"];
  /** Null for a secret, which is revealed by a command of its own. */
  value: string | null;
  filled: boolean;
  /** Differs from the version before. */
  changed: boolean;
  /** Differs from what is kept now. */
  differs: boolean;
}

export const earlierVersions = query({
  name: "vaults.earlierVersions",
  input: z.strictObject({ entryId: idSchema, before: z.number().int().min(1).optional() }),
  by: ["person"],
  allow: (context) => requireEntry(context, context.input.entryId, "edit"),
  run: async ({ tx, me, input, app, allowed }) => {
    const { entry } = allowed;
    const wanted = await tx
      .select()
      .from(entryVersions)
      .where(
        and(
          eq(entryVersions.entryId, entry.nodeId),
          input.before === undefined ? undefined : lt(entryVersions.number, input.before),
        ),
      )
      .orderBy(desc(entryVersions.number))
      .limit(SHOWN_AT_ONCE + 1);
    const named = await peopleNames(
      tx,
      me,
      wanted.map((version) => version.createdBy),
    );
    const opened = await Promise.all(
      [await currentVersion(tx, entry), ...wanted].map(async (version) => ({
        version,
        by: named(version.createdBy),
        kind: await kindOf(tx, kindIdOf(version, entry.kind)),
        sealed: await openValues(tx, app.keys, version),
      })),
    );
    const [current, ...rows] = opened;
    return {
      name: entry.name,
      baseVersionId: entry.versionId,
      versions: rows.slice(0, SHOWN_AT_ONCE).map((row, at) => ({
        id: row.version.id,
        number: row.version.number,
        at: row.version.createdAt,
        by: row.by,
        kind: row.kind.name,
        refused: row.version.refusedAt !== null,
        values: valuesShown(row, rows[at + 1] ?? null, current!),
      })),
      more: rows.length > SHOWN_AT_ONCE,
    };
  },
});

interface Opened {
  version: VersionRow;
  kind: Kind;
  sealed: SealedValues;
}

const kindIdOf = (version: VersionRow, now: string) => (version.open.kind as string | undefined) ?? now;

const COMMON_FIELDS: readonly Field[] = [
  { id: "name", label: t.name, class: "open", form: "line" },
  { id: "description", label: t.description, class: "open", form: "line" },
  { id: "notes", label: t.notes, class: "open", form: "text" },
  { id: "tags", label: t.tags, class: "open", form: "line" },
];

function valuesShown(row: Opened, before: Opened | null, now: Opened): EarlierValue[] {
  const { open } = row.version;
  const changed = new Set(before ? differing(before, row) : []);
  const differs = new Set(differing(row, now));
  const flat: Record<string, unknown> = {
    ...open,
    ...(open.fields as object),
    tags: (open.tags as string[]).join(", "),
  };
  const hidden = fieldsOf(row.sealed);
  const extras = open.extras as { id: string; label: string; class: Field["class"]; value?: string }[];
  const fields: Field[] = [
    ...COMMON_FIELDS,
    ...row.kind.fields,
    ...extras.map((extra): Field => ({ ...extra, id: `extra:${extra.id}`, form: "line" })),
  ];
  for (const extra of extras) flat[`extra:${extra.id}`] = extra.value;
  const nowHidden = fieldsOf(now.sealed);
  // A field that has been made more secret since is so in earlier versions as well.
  const shownAs = ({ id, class: then }: Field) =>
    nowHidden[id] ? stricter(then, classOf(classesOf(now), id) ?? then) : then;
  return fields.map((field) => {
    const value = field.class === "open" ? String(flat[field.id] ?? "") : (hidden[field.id] ?? "");
    const isExtra = field.id.startsWith("extra:");
    const marked = (marks: Set<string>) =>
      marks.has(field.id) || (isExtra && field.class === "open" && marks.has("extras"));
    return {
      id: field.id,
      label: field.label,
      class: shownAs(field),
      form: field.form,
      value: shownAs(field) === "secret" ? null : value,
      filled: value !== "",
      changed: marked(changed),
      differs: marked(differs),
    };
  });
}

const differing = (a: Opened, b: Opened) => changedFields(a.version.open, b.version.open, a.sealed, b.sealed);

async function requireVersion(context: Asking, entryId: string, versionId: string): Promise<VersionRow> {
  const [version] = await context.tx
    .select()
    .from(entryVersions)
    .where(and(eq(entryVersions.id, versionId), eq(entryVersions.entryId, entryId)));
  if (!version) throw notFound();
  return version;
}

/** Shows or copies one secret of an earlier version. */
export const revealEarlier = command({
  name: "vaults.revealEarlier",
  input: z.strictObject({
    entryId: idSchema,
    versionId: idSchema,
    field: z.string().min(1).max(80),
    how: z.enum(["revealed", "copied"]),
  }),
  by: ["person"],
  allow: async (context) => {
    const { input } = context;
    const allowed = await requireEntry(context, input.entryId, "edit");
    await requireRevealGates(context, allowed);
    return { ...allowed, version: await requireVersion(context, input.entryId, input.versionId) };
  },
  run: async ({ tx, input, caller, at, app, allowed }) => {
    const values = await openValues(tx, app.keys, allowed.version);
    const hidden = fieldsOf(values);
    if (!Object.hasOwn(hidden, input.field)) throw notFound();
    const word = fieldWord(await kindOf(tx, kindIdOf(allowed.version, allowed.entry.kind)), input.field);
    const value = hidden[input.field]!;
    if (input.field === CODE) {
      const { code, leftMs } = codeAt(values.code!, at);
      return { value: code, leftMs, word };
    }
    await noteSighting(tx, {
      entryId: input.entryId,
      field: input.field,
      mark: fingerprint(app.keys, input.field, value),
      personId: personIdOf(caller),
      at,
      how: input.how,
    });
    return { value, leftMs: null, word };
  },
  journal: ({ input, result, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { field: result.word, how: input.how, version: allowed.version.number },
    names: { [input.entryId]: allowed.entry.name },
  }),
  says: ({ details, place }) =>
    `${details.how === "copied" ? "copied" : "revealed"} the ${details.field} of version ${details.version}${place("of")}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

/**
 * Brings back one field, or all, of an earlier version: as a new version, so that this too can be taken back. Who
 * brings a secret back has not thereby seen it.
 */
export const restoreVersion = command({
  name: "vaults.restoreVersion",
  input: z.strictObject({
    items: z
      .array(z.strictObject({ entryId: idSchema, baseVersionId: idSchema, versionId: idSchema }))
      .min(1)
      .max(MOST_REWRITTEN),
    /** Field ids; null for all. */
    fields: z.array(z.string().min(1).max(80)).min(1).max(100).nullable(),
  }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input } = context;
    const ids = input.items.map((item) => item.entryId);
    const allowed = await requireEntries(context, ids, "edit");
    const versions = await tx
      .select()
      .from(entryVersions)
      .where(
        and(
          inArray(entryVersions.entryId, ids),
          inArray(
            entryVersions.id,
            input.items.map((item) => item.versionId),
          ),
        ),
      );
    const items = input.items.map((item, at) => {
      const { entry, ...held } = allowed.found[at]!;
      const version = versions.find((one) => one.id === item.versionId && one.entryId === item.entryId);
      if (!version) throw notFound();
      if (entry.versionId !== item.baseVersionId)
        throw new Refused("conflict", t.someoneElseHasChangedCheckIt(entry.name));
      return { entry, version, held };
    });
    return { ...allowed, items };
  },
  run: async (context) => {
    const { tx, input, app, allowed } = context;
    const done = [];
    for (const { entry, version, held } of allowed.items) {
      const kindThen = await kindOf(tx, kindIdOf(version, entry.kind));
      const sealedThen = await openValues(tx, app.keys, version);
      const then = valuesOfVersion(kindThen, version, sealedThen);
      done.push(
        await rewrite(context, {
          entry,
          held,
          how: null,
          change: (now, kind, sealed) => {
            const thenClasses = { kind: kindThen, extras: then.extras };
            const nowClasses = { kind, extras: now.extras };
            if (input.fields === null) {
              refuseShowing(kindThen, filledIn(sealed), nowClasses, thenClasses);
              return { kind: kindThen, values: then };
            }
            const values = withFieldsOf(kind, now, then, input.fields);
            const after = { kind, extras: values.extras };
            refuseShowing(kind, filledIn(sealed), nowClasses, after);
            const back = filledIn(sealedThen).filter((id) => input.fields!.includes(id));
            refuseShowing(kind, back, thenClasses, after);
            return values;
          },
        }),
      );
    }
    return {
      rows: done.map(({ entryId, before, versionId }) => ({ entryId, before, versionId })),
      words: done.map((one) => one.changed),
    };
  },
  journal: ({ result, allowed }) =>
    allowed.lines().map((line, at) => ({
      ...line,
      details: { changed: result.words[at]!, version: allowed.items[at]!.version.number },
    })),
  says: ({ details, place }) =>
    `restored ${fieldsChanged(details.changed || "values")} of version ${details.version}${place("of")}`,
  tell: ({ allowed }) => allowed.topics,
});

const filledIn = (sealed: SealedValues): string[] => Object.keys(fieldsOf(sealed));

/** @throws Refused where a value would be seen by more people than now */
function refuseShowing(kind: Kind, ids: readonly string[], before: Classes, after: Classes): void {
  const [id] = shownToMore(ids, before, after);
  if (id === undefined) return;
  const label =
    [...after.extras, ...before.extras].find((extra) => `extra:${extra.id}` === id)?.label ?? fieldWord(kind, id);
  throw new Refused("conflict", t.morePeopleCouldSeeThenThanNow(label), "fields");
}

/** @throws Refused for a field that the kind has no more */
function withFieldsOf(kind: Kind, now: EntryValues, then: EntryValues, ids: readonly string[]): EntryValues {
  const after = { ...now, fields: { ...now.fields } };
  for (const id of ids) {
    if (id === "name" || id === "description" || id === "notes" || id === SIGN_IN_PAGE) after[id] = then[id];
    else if (id === "tags") after.tags = then.tags;
    else if (id === CODE) after.code = then.code;
    else if (id.startsWith("extra:")) {
      const extra = then.extras.find((one) => `extra:${one.id}` === id);
      const others = after.extras.filter((one) => `extra:${one.id}` !== id);
      after.extras = extra ? [...others, extra] : others;
    } else if (fieldOf(kind, id)) after.fields[id] = then.fields[id] ?? "";
    else throw new Refused("conflict", t.thisEntryIsOfAnotherKindNow, "fields");
  }
  return after;
}
