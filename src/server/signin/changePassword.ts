/**
 * Galtry changes a password itself: it signs in, finds the page that changes it, makes a new one to the site's rules,
 * writes it down, sends it, and signs in anew with it. Only then is it the current version. Where the site's answer
 * leaves it open which of the two works, both are kept, and whoever may edit the entry decides.
 */
import { and, desc, eq, ne, sql } from "drizzle-orm";
import { z } from "zod";
import type { Level } from "../../core/access";
import { createdPassword } from "../../core/generator/createdPassword";
import { PASSWORD } from "../../core/kinds/kind";
import { hostOf } from "../../core/signin/address";
import { CHANGE_OUTCOMES, type ChangeOutcome } from "../../core/signin/changing";
import { FAILURES, type Failure, type SignInOutcome } from "../../core/signin/outcome";
import { matches } from "../../core/signin/site";
import { requireSecretGates } from "../access/requests/accepting";
import type { Caller, CallerKind } from "../caller";
import { type Context, command, idSchema } from "../command";
import type { Reader, Transaction } from "../database/client";
import { entries, ITSELF, passwordChanges, places, signIns } from "../database/schema";
import type { Galtry } from "../galtry";
import { uuidv7 } from "../ids";
import { failed } from "../log";
import { loadRules } from "../organisation";
import { tellStewards } from "../people/telling";
import { notFound, Refused } from "../refused";
import { requireEntry, requireInUse } from "../vaults/entries";
import { loginOf } from "../vaults/sealing";
import { openValues } from "../vaults/vaultKeys";
import { rewrite } from "../vaults/writing";
import { type ChangeEngine, ChangeFailure, type ChangeSent, type Login, type SignInEngine } from "./engine";
import { SignInFailure } from "./guardedClient";
import { isChanging, openChange, openQuestion, type PasswordChange, sealChange } from "./passwordChanges";
import {
  attempt,
  defaultEngine,
  type EntryFor,
  endSignIn,
  entryFor,
  LONGEST_SIGN_IN_MS,
  type SeenAs,
  visiting,
} from "./sealed";
import { changePassword as t } from "./strings";

export interface Changed {
  outcome: ChangeOutcome;
  /** For people with Edit; it holds no secret. */
  detail: string;
}

/** Whoever has it changed: somebody with Edit, or Galtry as the house rules and the entry's stewards say. */
type Changer = Extract<Caller, { kind: "person" | "server" }>;
const CHANGERS = ["person", "server"] as const;

/** Of one change: the row, and the visit that other sign-ins to the same account wait for. */
const ofChange = z.strictObject({ changeId: idSchema });

type Asking = Pick<Context<unknown, Transaction, Changer["kind"]>, "tx" | "me" | "at">;

async function requireRunning({ tx, me }: Asking, id: string): Promise<PasswordChange> {
  const [row] = await tx.select().from(passwordChanges).where(eq(passwordChanges.id, id));
  if (!row || row.personId !== (me?.id ?? ITSELF) || row.endedAt !== null)
    throw new Refused("ended", t.hasAlreadyEnded);
  return row;
}

interface Held {
  entry: typeof entries.$inferSelect;
  vaultId: string;
}

/**
 * Who may have it changed now: whoever may edit it. Galtry by itself only where the house rules say how often, the entry's
 * stewards want it, and nobody has to say yes first.
 */
async function requireMayChange({ me, ...asking }: Asking, entryId: string): Promise<Held & { level: Level }> {
  if (me) return requireEntry({ ...asking, me }, entryId, "edit");
  const held = await heldAt(asking.tx, entryId);
  const { changeEvery } = await loadRules(asking.tx);
  if (changeEvery === null || !held?.entry.changedRegularly || held.entry.binnedAt !== null || held.entry.asksFirst > 0)
    throw new Refused("conflict", t.noRuleAnyMore);
  return { ...held, level: "edit" };
}

async function heldAt(tx: Reader, entryId: string): Promise<Held | null> {
  const [found] = await tx
    .select({ entry: entries, vaultId: places.vaultId })
    .from(entries)
    .innerJoin(places, and(eq(places.nodeId, entries.nodeId), sql`${places.validUntil} is null`))
    .where(eq(entries.nodeId, entryId));
  return found ?? null;
}

/** Whoever edits a password may have it changed: one change at a time, and none while it is open which one works. */
export const beginChange = command({
  name: "signIn.beginChange",
  /** `again`: only to try the new password of one in doubt. `page`: where it is changed, as far as a person knows. */
  input: z.strictObject({ entryId: idSchema, again: z.boolean(), page: z.string().max(2000).default("") }),
  by: CHANGERS,
  internal: true,
  allow: async (context) => {
    const { tx, me, input, at } = context;
    const held = await requireMayChange(context, input.entryId);
    requireInUse(held.entry);
    if (me) await requireSecretGates({ tx, me, at }, held.entry, held.vaultId, held.level);
    const found = await entryFor(tx, input.entryId, me?.id ?? null, at);
    if (!found || found.entry.signInPage === "") throw notFound();
    const open = await openQuestion(tx, input.entryId);
    if (open && open.endedAt === null) throw new Refused("conflict", t.isBeingChanged);
    if (open && !input.again) throw new Refused("conflict", t.firstDecide);
    if (!open && input.again) throw new Refused("ended", t.nothingToDecide);
    if (input.page !== "" && !belongs(found.entry, input.page))
      throw new Refused("bad-input", t.notOfThisSite(hostOf(found.entry.signInPage) ?? ""), "page");
    if (!input.again && found.version.refusedAt !== null) throw new Refused("conflict", t.rejectedBefore);
    if (await isChanging(tx, input.entryId)) throw new Refused("conflict", t.isBeingChanged);
    return { found, open: open ?? null, vaultId: held.vaultId };
  },
  run: async ({ tx, me, input, at, app, allowed: { found, open, vaultId } }) => {
    if (found.busy) return { begun: false as const };
    const signInId = uuidv7();
    await tx.insert(signIns).values({
      ...{ id: signInId, entryId: input.entryId, versionId: found.version.id, personId: me?.id ?? null, lanyardId: "" },
      ...{ how: "tested", queueKey: found.queueKey, process: app.process, begunAt: at },
    });
    if (open) return { begun: true as const, signInId, found, vaultId, row: open };
    const page = input.page || found.entry.changePage;
    const row = await newChange(
      tx,
      { entryId: input.entryId, page },
      { versionId: found.version.id, personId: me?.id ?? ITSELF, process: app.process },
      at,
    );
    return { begun: true as const, signInId, found, vaultId, row };
  },
  journal: null,
  tell: () => [],
});

/** What is not the entry's own gets no password. */
export const belongs = (entry: Pick<EntryFor["entry"], "signInPage" | "reach" | "steps">, page: string): boolean =>
  URL.canParse(page) && (matches(entry, page) || entry.steps.hosts.includes(hostOf(page) ?? ""));

/** In place of those before it, of which only where the password is changed is worth knowing. */
export async function newChange(
  tx: Transaction,
  { entryId, page }: { entryId: string; page: string },
  who: Pick<PasswordChange, "versionId" | "personId" | "process">,
  at: number,
): Promise<PasswordChange> {
  const [last] = await tx
    .select({ at: passwordChanges.at })
    .from(passwordChanges)
    .where(and(eq(passwordChanges.entryId, entryId), ne(passwordChanges.at, "")))
    .orderBy(desc(passwordChanges.begunAt))
    .limit(1);
  await tx.delete(passwordChanges).where(eq(passwordChanges.entryId, entryId));
  const [row] = await tx
    .insert(passwordChanges)
    .values({ id: uuidv7(), entryId, ...who, begunAt: at, at: page || (last?.at ?? "") })
    .returning();
  return row!;
}

/** Before anything is sent: the new password is kept, whatever happens next. */
export const writeDownPassword = command({
  name: "signIn.writeDownPassword",
  input: ofChange.extend({ password: z.string().min(1).max(500) }),
  by: CHANGERS,
  internal: true,
  allow: async (context) => {
    const row = await requireRunning(context, context.input.changeId);
    // Their access may have ended meanwhile: then nothing is sent.
    const held = await requireMayChange(context, row.entryId);
    if (held.entry.versionId !== row.versionId) throw new Refused("conflict", t.someoneChangedIt);
    return held;
  },
  run: async ({ tx, input, app, allowed: { vaultId } }) => {
    const sealed = await sealChange(tx, app, vaultId, input.changeId, input.password);
    await tx.update(passwordChanges).set(sealed).where(eq(passwordChanges.id, input.changeId));
  },
  journal: null,
  tell: () => [],
});

export const markPasswordSent = command({
  name: "signIn.markPasswordSent",
  input: ofChange,
  by: CHANGERS,
  internal: true,
  allow: async (context) => {
    const row = await requireRunning(context, context.input.changeId);
    if (row.sealed === null) throw new Refused("conflict", t.hasAlreadyEnded);
  },
  run: async ({ tx, input, at }) => {
    await tx.update(passwordChanges).set({ sentAt: at }).where(eq(passwordChanges.id, input.changeId));
  },
  journal: null,
  tell: () => [],
});

const outcomeSchema = z.enum(Object.keys(CHANGE_OUTCOMES) as [ChangeOutcome, ...ChangeOutcome[]]);

/**
 * How it ended. Proven, the new password becomes the current version; known not to count, it is forgotten; in doubt it
 * stays.
 */
export const endChange = command({
  name: "signIn.endChange",
  input: ofChange.extend({
    signInId: idSchema,
    outcome: outcomeSchema,
    detail: z.string().max(300),
    at: z.string().max(2000),
    /** How signing in with the current password ended. */
    visited: z.enum(["signed-in", ...(Object.keys(FAILURES) as Failure[])]),
  }),
  by: CHANGERS,
  internal: true,
  allow: async ({ tx, me, input }) => {
    const [row] = await tx.select().from(passwordChanges).where(eq(passwordChanges.id, input.changeId));
    const [visit] = await tx.select().from(signIns).where(eq(signIns.id, input.signInId));
    const isTheirs = visit?.personId === (me?.id ?? null) && visit.entryId === row?.entryId;
    // Ended already and still sealed: one in doubt that was tried again.
    if (!row || !isTheirs || (row.endedAt !== null && row.sealed === null))
      throw new Refused("ended", t.hasAlreadyEnded);
    const held = await heldAt(tx, row.entryId);
    // Deleted for good while the site answered.
    if (!held) throw notFound();
    return { row, visit, ...held };
  },
  run: async (context): Promise<Changed> => {
    const { tx, input, at, allowed } = context;
    const { row, visit, entry, vaultId } = allowed;
    // What was entered meanwhile stands: which of the three works nobody knows.
    const overtaken = input.outcome === "changed" && entry.versionId !== row.versionId;
    const outcome = overtaken ? "in-doubt" : input.outcome;
    const detail = overtaken ? t.enteredMeanwhile : input.detail;
    const open = outcome === "in-doubt" || outcome === "by-hand";
    const kept = open ? {} : { sealed: null, keyVersion: null };
    if (outcome === "changed") await keepAsVersion(context, entry, vaultId, row);
    await tx
      .update(passwordChanges)
      .set({ outcome, detail, endedAt: row.endedAt ?? at, ...(input.at && { at: input.at }), ...kept })
      .where(eq(passwordChanges.id, row.id));
    // Where only the new one was tried, it says nothing of the current one.
    const visited = row.endedAt === null || outcome === "changed" ? input.visited : "not-understood";
    // One that took very long was closed before; what was found out counts all the same.
    if (visit.endedAt === null) await endSignIn(tx, { signInId: visit.id, detail: "", by: null }, visit, visited, at);
    if (outcome === "in-doubt" && row.endedAt === null)
      await tellStewards(tx, [entry.nodeId], (name) => t.whichOneWorks(name), at, null);
    return { outcome, detail };
  },
  journal: ({ result, allowed }) => ({
    node: allowed.entry.nodeId,
    vault: allowed.vaultId,
    details: { outcome: result.outcome, ...(allowed.row.personId === ITSELF && { rule: true }) },
    names: { [allowed.entry.nodeId]: allowed.entry.name },
  }),
  says: ({ details, it }) => {
    const outcome = details.outcome as ChangeOutcome;
    if (details.rule)
      return outcome === "changed"
        ? `changed the password of ${it} at its site, as the house rules say`
        : `tried to change the password of ${it}, as the house rules say: ${lowered(CHANGE_OUTCOMES[outcome].title)}`;
    return outcome === "changed"
      ? `had Galtry change the password of ${it} at its site`
      : `had Galtry try to change the password of ${it}: ${lowered(CHANGE_OUTCOMES[outcome].title)}`;
  },
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

const lowered = (title: string): string =>
  title.startsWith("Galtry") ? title : title[0]!.toLowerCase() + title.slice(1);

/** Nobody has seen it, and whoever had it changed has not either. */
async function keepAsVersion(
  context: Pick<Context<unknown, Transaction, CallerKind>, "tx" | "app" | "me" | "at" | "caller">,
  entry: typeof entries.$inferSelect,
  vaultId: string,
  row: PasswordChange,
): Promise<void> {
  const password = await openChange(context.tx, context.app, vaultId, row);
  await rewrite(context, {
    entry,
    held: { vaultId, level: "edit" },
    how: null,
    change: (values) => ({ ...values, fields: { ...values.fields, [PASSWORD]: password } }),
  });
}

/** The decision about one in doubt: which of the two stands from now on. Both stay among the versions if the new one does. */
export const decideChange = command({
  name: "signIn.decideChange",
  input: z.strictObject({ entryId: idSchema, keep: z.enum(["new", "old"]) }),
  by: ["person", "lanyard"],
  allow: async (context) => {
    const held = await requireEntry(context, context.input.entryId, "edit");
    const row = await openQuestion(context.tx, context.input.entryId);
    if (!row || row.endedAt === null) throw new Refused("ended", t.nothingToDecide);
    return { ...held, row };
  },
  run: async (context) => {
    const { tx, me, input, at, allowed } = context;
    const { entry, row } = allowed;
    if (input.keep === "new") {
      await keepAsVersion(context, entry, allowed.vaultId, row);
      // Where somebody has changed it by hand Galtry changes it the next time.
      if (row.outcome === "by-hand" && belongs(entry, row.at))
        await tx.update(entries).set({ changePage: row.at }).where(eq(entries.nodeId, entry.nodeId));
    }
    await tx
      .update(passwordChanges)
      .set({
        outcome: input.keep === "new" ? "new-chosen" : "old-chosen",
        ...{ detail: "", personId: me.id, endedAt: at },
        sealed: null,
        keyVersion: null,
      })
      .where(eq(passwordChanges.id, row.id));
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { keep: input.keep },
    names: { [input.entryId]: allowed.entry.name },
  }),
  says: ({ details, it }) => `decided that the ${details.keep} password of ${it} stands`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

export interface ChangeEngines {
  changes: ChangeEngine;
  signsIn: SignInEngine;
}

function enginesOf(app: Galtry): ChangeEngines {
  const engine = defaultEngine(app);
  return { changes: engine, signsIn: engine };
}

type Begun = Extract<Awaited<ReturnType<typeof beginChange.execute>>, { begun: true }>;

/** Waits while another sign-in to the same account at the same host is under way. */
async function begin(
  app: Galtry,
  caller: Changer,
  what: Parameters<typeof beginChange.execute>[1],
  signal: AbortSignal,
): Promise<Begun> {
  for (const start = Date.now(); ; ) {
    const begun = await beginChange.execute(app, what, caller);
    if (begun.begun) return begun;
    if (Date.now() - start > LONGEST_SIGN_IN_MS || signal.aborted) throw new Refused("too-many", t.othersAreSigningIn);
    await new Promise((resolve) => setTimeout(resolve, 120));
  }
}

/**
 * @param page where it is changed, as far as a person knows; empty: it is looked for
 * @throws Refused when the person may not edit the entry, or another change is open
 */
export async function changePasswordOf(
  app: Galtry,
  caller: Changer,
  seenAs: SeenAs,
  entryId: string,
  signal: AbortSignal,
  page = "",
  engines = enginesOf(app),
): Promise<Changed> {
  const begun = await begin(app, caller, { entryId, again: false, page }, signal);
  const change = new Change(app, caller, seenAs, begun, signal, engines);
  const first = await change.go();
  // The site has told its rules only now, and the old one was proven to stand: once more, by these.
  const ended = first.outcome === "rejected" && first.rules ? await change.go(first.rules) : first;
  return change.end(ended);
}

/** For one in doubt: signs in with the new password, once; if it works it is the current version. */
export async function tryNewPassword(
  app: Galtry,
  caller: Changer,
  seenAs: SeenAs,
  entryId: string,
  signal: AbortSignal,
  engines = enginesOf(app),
): Promise<Changed> {
  const begun = await begin(app, caller, { entryId, again: true }, signal);
  const change = new Change(app, caller, seenAs, begun, signal, engines);
  const password = await openChange(app.db, app, begun.vaultId, begun.row);
  const { outcome, detail } = await change.signsIn(password);
  if (outcome === "signed-in") return change.end({ outcome: "changed", detail: "" });
  // Filled in by hand it may not have been sent yet: that is no doubt about what the site has answered.
  return change.end({ outcome: begun.row.outcome === "by-hand" ? "by-hand" : "in-doubt", detail });
}

interface Ended extends Changed {
  at?: string;
  visited?: SignInOutcome;
  /** What the site asks of a password, said only as it rejected one. */
  rules?: string;
}

function nothingSent(error: unknown, signedIn: boolean): Ended {
  if (error instanceof ChangeFailure) return { outcome: error.outcome, detail: error.detail };
  if (error instanceof SignInFailure)
    return signedIn
      ? { outcome: "no-change-page", detail: error.detail }
      : { outcome: "not-signed-in", detail: error.detail, visited: error.failure };
  if (error instanceof Refused) return { outcome: "stopped", detail: error.message };
  failed("signIn.change", error);
  return { outcome: "stopped", detail: t.unexpected, visited: signedIn ? "signed-in" : "not-understood" };
}

class Change {
  readonly #entry: EntryFor["entry"];
  readonly #login: Promise<Login>;
  #fresh = "";
  private sent = false;
  private signedIn = false;

  constructor(
    private readonly app: Galtry,
    private readonly caller: Changer,
    private readonly seenAs: SeenAs,
    private readonly begun: Begun,
    private readonly signal: AbortSignal,
    private readonly engines: ChangeEngines,
  ) {
    this.#entry = begun.found.entry;
    this.#login = openValues(app.db, app.keys, begun.found.version).then(loginOf);
  }

  get #visit() {
    return { entry: this.#entry, login: this.#login, signInId: this.begun.signInId };
  }

  /** @param rules in place of what the page says before it has said no */
  async go(rules = ""): Promise<Ended> {
    this.sent = false;
    this.signedIn = false;
    let sent: ChangeSent | null = null;
    try {
      sent = await this.#send(rules);
    } catch (error) {
      if (!this.sent) return nothingSent(error, this.signedIn);
      // Nobody knows whether it arrived: that is found out below.
      if (!(error instanceof SignInFailure)) failed("signIn.change", error);
    }
    const { says = "unclear", at = "", rules: told = "" } = sent ?? {};
    return { ...(await this.#prove(says)), at, rules: told };
  }

  /** Signs in, and sends the new password once it is written down. */
  #send(known: string): Promise<ChangeSent> {
    const { app, caller, begun } = this;
    const changeId = begun.row.id;
    const told = { onProgress: () => undefined };
    return visiting(app, caller, this.seenAs, this.#visit, told, this.signal, (task) =>
      this.engines.changes.change({
        ...task,
        changePage: begun.row.at || null,
        onSignedIn: () => {
          this.signedIn = true;
        },
        create: async (rules) => {
          this.#fresh = createdPassword(known || rules);
          await writeDownPassword.execute(app, { changeId, password: this.#fresh }, caller);
          return this.#fresh;
        },
        onSend: async () => {
          await markPasswordSent.execute(app, { changeId }, caller);
          this.sent = true;
        },
      }),
    );
  }

  /**
   * The site's word is not believed, either way: the new password is tried, once. Only where the site said that it
   * rejects it or wants a code first, and it lets nobody in, the old one is tried, once.
   */
  async #prove(says: ChangeSent["says"]): Promise<Changed> {
    const fresh = await this.signsIn(this.#fresh);
    if (fresh.outcome === "signed-in") return { outcome: "changed", detail: "" };
    const stays = says === "rejected" || says === "stopped" || says === "asks-code";
    if (stays && fresh.outcome === "wrong-password") {
      const old = await this.signsIn((await this.#login).password);
      if (old.outcome === "signed-in")
        return says === "rejected"
          ? { outcome: "rejected", detail: "" }
          : { outcome: "only-by-hand", detail: says === "stopped" ? t.wouldBeInAnAddress : t.asksForACode };
    }
    return { outcome: "in-doubt", detail: t.doubt[says] };
  }

  async signsIn(password: string): Promise<{ outcome: SignInOutcome; detail: string }> {
    const visit = { ...this.#visit, login: this.#login.then((old) => ({ ...old, password })) };
    const told = { onProgress: () => undefined };
    return attempt(this.app, this.caller, this.seenAs, visit, told, this.signal, this.engines.signsIn);
  }

  end({ outcome, detail, at = "", visited = "signed-in" }: Ended): Promise<Changed> {
    const { row, signInId } = this.begun;
    const ended = { outcome, detail: detail.slice(0, 300), at: at.slice(0, 2000), visited };
    return endChange.execute(this.app, { changeId: row.id, signInId, ...ended }, this.caller);
  }
}
