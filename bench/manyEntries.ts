/** Ten thousand entries in one vault, put there straight away: a click each would take minutes. */
import { eq } from "drizzle-orm";
import { entries, entryVersions, nodes, places } from "../src/server/database/schema";
import type { Galtry } from "../src/server/galtry";
import { uuidv7 } from "../src/server/ids";

/** Copies of an entry under other names; what is sealed in them belongs to the first and opens nowhere else. */
export async function addCopies(galtry: Galtry, vaultId: string, modelId: string, count: number): Promise<void> {
  const at = Date.now();
  await galtry.writer.write(async (tx) => {
    const [model] = await tx.select().from(entries).where(eq(entries.nodeId, modelId));
    const [version] = await tx.select().from(entryVersions).where(eq(entryVersions.id, model!.versionId));
    const made = Array.from({ length: count }, (_, i) => ({ id: uuidv7(), versionId: uuidv7(), number: i + 1 }));
    for (let from = 0; from < count; from += 200) {
      const some = made.slice(from, from + 200);
      const by = model!.createdBy;
      await tx
        .insert(nodes)
        .values(some.map(({ id }) => ({ id, type: "entry" as const, createdAt: at, createdBy: by })));
      await tx.insert(places).values(
        some.map(({ id }) => ({
          id: uuidv7(),
          nodeId: id,
          parentId: vaultId,
          vaultId,
          validFrom: at,
          commandId: made[0]!.id,
        })),
      );
      await tx.insert(entryVersions).values(some.map((one) => ({ ...version!, id: one.versionId, entryId: one.id })));
      await tx.insert(entries).values(
        some.map((one) => ({
          ...model!,
          nodeId: one.id,
          versionId: one.versionId,
          name: `Fairground pitch ${String(one.number).padStart(5, "0")}`,
        })),
      );
    }
  });
}
