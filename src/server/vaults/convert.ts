/** An entry becomes one of another kind. */
import { z } from "zod";
import { convert } from "../../core/kinds/convert";
import { wholeAddress } from "../../core/signin/site";
import { command, idSchema } from "../command";
import { Refused } from "../refused";
import { kindSchema, requireEntry } from "./entries";
import { kindOf } from "./kinds";
import { convert as t } from "./strings";
import { rewrite } from "./writing";

export const convertEntry = command({
  name: "vaults.convertEntry",
  input: z.strictObject({
    entryId: idSchema,
    baseVersionId: idSchema,
    kind: kindSchema,
    /** Where the new kind needs one and the entry has none. */
    signInPage: z.string().trim().max(2000).default(""),
  }),
  by: ["person"],
  allow: async (context) => {
    const allowed = await requireEntry(context, context.input.entryId, "edit");
    if (allowed.entry.versionId !== context.input.baseVersionId)
      throw new Refused("conflict", t.someoneElseHasChangedThisEntry);
    const to = await kindOf(context.tx, context.input.kind);
    if (to.id === allowed.entry.kind) throw new Refused("conflict", t.itIsAlreadyOfThisKind, "kind");
    if (to.closed) throw new Refused("conflict", t.isNoLongerOfferedForNewEntries(to.name), "kind");
    return { ...allowed, to };
  },
  run: async (context) => {
    const { input, allowed } = context;
    const { entry, to } = allowed;
    return rewrite(context, {
      entry,
      held: allowed,
      how: null,
      change: (values, from) => {
        try {
          const page = input.signInPage === "" ? "" : wholeAddress(input.signInPage);
          return { kind: to, values: convert(values, from, to, page) };
        } catch (error) {
          throw error instanceof RangeError ? new Refused("bad-input", error.message, "signInPage") : error;
        }
      },
    });
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { kind: allowed.to.name },
    names: { [input.entryId]: allowed.entry.name },
  }),
  says: ({ details, it }) => `changed the kind of ${it} to ${details.kind}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});
