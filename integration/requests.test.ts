/** Asking for access: from what one may know of, answered by its stewards, never lowering what somebody has. */
import { and, eq, isNull } from "drizzle-orm";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { type Fixture, give, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { giveAccess } from "../src/server/access/grants";
import { requestLogin } from "../src/server/access/requests/loginRequests";
import {
  answerRequest,
  listedEntries,
  passRequestOn,
  remindOfRequests,
  requestAccess,
  requestList,
  setListed,
  withdrawRequest,
} from "../src/server/access/requests/requests";
import { whoCanDoWhat } from "../src/server/access/who";
import { asks, grants, notices } from "../src/server/database/schema";
import { createGroup } from "../src/server/people/groups";
import { setMember } from "../src/server/people/members";
import { addEntry } from "../src/server/vaults/entries";

let app: InProcess;
let f: Fixture;
let entryId: string;
const db = () => app.galtry;
const HOUR = 3_600_000;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());
let number = 0;
beforeEach(async () => {
  const values = { name: `Kiosk ${number++}`, signInPage: "https://kiosk.example/in", password: "canary-kiosk/73" };
  entryId = (await addEntry.execute(db(), { parentId: f.vaultId, captured: false, values }, f.as("steward"))).entryId;
});

const ask = (kind: Kind, level: string, more: object = {}) =>
  requestAccess.execute(db(), { nodeId: entryId, level, why: "Stocktaking", ...more }, f.as(kind));
const answer = (kind: Kind, askId: string, more: object) => answerRequest.execute(db(), { askId, ...more }, f.as(kind));
const levelOf = async (kind: Kind) =>
  (await whoCanDoWhat.execute(db(), { nodeId: entryId }, f.as("steward"))).reached.find(
    (one) => one.personId === f.ids[kind],
  )?.level ?? "none";
const toldTo = async (kind: Kind) =>
  (await db().db.select().from(notices).where(eq(notices.personId, f.ids[kind])).orderBy(notices.id)).map(
    ({ text }) => text,
  );

describe("asking", () => {
  test("a yes gives what was asked for, with its reason and its end; the asker and the stewards are told", async () => {
    await give(db(), f.as("steward"), entryId, f.ids.use, "use");
    const until = Date.now() + HOUR;
    const { askId } = await ask("use", "reveal", { until });
    expect((await toldTo("steward")).some((text) => text.includes("requests Reveal on Kiosk"))).toBe(true);
    const { toAnswer } = await requestList.execute(db(), {}, f.as("steward"));
    expect(toAnswer.find((one) => one.id === askId)).toMatchObject({
      person: "Person use",
      level: "reveal",
      has: "use",
    });
    await answer("steward", askId, { yes: true });
    expect(await levelOf("use")).toBe("reveal");
    const rows = await db()
      .db.select()
      .from(grants)
      .where(and(eq(grants.nodeId, entryId), eq(grants.subjectId, f.ids.use), isNull(grants.validUntil)));
    // When it ends, what they had counts again.
    expect(rows.map((row) => [row.level, row.until, row.why]).sort()).toEqual([
      ["reveal", until, "asked for: Stocktaking"],
      ["use", null, "daily work"],
    ]);
    expect((await toldTo("use")).some((text) => text.startsWith("Person steward gave you Reveal on Kiosk"))).toBe(true);
    await expect(answer("steward", askId, { yes: true })).rejects.toMatchObject({ code: "conflict" });
  });

  test("less may be given than was asked for, never more, and a no carries a word", async () => {
    await give(db(), f.as("steward"), entryId, f.ids.use, "use");
    const until = Date.now() + HOUR;
    const { askId } = await ask("use", "edit", { until });
    await expect(answer("steward", askId, { yes: true, level: "steward" })).rejects.toMatchObject({ field: "level" });
    await expect(answer("steward", askId, { yes: true, until: null })).rejects.toMatchObject({ field: "until" });
    await answer("steward", askId, { yes: true, level: "reveal", until: until - HOUR / 2 });
    const { own } = await requestList.execute(db(), {}, f.as("use"));
    expect(own.find((one) => one.id === askId)).toMatchObject({ state: "yes", given: { level: "reveal" } });
    const again = await ask("use", "steward");
    await expect(answer("steward", again.askId, { yes: false, word: " " })).rejects.toMatchObject({ field: "word" });
    await answer("steward", again.askId, { yes: false, word: "One steward is enough" });
    expect((await requestList.execute(db(), {}, f.as("use"))).own[0]).toMatchObject({
      state: "no",
      word: "One steward is enough",
    });
  });

  test("a yes that would lower what a group gives is refused in words", async () => {
    const { groupId } = await createGroup.execute(
      db(),
      { name: `Till Team ${number}`, description: "" },
      f.as("owner"),
    );
    await setMember.execute(db(), { groupId, personId: f.ids.nothing }, f.as("owner"));
    await giveAccess.execute(
      db(),
      { nodeId: entryId, subject: { kind: "group", id: groupId }, level: "reveal" },
      f.as("steward"),
    );
    const { askId } = await ask("nothing", "edit");
    await expect(answer("steward", askId, { yes: true, level: "use" })).rejects.toMatchObject({
      code: "not-allowed",
      message: expect.stringContaining("from Reveal to Use"),
    });
    expect(await levelOf("nothing")).toBe("reveal");
  });

  test("nobody asks for what they may not know of, nor answers for themselves or elsewhere", async () => {
    await expect(ask("nothing", "use")).rejects.toMatchObject({ code: "not-found" });
    await give(db(), f.as("steward"), entryId, f.ids.use, "use");
    await expect(ask("use", "use")).rejects.toMatchObject({ code: "conflict" });
    const { askId } = await ask("use", "steward");
    await expect(ask("use", "edit")).rejects.toMatchObject({ code: "conflict" });
    for (const kind of ["use", "nothing", "owner", "guest"] as const)
      await expect(answer(kind, askId, { yes: true })).rejects.toMatchObject({ code: "not-found" });
    for (const kind of ["nothing", "owner", "guest"] as const) {
      expect((await requestList.execute(db(), {}, f.as(kind))).toAnswer.some((one) => one.id === askId)).toBe(false);
      await expect(withdrawRequest.execute(db(), { askId }, f.as(kind))).rejects.toMatchObject({ code: "not-found" });
    }
    await withdrawRequest.execute(db(), { askId }, f.as("use"));
    await expect(answer("steward", askId, { yes: true })).rejects.toMatchObject({ code: "conflict" });
  });
});

describe("listed entries", () => {
  test("staff find them and can ask; guests and the Blocked learn nothing", async () => {
    await setListed.execute(db(), { entryId, listed: true }, f.as("steward"));
    const names = async (kind: Kind) => (await listedEntries.execute(db(), {}, f.as(kind))).map(({ id }) => id);
    expect(await names("nothing")).toContain(entryId);
    expect(await names("guest")).toEqual([]);
    await expect(ask("guest", "use")).rejects.toMatchObject({ code: "not-found" });
    await give(db(), f.as("steward"), entryId, f.ids.nothing, "blocked" as "use");
    expect(await names("nothing")).not.toContain(entryId);
    await expect(ask("nothing", "use")).rejects.toMatchObject({ code: "not-found" });
    const listed = JSON.stringify(await listedEntries.execute(db(), {}, f.as("owner")));
    expect(listed).not.toContain("canary");
    await expect(setListed.execute(db(), { entryId, listed: false }, f.as("nothing"))).rejects.toMatchObject({
      code: "not-found",
    });
  });
});

describe("what nobody answers", () => {
  test("is passed on to one, told again after a day, and after three to all and the owners, without a name", async () => {
    await give(db(), f.as("steward"), entryId, f.ids.use, "use");
    await give(db(), f.as("steward"), entryId, f.ids.edit, "steward");
    const { askId } = await ask("use", "reveal");
    const waiting = async (kind: Kind) =>
      (await requestList.execute(db(), {}, f.as(kind))).toAnswer.some((one) => one.id === askId);
    expect([await waiting("steward"), await waiting("edit")]).toEqual([true, true]);
    await passRequestOn.execute(db(), { askId, personId: f.ids.edit }, f.as("steward"));
    expect([await waiting("steward"), await waiting("edit")]).toEqual([false, true]);
    const remind = (hours: number) =>
      remindOfRequests.execute(db(), {}, { kind: "server" }, Date.now() + hours * HOUR) as Promise<string[]>;
    await remind(23);
    expect((await toldTo("edit")).some((text) => text.includes("since yesterday"))).toBe(false);
    await remind(25);
    expect((await toldTo("edit")).filter((text) => text.includes("since yesterday"))).toHaveLength(1);
    await remind(26);
    await remind(73);
    expect([await waiting("steward"), await waiting("edit")]).toEqual([true, true]);
    const owner = (await toldTo("owner")).filter((text) => text.startsWith("Person use requested"));
    expect(owner).toHaveLength(1);
    expect(owner[0]).not.toContain("Kiosk");
    const [row] = await db().db.select().from(asks).where(eq(asks.id, askId));
    expect(row!.raisedAt).not.toBeNull();
  });
});

describe("asking by the address of a site", () => {
  const PAGE = () => `https://desk${number}.kiosk-${number}.example/in`;
  const askSite = (kind: Kind, page = PAGE()) =>
    requestLogin.execute(db(), { page, why: "The printer is mine today" }, f.lanyard(kind));
  const own = async (kind: Kind) =>
    (await requestList.execute(db(), {}, f.as(kind))).own.filter((one) => one.node.startsWith("a login"));
  const toAnswer = async (kind: Kind) => (await requestList.execute(db(), {}, f.as(kind))).toAnswer;
  const code = (promise: Promise<unknown>) =>
    promise.then(
      () => "asked",
      (error) => error.code as string,
    );
  const keep = async (name: string) => {
    const values = { name, signInPage: PAGE(), password: "canary-desk/73" };
    return (await addEntry.execute(db(), { parentId: f.vaultId, captured: false, values }, f.as("steward"))).entryId;
  };

  test("is answered alike whether anything is kept or not, and shows nothing of what is", async () => {
    const seen: unknown[] = [];
    for (const kept of [true, false]) {
      number += 1;
      if (kept) await keep("Canary printer");
      const answer = await askSite("nothing");
      const mine = await own("nothing");
      seen.push([answer, { ...mine.at(0), id: "", askedAt: 0, node: "" }]);
      expect(JSON.stringify(mine)).not.toContain("Canary");
      expect(await code(askSite("nothing"))).toBe("conflict");
      // Taken back, all of it.
      await withdrawRequest.execute(db(), { askId: mine[0]!.id }, f.as("nothing"));
      expect(await own("nothing")).toEqual([]);
      expect((await toAnswer("steward")).some((one) => one.site !== "")).toBe(false);
    }
    expect(seen[0]).toEqual(seen[1]);
    expect(await code(askSite("guest"))).toBe("not-found");
  });

  test("goes to the stewards of what is kept, as a request; a yes gives Use and answers the question", async () => {
    number += 1;
    const [first, second] = [await keep("Front printer"), await keep("Back printer")];
    await askSite("nothing");
    expect(await toldTo("steward")).toContain(
      `Person nothing requests a login for kiosk-${number}.example, and you are a steward of Front printer: “The printer is mine today”`,
    );
    expect((await toldTo("owner")).at(-1)).toContain(`requests a login for kiosk-${number}.example`);
    const open = (await toAnswer("steward")).filter((one) => one.site === `kiosk-${number}.example`);
    expect(open.map(({ node }) => node).sort()).toEqual(["Back printer", "Front printer"]);
    await answer("steward", open.find(({ nodeId }) => nodeId === first)!.id, { yes: true });
    const lines = await own("nothing");
    expect(lines).toMatchObject([{ state: "yes", link: `/entry/${first}`, level: "use" }]);
    // Nobody has to answer for the other one any more.
    expect((await toAnswer("steward")).some(({ nodeId }) => nodeId === second)).toBe(false);
    expect(await code(askSite("nothing"))).toBe("asked");
  });

  test("is answered with no once all who could have said so, without the name of anything", async () => {
    number += 1;
    await keep("Canary one");
    await keep("Canary two");
    await askSite("nothing");
    const [one, two] = (await toAnswer("steward")).filter(({ site }) => site === `kiosk-${number}.example`);
    await answer("steward", one!.id, { yes: false, word: "Ask the shop" });
    const open = async () => (await own("nothing")).find(({ node }) => node.includes(`kiosk-${number}`))!;
    expect((await open()).state).toBe("open");
    await answer("steward", two!.id, { yes: false, word: "Not this one" });
    expect(await open()).toMatchObject({ state: "no", word: "Not this one", link: null });
    const told = (await toldTo("nothing")).filter((text) => text.includes(`kiosk-${number}`));
    expect(told).toHaveLength(2);
    expect(JSON.stringify([told, await own("nothing")])).not.toContain("Canary");
  });

  test("asks nobody about what blocks them, or what they have", async () => {
    number += 1;
    const entry = await keep("Blocked printer");
    await give(db(), f.as("steward"), entry, f.ids.nothing, "blocked");
    const mine = await keep("Own printer");
    await give(db(), f.as("steward"), mine, f.ids.nothing, "use");
    await askSite("nothing");
    expect((await toAnswer("steward")).some(({ site }) => site === `kiosk-${number}.example`)).toBe(false);
  });
});
