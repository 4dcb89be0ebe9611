/**
 * Access over a whole organisation, held ready: what one person reaches, who reaches one node and who looks after it, at
 * any moment, at a cost that follows what is asked about and not how large the organisation is. Rows come and go one by
 * one; the answers are those of `resolve`.
 */
import { type Grant, isActive, momentsAhead, nextBoundary, type Subject, subjectKey, type Window } from "./grant";
import type { Instant } from "./instant";
import { atLeast, type Level, type Reach } from "./level";
import { type Member, type Organised, whoAt, windowsOf } from "./organisation";
import { HORIZON_MS } from "./preview";
import { decide, type Resolution, resolve, type Say, type Step, type Who, weightier } from "./resolve";

export interface IndexNode {
  id: string;
  type: "vault" | "folder" | "entry";
  parent: string | null;
  vaultId: string;
  separate: boolean;
}

/** What one person reaches, node by node; nodes that are not in it they do not reach. */
export type Reached = ReadonlyMap<string, Level>;

interface KeptReach {
  version: number;
  from: Instant;
  /** The next moment at which one of their windows opens or closes. */
  until: Instant;
  reached: Reached;
}

const NOTHING: Reached = new Map();
const NO_GRANTS: readonly never[] = [];

/** @typeParam G a grant with whatever else its holder keeps with it */
export class AccessIndex<G extends Grant = Grant, M extends Member = Member> {
  readonly #nodes = new Map<string, IndexNode>();
  readonly #children = new Map<string, Set<string>>();
  readonly #vaults = new Set<string>();
  readonly #grants = new Map<string, G[]>();
  readonly #grantsTo = new Map<string, Set<G>>();
  /** Nodes of each vault that have grants or a separate mark: all others answer as what is above them. */
  readonly #distinct = new Map<string, Set<string>>();
  readonly #people = new Map<string, M>();
  readonly #members = new Map<string, Set<string>>();
  readonly #reached = new Map<string, KeptReach>();
  #staff: { version: number; from: Instant; until: Instant; ids: ReadonlySet<string> } | null = null;
  #version = 0;

  /** Raised whenever an answer may have changed. */
  get version(): number {
    return this.#version;
  }

  // What is there.

  node = (id: string): IndexNode | undefined => this.#nodes.get(id);
  person = (id: string): M | undefined => this.#people.get(id);
  get people(): Iterable<M> {
    return this.#people.values();
  }
  get vaultIds(): Iterable<string> {
    return this.#vaults;
  }
  get size(): { nodes: number; people: number } {
    return { nodes: this.#nodes.size, people: this.#people.size };
  }
  childrenOf = (id: string): Iterable<string> => this.#children.get(id) ?? NO_GRANTS;
  grantsOn = (id: string): readonly G[] => this.#grants.get(id) ?? NO_GRANTS;
  grantsTo = (subject: Subject): Iterable<G> => this.#grantsTo.get(subjectKey(subject)) ?? NO_GRANTS;
  /** Everybody with a membership that is kept, also one whose time has not come or is over. */
  peopleIn = (groupId: string): Iterable<string> => this.#members.get(groupId) ?? NO_GRANTS;

  /** A node and what is above it, the node first; empty where there is none. */
  path(id: string): IndexNode[] {
    const path: IndexNode[] = [];
    for (let at = this.#nodes.get(id); at; at = at.parent === null ? undefined : this.#nodes.get(at.parent))
      path.push(at);
    return path;
  }

  steps = (id: string): Step[] =>
    this.path(id).map((node) => ({ node: node.id, separate: node.separate, grants: this.grantsOn(node.id) }));

  /** A node and all that lies in it, folders before what is in them. */
  *below(id: string): Generator<IndexNode> {
    const node = this.#nodes.get(id);
    if (!node) return;
    yield node;
    for (const child of this.childrenOf(id)) yield* this.below(child);
  }

  /** The node, and what lies in it that has grants or a separate mark of its own. */
  distinctBelow(id: string): string[] {
    const vaultId = this.#nodes.get(id)?.vaultId;
    if (vaultId === undefined) return [];
    const found = [...(this.#distinct.get(vaultId) ?? [])].filter(
      (one) => one !== id && (id === vaultId || this.path(one).some((node) => node.id === id)),
    );
    return [id, ...found];
  }

  /** The nearest node, itself or above, that has grants or a separate mark; its vault where none has. */
  region(id: string): string {
    const distinct = this.#distinct.get(this.#nodes.get(id)?.vaultId ?? "");
    for (let at = this.#nodes.get(id); at; at = at.parent === null ? undefined : this.#nodes.get(at.parent))
      if (at.parent === null || distinct?.has(at.id)) return at.id;
    return id;
  }

  // Answers.

  /** A person with the groups held at `at`; null where there is none. */
  who(personId: string, at: Instant): Who | null {
    const person = this.#people.get(personId);
    return person ? whoAt(person, at) : null;
  }

  resolve(personId: string, nodeId: string, at: Instant): Resolution | null {
    const who = this.who(personId, at);
    return who && this.#nodes.has(nodeId) ? resolve(who, this.steps(nodeId), at) : null;
  }

  level = (personId: string, nodeId: string, at: Instant): Reach => this.resolve(personId, nodeId, at)?.level ?? "none";

  /** Everything a person reaches. Kept until something changes or one of their windows opens or closes. */
  reached(personId: string, at: Instant): Reached {
    const kept = this.#reached.get(personId);
    if (kept && kept.version === this.#version && kept.from <= at && at < kept.until) return kept.reached;
    const person = this.#people.get(personId);
    if (!person) return NOTHING;
    const who = whoAt(person, at);
    const reached = this.#reachOf(who, at);
    const until = nextBoundary(this.#windowsFor(person), at) ?? Number.POSITIVE_INFINITY;
    if (this.#reached.size >= MOST_KEPT) this.#reached.clear();
    this.#reached.set(personId, { version: this.#version, from: at, until, reached });
    return reached;
  }

  /** What somebody would reach who is not here yet. */
  reachedBy(who: Who, at: Instant): Reached {
    return this.#reachOf(who, at);
  }

  /** Everything that opens or closes and could change what the person reaches. */
  *#windowsFor(person: M): Generator<Window> {
    yield* windowsOf(person);
    const held = person.held.map(({ groupId }): Subject => ({ kind: "group", id: groupId }));
    const subjects: Subject[] = [{ kind: "person", id: person.id }, ...held];
    if (!person.guest) subjects.push({ kind: "everyone" });
    for (const subject of subjects) yield* this.grantsTo(subject);
  }

  #reachOf(who: Who, at: Instant): Reached {
    if (who.standing !== "active" || who.auditor) return NOTHING;
    const own = new Map<string, G[]>();
    for (const subject of subjectsOf(who))
      for (const grant of this.grantsTo(subject)) {
        if (!isActive(grant, at)) continue;
        const here = own.get(grant.node);
        if (here) here.push(grant);
        else own.set(grant.node, [grant]);
      }
    const says = new Map<string, ReadonlyMap<string, Say>>();
    const saysAt = (id: string): ReadonlyMap<string, Say> => {
      const known = says.get(id);
      if (known) return known;
      const node = this.#nodes.get(id)!;
      const here = own.get(id);
      const above = node.separate || node.parent === null ? NO_SAYS : saysAt(node.parent);
      const found = here ? withOwn(above, here) : above;
      says.set(id, found);
      return found;
    };
    const levels = new Map<string, Level>();
    for (const id of own.keys()) {
      const node = this.#nodes.get(id);
      const { level } = node ? decide(who, [...saysAt(id).values()]) : { level: "none" as const };
      if (level === "none") continue;
      // What has no grant of theirs and no mark of its own has what is above it.
      const open = [id];
      for (let next = open.pop(); next !== undefined; next = open.pop()) {
        levels.set(next, level);
        for (const child of this.childrenOf(next))
          if (!own.has(child) && !this.#nodes.get(child)!.separate) open.push(child);
      }
    }
    return levels;
  }

  /** Nodes of a vault that a person reaches, and nothing of other vaults. */
  *reachedIn(vaultId: string, personId: string, at: Instant): Generator<[IndexNode, Level]> {
    for (const [id, level] of this.reached(personId, at)) {
      const node = this.#nodes.get(id)!;
      if (node.vaultId === vaultId) yield [node, level];
    }
  }

  /** Vaults in which a person reaches something. */
  vaultsReached(personId: string, at: Instant): Set<string> {
    return new Set([...this.reached(personId, at).keys()].map((id) => this.#nodes.get(id)!.vaultId));
  }

  /** Everyone whom grants on the way to a node could concern, in no order. */
  *#concerned(steps: readonly Step[], counts: (grant: Grant) => boolean): Generator<M> {
    const seen = new Set<string>();
    const one = function* (this: AccessIndex<G, M>, id: string): Generator<M> {
      const person = seen.has(id) ? undefined : this.#people.get(id);
      seen.add(id);
      if (person) yield person;
    }.bind(this);
    for (const step of steps) {
      for (const grant of step.grants) {
        if (!counts(grant)) continue;
        const { subject } = grant;
        if (subject.kind === "person") yield* one(subject.id);
        else if (subject.kind === "group") for (const id of this.peopleIn(subject.id)) yield* one(id);
        else for (const id of this.#people.keys()) yield* one(id);
      }
      if (step.separate) return;
    }
  }

  /** Who has at least `needed` at a node, with what decides it. */
  whoHas(nodeId: string, needed: Level, at: Instant): { person: M; resolution: Resolution }[] {
    const steps = this.steps(nodeId);
    const found: { person: M; resolution: Resolution }[] = [];
    // A level comes from a grant of at least that level.
    for (const person of this.#concerned(steps, ({ level }) => level !== "blocked" && atLeast(level, needed))) {
      const resolution = resolve(whoAt(person, at), steps, at);
      if (atLeast(resolution.level, needed)) found.push({ person, resolution });
    }
    return found;
  }

  /** Ids of the stewards of a node. */
  stewards = (nodeId: string, at: Instant): string[] =>
    this.whoHas(nodeId, "steward", at).map(({ person }) => person.id);

  /** How many people have at least Use at a node. */
  countWhoUse(nodeId: string, at: Instant): number {
    const steps = this.steps(nodeId);
    const everyone = steps.some((step) => step.grants.some(({ subject }) => subject.kind === "everyone"));
    if (!everyone) return this.whoHas(nodeId, "use", at).length;
    // Staff of whom no grant speaks but by Everyone all have the same.
    const staff = this.staff(at);
    const spoken = [...this.#concerned(steps, ({ subject }) => subject.kind !== "everyone")];
    const spokenIds = new Set(spoken.map((person) => person.id));
    let unspoken = staff.size;
    for (const id of spokenIds) if (staff.has(id)) unspoken--;
    if (unspoken > 0) {
      let alike: string | undefined;
      for (const id of staff) if (!spokenIds.has(id)) alike ??= id;
      if (!atLeast(resolve(this.who(alike!, at)!, steps, at).level, "use")) unspoken = 0;
    }
    return unspoken + spoken.filter((person) => atLeast(resolve(whoAt(person, at), steps, at).level, "use")).length;
  }

  /** Ids of active members of staff; kept until something changes or somebody's time is over. */
  staff(at: Instant): ReadonlySet<string> {
    const kept = this.#staff;
    if (kept && kept.version === this.#version && kept.from <= at && at < kept.until) return kept.ids;
    const ids = new Set<string>();
    let until = Number.POSITIVE_INFINITY;
    for (const person of this.#people.values()) {
      if (person.until != null && person.until > at) until = Math.min(until, person.until);
      if (!person.guest && !person.auditor && whoAt(person, at).standing === "active") ids.add(person.id);
    }
    this.#staff = { version: this.#version, from: at, until, ids };
    return ids;
  }

  /** When a person falls below `needed` at a node: null for never, as far as it is known now. */
  end(personId: string, nodeId: string, needed: Level, at: Instant): Instant | null {
    const person = this.#people.get(personId);
    return person ? endOf(person, this.steps(nodeId), needed, at) : at;
  }

  /** Nodes at and below one that no active member of staff is steward of without an end. */
  withoutSteward(nodeId: string, at: Instant): string[] {
    return this.distinctBelow(nodeId).filter((id) => {
      const steps = this.steps(id);
      for (const person of this.#concerned(steps, ({ level }) => level === "steward"))
        if (isLastingSteward(person, steps, at)) return false;
      return true;
    });
  }

  /** Some vaults whole, as `preview` and rounds look at them. */
  organised(vaultIds: Iterable<string>): Organised & { nodes: IndexNode[]; grants: G[]; people: M[] } {
    const nodes: IndexNode[] = [];
    const grants: G[] = [];
    for (const vaultId of vaultIds)
      for (const node of this.below(vaultId)) {
        nodes.push(node);
        grants.push(...this.grantsOn(node.id));
      }
    return { nodes, grants, people: [...this.#people.values()] };
  }

  // Rows that come and go.

  /** A node as it lies and is marked now, with the grants that stand on it; null where it lies nowhere any more. */
  putNode(id: string, placed: Omit<IndexNode, "id"> | null, grants: readonly G[]): void {
    this.#version++;
    const before = this.#nodes.get(id);
    if (before) {
      if (before.parent !== null) this.#children.get(before.parent)?.delete(id);
      this.#distinct.get(before.vaultId)?.delete(id);
      this.#vaults.delete(id);
    }
    for (const grant of this.grantsOn(id)) this.#grantsTo.get(subjectKey(grant.subject))?.delete(grant);
    if (!placed) {
      this.#nodes.delete(id);
      this.#grants.delete(id);
      return;
    }
    this.#nodes.set(id, { id, ...placed });
    if (placed.parent === null) this.#vaults.add(id);
    else setIn(this.#children, placed.parent).add(id);
    if (grants.length > 0) this.#grants.set(id, [...grants]);
    else this.#grants.delete(id);
    for (const grant of grants) setIn(this.#grantsTo, subjectKey(grant.subject)).add(grant);
    if (placed.separate || grants.length > 0) setIn(this.#distinct, placed.vaultId).add(id);
  }

  /** A person as they are now. */
  putPerson(person: M): void {
    this.#version++;
    for (const { groupId } of this.#people.get(person.id)?.held ?? []) this.#members.get(groupId)?.delete(person.id);
    this.#people.set(person.id, person);
    for (const { groupId } of person.held) setIn(this.#members, groupId).add(person.id);
  }
}

/** People whose reach is kept at once. */
const MOST_KEPT = 2_000;

const NO_SAYS: ReadonlyMap<string, Say> = new Map();

function withOwn(above: ReadonlyMap<string, Say>, grants: readonly Grant[]): ReadonlyMap<string, Say> {
  const here = new Map<string, Say>();
  for (const grant of grants) {
    const key = subjectKey(grant.subject);
    const known = here.get(key);
    here.set(key, { subject: grant.subject, grant: known ? weightier(known.grant, grant) : grant, distance: 0 });
  }
  return new Map([...above, ...here]);
}

/** The subjects of a person: themselves, the groups they hold, and Everyone for staff. */
export function subjectsOf(who: Who): Subject[] {
  const groups = [...who.groups].map((id): Subject => ({ kind: "group", id }));
  return [{ kind: "person", id: who.id }, ...groups, ...(who.guest ? [] : [{ kind: "everyone" } as const])];
}

function setIn<K, V>(map: Map<K, Set<V>>, key: K): Set<V> {
  const known = map.get(key);
  if (known) return known;
  const made = new Set<V>();
  map.set(key, made);
  return made;
}

/**
 * When a person falls below `needed` at a node: milliseconds, or null for never. Every coming boundary of a window on
 * the way up, of a membership of theirs and of their own time here is looked at in order.
 */
export function endOf(person: Member, steps: readonly Step[], needed: Level, at: Instant): Instant | null {
  const windows: Window[] = [...steps.flatMap((step) => step.grants), ...windowsOf(person)];
  const last = windows.reduce((most, { from, until }) => Math.max(most, from ?? 0, until ?? 0), at);
  for (const moment of momentsAhead(windows, at, Math.max(last, at + HORIZON_MS)))
    if (!atLeast(resolve(whoAt(person, moment), steps, moment).level, needed)) return moment;
  return null;
}

/** An active member of staff who is steward without an end. */
export const isLastingSteward = (person: Member, steps: readonly Step[], at: Instant): boolean =>
  !person.guest && person.standing === "active" && endOf(person, steps, "steward", at) === null;
