/**
 * Asking for access, from something one may know of; answered by its stewards: yes, yes but lower or shorter, no with a
 * word, or passed on to another steward. What nobody answers is told again, and then to the owners.
 */

import { and, eq, inArray, isNull, lt, ne, or, type SQL } from "drizzle-orm";
import { z } from "zod";
import { atLeast, type Change, LEVELS, type Level, levelWord, preview, rank } from "../../../core/access/index";
import { sayDate } from "../../../core/time";
import { byName } from "../../byName";
import { type Context, command, idSchema, instantSchema, none, query, type Topic } from "../../command";
import type { Reader, Transaction } from "../../database/client";
import { asks, entries, folders, grants, persons, places } from "../../database/schema";
import { uuidv7 } from "../../ids";
import { timeZone } from "../../organisation";
import { attemptKey, countAttempt, requireFewAttempts } from "../../people/attempts";
import { addNotice, settleNotices } from "../../people/telling";
import { notFound, Refused } from "../../refused";
import { changeAccess, giveAccess } from "../grants";
import { type Asking, loadPath, type PathNode, resolveAt } from "../load";
import { nodeName } from "../nodeName";
import { loadOrganised } from "../organised";
import { peopleNames } from "../peopleNames";
import { loadByRole, loadPerson, type Person } from "../person";
import { stewardsAt } from "../stewards";
import { requests as t } from "../strings";

const DAY_MS = 86_400_000;
/** Unanswered for so long: its stewards are told again. */
const REMIND_AFTER_MS = DAY_MS;
/** Still unanswered: the owners are told. */
const RAISE_AFTER_MS = 3 * DAY_MS;
/** Of one person at a time. */
const MOST_OPEN = 20;
/** In a quarter of an hour: each is a notice to every steward. */
const MOST_ASKED = 30;

type Ask = typeof asks.$inferSelect;

/** Staff may ask for what is listed, unless they are blocked there; everybody for more of what they can use. */
async function requireKnown(context: Asking, nodeId: string) {
  const { tx, me, at } = context;
  const found = await resolveAt(tx, me, nodeId, at);
  if (!found) throw notFound();
  const { level, because } = found.resolution;
  const [entry] = await tx.select().from(entries).where(eq(entries.nodeId, nodeId));
  const [folder] = await tx.select().from(folders).where(eq(folders.nodeId, nodeId));
  const blocked = because.some((say) => say.grant.level === "blocked");
  const listed = entry?.listed && !me.guest && !blocked && entry.asideAt === null;
  if ((!atLeast(level, "use") && !listed) || (entry ?? folder)?.binnedAt != null) throw notFound();
  return { ...found, level, vaultId: found.path[0].vaultId };
}

/** Stewards of a node who can answer, but for whoever asks. */
async function stewardsOf(tx: Reader, nodeId: string, except: string, at: number): Promise<Person[]> {
  return (await stewardsAt(tx, nodeId, at)).filter((person) => person.id !== except);
}

export const requestAccess = command({
  name: "access.requestAccess",
  input: z.strictObject({
    nodeId: idSchema,
    level: z.enum(LEVELS),
    until: instantSchema.default(null),
    why: z.string().trim().min(1, t.giveAReasonItsStewardDecidesBy).max(500),
  }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, me, at, app } = context;
    const known = await requireKnown(context, input.nodeId);
    if (atLeast(known.level, input.level))
      throw new Refused("conflict", t.youAlreadyHaveThere(levelWord(known.level)), "level");
    if (me.guest && input.level === "steward") throw new Refused("bad-input", t.aGuestCanHaveAtMostEdit, "level");
    if (input.until !== null && input.until <= at) throw new Refused("bad-input", t.theEndDateIsInThePast, "until");
    const open = await tx
      .select({ id: asks.id, nodeId: asks.nodeId })
      .from(asks)
      // To how many a question by the address of a site went is not felt here either.
      .where(and(eq(asks.personId, me.id), eq(asks.state, "open"), or(eq(asks.site, ""), eq(asks.nodeId, ""))));
    if (open.some((one) => one.nodeId === input.nodeId)) throw new Refused("conflict", t.youHaveAlreadyRequestedThisIt);
    await requireFewAttempts(tx, attemptKey(app.keys, "ask", me.id), MOST_ASKED, at);
    if (open.length >= MOST_OPEN) throw new Refused("conflict", t.youHaveTooManyOpenRequestsWait);
    const stewards = await stewardsOf(tx, input.nodeId, me.id, at);
    return { ...known, stewards, node: await nodeName(tx, input.nodeId) };
  },
  run: async ({ tx, input, me, at, app, allowed }) => {
    await countAttempt(tx, attemptKey(app.keys, "ask", me.id), at);
    const askId = uuidv7();
    await tx.insert(asks).values({ id: askId, personId: me.id, ...input, state: "open", askedAt: at });
    const text = await askText(tx, input, me.name, allowed.node, at);
    for (const { id } of allowed.stewards)
      await addNotice(tx, { to: id, at, sort: "requests", text, nodeId: input.nodeId, about: askId });
    return { askId };
  },
  journal: ({ input, allowed }) => ({
    node: input.nodeId,
    vault: allowed.vaultId,
    details: { level: input.level, ...(input.until ? { until: input.until } : {}), why: input.why },
    names: { [input.nodeId]: allowed.node },
  }),
  says: ({ level, place, until, why }) => `requested ${level}${place("on")}${until}${why}`,
  tell: ({ allowed }) => allowed.stewards.map(({ id }): Topic => `person:${id}`),
});

async function askText(
  tx: Reader,
  ask: Pick<Ask, "level" | "until" | "why">,
  who: string,
  node: string,
  at: number,
): Promise<string> {
  const zone = await timeZone(tx);
  const until = ask.until === null ? "" : ` until ${sayDate(ask.until, at, zone)}`;
  return t.requestsOn(who, levelWord(ask.level), node, until, ask.why);
}

const ofAsk = { askId: idSchema };

async function requireAsk(tx: Reader, askId: string): Promise<Ask> {
  const [ask] = await tx.select().from(asks).where(eq(asks.id, askId));
  if (!ask) throw notFound();
  return ask;
}

const ANSWERED = t.thisRequestHasAlreadyBeen;

export const withdrawRequest = command({
  name: "access.withdrawRequest",
  input: z.strictObject(ofAsk),
  by: ["person"],
  allow: async ({ tx, input, me, at }) => {
    const ask = await requireAsk(tx, input.askId);
    if (ask.personId !== me.id) throw notFound();
    if (ask.state !== "open") throw new Refused("conflict", ANSWERED);
    return { ask, stewards: await stewardsOf(tx, ask.nodeId, me.id, at) };
  },
  run: async ({ tx, input, at, allowed: { ask } }) => {
    const same =
      ask.site === ""
        ? eq(asks.id, input.askId)
        : and(eq(asks.personId, ask.personId), eq(asks.site, ask.site), eq(asks.state, "open"));
    await close(tx, same, { state: "withdrawn", answeredBy: null, answeredAt: at });
  },
  journal: null,
  tell: ({ allowed }) => allowed.stewards.map(({ id }): Topic => `person:${id}`),
});

/** Open, of somebody else, at a node that the caller is steward of. */
async function requireAnswerable(context: Asking, askId: string) {
  const { tx, me, at } = context;
  const ask = await requireAsk(tx, askId);
  const found = await resolveAt(tx, me, ask.nodeId, at);
  if (found?.resolution.level !== "steward" || ask.personId === me.id) throw notFound();
  if (ask.state !== "open") throw new Refused("conflict", ANSWERED);
  const asker = await loadPerson(tx, ask.personId, at);
  if (asker?.standing !== "active") throw new Refused("conflict", t.thePersonWhoSentThisRequestNo);
  return { ask, asker, vaultId: found.path[0].vaultId, node: await nodeName(tx, ask.nodeId) };
}

export const answerRequest = command({
  name: "access.answerRequest",
  input: z.discriminatedUnion("yes", [
    z.strictObject({
      ...ofAsk,
      yes: z.literal(true),
      /** Lower or shorter than was asked for, where given. */
      level: z.enum(LEVELS).optional(),
      until: instantSchema.optional(),
    }),
    z.strictObject({
      ...ofAsk,
      yes: z.literal(false),
      word: z.string().trim().min(1, t.giveAReasonItIsAllThey).max(500),
    }),
  ]),
  by: ["person"],
  allow: (context) => requireAnswerable(context, context.input.askId),
  run: async (context) => {
    const { tx, input, at, me, allowed } = context;
    const { ask, asker, node } = allowed;
    if (!input.yes) {
      await close(tx, eq(asks.id, ask.id), { state: "no", word: input.word, answeredBy: me.id, answeredAt: at });
      await settleSite(tx, ask, input.word, me.id, at);
      const what = ask.site === "" ? `${levelWord(ask.level)} on ${node}` : `a login for ${ask.site}`;
      const text = t.declined(await answerer(tx, asker, me), what, input.word);
      await addNotice(tx, {
        to: asker.id,
        at,
        sort: "answers",
        text,
        nodeId: await nodeIfKnown(tx, asker, ask.nodeId, at),
      });
      return { given: null };
    }
    const level = input.level ?? ask.level;
    const until = input.until === undefined ? ask.until : input.until;
    if (rank(level) > rank(ask.level)) throw new Refused("bad-input", t.theyRequested(levelWord(ask.level)), "level");
    if (ask.until !== null && (until === null || until > ask.until))
      throw new Refused("bad-input", t.theyRequestedAShorterTime, "until");
    if (until !== null && until <= at) throw new Refused("bad-input", t.theEndDateIsInThePast, "until");
    await refuseLower(tx, ask, { level, until }, at);
    await giveAsked(context, ask, level, until);
    const given = level === ask.level && until === ask.until ? null : { level, until };
    await close(tx, eq(asks.id, ask.id), { state: "yes", given, answeredBy: me.id, answeredAt: at });
    await settleSite(tx, ask, null, me.id, at);
    const zone = await timeZone(tx);
    const end = until === null ? "" : ` until ${sayDate(until, at, zone)}`;
    await addNotice(tx, {
      to: asker.id,
      at,
      sort: "answers",
      text: t.gaveYouOn(await answerer(tx, asker, me), levelWord(level), node, end),
      nodeId: ask.nodeId,
    });
    return { given: { level, until } };
  },
  journal: ({ input, result, allowed }) => ({
    node: allowed.ask.nodeId,
    vault: allowed.vaultId,
    subject: allowed.asker.id,
    details: {
      yes: input.yes,
      level: result.given?.level ?? allowed.ask.level,
      ...(result.given?.until ? { until: result.given.until } : {}),
      ...(input.yes ? {} : { why: input.word }),
    },
    names: { [allowed.ask.nodeId]: allowed.node, [allowed.asker.id]: allowed.asker.name },
  }),
  says: ({ details, subject, level, place, until, why }) =>
    details.yes
      ? `approved ${subject}’s request for ${level}${place("on")}${until}`
      : `declined ${subject}’s request for access${place("to")}${why}`,
  tell: ({ allowed }) => [`person:${allowed.asker.id}`, `vault:${allowed.vaultId}`],
});

/** A guest knows nobody here but whoever asked them in. */
async function answerer(tx: Reader, asker: Person, by: Person): Promise<string> {
  if (!asker.guest) return by.name;
  const [row] = await tx.select({ by: persons.invitedBy }).from(persons).where(eq(persons.id, asker.id));
  return row?.by === by.id ? by.name : "Its steward";
}

/** No longer open: nobody is told any more that it waits. */
async function close(
  tx: Transaction,
  which: SQL | undefined,
  what: Partial<Ask> & { answeredBy: string | null; answeredAt: number },
): Promise<void> {
  const closed = await tx.update(asks).set(what).where(which).returning({ id: asks.id });
  for (const { id } of closed) await settleNotices(tx, id, what.answeredAt);
}

/**
 * Of a question by the address of a site: with the first yes nobody else has to answer it; it is answered with no once
 * everybody who could has said so.
 * @param word of a no; null for a yes
 */
async function settleSite(tx: Transaction, ask: Ask, word: string | null, by: string, at: number): Promise<void> {
  if (ask.site === "") return;
  const same = and(eq(asks.personId, ask.personId), eq(asks.site, ask.site), eq(asks.state, "open"));
  if (word === null) {
    await close(tx, same, { state: "withdrawn", answeredBy: null, answeredAt: at });
    return;
  }
  const left = await tx.select({ nodeId: asks.nodeId }).from(asks).where(same);
  if (left.some(({ nodeId }) => nodeId !== "")) return;
  await close(tx, same, { state: "no", word, answeredBy: by, answeredAt: at });
}

/** A notice leads to what one can open. */
async function nodeIfKnown(tx: Reader, person: { id: string }, nodeId: string, at: number): Promise<string | null> {
  const found = await resolveAt(tx, person.id, nodeId, at);
  return found && atLeast(found.resolution.level, "use") ? nodeId : null;
}

const linkTo = ([node]: readonly PathNode[]): string =>
  node!.type === "entry"
    ? `/entry/${node!.id}`
    : node!.type === "folder"
      ? `/vaults/${node!.vaultId}/folder/${node!.id}`
      : `/vaults/${node!.id}`;

async function linkIfKnown(tx: Reader, person: { id: string }, nodeId: string, at: number): Promise<string | null> {
  const found = await resolveAt(tx, person.id, nodeId, at);
  return found && atLeast(found.resolution.level, "use") ? linkTo(found.path) : null;
}

/** A yes that would lower what somebody has, now or at any moment of it, is refused in words. */
async function refuseLower(
  tx: Reader,
  ask: Ask,
  terms: { level: Level; until: number | null },
  at: number,
): Promise<void> {
  const [node] = await loadPath(tx, ask.nodeId);
  const organised = await loadOrganised(tx, [node!.vaultId]);
  const own = organised.grants.filter(
    ({ node: where, subject }) => where === ask.nodeId && subject.kind === "person" && subject.id === ask.personId,
  );
  const standing = own.map(({ level, from, until, weekly }) => ({ level, from, until, weekly }));
  const kept = terms.until === null ? [] : standing;
  const change: Change = {
    type: "set",
    nodeId: ask.nodeId,
    subject: { kind: "person", id: ask.personId },
    grants: [...kept, { ...terms, from: null }],
  };
  const lost = preview(organised, [change], at).differences.find((one) => rank(one.after) < rank(one.before));
  if (lost)
    throw new Refused("not-allowed", t.thatWouldLowerTheirAccessFrom(levelWord(lost.before), levelWord(lost.after)));
}

/** Without an end it takes the place of an own lower grant; with one it stands beside it, which counts again after. */
async function giveAsked(context: Context<unknown>, ask: Ask, level: Level, until: number | null): Promise<void> {
  const { tx } = context;
  const why = `asked for: ${ask.why}`.slice(0, 500);
  const rows = await tx
    .select()
    .from(grants)
    .where(
      and(
        eq(grants.nodeId, ask.nodeId),
        eq(grants.subjectKind, "person"),
        eq(grants.subjectId, ask.personId),
        isNull(grants.validUntil),
      ),
    );
  const [only, another] = rows;
  if (until === null && only && !another)
    await changeAccess.within(context, { grantId: only.id, level, from: null, until, why });
  else
    await giveAccess.within(context, {
      ...{ nodeId: ask.nodeId, subject: { kind: "person", id: ask.personId } },
      ...{ level, from: null, until, why },
    });
}

/** To another steward of the same node, who alone is asked from then on. */
export const passRequestOn = command({
  name: "access.passRequestOn",
  input: z.strictObject({ ...ofAsk, personId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, at } = context;
    const allowed = await requireAnswerable(context, input.askId);
    const stewards = await stewardsOf(tx, allowed.ask.nodeId, allowed.ask.personId, at);
    const to = stewards.find(({ id }) => id === input.personId);
    if (!to) throw new Refused("bad-input", t.thisPersonIsNotAStewardOf, "personId");
    return { ...allowed, to };
  },
  run: async ({ tx, input, me, at, allowed }) => {
    await tx.update(asks).set({ passedTo: input.personId }).where(eq(asks.id, input.askId));
    const text = await askText(tx, allowed.ask, allowed.asker.name, allowed.node, at);
    await addNotice(tx, {
      to: allowed.to.id,
      at,
      sort: "requests",
      text: t.passedItOnToYou(text, me.name),
      nodeId: allowed.ask.nodeId,
      about: input.askId,
    });
  },
  journal: ({ input, allowed }) => ({
    node: allowed.ask.nodeId,
    vault: allowed.vaultId,
    subject: input.personId,
    names: { [allowed.ask.nodeId]: allowed.node, [input.personId]: allowed.to.name },
  }),
  says: ({ subject, place }) => `passed a request${place("for")} on to ${subject}`,
  tell: ({ input, allowed }) => [
    `person:${input.personId}`,
    `person:${allowed.ask.personId}`,
    `vault:${allowed.vaultId}`,
  ],
});

export interface AskLine {
  id: string;
  nodeId: string;
  /** Where it opens. */
  link: string;
  node: string;
  /** It was asked for by this site: they do not know that it is kept. */
  site: string;
  person: string;
  level: Level;
  has: Level | "none";
  until: number | null;
  why: string;
  askedAt: number;
  passedTo: string | null;
  /** Other stewards it can be passed on to. */
  others: { id: string; name: string }[];
}

/** What waits for the caller's answer, and what they asked for themselves. */
export const requestList = query({
  name: "access.requestList",
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, at }) => {
    const open = await tx.select().from(asks).where(eq(asks.state, "open"));
    const own = await tx
      .select()
      .from(asks)
      .where(and(eq(asks.personId, me.id), or(eq(asks.state, "open"), inArray(asks.state, ["yes", "no"]))));
    if (open.length + own.length === 0) return { toAnswer: [], own: [] };
    const named = await peopleNames(
      tx,
      me,
      [...open, ...own].flatMap((ask) => [ask.personId, ask.answeredBy]),
    );
    const toAnswer: AskLine[] = [];
    for (const ask of open) {
      if (ask.personId === me.id || (ask.passedTo !== null && ask.passedTo !== me.id)) continue;
      const mine = await resolveAt(tx, me, ask.nodeId, at);
      if (mine?.resolution.level !== "steward") continue;
      const theirs = await resolveAt(tx, ask.personId, ask.nodeId, at);
      if (theirs?.person.standing !== "active") continue;
      const others = await stewardsOf(tx, ask.nodeId, ask.personId, at);
      toAnswer.push({
        ...{ id: ask.id, nodeId: ask.nodeId, level: ask.level, until: ask.until, why: ask.why, askedAt: ask.askedAt },
        link: linkTo(mine.path),
        node: await nodeName(tx, ask.nodeId),
        person: named(ask.personId),
        site: ask.site,
        has: theirs.resolution.level,
        passedTo: ask.passedTo,
        others: others.filter(({ id }) => id !== me.id).map(({ id, name }) => ({ id, name })),
      });
    }
    const mine = own
      .filter(isOwnQuestion)
      .filter((ask) => ask.state === "open" || (ask.answeredAt ?? 0) > at - 7 * DAY_MS)
      .sort((a, b) => b.askedAt - a.askedAt);
    return {
      toAnswer: toAnswer.sort((a, b) => a.askedAt - b.askedAt),
      own: await Promise.all(
        mine.map(async (ask) => ({
          ...{ id: ask.id, level: ask.level, until: ask.until, why: ask.why, askedAt: ask.askedAt, state: ask.state },
          ...{ link: await linkIfKnown(tx, me, ask.nodeId, at), wanted: ask.nodeId },
          /** What it was called is known to whoever asked, as long as they may know of it. */
          node:
            ask.site !== ""
              ? `a login for ${ask.site}`
              : (await mayKnow(tx, me, ask.nodeId, at))
                ? await nodeName(tx, ask.nodeId)
                : "something you asked for",
          word: ask.word,
          given: ask.given,
          by: me.guest ? "" : named(ask.answeredBy),
        })),
      ),
    };
  },
});

/** A question by the address of a site is one for whoever asked it, however many entries it went to, if any. */
const isOwnQuestion = ({ site, nodeId, state }: Ask): boolean => site === "" || nodeId === "" || state === "yes";

const mayKnow = async (tx: Reader, me: NonNullable<Asking["me"]>, nodeId: string, at: number): Promise<boolean> =>
  requireKnown({ tx, me, at }, nodeId).then(
    () => true,
    () => false,
  );

/** Entries that staff may know of and cannot use yet, with their stewards. */
export const listedEntries = query({
  name: "access.listedEntries",
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, at }) => {
    if (me.guest) return [];
    const index = tx.access!;
    const rows = await tx
      .select({ id: entries.nodeId, name: entries.name, site: entries.site, vaultId: places.vaultId })
      .from(entries)
      .innerJoin(places, and(eq(places.nodeId, entries.nodeId), isNull(places.validUntil)))
      .where(and(eq(entries.listed, true), isNull(entries.binnedAt), isNull(entries.asideAt)));
    return rows
      .filter(({ id }) => {
        const resolution = index.resolve(me.id, id, at);
        return resolution?.level === "none" && !resolution.because.some((say) => say.grant.level === "blocked");
      })
      .map(({ id, name, site }) => ({
        ...{ id, name, site },
        stewards: index
          .stewards(id, at)
          .map((personId) => index.person(personId)!.name)
          .sort(),
      }))
      .sort(byName);
  },
});

/** Whether staff may know of an entry: its name, its site and its stewards, no more. */
export const setListed = command({
  name: "access.setListed",
  input: z.strictObject({ entryId: idSchema, listed: z.boolean() }),
  by: ["person"],
  allow: async (context) => {
    const { tx, me, at, input } = context;
    const found = await resolveAt(tx, me, input.entryId, at);
    const [entry] = await tx.select().from(entries).where(eq(entries.nodeId, input.entryId));
    if (!found || !entry || !atLeast(found.resolution.level, "use")) throw notFound();
    if (found.resolution.level !== "steward") throw new Refused("not-allowed", t.onlyItsStewardCanDoThat);
    return { name: entry.name, vaultId: found.path[0].vaultId };
  },
  run: async ({ tx, input }) => {
    await tx.update(entries).set({ listed: input.listed }).where(eq(entries.nodeId, input.entryId));
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { listed: input.listed },
    names: { [input.entryId]: allowed.name },
  }),
  says: ({ details, it }) => (details.listed ? `listed ${it} for all staff` : `stopped listing ${it}`),
  tell: () => ["everyone"],
});

/** What nobody answered: told again to whom it stands with, then to all stewards and the owners. */
export const remindOfRequests = command({
  name: "access.remindOfRequests",
  input: z.strictObject({}),
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, at }) => {
    const old = await tx
      .select()
      .from(asks)
      .where(and(eq(asks.state, "open"), ne(asks.nodeId, ""), lt(asks.askedAt, at - REMIND_AFTER_MS)));
    const told: string[] = [];
    const tell = async (ids: Iterable<string>, ask: Ask, ends: string) => {
      const asker = await loadPerson(tx, ask.personId, at);
      const text = await askText(tx, ask, asker?.name ?? "Someone", await nodeName(tx, ask.nodeId), at);
      for (const id of new Set(ids)) {
        await addNotice(tx, {
          to: id,
          at,
          sort: "requests",
          text: `${text} ${ends}`,
          nodeId: ask.nodeId,
          about: ask.id,
        });
        told.push(id);
      }
    };
    for (const ask of old) {
      const stewards = (await stewardsOf(tx, ask.nodeId, ask.personId, at)).map(({ id }) => id);
      if (ask.remindedAt === null) {
        await tell(ask.passedTo ? [ask.passedTo] : stewards, ask, t.itHasBeenWaitingForYourAnswer);
        await tx.update(asks).set({ remindedAt: at }).where(eq(asks.id, ask.id));
      } else if (ask.raisedAt === null && ask.askedAt < at - RAISE_AFTER_MS) {
        await tell(stewards, ask, t.nobodyHasAnsweredForThreeDays);
        await tellOwners(tx, ask, at, told);
        await tx.update(asks).set({ raisedAt: at, passedTo: null }).where(eq(asks.id, ask.id));
      }
    }
    return told;
  },
  journal: null,
  tell: ({ result }) => result.map((id): Topic => `person:${id}`),
});

/** An owner learns that a request waits, in which vault and with whom; not of what it is. */
async function tellOwners(tx: Transaction, ask: Ask, at: number, told: string[]): Promise<void> {
  const [node] = await loadPath(tx, ask.nodeId);
  const vault = node ? await nodeName(tx, node.vaultId) : "";
  const asker = await loadPerson(tx, ask.personId, at);
  for (const person of await loadByRole(tx, ["owner"], at))
    if (person.standing === "active" && person.id !== ask.personId) {
      const text = t.requestedAccessToSomethingIn(asker?.name ?? "Someone", vault);
      await addNotice(tx, { to: person.id, at, sort: "requests", text, about: ask.id });
      told.push(person.id);
    }
}
