/**
 * Logins tested at night, where the house rules say so: one at a time, slowly, each once. A site that has changed is
 * found before a colleague finds it.
 */
import { and, eq, sql } from "drizzle-orm";
import { z } from "zod";
import { FAILURES, type Failure } from "../../core/signin/outcome";
import { zonedHour } from "../../core/time";
import { command, idSchema } from "../command";
import { entries, places, signIns } from "../database/schema";
import type { Galtry } from "../galtry";
import { uuidv7 } from "../ids";
import { endLease, holdLease } from "../lease";
import { loadRules, timeZone } from "../organisation";
import { Refused } from "../refused";
import { loginOf } from "../vaults/sealing";
import { openValues } from "../vaults/vaultKeys";
import { ENGINES, SERVER_SEEN_AS, type SignInEngine } from "./engine";
import { defaultEngine, type EntryFor, endSignIn, entryFor, LONGEST_SIGN_IN_MS } from "./sealed";
import { nightTests as t } from "./strings";
import { saveTest, testOnce } from "./testing";

const SERVER = { kind: "server" } as const;
const WORK = "signIn.testAtNight";

/** Hours of the organisation's clock in which Galtry visits sites by itself. */
export const NIGHT = { fromHour: 1, untilHour: 5 } as const;
/** From the end of one to the beginning of the next: no site, and nothing that watches over it, takes it for an attack. */
const PAUSE_MS = 20_000;
/** Each at most once within so long: once a night. */
const ONCE_IN_MS = 18 * 3_600_000;
const laterFailures = (Object.keys(FAILURES) as Failure[]).filter((name) => FAILURES[name].next === "later");

/** So many entries are looked at in one statement, and in one look. */
const AT_ONCE = 200;
const MOST_AT_A_LOOK = 1_000;

interface Looked {
  id: string;
  due: number;
}

/** Entries after a cursor, and whether each is due: of those that worked once and are not known to fail. */
const someFrom = (app: Galtry, cursor: string, at: number): Promise<Looked[]> =>
  app.db.all<Looked>(sql`
    select e.node_id as "id",
      e.sign_in_page <> '' and e.binned_at is null and e.aside_at is null and e.asks_first = 0
      and e.codes_reach = ''
      and v.refused_at is null
      and coalesce(t.at, 0) < ${at - ONCE_IN_MS}
      and exists (select 1 from sign_ins s where s.entry_id = e.node_id and s.outcome = 'signed-in' and s.how <> 'guarded')
      and (t.at is null or t.outcome = 'signed-in' or t.version_id <> e.version_id
        or t.outcome in (select value from json_each(${JSON.stringify(laterFailures)}))
        or exists (select 1 from sign_ins s where s.entry_id = e.node_id and s.begun_at > t.at and s.outcome = 'signed-in')
        or exists (select 1 from step_versions w where w.entry_id = e.node_id and w.at > t.at)) as "due"
    from entries e
      join entry_versions v on v.id = e.version_id
      left join sign_in_tests t on t.entry_id = e.node_id
    where e.node_id > ${cursor} order by e.node_id limit ${AT_ONCE}`);

export const beginNightTest = command({
  name: "signIn.beginNightTest",
  input: z.strictObject({ entryId: idSchema }),
  by: ["server"],
  internal: true,
  allow: async ({ tx, input, at }) => {
    const found = await entryFor(tx, input.entryId, null, at);
    const { entry, version } = found ?? {};
    // Between the look and now much may have happened to it.
    const fit = entry && version && entry.binnedAt === null && entry.asideAt === null && entry.asksFirst === 0;
    if (!fit || version.refusedAt !== null || !(await loadRules(tx)).nightTests)
      throw new Refused("conflict", t.isNotTestedAtNight);
    return found!;
  },
  run: async ({ tx, input, at, app, allowed }): Promise<{ signInId: string | null; found: EntryFor }> => {
    if (allowed.busy) return { signInId: null, found: allowed };
    const signInId = uuidv7();
    await tx.insert(signIns).values({
      ...{ id: signInId, entryId: input.entryId, versionId: allowed.version.id, personId: null, lanyardId: "" },
      ...{ how: "tested", queueKey: allowed.queueKey, process: app.process, begunAt: at },
    });
    return { signInId, found: allowed };
  },
  journal: null,
  tell: () => [],
});

export const endNightTest = command({
  name: "signIn.endNightTest",
  input: z.strictObject({
    signInId: idSchema,
    outcome: z.enum(["signed-in", ...(Object.keys(FAILURES) as Failure[])]),
    detail: z.string().max(300),
    by: z.enum(ENGINES).nullable(),
  }),
  by: ["server"],
  internal: true,
  allow: async ({ tx, input }) => {
    const [row] = await tx
      .select({ entryId: signIns.entryId, versionId: signIns.versionId, name: entries.name, vaultId: places.vaultId })
      .from(signIns)
      .innerJoin(entries, eq(entries.nodeId, signIns.entryId))
      .innerJoin(places, and(eq(places.nodeId, signIns.entryId), sql`${places.validUntil} is null`))
      .where(and(eq(signIns.id, input.signInId), sql`${signIns.endedAt} is null`));
    if (!row) throw new Refused("conflict", t.thisTestHasAlreadyEnded);
    return row;
  },
  run: ({ tx, input, at, allowed }) => endSignIn(tx, input, { ...allowed, how: "tested" }, input.outcome, at),
  journal: ({ input, allowed }) => ({
    node: allowed.entryId,
    vault: allowed.vaultId,
    details: { signIn: input.signInId, outcome: input.outcome },
    names: { [allowed.entryId]: allowed.name },
  }),
  says: ({ details, it }) =>
    details.outcome === "signed-in"
      ? `tested ${it} at night: it works`
      : `tested ${it} at night: the site ${FAILURES[details.outcome as Failure]?.title ?? "failed"}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

export class NightTests {
  #busy = false;
  #notBefore = 0;
  #cursor = "";

  constructor(
    private readonly app: Galtry,
    private readonly engine: () => SignInEngine = () => defaultEngine(app),
    private readonly pauseMs = PAUSE_MS,
  ) {}

  /** Tests one login where it is night and one is due. @returns its entry, or null */
  async look(at = Date.now()): Promise<string | null> {
    if (this.#busy || at < this.#notBefore) return null;
    this.#busy = true;
    try {
      if (!(await loadRules(this.app.db)).nightTests) return null;
      const hour = zonedHour(at, await timeZone(this.app.db));
      if (hour < NIGHT.fromHour || hour >= NIGHT.untilHour) return null;
      const entryId = await this.#nextDue(at);
      if (entryId === null || !(await holdLease(this.app, WORK))) return null;
      try {
        return (await this.#test(entryId, at)) ? entryId : null;
      } finally {
        await endLease(this.app, WORK);
      }
    } finally {
      this.#notBefore = Date.now() + this.pauseMs;
      this.#busy = false;
    }
  }

  /** The next that is due after the one before, and from the beginning again; what is not reached in a night, in the next. */
  async #nextDue(at: number): Promise<string | null> {
    for (let looked = 0; looked < MOST_AT_A_LOOK; ) {
      const some = await someFrom(this.app, this.#cursor, at);
      const found = some.find(({ due }) => due === 1);
      this.#cursor = found?.id ?? (some.length < AT_ONCE ? "" : some.at(-1)!.id);
      if (found) return found.id;
      // From where it began to the end and from the beginning: twice at most.
      looked += this.#cursor === "" ? MOST_AT_A_LOOK / 2 : some.length;
    }
    return null;
  }

  async #test(entryId: string, at: number): Promise<boolean> {
    const { app } = this;
    const { signInId, found } = await beginNightTest.execute(app, { entryId }, SERVER, at);
    if (signInId === null) return false;
    const { entry, version } = found;
    const begun = { entry, login: openValues(app.db, app.keys, version).then(loginOf) };
    // A lease lasts less long than a sign-in may: it is held on to meanwhile.
    const hold = setInterval(() => void holdLease(app, WORK).catch(() => undefined), 10_000);
    try {
      const signal = AbortSignal.timeout(LONGEST_SIGN_IN_MS);
      const { session, picture, ...tested } = await testOnce(app, SERVER, SERVER_SEEN_AS, begun, signal, this.engine());
      const { outcome, detail } = tested;
      await endNightTest.execute(app, { signInId, outcome, detail, by: session?.by ?? null }, SERVER);
      await saveTest.execute(app, { entryId, versionId: version.id, ...tested, picture }, SERVER, at);
      return true;
    } finally {
      clearInterval(hold);
    }
  }
}
