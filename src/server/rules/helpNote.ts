/** The organisation's own note on top of help: whom to ask, with a telephone number. Whoever can open Galtry reads it. */
import { z } from "zod";
import { command, none, query } from "../command";
import { organisation } from "../database/schema";
import { requireAdministrator } from "../people/administrators";

const MOST_LETTERS = 600;

export const helpNote = query({
  name: "rules.helpNote",
  input: none,
  by: ["nobody", "person"],
  allow: () => undefined,
  run: async ({ tx }) => {
    const [row] = await tx.select({ note: organisation.helpNote }).from(organisation);
    return row?.note ?? "";
  },
});

export const changeHelpNote = command({
  name: "rules.changeHelpNote",
  input: z.strictObject({ note: z.string().trim().max(MOST_LETTERS) }),
  by: ["person"],
  allow: ({ role }) => requireAdministrator({ role }),
  run: async ({ tx, input }) => {
    await tx.update(organisation).set({ helpNote: input.note });
  },
  journal: ({ input }) => ({ details: { note: input.note } }),
  says: ({ details }) =>
    details.note === "" ? "removed the note in Help" : `changed the note in Help: “${details.note}”`,
  tell: () => ["everyone"],
});
