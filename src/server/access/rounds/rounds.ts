/**
 * Rounds: every so many months, or when one starts one, the stewards of a vault look through who has what in it. One is
 * asked, reminded, and then the next; each grant is confirmed, or marked to be lowered or ended, which goes on the change
 * slip at the end. What was said by whom is kept as it was.
 */

import { and, desc, eq, isNotNull, isNull, sql } from "drizzle-orm";
import { z } from "zod";
import {
  type Change,
  type Given,
  LEVELS,
  Lookup,
  placeOf,
  rank,
  type Subject,
  subjectKey,
} from "../../../core/access/index";
import { type GivenGrant, lookThrough, type Odd, type RoundLine } from "../../../core/access/rounds";
import { counted } from "../../../core/counted";
import { monthsAfter, sayDate } from "../../../core/time";
import { byName } from "../../byName";
import { type Context, command, idSchema, none, query, type Topic } from "../../command";
import type { Reader, Transaction } from "../../database/client";
import { type RoundKept, type RoundSaid, rounds, vaults } from "../../database/schema";
import { uuidv7 } from "../../ids";
import { timeZone } from "../../organisation";
import { addNotice, settleNotices } from "../../people/telling";
import { notFound, Refused } from "../../refused";
import { nodesOfSteward } from "../grid";
import { loadSteps, requireLevel, resolveAt } from "../load";
import { nodeName } from "../nodeName";
import { loadOrganised } from "../organised";
import { draftOf, draftSlip } from "../slip/slip";
import { stewardsAt } from "../stewards";
import { rounds as t } from "../strings";
import { loadNames } from "../who";
import { openRound, type Round } from "./openRound";

const DAY_MS = 86_400_000;
/** Told again after a week, and after two the next steward is asked. */
const REMIND_MS = 7 * DAY_MS;
const NEXT_MS = 14 * DAY_MS;

type Asking = Pick<Context<unknown, Reader>, "tx" | "me" | "at">;

/** Active stewards of the vault itself, whoever has been it longest first. */
async function stewardsOf(tx: Reader, vaultId: string, at: number): Promise<string[]> {
  const { rows } = await loadSteps(tx, vaultId);
  const since = (id: string) => Math.min(...rows.filter((row) => row.subjectId === id).map((row) => row.validFrom));
  return (await stewardsAt(tx, vaultId, at))
    .map(({ id }) => ({ id, since: since(id) }))
    .sort((a, b) => a.since - b.since || a.id.localeCompare(b.id))
    .map(({ id }) => id);
}

export const setRounds = command({
  name: "rounds.setRounds",
  input: z.strictObject({ vaultId: idSchema, months: z.number().int().min(1).max(36).nullable() }),
  by: ["person"],
  allow: async (context) => {
    await requireLevel(context, context.input.vaultId, "steward");
    return { name: await nodeName(context.tx, context.input.vaultId) };
  },
  run: async ({ tx, input, at }) => {
    await tx
      .update(vaults)
      .set({ roundsMonths: input.months, roundsSince: at })
      .where(eq(vaults.nodeId, input.vaultId));
  },
  journal: ({ input, allowed }) => ({
    node: input.vaultId,
    vault: input.vaultId,
    details: { months: input.months },
    names: { [input.vaultId]: allowed.name },
  }),
  says: ({ details, it }) =>
    details.months === null
      ? `stopped the rounds of ${it}`
      : `set a round of ${it} every ${details.months === 1 ? "month" : counted(Number(details.months), "month")}`,
  tell: ({ input }) => [`vault:${input.vaultId}`],
});

async function begin(tx: Transaction, vaultId: string, by: string | null, asked: string, at: number): Promise<string> {
  const roundId = uuidv7();
  await tx.insert(rounds).values({ id: roundId, vaultId, startedAt: at, startedBy: by, asked, askedAt: at });
  if (asked !== by)
    await addNotice(tx, {
      to: asked,
      at,
      sort: "rounds",
      text: t.aRoundOfIsDueReviewWho(await nodeName(tx, vaultId)),
      nodeId: vaultId,
      about: roundId,
    });
  return roundId;
}

/** Now, by a steward, who is asked first. */
export const startRound = command({
  name: "rounds.startRound",
  input: z.strictObject({ vaultId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    await requireLevel(context, context.input.vaultId, "steward");
    if (await openRound(context.tx, context.input.vaultId)) throw new Refused("conflict", t.aRoundIsAlreadyUnderWay);
    return { name: await nodeName(context.tx, context.input.vaultId) };
  },
  run: async ({ tx, input, me, at }) => ({ roundId: await begin(tx, input.vaultId, me.id, me.id, at) }),
  journal: ({ input, allowed }) => ({
    node: input.vaultId,
    vault: input.vaultId,
    names: { [input.vaultId]: allowed.name },
  }),
  says: ({ it }) => `started a round of ${it}`,
  tell: ({ input }) => [`vault:${input.vaultId}`],
});

async function requireRound(context: Asking, vaultId: string): Promise<Round> {
  await requireLevel(context, vaultId, "steward");
  const round = await openRound(context.tx, vaultId);
  if (!round) throw new Refused("conflict", t.thereIsNoRoundUnderWayHere);
  return round;
}

/** What a steward of the vault says to one grant, or takes back. */
export const answerInRound = command({
  name: "rounds.answerInRound",
  input: z.strictObject({
    vaultId: idSchema,
    grantId: idSchema,
    say: z.enum(["confirmed", "lower", "end"]).nullable(),
  }),
  by: ["person"],
  allow: async (context) => {
    const { input, tx, me, at } = context;
    const round = await requireRound(context, input.vaultId);
    const line = (await linesOf(tx, input.vaultId, me.id, at)).find(({ grant }) => grant.id === input.grantId);
    if (!line) throw new Refused("conflict", t.someoneElseHasChangedOrEnded);
    if (line.reviewer !== null && input.say !== null) throw new Refused("not-allowed", t.anotherStewardReviewsYours);
    if (input.say === "lower" && lowerThan(line.grant.level) === null)
      throw new Refused("bad-input", t.thereIsNoLevelBelowUseEnd, "say");
    return { round };
  },
  run: async ({ tx, input, me, at, allowed }) => {
    const others = allowed.round.said.filter((one) => one.grantId !== input.grantId);
    const own = input.say === null ? [] : [{ grantId: input.grantId, say: input.say, by: me.id, at }];
    await tx
      .update(rounds)
      .set({ said: [...others, ...own] })
      .where(eq(rounds.id, allowed.round.id));
  },
  // What was said stands in the record of the round.
  journal: null,
  tell: ({ input }) => [`vault:${input.vaultId}`],
});

/** The next level down; null for Use and Blocked. */
function lowerThan(level: Given): Given | null {
  return level === "blocked" || level === "use" ? null : LEVELS[rank(level) - 2]!;
}

/** A line as one steward sees it. */
interface LineToReview extends RoundLine {
  /** It is the reader's own access, and this steward answers it; null where the reader does. */
  reviewer: string | null;
}

/** The lines of a vault as far as somebody is steward, the oddest first. */
async function linesOf(
  tx: Reader,
  vaultId: string,
  personId: string,
  at: number,
  reads = false,
): Promise<LineToReview[]> {
  const organised = await loadOrganised(tx, [vaultId]);
  const mine = reads ? new Set(organised.nodes.map(({ id }) => id)) : nodesOfSteward(organised, personId, at);
  const given = organised.rows
    .filter((row) => mine.has(row.nodeId))
    .map(
      (row): GivenGrant => ({
        ...{ id: row.id, node: row.nodeId, subject: subjectOf(row), level: row.level },
        ...{ from: row.from, until: row.until, weekly: row.weekly, since: row.validFrom, why: row.why },
      }),
    );
  const uses = await tx.all<{ personId: string; entryId: string; at: number }>(sql`
    select person_id as "personId", entry_id as "entryId", max(at) as at from (
      select s.person_id, s.entry_id, s.begun_at as at from places p cross join sign_ins s on s.entry_id = p.node_id
        where p.vault_id = ${vaultId} and p.valid_until is null and s.outcome = 'signed-in' and s.how <> 'tested'
      union all
      select s.person_id, s.entry_id, s.at from places p cross join sightings s on s.entry_id = p.node_id
        where p.vault_id = ${vaultId} and p.valid_until is null
    ) group by person_id, entry_id`);
  const others = (await stewardsOf(tx, vaultId, at))
    .filter((id) => id !== personId)
    .map((id) => ({ id, nodes: nodesOfSteward(organised, id, at) }));
  return lookThrough(new Lookup(organised), given, uses, at).map((line) => {
    const { node, subject } = line.grant;
    const own = subject.kind === "person" && subject.id === personId;
    return { ...line, reviewer: (own && others.find(({ nodes }) => nodes.has(node))?.id) || null };
  });
}

const subjectOf = (row: { subjectKind: "person" | "group" | "everyone"; subjectId: string }): Subject =>
  row.subjectKind === "everyone" ? { kind: "everyone" } : { kind: row.subjectKind, id: row.subjectId };

/** All but one's own access is said: another steward is asked for that, and can finish the round. */
export const passRoundOn = command({
  name: "rounds.passRoundOn",
  input: z.strictObject({ vaultId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, me, at } = context;
    const round = await requireRound(context, input.vaultId);
    const said = new Set(round.said.map((one) => one.grantId));
    const left = (await linesOf(tx, input.vaultId, me.id, at)).filter(({ grant }) => !said.has(grant.id));
    const unsaid = left.filter(({ reviewer }) => reviewer === null).length;
    if (unsaid > 0) throw new Refused("conflict", t.noAnswerYet(unsaid));
    const reviewer = left[0]?.reviewer;
    if (!reviewer) throw new Refused("conflict", t.everythingHasAnAnswer);
    return { round, reviewer, name: await nodeName(tx, input.vaultId) };
  },
  run: async ({ tx, me, at, input, allowed: { round, reviewer, name } }) => {
    await tx.update(rounds).set({ asked: reviewer, askedAt: at, remindedAt: null }).where(eq(rounds.id, round.id));
    await settleNotices(tx, round.id, at, me.id);
    await addNotice(tx, {
      to: reviewer,
      at,
      sort: "rounds",
      text: t.asksYouToReviewTheirOwnAccess(me.name, name),
      nodeId: input.vaultId,
      about: round.id,
    });
    return { asked: (await loadNames(tx, [reviewer])).people.get(reviewer) ?? "" };
  },
  journal: ({ input, result, allowed }) => ({
    node: input.vaultId,
    vault: input.vaultId,
    details: { asked: result.asked },
    names: { [input.vaultId]: allowed.name },
  }),
  says: ({ details, it }) => `asked ${details.asked} to review their own access in the round of ${it}`,
  tell: ({ input, allowed }) => [`vault:${input.vaultId}`, `person:${allowed.reviewer}`],
});

/** All is said: what is to be lowered or ended goes on the slip of whoever finishes it, and the record is kept. */
export const finishRound = command({
  name: "rounds.finishRound",
  input: z.strictObject({ vaultId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, me, at } = context;
    const round = await requireRound(context, input.vaultId);
    const lines = await linesOf(tx, input.vaultId, me.id, at);
    const said = new Map(round.said.map((one) => [one.grantId, one]));
    const left = lines.filter(({ grant }) => !said.has(grant.id)).length;
    if (left > 0) throw new Refused("conflict", t.noAnswerYet(left));
    return { round, lines, said, name: await nodeName(tx, input.vaultId) };
  },
  run: async (context) => {
    const { tx, input, me, at, allowed } = context;
    const { round, lines, said } = allowed;
    const changes = changesOf(lines, said);
    if (changes.length > 0) {
      const draft = await draftOf(tx, me.id);
      const places = new Set(changes.map(placeOf));
      const before = (draft?.changes ?? [])
        .map(({ change }) => change)
        .filter((change) => !places.has(placeOf(change)));
      await draftSlip.within(context, { changes: [...before, ...changes].map(plain), revision: draft?.revision ?? 0 });
    }
    const kept = await keptOf(tx, lines, said);
    await tx.update(rounds).set({ finishedAt: at, finishedBy: me.id, kept }).where(eq(rounds.id, round.id));
    await settleNotices(tx, round.id, at);
    const count = (say: RoundSaid["say"]) => kept.filter((line) => line.say === say).length;
    return {
      vaultId: input.vaultId,
      changes: changes.length,
      confirmed: count("confirmed"),
      lower: count("lower"),
      end: count("end"),
    };
  },
  journal: ({ input, result, allowed }) => ({
    node: input.vaultId,
    vault: input.vaultId,
    details: { confirmed: result.confirmed, lower: result.lower, end: result.end },
    names: { [input.vaultId]: allowed.name },
  }),
  says: ({ details, it }) =>
    `finished a round of ${it}: ${details.confirmed} confirmed, ${details.lower} to lower, ${details.end} to end`,
  tell: ({ input }) => [`vault:${input.vaultId}`],
});

/** Cells that change: each with the grants that stay, and those that are lowered. */
function changesOf(lines: readonly RoundLine[], said: ReadonlyMap<string, RoundSaid>): Change[] {
  const cells = new Map<string, RoundLine[]>();
  for (const line of lines) {
    const key = `${line.grant.node} ${subjectKey(line.grant.subject)}`;
    cells.set(key, [...(cells.get(key) ?? []), line]);
  }
  return [...cells.values()]
    .filter((cell) => cell.some(({ grant }) => said.get(grant.id)?.say !== "confirmed"))
    .map((cell): Change => {
      const { node: nodeId, subject } = cell[0]!.grant;
      const grants = cell.flatMap(({ grant: { id, level, from, until, weekly } }) => {
        const say = said.get(id)!.say;
        if (say === "end") return [];
        return [{ level: say === "lower" ? lowerThan(level)! : level, from, until, weekly: weekly ?? null }];
      });
      return { type: "set", nodeId, subject, grants };
    });
}

/** As the slip takes it: the zone of a weekly window is the organisation's. */
const plain = (change: Change): unknown =>
  change.type === "separate"
    ? { type: change.type, nodeId: change.nodeId, separate: change.separate }
    : change.type === "set"
      ? {
          ...change,
          grants: change.grants.map(({ weekly, ...terms }) => ({
            ...{ level: terms.level, from: terms.from, until: terms.until },
            weekly: weekly ? { days: weekly.days, start: weekly.start, end: weekly.end } : null,
          })),
        }
      : change;

const idOf = (subject: Subject): string | null => (subject.kind === "everyone" ? null : subject.id);

async function keptOf(
  tx: Reader,
  lines: readonly RoundLine[],
  said: ReadonlyMap<string, RoundSaid>,
): Promise<RoundKept[]> {
  const names = await loadNames(tx, [
    ...lines.map(({ grant }) => idOf(grant.subject)),
    ...[...said.values()].map(({ by }) => by),
  ]);
  const kept: RoundKept[] = [];
  for (const { grant, lastUse, odd } of lines) {
    const { say, by, at } = said.get(grant.id)!;
    kept.push({
      ...{
        who: names.subject(grant.subject),
        nodeId: grant.node,
        what: await nodeName(tx, grant.node),
        level: grant.level,
      },
      ...{ until: grant.until, why: grant.why, lastUse, odd: [...odd], say, by: names.people.get(by) ?? "", at },
    });
  }
  return kept;
}

export interface RoundRow {
  grantId: string;
  subject: Subject;
  who: string;
  /** "5 people", a guest. */
  note: string;
  nodeId: string;
  what: string;
  type: string;
  level: Given;
  from: number | null;
  until: number | null;
  why: string;
  since: number;
  by: string;
  lastUse: number | null;
  odd: readonly Odd[];
  say: RoundSaid["say"] | null;
  lower: Given | null;
  /** The reader's own access. */
  own: boolean;
  /** Who answers it, where it is the reader's own; null where the reader does. */
  reviewer: string | null;
}

/** The round of a vault, and the records of those that are finished, for its stewards. */
export const roundPage = query({
  name: "rounds.roundPage",
  input: z.strictObject({ vaultId: idSchema }),
  by: ["person"],
  offMainThread: true,
  allow: async (context) => {
    const reads = context.me.role === "auditor";
    if (!reads) await requireLevel(context, context.input.vaultId, "steward");
    return { reads };
  },
  run: async ({ tx, input, me, at, allowed: { reads } }) => {
    const [vault] = await tx.select().from(vaults).where(eq(vaults.nodeId, input.vaultId));
    if (!vault) throw notFound();
    const round = await openRound(tx, input.vaultId);
    const organised = await loadOrganised(tx, [input.vaultId]);
    const mine = reads ? new Set(organised.nodes.map(({ id }) => id)) : nodesOfSteward(organised, me.id, at);
    const types = new Map(organised.nodes.map((node) => [node.id, node.type]));
    const guests = new Set(organised.people.filter((person) => person.guest).map(({ id }) => id));
    const rows = new Map(organised.rows.map((row) => [row.id, row]));
    const said = new Map((round?.said ?? []).map((one) => [one.grantId, one.say]));
    const finished = await tx
      .select()
      .from(rounds)
      .where(and(eq(rounds.vaultId, input.vaultId), isNotNull(rounds.finishedAt)))
      .orderBy(desc(rounds.finishedAt))
      .limit(24);
    const open = round ? await linesOf(tx, input.vaultId, me.id, at, reads) : [];
    const names = await loadNames(tx, [
      ...open.flatMap(({ grant }) => [idOf(grant.subject), rows.get(grant.id)?.givenBy ?? null]),
      ...open.map(({ reviewer }) => reviewer),
      ...(round ? [round.startedBy, round.asked, ...round.passed] : []),
      ...finished.map((one) => one.finishedBy),
    ]);
    const lines: RoundRow[] = [];
    for (const { grant, people, lastUse, odd, reviewer } of open) {
      const { subject } = grant;
      lines.push({
        ...{ grantId: grant.id, subject, who: names.subject(subject), nodeId: grant.node },
        note:
          subject.kind === "person"
            ? guests.has(subject.id)
              ? "guest"
              : ""
            : `${people.length} ${people.length === 1 ? "person" : "people"}`,
        ...{ what: await nodeName(tx, grant.node), type: types.get(grant.node) ?? "", level: grant.level },
        ...{ from: grant.from, until: grant.until, why: grant.why, since: grant.since },
        by: names.people.get(rows.get(grant.id)?.givenBy ?? "") ?? "",
        ...{ lastUse, odd, say: said.get(grant.id) ?? null, lower: lowerThan(grant.level) },
        own: subject.kind === "person" && subject.id === me.id,
        reviewer: reviewer && (names.people.get(reviewer) ?? ""),
      });
    }
    const nameOf = (id: string | null) => (id === null ? null : (names.people.get(id) ?? ""));
    return {
      vault: { id: vault.nodeId, name: vault.name },
      /** An auditor answers nothing. */
      reads,
      months: vault.roundsMonths,
      zone: names.zone,
      round: round
        ? {
            id: round.id,
            startedAt: round.startedAt,
            startedBy: nameOf(round.startedBy),
            asked: nameOf(round.asked),
            askedMe: round.asked === me.id,
            passed: round.passed.map((id) => names.people.get(id) ?? "").sort(),
          }
        : null,
      lines,
      finished: finished.map((one) => ({
        id: one.id,
        startedAt: one.startedAt,
        finishedAt: one.finishedAt!,
        by: nameOf(one.finishedBy)!,
        // A record of what somebody else looked through holds what the reader is no steward of: that stays theirs.
        kept: (one.kept ?? []).filter(
          ({ nodeId }) => mine.has(nodeId) || !types.has(nodeId) || one.finishedBy === me.id,
        ),
      })),
    };
  },
});

/** Rounds that the caller is asked for. */
export const roundsToDo = query({
  name: "rounds.roundsToDo",
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me }) => {
    const open = await tx
      .select({ vaultId: rounds.vaultId, askedAt: rounds.askedAt, name: vaults.name })
      .from(rounds)
      .innerJoin(vaults, eq(vaults.nodeId, rounds.vaultId))
      .where(and(eq(rounds.asked, me.id), isNull(rounds.finishedAt)));
    return open.map(({ vaultId, askedAt, name }) => ({ id: vaultId, name, askedAt })).sort(byName);
  },
});

/** Starts rounds whose time has come, reminds who was asked, and asks the next steward after two weeks. */
export const continueRounds = command({
  name: "rounds.continueRounds",
  input: none,
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, at }) => {
    const told = new Set<string>();
    const zone = await timeZone(tx);
    for (const vault of await tx
      .select()
      .from(vaults)
      .where(and(isNotNull(vaults.roundsMonths), isNull(vaults.asideAt)))) {
      if (await openRound(tx, vault.nodeId)) continue;
      const [last] = await tx
        .select({ at: sql<number | null>`max(${rounds.finishedAt})` })
        .from(rounds)
        .where(eq(rounds.vaultId, vault.nodeId));
      const since = Math.max(last?.at ?? 0, vault.roundsSince ?? 0);
      if (at < monthsAfter(since, vault.roundsMonths!)) continue;
      const [first] = await stewardsOf(tx, vault.nodeId, at);
      if (!first) continue;
      await begin(tx, vault.nodeId, null, first, at);
      told.add(first);
    }
    for (const round of await tx.select().from(rounds).where(isNull(rounds.finishedAt))) {
      const name = await nodeName(tx, round.vaultId);
      const gone = (await resolveAt(tx, round.asked, round.vaultId, at))?.resolution.level !== "steward";
      if (gone || round.askedAt <= at - NEXT_MS) {
        const stewards = await stewardsOf(tx, round.vaultId, at);
        const passed = [...new Set([...round.passed, round.asked])];
        // Once all were asked it begins again with the first.
        const next =
          stewards.find((id) => !passed.includes(id)) ?? stewards.find((id) => id !== round.asked) ?? stewards[0];
        if (!next) continue;
        const again = passed.includes(next) ? [] : passed;
        await tx
          .update(rounds)
          .set({ asked: next, askedAt: at, remindedAt: null, passed: again })
          .where(eq(rounds.id, round.id));
        const since = sayDate(round.startedAt, at, zone);
        await addNotice(tx, {
          to: next,
          at,
          sort: "rounds",
          text: t.theRoundOfStartedIsNowYours(name, since),
          nodeId: round.vaultId,
          about: round.id,
        });
        told.add(next);
      } else if (round.remindedAt === null && round.askedAt <= at - REMIND_MS) {
        await tx.update(rounds).set({ remindedAt: at }).where(eq(rounds.id, round.id));
        await addNotice(tx, {
          to: round.asked,
          at,
          sort: "rounds",
          text: t.theRoundOfIsStillWaitingFor(name),
          nodeId: round.vaultId,
          about: round.id,
        });
        told.add(round.asked);
      }
    }
    return [...told];
  },
  journal: null,
  tell: ({ result }): Topic[] => result.map((id): Topic => `person:${id}`),
});
