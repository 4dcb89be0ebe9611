/** Once a week, on Monday morning, each steward is told what needs attention where they can act: a notice, and by email as they choose. */
import { and, desc, eq } from "drizzle-orm";
import { z } from "zod";
import { momentsOf, wallDay } from "../../core/zone";
import { loadPerson } from "../access/person";
import { command, idSchema } from "../command";
import { readerWith } from "../database/client";
import { notices } from "../database/schema";
import type { Galtry } from "../galtry";
import { timeZone } from "../organisation";
import { addNotice, settleNotices } from "../people/telling";
import { todayOf } from "./findingsPage";
import { weekly as t } from "./strings";

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const WEEK = 7 * DAY;
const AT_HOUR = 7;
const SERVER = { kind: "server" } as const;
const ABOUT = "upkeep of the week";

/** The last Monday, seven o'clock on the organisation's clock, that is not to come yet. */
export function weekBegan(at: number, zone: string): number {
  const today = wallDay(zone, at);
  // The first of January 1970 was a Thursday.
  const monday = today - ((today + 3) % 7);
  const began = momentsOf(zone, monday * DAY + AT_HOUR * HOUR).first;
  return began <= at ? began : momentsOf(zone, (monday - 7) * DAY + AT_HOUR * HOUR).first;
}

/** The notice of one person for one week: never twice, and in place of the one of the week before. */
export const tellOfUpkeep = command({
  name: "upkeep.tellOfUpkeep",
  input: z.strictObject({ personId: idSchema, week: z.number().int(), text: z.string().max(1_000) }),
  by: ["server"],
  lowPriority: true,
  allow: () => undefined,
  run: async ({ tx, input: { personId, week, text }, at }) => {
    const [last] = await tx
      .select({ at: notices.at })
      .from(notices)
      .where(and(eq(notices.personId, personId), eq(notices.about, ABOUT)))
      .orderBy(desc(notices.at))
      .limit(1);
    if (last && last.at >= week) return false;
    await settleNotices(tx, ABOUT, at, personId);
    await addNotice(tx, { to: personId, at, sort: "upkeep", text, about: ABOUT });
    return true;
  },
  journal: null,
  tell: ({ input, result }) => (result ? [`person:${input.personId}`] : []),
});

/** Tells of the week that has begun. @returns the moment it began */
export async function tellOfWeek(app: Galtry, at = Date.now()): Promise<number> {
  const week = weekBegan(at, await timeZone(app.db));
  // Told late, it would be read in the middle of the next.
  if (at - week > DAY) return week;
  const index = await app.access.fresh();
  const tx = readerWith(app.db, index);
  for (const { id, guest, auditor } of index.people) {
    if (guest || auditor || ![...index.reached(id, at).values()].includes("steward")) continue;
    const me = await loadPerson(app.db, id, at);
    const found = me && (await todayOf(tx, me, at));
    if (!found || (found.today === 0 && found.later === 0)) continue;
    const text = t.thisWeek(found.names, found.today, found.later, found.more);
    await tellOfUpkeep.execute(app, { personId: id, week, text }, SERVER, at);
  }
  return week;
}

/** Looks whether a week has begun that nobody was told of by this process. */
export class Weekly {
  #told = 0;
  #running = false;

  constructor(private readonly app: Galtry) {}

  async look(at = Date.now()): Promise<void> {
    if (this.#running || at - this.#told < WEEK) return;
    this.#running = true;
    try {
      this.#told = await tellOfWeek(this.app, at);
    } finally {
      this.#running = false;
    }
  }
}
