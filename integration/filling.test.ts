/** Filling the vaults: versions, the bin, kinds, several at once, copies, other vaults, attachments. Real database. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { CANARY, CANARY_USER, type Fixture, give, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { BIN_DAYS } from "../src/core/binDays";
import { unpack } from "../src/core/packed";
import { PIECE_BYTES } from "../src/core/pieces";
import { carriesSecret, tracesOf } from "../src/core/signin/carries";
import {
  attachmentPieces,
  attachments,
  entries,
  entryVersions,
  grants,
  sightings,
} from "../src/server/database/schema";
import { frontDesk } from "../src/server/frontdesk/frontDesk";
import { finderWords } from "../src/server/frontdesk/words";
import { journalPage } from "../src/server/journal/page";
import { guardedFill, keyList } from "../src/server/lanyard/keys";
import { Refused } from "../src/server/refused";
import { beginSignIn } from "../src/server/signin/sealed";
import { rateSome } from "../src/server/upkeep/conditions";
import { Rater } from "../src/server/upkeep/rater";
import { setAside, setVaultAside } from "../src/server/vaults/aside";
import {
  addPiece,
  attachmentPiece,
  beginAttachment,
  finishAttachment,
  openAttachment,
  removeAttachment,
  sweepAttachments,
} from "../src/server/vaults/attachments";
import { binEntry, emptyBins, eraseEntry, eraseFolder, restoreEntry } from "../src/server/vaults/bin";
import { convertEntry } from "../src/server/vaults/convert";
import { carryPreview, duplicateNodes, moveAcross } from "../src/server/vaults/copying";
import { earlierVersions, restoreVersion, revealEarlier } from "../src/server/vaults/earlier";
import { addEntry, changeEntry } from "../src/server/vaults/entries";
import { entryPage } from "../src/server/vaults/entryPage";
import { binFolder, createFolder } from "../src/server/vaults/folders";
import { changeKind, closeKind, createKind, deleteKind, kindList, setKindPicture } from "../src/server/vaults/kinds";
import { moveNodes } from "../src/server/vaults/moving";
import { pictureOf, setPicture, setVaultPicture } from "../src/server/vaults/pictures";
import { revealField } from "../src/server/vaults/revealing";
import { markSeparate, separatePreview } from "../src/server/vaults/separating";
import { setField, tagEntries } from "../src/server/vaults/several";
import { changeSigningIn, setPasswordOnReveal } from "../src/server/vaults/signingIn";
import { removeSite, saveSite, siteList } from "../src/server/vaults/sites";
import { exportEntries, exporterList, exportPart, setExporters, sweepExports } from "../src/server/vaults/takingOut";
import { tickCode } from "../src/server/vaults/ticks";
import { createVault, deleteVault, vaultLedger, vaultList } from "../src/server/vaults/vaults";
import { attachFile, fetchFile } from "./attaching";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

async function refusal(attempt: Promise<unknown>): Promise<Refused> {
  try {
    await attempt;
  } catch (error) {
    if (error instanceof Refused) return error;
    throw error;
  }
  throw new Error("was not refused");
}

const LOGIN = { name: "Stallwright Wholesale", signInPage: "https://stallwright.example/in", userName: "shop" };

const add = async (values: object, kind = "website-login", parentId = f.vaultId) =>
  (await addEntry.execute(db(), { parentId, kind, values: { ...values } }, f.as("steward"))).entryId;
const change = async (entryId: string, values: object) => {
  const [entry] = await db().db.select().from(entries).where(eq(entries.nodeId, entryId));
  return changeEntry.execute(
    db(),
    { entryId, baseVersionId: entry!.versionId, values: { ...values } },
    f.as("steward"),
  );
};
const page = (entryId: string, kind: Parameters<Fixture["as"]>[0] = "steward") =>
  entryPage.execute(db(), { entryId }, f.as(kind));
const fieldOf = (view: Awaited<ReturnType<typeof page>>, id: string) => view.fields.find((field) => field.id === id);
const reveal = async (entryId: string, field: string, kind: Parameters<Fixture["as"]>[0] = "steward") =>
  (await revealField.execute(db(), { entryId, field, how: "revealed" }, f.as(kind))).value;

describe("earlier versions", () => {
  let entryId: string;
  beforeAll(async () => {
    entryId = await add({ ...LOGIN, password: "first one 1", notes: "Ring first." });
    await change(entryId, { ...LOGIN, password: "second one 2", notes: "" });
    await change(entryId, { ...LOGIN, name: "Stallwright", userName: "till" });
  });

  test("say what was changed when by whom, newest first, and hold no secret", async () => {
    const view = await earlierVersions.execute(db(), { entryId }, f.as("steward"));
    expect(view.versions.map((version) => version.number)).toEqual([3, 2, 1]);
    const changed = view.versions.map((version) =>
      version.values.filter((value) => value.changed).map((value) => value.id),
    );
    expect(changed).toEqual([["name", "userName"], ["notes", "password"], []]);
    expect(view.versions[2]!.values.find((value) => value.id === "notes")).toMatchObject({
      value: "Ring first.",
      differs: true,
    });
    expect(view.versions[2]!.by).toBe("Person steward");
    expect(JSON.stringify(view)).not.toMatch(/first one|second one/);
  });

  test("a secret of one is revealed at Edit, noted as seen; below Edit nobody learns of it", async () => {
    const [first] = (await earlierVersions.execute(db(), { entryId }, f.as("steward"))).versions.slice(-1);
    const ask = (kind: Parameters<Fixture["as"]>[0]) =>
      revealEarlier.execute(db(), { entryId, versionId: first!.id, field: "password", how: "revealed" }, f.as(kind));
    expect((await ask("steward")).value).toBe("first one 1");
    await give(db(), f.as("steward"), entryId, f.ids.reveal, "reveal");
    expect((await refusal(ask("reveal"))).code).toBe("not-allowed");
    expect((await refusal(ask("nothing"))).code).toBe("not-found");
    const { lines } = await journalPage.execute(
      db(),
      { nodeId: entryId, before: null, personId: null, acts: null },
      f.as("steward"),
    );
    expect(lines.map((line) => line.says)).toContain("revealed the password of version 1 of Stallwright");
  });

  test("one field comes back, then all; each as a new version, and nobody counts as having seen it", async () => {
    const now = await page(entryId);
    const view = await earlierVersions.execute(db(), { entryId }, f.as("steward"));
    const [, second, first] = view.versions;
    await give(db(), f.as("steward"), entryId, f.ids.edit, "edit");
    const base = { entryId, baseVersionId: now.reveal!.versionId };
    await restoreVersion.execute(
      db(),
      { items: [{ ...base, versionId: first!.id }], fields: ["password"] },
      f.as("edit"),
    );
    expect(await reveal(entryId, "password")).toBe("first one 1");
    expect((await page(entryId)).name).toBe("Stallwright");
    const seen = await db().db.select().from(sightings).where(eq(sightings.personId, f.ids.edit));
    expect(seen.filter((row) => row.entryId === entryId)).toEqual([]);
    // The base has moved on: nothing is brought back over what somebody else wrote.
    const stale = restoreVersion.execute(
      db(),
      { items: [{ ...base, versionId: second!.id }], fields: null },
      f.as("edit"),
    );
    expect((await refusal(stale)).code).toBe("conflict");
    const { reveal: current } = await page(entryId);
    await restoreVersion.execute(
      db(),
      { items: [{ entryId, baseVersionId: current!.versionId, versionId: first!.id }], fields: null },
      f.as("edit"),
    );
    const after = await page(entryId);
    expect([after.name, after.notes, fieldOf(after, "userName")?.value, after.versions!.length]).toEqual([
      "Stallwright Wholesale",
      "Ring first.",
      "shop",
      5,
    ]);
  });

  test("a version of one entry is not brought back into another", async () => {
    const other = await add({ ...LOGIN, password: "other 3" });
    const [theirs] = (await earlierVersions.execute(db(), { entryId }, f.as("steward"))).versions;
    const { reveal: current } = await page(other);
    const attempt = restoreVersion.execute(
      db(),
      { items: [{ entryId: other, baseVersionId: current!.versionId, versionId: theirs!.id }], fields: null },
      f.as("steward"),
    );
    expect((await refusal(attempt)).code).toBe("not-found");
  });
});

describe("kinds of one's own", () => {
  const CASE = {
    name: "Film projector",
    purpose: "get-in" as const,
    fields: [
      { label: "Case number", required: true },
      { label: "Combination", class: "secret" as const, form: "password" as const },
      { label: "Room", form: "choice" as const, choices: ["Loom House", "Glassworks"] },
    ],
    title: 0,
  };
  let kindId: string;
  const ids = async () =>
    (await kindList.execute(db(), {}, f.as("owner"))).own.find((kind) => kind.id === kindId)!.fields;

  test("are made, and their title is the entry's name", async () => {
    ({ kindId } = await createKind.execute(db(), { kind: CASE }, f.as("owner")));
    const [number, combination, room] = await ids();
    const entryId = await add(
      { [number!.id]: "Case 12", [combination!.id]: "left 4, right 9", [room!.id]: "Glassworks" },
      kindId,
    );
    const view = await page(entryId);
    expect([view.name, view.kind.name, fieldOf(view, room!.id)?.value]).toEqual([
      "Case 12",
      "Film projector",
      "Glassworks",
    ]);
    const wrong = add({ [number!.id]: "Case 13", [room!.id]: "Attic" }, kindId);
    expect((await refusal(wrong)).field).toBe(`values.${room!.id}`);
    expect((await refusal(add({ [number!.id]: "" }, kindId))).field).toBe(`values.${number!.id}`);
  });

  test("changed later, no value is lost, and who sees one does not change", async () => {
    const [number, combination] = await ids();
    const entryId = await add({ [number!.id]: "Case 14", [combination!.id]: "left 1" }, kindId);
    const lift = changeKind.execute(
      db(),
      {
        kindId,
        kind: { ...CASE, fields: [{ id: combination!.id, label: "Combination", class: "open" }], title: null },
      },
      f.as("owner"),
    );
    expect((await refusal(lift)).message).toContain("you cannot change who sees it");
    await changeKind.execute(
      db(),
      { kindId, kind: { ...CASE, fields: [{ id: number!.id, label: "Number" }, { label: "Key held by" }] } },
      f.as("owner"),
    );
    const view = await page(entryId);
    expect(fieldOf(view, combination!.id)).toMatchObject({ retired: true, filled: true });
    expect(await reveal(entryId, combination!.id)).toBe("left 1");
    // An edit of the rest leaves it where it is.
    await change(entryId, { [number!.id]: "Case 14a" });
    expect(await reveal(entryId, combination!.id)).toBe("left 1");
    expect((await page(entryId)).name).toBe("Case 14a");
  });

  test("in use, one is closed and not deleted", async () => {
    expect((await refusal(deleteKind.execute(db(), { kindId }, f.as("owner")))).message).toContain("cannot be deleted");
    await closeKind.execute(db(), { kindId, closed: true }, f.as("owner"));
    const [number] = await ids();
    expect((await refusal(add({ [number!.id]: "Case 15" }, kindId))).message).toContain("no longer offered");
    expect(
      (await refusal(createKind.execute(db(), { kind: { ...CASE, name: "film Projector" } }, f.as("owner")))).field,
    ).toBe("kind.name");
    const unused = await createKind.execute(db(), { kind: { ...CASE, name: "Loan" } }, f.as("owner"));
    await deleteKind.execute(db(), unused, f.as("owner"));
    const left = (await kindList.execute(db(), {}, f.as("owner"))).own.map((kind) => kind.id);
    expect(left).toEqual([kindId]);
    for (const kind of ["steward", "use", "guest"] as const)
      expect((await refusal(deleteKind.execute(db(), { kindId }, f.as(kind)))).code).toBe("not-allowed");
  });

  test("an entry becomes one of another kind and back: nothing is lost on the way", async () => {
    const code = "otpauth://totp/shop?secret=JBSWY3DPEHPK3PXP&digits=8";
    const entryId = await add({ ...LOGIN, password: CANARY, code, notes: "kept" });
    const convert = async (kind: string, signInPage = "") =>
      convertEntry.execute(
        db(),
        { entryId, baseVersionId: (await page(entryId)).reveal!.versionId, kind, signInPage },
        f.as("steward"),
      );
    await convert("note");
    const note = await page(entryId);
    expect([note.kind.id, note.signInPage, note.hasCode]).toEqual(["note", "", false]);
    expect(
      note.fields.filter((field) => field.id.startsWith("extra:")).map((field) => [field.label, field.class]),
    ).toEqual([
      ["User name", "identifier"],
      ["Password", "secret"],
      ["Sign-in page", "open"],
      ["One-time code", "secret"],
    ]);
    expect(await reveal(entryId, "extra:password")).toBe(CANARY);
    expect(await reveal(entryId, "extra:code")).toContain("digits=8");
    await convert("website-login");
    const back = await page(entryId);
    expect([back.signInPage, fieldOf(back, "userName")?.value, back.notes]).toEqual([LOGIN.signInPage, "shop", "kept"]);
    expect(await reveal(entryId, "password")).toBe(CANARY);
    expect((await refusal(convert("wifi"))).message).toContain("Network name");
  });
});

test("recovery codes are ticked off, and stay so when the list grows", async () => {
  const entryId = await add({ name: "Bank codes", codes: "aaaa-1\n\n bbbb-2 \ncccc-3" }, "recovery-codes");
  expect(fieldOf(await page(entryId), "codes")).toMatchObject({ codes: 3, value: null });
  const asked = () => revealField.execute(db(), { entryId, field: "codes", how: "revealed" }, f.as("steward"));
  const tick = async (number: number, used: boolean) =>
    tickCode.execute(
      db(),
      { entryId, versionId: (await asked()).versionId, field: "codes", number, used },
      f.as("steward"),
    );
  expect((await asked()).used).toEqual([]);
  expect(await tick(1, true)).toEqual({ used: [1], left: 2 });
  await change(entryId, { name: "Bank codes", codes: "new-0\naaaa-1\nbbbb-2" });
  expect((await asked()).used).toEqual([2]);
  expect(await tick(2, false)).toEqual({ used: [], left: 3 });
  expect((await refusal(tick(7, true))).code).toBe("not-found");
});

describe("several at once", () => {
  test("tags and a field: a version each, and taken back as one", async () => {
    const ids = [
      await add({ ...LOGIN, tags: ["old"] }),
      await add({ ...LOGIN, name: "Brightmere", tags: ["old", "b"] }),
    ];
    const { rows } = await tagEntries.execute(
      db(),
      { entryIds: ids, add: ["season"], remove: ["old"] },
      f.as("steward"),
    );
    const tags = async () => Promise.all(ids.map(async (id) => (await page(id)).tags));
    expect(await tags()).toEqual([["season"], ["b", "season"]]);
    const items = rows.map((row) => ({ entryId: row.entryId, baseVersionId: row.versionId, versionId: row.before }));
    await restoreVersion.execute(db(), { items, fields: null }, f.as("steward"));
    expect(await tags()).toEqual([["old"], ["old", "b"]]);
    await setField.execute(db(), { entryIds: ids, field: "password", value: "same for both 9" }, f.as("steward"));
    expect(await Promise.all(ids.map((id) => reveal(id, "password")))).toEqual(["same for both 9", "same for both 9"]);
    const wrong = setField.execute(db(), { entryIds: ids, field: "signInPage", value: "ftp://x" }, f.as("steward"));
    expect((await refusal(wrong)).field).toBe("value");
    const note = await add({ name: "A note" }, "note");
    const mixed = setField.execute(db(), { entryIds: [...ids, note], field: "password", value: "x" }, f.as("steward"));
    expect((await refusal(mixed)).message).toContain("A note does not have this field");
  });

  test("all or none: one that is not theirs stops it", async () => {
    const mine = await add(LOGIN);
    await give(db(), f.as("steward"), mine, f.ids.edit, "edit");
    const others = await add(LOGIN);
    const attempt = tagEntries.execute(db(), { entryIds: [mine, others], add: ["x"], remove: [] }, f.as("edit"));
    expect((await refusal(attempt)).code).toBe("not-found");
    expect((await page(mine)).tags).toEqual([]);
  });
});

describe("the bin", () => {
  test("erased, nothing of the values is left anywhere; its line stays in the journal", async () => {
    const secret = "canary/erase me 44";
    const entryId = await add({ ...LOGIN, name: "To be erased", password: secret });
    expect((await refusal(eraseEntry.execute(db(), { entryIds: [entryId] }, f.as("steward")))).message).toContain(
      "not in the bin",
    );
    await binEntry.execute(db(), { entryIds: [entryId] }, f.as("steward"));
    await eraseEntry.execute(db(), { entryIds: [entryId] }, f.as("steward"));
    expect((await refusal(page(entryId))).code).toBe("not-found");
    expect(await db().db.select().from(entryVersions).where(eq(entryVersions.entryId, entryId))).toEqual([]);
    expect(await db().db.select().from(sightings).where(eq(sightings.entryId, entryId))).toEqual([]);
    const { lines } = await journalPage.execute(
      db(),
      { nodeId: null, before: null, personId: null, acts: null },
      f.as("owner"),
    );
    expect(lines[0]!.says).toContain("for good");
  });

  test("restores to another place when its folder is in the bin too", async () => {
    const { folderId } = await createFolder.execute(db(), { parentId: f.vaultId, name: "Attic" }, f.as("steward"));
    const entryId = await add(LOGIN, "website-login", folderId);
    await binEntry.execute(db(), { entryIds: [entryId] }, f.as("steward"));
    await binFolder.execute(db(), { folderId }, f.as("steward"));
    const plain = await refusal(restoreEntry.execute(db(), { entryIds: [entryId] }, f.as("steward")));
    expect(plain.data).toEqual({ placeGone: true });
    await restoreEntry.execute(db(), { entryIds: [entryId], parentId: f.vaultId }, f.as("steward"));
    expect((await page(entryId)).folders).toEqual([]);
    await eraseFolder.execute(db(), { folderId }, f.as("steward"));
    expect((await page(entryId)).binnedAt).toBeNull();
  });

  test(`is emptied after ${BIN_DAYS} days and not before`, async () => {
    const { folderId } = await createFolder.execute(db(), { parentId: f.vaultId, name: "Cellar" }, f.as("steward"));
    const entryId = await add(LOGIN, "website-login", folderId);
    await binFolder.execute(db(), { folderId }, f.as("steward"));
    const day = 24 * 3_600_000;
    const sweep = async (days: number) => {
      while ((await emptyBins.execute(db(), {}, { kind: "server" }, Date.now() + days * day)).more);
      return (await db().db.select().from(entries).where(eq(entries.nodeId, entryId))).length;
    };
    expect(await sweep(BIN_DAYS - 1)).toBe(1);
    expect(await sweep(BIN_DAYS + 1)).toBe(0);
  });
});

test("set aside: offered nowhere and signed in with by nobody, until it is brought back", async () => {
  const entryId = await add(LOGIN);
  await give(db(), f.as("steward"), entryId, f.ids.use, "use");
  const offered = async () => [
    (await frontDesk.execute(db(), {}, f.as("use"))).lines.some((line) => line.id === entryId),
    (await keyList.execute(db(), {}, f.lanyard("use"))).keys.some((key) => key.id === entryId),
  ];
  expect(await offered()).toEqual([true, true]);
  await setAside.execute(db(), { entryIds: [entryId], aside: true }, f.as("steward"));
  expect(await offered()).toEqual([false, false]);
  expect((await refusal(beginSignIn.execute(db(), { entryId }, f.lanyard("use")))).message).toContain("set aside");
  await setAside.execute(db(), { entryIds: [entryId], aside: false }, f.as("steward"));
  expect(await offered()).toEqual([true, true]);

  // With a whole vault: what was aside before stays aside after.
  await setAside.execute(db(), { entryIds: [f.otherEntryId], aside: true }, f.as("steward"));
  await setVaultAside.execute(db(), { vaultId: f.vaultId, aside: true }, f.as("steward"));
  expect(await offered()).toEqual([false, false]);
  expect((await refusal(add(LOGIN))).message).toContain("set aside");
  const alone = setAside.execute(db(), { entryIds: [entryId], aside: false }, f.as("steward"));
  expect((await refusal(alone)).message).toContain("with its vault");
  await setVaultAside.execute(db(), { vaultId: f.vaultId, aside: false }, f.as("steward"));
  expect(await offered()).toEqual([true, true]);
  expect((await page(f.otherEntryId)).asideAt).not.toBeNull();
  await setAside.execute(db(), { entryIds: [f.otherEntryId], aside: false }, f.as("steward"));
});

test("an entry that asks again shows nothing without the sign-in password of just now", async () => {
  const entryId = await add({ ...LOGIN, password: CANARY });
  await setPasswordOnReveal.execute(db(), { entryId, askAgain: true }, f.as("steward"));
  const later = { ...f.as("steward"), provedAt: Date.now() - 120_000 };
  const { versionId } = (await page(entryId)).reveal!;
  const attempts = [
    () => revealField.execute(db(), { entryId, field: "password", how: "copied" }, later),
    () => revealEarlier.execute(db(), { entryId, versionId, field: "password", how: "copied" }, later),
    () => setPasswordOnReveal.execute(db(), { entryId, askAgain: false }, later),
  ];
  for (const attempt of attempts) expect((await refusal(attempt())).code).toBe("prove-again");
  expect(await reveal(entryId, "password")).toBe(CANARY);
});

test("never filled: Lanyard does not offer it at its page, and gets nothing to type", async () => {
  const entryId = await add({ ...LOGIN, password: CANARY });
  await give(db(), f.as("steward"), entryId, f.ids.use, "use");
  const set = (filling: "send" | "type" | "never") =>
    changeSigningIn.execute(db(), { entryId, guardedFill: true, plainHttp: false, filling }, f.as("steward"));
  const fill = () => guardedFill.execute(db(), { entryId, page: LOGIN.signInPage }, f.lanyard("use"));
  await set("never");
  expect((await refusal(fill())).code).toBe("not-allowed");
  const key = (await keyList.execute(db(), {}, f.lanyard("use"))).keys.find((one) => one.id === entryId);
  expect(key).toMatchObject({ offered: false, guardedFill: false });
  await set("type");
  expect(await fill()).toMatchObject({ send: false, password: CANARY });
});

describe("copies and other vaults", () => {
  let other: string;
  beforeAll(async () => {
    ({ vaultId: other } = await createVault.execute(db(), { name: "Money", description: "" }, f.as("administrator")));
    await give(db(), f.as("administrator"), other, f.ids.steward, "steward");
    await give(db(), f.as("administrator"), other, f.ids.nothing, "use");
  });

  test("a copy takes values and who saw them; no grants, no earlier versions", async () => {
    const entryId = await add({ ...LOGIN, password: "copied one 5" });
    await change(entryId, { ...LOGIN, password: "copied two 6" });
    await give(db(), f.as("steward"), entryId, f.ids.reveal, "reveal");
    await reveal(entryId, "password", "reveal");
    const { made } = await duplicateNodes.execute(db(), { nodeIds: [entryId], parentId: f.vaultId }, f.as("steward"));
    const copy = await page(made[0]!.entryId);
    expect([copy.name, copy.versions!.length]).toEqual(["Stallwright Wholesale (duplicate)", 1]);
    expect(await reveal(copy.id, "password")).toBe("copied two 6");
    expect(copy.seenBy!.map((one) => one.name)).toContain("Person reveal");
    expect((await refusal(page(copy.id, "reveal"))).code).toBe("not-found");
  });

  test("a duplicate has its picture, as a row of its own", async () => {
    const entryId = await add({ ...LOGIN, name: "With a picture" });
    const drawn = '<svg xmlns="http://www.w3.org/2000/svg" width="90" height="90"><rect width="9" height="9"/></svg>';
    const picture = Buffer.from(drawn).toString("base64");
    await setPicture.execute(db(), { entryId, picture }, f.as("steward"));
    const { made } = await duplicateNodes.execute(db(), { nodeIds: [entryId], parentId: f.vaultId }, f.as("steward"));
    const [before, after] = [await page(entryId), await page(made[0]!.entryId)];
    expect([before.picture, after.picture].map((one) => one?.startsWith("/api/picture/"))).toEqual([true, true]);
    await setPicture.execute(db(), { entryId, picture: null }, f.as("steward"));
    const png = await pictureOf.execute(db(), { id: made[0]!.entryId }, f.as("steward"));
    expect(png.subarray(1, 4).toString()).toBe("PNG");
  });

  test("a copy that more people would reach is for its steward", async () => {
    const entryId = await add({ ...LOGIN, password: CANARY });
    await give(db(), f.as("steward"), entryId, f.ids.edit, "edit");
    await give(db(), f.as("steward"), other, f.ids.edit, "edit");
    const input = { nodeIds: [entryId], parentId: other };
    // "nothing" has Use in the other vault and none of the entry.
    expect((await refusal(duplicateNodes.execute(db(), input, f.as("edit")))).message).toContain("Only a steward");
    expect((await refusal(carryPreview.execute(db(), { ...input, how: "copy" }, f.as("edit")))).code).toBe(
      "not-allowed",
    );
    const told = await carryPreview.execute(db(), { ...input, how: "copy" }, f.as("steward"));
    expect(told.effects.map((one) => [one.name, one.before, one.after])).toContainEqual([
      "Person nothing",
      "none",
      "use",
    ]);
  });

  test("moved to another vault with its folder: sealed anew, grants dropped, every version and attachment opens", async () => {
    const { folderId } = await createFolder.execute(db(), { parentId: f.vaultId, name: "Bank" }, f.as("steward"));
    const entryId = await add({ ...LOGIN, password: "bank one 7" }, "website-login", folderId);
    await change(entryId, { ...LOGIN, password: "bank two 8" });
    await give(db(), f.as("steward"), entryId, f.ids.use, "use");
    const file = await attach(entryId, "sheet.txt", Buffer.from("reserve 1234"));
    const [before] = await db().db.select().from(entryVersions).where(eq(entryVersions.entryId, entryId));
    const told = await carryPreview.execute(
      db(),
      { nodeIds: [folderId], parentId: other, how: "move" },
      f.as("steward"),
    );
    expect(told).toMatchObject({ entries: 1, folders: 1, grantsDropped: 1 });
    expect(told.effects.map((one) => [one.name, one.before, one.after])).toContainEqual(["Person use", "use", "none"]);
    for (const kind of ["use", "edit", "reveal"] as const)
      expect(
        (await refusal(moveAcross.execute(db(), { nodeIds: [folderId], parentId: other }, f.as(kind)))).code,
      ).toMatch(/not-/);
    await moveAcross.execute(db(), { nodeIds: [folderId], parentId: other }, f.as("steward"));
    const view = await page(entryId);
    expect([view.vault.name, view.folders.map((one) => one.name)]).toEqual(["Money", ["Bank"]]);
    expect((await refusal(page(entryId, "use"))).code).toBe("not-found");
    const versions = await db().db.select().from(entryVersions).where(eq(entryVersions.entryId, entryId));
    expect(versions.every((row) => row.vaultId === other)).toBe(true);
    expect(versions.find((row) => row.id === before!.id)!.sealed.equals(before!.sealed)).toBe(false);
    const [, first] = (await earlierVersions.execute(db(), { entryId }, f.as("steward"))).versions;
    const old = await revealEarlier.execute(
      db(),
      { entryId, versionId: first!.id, field: "password", how: "revealed" },
      f.as("steward"),
    );
    expect([old.value, await reveal(entryId, "password")]).toEqual(["bank one 7", "bank two 8"]);
    expect((await fetched(file, f.as("steward"))).toString()).toBe("reserve 1234");
    // Within one vault the other command is right.
    const again = moveAcross.execute(db(), { nodeIds: [entryId], parentId: other }, f.as("steward"));
    expect((await refusal(again)).message).toContain("already in this vault");
    const open = await db().db.select().from(grants).where(eq(grants.nodeId, entryId));
    expect(open.every((row) => row.validUntil !== null)).toBe(true);
  });

  test("a vault is deleted with all in it, by its name, by whoever is steward of all of it", async () => {
    const { vaultId } = await createVault.execute(db(), { name: "Old things", description: "" }, f.as("administrator"));
    const entryId = (
      await addEntry.execute(db(), { parentId: vaultId, values: { ...LOGIN, password: CANARY } }, f.as("administrator"))
    ).entryId;
    await give(db(), f.as("administrator"), entryId, f.ids.steward, "steward");
    await give(db(), f.as("administrator"), entryId, f.ids.administrator, "edit");
    const remove = (name: string) => deleteVault.execute(db(), { vaultId, name }, f.as("administrator"));
    expect((await refusal(remove("old"))).field).toBe("name");
    expect((await refusal(remove("Old things"))).message).toContain("other stewards");
    await give(db(), f.as("steward"), entryId, f.ids.administrator, "steward");
    await remove("Old things");
    const left = await vaultList.execute(db(), {}, f.as("administrator"));
    expect(left.map((vault) => vault.name)).not.toContain("Old things");
    expect(await db().db.select().from(entryVersions).where(eq(entryVersions.entryId, entryId))).toEqual([]);
  });

  test("a move within the vault says where things were, so that it is undone", async () => {
    const { folderId } = await createFolder.execute(db(), { parentId: f.vaultId, name: "Tray" }, f.as("steward"));
    const entryId = await add(LOGIN);
    const { back } = await moveNodes.execute(db(), { nodeIds: [entryId], parentId: folderId }, f.as("steward"));
    expect(back).toEqual([{ nodeIds: [entryId], parentId: f.vaultId }]);
    await moveNodes.execute(db(), back[0]!, f.as("steward"));
    expect((await page(entryId)).folders).toEqual([]);
  });
});

const attach = (entryId: string, name: string, content: Buffer, as = f.as("steward")) =>
  attachFile(db(), entryId, name, content, as);
const fetched = (attachmentId: string, as: ReturnType<Fixture["as"]>) => fetchFile(db(), attachmentId, as);

describe("the condition of what is kept", () => {
  test("is worked out once it is written, and says where else the same is used, as far as one may reveal it", async () => {
    const weak = await add({ ...LOGIN, name: "Weak till", password: "summer2024" });
    const same = await add({ ...LOGIN, name: "Same till", password: "summer2024" });
    await give(db(), f.as("steward"), weak, f.ids.reveal, "reveal");
    const rater = new Rater();
    while (await rateSome(db(), rater));
    await rater.close();
    const condition = async (kind: Parameters<Fixture["as"]>[0]) => (await page(weak, kind)).conditions.password;
    expect(await condition("steward")).toMatchObject({ strength: { word: "very weak" }, alike: [{ id: same }] });
    // She may reveal the one only: of the other she learns nothing.
    expect(await condition("reveal")).toMatchObject({ strength: { word: "very weak" }, alike: [] });
    await give(db(), f.as("steward"), weak, f.ids.use, "use");
    expect((await page(weak, "use")).conditions).toEqual({});
    const { rows } = await vaultLedger.execute(db(), { vaultId: f.vaultId }, f.as("reveal"));
    expect(unpack(rows).find((row) => row.id === weak)).toMatchObject({ same: 1 });
    const { rows: all } = await vaultLedger.execute(db(), { vaultId: f.vaultId }, f.as("steward"));
    expect(unpack(all).find((row) => row.id === weak)).toMatchObject({ same: 2 });
    const { rows: used } = await vaultLedger.execute(db(), { vaultId: f.vaultId }, f.as("use"));
    expect(unpack(used).find((row) => row.id === weak)).toMatchObject({ guesses: null, same: null });
  }, 60_000);
});

test("the finder’s words: folders, open fields, user names as far as each may know them, and never a secret", async () => {
  const words = async (kind: Parameters<Fixture["as"]>[0], id = f.entryId) =>
    new Map(await finderWords.execute(db(), {}, f.as(kind))).get(id) ?? null;
  expect(await words("reveal")).toContain(CANARY_USER);
  for (const kind of ["use", "guest"] as const) expect((await words(kind)) ?? "").not.toContain(CANARY_USER);
  expect(await words("nothing")).toBeNull();
  const traces = tracesOf(CANARY, "another secret here");
  for (const kind of ["steward", "edit", "reveal", "use", "guest", "nothing"] as const)
    expect(carriesSecret([JSON.stringify(await finderWords.execute(db(), {}, f.as(kind)))], traces)).toBe(false);
  const { folderId } = await createFolder.execute(db(), { parentId: f.vaultId, name: "Riverside" }, f.as("steward"));
  const door = await add({ name: "Hatch", where: "East ladder", "code-to-enter": "4471" }, "door", folderId);
  expect(await words("steward", door)).toBe("Riverside East ladder");
});

test("a separate folder: access from above stops, its marker stays steward, and it is told before", async () => {
  const { folderId } = await createFolder.execute(db(), { parentId: f.vaultId, name: "Payroll" }, f.as("steward"));
  const entryId = await add(LOGIN, "website-login", folderId);
  await give(db(), f.as("steward"), f.vaultId, f.ids.nothing, "reveal");
  const mark = (separate: boolean, kind: Parameters<Fixture["as"]>[0] = "steward") =>
    markSeparate.execute(db(), { folderId, separate }, f.as(kind));
  const told = await separatePreview.execute(db(), { folderId, separate: true }, f.as("steward"));
  expect(told.needsGrant).toBe(true);
  expect(told.effects.map((one) => [one.name, one.before, one.after])).toEqual(
    expect.arrayContaining([
      ["Person nothing", "reveal", "none"],
      ["Person administrator", "steward", "none"],
    ]),
  );
  expect(told.effects.some((one) => one.personId === f.ids.steward)).toBe(false);
  expect((await refusal(mark(true, "nothing"))).code).toBe("not-allowed");
  await mark(true);
  expect((await refusal(page(entryId, "nothing"))).code).toBe("not-found");
  expect((await page(entryId)).level).toBe("steward");
  // A move out of it would leave nobody without a steward; one of what has only the folder's steward neither.
  expect((await refusal(mark(true))).message).toContain("already separate");
  await mark(false);
  expect((await page(entryId, "nothing")).level).toBe("reveal");
  await give(db(), f.as("steward"), f.vaultId, f.ids.nothing, "blocked");
});

describe("pictures", () => {
  const base64 = (text: string) => Buffer.from(text).toString("base64");
  const svg = (inside: string, size = 100) =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="${size}" height="${size}">${inside}</svg>`;
  const set = (picture: string, kind: Parameters<Fixture["as"]>[0] = "edit") =>
    setPicture.execute(db(), { entryId: f.entryId, picture }, f.as(kind));
  const get = (kind: Parameters<Fixture["as"]>[0]) => pictureOf.execute(db(), { id: f.entryId }, f.as(kind));

  test("are drawn anew and small: of a script in one nothing is left", async () => {
    await set(base64(svg(`<script>alert("${CANARY}")</script><rect width="90" height="90" fill="#22382e"/>`, 2000)));
    const png = await get("use");
    expect(png.subarray(1, 4).toString()).toBe("PNG");
    expect([png.readUInt32BE(16), png.readUInt32BE(20)]).toEqual([120, 120]);
    expect(png.includes("alert")).toBe(false);
    expect((await page(f.entryId, "use")).picture).toMatch(/^\/api\/picture\//);
    expect((await refusal(get("nothing"))).code).toBe("not-found");
  });

  test.each([
    [svg("<rect width='9' height='9'/>", 40_000), "too many pixels"],
    ["%PDF-1.4 not a picture", "not a picture"],
    ["\u0089PNG but no more", "not a picture"],
    [svg('<image href="file:///etc/passwd" width="9" height="9"/>'), ""],
  ])("%.40s", async (text, message) => {
    if (message === "") await set(base64(text));
    else expect((await refusal(set(base64(text)))).message).toContain(message);
  });

  test("are for who may edit, and go when taken away", async () => {
    expect((await refusal(set(base64(svg("")), "reveal"))).code).toBe("not-allowed");
    await setPicture.execute(db(), { entryId: f.entryId, picture: null }, f.as("edit"));
    expect((await refusal(get("edit"))).code).toBe("not-found");
  });

  test("of a vault are for whoever is told its name, of a kind for all; its entries have it that have none", async () => {
    const picture = base64(svg('<rect width="90" height="90" fill="#8c3f1d"/>'));
    expect((await refusal(setVaultPicture.execute(db(), { vaultId: f.vaultId, picture }, f.as("edit")))).code).toBe(
      "not-found",
    );
    await setVaultPicture.execute(db(), { vaultId: f.vaultId, picture }, f.as("steward"));
    const see = (id: string, kind: Parameters<Fixture["as"]>[0]) => pictureOf.execute(db(), { id }, f.as(kind));
    expect((await see(f.vaultId, "use")).subarray(1, 4).toString()).toBe("PNG");
    expect((await refusal(see(f.vaultId, "nothing"))).code).toBe("not-found");
    expect((await vaultList.execute(db(), {}, f.as("use"))).map((vault) => vault.picture)).toContainEqual(
      expect.stringContaining(`/api/picture/${f.vaultId}`),
    );
    // A guest who was asked into one entry is told neither the vault's name nor its picture.
    const shown = await add({ name: "For the guest", password: "x" }, "password");
    await give(db(), f.as("steward"), shown, f.ids.guest, "use");
    expect((await refusal(see(f.vaultId, "guest"))).code).toBe("not-found");
    for (const vault of await vaultList.execute(db(), {}, f.as("guest"))) expect(vault.picture).toBe(null);
    const { kindId } = await createKind.execute(
      db(),
      { kind: { name: "Costume", purpose: "keep", fields: [{ label: "Size" }] } },
      f.as("owner"),
    );
    expect((await refusal(setKindPicture.execute(db(), { kindId, picture }, f.as("steward")))).code).toBe(
      "not-allowed",
    );
    await setKindPicture.execute(db(), { kindId, picture }, f.as("owner"));
    const entryId = await add({ name: "Coat" }, kindId);
    const { rows } = await vaultLedger.execute(db(), { vaultId: f.vaultId }, f.as("steward"));
    expect(unpack(rows).find((row) => row.id === entryId)!.picture).toContain(`/api/picture/${kindId}`);
    expect((await see(kindId, "nothing")).length).toBeGreaterThan(0);
    await setKindPicture.execute(db(), { kindId, picture: null }, f.as("owner"));
    await setVaultPicture.execute(db(), { vaultId: f.vaultId, picture: null }, f.as("steward"));
    expect((await refusal(see(kindId, "owner"))).code).toBe("not-found");
  });
});

test("sites we use: kept by administrators, begun from by staff, refused at their field", async () => {
  const keep = (site: object, siteId?: string) =>
    saveSite.execute(
      db(),
      { ...(siteId && { siteId }), site: { name: "Pellam", signInPage: "", ...site } },
      f.as("owner"),
    );
  expect((await refusal(keep({}))).field).toBe("site.signInPage");
  expect((await refusal(keep({ signInPage: "ftp://x" }))).field).toBe("site.signInPage");
  expect((await refusal(keep({ signInPage: "a.example", passwordRules: "minlength: many" }))).field).toBe(
    "site.passwordRules",
  );
  const { siteId } = await keep({
    signInPage: "pellam.example/in",
    hint: "customer number",
    passwordRules: "minlength: 12",
  });
  const { sites } = await siteList.execute(db(), {}, f.as("use"));
  expect(sites).toMatchObject([{ signInPage: "https://pellam.example/in", hint: "customer number" }]);
  expect((await refusal(siteList.execute(db(), {}, f.as("guest")))).code).toBe("not-found");
  await removeSite.execute(db(), { siteId }, f.as("owner"));
  expect((await siteList.execute(db(), {}, f.as("use"))).sites).toEqual([]);
});

describe("taking out", () => {
  let folderId: string;
  let entryId: string;
  const take = (by: ReturnType<Fixture["as"]>, nodeIds = [folderId]) =>
    exportEntries.execute(db(), { nodeIds, format: "exchange", encrypted: true, why: "moving house" }, by);
  const part = (takingId: string, by: ReturnType<Fixture["as"]>, number = 0, at = Date.now()) =>
    exportPart.execute(db(), { takingId, number }, by, at);
  beforeAll(async () => {
    ({ folderId } = await createFolder.execute(db(), { parentId: f.vaultId, name: "Paper" }, f.as("steward")));
    const inner = await createFolder.execute(db(), { parentId: folderId, name: "Prints" }, f.as("steward"));
    entryId = await add({ ...LOGIN, password: CANARY, notes: "n" }, "website-login", inner.folderId);
    const asks = await add({ ...LOGIN, name: "Asks again", password: CANARY }, "website-login", folderId);
    await setPasswordOnReveal.execute(db(), { entryId: asks, askAgain: true }, f.as("steward"));
    await give(db(), f.as("steward"), folderId, f.ids.edit, "edit");
  });

  test("is for stewards of all of it, and takes the sign-in password of just now", async () => {
    expect((await refusal(take(f.as("edit")))).code).toBe("not-allowed");
    expect((await refusal(take(f.as("nothing")))).code).toBe("not-found");
    expect((await refusal(take({ ...f.as("steward"), provedAt: Date.now() - 300_000 }))).code).toBe("prove-again");
    const other = await add({ ...LOGIN, name: "Somebody else’s" }, "website-login", folderId);
    await give(db(), f.as("steward"), other, f.ids.administrator, "steward");
    await give(db(), f.as("administrator"), other, f.ids.steward, "use");
    expect((await refusal(take(f.as("steward")))).message).toContain("other stewards");
    await give(db(), f.as("administrator"), other, f.ids.steward, "steward");
  });

  test("carries values and folders, leaves out what asks again, counts as seen, and stands in the Journal once", async () => {
    const taken = await take(f.as("steward"));
    expect(taken.leftOut).toEqual(["Asks again"]);
    expect(taken).toMatchObject({ parts: 1, entries: 2, by: { name: "Person steward" } });
    expect(JSON.stringify(taken)).not.toContain(CANARY);
    const entries = await part(taken.takingId, f.as("steward"));
    expect(entries.find((one) => one.fields.password === CANARY)).toMatchObject({
      folder: ["Paper", "Prints"],
      name: LOGIN.name,
      notes: "n",
    });
    expect((await page(entryId)).seenBy!.find((one) => one.personId === f.ids.steward)!.how).toBe("taken out");
    const { lines } = await journalPage.execute(
      db(),
      { nodeId: folderId, before: null, personId: null, acts: null },
      f.as("steward"),
    );
    expect(
      lines.filter((line) => line.act === "vaults.exportEntries" && !line.refused).map((line) => line.says),
    ).toEqual(["exported 2 entries from Paper, as exchange JSON, encrypted: “moving house”"]);
    expect(JSON.stringify(lines)).not.toContain(CANARY);
  });

  test("its parts are for whoever began it, in that session, for minutes, and while they may still take it", async () => {
    const { takingId } = await take(f.as("steward"));
    for (const kind of ["administrator", "owner", "edit", "nothing"] as const)
      expect((await refusal(part(takingId, f.as(kind)))).code).toBe("not-found");
    expect((await refusal(part(takingId, f.as("steward"), 1))).code).toBe("not-found");
    const late = Date.now() + 11 * 60_000;
    expect((await refusal(part(takingId, f.as("steward"), 0, late))).message).toContain("too long");
    await setPasswordOnReveal.execute(db(), { entryId, askAgain: true }, f.as("steward"));
    expect((await refusal(part(takingId, f.as("steward")))).code).toBe("conflict");
    await setPasswordOnReveal.execute(db(), { entryId, askAgain: false }, f.as("steward"));
    expect(await part(takingId, f.as("steward"))).toHaveLength(2);
    await sweepExports.execute(db(), {}, { kind: "server" }, late);
    expect((await refusal(part(takingId, f.as("steward")))).code).toBe("not-found");
  });

  test("a rule of the vault lets others take what they may reveal, and ends as it began", async () => {
    const takers = (ids: string[], by = f.as("steward")) =>
      setExporters.execute(db(), { vaultId: f.vaultId, takers: ids.map((id) => ({ kind: "person", id })) }, by);
    expect((await refusal(takers([f.ids.edit], f.as("edit")))).code).toBe("not-found");
    expect((await refusal(takers([f.entryId]))).field).toBe("takers");
    await takers([f.ids.edit, f.ids.use]);
    expect((await exporterList.execute(db(), { vaultId: f.vaultId }, f.as("steward"))).map((one) => one.name)).toEqual([
      "Person edit",
      "Person use",
    ]);
    expect((await refusal(exporterList.execute(db(), { vaultId: f.vaultId }, f.as("edit")))).code).toBe("not-found");
    const { takingId } = await take(f.as("edit"));
    expect((await part(takingId, f.as("edit"))).length).toBe(2);
    // The rule gives nobody what they may not reveal.
    expect((await refusal(take(f.as("use")))).code).toBe("not-found");
    expect((await refusal(take(f.as("reveal")))).code).toBe("not-found");
    await takers([]);
    expect((await refusal(part(takingId, f.as("edit")))).code).toBe("conflict");
    expect((await refusal(take(f.as("edit")))).code).toBe("not-allowed");
    const { lines } = await journalPage.execute(
      db(),
      { nodeId: f.vaultId, before: null, personId: null, acts: null },
      f.as("steward"),
    );
    const said = lines.filter((line) => line.act === "vaults.setExporters" && !line.refused).map((line) => line.says);
    expect(said[0]).toContain("let only its stewards export");
    expect(said[1]).toContain("Person edit, Person use");
  });
});

describe("attachments", () => {
  const content = Buffer.alloc(PIECE_BYTES + 1234, `${CANARY}\n`);

  test("come back as they were, in pieces, typed by their first bytes; sealed where they lie", async () => {
    const id = await attach(f.entryId, "../../etc/plan\u202egpj.txt", content);
    expect((await fetched(id, f.as("reveal"))).equals(content)).toBe(true);
    expect((await page(f.entryId, "use")).attachments).toMatchObject([
      { name: "plangpj.txt", type: "text", size: content.length, pieces: 2 },
    ]);
    const traces = tracesOf(CANARY, CANARY_USER);
    for (const row of await db().db.select().from(attachmentPieces))
      expect(carriesSecret([row.sealed.toString("latin1")], traces)).toBe(false);
    const [first, second] = await db().db.select().from(attachmentPieces).where(eq(attachmentPieces.attachmentId, id));
    // Pieces that change places do not open.
    await db()
      .db.update(attachmentPieces)
      .set({ sealed: second!.sealed })
      .where(eq(attachmentPieces.sealed, first!.sealed));
    await expect(fetched(id, f.as("reveal"))).rejects.toThrow("does not open");
    await removeAttachment.execute(db(), { attachmentId: id }, f.as("steward"));
    expect((await page(f.entryId, "use")).attachments).toEqual([]);
  });

  test("open from Reveal up only, with a ticket that is one person's own", async () => {
    const id = await attach(f.entryId, "a.txt", Buffer.from(CANARY));
    for (const kind of ["use", "guest"] as const) {
      expect((await refusal(fetched(id, f.as(kind)))).code).toBe("not-allowed");
    }
    expect((await refusal(fetched(id, f.as("nothing")))).code).toBe("not-found");
    const { ticket } = await openAttachment.execute(db(), { attachmentId: id, how: "opened" }, f.as("reveal"));
    const borrowed = attachmentPiece.execute(db(), { attachmentId: id, number: 0, ticket }, f.as("edit"));
    expect((await refusal(borrowed)).message).toContain("Open the attachment again");
    const late = attachmentPiece.execute(
      db(),
      { attachmentId: id, number: 0, ticket },
      f.as("reveal"),
      Date.now() + 11 * 60_000,
    );
    expect((await refusal(late)).code).toBe("not-allowed");
    const { lines } = await journalPage.execute(
      db(),
      { nodeId: f.entryId, before: null, personId: null, acts: null },
      f.as("steward"),
    );
    expect(lines.some((line) => line.says.includes("opened “a.txt”"))).toBe(true);
    await removeAttachment.execute(db(), { attachmentId: id }, f.as("steward"));
  });

  test("half a file is never shown, more than its size is not taken, and it is swept away", async () => {
    const most = db().configuration.attachmentBytes;
    const tooMuch = beginAttachment.execute(db(), { entryId: f.entryId, name: "x", size: most + 1 }, f.as("edit"));
    expect((await refusal(tooMuch)).message).toContain("100 MB");
    const { attachmentId } = await beginAttachment.execute(
      db(),
      { entryId: f.entryId, name: "half", size: PIECE_BYTES * 2 },
      f.as("edit"),
    );
    const short = addPiece.execute(db(), { attachmentId, number: 0, piece: "AAAA" }, f.as("edit"));
    expect((await refusal(short)).message).toContain("changed while it was being read");
    const foreign = addPiece.execute(
      db(),
      { attachmentId, number: 0, piece: Buffer.alloc(PIECE_BYTES).toString("base64") },
      f.as("steward"),
    );
    expect((await refusal(foreign)).code).toBe("not-found");
    expect((await refusal(finishAttachment.execute(db(), { attachmentId }, f.as("edit")))).code).toBe("conflict");
    expect((await page(f.entryId)).attachments).toEqual([]);
    await sweepAttachments.execute(db(), {}, { kind: "server" }, Date.now() + 25 * 3_600_000);
    expect(await db().db.select().from(attachments).where(eq(attachments.id, attachmentId))).toEqual([]);
  });
});
