/** What changes of access would do, before they are made: for whom, where, before and after, now and later. */
import { type Change, withChanges } from "./change";
import { momentsAhead, type Subject } from "./grant";
import type { Instant } from "./instant";
import type { Reach } from "./level";
import { Lookup, type Member, type Organised, windowsOf } from "./organisation";

/** So far ahead windows are looked at. */
export const HORIZON_MS = 400 * 86_400_000;

export interface Difference {
  /** People of whom all that counts here is alike. */
  personIds: readonly string[];
  /** A node: what is below it with the same region before and after differs alike. */
  region: string;
  before: Reach;
  after: Reach;
  /** The first moment at which it is so. */
  at: Instant;
}

export interface Preview {
  differences: Difference[];
  /** Nodes by region, as far as something differs there. */
  regions: Map<string, string[]>;
  before: Lookup;
  after: Lookup;
}

/**
 * Every (person, node, before, after) that would differ at `at` or at a later moment within `HORIZON_MS` at which
 * something opens or closes; each pair of levels once, at its first moment.
 * @param before answers over `organised`, where there are some already
 */
export function preview(
  organised: Organised,
  changes: readonly Change[],
  at: Instant,
  before = new Lookup(organised),
): Preview {
  const after = new Lookup(withChanges(organised, changes));
  const regions = regionsOf(before, after, touchedNodes(before, after, changes));
  const alike = new Alike(touchedPeople(before, after, changes), after);
  const differences: Difference[] = [];
  const kept = new Map<string, string[]>();
  for (const [region, ids] of regions) {
    const found = differencesAt(before, after, region, alike, at);
    if (found.length === 0) continue;
    differences.push(...found);
    kept.set(region, ids);
  }
  return { differences, regions: kept, before, after };
}

/** One of several people of whom all that counts is alike, as they are and as they would be. */
interface Kind {
  before: Member;
  after: Member;
  personIds: string[];
}

/** People whom no grant names and who hold the same groups for the same time have the same: it is worked out once. */
class Alike {
  readonly #kinds = new Map<string, Kind[]>();

  constructor(
    readonly people: readonly Member[],
    readonly after: Lookup,
  ) {}

  /**
   * @param groups those that have a say
   * @param named people who have a say themselves
   */
  kinds(groups: readonly string[], named: readonly string[]): Kind[] {
    const key = JSON.stringify([groups, named]);
    const known = this.#kinds.get(key);
    if (known) return known;
    const kinds = new Map<string, Kind>();
    for (const before of this.people) {
      const after = this.after.person.get(before.id) ?? before;
      const alike = named.includes(before.id)
        ? before.id
        : JSON.stringify([before, after].map((one) => traits(one, groups)));
      const kind = kinds.get(alike);
      if (kind) kind.personIds.push(before.id);
      else kinds.set(alike, { before, after, personIds: [before.id] });
    }
    const made = [...kinds.values()];
    this.#kinds.set(key, made);
    return made;
  }
}

const heldOf = (person: Member, groups: readonly string[]) => person.held.filter((one) => groups.includes(one.groupId));

const traits = (person: Member, groups: readonly string[]): unknown => [
  person.standing,
  person.guest,
  person.auditor ?? false,
  person.until ?? null,
  heldOf(person, groups)
    .map(({ groupId, from, until, weekly }) => JSON.stringify([groupId, from, until, weekly ?? null]))
    .sort(),
];

function differencesAt(before: Lookup, after: Lookup, node: string, alike: Alike, at: Instant): Difference[] {
  const steps = [...before.steps(before.region(node)), ...after.steps(after.region(node))];
  const grants = steps.flatMap((step) => step.grants);
  const namedBy = (kind: "person" | "group") =>
    [...new Set(grants.flatMap(({ subject }) => (subject.kind === kind ? [subject.id] : [])))].sort();
  const groups = namedBy("group");
  const kinds = alike.kinds(groups, namedBy("person"));
  const held = kinds.flatMap((kind) =>
    [kind.before, kind.after].flatMap((one) => windowsOf({ ...one, held: heldOf(one, groups) })),
  );
  const moments = momentsAhead([...grants, ...held], at, at + HORIZON_MS);
  const found: Difference[] = [];
  for (const kind of kinds) {
    const seen = new Set<string>();
    for (const moment of moments) {
      const levels = { before: before.level(kind.before, node, moment), after: after.level(kind.after, node, moment) };
      const pair = `${levels.before} ${levels.after}`;
      if (levels.before === levels.after || seen.has(pair)) continue;
      seen.add(pair);
      found.push({ personIds: kind.personIds, region: node, ...levels, at: moment });
    }
  }
  return found;
}

/** Nodes that may differ, by what decides about them before and after. */
function regionsOf(before: Lookup, after: Lookup, nodes: Iterable<string>): Map<string, string[]> {
  const regions = new Map<string, string[]>();
  for (const id of nodes) {
    const key = `${before.region(id)} ${after.region(id)}`;
    const here = regions.get(key);
    if (here) here.push(id);
    else regions.set(key, [id]);
  }
  return new Map([...regions.values()].map((ids) => [ids[0]!, ids]));
}

/** At and below what changes; everything where a group's people change. */
function touchedNodes(before: Lookup, after: Lookup, changes: readonly Change[]): Iterable<string> {
  const tops = new Set(changes.flatMap((change) => (change.type === "member" ? [] : [change.nodeId])));
  if (changes.some((change) => change.type === "member")) return before.node.keys();
  const known = new Map<string, boolean>();
  const isBelow = (id: string): boolean => {
    const answer = known.get(id);
    if (answer !== undefined) return answer;
    const parents = [before.node.get(id)?.parent, after.node.get(id)?.parent];
    const below = tops.has(id) || parents.some((parent) => typeof parent === "string" && isBelow(parent));
    known.set(id, below);
    return below;
  };
  return [...before.node.keys()].filter(isBelow);
}

function touchedPeople(before: Lookup, after: Lookup, changes: readonly Change[]): Member[] {
  const { people } = before.of;
  if (changes.some((change) => change.type === "move" || change.type === "separate")) return [...people];
  const ids = new Set<string>();
  const groups = new Set<string>();
  let everyone = false;
  const see = (subject: Subject) => {
    if (subject.kind === "everyone") everyone = true;
    else (subject.kind === "group" ? groups : ids).add(subject.id);
  };
  for (const change of changes) {
    if (change.type === "set") see(change.subject);
    else if (change.type === "member") ids.add(change.personId);
  }
  const holds = (person: Member | undefined) => person?.held.some((one) => groups.has(one.groupId)) ?? false;
  return people.filter(
    (person) =>
      ids.has(person.id) || (everyone && !person.guest) || holds(person) || holds(after.person.get(person.id)),
  );
}
