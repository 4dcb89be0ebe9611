/** Tags in use in a vault, as far as the asker reaches it. */
import { and, eq, isNull } from "drizzle-orm";
import { z } from "zod";
import { atLeast } from "../../core/access";
import { reachOf } from "../access/load";
import { sortByName } from "../byName";
import { idSchema, query } from "../command";
import { entries, places } from "../database/schema";
import { notFound } from "../refused";

export const vaultTags = query({
  name: "vaults.vaultTags",
  input: z.strictObject({ vaultId: idSchema }),
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, input, at }) => {
    const { levels } = reachOf(tx, me, at);
    const rows = await tx
      .select({ id: entries.nodeId, tags: entries.tags })
      .from(entries)
      .innerJoin(places, and(eq(places.nodeId, entries.nodeId), isNull(places.validUntil)))
      .where(and(eq(places.vaultId, input.vaultId), isNull(entries.binnedAt)));
    const reached = rows.filter((row) => atLeast(levels.get(row.id) ?? "none", "use"));
    if (reached.length === 0 && !atLeast(levels.get(input.vaultId) ?? "none", "use")) throw notFound();
    const uses = new Map<string, { entryIds: string[]; editable: number }>();
    for (const { id, tags } of reached)
      for (const tag of tags) {
        const use = uses.get(tag) ?? { entryIds: [], editable: 0 };
        use.entryIds.push(id);
        if (atLeast(levels.get(id)!, "edit")) use.editable++;
        uses.set(tag, use);
      }
    return sortByName([...uses].map(([name, use]) => ({ name, ...use })));
  },
});
