/** Marking a folder separate: grants above it are not looked at any more. Who marks it keeps Stewardship of it. */
import { and, eq, isNull } from "drizzle-orm";
import { z } from "zod";
import { type Grant, resolve, type Step } from "../../core/access";
import { refuseWithoutSteward } from "../access/grants";
import { type Asking, requireLevel } from "../access/load";
import { nodeName } from "../access/nodeName";
import { personIdOf } from "../caller";
import { command, idSchema, query } from "../command";
import { folders, grants, separations } from "../database/schema";
import { uuidv7 } from "../ids";
import { notFound, Refused } from "../refused";
import { isBinned } from "./folders";
import { accessEffects } from "./moving";
import { separating as t } from "./strings";

const marking = z.strictObject({ folderId: idSchema, separate: z.boolean() });

async function requireMarking(context: Asking & { input: z.output<typeof marking> }) {
  const { tx, input, me, at } = context;
  const held = await requireLevel(context, input.folderId, "steward");
  const [folder] = await tx.select().from(folders).where(eq(folders.nodeId, input.folderId));
  if (!folder) throw notFound();
  if (await isBinned(tx, input.folderId)) throw new Refused("conflict", t.thisFolderIsInTheBinRestore);
  if (held.path[0].separate === input.separate)
    throw new Refused("conflict", input.separate ? t.itIsAlreadySeparate : t.itIsNotSeparate);
  // Stewardship from above would be cut off with the rest.
  const own: Grant = {
    id: "own",
    node: input.folderId,
    subject: { kind: "person", id: me.id },
    level: "steward",
    from: null,
    until: null,
  };
  const here = held.steps[0]!;
  const alone = resolve(me, [{ ...here, separate: true }], at).level;
  const needsGrant = input.separate && alone !== "steward";
  const after = (steps: readonly Step[]): Step[] =>
    steps.map((step) =>
      step.node === input.folderId
        ? { ...step, separate: input.separate, grants: needsGrant ? [...step.grants, own] : step.grants }
        : step,
    );
  const effects = await accessEffects(tx, [input.folderId], (_moved, _id, before) => after(before), at);
  return { ...held, effects, needsGrant };
}

export const separatePreview = query({
  name: "vaults.separatePreview",
  input: marking,
  by: ["person"],
  allow: requireMarking,
  run: async ({ allowed }) => ({ effects: allowed.effects, needsGrant: allowed.needsGrant }),
});

export const markSeparate = command({
  name: "vaults.markSeparate",
  input: marking,
  by: ["person"],
  allow: requireMarking,
  run: async (context) => {
    const { tx, input, at, caller, commandId, allowed } = context;
    const personId = personIdOf(caller);
    await refuseWithoutSteward(context, input.folderId, async () => {
      if (input.separate)
        await tx.insert(separations).values({ id: uuidv7(), nodeId: input.folderId, validFrom: at, commandId });
      else
        await tx
          .update(separations)
          .set({ validUntil: at })
          .where(and(eq(separations.nodeId, input.folderId), isNull(separations.validUntil)));
      if (allowed.needsGrant) {
        // A lower say of one's own on the folder would win over the vault's: it gives way.
        await tx
          .update(grants)
          .set({ validUntil: at })
          .where(
            and(
              eq(grants.nodeId, input.folderId),
              eq(grants.subjectKind, "person"),
              eq(grants.subjectId, personId),
              isNull(grants.validUntil),
            ),
          );
        await tx.insert(grants).values({
          id: uuidv7(),
          nodeId: input.folderId,
          subjectKind: "person",
          subjectId: personId,
          level: "steward",
          from: null,
          until: null,
          why: "marked it separate",
          givenBy: personId,
          validFrom: at,
          commandId,
        });
      }
    });
    return { name: await nodeName(tx, input.folderId) };
  },
  journal: ({ input, result, allowed }) => ({
    node: input.folderId,
    vault: allowed.vaultId,
    details: { separate: input.separate, changes: allowed.effects.length },
    names: { [input.folderId]: result.name },
  }),
  says: ({ details, it }) => (details.separate ? `made ${it} separate` : `let ${it} inherit access again`),
  tell: ({ allowed }) => [
    `vault:${allowed.vaultId}`,
    ...allowed.effects.map((one) => `person:${one.personId}` as const),
  ],
});
