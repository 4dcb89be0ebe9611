/**
 * The access of the whole organisation, held in this process and brought up to the last committed change before it
 * answers. Queries ask it; commands authorise from the rows, in their transaction.
 */
import { sql } from "drizzle-orm";
import { AccessIndex, type Standing } from "../../core/access";
import { bulk } from "../database/bulk";
import type { Database } from "../database/client";
import type { NodeType, Role } from "../database/schema";
import { groupBy } from "../groupBy";
import { yieldToEventLoop } from "../yieldToEventLoop";
import type { HeldGrant, IndexPerson, OpenIndex } from "./openIndex";
import { GRANT_COLUMNS, type StoredGrant, toGrant, toRow } from "./rows";

/** So many changes are taken up in one statement; between two the other work of the process has its turn. */
const MOST_AT_ONCE = 1_000;

/** Changes after which the whole is read anew. */
const MOST_BEHIND = 20_000;

interface PlacedRow {
  id: string;
  parent: string | null;
  vaultId: string;
  type: NodeType;
}
interface PersonRow {
  id: string;
  name: string;
  role: Role;
  standing: Standing;
  until: number | null;
}
interface HeldRow {
  personId: string;
  groupId: string;
  from: number | null;
  until: number | null;
}
const grantObject = sql`json_object(${sql.join(
  Object.entries(GRANT_COLUMNS).map(([name, column]) => sql`${sql.raw(`'${name}'`)}, ${column}`),
  sql`, `,
)})`;

const toHeld = (stored: StoredGrant): HeldGrant => {
  const whole = toRow(stored);
  return { ...whole, ...toGrant(whole) };
};

/** What one changed node or person is now, as one JSON text each: all of one statement are of the same moment. */
const CHANGED = sql`
  case c.kind when 'node' then (
    select json_object('parent', p.parent_id, 'vaultId', p.vault_id, 'type', n.type,
      'separate', exists (select 1 from separations s where s.node_id = c.ref and s.valid_until is null),
      'grants', (select json_group_array(json(${grantObject})) from grants g where g.node_id = c.ref and g.valid_until is null))
    from places p join nodes n on n.id = p.node_id where p.node_id = c.ref and p.valid_until is null
  ) else (
    select json_object('name', o.name, 'role', s.role, 'standing', s.standing, 'until', s.until_at,
      'held', (select json_group_array(json_object('groupId', m.group_id, 'from', m.from_at, 'until', m.until_at))
        from memberships m where m.person_id = c.ref and m.valid_until is null))
    from standings s join persons o on o.id = s.person_id where s.person_id = c.ref and s.valid_until is null
  ) end`;

type ChangedNode = { parent: string | null; vaultId: string; type: NodeType; separate: number; grants: StoredGrant[] };
type ChangedPerson = Omit<IndexPerson, "id" | "guest" | "held"> & { held: IndexPerson["held"] };

interface ChangedRow {
  seq: number;
  first: number;
  kind: string;
  ref: string;
  now: string | null;
}

const toPerson = (id: string, { name, role, standing, until, held }: ChangedPerson): IndexPerson => ({
  id,
  name,
  role,
  standing,
  guest: role === "guest",
  auditor: role === "auditor",
  until,
  held,
});

export class LiveAccess {
  #index: OpenIndex = new AccessIndex();
  /** The last change that is taken up; null before the first load. */
  #cursor: number | null = null;
  #working: Promise<void> | null = null;

  #renewals = 0;

  /** @param renewals how often the database has been made anew under it */
  constructor(
    private readonly db: Database,
    private readonly renewals: () => number = () => 0,
  ) {}

  /**
   * The index as of now, or later.
   * @param last the number of the last change, where the asker has just read it
   */
  async fresh(last?: number): Promise<OpenIndex> {
    let wanted = last;
    for (;;) {
      const renewals = this.renewals();
      if (renewals !== this.#renewals) {
        // What is being taken up just now is of before.
        await this.#working;
        this.#renewals = renewals;
        this.#cursor = null;
      }
      if (this.#cursor !== null) {
        wanted ??= await this.#last();
        if (this.#cursor >= wanted) return this.#index;
      }
      // Whoever comes meanwhile waits for the same work, and looks again.
      this.#working ??= this.#catchUp().finally(() => {
        this.#working = null;
      });
      await this.#working;
    }
  }

  async #last(): Promise<number> {
    const row = await this.db.get<{ last: number }>(LAST_CHANGE);
    return row?.last ?? 0;
  }

  async #catchUp(): Promise<void> {
    if (this.#cursor === null) return this.#load();
    // Long behind: all of it at once is quicker than piece by piece.
    if ((await this.#last()) - this.#cursor > MOST_BEHIND) return this.#load();
    for (;;) {
      const cursor: number = this.#cursor ?? 0;
      const rows: ChangedRow[] = await this.db.all<ChangedRow>(sql`
        select max(c.seq) as seq, c.kind as kind, c.ref as ref, ${CHANGED} as now,
          (select min(seq) from access_changes) as first
        from (select seq, kind, ref from access_changes where seq > ${cursor} order by seq limit ${MOST_AT_ONCE}) c
        group by c.kind, c.ref`);
      if (rows.length === 0) return;
      // Changes that were cleared away before they were taken up: begin anew.
      if (rows[0]!.first > cursor + 1) return this.#load();
      for (const { kind, ref, now } of rows) this.#apply(kind, ref, now);
      this.#cursor = rows.reduce((most, { seq }) => Math.max(most, seq), cursor);
      await yieldToEventLoop();
    }
  }

  #apply(kind: string, ref: string, now: string | null): void {
    if (kind === "person") {
      // A person's row is never gone; one that has no standing yet is nobody.
      if (now !== null) this.#index.putPerson(toPerson(ref, JSON.parse(now) as ChangedPerson));
      return;
    }
    const node = now === null ? null : (JSON.parse(now) as ChangedNode);
    this.#index.putNode(ref, node && { ...node, separate: node.separate === 1 }, node?.grants.map(toHeld) ?? []);
  }

  async #load(): Promise<void> {
    // What changes while the rows are read is taken up again afterwards.
    const cursor = await this.#last();
    const index: OpenIndex = new AccessIndex();
    const [placed, separate, grants, people, held] = [
      await bulk<PlacedRow>(
        this.db,
        { id: sql`p.node_id`, parent: sql`p.parent_id`, vaultId: sql`p.vault_id`, type: sql`n.type` },
        sql`from places p join nodes n on n.id = p.node_id where p.valid_until is null`,
      ),
      await bulk<{ id: string }>(this.db, { id: sql`node_id` }, sql`from separations where valid_until is null`),
      await bulk<StoredGrant>(this.db, GRANT_COLUMNS, sql`from grants g where g.valid_until is null`),
      await bulk<PersonRow>(
        this.db,
        {
          id: sql`s.person_id`,
          name: sql`o.name`,
          role: sql`s.role`,
          standing: sql`s.standing`,
          until: sql`s.until_at`,
        },
        sql`from standings s join persons o on o.id = s.person_id where s.valid_until is null`,
      ),
      await bulk<HeldRow>(
        this.db,
        { personId: sql`person_id`, groupId: sql`group_id`, from: sql`from_at`, until: sql`until_at` },
        sql`from memberships where valid_until is null`,
      ),
    ];
    const cut = new Set(separate.map(({ id }) => id));
    const onNode = groupBy(grants, ({ nodeId }) => nodeId);
    let turn = 0;
    for (const { id, ...node } of placed) {
      index.putNode(id, { ...node, separate: cut.has(id) }, onNode.get(id)?.map(toHeld) ?? []);
      if (++turn % MOST_AT_ONCE === 0) await yieldToEventLoop();
    }
    const heldBy = groupBy(held, ({ personId }) => personId);
    for (const person of people) index.putPerson(toPerson(person.id, { ...person, held: heldBy.get(person.id) ?? [] }));
    this.#index = index;
    this.#cursor = cursor;
  }
}

/** The number of the last change of access. */
export const LAST_CHANGE = sql`select coalesce((select max(seq) from access_changes), 0) as last`;
