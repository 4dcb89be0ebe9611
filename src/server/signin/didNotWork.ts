/** A colleague says that a sign-in did not work: its stewards are told, with what Galtry itself noted last. */
import { and, desc, eq } from "drizzle-orm";
import { z } from "zod";
import { DID_NOT_WORK, FAILURES, type Failure } from "../../core/signin/outcome";
import { command, idSchema } from "../command";
import { signIns } from "../database/schema";
import { attemptKey, countAttempt, requireFewAttempts } from "../people/attempts";
import { tellStewards } from "../people/telling";
import { requireEntry } from "../vaults/entries";
import { didNotWork as t } from "./strings";

const MOST_IN_A_QUARTER = 3;

export const didNotWork = command({
  name: "signIn.didNotWork",
  input: z.strictObject({
    entryId: idSchema,
    what: z.enum(Object.keys(DID_NOT_WORK) as [keyof typeof DID_NOT_WORK]),
    note: z.string().trim().max(300, t.aNoteHasAtMost300Characters).default(""),
  }),
  by: ["person"],
  allow: async (context) => {
    const { tx, me, at, app, input } = context;
    const allowed = await requireEntry(context, input.entryId, "use");
    const key = attemptKey(app.keys, "did not work", `${me.id} ${input.entryId}`);
    await requireFewAttempts(tx, key, MOST_IN_A_QUARTER, at);
    return { ...allowed, key };
  },
  run: async ({ tx, me, at, input, allowed }) => {
    await countAttempt(tx, allowed.key, at);
    const [last] = await tx
      .select({ outcome: signIns.outcome })
      .from(signIns)
      .where(and(eq(signIns.entryId, input.entryId), eq(signIns.personId, me.id)))
      .orderBy(desc(signIns.begunAt))
      .limit(1);
    const note = input.note ? t.theyWrite(input.note) : "";
    await tellStewards(
      tx,
      [input.entryId],
      (entry) => t.cannotSignInWith(me.name, entry, DID_NOT_WORK[input.what], noted(last?.outcome), note),
      at,
      me.id,
    );
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { what: input.what },
    names: { [input.entryId]: allowed.entry.name },
  }),
  says: ({ details, it }) =>
    `reported a problem with ${it}: ${DID_NOT_WORK[details.what as keyof typeof DID_NOT_WORK] ?? "something else"}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

function noted(outcome: string | null | undefined): string {
  if (outcome === undefined) return t.galtryHasNotSignedThemInThere;
  if (outcome === "signed-in") return t.galtrysLastSignInForThemWorked;
  const failure = FAILURES[outcome as Failure] as (typeof FAILURES)[Failure] | undefined;
  return failure ? t.galtrysLastSignInForThemIt(failure.title) : t.galtrysLastSignInForThemWas;
}
