/** Recovery codes are ticked off when they are used: which, by whom, when. */
import { and, eq } from "drizzle-orm";
import { z } from "zod";
import { codeLines } from "../../core/kinds/codes";
import { fieldOf } from "../../core/kinds/kind";
import { personIdOf } from "../caller";
import { command, idSchema } from "../command";
import type { Reader } from "../database/client";
import { ticks } from "../database/schema";
import type { KeyRing } from "../keys/keyFile";
import { notFound, Refused } from "../refused";
import { requireEntry } from "./entries";
import { kindOf } from "./kinds";
import { fingerprint } from "./sealing";
import { ticks as t } from "./strings";
import { openValues } from "./vaultKeys";
import { currentVersion } from "./writing";

const markOf = (keys: KeyRing, field: string, code: string) => fingerprint(keys, `${field} tick`, code);

/** Places in the list of the codes that were used. */
export async function tickedOff(tx: Reader, keys: KeyRing, entryId: string, field: string, value: string) {
  const used = new Set((await tx.select().from(ticks).where(eq(ticks.entryId, entryId))).map((row) => row.fingerprint));
  return codeLines(value).flatMap((code, at) => (used.has(markOf(keys, field, code)) ? [at] : []));
}

export const tickCode = command({
  name: "vaults.tickCode",
  input: z.strictObject({
    entryId: idSchema,
    versionId: idSchema,
    field: z.string().min(1).max(80),
    /** Which code of the list, from 0. */
    number: z.number().int().min(0).max(1000),
    used: z.boolean(),
  }),
  by: ["person"],
  allow: async (context) => {
    const allowed = await requireEntry(context, context.input.entryId, "reveal");
    const kind = await kindOf(context.tx, allowed.entry.kind);
    if (fieldOf(kind, context.input.field)?.form !== "codes") throw notFound();
    if (allowed.entry.versionId !== context.input.versionId)
      throw new Refused("conflict", t.someoneElseHasChangedThese);
    return allowed;
  },
  run: async ({ tx, input, caller, at, app, allowed }) => {
    const values = await openValues(tx, app.keys, await currentVersion(tx, allowed.entry));
    const codes = codeLines(values.fields[input.field] ?? "");
    const code = codes[input.number];
    if (code === undefined) throw notFound();
    const mark = markOf(app.keys, input.field, code);
    if (input.used)
      await tx
        .insert(ticks)
        .values({ entryId: input.entryId, fingerprint: mark, personId: personIdOf(caller), at })
        .onConflictDoNothing();
    else await tx.delete(ticks).where(and(eq(ticks.entryId, input.entryId), eq(ticks.fingerprint, mark)));
    const used = await tickedOff(tx, app.keys, input.entryId, input.field, values.fields[input.field]!);
    return { used, left: codes.length - used.length };
  },
  journal: ({ input, result, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { used: input.used, left: result.left },
    names: { [input.entryId]: allowed.entry.name },
  }),
  says: ({ details, place }) =>
    `${details.used ? "ticked off" : "unticked"} a code${place("of")}: ${details.left} left`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});
