/** Ready questions: the answers are right, and tell nobody what they may not know. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { CANARY, CANARY_USER, type Fixture, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { QUESTIONS, type Question } from "../src/core/reports/questions";
import { giveAccess } from "../src/server/access/grants";
import { entries, journal } from "../src/server/database/schema";
import { createGroup } from "../src/server/people/groups";
import { markLeaver } from "../src/server/people/leaving";
import { setMember } from "../src/server/people/members";
import { report, reportPlaces } from "../src/server/reports/report";
import { addEntry, changeEntry } from "../src/server/vaults/entries";
import { createFolder } from "../src/server/vaults/folders";
import { revealField } from "../src/server/vaults/revealing";
import { markSeparate } from "../src/server/vaults/separating";

let app: InProcess;
let f: Fixture;
const DAY = 86_400_000;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

const ask = (question: Question, more: object, kind: Kind, at?: number) =>
  report.execute(app.galtry, { question, ...more }, f.as(kind), at);
const names = (rows: { person?: string | undefined }[]) => rows.map(({ person }) => person);
const code = (act: Promise<unknown>) =>
  act.then(
    () => "answered",
    (error) => error.code as string,
  );

describe("who can use it", () => {
  test("names each person with level, since when, and why", async () => {
    const { rows, about } = await ask("who", { nodeId: f.entryId }, "steward");
    expect(about).toBe("Pellam Tickets");
    const use = rows.find(({ person }) => person === "Person use");
    expect(use).toMatchObject({ level: "Use", until: null, why: expect.stringContaining("because Person use has") });
    expect(names(rows)).not.toContain("Person nothing");
    expect(names(rows)).not.toContain("Person leaver");
    expect(rows.find(({ person }) => person === "Person guest")).toMatchObject({ note: "guest" });
  });

  test("since the later of the grant and of joining the group that has it, until that ends", async () => {
    const at = Date.now();
    const groupId = (await createGroup.execute(app.galtry, { name: "Night desk" }, f.as("owner"), at)).groupId;
    const subject = { kind: "group" as const, id: groupId };
    const grant = { nodeId: f.entryId, subject, level: "use" as const, until: at + 30 * DAY, why: "nights" };
    await giveAccess.execute(app.galtry, grant, f.as("steward"), at);
    const joined = at + DAY;
    const member = { groupId, personId: f.ids.nothing };
    await setMember.execute(app.galtry, member, f.as("owner"), joined);
    const { rows } = await ask("who", { nodeId: f.entryId }, "steward", joined + DAY);
    expect(rows.find(({ person }) => person === "Person nothing")).toMatchObject({
      ...{ level: "Use", since: joined, until: at + 30 * DAY },
      why: expect.stringContaining("Night desk"),
    });
    const after = await ask("who", { nodeId: f.entryId }, "steward", at + 31 * DAY);
    expect(names(after.rows)).not.toContain("Person nothing");
  });
});

describe("what somebody can use", () => {
  test("is told by a steward of what they look after, by an owner beyond that without names, by an auditor in full", async () => {
    const own = await ask("person", { personId: f.ids.reveal }, "steward");
    expect(own.rows.map(({ place }) => place)).toContain("Pellam Tickets");
    expect(own.unnamed).toBe(0);
    const owner = await ask("person", { personId: f.ids.reveal }, "owner");
    expect(owner.unnamed).toBeGreaterThan(0);
    expect(JSON.stringify(owner)).not.toContain("Pellam");
    expect(owner.rows.every(({ place, why, link }) => place === "An entry" && why === "" && link === null)).toBe(true);
    const auditor = await ask("person", { personId: f.ids.reveal }, "auditor");
    expect(auditor.rows.find(({ place }) => place === "Pellam Tickets")).toMatchObject({ level: "Reveal", link: "" });
    // An administrator who is steward of nothing there is told as much as a member: nothing of it.
    const { rows } = await ask("person", { personId: f.ids.reveal }, "administrator");
    for (const { link } of rows) expect(link).not.toBeNull();
  });
});

describe("who used it, and who has seen it", () => {
  test("between two days, and of the value that works now", async () => {
    const at = Date.now();
    const reveal = (kind: Kind, when: number) =>
      revealField.execute(app.galtry, { entryId: f.entryId, field: "password", how: "revealed" }, f.as(kind), when);
    await reveal("reveal", at);
    await reveal("edit", at + 2 * DAY);
    const used = async (from: number, until: number) =>
      names((await ask("used", { nodeId: f.vaultId, from, until }, "steward", at + 3 * DAY)).rows);
    expect(await used(at - 1, at + DAY)).toEqual(["Person reveal"]);
    expect(await used(at + DAY, at + 3 * DAY)).toEqual(["Person edit"]);
    const seen = async () => names((await ask("seen", { nodeId: f.entryId }, "steward", at + 3 * DAY)).rows);
    expect(await seen()).toEqual(expect.arrayContaining(["Person edit", "Person reveal"]));
    const [entry] = await app.galtry.db.select().from(entries).where(eq(entries.nodeId, f.entryId));
    const values = { name: "Pellam Tickets", signInPage: entry!.signInPage, password: "changed-Lantern-88-quill" };
    const change = { entryId: f.entryId, baseVersionId: entry!.versionId, values, captured: false };
    await changeEntry.execute(app.galtry, change, f.as("steward"), at + 3 * DAY);
    expect(await seen()).toEqual(["Person steward"]);
  });
});

describe("what nobody used, and what was given for a reason that is over", () => {
  test("since a day; what is younger is left out", async () => {
    const at = Date.now();
    const values = { name: "Old shelf", signInPage: "https://shelf.example/in", password: "shelf-Lantern-12-orchard" };
    const entry = { parentId: f.vaultId, captured: false, values };
    const { entryId } = await addEntry.execute(app.galtry, entry, f.as("steward"), at - 200 * DAY);
    await addEntry.execute(app.galtry, { ...entry, values: { ...values, name: "New shelf" } }, f.as("steward"), at);
    const places = async (from: number, kind: Kind = "steward") =>
      (await ask("unused", { nodeId: f.vaultId, from }, kind)).rows.map(({ place }) => place);
    expect(await places(at - 90 * DAY)).toContain("Old shelf");
    expect(await places(at - 90 * DAY)).not.toContain("New shelf");
    await revealField.execute(app.galtry, { entryId, field: "password", how: "revealed" }, f.as("steward"), at);
    expect(await places(at - 90 * DAY)).not.toContain("Old shelf");
  });

  test("as its reason says; what has ended is over in any case", async () => {
    const at = Date.now();
    const give = (why: string, kind: "use" | "nothing") =>
      giveAccess.execute(
        app.galtry,
        { nodeId: f.entryId, subject: { kind: "person", id: f.ids[kind] }, level: "reveal", why },
        f.as("steward"),
        at - 300 * DAY,
      );
    const passed = new Date(at - 100 * DAY).toLocaleDateString("en-GB", {
      day: "numeric",
      month: "long",
      year: "numeric",
    });
    const coming = new Date(at + 100 * DAY).toLocaleDateString("en-GB", {
      day: "numeric",
      month: "long",
      year: "numeric",
    });
    await give(`cover until ${passed}`, "use");
    await give(`cover until ${coming}`, "nothing");
    const { rows } = await ask("over", {}, "steward");
    expect(rows.map(({ person, why }) => [person, why])).toEqual([["Person use", `cover until ${passed}`]]);
    expect(rows[0]).toMatchObject({ by: "Person steward", place: "Pellam Tickets" });
  });
});

describe("what guests have", () => {
  test("as far as it is looked after; an owner reads all of it without names", async () => {
    const own = await ask("guests", {}, "steward");
    expect(own.rows.map(({ person, place }) => [person, place])).toContainEqual(["Person guest", "Pellam Tickets"]);
    const owner = await ask("guests", {}, "owner");
    expect(owner.rows.length).toBeGreaterThan(0);
    expect(JSON.stringify(owner)).not.toContain("Pellam");
  });
});

describe("nobody is told more than they may know", () => {
  const everything: [Question, object][] = (Object.keys(QUESTIONS) as Question[]).flatMap((question) => [
    [question, {}],
    [question, { nodeId: "entry" }],
    [question, { nodeId: "vault" }],
    [question, { personId: "person" }],
  ]);
  const input = (more: object) =>
    Object.fromEntries(
      Object.entries(more).map(([key, value]) => [
        key,
        value === "entry" ? f.entryId : value === "vault" ? f.vaultId : f.ids.reveal,
      ]),
    );

  test.each(["use", "reveal", "edit", "guest", "nothing", "suspended", "leaver"] as const)(
    "not even that there is a report: %s",
    async (kind) => {
      for (const [question, more] of everything)
        expect(await code(ask(question, input(more), kind))).not.toBe("answered");
      expect(await code(reportPlaces.execute(app.galtry, { text: "", vaults: false }, f.as(kind)))).not.toBe(
        "answered",
      );
    },
  );

  test("an owner learns no name, nor which of two entries it is; nobody a secret or a user name", async () => {
    for (const [question, more] of everything)
      for (const kind of ["owner", "steward", "auditor", "administrator"] as const) {
        const answer = JSON.stringify(await ask(question, input(more), kind).catch((error) => error.message));
        if (kind === "owner") {
          expect(answer).not.toContain("Pellam");
          expect(answer).not.toContain(f.entryId);
        }
        for (const secret of [CANARY, CANARY_USER]) expect(answer).not.toContain(secret);
      }
    for (const question of ["who", "used", "seen"] as const)
      expect(await code(ask(question, { nodeId: f.entryId }, "owner"))).toBe("not-found");
  });

  test("a steward learns nothing of a separate folder in their vault that others look after", async () => {
    const folder = { parentId: f.vaultId, name: "Payroll" };
    const { folderId } = await createFolder.execute(app.galtry, folder, f.as("steward"));
    const values = { name: "Hidden payroll", signInPage: "https://pay.example/in", password: "pay-Lantern-31-mill" };
    const entry = { parentId: folderId, captured: false, values };
    const { entryId } = await addEntry.execute(app.galtry, entry, f.as("steward"));
    const subject = { kind: "person" as const, id: f.ids.edit };
    await giveAccess.execute(app.galtry, { nodeId: folderId, subject, level: "steward", why: "" }, f.as("steward"));
    await markSeparate.execute(app.galtry, { folderId, separate: true }, f.as("edit"));
    for (const [question, more] of everything) {
      const answer = JSON.stringify(await ask(question, input(more), "steward").catch((error) => error.message));
      expect(answer).not.toContain("payroll");
    }
    const offered = await reportPlaces.execute(app.galtry, { text: "payroll", vaults: false }, f.as("steward"));
    expect(offered).toEqual([]);
    expect(await code(ask("who", { nodeId: entryId }, "steward"))).toBe("not-found");
    expect((await ask("who", { nodeId: entryId }, "edit")).rows.length).toBeGreaterThan(0);
  });
});

test("places are offered by a part of their name, without accents and upper case", async () => {
  const offered = (text: string, vaults = false) =>
    reportPlaces.execute(app.galtry, { text, vaults }, f.as("steward")).then((rows) => rows.map(({ name }) => name));
  expect(await offered("PELLÁM")).toEqual(["Pellam Tickets"]);
  expect(await offered("pellam", true)).toEqual([]);
  expect(await offered("")).toContain("Pellam Tickets");
});

describe("what somebody has seen", () => {
  test("still works until it is changed; then by whom, when, and which line of the Journal says so", async () => {
    const values = { name: "Known gate", signInPage: "https://gate.example/in", password: "gate-Lantern-12-orchard" };
    const add = { parentId: f.vaultId, captured: false, values };
    const { entryId } = await addEntry.execute(app.galtry, add, f.as("steward"));
    const subject = { kind: "person" as const, id: f.ids.reveal };
    const grant = { nodeId: entryId, subject, level: "reveal" as const, why: "the gate" };
    await giveAccess.execute(app.galtry, grant, f.as("steward"));
    const seenAt = Date.now();
    const look = { entryId, field: "password", how: "copied" } as const;
    await revealField.execute(app.galtry, look, f.as("reveal"), seenAt);
    await markLeaver.execute(app.galtry, { personId: f.ids.reveal, why: "" }, f.as("owner"));
    const known = async (kind: Kind) =>
      (await ask("known", { personId: f.ids.reveal }, kind)).rows.filter(({ at }) => at === seenAt);
    expect(await known("steward")).toEqual([
      expect.objectContaining({ place: "Known gate", how: "copied", note: "still works" }),
    ]);
    const [entry] = await app.galtry.db.select().from(entries).where(eq(entries.nodeId, entryId));
    const changedAt = seenAt + 60_000;
    const now = { ...values, password: "another-Lantern-77-gate" };
    const change = { entryId, baseVersionId: entry!.versionId, values: now, captured: false };
    await changeEntry.execute(app.galtry, change, f.as("steward"), changedAt);
    const told = { note: "changed", since: changedAt, by: "Person steward" };
    const [forSteward] = await known("steward");
    expect(forSteward).toMatchObject({ ...told, place: "Known gate" });
    expect(forSteward!.line).toBeUndefined();
    const [forAuditor] = await known("auditor");
    const [line] = await app.galtry.db.select().from(journal).where(eq(journal.seq, forAuditor!.line!));
    expect(line).toMatchObject({ node: entryId, act: "vaults.changeEntry" });
    const [forOwner] = await known("owner");
    expect(forOwner).toMatchObject({ ...told, place: "An entry", link: null });
  });
});
