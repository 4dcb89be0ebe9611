/**
 * Entries that ask first: each sign-in and each reveal takes the yes of a steward, of two for the gravest, and holds
 * for some minutes. Nobody says yes to themselves. In an emergency, where the house rules let it, somebody gets past
 * it with a reason that all stewards read at once.
 */
import { and, desc, eq, gt, isNull, or, sql } from "drizzle-orm";
import { z } from "zod";
import { counted } from "../../../core/counted";
import { sayDate } from "../../../core/time";
import { type Context, command, idSchema, none, query, type Topic } from "../../command";
import type { Reader } from "../../database/client";
import { approvals, entries, persons } from "../../database/schema";
import { uuidv7 } from "../../ids";
import { loadRules, timeZone } from "../../organisation";
import { addNotice, settleNotices } from "../../people/telling";
import { notFound, Refused } from "../../refused";
import { loadSteps, requireLevel, resolveAt } from "../load";
import { nodeName } from "../nodeName";
import { loadByRole, loadPerson, type Person } from "../person";
import { stewardsAt } from "../stewards";
import { requestApproval as t } from "../strings";

/** What a yes is asked for that nobody has answered is forgotten after this. */
const UNANSWERED_MS = 12 * 3_600_000;
const MOST_OPEN = 20;

type Yes = typeof approvals.$inferSelect;
type Gated = Pick<typeof entries.$inferSelect, "nodeId" | "name" | "asksFirst">;
type Asking = Pick<Context<unknown, Reader>, "tx" | "me" | "at">;

/**
 * The gate of every act that shows or sends a secret of an entry.
 * @throws Refused ask-first, where the entry asks a steward first and no yes to the caller holds
 */
export async function requireYes({ tx, me, at }: Asking, entry: Gated): Promise<void> {
  if (entry.asksFirst === 0 || (await holdingYes(tx, me.id, entry.nodeId, at))) return;
  throw new Refused(
    "ask-first",
    t.requiresApprovalByRequestItOn(entry.name, entry.asksFirst === 1 ? "a steward" : "two stewards"),
    undefined,
    { entryId: entry.nodeId },
  );
}

async function holdingYes(tx: Reader, personId: string, entryId: string, at: number): Promise<Yes | null> {
  const [row] = await tx
    .select()
    .from(approvals)
    .where(
      and(
        eq(approvals.personId, personId),
        eq(approvals.entryId, entryId),
        gt(approvals.until, at),
        isNull(approvals.closedAt),
      ),
    )
    .orderBy(desc(approvals.until))
    .limit(1);
  return row ?? null;
}

/** Stewards at this moment, besides one person. */
async function otherStewards(tx: Reader, entryId: string, except: string, at: number): Promise<Person[]> {
  return (await stewardsAt(tx, entryId, at)).filter((person) => person.id !== except);
}

async function requireEntryHere(context: Asking, entryId: string, level: "use" | "steward") {
  const held = await requireLevel(context, entryId, level);
  const [entry] = await context.tx.select().from(entries).where(eq(entries.nodeId, entryId));
  if (!entry || entry.binnedAt !== null) throw notFound();
  return { entry, vaultId: held.vaultId };
}

/** How many stewards are asked, and for how long their yes holds. Asking less takes the same yes. */
export const setApproval = command({
  name: "access.setApproval",
  input: z.strictObject({
    entryId: idSchema,
    stewards: z.number().int().min(0).max(2),
    minutes: z
      .number()
      .int()
      .min(1)
      .max(24 * 60),
  }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, me, at } = context;
    const allowed = await requireEntryHere(context, input.entryId, "steward");
    const { entry } = allowed;
    const less = input.stewards < entry.asksFirst || (entry.asksFirst > 0 && input.minutes > entry.yesMinutes);
    if (less) await requireYes(context, entry);
    const others = await otherStewards(tx, input.entryId, me.id, at);
    if (input.stewards > others.length)
      throw new Refused(
        "not-allowed",
        others.length === 0 ? t.youAreItsOnlyStewardSoNobody : t.itHasOnlyOneOtherStewardSo,
        "stewards",
      );
    return { ...allowed, others };
  },
  run: async ({ tx, input, me, at, allowed }) => {
    const { entry, others } = allowed;
    if (entry.asksFirst === input.stewards && entry.yesMinutes === input.minutes)
      throw new Refused("conflict", t.itIsAlreadySetThisWay);
    await tx
      .update(entries)
      .set({ asksFirst: input.stewards, yesMinutes: input.minutes })
      .where(eq(entries.nodeId, input.entryId));
    const says =
      input.stewards === 0
        ? t.stoppedRequiringApprovalFor(me.name, entry.name)
        : t.madeRequireApprovalBy(me.name, entry.name, input.stewards === 1 ? "a steward" : "two stewards");
    for (const other of others)
      await addNotice(tx, { to: other.id, at, sort: "watch", text: says, nodeId: input.entryId });
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { stewards: input.stewards, minutes: input.minutes },
    names: { [input.entryId]: allowed.entry.name },
  }),
  says: ({ details, it }) =>
    details.stewards === 0
      ? `made ${it} no longer require approval`
      : `made ${it} require approval by ${details.stewards === 1 ? "a steward" : "two stewards"}, valid for ${Number(details.minutes) % 60 === 0 ? counted(Number(details.minutes) / 60, "hour") : counted(Number(details.minutes), "minute")}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`, ...allowed.others.map(({ id }): Topic => `person:${id}`)],
});

const reason = z.string().trim().min(3, t.giveAReasonInAFewWords).max(500);

export const requestApproval = command({
  name: "access.requestApproval",
  input: z.strictObject({ entryId: idSchema, why: reason }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, me, at } = context;
    const allowed = await requireEntryHere(context, input.entryId, "use");
    if (allowed.entry.asksFirst === 0) throw new Refused("conflict", t.itNoLongerRequiresApproval);
    const open = await tx
      .select({ entryId: approvals.entryId })
      .from(approvals)
      .where(
        and(
          eq(approvals.personId, me.id),
          isNull(approvals.closedAt),
          isNull(approvals.until),
          gt(approvals.askedAt, at - UNANSWERED_MS),
        ),
      );
    if (open.some((one) => one.entryId === input.entryId)) throw new Refused("conflict", t.youHaveAlreadyRequested);
    if (open.length >= MOST_OPEN) throw new Refused("too-many", t.youHaveTooManyOpenRequestsWait);
    const stewards = await otherStewards(tx, input.entryId, me.id, at);
    return { ...allowed, stewards };
  },
  run: async ({ tx, input, me, caller, at, allowed }) => {
    const { entry, stewards } = allowed;
    const yesId = uuidv7();
    const from = caller.kind === "person" ? caller : { browser: "", address: "" };
    await tx.insert(approvals).values({
      ...{ id: yesId, entryId: entry.nodeId, personId: me.id, why: input.why, askedAt: at },
      ...{ browser: from.browser, address: from.address, needed: entry.asksFirst, minutes: entry.yesMinutes },
    });
    for (const steward of stewards)
      await addNotice(tx, {
        to: steward.id,
        at,
        sort: "requests",
        text: t.requestsToUseNow(me.name, entry.name, input.why),
        nodeId: entry.nodeId,
        about: yesId,
      });
    return { yesId };
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { why: input.why },
    names: { [input.entryId]: allowed.entry.name },
  }),
  says: ({ place, why }) => `requested approval${place("to use")}${why}`,
  tell: ({ allowed }) => allowed.stewards.map(({ id }): Topic => `person:${id}`),
});

const ofYes = { yesId: idSchema };

const isOpen = (row: Yes, at: number): boolean =>
  row.closedAt === null && row.until === null && row.askedAt > at - UNANSWERED_MS;

/** Open, of somebody else, at an entry that the caller is steward of. */
async function requireAnswerable({ tx, me, at }: Asking, yesId: string) {
  const [row] = await tx.select().from(approvals).where(eq(approvals.id, yesId));
  const found = row && (await resolveAt(tx, me, row.entryId, at));
  if (found?.resolution.level !== "steward" || row!.personId === me.id) throw notFound();
  if (!isOpen(row!, at)) throw new Refused("conflict", t.thisRequestHasAlreadyBeen);
  const asker = await loadPerson(tx, row!.personId, at);
  if (asker?.standing !== "active") throw new Refused("conflict", t.thePersonWhoSentThisRequestNo);
  return { row: row!, asker, vaultId: found.path[0].vaultId, entry: await nodeName(tx, row!.entryId) };
}

export const answerApproval = command({
  name: "access.answerApproval",
  input: z.discriminatedUnion("yes", [
    z.strictObject({ ...ofYes, yes: z.literal(true) }),
    z.strictObject({
      ...ofYes,
      yes: z.literal(false),
      word: z.string().trim().min(1, t.giveAReasonItIsAllThey).max(500),
    }),
  ]),
  by: ["person"],
  allow: async (context) => {
    const allowed = await requireAnswerable(context, context.input.yesId);
    if (context.input.yes && allowed.row.said.some(({ by }) => by === context.me.id))
      throw new Refused("conflict", t.youHaveAlreadyApprovedIt);
    return allowed;
  },
  run: async ({ tx, input, me, at, allowed }) => {
    const { row, asker, entry } = allowed;
    if (!input.yes) {
      await tx
        .update(approvals)
        .set({ closedAt: at, closedBy: me.id, word: input.word })
        .where(eq(approvals.id, row.id));
      await settleNotices(tx, row.id, at);
      return { until: null };
    }
    const said = [...row.said, { by: me.id, at }];
    // Whoever said yes first may be no steward any more.
    const holds: string[] = [];
    for (const { by } of said)
      if ((await resolveAt(tx, by, row.entryId, at))?.resolution.level === "steward") holds.push(by);
    const until = holds.length >= row.needed ? at + row.minutes * 60_000 : null;
    await tx.update(approvals).set({ said, until }).where(eq(approvals.id, row.id));
    await settleNotices(tx, row.id, at, until === null ? me.id : undefined);
    if (until !== null) {
      const zone = await timeZone(tx);
      await addNotice(tx, {
        to: asker.id,
        at,
        sort: "answers",
        text: t.youCanUseUntil(entry, sayDate(until, at, zone)),
        nodeId: row.entryId,
      });
    }
    return { until };
  },
  journal: ({ input, result, allowed }) => ({
    node: allowed.row.entryId,
    vault: allowed.vaultId,
    subject: allowed.asker.id,
    details: {
      yes: input.yes,
      ...(result.until === null ? {} : { until: result.until }),
      ...(input.yes ? {} : { why: input.word }),
    },
    names: { [allowed.row.entryId]: allowed.entry, [allowed.asker.id]: allowed.asker.name },
  }),
  says: ({ details, subject, place, until, why }) =>
    details.yes ? `approved ${subject}’s use${place("of")}${until}` : `declined ${subject}’s use${place("of")}${why}`,
  tell: ({ allowed }) => [`person:${allowed.asker.id}`, `vault:${allowed.vaultId}`],
});

/** One's own request is taken back, or a yes given back before its time. */
export const closeApproval = command({
  name: "access.closeApproval",
  input: z.strictObject(ofYes),
  by: ["person"],
  allow: async ({ tx, input, me }) => {
    const [row] = await tx.select().from(approvals).where(eq(approvals.id, input.yesId));
    if (row?.personId !== me.id) throw notFound();
    if (row.closedAt !== null) throw new Refused("conflict", t.itHasAlreadyEnded);
    const [vaultId] = (await loadSteps(tx, row.entryId)).path.map((node) => node.vaultId);
    return { row, vaultId };
  },
  run: async ({ tx, input, me, at }) => {
    await tx.update(approvals).set({ closedAt: at, closedBy: me.id }).where(eq(approvals.id, input.yesId));
    await settleNotices(tx, input.yesId, at);
  },
  journal: null,
  tell: ({ allowed }) => (allowed.vaultId ? [`vault:${allowed.vaultId}`] : []),
});

/** Past a yes, in an emergency: the house rules let it, all stewards and owners read why at once. */
export const useInEmergency = command({
  name: "access.useInEmergency",
  input: z.strictObject({
    entryId: idSchema,
    why: z.string().trim().min(10, t.sayWhatHasHappenedAllIts).max(500),
  }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, me, at } = context;
    const allowed = await requireEntryHere(context, input.entryId, "use");
    if (allowed.entry.asksFirst === 0) throw new Refused("conflict", t.itNoLongerRequiresApproval);
    if (!(await loadRules(tx)).emergency) throw new Refused("not-allowed", t.theHouseRulesDoNotAllow);
    const owners = (await loadByRole(tx, ["owner"], at)).filter((person) => person.standing === "active");
    const stewards = await otherStewards(tx, input.entryId, me.id, at);
    const told = new Map([...stewards, ...owners].map((person) => [person.id, person]));
    told.delete(me.id);
    return { ...allowed, stewards: new Set(stewards.map(({ id }) => id)), told: [...told.keys()] };
  },
  run: async ({ tx, input, me, caller, at, allowed }) => {
    const { entry, told, stewards, vaultId } = allowed;
    const from = caller.kind === "person" ? caller : { browser: "", address: "" };
    const until = at + entry.yesMinutes * 60_000;
    await tx.insert(approvals).values({
      ...{ id: uuidv7(), entryId: entry.nodeId, personId: me.id, why: input.why, askedAt: at, emergency: true, until },
      ...{ browser: from.browser, address: from.address, needed: entry.asksFirst, minutes: entry.yesMinutes },
    });
    const vault = await nodeName(tx, vaultId);
    for (const id of told) {
      // An owner who has no level there learns the vault, not the entry.
      const what = stewards.has(id) ? entry.name : `an entry in ${vault}`;
      await addNotice(tx, {
        to: id,
        at,
        sort: "emergency",
        text: t.emergencyUsedWithoutApproval(me.name, what, input.why),
        nodeId: stewards.has(id) ? entry.nodeId : null,
      });
    }
    return { until };
  },
  journal: ({ input, result, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { why: input.why, until: result.until },
    names: { [input.entryId]: allowed.entry.name },
  }),
  says: ({ it, until, why }) => `EMERGENCY: used ${it} without approval${until}${why}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`, ...allowed.told.map((id): Topic => `person:${id}`)],
});

export interface ApprovalToGive {
  id: string;
  entryId: string;
  entry: string;
  person: string;
  why: string;
  browser: string;
  address: string;
  askedAt: number;
  minutes: number;
  needed: number;
  /** So many have said yes. */
  said: number;
  /** The reader is one of them. */
  saidByMe: boolean;
}

/** What waits for the caller's yes. */
export const approvalsToGive = query({
  name: "access.approvalsToGive",
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, at }): Promise<ApprovalToGive[]> => {
    const open = await tx
      .select({ row: approvals, entry: entries.name, person: persons.name })
      .from(approvals)
      .innerJoin(entries, and(eq(entries.nodeId, approvals.entryId), isNull(entries.binnedAt)))
      .innerJoin(persons, eq(persons.id, approvals.personId))
      .where(and(isNull(approvals.closedAt), isNull(approvals.until), gt(approvals.askedAt, at - UNANSWERED_MS)));
    const found: ApprovalToGive[] = [];
    for (const { row, entry, person } of open) {
      if (row.personId === me.id) continue;
      if ((await resolveAt(tx, me, row.entryId, at))?.resolution.level !== "steward") continue;
      const { id, entryId, why, browser, address, askedAt, minutes, needed } = row;
      const saidByMe = row.said.some(({ by }) => by === me.id);
      found.push({
        id,
        entryId,
        entry,
        person,
        why,
        browser,
        address,
        askedAt,
        minutes,
        needed,
        said: row.said.length,
        saidByMe,
      });
    }
    return found;
  },
});

export interface OwnYes {
  stewards: number;
  minutes: number;
  emergency: boolean;
  /** The newest request of the reader, as long as it says anything. */
  asked: {
    id: string;
    state: "waiting" | "yes" | "no";
    askedAt: number;
    until: number | null;
    emergency: boolean;
    word: string;
    said: number;
  } | null;
}

const NO_SHOWN_MS = 24 * 3_600_000;

/** How one stands at an entry that asks first; null where it does not. */
export async function ownYes(
  tx: Reader,
  entry: Gated & { yesMinutes: number },
  personId: string,
  at: number,
): Promise<OwnYes | null> {
  if (entry.asksFirst === 0) return null;
  const [row] = await tx
    .select()
    .from(approvals)
    .where(
      and(
        eq(approvals.personId, personId),
        eq(approvals.entryId, entry.nodeId),
        or(gt(approvals.until, at), isNull(approvals.until)),
        gt(approvals.askedAt, at - NO_SHOWN_MS),
      ),
    )
    .orderBy(sql`${approvals.closedAt} is not null`, desc(approvals.askedAt))
    .limit(1);
  const { emergency } = await loadRules(tx);
  const state = !row
    ? null
    : row.closedAt !== null
      ? row.word === ""
        ? null
        : "no"
      : row.until !== null
        ? "yes"
        : isOpen(row, at)
          ? "waiting"
          : null;
  return {
    stewards: entry.asksFirst,
    minutes: entry.yesMinutes,
    emergency,
    asked:
      row && state
        ? {
            id: row.id,
            state,
            askedAt: row.askedAt,
            until: row.until,
            emergency: row.emergency,
            word: row.word,
            said: row.said.length,
          }
        : null,
  };
}
