/** What a change slip would do, in lines a person reads: losses first, named only where the reader is steward. */
import { and, gt, inArray, isNotNull, sql } from "drizzle-orm";
import {
  type Change,
  type Difference,
  HORIZON_MS,
  type Lookup,
  type Member,
  momentsAhead,
  type Preview,
  preview,
  type Reach,
  rank,
  windowsOf,
} from "../../../core/access/index";
import { sha256, toHex, utf8 } from "../../../core/crypto/index";
import { byName } from "../../byName";
import { inJson } from "../../database/bulk";
import type { Reader } from "../../database/client";
import { persons, sightings, signIns } from "../../database/schema";
import { nodesOfSteward } from "../grid";
import { loadOrganised, type OrganisedVaults, type PlacedNode } from "../organised";

const RECENT_MS = 30 * 86_400_000;
/** Entries that a line names; of more it says how many. */
const MOST_NAMED = 60;

export interface SlipLine {
  people: { id: string; name: string }[];
  before: Reach;
  after: Reach;
  /** Null: at once. */
  at: number | null;
  /** Names of the first entries, or of folders and vaults where no entry is touched. */
  what: { id: string; name: string }[];
  count: number;
  /** What holds them all, where they are several. */
  within: string | null;
  /** Who used in the last 30 days what they would lose. */
  used: string[];
  /** Who would see a secret of it for the first time. */
  first: string[];
}

export interface SlipSaid {
  lines: SlipLine[];
  /** Something is touched that the reader is no steward of. */
  beyond: boolean;
  /** Its stewards must say yes first; who joins or leaves a group they are only told. */
  asks: boolean;
  /** Would be left without a steward: refused. */
  withoutSteward: string[];
  /** Positions of changes that do nothing. */
  idle: number[];
  /** Changes when anything that was said would be different. */
  ground: string;
}

/** What a reader is told, and what is only for the server to know. */
export interface WorkedOut {
  said: SlipSaid;
  /**
   * What is touched that the reader is no steward of, a node for each region: its stewards must say yes. Joining and
   * leaving a group is not among it: that is for its keepers, and the stewards of what it reaches are told.
   */
  others: string[];
}

/** @param reading somebody reads it: which changes do nothing is looked for too, one by one */
export async function computeEffects(
  tx: Reader,
  changes: readonly Change[],
  vaultIds: readonly string[],
  readerId: string,
  at: number,
  reading = false,
): Promise<WorkedOut> {
  const organised = await loadOrganised(tx, vaultIds);
  const seen = preview(organised, changes, at);
  const mine = nodesOfSteward(organised, readerId, at);
  const touched = [...seen.regions.values()].flat();
  const concerned = seen.differences.flatMap((one) => one.personIds);
  const names = await namesOf(tx, touched, concerned, organised);
  // What lies in the bin reaches nobody.
  const shown = (id: string) => mine.has(id) && names.nodes.has(id);
  const notMine = (id: string) => !mine.has(id) && names.nodes.has(id);
  const lines = linesOf(seen, organised, shown, names, at);
  await addUse(tx, lines, names, at);
  const alone = (some: readonly Change[]) => preview(organised, some, at, seen.before);
  const own = changes.some((change) => change.type === "member")
    ? alone(changes.filter((change) => change.type !== "member"))
    : seen;
  const others = [...own.regions.values()].flatMap((ids) => ids.filter(notMine).slice(0, 1));
  return {
    said: {
      lines: lines.map(({ ids: _, ...line }) => line).sort(lossesFirst),
      beyond: touched.some(notMine),
      asks: others.length > 0,
      withoutSteward: bareAfter(seen, at)
        .filter((id) => names.nodes.has(id))
        .map((id) => (mine.has(id) ? names.nodes.get(id)! : "something else")),
      idle: reading ? changes.flatMap((change, i) => (alone([change]).differences.length === 0 ? [i] : [])) : [],
      ground: toHex(sha256(utf8(JSON.stringify(seen.differences.map((one) => groundOf(one, seen, at)).sort())))),
    },
    others,
  };
}

const groundOf = ({ personIds, region, before, after, at: moment }: Difference, seen: Preview, at: number): string =>
  JSON.stringify([
    [...personIds].sort(),
    [...seen.regions.get(region)!].sort(),
    before,
    after,
    moment === at ? 0 : moment,
  ]);

const lossesFirst = (a: SlipLine, b: SlipLine) =>
  rank(a.after) - rank(a.before) - (rank(b.after) - rank(b.before)) || (a.at ?? 0) - (b.at ?? 0);

interface NamesOf {
  nodes: Map<string, string>;
  people: Map<string, string>;
}

async function namesOf(
  tx: Reader,
  touched: readonly string[],
  personIds: readonly string[],
  organised: OrganisedVaults,
): Promise<NamesOf> {
  const wanted = new Set(touched);
  const byId = new Map(organised.nodes.map((node) => [node.id, node]));
  for (const id of touched)
    for (let up = byId.get(id)?.parent; up != null && !wanted.has(up); up = byId.get(up)?.parent) wanted.add(up);
  const ids = JSON.stringify([...wanted]);
  const rows = await tx.all<{ id: string; name: string }>(sql`
    select node_id as id, name from entries where binned_at is null and node_id in (select value from json_each(${ids}))
    union all select node_id, name from folders where binned_at is null and node_id in (select value from json_each(${ids}))
    union all select node_id, name from vaults where node_id in (select value from json_each(${ids}))`);
  const people = await tx
    .select({ id: persons.id, name: persons.name })
    .from(persons)
    .where(inJson(persons.id, [...new Set(personIds)]));
  return {
    nodes: new Map(rows.map(({ id, name }) => [id, name])),
    people: new Map(people.map(({ id, name }) => [id, name])),
  };
}

interface Line extends SlipLine {
  ids: string[];
}

/** Differences that say the same of the same people and things, together. */
function linesOf(
  seen: Preview,
  organised: OrganisedVaults,
  shown: (id: string) => boolean,
  names: NamesOf,
  at: number,
): Line[] {
  const nodes = new Map(organised.nodes.map((node) => [node.id, node]));
  // First all regions of one set of people, then all people of one set of regions.
  const byPeople = new Map<string, { one: Difference; personIds: Set<string>; regions: string[] }>();
  for (const one of seen.differences)
    for (const personId of one.personIds) {
      const key = `${personId} ${one.before} ${one.after} ${one.at}`;
      const known = byPeople.get(key);
      if (known) known.regions.push(one.region);
      else byPeople.set(key, { one, personIds: new Set([personId]), regions: [one.region] });
    }
  const together = new Map<string, { one: Difference; personIds: Set<string>; regions: string[] }>();
  for (const { one, personIds, regions } of byPeople.values()) {
    const key = `${one.before} ${one.after} ${one.at} ${regions.join()}`;
    const known = together.get(key);
    if (known) for (const id of personIds) known.personIds.add(id);
    else together.set(key, { one, personIds, regions });
  }
  return [...together.values()].flatMap(({ one, personIds, regions }) => {
    const all = regions.flatMap((region) => seen.regions.get(region)!).filter(shown);
    if (all.length === 0) return [];
    const entries = all.filter((id) => nodes.get(id)!.type === "entry");
    const ids = entries.length > 0 ? entries : topmost(all, nodes);
    return [
      {
        people: [...personIds].map((id) => ({ id, name: names.people.get(id) ?? "" })).sort(byName),
        before: one.before,
        after: one.after,
        at: one.at === at ? null : one.at,
        what: ids
          .map((id) => ({ id, name: names.nodes.get(id) ?? "" }))
          .sort(byName)
          .slice(0, MOST_NAMED),
        count: ids.length,
        within: ids.length > 1 ? (names.nodes.get(commonAbove(ids, nodes) ?? "") ?? null) : null,
        used: [],
        first: [],
        ids,
      },
    ];
  });
}

const topmost = (ids: readonly string[], nodes: ReadonlyMap<string, PlacedNode>): string[] => {
  const among = new Set(ids);
  return ids.filter((id) => !among.has(nodes.get(id)?.parent ?? ""));
};

function commonAbove(ids: readonly string[], nodes: ReadonlyMap<string, PlacedNode>): string | null {
  const above = (id: string): string[] => {
    const found: string[] = [];
    for (let up = nodes.get(id)?.parent; up != null; up = nodes.get(up)?.parent) found.push(up);
    return found;
  };
  let common = above(ids[0]!);
  for (const id of ids) {
    if (common.length <= 1) break;
    const here = new Set(above(id));
    common = common.filter((one) => here.has(one));
  }
  return common[0] ?? null;
}

/** Who used what they would lose, and who would see something they never saw. */
async function addUse(tx: Reader, lines: Line[], names: NamesOf, at: number): Promise<void> {
  const losing = lines.filter((line) => rank(line.after) < rank(line.before));
  const seeing = lines.filter((line) => rank(line.after) >= rank("reveal") && rank(line.before) < rank("reveal"));
  const peopleOf = (some: Line[]) => [...new Set(some.flatMap((line) => line.people.map(({ id }) => id)))];
  const uses =
    losing.length === 0
      ? []
      : await tx
          .selectDistinct({ personId: signIns.personId, entryId: signIns.entryId })
          .from(signIns)
          .where(
            and(
              inArray(signIns.personId, peopleOf(losing)),
              gt(signIns.begunAt, at - RECENT_MS),
              isNotNull(signIns.endedAt),
            ),
          );
  const sights =
    losing.length + seeing.length === 0
      ? []
      : await tx
          .select({ personId: sightings.personId, entryId: sightings.entryId, at: sql<number>`max(${sightings.at})` })
          .from(sightings)
          .where(inArray(sightings.personId, peopleOf([...losing, ...seeing])))
          .groupBy(sightings.personId, sightings.entryId);
  for (const line of losing) {
    const ids = new Set(line.ids);
    const known = new Set(line.people.map(({ id }) => id));
    // Whoever loses Use loses signing in; whoever loses Reveal only what they looked at.
    const lost = [
      ...(line.after === "none" ? uses : []),
      ...(rank(line.before) >= rank("reveal") && rank(line.after) < rank("reveal")
        ? sights.filter((sight) => sight.at > at - RECENT_MS)
        : []),
    ].flatMap(({ personId, entryId }) =>
      personId !== null && known.has(personId) && ids.has(entryId) ? [personId] : [],
    );
    line.used = [...new Set(lost.map((personId) => names.people.get(personId) ?? ""))].sort();
  }
  for (const line of seeing) {
    const ids = new Set(line.ids);
    const saw = new Set(sights.filter(({ entryId }) => ids.has(entryId)).map(({ personId }) => personId));
    line.first = line.people.filter(({ id }) => !saw.has(id)).map(({ name }) => name);
  }
}

/** Nodes that have a steward without an end before, and none after. */
function bareAfter(seen: Preview, at: number): string[] {
  const withoutSteward: string[] = [];
  for (const [region] of seen.regions) {
    const losing = seen.differences.some((one) => one.region === region && one.before === "steward");
    if (losing && hasSteward(seen.before, region, at) && !hasSteward(seen.after, region, at))
      withoutSteward.push(region);
  }
  return withoutSteward;
}

function hasSteward(lookup: Lookup, node: string, at: number): boolean {
  const grants = lookup.steps(node).flatMap((step) => step.grants);
  const lasting = (person: Member) =>
    momentsAhead([...grants, ...windowsOf(person)], at, at + HORIZON_MS).every(
      (moment) => lookup.level(person, node, moment) === "steward",
    );
  return lookup.of.people.some(
    (person) =>
      person.standing === "active" && !person.guest && lookup.level(person, node, at) === "steward" && lasting(person),
  );
}
