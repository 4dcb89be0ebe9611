/** Groups and dates: who may change and see them, what joining gives, and ends that come by themselves. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { type Fixture, type Kind, makeFixture, PASSWORD } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { endAccess, giveAccess } from "../src/server/access/grants";
import { applySlip, draftSlip, ownSlip, previewChanges, undoSlip } from "../src/server/access/slip/slip";
import { whoCanDoWhat } from "../src/server/access/who";
import { notices } from "../src/server/database/schema";
import { frontDesk } from "../src/server/frontdesk/frontDesk";
import { groupList, groupPage } from "../src/server/people/groupPage";
import { changeGroup, createGroup, deleteGroup, endGroup } from "../src/server/people/groups";
import { removeMember, setMember } from "../src/server/people/members";
import { personList } from "../src/server/people/peopleList";
import { leaveDue, setEnd } from "../src/server/people/persons";
import { signIn } from "../src/server/people/signIn";
import { addEntry } from "../src/server/vaults/entries";

let app: InProcess;
let f: Fixture;
let groupId: string;
let entryId: string;
let number = 0;
const db = () => app.galtry;
const DAY = 86_400_000;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());
beforeEach(async () => {
  ({ groupId } = await createGroup.execute(db(), { name: `Night team ${number++}` }, f.as("owner")));
  const values = { name: "Pellam Tickets", signInPage: "https://pellam.example/in", password: "canary-pellam/73" };
  ({ entryId } = await addEntry.execute(db(), { parentId: f.vaultId, captured: false, values }, f.as("steward")));
});

const put = (kind: Kind, more: object = {}, by: Kind = "owner", at?: number) =>
  setMember.execute(db(), { groupId, personId: f.ids[kind], ...more }, f.as(by, at), at);
const reveal = (nodeId = entryId) =>
  giveAccess.execute(
    db(),
    { nodeId, subject: { kind: "group", id: groupId }, level: "reveal", from: null, until: null, why: "" },
    f.as("steward"),
  );
const see = (by: Kind) => groupPage.execute(db(), { groupId }, f.as(by));
const reaches = async (kind: Kind, at?: number) =>
  (await frontDesk.execute(db(), {}, f.as(kind, at), at)).lines.some((line) => line.id === entryId);
const refusal = (promise: Promise<unknown>) =>
  promise.then(
    () => "allowed",
    (error) => error.code as string,
  );

describe("a group", () => {
  test("is opened by its keepers, administrators, those in it and the stewards of what it reaches, each told their part", async () => {
    await reveal();
    await put("nothing", { keeper: true });
    await put("use");
    const keeper = await see("nothing");
    expect(keeper.changes).toBe(true);
    expect(keeper.members?.map(({ name }) => name)).toEqual(["Person nothing", "Person use"]);
    expect(keeper.gives).toMatchObject([{ what: "Pellam Tickets", level: "reveal", link: `/entry/${entryId}` }]);
    expect(await see("steward")).toMatchObject({
      changes: false,
      members: [{}, {}],
      gives: [{ what: "Pellam Tickets" }],
    });
    // Whoever is in it learns its keepers, and what it gives them.
    expect(await see("use")).toMatchObject({ changes: false, members: null, keepers: ["Person nothing"] });
    for (const kind of ["edit", "reveal", "guest"] as const) expect(await refusal(see(kind))).toBe("not-found");
  });

  test("tells an administrator without a level that it reaches an entry there, not which", async () => {
    const values = { name: "Canary safe", signInPage: "https://safe.example/in" };
    const safe = await addEntry.execute(db(), { parentId: f.vaultId, captured: false, values }, f.as("steward"));
    await giveAccess.execute(
      db(),
      {
        nodeId: f.vaultId,
        subject: { kind: "person", id: f.ids.owner },
        level: "blocked",
        from: null,
        until: null,
        why: "",
      },
      f.as("steward"),
    );
    await reveal(safe.entryId);
    const page = await see("owner");
    expect(page.gives).toMatchObject([{ what: "an entry in Shop & Tickets", link: null, level: "reveal" }]);
    expect(JSON.stringify(page)).not.toContain("Canary safe");
  });

  test("is renamed by its keepers, to a name that is free, and deleted once it is empty", async () => {
    await put("nothing", { keeper: true });
    const name = `Evening team ${number}`;
    await changeGroup.execute(db(), { groupId, name }, f.as("nothing"));
    expect((await see("nothing")).name).toBe(name);
    expect(await refusal(changeGroup.execute(db(), { groupId, name: "everyone" }, f.as("nothing")))).toBe("conflict");
    expect(await refusal(changeGroup.execute(db(), { groupId, name: "Mine" }, f.as("use")))).toBe("not-allowed");
    expect(await refusal(deleteGroup.execute(db(), { groupId }, f.as("owner")))).toBe("conflict");
    await removeMember.execute(db(), { groupId, personId: f.ids.nothing }, f.as("owner"));
    await reveal();
    expect(await refusal(deleteGroup.execute(db(), { groupId }, f.as("owner")))).toBe("conflict");
    const { lines } = await whoCanDoWhat.execute(db(), { nodeId: entryId }, f.as("steward"));
    const { grantId } = lines.find((line) => line.name === name)!;
    await endAccess.execute(db(), { grantId }, f.as("steward"));
    await deleteGroup.execute(db(), { groupId }, f.as("owner"));
    expect((await groupList.execute(db(), {}, f.as("owner"))).groups.some((one) => one.id === groupId)).toBe(false);
  });

  test("ends for all at once, and the end moves for those who had it", async () => {
    await reveal();
    const now = Date.now();
    const [soon, later, own] = [now + 2 * DAY, now + 9 * DAY, now + DAY];
    await put("nothing");
    await put("edit", { until: own });
    await endGroup.execute(db(), { groupId, until: soon }, f.as("owner"));
    // Nobody is put in for longer.
    await put("administrator", { until: later });
    const ends = async () => Object.fromEntries((await see("owner")).members!.map((one) => [one.name, one.until]));
    expect(await ends()).toEqual({ "Person administrator": soon, "Person edit": own, "Person nothing": soon });
    expect([await reaches("nothing", soon - 1), await reaches("nothing", soon)]).toEqual([true, false]);
    await endGroup.execute(db(), { groupId, until: later }, f.as("owner"));
    expect(await ends()).toEqual({ "Person administrator": later, "Person edit": own, "Person nothing": later });
    expect(await reaches("nothing", soon)).toBe(true);
    expect(await refusal(endGroup.execute(db(), { groupId, until: now - 1 }, f.as("owner")))).toBe("bad-input");
    // An administrator who is in it changes nobody's end there: it is their own too.
    expect(await refusal(endGroup.execute(db(), { groupId, until: null }, f.as("administrator")))).toBe("not-allowed");
    await endGroup.execute(db(), { groupId, until: null }, f.as("owner"));
    expect((await ends())["Person nothing"]).toBe(null);
    const told = await db().db.select().from(notices).where(eq(notices.personId, f.ids.steward));
    expect(told.some(({ text }) => text.includes("has a new end"))).toBe(true);
  });
});

describe("joining", () => {
  test("is looked ahead to by its keeper: what the reader is no steward of is neither named nor counted", async () => {
    await reveal();
    await put("edit", { keeper: true });
    const joins = { type: "member", groupId, personId: f.ids.nothing, held: { from: null, until: null } };
    const forKeeper = await previewChanges.execute(db(), { changes: [joins] }, f.as("edit"));
    expect(forKeeper).toMatchObject({ lines: [], beyond: true, asks: false });
    await giveAccess.execute(
      db(),
      {
        nodeId: entryId,
        subject: { kind: "person", id: f.ids.edit },
        level: "steward",
        from: null,
        until: null,
        why: "",
      },
      f.as("steward"),
    );
    const forSteward = await previewChanges.execute(db(), { changes: [joins] }, f.as("edit"));
    expect(forSteward.lines).toMatchObject([
      { people: [{ name: "Person nothing" }], before: "none", after: "reveal", what: [{ name: "Pellam Tickets" }] },
    ]);
    for (const kind of ["use", "reveal", "guest"] as const)
      expect(await refusal(previewChanges.execute(db(), { changes: [joins] }, f.as(kind)))).toBe("not-allowed");
  });

  test("waits on a slip with its end and the keeper's mark, and is taken back whole", async () => {
    await reveal();
    await put("nothing", { keeper: true });
    const until = Date.now() + 5 * DAY;
    const changes = [
      { type: "member", groupId, personId: f.ids.use, held: { from: null, until }, keeper: true },
      { type: "member", groupId, personId: f.ids.nothing, held: null },
    ];
    await draftSlip.execute(db(), { changes, revision: 0 }, f.as("administrator"));
    const slip = (await ownSlip.execute(db(), {}, f.as("administrator"))).draft!;
    await applySlip.execute(
      db(),
      { slipId: slip.id, revision: slip.revision, ground: slip.said.ground },
      f.as("administrator"),
    );
    expect((await see("owner")).members).toMatchObject([{ name: "Person use", until, keeper: true }]);
    await undoSlip.execute(db(), { slipId: slip.id }, f.as("administrator"));
    const back = (await ownSlip.execute(db(), {}, f.as("administrator"))).draft!;
    await applySlip.execute(
      db(),
      { slipId: back.id, revision: back.revision, ground: back.said.ground },
      f.as("administrator"),
    );
    expect((await see("owner")).members).toMatchObject([{ name: "Person nothing", until: null, keeper: true }]);
  });
});

describe("the end of somebody's contract", () => {
  test("ends all of their access at that very moment, is moved on in one act, and is written down afterwards", async () => {
    const now = Date.now();
    const [soon, later] = [now + DAY, now + 3 * DAY];
    const setTo = (until: number | null, by: Kind = "owner") =>
      setEnd.execute(db(), { personId: f.ids.reveal, until }, f.as(by));
    for (const kind of ["steward", "reveal"] as const) expect(await refusal(setTo(soon, kind))).toBe("not-allowed");
    expect(await refusal(setTo(now - 1))).toBe("bad-input");
    await reveal();
    await put("reveal");
    await setTo(soon);
    expect(await reaches("reveal", soon - 1)).toBe(true);
    expect(await refusal(reaches("reveal", soon))).toBe("signed-out");
    await setTo(later);
    expect(await reaches("reveal", soon)).toBe(true);
    const who = { mail: "reveal@tarrowick.example", password: PASSWORD };
    const enter = async (at: number) => (await signIn.execute(db(), who, f.nobody, at)).signedIn;
    expect([await enter(soon), await enter(later)]).toEqual([true, false]);
    await leaveDue.execute(db(), {}, { kind: "server" }, later);
    const line = (await personList.execute(db(), { state: "any" }, f.as("owner"))).people.find(
      (one) => one.id === f.ids.reveal,
    );
    expect(line).toMatchObject({ standing: "leaver", until: null });
  });

  test("counts in what is looked ahead to: a steward with an end is not a lasting one", async () => {
    await setEnd.execute(db(), { personId: f.ids.steward, until: Date.now() + 30 * DAY }, f.as("owner"));
    const { lines } = await whoCanDoWhat.execute(db(), { nodeId: f.vaultId }, f.as("steward"));
    const last = lines.find((line) => line.name === "Person administrator")!;
    expect(await refusal(endAccess.execute(db(), { grantId: last.grantId }, f.as("steward")))).toBe("not-allowed");
    await setEnd.execute(db(), { personId: f.ids.steward, until: null }, f.as("owner"));
  });

  test("is for no owner", async () => {
    expect(
      await refusal(setEnd.execute(db(), { personId: f.ids.owner, until: Date.now() + DAY }, f.as("administrator"))),
    ).toBe("not-allowed");
  });
});
