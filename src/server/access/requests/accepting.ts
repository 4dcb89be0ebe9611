/**
 * Accepting: where the house rules ask for it, whoever is given something in a vault accepts it, with the vault's
 * house note, before it works. A note that has changed is confirmed again. Stewards look after it and are not asked.
 */
import { and, eq } from "drizzle-orm";
import { z } from "zod";
import type { Reach } from "../../../core/access/index";
import { type Context, command, idSchema } from "../../command";
import type { Reader } from "../../database/client";
import { acceptances, entries, vaults } from "../../database/schema";
import { loadRules } from "../../organisation";
import { notFound, Refused } from "../../refused";
import { requireLevel } from "../load";
import { accepting as t } from "../strings";
import { requireYes } from "./approvals";

type Asking = Pick<Context<unknown, Reader>, "tx" | "me" | "at">;

/** The house note that somebody has to confirm, empty where there is none; null where nothing has to be accepted. */
export async function toAccept(tx: Reader, personId: string, vaultId: string, level: Reach): Promise<string | null> {
  if (level === "steward" || !(await loadRules(tx)).accept) return null;
  const [vault] = await tx.select({ note: vaults.houseNote }).from(vaults).where(eq(vaults.nodeId, vaultId));
  const [accepted] = await tx
    .select({ note: acceptances.note })
    .from(acceptances)
    .where(and(eq(acceptances.personId, personId), eq(acceptances.vaultId, vaultId)));
  const note = vault?.note ?? "";
  return accepted?.note === note ? null : note;
}

/**
 * What has to be so, besides the level, before an act shows or sends a secret of an entry.
 * @throws Refused accept-first or ask-first
 */
export async function requireSecretGates(
  context: Asking,
  entry: Pick<typeof entries.$inferSelect, "nodeId" | "name" | "asksFirst">,
  vaultId: string,
  level: Reach,
): Promise<void> {
  if ((await toAccept(context.tx, context.me.id, vaultId, level)) !== null)
    throw new Refused("accept-first", t.acceptYourAccessToFirstOnIts(entry.name), undefined, { entryId: entry.nodeId });
  await requireYes(context, entry);
}

/** Accepts what one is given in the vault of an entry, and confirms the house note that stands there now. */
export const acceptAccess = command({
  name: "access.acceptAccess",
  input: z.strictObject({
    entryId: idSchema,
    /** As it was read. */
    note: z.string().max(2000),
  }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, me } = context;
    const { level, vaultId } = await requireLevel(context, input.entryId, "use");
    const [entry] = await tx.select({ name: entries.name }).from(entries).where(eq(entries.nodeId, input.entryId));
    if (!entry) throw notFound();
    const note = await toAccept(tx, me.id, vaultId, level);
    if (note === null) throw new Refused("conflict", t.thereIsNothingLeftToAcceptHere);
    if (note !== input.note) throw new Refused("conflict", t.theHouseNoteHasChangedReadIt);
    return { vaultId, note, name: entry.name };
  },
  run: async ({ tx, me, at, allowed }) => {
    const { vaultId, note } = allowed;
    await tx
      .insert(acceptances)
      .values({ personId: me.id, vaultId, note, at })
      .onConflictDoUpdate({ target: [acceptances.personId, acceptances.vaultId], set: { note, at } });
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { note: allowed.note !== "" },
    names: { [input.entryId]: allowed.name },
  }),
  says: ({ details, place }) =>
    `accepted their access${place("to")}${details.note ? " and confirmed the house note" : ""}`,
  tell: () => [],
});

/** The house note of a vault. Who has confirmed an earlier one confirms this one again. */
export const setHouseNote = command({
  name: "vaults.setHouseNote",
  input: z.strictObject({
    vaultId: idSchema,
    note: z.string().trim().max(2000, t.aHouseNoteHasAtMost2),
  }),
  by: ["person"],
  allow: async (context) => {
    await requireLevel(context, context.input.vaultId, "steward");
    const [vault] = await context.tx.select().from(vaults).where(eq(vaults.nodeId, context.input.vaultId));
    if (!vault) throw notFound();
    return vault;
  },
  run: async ({ tx, input }) => {
    await tx.update(vaults).set({ houseNote: input.note }).where(eq(vaults.nodeId, input.vaultId));
  },
  journal: ({ input, allowed }) => ({
    node: input.vaultId,
    vault: input.vaultId,
    details: { empty: input.note === "" },
    names: { [input.vaultId]: allowed.name },
  }),
  says: ({ details, it }) => (details.empty ? `deleted the house note of ${it}` : `wrote a house note for ${it}`),
  tell: ({ input }) => [`vault:${input.vaultId}`],
});
