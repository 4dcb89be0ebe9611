/** What is each person's own (view, mappings, notices), small acts on folders and steps, and the Journal in sentences. */
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { buildDemo } from "../demo/build";
import { CANARY, type Fixture, give, KINDS, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { PLAIN_VIEW } from "../src/core/ledgerView";
import type { Caller } from "../src/server/caller";
import { persons } from "../src/server/database/schema";
import { journalPage } from "../src/server/journal/page";
import { dismissNotices, ownNotices } from "../src/server/people/notices";
import { subjectList } from "../src/server/people/peopleList";
import { renewLink } from "../src/server/people/persons";
import { folderPage } from "../src/server/vaults/folderPage";
import { createFolder, renameFolder } from "../src/server/vaults/folders";
import { deleteMapping, mappingList, saveMapping } from "../src/server/vaults/mappings";
import { vaultPlaces } from "../src/server/vaults/places";
import { tagEntries } from "../src/server/vaults/several";
import { changeSteps } from "../src/server/vaults/steps";
import { vaultTags } from "../src/server/vaults/tags";
import { saveLedgerView, vaultLedger } from "../src/server/vaults/vaults";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

describe("one's own", () => {
  test("a view of a ledger is kept for one person and vault, and given to nobody else", async () => {
    const view = { ...PLAIN_VIEW, columns: ["tags" as const], sort: "used" as const, open: [f.folderId] };
    await saveLedgerView.execute(db(), { vaultId: f.vaultId, view }, f.as("steward"));
    const viewOf = async (caller: Caller) => (await vaultLedger.execute(db(), { vaultId: f.vaultId }, caller)).view;
    expect(await viewOf(f.as("steward"))).toEqual(view);
    expect(await viewOf(f.as("use"))).toEqual(PLAIN_VIEW);
    await expect(saveLedgerView.execute(db(), { vaultId: f.vaultId, view }, f.as("nothing"))).rejects.toMatchObject({
      code: "not-found",
    });
    await expect(
      saveLedgerView.execute(db(), { vaultId: f.vaultId, view: { ...view, columns: ["password"] } }, f.as("steward")),
    ).rejects.toMatchObject({ code: "bad-input" });
  });

  test("what columns become is kept under a name, the latest of it, and forgotten by its owner alone", async () => {
    const mapping = { header: ["Titel", "Kennwort"], meanings: ["name", "password"], keepFolders: true };
    const keep = (name: string, more: object = {}, caller: Caller = f.as("edit")) =>
      saveMapping.execute(db(), { name, mapping: { ...mapping, ...more } }, caller);
    await keep("From the browser");
    await keep("From the browser", { keepFolders: false });
    await keep("A drawer");
    const list = () => mappingList.execute(db(), {}, f.as("edit"));
    expect((await list()).map(({ name, keepFolders }) => [name, keepFolders])).toEqual([
      ["A drawer", true],
      ["From the browser", false],
    ]);
    expect(await mappingList.execute(db(), {}, f.as("steward"))).toEqual([]);
    const { id } = (await list())[0]!;
    await expect(deleteMapping.execute(db(), { mappingId: id }, f.as("owner"))).rejects.toMatchObject({
      code: "not-found",
    });
    await deleteMapping.execute(db(), { mappingId: id }, f.as("edit"));
    expect((await list()).map(({ name }) => name)).toEqual(["From the browser"]);
    await expect(keep("Wrong", { meanings: ["whatever"] })).rejects.toMatchObject({ code: "bad-input" });
    for (let i = 0; i < 49; i++) await keep(`Kept ${i}`);
    await expect(keep("One too many")).rejects.toMatchObject({ field: "name" });
  });

  test("a notice is put away by whom it is for, and by nobody else", async () => {
    const mine = () => ownNotices.execute(db(), {}, f.as("steward"));
    // Stewards are told where somebody with Reveal gets a new sign-in link.
    await renewLink.execute(db(), { personId: f.ids.reveal }, f.as("owner"));
    const before = await mine();
    expect(before.length).toBeGreaterThan(0);
    const ids = before.map(({ id }) => id);
    await dismissNotices.execute(db(), { ids }, f.as("use"));
    expect(await mine()).toEqual(before);
    await dismissNotices.execute(db(), { ids }, f.as("steward"));
    expect(await mine()).toEqual([]);
  });
});

describe("folders, tags, steps", () => {
  test("a folder is renamed with Edit; its page names the way to it, to guests none of it", async () => {
    const { folderId } = await createFolder.execute(db(), { parentId: f.folderId, name: "Keys" }, f.as("steward"));
    await give(db(), f.as("steward"), folderId, f.ids.use, "use");
    await give(db(), f.as("steward"), folderId, f.ids.edit, "edit");
    await give(db(), f.as("steward"), folderId, f.ids.guest, "edit");
    await expect(renameFolder.execute(db(), { folderId, name: "Ring of keys" }, f.as("use"))).rejects.toMatchObject({
      code: "not-allowed",
    });
    await renameFolder.execute(db(), { folderId, name: "Ring of keys" }, f.as("edit"));
    const page = (caller: Caller) => folderPage.execute(db(), { folderId }, caller);
    expect(await page(f.as("use"))).toMatchObject({
      name: "Ring of keys",
      level: "use",
      folders: [{ name: "Drawer" }],
      vault: { name: "Shop & Tickets" },
      story: [],
    });
    expect(await page(f.as("guest"))).toMatchObject({
      folders: [],
      vault: { name: "Shared with you: Pellam Tickets and 1 more" },
    });
    expect((await page(f.as("steward"))).story.map(({ says }) => says)).toContain("renamed it");
    await expect(page(f.as("nothing"))).rejects.toMatchObject({ code: "not-found" });
  });

  test("places are those where one may put things, by their whole way; a guest's begin with their own", async () => {
    const places = async (caller: Caller) =>
      (await vaultPlaces.execute(db(), { vaultId: f.vaultId }, caller)).map(({ name }) => name);
    expect(await places(f.as("steward"))).toEqual(["Shop & Tickets", "Drawer", "Drawer › Ring of keys"]);
    expect(await places(f.as("edit"))).toEqual(["Drawer › Ring of keys"]);
    expect(await places(f.as("guest"))).toEqual(["Ring of keys"]);
    for (const kind of ["use", "nothing"] as const)
      await expect(places(f.as(kind))).rejects.toMatchObject({ code: "not-found" });
  });

  test("tags are those of entries one reaches, with how many of them one may change", async () => {
    const tag = (entryIds: string[], add: string[]) =>
      tagEntries.execute(db(), { entryIds, add, remove: [] }, f.as("steward"));
    await tag([f.entryId, f.otherEntryId], ["till"]);
    await tag([f.entryId], ["tickets"]);
    await tag([f.otherEntryId], ["courier"]);
    const tags = async (caller: Caller) =>
      (await vaultTags.execute(db(), { vaultId: f.vaultId }, caller)).map(
        ({ name, entryIds, editable }) => `${name} ${entryIds.length} ${editable}`,
      );
    expect(await tags(f.as("steward"))).toEqual(["courier 1 1", "tickets 1 1", "till 2 2"]);
    expect(await tags(f.as("edit"))).toEqual(["tickets 1 1", "till 1 1"]);
    expect(await tags(f.as("use"))).toEqual(["tickets 1 0", "till 1 0"]);
    await expect(tags(f.as("nothing"))).rejects.toMatchObject({ code: "not-found" });
  });

  test("sign-in steps are changed with Edit; where they lead is checked", async () => {
    const steps = { hosts: ["in.pellam.example"], choices: { branch: "north" }, signOutPage: null };
    await expect(changeSteps.execute(db(), { entryId: f.entryId, steps }, f.as("reveal"))).rejects.toMatchObject({
      code: "not-allowed",
    });
    await changeSteps.execute(db(), { entryId: f.entryId, steps }, f.as("edit"));
    for (const hosts of [["https://pellam.example"], ["pellam.example/in"], Array(11).fill("pellam.example")])
      await expect(
        changeSteps.execute(db(), { entryId: f.entryId, steps: { ...steps, hosts } }, f.as("edit")),
      ).rejects.toMatchObject({ code: "bad-input" });
  });

  test("whom one may give to: staff see everybody who is there, with the note that tells two apart", async () => {
    const list = await subjectList.execute(db(), {}, f.as("steward"));
    expect(list.find(({ kind }) => kind === "everyone")!.note).toBe("7 members of staff");
    const names = list.map(({ name }) => name);
    expect(names).toContain("Person guest");
    for (const gone of ["Person suspended", "Person leaver"]) expect(names).not.toContain(gone);
    await expect(subjectList.execute(db(), {}, f.as("guest"))).rejects.toMatchObject({ code: "not-allowed" });
  });
});

describe("the Journal in sentences", () => {
  test("of everything the sample organisation did, every line is one, without a name of the code or a secret", async () => {
    const other = await inProcess();
    try {
      await buildDemo(other.galtry, other.standins.sites, other.standins.address);
      const people = await other.galtry.db.select().from(persons);
      const owner = people.find(({ mail }) => mail.startsWith("hanna.quist"))!;
      const caller: Caller = { ...f.as("owner"), personId: owner.id };
      const said: string[] = [];
      for (let before: string | null = null; ; ) {
        const page: Awaited<ReturnType<(typeof journalPage)["execute"]>> = await journalPage.execute(
          other.galtry,
          { before },
          caller,
        );
        said.push(...page.lines.map(({ says }) => says));
        if (page.more === null) break;
        before = page.more;
      }
      expect(said.length).toBeGreaterThan(150);
      for (const says of said) {
        expect(says).toMatch(/^[a-zä-ü“]/i);
        expect(says).not.toMatch(
          /\b(access|people|vaults|signIn|rounds|rules|mail)\.[a-z]|undefined|null|NaN|\[object/,
        );
        expect(says).not.toMatch(/[0-9a-f]{8}-[0-9a-f]{4}-7/);
      }
    } finally {
      await other.close();
    }
  }, 60_000);

  test("each reads what is theirs to read, and nobody a secret", async () => {
    const read = async (caller: Caller) =>
      (await journalPage.execute(db(), {}, caller)).lines.map(({ who, says }) => `${who} ${says}`).join("\n");
    const texts = new Map<string, string>();
    for (const kind of KINDS) if (kind !== "suspended" && kind !== "leaver") texts.set(kind, await read(f.as(kind)));
    for (const text of texts.values()) expect(text).not.toContain(CANARY);
    // Owners read every act, with no name of what they have no level on.
    expect(texts.get("owner")).toContain("an entry in Shop & Tickets");
    expect(texts.get("owner")).not.toContain("Pellam Tickets");
    expect(texts.get("steward")).toContain("Pellam Tickets");
    // Colleagues read their own acts alone.
    for (const kind of ["use", "reveal", "nothing", "guest"] as const)
      for (const line of texts.get(kind)!.split("\n").filter(Boolean))
        expect(line).toMatch(new RegExp(`^Person ${kind} `));
  });

  test("it is narrowed to one kind of act, one person and one place", async () => {
    const lines = async (input: object) => (await journalPage.execute(db(), input, f.as("owner"))).lines;
    for (const { act } of await lines({ acts: "access" })) expect(act).toMatch(/^(access|people|mail)\./);
    const edits = await lines({ personId: f.ids.edit });
    expect(edits.length).toBeGreaterThan(0);
    expect(
      edits.some(({ says }) => says.includes("Person edit")) || edits.some(({ who }) => who === "Person edit"),
    ).toBe(true);
    const here = await lines({ nodeId: f.vaultId });
    expect(here.length).toBeGreaterThan(3);
    expect(here.length).toBeLessThan((await lines({})).length);
  });
});
