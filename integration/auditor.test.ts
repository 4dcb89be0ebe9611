/** An auditor reads who has what, everywhere, and no secret; they change nothing, not even by asking. */
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { CANARY, CANARY_USER, type Fixture, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { unpack } from "../src/core/packed";
import { carriesSecret, tracesOf } from "../src/core/signin/carries";
import { giveAccess } from "../src/server/access/grants";
import { accessGrid, gridVaults } from "../src/server/access/grid";
import { requestAccess } from "../src/server/access/requests/requests";
import { roundPage, startRound } from "../src/server/access/rounds/rounds";
import { journalPage } from "../src/server/journal/page";
import { addPerson } from "../src/server/people/adding";
import { groupPage } from "../src/server/people/groupPage";
import { createGroup } from "../src/server/people/groups";
import { setMember } from "../src/server/people/members";
import { subjectList } from "../src/server/people/peopleList";
import { personPage } from "../src/server/people/personPage";
import { changeRole, renewLink } from "../src/server/people/persons";
import { entryPage } from "../src/server/vaults/entryPage";
import { vaultList } from "../src/server/vaults/vaults";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
const code = (act: Promise<unknown>) =>
  act.then(
    () => "done",
    (error) => error.code as string,
  );
const auditor = () => f.as("auditor");

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

test("is named by an owner alone", async () => {
  const name = (kind: Kind) => code(changeRole.execute(db(), { personId: f.ids.nothing, role: "auditor" }, f.as(kind)));
  expect(await name("administrator")).toBe("not-allowed");
  const add = { name: "New", mail: "new-auditor@tarrowick.example", role: "auditor" as const };
  expect(await code(addPerson.execute(db(), add, f.as("administrator")))).toBe("not-allowed");
  expect(await code(addPerson.execute(db(), add, f.as("owner")))).toBe("done");
});

test("is acted on by an owner alone: a link made by hand would be read in by another", async () => {
  const renew = (kind: Kind) => code(renewLink.execute(db(), { personId: f.ids.auditor }, f.as(kind)));
  expect(await renew("administrator")).toBe("not-allowed");
  const member = { personId: f.ids.auditor, role: "member" as const };
  expect(await code(changeRole.execute(db(), member, f.as("administrator")))).toBe("not-allowed");
  expect(await renew("owner")).toBe("done");
});

test("a steward and an administrator see no more than before", async () => {
  expect((await accessGrid.execute(db(), { vaultId: f.vaultId }, f.as("steward"))).reads).toBe(false);
  const lines = (await journalPage.execute(db(), {}, f.as("owner"))).lines.map(({ says }) => says).join("\n");
  expect(lines).not.toContain("Pellam Tickets");
});

describe("has nothing, whatever is given", () => {
  test("neither by a grant of before, a new one, a group nor Everyone", async () => {
    const give = (subject: object) =>
      code(giveAccess.execute(db(), { nodeId: f.vaultId, subject, level: "use" } as never, f.as("administrator")));
    expect(await give({ kind: "person", id: f.ids.auditor })).toBe("bad-input");
    const { groupId } = await createGroup.execute(db(), { name: "Readers" }, f.as("administrator"));
    await setMember.execute(db(), { groupId, personId: f.ids.auditor }, f.as("administrator"));
    expect(await give({ kind: "group", id: groupId })).toBe("done");
    expect(await give({ kind: "everyone" })).toBe("done");
    const index = await db().access.fresh();
    const at = Date.now();
    expect(index.level(f.ids.auditor, f.entryId, at)).toBe("none");
    expect(index.reached(f.ids.auditor, at).size).toBe(0);
    expect(index.staff(at).has(f.ids.auditor)).toBe(false);
    expect(index.level(f.ids.nothing, f.entryId, at)).toBe("use");
    expect(await code(entryPage.execute(db(), { entryId: f.entryId }, auditor()))).toBe("not-found");
    expect(await vaultList.execute(db(), {}, auditor())).toEqual([]);
    expect(await code(requestAccess.execute(db(), { nodeId: f.entryId, level: "reveal", why: "x" }, auditor()))).toBe(
      "not-allowed",
    );
    // Nor are they offered for it.
    const offered = await subjectList.execute(db(), { text: "auditor" }, f.as("steward"));
    expect(offered.map(({ id }) => id)).not.toContain(f.ids.auditor);
  });
});

describe("reads", () => {
  test("the grid, a round, the Journal with names, people, groups: and no secret in any of it", async () => {
    const [vault] = await gridVaults.execute(db(), {}, auditor());
    expect(vault).toMatchObject({ id: f.vaultId, name: "Shop & Tickets" });
    const grid = await accessGrid.execute(db(), { vaultId: f.vaultId }, auditor());
    expect(grid.reads).toBe(true);
    const nodes = unpack(grid.nodes);
    expect(nodes.map(({ name }) => name)).toContain("Pellam Tickets");
    // Seen, as its stewards see it; that nothing can be set is told by the grid as a whole.
    expect(nodes.every(({ mine }) => mine)).toBe(true);
    await startRound.execute(db(), { vaultId: f.vaultId }, f.as("administrator"));
    const round = await roundPage.execute(db(), { vaultId: f.vaultId }, auditor());
    expect(round.lines.length).toBeGreaterThan(3);
    const journal = await journalPage.execute(db(), {}, auditor());
    const says = journal.lines.map((line) => line.says).join("\n");
    expect(says).toContain("Pellam Tickets");
    expect(says).toContain("Shop & Tickets");
    // What they could not open is no link.
    expect(journal.lines.every(({ link }) => link === null)).toBe(true);
    const person = await personPage.execute(db(), { personId: f.ids.use }, auditor());
    // Names are read, and nothing behind them: a link would end at a page that an auditor does not have.
    expect([...person.lines, ...person.gave.lines].map(({ link }) => link)).toEqual(person.lines.map(() => null));
    expect(person.lines.map(({ what }) => what)).toContain("Pellam Tickets");
    const groupId = grid.groups.find(({ name }) => name === "Readers")!.id;
    const group = await groupPage.execute(db(), { groupId }, auditor());
    expect(group).toMatchObject({ changes: false, members: [{ personId: f.ids.auditor }] });
    expect(group.gives.map(({ what }) => what)).toEqual(["Shop & Tickets"]);
    const all = JSON.stringify([grid, round, journal, person, group]);
    expect(carriesSecret([all], tracesOf(CANARY, CANARY_USER))).toBe(false);
    expect(all).not.toContain(CANARY_USER);
  });
});
