/** Findings: found as things change, over as they are mended, and told to nobody who may not know. */
import { and, eq, isNull, sql } from "drizzle-orm";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { buildDemo } from "../demo/build";
import { type Fixture, give, KINDS, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { unpack } from "../src/core/packed";
import type { ChangeOutcome } from "../src/core/signin/changing";
import { endAccess, giveAccess } from "../src/server/access/grants";
import { setApproval } from "../src/server/access/requests/approvals";
import {
  entries,
  entryVersions,
  findings,
  journal,
  leaks,
  mails,
  notices,
  organisation,
  outbox,
  passwordChanges,
  signIns,
  unchecked,
} from "../src/server/database/schema";
import { uuidv7 } from "../src/server/ids";
import { loadHome } from "../src/server/organisation";
import { addPerson } from "../src/server/people/adding";
import { markLeaver } from "../src/server/people/leaving";
import { checkSome } from "../src/server/upkeep/checking";
import { rateSome } from "../src/server/upkeep/conditions";
import { findingsAt, upkeepPage, upkeepToday } from "../src/server/upkeep/findingsPage";
import { houseFindings } from "../src/server/upkeep/house";
import { lookUpSome } from "../src/server/upkeep/leaks";
import { putOffFindings, undoPutOff } from "../src/server/upkeep/puttingOff";
import { tellOfWeek, weekBegan } from "../src/server/upkeep/weekly";
import { binEntry, eraseEntry } from "../src/server/vaults/bin";
import { moveAcross } from "../src/server/vaults/copying";
import { addEntry, changeEntry } from "../src/server/vaults/entries";
import { entryPage } from "../src/server/vaults/entryPage";
import { createFolder } from "../src/server/vaults/folders";
import { revealField } from "../src/server/vaults/revealing";
import { markSeparate } from "../src/server/vaults/separating";
import { createVault, vaultLedger } from "../src/server/vaults/vaults";

let app: InProcess;
let f: Fixture;
let vaultId: string;
const db = () => app.galtry;
const DAY = 86_400_000;
let number = 0;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

/** A vault of its own each time, with two stewards. */
beforeEach(async () => {
  number += 1;
  ({ vaultId } = await createVault.execute(db(), { name: `Depot ${number}`, description: "" }, f.as("administrator")));
  await give(db(), f.as("administrator"), vaultId, f.ids.steward, "steward");
});

/** As good as its words: weak where it says so. */
const rater = { rate: async (value: string) => (value.includes("weak") ? 3 : 15) };

async function settle(at = Date.now()): Promise<void> {
  while (await rateSome(db(), rater));
  for (let turns = 0; await checkSome(db(), at); turns++) if (turns > 500) throw new Error("it never comes to an end");
}
const add = async (password: string, more: object = {}, parentId = vaultId) => {
  number += 1;
  const values = { name: `Entry ${number}`, signInPage: `https://site-${number}.example/in`, password, ...more };
  return (await addEntry.execute(db(), { parentId, captured: false, values }, f.as("steward"))).entryId;
};
const change = async (entryId: string, password: string) => {
  const [entry] = await db().db.select().from(entries).where(eq(entries.nodeId, entryId));
  const values = { name: entry!.name, signInPage: entry!.signInPage, password };
  const input = { entryId, baseVersionId: entry!.versionId, values, captured: false };
  await changeEntry.execute(db(), input, f.as("steward"));
};
const open = async (nodeId: string) =>
  (
    await db()
      .db.select()
      .from(findings)
      .where(and(eq(findings.nodeId, nodeId), isNull(findings.endedAt)))
  )
    .map(({ kind }) => kind as string)
    .filter((kind) => kind !== "untested")
    .sort();
const ALL = { vaultId: null, act: null, find: "", most: 2_000 };
const page = (who: Kind, at?: number) => upkeepPage.execute(db(), ALL, f.as(who, at), at);
const reveal = (entryId: string, who: Kind) =>
  revealField.execute(db(), { entryId, field: "password", how: "revealed" }, f.as(who));
const code = (promise: Promise<unknown>) =>
  promise.then(
    () => "allowed",
    (error) => error.code as string,
  );

describe("of the secret", () => {
  test("weak, until it is changed; what is over stays as history", async () => {
    const entryId = await add("weak one");
    await settle();
    expect(await open(entryId)).toEqual(["weak"]);
    await change(entryId, "strong one");
    await settle();
    expect(await open(entryId)).toEqual([]);
    const [past] = await db()
      .db.select()
      .from(findings)
      .where(and(eq(findings.nodeId, entryId), eq(findings.kind, "weak")));
    expect(past!.endedAt).toBeGreaterThanOrEqual(past!.foundAt);
  });

  test("the same in two entries: found at both, over at both when one is changed, put in the bin or deleted for good", async () => {
    const mend: ((entryId: string) => Promise<unknown>)[] = [
      (entryId) => change(entryId, "another"),
      (entryId) => binEntry.execute(db(), { entryIds: [entryId] }, f.as("steward")),
      async (entryId) => {
        await binEntry.execute(db(), { entryIds: [entryId] }, f.as("steward"));
        await eraseEntry.execute(db(), { entryIds: [entryId] }, f.as("steward"));
      },
    ];
    for (const [i, over] of mend.entries()) {
      const [one, two] = [await add(`twice ${i}`), await add("once")];
      await settle();
      expect([await open(one), await open(two)]).toEqual([[], []]);
      await change(two, `twice ${i}`);
      await settle();
      expect([await open(one), await open(two)]).toEqual([["reused"], ["reused"]]);
      await over(two);
      await settle();
      expect([await open(one), await open(two)]).toEqual([[], []]);
    }
  });

  test("known to a leaver, and to those whose access has ended since, until it is changed", async () => {
    const entryId = await add("seen");
    const { personId } = await addPerson.execute(
      db(),
      { name: "Leaving Soon", mail: `leaving-${number}@tarrowick.example`, role: "member" },
      f.as("owner"),
    );
    const leaving = { ...f.as("reveal"), personId };
    await give(db(), f.as("steward"), entryId, personId, "reveal");
    const { grantId } = await give(db(), f.as("steward"), entryId, f.ids.reveal, "reveal");
    await reveal(entryId, "reveal");
    await db().db.run(sql`update standings set standing = 'active' where person_id = ${personId}`);
    await revealField.execute(db(), { entryId, field: "password", how: "revealed" }, leaving);
    await settle();
    expect(await open(entryId)).toEqual([]);
    await endAccess.execute(db(), { grantId }, f.as("steward"));
    await settle();
    expect(await open(entryId)).toEqual(["former"]);
    await markLeaver.execute(db(), { personId, why: "" }, f.as("owner"));
    await settle();
    expect(await open(entryId)).toEqual(["former", "leaver"]);
    const { rows } = await page("steward");
    expect(rows.find((row) => row.nodeId === entryId && row.kind === "leaver")).toMatchObject({
      ...{ people: ["Leaving Soon"], today: true, changedBy: "galtry" },
    });
    await give(db(), f.as("steward"), entryId, f.ids.reveal, "edit");
    await settle();
    expect(await open(entryId)).toEqual(["leaver"]);
    await change(entryId, "unseen");
    await settle();
    expect(await open(entryId)).toEqual([]);
  });

  test("an end that comes by itself is found at its moment; a window that is closed tonight is none", async () => {
    const entryId = await add("for a while");
    const until = Date.now() + 3_600_000;
    await give(db(), f.as("steward"), entryId, f.ids.reveal, "reveal", until);
    await reveal(entryId, "reveal");
    await settle();
    expect(await open(entryId)).toEqual(["ending"]);
    await settle(until + 1000);
    expect(await open(entryId)).toEqual(["former"]);

    const weekly = { days: [1, 2, 3, 4, 5, 6, 7], start: 9 * 60, end: 17 * 60 };
    const night = await add("by day");
    const terms = { nodeId: night, level: "reveal" as const, from: null, until: null, why: "by day" };
    const { grantId } = await give(db(), f.as("steward"), night, f.ids.reveal, "reveal");
    await reveal(night, "reveal");
    await endAccess.execute(db(), { grantId }, f.as("steward"));
    await giveAccess.execute(
      db(),
      { ...terms, weekly, subject: { kind: "person", id: f.ids.reveal } },
      f.as("steward"),
    );
    for (let hour = 0; hour < 24; hour += 6) {
      await db().db.insert(unchecked).values({ kind: "entry", ref: night }).onConflictDoNothing();
      await settle(Date.now() + hour * 3_600_000);
      expect(await open(night), `in ${hour} hours`).toEqual([]);
    }
  });

  test("leaked: only five digits of its hash leave, once a day, and never of an earlier version", async () => {
    const entryId = await add("museum museum museum");
    await settle();
    const list = db().configuration.leakedPasswords!;
    const asked = async (at = Date.now()) => {
      app.standins.seen.length = 0;
      while ((await lookUpSome(db(), list, at)) > 0);
      return app.standins.seen.filter(({ host }) => host === "leaks.localhost").map(({ path }) => path);
    };
    const paths = await asked();
    expect(paths.length).toBeGreaterThan(0);
    for (const path of paths) expect(path).toMatch(/^\/range\/[0-9A-F]{5}$/);
    await settle();
    expect(await open(entryId)).toEqual(["leaked"]);
    const row = (await page("steward")).rows.find((one) => one.nodeId === entryId && one.kind === "leaked")!;
    expect(row).toMatchObject({ today: true, detail: { times: expect.any(Number) } });
    expect(await asked()).toEqual([]);
    const [before] = await db().db.select().from(entries).where(eq(entries.nodeId, entryId));
    await change(entryId, "nobody has thought of this one");
    await settle();
    await asked();
    await settle();
    expect(await open(entryId)).toEqual([]);
    const next = await asked(Date.now() + 2 * DAY);
    expect(next.length).toBe(paths.length);
    expect(await db().db.select().from(leaks).where(eq(leaks.versionId, before!.versionId))).toEqual([]);
  });
});

describe("of the entry", () => {
  const visit = async (entryId: string, outcome: string, ago: number, how: "sealed" | "tested" = "sealed") => {
    const [entry] = await db().db.select().from(entries).where(eq(entries.nodeId, entryId));
    const id = uuidv7();
    await db()
      .db.insert(signIns)
      .values({
        ...{ id, entryId, versionId: entry!.versionId, personId: f.ids.steward, lanyardId: "", how, queueKey: "" },
        ...{ process: db().process, begunAt: Date.now() - ago },
      });
    await db()
      .db.update(signIns)
      .set({ endedAt: Date.now() - ago, outcome })
      .where(eq(signIns.id, id));
  };
  const state = async (entryId: string) => {
    await settle();
    const rows = await db()
      .db.select()
      .from(findings)
      .where(and(eq(findings.nodeId, entryId), isNull(findings.endedAt)));
    return rows.map(({ kind, detail }) => `${kind} ${detail.failure ?? ""}`.trim());
  };

  test("not tested, broken since, rejected by the site, and well again", async () => {
    const entryId = await add("works");
    expect(await state(entryId)).toEqual(["untested"]);
    await visit(entryId, "signed-in", 5_000, "tested");
    expect(await state(entryId)).toEqual([]);
    // What is over by itself says nothing of the entry.
    await visit(entryId, "site-down", 4_000);
    expect(await state(entryId)).toEqual([]);
    await visit(entryId, "came-back", 3_000);
    expect(await state(entryId)).toEqual(["fails came-back"]);
    const [entry] = await db().db.select().from(entries).where(eq(entries.nodeId, entryId));
    await db().db.update(entryVersions).set({ refusedAt: Date.now() }).where(eq(entryVersions.id, entry!.versionId));
    expect(await state(entryId)).toEqual(["rejected"]);
    await db().db.update(entryVersions).set({ refusedAt: null }).where(eq(entryVersions.id, entry!.versionId));
    await visit(entryId, "signed-in", 1_000);
    expect(await state(entryId)).toEqual([]);
  });

  test("plain http elsewhere, and not on this machine", async () => {
    const there = await add("there", { signInPage: "http://plain.example/in" });
    const here = await add("here", { signInPage: "http://plain.localhost:9/in" });
    await settle();
    expect(await open(there)).toEqual(["plain-http"]);
    expect(await open(here)).toEqual([]);
  });

  test("a licence that ends, and nobody uses it for half a year", async () => {
    const day = (ms: number) => new Date(ms).toISOString().slice(0, 10);
    const soon = Date.now() + 90 * DAY;
    const values = { name: "Page layout", product: "Layout", key: "KEY-1", expires: day(soon) };
    const { entryId } = await addEntry.execute(
      db(),
      { parentId: vaultId, kind: "licence", captured: false, values },
      f.as("steward"),
    );
    await settle();
    expect(await open(entryId)).toEqual([]);
    await settle(soon - 50 * DAY);
    expect(await open(entryId)).toEqual(["ends"]);
    await settle(soon + 2 * DAY);
    expect(await open(entryId)).toEqual(["over"]);
    await settle(Date.now() + 181 * DAY);
    expect(await open(entryId)).toEqual(["over", "unused"]);
  });

  test("moved to another vault its findings are that vault's; deleted for good they are gone", async () => {
    const entryId = await add("weak and moved");
    await settle();
    const { vaultId: other } = await createVault.execute(
      db(),
      { name: `Other ${number}`, description: "" },
      f.as("administrator"),
    );
    await give(db(), f.as("administrator"), other, f.ids.steward, "steward");
    await moveAcross.execute(db(), { nodeIds: [entryId], parentId: other }, f.as("steward"));
    await settle();
    const rows = await db().db.select().from(findings).where(eq(findings.nodeId, entryId));
    expect(rows.filter((row) => row.endedAt === null).map((row) => row.vaultId)).toEqual([other, other]);
    await binEntry.execute(db(), { entryIds: [entryId] }, f.as("steward"));
    await eraseEntry.execute(db(), { entryIds: [entryId] }, f.as("steward"));
    await settle();
    expect(await db().db.select().from(findings).where(eq(findings.nodeId, entryId))).toEqual([]);
  });
});

describe("of access", () => {
  test("one steward only, or none; Everyone; a guest without an end", async () => {
    await settle();
    expect(await open(vaultId)).toEqual([]);
    const { vaultId: lonely } = await createVault.execute(
      db(),
      { name: `Lonely ${number}`, description: "" },
      f.as("administrator"),
    );
    await settle();
    expect(await open(lonely)).toEqual(["one-steward"]);
    await give(db(), f.as("administrator"), lonely, f.ids.steward, "steward");
    await settle();
    expect(await open(lonely)).toEqual([]);
    await giveAccess.execute(
      db(),
      { nodeId: lonely, subject: { kind: "everyone" }, level: "reveal", from: null, until: null, why: "all" },
      f.as("administrator"),
    );
    const entryId = await add("guests", {}, lonely);
    await give(db(), f.as("steward"), entryId, f.ids.guest, "use");
    await settle();
    expect(await open(lonely)).toEqual(["everyone"]);
    expect(await open(entryId)).toEqual(["open-guest"]);
  });

  test("unused for 90 days, until it is used", async () => {
    const entryId = await add("quiet");
    await give(db(), f.as("steward"), entryId, f.ids.reveal, "reveal");
    await settle();
    expect(await open(entryId)).toEqual([]);
    const later = Date.now() + 91 * DAY;
    await settle(later);
    expect(await open(entryId)).toEqual(["unused-access"]);
    const row = (await page("steward", later)).rows.find(
      (one) => one.nodeId === entryId && one.kind === "unused-access",
    )!;
    expect(row).toMatchObject({ people: ["Person reveal"], grant: { why: "daily work", by: "Person steward" } });
    await revealField.execute(db(), { entryId, field: "password", how: "revealed" }, f.as("reveal", later), later);
    await settle(later + 1000);
    expect(await open(entryId)).toEqual([]);
  });
});

describe("who learns of them", () => {
  test("stewards of the node; administrators how many there are; nobody else anything", async () => {
    const name = `Orchard ledger ${number}`;
    const entryId = await add("weak for all", { name });
    for (const level of ["use", "reveal", "edit"] as const)
      await give(db(), f.as("steward"), entryId, f.ids[level], level);
    await settle();
    for (const kind of KINDS) {
      const [list, today] = [
        await page(kind).catch(() => null),
        await upkeepToday.execute(db(), {}, f.as(kind)).catch(() => null),
      ];
      const isSteward = kind === "steward" || kind === "administrator";
      expect(JSON.stringify(list ?? {}).includes(name), kind).toBe(isSteward);
      expect((today?.later ?? 0) > 0, kind).toBe(isSteward);
      const ledger = await vaultLedger.execute(db(), { vaultId }, f.as(kind)).catch(() => null);
      const row = ledger && unpack(ledger.rows).find(({ id }) => id === entryId);
      expect(row ? row.finding : null, kind).toBe(isSteward ? "weak" : null);
      const view = await entryPage.execute(db(), { entryId }, f.as(kind)).catch(() => null);
      expect("findings" in (view ?? {}), kind).toBe(isSteward);
      if (kind === "owner")
        expect(list!.elsewhere.find((vault) => vault.vaultId === vaultId)).toMatchObject({ open: 2, noSteward: false });
      else expect(list?.elsewhere.some((vault) => vault.vaultId === vaultId) ?? false, kind).toBe(false);
    }
  });

  test("what stands apart in a vault is counted for nobody but its own stewards", async () => {
    const name = `Apart ${number}`;
    const { folderId } = await createFolder.execute(db(), { parentId: vaultId, name }, f.as("administrator"));
    await give(db(), f.as("administrator"), folderId, f.ids.administrator, "steward");
    await give(db(), f.as("administrator"), folderId, f.ids.edit, "steward");
    await markSeparate.execute(db(), { folderId, separate: true }, f.as("administrator"));
    await add("weak outside");
    const before = await page("steward");
    const values = { name: "Inside", signInPage: "https://inside.example/in", password: "weak inside" };
    await addEntry.execute(db(), { parentId: folderId, captured: false, values }, f.as("edit"));
    await settle();
    const after = await page("steward");
    expect(after.entries).toBe(before.entries);
    const year = after.years.find(({ id }) => id === vaultId)!.months.at(-1)!;
    // Of the one outside: that it is weak, and not tested.
    expect(year.today + year.later).toBe(2);
    const theirs = await page("edit");
    expect(theirs.rows.map((row) => row.name)).toContain("Inside");
    expect(theirs.years.some(({ id }) => id === vaultId)).toBe(false);
    expect(JSON.stringify(theirs)).not.toContain("weak outside");
  });

  test("that a password is used twice is told only where both may be revealed, and nothing more is asked there", async () => {
    const { vaultId: hidden } = await createVault.execute(
      db(),
      { name: `Hidden ${number}`, description: "" },
      f.as("administrator"),
    );
    const add2 = async (password: string) => {
      const values = { name: `Hidden entry ${number}`, signInPage: "https://hidden.example/in", password };
      return (await addEntry.execute(db(), { parentId: hidden, captured: false, values }, f.as("administrator")))
        .entryId;
    };
    const [mine, theirs] = [await add("shared by both"), await add2("shared by both")];
    await settle();
    const reused = async (who: Kind) =>
      (await page(who)).rows.filter((row) => row.kind === "reused" && row.nodeId === mine).map(({ others }) => others);
    expect(await reused("administrator")).toEqual([[`Hidden entry ${number}`]]);
    expect(await reused("steward")).toEqual([]);
    const index = await db().access.fresh();
    expect(index.level(f.ids.steward, theirs, Date.now())).toBe("none");
    // Neither by how many there are.
    const { open: counted, acts } = await page("steward");
    expect(counted).toBe((await page("steward")).rows.length);
    expect(acts.change).toBe((await page("steward")).rows.filter(({ act }) => act === "change").length);
    await give(db(), f.as("administrator"), hidden, f.ids.edit, "steward");
    // Nor does anything tick in the other vault as a guess is written: who waits for that would learn it too.
    await change(mine, "a wrong guess");
    await settle();
    const last = (await db().db.select().from(outbox)).length;
    await change(mine, "shared by both");
    await settle();
    const told = (await db().db.select().from(outbox)).slice(last).flatMap(({ topics }) => topics);
    expect(told).toContain(`vault:${vaultId}`);
    expect(told).not.toContain(`vault:${hidden}`);
    await setApproval.execute(db(), { entryId: theirs, stewards: 1, minutes: 30 }, f.as("administrator"));
    await settle();
    expect(await reused("administrator")).toEqual([]);
  });
});

describe("put off", () => {
  test("until a date with a reason, which the other stewards read; it comes back by itself, or by Undo", async () => {
    const entryId = await add("weak for now");
    await settle();
    const row = (await page("steward")).rows.find((one) => one.nodeId === entryId && one.kind === "weak")!;
    const until = Date.now() + 7 * DAY;
    const putOff = (more: object = {}, who: Kind = "steward") =>
      putOffFindings.execute(db(), { ids: [row.id], until, why: "it closes in May", ...more }, f.as(who));
    for (const bad of [{ why: " " }, { until: Date.now() - 1 }, { until: Date.now() + 400 * DAY }])
      expect(await code(putOff(bad))).toBe("bad-input");
    for (const kind of ["owner", "edit", "use", "nothing"] as const)
      expect(await code(putOff({}, kind))).toBe("not-found");
    await give(db(), f.as("steward"), entryId, f.ids.edit, "edit");
    expect(await code(putOff({}, "edit"))).toBe("not-allowed");
    await putOff();
    const listed = async (at?: number) => {
      const view = await page("administrator", at);
      const here = (rows: typeof view.rows) => rows.filter((one) => one.id === row.id).length;
      return [here(view.rows), here(view.putOff)];
    };
    expect(await listed()).toEqual([0, 1]);
    const { putOff: shown } = await page("administrator");
    expect(shown.find((one) => one.id === row.id)!.putOff).toEqual({
      until,
      why: "it closes in May",
      by: "Person steward",
    });
    expect(await listed(until + 1)).toEqual([1, 0]);
    await undoPutOff.execute(db(), { ids: [row.id] }, f.as("administrator"));
    expect(await listed()).toEqual([1, 0]);
    const lines = await db()
      .db.select({ act: journal.act, details: journal.details })
      .from(journal)
      .where(eq(journal.node, entryId));
    expect(lines.map(({ act }) => act)).toEqual(expect.arrayContaining(["upkeep.putOffFindings", "upkeep.undoPutOff"]));
    await change(entryId, "strong now");
    await settle();
    expect(await code(putOff())).toBe("conflict");
  });
});

describe("of the house", () => {
  const house = (who: Kind = "owner") => houseFindings.execute(db(), {}, f.as(who));
  const found = async (kind: string) => (await house()).rows.filter((row) => row.kind === kind);

  test("backups, email that did not go out, ways in that rules require; to administrators alone", async () => {
    expect(await found("backup")).toEqual([{ kind: "backup", at: null }]);
    await db()
      .db.update(organisation)
      .set({ backedUpAt: Date.now() - 3 * DAY });
    expect(await found("backup")).toMatchObject([{ at: expect.any(Number) }]);
    await db()
      .db.update(organisation)
      .set({ backedUpAt: Date.now() - DAY });
    expect(await found("backup")).toEqual([]);

    expect([...(await found("mail")), ...(await found("no-mail"))]).toEqual([]);
    const mail = { subject: "A notice", madeAt: Date.now(), until: Date.now(), nextAt: Date.now(), makerId: "" };
    await db()
      .db.insert(mails)
      .values({ ...mail, id: uuidv7(), to: "a@b.example", failedAt: Date.now(), wrong: "550 no such box" });
    expect(await found("mail")).toMatchObject([{ count: 1, wrong: "550 no such box" }]);

    expect(await found("ways")).toEqual([]);
    const { rules } = await loadHome(db().db);
    const need = {
      groupId: null,
      needs: "passkey" as const,
      from: new Date(Date.now() - DAY).toISOString().slice(0, 10),
    };
    await db()
      .db.update(organisation)
      .set({ rules: { ...rules, waysIn: [need] } });
    expect(await found("ways")).toMatchObject([{ needs: "passkey", group: null, count: expect.any(Number) }]);
    await db().db.update(organisation).set({ rules });

    expect(await code(house("administrator"))).toBe("allowed");
    for (const kind of ["steward", "edit", "use", "nothing", "guest", "auditor"] as const)
      expect(await code(house(kind)), kind).toBe("not-allowed");
  });
});

describe("once a week", () => {
  const told = async (id: string) =>
    (
      await db()
        .db.select()
        .from(notices)
        .where(and(eq(notices.personId, id), eq(notices.about, "upkeep of the week")))
    ).sort((a, b) => a.at - b.at);

  test("begins on Monday at seven by the clock on the wall, also when that is put forward or back", () => {
    const began = (iso: string) => new Date(weekBegan(Date.parse(iso), "Europe/London")).toISOString();
    expect(began("2026-12-01T12:00:00Z")).toBe("2026-11-30T07:00:00.000Z");
    expect(began("2026-11-30T06:59:59Z")).toBe("2026-11-23T07:00:00.000Z");
    // The clocks go forward on Sunday, 28 March 2027, and back on 31 October.
    expect(began("2027-03-29T06:00:00Z")).toBe("2027-03-29T06:00:00.000Z");
    expect(began("2027-03-29T05:59:59Z")).toBe("2027-03-22T07:00:00.000Z");
    expect(began("2027-11-01T07:00:00Z")).toBe("2027-11-01T07:00:00.000Z");
    expect(began("2027-11-01T06:30:00Z")).toBe("2027-10-25T06:00:00.000Z");
  });

  test("each steward is told of their own, once, in place of the week before; nobody else is", async () => {
    const name = `Told of ${number}`;
    const entryId = await add("weak and told", { name });
    const [entry] = await db().db.select().from(entries).where(eq(entries.nodeId, entryId));
    await db().db.update(entryVersions).set({ refusedAt: Date.now() }).where(eq(entryVersions.id, entry!.versionId));
    await settle();
    const monday = weekBegan(Date.now() + 7 * DAY, "Europe/London") + 60_000;
    await tellOfWeek(db(), monday);
    await tellOfWeek(db(), monday + 60_000);
    const [one, ...more] = await told(f.ids.steward);
    expect(more).toEqual([]);
    expect(one!.text).toMatch(/^Upkeep: .*an answer now; .*can wait\.$/);
    expect(one!.text).not.toMatch(/today|tomorrow|weak and told/);
    for (const kind of ["owner", "use", "nothing", "guest", "auditor", "leaver"] as const)
      expect(await told(f.ids[kind]), kind).toEqual([]);
    await tellOfWeek(db(), monday + 7 * DAY);
    const [before, now] = await told(f.ids.steward);
    expect([before!.putAwayAt === null, now!.putAwayAt === null]).toEqual([false, true]);
    // Told late it would be read in the middle of the next.
    await tellOfWeek(db(), monday + 16 * DAY);
    expect(await told(f.ids.steward)).toHaveLength(2);
  });
});

test("looked at piece by piece it knows what one look at everything finds, and nothing is lost on the way", async () => {
  const house = await inProcess();
  try {
    const { galtry, standins } = house;
    await buildDemo(galtry, standins.sites, standins.address);
    const all = async () => {
      const rows = await galtry.db.all<{ line: string }>(sql`
        select kind || ' ' || node_id || ' ' || key || ' ' || detail as line from findings where ended_at is null order by 1`);
      return rows.map(({ line }) => line);
    };
    while (await rateSome(galtry, rater));
    while (await checkSome(galtry));
    const found = await all();
    expect(found.length).toBeGreaterThan(20);
    // What fails in between is looked at again.
    await galtry.db.run(sql`insert into unchecked (kind, ref) select 'entry', node_id from entries`);
    const { access } = galtry;
    Object.assign(galtry, { access: { fresh: () => Promise.reject(new Error("away")) } });
    await expect(checkSome(galtry)).rejects.toThrow("away");
    Object.assign(galtry, { access });
    const [left] = await galtry.db.all<{ n: number }>(sql`select count(*) as n from unchecked`);
    expect(left!.n).toBeGreaterThan(20);
    await galtry.db.run(sql`insert or ignore into unchecked (kind, ref) select 'access', id from nodes`);
    await galtry.db.run(sql`insert or ignore into unchecked (kind, ref) select 'person', id from persons`);
    while (await checkSome(galtry));
    expect(await all()).toEqual(found);
    // From nothing: the same again.
    await galtry.db.run(sql`delete from findings`);
    await galtry.db.run(sql`insert or ignore into unchecked (kind, ref) select 'access', id from nodes`);
    await galtry.db.run(sql`insert or ignore into unchecked (kind, ref) select 'entry', node_id from entries`);
    while (await checkSome(galtry));
    expect(await all()).toEqual(found);
  } finally {
    await house.close();
  }
});

test("what Galtry has found it cannot change at the site is changed by hand, until there is another password", async () => {
  const entryId = await add("weak-one");
  await settle();
  const changedBy = async () => {
    const page = await upkeepPage.execute(db(), { vaultId, act: null, find: "", most: 200 }, f.as("steward"));
    return page.rows.find((row) => row.nodeId === entryId && row.kind === "weak")!.changedBy;
  };
  expect(await changedBy()).toBe("galtry");
  const tried = async (outcome: ChangeOutcome, at: number) => {
    const [entry] = await db().db.select().from(entries).where(eq(entries.nodeId, entryId));
    await db().writer.write((tx) =>
      tx.insert(passwordChanges).values({
        ...{ id: uuidv7(), entryId, versionId: entry!.versionId, personId: f.ids.steward, process: "elsewhere:1" },
        ...{ begunAt: at, endedAt: at, outcome },
      }),
    );
  };
  const at = Date.now();
  for (const [i, outcome] of (["no-change-page", "stopped", "only-by-hand", "rejected"] as const).entries()) {
    await tried(outcome, at + i);
    expect(await changedBy()).toBe(outcome === "stopped" ? "galtry" : "hand-at-site");
  }
  await change(entryId, "another-weak-one");
  await settle();
  expect(await changedBy()).toBe("galtry");
});

test("a finding says nothing of what is secret", async () => {
  const entryId = await add("weak canary Zinnia");
  await settle();
  const { tx } = { tx: Object.assign(Object.create(db().db), { access: await db().access.fresh() }) };
  const me = {
    id: f.ids.steward,
    name: "",
    role: "member",
    guest: false,
    auditor: false,
    standing: "active",
    groups: [],
    held: [],
    ends: null,
  };
  const rows = await findingsAt(tx, me as never, entryId, Date.now());
  expect(rows.map(({ kind }) => kind)).toContain("weak");
  expect(JSON.stringify([rows, await page("steward"), await db().db.select().from(findings)])).not.toContain("Zinnia");
});
