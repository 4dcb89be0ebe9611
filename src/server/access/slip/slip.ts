/**
 * Change slips: access changes that are drafted, looked at and then applied whole or not at all. One open draft a
 * person, the same on every device; if the ground moved meanwhile it is shown anew instead of applied.
 */

import { and, desc, eq, gt, sql } from "drizzle-orm";
import { z } from "zod";
import { atLeast, type Change, placeOf } from "../../../core/access/index";
import { counted } from "../../../core/counted";
import type { Caller } from "../../caller";
import { type Context, command, idSchema, none, query } from "../../command";
import type { Reader } from "../../database/client";
import { outbox, type SlipChange, slips } from "../../database/schema";
import { uuidv7 } from "../../ids";
import { timeZone } from "../../organisation";
import { addNotice, settleNotices } from "../../people/telling";
import { notFound, Refused } from "../../refused";
import { requireConfirmed } from "../../rules/confirming";
import { resolveAt } from "../load";
import { peopleNames } from "../peopleNames";
import { loadPerson, type Person } from "../person";
import { stewardsAt } from "../stewards";
import { slip as t } from "../strings";
import { cellRows, changesSchema, completed, requireDraft, standing, textsOf, vaultsOf } from "./slipChanges";
import { brokenRules, needsSecondYes } from "./slipRules";
import { backOf, stepsOf } from "./slipSteps";
import { computeEffects, type SlipSaid } from "./slipTelling";

const DAY_MS = 86_400_000;
type Slip = typeof slips.$inferSelect;

export const draftOf = async (tx: Reader, personId: string): Promise<Slip | undefined> =>
  (
    await tx
      .select()
      .from(slips)
      .where(and(eq(slips.personId, personId), eq(slips.state, "draft")))
  )[0];

/** Keeps the draft as it is now, whole. Changes of the same place are one; none leaves no draft. */
export const draftSlip = command({
  name: "access.draftSlip",
  input: z.strictObject({
    changes: changesSchema,
    /** Of the draft that these changes were made to; 0 where there was none. */
    revision: z.number().int().min(0),
    /** What stands at each place now has been read: it is what the slip is compared with from here on. */
    anew: z.boolean().default(false),
  }),
  by: ["person"],
  allow: async (context) => {
    for (const change of context.input.changes) await requireDraft(context, change);
    const draft = await draftOf(context.tx, context.me.id);
    if ((draft?.revision ?? 0) !== context.input.revision) throw new Refused("conflict", t.thisSlipWasChangedOnAnother);
    return { draft };
  },
  run: async (context) => {
    const { tx, input, at, me, allowed } = context;
    const { draft } = allowed;
    const zone = await timeZone(tx);
    const known = new Map((draft?.changes ?? []).map((one) => [placeOf(one.change), one]));
    const changes: SlipChange[] = [];
    for (const one of input.changes) {
      const change = await completed(context, one, zone);
      const before = input.anew ? undefined : known.get(placeOf(change))?.was;
      const was = before ?? (await standing(tx, change));
      changes.push({ change, was });
    }
    const last = new Map(changes.map((one) => [placeOf(one.change), one]));
    const kept = [...last.values()];
    const revision = input.revision + 1;
    if (kept.length === 0) {
      if (draft) {
        await tx.delete(slips).where(eq(slips.id, draft.id));
        await settleNotices(tx, draft.id, at);
      }
      return { slipId: null, revision: 0 };
    }
    if (draft) await tx.update(slips).set({ changes: kept, revision, changedAt: at }).where(eq(slips.id, draft.id));
    else
      await tx.insert(slips).values({
        id: uuidv7(),
        personId: me.id,
        state: "draft",
        changes: kept,
        revision,
        createdAt: at,
        changedAt: at,
      });
    return { slipId: (await draftOf(tx, me.id))!.id, revision };
  },
  journal: null,
  tell: () => [],
});

/** What changes would do, told as a slip tells it, before they are made or put on one. */
export const previewChanges = query({
  name: "access.previewChanges",
  input: z.strictObject({ changes: changesSchema.min(1, t.thereIsNothingOnTheSlip) }),
  by: ["person"],
  offMainThread: true,
  allow: async (context) => {
    for (const change of context.input.changes) await requireDraft(context, change);
  },
  run: async (context): Promise<SlipSaid> => {
    const { tx, input, me, at } = context;
    const zone = await timeZone(tx);
    const changes: Change[] = [];
    for (const one of input.changes) changes.push(await completed(context, one, zone));
    return (await computeEffects(tx, changes, await vaultsOf(tx, changes), me.id, at)).said;
  },
});

export interface SlipView {
  id: string;
  revision: number;
  changes: { change: Change; text: string; moved: boolean; movedBy: string[] }[];
  said: SlipSaid;
  /** The house rules want a second steward's yes. */
  second: boolean;
  /** The house rules want to know what for. */
  reason: boolean;
  /** What they do not allow: it cannot be applied. */
  refused: string[];
}

/** The caller's open slip with what it would do, and those they applied within a day. */
export const ownSlip = query({
  name: "access.ownSlip",
  input: none,
  by: ["person"],
  offMainThread: true,
  allow: () => undefined,
  run: async ({ tx, me, at }) => {
    const draft = await draftOf(tx, me.id);
    const applied = await tx
      .select({ id: slips.id, at: slips.appliedAt, changes: slips.changes })
      .from(slips)
      .where(and(eq(slips.personId, me.id), eq(slips.state, "applied"), gt(slips.appliedAt, at - DAY_MS)))
      .orderBy(desc(slips.appliedAt))
      .limit(10);
    return {
      /** When it was read: of two, the later one counts. */
      at,
      draft: draft ? await viewOf(tx, draft, me, at) : null,
      /** Waits for other stewards. */
      waiting: (
        await tx
          .select({ id: slips.id, at: slips.changedAt, changes: slips.changes })
          .from(slips)
          .where(and(eq(slips.personId, me.id), eq(slips.state, "waiting")))
      ).map((one) => ({ id: one.id, at: one.at, changes: one.changes.length })),
      applied: applied.map((one) => ({ id: one.id, at: one.at!, changes: one.changes.length })),
    };
  },
});

async function viewOf(tx: Reader, draft: Slip, drafter: Person, at: number): Promise<SlipView> {
  const personId = drafter.id;
  const changes = draft.changes.map(({ change }) => change);
  const texts = await Promise.all(
    (await textsOf(tx, changes, at)).map(async (text, i) => {
      const change = changes[i]!;
      if (change.type === "member") return text;
      // Whoever is no steward there any more learns no name of today.
      const found = await resolveAt(tx, personId, change.nodeId, at);
      const known = atLeast(found?.resolution.level ?? "none", change.type === "move" ? "edit" : "steward");
      return known ? text : "A change you can no longer make";
    }),
  );
  const broken = (await brokenRules(tx, changes, drafter, "said", at)).map((one) => one.broken);
  const moved = await Promise.all(draft.changes.map(async ({ change, was }) => (await standing(tx, change)) !== was));
  return {
    id: draft.id,
    revision: draft.revision,
    changes: await Promise.all(
      changes.map(async (change, i) => ({
        ...{ change, text: texts[i]!, moved: moved[i]! },
        movedBy: moved[i] ? await giversAt(tx, drafter, change) : [],
      })),
    ),
    said: (await computeEffects(tx, changes, await vaultsOf(tx, changes), personId, at, true)).said,
    second: broken.some((one) => one.second),
    reason: (await brokenRules(tx, changes, drafter, "", at)).some((one) => one.broken.field === "why"),
    refused: [...new Set(broken.filter((one) => !one.second).map((one) => one.message))],
  };
}

/** Who set what is at a place now, besides the drafter; nobody where it is nothing, or no grant. */
async function giversAt(tx: Reader, drafter: Person, change: Change): Promise<string[]> {
  if (change.type !== "set") return [];
  const ids = (await cellRows(tx, change)).map((row) => row.givenBy).filter((id) => id !== drafter.id);
  const named = await peopleNames(tx, drafter, ids);
  return [...new Set(ids.map(named))].filter((name) => name !== "");
}

const MOVED_FOR_OTHERS = t.somethingHasChangedSinceItWas;
const GROUND_MOVED = t.somethingHasChangedAndThisSlip;

/** All of it in one transaction, by the same commands as each alone. */
export const applySlip = command({
  name: "access.applySlip",
  input: z.strictObject({
    slipId: idSchema,
    revision: z.number().int(),
    /** Of what was read. */
    ground: z.string().max(80),
    why: z.string().trim().max(500, t.aReasonHasAtMost500Characters).default(""),
  }),
  by: ["person"],
  prepare: ({ input, caller, app, at }) => workedOut.execute(app, { slipId: input.slipId }, caller, at),
  allow: async (context) => {
    const { tx, input, me, at, prepared } = context;
    const draft = await draftOf(tx, me.id);
    if (!draft || draft.id !== input.slipId) throw notFound();
    const changes = draft.changes.map(({ change }) => change);
    if (draft.revision !== input.revision) throw new Refused("conflict", GROUND_MOVED);
    for (const { change, was } of draft.changes)
      if ((await standing(tx, change)) !== was) throw new Refused("conflict", GROUND_MOVED);
    const still = prepared?.revision === draft.revision && (await countsStill(tx, prepared));
    const { said, others } = still
      ? prepared.worked
      : await computeEffects(tx, changes, await vaultsOf(tx, changes), me.id, at);
    if (said.ground !== input.ground) throw new Refused("conflict", GROUND_MOVED);
    if (said.withoutSteward.length > 0)
      throw new Refused("not-allowed", t.wouldBeLeftWithoutAStewardMake(said.withoutSteward[0]));
    // The one who agrees last applies it; whoever drafts it confirms what they give as well.
    if (changes.some((change) => change.type === "set" && change.grants.some(({ level }) => level === "steward")))
      await requireConfirmed(context, "steward");
    const second = await needsSecondYes(tx, changes, me, input.why, at);
    const asked = await stewardsByNode(tx, [...new Set([...others, ...second])], me.id, at);
    if (second.some((id) => !asked.has(id))) throw new Refused("second-yes", t.theHouseRulesRequireApprovalBy);
    return { draft, changes, asked, people: [...new Set([...asked.values()].flat())] };
  },
  // Who is asked, and how many, is not for the drafter to know: it is not in what is given back.
  run: async (context) => {
    const { tx, input, at, me, allowed } = context;
    const { draft, changes, asked, people } = allowed;
    if (asked.size > 0) {
      const waits = [...asked.keys()];
      await tx
        .update(slips)
        .set({ state: "waiting", why: input.why, waits, ground: input.ground, changedAt: at })
        .where(eq(slips.id, draft.id));
      for (const id of people)
        await addNotice(tx, {
          to: id,
          at,
          sort: "requests",
          text: t.draftedChangesThatAffectYouAsA(me.name),
          about: draft.id,
        });
      return { changes: changes.length, waiting: true };
    }
    await carryOut(context, draft, changes, input.why);
    return { changes: changes.length, waiting: false };
  },
  journal: ({ input, result }) => ({
    details: {
      changes: result.changes,
      ...(result.waiting ? { waiting: true } : {}),
      ...(input.why ? { why: input.why } : {}),
    },
  }),
  says: ({ details, why }) =>
    details.waiting
      ? `sent a change slip with ${counted(Number(details.changes), "change")} for approval${why}`
      : `applied a change slip with ${counted(Number(details.changes), "change")}${why}`,
  tell: ({ allowed }) => allowed.people.map((id) => `person:${id}` as const),
});

/** What a draft would do, worked out before the transaction that applies it, in which others would have to wait. */
export const workedOut = query({
  name: "access.workedOut",
  input: z.strictObject({ slipId: idSchema }),
  by: ["person"],
  internal: true,
  offMainThread: true,
  allow: () => undefined,
  run: async ({ tx, input, me, at }) => {
    const draft = await draftOf(tx, me.id);
    if (!draft || draft.id !== input.slipId) return null;
    const [last] = await tx.select({ seq: sql<number>`coalesce(max(${outbox.seq}), 0)` }).from(outbox);
    const changes = draft.changes.map(({ change }) => change);
    const vaultIds = await vaultsOf(tx, changes);
    const worked = await computeEffects(tx, changes, vaultIds, me.id, at);
    return { revision: draft.revision, seen: last!.seq, vaultIds, worked };
  },
});

type WorkedOutBefore = Awaited<ReturnType<(typeof workedOut)["execute"]>>;

/** It counts in the transaction if nothing was told since of its vaults, of groups or of people: all of access is. */
async function countsStill(tx: Reader, before: NonNullable<WorkedOutBefore>): Promise<boolean> {
  const told = await tx.select({ topics: outbox.topics }).from(outbox).where(gt(outbox.seq, before.seen));
  const concerns = (topic: string) =>
    topic === "administrators" || topic.startsWith("group:") || before.vaultIds.some((id) => topic === `vault:${id}`);
  return !told.some(({ topics }) => topics.some(concerns));
}

/** Each change by its own command, in the name of whoever drafted it. */
async function carryOut(context: Context<unknown>, slip: Slip, changes: readonly Change[], why: string): Promise<void> {
  const { tx, at } = context;
  const back = (await Promise.all(changes.map((change) => backOf(tx, change)))).flat();
  for (const step of await stepsOf(tx, changes, why)) await step.run(context);
  // What stands there now: undone later, it shows whether somebody else has set something since.
  const applied = await Promise.all(slip.changes.map(async (one) => ({ ...one, was: await standing(tx, one.change) })));
  await tx
    .update(slips)
    .set({ state: "applied", appliedAt: at, changedAt: at, why, changes: applied, back, waits: [] })
    .where(eq(slips.id, slip.id));
  await settleNotices(tx, slip.id, at);
}

/** Who can say yes, by node, besides the drafter; nodes that have no other steward have nobody to ask. */
async function stewardsByNode(
  tx: Reader,
  nodeIds: readonly string[],
  except: string,
  at: number,
): Promise<Map<string, string[]>> {
  const found = new Map<string, string[]>();
  for (const nodeId of nodeIds) {
    const ids = (await stewardsAt(tx, nodeId, at)).filter((one) => one.id !== except).map(({ id }) => id);
    if (ids.length > 0) found.set(nodeId, ids);
  }
  return found;
}

/** Slips of others that wait for the caller's yes, told as far as the caller is steward. */
export const waitingSlips = query({
  name: "access.waitingSlips",
  input: none,
  by: ["person"],
  offMainThread: true,
  allow: () => undefined,
  run: async ({ tx, me, at }) => {
    const waiting = await tx.select().from(slips).where(eq(slips.state, "waiting"));
    const found: { id: string; by: string; why: string; at: number; said: SlipSaid }[] = [];
    for (const slip of waiting) {
      if (slip.personId === me.id || (await ownWaits(tx, slip, me, at)).length === 0) continue;
      const changes = slip.changes.map(({ change }) => change);
      const { said } = await computeEffects(tx, changes, await vaultsOf(tx, changes), me.id, at);
      const by = (await loadPerson(tx, slip.personId, at))?.name ?? "";
      found.push({ id: slip.id, by, why: slip.why, at: slip.changedAt, said });
    }
    return found;
  },
});

/** Of the nodes that a slip waits for, those the person is steward of. */
async function ownWaits(tx: Reader, slip: Slip, person: Person, at: number): Promise<string[]> {
  const asked = await stewardsByNode(tx, slip.waits, slip.personId, at);
  return slip.waits.filter((id) => asked.get(id)?.includes(person.id));
}

/** A yes or no to a slip of somebody else. With the last yes it is applied, in its drafter's name. */
export const answerSlip = command({
  name: "access.answerSlip",
  input: z.strictObject({
    slipId: idSchema,
    yes: z.boolean(),
    ground: z.string().max(80),
    word: z.string().trim().max(500).default(""),
  }),
  by: ["person"],
  allow: async ({ tx, input, me, at }) => {
    const [slip] = await tx.select().from(slips).where(eq(slips.id, input.slipId));
    if (slip?.state !== "waiting" || slip.personId === me.id) throw notFound();
    const mine = await ownWaits(tx, slip, me, at);
    if (mine.length === 0) throw notFound();
    if (!input.yes && input.word === "") throw new Refused("bad-input", t.giveAReasonItIsAllThey, "word");
    const changes = slip.changes.map(({ change }) => change);
    const drafter = await loadPerson(tx, slip.personId, at);
    if (input.yes) {
      for (const { change, was } of slip.changes)
        if ((await standing(tx, change)) !== was) throw new Refused("conflict", MOVED_FOR_OTHERS);
      const { said } = await computeEffects(tx, changes, await vaultsOf(tx, changes), me.id, at);
      if (said.ground !== slip.ground) throw new Refused("conflict", MOVED_FOR_OTHERS);
      if (said.ground !== input.ground) throw new Refused("conflict", GROUND_MOVED);
      if (drafter?.standing !== "active") throw new Refused("conflict", t.thePersonWhoDraftedItNoLonger);
    }
    return { slip, mine, changes, drafter: drafter! };
  },
  run: async (context) => {
    const { tx, input, at, me, caller, allowed } = context;
    const { slip, mine, changes, drafter } = allowed;
    if (!input.yes) {
      await tx.update(slips).set({ state: "dropped", changedAt: at }).where(eq(slips.id, slip.id));
      await settleNotices(tx, slip.id, at);
      await addNotice(tx, {
        to: slip.personId,
        at,
        sort: "answers",
        text: t.declinedYourChangeSlip(me.name, input.word),
      });
      return { applied: false };
    }
    const waits = slip.waits.filter((id) => !mine.includes(id));
    if (waits.length > 0) {
      await tx.update(slips).set({ waits }).where(eq(slips.id, slip.id));
      await settleNotices(tx, slip.id, at, me.id);
      return { applied: false };
    }
    const theirs: Context<unknown> = {
      ...context,
      me: drafter,
      agreed: true,
      role: drafter.role,
      caller: { ...(caller as Extract<Caller, { kind: "person" }>), personId: drafter.id, sessionId: null },
    };
    await carryOut(theirs, slip, changes, slip.why);
    await addNotice(tx, { to: slip.personId, at, sort: "answers", text: t.approvedYourChangeSlipItHas(me.name) });
    return { applied: true };
  },
  journal: ({ input, result, allowed }) => ({
    subject: allowed.slip.personId,
    details: { yes: input.yes, applied: result.applied, ...(input.word ? { why: input.word } : {}) },
    names: { [allowed.slip.personId]: allowed.drafter?.name ?? "" },
  }),
  says: ({ details, subject, why }) =>
    details.yes
      ? `approved ${subject}’s change slip${details.applied ? ", which has been applied" : ""}`
      : `declined ${subject}’s change slip${why}`,
  tell: ({ allowed }) => [`person:${allowed.slip.personId}`],
});

/** Drafts what takes an applied slip back: for a day, by whoever applied it. It is looked at and applied like any. */
export const undoSlip = command({
  name: "access.undoSlip",
  input: z.strictObject({ slipId: idSchema }),
  by: ["person"],
  allow: async ({ tx, input, me, at }) => {
    const [slip] = await tx.select().from(slips).where(eq(slips.id, input.slipId));
    if (!slip || slip.personId !== me.id || slip.state !== "applied") throw notFound();
    if (at - slip.appliedAt! > DAY_MS) throw new Refused("conflict", t.itCanNoLongerBeUndoneThat);
    return { slip, draft: await draftOf(tx, me.id) };
  },
  run: async ({ tx, at, me, allowed }) => {
    const { slip, draft } = allowed;
    const back: SlipChange[] = [];
    const left = new Map(slip.changes.map((one) => [placeOf(one.change), one.was]));
    for (const change of (slip.back ?? []).map((one) => stillAhead(one, at)))
      back.push({ change, was: left.get(placeOf(change)) ?? (await standing(tx, change)) });
    const places = new Set(back.map((one) => placeOf(one.change)));
    const changes = [...(draft?.changes ?? []).filter((one) => !places.has(placeOf(one.change))), ...back];
    const revision = (draft?.revision ?? 0) + 1;
    if (draft) await tx.update(slips).set({ changes, revision, changedAt: at }).where(eq(slips.id, draft.id));
    else
      await tx
        .insert(slips)
        .values({ id: uuidv7(), personId: me.id, state: "draft", changes, revision, createdAt: at, changedAt: at });
  },
  journal: null,
  tell: () => [],
});

/** A grant whose end has come meanwhile is not given again. */
const stillAhead = (change: Change, at: number): Change =>
  change.type === "set"
    ? { ...change, grants: change.grants.filter(({ until }) => until === null || until > at) }
    : change;

/** One that waits for others becomes the draft again; added to it where there is one. */
export const withdrawSlip = command({
  name: "access.withdrawSlip",
  input: z.strictObject({ slipId: idSchema }),
  by: ["person"],
  allow: async ({ tx, input, me }) => {
    const [slip] = await tx.select().from(slips).where(eq(slips.id, input.slipId));
    if (!slip || slip.personId !== me.id) throw notFound();
    if (slip.state !== "waiting") throw new Refused("conflict", t.itIsNoLongerWaitingForApproval);
    return { slip, draft: await draftOf(tx, me.id) };
  },
  run: async ({ tx, at, allowed }) => {
    const { slip, draft } = allowed;
    await settleNotices(tx, slip.id, at);
    if (!draft) {
      await tx
        .update(slips)
        .set({ state: "draft", revision: slip.revision + 1, waits: [], changedAt: at })
        .where(eq(slips.id, slip.id));
      return;
    }
    const places = new Set(draft.changes.map((one) => placeOf(one.change)));
    const changes = [...slip.changes.filter((one) => !places.has(placeOf(one.change))), ...draft.changes];
    await tx.update(slips).set({ state: "dropped", changedAt: at }).where(eq(slips.id, slip.id));
    await tx
      .update(slips)
      .set({ changes, revision: draft.revision + 1, changedAt: at })
      .where(eq(slips.id, draft.id));
  },
  journal: null,
  tell: () => [],
});

export const discardSlip = command({
  name: "access.discardSlip",
  input: z.strictObject({ slipId: idSchema }),
  by: ["person"],
  allow: async ({ tx, input, me }) => {
    const draft = await draftOf(tx, me.id);
    if (!draft || draft.id !== input.slipId) throw notFound();
  },
  run: async ({ tx, input, at }) => {
    await tx.update(slips).set({ state: "dropped", changedAt: at }).where(eq(slips.id, input.slipId));
    await settleNotices(tx, input.slipId, at);
  },
  journal: null,
  tell: () => [],
});
