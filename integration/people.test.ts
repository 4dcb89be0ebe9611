/** People as an administrator looks after them: found by filters, several at once, their page, a change of teams. */
import { and, asc, eq, isNull } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { checkChain } from "../src/core/journal/chain";
import { EVERYBODY, type PeopleFilter } from "../src/core/people/peopleFilter";
import { giveAccess } from "../src/server/access/grants";
import {
  journal,
  lanyards,
  memberships,
  notices,
  passkeys,
  personStates,
  sessions,
} from "../src/server/database/schema";
import { uuidv7 } from "../src/server/ids";
import { journalPage } from "../src/server/journal/page";
import { endLanyard } from "../src/server/lanyard/pairing";
import { addPerson } from "../src/server/people/adding";
import { erasePerson } from "../src/server/people/erasing";
import { createGroup } from "../src/server/people/groups";
import { markLeaver } from "../src/server/people/leaving";
import { changeMembers, setMember } from "../src/server/people/members";
import { personList } from "../src/server/people/peopleList";
import { personPage } from "../src/server/people/personPage";
import { personRecord } from "../src/server/people/personRecord";
import { changeRole, reinstate, setEnds, suspendPeople } from "../src/server/people/persons";
import { endSession, openSession } from "../src/server/people/sessions";
import { teamsPreview } from "../src/server/people/teams";

const DAY = 86_400_000;
let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
const by = () => f.as("administrator");
const found = async (filter: Partial<PeopleFilter>, at?: number) =>
  (await personList.execute(db(), { ...EVERYBODY, ...filter }, by(), at)).people.map(({ id }) => id);
const idsOf = (...kinds: Kind[]) => kinds.map((kind) => f.ids[kind]).sort();
const code = (act: Promise<unknown>) =>
  act.then(
    () => "allowed",
    (error) => [error.code, error.field].filter(Boolean).join(" "),
  );
const newGroup = async (name: string) => (await createGroup.execute(db(), { name }, by())).groupId;
const isIn = async (groupId: string, personId: string) =>
  (
    await db()
      .db.select()
      .from(memberships)
      .where(and(eq(memberships.groupId, groupId), eq(memberships.personId, personId), isNull(memberships.validUntil)))
  )[0] ?? null;
const standingOf = async (kind: Kind) =>
  (
    await db()
      .db.select()
      .from(personStates)
      .where(and(eq(personStates.personId, f.ids[kind]), isNull(personStates.validUntil)))
  )[0]!;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(db());
});
afterAll(() => app.close());

describe("the list", () => {
  test("is of everybody but leavers, who are one filter away", async () => {
    const here = await found({});
    expect(here).not.toContain(f.ids.leaver);
    expect(here).toContain(f.ids.suspended);
    expect(await found({ state: "leaver" })).toEqual([f.ids.leaver]);
    expect(await found({ state: "suspended" })).toEqual([f.ids.suspended]);
    expect(new Set(await found({ state: "any" }))).toEqual(new Set([...here, f.ids.leaver]));
    const { leavers } = await personList.execute(db(), EVERYBODY, by());
    expect(leavers).toBe(1);
  });

  test("by role and by group", async () => {
    expect(await found({ role: "guest" })).toEqual([f.ids.guest]);
    expect(await found({ role: "owner" })).toEqual([f.ids.owner]);
    expect(await found({ role: "staff" })).not.toContain(f.ids.guest);
    const groupId = await newGroup("Listed");
    await changeMembers.execute(
      db(),
      { changes: [f.ids.use, f.ids.nothing].map((personId) => ({ groupId, personId, held: {} })) },
      by(),
    );
    expect((await found({ group: groupId })).sort()).toEqual(idsOf("use", "nothing"));
    const page = await personList.execute(db(), { ...EVERYBODY, group: groupId }, by());
    expect(page.group).toBe("Listed");
    expect(await found({ group: groupId, role: "guest" })).toEqual([]);
  });

  test("by way in", async () => {
    await db()
      .db.insert(passkeys)
      .values({
        ...{ id: "k1", personId: f.ids.edit, credentialId: "c1", publicKey: Buffer.alloc(3), counter: 0 },
        ...{ transports: [], name: "Phone", createdAt: Date.now() },
      });
    expect(await found({ way: "passkey" })).toEqual([f.ids.edit]);
    expect(await found({ way: "password-only" })).not.toContain(f.ids.edit);
    expect(await found({ way: "password-only" })).toContain(f.ids.use);
    expect(await found({ way: "none" })).not.toContain(f.ids.use);
    expect(await found({ way: "provider" })).toEqual([]);
  });

  test("by when they were last here, and sorted by it; a Lanyard counts as being here", async () => {
    const at = Date.now() + 100 * DAY;
    const from = { address: "192.0.2.7", browser: "Chromium" };
    await db().writer.write((tx) => openSession(tx, f.ids.reveal, from, at - 2 * DAY));
    await db().writer.write((tx) => openSession(tx, f.ids.use, from, at - 40 * DAY));
    const caller = f.lanyard("edit");
    await db()
      .db.update(lanyards)
      .set({ lastUsedAt: at - DAY })
      .where(eq(lanyards.id, caller.lanyardId));
    expect((await found({ seen: "week" }, at)).sort()).toEqual(idsOf("reveal", "edit"));
    expect(await found({ seen: "not-month" }, at)).toContain(f.ids.use);
    expect(await found({ seen: "not-month" }, at)).not.toContain(f.ids.reveal);
    expect((await found({ sort: "seen" }, at)).slice(0, 3)).toEqual([f.ids.edit, f.ids.reveal, f.ids.use]);
    expect((await found({ sort: "unseen" }, at)).slice(-3)).toEqual([f.ids.use, f.ids.reveal, f.ids.edit]);
    expect((await found({ sort: "role" }, at))[0]).toBe(f.ids.owner);
  });
});

describe("several at once", () => {
  test("come into a group, a line each, and stewards read one notice", async () => {
    const groupId = await newGroup("Season");
    await giveAccess.execute(
      db(),
      { nodeId: f.entryId, subject: { kind: "group", id: groupId }, level: "use" },
      f.as("steward"),
    );
    const told = () => db().db.select().from(notices).where(eq(notices.personId, f.ids.steward));
    const before = (await told()).length;
    const until = Date.now() + 30 * DAY;
    const people = [f.ids.nothing, f.ids.guest, f.ids.edit, f.ids.reveal];
    await changeMembers.execute(
      db(),
      { changes: people.map((personId) => ({ groupId, personId, held: { until } })) },
      by(),
    );
    for (const id of people) expect((await isIn(groupId, id))?.until).toBe(until);
    const read = (await told()).slice(before);
    expect(read).toHaveLength(1);
    expect(read[0]!.text).toMatch(/and 2 others were added to Season, which has Use on /);
    const { lines } = await journalPage.execute(db(), {}, f.as("owner"));
    expect(
      lines
        .slice(0, 4)
        .map(({ says }) => says)
        .every((says) => /^added .* to Season until /.test(says)),
    ).toBe(true);
  });

  test("another date for people who are in a group already is told as a change of it", async () => {
    const groupId = await newGroup("Dates");
    const grant = { nodeId: f.entryId, subject: { kind: "group", id: groupId }, level: "use" } as const;
    await giveAccess.execute(db(), grant, f.as("steward"));
    const until = Date.now() + 30 * DAY;
    const change = (personId: string, held: { until: number | null } | null) => ({ groupId, personId, held });
    await changeMembers.execute(
      db(),
      { changes: [change(f.ids.edit, { until: null }), change(f.ids.reveal, { until: null })] },
      by(),
    );
    const told = () => db().db.select().from(notices).where(eq(notices.personId, f.ids.steward));
    const before = (await told()).length;
    await changeMembers.execute(
      db(),
      {
        changes: [
          change(f.ids.edit, { until }),
          change(f.ids.use, { until }),
          change(f.ids.nothing, { until }),
          change(f.ids.reveal, null),
        ],
      },
      by(),
    );
    const said = (await told()).slice(before).map(({ text }) => text);
    expect(said).toEqual([
      expect.stringMatching(/^Person use and Person nothing were added to Dates, which has Use on /),
      expect.stringMatching(/^The membership of Person edit in Dates, which has Use on .*, was changed\.$/),
      expect.stringMatching(/^Person reveal was removed from Dates, which has Use on /),
    ]);
    await setMember.execute(db(), { groupId, personId: f.ids.edit, keeper: true }, by());
    expect((await told()).at(-1)!.text).toMatch(/^The membership of Person edit in Dates/);
  });

  test("all of it or nothing: what is wrong names its line", async () => {
    const groupId = await newGroup("Half");
    const change = (held: object | null, personId = f.ids.use) => ({ groupId, personId, held });
    const act = (...changes: object[]) => code(changeMembers.execute(db(), { changes } as never, by()));
    expect(await act(change({}), change({ until: 5 }, f.ids.edit))).toBe("bad-input changes.1.until");
    expect(await act(change({}), change(null, f.ids.edit))).toBe("conflict changes.1.personId");
    expect(await isIn(groupId, f.ids.use)).toBeNull();
    expect(await act(change({}), { ...change({}), groupId: "0190a000-0000-7000-8000-000000000000" })).toMatch(
      /^not-found/,
    );
  });

  test("not oneself into what gives access, nor by whoever keeps another group", async () => {
    const [mine, other] = [await newGroup("Kept"), await newGroup("Not kept")];
    for (const id of [mine, other])
      await giveAccess.execute(
        db(),
        { nodeId: f.entryId, subject: { kind: "group", id }, level: "use" },
        f.as("steward"),
      );
    await setMember.execute(db(), { groupId: mine, personId: f.ids.use, keeper: true }, by());
    const act = (groupId: string, personId: string, kind: Kind) =>
      code(changeMembers.execute(db(), { changes: [{ groupId, personId, held: {} }] }, f.as(kind)));
    expect(await act(mine, f.ids.administrator, "administrator")).toMatch(/^not-allowed/);
    expect(await act(mine, f.ids.nothing, "use")).toBe("allowed");
    expect(await act(other, f.ids.nothing, "use")).toMatch(/^not-allowed/);
    expect(await act(mine, f.ids.use, "use")).toMatch(/^not-allowed/);
  });

  test("are suspended or given one end, or refused by name and none of them changed", async () => {
    const until = Date.now() + 50 * DAY;
    const both = [f.ids.reveal, f.ids.edit];
    await setEnds.execute(db(), { personIds: both, until }, by());
    for (const kind of ["reveal", "edit"] as const) expect((await standingOf(kind)).until).toBe(until);
    // Again with one more: those that have it stay as they are.
    await setEnds.execute(db(), { personIds: [...both, f.ids.nothing], until }, by());
    expect((await standingOf("nothing")).until).toBe(until);
    await setEnds.execute(db(), { personIds: [...both, f.ids.nothing], until: null }, by());
    const refused = await suspendPeople
      .execute(db(), { personIds: [f.ids.reveal, f.ids.owner], why: "" }, by())
      .catch((error) => error);
    expect(refused.code).toBe("not-allowed");
    expect((await standingOf("reveal")).standing).toBe("active");
    await db().writer.write((tx) => openSession(tx, f.ids.reveal, { address: "::1", browser: "Chromium" }, Date.now()));
    await suspendPeople.execute(db(), { personIds: [f.ids.reveal, f.ids.use], why: "strike" }, by());
    expect((await standingOf("reveal")).standing).toBe("suspended");
    const open = await db()
      .db.select()
      .from(sessions)
      .where(and(eq(sessions.personId, f.ids.reveal), isNull(sessions.endedAt)));
    expect(open).toEqual([]);
  });
});

describe("a person's page", () => {
  test("an administrator sees ways in, sessions, groups; of an owner only an owner does", async () => {
    const from = { address: "192.0.2.9", browser: "Firefox" };
    const { sessionId } = await db().writer.write((tx) => openSession(tx, f.ids.edit, from, Date.now()));
    const record = await personRecord.execute(db(), { personId: f.ids.edit }, by());
    expect(record.sessions[0]).toMatchObject({ id: sessionId, ...from });
    expect(record.ways).toMatchObject({ password: true, keys: [{ name: "Phone" }] });
    expect(record.groups.map(({ name }) => name)).toContain("Season");
    expect(JSON.stringify(record)).not.toMatch(/tokenHash|publicKey|credential/i);
    expect(await code(personRecord.execute(db(), { personId: f.ids.owner }, by()))).toBe("not-allowed");
    expect(await code(personRecord.execute(db(), { personId: f.ids.edit }, f.as("steward")))).toBe("not-allowed");
    expect(await code(personRecord.execute(db(), { personId: f.ids.edit }, f.as("owner")))).toBe("allowed");
  });

  test("one session of somebody is ended by an administrator, with a line; an owner's session or Lanyard is not", async () => {
    const from = { address: "192.0.2.9", browser: "Firefox" };
    const open = (kind: Kind) => db().writer.write((tx) => openSession(tx, f.ids[kind], from, Date.now()));
    const [theirs, owners] = [await open("use"), await open("owner")];
    expect(await code(endSession.execute(db(), { sessionId: theirs.sessionId }, f.as("steward")))).toBe("not-found");
    expect(await code(endSession.execute(db(), { sessionId: owners.sessionId }, by()))).toBe("not-allowed");
    expect(await code(endSession.execute(db(), { sessionId: theirs.sessionId }, by()))).toBe("allowed");
    const { lines } = await journalPage.execute(db(), {}, f.as("owner"));
    expect(lines[0]!.says).toMatch(/^signed out a session of /);
    const lanyardId = uuidv7();
    const [one] = await db()
      .db.select()
      .from(lanyards)
      .where(eq(lanyards.id, f.lanyard("edit").lanyardId));
    await db()
      .db.insert(lanyards)
      .values({ ...one!, id: lanyardId, personId: f.ids.owner, tokenHash: "another" });
    expect(await code(endLanyard.execute(db(), { lanyardId }, by()))).toBe("not-allowed");
  });

  test("what they gave is shown to whoever is steward there, and to nobody else", async () => {
    const gave = async (kind: Kind) =>
      (await personPage.execute(db(), { personId: f.ids.steward }, f.as(kind))).gave.lines.map(({ what }) => what);
    expect((await gave("steward")).length).toBeGreaterThan(0);
    expect(await gave("owner")).toEqual([]);
  });
});

describe("a change of teams", () => {
  test("is foretold by vault, is what comes, and leaves nothing without a steward", async () => {
    const [old, next] = [await newGroup("Old team"), await newGroup("New team")];
    const give = (nodeId: string, id: string, level: "use" | "edit") =>
      giveAccess.execute(db(), { nodeId, subject: { kind: "group", id }, level }, f.as("steward"));
    await give(f.entryId, old, "edit");
    await give(f.otherEntryId, next, "use");
    const personId = f.ids.nothing;
    // Out of the groups of the tests before.
    const { groups } = await personRecord.execute(db(), { personId }, by());
    const changes = groups.map(({ id: groupId }) => ({ groupId, personId, held: null }));
    await changeMembers.execute(db(), { changes }, by());
    await setMember.execute(db(), { groupId: old, personId }, by());
    const at = Date.now() + 10 * DAY;
    const [vault] = await teamsPreview.execute(db(), { personId, leave: [old], join: [next], when: at }, by());
    expect(vault).toMatchObject({ before: { edit: 1, use: 0 }, after: { edit: 0, use: 1 } });
    await changeMembers.execute(
      db(),
      {
        changes: [
          { groupId: next, personId, held: { from: at } },
          { groupId: old, personId, held: { until: at } },
        ],
      },
      by(),
    );
    const index = await db().access.fresh();
    const levels = (when: number) => [f.entryId, f.otherEntryId].map((id) => index.level(personId, id, when));
    expect(levels(at - 1)).toEqual(["edit", "none"]);
    expect(levels(at)).toEqual(["none", "use"]);
    expect(
      await code(
        teamsPreview.execute(db(), { personId: f.ids.administrator, leave: [], join: [next], when: null }, by()),
      ),
    ).toBe("not-allowed");
  });
});

describe("a role that changes", () => {
  test("is found under its new name at once", async () => {
    await changeRole.execute(db(), { personId: f.ids.use, role: "guest" }, by());
    expect(await found({ role: "guest" })).toContain(f.ids.use);
  });
});

describe("erasing a leaver", () => {
  test("takes name and address from every column, and the Journal's chain stays whole", async () => {
    const person = { name: "Quennell Marchbanks", mail: "quennell@tarrowick.example", role: "member" as const };
    const { personId } = await addPerson.execute(db(), person, by());
    const groupId = await newGroup("Short stay");
    await giveAccess.execute(
      db(),
      { nodeId: f.entryId, subject: { kind: "group", id: groupId }, level: "use" },
      f.as("steward"),
    );
    await setMember.execute(db(), { groupId, personId }, by());
    await db().writer.write((tx) =>
      openSession(tx, personId, { address: "203.0.113.5", browser: "Quennell browser" }, Date.now()),
    );
    const erase = (name: string) => code(erasePerson.execute(db(), { personId, name }, by()));
    expect(await erase(person.name)).toBe("conflict");
    await markLeaver.execute(db(), { personId, why: "", until: null, successors: [], keepers: [] }, by());
    expect(await erase("Somebody Else")).toBe("bad-input name");
    const holds = async () => {
      const tables = await db().db.all<{ name: string }>(
        "select name from sqlite_master where type = 'table' and name not like 'sqlite_%' and name not like '__drizzle%'",
      );
      const found: string[] = [];
      for (const { name } of tables) {
        const rows = await db().db.all(`select * from ${name}`);
        if (/quennell|203\.0\.113\.5/i.test(JSON.stringify(rows))) found.push(name);
      }
      return found;
    };
    expect(await holds()).toEqual(expect.arrayContaining(["journal_names", "notices", "persons", "sessions"]));
    expect(await erase(person.name)).toBe("allowed");
    expect(await holds()).toEqual([]);
    const rows = await db().db.select().from(journal).orderBy(asc(journal.seq));
    expect((await checkChain(rows, db().keys.journal)).broken).toBeNull();
    const { lines } = await journalPage.execute(db(), {}, f.as("owner"));
    expect(lines[0]!.says).toMatch(/now called Erased person [0-9a-f]{4}$/);
    expect(JSON.stringify(lines)).not.toContain("Quennell");
    expect(await code(reinstate.execute(db(), { personId }, by()))).toBe("conflict");
    expect(await erase("Erased person")).toBe("conflict");
    // The address is free again.
    expect(await code(addPerson.execute(db(), { ...person, name: "Another Person" }, by()))).toBe("allowed");
  });
});
