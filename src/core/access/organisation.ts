/** An organisation as far as access looks at it, and the walk over it. */
import { type Grant, isActive, type Subject, subjectKey, type Window } from "./grant";
import type { Instant } from "./instant";
import type { Reach } from "./level";
import { type Resolution, resolve, type Step, type Who } from "./resolve";
import type { TreeNode } from "./tree";

/** A person, with every membership that is kept: also those whose time has not come or is over. */
export interface Member extends Omit<Who, "groups"> {
  held: readonly (Window & { groupId: string })[];
  /** When all of their access ends; null or nothing said for no end. */
  until?: Instant | null;
}

/** A person at a moment: with the groups held then, and a leaver from their end on. */
export function whoAt({ id, standing, guest, auditor, held, until }: Member, at: Instant): Who {
  const groups = new Set(held.filter((one) => isActive(one, at)).map((one) => one.groupId));
  return { id, standing: until != null && until <= at ? "leaver" : standing, guest, auditor, groups };
}

/** Everything about a person that opens or closes. */
export const windowsOf = ({ held, until }: Member): Window[] =>
  until == null ? [...held] : [...held, { from: null, until }];

export interface Organised {
  nodes: readonly TreeNode[];
  grants: readonly Grant[];
  people: readonly Member[];
}

/** Quick answers over one organisation. Nothing of it may change meanwhile. */
export class Lookup {
  readonly node: ReadonlyMap<string, TreeNode>;
  readonly person: ReadonlyMap<string, Member>;
  readonly #grants = new Map<string, Grant[]>();
  readonly #regions = new Map<string, string>();
  readonly #steps = new Map<string, readonly Step[]>();
  readonly #whos = new Map<string, Who>();

  constructor(readonly of: Organised) {
    this.node = new Map(of.nodes.map((node) => [node.id, node]));
    this.person = new Map(of.people.map((person) => [person.id, person]));
    for (const grant of of.grants) {
      const here = this.#grants.get(grant.node);
      if (here) here.push(grant);
      else this.#grants.set(grant.node, [grant]);
    }
  }

  /** Those set on the very node, of any time. */
  grantsOn = (nodeId: string): readonly Grant[] => this.#grants.get(nodeId) ?? [];

  /** The nearest node, itself or above, that has grants or a separate mark: what one may there, one may here. */
  region(nodeId: string): string {
    const known = this.#regions.get(nodeId);
    if (known !== undefined) return known;
    const node = this.node.get(nodeId);
    const inherits = node && node.parent !== null && !node.separate && !this.#grants.has(nodeId);
    const region = inherits && this.node.has(node.parent!) ? this.region(node.parent!) : nodeId;
    this.#regions.set(nodeId, region);
    return region;
  }

  /** The node and what is above it, the node first. */
  steps(nodeId: string): readonly Step[] {
    const known = this.#steps.get(nodeId);
    if (known) return known;
    const node = this.node.get(nodeId);
    if (!node) return [];
    const above = node.parent === null ? [] : this.steps(node.parent);
    const steps = [{ node: nodeId, separate: node.separate, grants: this.grantsOn(nodeId) }, ...above];
    this.#steps.set(nodeId, steps);
    return steps;
  }

  /** A person with the groups held at `at`. */
  who(person: Member, at: Instant): Who {
    const key = `${person.id} ${at}`;
    const known = this.#whos.get(key);
    if (known) return known;
    const who = whoAt(person, at);
    this.#whos.set(key, who);
    return who;
  }

  resolve = (person: Member, nodeId: string, at: Instant): Resolution =>
    resolve(this.who(person, at), this.steps(this.region(nodeId)), at);

  level = (person: Member, nodeId: string, at: Instant): Reach => this.resolve(person, nodeId, at).level;

  /** What one subject's grants say at a node: the nearest active one, and how many steps up it stands. */
  say(subject: Subject, nodeId: string, at: Instant): { grant: Grant; distance: number } | null {
    const key = subjectKey(subject);
    for (const [distance, step] of this.steps(nodeId).entries()) {
      const here = step.grants.filter((grant) => subjectKey(grant.subject) === key && isActive(grant, at));
      if (here.length > 0) return { grant: here.reduce((a, b) => (outweighs(b, a) ? b : a)), distance };
      if (step.separate) return null;
    }
    return null;
  }
}

const WEIGHT: Record<Grant["level"], number> = { blocked: 9, steward: 4, edit: 3, reveal: 2, use: 1 };
const outweighs = (a: Grant, b: Grant): boolean => WEIGHT[a.level] > WEIGHT[b.level];
