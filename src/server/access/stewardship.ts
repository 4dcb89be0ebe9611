/** An owner takes stewardship of any shared node, with a written reason; it is journaled and every steward is told. */
import { and, eq, isNull } from "drizzle-orm";
import { z } from "zod";
import { Lookup } from "../../core/access";
import { byName } from "../byName";
import { command, idSchema, none, query } from "../command";
import { grants, persons, vaults } from "../database/schema";
import { uuidv7 } from "../ids";
import { tellStewards } from "../people/telling";
import { notFound, Refused } from "../refused";
import { requireConfirmed } from "../rules/confirming";
import { loadPath, resolveAt } from "./load";
import { nodeName } from "./nodeName";
import { loadOrganised } from "./organised";
import { distinctBelow } from "./stewards";
import { stewardship as t } from "./strings";

export const takeStewardship = command({
  name: "access.takeStewardship",
  input: z.strictObject({
    nodeId: idSchema,
    why: z.string().trim().min(1, t.giveAReasonEveryStewardWill).max(500),
  }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, me, role, at } = context;
    if (role !== "owner") throw new Refused("not-allowed", t.onlyAnOwnerCanTakeStewardship);
    const [node] = await loadPath(tx, input.nodeId);
    if (!node) throw notFound();
    const found = await resolveAt(tx, me, input.nodeId, at);
    if (found?.resolution.level === "steward") throw new Refused("conflict", t.youAreAlreadyItsSteward);
    await requireConfirmed(context, "steward");
    return { vaultId: node.vaultId, node: await nodeName(tx, input.nodeId) };
  },
  run: async ({ tx, input, me, at, commandId, allowed }) => {
    const below = await distinctBelow(tx, input.nodeId);
    const says = (node: string) =>
      t.anOwnerTookStewardshipOf(me.name, node === allowed.node ? node : `the place that ${node} is in`, input.why);
    await tellStewards(tx, below, says, at, me.id);
    // An own lower say on the node would win over it.
    await tx
      .update(grants)
      .set({ validUntil: at })
      .where(
        and(
          eq(grants.nodeId, input.nodeId),
          eq(grants.subjectKind, "person"),
          eq(grants.subjectId, me.id),
          isNull(grants.validUntil),
        ),
      );
    await tx.insert(grants).values({
      ...{ id: uuidv7(), nodeId: input.nodeId, subjectKind: "person", subjectId: me.id, level: "steward" },
      ...{ from: null, until: null, why: input.why, givenBy: me.id, validFrom: at, commandId },
    });
  },
  journal: ({ input, allowed }) => ({
    node: input.nodeId,
    vault: allowed.vaultId,
    details: { why: input.why },
    names: { [input.nodeId]: allowed.node },
  }),
  says: ({ place, why }) => `took stewardship${place("of")}${why}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`, "everyone"],
});

/** Vaults, and separate places in them, that an owner is not steward of: by their stewards, not by their names. */
export const takeableNodes = query({
  name: "access.takeableNodes",
  input: none,
  by: ["person"],
  offMainThread: true,
  allow: ({ role }) => {
    if (role !== "owner") throw new Refused("not-allowed", t.onlyAnOwnerCanTakeStewardship);
  },
  run: async ({ tx, me, at }) => {
    const rows = await tx.select({ id: vaults.nodeId, name: vaults.name }).from(vaults);
    const names = new Map((await tx.select().from(persons)).map(({ id, name }) => [id, name]));
    const found: { nodeId: string; name: string; what: string; stewards: string[] }[] = [];
    for (const vault of rows.sort(byName)) {
      const organised = await loadOrganised(tx, [vault.id]);
      const lookup = new Lookup(organised);
      const own = lookup.person.get(me.id)!;
      for (const node of organised.nodes) {
        if (node.id !== vault.id && !node.separate) continue;
        if (lookup.level(own, node.id, at) === "steward") continue;
        const stewards = organised.people
          .filter((person) => lookup.level(person, node.id, at) === "steward")
          .map((person) => names.get(person.id) ?? "")
          .sort();
        const what = node.id === vault.id ? "the whole vault" : `a separate ${node.type}`;
        found.push({ nodeId: node.id, name: vault.name, what, stewards });
      }
    }
    return found;
  },
});
