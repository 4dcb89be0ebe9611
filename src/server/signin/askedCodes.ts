/**
 * Codes that a site sends to a steward: asked of them while the sign-in waits, wherever they are in Galtry or have
 * Lanyard open. The code goes to the site and nowhere else; whoever signs in is never shown it.
 */
import { and, eq, gt, isNull, lt, or } from "drizzle-orm";
import { z } from "zod";
import { fromUtf8, open, seal, utf8 } from "../../core/crypto";
import type { OnProgress } from "../../core/signin/outcome";
import { requireLevel, resolveAt } from "../access/load";
import type { Person } from "../access/person";
import { stewardsAt } from "../access/stewards";
import { knownTo } from "../access/who";
import type { Caller } from "../caller";
import { type Context, command, idSchema, query } from "../command";
import type { Reader, Transaction } from "../database/client";
import { askedCodes, entries, persons, signIns } from "../database/schema";
import type { Galtry } from "../galtry";
import { uuidv7 } from "../ids";
import { attemptKey, attemptsOf, countAttempt } from "../people/attempts";
import { notFound, Refused } from "../refused";
import { vaultKey } from "../vaults/vaultKeys";
import { SignInFailure } from "./guardedClient";
import { askedCodes as t } from "./strings";

/** What an entry says of the codes that its site sends: any of its stewards receives them. Otherwise a person's id. */
export const ANY_STEWARD = "stewards";

/** So long a sign-in waits for codes in all. */
export const MOST_CODE_WAIT_MS = 120_000;
/** So often one person's sign-ins with one entry may wait for nothing in a quarter of an hour. */
const MOST_UNANSWERED = 3;
const LOOK_EVERY_MS = 300;
const SAY_EVERY_MS = 5_000;
/** The process that waits takes its code before anybody sweeps it up. */
const GRACE_MS = 10_000;
const KEPT_MS = 3_600_000;

const binding = (vaultId: string, id: string) => ["asked code", vaultId, id] as const;

const receives = (reaches: string, personId: string): boolean => reaches === ANY_STEWARD || reaches === personId;

/** A code as sites send them; digits may be typed in groups. */
const codeSchema = z
  .string()
  .trim()
  .max(40)
  .transform((typed) => (/^[\d\s-]+$/.test(typed) ? typed.replace(/\D/g, "") : typed))
  .refine((code) => /^[\p{L}\p{N}-]{3,20}$/u.test(code), t.aCodeHasThreeTo20);

/** Asks them; nobody where they have been asked in vain too often. */
export const askForCode = command({
  name: "signIn.askForCode",
  input: z.strictObject({ signInId: idSchema, waitMs: z.number().int().positive().max(MOST_CODE_WAIT_MS) }),
  by: ["lanyard", "person"],
  internal: true,
  allow: async (context) => {
    const { tx, me, input, app } = context;
    const [row] = await tx
      .select({ entryId: signIns.entryId, reaches: entries.codesReach })
      .from(signIns)
      .innerJoin(entries, eq(entries.nodeId, signIns.entryId))
      .where(and(eq(signIns.id, input.signInId), eq(signIns.personId, me.id), isNull(signIns.endedAt)));
    if (!row) throw new Refused("ended", t.thisSignInHasAlreadyEnded);
    const { vaultId } = await requireLevel(context, row.entryId, "use");
    return { ...row, vaultId, key: attemptKey(app.keys, "code", `${me.id} ${row.entryId}`) };
  },
  run: async ({ tx, me, at, input, allowed: { entryId, reaches, vaultId, key } }) => {
    if ((await attemptsOf(tx, key, at)) >= MOST_UNANSWERED) return { asked: null, why: "too-often" as const };
    const asked = (await stewardsAt(tx, entryId, at)).filter(({ id }) => receives(reaches, id));
    if (asked.length === 0) return { asked: null, why: "nobody" as const };
    // Counted until somebody answers.
    await countAttempt(tx, key, at);
    const [id, until] = [uuidv7(), at + input.waitMs];
    const { signInId } = input;
    await tx.insert(askedCodes).values({ id, signInId, entryId, vaultId, reaches, askedAt: at, until });
    return { asked: { id, names: await knownTo(tx, me, asked), ids: asked.map((one) => one.id) }, why: null };
  },
  journal: null,
  tell: ({ result }) => (result.asked?.ids ?? []).map((id) => `person:${id}` as const),
});

const isOpen = (at: number) => and(isNull(askedCodes.closedAt), gt(askedCodes.until, at));

/** The asking, where it is still open and of this person. @throws Refused */
async function requireAsked({ tx, me, at }: Pick<Context<unknown>, "tx" | "at"> & { me: Person }, id: string) {
  const [row] = await tx
    .select({ row: askedCodes, name: entries.name, signer: signIns.personId })
    .from(askedCodes)
    .innerJoin(entries, eq(entries.nodeId, askedCodes.entryId))
    .innerJoin(signIns, eq(signIns.id, askedCodes.signInId))
    .where(eq(askedCodes.id, id));
  if (!row || !(await isAsked(tx, me, row.row, at))) throw notFound();
  const { closedAt, until, answeredBy } = row.row;
  if (closedAt !== null || until <= at) throw new Refused("ended", t.theSignInNoLongerWaits);
  if (answeredBy !== null) throw new Refused("ended", t.someoneElseHasEnteredIt);
  return row;
}

/** A steward of the entry now, and one of those its codes reach. */
async function isAsked(tx: Reader, me: Person, row: { entryId: string; reaches: string }, at: number) {
  if (!receives(row.reaches, me.id)) return false;
  return (await resolveAt(tx, me, row.entryId, at))?.resolution.level === "steward";
}

/** The code, or that none came. */
export const giveCode = command({
  name: "signIn.giveCode",
  input: z.strictObject({ id: idSchema, code: codeSchema.nullable() }),
  by: ["lanyard", "person"],
  allow: (context) => requireAsked(context, context.input.id),
  run: async ({ tx, me, at, app, input: { id, code }, allowed: { row } }) => {
    if (code === null) {
      const declined = [...new Set([...row.declined, me.id])];
      await tx.update(askedCodes).set({ declined }).where(eq(askedCodes.id, id));
      return;
    }
    const { key, version } = await vaultKey(tx, app.keys, row.vaultId);
    const sealed = Buffer.from(await seal(key, utf8(code), binding(row.vaultId, id)));
    await tx
      .update(askedCodes)
      .set({ sealed, keyVersion: version, answeredBy: me.id, answeredAt: at })
      .where(eq(askedCodes.id, id));
  },
  journal: ({ input, allowed: { row, name, signer } }) => ({
    node: row.entryId,
    vault: row.vaultId,
    subject: signer,
    details: { none: input.code === null },
    names: { [row.entryId]: name },
  }),
  says: ({ details, subject, own, place }) => {
    const whose = own ? "their own sign-in" : `the sign-in of ${subject}`;
    return details.none
      ? `received no code from the site for ${whose}${place("with")}`
      : `entered the code that the site sent, for ${whose}${place("with")}`;
  },
  tell: ({ allowed: { row } }) => [`vault:${row.vaultId}`],
});

/** How an asking stands; it is looked at again and again while a sign-in waits. */
export const codeStands = query({
  name: "signIn.codeStands",
  input: z.strictObject({ id: idSchema }),
  by: ["lanyard", "person"],
  internal: true,
  allow: async ({ tx, me, input }) => {
    const [row] = await tx
      .select({ row: askedCodes })
      .from(askedCodes)
      .innerJoin(signIns, eq(signIns.id, askedCodes.signInId))
      .where(and(eq(askedCodes.id, input.id), eq(signIns.personId, me.id)));
    if (!row) throw notFound();
    return row.row;
  },
  run: async ({ tx, at, allowed: { entryId, reaches, answeredAt, declined, until } }) => {
    if (answeredAt !== null) return "given" as const;
    if (until <= at) return "over" as const;
    if (declined.length === 0) return "waits" as const;
    const asked = (await stewardsAt(tx, entryId, at)).filter(({ id }) => receives(reaches, id));
    return asked.every(({ id }) => declined.includes(id)) ? ("declined" as const) : ("waits" as const);
  },
});

/** Closes an asking, whatever came of it, and takes the code: it is nowhere any more then. */
export const takeCode = command({
  name: "signIn.takeCode",
  input: z.strictObject({ id: idSchema }),
  by: ["server"],
  internal: true,
  allow: async ({ tx, input }) => {
    const [row] = await tx
      .select({ row: askedCodes, personId: signIns.personId })
      .from(askedCodes)
      .innerJoin(signIns, eq(signIns.id, askedCodes.signInId))
      .where(eq(askedCodes.id, input.id));
    return row && { ...row.row, personId: row.personId };
  },
  run: async ({ tx, at, app, allowed }) => {
    if (!allowed) return { code: null, told: [] };
    const { id, vaultId, entryId, sealed, keyVersion, reaches, personId } = allowed;
    const told = (await stewardsAt(tx, entryId, at)).filter((one) => receives(reaches, one.id)).map((one) => one.id);
    await tx.update(askedCodes).set({ closedAt: at, sealed: null, keyVersion: null }).where(eq(askedCodes.id, id));
    if (!sealed || keyVersion === null) return { code: null, told };
    await countAttempt(tx, attemptKey(app.keys, "code", `${personId} ${entryId}`), at, -1);
    const { key } = await vaultKey(tx, app.keys, vaultId, keyVersion);
    return { code: fromUtf8(await open(key, sealed, binding(vaultId, id))), told };
  },
  journal: null,
  tell: ({ result }) => result.told.map((id) => `person:${id}` as const),
});

/** What nobody waits for any more, also where the process that waited is gone. */
export async function sweepCodes(tx: Transaction, at: number): Promise<void> {
  await tx
    .update(askedCodes)
    .set({ closedAt: at, sealed: null, keyVersion: null })
    .where(and(isNull(askedCodes.closedAt), lt(askedCodes.until, at - GRACE_MS)));
  await tx.delete(askedCodes).where(lt(askedCodes.askedAt, at - KEPT_MS));
}

/** Codes that are sealed with an older key of a vault: the sign-in asks again. */
export async function dropCodes(tx: Transaction, vaultId: string, before: number): Promise<void> {
  await tx
    .update(askedCodes)
    .set({ sealed: null, keyVersion: null, answeredAt: null, answeredBy: null })
    .where(
      and(
        isNull(askedCodes.closedAt),
        gt(askedCodes.until, 0),
        eq(askedCodes.vaultId, vaultId),
        lt(askedCodes.keyVersion, before),
      ),
    );
}

/** A sign-in that waits for a code which its reader receives. */
export interface AskedCode {
  id: string;
  entry: { id: string; name: string };
  /** Who signs in; null where it is the reader. */
  person: string | null;
  /** Milliseconds since 1970. */
  until: number;
}

/** What a person is asked for now. */
export async function codesAskedOf(tx: Reader, me: Person, at: number): Promise<AskedCode[]> {
  const rows = await tx
    .select({ row: askedCodes, entry: entries.name, person: persons.name, personId: persons.id })
    .from(askedCodes)
    .innerJoin(entries, eq(entries.nodeId, askedCodes.entryId))
    .innerJoin(signIns, eq(signIns.id, askedCodes.signInId))
    .innerJoin(persons, eq(persons.id, signIns.personId))
    .where(and(isOpen(at), or(eq(askedCodes.reaches, ANY_STEWARD), eq(askedCodes.reaches, me.id))))
    .orderBy(askedCodes.until);
  const mine: AskedCode[] = [];
  for (const { row, entry, person, personId } of rows) {
    if (row.answeredAt !== null || row.declined.includes(me.id) || !(await isAsked(tx, me, row, at))) continue;
    const whose = personId === me.id ? null : person;
    mine.push({ id: row.id, entry: { id: row.entryId, name: entry }, person: whose, until: row.until });
  }
  return mine;
}

type Signer = Extract<Caller, { kind: "lanyard" | "person" }>;

/**
 * Asks for one code and waits for it.
 * @throws SignInFailure code-not-given, code-missing; too-slow where the colleague goes away
 */
export async function waitForCode(
  app: Galtry,
  caller: Signer,
  { signInId, waitMs }: { signInId: string; waitMs: number },
  onProgress: OnProgress,
  signal: AbortSignal,
): Promise<string> {
  if (waitMs < 1) throw new SignInFailure("code-not-given", "the site asked for codes for too long");
  const { asked, why } = await askForCode.execute(app, { signInId, waitMs }, caller);
  if (!asked)
    throw why === "nobody"
      ? new SignInFailure("code-missing", "the person who receives its codes is no longer a steward of the entry")
      : new SignInFailure("code-not-given", "stewards were asked three times and did not answer");
  const { id, names } = asked;
  const end = Date.now() + waitMs;
  const say = () => onProgress("code-asked", { names, leftMs: Math.max(0, end - Date.now()) });
  // Said again and again: whatever stands between keeps a line open on which something is said.
  const saying = setInterval(say, SAY_EVERY_MS);
  say();
  const take = () => takeCode.execute(app, { id }, { kind: "server" });
  try {
    const stands = await untilAnswered(app, caller, id, signal);
    const { code } = await take();
    if (signal.aborted) throw new SignInFailure("too-slow", "it was stopped");
    if (code !== null) return code;
    const none = stands === "declined" ? "the stewards who were asked received none" : "nobody entered it in time";
    throw new SignInFailure("code-not-given", none);
  } catch (error) {
    // Their access has ended meanwhile: nobody is asked for nothing.
    if (!(error instanceof SignInFailure)) await take();
    throw error;
  } finally {
    clearInterval(saying);
  }
}

async function untilAnswered(app: Galtry, caller: Signer, id: string, signal: AbortSignal) {
  for (;;) {
    await new Promise((done) => setTimeout(done, LOOK_EVERY_MS));
    if (signal.aborted) return "over";
    const stands = await codeStands.execute(app, { id }, caller);
    if (stands !== "waits") return stands;
  }
}
