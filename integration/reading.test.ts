/** Reads over thousands of rows run in a thread of their own: the same answers, the same refusals, also when it ends. */
import { afterAll, beforeAll, expect, test } from "vitest";
import { type Fixture, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { unpack } from "../src/core/packed";
import { ReadingThread } from "../src/server/reading/readingThread";
import { vaultLedger } from "../src/server/vaults/vaults";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
const ledger = (as: string) => vaultLedger.execute(db(), { vaultId: f.vaultId }, f.as(as as "steward"));

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(async () => {
  await db().reading?.close();
  await app.close();
});

test("what the thread reads is what this one reads; refusals keep their reason; when it has ended this thread reads", async () => {
  const here = await ledger("steward");
  const reading = new ReadingThread(db());
  db().reading = reading;
  expect(await reading.read({ name: "vaults.vaultLedger", input: {}, caller: f.as("steward"), at: 1 })).toBeNull();
  await expect.poll(() => reading.ready, { timeout: 30_000 }).toBe(true);
  const asked: string[] = [];
  const read = reading.read.bind(reading);
  reading.read = async (ask) => {
    const answer = await read(ask);
    asked.push(answer === null ? "itself" : Object.keys(answer)[0]!);
    return answer;
  };
  expect(unpack((await ledger("steward")).rows)).toEqual(unpack(here.rows));
  await expect(ledger("nothing")).rejects.toMatchObject({ name: "Refused", code: "not-found" });
  await expect(vaultLedger.execute(db(), { vaultId: "x" }, f.as("steward"))).rejects.toMatchObject({
    code: "bad-input",
  });
  expect(asked).toEqual(["result", "refused"]);
  await reading.close();
  expect(unpack((await ledger("steward")).rows)).toEqual(unpack(here.rows));
  expect(asked).toEqual(["result", "refused", "itself"]);
}, 60_000);

test("the thread writes nothing and answers to no command", async () => {
  const reading = new ReadingThread(db());
  await expect.poll(() => reading.ready, { timeout: 30_000 }).toBe(true);
  const ask = { name: "vaults.make", input: { name: "Not made" }, caller: f.as("owner"), at: Date.now() };
  expect(await reading.read(ask)).toBeNull();
  await reading.close();
}, 60_000);
