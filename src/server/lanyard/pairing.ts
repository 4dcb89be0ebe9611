/** Connecting a Lanyard: device authorization, RFC 8628, with the code presented by the Lanyard in that browser. */
import { and, eq, gt, isNull } from "drizzle-orm";
import { z } from "zod";
import { randomBytes } from "../../core/crypto";
import { isAdministrator, PROVED_FOR_MS, personIdOf } from "../caller";
import { command, idSchema, none, query } from "../command";
import type { Reader } from "../database/client";
import { lanyards, organisation, pairings, persons } from "../database/schema";
import { uuidv7 } from "../ids";
import { requireOther } from "../people/administrators";
import { attemptKey, countAttempt, requireFewAttempts } from "../people/attempts";
import { newToken, tokenHash } from "../people/tokens";
import { notFound, Refused } from "../refused";
import { pairing as t } from "./strings";

const PAIRING_MS = 10 * 60_000;
/** Of one address in a quarter of an hour: an office behind one address connects many browsers on its first day. */
const MOST_PAIRINGS = 200;
const LONGEST_MS = 90 * 24 * 3_600_000;
const UNUSED_MS = 30 * 24 * 3_600_000;
/** No vowels, so that no words come about; no look-alikes (RFC 8628 section 6.1). */
const LETTERS = "BCDFGHJKLMNPQRSTVWXZ";

function newUserCode(): string {
  let code = "";
  while (code.length < 8) {
    const [byte] = randomBytes(1);
    if (byte! < 240) code += LETTERS[byte! % 20];
  }
  return `${code.slice(0, 4)}-${code.slice(4)}`;
}

const browserSchema = z.string().trim().min(1).max(200);
const versionSchema = z.string().regex(/^\d+(\.\d+){0,3}$/);

/** Asked by a Lanyard that nobody has connected yet; `thumbprint` is of the key its proof was signed with. */
export const startPairing = command({
  name: "lanyard.startPairing",
  input: z.strictObject({ browser: browserSchema, version: versionSchema, thumbprint: z.string().max(64) }),
  by: ["nobody"],
  internal: true,
  allow: async ({ tx, caller, at, app }) => {
    const key = attemptKey(app.keys, "pairing", (caller as { address: string }).address);
    await requireFewAttempts(tx, key, MOST_PAIRINGS, at);
    await countAttempt(tx, key, at);
  },
  run: async ({ tx, input, at }) => {
    const deviceCode = newToken();
    const userCode = newUserCode();
    await tx.insert(pairings).values({
      id: uuidv7(),
      deviceHash: tokenHash(deviceCode),
      userCode,
      ...input,
      createdAt: at,
      expiresAt: at + PAIRING_MS,
    });
    return { deviceCode, userCode, expiresIn: PAIRING_MS / 1000, interval: 1 };
  },
  journal: null,
  tell: () => [],
});

const userCodeSchema = z.string().regex(/^[B-Z]{4}-[B-Z]{4}$/, t.thisIsNotACodeThatLanyard);

/** The pairing that waits under a code; undefined when it was used, stopped or has run out. */
async function openPairing(tx: Reader, userCode: string, at: number) {
  const open = and(gt(pairings.expiresAt, at), isNull(pairings.confirmedAt), isNull(pairings.stoppedAt));
  return (
    await tx
      .select()
      .from(pairings)
      .where(and(eq(pairings.userCode, userCode), open))
  )[0];
}

/** What the confirm page shows for the code that Lanyard in this browser presented. */
export const pairingFor = query({
  name: "lanyard.pairingFor",
  input: z.strictObject({ userCode: userCodeSchema }),
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, input, at }) => {
    const row = await openPairing(tx, input.userCode, at);
    if (!row) throw notFound();
    return {
      userCode: row.userCode,
      browser: row.browser,
      expiresAt: row.expiresAt,
    };
  },
});

export const confirmPairing = command({
  name: "lanyard.confirmPairing",
  input: z.strictObject({ userCode: userCodeSchema }),
  by: ["person"],
  allow: async ({ tx, input, caller, at }) => {
    if (caller.kind !== "person" || at - caller.provedAt > PROVED_FOR_MS)
      throw new Refused("prove-again", t.connectingWantsARecentSignIn);
    const row = await openPairing(tx, input.userCode, at);
    if (!row) throw new Refused("not-found", t.thisCodeHasExpiredOrWasUsed);
    return row;
  },
  run: async ({ tx, caller, at, allowed }) => {
    await tx
      .update(pairings)
      .set({ confirmedBy: personIdOf(caller), confirmedAt: at })
      .where(eq(pairings.id, allowed.id));
  },
  journal: ({ allowed }) => ({ details: { browser: allowed.browser } }),
  says: ({ details }) => `connected Lanyard in ${details.browser}`,
  tell: () => [],
});

/** Asked by Lanyard until somebody has confirmed. */
export const takeToken = command({
  name: "lanyard.takeToken",
  input: z.strictObject({ deviceCode: z.string().max(100), thumbprint: z.string().max(64) }),
  by: ["nobody"],
  internal: true,
  allow: async ({ tx, input, at }) => {
    const [row] = await tx
      .select()
      .from(pairings)
      .where(eq(pairings.deviceHash, tokenHash(input.deviceCode)));
    if (
      !row ||
      row.thumbprint !== input.thumbprint ||
      row.takenAt !== null ||
      row.stoppedAt !== null ||
      row.expiresAt <= at
    )
      throw new Refused("ended", t.thisConnectionWasNotConfirmed);
    return row;
  },
  run: async ({ tx, at, allowed }) => {
    if (allowed.confirmedBy === null) return { state: "waiting" as const };
    const token = newToken();
    const lanyardId = uuidv7();
    await tx.update(pairings).set({ takenAt: at }).where(eq(pairings.id, allowed.id));
    await tx.insert(lanyards).values({
      id: lanyardId,
      personId: allowed.confirmedBy,
      tokenHash: tokenHash(token),
      thumbprint: allowed.thumbprint,
      browser: allowed.browser,
      version: allowed.version,
      createdAt: at,
      lastUsedAt: at,
      expiresAt: at + LONGEST_MS,
    });
    const [person] = await tx.select({ name: persons.name }).from(persons).where(eq(persons.id, allowed.confirmedBy));
    const [app] = await tx.select({ name: organisation.name }).from(organisation);
    return {
      state: "connected" as const,
      token,
      lanyardId,
      personId: allowed.confirmedBy,
      person: person?.name ?? "",
      organisation: app?.name ?? "",
    };
  },
  journal: ({ result, allowed }) =>
    result.state === "connected"
      ? { person: result.personId, details: { lanyard: result.lanyardId, browser: allowed.browser } }
      : null,
  says: () => null,
  tell: ({ result }) => (result.state === "connected" ? [`person:${result.personId}`] : []),
});

export interface LanyardRow {
  id: string;
  personId: string;
  thumbprint: string;
}

/** The Lanyard behind a token, unless it has ended or lain unused. `why` says how it ended. */
export const lanyardFor = query({
  name: "lanyard.lanyardFor",
  input: z.strictObject({ token: z.string().max(100) }),
  by: ["nobody"],
  internal: true,
  allow: () => undefined,
  run: async ({
    tx,
    input,
    at,
  }): Promise<{ lanyard: LanyardRow | null; why: string | null; endedAt: number | null; endedBy: string | null }> => {
    const [row] = await tx
      .select()
      .from(lanyards)
      .where(eq(lanyards.tokenHash, tokenHash(input.token)));
    if (!row) return { lanyard: null, why: null, endedAt: null, endedBy: null };
    if (row.endedAt !== null) {
      const [by] = row.endedBy
        ? await tx.select({ name: persons.name }).from(persons).where(eq(persons.id, row.endedBy))
        : [];
      return { lanyard: null, why: row.endedWhy, endedAt: row.endedAt, endedBy: by?.name ?? null };
    }
    if (row.expiresAt <= at || at - row.lastUsedAt > UNUSED_MS)
      return {
        lanyard: null,
        why: "it expired",
        endedAt: Math.min(row.expiresAt, row.lastUsedAt + UNUSED_MS),
        endedBy: null,
      };
    return {
      lanyard: { id: row.id, personId: row.personId, thumbprint: row.thumbprint },
      why: null,
      endedAt: null,
      endedBy: null,
    };
  },
});

export const renewLanyard = command({
  name: "lanyard.renewLanyard",
  evenFor: ["no-lanyard"],
  input: none,
  by: ["lanyard"],
  internal: true,
  allow: () => undefined,
  run: async ({ tx, caller, at }) => {
    if (caller.kind === "lanyard")
      await tx.update(lanyards).set({ lastUsedAt: at }).where(eq(lanyards.id, caller.lanyardId));
  },
  journal: null,
  tell: () => [],
});

/** Ended from either side: by the Lanyard itself, its person, or an administrator. */
export const endLanyard = command({
  name: "lanyard.endLanyard",
  evenFor: ["auditor", "no-lanyard"],
  input: z.strictObject({ lanyardId: idSchema.optional(), why: z.string().trim().max(200).default("") }),
  by: ["person", "lanyard"],
  allow: async (context) => {
    const { tx, caller, input, role } = context;
    const id = caller.kind === "lanyard" ? caller.lanyardId : input.lanyardId;
    if (!id) throw notFound();
    const [row] = await tx.select().from(lanyards).where(eq(lanyards.id, id));
    if (!row || (row.personId !== personIdOf(caller) && !(role && isAdministrator(role)))) throw notFound();
    if (row.personId !== personIdOf(caller)) await requireOther(context, row.personId);
    return row;
  },
  run: async ({ tx, input, caller, at, allowed }) => {
    await tx
      .update(lanyards)
      .set({ endedAt: at, endedBy: personIdOf(caller), endedWhy: input.why || null })
      .where(and(eq(lanyards.id, allowed.id), isNull(lanyards.endedAt)));
  },
  journal: ({ allowed, input }) => ({ subject: allowed.personId, details: { lanyard: allowed.id, why: input.why } }),
  says: ({ subject, own, why }) => `disconnected a Lanyard${own ? "" : ` of ${subject}`}${why}`,
  tell: ({ allowed }) => [`person:${allowed.personId}`],
});
