/** Places in a vault where the caller may put things, and the way to one of them. */
import { eq, inArray } from "drizzle-orm";
import { z } from "zod";
import { atLeast, type Reach } from "../../core/access";
import { loadReach, type PathNode, resolveAt } from "../access/load";
import type { Person } from "../access/person";
import { sortByName } from "../byName";
import { idSchema, query } from "../command";
import type { Reader } from "../database/client";
import { folders, vaults } from "../database/schema";
import { notFound } from "../refused";

/** A guest knows a vault by its name only where they were asked into the whole of it. */
export const vaultNameFor = (person: Person, levelAtVault: Reach | undefined, name: string): string =>
  person.guest && !atLeast(levelAtVault ?? "none", "use") ? "Shared with you" : name;

/** @param vault its row */
export async function vaultNameAt(tx: Reader, person: Person, vault: { nodeId: string; name: string }, at: number) {
  if (!person.guest) return vault.name;
  return vaultNameFor(person, (await resolveAt(tx, person, vault.nodeId, at))?.resolution.level, vault.name);
}

export interface Place {
  id: string;
  /** "Ticketing › Season", the vault's own name for its top. */
  name: string;
}

/** The vault's top and its folders, by their whole way, wherever the caller has Edit. */
export const vaultPlaces = query({
  name: "vaults.places",
  input: z.strictObject({ vaultId: idSchema }),
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, input, at }): Promise<Place[]> => {
    const { levels, tree } = await loadReach(tx, me!, at);
    const [vault] = await tx.select().from(vaults).where(eq(vaults.nodeId, input.vaultId));
    const rows = await tx.select().from(folders);
    const known = new Map(rows.map((row) => [row.nodeId, row]));
    const may = (id: string) => atLeast(levels.get(id) ?? "none", "edit");
    const wayTo = (id: string): string => {
      const way: string[] = [];
      for (let up: string | null = id; up !== null && known.has(up); up = tree.get(up)?.parent ?? null)
        if (!me!.guest || may(up)) way.unshift(known.get(up)!.name);
      return way.join(" › ");
    };
    const found = rows
      .filter((row) => row.binnedAt === null && tree.get(row.nodeId)?.vaultId === input.vaultId && may(row.nodeId))
      .map((row) => ({ id: row.nodeId, name: wayTo(row.nodeId) }));
    if (!vault || (found.length === 0 && !may(input.vaultId))) throw notFound();
    return [...(may(input.vaultId) ? [{ id: input.vaultId, name: vault.name }] : []), ...sortByName(found)];
  },
});

/** Names of the folders on the way to a node, the outermost first; a guest learns none of them. */
export async function foldersOnTheWay(tx: Reader, path: readonly PathNode[], person: Person): Promise<Place[]> {
  const ids = path.filter((node) => node.type === "folder").map((node) => node.id);
  if (ids.length === 0 || person.guest) return [];
  const rows = await tx.select().from(folders).where(inArray(folders.nodeId, ids));
  return ids.toReversed().map((id) => ({ id, name: rows.find((row) => row.nodeId === id)?.name ?? "" }));
}
