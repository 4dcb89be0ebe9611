/** Signing in with email address and sign-in password; a second step may come after it. */
import { and, eq, sql } from "drizzle-orm";
import { z } from "zod";
import type { Caller } from "../caller";
import { command } from "../command";
import type { Reader, Transaction } from "../database/client";
import { failedSignIns, knownBrowsers, persons } from "../database/schema";
import { Refused } from "../refused";
import { attemptKey, forgetAttempts, giveBackAttempt, takeAttempt } from "./attempts";
import { enter, standingOf } from "./entering";
import { verifyPassword } from "./password";
import { MOST_TRIES_ACCOUNT, mailSchema } from "./sessions";
import { sessions as t } from "./strings";
import { tokenHash } from "./tokens";
import { openSecondStep } from "./waysIn/secondStep";
import { loadWays, needsSecondStep } from "./waysIn/ways";

const MOST_TRIES_ADDRESS = 60;

const WRONG = t.theEmailAddressOrTheSignIn;

/**
 * Signs in by mail address and sign-in password. A wrong pair is an answer, not a refusal, so that the attempt
 * it counts is kept; known and unknown addresses answer alike and take alike.
 */
export const signIn = command({
  name: "people.signIn",
  input: z.strictObject({ mail: mailSchema, password: z.string().max(200) }),
  by: ["nobody"],
  prepare: async ({ input, caller, at, app }) => {
    if (caller.kind !== "nobody") throw new Refused("not-allowed", t.signOutFirst);
    const known = await isKnownBrowser(app.db, caller.knownBrowser, input.mail);
    // A browser the person has signed in from counts for itself: guessing elsewhere never shuts it out.
    const account = attemptKey(app.keys, known ? `account ${caller.knownBrowser}` : "account", input.mail);
    const address = attemptKey(app.keys, "address", caller.address);
    const most = known ? Number.POSITIVE_INFINITY : MOST_TRIES_ADDRESS;
    const keys = [
      { key: account, most: MOST_TRIES_ACCOUNT },
      { key: address, most },
    ];
    await takeAttempt(app, keys, at);
    const [person] = await app.db
      .select({ hash: persons.passwordHash })
      .from(persons)
      .where(eq(persons.mail, input.mail));
    return { account, address, right: await verifyPassword(person?.hash ?? null, input.password) };
  },
  allow: ({ caller }) => caller as Extract<Caller, { kind: "nobody" }>,
  run: async ({ tx, input, at, app, allowed, prepared: { right, account, address } }) => {
    const [person] = await tx.select().from(persons).where(eq(persons.mail, input.mail));
    const standing = person ? await standingOf(tx, person.id, at) : null;
    if (!right || !person || standing !== "active") {
      if (person) await countFailure(tx, person.id, at);
      return { signedIn: false as const, message: WRONG };
    }
    await forgetAttempts(tx, account);
    await giveBackAttempt(tx, address, at);
    const ways = await loadWays(tx, person.id);
    if (needsSecondStep(ways))
      return { signedIn: false as const, message: "", second: await openSecondStep(tx, person.id, ways, at) };
    const entered = await enter(tx, app, person.id, allowed, at);
    return entered ?? { signedIn: false as const, message: WRONG };
  },
  journal: ({ result }) =>
    result.signedIn ? { person: result.personId, names: { [result.personId]: result.name } } : null,
  says: () => "signed in to Galtry",
  tell: ({ result }) => (result.signedIn ? [`person:${result.personId}`] : []),
});

async function isKnownBrowser(tx: Reader, browserToken: string | null, mail: string): Promise<boolean> {
  if (browserToken === null) return false;
  const [row] = await tx
    .select({ id: persons.id })
    .from(knownBrowsers)
    .innerJoin(persons, eq(persons.id, knownBrowsers.personId))
    .where(and(eq(knownBrowsers.tokenHash, tokenHash(browserToken)), eq(persons.mail, mail)));
  return row !== undefined;
}

async function countFailure(tx: Transaction, personId: string, at: number) {
  const minute = Math.floor(at / 60_000);
  await tx
    .insert(failedSignIns)
    .values({ personId, minute, count: 1 })
    .onConflictDoUpdate({
      target: [failedSignIns.personId, failedSignIns.minute],
      set: { count: sql`${failedSignIns.count} + 1` },
    });
}
