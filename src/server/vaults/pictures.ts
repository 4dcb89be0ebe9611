/** Pictures of entries and vaults, and who sees which; those of kinds are set where kinds are made. */
import { eq, sql } from "drizzle-orm";
import { z } from "zod";
import { reachOf, requireLevel } from "../access/load";
import { personIdOf } from "../caller";
import { type Context, command, idSchema, query } from "../command";
import type { Reader } from "../database/client";
import { entries, kinds, pictures, vaults } from "../database/schema";
import { notFound } from "../refused";
import { drawn, keepPicture, pictureInput } from "./drawing";
import { requireEntry } from "./entries";

export const setPicture = command({
  name: "vaults.setPicture",
  input: z.strictObject({ entryId: idSchema, picture: pictureInput }),
  by: ["person"],
  mayPrepare: (context) => requireEntry(context, context.input.entryId, "edit"),
  prepare: drawn,
  allow: (context) => requireEntry(context, context.input.entryId, "edit"),
  run: async ({ tx, input, caller, at, allowed, prepared }) => {
    const pictureId = await keepPicture(tx, allowed.entry.pictureId, prepared, personIdOf(caller), at);
    await tx.update(entries).set({ pictureId }).where(eq(entries.nodeId, input.entryId));
    return { pictureId };
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { changed: "picture" },
    names: { [input.entryId]: allowed.entry.name },
  }),
  says: ({ place }) => `changed the picture${place("of")}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

export const setVaultPicture = command({
  name: "vaults.setVaultPicture",
  input: z.strictObject({ vaultId: idSchema, picture: pictureInput }),
  by: ["person"],
  mayPrepare: (context) => requireLevel(context, context.input.vaultId, "steward"),
  prepare: drawn,
  allow: async (context) => {
    const { tx, input } = context;
    await requireLevel(context, input.vaultId, "steward");
    const [vault] = await tx.select().from(vaults).where(eq(vaults.nodeId, input.vaultId));
    if (!vault) throw notFound();
    return vault;
  },
  run: async ({ tx, input, caller, at, allowed, prepared }) => {
    const pictureId = await keepPicture(tx, allowed.pictureId, prepared, personIdOf(caller), at);
    await tx.update(vaults).set({ pictureId }).where(eq(vaults.nodeId, input.vaultId));
  },
  journal: ({ input, allowed }) => ({
    node: input.vaultId,
    vault: input.vaultId,
    details: { changed: "picture" },
    names: { [input.vaultId]: allowed.name },
  }),
  says: ({ place }) => `changed the picture${place("of")}`,
  tell: ({ input }) => [`vault:${input.vaultId}`],
});

/**
 * Of an entry for whoever has Use on it, of a vault for whoever is told its name, of a kind for everybody: what the
 * organisation's kinds are called is no secret. Answered as bytes by a route of its own.
 */
export const pictureOf = query({
  name: "vaults.pictureOf",
  input: z.strictObject({ id: idSchema }),
  by: ["person"],
  internal: true,
  allow: async (context) => {
    const { tx, input } = context;
    const [kind] = await tx.select({ id: kinds.id }).from(kinds).where(eq(kinds.id, input.id));
    if (kind) return;
    const [vault] = await tx.select({ id: vaults.nodeId }).from(vaults).where(eq(vaults.nodeId, input.id));
    if (vault) await requireVaultName(context, vault.id);
    else await requireLevel(context, input.id, "use");
  },
  run: async ({ tx, input: { id } }) => {
    const [row] = await tx
      .select({ png: pictures.png })
      .from(pictures)
      .where(
        sql`${pictures.id} = coalesce(
          (select ${entries.pictureId} from ${entries} where ${entries.nodeId} = ${id}),
          (select ${vaults.pictureId} from ${vaults} where ${vaults.nodeId} = ${id}),
          (select ${kinds.pictureId} from ${kinds} where ${kinds.id} = ${id}))`,
      );
    if (!row) throw notFound();
    return row.png;
  },
});

/** Staff who reach something in it; guests who reach all of it. */
async function requireVaultName({ tx, me, at }: Context<unknown, Reader>, vaultId: string) {
  const { levels, node } = reachOf(tx, me, at);
  if (levels.has(vaultId)) return;
  if (me.guest || ![...levels.keys()].some((id) => node(id)!.vaultId === vaultId)) throw notFound();
}
