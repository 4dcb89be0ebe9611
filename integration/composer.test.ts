/** Rows are composed in a thread of their own: the same rows, the same refusals, and none lost when the thread ends. */
import { afterAll, beforeAll, expect, test } from "vitest";
import { type Fixture, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { Writer } from "../src/server/database/writer";
import { Composer } from "../src/server/vaults/composer";
import { beginImport, importChunk, publishImport } from "../src/server/vaults/importing";
import { revealField } from "../src/server/vaults/revealing";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  db().composer = new Composer();
});
afterAll(async () => {
  await db().composer?.close();
  await app.close();
});

const row = (name: string, signInPage = `https://${name}.example/in`) => ({
  kind: "website-login",
  values: { name, signInPage, userName: name, password: `made of ${name}` },
  folder: [],
});

test("what the thread has composed opens; what it refuses is refused in words; when it has ended this thread composes", async () => {
  const composer = db().composer!;
  await composer.warm();
  expect(composer.ready).toBe(true);
  const { importId } = await beginImport.execute(db(), { parentId: f.vaultId }, f.as("steward"));
  const send = (rows: object[]) => importChunk.execute(db(), { importId, rows }, f.as("steward"));
  const [{ entryIds }] = await Promise.all([send([row("auk"), row("bittern")]), send([row("crake")])]);
  await expect(send([row("dunlin", "nonsense")])).rejects.toMatchObject({ code: "bad-input" });
  await expect(send([{ ...row("egret"), kind: "no-such-kind" }])).rejects.toMatchObject({ code: "bad-input" });
  await composer.close();
  expect(composer.ready).toBe(false);
  const after = await send([row("finch")]);
  await publishImport.execute(db(), { importId }, f.as("steward"));
  for (const [entryId, name] of [
    [entryIds[0], "auk"],
    [entryIds[1], "bittern"],
    [after.entryIds[0], "finch"],
  ]) {
    const { value } = await revealField.execute(db(), { entryId, field: "password", how: "revealed" }, f.as("steward"));
    expect(value).toBe(`made of ${name}`);
  }
}, 60_000);

test("writes take turns; what can wait lets others go first, but not for ever", async () => {
  const writer = new Writer(() => ({ client: { close: () => undefined }, db: { transaction } }) as never);
  const order: string[] = [];
  async function transaction(work: (tx: unknown) => Promise<unknown>) {
    await new Promise((next) => setTimeout(next, 2));
    return work(null);
  }
  const write = (name: string, lowPriority: boolean) => writer.write(async () => order.push(name), lowPriority);
  await Promise.all([write("a", false), write("long 1", true), write("long 2", true), write("b", false)]);
  expect(order).toEqual(["a", "b", "long 1", "long 2"]);
  const failing = writer.write(async () => {
    throw new Error("no");
  });
  await expect(failing).rejects.toThrow("no");
  order.length = 0;
  const long = write("long", true);
  let over = false;
  void long.then(() => {
    over = true;
  });
  // As many others as come, one after another, each asked for before the one before it is over.
  for (let i = 0; !over && i < 2000; i++) await Promise.race([write(`short ${i}`, false), long]);
  expect(over).toBe(true);
  await writer.close();
}, 20_000);
