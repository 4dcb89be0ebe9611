/**
 * Sealed sign-in: two commands stand around the network. *Begin* checks Use and journals; *hand over* checks
 * person, Lanyard, level and version again and journals the outcome.
 */
import { and, eq, inArray, isNotNull, isNull, lt, or, sql } from "drizzle-orm";
import { z } from "zod";
import { atLeast } from "../../core/access";
import { fromUtf8, open, seal, utf8 } from "../../core/crypto";
import { hostOf } from "../../core/signin/address";
import { FAILURES, type Failure, type OnProgress, type SignInOutcome } from "../../core/signin/outcome";
import { matches } from "../../core/signin/site";
import { requireLevel, resolveAt } from "../access/load";
import { requireSecretGates } from "../access/requests/accepting";
import { reachEnd } from "../access/stewards";
import { type Caller, personIdOf } from "../caller";
import { command, idSchema } from "../command";
import type { Reader, Transaction } from "../database/client";
import { entries, entryVersions, fingerprints, firstSeen, signIns, usedCodes } from "../database/schema";
import type { Galtry } from "../galtry";
import { uuidv7 } from "../ids";
import { Refused } from "../refused";
import { requireInUse, requireOutOfBin } from "../vaults/entries";
import { fingerprint, loginOf, orSealError } from "../vaults/sealing";
import { openValues, vaultKey } from "../vaults/vaultKeys";
import { MOST_CODE_WAIT_MS, sweepCodes, waitForCode } from "./askedCodes";
import { BrowserEngine } from "./browser/browserEngine";
import { Deadline } from "./deadline";
import {
  type ChangeEngine,
  ENGINES,
  type EngineName,
  type HandedCookie,
  type HandedStorage,
  type Login,
  type SignedIn,
  type SignInEngine,
  type SignInTask,
} from "./engine";
import { Engines } from "./engines";
import { SignInFailure } from "./guardedClient";
import { HttpEngine } from "./httpEngine";
import { closeBrokenChanges } from "./passwordChanges";
import { closeBrokenRunItems } from "./runs";
import { sealed as t } from "./strings";

/** Longer than any sign-in works. */
export const LONGEST_SIGN_IN_MS = 90_000;
/** And longer than any takes, the wait for a code that a steward receives included. */
const LONGEST_IN_ALL_MS = LONGEST_SIGN_IN_MS + MOST_CODE_WAIT_MS;

type LanyardCaller = Extract<Caller, { kind: "lanyard" }>;
/** Who signs in: a Lanyard, which gets the session; or a person in Galtry itself, who only tries whether it works. */
type Signer = LanyardCaller | Extract<Caller, { kind: "person" }>;
/** What the site is told of the browser that asks. */
export interface SeenAs {
  userAgent: string;
  acceptLanguage: string;
}

/** What one sign-in needs of its entry, in one statement. */
export async function entryFor(tx: Reader, entryId: string, personId: string | null, at: number) {
  // The same user name at the same host is one account, whichever entry keeps it.
  const queueKey = sql<string>`${entries.host} || ' ' || coalesce(${fingerprints.fingerprint}, ${entries.nodeId})`;
  const [row] = await tx
    .select({
      entry: {
        nodeId: entries.nodeId,
        name: entries.name,
        signInPage: entries.signInPage,
        reach: entries.reach,
        steps: entries.steps,
        plainHttp: entries.plainHttp,
        codesReach: entries.codesReach,
        guardedFill: entries.guardedFill,
        signInEngine: entries.signInEngine,
        changePage: entries.changePage,
        binnedAt: entries.binnedAt,
        asideAt: entries.asideAt,
        asksFirst: entries.asksFirst,
      },
      version: {
        id: entryVersions.id,
        entryId: entryVersions.entryId,
        vaultId: entryVersions.vaultId,
        keyVersion: entryVersions.keyVersion,
        sealed: entryVersions.sealed,
        refusedAt: entryVersions.refusedAt,
      },
      queueKey,
      busy: sql<number>`exists (select 1 from ${signIns} where queue_key = ${queueKey} and ended_at is null
        and begun_at > ${at - LONGEST_IN_ALL_MS})`,
      known: sql<number>`exists (select 1 from ${firstSeen} where person_id = ${personId} and entry_id = ${entryId})`,
    })
    .from(entries)
    .innerJoin(entryVersions, eq(entryVersions.id, entries.versionId))
    .leftJoin(fingerprints, and(eq(fingerprints.versionId, entryVersions.id), eq(fingerprints.field, "userName")))
    .where(eq(entries.nodeId, entryId));
  return row;
}

export type EntryFor = NonNullable<Awaited<ReturnType<typeof entryFor>>>;

export const beginSignIn = command({
  name: "signIn.beginSignIn",
  input: z.strictObject({ entryId: idSchema }),
  by: ["lanyard", "person"],
  internal: true,
  allow: async (context) => {
    const { tx, me, input, at } = context;
    const tests = context.caller.kind === "person";
    const held = await requireLevel(context, input.entryId, tests ? "edit" : "use");
    const found = requireOutOfBin(await entryFor(tx, input.entryId, me.id, at), held);
    requireInUse(found.entry);
    await requireSecretGates(context, found.entry, held.vaultId, held.level);
    if (found.entry.signInPage === "") throw new Refused("conflict", t.thisEntryHasNoSignInPage);
    return { held, found };
  },
  run: async ({ tx, input, caller, at, allowed: { held, found }, app }) => {
    const { personId } = caller as Signer;
    const { entry, version } = found;
    const read = { entry, version, mayEdit: atLeast(held.level, "edit") };
    if (version.refusedAt !== null) return { ...read, begun: false as const, why: "refused-before" as const };
    if (found.busy) return { ...read, begun: false as const, why: "busy" as const };
    const signInId = uuidv7();
    await tx.insert(signIns).values({
      id: signInId,
      entryId: input.entryId,
      versionId: version.id,
      personId,
      lanyardId: caller.kind === "lanyard" ? caller.lanyardId : "",
      how: caller.kind === "lanyard" ? "sealed" : "tested",
      queueKey: found.queueKey,
      process: app.process,
      begunAt: at,
    });
    if (!found.known) await tx.insert(firstSeen).values({ personId, entryId: input.entryId, at }).onConflictDoNothing();
    return { ...read, begun: true as const, signInId };
  },
  journal: ({ input, result, allowed }) =>
    result.begun
      ? {
          node: input.entryId,
          vault: allowed.held.vaultId,
          details: { signIn: result.signInId },
          names: { [input.entryId]: result.entry.name },
        }
      : null,
  says: () => null,
  tell: () => [],
});

const outcomeSchema = z.enum(["signed-in", ...(Object.keys(FAILURES) as Failure[])]);

export const handOver = command({
  name: "signIn.handOver",
  input: z.strictObject({
    signInId: idSchema,
    outcome: outcomeSchema,
    detail: z.string().max(300),
    jar: z.string().nullable(),
    by: z.enum(ENGINES).nullable().default(null),
  }),
  by: ["lanyard", "person"],
  internal: true,
  allow: async ({ tx, me, input, at }) => {
    const [begun] = await tx
      .select({
        row: {
          how: signIns.how,
          entryId: signIns.entryId,
          versionId: signIns.versionId,
          personId: signIns.personId,
          endedAt: signIns.endedAt,
        },
        entry: {
          name: entries.name,
          versionId: entries.versionId,
          binnedAt: entries.binnedAt,
          asideAt: entries.asideAt,
        },
      })
      .from(signIns)
      .leftJoin(entries, eq(entries.nodeId, signIns.entryId))
      .where(eq(signIns.id, input.signInId));
    if (!begun || begun.row.endedAt !== null || begun.row.personId !== me.id)
      throw new Refused("ended", t.thisSignInHasAlreadyEnded);
    const { row, entry } = begun;
    const now = await resolveAt(tx, me, row.entryId, at);
    const still =
      now !== null &&
      atLeast(now.resolution.level, "use") &&
      entry !== null &&
      entry.binnedAt === null &&
      entry.asideAt === null &&
      entry.versionId === row.versionId;
    return {
      row,
      entry,
      vaultId: now?.path[0]?.vaultId ?? null,
      still,
      accessEnds: still ? reachEnd(now, "use", at) : null,
    };
  },
  run: async ({ tx, input, at, allowed, app }) => {
    // Access may have ended while the site answered: then nothing is handed over.
    const outcome: SignInOutcome = input.outcome === "signed-in" && !allowed.still ? "access-ended" : input.outcome;
    const kept =
      outcome === "signed-in" && input.jar !== null && allowed.vaultId
        ? await sealJar(tx, app, allowed.vaultId, input.signInId, input.jar)
        : {};
    await endSignIn(tx, input, allowed.row, outcome, at, kept);
    return { outcome, accessEnds: allowed.accessEnds };
  },
  journal: ({ input, result, allowed }) => ({
    node: allowed.row.entryId,
    vault: allowed.vaultId,
    details: {
      signIn: input.signInId,
      outcome: result.outcome,
      ...(allowed.row.how === "tested" && { tried: true }),
    },
    names: { [allowed.row.entryId]: allowed.entry?.name ?? "" },
  }),
  says: ({ details, it, place }) => {
    const how =
      details.outcome === "signed-in"
        ? null
        : (FAILURES[details.outcome as Exclude<SignInOutcome, "signed-in">]?.title ?? "failed");
    if (details.tried) return how === null ? `tested ${it}: it works` : `tested ${it}: the site ${how}`;
    return how === null
      ? `signed in${place("with")} (sealed sign-in)`
      : `tried to sign in${place("with")}: the site ${how}`;
  },
  tell: ({ allowed }) => [
    `person:${allowed.row.personId}`,
    ...(allowed.vaultId ? [`vault:${allowed.vaultId}` as const] : []),
  ],
});

/** What becomes of it: how it ended, which engine got in, and that a version which the site rejected is not sent again. */
export async function endSignIn(
  tx: Transaction,
  { signInId, detail, by }: { signInId: string; detail: string; by: EngineName | null },
  { entryId, versionId, how }: Pick<typeof signIns.$inferSelect, "entryId" | "versionId" | "how">,
  outcome: SignInOutcome,
  at: number,
  kept: Partial<typeof signIns.$inferInsert> = {},
): Promise<void> {
  // Of a test nobody has the session.
  const session = how === "tested" ? { signedOutAt: at } : kept;
  await tx
    .update(signIns)
    .set({ endedAt: at, outcome, detail, ...session })
    .where(eq(signIns.id, signInId));
  if (by !== null) await tx.update(entries).set({ signInEngine: by }).where(eq(entries.nodeId, entryId));
  if (outcome === "wrong-password")
    await tx.update(entryVersions).set({ refusedAt: at }).where(eq(entryVersions.id, versionId));
}

async function sealJar(
  tx: Parameters<typeof vaultKey>[0],
  app: Galtry,
  vaultId: string,
  signInId: string,
  jar: string,
) {
  const { key, version } = await vaultKey(tx, app.keys, vaultId);
  return { jar: Buffer.from(await seal(key, utf8(jar), ["sign-in jar", vaultId, signInId])), keyVersion: version };
}

/** Sessions that were handed over with entries that move to another vault: sealed anew under its key. */
export async function moveJars(tx: Transaction, app: Galtry, entryIds: string[], from: string, to: string) {
  const rows = await tx
    .select({ id: signIns.id, jar: signIns.jar, keyVersion: signIns.keyVersion })
    .from(signIns)
    .where(and(inArray(signIns.entryId, entryIds), isNotNull(signIns.jar)));
  await resealJars(tx, app, rows, from, to);
}

type SealedJar = Pick<typeof signIns.$inferSelect, "id" | "jar" | "keyVersion">;

/** Seals jars anew with the newest key of a vault. One that does not open signs nobody out any more: it is forgotten. */
export async function resealJars(
  tx: Transaction,
  app: Galtry,
  rows: readonly SealedJar[],
  from: string,
  to: string,
): Promise<void> {
  for (const row of rows) {
    const { key } = await vaultKey(tx, app.keys, from, row.keyVersion!);
    const jar = await open(key, row.jar!, ["sign-in jar", from, row.id]).catch(orSealError);
    await tx
      .update(signIns)
      .set(jar ? await sealJar(tx, app, to, row.id, fromUtf8(jar)) : { jar: null })
      .where(eq(signIns.id, row.id));
  }
}

/** Opens a kept jar, to sign out at the site. */
export async function openJar(app: Galtry, vaultId: string, row: SealedJar): Promise<HandedCookie[]> {
  if (!row.jar || row.keyVersion === null) return [];
  const { key } = await vaultKey(app.db, app.keys, vaultId, row.keyVersion);
  return JSON.parse(fromUtf8(await open(key, row.jar, ["sign-in jar", vaultId, row.id])));
}

/** Claims a time step of a code, so that no two sign-ins send the same one. */
export const claimCode = command({
  name: "signIn.claimCode",
  input: z.strictObject({ fingerprint: z.string(), step: z.number().int() }),
  by: ["lanyard", "person", "server"],
  internal: true,
  allow: () => undefined,
  run: async ({ tx, input }) => {
    await tx
      .delete(usedCodes)
      .where(and(eq(usedCodes.fingerprint, input.fingerprint), lt(usedCodes.step, input.step - 20)));
    const claimed = await tx.insert(usedCodes).values(input).onConflictDoNothing().returning();
    return claimed.length > 0;
  },
  journal: null,
  tell: () => [],
});

export type SealedAnswer =
  | {
      outcome: "signed-in";
      cookies: HandedCookie[];
      storage: HandedStorage[];
      landing: string;
      accessEnds: number | null;
      signInId: string;
      entry: { id: string; name: string };
    }
  | { outcome: Failure; detail: string | null; guardedFill: boolean; entry: { id: string; name: string } };

/**
 * The whole of one sealed sign-in for one Lanyard.
 * @throws Refused when the person may not use the entry
 */
export async function sealedSignIn(
  app: Galtry,
  caller: LanyardCaller,
  entryId: string,
  onProgress: OnProgress,
  signal: AbortSignal,
  engine: SignInEngine = defaultEngine(app),
): Promise<SealedAnswer> {
  const begun = await beginInTurn(app, caller, entryId, onProgress, signal);
  const named = { id: begun.entry.nodeId, name: begun.entry.name };
  const sees = (detail: string) => (begun.mayEdit ? detail : null);
  if (!("signInId" in begun))
    return {
      outcome: "refused-before",
      detail: sees("the site rejected this version"),
      guardedFill: false,
      entry: named,
    };

  const seenAs = { userAgent: caller.browser, acceptLanguage: caller.language };
  const result = await attempt(app, caller, seenAs, begun, { onProgress }, signal, engine);
  const ended = await handOver.execute(
    app,
    {
      signInId: begun.signInId,
      outcome: result.outcome,
      detail: result.detail,
      jar: result.session ? JSON.stringify(result.session.cookies) : null,
      by: result.session?.by ?? null,
    },
    caller,
  );
  if (ended.outcome !== "signed-in" || !result.session)
    return {
      outcome: ended.outcome as Failure,
      detail: sees(result.detail),
      guardedFill: begun.entry.guardedFill,
      entry: named,
    };
  return {
    outcome: "signed-in",
    cookies: endingWith(result.session.cookies, ended.accessEnds),
    storage: result.session.storage,
    landing: result.session.landing,
    accessEnds: ended.accessEnds,
    signInId: begun.signInId,
    entry: named,
  };
}

/** Plain HTTP first, and the browser where the installation has one. */
export function defaultEngine(app: Galtry): SignInEngine & ChangeEngine {
  const { guard, pages } = outside(app);
  const browser = app.signInBrowser ? new BrowserEngine(app.signInBrowser, guard, pages) : null;
  return new Engines(new HttpEngine(guard, pages), browser);
}

const outside = (app: Galtry) => ({
  guard: { allowedTargets: app.configuration.allowedTargets, ownPort: app.configuration.port },
  pages: requirePages(app),
});

function requirePages({ pages }: Galtry) {
  if (!pages) throw new Error("no pages are read in this process");
  return pages;
}

export interface Begun {
  versionId: string;
  entry: EntryFor["entry"];
  login: Promise<Login>;
  mayEdit: boolean;
  signInId: string;
}

/** Waits while another sign-in to the same account at the same host is under way. */
export async function beginInTurn(
  app: Galtry,
  caller: Signer,
  entryId: string,
  onProgress: OnProgress,
  signal: AbortSignal,
): Promise<Begun | Pick<Begun, "entry" | "mayEdit">> {
  for (const start = Date.now(); ; ) {
    const begun = await beginSignIn.execute(app, { entryId }, caller);
    if (begun.begun)
      return {
        ...begun,
        versionId: begun.version.id,
        login: openValues(app.db, app.keys, begun.version).then(loginOf),
      };
    if (begun.why === "refused-before") return begun;
    onProgress("waiting");
    if (Date.now() - start > LONGEST_SIGN_IN_MS || signal.aborted)
      throw new Refused("too-many", t.othersAreSigningInToTheSame);
    await new Promise((resolve) => setTimeout(resolve, 120));
  }
}

/** What a visit is made with; without a sign-in of a person's there is nobody for whom a code could be asked. */
export type Attempted = Pick<Begun, "entry" | "login"> & Partial<Pick<Begun, "signInId">>;

/** One visit to the site, whatever comes of it. */
export async function attempt(
  app: Galtry,
  caller: Visitor,
  seenAs: SeenAs,
  begun: Attempted,
  told: Pick<SignInTask, "onProgress" | "onPage" | "onPicture">,
  signal: AbortSignal,
  engine: SignInEngine,
): Promise<{ outcome: SignInOutcome; detail: string; session: SignedIn | null }> {
  try {
    const session = await visiting(app, caller, seenAs, begun, told, signal, (task) => engine.signIn(task));
    return { outcome: "signed-in", detail: "", session };
  } catch (error) {
    if (error instanceof SignInFailure) return { outcome: error.failure, detail: error.detail, session: null };
    // Never the error's own text: it could hold what was sent.
    return {
      outcome: "not-understood",
      detail: `an unexpected ${error instanceof Error ? error.name : "error"}`,
      session: null,
    };
  }
}

export type Visitor = Signer | Extract<Caller, { kind: "server" }>;

/** What an engine gets for one visit, for as long as that may take. */
export async function visiting<R>(
  app: Galtry,
  caller: Visitor,
  seenAs: SeenAs,
  { entry, login, signInId }: Attempted,
  told: Pick<SignInTask, "onProgress" | "onPage" | "onPicture">,
  signal: AbortSignal,
  work: (task: SignInTask) => Promise<R>,
): Promise<R> {
  const allowedHosts = new Set(entry.steps.hosts);
  const deadline = new Deadline(LONGEST_SIGN_IN_MS - 5_000);
  let waitMs = MOST_CODE_WAIT_MS;
  const askCode =
    entry.codesReach !== "" && signInId !== undefined && caller.kind !== "server"
      ? () =>
          deadline.standStill(async () => {
            const began = Date.now();
            try {
              return await waitForCode(app, caller, { signInId, waitMs }, told.onProgress, signal);
            } finally {
              waitMs -= Date.now() - began;
            }
          })
      : undefined;
  try {
    return await work({
      signInPage: entry.signInPage,
      login,
      steps: entry.steps,
      plainHttp: entry.plainHttp,
      worked: entry.signInEngine,
      allows: (address) => matches(entry, address) || allowedHosts.has(hostOf(address) ?? ""),
      ...seenAs,
      ...told,
      signal: AbortSignal.any([signal, deadline.signal]),
      ...(askCode && { askCode }),
      claimCode: async (step) => {
        const mark = fingerprint(app.keys, "code", (await login).code!.secret);
        return claimCode.execute(app, { fingerprint: mark, step }, caller);
      },
    });
  } finally {
    deadline.end();
  }
}

/** Cookies live no longer than the access they come from. */
function endingWith(cookies: HandedCookie[], accessEnds: number | null): HandedCookie[] {
  if (accessEnds === null) return cookies;
  const end = Math.floor(accessEnds / 1000);
  return cookies.map((cookie) => ({ ...cookie, expires: Math.min(cookie.expires ?? end, end) }));
}

/** What a landing page that asks again means: after a fill it was the site that refused, else it is the address. */
const failureOf = ({ how }: { how: string }): "wrong-password" | "tied-to-address" =>
  how === "guarded" ? "wrong-password" : "tied-to-address";

export const reportLanding = command({
  name: "signIn.reportLanding",
  input: z.strictObject({ signInId: idSchema, signedIn: z.boolean() }),
  by: ["lanyard"],
  allow: async ({ tx, caller, input }) => {
    const [row] = await tx.select().from(signIns).where(eq(signIns.id, input.signInId));
    if (!row || row.personId !== personIdOf(caller) || row.outcome !== "signed-in")
      throw new Refused("not-found", t.thisSignInDoesNotExist);
    return row;
  },
  run: async ({ tx, input, allowed }) => {
    if (input.signedIn) return;
    await tx
      .update(signIns)
      .set({ outcome: failureOf(allowed), detail: "the landing page asks to sign in again" })
      .where(eq(signIns.id, input.signInId));
    // What plain HTTP brought did not hold: the next try begins with the browser.
    await tx
      .update(entries)
      .set({ signInEngine: "browser" })
      .where(and(eq(entries.nodeId, allowed.entryId), eq(entries.signInEngine, "http")));
  },
  journal: ({ input, allowed }) =>
    input.signedIn ? null : { node: allowed.entryId, details: { signIn: input.signInId, outcome: failureOf(allowed) } },
  says: ({ place }) => `reached the site, but was not signed in${place("with")}`,
  tell: ({ allowed }) => [`person:${allowed.personId}`],
});

/** Closes sign-ins whose process is gone; at start and from time to time. */
export const closeBrokenOff = command({
  name: "signIn.closeBrokenOff",
  input: z.strictObject({ deadProcesses: z.array(z.string()) }),
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, input, at }) => {
    await sweepCodes(tx, at);
    await closeBrokenChanges(tx, input.deadProcesses, at);
    const owners = await closeBrokenRunItems(tx, input.deadProcesses, at);
    const dead = input.deadProcesses.map((name) => eq(signIns.process, name));
    const rows = await tx
      .update(signIns)
      .set({ endedAt: at, outcome: "broken-off", detail: "Galtry was stopped" })
      .where(and(isNull(signIns.endedAt), or(lt(signIns.begunAt, at - LONGEST_IN_ALL_MS - 30_000), ...dead)))
      .returning();
    return { rows: rows.map(({ entryId, id, personId }) => ({ entryId, signInId: id, personId })), owners };
  },
  journal: ({ result }) =>
    result.rows.map((row) => ({
      person: row.personId,
      node: row.entryId,
      details: { signIn: row.signInId, outcome: "broken-off" },
    })),
  says: ({ place }) => `was signing in${place("with")} when Galtry stopped`,
  tell: ({ result: { rows, owners } }) =>
    [...rows.map(({ personId }) => personId), ...owners].flatMap((id) =>
      id === null ? [] : [`person:${id}` as const],
    ),
});
