/** A person's page: their own in full, others' as far as the reader is steward, a guest's without any name around it. */
import { afterAll, beforeAll, expect, test } from "vitest";
import { type Fixture, give, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { createGroup } from "../src/server/people/groups";
import { setMember } from "../src/server/people/members";
import { personPage } from "../src/server/people/personPage";
import { addEntry } from "../src/server/vaults/entries";
import { markSeparate } from "../src/server/vaults/separating";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

const see = (who: Kind, by: Kind) => personPage.execute(db(), { personId: f.ids[who] }, f.as(by));
const code = (promise: Promise<unknown>) =>
  promise.then(
    () => "seen",
    (error) => error.code as string,
  );

test("says to oneself what one has, with its reason", async () => {
  const { self, lines } = await see("reveal", "reveal");
  expect(self).toBe(true);
  expect(lines.map(({ what, level, sentence }) => [what, level, sentence.split(" since")[0]])).toEqual([
    ["Pellam Tickets", "reveal", "Reveal, because you have had Reveal on this entry"],
  ]);
  expect((await see("nothing", "nothing")).lines).toEqual([]);
});

test("says to a steward what somebody has there, and to others nothing at all", async () => {
  const { groupId } = await createGroup.execute(db(), { name: "Night team" }, f.as("owner"));
  await setMember.execute(db(), { groupId, personId: f.ids.use }, f.as("owner"));
  await give(db(), f.as("steward"), f.folderId, f.ids.nothing, "edit");
  const page = await see("nothing", "steward");
  expect(page.lines).toMatchObject([{ what: "Drawer", type: "folder", level: "edit", entries: 0 }]);
  expect(page.lines[0]!.sentence).toContain("Edit, because Person nothing has had Edit on this folder since today");
  for (const kind of ["use", "edit", "guest"] as const) expect(await code(see("nothing", kind))).toBe("not-found");
  // An administrator who is no steward learns whom they manage, and no name of what they have.
  const byOwner = await see("use", "owner");
  expect(byOwner).toMatchObject({ lines: [], groups: [{ name: "Night team" }] });
  expect((await see("use", "steward")).groups).toEqual([]);
});

test("counts the entries of what is decided alike, and leaves out what the reader is no steward of", async () => {
  await give(db(), f.as("steward"), f.vaultId, f.ids.nothing, "use");
  await markSeparate.execute(db(), { folderId: f.folderId, separate: true }, f.as("administrator"));
  const values = { name: "Hidden", signInPage: "https://hidden.example/in", password: "h/73" };
  await addEntry.execute(db(), { parentId: f.folderId, captured: false, values }, f.as("administrator"));
  const byName = async (by: Kind) =>
    Object.fromEntries(
      (await see("nothing", by)).lines.map(({ what, entries, level }) => [what, `${level} ${entries}`]),
    );
  // One entry has grants of its own, and so a line; the other counts with the vault.
  expect(await byName("administrator")).toEqual({
    ...{ "Shop & Tickets": "use 1", "Pellam Tickets": "use 1", Drawer: "edit 1" },
  });
  expect(await byName("steward")).not.toHaveProperty("Drawer");
});

test("says to a guest what they have, and no name around it", async () => {
  const { lines } = await see("guest", "guest");
  expect(lines).toMatchObject([{ what: "Pellam Tickets", vault: { name: "" } }]);
  expect(JSON.stringify(lines)).not.toContain("Shop & Tickets");
});

test("an administrator who is no steward reads how much somebody has, by vault, and no name of it", async () => {
  const { elsewhere, lines } = await see("nothing", "owner");
  expect(lines).toEqual([]);
  expect(elsewhere).toEqual([{ vaultId: f.vaultId, vault: expect.any(String), entries: expect.any(Number) }]);
  expect(elsewhere[0]!.entries).toBeGreaterThan(0);
  // What they are steward of is said in full, and not counted once more.
  const own = await see("nothing", "steward");
  expect(own.elsewhere).toEqual([]);
  expect(JSON.stringify(await see("nothing", "owner"))).not.toContain("Pellam Tickets");
  // Nobody reads it of themselves, nor whoever manages nobody.
  expect((await see("nothing", "nothing")).elsewhere).toEqual([]);
});
