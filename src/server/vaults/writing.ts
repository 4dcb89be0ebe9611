/** A version of an entry, composed and written: what is open as JSON, the rest in one sealed blob. */
import { eq } from "drizzle-orm";
import { z } from "zod";
import { CODE, fieldOf, fieldWord, type Kind, PASSWORD, SIGN_IN_PAGE, USER_NAME } from "../../core/kinds/kind";
import { type EntryValues, readValues } from "../../core/kinds/values";
import { hostOf } from "../../core/signin/address";
import { siteOf } from "../../core/signin/site";
import type { Reader, Transaction } from "../database/client";
import { type ExtraField, entries, entryVersions, fingerprints, type SightingHow, sightings } from "../database/schema";
import type { Galtry } from "../galtry";
import { uuidv7 } from "../ids";
import { badInput } from "../refused";
import { kindOf } from "./kinds";
import { fingerprint, openValues, type SealedValues, sealValues, type VaultKey, vaultKey } from "./sealing";

export type EntryRow = typeof entries.$inferSelect;
export type VersionRow = typeof entryVersions.$inferSelect;

/** One key for each value (core/kinds/values.ts); read once the kind is known. */
export const flatValues = z.record(z.string().max(80), z.unknown());

export async function currentVersion(tx: Reader, entry: Pick<EntryRow, "versionId">): Promise<VersionRow> {
  const [version] = await tx.select().from(entryVersions).where(eq(entryVersions.id, entry.versionId));
  if (!version) throw new Error("an entry has no version");
  return version;
}

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
  /** How its writer came to see the secrets that are new; null where they did not see them. */
  how: SightingHow | null;
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
    kind: kind.id,
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
      .flatMap(({ field, fingerprint: mark }) =>
        how === null ? [] : [{ id: uuidv7(), entryId, field, fingerprint: mark, personId, at, how }],
      ),
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
export async function writeVersion(tx: Transaction, house: Galtry, write: WriteVersion) {
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

/** What a version keeps, as it would be typed in: hidden values that are empty are emptied, not left as they are. */
export function valuesOfVersion(kind: Kind, { open }: Pick<VersionRow, "open">, sealed: SealedValues): EntryValues {
  const kept = open as unknown as Pick<
    EntryRow,
    "name" | "description" | "notes" | "tags" | "extras" | "signInPage" | "reach" | "useSeesUserName" | "fields"
  >;
  const hidden = kind.fields.filter((field) => field.class !== "open" && field.id !== CODE);
  return {
    name: kept.name,
    description: kept.description,
    notes: kept.notes,
    tags: kept.tags,
    signInPage: kept.signInPage,
    reach: kept.reach,
    useSeesUserName: kept.useSeesUserName,
    extras: kept.extras.map((extra) =>
      extra.class === "open" ? extra : { ...extra, value: sealed.fields[`extra:${extra.id}`] ?? "" },
    ),
    code: sealed.code,
    fields: { ...kept.fields, ...Object.fromEntries(hidden.map(({ id }) => [id, sealed.fields[id] ?? ""])) },
  };
}

interface Rewrite {
  entry: EntryRow;
  personId: string;
  at: number;
  how: SightingHow | null;
  /** What the version becomes; the kind too, where it is to be another. */
  change: (values: EntryValues, kind: Kind, sealed: SealedValues) => Promise<Changed> | Changed;
}

type Changed = EntryValues | { kind: Kind; values: EntryValues };

/** Writes a version that differs from the current one as `change` says. */
export async function rewrite(tx: Transaction, house: Galtry, { entry, personId, at, how, change }: Rewrite) {
  const current = await currentVersion(tx, entry);
  const before = await openValues(tx, house.keys, current);
  const kind = await kindOf(tx, entry.kind);
  const changed = await change(valuesOfVersion(kind, current, before), kind, before);
  const after = "values" in changed ? changed : { kind, values: changed };
  const written = await writeVersion(tx, house, {
    ...after,
    entryId: entry.nodeId,
    vaultId: current.vaultId,
    number: current.number + 1,
    personId,
    at,
    before,
    how,
    earlier: current,
  });
  await tx.update(entries).set(written.row).where(eq(entries.nodeId, entry.nodeId));
  return {
    entryId: entry.nodeId,
    name: written.row.name,
    before: current.id,
    versionId: written.row.versionId,
    changed: changedWords(after.kind, written.changed),
  };
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
  kind: "kind",
  name: "name",
  description: "description",
  notes: "notes",
  tags: "tags",
  extras: "extra fields",
  reach: "where it is offered",
  useSeesUserName: "who sees the user name",
};

/** "notes, password": what an edit changed, in the words of the kind. */
export const changedWords = (kind: Kind, changed: readonly string[]): string =>
  [...new Set(changed.map((id) => COMMON_WORDS[id] ?? fieldWord(kind, id)))].join(", ");

export function changedFields(
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
  // Versions did not always say their kind.
  if (was.kind === undefined) was.kind = is.kind;
  const open = Object.keys(is).filter((key) => JSON.stringify(was[key]) !== JSON.stringify(is[key]));
  const [old, now] = [fieldsOf(before), fieldsOf(after)];
  const sealed = [...new Set([...Object.keys(old), ...Object.keys(now)])].filter(
    (key) => (old[key] ?? "") !== (now[key] ?? ""),
  );
  return [...open, ...sealed];
}
