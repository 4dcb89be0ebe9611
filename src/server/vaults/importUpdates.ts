/**
 * Entries that an import changes instead of making new ones: they get the password of the row, and its code. The new
 * versions wait under the import, sealed, and nobody sees them before it is published.
 */
import { and, eq } from "drizzle-orm";
import { atLeast, type Reach } from "../../core/access";
import { CODE, PASSWORD } from "../../core/kinds/kind";
import type { Asking } from "../access/load";
import type { Transaction } from "../database/client";
import { entries, entryVersions, fingerprints, importUpdates, sightings } from "../database/schema";
import type { Galtry } from "../galtry";
import { uuidv7 } from "../ids";
import { Refused } from "../refused";
import { composeVersion, valuesIn } from "./composing";
import { requireEntry } from "./entries";
import { kindOf } from "./kinds";
import { importUpdates as t } from "./strings";
import { openValues, vaultKey } from "./vaultKeys";
import { currentVersion, rewrite, valuesOfVersion } from "./writing";

type Update = typeof importUpdates.$inferInsert;

/** The version that the entry would have; nothing is written, and who may is asked elsewhere. */
export async function composeUpdate(
  app: Galtry,
  entryId: string,
  row: Record<string, unknown>,
  personId: string,
  at: number,
): Promise<Omit<Update, "importId">> {
  const [entry] = await app.db.select().from(entries).where(eq(entries.nodeId, entryId));
  if (!entry) throw new Refused("conflict", t.anEntryThatWouldBeUpdatedNo);
  const current = await currentVersion(app.db, entry);
  const kind = await kindOf(app.db, entry.kind);
  const before = await openValues(app.db, app.keys, current);
  const values = valuesOfVersion(kind, current, before);
  const given = valuesIn(kind, {
    name: entry.name,
    ...(kind.fields.some((field) => field.id === "signInPage" && field.required) && { signInPage: entry.signInPage }),
    [PASSWORD]: row[PASSWORD],
    ...(row[CODE] ? { [CODE]: row[CODE] } : {}),
  });
  const composed = await composeVersion(await vaultKey(app.db, app.keys, current.vaultId), app.keys, {
    kind,
    entryId,
    vaultId: current.vaultId,
    number: current.number + 1,
    personId,
    at,
    values: {
      ...values,
      code: given.code === undefined ? values.code : given.code,
      fields: { ...values.fields, [PASSWORD]: given.fields[PASSWORD] ?? "" },
    },
    before,
    how: "brought in",
    earlier: { version: current, kind },
  });
  const seen = new Set(composed.sightings.map((one) => one.field));
  return {
    entryId,
    beforeVersionId: current.id,
    versionId: composed.version.id,
    sealed: composed.version.sealed,
    pending: {
      number: composed.version.number,
      vaultId: composed.version.vaultId,
      keyVersion: composed.version.keyVersion,
      open: composed.version.open,
      hasCode: composed.row.hasCode,
      fingerprints: composed.fingerprints.map(({ field, fingerprint }) => ({
        field,
        fingerprint,
        seen: seen.has(field),
      })),
    },
  };
}

export async function keepUpdates(tx: Transaction, importId: string, updates: Omit<Update, "importId">[]) {
  if (updates.length === 0) return;
  await tx
    .insert(importUpdates)
    .values(updates.map((one) => ({ ...one, importId })))
    .onConflictDoNothing();
}

/** Their level may have gone since the rows came, and so may the entry to another vault. */
export async function requireUpdates(context: Asking, importId: string): Promise<void> {
  const rows = await context.tx.select().from(importUpdates).where(eq(importUpdates.importId, importId));
  for (const { entryId, pending } of rows) {
    const { vaultId, entry } = await requireEntry(context, entryId, "edit");
    if (vaultId !== pending?.vaultId) throw new Refused("conflict", t.hasBeenMovedToAnotherVault(entry.name));
  }
}

/**
 * Puts them in the place of what is there. @throws Refused when somebody changed one meanwhile: then nothing of the
 * import is published.
 */
export async function publishUpdates(tx: Transaction, importId: string, personId: string, at: number) {
  const rows = await tx
    .select({ update: importUpdates, name: entries.name, versionId: entries.versionId })
    .from(importUpdates)
    .innerJoin(entries, eq(entries.nodeId, importUpdates.entryId))
    .where(eq(importUpdates.importId, importId));
  for (const { update, name, versionId } of rows) {
    const { pending, entryId } = update;
    if (!pending || !update.sealed) continue;
    if (versionId !== update.beforeVersionId) throw new Refused("conflict", t.someoneElseHasChangedCheckThe(name));
    await tx.insert(entryVersions).values({
      id: update.versionId,
      entryId,
      number: pending.number,
      vaultId: pending.vaultId,
      keyVersion: pending.keyVersion,
      open: pending.open,
      sealed: update.sealed,
      createdAt: at,
      createdBy: personId,
    });
    await tx
      .insert(fingerprints)
      .values(
        pending.fingerprints.map(({ field, fingerprint }) => ({ versionId: update.versionId, field, fingerprint })),
      );
    const seen = pending.fingerprints.filter((one) => one.seen);
    if (seen.length > 0)
      await tx.insert(sightings).values(
        seen.map(({ field, fingerprint }) => ({
          id: uuidv7(),
          entryId,
          field,
          fingerprint,
          personId,
          at,
          how: "brought in" as const,
        })),
      );
    await tx
      .update(entries)
      .set({ versionId: update.versionId, hasCode: pending.hasCode, changedAt: at, changedBy: personId })
      .where(eq(entries.nodeId, entryId));
    await tx
      .update(importUpdates)
      .set({ pending: null, sealed: null })
      .where(and(eq(importUpdates.importId, importId), eq(importUpdates.entryId, entryId)));
  }
  return rows.map(({ update, name }) => ({ entryId: update.entryId, name, vaultId: update.pending?.vaultId ?? "" }));
}

/** What an import changed, and whether somebody has changed it again since. */
export async function updatedBy(tx: Pick<Transaction, "select">, importId: string) {
  const rows = await tx
    .select({ update: importUpdates, entry: entries })
    .from(importUpdates)
    .innerJoin(entries, eq(entries.nodeId, importUpdates.entryId))
    .where(eq(importUpdates.importId, importId));
  return rows.map(({ update, entry }) => ({ update, entry, changedSince: entry.versionId !== update.versionId }));
}

/**
 * Each gets its version of before back, as a new one; what others changed since stays, and what the asker may not edit.
 * @returns how many
 */
export async function takeBackUpdates(
  context: Parameters<typeof rewrite>[0],
  importId: string,
  levelOf: (entryId: string) => Reach,
): Promise<number> {
  const { tx, app } = context;
  let back = 0;
  for (const { update, entry, changedSince } of await updatedBy(tx, importId)) {
    const level = levelOf(entry.nodeId);
    if (changedSince || level === "none" || !atLeast(level, "edit")) continue;
    const [before] = await tx.select().from(entryVersions).where(eq(entryVersions.id, update.beforeVersionId));
    if (!before) continue;
    const sealed = await openValues(tx, app.keys, before);
    await rewrite(context, {
      entry,
      held: { vaultId: before.vaultId, level },
      how: null,
      change: (_values, kind) => valuesOfVersion(kind, before, sealed),
    });
    back++;
  }
  return back;
}
