/** A code that the site sends to a steward: asked of them while a colleague's sign-in waits, and of nobody else. */
import { get } from "node:http";
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { type Fixture, give, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { USUAL_RULES } from "../src/core/access/houseRules";
import type { WaitsFor } from "../src/core/signin/outcome";
import { endAccess } from "../src/server/access/grants";
import type { Caller } from "../src/server/caller";
import { findKnown } from "../src/server/command";
import { askedCodes, attempts, entries, grants, journal, signIns } from "../src/server/database/schema";
import { keyList } from "../src/server/lanyard/keys";
import { attemptKey } from "../src/server/people/attempts";
import { changeRules } from "../src/server/rules/rules";
import { ANY_STEWARD, codesAskedOf, giveCode } from "../src/server/signin/askedCodes";
import { NightTests } from "../src/server/signin/nightTests";
import { closeBrokenOff, type SealedAnswer, sealedSignIn } from "../src/server/signin/sealed";
import { testEntry } from "../src/server/signin/testing";
import { addEntry } from "../src/server/vaults/entries";
import { changeSigningIn } from "../src/server/vaults/signingIn";
import { stepsPage } from "../src/server/vaults/steps";

const HOST = "brindlecote.localhost";
let app: InProcess;
let f: Fixture;
let entryId: string;
const db = () => app.galtry;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  const site = app.standins.sites.find((one) => one.host === HOST)!;
  const { userName, password } = site.account;
  const values = { name: site.name, signInPage: app.standins.address(HOST, site.signInPath), userName, password };
  ({ entryId } = await addEntry.execute(db(), { parentId: f.vaultId, captured: false, values }, f.as("steward")));
  for (const level of ["use", "reveal", "edit"] as const)
    await give(db(), f.as("steward"), entryId, f.ids[level], level);
  await give(db(), f.as("steward"), entryId, f.ids.guest, "use");
});
afterAll(() => app.close());
beforeEach(async () => {
  for (const kind of ["use", "guest", "steward", "edit"] as const) {
    const key = attemptKey(db().keys, "code", `${f.ids[kind]} ${entryId}`);
    await db().db.delete(attempts).where(eq(attempts.key, key));
  }
  await reach(ANY_STEWARD);
});

const reach = (codesReach: string, by: Caller = f.as("steward")) =>
  changeSigningIn.execute(db(), { entryId, guardedFill: false, plainHttp: true, codesReach }, by);

/** What the site has sent to the telephone. */
function textMessage(): Promise<string> {
  const { port } = new URL(app.standins.address(HOST, "/"));
  return new Promise((done, failed) =>
    get({ host: "127.0.0.1", port, path: "/telephone", headers: { host: `${HOST}:${port}` } }, (response) => {
      let text = "";
      response.on("data", (part) => {
        text += part;
      });
      response.on("end", () => done(/<b id="sent">(\d+)/.exec(text)?.[1] ?? ""));
    }).on("error", failed),
  );
}

function signIn(as: "use" | "guest" | "steward" = "use", stopped = new AbortController()) {
  const waits: WaitsFor[] = [];
  const answer = sealedSignIn(
    db(),
    f.lanyard(as),
    entryId,
    (_step, waitsFor) => waitsFor && waits.push(waitsFor),
    stopped.signal,
  );
  answer.catch(() => undefined);
  return { answer, waits, stop: () => stopped.abort() };
}

const askedOf = async (kind: Parameters<Fixture["as"]>[0]) => {
  const known = await findKnown(db(), f.as(kind), Date.now());
  return codesAskedOf(known.tx, known.me!, Date.now());
};
const isAsked = (kind: Parameters<Fixture["as"]>[0]) =>
  expect.poll(async () => (await askedOf(kind))[0]?.id ?? null, { timeout: 10_000 }).not.toBeNull();
const refusal = (work: Promise<unknown>) =>
  work.then(
    () => "done",
    (error: { code?: string }) => error.code ?? String(error),
  );
const outcomeOf = (answer: SealedAnswer) => answer.outcome;

describe("a code that a steward receives", () => {
  test("is asked of every steward, entered by one, and gets the colleague in; then it is nowhere any more", async () => {
    const { answer, waits } = signIn();
    await isAsked("steward");
    const [asked] = await askedOf("steward");
    expect(asked).toMatchObject({ entry: { name: "Brindlecote Insurance" }, person: "Person use" });
    expect((await askedOf("administrator")).length).toBe(1);
    expect(waits[0]!.names).toEqual(["Person administrator", "Person steward"]);
    expect(waits[0]!.leftMs).toBeLessThanOrEqual(120_000);
    const code = await textMessage();
    // As it is read from a telephone.
    await giveCode.execute(db(), { id: asked!.id, code: ` ${code.slice(0, 3)} ${code.slice(3)}` }, f.as("steward"));
    const [row] = await db().db.select().from(askedCodes).where(eq(askedCodes.id, asked!.id));
    if (row!.sealed) expect(row!.sealed.toString("latin1")).not.toContain(code);
    const signedIn = await answer;
    expect(outcomeOf(signedIn)).toBe("signed-in");
    expect(JSON.stringify(signedIn)).not.toContain(code);
    const [after] = await db().db.select().from(askedCodes).where(eq(askedCodes.id, asked!.id));
    expect(after).toMatchObject({ sealed: null, keyVersion: null, answeredBy: f.ids.steward });
    expect(after!.closedAt).not.toBeNull();
    expect(await askedOf("administrator")).toEqual([]);
    const lines = await db().db.select().from(journal).where(eq(journal.act, "signIn.giveCode"));
    expect(lines.at(-1)).toMatchObject({ person: f.ids.steward, subject: f.ids.use, node: entryId });
    expect(JSON.stringify(lines)).not.toContain(code);
  });

  test("is asked of one of them where the entry says so, in Lanyard too", async () => {
    await reach(f.ids.steward);
    const { answer } = signIn();
    await isAsked("steward");
    expect(await askedOf("administrator")).toEqual([]);
    const { codesAsked } = await keyList.execute(db(), {}, f.lanyard("steward"));
    expect((await keyList.execute(db(), {}, f.lanyard("edit"))).codesAsked).toEqual([]);
    const { id } = codesAsked[0]!;
    for (const kind of ["administrator", "owner", "edit", "reveal", "use", "nothing", "guest"] as const)
      expect(await refusal(giveCode.execute(db(), { id, code: "123456" }, f.as(kind)))).toBe("not-found");
    await giveCode.execute(db(), { id, code: await textMessage() }, f.lanyard("steward"));
    expect(outcomeOf(await answer)).toBe("signed-in");
    expect(await refusal(giveCode.execute(db(), { id, code: "123456" }, f.as("steward")))).toBe("ended");
  });

  test("a wrong one is named as such, and the password is not taken for wrong", async () => {
    const { answer } = signIn();
    await isAsked("steward");
    const [asked] = await askedOf("steward");
    await giveCode.execute(db(), { id: asked!.id, code: "000-000" }, f.as("steward"));
    expect(outcomeOf(await answer)).toBe("code-refused");
  });

  test("none came: it ends when the last of them says so", async () => {
    const { answer } = signIn();
    await isAsked("steward");
    const [asked] = await askedOf("steward");
    await giveCode.execute(db(), { id: asked!.id, code: null }, f.as("steward"));
    expect(await askedOf("steward")).toEqual([]);
    expect((await askedOf("administrator")).length).toBe(1);
    await giveCode.execute(db(), { id: asked!.id, code: null }, f.as("administrator"));
    expect(outcomeOf(await answer)).toBe("code-not-given");
  });

  test("the colleague goes away: nobody is asked any more", async () => {
    const { answer, stop } = signIn();
    await isAsked("steward");
    const [asked] = await askedOf("steward");
    stop();
    expect(outcomeOf(await answer)).toBe("too-slow");
    expect(await askedOf("steward")).toEqual([]);
    expect(await refusal(giveCode.execute(db(), { id: asked!.id, code: "123456" }, f.as("steward")))).toBe("ended");
  });

  test("access ends while it waits: nothing is handed over, and nobody is asked any more", async () => {
    const { answer } = signIn();
    await isAsked("steward");
    const [grant] = await db()
      .db.select()
      .from(grants)
      .where(eq(grants.subjectId, f.ids.use))
      .then((rows) => rows.filter((row) => row.nodeId === entryId && row.validUntil === null));
    await endAccess.execute(db(), { grantId: grant!.id }, f.as("steward"));
    const [asked] = await askedOf("steward");
    await giveCode.execute(db(), { id: asked!.id, code: await textMessage() }, f.as("steward"));
    expect(outcomeOf(await answer)).toBe("access-ended");
    await give(db(), f.as("steward"), entryId, f.ids.use, "use");
  });

  test("whoever asks three times in vain asks nobody for a while", async () => {
    for (let round = 0; round < 3; round++) {
      const { answer, stop } = signIn();
      await isAsked("steward");
      stop();
      await answer;
    }
    const { answer } = signIn();
    expect(await answer).toMatchObject({ outcome: "code-not-given" });
    expect(await askedOf("steward")).toEqual([]);
  });

  test("a guest learns the name of nobody who asked them in", async () => {
    const { answer, waits, stop } = signIn("guest");
    await isAsked("steward");
    expect(waits[0]!.names).toEqual([]);
    stop();
    await answer;
  });

  test("a steward signs in themselves and is asked themselves", async () => {
    const { answer } = signIn("steward");
    await isAsked("steward");
    const [asked] = await askedOf("steward");
    expect(asked!.person).toBeNull();
    await giveCode.execute(db(), { id: asked!.id, code: await textMessage() }, f.lanyard("steward"));
    expect(outcomeOf(await answer)).toBe("signed-in");
  });
});

test("a process that is gone leaves no code behind", async () => {
  const { answer, stop } = signIn();
  await isAsked("steward");
  const [asked] = await askedOf("steward");
  const later = Date.now() + 200_000;
  await closeBrokenOff.execute(db(), { deadProcesses: [] }, { kind: "server" }, later);
  const [row] = await db().db.select().from(askedCodes).where(eq(askedCodes.id, asked!.id));
  expect(row).toMatchObject({ sealed: null, closedAt: later });
  await closeBrokenOff.execute(db(), { deadProcesses: [] }, { kind: "server" }, later + 3_600_000);
  expect(await db().db.select().from(askedCodes).where(eq(askedCodes.id, asked!.id))).toEqual([]);
  stop();
  await answer.catch(() => undefined);
});

describe("who receives the codes", () => {
  test("is said by a steward, and is one of the stewards", async () => {
    expect(await refusal(reach(f.ids.use))).toBe("bad-input");
    expect(await refusal(reach(ANY_STEWARD, f.as("edit")))).toBe("not-allowed");
    await reach(f.ids.administrator);
    const page = (kind: "steward" | "edit") => stepsPage.execute(db(), { entryId }, f.as(kind));
    expect(await page("steward")).toMatchObject({ codesReach: f.ids.administrator });
    // Those with Edit learn that there is somebody.
    expect(await page("edit")).toMatchObject({ codesReach: ANY_STEWARD, stewards: [] });
  });

  test("nobody: the site's wish is named, and nobody is asked", async () => {
    await reach("");
    const { answer } = signIn();
    expect(outcomeOf(await answer)).toBe("code-missing");
    expect((await db().db.select().from(askedCodes)).filter(({ closedAt }) => closedAt === null)).toEqual([]);
  });

  test("someone who is no steward any more: the same, as nobody else is asked in their place", async () => {
    await db().db.update(entries).set({ codesReach: f.ids.reveal }).where(eq(entries.nodeId, entryId));
    const { answer } = signIn();
    expect(outcomeOf(await answer)).toBe("code-missing");
  });

  test("a test by hand asks as well; tests at night leave the entry alone", async () => {
    const seenAs = { userAgent: "Mozilla/5.0 Test", acceptLanguage: "en-GB" };
    const tested = testEntry(db(), f.as("edit"), seenAs, entryId, new AbortController().signal);
    await isAsked("steward");
    const [asked] = await askedOf("steward");
    await giveCode.execute(db(), { id: asked!.id, code: await textMessage() }, f.as("steward"));
    expect((await tested).outcome).toBe("signed-in");
    await changeRules.execute(db(), { ...USUAL_RULES, nightTests: true }, f.as("owner"));
    const before = (await db().db.select().from(signIns).where(eq(signIns.entryId, entryId))).length;
    const night = new NightTests(db(), undefined, 0);
    const day = 24 * 3_600_000;
    // Half past two or half past three in London.
    await night.look((Math.floor(Date.now() / day) + 2) * day + 2.5 * 3_600_000);
    expect((await db().db.select().from(signIns).where(eq(signIns.entryId, entryId))).length).toBe(before);
    await changeRules.execute(db(), USUAL_RULES, f.as("owner"));
  });
});
