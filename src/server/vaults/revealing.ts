/** Secrets shown or copied, one at a time. */
import { z } from "zod";
import { CODE, fieldOf, fieldWord } from "../../core/kinds/kind";
import { codeAt } from "../../core/signin/code";
import { requireReady } from "../access/accepting";
import { personIdOf } from "../caller";
import { type Context, command, idSchema } from "../command";
import type { Reader } from "../database/client";
import { notFound, Refused } from "../refused";
import { fieldsOf } from "./composing";
import { requireEntry } from "./entries";
import { kindOf } from "./kinds";
import { fingerprint } from "./sealing";
import { tickedOff } from "./ticks";
import { openValues } from "./vaultKeys";
import { currentVersion, noteSighting } from "./writing";

/** An entry that asks again shows nothing to somebody who gave their sign-in password longer ago than this. */
const ASKED_AGAIN_MS = 60_000;

/** @throws Refused prove-again, where the entry wants the sign-in password once more */
export function requireAskedAgain(
  { caller, at }: Pick<Context<unknown, Reader>, "caller" | "at">,
  entry: { askAgain: boolean; name: string },
): void {
  if (!entry.askAgain) return;
  if (caller.kind === "person" && at - caller.provedAt <= ASKED_AGAIN_MS) return;
  throw new Refused("prove-again", `${entry.name} asks for your sign-in password again before it shows anything.`);
}

/** Shows or copies one secret: a journal line and a sighting each time. */
export const revealField = command({
  name: "vaults.reveal",
  input: z.strictObject({
    entryId: idSchema,
    /** A field of the kind, or `extra:ID`. */
    field: z.string().min(1).max(80),
    how: z.enum(["revealed", "copied"]),
  }),
  by: ["person"],
  allow: async (context) => {
    const allowed = await requireEntry(context, context.input.entryId, "reveal");
    await requireReady(context, allowed.entry, allowed.vaultId, allowed.level);
    requireAskedAgain(context, allowed.entry);
    return allowed;
  },
  run: async ({ tx, input, caller, at, house, allowed }) => {
    const version = await currentVersion(tx, allowed.entry);
    const values = await openValues(tx, house.keys, version);
    const hidden = fieldsOf(values);
    if (!Object.hasOwn(hidden, input.field)) throw notFound();
    const value = hidden[input.field]!;
    const kind = await kindOf(tx, allowed.entry.kind);
    const word = fieldWord(kind, input.field);
    const isCodes = fieldOf(kind, input.field)?.form === "codes";
    const used = isCodes ? await tickedOff(tx, house.keys, input.entryId, input.field, value) : null;
    if (input.field === CODE) {
      const { code, leftMs, next } = codeAt(values.code!, at);
      return { value: code, leftMs, next, versionId: version.id, word, used };
    }
    await noteSighting(tx, {
      entryId: input.entryId,
      field: input.field,
      mark: fingerprint(house.keys, input.field, value),
      personId: personIdOf(caller)!,
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
  tell: ({ input, allowed }) => [`vault:${allowed.vaultId}`],
});
