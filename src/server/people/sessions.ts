/** Signing in and out, and the sessions a person has open. */
import { and, desc, eq, gt, isNull } from "drizzle-orm";
import { z } from "zod";
import { type Caller, isAdministrator } from "../caller";
import { command, idSchema, none, query } from "../command";
import type { Reader, Transaction } from "../database/client";
import { knownBrowsers, lanyards, persons, sessions } from "../database/schema";
import type { Galtry } from "../galtry";
import { uuidv7 } from "../ids";
import { notFound } from "../refused";
import { requireOther } from "./administrators";
import { attemptKey, forgetAttempts, takeAttempt } from "./attempts";
import { verifyPassword } from "./password";
import { sessions as t } from "./strings";
import { newToken, tokenHash } from "./tokens";

export const SESSION_IDLE_MS = 12 * 3_600_000;
export const SESSION_LONGEST_MS = 30 * 24 * 3_600_000;
export const MOST_TRIES_ACCOUNT = 8;

export const mailSchema = z.string().trim().toLowerCase().max(254).pipe(z.email(t.thisIsNotAnEmailAddress));

/** A session that an identity provider stands behind, and ends. */
export interface ByProvider {
  providerId: string;
  sid: string | null;
  /** When they signed in there; null where it does not say. Coming by an older session there shows nothing anew. */
  signedInAt: number | null;
}

export async function openSession(
  tx: Transaction,
  personId: string,
  caller: Pick<Extract<Caller, { kind: "nobody" }>, "address" | "browser">,
  at: number,
  via: ByProvider | null = null,
  limited = false,
) {
  const token = newToken();
  const sessionId = uuidv7();
  await tx.insert(sessions).values({
    id: sessionId,
    tokenHash: tokenHash(token),
    personId,
    createdAt: at,
    provedAt: via ? Math.min(via.signedInAt ?? 0, at) : at,
    lastSeenAt: at,
    expiresAt: at + SESSION_LONGEST_MS,
    browser: caller.browser,
    address: caller.address,
    providerId: via?.providerId ?? null,
    providerSid: via?.sid ?? null,
    limited,
  });
  return { sessionId, token };
}

/** The person behind a session cookie; null when there is none, it is idle too long or over. */
export async function sessionCaller(
  db: Reader & Pick<Transaction, "update">,
  token: string,
  at: number,
  from: { address: string; browser: string },
): Promise<Extract<Caller, { kind: "person" }> | null> {
  const [row] = await db
    .select()
    .from(sessions)
    .where(and(eq(sessions.tokenHash, tokenHash(token)), isNull(sessions.endedAt), gt(sessions.expiresAt, at)));
  if (!row || at - row.lastSeenAt > SESSION_IDLE_MS) return null;
  const { personId, id: sessionId, provedAt, limited } = row;
  return { kind: "person", personId, sessionId, provedAt, ...from, ...(limited && { limited }) };
}

/** Keeps the idle limit moving; at most once a minute, and it is no act. */
export const renewSession = command({
  name: "people.renewSession",
  evenFor: ["limited", "auditor"],
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, caller, at }) => {
    if (caller.kind === "person" && caller.sessionId)
      await tx.update(sessions).set({ lastSeenAt: at }).where(eq(sessions.id, caller.sessionId));
  },
  journal: null,
  tell: () => [],
});

export const signOut = command({
  name: "people.signOut",
  evenFor: ["limited", "auditor"],
  input: none,
  by: ["person"],
  allow: ({ caller }) => caller as Extract<Caller, { kind: "person" }>,
  run: async ({ tx, at, allowed }) => {
    if (allowed.sessionId) await tx.update(sessions).set({ endedAt: at }).where(eq(sessions.id, allowed.sessionId));
  },
  journal: () => ({}),
  says: () => "signed out of Galtry",
  tell: ({ allowed }) => [`person:${allowed.personId}`],
});

/**
 * Whether somebody's sign-in password is given; every try is counted until one is right.
 * @throws Refused too-many
 */
export async function proveByPassword(app: Galtry, personId: string, password: string, at: number): Promise<boolean> {
  const key = attemptKey(app.keys, "prove", personId);
  await takeAttempt(app, [{ key, most: MOST_TRIES_ACCOUNT }], at);
  const [person] = await app.db.select({ hash: persons.passwordHash }).from(persons).where(eq(persons.id, personId));
  const right = await verifyPassword(person?.hash ?? null, password);
  if (right) await app.writer.write((tx) => forgetAttempts(tx, key));
  return right;
}

/** Gives the sign-in password again, for grave acts. */
export const proveAgain = command({
  name: "people.proveAgain",
  evenFor: ["limited", "auditor"],
  input: z.strictObject({ password: z.string().max(200) }),
  by: ["person"],
  mayPrepare: async () => undefined,
  prepare: ({ input, caller, at, app }) => proveByPassword(app, caller.personId, input.password, at),
  allow: ({ caller }) => caller,
  run: async ({ tx, at, allowed, prepared: right }) => {
    if (!right) return { right: false };
    if (allowed.sessionId) await tx.update(sessions).set({ provedAt: at }).where(eq(sessions.id, allowed.sessionId));
    return { right: true };
  },
  journal: ({ result }) => ({ details: { right: result.right } }),
  says: ({ details }) => (details.right ? "entered their sign-in password again" : "entered a wrong sign-in password"),
  tell: () => [],
});

export const endSession = command({
  name: "people.endSession",
  evenFor: ["auditor"],
  input: z.strictObject({ sessionId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    const { tx, me, role, input } = context;
    const [row] = await tx.select().from(sessions).where(eq(sessions.id, input.sessionId));
    if (!row) throw notFound();
    if (row.personId === me.id) return { ...row, name: me.name };
    if (!role || !isAdministrator(role)) throw notFound();
    const { person } = await requireOther(context, row.personId);
    return { ...row, name: person.name };
  },
  run: async ({ tx, at, input }) => {
    await tx
      .update(sessions)
      .set({ endedAt: at })
      .where(and(eq(sessions.id, input.sessionId), isNull(sessions.endedAt)));
  },
  journal: ({ caller, allowed }) =>
    caller.personId === allowed.personId
      ? {}
      : { subject: allowed.personId, names: { [allowed.personId]: allowed.name } },
  says: ({ subject, own }) => (own ? "signed out one of their own sessions" : `signed out a session of ${subject}`),
  tell: ({ allowed }) => [`person:${allowed.personId}`],
});

/** One's own sessions and Lanyards. */
export const ownDevices = query({
  name: "people.ownDevices",
  input: none,
  by: ["person"],
  allow: ({ caller }) => caller as Extract<Caller, { kind: "person" }>,
  run: async ({ tx, at, allowed }) => {
    const [open, connected] = await Promise.all([
      tx
        .select()
        .from(sessions)
        .where(and(eq(sessions.personId, allowed.personId), isNull(sessions.endedAt), gt(sessions.expiresAt, at)))
        .orderBy(desc(sessions.lastSeenAt)),
      tx
        .select()
        .from(lanyards)
        .where(and(eq(lanyards.personId, allowed.personId), isNull(lanyards.endedAt), gt(lanyards.expiresAt, at)))
        .orderBy(desc(lanyards.lastUsedAt)),
    ]);
    return {
      sessions: open
        .filter((row) => at - row.lastSeenAt <= SESSION_IDLE_MS)
        .map((row) => ({
          id: row.id,
          browser: row.browser,
          address: row.address,
          createdAt: row.createdAt,
          lastSeenAt: row.lastSeenAt,
          current: row.id === allowed.sessionId,
        })),
      lanyards: connected.map((row) => ({
        id: row.id,
        browser: row.browser,
        version: row.version,
        createdAt: row.createdAt,
        lastUsedAt: row.lastUsedAt,
      })),
    };
  },
});

/** Ends everything a person has open; for suspension, renewal, leaving. Lanyards keep the reason to show it. */
export async function endAll(
  tx: Transaction,
  personId: string,
  at: number,
  by: string | null,
  why: string,
): Promise<void> {
  await tx
    .update(sessions)
    .set({ endedAt: at })
    .where(and(eq(sessions.personId, personId), isNull(sessions.endedAt)));
  await tx
    .update(lanyards)
    .set({ endedAt: at, endedBy: by, endedWhy: why })
    .where(and(eq(lanyards.personId, personId), isNull(lanyards.endedAt)));
}

/** From now on a sign-in of theirs from this browser is no news, and one from any other is. */
export async function rememberBrowser(tx: Transaction, personId: string, browserToken: string, at: number) {
  await tx
    .insert(knownBrowsers)
    .values({ tokenHash: tokenHash(browserToken), personId, lastUsedAt: at })
    .onConflictDoUpdate({ target: [knownBrowsers.tokenHash, knownBrowsers.personId], set: { lastUsedAt: at } });
}
