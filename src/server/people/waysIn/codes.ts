/** One-time codes from an app (TOTP, RFC 6238), and recovery codes for the day there is none. */
import { and, eq, isNull, lt, or } from "drizzle-orm";
import { Secret } from "otpauth";
import { z } from "zod";
import { deriveKey, fromUtf8, hmac, open, randomBytes, seal, toHex, utf8 } from "../../../core/crypto";
import { type CodeSettings, codeAddress, codeAt } from "../../../core/signin/code";
import { command, none } from "../../command";
import type { Transaction } from "../../database/client";
import { codeApps, persons, recoveryCodes } from "../../database/schema";
import type { Galtry } from "../../galtry";
import { uuidv7 } from "../../ids";
import type { KeyRing } from "../../keys/keyFile";
import { loadHome } from "../../organisation";
import { Refused } from "../../refused";
import { attemptKey, forgetAttempts, takeAttempt } from "../attempts";
import { waysIn as t } from "../strings";
import { liftLimit } from "./required";
import { loadWays, requireJustProved } from "./ways";

const sealKey = (keys: KeyRing) => deriveKey(keys.fingerprints, "one-time codes for Galtry");
const binding = (personId: string) => ["code app", personId] as const;
/** Clocks differ: the code before and the one after count too (RFC 6238, 5.2). */
const STEPS = [-1, 0, 1];
const MOST_TRIES = 8;

const settingsOf = (secret: string): CodeSettings => ({ secret, digits: 6, period: 30, algorithm: "SHA1" });

async function secretOf(app: Galtry, row: typeof codeApps.$inferSelect): Promise<CodeSettings> {
  return settingsOf(fromUtf8(await open(await sealKey(app.keys), new Uint8Array(row.sealed), binding(row.personId))));
}

export const codeSchema = z
  .string()
  .max(40)
  .transform((text) => text.replace(/\s/g, ""));

/** A secret key for an app: it counts once a code of it was given. */
export const beginCodeApp = command({
  name: "people.beginCodeApp",
  evenFor: ["limited", "auditor"],
  input: none,
  by: ["person"],
  allow: requireJustProved,
  run: async ({ tx, me, at, app }) => {
    const secret = new Secret({ size: 20 }).base32;
    const sealed = Buffer.from(await seal(await sealKey(app.keys), utf8(secret), binding(me.id)));
    const [there] = await tx.select().from(codeApps).where(eq(codeApps.personId, me.id));
    if (there?.confirmedAt) throw new Refused("conflict", t.youHaveACodeAppAlready);
    await tx.delete(codeApps).where(eq(codeApps.personId, me.id));
    await tx.insert(codeApps).values({ id: uuidv7(), personId: me.id, sealed, createdAt: at });
    const [{ mail = "" } = {}] = await tx.select({ mail: persons.mail }).from(persons).where(eq(persons.id, me.id));
    const home = await loadHome(tx);
    return { secret, address: codeAddress(settingsOf(secret), mail, `Galtry, ${home.name}`) };
  },
  // Nothing has changed until a code was given.
  journal: null,
  tell: () => [],
});

/** Whether a code is one of the app's now; a step is taken once. Counts no try. */
async function takeCode(
  tx: Transaction,
  app: Galtry,
  personId: string,
  code: string,
  at: number,
  confirmed: boolean,
): Promise<boolean> {
  const [row] = await tx.select().from(codeApps).where(eq(codeApps.personId, personId));
  if (!row || (row.confirmedAt !== null) !== confirmed) return false;
  const settings = await secretOf(app, row);
  for (const ahead of STEPS) {
    const { code: right, step } = codeAt(settings, at + ahead * settings.period * 1000);
    if (right !== code) continue;
    const taken = await tx
      .update(codeApps)
      .set({ lastStep: step, lastUsedAt: at })
      .where(and(eq(codeApps.id, row.id), or(isNull(codeApps.lastStep), lt(codeApps.lastStep, step))))
      .returning({ id: codeApps.id });
    return taken.length > 0;
  }
  return false;
}

export const confirmCodeApp = command({
  name: "people.confirmCodeApp",
  evenFor: ["limited", "auditor"],
  input: z.strictObject({ code: codeSchema }),
  by: ["person"],
  mayPrepare: async (context) => requireJustProved(context),
  prepare: async ({ caller, at, app }) => {
    const key = attemptKey(app.keys, "code app", caller.personId);
    await takeAttempt(app, [{ key, most: MOST_TRIES }], at);
    return key;
  },
  allow: requireJustProved,
  run: async ({ tx, me, caller, input, at, app, prepared }) => {
    if (!(await takeCode(tx, app, me.id, input.code, at, false)))
      throw new Refused("bad-input", t.thisCodeIsNotRight, "code");
    await forgetAttempts(tx, prepared);
    await tx.update(codeApps).set({ confirmedAt: at }).where(eq(codeApps.personId, me.id));
    await liftLimit(tx, caller.sessionId, me.id, at);
  },
  journal: () => ({}),
  says: () => "set up one-time codes for signing in to Galtry",
  tell: () => [],
});

export const removeCodeApp = command({
  name: "people.removeCodeApp",
  evenFor: ["auditor"],
  input: none,
  by: ["person"],
  allow: async (context) => {
    requireJustProved(context);
    const ways = await loadWays(context.tx, context.me.id);
    if (!ways.codes) throw new Refused("conflict", t.youHaveNoCodeApp);
  },
  run: async ({ tx, me }) => {
    await tx.delete(codeApps).where(eq(codeApps.personId, me.id));
  },
  journal: () => ({}),
  says: () => "removed one-time codes for signing in to Galtry",
  tell: () => [],
});

const RECOVERY_CODES = 10;
/** Without letters and digits that are taken for each other. */
const LETTERS = "abcdefghjkmnpqrstuvwxyz23456789";

/** 50 bits, "abcde-fghjk". */
function newRecoveryCode(): string {
  const letters: string[] = [];
  while (letters.length < 10)
    for (const byte of randomBytes(16)) {
      // Bytes beyond the last whole run of the alphabet would favour its first letters.
      if (byte >= 256 - (256 % LETTERS.length) || letters.length === 10) continue;
      letters.push(LETTERS.charAt(byte % LETTERS.length));
    }
  return `${letters.slice(0, 5).join("")}-${letters.slice(5).join("")}`;
}

const recoveryHash = (app: Galtry, personId: string, code: string): string =>
  toHex(hmac(app.keys.fingerprints, utf8(`recovery code ${personId} ${code.toLowerCase().replace(/[^a-z0-9]/g, "")}`)));

/** Ten new ones in place of all that were before; shown this once. */
export const makeRecoveryCodes = command({
  name: "people.makeRecoveryCodes",
  evenFor: ["limited", "auditor"],
  input: none,
  by: ["person"],
  allow: requireJustProved,
  run: async ({ tx, me, at, app }) => {
    await tx.delete(recoveryCodes).where(eq(recoveryCodes.personId, me.id));
    const codes = Array.from({ length: RECOVERY_CODES }, newRecoveryCode);
    await tx
      .insert(recoveryCodes)
      .values(
        codes.map((code) => ({ id: uuidv7(), personId: me.id, hash: recoveryHash(app, me.id, code), createdAt: at })),
      );
    return { codes };
  },
  journal: () => ({}),
  says: () => "created new recovery codes",
  tell: () => [],
});

async function takeRecoveryCode(
  tx: Transaction,
  app: Galtry,
  personId: string,
  code: string,
  at: number,
): Promise<boolean> {
  const rows = await tx
    .update(recoveryCodes)
    .set({ usedAt: at })
    .where(
      and(
        eq(recoveryCodes.personId, personId),
        eq(recoveryCodes.hash, recoveryHash(app, personId, code)),
        isNull(recoveryCodes.usedAt),
      ),
    )
    .returning({ id: recoveryCodes.id });
  return rows.length > 0;
}

/** A code of the app, or a recovery code; each works once. */
export async function takeAnyCode(
  tx: Transaction,
  app: Galtry,
  personId: string,
  code: string,
  at: number,
): Promise<"code" | "recovery code" | null> {
  if (/^\d{6}$/.test(code)) return (await takeCode(tx, app, personId, code, at, true)) ? "code" : null;
  return (await takeRecoveryCode(tx, app, personId, code, at)) ? "recovery code" : null;
}
