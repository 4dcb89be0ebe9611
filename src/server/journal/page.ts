/** The Journal as its reader may see it: own acts; what happened at one's nodes; all acts for administrators. */
import { and, eq, gte, inArray, like, lt, or, type SQL, sql } from "drizzle-orm";
import { z } from "zod";
import { reachOf } from "../access/load";
import { nodeLinks, nodeNames } from "../access/nodeName";
import { peopleNames } from "../access/peopleNames";
import type { Person } from "../access/person";
import { sortByName } from "../byName";
import { readsAll } from "../caller";
import { instantSchema, none, query } from "../command";
import type { Reader } from "../database/client";
import { journal, vaults } from "../database/schema";
import { hideNumber, shownNumber } from "../opaqueNumber";
import { timeZone } from "../organisation";
import { vaultNames } from "../vaults/places";
import { JOURNAL_ACTS, type Line, tell } from "./story";

const PAGE = 50;
/** Lines that are read at once from each vault: a few are of places in it with other stewards, and passed over. */
const READ = 150;
/** So often more are read for one page. */
const MOST_READS = 20;

const inputSchema = z.strictObject({
  /** The line after which to go on, as `more` gave it. */
  before: z.string().max(64).nullable().default(null),
  /** Not before this moment, and before that one. */
  from: instantSchema.default(null),
  until: instantSchema.default(null),
  personId: z.string().max(64).nullable().default(null),
  nodeId: z.string().max(64).nullable().default(null),
  acts: z
    .enum(Object.keys(JOURNAL_ACTS) as [Acts])
    .nullable()
    .default(null),
  /** All of them begin a word of the reason that was given. */
  words: z.string().trim().max(200).default(""),
});

export type Acts = keyof typeof JOURNAL_ACTS;
export const isActs = (value: string | undefined): value is Acts =>
  value !== undefined && Object.hasOwn(JOURNAL_ACTS, value);

export const journalPage = query({
  name: "journal.journalPage",
  input: inputSchema,
  by: ["person"],
  // A rare act is looked for over all that happened.
  offMainThread: true,
  allow: () => undefined,
  run: async ({ tx, input, me, role, at, app }) => {
    const person = me;
    const seesAll = role !== null && readsAll(role);
    const { levels, node } = reachOf(tx, person, at);
    // An auditor knows what everything is called, and can open nothing.
    const reads = person.role === "auditor";
    const named = (id: string) => reads || levels.has(id);
    const goesOn = input.before === null ? null : shownNumber(app.keys, "journal", input.before);
    const ends = input.until === null ? null : await firstSince(tx, input.until);
    const before = goesOn === null ? ends : ends === null ? goesOn : Math.min(goesOn, ends);
    const filters = {
      ...input,
      words: matchOf(input.words),
      first: input.from === null ? null : await firstSince(tx, input.from),
    };
    const rows = seesAll
      ? await linesWhere(tx, newestFor(filters, before), before, PAGE)
      : await ownLines(tx, person, filters, before, at);
    const reachedVaults = new Set([...levels.keys()].map((id) => node(id)!.vaultId));
    const knowsVaultOf = (id: string | null): id is string => id !== null && (seesAll || reachedVaults.has(id));
    const [names, vaultsOfLines, ownNames] = await Promise.all([
      nodeNames(
        tx,
        rows.flatMap((row) => (row.node !== null && named(row.node) ? [row.node] : [])),
      ),
      tx
        .select({ id: vaults.nodeId, name: vaults.name })
        .from(vaults)
        .where(
          inArray(vaults.nodeId, [...new Set(rows.flatMap((row) => (knowsVaultOf(row.vault) ? [row.vault] : [])))]),
        ),
      vaultNames(
        tx,
        person,
        rows.flatMap((row) => (row.node !== null && row.node === row.vault && levels.has(row.node) ? [row.node] : [])),
        at,
      ),
    ]);
    const vaultName = new Map(vaultsOfLines.map(({ id, name }) => [id, name]));
    const knows = (line: Line) => line.node === null || named(line.node);
    const links = await nodeLinks(
      tx,
      rows.flatMap((row) => (row.node !== null && levels.has(row.node) ? [row.node] : [])),
    );
    const lines = await tell(
      { tx, me: person, app },
      rows,
      { numbered: seesAll, knows },
      (line) => {
        if (line.node === null) return null;
        if (named(line.node)) {
          const own = reads ? vaultName.get(line.node) : ownNames(line.node);
          return (line.node === line.vault ? own : names.get(line.node)) || undefined;
        }
        // A steward reads of what is gone by the name that it had then.
        if (!seesAll && !person.guest && line.person !== person.id) return undefined;
        if (person.guest) return "something";
        const vault = line.vault === null ? undefined : vaultName.get(line.vault);
        return line.node === line.vault ? (vault ?? "a vault") : vault ? `an entry in ${vault}` : "an entry";
      },
      (line) => (line.node && links.get(line.node)) || null,
    );
    const about = input.nodeId !== null && named(input.nodeId) ? await nodeNames(tx, [input.nodeId]) : null;
    return {
      lines,
      about: about?.get(input.nodeId!) ?? null,
      /** The person whose acts are looked for. */
      person: input.personId === null ? null : (await peopleNames(tx, person, [input.personId]))(input.personId),
      more: rows.length >= PAGE ? hideNumber(app.keys, "journal", rows.at(-1)!.seq) : null,
      zone: await timeZone(tx),
      seesAll,
    };
  },
});

type Filters = Pick<z.output<typeof inputSchema>, "personId" | "nodeId" | "acts"> & {
  first: number | null;
  /** What the index of words is asked; null for all lines. */
  words: string | null;
};

/** Each word as it stands, and as the beginning of a longer one. */
function matchOf(text: string): string | null {
  const words = text.match(/[\p{L}\p{N}]+/gu);
  return words?.map((word) => `"${word}"*`).join(" ") ?? null;
}

/** The number of the first line at or after a moment: lines are in the order of their moments, so it is found by halves. */
async function firstSince(tx: Reader, at: number): Promise<number> {
  const [last] = await tx.select({ seq: sql<number>`coalesce(max(${journal.seq}), 0)` }).from(journal);
  let [low, high] = [1, last!.seq + 1];
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    const [line] = await tx.select({ at: journal.at }).from(journal).where(eq(journal.seq, middle));
    if ((line?.at ?? 0) >= at) high = middle;
    else low = middle + 1;
  }
  return low;
}

const filtersOf = ({ personId, nodeId, acts, first, words }: Filters): (SQL | undefined)[] => [
  first === null ? undefined : gte(journal.seq, first),
  personId === null ? undefined : or(eq(journal.person, personId), eq(journal.subject, personId)),
  nodeId === null ? undefined : or(eq(journal.node, nodeId), eq(journal.vault, nodeId)),
  words === null ? undefined : sql`${journal.seq} in (select rowid from journal_words where why match ${words})`,
  acts === null ? undefined : or(...JOURNAL_ACTS[acts].map((prefix) => like(journal.act, `${prefix}%`))),
];

const linesWhere = (tx: Reader, where: SQL | undefined, before: number | null, most: number): Promise<Line[]> =>
  tx
    .select()
    .from(journal)
    .where(and(before === null ? undefined : lt(journal.seq, before), where))
    .orderBy(sql`${journal.seq} desc`)
    .limit(most);

/**
 * A page's lines by what has an index: from each such place the newest, and of those the newest. Asked for with one
 * condition or another, all lines that fit would be read, and then sorted.
 */
function newestFor(filters: Filters, before: number | null): SQL | undefined {
  const { words, acts } = filters;
  const about = placesOf(filters);
  if (about) return newestIn(about, filters, before, PAGE);
  if (words === null) return and(newestOfActs(filters, before), ...filtersOf(filters));
  if (acts !== null) return and(...filtersOf(filters));
  return sql`${journal.seq} in (select rowid from journal_words where why match ${words}
    and rowid < ${before ?? Number.MAX_SAFE_INTEGER} and rowid >= ${filters.first ?? 0} order by rowid desc limit ${PAGE})`;
}

/** Where the lines of an entry, a vault or a person are found; null where none of these is looked for. */
function placesOf({ personId, nodeId }: Filters): SQL[] | null {
  if (nodeId !== null) return [eq(journal.node, nodeId), eq(journal.vault, nodeId)];
  return personId === null ? null : [eq(journal.person, personId), eq(journal.subject, personId)];
}

const newestIn = (places: readonly (SQL | undefined)[], filters: Filters, before: number | null, most: number): SQL => {
  const where = and(before === null ? undefined : lt(journal.seq, before), ...filtersOf(filters));
  const newest = places.map(
    (place) =>
      sql`select seq from (select seq from journal where ${and(place, where)} order by seq desc limit ${most})`,
  );
  return sql`${journal.seq} in (${sql.join(newest, sql` union `)})`;
};

/** The acts there are of a sort, each found by a step through their index. */
const actsOf = (acts: Acts): SQL => sql`
  with recursive kinds_of(act) as (
    select min(act) from journal
    union all select (select min(j.act) from journal j where j.act > kinds_of.act) from kinds_of where kinds_of.act is not null)
  select act from kinds_of where ${sql.join(
    JOURNAL_ACTS[acts].map((prefix) => sql`act like ${`${prefix}%`}`),
    sql` or `,
  )}`;

/**
 * Of each act that is looked for the newest lines: acts that are rare stand far apart in a long Journal, and nobody waits
 * until all of it has been gone through for them.
 */
function newestOfActs({ acts }: Filters, before: number | null): SQL | undefined {
  if (acts === null) return undefined;
  return sql`${journal.seq} in (
    select j.seq from (${actsOf(acts)}) kinds cross join journal j on j.seq in (
      select n.seq from journal n where n.act = kinds.act and n.seq < ${before ?? Number.MAX_SAFE_INTEGER}
      order by n.seq desc limit ${PAGE}))`;
}

/** So many lines of an act are looked through one by one for those that somebody may read. */
const RARE = 2_000;

/** The numbers of all lines of these acts, where they are few; null where there are many, and some are soon found. */
async function linesOfRareActs(tx: Reader, acts: Acts): Promise<number[] | null> {
  const rows = await tx.all<{ seq: number }>(sql`
    select j.seq as seq from (${actsOf(acts)}) kinds cross join journal j on j.act = kinds.act limit ${RARE + 1}`);
  return rows.length > RARE ? null : rows.map(({ seq }) => seq);
}

/** One's own acts, and what happened at what one looks after: read newest first until a page is full. */
async function ownLines(tx: Reader, me: Person, filters: Filters, from: number | null, at: number): Promise<Line[]> {
  const { levels, node } = reachOf(tx, me, at);
  const stewarded = new Set<string>();
  for (const [id, level] of levels) if (level === "steward") stewarded.add(node(id)!.vaultId);
  const looksAfter = stewardOfLines(tx, levels);
  const found: Line[] = [];
  let before = from;
  for (let reads = 0; reads < MOST_READS && found.length < PAGE; reads++) {
    const rows = await newestOf(tx, me.id, [...stewarded], filters, before);
    if (rows.length === 0) break;
    for (const row of rows)
      if (found.length < PAGE && (row.person === me.id || (await looksAfter(row)))) found.push(row);
    before = rows.at(-1)!.seq;
  }
  return found;
}

/** The newest lines of a person and of some vaults: of each place where such lines are found a few, and of those the newest. */
async function newestOf(
  tx: Reader,
  personId: string,
  vaultIds: readonly string[],
  filters: Filters,
  before: number | null,
): Promise<Line[]> {
  const { nodeId } = filters;
  const own = eq(journal.person, personId);
  const vaultList = JSON.stringify(vaultIds);
  const mine = or(own, sql`vault in (select value from json_each(${vaultList}))`);
  const about = placesOf(filters)?.map((place) => and(place, mine));
  // A vault that is not theirs has nothing for them but what they did there.
  if (about && nodeId !== null && !vaultIds.includes(nodeId)) about[1] = own;
  if (about) return linesWhere(tx, newestIn(about, filters, before, READ), null, READ);
  const rare = filters.acts === null ? null : await linesOfRareActs(tx, filters.acts);
  if (rare) {
    const among = sql`${journal.seq} in (select value from json_each(${JSON.stringify(rare)}))`;
    return linesWhere(tx, and(among, mine, ...filtersOf(filters)), before, READ);
  }
  const where = and(before === null ? undefined : lt(journal.seq, before), ...filtersOf(filters)) ?? sql`1`;
  const newest = (place: SQL) =>
    sql`select seq from journal where ${place} and ${where} order by seq desc limit ${READ}`;
  const seqs = sql`
    select seq from (${newest(own)})
    union
    select j.seq as seq from json_each(${vaultList}) v join journal j on j.vault = v.value
      where j.seq in (${newest(sql`vault = v.value`)})`;
  return linesWhere(tx, sql`${journal.seq} in (${seqs})`, null, READ);
}

/**
 * Whether somebody looks after what a line is about: they are its steward now, or, where it has gone from that vault, of
 * the place where it lay when the line was written.
 */
function stewardOfLines(tx: Reader, levels: ReadonlyMap<string, string>): (line: Line) => Promise<boolean> {
  const regions = new Map<string, Promise<string | null>>();
  return async ({ node, vault, at }) => {
    if (node === null || vault === null) return false;
    if (tx.access?.node(node)?.vaultId === vault) return levels.get(node) === "steward";
    const key = `${node} ${vault} ${at}`;
    const known = regions.get(key) ?? regionThen(tx, node, vault, at);
    regions.set(key, known);
    const region = await known;
    return region !== null && levels.get(region) === "steward";
  };
}

/** The nearest separate folder around a node at a moment, or the vault; null where it did not lie in that vault. */
async function regionThen(tx: Reader, nodeId: string, vaultId: string, at: number): Promise<string | null> {
  const then = sql`valid_from <= ${at} and (valid_until is null or valid_until >= ${at})`;
  const way = await tx.all<{ id: string; separate: number }>(sql`
    with recursive up(id, parent, depth) as (
      select node_id, parent_id, 0 from places where node_id = ${nodeId} and vault_id = ${vaultId} and ${then}
      union
      select p.node_id, p.parent_id, up.depth + 1 from places p join up on p.node_id = up.parent
        where p.vault_id = ${vaultId} and p.valid_from <= ${at} and (p.valid_until is null or p.valid_until >= ${at})
    )
    select up.id as id, exists (select 1 from separations s where s.node_id = up.id
      and s.valid_from <= ${at} and (s.valid_until is null or s.valid_until >= ${at})) as separate
    from up order by up.depth`);
  return (way.find(({ separate }) => separate === 1) ?? way.at(-1))?.id ?? null;
}

/** Vaults and entries that the reader may pick to read of: those they reach. */
export const journalNodes = query({
  name: "journal.journalNodes",
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, at }) => {
    const { levels, node } = reachOf(tx, me, at);
    const ids = [...levels.keys()].filter((id) => node(id)!.type !== "folder");
    const [names, vaultName] = await Promise.all([
      nodeNames(tx, ids),
      vaultNames(
        tx,
        me,
        ids.map((id) => node(id)!.vaultId),
        at,
      ),
    ]);
    return sortByName(
      ids.flatMap((id) => {
        const { type, vaultId } = node(id)!;
        const name = names.get(id);
        return name === undefined ? [] : [{ id, name, note: type === "vault" ? "vault" : vaultName(vaultId) }];
      }),
    );
  },
});
