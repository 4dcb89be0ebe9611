/** Rounds: what a steward looks through, a line a grant, with what looks odd about it. */
import { type Grant, isActive } from "./grant";
import type { Instant } from "./instant";
import { rank } from "./level";
import type { Lookup, Member } from "./organisation";
import { passedReason } from "./passedReason";
import { isSubjectOf } from "./resolve";

/**
 * `gone`: whoever has it has left or is suspended. `no-end`: a guest without an end. `unused`: nobody who has it by this
 * used anything there for 90 days. `ways`: they would have as much without it. `passed`: what it was given for is over.
 */
export type Odd = "gone" | "no-end" | "unused" | "ways" | "passed";

/** A grant with what its row says of it. */
export interface GivenGrant extends Grant {
  since: Instant;
  why: string;
}

/** The latest sign-in or reveal of a person at an entry. */
export interface Use {
  personId: string;
  entryId: string;
  at: Instant;
}

export interface RoundLine {
  grant: GivenGrant;
  /** Who has something by it at this moment. */
  people: readonly string[];
  /** When any of them used anything at or below its node last. */
  lastUse: Instant | null;
  odd: readonly Odd[];
}

export const UNUSED_MS = 90 * 86_400_000;

/**
 * Every grant that counts now or later, the oddest first, then in the order given.
 * @param grants those to look through; all are in `lookup`
 * @param uses the latest of each person at each entry
 */
export function lookThrough(
  lookup: Lookup,
  grants: readonly GivenGrant[],
  uses: readonly Use[],
  at: Instant,
): RoundLine[] {
  const below = entriesBelow(lookup);
  const lastOf = new Map<string, Map<string, Instant>>();
  for (const { personId, entryId, at: when } of uses) {
    const own = lastOf.get(personId) ?? new Map<string, Instant>();
    own.set(entryId, Math.max(own.get(entryId) ?? 0, when));
    lastOf.set(personId, own);
  }
  const lines = grants
    .filter(({ until }) => until === null || until > at)
    .map((grant): RoundLine => {
      const people = lookup.of.people.filter((person) => isSubjectOf(grant.subject, lookup.who(person, at)));
      const active = people.filter((person) => lookup.who(person, at).standing === "active");
      const lastUse = latest(active, below(grant.node), lastOf);
      return { grant, people: active.map(({ id }) => id), lastUse, odd: oddOf(lookup, grant, people, lastUse, at) };
    });
  return lines.sort((a, b) => b.odd.length - a.odd.length);
}

function oddOf(
  lookup: Lookup,
  grant: GivenGrant,
  people: readonly Member[],
  lastUse: Instant | null,
  at: Instant,
): Odd[] {
  const odd: Odd[] = [];
  if (grant.level === "blocked") return passedReason(grant.why, grant.since, at) ? ["passed"] : [];
  const [only] = grant.subject.kind === "person" ? people : [];
  if (only) {
    const { standing } = lookup.who(only, at);
    if (standing === "leaver" || standing === "suspended") odd.push("gone");
    if (only.guest && grant.until === null && (only.until ?? null) === null) odd.push("no-end");
  }
  // A steward looks after it, signing in or not.
  const sees = grant.level !== "steward" && isActive(grant, at) && grant.since <= at - UNUSED_MS;
  if (sees && (lastUse === null || lastUse <= at - UNUSED_MS)) odd.push("unused");
  if (only && isActive(grant, at) && hasAsMuchWithout(lookup, grant, only, at)) odd.push("ways");
  if (passedReason(grant.why, grant.since, at)) odd.push("passed");
  return odd;
}

/** Whether a group that they are in, or Everyone, gives them as much there, and nothing of theirs decides otherwise. */
function hasAsMuchWithout(lookup: Lookup, grant: GivenGrant, person: Member, at: Instant): boolean {
  const { because, lost } = lookup.resolve(person, grant.node, at);
  const groups = [...because, ...lost].filter(({ subject }) => subject.kind !== "person");
  return (
    !groups.some((say) => say.grant.level === "blocked") &&
    groups.some((say) => say.grant.level !== "blocked" && rank(say.grant.level) >= rank(grant.level as "use"))
  );
}

function latest(
  people: readonly Member[],
  nodes: ReadonlySet<string>,
  lastOf: ReadonlyMap<string, ReadonlyMap<string, Instant>>,
): Instant | null {
  let last: Instant | null = null;
  for (const { id } of people)
    for (const [entryId, at] of lastOf.get(id) ?? []) if (nodes.has(entryId) && at > (last ?? 0)) last = at;
  return last;
}

/** The nodes at and below each node. */
function entriesBelow(lookup: Lookup): (node: string) => ReadonlySet<string> {
  const children = new Map<string, string[]>();
  for (const { id, parent } of lookup.of.nodes)
    if (parent !== null) {
      const here = children.get(parent);
      if (here) here.push(id);
      else children.set(parent, [id]);
    }
  const known = new Map<string, ReadonlySet<string>>();
  return (node) => {
    const before = known.get(node);
    if (before) return before;
    const found = new Set([node]);
    // A set visits what is added to it meanwhile.
    for (const id of found) for (const child of children.get(id) ?? []) found.add(child);
    known.set(node, found);
    return found;
  };
}
