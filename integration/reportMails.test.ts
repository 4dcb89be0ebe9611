/** Reports by mail: when, to whom, and no longer to those who may not know it. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { type Fixture, give, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { endAccess } from "../src/server/access/grants";
import { grants, mails, notices, reportMails } from "../src/server/database/schema";
import { sendMails } from "../src/server/mail/post";
import { reinstate, suspendPerson } from "../src/server/people/persons";
import { mailReport, mailReports, nextReport, ownReportMails, stopReportMail } from "../src/server/reports/mailed";
import { addEntry } from "../src/server/vaults/entries";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
const DAY = 86_400_000;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());
beforeEach(async () => {
  app.standins.postRoom.letters.length = 0;
});

const ask = (more: object = {}, kind: Kind = "steward") =>
  mailReport.execute(db(), { question: "who", nodeId: f.entryId, personId: null, every: "week", ...more }, f.as(kind));
const own = async (kind: Kind = "steward") => (await ownReportMails.execute(db(), {}, f.as(kind))).rows;
const code = (act: Promise<unknown>) =>
  act.then(
    () => "allowed",
    (error) => error.code as string,
  );
/** What has gone out by a moment. */
async function sent(at: number) {
  await mailReports(db(), at);
  // The queue counts by the clock: what was queued for later goes now.
  const queued = await db().db.select().from(mails);
  for (const { id } of queued) await db().db.update(mails).set({ nextAt: 0 }).where(eq(mails.id, id));
  await sendMails(db());
  return app.standins.postRoom.letters
    .splice(0)
    .filter(({ subject }) => subject.startsWith("Report: "))
    .map(({ to, subject, text }) => ({ to: to[0]!, subject, text }));
}

describe("its moment", () => {
  test.each([
    ["week", "2026-12-01T12:00:00Z", "2026-12-07T07:00:00.000Z"],
    ["week", "2026-12-07T07:00:00Z", "2026-12-14T07:00:00.000Z"],
    ["week", "2026-12-06T22:00:00Z", "2026-12-07T07:00:00.000Z"],
    // The clocks go forward on 28 March 2027: the wall says seven.
    ["week", "2027-03-22T07:00:00Z", "2027-03-29T06:00:00.000Z"],
    ["week", "2027-10-25T06:00:00Z", "2027-11-01T07:00:00.000Z"],
    ["month", "2026-12-01T06:59:59Z", "2026-12-01T07:00:00.000Z"],
    ["month", "2026-12-01T07:00:00Z", "2027-01-01T07:00:00.000Z"],
    ["month", "2028-02-29T12:00:00Z", "2028-03-01T07:00:00.000Z"],
    ["month", "2027-03-31T23:30:00Z", "2027-04-01T06:00:00.000Z"],
  ] as const)("the next %s after %s is %s", (every, at, next) => {
    expect(new Date(nextReport(every, Date.parse(at), "Europe/London")).toISOString()).toBe(next);
  });
});

test("goes out once at its moment, says how many lines there are, and leads to them", async () => {
  await ask();
  await ask({ question: "used", nodeId: f.vaultId, every: "month" });
  expect(await own()).toHaveLength(2);
  // Asked again it is the same one, as often as was said last.
  await ask({ every: "week" });
  const week = (await own()).find(({ every }) => every === "week")!;
  expect(await own()).toHaveLength(2);
  expect(await sent(week.nextAt - 1)).toEqual([]);
  const [mail, ...others] = await sent(week.nextAt);
  expect(others).toEqual([]);
  expect(mail!.to).toBe("steward@tarrowick.example");
  expect(mail!.text).toMatch(/Pellam Tickets: \d+ lines\./);
  expect(mail!.text).toContain(`/reports/who?node=${f.entryId}`);
  // Who it is about is read in Galtry.
  expect(mail!.text).not.toContain("Person reveal");
  expect(await sent(week.nextAt)).toEqual([]);
  await give(db(), f.as("steward"), f.entryId, f.ids.nothing, "use");
  const [next] = await sent(week.nextAt + 7 * DAY);
  expect(next!.text).toContain("1 line more than last time");
  // The other one, with the days before it in its address.
  const month = (await own()).find(({ every }) => every === "month")!;
  const [used] = (await sent(month.nextAt)).filter(({ subject }) => subject.includes("used"));
  expect(used!.text).toMatch(/from=\d{4}-\d\d-\d\d(&|&amp;)to=\d{4}-\d\d-\d\d/);
  for (const { id } of await own()) await stopReportMail.execute(db(), { id }, f.as("steward"));
  expect([await own(), await sent(month.nextAt + 70 * DAY)]).toEqual([[], []]);
});

test("whoever may not know it any more gets no more of it, and is told; who is suspended gets none meanwhile", async () => {
  const values = { name: "Side door", signInPage: "https://side.example/in", password: "canary-side" };
  const { entryId } = await addEntry.execute(db(), { parentId: f.vaultId, captured: false, values }, f.as("steward"));
  await give(db(), f.as("steward"), entryId, f.ids.edit, "steward");
  await ask({ nodeId: entryId }, "edit");
  const [row] = await own("edit");
  await suspendPerson.execute(db(), { personId: f.ids.edit }, f.as("owner"));
  expect(await sent(row!.nextAt)).toEqual([]);
  await reinstate.execute(db(), { personId: f.ids.edit }, f.as("owner"));
  expect(await sent(row!.nextAt + 7 * DAY)).toHaveLength(1);
  const held = await db().db.select().from(grants).where(eq(grants.nodeId, entryId));
  for (const { id, subjectId, validUntil } of held)
    if (subjectId === f.ids.edit && validUntil === null)
      await endAccess.execute(db(), { grantId: id }, f.as("steward"));
  expect(await sent(row!.nextAt + 14 * DAY)).toEqual([]);
  expect(await own("edit")).toEqual([]);
  const told = await db().db.select().from(notices).where(eq(notices.personId, f.ids.edit));
  expect(told.map(({ text }) => text).join()).toContain("is not emailed to you any more");
  expect(told.map(({ text }) => text).join()).not.toContain("canary");
});

test("nobody asks for what they may not read, nor for more than twenty, nor of nothing", async () => {
  for (const kind of ["use", "reveal", "nothing", "guest", "suspended", "leaver"] as const)
    expect(await code(ask({}, kind)), kind).not.toBe("allowed");
  // An owner who is no steward there asks for no names there.
  expect(await code(ask({}, "owner"))).not.toBe("allowed");
  expect(await code(ask({ nodeId: null }))).toBe("bad-input");
  expect(await code(ask({ question: "known", nodeId: null }))).toBe("bad-input");
  expect(await code(ask({}, "auditor"))).toBe("allowed");
  expect(await code(ask({ question: "guests", nodeId: null }, "owner"))).toBe("allowed");
  const [theirs] = await own("auditor");
  expect(await code(stopReportMail.execute(db(), { id: theirs!.id }, f.as("owner")))).toBe("not-found");
  for (let i = 0; i < 19; i += 1)
    await ask({ question: "known", nodeId: null, personId: Object.values(f.ids)[i % 11]!, every: "month" }, "auditor");
  await db()
    .db.insert(reportMails)
    .values(
      Array.from({ length: 20 }, (_, i) => ({
        ...{
          id: `report-${i}`,
          personId: f.ids.administrator,
          question: "over" as const,
          nodeId: `${i}`,
          aboutId: null,
        },
        ...{ every: "week" as const, nextAt: Number.MAX_SAFE_INTEGER },
      })),
    );
  expect(await code(ask({ question: "guests", nodeId: null }, "administrator"))).toBe("conflict");
  const mail = db().configuration.mail;
  db().configuration.mail = null;
  expect(await code(ask({ question: "guests", nodeId: null }, "owner"))).toBe("conflict");
  db().configuration.mail = mail;
});
