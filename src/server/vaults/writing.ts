/** Versions of entries: read, written, rewritten. */
import { eq } from "drizzle-orm";
import { z } from "zod";
import type { Level } from "../../core/access";
import { CODE, fieldWord, type Kind } from "../../core/kinds/kind";
import type { EntryValues } from "../../core/kinds/values";
import type { CallerKind } from "../caller";
import type { Context } from "../command";
import type { Reader, Transaction } from "../database/client";
import { entries, entryVersions, fingerprints, ITSELF, type SightingHow, sightings } from "../database/schema";
import { uuidv7 } from "../ids";
import { composeVersion, type VersionRow, type WriteVersion } from "./composing";
import { kindOf } from "./kinds";
import { requireRevealGates } from "./revealGates";
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
export async function writeVersion({ tx, app }: Pick<Context<unknown>, "tx" | "app">, write: WriteVersion) {
  const composed = await composeVersion(await vaultKey(tx, app.keys, write.vaultId), app.keys, write);
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
  /** Of the caller at the entry. */
  held: { vaultId: string; level: Level };
  how: SightingHow | null;
  /** What the version becomes; the kind too, where it is to be another. */
  change: (values: EntryValues, kind: Kind, sealed: SealedValues) => Promise<Changed> | Changed;
}

type Changed = EntryValues | { kind: Kind; values: EntryValues };

/** Writes a version that differs from the current one as `change` says. */
export async function rewrite(
  context: Pick<Context<unknown, Transaction, CallerKind>, "tx" | "app" | "me" | "at" | "caller">,
  { entry, held, how, change }: Rewrite,
) {
  const { tx, app, at } = context;
  const current = await currentVersion(tx, entry);
  const before = await openValues(tx, app.keys, current);
  const kind = await kindOf(tx, entry.kind);
  const changed = await change(valuesOfVersion(kind, current, before), kind, before);
  const after = "values" in changed ? changed : { kind, values: changed };
  const { me, caller, ...rest } = context;
  if (me)
    await requireSameWay({ ...rest, me, caller: caller as Context<unknown>["caller"] }, entry, held, after.values);
  else if (after.values.signInPage !== entry.signInPage)
    throw new Error("only people give an entry another sign-in page");
  const written = await writeVersion(context, {
    kind: after.kind,
    values: unchangedLeftOut(after.values, before),
    entryId: entry.nodeId,
    vaultId: current.vaultId,
    number: current.number + 1,
    personId: me?.id ?? ITSELF,
    at,
    before,
    how,
    earlier: { version: current, kind },
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

/**
 * Another sign-in page gets the password at the next sign-in: changing it takes what showing the password takes.
 * @throws Refused accept-first, ask-first or prove-again
 */
export async function requireSameWay(
  context: Pick<Context<unknown, Reader>, "tx" | "me" | "at" | "caller">,
  entry: EntryRow,
  held: { vaultId: string; level: Level },
  { signInPage }: Pick<EntryValues, "signInPage">,
): Promise<void> {
  if (signInPage !== entry.signInPage) await requireRevealGates(context, { entry, ...held });
}

/** Hidden values that are as they were, left out: they are kept, and not entered anew. */
function unchangedLeftOut(values: EntryValues, before: SealedValues): EntryValues {
  return {
    ...values,
    fields: Object.fromEntries(Object.entries(values.fields).filter(([id, value]) => value !== before.fields[id])),
    extras: values.extras.map((extra) => {
      if (extra.class === "open" || extra.value !== before.fields[`extra:${extra.id}`]) return extra;
      const { value: _, ...kept } = extra;
      return kept;
    }),
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
