/**
 * Passwords changed regularly: at night, every so many months as the house rules say, of entries whose stewards have
 * chosen that. A handful at a time becomes a run, in which each site is visited slowly.
 */
import { sql } from "drizzle-orm";
import { monthsAfter, zonedHour } from "../../core/time";
import type { Galtry } from "../galtry";
import { endLease, holdLease } from "../lease";
import { loadRules, timeZone } from "../organisation";
import { CHANGEABLE } from "./changeable";
import { NIGHT } from "./nightTests";
import { beginRuleRun } from "./runs";

const WORK = "signIn.changeRegularly";
/** What is not reached in a night is in the next. */
const AT_ONCE = 10;
const LOOK_AGAIN_MS = 10 * 60_000;
/** What could not be changed is tried once a night, and no more often. */
const ONCE_IN_MS = 18 * 3_600_000;

/**
 * Entries whose current version is older than it may be. What asks first, or waits for a code that a person enters, is not
 * among them, nor is one that never worked, or of which it is open which of two passwords does.
 */
export const dueEntries = (app: Galtry, writtenBefore: number, at: number): Promise<{ id: string }[]> =>
  app.db.all<{ id: string }>(sql`
    select e.node_id as id from entries e join entry_versions v on v.id = e.version_id
    where e.changed_regularly = 1 and v.created_at <= ${writtenBefore}
      and e.binned_at is null and e.aside_at is null and e.asks_first = 0 and e.codes_reach = '' and ${CHANGEABLE}
      and exists (select 1 from sign_ins s where s.entry_id = e.node_id and s.outcome = 'signed-in')
      and not exists (select 1 from password_changes c where c.entry_id = e.node_id and c.sealed is not null)
      and not exists (select 1 from run_items i where i.entry_id = e.node_id and (i.ended_at is null or i.ended_at > ${at - ONCE_IN_MS}))
    order by v.created_at limit ${AT_ONCE}`);

export class RegularChanges {
  #busy = false;
  #notBefore = 0;

  constructor(private readonly app: Galtry) {}

  /** Begins a run of what is due, where it is night and none is under way. @returns how many are in it */
  async look(at = Date.now()): Promise<number> {
    if (this.#busy || at < this.#notBefore) return 0;
    this.#busy = true;
    try {
      const { db } = this.app;
      const { changeEvery } = await loadRules(db);
      if (changeEvery === null) return 0;
      const hour = zonedHour(at, await timeZone(db));
      if (hour < NIGHT.fromHour || hour >= NIGHT.untilHour) return 0;
      const open = await db.get<{ any: number }>(
        sql`select exists (select 1 from runs where ended_at is null and person_id is null) as any`,
      );
      if (open?.any === 1) return 0;
      const due = await dueEntries(this.app, monthsAfter(at, -changeEvery), at);
      if (due.length === 0) this.#notBefore = at + LOOK_AGAIN_MS;
      if (due.length === 0 || !(await holdLease(this.app, WORK))) return 0;
      try {
        await beginRuleRun.execute(this.app, { entryIds: due.map(({ id }) => id) }, { kind: "server" }, at);
        return due.length;
      } finally {
        await endLease(this.app, WORK);
      }
    } finally {
      this.#busy = false;
    }
  }
}
