/** Findings are put off until a date, with a reason that the other stewards see; never for good. */
import { and, isNull } from "drizzle-orm";
import { z } from "zod";
import { FINDING_NAMES } from "../../core/upkeep/names";
import { requireLevel } from "../access/load";
import { nodeName } from "../access/nodeName";
import { type Context, command, idSchema, type Topic } from "../command";
import { inJson } from "../database/bulk";
import type { Transaction } from "../database/client";
import { findings } from "../database/schema";
import type { JournalEntry } from "../journal/append";
import { Refused } from "../refused";
import { puttingOff as t } from "./strings";

const YEAR_MS = 366 * 86_400_000;
const severalFindings = z.array(idSchema).min(1).max(500);
type Row = typeof findings.$inferSelect;

/** Findings that are open, of nodes of which the caller is steward. */
async function requireFindings(
  context: Pick<Context<unknown, Transaction>, "tx" | "me" | "at">,
  ids: readonly string[],
): Promise<{ rows: Row[]; names: Map<string, string> }> {
  const rows = await context.tx
    .select()
    .from(findings)
    .where(and(inJson(findings.id, [...new Set(ids)]), isNull(findings.endedAt)));
  const names = new Map<string, string>();
  for (const nodeId of new Set(rows.map((row) => row.nodeId))) {
    await requireLevel(context, nodeId, "steward");
    names.set(nodeId, await nodeName(context.tx, nodeId));
  }
  if (rows.length < new Set(ids).size) throw new Refused("conflict", t.thisFindingIsOver);
  return { rows, names };
}

const lines = (
  { rows, names }: { rows: Row[]; names: Map<string, string> },
  details: (kinds: string) => NonNullable<JournalEntry["details"]>,
): JournalEntry[] =>
  [...names].map(([nodeId, name]) => {
    const own = rows.filter((row) => row.nodeId === nodeId);
    return {
      ...{ node: nodeId, vault: own[0]!.vaultId, names: { [nodeId]: name } },
      details: details([...new Set(own.map(({ kind }) => FINDING_NAMES[kind]))].sort().join(", ")),
    };
  });

const topics = ({ rows }: { rows: Row[] }): Topic[] => [
  ...new Set(rows.map(({ vaultId }): Topic => `vault:${vaultId}`)),
];

export const putOffFindings = command({
  name: "upkeep.putOffFindings",
  input: z.strictObject({
    ids: severalFindings,
    until: z.number().int().min(0).max(8_640_000_000_000_000),
    why: z.string().trim().max(300),
  }),
  by: ["person"],
  allow: async (context) => {
    const { input, at } = context;
    const found = await requireFindings(context, input.ids);
    if (input.why === "") throw new Refused("bad-input", t.giveAReason, "why");
    if (input.until <= at) throw new Refused("bad-input", t.theDateIsInThePast, "until");
    if (input.until > at + YEAR_MS) throw new Refused("bad-input", t.atMostAYear, "until");
    return found;
  },
  run: async ({ tx, input, me, allowed }) => {
    await tx
      .update(findings)
      .set({ putOffUntil: input.until, putOffWhy: input.why, putOffBy: me.id })
      .where(
        inJson(
          findings.id,
          allowed.rows.map(({ id }) => id),
        ),
      );
  },
  journal: ({ input, allowed }) => lines(allowed, (kinds) => ({ kinds, until: input.until, why: input.why })),
  says: ({ details, it, until, why }) => `put off “${details.kinds}” of ${it}${until}${why}`,
  tell: ({ allowed }) => topics(allowed),
});

export const undoPutOff = command({
  name: "upkeep.undoPutOff",
  input: z.strictObject({ ids: severalFindings }),
  by: ["person"],
  allow: (context) => requireFindings(context, context.input.ids),
  run: async ({ tx, allowed }) => {
    await tx
      .update(findings)
      .set({ putOffUntil: null, putOffWhy: "", putOffBy: null })
      .where(
        inJson(
          findings.id,
          allowed.rows.map(({ id }) => id),
        ),
      );
  },
  journal: ({ allowed }) => lines(allowed, (kinds) => ({ kinds })),
  says: ({ details, it }) => `no longer puts off “${details.kinds}” of ${it}`,
  tell: ({ allowed }) => topics(allowed),
});
