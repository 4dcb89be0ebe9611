/** How an entry may be signed in to: what its steward allows. Its steps are in `steps.ts`. */
import { eq } from "drizzle-orm";
import { z } from "zod";
import { stewardsAt } from "../access/stewards";
import { command, idSchema } from "../command";
import { entries, entryVersions } from "../database/schema";
import { Refused } from "../refused";
import { ANY_STEWARD } from "../signin/askedCodes";
import { requireEntry } from "./entries";
import { requireAskedAgain, requireRevealGates } from "./revealGates";
import { signingIn as t } from "./strings";

/** Guarded fill may be switched on by the entry's steward only; plain http is accepted in words. */
export const changeSigningIn = command({
  name: "vaults.changeSigningIn",
  input: z.strictObject({
    entryId: idSchema,
    guardedFill: z.boolean(),
    plainHttp: z.boolean(),
    /** What Lanyard does in the site's page: types and sends, only types, or is not offered there at all. */
    filling: z.enum(["send", "type", "never"]).default("send"),
    /** Who receives the codes that the site sends: nobody (empty), any steward, or one of them by id. */
    codesReach: z.union([z.literal(["", ANY_STEWARD]), idSchema]).default(""),
  }),
  by: ["person"],
  allow: async (context) => {
    const { entryId, guardedFill, plainHttp, codesReach } = context.input;
    const allowed = await requireEntry(context, entryId, "steward");
    const { entry } = allowed;
    const isNamed = codesReach !== "" && codesReach !== ANY_STEWARD && codesReach !== entry.codesReach;
    if (isNamed && !(await stewardsAt(context.tx, entryId, context.at)).some(({ id }) => id === codesReach))
      throw new Refused("bad-input", t.onlyAStewardCanBeAsked, "codesReach");
    // Either sends the password by a way on which more can read it.
    if ((guardedFill && !entry.guardedFill) || (plainHttp && !entry.plainHttp))
      await requireRevealGates(context, allowed);
    return allowed;
  },
  run: async ({ tx, input: { entryId, ...rules } }) => {
    await tx.update(entries).set(rules).where(eq(entries.nodeId, entryId));
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: {
      guardedFill: input.guardedFill,
      plainHttp: input.plainHttp,
      filling: input.filling,
      asksCodes: input.codesReach !== "",
    },
    names: { [input.entryId]: allowed.entry.name },
  }),
  says: ({ details, it }) =>
    `changed the sign-in steps of ${it}: guarded fill ${details.guardedFill ? "on" : "off"}${details.asksCodes ? ", codes entered by a steward" : ""}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

/** Whether a reveal takes the sign-in password again. Switching it off takes it too. */
export const setPasswordOnReveal = command({
  name: "vaults.setPasswordOnReveal",
  input: z.strictObject({ entryId: idSchema, askAgain: z.boolean() }),
  by: ["person"],
  allow: async (context) => {
    const allowed = await requireEntry(context, context.input.entryId, "steward");
    if (!context.input.askAgain) requireAskedAgain(context, allowed.entry);
    return allowed;
  },
  run: async ({ tx, input }) => {
    await tx.update(entries).set({ askAgain: input.askAgain }).where(eq(entries.nodeId, input.entryId));
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { askAgain: input.askAgain },
    names: { [input.entryId]: allowed.entry.name },
  }),
  says: ({ details, it }) =>
    `made ${it} ${details.askAgain ? "require" : "no longer require"} the sign-in password before each reveal`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

/** The site refused this version; somebody with Edit lets it be sent once more. */
export const tryPasswordAgain = command({
  name: "vaults.tryPasswordAgain",
  input: z.strictObject({ entryId: idSchema }),
  by: ["person"],
  allow: (context) => requireEntry(context, context.input.entryId, "edit"),
  run: async ({ tx, allowed }) => {
    await tx.update(entryVersions).set({ refusedAt: null }).where(eq(entryVersions.id, allowed.entry.versionId));
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    names: { [input.entryId]: allowed.entry.name },
  }),
  says: ({ it }) => `let Galtry try the saved password of ${it} again`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});
