/**
 * Reports by mail: every week or month, to whoever asked for it and as far as they may know it at that moment. The mail says
 * how many lines there are and leads to them; what they say is read in Galtry.
 */
import { and, eq, isNull, lte, sql } from "drizzle-orm";
import { z } from "zod";
import {
  askedOf,
  QUESTION_TITLES,
  QUESTIONS,
  type Question,
  REPORT_TIMES,
  type ReportTime,
} from "../../core/reports/questions";
import { momentsOf, wallDay } from "../../core/zone";
import { requireLevel } from "../access/load";
import type { Person } from "../access/person";
import { readsAll } from "../caller";
import { command, idSchema, none, query } from "../command";
import type { Reader } from "../database/client";
import { personStates, persons, reportMails } from "../database/schema";
import type { Galtry } from "../galtry";
import { uuidv7 } from "../ids";
import { endLease, holdLease } from "../lease";
import { goesOn } from "../log";
import { letterOf } from "../mail/letter";
import { queueMail } from "../mail/queue";
import { loadHome, timeZone } from "../organisation";
import { addNotice } from "../people/telling";
import { notFound, Refused } from "../refused";
import { weekBegan } from "../upkeep/weekly";
import { report } from "./report";
import { mailedReports as t } from "./strings";

const DAY = 86_400_000;
const AT_HOUR = 7;
const MOST = 20;
const AT_ONCE = 20;
const SERVER = { kind: "server" } as const;
const WORK = "reports.mail";

type Row = typeof reportMails.$inferSelect;

type Asked = Pick<Row, "question" | "nodeId" | "aboutId">;

const rowOf = ({ question, nodeId, personId }: Omit<Asked, "aboutId"> & { personId: string | null }): Asked => ({
  ...{ question, nodeId, aboutId: personId },
});

const same = (personId: string, { question, nodeId, aboutId }: Asked) =>
  and(
    eq(reportMails.personId, personId),
    eq(reportMails.question, question),
    sql`${reportMails.nodeId} is ${nodeId}`,
    sql`${reportMails.aboutId} is ${aboutId}`,
  );

/** The next Monday, or first of a month, at seven on the organisation's clock. */
export function nextReport(every: ReportTime, at: number, zone: string): number {
  if (every === "week") {
    const next = weekBegan(at + 7 * DAY, zone);
    return next > at ? next : weekBegan(at + 8 * DAY, zone);
  }
  const today = new Date(wallDay(zone, at) * DAY);
  const ofMonth = (ahead: number) =>
    momentsOf(zone, Date.UTC(today.getUTCFullYear(), today.getUTCMonth() + ahead, 1) + AT_HOUR * 3_600_000).first;
  return ofMonth(0) > at ? ofMonth(0) : ofMonth(1);
}

export const mailReport = command({
  name: "reports.mailReport",
  evenFor: ["auditor"],
  input: z.strictObject({
    question: z.enum(Object.keys(QUESTIONS) as [Question]),
    nodeId: idSchema.nullable(),
    personId: idSchema.nullable(),
    every: z.enum(REPORT_TIMES),
  }),
  by: ["person"],
  // What it may tell is asked anew each time it is made.
  allow: async (context) => {
    const { tx, input, me, role, app } = context;
    if (me.guest) throw notFound();
    const asked = askedOf(input.question);
    if ((asked.node === "any" && input.nodeId === null) || (asked.person && input.personId === null))
      throw new Refused("bad-input", t.chooseFirst);
    if (input.nodeId !== null && role !== "auditor") await requireLevel(context, input.nodeId, "steward");
    if (input.nodeId === null && !readsAll(role) && !(await isAnySteward(tx, me))) throw notFound();
    if (!app.configuration.mail) throw new Refused("conflict", t.noMail);
    const [there] = await tx
      .select()
      .from(reportMails)
      .where(same(me.id, rowOf(input)));
    if (!there && (await tx.$count(reportMails, eq(reportMails.personId, me.id))) >= MOST)
      throw new Refused("conflict", t.tooMany(MOST));
  },
  run: async ({ tx, input, me, at }) => {
    const { every } = input;
    const nextAt = nextReport(every, at, await timeZone(tx));
    const [there] = await tx
      .update(reportMails)
      .set({ every, nextAt })
      .where(same(me.id, rowOf(input)))
      .returning();
    if (there) return;
    await tx.insert(reportMails).values({ id: uuidv7(), personId: me.id, ...rowOf(input), every, nextAt });
  },
  journal: null,
  tell: () => [],
});

const isAnySteward = async (tx: Reader, { id, groups }: Pick<Person, "id" | "groups">): Promise<boolean> =>
  (
    await tx.get<{ any: number }>(sql`
      select exists (select 1 from grants where valid_until is null and level = 'steward'
        and subject_id in (select value from json_each(${JSON.stringify([id, ...groups])}))) as any`)
  )?.any === 1;

export const stopReportMail = command({
  name: "reports.stopReportMail",
  evenFor: ["auditor"],
  input: z.strictObject({ id: idSchema }),
  by: ["person"],
  allow: async ({ tx, input, me }) => {
    const [row] = await tx.select().from(reportMails).where(eq(reportMails.id, input.id));
    if (row?.personId !== me.id) throw notFound();
  },
  run: async ({ tx, input }) => {
    await tx.delete(reportMails).where(eq(reportMails.id, input.id));
  },
  journal: null,
  tell: () => [],
});

/** Those that the reader gets. */
export const ownReportMails = query({
  name: "reports.ownReportMails",
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, app }) => ({
    /** Mail is set up. */
    mails: app.configuration.mail !== null,
    rows: (await tx.select().from(reportMails).where(eq(reportMails.personId, me.id))).map(
      ({ id, question, nodeId, aboutId, every, nextAt }) => ({
        id,
        question,
        nodeId,
        personId: aboutId,
        every,
        nextAt,
      }),
    ),
  }),
});

/** One went out, and when the next one does: never twice for the same moment. */
export const sendReport = command({
  name: "reports.sendReport",
  input: z.strictObject({
    id: idSchema,
    /** Null where it could not be made this time. */
    count: z.number().int().min(0).nullable(),
    more: z.boolean(),
    about: z.string().max(300),
    address: z.string().max(1_000),
  }),
  by: ["server"],
  internal: true,
  lowPriority: true,
  allow: () => undefined,
  run: async ({ tx, input, at, app }) => {
    const [row] = await tx
      .select()
      .from(reportMails)
      .where(and(eq(reportMails.id, input.id), lte(reportMails.nextAt, at)));
    if (!row) return;
    const nextAt = nextReport(row.every, at, await timeZone(tx));
    await tx
      .update(reportMails)
      .set({ nextAt, ...(input.count !== null && { count: input.count }) })
      .where(eq(reportMails.id, row.id));
    const [person] = await tx
      .select({ mail: persons.mail })
      .from(persons)
      .innerJoin(personStates, and(eq(personStates.personId, persons.id), isNull(personStates.validUntil)))
      .where(and(eq(persons.id, row.personId), eq(personStates.standing, "active")));
    if (!person || input.count === null) return;
    const title = QUESTION_TITLES[row.question];
    const body = letterOf({
      organisation: (await loadHome(tx)).name,
      paragraphs: [t.says(title, input.about, input.count, input.more, row.count)],
      act: { word: t.open, address: new URL(input.address, app.configuration.publicUrl).href },
      after: [t.howToStop],
    });
    const mail = { to: person.mail, subject: t.subject(title), body, until: at + DAY, makerId: "", nodeId: null };
    await queueMail(tx, app.keys, mail, at);
  },
  journal: null,
  tell: () => [],
});

/** Its reader may not know it any more. */
export const dropReport = command({
  name: "reports.dropReport",
  input: z.strictObject({ id: idSchema }),
  by: ["server"],
  internal: true,
  allow: () => undefined,
  run: async ({ tx, input, at }) => {
    const [gone] = await tx.delete(reportMails).where(eq(reportMails.id, input.id)).returning();
    if (!gone) return null;
    const text = t.noLonger(QUESTION_TITLES[gone.question]);
    await addNotice(tx, { to: gone.personId, at, sort: "watch", text });
    return gone.personId;
  },
  journal: null,
  tell: ({ result }) => (result === null ? [] : [`person:${result}`]),
});

const dayOf = (at: number, zone: string): string => new Date(wallDay(zone, at) * DAY).toISOString().slice(0, 10);

/** What is asked this time, and where it is read. */
function asking({ question, nodeId, aboutId, every }: Row, at: number, zone: string) {
  const { days } = askedOf(question);
  const span = every === "week" ? 7 : 31;
  const from = days === "both" ? dayOf(at - span * DAY, zone) : days === "first" ? dayOf(at - 90 * DAY, zone) : null;
  const to = days === "both" ? dayOf(at - DAY, zone) : null;
  const moment = (day: string, later = 0) => momentsOf(zone, Date.parse(`${day}T00:00Z`) + later).first;
  const search = new URLSearchParams();
  for (const [key, value] of Object.entries({ node: nodeId, person: aboutId, from, to }))
    if (value) search.set(key, value);
  return {
    input: {
      ...{ question, nodeId, personId: aboutId },
      from: from === null ? null : moment(from),
      until: to === null ? null : moment(to, DAY),
    },
    address: `/reports/${question}?${search}`,
  };
}

/** Makes those that are due. @returns how many went out */
export async function mailReports(app: Galtry, at = Date.now()): Promise<number> {
  const due = await app.db.select().from(reportMails).where(lte(reportMails.nextAt, at)).limit(AT_ONCE);
  const zone = await timeZone(app.db);
  let sent = 0;
  for (const row of due) {
    const { input, address } = asking(row, at, zone);
    const caller = {
      ...{ kind: "person" as const, personId: row.personId, sessionId: null },
      provedAt: 0,
      address: "",
      browser: "",
    };
    try {
      const { rows, more, about } = await report.execute(app, input, caller, at);
      const made = { id: row.id, count: rows.length, more, about: (about ?? "").slice(0, 300), address };
      await sendReport.execute(app, made, SERVER, at);
      sent += 1;
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      // Who is suspended may be back next week.
      if (error.code === "signed-out")
        await sendReport.execute(app, { id: row.id, count: null, more: false, about: "", address }, SERVER, at);
      else await dropReport.execute(app, { id: row.id }, SERVER, at);
    }
  }
  return sent;
}

export class ReportMails {
  #running = false;

  constructor(private readonly app: Galtry) {}

  async look(at = Date.now()): Promise<void> {
    if (this.#running) return;
    this.#running = true;
    try {
      const due = await this.app.db.get<{ any: number }>(
        sql`select exists (select 1 from report_mails where next_at <= ${at}) as any`,
      );
      if (due?.any !== 1 || !(await holdLease(this.app, WORK))) return;
      await mailReports(this.app, at)
        .catch(goesOn(WORK))
        .finally(() => endLease(this.app, WORK));
    } finally {
      this.#running = false;
    }
  }
}
