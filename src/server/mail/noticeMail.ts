/** Notices that go by mail as well: at once or once a day, as each person chooses. */
import { and, asc, eq, inArray, isNotNull, isNull, lte } from "drizzle-orm";
import { z } from "zod";
import { command } from "../command";
import type { Transaction } from "../database/client";
import { notices, personStates, persons } from "../database/schema";
import type { Galtry } from "../galtry";
import { loadHome } from "../organisation";
import { letterOf } from "./letter";
import { DAY_MS } from "./noticeTime";
import { queueMail } from "./queue";
import { noticeMail as t } from "./strings";

/** What could not go so long, because no mail was set up, does not go any more. */
const STALE_MS = 2 * DAY_MS;

const MOST_AT_ONCE = 200;

const MOST_IN_ONE = 60;

/** Queues what is due, in one mail a person. Gives how many notices it dealt with. */
export const mailNotices = command({
  name: "mail.mailNotices",
  internal: true,
  input: z.strictObject({}),
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, at, app }) => {
    const due = await tx
      .select({ id: notices.id, personId: notices.personId })
      .from(notices)
      .where(lte(notices.mailAt, at))
      .orderBy(asc(notices.mailAt))
      .limit(MOST_AT_ONCE);
    for (const personId of new Set(due.map((row) => row.personId))) await mailOne(tx, app, personId, at);
    return due.length;
  },
  journal: null,
  tell: () => [],
});

async function mailOne(tx: Transaction, app: Galtry, personId: string, at: number): Promise<void> {
  const rows = await tx
    .select()
    .from(notices)
    .where(and(eq(notices.personId, personId), lte(notices.mailAt, at)))
    .orderBy(asc(notices.at), asc(notices.id))
    .limit(MOST_AT_ONCE);
  await tx
    .update(notices)
    .set({ mailAt: null })
    .where(
      inArray(
        notices.id,
        rows.map((row) => row.id),
      ),
    );
  // Read or dealt with meanwhile; what concerns one's own sign-in goes out also then: others may have read it.
  const goes = rows.filter((row) => row.mailAt! > at - STALE_MS && (row.putAwayAt === null || row.sort === "security"));
  if (goes.length === 0 || !app.configuration.mail) return;
  const [person] = await tx
    .select({ mail: persons.mail })
    .from(persons)
    .innerJoin(personStates, and(eq(personStates.personId, persons.id), isNull(personStates.validUntil)))
    .where(and(eq(persons.id, personId), eq(personStates.standing, "active")));
  if (!person) return;
  const home = await loadHome(tx);
  const said = goes.slice(-MOST_IN_ONE).map((row) => row.text);
  const address = new URL("/account#notices", app.configuration.publicUrl).href;
  await queueMail(
    tx,
    app.keys,
    {
      to: person.mail,
      subject: goes.length === 1 ? oneLine(said[0]!) : t.severalNotices(goes.length, home.name),
      body: letterOf({
        organisation: home.name,
        paragraphs: goes.length > said.length ? [...said, t.andEarlierOnes(goes.length - said.length)] : said,
        act: { word: t.openGaltry, address },
        after: [goes.every((row) => row.sort === "security") ? t.alwaysSent : t.chooseInYourAccount],
      }),
      ...{ until: at + DAY_MS, makerId: "", nodeId: null },
    },
    at,
  );
}

const oneLine = (text: string): string => {
  const line = text.replace(/\s+/g, " ");
  return line.length > 150 ? `${line.slice(0, 147)}…` : line;
};

/** Whether anything is due; asked without a transaction, because it is asked twice a second. */
export async function anyNoticeDue(app: Galtry, at = Date.now()): Promise<boolean> {
  const [due] = await app.db
    .select({ id: notices.id })
    .from(notices)
    .where(and(isNotNull(notices.mailAt), lte(notices.mailAt, at)))
    .limit(1);
  return due !== undefined;
}
