/** Guests asked into one folder: what they get, what they learn of anything else (nothing), and how it ends. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, give, KINDS, type Kind, makeFixture, PASSWORD } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { USUAL_RULES } from "../src/core/access/houseRules";
import { endGuest, guestList, inviteGuest, renewGuestLink } from "../src/server/access/guests";
import type { Caller } from "../src/server/caller";
import { notices } from "../src/server/database/schema";
import { frontDesk } from "../src/server/frontdesk/frontDesk";
import { journalPage } from "../src/server/journal/page";
import { createGroup } from "../src/server/people/groups";
import { personList } from "../src/server/people/peopleList";
import { acceptLink } from "../src/server/people/setUp";
import { Refused } from "../src/server/refused";
import { registry } from "../src/server/registry";
import { changeRules } from "../src/server/rules/rules";
import { addPiece, beginAttachment, finishAttachment } from "../src/server/vaults/attachments";
import { addEntry, changeEntry } from "../src/server/vaults/entries";
import { entryPage } from "../src/server/vaults/entryPage";
import { createFolder } from "../src/server/vaults/folders";
import { revealField } from "../src/server/vaults/revealing";
import { markSeparate } from "../src/server/vaults/separating";
import { createVault } from "../src/server/vaults/vaults";

let app: InProcess;
let f: Fixture;
let folderId: string;
let inFolder: string;
let otherFolderId: string;
let elsewhere: string;
const db = () => app.galtry;
const DAY = 86_400_000;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  const add = async (parentId: string, name: string) =>
    (
      await addEntry.execute(
        db(),
        {
          parentId,
          captured: false,
          values: { name, signInPage: `https://${name.toLowerCase()}.example/in`, password: "p/73" },
        },
        f.as("steward"),
      )
    ).entryId;
  const folder = async (name: string) =>
    (await createFolder.execute(db(), { parentId: f.vaultId, name }, f.as("steward"))).folderId;
  folderId = await folder("Exhibition");
  inFolder = await add(folderId, "Projector");
  otherFolderId = await folder("Canaryfolder");
  await add(otherFolderId, "Canaryentry");
  await createGroup.execute(db(), { name: "Canarygroup" }, f.as("owner"));
  ({ vaultId: elsewhere } = await createVault.execute(db(), { name: "Canaryvault" }, f.as("owner")));
});
afterAll(() => app.close());

const askIn = (more: object = {}, by: Kind = "steward") =>
  inviteGuest.execute(
    db(),
    {
      ...{ nodeId: folderId, name: "Kit Ashdown", mail: "kit@elsewhere.example", level: "edit" },
      ...{ until: Date.now() + 30 * DAY, why: "designs the exhibition" },
      ...more,
    },
    f.as(by),
  );
const code = (promise: Promise<unknown>) =>
  promise.then(
    () => "allowed",
    (error) => `${error.code} ${error.field ?? ""}`.trim(),
  );
const asGuest = (personId: string): Caller => ({ ...f.as("guest"), personId });
const comeIn = async (link: string) =>
  (await acceptLink.execute(db(), { token: new URL(link).hash.slice(1), password: PASSWORD }, f.nobody)).personId;
const toldSteward = async () =>
  (await db().db.select().from(notices).where(eq(notices.personId, f.ids.steward))).map(({ text }) => text);

describe("asking a guest in", () => {
  test("is for the steward of that very place, with an end, and by a link of their own", async () => {
    for (const kind of ["edit", "owner"] as const) expect(await code(askIn({}, kind))).toBe("not-found");
    expect(await code(askIn({ nodeId: f.vaultId }))).toBe("bad-input nodeId");
    expect(await code(askIn({ until: undefined }))).toBe("bad-input until");
    expect(await code(askIn({ until: Date.now() - 1 }))).toBe("bad-input until");
    expect(await code(askIn({ level: "steward" }))).toBe("bad-input level");
    expect(await code(askIn({ mail: "use@tarrowick.example" }))).toBe("conflict mail");
    await changeRules.execute(
      db(),
      {
        ...USUAL_RULES,
        makes: { ...USUAL_RULES.makes, guests: "administrators" },
        longest: { staff: null, guests: 20 },
      },
      f.as("owner"),
    );
    expect(await code(askIn())).toBe("not-allowed");
    expect(await code(askIn({}, "administrator"))).toBe("second-yes until");
    // What was refused left nobody behind.
    expect((await personList.execute(db(), {}, f.as("owner"))).people.some(({ mail }) => mail.startsWith("kit@"))).toBe(
      false,
    );
    await changeRules.execute(db(), USUAL_RULES, f.as("owner"));

    const { personId, link } = await askIn();
    const again = await renewGuestLink.execute(db(), { nodeId: folderId, personId }, f.as("steward"));
    expect(await code(comeIn(link!))).not.toBe("allowed");
    expect(await comeIn(again.link)).toBe(personId);
    expect(await code(renewGuestLink.execute(db(), { nodeId: folderId, personId }, f.as("steward")))).toBe("conflict");
    // Asked into a second place they have no second link.
    expect((await askIn({ nodeId: inFolder })).link).toBe(null);
    expect(await code(renewGuestLink.execute(db(), { nodeId: folderId, personId: f.ids.use }, f.as("steward")))).toBe(
      "not-found",
    );
  });

  test("gives what was said and nothing else, and what they add is seen by its steward at once", async () => {
    const { guests } = await guestList.execute(db(), { nodeId: folderId }, f.as("steward"));
    const [kit] = guests;
    expect(kit).toMatchObject({
      name: "Kit Ashdown",
      grant: { level: "edit", why: "designs the exhibition" },
      saw: [],
    });
    const guest = asGuest(kit!.id);
    const { lines } = await frontDesk.execute(db(), {}, guest);
    expect(lines.map(({ name, newFrom, newWhy }) => [name, newFrom, newWhy])).toEqual([
      ["Projector", "Person steward", "designs the exhibition"],
    ]);
    const values = { name: "Lighting desk", signInPage: "https://light.example/in", password: "lamp/73" };
    await addEntry.execute(db(), { parentId: folderId, captured: false, values }, guest);
    expect(await toldSteward()).toContain("Kit Ashdown, a guest, added Lighting desk.");
    expect(await code(addEntry.execute(db(), { parentId: otherFolderId, captured: false, values }, guest))).toBe(
      "not-found",
    );
  });
});

/** Runs every query with every id there is as somebody; which of the names are in an answer, or in a refusal. */
async function learntBy(caller: Caller, names: readonly string[]): Promise<{ learnt: string[]; answered: number }> {
  const everything = [folderId, inFolder, otherFolderId, elsewhere, f.vaultId, f.entryId, f.folderId, f.ids.use];
  /** Every field that can take an id gets every id in turn; what else is asked for gets something plausible. */
  const plausible: Record<string, unknown> = {
    words: "canary",
    text: "canary",
    rows: [{ name: "Canaryentry", signInPage: "https://canaryentry.example/in" }],
    how: "copy",
    page: "https://canaryentry.example/in",
    url: "https://canaryentry.example/in",
    purpose: "sign-in",
    token: "x",
    code: "x",
    at: null,
    before: null,
    separate: true,
    number: 0,
    ticket: "x",
    fields: [],
  };
  const shape = (id: string, input: unknown): Record<string, unknown> => {
    const keys = Object.keys((input as { shape?: Record<string, unknown> }).shape ?? {});
    return Object.fromEntries(
      keys.map((key) => [
        key,
        /Ids$/.test(key) ? [id] : /Id$/.test(key) ? id : key === "changes" ? [change(id)] : plausible[key],
      ]),
    );
  };
  const change = (id: string) => ({ type: "set", nodeId: id, subject: { kind: "everyone" }, grants: [] });
  const learnt = new Set<string>();
  let answered = 0;
  for (const [name, one] of registry) {
    if (one.type !== "query" || !one.by.includes("person")) continue;
    for (const id of everything) {
      const input = shape(id, one.input);
      try {
        const answer = JSON.stringify(await one.execute(db(), input, caller)) ?? "";
        answered += 1;
        for (const other of names) {
          if (answer.includes(other)) learnt.add(`${name}: ${other}`);
        }
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        const said = error.message + JSON.stringify(error.data ?? null);
        for (const other of names) if (said.includes(other)) learnt.add(`${name}, refusing: ${other}`);
      }
    }
  }
  return { learnt: [...learnt], answered };
}

/** Others work in the guest's folder: what they attach, change and restore bears their names. */
async function othersWorkThere(): Promise<{ versionId: string }> {
  const by = f.as("administrator");
  const { attachmentId } = await beginAttachment.execute(db(), { entryId: inFolder, name: "plan.txt", size: 4 }, by);
  await addPiece.execute(db(), { attachmentId, number: 0, piece: btoa("plan") }, by);
  await finishAttachment.execute(db(), { attachmentId }, by);
  const { reveal } = await entryPage.execute(db(), { entryId: inFolder }, by);
  const values = { name: "Projector", signInPage: "https://projector.example/in", notes: "lamp changed" };
  await changeEntry.execute(db(), { entryId: inFolder, baseVersionId: reveal!.versionId, values, captured: false }, by);
  return reveal!;
}

test("whatever a guest asks, nothing outside their folder is in the answer", async () => {
  const { guests } = await guestList.execute(db(), { nodeId: folderId }, f.as("steward"));
  const { versionId } = await othersWorkThere();
  const guest = asGuest(guests[0]!.id);
  const page = await entryPage.execute(db(), { entryId: inFolder }, guest);
  expect(page.attachments.map(({ name, by }) => [name, by])).toEqual([["plan.txt", ""]]);
  expect(page.versions?.map(({ by }) => by)).toEqual(["", "Person steward"]);
  expect(page.reveal).toMatchObject({ changedBy: "", createdBy: "Person steward" });
  // Somebody saved in between: that it was so, and not who.
  const late = {
    entryId: inFolder,
    baseVersionId: versionId,
    values: { name: "Projector", signInPage: page.signInPage },
    captured: false,
  };
  await expect(changeEntry.execute(db(), late, guest)).rejects.toMatchObject({
    code: "conflict",
    message: "Someone changed this entry while you were editing it.",
    data: { by: null },
  });
  // The numbers of their lines say nothing of how much happens elsewhere.
  for (const line of (await journalPage.execute(db(), {}, guest)).lines) {
    expect(line.seq).toBe(null);
    expect(line.id).toMatch(/^[\w-]{22}$/);
  }
  // Whose house it is, and who asked them in, they know.
  const people = KINDS.filter((kind) => kind !== "steward").map((kind) => `Person ${kind}`);
  const others = ["Canary", "Hanna", ...people, "Shop & Tickets", "Pellam", "Quillbrook", "Drawer"];
  const { learnt, answered } = await learntBy(asGuest(guests[0]!.id), others);
  expect(learnt).toEqual([]);
  // The walk is worth something only where much is answered.
  expect(answered).toBeGreaterThan(80);
});

test("whatever somebody asks who has nothing, no vault, folder or entry is in the answer", async () => {
  const kept = ["Canaryvault", "Canaryfolder", "Canaryentry", "Shop & Tickets", "Pellam", "Quillbrook", "Projector"];
  const { learnt, answered } = await learntBy(f.as("nothing"), [...kept, "Exhibition", "Drawer"]);
  expect(learnt).toEqual([]);
  expect(answered).toBeGreaterThan(80);
});

test("whatever somebody asks who has Use of one entry, nothing but it, its vault and the people is in the answer", async () => {
  const kept = ["Canaryvault", "Canaryfolder", "Canaryentry", "Quillbrook", "Projector", "Exhibition", "Drawer"];
  const { learnt, answered } = await learntBy(f.as("use"), kept);
  expect(learnt).toEqual([]);
  expect(answered).toBeGreaterThan(80);
});

test("of a separate place in the folder that has other stewards, neither what guests have there nor what they saw is told", async () => {
  const inner = (await createFolder.execute(db(), { parentId: folderId, name: "Inner" }, f.as("administrator")))
    .folderId;
  const values = { name: "Canarysafe", signInPage: "https://canarysafe.example/in", password: "s/73" };
  const safe = await addEntry.execute(db(), { parentId: inner, captured: false, values }, f.as("administrator"));
  await markSeparate.execute(db(), { folderId: inner, separate: true }, f.as("administrator"));
  await give(db(), f.as("administrator"), safe.entryId, f.ids.guest, "reveal");
  await revealField.execute(db(), { entryId: safe.entryId, field: "password", how: "revealed" }, f.as("guest"));
  const list = await guestList.execute(db(), { nodeId: folderId }, f.as("steward"));
  expect(JSON.stringify(list)).not.toMatch(/Canarysafe|Person guest/);
  const ending = { nodeId: folderId, personId: f.ids.guest };
  expect(await code(endGuest.execute(db(), ending, f.as("steward")))).toBe("not-found");
  expect(JSON.stringify(await guestList.execute(db(), { nodeId: inner }, f.as("administrator")))).toContain(
    "Canarysafe",
  );
});

test("a guest is ended in one act, which says what they saw, and leaves when nothing is left", async () => {
  const { guests } = await guestList.execute(db(), { nodeId: folderId }, f.as("steward"));
  const { id: personId } = guests[0]!;
  const guest = asGuest(personId);
  await revealField.execute(db(), { entryId: inFolder, field: "password", how: "revealed" }, guest);
  expect(await code(endGuest.execute(db(), { nodeId: folderId, personId: f.ids.use }, f.as("steward")))).toBe(
    "not-found",
  );
  expect(await code(endGuest.execute(db(), { nodeId: folderId, personId }, f.as("edit")))).toBe("not-found");
  await give(db(), f.as("steward"), f.otherEntryId, personId, "use");
  const first = await endGuest.execute(db(), { nodeId: folderId, personId }, f.as("steward"));
  expect(first).toEqual({ saw: ["Lighting desk", "Projector"], used: [], left: false });
  expect((await frontDesk.execute(db(), {}, guest)).lines.map(({ name }) => name)).toEqual(["Quillbrook Couriers"]);
  const last = await endGuest.execute(db(), { nodeId: f.otherEntryId, personId }, f.as("steward"));
  expect(last.left).toBe(true);
  expect(await code(frontDesk.execute(db(), {}, guest))).toBe("signed-out");
  // An administrator can bring them back; a steward does not.
  expect(await code(askIn())).toBe("conflict mail");
});
