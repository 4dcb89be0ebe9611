/**
 * The same answer as `resolve`, for one person over a whole tree at once. A node without grants of the person
 * shares its parent's says, so the cost is that of the grants, not of the entries.
 */
import { type Grant, isActive, subjectKey } from "./grant";
import type { Instant } from "./instant";
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
  const levels = new Map<string, Reach>();
  // Most nodes have nothing of their own: what they share is worked out once, at the nearest node that has.
  const held = new Map<string, Held>();
  const nothing: Held = { says: new Map(), level: "none" };
  const heldAt = (node: TreeNode | undefined): Held => {
    for (let at = node; at; at = at.parent === null ? undefined : byId.get(at.parent)) {
      const known = held.get(at.id);
      if (known) return known;
      const own = byNode.get(at.id);
      if (!own && !at.separate) continue;
      const above = at.separate || at.parent === null ? nothing : heldAt(byId.get(at.parent));
      const result = withGrants(who, above, own);
      held.set(at.id, result);
      return result;
    }
    return nothing;
  };
  for (const node of nodes) levels.set(node.id, heldAt(node).level);
  return levels;
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
