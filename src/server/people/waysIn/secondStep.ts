/** After a right sign-in password: a code, a recovery code or a passkey, within minutes and a few tries. */
import { and, eq, gt, isNull, lt, sql } from "drizzle-orm";
import { z } from "zod";
import { command, idSchema } from "../../command";
import type { Reader, Transaction } from "../../database/client";
import { secondSteps } from "../../database/schema";
import { Refused } from "../../refused";
import { attemptKey, forgetAttempts, takeAttempt } from "../attempts";
import { enter } from "../entering";
import { waysIn as t } from "../strings";
import { addNotice } from "../telling";
import { newToken, tokenHash } from "../tokens";
import { askForPasskey, responseSchema } from "./ceremonies";
import { codeSchema, takeAnyCode } from "./codes";
import { takePasskey } from "./passkeys";
import { loadWays, type Ways } from "./ways";

const STEP_MS = 5 * 60_000;
/** Of one step; and of one person in a quarter of an hour, over all their steps. */
const MOST_TRIES = 5;
const MOST_TRIES_PERSON = 10;

export interface SecondStep {
  token: string;
  passkey: boolean;
  code: boolean;
  recovery: boolean;
}

/** Opens the second step for somebody whose sign-in password was right. */
export async function openSecondStep(tx: Transaction, personId: string, ways: Ways, at: number): Promise<SecondStep> {
  const token = newToken();
  await tx.insert(secondSteps).values({ tokenHash: tokenHash(token), personId, expiresAt: at + STEP_MS });
  return { token, passkey: ways.passkeys > 0, code: ways.codes, recovery: ways.recoveryLeft > 0 };
}

const tokenSchema = z.string().max(100);
const ended = () => new Refused("ended", t.startAgain);

async function requireStep(tx: Reader, token: string, at: number) {
  const [row] = await tx
    .select()
    .from(secondSteps)
    .where(
      and(
        eq(secondSteps.tokenHash, tokenHash(token)),
        isNull(secondSteps.usedAt),
        gt(secondSteps.expiresAt, at),
        lt(secondSteps.tries, MOST_TRIES),
      ),
    );
  if (!row) throw ended();
  return row;
}

/** A challenge for one of the person's own passkeys. */
export const beginSecondPasskey = command({
  name: "people.beginSecondPasskey",
  input: z.strictObject({ token: tokenSchema }),
  by: ["nobody"],
  allow: ({ tx, input, at }) => requireStep(tx, input.token, at),
  run: ({ tx, at, app, allowed: { personId } }) => askForPasskey(tx, app, "second", personId, at),
  journal: null,
  tell: () => [],
});

/** A wrong code is an answer, not a refusal, so that the try it counts is kept. */
export const finishSignIn = command({
  name: "people.finishSignIn",
  input: z.strictObject({
    token: tokenSchema,
    code: codeSchema.optional(),
    passkey: z.strictObject({ ceremonyId: idSchema, response: responseSchema }).optional(),
  }),
  by: ["nobody"],
  mayPrepare: ({ tx, input, at }) => requireStep(tx, input.token, at),
  prepare: async ({ input, at, app }) => {
    const step = await requireStep(app.db, input.token, at);
    const key = attemptKey(app.keys, "second step", step.personId);
    await takeAttempt(app, [{ key, most: MOST_TRIES_PERSON }], at);
    return key;
  },
  allow: ({ tx, input, at }) => requireStep(tx, input.token, at),
  run: async ({ tx, caller, input, at, app, prepared, allowed: { personId, tokenHash: hash } }) => {
    // Of many at once each is a try of this step.
    await tx
      .update(secondSteps)
      .set({ tries: sql`${secondSteps.tries} + 1` })
      .where(eq(secondSteps.tokenHash, hash));
    const wrong = (message: string) => ({ signedIn: false as const, message });
    let how: string | null = null;
    if (input.passkey) {
      const found = await takePasskey(tx, app, { ...input.passkey, kind: "second", of: personId, at });
      if (found?.copied)
        await addNotice(tx, { to: personId, at, sort: "security", text: t.aPasskeyWasCopied(found.copied) });
      how = found && !found.copied ? "passkey" : null;
      if (how === null) return wrong(t.passkeyNotRecognised);
    } else {
      how = await takeAnyCode(tx, app, personId, input.code ?? "", at);
      if (how === null) return wrong(t.thisCodeIsNotRight);
    }
    await tx.update(secondSteps).set({ usedAt: at }).where(eq(secondSteps.tokenHash, hash));
    await forgetAttempts(tx, prepared);
    if (how === "recovery code") {
      const { recoveryLeft } = await loadWays(tx, personId);
      await addNotice(tx, { to: personId, at, sort: "security", text: t.aRecoveryCodeWasUsed(recoveryLeft) });
    }
    const entered = await enter(tx, app, personId, caller, at);
    return entered ? { ...entered, how } : wrong(t.passkeyNotRecognised);
  },
  journal: ({ result }) =>
    result.signedIn
      ? { person: result.personId, details: { how: result.how }, names: { [result.personId]: result.name } }
      : null,
  says: ({ details }) => `signed in to Galtry with a second step (${details.how})`,
  tell: ({ result }) => (result.signedIn ? [`person:${result.personId}`] : []),
});
