/**
 * Bringing in many entries at once. Rows arrive in chunks, are sealed before any transaction and written without a place,
 * so that nobody reaches them; one short command publishes them by writing the places. What is cancelled or abandoned is
 * swept away. For a day the whole of it can be undone.
 */
import { and, eq, inArray, isNotNull, isNull, lt, or, sql } from "drizzle-orm";
import { z } from "zod";
import { atLeast } from "../../core/access";
import { MOST_ENTRIES } from "../../core/formats/rows";
import { PASSWORD } from "../../core/kinds/kind";
import { hostOf } from "../../core/signin/address";
import { siteOf } from "../../core/signin/site";
import { NO_STEPS } from "../../core/signin/steps";
import { type Asking, loadReach, requireLevel } from "../access/load";
import { nodeName } from "../access/nodeName";
import { sortByName } from "../byName";
import { personIdOf } from "../caller";
import { command, idSchema, query } from "../command";
import { bulkInsert } from "../database/bulk";
import type { Reader, Transaction } from "../database/client";
import {
  entries,
  entryVersions,
  fingerprints,
  folders,
  importRows,
  imports,
  met,
  nodes,
  places,
  sightings,
} from "../database/schema";
import { uuidv7 } from "../ids";
import { attemptKey, countAttempt, requireFewAttempts } from "../people/attempts";
import { notFound, Refused } from "../refused";
import { kindSchema } from "./entries";
import { DEEPEST, requirePlace } from "./folders";
import { kindsById } from "./kinds";
import { fingerprint, vaultKey } from "./sealing";
import { composeVersion, flatValues, valuesIn } from "./writing";

/** Rows of one chunk. */
const CHUNK = 200;
const DAY_MS = 86_400_000;
/** Nothing came for so long: somebody closed the page. */
const ABANDONED_MS = 30 * 60_000;

const incoming = z.strictObject({
  kind: kindSchema,
  values: flatValues,
  folder: z.array(z.string().trim().min(1).max(200)).max(20),
});

type ImportRow = typeof imports.$inferSelect;

export const beginImport = command({
  name: "vaults.beginImport",
  input: z.strictObject({ parentId: idSchema }),
  by: ["person"],
  allow: (context) => requirePlace(context, context.input.parentId, "edit"),
  run: async ({ tx, input, caller, at, house, allowed }) => {
    const importId = uuidv7();
    await tx.insert(imports).values({
      id: importId,
      vaultId: allowed.vaultId,
      parentId: input.parentId,
      personId: personIdOf(caller)!,
      process: house.process,
      begunAt: at,
      movedAt: at,
      foldersMade: [],
    });
    return { importId };
  },
  journal: () => null,
  tell: () => [],
});

/** The caller's own import, still open, and Edit where it goes. */
async function requireOpen(context: Asking, importId: string) {
  const [found] = await context.tx.select().from(imports).where(eq(imports.id, importId));
  if (!found || found.personId !== context.me?.id) throw notFound();
  if (found.cancelledAt !== null || found.publishedAt !== null)
    throw new Refused("conflict", "This bringing in is over: it was finished, stopped or left alone for too long.");
  return { ...(await requirePlace(context, found.parentId, "edit")), found };
}

export const importChunk = command({
  name: "vaults.importChunk",
  input: z.strictObject({ importId: idSchema, rows: z.array(incoming).min(1).max(CHUNK) }),
  by: ["person"],
  prepare: async ({ input, caller, house, at }) => {
    // Sealing needs the vault and its key, which do not change; who may is asked in the transaction.
    const [found] = await house.db.select().from(imports).where(eq(imports.id, input.importId));
    const personId = personIdOf(caller);
    if (!found || found.personId !== personId) return [];
    const key = await vaultKey(house.db, house.keys, found.vaultId);
    const kinds = await kindsById(house.db);
    return Promise.all(
      input.rows.map(async (row) => {
        const kind = kinds.get(row.kind);
        if (!kind || kind.closed) throw new Refused("bad-input", "There is no such kind.", "rows");
        const entryId = uuidv7();
        const composed = await composeVersion(key, house, {
          kind,
          entryId,
          vaultId: found.vaultId,
          number: 1,
          personId,
          at,
          values: valuesIn(kind, row.values),
          before: { fields: {}, code: null },
          how: "brought in",
        });
        return { ...composed, entryId, kind: kind.id, folder: row.folder };
      }),
    );
  },
  allow: async (context) => {
    const allowed = await requireOpen(context, context.input.importId);
    const longest = context.input.rows.reduce((most, row) => Math.max(most, row.folder.length), 0);
    if (allowed.depth + longest > DEEPEST) throw new Refused("bad-input", `Folders nest at most ${DEEPEST} deep.`);
    if (allowed.found.rows + context.input.rows.length > MOST_ENTRIES)
      throw new Refused("bad-input", `At most ${MOST_ENTRIES.toLocaleString("en-GB")} entries are brought in at once.`);
    return allowed;
  },
  run: async ({ tx, input, caller, at, prepared }) => {
    const personId = personIdOf(caller)!;
    const { importId } = input;
    const by = { createdAt: at, createdBy: personId };
    await bulkInsert(
      tx,
      nodes,
      prepared.map((row) => ({ id: row.entryId, type: "entry" as const, ...by })),
    );
    await bulkInsert(
      tx,
      entryVersions,
      prepared.map((row) => row.version),
    );
    await bulkInsert(
      tx,
      fingerprints,
      prepared.flatMap((row) => row.fingerprints),
    );
    await bulkInsert(
      tx,
      sightings,
      prepared.flatMap((row) => row.sightings),
    );
    await bulkInsert(
      tx,
      entries,
      prepared.map((row) => ({
        ...row.row,
        ...by,
        nodeId: row.entryId,
        kind: row.kind,
        steps: NO_STEPS,
        guardedFill: false,
        plainHttp: false,
      })),
    );
    await bulkInsert(
      tx,
      met,
      prepared.map((row) => ({ personId, entryId: row.entryId, at })),
    );
    await bulkInsert(
      tx,
      importRows,
      prepared.map((row) => ({
        entryId: row.entryId,
        importId,
        versionId: row.version.id,
        placeId: uuidv7(),
        folder: row.folder,
      })),
    );
    await tx
      .update(imports)
      .set({ movedAt: at, rows: sql`${imports.rows} + ${prepared.length}` })
      .where(eq(imports.id, importId));
    return { rows: prepared.length };
  },
  journal: () => null,
  tell: () => [],
});

/** Everything is there at once, in its folders; before this moment nothing was. */
export const publishImport = command({
  name: "vaults.publishImport",
  input: z.strictObject({ importId: idSchema }),
  by: ["person"],
  allow: (context) => requireOpen(context, context.input.importId),
  run: async ({ tx, input, caller, at, commandId, allowed }) => {
    const { found } = allowed;
    const { importId } = input;
    const paths = await tx
      .select({ folder: importRows.folder, count: sql<number>`count(*)` })
      .from(importRows)
      .where(eq(importRows.importId, importId))
      .groupBy(importRows.folder);
    if (paths.length === 0) throw new Refused("bad-input", "There is nothing to bring in.");
    const made: string[] = [];
    const keeper = new FolderKeeper(tx, found, { personId: personIdOf(caller)!, at, commandId }, made);
    for (const { folder } of paths) {
      const parentId = await keeper.find(folder);
      await tx.run(sql`
        insert into ${places} (id, node_id, parent_id, vault_id, valid_from, command_id)
        select place_id, entry_id, ${parentId}, ${found.vaultId}, ${at}, ${commandId}
        from ${importRows} where import_id = ${importId} and folder = ${JSON.stringify(folder)}`);
    }
    await tx.update(imports).set({ publishedAt: at, foldersMade: made }).where(eq(imports.id, importId));
    const place = await nodeName(tx, found.parentId);
    return { entries: paths.reduce((sum, row) => sum + row.count, 0), folders: made.length, place };
  },
  journal: ({ result, allowed }) => ({
    node: allowed.found.parentId,
    vault: allowed.vaultId,
    details: { entries: result.entries, folders: result.folders },
    names: { [allowed.found.parentId]: result.place },
  }),
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
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
  journal: () => null,
  tell: () => [],
});

/** One piece of what was cancelled, abandoned or begun by a process that is no more; true while more is left. */
export const sweepImports = command({
  name: "vaults.sweepImports",
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
    const rows = await tx
      .select({ entryId: importRows.entryId, versionId: importRows.versionId })
      .from(importRows)
      .innerJoin(imports, eq(imports.id, importRows.importId))
      .where(isNotNull(imports.cancelledAt))
      .limit(CHUNK);
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
    await tx.delete(met).where(inArray(met.entryId, entryIds));
    await tx.delete(entries).where(inArray(entries.nodeId, entryIds));
    await tx.delete(nodes).where(inArray(nodes.id, entryIds));
    await tx.delete(importRows).where(inArray(importRows.entryId, entryIds));
    return true;
  },
  journal: () => null,
  tell: () => [],
});

const comparable = z.strictObject({
  page: z.string().max(2000),
  userName: z.string().max(500),
  password: z.string().max(1000),
});

export type Likeness = "new" | "same" | "other password";

/** Of one person a quarter of an hour: enough for the largest file, twice over. */
const MOST_COMPARISONS = 400;

/** Whether logins are kept already: looked for only among entries that the caller may Reveal, and not without end. */
export const compareRows = command({
  name: "vaults.compareRows",
  input: z.strictObject({ rows: z.array(comparable).max(500) }),
  by: ["person"],
  allow: async ({ tx, me, at, house }) => {
    const key = attemptKey(house.keys, "compare rows", me!.id);
    await requireFewAttempts(tx, key, MOST_COMPARISONS, at);
    return { key };
  },
  run: async ({ tx, me, input, at, house, allowed }): Promise<Likeness[]> => {
    await countAttempt(tx, allowed.key, at);
    const sites = [...new Set(input.rows.map((row) => siteOf(hostOf(row.page) ?? "")).filter(Boolean))];
    if (sites.length === 0) return input.rows.map(() => "new");
    const { levels } = await loadReach(tx, me!, at);
    const kept = (
      await tx
        .select({ id: entries.nodeId, host: entries.host, versionId: entries.versionId })
        .from(entries)
        .where(and(inArray(entries.site, sites), isNull(entries.binnedAt)))
    ).filter((row) => atLeast(levels.get(row.id) ?? "none", "reveal"));
    const marks = new Map(
      (
        await marksOf(
          tx,
          kept.map((row) => row.versionId),
        )
      ).map((row) => [`${row.versionId} ${row.field}`, row.fingerprint]),
    );
    return input.rows.map((row): Likeness => {
      const host = hostOf(row.page);
      const userMark = row.userName === "" ? undefined : fingerprint(house.keys, "userName", row.userName);
      const alike = kept.filter((one) => one.host === host && marks.get(`${one.versionId} userName`) === userMark);
      if (alike.length === 0) return "new";
      const mark = row.password === "" ? undefined : fingerprint(house.keys, "password", row.password);
      return alike.some((one) => marks.get(`${one.versionId} password`) === mark) ? "same" : "other password";
    });
  },
  journal: () => null,
  tell: () => [],
});

async function marksOf(tx: Reader, versionIds: string[]) {
  const found: (typeof fingerprints.$inferSelect)[] = [];
  for (let i = 0; i < versionIds.length; i += 500)
    found.push(
      ...(await tx
        .select()
        .from(fingerprints)
        .where(inArray(fingerprints.versionId, versionIds.slice(i, i + 500)))),
    );
  return found;
}

/** The import, by whoever made it or a steward of where it went; within a day. */
async function requireUndoable(context: Asking, importId: string) {
  const { tx, me, at } = context;
  const [found] = await tx.select().from(imports).where(eq(imports.id, importId));
  if (!found?.publishedAt) throw notFound();
  const allowed = await requireLevel(context, found.parentId, found.personId === me?.id ? "edit" : "steward");
  if (found.undoneAt !== null) throw new Refused("conflict", "It has been undone already.");
  if (at - found.publishedAt > DAY_MS) throw new Refused("conflict", "It can be undone for a day. That is over.");
  return { ...allowed, found };
}

interface Brought {
  entryId: string;
  name: string;
  /** Somebody changed, moved, granted or used it since; in words, null when nobody did. */
  since: string | null;
}

async function broughtIn(tx: Reader, found: ImportRow): Promise<Brought[]> {
  const rows = await tx.all<{
    entryId: string;
    name: string;
    binned: number;
    changed: number;
    moved: number;
    granted: number;
    used: number;
  }>(sql`
    select r.entry_id as "entryId", e.name as name,
      e.binned_at is not null as binned,
      e.version_id <> r.version_id as changed,
      not exists (select 1 from places p where p.id = r.place_id and p.valid_until is null) as moved,
      exists (select 1 from grants g where g.node_id = r.entry_id) as granted,
      exists (select 1 from sign_ins s where s.entry_id = r.entry_id) as used
    from import_rows r join entries e on e.node_id = r.entry_id where r.import_id = ${found.id}
    order by e.name`);
  return rows
    .filter((row) => row.binned === 0)
    .map((row) => ({
      entryId: row.entryId,
      name: row.name,
      since: row.changed
        ? "changed"
        : row.moved
          ? "moved"
          : row.granted
            ? "given to somebody"
            : row.used
              ? "used"
              : null,
    }));
}

/** How an import stands: what undoing it would take, what stays unless it is ticked, and what needs a look. */
export const importPage = query({
  name: "vaults.import",
  input: z.strictObject({ importId: idSchema }),
  by: ["person"],
  allow: (context) => requireUndoable(context, context.input.importId),
  run: async ({ tx, me, at, allowed: { found } }) => {
    const brought = await broughtIn(tx, found);
    // What others have taken out of the reader's reach since is counted, but no longer named.
    const { levels } = await loadReach(tx, me!, at);
    const named = (one: { entryId: string }) => atLeast(levels.get(one.entryId) ?? "none", "use");
    const look = await tx.all<{ entryId: string; name: string; page: string; mark: string | null }>(sql`
      select e.node_id as "entryId", e.name as name, e.sign_in_page as page, f.fingerprint as mark
      from import_rows r join entries e on e.node_id = r.entry_id
        left join fingerprints f on f.version_id = r.version_id and f.field = ${PASSWORD}
      where r.import_id = ${found.id} and e.binned_at is null`);
    const twins = new Map<string, number>();
    for (const { mark } of look) if (mark !== null) twins.set(mark, (twins.get(mark) ?? 0) + 1);
    return {
      entries: brought.length,
      stays: brought.filter((one) => one.since !== null && named(one)),
      /** Stay whatever is ticked: out of the reader's reach by now. */
      beyond: brought.filter((one) => one.since !== null && !named(one)).length,
      parentId: found.parentId,
      vaultId: found.vaultId,
      look: sortByName(look.filter(named)).flatMap(({ entryId, name, page, mark }) => {
        const same = mark === null ? 0 : twins.get(mark)!;
        const reasons = [
          ...(page === "" ? ["no sign-in page"] : []),
          ...(page !== "" && new URL(page).pathname === "/" ? ["the home page instead of the sign-in page"] : []),
          ...(page.startsWith("http:") ? ["http, which anybody on the way can read"] : []),
          ...(same > 1 ? [`the same password ${same} times`] : []),
        ];
        return reasons.length > 0 ? [{ entryId, name, reasons }] : [];
      }),
    };
  },
});

export const undoImport = command({
  name: "vaults.undoImport",
  input: z.strictObject({ importId: idSchema, also: z.array(idSchema).max(MOST_ENTRIES).default([]) }),
  by: ["person"],
  allow: (context) => requireUndoable(context, context.input.importId),
  run: async ({ tx, me, input, caller, at, allowed: { found } }) => {
    const also = new Set(input.also);
    const { levels } = await loadReach(tx, me!, at);
    const gone = (await broughtIn(tx, found)).filter(
      (one) => one.since === null || (also.has(one.entryId) && atLeast(levels.get(one.entryId) ?? "none", "edit")),
    );
    const binned = { binnedAt: at, binnedBy: personIdOf(caller) };
    for (let i = 0; i < gone.length; i += 500)
      await tx
        .update(entries)
        .set(binned)
        .where(
          inArray(
            entries.nodeId,
            gone.slice(i, i + 500).map((one) => one.entryId),
          ),
        );
    // The innermost first: a folder is empty when nothing that is not in the bin lies in it.
    for (const folderId of found.foldersMade.toReversed())
      await tx.run(sql`
        update folders set binned_at = ${at}, binned_by = ${personIdOf(caller)}, binned_with = ${folderId}
        where node_id = ${folderId} and binned_at is null and not exists (
          select 1 from places p left join entries e on e.node_id = p.node_id left join folders f on f.node_id = p.node_id
          where p.parent_id = ${folderId} and p.valid_until is null and coalesce(e.binned_at, f.binned_at) is null)`);
    await tx.update(imports).set({ undoneAt: at }).where(eq(imports.id, found.id));
    return { entries: gone.length, place: await nodeName(tx, found.parentId) };
  },
  journal: ({ result, allowed }) => ({
    node: allowed.found.parentId,
    vault: allowed.vaultId,
    details: { entries: result.entries },
    names: { [allowed.found.parentId]: result.place },
  }),
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});
