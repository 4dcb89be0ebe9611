/**
 * Bringing in many entries at once. Rows arrive in chunks, are sealed before any transaction and written without a place,
 * so that nobody reaches them; one short command publishes them by writing the places. What is cancelled or abandoned is
 * swept away. For a day the whole of it can be undone.
 */
import { and, eq, inArray, isNotNull, isNull, lt, or, sql } from "drizzle-orm";
import { z } from "zod";
import { counted } from "../../core/counted";
import { MOST_ENTRIES } from "../../core/formats/rows";
import type { Asking } from "../access/load";
import { nodeName } from "../access/nodeName";
import { personIdOf } from "../caller";
import { command, idSchema } from "../command";
import { insertBulk } from "../database/bulk";
import type { Transaction } from "../database/client";
import {
  entries,
  entryVersions,
  fingerprints,
  firstSeen,
  folders,
  importRows,
  imports,
  importUpdates,
  nodes,
  places,
  sightings,
} from "../database/schema";
import { uuidv7 } from "../ids";
import { notFound, Refused } from "../refused";
import { yieldToEventLoop } from "../yieldToEventLoop";
import { composeRows, TABLES_OF_ROWS } from "./composingRows";
import { kindSchema, requireEntry } from "./entries";
import { DEEPEST, requirePlace } from "./folders";
import { composeUpdate, keepUpdates, publishUpdates, requireUpdates } from "./importUpdates";
import { kindsById } from "./kinds";
import { importing as t } from "./strings";
import { vaultKey } from "./vaultKeys";
import { flatValues } from "./writing";

/** Rows of one chunk. */
const CHUNK = 200;
/** Nothing came for so long: somebody closed the page. */
const ABANDONED_MS = 30 * 60_000;

const incoming = z.strictObject({
  kind: kindSchema,
  values: flatValues,
  folder: z.array(z.string().trim().min(1).max(200)).max(20),
  /** Instead of a new entry: this one gets the password, and the code where the row has one. */
  updates: idSchema.optional(),
});

type ImportRow = typeof imports.$inferSelect;

export const beginImport = command({
  name: "vaults.beginImport",
  input: z.strictObject({ parentId: idSchema }),
  by: ["person"],
  allow: (context) => requirePlace(context, context.input.parentId, "edit"),
  run: async ({ tx, input, caller, at, app, allowed }) => {
    void app.composer?.warm();
    const importId = uuidv7();
    await tx.insert(imports).values({
      id: importId,
      vaultId: allowed.vaultId,
      parentId: input.parentId,
      personId: personIdOf(caller),
      process: app.process,
      begunAt: at,
      movedAt: at,
      foldersMade: [],
    });
    return { importId };
  },
  journal: null,
  tell: () => [],
});

/** The caller's own import, still open, and Edit where it goes. */
async function requireOpen(context: Asking, importId: string) {
  const [found] = await context.tx.select().from(imports).where(eq(imports.id, importId));
  if (!found || found.personId !== context.me.id) throw notFound();
  if (found.cancelledAt !== null || found.publishedAt !== null)
    throw new Refused("conflict", t.thisImportIsOverItWasFinished);
  return { ...(await requirePlace(context, found.parentId, "edit")), found };
}

export const importChunk = command({
  name: "vaults.importChunk",
  lowPriority: true,
  input: z.strictObject({ importId: idSchema, rows: z.array(incoming).min(1).max(CHUNK) }),
  by: ["person"],
  prepare: async ({ input, caller, app, at }) => {
    // Sealing needs the vault and its key, which do not change; who may is asked in the transaction.
    const [found] = await app.db.select().from(imports).where(eq(imports.id, input.importId));
    const personId = personIdOf(caller);
    if (!found || found.personId !== personId) return { composed: null, updates: [] };
    const ask = {
      importId: input.importId,
      vaultId: found.vaultId,
      personId,
      at,
      key: await vaultKey(app.db, app.keys, found.vaultId),
      fingerprints: app.keys.fingerprints,
      own: [...(await kindsById(app.db)).values()].filter((kind) => kind.own),
      rows: input.rows.filter((row) => !row.updates),
    };
    const composed = await (app.composer ? app.composer.compose(ask) : composeRows(ask));
    if ("refused" in composed) throw new Refused("bad-input", composed.refused.message, composed.refused.field);
    const updates = [];
    for (const { updates: entryId, values } of input.rows)
      if (entryId) updates.push(await composeUpdate(app, entryId, values, personId, at));
    return { composed, updates };
  },
  allow: async (context) => {
    const allowed = await requireOpen(context, context.input.importId);
    const longest = context.input.rows.reduce((most, row) => Math.max(most, row.folder.length), 0);
    if (allowed.depth + longest > DEEPEST) throw new Refused("bad-input", t.foldersNestAtMostDeep(DEEPEST));
    if (allowed.found.rows + context.input.rows.length > MOST_ENTRIES)
      throw new Refused("bad-input", t.atMostEntriesCanBeImportedAt(MOST_ENTRIES.toLocaleString("en-GB")));
    for (const { updates } of context.input.rows) if (updates) await requireEntry(context, updates, "edit");
    return allowed;
  },
  run: async ({ tx, input, at, prepared: { composed, updates } }) => {
    const { importId } = input;
    if (!composed) throw notFound();
    for (const [name, table] of Object.entries(TABLES_OF_ROWS)) {
      await insertBulk(tx, table, composed.tables[name as keyof typeof TABLES_OF_ROWS]);
      await yieldToEventLoop();
    }
    await keepUpdates(tx, importId, updates);
    await tx
      .update(imports)
      .set({ movedAt: at, rows: sql`${imports.rows} + ${input.rows.length}` })
      .where(eq(imports.id, importId));
    return { rows: input.rows.length, entryIds: composed.entryIds };
  },
  journal: null,
  tell: () => [],
});

/** Everything is there at once, in its folders; before this moment nothing was. */
export const publishImport = command({
  name: "vaults.publishImport",
  input: z.strictObject({ importId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    const allowed = await requireOpen(context, context.input.importId);
    await requireUpdates(context, context.input.importId);
    return allowed;
  },
  run: async ({ tx, input, caller, at, commandId, allowed }) => {
    const { found } = allowed;
    const { importId } = input;
    const paths = await tx
      .select({ folder: importRows.folder, count: sql<number>`count(*)` })
      .from(importRows)
      .where(eq(importRows.importId, importId))
      .groupBy(importRows.folder);
    const updated = await publishUpdates(tx, importId, personIdOf(caller), at);
    if (paths.length === 0 && updated.length === 0) throw new Refused("bad-input", t.thereIsNothingToImport);
    const made: string[] = [];
    const keeper = new FolderKeeper(tx, found, { personId: personIdOf(caller), at, commandId }, made);
    for (const { folder } of paths) {
      const parentId = await keeper.find(folder);
      await tx.run(sql`
        insert into ${places} (id, node_id, parent_id, vault_id, valid_from, command_id)
        select place_id, entry_id, ${parentId}, ${found.vaultId}, ${at}, ${commandId}
        from ${importRows} where import_id = ${importId} and folder = ${JSON.stringify(folder)}`);
    }
    await tx.update(imports).set({ publishedAt: at, foldersMade: made }).where(eq(imports.id, importId));
    const place = await nodeName(tx, found.parentId);
    return { entries: paths.reduce((sum, row) => sum + row.count, 0), folders: made.length, place, updated };
  },
  journal: ({ result, allowed }) => [
    {
      node: allowed.found.parentId,
      vault: allowed.vaultId,
      details: { entries: result.entries, folders: result.folders, updated: result.updated.length },
      names: { [allowed.found.parentId]: result.place },
    },
    ...result.updated.map(({ entryId, vaultId, name }) => ({
      node: entryId,
      vault: vaultId,
      details: { updated: true },
      names: { [entryId]: name },
    })),
  ],
  says: ({ details, place }) =>
    details.updated === true
      ? `changed the password${place("of")} by importing a file`
      : `imported ${counted(Number(details.entries), "entry")}${place("to")}`,
  tell: ({ result, allowed }) => [
    `vault:${allowed.vaultId}`,
    ...result.updated.map(({ vaultId }) => `vault:${vaultId}` as const),
  ],
});

/** Folders by their names below the place of an import: those that are there, else new ones. */
class FolderKeeper {
  readonly #known = new Map<string, string>();
  constructor(
    readonly tx: Transaction,
    readonly to: ImportRow,
    readonly by: { personId: string; at: number; commandId: string },
    readonly made: string[],
  ) {}

  async find(path: readonly string[]): Promise<string> {
    let parentId = this.to.parentId;
    for (const [i, name] of path.entries()) {
      const key = JSON.stringify(path.slice(0, i + 1));
      const known = this.#known.get(key) ?? (await this.#there(parentId, name)) ?? (await this.#make(parentId, name));
      this.#known.set(key, known);
      parentId = known;
    }
    return parentId;
  }

  async #there(parentId: string, name: string): Promise<string | undefined> {
    const [row] = await this.tx
      .select({ id: folders.nodeId })
      .from(folders)
      .innerJoin(places, and(eq(places.nodeId, folders.nodeId), isNull(places.validUntil)))
      .where(and(eq(places.parentId, parentId), eq(folders.name, name), isNull(folders.binnedAt)));
    return row?.id;
  }

  async #make(parentId: string, name: string): Promise<string> {
    const { tx, by, to } = this;
    const id = uuidv7();
    await tx.insert(nodes).values({ id, type: "folder", createdAt: by.at, createdBy: by.personId });
    await tx.insert(folders).values({ nodeId: id, name });
    await tx
      .insert(places)
      .values({ id: uuidv7(), nodeId: id, parentId, vaultId: to.vaultId, validFrom: by.at, commandId: by.commandId });
    this.made.push(id);
    return id;
  }
}

export const cancelImport = command({
  name: "vaults.cancelImport",
  input: z.strictObject({ importId: idSchema }),
  by: ["person"],
  allow: (context) => requireOpen(context, context.input.importId),
  run: async ({ tx, input, at }) => {
    await tx.update(imports).set({ cancelledAt: at }).where(eq(imports.id, input.importId));
  },
  journal: null,
  tell: () => [],
});

/** One piece of what was cancelled, abandoned or begun by a process that is no more; true while more is left. */
export const sweepImports = command({
  name: "vaults.sweepImports",
  lowPriority: true,
  input: z.strictObject({ deadProcesses: z.array(z.string()) }),
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, input, at }) => {
    await tx
      .update(imports)
      .set({ cancelledAt: at })
      .where(
        and(
          isNull(imports.publishedAt),
          isNull(imports.cancelledAt),
          or(
            lt(imports.movedAt, at - ABANDONED_MS),
            input.deadProcesses.length > 0 ? inArray(imports.process, input.deadProcesses) : undefined,
          ),
        ),
      );
    const cancelled = tx.select({ id: imports.id }).from(imports).where(isNotNull(imports.cancelledAt));
    const rows = await tx
      .select({ entryId: importRows.entryId, versionId: importRows.versionId })
      .from(importRows)
      .where(inArray(importRows.importId, cancelled))
      .limit(CHUNK);
    await tx.delete(importUpdates).where(inArray(importUpdates.importId, cancelled));
    if (rows.length === 0) return false;
    const entryIds = rows.map((row) => row.entryId);
    await tx.delete(fingerprints).where(
      inArray(
        fingerprints.versionId,
        rows.map((row) => row.versionId),
      ),
    );
    await tx.delete(sightings).where(inArray(sightings.entryId, entryIds));
    await tx.delete(entryVersions).where(inArray(entryVersions.entryId, entryIds));
    await tx.delete(firstSeen).where(inArray(firstSeen.entryId, entryIds));
    await tx.delete(entries).where(inArray(entries.nodeId, entryIds));
    await tx.delete(nodes).where(inArray(nodes.id, entryIds));
    await tx.delete(importRows).where(inArray(importRows.entryId, entryIds));
    return true;
  },
  journal: null,
  tell: () => [],
});
