/** Who is told to look again, and when: over two processes' views of one file, and at the edges of time windows. */
import { afterAll, beforeAll, expect, test } from "vitest";
import { type Fixture, give, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { endAccess } from "../src/server/access/grants";
import { readConfiguration } from "../src/server/configuration";
import { frontDesk } from "../src/server/frontdesk/frontDesk";
import { closeGaltry, type Galtry, startGaltry } from "../src/server/galtry";
import { Hub } from "../src/server/live/hub";
import { changeVault, createVault } from "../src/server/vaults/vaults";

let app: InProcess;
let other: Galtry;
let f: Fixture;
let hubs: Hub[];

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  other = await startGaltry(readConfiguration(app.environment));
  hubs = [new Hub(app.galtry), new Hub(other)];
});
afterAll(async () => {
  await closeGaltry(other);
  await app.close();
});

/** Resolves with the milliseconds until the person is told, on each of the two. */
async function told(
  kind: Parameters<Fixture["as"]>[0],
  act: () => Promise<unknown>,
  within = 3000,
): Promise<(number | null)[]> {
  const start = Date.now();
  const heard: (number | null)[] = hubs.map(() => null);
  const stops = await Promise.all(
    hubs.map((hub, i) =>
      hub.listen(f.ids[kind], () => {
        heard[i] ??= Date.now() - start;
      }),
    ),
  );
  await act();
  while (heard.includes(null) && Date.now() - start < within) await new Promise((resolve) => setTimeout(resolve, 20));
  for (const stop of stops) stop();
  return heard;
}

test("a grant reaches the person it is for within a second, through both", async () => {
  for (const after of await told("nothing", () => give(app.galtry, f.as("steward"), f.entryId, f.ids.nothing, "use")))
    expect(after).toBeLessThan(1000);
});

test("a window that closes is told at its moment, and the next look finds nothing", async () => {
  const until = Date.now() + 700;
  await give(app.galtry, f.as("steward"), f.otherEntryId, f.ids.use, "use", until);
  await new Promise((resolve) => setTimeout(resolve, 300));
  const lines = async () => (await frontDesk.execute(app.galtry, {}, f.as("use"))).lines.map((line) => line.id);
  expect(await lines()).toContain(f.otherEntryId);
  const heard = await told("use", async () => undefined);
  for (const after of heard) expect(after).toBeLessThan(1400);
  expect(Date.now()).toBeGreaterThanOrEqual(until);
  expect(await lines()).not.toContain(f.otherEntryId);
});

test("what concerns others is not told", async () => {
  const { vaultId } = await createVault.execute(
    app.galtry,
    { name: "Elsewhere", description: "" },
    f.as("administrator"),
  );
  await new Promise((resolve) => setTimeout(resolve, 400));
  expect(
    await told(
      "guest",
      () =>
        changeVault.execute(app.galtry, { vaultId, name: "Elsewhere still", description: "" }, f.as("administrator")),
      800,
    ),
  ).toEqual([null, null]);
});

test("whoever was away is told that they missed something, and only then", async () => {
  const [hub] = hubs as [Hub, Hub];
  const seen = { seen: hub.cursor, at: Date.now() };
  expect(await hub.missed(seen)).toBe(false);
  const { grantId } = await give(app.galtry, f.as("steward"), f.entryId, f.ids.administrator, "edit");
  await new Promise((resolve) => setTimeout(resolve, 400));
  expect(await hub.missed(seen)).toBe(true);
  await endAccess.execute(app.galtry, { grantId }, f.as("steward"));
});
