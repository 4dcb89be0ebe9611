/** Runs kept by the server: each site one at a time, by whoever began them, through anything that stops in between. */
import { and, eq, isNull } from "drizzle-orm";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { type Fixture, give, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { USUAL_RULES } from "../src/core/access/houseRules";
import { monthsAfter } from "../src/core/time";
import { endAccess } from "../src/server/access/grants";
import { setApproval } from "../src/server/access/requests/approvals";
import {
  entries,
  entryVersions,
  grants,
  journal,
  notices,
  runItems,
  runs,
  signIns,
} from "../src/server/database/schema";
import { closeDeadSignIns } from "../src/server/housekeeping";
import { markLeaver } from "../src/server/people/leaving";
import { changeRules } from "../src/server/rules/rules";
import { RegularChanges } from "../src/server/signin/regularChanges";
import { Running } from "../src/server/signin/running";
import { beginRun, changeRegularly, dismissRun, ownRuns, stopRun, takeRunItem } from "../src/server/signin/runs";
import { sweepOld } from "../src/server/upkeep/sweeping";
import { setAside } from "../src/server/vaults/aside";
import { binEntry, eraseEntry } from "../src/server/vaults/bin";
import { addEntry } from "../src/server/vaults/entries";
import { entryPage } from "../src/server/vaults/entryPage";
import { loginOf } from "../src/server/vaults/sealing";
import { stepsPage } from "../src/server/vaults/steps";
import { openValues } from "../src/server/vaults/vaultKeys";
import { currentVersion } from "../src/server/vaults/writing";
import type { ChangeWay, ChangingSite } from "../standins/sites/changing";
import { type ChangingSites, startChangingSites } from "./changingSites";

let app: InProcess;
let f: Fixture;
let sites: ChangingSites;
const db = () => app.galtry;
const SERVER = { kind: "server" } as const;
const OLD = "canary-before/71";
const HOUR = 3_600_000;
const DAY = 24 * HOUR;

beforeAll(async () => {
  sites = await startChangingSites();
  app = await inProcess({
    GALTRY_ALLOWED_TARGETS: Array.from({ length: 40 }, (_, i) => `site${i}.localhost:${sites.port}`).join(","),
  });
  f = await makeFixture(app.galtry);
});
afterAll(async () => {
  await app.close();
  await sites.close();
});

let last = 0;
/** A site of its own, or one that is there already, and a login of it. */
async function made(
  way: ChangeWay = "ordinary",
  there?: ChangingSite,
): Promise<{ site: ChangingSite; entryId: string }> {
  const site = there ?? sites.add(way, `site${last++}`, OLD);
  const values = { name: site.name, signInPage: sites.addressOf(site), userName: "office", password: OLD };
  const { entryId } = await addEntry.execute(db(), { parentId: f.vaultId, captured: false, values }, f.as("steward"));
  for (const level of ["use", "reveal", "edit"] as const)
    await give(db(), f.as("steward"), entryId, f.ids[level], level);
  return { site, entryId };
}

const begin = (entryIds: string[], who: Parameters<Fixture["as"]>[0] = "edit", what: "change" | "test" = "change") =>
  beginRun.execute(db(), { what, entryIds, aboutId: null, userAgent: "Mozilla/5.0 Test", language: "en" }, f.as(who));
const own = (who: Parameters<Fixture["as"]>[0] = "edit") => ownRuns.execute(db(), { aboutId: null }, f.as(who));
const kept = async (entryId: string): Promise<string> => {
  const [entry] = await db().db.select().from(entries).where(eq(entries.nodeId, entryId));
  return loginOf(await openValues(db().db, db().keys, await currentVersion(db().db, entry!))).password;
};
/** Looks until nothing waits and nothing is under way. */
async function through(running = new Running(db(), undefined, 0)): Promise<void> {
  for (;;) {
    const begun = await running.look();
    await running.settled();
    if (begun === 0) return;
  }
}
const noticesOf = async (who: keyof Fixture["ids"]) =>
  (
    await db()
      .db.select()
      .from(notices)
      .where(and(eq(notices.personId, f.ids[who]), isNull(notices.putAwayAt)))
  ).map(({ text }) => text);

beforeEach(async () => {
  await through();
  for (const who of ["steward", "edit", "reveal"] as const) {
    const mine = and(eq(runs.personId, f.ids[who]), isNull(runs.dismissedAt));
    await db().db.update(runs).set({ dismissedAt: Date.now() }).where(mine);
    await db().db.update(notices).set({ putAwayAt: Date.now() }).where(eq(notices.personId, f.ids[who]));
  }
});

/** As if all of a run were over. */
async function over(runId: string): Promise<void> {
  await db().db.update(runItems).set({ endedAt: Date.now(), begunAt: Date.now() }).where(eq(runItems.runId, runId));
  await db().db.update(runs).set({ endedAt: Date.now() }).where(eq(runs.id, runId));
}

describe("a run", () => {
  test("goes through all that were asked for, whatever becomes of each, and says so to whoever began it", async () => {
    const good = await made();
    const no = await made("by-mail");
    const asks = await made();
    await setApproval.execute(db(), { entryId: asks.entryId, stewards: 1, minutes: 30 }, f.as("steward"));
    const { runId } = await begin([good.entryId, no.entryId, asks.entryId]);
    expect((await own())[0]!.lines.map(({ state }) => state)).toEqual(["waiting", "waiting", "waiting"]);
    await through();
    const [run] = await own();
    expect(run).toMatchObject({ id: runId, what: "change", over: true, stopping: false });
    expect(run!.lines.map(({ state, good }) => [state, good])).toEqual([
      ["ended", true],
      ["ended", false],
      ["ended", false],
    ]);
    expect(run!.lines[1]!.says).toContain("did not find the page");
    expect(run!.lines[2]!.says).toContain("approv");
    expect([good.site.password() === OLD, await kept(good.entryId)]).toEqual([false, good.site.password()]);
    expect([asks.site.password(), asks.site.tries().all]).toEqual([OLD, 0]);
    expect(await noticesOf("edit")).toContain("The run has ended: 1 of 3 passwords changed.");
    // Nobody else has anything of it, and what it says is no secret.
    for (const who of ["steward", "owner", "use"] as const) {
      expect(await own(who)).toEqual([]);
      for (const act of [stopRun, dismissRun])
        await expect(act.execute(db(), { runId }, f.as(who))).rejects.toMatchObject({ code: "not-found" });
    }
    expect(JSON.stringify(run)).not.toContain(good.site.password());
    await dismissRun.execute(db(), { runId }, f.as("edit"));
    expect([await own(), await noticesOf("edit")]).toEqual([[], []]);
  });

  test("visits one host once at a time, and two at once at most", async () => {
    const first = await made();
    const all = [first.entryId];
    for (let i = 0; i < 2; i += 1) all.push((await made("ordinary", first.site)).entryId);
    for (let i = 0; i < 3; i += 1) all.push((await made()).entryId);
    const { runId } = await begin(all, "edit", "test");
    const take = () => takeRunItem.execute(db(), { pauseMs: 60_000 }, SERVER);
    const [a, b, c] = [await take(), await take(), await take()];
    expect([a?.entryId, b?.entryId, c]).toEqual([all[0], all[3], null]);
    await db().db.update(runItems).set({ endedAt: Date.now() }).where(eq(runItems.entryId, all[0]!));
    // The host had its turn a moment ago: another is next, and it waits for its pause.
    expect((await take())?.entryId).toBe(all[4]);
    await db().db.update(runItems).set({ endedAt: Date.now() }).where(eq(runItems.entryId, all[3]!));
    expect((await take())?.entryId).toBe(all[5]);
    await db()
      .db.update(runItems)
      .set({ endedAt: Date.now() - 61_000 })
      .where(eq(runItems.entryId, all[0]!));
    await db()
      .db.update(runItems)
      .set({ endedAt: Date.now() - 61_000 })
      .where(eq(runItems.entryId, all[4]!));
    expect((await take())?.entryId).toBe(all[1]);
    await over(runId);
  });

  test("changes several at one site one after the other, and each is right", async () => {
    const a = await made("signs-out");
    const b = await made();
    await begin([a.entryId, b.entryId]);
    await through();
    for (const { site, entryId } of [a, b])
      expect([await kept(entryId), site.tries().wrong]).toEqual([site.password(), 0]);
  });

  test("stops after what is under way", async () => {
    const ids = [(await made()).entryId, (await made()).entryId, (await made()).entryId];
    const { runId } = await begin(ids);
    const taken = await takeRunItem.execute(db(), { pauseMs: 0 }, SERVER);
    expect(taken?.entryId).toBe(ids[0]);
    await expect(dismissRun.execute(db(), { runId }, f.as("edit"))).rejects.toMatchObject({ code: "conflict" });
    await stopRun.execute(db(), { runId }, f.as("edit"));
    expect((await own())[0]).toMatchObject({ over: false, stopping: true });
    expect(await takeRunItem.execute(db(), { pauseMs: 0 }, SERVER)).toBeNull();
    await db().db.update(runItems).set({ process: "gone" }).where(eq(runItems.runId, runId));
    await app.galtry.writer.write((tx) => tx.update(runItems).set({ begunAt: 1 }).where(eq(runItems.entryId, ids[0]!)));
    await closeDeadSignIns(db());
    const [run] = await own();
    expect(run!.over).toBe(true);
    expect(run!.lines.map(({ state }) => state)).toEqual(["ended", "not begun", "not begun"]);
    for (const id of ids) expect(await kept(id)).toBe(OLD);
  });

  test("goes on after its process was killed, with what waits", async () => {
    const a = await made();
    const b = await made();
    const { runId } = await begin([a.entryId, b.entryId]);
    await takeRunItem.execute(db(), { pauseMs: 0 }, SERVER);
    const [host] = db().process.split(":");
    // No process has this number.
    await db()
      .db.update(runItems)
      .set({ process: `${host}:4194305` })
      .where(eq(runItems.entryId, a.entryId));
    await closeDeadSignIns(db());
    await through();
    const [run] = await own();
    expect(run!.lines.map(({ good, says }) => [good, says])).toEqual([
      [false, "Galtry was stopped in the middle of it"],
      [true, "The password has been changed"],
    ]);
    expect([run!.id, run!.over, await kept(a.entryId), await kept(b.entryId)]).toEqual([
      runId,
      true,
      OLD,
      b.site.password(),
    ]);
  });

  test("ends with the access of whoever began it, at each entry and altogether", async () => {
    const a = await made();
    const b = await made();
    await begin([a.entryId, b.entryId], "edit");
    const theirs = await db().db.select().from(grants).where(eq(grants.nodeId, a.entryId));
    for (const { id, subjectId, validUntil } of theirs)
      if (subjectId === f.ids.edit && validUntil === null)
        await endAccess.execute(db(), { grantId: id }, f.as("steward"));
    await setAside.execute(db(), { entryIds: [b.entryId], aside: true }, f.as("steward"));
    await through();
    const [run] = await own();
    expect(run!.lines.map(({ good }) => good)).toEqual([false, false]);
    // What they no longer reach is not named to them.
    expect(JSON.stringify(run!.lines[0])).not.toContain(a.site.host);
    expect([a.site.tries().all, b.site.tries().all]).toEqual([0, 0]);
  });

  test("of entries that went for good while it waited comes to an end", async () => {
    const { entryId } = await made();
    await begin([entryId], "steward");
    await binEntry.execute(db(), { entryIds: [entryId] }, f.as("steward"));
    await eraseEntry.execute(db(), { entryIds: [entryId] }, f.as("steward"));
    await through();
    expect((await own("steward"))[0]).toMatchObject({ over: true, lines: [{ good: false }] });
  });

  test("is begun by nobody who may not edit all of it, nor for what has no sign-in page, nor six at once", async () => {
    const a = await made();
    for (const who of ["use", "reveal", "nothing", "guest", "auditor"] as const)
      await expect(begin([a.entryId], who), who).rejects.toThrow();
    const values = { name: "A note", text: "said" };
    const note = await addEntry.execute(
      db(),
      { parentId: f.vaultId, captured: false, kind: "note", values },
      f.as("steward"),
    );
    await expect(begin([note.entryId], "steward")).rejects.toMatchObject({ code: "conflict" });
    const begun: string[] = [];
    for (let i = 0; i < 5; i += 1) begun.push((await begin([a.entryId])).runId);
    await expect(begin([a.entryId])).rejects.toMatchObject({ code: "too-many" });
    for (const runId of begun) await over(runId);
  });

  test("tests logins as well, and is forgotten after a while", async () => {
    const { entryId, site } = await made();
    const { runId } = await begin([entryId], "edit", "test");
    await through();
    expect((await own())[0]!.lines).toMatchObject([{ good: true, says: "Galtry signed in" }]);
    expect([site.password(), site.tries()]).toEqual([OLD, { all: 1, wrong: 0 }]);
    const later = Date.now() + 91 * DAY;
    await sweepOld.execute(db(), {}, SERVER, later);
    await sweepOld.execute(db(), {}, SERVER, later);
    expect(await db().db.select().from(runs).where(eq(runs.id, runId))).toEqual([]);
    expect(await db().db.select().from(runItems).where(eq(runItems.runId, runId))).toEqual([]);
  });
});

describe("as the house rules say", () => {
  /** Three in the morning of a day, on the organisation's clock. */
  const NIGHT = Date.UTC(2026, 5, 10, 3);
  const aged = async (entryId: string, at: number) => {
    const [entry] = await db().db.select().from(entries).where(eq(entries.nodeId, entryId));
    await db().db.update(entryVersions).set({ createdAt: at }).where(eq(entryVersions.id, entry!.versionId));
    await db()
      .db.insert(signIns)
      .values({
        ...{ id: crypto.randomUUID(), entryId, versionId: entry!.versionId, personId: f.ids.use, lanyardId: "" },
        ...{ how: "sealed", queueKey: "x", process: "x", begunAt: at, endedAt: at, outcome: "signed-in" },
      });
  };
  const rule = (changeEvery: 1 | 3 | 6 | 12 | null) =>
    changeRules.execute(db(), { ...USUAL_RULES, changeEvery, nightTests: changeEvery !== 1 }, f.as("owner"));
  const choose = (entryId: string, regularly = true) =>
    changeRegularly.execute(db(), { entryIds: [entryId], regularly }, f.as("steward"));
  const due = async (at = NIGHT) => {
    await new RegularChanges(db()).look(at);
    const open = await db()
      .db.select()
      .from(runs)
      .where(and(isNull(runs.endedAt), isNull(runs.personId)));
    const items = await db().db.select().from(runItems).where(isNull(runItems.endedAt));
    return items.filter(({ runId }) => open.some(({ id }) => id === runId)).map(({ entryId }) => entryId);
  };

  beforeAll(async () => {
    await rule(6);
  });

  test("what its stewards chose is changed at night once it is old enough, by Galtry itself", async () => {
    const { entryId, site } = await made();
    const other = await made();
    await aged(entryId, monthsAfter(NIGHT, -6));
    await aged(other.entryId, monthsAfter(NIGHT, -24));
    expect(await due()).toEqual([]);
    await choose(entryId);
    // Not by day, and not a moment too early.
    expect(await due(NIGHT + 9 * HOUR)).toEqual([]);
    expect(await due(NIGHT - 1)).toEqual([]);
    expect(await due()).toEqual([entryId]);
    // Not twice, in this process or in another.
    expect(await due()).toEqual([entryId]);
    await through();
    expect([site.password() === OLD, await kept(entryId)]).toEqual([false, site.password()]);
    expect([other.site.tries().all, await kept(other.entryId)]).toEqual([0, OLD]);
    const lines = await db().db.select().from(journal).where(eq(journal.node, entryId));
    expect(lines.find(({ act }) => act === "signIn.endChange")).toMatchObject({ person: null });
    const page = await stepsPage.execute(db(), { entryId }, f.as("edit"));
    expect(page.change).toMatchObject({ outcome: "changed", by: "Galtry" });
    expect(JSON.stringify(await entryPage.execute(db(), { entryId }, f.as("reveal")))).toContain("Galtry");
    expect(await noticesOf("steward")).toEqual([]);
    await choose(entryId, false);
  });

  test("what could not be changed is told to its stewards, and tried again the next night and not before", async () => {
    const { entryId, site } = await made();
    await aged(entryId, monthsAfter(NIGHT, -7));
    await choose(entryId);
    expect(await due()).toEqual([entryId]);
    // The office manager is away, and the site with them.
    sites.at.delete(site.host);
    await through();
    expect((await noticesOf("steward")).filter((text) => text.includes("regularly. It was not changed"))).toHaveLength(
      1,
    );
    await db().db.update(runItems).set({ endedAt: NIGHT }).where(eq(runItems.entryId, entryId));
    expect(await due(NIGHT + HOUR)).toEqual([]);
    sites.at.set(site.host, site);
    expect(await due(NIGHT + DAY)).toEqual([entryId]);
    await through();
    expect([site.password() === OLD, await kept(entryId)]).toEqual([false, site.password()]);
    await choose(entryId, false);
  });

  test("what asks first, rests, lies in the bin or has no rule any more is left alone, at the last moment too", async () => {
    const asks = await made();
    const aside = await made();
    const ruled = await made();
    for (const { entryId } of [asks, aside, ruled]) {
      await aged(entryId, monthsAfter(NIGHT, -9));
      await choose(entryId);
    }
    await setApproval.execute(db(), { entryId: asks.entryId, stewards: 1, minutes: 30 }, f.as("steward"));
    await setAside.execute(db(), { entryIds: [aside.entryId], aside: true }, f.as("steward"));
    expect(await due()).toEqual([ruled.entryId]);
    await rule(null);
    await through();
    expect([asks, aside, ruled].map(({ site }) => site.tries().all)).toEqual([0, 0, 0]);
    expect(await due()).toEqual([]);
    await rule(12);
    for (const { entryId } of [asks, aside, ruled]) await choose(entryId, false);
  });

  test("only stewards choose it, and only for what signs in somewhere", async () => {
    const { entryId } = await made();
    for (const who of ["use", "reveal", "edit", "nothing", "guest", "auditor"] as const)
      await expect(
        changeRegularly.execute(db(), { entryIds: [entryId], regularly: true }, f.as(who)),
        who,
      ).rejects.toThrow();
  });
});

test("a leaver's run does nothing more", async () => {
  const a = await made();
  await give(db(), f.as("steward"), a.entryId, f.ids.reveal, "edit");
  await begin([a.entryId], "reveal");
  await markLeaver.execute(db(), { personId: f.ids.reveal }, f.as("owner"));
  await through();
  expect([a.site.tries().all, await kept(a.entryId)]).toEqual([0, OLD]);
});
