/**
 * Approval on another device: the sign-in page shows a number of six digits, and its person types it where they are
 * signed in already, sees from where it comes and since when, and approves or declines. Nobody is ever asked unprompted:
 * without the number nothing shows anywhere.
 */
import { randomInt } from "node:crypto";
import { and, eq, gt, isNull, sql } from "drizzle-orm";
import { z } from "zod";
import { command, query } from "../../command";
import type { Reader } from "../../database/client";
import { deviceSignIns } from "../../database/schema";
import type { KeyRing } from "../../keys/keyFile";
import { notFound, Refused } from "../../refused";
import { attemptKey, attemptsOf, countAttempt, takeAttempt } from "../attempts";
import { enter } from "../entering";
import { proveByPassword } from "../sessions";
import { waysIn as t } from "../strings";
import { newToken, tokenHash } from "../tokens";
import { requireJustProved } from "./ways";

/** So long a number stands. */
export const DEVICE_MS = 100_000;
const DIGITS = 6;
/** Numbers of one address, and of all, that stand at once or were begun in a quarter of an hour. */
const MOST_ADDRESS = 20;
const MOST_OPEN = 2_000;
/** After so many that are not right it rests, for a quarter of an hour. */
const MOST_MISTYPED = 3;

const numberSchema = z
  .string()
  .transform((text) => text.replace(/\s/g, ""))
  .pipe(z.string().regex(/^\d{6}$/, t.aNumberHasSixDigits));

const hashOf = (keys: KeyRing, number: string) => attemptKey(keys, "device number", number);

const isOpen = (at: number) =>
  and(
    gt(deviceSignIns.expiresAt, at),
    isNull(deviceSignIns.usedAt),
    isNull(deviceSignIns.declinedAt),
    isNull(deviceSignIns.approvedBy),
  );

/** On the sign-in page. Two numbers that stand at once are never the same. */
export const beginDeviceSignIn = command({
  name: "people.beginDeviceSignIn",
  input: z.strictObject({}),
  by: ["nobody"],
  prepare: async ({ caller, at, app }) => {
    const address = "address" in caller ? caller.address : "";
    await takeAttempt(app, [{ key: attemptKey(app.keys, "device", address), most: MOST_ADDRESS }], at);
  },
  allow: () => undefined,
  run: async ({ tx, caller, at, app }) => {
    const [open] = await tx.select({ count: sql<number>`count(*)` }).from(deviceSignIns).where(isOpen(at));
    if ((open?.count ?? 0) >= MOST_OPEN) throw new Refused("too-many", t.tooManyAtOnce);
    const number = await freeNumber(tx, app.keys, at);
    const token = newToken();
    await tx.insert(deviceSignIns).values({
      ...{ id: crypto.randomUUID(), tokenHash: tokenHash(token), numberHash: hashOf(app.keys, number) },
      ...{ browser: caller.browser, address: caller.address, createdAt: at, expiresAt: at + DEVICE_MS },
    });
    return { waiting: token, number, until: at + DEVICE_MS };
  },
  journal: null,
  tell: () => [],
});

async function freeNumber(tx: Reader, keys: KeyRing, at: number): Promise<string> {
  for (;;) {
    const number = String(randomInt(10 ** DIGITS)).padStart(DIGITS, "0");
    const [taken] = await tx
      .select({ id: deviceSignIns.id })
      .from(deviceSignIns)
      .where(and(eq(deviceSignIns.numberHash, hashOf(keys, number)), gt(deviceSignIns.expiresAt, at)));
    if (!taken) return number;
  }
}

async function openByNumber(tx: Reader, keys: KeyRing, number: string, at: number) {
  const [row] = await tx
    .select()
    .from(deviceSignIns)
    .where(and(eq(deviceSignIns.numberHash, hashOf(keys, number)), isOpen(at)));
  return row ?? null;
}

const guessKey = (keys: KeyRing, personId: string) => attemptKey(keys, "device number typed", personId);

/** @throws Refused too-many for whoever has mistyped it too often */
async function requireRested(tx: Reader, keys: KeyRing, personId: string, at: number): Promise<void> {
  if ((await attemptsOf(tx, guessKey(keys, personId), at)) >= MOST_MISTYPED)
    throw new Refused("too-many", t.theNumberRests);
}

/** What waits behind a number that was typed; a wrong one is an answer, so that the try it counts is kept. */
export const typeDeviceNumber = command({
  name: "people.typeDeviceNumber",
  evenFor: ["auditor"],
  input: z.strictObject({ number: numberSchema }),
  by: ["person", "lanyard"],
  allow: ({ tx, me, at, app }) => requireRested(tx, app.keys, me.id, at),
  run: async ({ tx, me, input, at, app }) => {
    const row = await openByNumber(tx, app.keys, input.number, at);
    if (row) return { browser: row.browser, address: row.address, since: row.createdAt, until: row.expiresAt };
    await countAttempt(tx, guessKey(app.keys, me.id), at);
    return null;
  },
  journal: null,
  tell: () => [],
});

/**
 * The browser that shows the number is signed in as whoever approves. It must just have been shown that it is them: on a
 * page as for other grave acts, in Lanyard's window by the sign-in password, since its browser may be anybody's now.
 */
export const answerDevice = command({
  name: "people.answerDevice",
  evenFor: ["auditor"],
  input: z.strictObject({
    number: numberSchema,
    approve: z.boolean(),
    /** In Lanyard's window, to approve. */
    password: z.string().max(200).optional(),
  }),
  by: ["person", "lanyard"],
  mayPrepare: ({ tx, me, at, app }) => requireRested(tx, app.keys, me.id, at),
  prepare: async ({ input, caller, at, app }) => {
    if (caller.kind !== "lanyard" || !input.approve) return;
    if (input.password === undefined) throw new Refused("prove-again", t.proveFirst);
    if (!(await proveByPassword(app, caller.personId, input.password, at)))
      throw new Refused("bad-input", t.wrongSignInPassword, "password");
  },
  allow: async (context) => {
    const { tx, me, input, caller, at, app } = context;
    await requireRested(tx, app.keys, me.id, at);
    if (input.approve && caller.kind === "person") requireJustProved({ caller, at });
    const row = await openByNumber(tx, app.keys, input.number, at);
    if (!row) throw new Refused("ended", t.theNumberHasExpired);
    return row;
  },
  run: async ({ tx, me, input, at, app, allowed }) => {
    const change = input.approve ? { approvedBy: me.id } : { declinedAt: at };
    await tx.update(deviceSignIns).set(change).where(eq(deviceSignIns.id, allowed.id));
    if (!input.approve) await countAttempt(tx, guessKey(app.keys, me.id), at);
  },
  journal: ({ input, allowed }) => ({ details: { approved: input.approve, browser: allowed.browser } }),
  says: ({ details }) =>
    `${details.approved ? "approved" : "declined"} a sign-in on another device (${details.browser})`,
  tell: () => [],
});

/** What the waiting browser asks now and then: still waiting, declined, or in. */
export const finishDeviceSignIn = command({
  name: "people.finishDeviceSignIn",
  input: z.strictObject({ waiting: z.string().max(100) }),
  by: ["nobody"],
  allow: async ({ tx, input, at }) => {
    const [row] = await tx
      .select()
      .from(deviceSignIns)
      .where(eq(deviceSignIns.tokenHash, tokenHash(input.waiting)));
    if (!row || row.usedAt !== null) throw notFound();
    if (row.declinedAt !== null) throw new Refused("not-allowed", t.itWasDeclined);
    if (row.approvedBy === null || row.expiresAt <= at) throw new Refused("ended", t.theNumberHasExpired);
    return { id: row.id, personId: row.approvedBy };
  },
  run: async ({ tx, caller, at, app, allowed }) => {
    await tx.update(deviceSignIns).set({ usedAt: at }).where(eq(deviceSignIns.id, allowed.id));
    const entered = await enter(tx, app, allowed.personId, caller, at);
    if (!entered) throw new Refused("ended", t.startAgain);
    return entered;
  },
  journal: ({ result }) => ({ person: result.personId, names: { [result.personId]: result.name } }),
  says: () => "signed in to Galtry by approval on another device",
  tell: ({ result }) => [`person:${result.personId}`],
});

/** Whether a number has been answered. It is looked at every two seconds, so it writes nothing and says no more. */
export const deviceState = query({
  name: "people.deviceState",
  input: z.strictObject({ waiting: z.string().max(100) }),
  by: ["nobody"],
  allow: () => undefined,
  run: async ({ tx, input, at }): Promise<"waiting" | "approved" | "declined" | "expired"> => {
    const [row] = await tx
      .select()
      .from(deviceSignIns)
      .where(eq(deviceSignIns.tokenHash, tokenHash(input.waiting)));
    if (!row || row.expiresAt <= at || row.usedAt !== null) return "expired";
    return row.declinedAt !== null ? "declined" : row.approvedBy !== null ? "approved" : "waiting";
  },
});
