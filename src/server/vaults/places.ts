/** Places in a vault where the caller may put things, and the way to one of them. */
import { eq, inArray } from "drizzle-orm";
import { z } from "zod";
import { atLeast, type Reach } from "../../core/access";
import { type OwnReach, type PathNode, reachOf } from "../access/load";
import { nodeNames } from "../access/nodeName";
import type { Person } from "../access/person";
import { sortByName } from "../byName";
import { idSchema, query } from "../command";
import { inJson } from "../database/bulk";
import type { Reader } from "../database/client";
import { folders, vaults } from "../database/schema";
import { notFound } from "../refused";
import { places as t } from "./strings";

/** Whether a person is told what a vault is called: staff who reach something in it, guests who were invited into all of it. */
export const knowsVault = (person: Person, levelAtVault: Reach | undefined): boolean =>
  !person.guest || atLeast(levelAtVault ?? "none", "use");

/**
 * What vaults are called for their reader. A guest who was invited into a part of one knows it by that part: two of them
 * are told apart, and nothing around is named.
 */
export async function vaultNames(
  tx: Reader,
  me: Person,
  vaultIds: Iterable<string>,
  at: number,
): Promise<(vaultId: string) => string> {
  const wanted = [...new Set(vaultIds)];
  const { levels, node } = reachOf(tx, me, at);
  const named = wanted.filter((id) => knowsVault(me, levels.get(id)));
  const tops = new Map<string, string[]>(wanted.filter((id) => !named.includes(id)).map((id) => [id, []]));
  if (tops.size > 0)
    for (const id of levels.keys()) {
      const { parent, vaultId } = node(id)!;
      if (parent === null || !levels.has(parent)) tops.get(vaultId)?.push(id);
    }
  const names = await nodeNames(tx, [...named, ...[...tops.values()].flat()]);
  return (vaultId) => {
    const parts = tops.get(vaultId);
    if (!parts) return names.get(vaultId) ?? "";
    const [first = "", ...more] = parts.map((id) => names.get(id) ?? "").sort((a, b) => a.localeCompare(b));
    if (first === "") return "Shared with you";
    return t.sharedWithYou(first, more.length > 0 ? ` and ${more.length} more` : "");
  };
}

export interface Place {
  id: string;
  /** "Ticketing › Season", the vault's own name for its top. */
  name: string;
}

/** The vault's top and its folders, by their whole way, wherever the caller has Edit. */
export const vaultPlaces = query({
  name: "vaults.vaultPlaces",
  input: z.strictObject({ vaultId: idSchema }),
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, input, at }): Promise<Place[]> => {
    const { levels, node, inVault } = reachOf(tx, me, at);
    const [vault] = await tx.select().from(vaults).where(eq(vaults.nodeId, input.vaultId));
    const inside = [...inVault(input.vaultId)].filter(({ type }) => type === "folder");
    const rows = await tx
      .select()
      .from(folders)
      .where(
        inJson(
          folders.nodeId,
          inside.map(({ id }) => id),
        ),
      );
    const may = (id: string) => atLeast(levels.get(id) ?? "none", "edit");
    const wayTo = wayThrough(new Map(rows.map((row) => [row.nodeId, row.name])), node, me.guest ? may : () => true);
    const found = rows
      .filter((row) => row.binnedAt === null && may(row.nodeId))
      .map((row) => ({ id: row.nodeId, name: wayTo(row.nodeId) }));
    if (!vault || (found.length === 0 && !may(input.vaultId))) throw notFound();
    return [...(may(input.vaultId) ? [{ id: input.vaultId, name: vault.name }] : []), ...sortByName(found)];
  },
});

/** "Post › Spring" of a folder, by the names of the folders around it that are told. */
const wayThrough =
  (names: ReadonlyMap<string, string>, node: OwnReach["node"], told: (id: string) => boolean) =>
  (id: string): string => {
    const way: string[] = [];
    for (let up: string | null = id; up !== null && names.has(up); up = node(up)?.parent ?? null)
      if (told(up)) way.unshift(names.get(up) ?? "");
    return way.join(" › ");
  };

/** Lists that grow with the organisation are chosen from no more. */
const MOST_FOLDERS = 200;

/** Where a person may add an entry: vaults first, then folders by their way from the vault on. For queries. */
export async function placesToAdd(tx: Reader, me: Person, at: number): Promise<Place[]> {
  const { levels, node } = reachOf(tx, me, at);
  const may = (id: string) => atLeast(levels.get(id) ?? "none", "edit");
  const mine = [...levels.keys()].filter(may).flatMap((id) => node(id) ?? []);
  const vaultName = await vaultNames(tx, me, new Set(mine.map(({ vaultId }) => vaultId)), at);
  const tops = mine.filter(({ type }) => type === "vault").map(({ id }) => ({ id, name: vaultName(id) }));
  const inside = mine.filter(({ type }) => type === "folder").map(({ id }) => id);
  const rows = await tx.select().from(folders).where(inJson(folders.nodeId, inside));
  const open = rows.filter((row) => row.binnedAt === null);
  const wayTo = wayThrough(new Map(open.map((row) => [row.nodeId, row.name])), node, () => true);
  const within = open.map(({ nodeId }) => ({
    id: nodeId,
    name: `${vaultName(node(nodeId)?.vaultId ?? "")} › ${wayTo(nodeId)}`,
  }));
  return [...sortByName(tops), ...sortByName(within).slice(0, MOST_FOLDERS)];
}

/** Names of the folders on the way to a node, the outermost first; a guest learns none of them. */
export async function foldersOnTheWay(tx: Reader, path: readonly PathNode[], person: Person): Promise<Place[]> {
  const ids = path.filter((node) => node.type === "folder").map((node) => node.id);
  if (ids.length === 0 || person.guest) return [];
  const rows = await tx.select().from(folders).where(inArray(folders.nodeId, ids));
  return ids.toReversed().map((id) => ({ id, name: rows.find((row) => row.nodeId === id)?.name ?? "" }));
}
