/** Sessions that were handed over: who may still be signed in at a site, and signing out from the sealed jar. */
import { and, desc, eq, isNull, sql } from "drizzle-orm";
import { z } from "zod";
import { atLeast } from "../../core/access";
import { hostOf } from "../../core/signin/address";
import { matches } from "../../core/signin/site";
import { requireLevel, resolveAt } from "../access/load";
import type { OpenIndex } from "../access/openIndex";
import { command, idSchema, query } from "../command";
import { entries, persons, signIns } from "../database/schema";
import type { Galtry } from "../galtry";
import { endLease, holdLease, LEASE_MS } from "../lease";
import { orSealError } from "../vaults/sealing";
import { GuardedClient } from "./guardedClient";
import { openJar } from "./sealed";

/** A site's session rarely outlives this; older ones are not spoken of. */
const SESSION_MS = 30 * 24 * 3_600_000;

/** Who may still be signed in at the entry's site, latest first; each person once. */
export const openSessions = query({
  name: "signIn.openSessions",
  input: z.strictObject({ entryId: idSchema }),
  by: ["person"],
  allow: (context) => requireLevel(context, context.input.entryId, "steward"),
  run: async ({ tx, input, at }) => {
    const rows = await tx
      .select({ personId: persons.id, name: persons.name, at: signIns.begunAt, how: signIns.how })
      .from(signIns)
      .innerJoin(persons, eq(persons.id, signIns.personId))
      .where(and(eq(signIns.entryId, input.entryId), eq(signIns.outcome, "signed-in"), isNull(signIns.signedOutAt)))
      .orderBy(desc(signIns.begunAt))
      .limit(500);
    const latest = new Map<string, { personId: string; name: string; at: number; how: string; mayUse: boolean }>();
    for (const row of rows) {
      if (latest.has(row.personId) || at - row.at > SESSION_MS) continue;
      const now = await resolveAt(tx, row.personId, input.entryId, at);
      latest.set(row.personId, { ...row, mayUse: now !== null && atLeast(now.resolution.level, "use") });
    }
    return [...latest.values()];
  },
});

/** What became of a jar: signed out at the site, or dropped because nothing can be done with it. */
export const dropJar = command({
  name: "signIn.dropJar",
  input: z.strictObject({ signInId: idSchema, signedOut: z.boolean() }),
  by: ["server"],
  internal: true,
  allow: () => undefined,
  run: async ({ tx, input, at }) => {
    const [row] = await tx
      .update(signIns)
      .set({ jar: null, ...(input.signedOut ? { signedOutAt: at } : {}) })
      .where(eq(signIns.id, input.signInId))
      .returning();
    return { entryId: row?.entryId ?? null, personId: row?.personId ?? null };
  },
  journal: ({ input, result }) =>
    input.signedOut && result.entryId
      ? { person: result.personId, node: result.entryId, details: { signIn: input.signInId } }
      : null,
  says: ({ place }) => `was signed out by Galtry${place("at")}, because their access ended`,
  tell: () => [],
});

const WORK = "signIn.signOutEnded";
/** Kept sessions that are looked at in one statement. */
const AT_ONCE = 500;
/** Sites that are signed out of at the same time. */
const VISITS = 4;
/** Where more than this has changed, all that is kept is looked through. */
const MOST_CHANGED = 1_000;
const WEEKLY_EVERY_MS = 60_000;

interface Kept {
  id: string;
  entryId: string;
  personId: string;
  begunAt: number;
  binned: number;
}

/**
 * For everybody whose access has ended: signs out where the steps say how, and forgets the session. It goes by what has
 * changed and what has run out since it looked last; and beside that, some at a time, through all that is kept, which finds
 * what happened while no Galtry was running, and what has grown old.
 */
export class SigningOut {
  #change: number | null = null;
  #lookedAt = Date.now();
  #weeklyAt = 0;
  #cursor = "";
  #busy = false;

  constructor(private readonly app: Galtry) {}

  /** Looks once. @returns how many sessions were forgotten; null where an earlier look is still under way */
  async look(at = Date.now()): Promise<number | null> {
    if (this.#busy) return null;
    this.#busy = true;
    try {
      const index = await this.app.access.fresh();
      const changed = await this.#changed(index, at);
      let ended = 0;
      if (changed.entries.length > MOST_CHANGED) this.#cursor = "";
      else ended += await this.#end(index, await this.#keptOf(changed), at);
      do {
        const kept = await this.#keptFrom(this.#cursor);
        ended += await this.#end(index, kept, at);
        this.#cursor = kept.length < AT_ONCE ? "" : kept.at(-1)!.id;
      } while (changed.entries.length > MOST_CHANGED && this.#cursor !== "");
      return ended;
    } finally {
      this.#busy = false;
    }
  }

  /** People and entries for whom something has changed or run out since the last look. */
  async #changed(index: OpenIndex, at: number): Promise<{ people: string[]; entries: string[] }> {
    const [since, change] = [this.#lookedAt, this.#change];
    const weekly = at - this.#weeklyAt >= WEEKLY_EVERY_MS;
    const rows = await this.app.db.all<{ kind: "person" | "node" | "last"; ref: string }>(sql`
      select 'last' as kind, cast(coalesce(max(seq), 0) as text) as ref from access_changes
      union select kind, ref from access_changes where seq > ${change ?? Number.MAX_SAFE_INTEGER}
      union select 'node', node_id from grants where valid_until is null and until_at between ${since} and ${at}
      union select 'person', person_id from memberships where valid_until is null and until_at between ${since} and ${at}
      union select 'person', person_id from standings where valid_until is null and until_at between ${since} and ${at}
      union select 'node', node_id from entries where binned_at between ${since} and ${at}
      union select 'node', node_id from grants where valid_until is null and weekly is not null and ${weekly ? 1 : 0}`);
    this.#change = Number(rows.find(({ kind }) => kind === "last")!.ref);
    this.#lookedAt = at;
    if (weekly) this.#weeklyAt = at;
    const entries = new Set<string>();
    for (const { kind, ref } of rows) {
      if (kind !== "node") continue;
      entries.add(ref);
      for (const node of index.below(ref)) if (node.type === "entry") entries.add(node.id);
      if (entries.size > MOST_CHANGED) break;
    }
    return { people: rows.flatMap(({ kind, ref }) => (kind === "person" ? [ref] : [])), entries: [...entries] };
  }

  #keptOf({ people, entries: ids }: { people: string[]; entries: string[] }): Promise<Kept[]> {
    if (people.length + ids.length === 0) return Promise.resolve([]);
    return this.app.db.all<Kept>(sql`
      ${KEPT} where s.jar is not null and s.person_id in (select value from json_each(${JSON.stringify(people)}))
      union ${KEPT} where s.jar is not null and s.entry_id in (select value from json_each(${JSON.stringify(ids)}))`);
  }

  #keptFrom = (cursor: string): Promise<Kept[]> =>
    this.app.db.all<Kept>(sql`${KEPT} where s.jar is not null and s.id > ${cursor} order by s.id limit ${AT_ONCE}`);

  async #end(index: OpenIndex, kept: readonly Kept[], at: number): Promise<number> {
    const waiting = kept.filter(
      ({ personId, entryId, begunAt, binned }) =>
        binned === 1 || at - begunAt > SESSION_MS || !atLeast(index.level(personId, entryId, at), "use"),
    );
    if (waiting.length === 0) return 0;
    // Of several Galtrys one visits the sites. Should it end in the middle, the look through all that is kept finds the rest.
    if (!(await holdLease(this.app, WORK))) return 0;
    let held = Date.now();
    const some = async () => {
      for (let one = waiting.pop(); one; one = waiting.pop()) {
        if (Date.now() - held > LEASE_MS / 3) {
          held = Date.now();
          if (!(await holdLease(this.app, WORK))) return;
        }
        await this.#endOne(one, index.node(one.entryId)?.vaultId, at);
      }
    };
    const count = waiting.length;
    try {
      await Promise.all(Array.from({ length: VISITS }, some));
    } finally {
      await endLease(this.app, WORK);
    }
    return count;
  }

  async #endOne({ id, entryId, begunAt }: Kept, vaultId: string | undefined, at: number): Promise<void> {
    const { app } = this;
    const [row] = await app.db.select().from(signIns).where(eq(signIns.id, id));
    if (!row?.jar) return;
    const [entry] = await app.db.select().from(entries).where(eq(entries.nodeId, entryId));
    const page = entry?.steps.signOutPage;
    const old = at - begunAt > SESSION_MS;
    const visits = entry && vaultId && page && !old;
    // What does not open signs nobody out: it is forgotten like the others, and stands in nobody's way.
    const jar = visits ? await openJar(app, vaultId, row).catch(orSealError) : null;
    const signedOut = visits && jar ? await visitSignOut(app, entry, page, jar) : false;
    await dropJar.execute(app, { signInId: id, signedOut }, { kind: "server" }, at);
  }
}

const KEPT = sql`select s.id as id, s.entry_id as "entryId", s.person_id as "personId", s.begun_at as "begunAt",
  coalesce((select e.binned_at is not null from entries e where e.node_id = s.entry_id), 1) as binned
  from sign_ins s`;

/** Visits the page that signs out, with a session's cookies. @returns whether the site took it */
export async function visitSignOut(
  app: Galtry,
  entry: Pick<typeof entries.$inferSelect, "steps" | "signInPage" | "reach" | "plainHttp">,
  page: string,
  jar: Awaited<ReturnType<typeof openJar>>,
): Promise<boolean> {
  const hosts = new Set(entry.steps.hosts);
  const client = new GuardedClient({
    allows: (address) => matches(entry, address) || hosts.has(hostOf(address) ?? ""),
    allowedTargets: app.configuration.allowedTargets,
    ownPort: app.configuration.port,
    plainHttp: entry.plainHttp,
  });
  try {
    const url = new URL(page, entry.signInPage);
    const cookie = jar
      .filter((one) => url.hostname === one.domain || (!one.hostOnly && url.hostname.endsWith(`.${one.domain}`)))
      .map((one) => `${one.name}=${one.value}`)
      .join("; ");
    const reply = await client.send(url.href, {
      method: "GET",
      headers: { cookie, "user-agent": "Galtry" },
      signal: AbortSignal.timeout(10_000),
    });
    return reply.status < 400;
  } catch {
    return false;
  } finally {
    await client.close();
  }
}
