/** Versions of entries: read, written, rewritten. */
import { eq } from "drizzle-orm";
import { z } from "zod";
import { CODE, fieldWord, type Kind } from "../../core/kinds/kind";
import type { EntryValues } from "../../core/kinds/values";
import type { Reader, Transaction } from "../database/client";
import { entries, entryVersions, fingerprints, type SightingHow, sightings } from "../database/schema";
import type { Galtry } from "../galtry";
import { uuidv7 } from "../ids";
import { composeVersion, type VersionRow, type WriteVersion } from "./composing";
import { kindOf } from "./kinds";
import type { SealedValues } from "./sealing";
import { openValues, vaultKey } from "./vaultKeys";

export type EntryRow = typeof entries.$inferSelect;

/** One key for each value (core/kinds/values.ts); read once the kind is known. */
export const flatValues = z.record(z.string().max(80), z.unknown());

export async function currentVersion(tx: Reader, entry: Pick<EntryRow, "versionId">): Promise<VersionRow> {
  const [version] = await tx.select().from(entryVersions).where(eq(entryVersions.id, entry.versionId));
  if (!version) throw new Error("an entry has no version");
  return version;
}

/** Writes a new version and says what the entry's row becomes. */
export async function writeVersion(tx: Transaction, house: Galtry, write: WriteVersion) {
  const composed = await composeVersion(await vaultKey(tx, house.keys, write.vaultId), house.keys, write);
  await tx.insert(entryVersions).values(composed.version);
  if (composed.fingerprints.length > 0) await tx.insert(fingerprints).values(composed.fingerprints);
  if (composed.sightings.length > 0) await tx.insert(sightings).values(composed.sightings);
  return composed;
}

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
