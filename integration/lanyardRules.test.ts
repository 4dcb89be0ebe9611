/** Who may use Lanyard and add with it: by group, at once, whatever the Lanyard itself believes. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, give, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { type HouseRules, USUAL_RULES } from "../src/core/access/houseRules";
import { entries, journal } from "../src/server/database/schema";
import { guardedFill, keyList } from "../src/server/lanyard/keys";
import { endLanyard } from "../src/server/lanyard/pairing";
import { createGroup } from "../src/server/people/groups";
import { setMember } from "../src/server/people/members";
import { changeRules } from "../src/server/rules/rules";
import { sealedSignIn } from "../src/server/signin/sealed";
import { undoAdd } from "../src/server/vaults/bin";
import { addEntry } from "../src/server/vaults/entries";
import { changeSigningIn } from "../src/server/vaults/signingIn";

let app: InProcess;
let f: Fixture;
let groupId: string;
const db = () => app.galtry;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  ({ groupId } = await createGroup.execute(db(), { name: "Desk", description: "" }, f.as("administrator")));
});
afterAll(() => app.close());

const rule = (lanyard: Partial<HouseRules["lanyard"]>) =>
  changeRules.execute(db(), { ...USUAL_RULES, lanyard: { ...USUAL_RULES.lanyard, ...lanyard } }, f.as("owner"));
const keys = (kind: "use" | "edit" | "steward") => keyList.execute(db(), {}, f.lanyard(kind));
const add = (kind: "edit" | "steward", parentId = f.vaultId) =>
  addEntry.execute(
    db(),
    { parentId, captured: true, values: { name: "Added", signInPage: "https://added.example/in", password: "x y z" } },
    f.lanyard(kind),
  );
const NOT_FOUND = { code: "not-found" };
const NOT_ALLOWED = { code: "not-allowed" };

describe("the house rules", () => {
  test("take Lanyard from all but a group, at once: no list, no sign-in, no adding; it can still be disconnected", async () => {
    expect((await keys("use")).keys.length).toBeGreaterThan(0);
    await rule({ use: [groupId] });
    const none = await keys("use");
    expect(none).toMatchObject({ mayUse: false, keys: [], mayAdd: [], codesAsked: [], fillsOnOpening: false });
    const signal = new AbortController().signal;
    await expect(sealedSignIn(db(), f.lanyard("use"), f.entryId, () => undefined, signal)).rejects.toMatchObject(
      NOT_ALLOWED,
    );
    await expect(add("steward")).rejects.toMatchObject(NOT_ALLOWED);
    await setMember.execute(db(), { groupId, personId: f.ids.use }, f.as("administrator"));
    expect(await keys("use")).toMatchObject({ mayUse: true });
    expect((await keys("use")).keys.length).toBeGreaterThan(0);
    const { lanyardId } = f.lanyard("edit") as { lanyardId: string };
    await endLanyard.execute(db(), { lanyardId, why: "" }, f.lanyard("edit"));
  });

  test("let a login be filled in as its page opens, or only when asked for; the line says which it was", async () => {
    await changeSigningIn.execute(db(), { entryId: f.entryId, guardedFill: true, plainHttp: false }, f.as("steward"));
    const fill = (onOpening: boolean) =>
      guardedFill.execute(
        db(),
        { entryId: f.entryId, page: "https://pellam.example/sign-in", onOpening },
        f.lanyard("use"),
      );
    await expect(fill(true)).rejects.toMatchObject(NOT_ALLOWED);
    await fill(false);
    await rule({ fillsOnOpening: true });
    await fill(true);
    const lines = await db().db.select().from(journal).where(eq(journal.act, "lanyard.guardedFill"));
    const done = lines.filter(({ outcome }) => outcome === "done");
    expect(done.map(({ details }) => details.includes("onOpening"))).toEqual([false, true]);
    await rule({});
    await changeSigningIn.execute(db(), { entryId: f.entryId, guardedFill: false, plainHttp: false }, f.as("steward"));
  });

  test("let some add, and the others none, while all may use it", async () => {
    await rule({ add: [groupId] });
    expect((await keys("steward")).mayAdd).toEqual([]);
    expect((await keys("steward")).keys.length).toBeGreaterThan(0);
    await expect(add("steward")).rejects.toMatchObject(NOT_ALLOWED);
    await rule({});
    expect((await keys("steward")).mayAdd.length).toBeGreaterThan(0);
  });

  test("name sites at which nobody is offered to add", async () => {
    await rule({ neverOn: ["Bank.Example "] });
    expect((await keys("steward")).neverOnForAll).toEqual(["bank.example"]);
    await expect(rule({ neverOn: ["not a site"] })).rejects.toMatchObject({ code: "bad-input" });
    await expect(rule({ use: ["0192f0c4-0000-7000-8000-000000000000"] })).rejects.toMatchObject({ code: "conflict" });
    await rule({});
  });
});

describe("undo", () => {
  test("puts what one has just added in the bin, and nothing else", async () => {
    const { entryId } = await add("steward");
    await give(db(), f.as("steward"), entryId, f.ids.reveal, "edit");
    await expect(undoAdd.execute(db(), { entryId }, f.lanyard("reveal"))).rejects.toMatchObject({ code: "conflict" });
    await expect(
      undoAdd.execute(db(), { entryId }, f.lanyard("steward"), Date.now() + 11 * 60_000),
    ).rejects.toMatchObject({ code: "conflict" });
    await undoAdd.execute(db(), { entryId }, f.lanyard("steward"));
    const [row] = await db().db.select().from(entries).where(eq(entries.nodeId, entryId));
    expect(row!.binnedAt).not.toBeNull();
    await expect(undoAdd.execute(db(), { entryId: f.entryId }, f.lanyard("edit"))).rejects.toMatchObject({
      code: "signed-out",
    });
    const other = { entryId: f.otherEntryId };
    await expect(undoAdd.execute(db(), other, f.lanyard("reveal"))).rejects.toMatchObject(NOT_FOUND);
  });
});
