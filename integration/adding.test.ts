/** People are added, one or many at once: their links by mail or by hand, the list checked before, their first day foretold. */
import { and, eq, isNull } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, type Kind, makeFixture, PASSWORD } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { giveAccess } from "../src/server/access/grants";
import type { Caller } from "../src/server/caller";
import { links, memberships, persons } from "../src/server/database/schema";
import { frontDesk } from "../src/server/frontdesk/frontDesk";
import { journalPage } from "../src/server/journal/page";
import { sendMails } from "../src/server/mail/post";
import { addPeople, addPerson, checkPeople } from "../src/server/people/adding";
import { createGroup } from "../src/server/people/groups";
import { markLeaver } from "../src/server/people/leaving";
import { personList } from "../src/server/people/peopleList";
import { renewLink } from "../src/server/people/persons";
import { sessionCaller } from "../src/server/people/sessions";
import { acceptLink, linkFor } from "../src/server/people/setUp";
import { extendLink, noteOpened, withdrawLink } from "../src/server/people/signInLinks";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
const DAY = 86_400_000;
const post = () => app.standins.postRoom;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

const code = (promise: Promise<unknown>) =>
  promise.then(
    () => "done",
    (error) => `${error.code}${error.field ? ` ${error.field}` : ""}`,
  );
let count = 0;
const newcomer = (more: object = {}) => ({
  ...{ name: `Newcomer ${++count}`, mail: `newcomer-${count}@tarrowick.example`, role: "member" as const },
  ...more,
});
const lineOf = async (text: string) =>
  (await personList.execute(db(), { text }, f.as("administrator"))).people.find((one) => one.mail.startsWith(text))!;
/** The newest letter, once what waits has gone out. */
async function letter() {
  await sendMails(db());
  return post().letters.at(-1)!;
}
const tokenIn = (text: string) => /\/join#([\w-]{43})/.exec(text)![1]!;
const accept = (token: string, at = Date.now()) =>
  acceptLink.execute(db(), { token, password: PASSWORD }, f.nobody, at);

describe("a sign-in link by mail", () => {
  test("reaches the person, shows the adder nothing, works once, and is followed from sent to joined", async () => {
    const who = newcomer();
    const made = await addPerson.execute(db(), { ...who, send: true }, f.as("administrator"));
    expect(made).toMatchObject({ link: null, sentTo: who.mail });
    expect((await lineOf(who.mail)).link).toMatchObject({ mailed: true, sent: null, opened: null });
    const mail = await letter();
    expect(mail).toMatchObject({ to: [who.mail], subject: expect.stringContaining("Your sign-in to Galtry") });
    expect(mail.text).toContain("Person administrator has added you to Galtry");
    const token = tokenIn(mail.text);
    expect((await lineOf(who.mail)).link?.sent).toEqual(expect.any(Number));
    await noteOpened.execute(db(), { token }, f.nobody);
    expect((await lineOf(who.mail)).link?.opened).toEqual(expect.any(Number));
    await accept(token);
    expect(await code(accept(token))).toBe("not-found");
    expect(await lineOf(who.mail)).toMatchObject({ standing: "active", link: null });
    const { lines } = await journalPage.execute(db(), {}, f.as("owner"));
    expect(lines.some((line) => line.says === `added ${who.name} and emailed a sign-in link`)).toBe(true);
  });

  test("the link stands nowhere in the database, before the mail has gone and after", async () => {
    const who = newcomer();
    await addPerson.execute(db(), { ...who, send: true }, f.as("administrator"));
    const everything = async () => {
      const { rows: tables } = await db().opened.client.execute("select name from sqlite_master where type = 'table'");
      const texts: string[] = [];
      for (const { name } of tables)
        texts.push(
          JSON.stringify((await db().opened.client.execute(`select * from "${name}"`)).rows, (_, value) =>
            value instanceof ArrayBuffer || ArrayBuffer.isView(value)
              ? Buffer.from(value as ArrayBuffer).toString("latin1")
              : value,
          ),
        );
      return texts.join();
    };
    const before = await everything();
    const token = tokenIn((await letter()).text);
    expect(before).not.toContain(token);
    expect(await everything()).not.toContain(token);
  });

  test("is extended, sent anew and withdrawn; what was before stops working", async () => {
    const who = newcomer();
    const { personId } = await addPerson.execute(db(), { ...who, send: true }, f.as("administrator"));
    const first = tokenIn((await letter()).text);
    const later = Date.now() + 8 * DAY;
    const look = (token: string, at = Date.now()) =>
      code(linkFor.execute(db(), { token, purpose: "sign-in" }, f.nobody, at));
    expect(await look(first, later)).toBe("not-found");
    await extendLink.execute(db(), { personId }, f.as("administrator"), Date.now() + 6 * DAY);
    expect(await look(first, later)).toBe("done");
    await renewLink.execute(db(), { personId, send: true }, f.as("administrator"));
    const again = await letter();
    expect(again.text).toContain("has added you to Galtry");
    const second = tokenIn(again.text);
    expect(await look(first)).toBe("not-found");
    expect(await look(second)).toBe("done");
    await withdrawLink.execute(db(), { personId }, f.as("administrator"));
    expect(await code(accept(second))).toBe("not-found");
    expect(await code(extendLink.execute(db(), { personId }, f.as("administrator")))).toBe("conflict");
    expect((await lineOf(who.mail)).link).toBeNull();
  });

  test("used by two at once, it lets one in", async () => {
    const { link } = await addPerson.execute(db(), newcomer(), f.as("administrator"));
    const token = new URL(link!).hash.slice(1);
    const came = await Promise.allSettled([accept(token), accept(token), accept(token)]);
    expect(came.filter((one) => one.status === "fulfilled")).toHaveLength(1);
  });

  test("opening says nothing about links that there are not", async () => {
    const before = await db().db.select().from(links);
    expect(await noteOpened.execute(db(), { token: "x".repeat(43) }, f.nobody)).toBe(0);
    expect(await db().db.select().from(links)).toEqual(before);
  });
});

describe("many at once", () => {
  test("all of them or none: what is wrong names its line and field", async () => {
    const [a, b] = [newcomer(), newcomer()];
    const people = [a, { ...b, mail: `${"reveal"}@tarrowick.example` }];
    expect(await code(addPeople.execute(db(), { people }, f.as("administrator")))).toBe("conflict people.1.mail");
    expect(await db().db.select().from(persons).where(eq(persons.mail, a.mail))).toEqual([]);
    const added = await addPeople.execute(db(), { people: [a, b] }, f.as("administrator"));
    expect(added.map(({ name, sentTo }) => [name, sentTo])).toEqual([
      [a.name, null],
      [b.name, null],
    ]);
    expect(new Set(added.map(({ link }) => link)).size).toBe(2);
  });

  test("into groups and until a date, each as a line of the Journal; their access ends with the date", async () => {
    const { groupId } = await createGroup.execute(db(), { name: "Season" }, f.as("administrator"));
    const until = Date.now() + 3 * DAY;
    const [one] = await addPeople.execute(
      db(),
      { people: [newcomer({ groupIds: [groupId], until })] },
      f.as("administrator"),
    );
    const held = await db()
      .db.select()
      .from(memberships)
      .where(and(eq(memberships.personId, one!.personId), isNull(memberships.validUntil)));
    expect(held.map((row) => row.groupId)).toEqual([groupId]);
    const { token } = await accept(new URL(one!.link!).hash.slice(1));
    const caller = (await sessionCaller(db().db, token, Date.now(), { address: "::1", browser: "Chromium" }))!;
    expect(await code(frontDesk.execute(db(), {}, caller))).toBe("done");
    expect(await code(frontDesk.execute(db(), {}, caller, until + 1))).toBe("signed-out");
    const { lines } = await journalPage.execute(db(), {}, f.as("owner"));
    expect(lines.filter((line) => line.says?.includes(one!.name)).length).toBeGreaterThanOrEqual(2);
  });

  test("nobody makes owners who is none, nobody ends before they begin, and no owner ends", async () => {
    const add = (more: object, as: Kind = "administrator") =>
      code(addPeople.execute(db(), { people: [newcomer(more)] }, f.as(as)));
    expect(await add({ role: "owner" })).toBe("not-allowed people.0.role");
    expect(await add({ role: "owner" }, "owner")).toBe("done");
    expect(await add({ until: Date.now() - DAY })).toBe("bad-input people.0.until");
    expect(await add({ role: "owner", until: Date.now() + DAY }, "owner")).toBe("not-allowed people.0.until");
    expect(await add({}, "use")).toBe("not-allowed");
  });
});

describe("a list is checked before anybody is added", () => {
  const check = (people: object[]) => checkPeople.execute(db(), { people }, f.as("administrator"));

  test("each line by itself: who is here, who was here, what is twice, which group there is not", async () => {
    const gone = await addPerson.execute(db(), newcomer(), f.as("administrator"));
    await markLeaver.execute(db(), { personId: gone.personId }, f.as("administrator"));
    const [left] = await db().db.select().from(persons).where(eq(persons.id, gone.personId));
    const fresh = newcomer();
    const found = await check([
      { mail: "USE@tarrowick.example", role: "member" },
      { mail: left!.mail, role: "member" },
      { mail: fresh.mail, role: "member" },
      { mail: fresh.mail, role: "member" },
      { mail: "x1@tarrowick.example", role: "member", groups: ["No such group"] },
      { mail: "x2@tarrowick.example", role: "owner" },
      { mail: "x3@tarrowick.example", role: "member", until: 5 },
    ]);
    expect(found.map(({ wrong }) => wrong?.field ?? null)).toEqual([
      "mail",
      "mail",
      null,
      "mail",
      "groups",
      "role",
      "until",
    ]);
    expect(found[1]?.wrong).toMatchObject({
      personId: gone.personId,
      message: expect.stringContaining("was here before"),
    });
  });

  test("the first day that is foretold is the one that comes", async () => {
    const { groupId } = await createGroup.execute(db(), { name: "First days" }, f.as("administrator"));
    const subject = { kind: "group", id: groupId };
    await giveAccess.execute(db(), { nodeId: f.entryId, subject, level: "use" }, f.as("steward"));
    const groups = ["first DAYS"];
    const [foretold] = await check([{ mail: "day@tarrowick.example", role: "member", groups }]);
    expect(foretold?.groupIds).toEqual([groupId]);
    const [added] = await addPeople.execute(
      db(),
      { people: [newcomer({ groupIds: foretold!.groupIds })] },
      f.as("administrator"),
    );
    await accept(new URL(added!.link!).hash.slice(1));
    const joined: Caller = { ...f.as("use"), personId: added!.personId, sessionId: null } as Caller;
    const { lines } = await frontDesk.execute(db(), {}, joined);
    const sites = lines.filter((line) => line.site !== "").length;
    expect(foretold?.firstDay).toEqual({ sites, others: lines.length - sites });
    // A guest has nothing through Everyone.
    const [guest] = await check([{ mail: "guest-day@tarrowick.example", role: "guest" }]);
    expect(guest?.firstDay).toEqual({ sites: 0, others: 0 });
  });
});
