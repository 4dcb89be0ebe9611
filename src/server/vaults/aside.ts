/** Set aside: kept, but offered nowhere until it is brought back. */
import { and, eq, inArray, isNull, sql } from "drizzle-orm";
import { z } from "zod";
import { requireLevel } from "../access/load";
import { personIdOf } from "../caller";
import { command, idSchema } from "../command";
import { entries, vaults } from "../database/schema";
import { notFound, Refused } from "../refused";
import { requireEntries, severalIds } from "./entries";
import { aside as t } from "./strings";

export const setAside = command({
  name: "vaults.setAside",
  input: z.strictObject({ entryIds: severalIds, aside: z.boolean() }),
  by: ["person"],
  allow: async (context) => {
    const allowed = await requireEntries(context, context.input.entryIds, "edit");
    const withVault = allowed.found.find(({ entry }) => entry.asideWith !== null);
    if (!context.input.aside && withVault)
      throw new Refused("conflict", t.isSetAsideWithItsVaultBring(withVault.entry.name));
    return allowed;
  },
  run: async ({ tx, input, caller, at }) => {
    await tx
      .update(entries)
      .set(
        input.aside ? { asideAt: at, asideBy: personIdOf(caller) } : { asideAt: null, asideBy: null, asideWith: null },
      )
      .where(inArray(entries.nodeId, input.entryIds));
  },
  journal: ({ input, allowed }) => allowed.lines({ aside: input.aside }),
  says: ({ details, it }) => (details.aside ? `set ${it} aside` : `brought ${it} back from being set aside`),
  tell: ({ allowed }) => allowed.topics,
});

/** A whole vault, and back again; what was set aside in it before stays so. */
export const setVaultAside = command({
  name: "vaults.setVaultAside",
  input: z.strictObject({ vaultId: idSchema, aside: z.boolean() }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input } = context;
    await requireLevel(context, input.vaultId, "steward");
    const [vault] = await tx.select().from(vaults).where(eq(vaults.nodeId, input.vaultId));
    if (!vault) throw notFound();
    if ((vault.asideAt !== null) === input.aside)
      throw new Refused("conflict", input.aside ? t.itIsAlreadySetAside : t.itIsNotSetAside);
    return { vault };
  },
  run: async ({ tx, input: { vaultId, aside }, caller, at }) => {
    const by = personIdOf(caller);
    await tx
      .update(vaults)
      .set({ asideAt: aside ? at : null, asideBy: aside ? by : null })
      .where(eq(vaults.nodeId, vaultId));
    const inVault = sql`${entries.nodeId} in (select node_id from places where vault_id = ${vaultId} and valid_until is null)`;
    if (aside)
      await tx
        .update(entries)
        .set({ asideAt: at, asideBy: by, asideWith: vaultId })
        .where(and(isNull(entries.asideAt), inVault));
    else
      await tx
        .update(entries)
        .set({ asideAt: null, asideBy: null, asideWith: null })
        .where(eq(entries.asideWith, vaultId));
  },
  journal: ({ input, allowed }) => ({
    node: input.vaultId,
    vault: input.vaultId,
    details: { aside: input.aside },
    names: { [input.vaultId]: allowed.vault.name },
  }),
  says: ({ details, it }) => (details.aside ? `set ${it} aside` : `brought ${it} back from being set aside`),
  tell: ({ input }) => [`vault:${input.vaultId}`],
});
