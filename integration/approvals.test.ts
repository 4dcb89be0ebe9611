/** Entries that ask first, and what has to be accepted first: every way to a secret is tried without. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { CANARY, type Fixture, give, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { USUAL_RULES } from "../src/core/access/houseRules";
import { createHandover } from "../src/server/access/handover/handover";
import { acceptAccess, setHouseNote } from "../src/server/access/requests/accepting";
import {
  answerApproval,
  approvalsToGive,
  closeApproval,
  requestApproval,
  setApproval,
  useInEmergency,
} from "../src/server/access/requests/approvals";
import type { Caller } from "../src/server/caller";
import { notices } from "../src/server/database/schema";
import { journalPage } from "../src/server/journal/page";
import { guardedFill } from "../src/server/lanyard/keys";
import { changeRules } from "../src/server/rules/rules";
import { beginSignIn } from "../src/server/signin/sealed";
import { addPiece, beginAttachment, finishAttachment, openAttachment } from "../src/server/vaults/attachments";
import { binEntry, eraseEntry, restoreEntry } from "../src/server/vaults/bin";
import { duplicateNodes, moveAcross } from "../src/server/vaults/copying";
import { earlierVersions, revealEarlier } from "../src/server/vaults/earlier";
import { addEntry, changeEntry } from "../src/server/vaults/entries";
import { entryPage } from "../src/server/vaults/entryPage";
import { createFolder } from "../src/server/vaults/folders";
import { moveNodes } from "../src/server/vaults/moving";
import { revealField } from "../src/server/vaults/revealing";
import { markSeparate } from "../src/server/vaults/separating";
import { changeSigningIn } from "../src/server/vaults/signingIn";
import { exportEntries, exportPart } from "../src/server/vaults/takingOut";
import { createVault } from "../src/server/vaults/vaults";

let app: InProcess;
let f: Fixture;
let entryId: string;
let versionId: string;
let attachmentId: string;
const db = () => app.galtry;
const MINUTE = 60_000;
const PAGE = "https://safe.example/in";
const values = { name: "Strongroom", signInPage: PAGE, userName: "keeper", password: CANARY };

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

/** Everybody has something on it, and it has two stewards: the steward and the administrator. */
beforeEach(async () => {
  const by = f.as("steward");
  ({ entryId } = await addEntry.execute(db(), { parentId: f.vaultId, captured: false, values }, by));
  for (const level of ["use", "reveal", "edit"] as const) await give(db(), by, entryId, f.ids[level], level);
  const page = await entryPage.execute(db(), { entryId }, by);
  const baseVersionId = page.reveal!.versionId;
  await changeEntry.execute(db(), { entryId, baseVersionId, values: { ...values, password: "another/73 canary" } }, by);
  versionId = (await earlierVersions.execute(db(), { entryId }, by)).versions.at(-1)!.id;
  await changeSigningIn.execute(db(), { entryId, guardedFill: true, plainHttp: false }, by);
  const file = await beginAttachment.execute(db(), { entryId, name: "plan.txt", size: 4 }, by);
  ({ attachmentId } = file);
  await addPiece.execute(db(), { attachmentId, number: 0, piece: btoa("plan") }, by);
  await finishAttachment.execute(db(), { attachmentId }, by);
});

const code = (promise: Promise<unknown>) =>
  promise.then(
    () => "allowed",
    (error) => (error.code as string) ?? String(error),
  );
const asks = (stewards: number, by: Kind = "steward", minutes = 30, at?: number) =>
  setApproval.execute(db(), { entryId, stewards, minutes }, f.as(by, at), at);
const reveal = (who: Caller, at?: number) =>
  revealField.execute(db(), { entryId, field: "password", how: "revealed" }, who, at);
const ask = async (kind: Kind) =>
  (await requestApproval.execute(db(), { entryId, why: "the auditor is here" }, f.as(kind))).yesId;
const yes = (yesId: string, by: Kind) => answerApproval.execute(db(), { yesId, yes: true }, f.as(by));
const told = async (kind: Kind) =>
  (await db().db.select().from(notices).where(eq(notices.personId, f.ids[kind])).orderBy(notices.id)).map(
    ({ text }) => text,
  );

/** Each way by which a secret is shown or sent, by somebody whose level lets them. */
const WAYS: Record<string, () => Promise<unknown>> = {
  "a reveal": () => reveal(f.as("reveal")),
  "a reveal by its steward": () => reveal(f.as("steward")),
  "an earlier version": () =>
    revealEarlier.execute(db(), { entryId, versionId, field: "password", how: "copied" }, f.as("edit")),
  "an attachment": () => openAttachment.execute(db(), { attachmentId, how: "opened" }, f.as("reveal")),
  "a sealed sign-in": () => beginSignIn.execute(db(), { entryId }, f.lanyard("use")),
  "a try of a sealed sign-in": () => beginSignIn.execute(db(), { entryId }, f.as("edit")),
  "guarded fill": () => guardedFill.execute(db(), { entryId, page: PAGE }, f.lanyard("use")),
  "a handover link": () =>
    createHandover.execute(
      db(),
      { entryId, fields: ["password"], until: Date.now() + 60 * MINUTE, openings: 1 },
      f.as("steward"),
    ),
  "a copy": () => duplicateNodes.execute(db(), { nodeIds: [entryId], parentId: f.folderId }, f.as("steward")),
};

describe("an entry that asks first", () => {
  test.each(Object.keys(WAYS))("%s takes a yes", async (way) => {
    expect(await code(WAYS[way]!())).toBe("allowed");
    await asks(1);
    expect(await code(WAYS[way]!())).toBe("ask-first");
  });

  test("is not taken out with others, and neither is what came to ask meanwhile", async () => {
    const out = () =>
      exportEntries.execute(
        db(),
        { nodeIds: [entryId, f.otherEntryId], format: "csv", encrypted: false, why: "moving" },
        f.as("steward"),
      );
    const before = await out();
    expect(before).toMatchObject({ entries: 2, leftOut: [] });
    await asks(1);
    expect(await code(exportPart.execute(db(), { takingId: before.takingId, number: 0 }, f.as("steward")))).toBe(
      "conflict",
    );
    expect(await out()).toMatchObject({ entries: 1, leftOut: ["Strongroom"] });
  });

  test("works for whoever got a yes, for so many minutes, for nobody else", async () => {
    await asks(1, "steward", 20);
    const yesId = await ask("reveal");
    expect(await code(requestApproval.execute(db(), { entryId, why: "once more" }, f.as("reveal")))).toBe("conflict");
    const [waiting] = await approvalsToGive.execute(db(), {}, f.as("administrator"));
    expect(waiting).toMatchObject({
      ...{ id: yesId, person: "Person reveal", entry: "Strongroom", why: "the auditor is here" },
      ...{ browser: "Chromium", address: "192.0.2.7", minutes: 20, needed: 1, said: 0 },
    });
    for (const kind of ["use", "edit", "owner"] as const) expect(await code(yes(yesId, kind))).toBe("not-found");
    const { until } = await yes(yesId, "administrator");
    expect(await code(reveal(f.as("reveal")))).toBe("allowed");
    expect(await code(reveal(f.as("edit")))).toBe("ask-first");
    expect(await code(reveal(f.as("administrator")))).toBe("ask-first");
    expect(await code(reveal(f.as("reveal"), until! - 1))).toBe("allowed");
    expect(await code(reveal(f.as("reveal"), until!))).toBe("ask-first");
    // Given back before its time.
    await closeApproval.execute(db(), { yesId }, f.as("reveal"));
    expect(await code(reveal(f.as("reveal")))).toBe("ask-first");
  });

  test("gets no yes from whoever asks, and a no with a word", async () => {
    await asks(1);
    const own = await ask("steward");
    expect(await code(yes(own, "steward"))).toBe("not-found");
    expect((await approvalsToGive.execute(db(), {}, f.as("steward"))).some(({ id }) => id === own)).toBe(false);
    const yesId = await ask("use");
    expect(await code(answerApproval.execute(db(), { yesId, yes: false, word: "" }, f.as("steward")))).toBe(
      "bad-input",
    );
    await answerApproval.execute(db(), { yesId, yes: false, word: "Not on a Sunday" }, f.as("steward"));
    const page = await entryPage.execute(db(), { entryId }, f.as("use"));
    expect(page.yes?.asked).toMatchObject({ state: "no", word: "Not on a Sunday" });
    expect(await code(yes(yesId, "administrator"))).toBe("conflict");
    // A level that is withdrawn takes the yes with it.
    expect(await code(requestApproval.execute(db(), { entryId, why: "please" }, f.as("nothing")))).toBe("not-found");
  });

  test("takes two stewards, other than whoever asks, where it is the gravest", async () => {
    expect(await code(asks(2))).toBe("not-allowed");
    await give(db(), f.as("steward"), entryId, f.ids.edit, "steward");
    await asks(2);
    const yesId = await ask("use");
    expect(await yes(yesId, "steward")).toEqual({ until: null });
    expect(await code(yes(yesId, "steward"))).toBe("conflict");
    expect(await code(beginSignIn.execute(db(), { entryId }, f.lanyard("use")))).toBe("ask-first");
    expect((await yes(yesId, "edit")).until).toBeGreaterThan(Date.now());
    expect(await code(beginSignIn.execute(db(), { entryId }, f.lanyard("use")))).toBe("allowed");
  });

  test("asks less only after the same yes", async () => {
    await asks(1);
    expect(await code(asks(0))).toBe("ask-first");
    expect(await code(asks(1, "steward", 60))).toBe("ask-first");
    expect(await code(asks(1, "steward", 10))).toBe("allowed");
    await yes(await ask("steward"), "administrator");
    expect(await code(asks(0))).toBe("allowed");
    expect(await code(reveal(f.as("reveal")))).toBe("allowed");
  });

  test("is got past in an emergency only by the house rules, and all stewards and owners read why", async () => {
    await asks(1);
    const pass = (kind: Kind) =>
      useInEmergency.execute(db(), { entryId, why: "Water in the strongroom, nobody answers" }, f.as(kind));
    expect(await code(pass("reveal"))).toBe("not-allowed");
    await changeRules.execute(db(), { ...USUAL_RULES, emergency: true }, f.as("owner"));
    expect(await code(pass("nothing"))).toBe("not-found");
    await pass("reveal");
    expect(await code(reveal(f.as("reveal")))).toBe("allowed");
    for (const kind of ["steward", "administrator"] as const)
      expect((await told(kind)).at(-1)).toContain("EMERGENCY: Person reveal used Strongroom without approval");
    // The owner has no level there: which entry it is stays with its stewards.
    expect((await told("owner")).at(-1)).toContain("an entry in Shop & Tickets");
    const { lines } = await journalPage.execute(db(), {}, f.as("steward"));
    expect(lines.some((line) => line.says.startsWith("EMERGENCY: used Strongroom without approval"))).toBe(true);
    await changeRules.execute(db(), USUAL_RULES, f.as("owner"));
  });
});

describe("what has to be accepted", () => {
  test("works for nobody but its stewards before, and asks again when the house note has changed", async () => {
    await changeRules.execute(db(), { ...USUAL_RULES, accept: true }, f.as("owner"));
    await setHouseNote.execute(db(), { vaultId: f.vaultId, note: "Never at the till." }, f.as("steward"));
    for (const [way, act] of Object.entries(WAYS)) {
      const stewards = ["a reveal by its steward", "a handover link", "a copy"].includes(way);
      expect(`${way}: ${await code(act())}`).toBe(`${way}: ${stewards ? "allowed" : "accept-first"}`);
    }
    const page = await entryPage.execute(db(), { entryId }, f.as("reveal"));
    expect(page.toAccept).toBe("Never at the till.");
    const accept = (note: string) => acceptAccess.execute(db(), { entryId, note }, f.as("reveal"));
    expect(await code(accept("Choose another file"))).toBe("conflict");
    await accept("Never at the till.");
    expect(await code(reveal(f.as("reveal")))).toBe("allowed");
    expect(await code(WAYS["an earlier version"]!())).toBe("accept-first");
    await setHouseNote.execute(db(), { vaultId: f.vaultId, note: "Never by phone." }, f.as("steward"));
    expect(await code(reveal(f.as("reveal")))).toBe("accept-first");
    await changeRules.execute(db(), USUAL_RULES, f.as("owner"));
    expect(await code(reveal(f.as("reveal")))).toBe("allowed");
  });
});

describe("where others would say the yes", () => {
  const move = (by: Kind, parentId: string) => moveAcross.execute(db(), { nodeIds: [entryId], parentId }, f.as(by));

  test("moving to another vault takes a yes; there it asks still, and the stewards of both are told", async () => {
    const { vaultId } = await createVault.execute(db(), { name: "Elsewhere" }, f.as("owner"));
    await give(db(), f.as("owner"), vaultId, f.ids.steward, "steward");
    await asks(1);
    expect(await code(move("steward", vaultId))).toBe("ask-first");
    await yes(await ask("steward"), "administrator");
    await move("steward", vaultId);
    expect(await code(reveal(f.as("owner")))).toBe("ask-first");
    expect(await told("administrator")).toContain("Person steward moved Strongroom to another vault.");
    expect(await told("owner")).toContain("Person steward moved Strongroom to Elsewhere from another vault.");
    expect(await told("steward")).not.toContainEqual(expect.stringContaining("moved Strongroom"));
  });

  test("so do moving to a folder with other stewards, and restoring to one", async () => {
    const { folderId } = await createFolder.execute(db(), { parentId: f.vaultId, name: "Separate" }, f.as("steward"));
    await markSeparate.execute(db(), { folderId, separate: true }, f.as("steward"));
    await asks(1);
    const moved = () => moveNodes.execute(db(), { nodeIds: [entryId], parentId: folderId }, f.as("steward"));
    expect(await code(moved())).toBe("ask-first");
    await binEntry.execute(db(), { entryIds: [entryId] }, f.as("steward"));
    const restored = (parentId?: string) =>
      restoreEntry.execute(db(), { entryIds: [entryId], ...(parentId && { parentId }) }, f.as("steward"));
    expect(await code(restored(folderId))).toBe("ask-first");
    expect(await code(restored())).toBe("allowed");
    await yes(await ask("steward"), "administrator");
    expect(await code(moved())).toBe("allowed");
  });

  test("what is deleted for good is told to its other stewards, in words and in their Journal", async () => {
    await binEntry.execute(db(), { entryIds: [entryId] }, f.as("steward"));
    await eraseEntry.execute(db(), { entryIds: [entryId] }, f.as("steward"));
    expect(await told("administrator")).toContain("Person steward deleted Strongroom for good.");
  });
});
