/** Secrets shown or copied, one at a time. */
import { z } from "zod";
import { CODE, fieldOf, fieldWord } from "../../core/kinds/kind";
import { codeAt } from "../../core/signin/code";
import { personIdOf } from "../caller";
import { command, idSchema } from "../command";
import { notFound } from "../refused";
import { fieldsOf } from "./composing";
import { requireEntry } from "./entries";
import { kindOf } from "./kinds";
import { requireRevealGates } from "./revealGates";
import { fingerprint } from "./sealing";
import { tickedOff } from "./ticks";
import { openValues } from "./vaultKeys";
import { currentVersion, noteSighting } from "./writing";

/** Shows or copies one secret: a journal line and a sighting each time. */
export const revealField = command({
  name: "vaults.revealField",
  input: z.strictObject({
    entryId: idSchema,
    /** A field of the kind, or `extra:ID`. */
    field: z.string().min(1).max(80),
    how: z.enum(["revealed", "copied"]),
  }),
  by: ["person"],
  allow: async (context) => {
    const allowed = await requireEntry(context, context.input.entryId, "reveal");
    await requireRevealGates(context, allowed);
    return allowed;
  },
  run: async ({ tx, input, caller, at, app, allowed }) => {
    const version = await currentVersion(tx, allowed.entry);
    const values = await openValues(tx, app.keys, version);
    const hidden = fieldsOf(values);
    if (!Object.hasOwn(hidden, input.field)) throw notFound();
    const value = hidden[input.field]!;
    const kind = await kindOf(tx, allowed.entry.kind);
    const word = fieldWord(kind, input.field);
    const isCodes = fieldOf(kind, input.field)?.form === "codes";
    const used = isCodes ? await tickedOff(tx, app.keys, input.entryId, input.field, value) : null;
    if (input.field === CODE) {
      const { code, leftMs, next } = codeAt(values.code!, at);
      return { value: code, leftMs, next, versionId: version.id, word, used };
    }
    await noteSighting(tx, {
      entryId: input.entryId,
      field: input.field,
      mark: fingerprint(app.keys, input.field, value),
      personId: personIdOf(caller),
      at,
      how: input.how,
    });
    return { value, leftMs: null, next: null, versionId: version.id, word, used };
  },
  journal: ({ input, result, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { field: result.word, how: input.how },
    names: { [input.entryId]: allowed.entry.name },
  }),
  says: ({ details, place }) =>
    `${details.how === "copied" ? "copied" : "revealed"} the ${details.field}${place("of")}`,
  tell: ({ input, allowed }) => [`vault:${allowed.vaultId}`],
});
