/**
 * Upkeep: what needs attention in what the reader is steward of. Administrators learn of other vaults how many there are,
 * and which have no steward.
 */
import { sql } from "drizzle-orm";
import { z } from "zod";
import { atLeast, type Level } from "../../core/access";
import { strengthOf } from "../../core/generator/strengthWords";
import { PASSWORD } from "../../core/kinds/kind";
import type { ChangedBy } from "../../core/signin/changing";
import {
  BY_HARM,
  FINDING_KINDS,
  FINDINGS,
  type FindingDetail,
  type FindingKind,
  UPKEEP_ACTS,
  type UpkeepAct,
} from "../../core/upkeep/findings";
import { reachOf } from "../access/load";
import { nodeLinks } from "../access/nodeName";
import { peopleNames } from "../access/peopleNames";
import type { Person } from "../access/person";
import { byName } from "../byName";
import { isAdministrator } from "../caller";
import { idSchema, none, query } from "../command";
import { bulk } from "../database/bulk";
import type { Reader } from "../database/client";
import { groupBy } from "../groupBy";
import { timeZone } from "../organisation";
import { CHANGED_BY } from "../signin/changeable";
import { pictureAddress } from "../vaults/pictureAddress";
import { leaksReadAt } from "./leaks";

export interface FindingRow {
  id: string;
  kind: FindingKind;
  act: UpkeepAct;
  today: boolean;
  nodeId: string;
  type: "vault" | "folder" | "entry";
  name: string;
  vaultId: string;
  vault: string;
  link: string;
  picture: string | null;
  since: number;
  detail: Omit<FindingDetail, "people" | "guesses">;
  /** Names of those whom it is about. */
  people: string[];
  /** How long a weak password would stand. */
  time: string;
  /** Other entries with the same password, as far as the reader may Reveal them. */
  others: string[];
  /** How many people have access there. */
  usedBy: number;
  /** The grant that it is about, what it was given for, and who gave it. */
  grant: { id: string; why: string; by: string } | null;
  changedBy: ChangedBy;
  putOff: { until: number; why: string; by: string } | null;
}

interface Kept {
  id: string;
  nodeId: string;
  vaultId: string;
  kind: FindingKind;
  key: string;
  detail: FindingDetail;
  since: number;
  putOffUntil: number | null;
  putOffWhy: string;
  putOffBy: string | null;
}

const OPEN = {
  ...{ id: sql`f.id`, nodeId: sql`f.node_id`, vaultId: sql`f.vault_id`, kind: sql`f.kind`, key: sql`f.key` },
  ...{ detail: sql`json(f.detail)`, since: sql`f.since`, putOffUntil: sql`f.put_off_until` },
  ...{ putOffWhy: sql`f.put_off_why`, putOffBy: sql`f.put_off_by` },
};

const inside = (ids: Iterable<string>) => sql`(select value from json_each(${JSON.stringify([...ids])}))`;

/** Open findings of nodes of which somebody is steward; where the same password is used twice, only as far as they may know. */
async function ownFindings(tx: Reader, me: Person, at: number) {
  const { levels, node } = reachOf(tx, me, at);
  const stewardOf = [...levels].filter(([, level]) => level === "steward").map(([id]) => id);
  const vaultIds = new Set(stewardOf.map((id) => node(id)!.vaultId));
  if (vaultIds.size === 0) return { levels, vaultIds, rows: [], others: new Map<string, string[]>() };
  const rows = (
    await bulk<Kept>(tx, OPEN, sql`from findings f where f.ended_at is null and f.vault_id in ${inside(vaultIds)}`)
  ).filter(({ nodeId }) => levels.get(nodeId) === "steward");
  const others = await alike(
    tx,
    rows.filter(({ kind }) => kind === "reused").map(({ nodeId }) => nodeId),
    levels,
  );
  return { levels, vaultIds, rows: rows.filter((row) => row.kind !== "reused" || others.has(row.nodeId)), others };
}

/** Names of other entries with the same secret. What takes more than Reveal is not told by another door. */
async function alike(tx: Reader, ids: string[], levels: ReadonlyMap<string, Level>): Promise<Map<string, string[]>> {
  if (ids.length === 0) return new Map();
  const rows = await tx.all<{ id: string; otherId: string; name: string }>(sql`
    select distinct e.node_id as id, o.node_id as "otherId", o.name as name from entries e
      join fingerprints f on f.version_id = e.version_id
      join fingerprints g on g.fingerprint = f.fingerprint and g.version_id <> f.version_id
      join entries o on o.version_id = g.version_id
    where e.node_id in ${inside(ids)} and f.field = ${PASSWORD} and g.field = ${PASSWORD} and e.asks_first = 0 and e.ask_again = 0
      and o.binned_at is null and o.aside_at is null and o.asks_first = 0 and o.ask_again = 0`);
  const seen = rows.filter(({ otherId }) => atLeast(levels.get(otherId) ?? "none", "reveal")).sort(byName);
  return new Map([...groupBy(seen, ({ id }) => id)].map(([id, found]) => [id, found.map(({ name }) => name)]));
}

const isPutOff = (row: Pick<Kept, "putOffUntil">, at: number): boolean => (row.putOffUntil ?? 0) > at;
const actRank = ({ kind }: Pick<Kept, "kind">): number => UPKEEP_ACTS.indexOf(FINDINGS[kind].act);
const kindRank = ({ kind }: Pick<Kept, "kind">): number => BY_HARM.indexOf(kind);

export const upkeepPage = query({
  name: "upkeep.upkeepPage",
  input: z.strictObject({
    vaultId: idSchema.nullable(),
    act: z.enum(UPKEEP_ACTS).nullable(),
    /** A part of a name. */
    find: z.string().max(80),
    most: z.number().int().min(1).max(2_000),
  }),
  by: ["person"],
  offMainThread: true,
  allow: () => undefined,
  run: async ({ tx, me, input, at, app }) => {
    const { rows, others, vaultIds, levels } = await ownFindings(tx, me, at);
    const { node } = reachOf(tx, me, at);
    const open = rows.filter((row) => !isPutOff(row, at));
    const names = await namesOf(tx, [...vaultIds, ...rows.map(({ nodeId }) => nodeId)]);
    const wanted = input.find.trim().toLowerCase();
    const fits = (row: Kept) =>
      (input.vaultId === null || row.vaultId === input.vaultId) &&
      (input.act === null || FINDINGS[row.kind].act === input.act) &&
      (names.get(row.nodeId)?.name ?? "").toLowerCase().includes(wanted);
    const found = open
      .filter(fits)
      .sort(
        (a, b) =>
          actRank(a) - actRank(b) ||
          Number(FINDINGS[b.kind].today) - Number(FINDINGS[a.kind].today) ||
          kindRank(a) - kindRank(b) ||
          a.since - b.since ||
          a.id.localeCompare(b.id),
      );
    const worded = (some: Kept[]) => inWords(tx, me, some, { names, others, at });
    const vaults = [...vaultIds].map((id) => ({ id, name: names.get(id)?.name ?? "" })).sort(byName);
    return {
      zone: await timeZone(tx),
      vaults,
      /** Of which they are steward, and no others: what lies beside them in a vault is not theirs to count. */
      entries: [...levels].filter(([id, level]) => level === "steward" && node(id)?.type === "entry").length,
      /** Of all that the reader is steward of. */
      open: open.length,
      today: open.filter(({ kind }) => FINDINGS[kind].today).length,
      acts: Object.fromEntries(
        UPKEEP_ACTS.map((act) => [act, open.filter(({ kind }) => FINDINGS[kind].act === act).length]),
      ) as Record<UpkeepAct, number>,
      found: found.length,
      rows: await worded(found.slice(0, input.most)),
      putOff: await worded(
        rows
          .filter((row) => isPutOff(row, at))
          .sort((a, b) => a.putOffUntil! - b.putOffUntil!)
          .slice(0, MOST_PUT_OFF),
      ),
      elsewhere: isAdministrator(me.role) ? await elsewhere(tx, vaultIds, at) : [],
      leaks: { set: app.configuration.leakedPasswords !== null, readAt: await leaksReadAt(tx) },
      years: await years(tx, vaults, levels, at),
    };
  },
});

const MOST_PUT_OFF = 200;

interface Named {
  id: string;
  name: string;
  picture: string | null;
  changedBy: ChangedBy;
}

async function namesOf(tx: Reader, ids: Iterable<string>): Promise<Map<string, Named>> {
  const wanted = inside(new Set(ids));
  const rows = await tx.all<Named>(sql`
    select e.node_id as id, e.name as name, e.picture_id as picture,
      ${CHANGED_BY} as "changedBy"
      from entries e join entry_versions v on v.id = e.version_id where e.node_id in ${wanted}
    union all select node_id, name, picture_id, 'hand' from vaults where node_id in ${wanted}
    union all select node_id, name, null, 'hand' from folders where node_id in ${wanted}`);
  return new Map(rows.map((row) => [row.id, row]));
}

/** Findings as they are read. */
async function inWords(
  tx: Reader,
  me: Person,
  rows: readonly Kept[],
  { names, others, at }: { names: Map<string, Named>; others: Map<string, string[]>; at: number },
): Promise<FindingRow[]> {
  const index = tx.access!;
  const links = await nodeLinks(
    tx,
    rows.map(({ nodeId }) => nodeId),
  );
  const grantOf = (row: Kept) =>
    row.key === "" ? undefined : index.grantsOn(row.nodeId).find(({ id }) => id === row.key);
  const person = await peopleNames(tx, me, [
    ...rows.flatMap(({ detail, putOffBy }) => [...(detail.people ?? []), putOffBy]),
    ...rows.map((row) => grantOf(row)?.givenBy ?? null),
  ]);
  return rows.map((row): FindingRow => {
    const { people = [], guesses, ...detail } = row.detail;
    const grant = grantOf(row);
    const named = names.get(row.nodeId);
    return {
      ...{ id: row.id, kind: row.kind, ...FINDINGS[row.kind], nodeId: row.nodeId, since: row.since, detail },
      ...{ type: index.node(row.nodeId)?.type ?? "entry", name: named?.name ?? "", link: links.get(row.nodeId) ?? "" },
      ...{ vaultId: row.vaultId, vault: names.get(row.vaultId)?.name ?? "" },
      picture: pictureAddress(row.nodeId, named?.picture ?? null),
      people: people.map(person).filter(Boolean).sort(),
      time: guesses === undefined ? "" : strengthOf(guesses).time,
      others: row.kind === "reused" ? (others.get(row.nodeId) ?? []) : [],
      usedBy: index.countWhoUse(row.nodeId, at),
      grant: grant ? { id: grant.id, why: grant.why, by: person(grant.givenBy) } : null,
      changedBy: named?.changedBy ?? "hand",
      putOff: isPutOff(row, at) ? { until: row.putOffUntil!, why: row.putOffWhy, by: person(row.putOffBy) } : null,
    };
  });
}

export interface Elsewhere {
  vaultId: string;
  name: string;
  open: number;
  today: number;
  /** Its vault has nobody who looks after it. */
  noSteward: boolean;
}

/** Vaults of which an administrator is no steward: their names, which administrators know, and numbers. */
async function elsewhere(tx: Reader, own: ReadonlySet<string>, at: number): Promise<Elsewhere[]> {
  const rows = await tx.all<{ vaultId: string; name: string; kind: FindingKind; atVault: number; n: number }>(sql`
    select f.vault_id as "vaultId", v.name as name, f.kind as kind, f.node_id = f.vault_id as "atVault", count(*) as n
    from vaults v cross join findings f on f.vault_id = v.node_id and f.ended_at is null
    where v.node_id not in ${inside(own)} and coalesce(f.put_off_until, 0) <= ${at}
    group by f.vault_id, f.kind, "atVault"`);
  return [...groupBy(rows, ({ vaultId }) => vaultId)]
    .map(([vaultId, some]) => ({
      ...{ vaultId, name: some[0]!.name },
      // That two entries have the same password is said to nobody who may not see both.
      ...sums(some.filter(({ kind }) => kind !== "reused")),
      noSteward: some.some(({ kind, atVault }) => kind === "no-steward" && atVault === 1),
    }))
    .filter(({ open }) => open > 0)
    .sort((a, b) => Number(b.noSteward) - Number(a.noSteward) || byName(a, b));
}

const sums = (rows: readonly { kind: FindingKind; n: number }[]) => ({
  open: rows.reduce((sum, { n }) => sum + n, 0),
  today: rows.reduce((sum, { kind, n }) => sum + (FINDINGS[kind].today ? n : 0), 0),
});

const MONTHS = 12;

export interface VaultYear {
  id: string;
  name: string;
  /** The end of each month, the last one now. */
  months: { at: number; today: number; later: number }[];
  found: number;
  resolved: number;
  /** Half of those that were resolved were so within as many days; null where none were. */
  halfWithinDays: number | null;
  /** When the vault was looked at first. */
  from: number;
}

/** The year of each vault of which the reader is steward as a whole. */
async function years(
  tx: Reader,
  vaults: readonly { id: string; name: string }[],
  levels: ReadonlyMap<string, Level>,
  at: number,
): Promise<VaultYear[]> {
  const whole = vaults.filter(({ id }) => levels.get(id) === "steward").slice(0, MOST_YEARS);
  if (whole.length === 0) return [];
  const ends = monthEnds(at);
  const rows = await bulk<{
    nodeId: string;
    vaultId: string;
    kind: FindingKind;
    foundAt: number;
    endedAt: number | null;
  }>(
    tx,
    {
      nodeId: sql`f.node_id`,
      vaultId: sql`f.vault_id`,
      kind: sql`f.kind`,
      foundAt: sql`f.found_at`,
      endedAt: sql`f.ended_at`,
    },
    sql`from findings f where f.vault_id in ${inside(whole.map(({ id }) => id))}
      and (f.ended_at is null or f.ended_at > ${ends[0]!}) and f.kind <> 'reused'`,
  );
  // What stands apart in a vault is counted by its own stewards.
  const own = rows.filter(({ nodeId }) => levels.get(nodeId) === "steward");
  const byVault = groupBy(own, ({ vaultId }) => vaultId);
  return whole.map(({ id, name }) => {
    const own = byVault.get(id) ?? [];
    const spans = own
      .flatMap(({ foundAt, endedAt }) => (endedAt === null ? [] : [endedAt - foundAt]))
      .sort((a, b) => a - b);
    return {
      ...{ id, name },
      months: ends.map((end) => {
        const open = own.filter((row) => row.foundAt <= end && (row.endedAt === null || row.endedAt > end));
        const today = open.filter(({ kind }) => FINDINGS[kind].today).length;
        return { at: end, today, later: open.length - today };
      }),
      found: own.filter(({ foundAt }) => foundAt > ends[0]!).length,
      resolved: spans.length,
      halfWithinDays: spans.length === 0 ? null : Math.ceil(spans[Math.floor((spans.length - 1) / 2)]! / 86_400_000),
      from: own.reduce((first, { foundAt }) => Math.min(first, foundAt), at),
    };
  });
}

const MOST_YEARS = 60;

/** The last moments of the eleven months that are over, in UTC, and now. */
function monthEnds(at: number): number[] {
  const now = new Date(at);
  const ends = Array.from(
    { length: MONTHS - 1 },
    (_, i) => Date.UTC(now.getUTCFullYear(), now.getUTCMonth() - (MONTHS - 2 - i), 1) - 1,
  );
  return [...ends, at];
}

const TODAY = (Object.keys(FINDINGS) as FindingKind[]).filter((kind) => FINDINGS[kind].today);

/**
 * What needs an answer today, for the Front desk, and whether anything else can wait: nothing where the reader is steward of
 * nothing. However much there is, no more than some of it is read.
 */
export const upkeepToday = query({
  name: "upkeep.upkeepToday",
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: ({ tx, me, at }) => todayOf(tx, me, at),
});

/** The same, of anybody: what they are told of once a week. */
export async function todayOf(tx: Reader, me: Person, at: number) {
  const { levels, node } = reachOf(tx, me, at);
  const stewardOf = [...levels].filter(([, level]) => level === "steward").map(([id]) => id);
  if (stewardOf.length === 0) return { today: 0, names: [], later: 0, more: false };
  const vaultIds = new Set(stewardOf.map((id) => node(id)!.vaultId));
  const some = async (kinds: readonly FindingKind[], most: number) => {
    const rows = await tx.all<{ nodeId: string; kind: FindingKind }>(sql`
      select f.node_id as "nodeId", f.kind as kind from findings f
      where f.ended_at is null and f.vault_id in ${inside(vaultIds)} and f.kind in ${inside(kinds)}
        and coalesce(f.put_off_until, 0) <= ${at} limit ${most}`);
    return rows.filter(({ nodeId }) => levels.get(nodeId) === "steward");
  };
  const today = (await some(TODAY, MOST_TODAY)).sort((a, b) => kindRank(a) - kindRank(b));
  const others = FINDING_KINDS.filter((kind) => !TODAY.includes(kind) && kind !== "reused");
  const later = await some(others, MOST_LATER + 1);
  const ids = [...new Set(today.map(({ nodeId }) => nodeId))];
  const names = await namesOf(tx, ids.slice(0, MOST_NAMED));
  return {
    /** So many entries, the first of them by name. */
    today: ids.length,
    names: ids.slice(0, MOST_NAMED).flatMap((id) => names.get(id)?.name ?? []),
    later: Math.min(later.length, MOST_LATER),
    /** There are more than are counted here. */
    more: later.length > MOST_LATER,
  };
}

const MOST_TODAY = 2_000;
const MOST_LATER = 99;
const MOST_NAMED = 3;

/** The findings of one entry, for its stewards. */
export async function findingsAt(tx: Reader, me: Person, nodeId: string, at: number): Promise<FindingRow[]> {
  const rows = await bulk<Kept>(tx, OPEN, sql`from findings f where f.node_id = ${nodeId} and f.ended_at is null`);
  if (rows.length === 0) return [];
  const { levels } = reachOf(tx, me, at);
  const others = await alike(tx, rows.some(({ kind }) => kind === "reused") ? [nodeId] : [], levels);
  const known = rows.filter((row) => row.kind !== "reused" || others.has(nodeId));
  const names = await namesOf(tx, [nodeId, ...known.map(({ vaultId }) => vaultId)]);
  return (await inWords(tx, me, known, { names, others, at })).sort(
    (a, b) => Number(b.today) - Number(a.today) || kindRank(a) - kindRank(b),
  );
}

/**
 * What stands open in a vault by node, the worst first, for those who are steward there. Not that a password is used twice:
 * whether that may be told is looked at for each reader.
 */
export async function findingsIn(tx: Reader, vaultId: string, at: number): Promise<Map<string, FindingKind[]>> {
  const rows = await tx.all<{ nodeId: string; kind: FindingKind }>(sql`
    select f.node_id as "nodeId", f.kind as kind from findings f
    where f.vault_id = ${vaultId} and f.ended_at is null and f.kind <> 'reused' and coalesce(f.put_off_until, 0) <= ${at}`);
  const sorted = rows.sort((a, b) => kindRank(a) - kindRank(b));
  return new Map([...groupBy(sorted, ({ nodeId }) => nodeId)].map(([id, own]) => [id, own.map(({ kind }) => kind)]));
}
