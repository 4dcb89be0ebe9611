/**
 * The same answer as `resolve`, for one person over a whole tree at once. A node without grants of the person
 * shares its parent's says, so the cost is that of the grants, not of the entries.
 */
import { type Grant, type Instant, isActive, subjectKey } from "./grant";
import type { Reach } from "./level";
import { decide, isSubjectOf, type Say, type Who, weightier } from "./resolve";

export interface TreeNode {
  id: string;
  parent: string | null;
  separate: boolean;
}

interface Held {
  says: ReadonlyMap<string, Say>;
  level: Reach;
}

/**
 * The level of one person at every node.
 * @param nodes each node's parent must be among them (or null); any order
 * @param grants those of other people are passed over
 */
export function resolveTree(
  who: Who,
  nodes: readonly TreeNode[],
  grants: readonly Grant[],
  at: Instant,
): Map<string, Reach> {
  const byNode = new Map<string, Grant[]>();
  for (const grant of grants) {
    if (!isActive(grant, at) || !isSubjectOf(grant.subject, who)) continue;
    const here = byNode.get(grant.node);
    if (here) here.push(grant);
    else byNode.set(grant.node, [grant]);
  }

  const byId = new Map(nodes.map((node) => [node.id, node]));
  const held = new Map<string, Held>();
  const nothing: Held = { says: new Map(), level: "none" };

  const heldAt = (id: string): Held => {
    const known = held.get(id);
    if (known) return known;
    const node = byId.get(id);
    if (!node) return nothing;
    const above = node.separate || node.parent === null ? nothing : heldAt(node.parent);
    const result = withGrants(who, above, byNode.get(id));
    held.set(id, result);
    return result;
  };

  return new Map(nodes.map((node) => [node.id, heldAt(node.id).level]));
}

function withGrants(who: Who, above: Held, grants: readonly Grant[] | undefined): Held {
  if (!grants) return above;
  const here = new Map<string, Say>();
  for (const grant of grants) {
    const key = subjectKey(grant.subject);
    const known = here.get(key);
    here.set(key, { subject: grant.subject, grant: known ? weightier(known.grant, grant) : grant, distance: 0 });
  }
  const says = new Map([...above.says, ...here]);
  return { says, level: decide(who, [...says.values()]).level };
}
