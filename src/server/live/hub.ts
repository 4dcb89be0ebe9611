/**
 * Who is told to look again. Every process reads the outbox by cursor and wakes at the next boundary of a time
 * window; a stream hears the topics of its person. Never content: content is queried under access.
 */

import { and, asc, desc, eq, gt, gte, inArray, isNull, lte, or, type SQL, sql } from "drizzle-orm";
import { isActive } from "../../core/access";
import { loadPerson } from "../access/person";
import type { Topic } from "../command";
import type { Database } from "../database/client";
import { grants, memberships, outbox, personStates, places } from "../database/schema";
import { type Galtry, upToDate } from "../galtry";
import { failed } from "../log";

const POLL_MS = 100;
/** Where each look is a question to another machine. */
const REMOTE_POLL_MS = 250;

/** What a listener has seen: the newest outbox number and the moment of its page. */
export interface Since {
  seen: number;
  at: number;
}

/** Tabs of one browser share one stream; a few more are browsers that cannot, or one that has just gone. */
const MOST_OF_ONE = 6;

interface Listener {
  /** Session or Lanyard. */
  owner: string;
  /** Ends its stream. */
  close: () => void;
  personId: string;
  topics: ReadonlySet<Topic>;
  hear: (seq: number) => void;
}

export class Hub {
  readonly #listeners = new Set<Listener>();
  #cursor = 0;
  #checkedAt = Date.now();
  #timer: NodeJS.Timeout | null = null;
  #ready: Promise<void> | null = null;

  constructor(private readonly app: Galtry) {}

  /**
   * Of one owner the oldest is closed where there would be too many.
   * @returns a function that stops listening; `hear` is called with the latest outbox number
   */
  async listen(
    personId: string,
    hear: (seq: number) => void,
    { owner, close }: Pick<Listener, "owner" | "close"> = { owner: personId, close: () => {} },
  ): Promise<() => void> {
    await this.#start();
    const listener: Listener = { owner, close, personId, topics: await topicsOf(this.app.db, personId), hear };
    const own = [...this.#listeners].filter((one) => one.owner === owner);
    for (const one of own.slice(0, Math.max(0, own.length - MOST_OF_ONE + 1))) {
      this.#listeners.delete(one);
      one.close();
    }
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  /** How many listen. */
  get listening(): number {
    return this.#listeners.size;
  }

  /** The newest outbox number, for catching up. */
  get cursor(): number {
    return this.#cursor;
  }

  /** Whether anything was told, or a window opened or closed, since a listener last looked. */
  async missed({ seen, at }: Since): Promise<boolean> {
    if (this.#cursor > seen) return true;
    const now = Date.now();
    const edges = [edgeOf(grants, "from", at, now), edgeOf(grants, "until", at, now)];
    edges.push(edgeOf(memberships, "from", at, now), edgeOf(memberships, "until", at, now));
    edges.push(edgeOf(personStates, "until", at, now));
    const [crossed] = await this.app.db.all<{ any: number }>(
      sql`select ${sql.join(
        edges.map((edge) => sql`exists (${edge})`),
        sql` or `,
      )} as any`,
    );
    return crossed?.any === 1;
  }

  #start(): Promise<void> {
    this.#ready ??= (async () => {
      this.#cursor = await this.#newest();
      this.#timer = setInterval(() => void this.#turn(), this.app.replica ? REMOTE_POLL_MS : POLL_MS);
      this.#timer.unref();
    })();
    return this.#ready;
  }

  #busy = false;
  async #turn(): Promise<void> {
    if (this.#busy) return;
    // It ends with its house.
    if (this.app.reader.closed) {
      if (this.#timer) clearInterval(this.#timer);
      return;
    }
    this.#busy = true;
    try {
      await upToDate(this.app);
      const renewed = await this.#renewed();
      const heard = new Set<Topic>([...renewed, ...(await this.#outboxTopics()), ...(await this.#boundaryTopics())]);
      if (heard.size > 0) await this.#tell(heard);
    } catch (error) {
      // The database was busy or away: the cursor stands, the next turn reads on.
      failed("live.turn", error);
    } finally {
      this.#busy = false;
    }
  }

  #renewals = 0;
  /** Where the database was made anew under it, everybody looks again, and it goes on from what is there now. */
  async #renewed(): Promise<Topic[]> {
    const renewals = this.app.replica?.renewals ?? 0;
    if (renewals === this.#renewals) return [];
    this.#cursor = await this.#newest();
    this.#renewals = renewals;
    return [...this.#listeners].map(({ personId }): Topic => `person:${personId}`);
  }

  async #newest(): Promise<number> {
    const [last] = await this.app.db.select({ seq: outbox.seq }).from(outbox).orderBy(desc(outbox.seq)).limit(1);
    return last?.seq ?? 0;
  }

  async #outboxTopics(): Promise<Topic[]> {
    const rows = await this.app.db
      .select()
      .from(outbox)
      .where(gt(outbox.seq, this.#cursor))
      .orderBy(asc(outbox.seq))
      .limit(500);
    const last = rows.at(-1);
    if (last) this.#cursor = last.seq;
    return rows.flatMap((row) => row.topics as Topic[]);
  }

  /** Windows that opened or closed since the last look. */
  async #boundaryTopics(): Promise<Topic[]> {
    const [since, now] = [this.#checkedAt, Date.now()];
    const crossed = <R extends { from: number | null; until: number | null }>(rows: R[]) =>
      rows.filter((row) => isActive(row, since) !== isActive(row, now));
    const [grantRows, memberRows, personRows] = await Promise.all([
      this.app.db
        .select({ from: grants.from, until: grants.until, weekly: grants.weekly, vaultId: places.vaultId })
        .from(grants)
        .innerJoin(places, onPlace())
        .where(
          sql`${grants.id} in (${edgeOf(grants, "from", since, now)} union ${edgeOf(grants, "until", since, now)}
            union select id from ${grants} where valid_until is null and weekly is not null)`,
        ),
      this.app.db
        .select({
          from: memberships.from,
          until: memberships.until,
          personId: memberships.personId,
          groupId: memberships.groupId,
        })
        .from(memberships)
        .where(
          sql`${memberships.id} in (${edgeOf(memberships, "from", since, now)} union ${edgeOf(memberships, "until", since, now)})`,
        ),
      this.app.db
        .select({ from: sql<null>`null`, until: personStates.until, personId: personStates.personId })
        .from(personStates)
        .where(and(isNull(personStates.validUntil), gte(personStates.until, since), lte(personStates.until, now))),
    ]);
    this.#checkedAt = now;
    const opened = crossed(grantRows);
    return [
      ...opened.map((row): Topic => `vault:${row.vaultId}`),
      ...(opened.length > 0 ? (["everyone"] as const) : []),
      ...crossed(memberRows).flatMap((row): Topic[] => [`person:${row.personId}`, `group:${row.groupId}`]),
      ...crossed(personRows).flatMap((row): Topic[] => [`person:${row.personId}`, "administrators", "everyone"]),
    ];
  }

  async #tell(heard: Set<Topic>): Promise<void> {
    const concerned = [...this.#listeners].filter((listener) => [...heard].some((topic) => listener.topics.has(topic)));
    for (const listener of concerned) listener.hear(this.#cursor);
    // What they reach may have changed with it.
    const fresh = new Map<string, Promise<ReadonlySet<Topic>>>();
    for (const listener of concerned) {
      if (!fresh.has(listener.personId)) fresh.set(listener.personId, topicsOf(this.app.db, listener.personId));
      listener.topics = await fresh.get(listener.personId)!;
    }
  }
}

const onPlace = (): SQL => and(eq(places.nodeId, grants.nodeId), isNull(places.validUntil))!;
/** The rows that hold and begin or end in a span: each edge by an index of its own. */
const edgeOf = (
  table: typeof grants | typeof memberships | typeof personStates,
  edge: "from" | "until",
  since: number,
  now: number,
) => {
  const column = sql.identifier(`${edge}_at`);
  return sql`select id from ${table} where valid_until is null and ${column} between ${since} and ${now}`;
};

/**
 * The topics of one person: themselves, their groups, Everyone, and the vaults in which a grant names any of these. That
 * is more than they reach, when one of them is blocked or its time has not come; and it is one look at an index for each,
 * where their reach is a walk over every entry, and two hundred people look again at once.
 */
async function topicsOf(db: Database, personId: string): Promise<ReadonlySet<Topic>> {
  const at = Date.now();
  const person = await loadPerson(db, personId, at);
  if (!person) return new Set<Topic>([`person:${personId}`]);
  const named = await db
    .selectDistinct({ vaultId: places.vaultId })
    .from(grants)
    .innerJoin(places, onPlace())
    .where(
      and(
        isNull(grants.validUntil),
        or(
          inArray(grants.subjectId, [personId, ...person.groups]),
          person.guest ? undefined : eq(grants.subjectKind, "everyone"),
        ),
      ),
    );
  const topics: Set<Topic> = new Set<Topic>([
    `person:${personId}`,
    ...[...person.groups].map((id): Topic => `group:${id}`),
  ]);
  if (!person.guest) topics.add("everyone");
  if (person.role === "owner" || person.role === "administrator") topics.add("administrators");
  for (const { vaultId } of named) topics.add(`vault:${vaultId}`);
  return topics;
}

const holder = globalThis as typeof globalThis & { __galtryHub?: Hub };

export function hubOf(app: Galtry): Hub {
  holder.__galtryHub ??= new Hub(app);
  return holder.__galtryHub;
}
