/**
 * Tests: a sign-in that nobody gets the session of, tried by somebody with Edit, or by Galtry itself at night. Its
 * report stays with the entry until the next one.
 */
import { and, eq, inArray, sql } from "drizzle-orm";
import { z } from "zod";
import { open, seal } from "../../core/crypto";
import { carriesSecret, tracesOf } from "../../core/signin/carries";
import { FAILURES, type Failure, type OnProgress, type SignInOutcome } from "../../core/signin/outcome";
import { type TestedPage, testedPageSchema } from "../../core/signin/testReport";
import { requireLevel } from "../access/load";
import { requireSecretGates } from "../access/requests/accepting";
import { type Caller, personIdOf } from "../caller";
import { command, idSchema, query } from "../command";
import type { Transaction } from "../database/client";
import { entries, places, signInTests } from "../database/schema";
import type { Galtry } from "../galtry";
import { goesOn } from "../log";
import { tellStewards } from "../people/telling";
import { notFound } from "../refused";
import { requireEntry } from "../vaults/entries";
import { vaultKey } from "../vaults/vaultKeys";
import type { SignedIn, SignInEngine } from "./engine";
import { type Attempted, attempt, type Begun, beginInTurn, defaultEngine, handOver, type SeenAs } from "./sealed";
import { visitSignOut } from "./signingOut";
import { testing as t } from "./strings";

/** What a test found. */
export interface Tested {
  outcome: SignInOutcome;
  detail: string;
  pages: TestedPage[];
}

/**
 * Tries once whether what is kept lets somebody in, and keeps of it nothing but the report.
 * @throws Refused when the person may not edit the entry
 */
export async function testEntry(
  app: Galtry,
  caller: Extract<Caller, { kind: "person" }>,
  seenAs: SeenAs,
  entryId: string,
  signal: AbortSignal,
  onProgress: OnProgress = () => undefined,
  engine: SignInEngine = defaultEngine(app),
): Promise<Tested> {
  const begun = await beginInTurn(app, caller, entryId, onProgress, signal);
  if (!("signInId" in begun)) return { outcome: "refused-before", detail: "the site rejected this version", pages: [] };
  const { session, picture, ...tested } = await testOnce(app, caller, seenAs, begun, signal, engine, onProgress);
  const { outcome, detail } = tested;
  const by = session?.by ?? null;
  const ended = await handOver.execute(app, { signInId: begun.signInId, outcome, detail, jar: null, by }, caller);
  const found = { ...tested, outcome: ended.outcome };
  await saveTest.execute(app, { entryId, versionId: begun.versionId, ...found, picture }, caller);
  return found;
}

/** One visit with its report, and out again where the steps say how. */
export async function testOnce(
  app: Galtry,
  caller: Parameters<typeof attempt>[1],
  seenAs: SeenAs,
  begun: Attempted,
  signal: AbortSignal,
  engine: SignInEngine,
  onProgress: OnProgress = () => undefined,
): Promise<Tested & { session: SignedIn | null; picture: Uint8Array | null }> {
  const pages: TestedPage[] = [];
  let picture: Uint8Array | null = null;
  const told = {
    onProgress,
    onPage: (page: TestedPage) => void (pages.length < MOST_PAGES && pages.push(page)),
    onPicture: (taken: Uint8Array) => {
      picture = taken;
    },
  };
  const tried = await attempt(app, caller, seenAs, begun, told, signal, engine);
  const { signOutPage } = begun.entry.steps;
  if (tried.session && signOutPage)
    await visitSignOut(app, begun.entry, signOutPage, tried.session.cookies).catch(goesOn("signIn.endTest"));
  return { ...tried, pages: await withoutSecrets(pages, begun.login), picture };
}

/** A page can write anything into its addresses and onto its buttons: what holds the password is left out. */
async function withoutSecrets(pages: readonly TestedPage[], login: Begun["login"]): Promise<TestedPage[]> {
  // What does not open was not sent.
  const opened = await login.catch(() => null);
  if (!opened) return [...pages];
  const { password, userName } = opened;
  const traces = tracesOf(password, userName);
  const holds = (text: string) => carriesSecret([text, ...text.split(/[/\s]+/)], traces);
  return pages.map((page) => ({
    ...page,
    at: holds(page.at) ? new URL(page.at).origin : page.at,
    pressed: page.pressed !== null && holds(page.pressed) ? "…" : page.pressed,
  }));
}

const MOST_PAGES = 30;

/** Keeps a report in place of the one before; stewards hear of what Galtry found by itself. */
export const saveTest = command({
  name: "signIn.saveTest",
  input: z.strictObject({
    entryId: idSchema,
    versionId: idSchema,
    outcome: z.enum(["signed-in", ...(Object.keys(FAILURES) as Failure[])]),
    detail: z.string().max(300),
    pages: z.array(testedPageSchema).max(MOST_PAGES),
    picture: z.instanceof(Uint8Array).nullable(),
  }),
  by: ["person", "server"],
  internal: true,
  allow: async ({ me, ...context }) => {
    const { tx, input } = context;
    // Their access may have ended while the site answered.
    if (me) await requireLevel({ ...context, me }, input.entryId, "edit");
    const [entry] = await tx
      .select({ vaultId: places.vaultId })
      .from(entries)
      .innerJoin(places, and(eq(places.nodeId, entries.nodeId), sql`${places.validUntil} is null`))
      .where(eq(entries.nodeId, input.entryId));
    // Deleted for good while the site answered.
    if (!entry) throw notFound();
    return entry;
  },
  run: async ({ tx, input, at, app, caller, allowed: { vaultId } }) => {
    const { entryId, picture, ...report } = input;
    const [before] = await tx.select().from(signInTests).where(eq(signInTests.entryId, entryId));
    const sealed = picture
      ? await sealPicture(tx, app, vaultId, entryId, picture)
      : { picture: null, keyVersion: null };
    const row = { ...report, ...sealed, at, by: personIdOf(caller as Caller) };
    await tx
      .insert(signInTests)
      .values({ entryId, ...row })
      .onConflictDoUpdate({ target: signInTests.entryId, set: row });
    if (caller.kind !== "server" || input.outcome === "signed-in") return;
    const failure = FAILURES[input.outcome];
    const again = before?.by === null && before.outcome === input.outcome;
    // A site that is down for a night is nobody's work; two nights in a row may be.
    if (failure.next === "later" ? !again : again) return;
    await tellStewards(tx, [entryId], (name) => t.couldNotSignInAtNight(name, failure.title), at, null);
  },
  journal: null,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

const context = (vaultId: string, entryId: string) => ["sign-in test", vaultId, entryId] as const;

async function sealPicture(tx: Transaction, app: Galtry, vaultId: string, entryId: string, picture: Uint8Array) {
  const { key, version } = await vaultKey(tx, app.keys, vaultId);
  return { picture: Buffer.from(await seal(key, picture, context(vaultId, entryId))), keyVersion: version };
}

/** Pictures of what is sealed with an older key, or lies in another vault now: the next test takes new ones. */
export async function dropPictures(
  tx: Transaction,
  where: { entryIds: string[] } | { vaultId: string; before: number },
) {
  await tx
    .update(signInTests)
    .set({ picture: null, keyVersion: null })
    .where(
      "entryIds" in where
        ? inArray(signInTests.entryId, where.entryIds)
        : and(
            sql`${signInTests.entryId} in (select node_id from places where vault_id = ${where.vaultId} and valid_until is null)`,
            sql`${signInTests.keyVersion} < ${where.before}`,
          ),
    );
}

/**
 * How the last page of the last test looked. It shows what a sign-in would: the same gates stand before it.
 * @returns JPEG
 */
export const testPicture = query({
  name: "signIn.testPicture",
  input: z.strictObject({ entryId: idSchema }),
  by: ["person"],
  internal: true,
  allow: async (context) => {
    const allowed = await requireEntry(context, context.input.entryId, "edit");
    await requireSecretGates(context, allowed.entry, allowed.vaultId, allowed.level);
    return allowed;
  },
  run: async ({ tx, input: { entryId }, app, allowed }) => {
    const [row] = await tx.select().from(signInTests).where(eq(signInTests.entryId, entryId));
    if (!row?.picture || row.keyVersion === null) throw notFound();
    const { key } = await vaultKey(tx, app.keys, allowed.vaultId, row.keyVersion);
    return open(key, row.picture, context(allowed.vaultId, entryId));
  },
});
