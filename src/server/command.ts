/**
 * A write is a command: parsed, authorised, run, journaled and told in one transaction. A read is a query in the
 * same shape. There is no other way to the database for anything a person asks for.
 */
import { type SQL, sql } from "drizzle-orm";
import { z } from "zod";
import { plainName } from "../core/plainName";
import { loadCaller, type Person } from "./access/person";
import type { Caller, CallerKind } from "./caller";
import { personIdOf } from "./caller";
import { type Reader, readerWith, type Transaction } from "./database/client";
import { lanyards, outbox, type Role, sessions } from "./database/schema";
import { type Galtry, galtry } from "./galtry";
import { uuidv7At } from "./ids";
import { appendLine, type JournalEntry } from "./journal/append";
import { type Says, setSentence } from "./journal/says";
import { lanyardRules } from "./lanyard/allowed";
import { countAct } from "./metrics";
import { attemptKey, attemptsOf, countAttempt } from "./people/attempts";
import "./inputErrors";
import { badInput, Refused } from "./refused";

/** Whom a change concerns: "look again". A vault's topic reaches those who reach something in it. */
export type Topic = `vault:${string}` | `person:${string}` | `group:${string}` | "everyone" | "administrators";

/** Callers who are somebody: the context of their acts has a person. */
export type SignedIn = "person" | "lanyard";
type Callers = { [Kind in CallerKind]: Extract<Caller, { kind: Kind }> };
type OfSomebody<What> = { [Kind in CallerKind]: Kind extends SignedIn ? What : null };

/** What a step of a command or query may use; `Kind` is who may run it. */
export interface Context<I, T extends Reader = Transaction, Kind extends CallerKind = SignedIn> {
  tx: T;
  input: I;
  caller: Callers[Kind];
  /** The moment of the act. */
  at: number;
  /** The id of this act, in the rows it opens and closes. */
  commandId: string;
  /** The caller as a person, read once at the start of this transaction; null for the server and for nobody. */
  me: OfSomebody<Person>[Kind];
  role: OfSomebody<Role>[Kind];
  app: Galtry;
  /** A second steward said yes to it. */
  agreed?: boolean;
}

/** `I` is the input as its steps have it, `In` as it is sent. */
interface Shared<I, In = unknown, Name extends string = string, Kind extends CallerKind = CallerKind> {
  name: Name;
  input: z.ZodType<I, In>;
  /** Which kinds of caller may ask at all. */
  by: readonly Kind[];
  /**
   * What people who are held back may give all the same. `limited`: a session while a way in that the house rules
   * require is missing, good for adding it and for leaving. `auditor`: changes nothing, not even by asking, but their
   * own ways in, sessions and notices; queries are open to them as to anybody. `no-lanyard`: a Lanyard whose person the house
   * rules let use none.
   */
  evenFor?: readonly ("limited" | "auditor" | "no-lanyard")[];
  /** Run by Galtry's own code on behalf of the caller; no address answers to its name. */
  internal?: boolean;
}

interface Definition<I, R, P, A, In, Name extends string, Kind extends CallerKind> extends Shared<I, In, Name, Kind> {
  /** Slow work before the transaction: hashing, sealing, what can be worked out while nobody waits for it. */
  prepare?: (context: Pick<Context<I, Reader, Kind>, "input" | "caller" | "app" | "at">) => Promise<P>;
  /** Says who may before the slow work, so that nobody else has it done. `allow` asks again. */
  mayPrepare?: (context: Context<I, Reader, Kind>) => Promise<unknown>;
  /** Says who may, or throws Refused with a reason a person understands. What it returns goes to `run`. */
  allow: (context: Context<I, Transaction, Kind> & { prepared: P }) => Promise<A> | A;
  run: (context: Context<I, Transaction, Kind> & { prepared: P; allowed: A }) => Promise<R>;
  tell: (context: { input: I; result: R; allowed: A }) => Topic[];
  /** A refusal of this act is written to the journal. */
  journalRefusal?: boolean;
  /** One piece of long work: the acts of people who wait go first. */
  lowPriority?: boolean;
}

/** What the Journal keeps, never a secret, and how it tells it; null for acts that are no acts (a heartbeat). */
type Journaled<I, R, A, Kind extends CallerKind> =
  | {
      journal: (
        context: Pick<Context<I, Reader, Kind>, "input" | "caller"> & { result: R; allowed: A },
      ) => JournalEntry | JournalEntry[] | null;
      says: Says;
    }
  | { journal: null; says?: undefined };

type CommandDefinition<I, R, P, A, In, Name extends string, Kind extends CallerKind> = Definition<
  I,
  R,
  P,
  A,
  In,
  Name,
  Kind
> &
  Journaled<I, R, A, Kind>;

export interface Command<I, R, In = unknown, Name extends string = string> extends Shared<I, In, Name> {
  type: "command";
  execute: (app: Galtry, input: unknown, caller: Caller, at?: number) => Promise<R>;
  /** As a part of another command, in its transaction: authorised, run and journaled by itself; what it tells is told. */
  within: (context: Context<unknown, Transaction, CallerKind>, input: unknown) => Promise<R>;
}

interface QueryDefinition<I, R, A, In, Name extends string, Kind extends CallerKind> extends Shared<I, In, Name, Kind> {
  allow: (context: Context<I, Reader, Kind>) => Promise<A> | A;
  run: (context: Context<I, Reader, Kind> & { allowed: A }) => Promise<R>;
  /** Over thousands of rows: read in a thread of its own, where Galtry runs for people. Gives plain data. */
  offMainThread?: boolean;
}

export interface Query<I, R, In = unknown, Name extends string = string> extends Shared<I, In, Name> {
  type: "query";
  /** @param known the caller as they were found for the page that asks; found anew where it is not given */
  execute: (app: Galtry, input: unknown, caller: Caller, at?: number, known?: Known) => Promise<R>;
}

/** Who asks, and what they may look at. */
export interface Known {
  me: Person | null;
  tx: Reader;
}

/** Finds the caller, and brings the access index up to the last change that was there when they were found. */
export async function findKnown(app: Galtry, caller: Caller, at: number): Promise<Known> {
  app.askedAt = Date.now();
  const found = await requireCaller(app.db, caller, at);
  // Nobody reaches anything: there is nothing to bring up to date for them.
  if (!found) return { me: null, tx: app.db };
  return { me: found.me, tx: readerWith(app.db, await app.access.fresh(found.lastChange)) };
}

/** The context of an act by a caller whom `admit` let in. */
function contextOf<I, T extends Reader, Kind extends CallerKind>(
  found: Omit<Context<I, T, CallerKind>, "role">,
): Context<I, T, Kind> {
  return { ...found, role: found.me?.role ?? null } as unknown as Context<I, T, Kind>;
}

export function command<
  I,
  R,
  In,
  const Name extends string,
  const Kind extends CallerKind,
  P = undefined,
  A = undefined,
>(definition: CommandDefinition<I, R, P, A, In, Name, Kind>): Command<I, R, In, Name> {
  type Mine<T extends Reader> = Context<I, T, Kind>;
  if (definition.says) setSentence(definition.name, definition.says);
  const execute = measured(
    "command",
    definition.name,
    async (app: Galtry, raw: unknown, caller: Caller, at: number = Date.now()): Promise<R> => {
      admit(definition, caller);
      const input = parse(definition, raw);
      const commandId = uuidv7At(at);
      try {
        if (definition.mayPrepare) {
          const me = await requireMe(app.db, caller, at);
          requireNoAuditor(definition, me);
          await definition.mayPrepare(contextOf({ tx: app.db, input, caller, at, commandId, me, app }));
        }
        const prepared = (await definition.prepare?.({
          input,
          caller: caller as Mine<Reader>["caller"],
          app,
          at,
        })) as P;
        return await app.writer.write(async (tx) => {
          const me = await requireMe(tx, caller, at);
          requireNoAuditor(definition, me);
          await requireLanyardRule(definition, caller, me, tx);
          return perform(contextOf({ tx, input, caller, at, commandId, me, app }), prepared);
        }, definition.lowPriority);
      } catch (error) {
        if (error instanceof Refused && definition.journalRefusal !== false)
          await recordRefusal(app, definition.name, input, caller, at, error);
        throw error;
      }
    },
  );
  const perform = async (context: Mine<Transaction>, prepared: P): Promise<R> => {
    const { input, caller } = context;
    const allowed = await definition.allow({ ...context, prepared });
    const result = await definition.run({ ...context, prepared, allowed });
    await record(context, definition.name, definition.journal?.({ input, result, allowed, caller }) ?? null);
    await tell(context.tx, context.at, definition.tell({ input, result, allowed }));
    return result;
  };
  const within = (context: Context<unknown, Transaction, CallerKind>, raw: unknown): Promise<R> => {
    if (definition.prepare) throw new Error(`${definition.name} prepares something: it is no part of another command.`);
    admit(definition, context.caller);
    return perform(contextOf({ ...context, input: parse(definition, raw) }), undefined as P);
  };
  return {
    type: "command",
    name: definition.name,
    input: definition.input,
    by: definition.by,
    internal: definition.internal ?? false,
    execute,
    within,
  };
}

export function query<I, R, In, const Name extends string, const Kind extends CallerKind, A = undefined>(
  definition: QueryDefinition<I, R, A, In, Name, Kind>,
): Query<I, R, In, Name> {
  const execute = measured(
    "query",
    definition.name,
    async (app: Galtry, raw: unknown, caller: Caller, at: number = Date.now(), known?: Known): Promise<R> => {
      admit(definition, caller);
      const input = parse(definition, raw);
      if (definition.offMainThread && app.reading) {
        const read = await app.reading.read({ name: definition.name, input: raw, caller, at });
        if (read && "refused" in read) {
          const { code, message, field, data } = read.refused;
          throw new Refused(code, message, field, data);
        }
        if (read) return read.result as R;
      }
      const { me, tx } = known ?? (await findKnown(app, caller, at));
      await requireLanyardRule(definition, caller, me, tx);
      const context: Context<I, Reader, Kind> = contextOf({ tx, input, caller, at, commandId: "", me, app });
      const allowed = (await definition.allow(context)) as A;
      return definition.run({ ...context, allowed });
    },
  );
  return {
    type: "query",
    name: definition.name,
    input: definition.input,
    by: definition.by,
    internal: definition.internal ?? false,
    execute,
  };
}

/** Runs a command or query in this process's Galtry. */
export async function act<I, R>(what: Command<I, R> | Query<I, R>, input: I, caller: Caller): Promise<R> {
  return what.execute(await galtry(), input, caller);
}

/** Counts what it came to, and how long it took. */
function measured<A extends unknown[], R>(type: "command" | "query", act: string, work: (...asked: A) => Promise<R>) {
  return async (...asked: A): Promise<R> => {
    const began = performance.now();
    try {
      const result = await work(...asked);
      countAct(type, act, "done", began);
      return result;
    } catch (error) {
      countAct(type, act, error instanceof Refused ? "refused" : "failed", began);
      throw error;
    }
  };
}

async function requireLanyardRule(definition: Shared<unknown>, caller: Caller, me: Person | null, tx: Reader) {
  if (caller.kind !== "lanyard" || !me || definition.evenFor?.includes("no-lanyard")) return;
  if (!(await lanyardRules(tx, me)).use)
    throw new Refused("not-allowed", "The house rules do not let you use Lanyard.");
}

function requireNoAuditor(definition: Shared<unknown>, me: Person | null): void {
  if (me?.role === "auditor" && !definition.evenFor?.includes("auditor"))
    throw new Refused("not-allowed", "An auditor reads, and changes nothing.");
}

function admit(definition: Shared<unknown>, caller: Caller): void {
  if (caller.kind === "person" && caller.limited && !definition.evenFor?.includes("limited"))
    throw new Refused("add-way", "First add the way to sign in that your organisation requires.");
  if (definition.by.includes(caller.kind)) return;
  if (caller.kind === "nobody") throw new Refused("signed-out", "Sign in first.");
  throw new Refused("not-allowed", "This cannot be done in this way.");
}

function parse<I>(definition: Shared<I>, raw: unknown): I {
  const read = definition.input.safeParse(raw);
  if (read.success) return read.data;
  throw badInput(read.error);
}

/** The caller now; refuses people whose access has ended and sessions that are over. */
const requireMe = async (tx: Reader, caller: Caller, at: number): Promise<Person | null> =>
  (await requireCaller(tx, caller, at))?.me ?? null;

async function requireCaller(tx: Reader, caller: Caller, at: number) {
  const personId = personIdOf(caller);
  if (personId === null) return null;
  const found = await loadCaller(tx, personId, stillHolds(caller, at), at);
  if (found?.me.standing !== "active")
    throw new Refused("signed-out", "Your access to Galtry has been ended.", undefined, { access: "ended" });
  if (!found.holds)
    throw new Refused(
      "signed-out",
      caller.kind === "lanyard" ? "This Lanyard is no longer connected." : "This session has ended. Sign in again.",
    );
  return found;
}

/** The session or Lanyard has neither ended nor run out. */
function stillHolds(caller: Caller, at: number): SQL {
  const [table, id] =
    caller.kind === "lanyard"
      ? [lanyards, caller.lanyardId]
      : caller.kind === "person" && caller.sessionId !== null
        ? [sessions, caller.sessionId]
        : [null, null];
  if (table === null) return sql`1`;
  return sql`exists (select 1 from ${table} where id = ${id} and ended_at is null and expires_at > ${at})`;
}

async function record(
  context: Pick<Context<unknown, Transaction, CallerKind>, "tx" | "app" | "at" | "caller">,
  act: string,
  entries: JournalEntry | JournalEntry[] | null,
): Promise<void> {
  if (entries === null) return;
  for (const entry of Array.isArray(entries) ? entries : [entries])
    await appendLine(context.tx, context.app.keys.journal, {
      act,
      outcome: "done",
      at: context.at,
      person: personIdOf(context.caller),
      ...entry,
    });
}

async function tell(tx: Transaction, at: number, topics: Topic[]): Promise<void> {
  if (topics.length > 0) await tx.insert(outbox).values({ at, topics: [...new Set(topics)] });
}

/** A refusal is a line of its own, after the rollback. Only ids that stand in the input; never a text. */
async function recordRefusal(
  app: Galtry,
  act: string,
  input: unknown,
  caller: Caller,
  at: number,
  refused: Refused,
): Promise<void> {
  const person = personIdOf(caller);
  if (person === null || refused.code === "signed-out" || refused.code === "bad-input" || refused.code === "conflict")
    return;
  const ids = (input ?? {}) as Record<string, unknown>;
  const [several] = Array.isArray(ids.entryIds) ? ids.entryIds : [];
  const node =
    [ids.entryId, several, ids.nodeId, ids.vaultId].find((id): id is string => typeof id === "string") ?? null;
  await app.writer.write(async (tx) => {
    // Whoever is refused without end fills the Journal no further: after the first few each line stands for more.
    const key = attemptKey(app.keys, "refused", person);
    await countAttempt(tx, key, at);
    const times = await attemptsOf(tx, key, at);
    if (times > MOST_REFUSALS && !REFUSALS_TOLD.has(times)) return;
    const details = { code: refused.code, ...(times > MOST_REFUSALS && { times }) };
    await appendLine(tx, app.keys.journal, { act, outcome: "refused", at, person, node, details });
  });
}

/** Lines of their own that refusals of one person get in a quarter of an hour. */
const MOST_REFUSALS = 40;
/** After that a line is written when there have been so many. */
const REFUSALS_TOLD = new Set([100, 300, 1_000, 3_000, 10_000, 100_000, 1_000_000]);

export const idSchema = z.uuid("Galtry does not know this.");
/** A name as people give it: one line without what is not seen, up to 200 characters in any script. */
export const nameSchema = z
  .string()
  .max(2000, "A name has at most 200 characters.")
  .transform(plainName)
  .pipe(z.string().min(1, "Give it a name.").max(200, "A name has at most 200 characters."));
/** Milliseconds, or null for no limit. */
export const instantSchema = z.number().int().min(0).max(8_640_000_000_000_000).nullable();
export const none = z.strictObject({});
