/** Failures that nobody expected: said once, by name and place, without what was sent; and what is old is swept away. */
import { asc, count, eq, gt } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test, vi } from "vitest";
import { CANARY, type Fixture, give, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { endAccess } from "../src/server/access/grants";
import { accessChanges, entryVersions, grants, notices, outbox, sessions } from "../src/server/database/schema";
import { answering } from "../src/server/http";
import { keyList } from "../src/server/lanyard/keys";
import { failed, log } from "../src/server/log";
import { metricsText } from "../src/server/metrics";
import { Refused } from "../src/server/refused";
import { REQUEST_ID } from "../src/server/requestId";
import { sweepOld } from "../src/server/upkeep/sweeping";
import { revealField } from "../src/server/vaults/revealing";

const DAY = 86_400_000;
const SERVER = { kind: "server" } as const;
let app: InProcess;
let f: Fixture;
const db = () => app.galtry;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

const request = (path: string) => new Request(`http://localhost${path}`, { headers: { [REQUEST_ID]: "0badcafe" } });

describe("what nobody expected", () => {
  test("is an answer of its own with the id of its request, and one line without what was sent", async () => {
    const lines = vi.spyOn(log, "error").mockImplementation(() => undefined);
    const answer = await answering(request("/api/command/vaults.add"), async () => {
      throw new Error(`cannot keep ${CANARY}`, { cause: new TypeError(`not ${CANARY}`) });
    });
    expect(answer.status).toBe(500);
    const { refused } = (await answer.json()) as { refused: { code: string; message: string } };
    expect(refused.code).toBe("unexpected");
    expect(refused.message).toContain("0badcafe");
    expect(lines.mock.calls.length).toBe(1);
    const line = JSON.stringify(lines.mock.calls[0]);
    expect(line).toContain("0badcafe");
    expect(line).toContain("/api/command/vaults.add");
    expect(line).toContain("Error < TypeError");
    expect(line).not.toContain(CANARY);
    lines.mockRestore();
  });

  test("a refusal is no failure, and no line", async () => {
    const lines = vi.spyOn(log, "error").mockImplementation(() => undefined);
    const answer = await answering(request("/x"), async () => {
      throw new Refused("not-allowed", "No.");
    });
    expect([answer.status, lines.mock.calls.length]).toEqual([403, 0]);
    lines.mockRestore();
  });

  test("the same failure of regular work is a line a minute, which says how often", () => {
    const lines = vi.spyOn(log, "error").mockImplementation(() => undefined);
    for (let i = 0; i < 100; i++) failed("test.regular", new RangeError(CANARY), 1_000_000 + i * 100);
    failed("test.other", new RangeError(CANARY), 1_000_000);
    failed("test.regular", new RangeError(CANARY), 1_060_000);
    expect(lines.mock.calls.map(([line]) => (line as unknown as { act: string; times: number }).times)).toEqual([
      1, 1, 100,
    ]);
    lines.mockRestore();
  });
});

test("acts are counted by name and outcome, without whose they were", async () => {
  const input = { entryId: f.entryId, field: "password", how: "revealed" as const };
  // They are counted for each process, and other files of tests may have gone before in this one.
  const counted = async (outcome: string) => {
    const { text } = await metricsText();
    const line = new RegExp(`galtry_acts_total\\{act="${revealField.name}",outcome="${outcome}"\\} (\\d+)`);
    return Number(line.exec(text)?.[1] ?? 0);
  };
  const [done, refused] = [await counted("done"), await counted("refused")];
  await revealField.execute(db(), input, f.as("reveal"));
  await revealField.execute(db(), input, f.as("use")).catch(() => undefined);
  expect(await counted("done")).toBe(done + 1);
  expect(await counted("refused")).toBe(refused + 1);
  const { text } = await metricsText();
  for (const id of [CANARY, f.entryId, ...Object.values(f.ids)]) expect(text).not.toContain(id);
});

describe("what is old", () => {
  test("is swept away at its time and not before", async () => {
    const at = Date.now();
    const left = async (when: number) => {
      await sweepOld.execute(db(), {}, SERVER, when);
      const [row] = await db().db.select({ sessions: count() }).from(sessions);
      const [told] = await db().db.select({ notices: count() }).from(notices);
      return { ...row, ...told };
    };
    const now = await left(at);
    expect(now.sessions).toBeGreaterThan(0);
    expect(await left(at + 60 * DAY)).toEqual(now);
    expect((await left(at + 125 * DAY)).sessions).toBe(0);
  });

  test("the changes of access go, but for the last; the index answers what it did, and goes on", async () => {
    const before = (await db().access.fresh()).level(f.ids.reveal, f.entryId, Date.now());
    await sweepOld.execute(db(), {}, SERVER, Date.now() + 30 * DAY);
    expect((await db().db.select().from(accessChanges)).length).toBe(1);
    expect((await db().db.select().from(outbox)).length).toBe(1);
    expect((await db().access.fresh()).level(f.ids.reveal, f.entryId, Date.now())).toBe(before);
    const [grant] = (await db().db.select().from(grants).orderBy(asc(grants.id)).where(gt(grants.id, ""))).filter(
      (row) => row.subjectId === f.ids.reveal && row.validUntil === null,
    );
    await endAccess.execute(db(), { grantId: grant!.id }, f.as("steward"));
    expect((await db().access.fresh()).level(f.ids.reveal, f.entryId, Date.now())).toBe("none");
    await give(db(), f.as("steward"), f.entryId, f.ids.reveal, "reveal");
    expect((await db().access.fresh()).level(f.ids.reveal, f.entryId, Date.now())).toBe("reveal");
  });
});

test("a login that does not open takes none of the others away from Lanyard", async () => {
  await db().writer.write((tx) =>
    tx
      .update(entryVersions)
      .set({ sealed: Buffer.from("broken by somebody") })
      .where(eq(entryVersions.entryId, f.otherEntryId)),
  );
  const { keys } = await keyList.execute(db(), {}, f.lanyard("steward"));
  const markOf = (id: string) => keys.find((key) => key.id === id)?.userMark;
  expect(markOf(f.otherEntryId)).toBeNull();
  expect(markOf(f.entryId)).toEqual(expect.any(String));
});
