/** Reads what `core/access` needs from the rows that hold now. */
import { sql } from "drizzle-orm";
import {
  atLeast,
  isSubjectOf,
  type Level,
  type Resolution,
  resolve,
  resolveTree,
  type Step,
  subjectsOf,
  type TreeNode,
} from "../../core/access";
import type { Reader } from "../database/client";
import type { NodeType } from "../database/schema";
import { notFound, Refused } from "../refused";
import type { OpenIndex } from "./openIndex";
import { loadOrganised } from "./organised";
import { loadPerson, type Person } from "./person";
import { type GrantRow, toGrant, toSubject } from "./rows";
import { load as t } from "./strings";

export interface PathNode {
  id: string;
  type: NodeType;
  parentId: string | null;
  vaultId: string;
  separate: boolean;
}

interface Above {
  id: string;
  type: NodeType;
  parent: string | null;
  vault: string;
  separate: number;
  /** Only where asked for: a JSON array of rows. */
  grants: string;
}

/** A node and what is above it, the node first, in one statement: every act reads it. */
const above = (tx: Reader, nodeId: string, withGrants: boolean) =>
  tx.all<Above>(sql`
    with recursive up(id, parent, vault, depth) as (
      select node_id, parent_id, vault_id, 0 from places where node_id = ${nodeId} and valid_until is null
      union all
      select p.node_id, p.parent_id, p.vault_id, up.depth + 1 from places p join up on p.node_id = up.parent where p.valid_until is null
    )
    select up.id as id, n.type as type, up.parent as parent, up.vault as vault,
      exists (select 1 from separations s where s.node_id = up.id and s.valid_until is null) as separate,
      ${withGrants ? GRANTS_HERE : sql`'[]'`} as grants
    from up cross join nodes n on n.id = up.id order by up.depth`);

const GRANTS_HERE = sql`(select json_group_array(json_object(
  'id', g.id, 'nodeId', g.node_id, 'subjectKind', g.subject_kind, 'subjectId', g.subject_id, 'level', g.level,
  'from', g.from_at, 'until', g.until_at, 'weekly', json(g.weekly), 'why', g.why, 'givenBy', g.given_by, 'validFrom', g.valid_from,
  'validUntil', g.valid_until, 'commandId', g.command_id)) from grants g where g.node_id = up.id and g.valid_until is null)`;

const toPathNode = (row: Above): PathNode => ({
  id: row.id,
  type: row.type,
  parentId: row.parent,
  vaultId: row.vault,
  separate: row.separate === 1,
});

const toPathNodes = (index: OpenIndex, nodeId: string): PathNode[] =>
  index
    .path(nodeId)
    .map(({ id, type, parent, vaultId, separate }) => ({ id, type, parentId: parent, vaultId, separate }));

/** A node and what is above it, the node first. Empty when there is no such node. */
export const loadPath = async (tx: Reader, nodeId: string): Promise<PathNode[]> =>
  tx.access ? toPathNodes(tx.access, nodeId) : (await above(tx, nodeId, false)).map(toPathNode);

/** The path with every grant that stands on it. */
export async function loadSteps(
  tx: Reader,
  nodeId: string,
): Promise<{ path: PathNode[]; steps: Step[]; rows: readonly GrantRow[] }> {
  if (tx.access) {
    const path = toPathNodes(tx.access, nodeId);
    return { path, steps: tx.access.steps(nodeId), rows: path.flatMap(({ id }) => tx.access!.grantsOn(id)) };
  }
  const read = (await above(tx, nodeId, true)).map((row) => ({
    node: toPathNode(row),
    grants: JSON.parse(row.grants) as GrantRow[],
  }));
  return {
    path: read.map(({ node }) => node),
    steps: read.map(({ node, grants: own }) => ({
      node: node.id,
      separate: node.separate,
      grants: own.map(toGrant),
    })),
    rows: read.flatMap(({ grants: own }) => own),
  };
}

/** What one person has at one node, and why; null where there is no such person or node. */
export async function resolveAt(
  tx: Reader,
  who: string | Person,
  nodeId: string,
  at: number,
): Promise<{
  resolution: Resolution;
  /** The node, and what is above it. */
  path: readonly [PathNode, ...PathNode[]];
  steps: Step[];
  rows: readonly GrantRow[];
  person: Person;
} | null> {
  const person = typeof who === "string" ? await loadPerson(tx, who, at) : who;
  const { path, steps, rows } = await loadSteps(tx, nodeId);
  const [node, ...over] = path;
  if (!person || !node) return null;
  return { resolution: resolve(person, steps, at), path: [node, ...over], steps, rows, person };
}

const MISSING: Record<Level, string> = {
  use: t.youCannotUseThis,
  reveal: t.youCanSignInWithThisBut,
  edit: t.youCanUseThisButYouNeed,
  steward: t.onlyItsStewardCanDoThat,
};

/**
 * The gate of most commands: the caller has at least `needed` at the node.
 * @throws Refused not-found below Use (nobody learns that a node exists), not-allowed above
 */
export async function requireLevel({ tx, me, at }: Asking, nodeId: string, needed: Level) {
  const found = await resolveAt(tx, me, nodeId, at);
  if (!found || !atLeast(found.resolution.level, "use")) throw notFound();
  if (!atLeast(found.resolution.level, needed)) throw new Refused("not-allowed", MISSING[needed]);
  return { ...found, level: found.resolution.level as Level, vaultId: found.path[0].vaultId };
}

/** Who asks, where and when: every command and query has these. */
export interface Asking {
  tx: Reader;
  me: Person;
  at: number;
}

export type Allowed = Awaited<ReturnType<typeof requireLevel>>;

export interface ReachedNode extends TreeNode {
  type: NodeType;
  vaultId: string;
}

/** What one person reaches, and the nodes around it. */
export interface OwnReach {
  /** Nodes that they do not reach are not in it. */
  levels: ReadonlyMap<string, Level>;
  /** Any node, reached or not. */
  node: (id: string) => ReachedNode | undefined;
  /** All that lies in a vault, reached or not. */
  inVault: (vaultId: string) => Iterable<ReachedNode>;
  /** Grants that speak of the person, one of their groups or Everyone; of any time. */
  grants: readonly GrantRow[];
}

/** For queries, from the access index: everything a person reaches. */
export function reachOf(tx: Reader, person: Person, at: number): OwnReach {
  const index = tx.access;
  if (!index) throw new Error("Only queries have the access index; commands read the rows of some vaults.");
  return {
    levels: index.reached(person.id, at),
    node: index.node,
    inVault: (vaultId) => index.below(vaultId),
    get grants() {
      return subjectsOf(person).flatMap((subject) => [...index.grantsTo(subject)]);
    },
  };
}

/** For commands, from the rows: what a person reaches in some vaults. */
export async function loadReachIn(
  tx: Reader,
  person: Person,
  vaultIds: readonly string[],
  at: number,
): Promise<OwnReach> {
  const { nodes, rows } = await loadOrganised(tx, vaultIds);
  const tree = new Map(nodes.map((node) => [node.id, node]));
  const levels = new Map<string, Level>();
  for (const [id, level] of resolveTree(person, nodes, rows.map(toGrant), at))
    if (level !== "none") levels.set(id, level);
  return {
    levels,
    node: (id) => tree.get(id),
    inVault: (vaultId) => nodes.filter((node) => node.vaultId === vaultId),
    grants: rows.filter((row) => isSubjectOf(toSubject(row.subjectKind, row.subjectId), person)),
  };
}
