/**
 * Moving within a vault. Grants that are set on what moves travel with it; what it inherits changes. A move that
 * changes nobody's access needs Edit; any other needs Steward of all that moves, and Edit where it goes.
 */
import { and, eq, gt, inArray, isNull } from "drizzle-orm";
import { z } from "zod";
import { atLeast, HORIZON_MS, momentsAhead, type Reach, resolve, type Step, windowsOf } from "../../core/access";
import { refuseWithoutSteward } from "../access/grants";
import { type Asking, loadPath, loadSteps, requireLevel } from "../access/load";
import { nodeName } from "../access/nodeName";
import { type Person, personAt } from "../access/person";
import { requireYes } from "../access/requests/approvals";
import { concernedBy, distinctBelow } from "../access/stewards";
import { command, idSchema, query } from "../command";
import type { Reader } from "../database/client";
import { entries, places } from "../database/schema";
import { uuidv7 } from "../ids";
import { Refused } from "../refused";
import { DEEPEST, heightOf, idsBelow, isBinned, requirePlace } from "./folders";
import { moving as t } from "./strings";

const moving = z.strictObject({ nodeIds: z.array(idSchema).min(1).max(500), parentId: idSchema });

export interface MoveEffect {
  personId: string;
  name: string;
  node: string;
  before: Reach;
  after: Reach;
}

/**
 * Whose level would differ, where: now, or at the next moment at which a window or a membership opens or closes.
 * @param afterOf the way up as it would be, of a node at or below one that moves
 */
export async function accessEffects(
  tx: Reader,
  nodeIds: readonly string[],
  afterOf: (moved: string, id: string, before: readonly Step[]) => readonly Step[],
  at: number,
): Promise<MoveEffect[]> {
  const effects: MoveEffect[] = [];
  for (const moved of nodeIds)
    for (const id of await distinctBelow(tx, moved)) {
      const { steps: before } = await loadSteps(tx, id);
      const after = afterOf(moved, id, before);
      const node = await nodeName(tx, id);
      for (const person of await concernedBy(tx, [before, after], at)) {
        const windows = [
          ...[...before, ...after].flatMap((step) => step.grants),
          ...windowsOf({ ...person, until: person.ends }),
        ];
        const moments = momentsAhead(windows, at, at + HORIZON_MS);
        const differs = moments.find((moment) => levelAt(person, before, moment) !== levelAt(person, after, moment));
        if (differs !== undefined)
          effects.push({
            personId: person.id,
            name: person.name,
            node,
            before: levelAt(person, before, differs),
            after: levelAt(person, after, differs),
          });
      }
    }
  return effects;
}

const levelAt = (person: Person, steps: readonly Step[], at: number): Reach =>
  resolve(personAt(person, at), steps, at).level;

async function requireMove(context: Asking & { input: z.output<typeof moving> }) {
  const { tx, input, at } = context;
  const place = await requirePlace(context, input.parentId, "edit");
  const above = (await loadPath(tx, input.parentId)).map((node) => node.id);
  const moved: { nodeId: string; parentId: string }[] = [];
  for (const nodeId of input.nodeIds) {
    const held = await requireLevel(context, nodeId, "edit");
    const [node] = held.path;
    if (node!.type === "vault") throw new Refused("bad-input", t.aVaultCannotBeMoved, "nodeIds");
    if (held.vaultId !== place.vaultId) throw new Refused("bad-input", t.itStaysInItsVault, "parentId");
    if (above.includes(nodeId)) throw new Refused("bad-input", t.aFolderCannotGoIntoItself, "parentId");
    if (node!.parentId === input.parentId) throw new Refused("conflict", t.itIsAlreadyThere, "parentId");
    if (await isBinned(tx, nodeId)) throw new Refused("conflict", t.whatIsInTheBinCannotBe);
    moved.push({ nodeId, parentId: node!.parentId! });
    if (node!.type === "folder" && place.depth + (await heightOf(tx, nodeId)) > DEEPEST)
      throw new Refused("bad-input", t.foldersNestAtMostDeep(DEEPEST), "parentId");
  }
  const { steps } = await loadSteps(tx, input.parentId);
  const effects = await accessEffects(
    tx,
    input.nodeIds,
    (moved, _id, before) => [...before.slice(0, before.findIndex((step) => step.node === moved) + 1), ...steps],
    at,
  );
  const steward = await isStewardOfAll(context, input.nodeIds);
  return { vaultId: place.vaultId, effects, steward, moved };
}

async function isStewardOfAll(context: Asking, nodeIds: string[]): Promise<boolean> {
  const { tx, me, at } = context;
  for (const nodeId of nodeIds)
    for (const id of await distinctBelow(tx, nodeId)) {
      const { steps } = await loadSteps(tx, id);
      if (!atLeast(resolve(me, steps, at).level, "steward")) return false;
    }
  return true;
}

/** Where stewards differ, others would say the yes that entries ask for. */
async function requireYesOfAll(context: Asking, nodeIds: readonly string[]): Promise<void> {
  for (const nodeId of nodeIds) {
    const ids = await idsBelow(context.tx, nodeId);
    const asking = await context.tx
      .select({ nodeId: entries.nodeId, name: entries.name, asksFirst: entries.asksFirst })
      .from(entries)
      .where(and(inArray(entries.nodeId, ids), gt(entries.asksFirst, 0)));
    for (const entry of asking) await requireYes(context, entry);
  }
}

/** What a move would do to whom. Only stewards of all that moves read names; others, whether they may. */
export const movePreview = query({
  name: "vaults.movePreview",
  input: moving,
  by: ["person"],
  allow: requireMove,
  run: async ({ allowed: { effects, steward } }) => ({
    may: steward || effects.length === 0,
    changes: effects.length > 0,
    effects: steward ? effects : [],
  }),
});

export const moveNodes = command({
  name: "vaults.moveNodes",
  input: moving,
  by: ["person"],
  allow: async (context) => {
    const allowed = await requireMove(context);
    if (allowed.effects.length > 0 && !allowed.steward)
      throw new Refused("not-allowed", t.thisWouldChangeWhoHasAccessTo);
    if (allowed.effects.length > 0) await requireYesOfAll(context, context.input.nodeIds);
    return allowed;
  },
  run: async (context) => {
    const { tx, input, at, commandId, allowed } = context;
    for (const nodeId of input.nodeIds)
      await refuseWithoutSteward(context, nodeId, async () => {
        await tx
          .update(places)
          .set({ validUntil: at })
          .where(and(eq(places.nodeId, nodeId), isNull(places.validUntil)));
        await tx.insert(places).values({
          id: uuidv7(),
          nodeId,
          parentId: input.parentId,
          vaultId: allowed.vaultId,
          validFrom: at,
          commandId,
        });
      });
    const names = new Map<string, string>();
    for (const id of [input.parentId, ...input.nodeIds]) names.set(id, await nodeName(tx, id));
    const before = new Map<string, string[]>();
    for (const { nodeId, parentId } of context.allowed.moved)
      before.set(parentId, [...(before.get(parentId) ?? []), nodeId]);
    return { names, back: [...before].map(([parentId, nodeIds]) => ({ nodeIds, parentId })) };
  },
  journal: ({ input, result, allowed }) =>
    input.nodeIds.map((nodeId) => ({
      node: nodeId,
      vault: allowed.vaultId,
      subject: input.parentId,
      details: { changes: allowed.effects.length },
      names: { [nodeId]: result.names.get(nodeId)!, [input.parentId]: result.names.get(input.parentId)! },
    })),
  says: ({ it }) => `moved ${it}`,
  // Whose access changes is told as members of the vault are: everybody who reaches something there looks again.
  tell: ({ allowed }) => [
    `vault:${allowed.vaultId}`,
    ...allowed.effects.map((one) => `person:${one.personId}` as const),
  ],
});
