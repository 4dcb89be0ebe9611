/** What one subject has set at some places: what a change of one grant there has to leave as it is. */
import { z } from "zod";
import type { Terms } from "../../core/access";
import { idSchema, query } from "../command";
import { subjectSchema } from "./grants";
import { requireLevel } from "./load";
import { cellRows } from "./slip/slipChanges";

export interface CellSet {
  nodeId: string;
  grants: (Terms & { id: string })[];
}

export const accessCells = query({
  name: "access.accessCells",
  input: z.strictObject({ nodeIds: z.array(idSchema).min(1).max(200), subject: subjectSchema }),
  by: ["person"],
  allow: async (context) => {
    for (const nodeId of context.input.nodeIds) await requireLevel(context, nodeId, "steward");
  },
  run: async ({ tx, input }): Promise<CellSet[]> => {
    const cells: CellSet[] = [];
    for (const nodeId of new Set(input.nodeIds)) {
      const rows = await cellRows(tx, { type: "set", nodeId, subject: input.subject, grants: [] });
      cells.push({
        nodeId,
        grants: rows.map(({ id, level, from, until, weekly }) => ({ id, level, from, until, weekly })),
      });
    }
    return cells;
  },
});
