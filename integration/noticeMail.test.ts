/** Notices that go by mail as well: at once, once a day or not; and those that dismiss themselves. */
import { and, eq, inArray, isNull } from "drizzle-orm";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { type Fixture, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { answerRequest, requestAccess, withdrawRequest } from "../src/server/access/requests/requests";
import { notices } from "../src/server/database/schema";
import { mailNotices } from "../src/server/mail/noticeMail";
import { nextMorning } from "../src/server/mail/noticeTime";
import { sendMails } from "../src/server/mail/post";
import { chooseMail, ownMailChoices, ownNotices } from "../src/server/people/notices";
import { suspendPerson } from "../src/server/people/persons";
import { addNotice } from "../src/server/people/telling";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
const MINUTE = 60_000;
const DAY = 86_400_000;
let now = Date.now();

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());
beforeEach(async () => {
  now += 10 * DAY;
  await dismissAll({ putAwayAt: 0, mailAt: null });
  app.standins.postRoom.letters.length = 0;
});

const dismissAll = (set: { putAwayAt: number; mailAt?: null }) =>
  db().writer.write((tx) =>
    tx
      .update(notices)
      .set(set)
      .where(inArray(notices.personId, Object.values(f.ids))),
  );
const tell = (kind: Kind, sort: Parameters<typeof addNotice>[1]["sort"], text: string, at = now) =>
  db().writer.write((tx) => addNotice(tx, { to: f.ids[kind], at, sort, text }));
/** What has gone out by then, by subject. */
async function sent(at: number): Promise<{ to: string; subject: string; text: string }[]> {
  await mailNotices.execute(db(), {}, { kind: "server" }, at);
  // The queue counts by the clock: what was queued for later goes now.
  await db().db.run("update mails set next_at = 0 where next_at > 0");
  await sendMails(db());
  return app.standins.postRoom.letters.splice(0).map(({ to, subject, text }) => ({ to: to[0]!, subject, text }));
}

describe("a notice by mail", () => {
  test("goes a minute later, several in one mail, and only to whom they are for", async () => {
    await tell("use", "answers", "Person steward gave you Use on Gate.");
    expect(await sent(now + MINUTE / 2)).toEqual([]);
    await tell("use", "requests", "Person guest requests Use on Gate.", now + 1000);
    await tell("edit", "answers", "Declined\nwith a second line.");
    const mails = await sent(now + 2 * MINUTE);
    expect(mails.map(({ to, subject }) => [to, subject]).sort()).toEqual([
      ["edit@tarrowick.example", "Declined with a second line."],
      ["use@tarrowick.example", expect.stringMatching(/^2 notices from Galtry, /)],
    ]);
    const both = mails.find(({ to }) => to.startsWith("use"))!;
    expect(both.text).toContain("Person steward gave you Use on Gate.");
    expect(both.text).toContain("/account#notices");
    expect(await sent(now + 3 * MINUTE)).toEqual([]);
  });

  test("does not go where it was read before, but where it is about one’s own sign-in", async () => {
    await tell("use", "requests", "Read in time.");
    await tell("use", "security", "A passkey was added.");
    await dismissAll({ putAwayAt: now });
    expect((await sent(now + 2 * MINUTE)).map(({ subject }) => subject)).toEqual(["A passkey was added."]);
  });

  test("once a day comes at seven by the organisation’s clock, with all of the day in it", async () => {
    const zone = "Europe/Amsterdam";
    const morning = nextMorning(now, zone);
    expect(new Intl.DateTimeFormat("en-GB", { timeZone: zone, timeStyle: "short" }).format(morning)).toBe("07:00");
    expect(morning - now).toBeLessThanOrEqual(DAY);
    expect(nextMorning(morning, zone) - morning).toBeGreaterThanOrEqual(DAY - 3_600_000);
    // The night in which the clocks go back has an hour more.
    expect(nextMorning(Date.parse("2026-10-24T05:30:00Z"), zone)).toBe(Date.parse("2026-10-25T06:00:00Z"));
    await tell("steward", "watch", "Something was moved.");
    await tell("steward", "ending", "Something ends.", now + MINUTE);
    expect(await sent(now + 2 * MINUTE)).toEqual([]);
    const [mail, ...others] = await sent(now + 2 * DAY - MINUTE);
    expect(others).toEqual([]);
    expect(mail!.text).toMatch(/Something was moved\.[\s\S]*Something ends\./);
  });

  test("follows what each person chose, but never for one’s own sign-in", async () => {
    const by = f.as("use");
    await chooseMail.execute(db(), { sort: "answers", time: "never" }, by);
    await chooseMail.execute(db(), { sort: "watch", time: "at once" }, by);
    await expect(chooseMail.execute(db(), { sort: "security" as "watch", time: "never" }, by)).rejects.toThrow();
    const { mails, choices } = await ownMailChoices.execute(db(), {}, by);
    expect(mails).toBe(true);
    expect(Object.fromEntries(choices.map(({ sort, time }) => [sort, time]))).toEqual({
      ...{ requests: "at once", answers: "never", emergency: "at once" },
      ...{ ending: "daily", rounds: "at once", upkeep: "at once", watch: "at once" },
    });
    await tell("use", "answers", "Not by mail.");
    await tell("use", "watch", "By mail.");
    expect((await sent(now + 2 * MINUTE)).map(({ subject }) => subject)).toEqual(["By mail."]);
  });

  test("does not go to somebody suspended, nor two days late", async () => {
    await tell("reveal", "answers", "For somebody who is gone.");
    await suspendPerson.execute(db(), { personId: f.ids.reveal, why: "" }, f.as("owner"));
    await tell("edit", "answers", "Long ago.", now - 3 * DAY);
    expect((await sent(now + 2 * MINUTE)).filter(({ to }) => /^(reveal|edit)@/.test(to))).toEqual([]);
  });
});

describe("a notice of what waits", () => {
  const open = async (kind: Kind) =>
    (
      await db()
        .db.select()
        .from(notices)
        .where(and(eq(notices.personId, f.ids[kind]), isNull(notices.putAwayAt)))
    ).map(({ text }) => text);
  const request = () =>
    requestAccess.execute(db(), { nodeId: f.entryId, level: "reveal", until: null, why: "stocktaking" }, f.as("use"));

  test("is dismissed once somebody has answered, for every steward; the answer stays", async () => {
    const { askId } = await request();
    expect((await open("steward")).join()).toContain("stocktaking");
    expect((await ownNotices.execute(db(), {}, f.as("steward")))[0]).toMatchObject({ link: "/" });
    await answerRequest.execute(db(), { askId, yes: false, word: "not needed" }, f.as("steward"));
    expect(await open("steward")).toEqual([]);
    expect((await open("use")).join()).toContain("not needed");
  });

  test("is dismissed when the request is withdrawn", async () => {
    const { askId } = await request();
    expect(await open("steward")).toHaveLength(1);
    await withdrawRequest.execute(db(), { askId }, f.as("use"));
    expect(await open("steward")).toEqual([]);
  });
});
