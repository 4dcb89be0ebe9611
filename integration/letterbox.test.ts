/** Letterboxes: somebody outside drops a secret into one folder, once, and learns nothing of what is there. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, beforeEach, expect, test } from "vitest";
import { type Fixture, give, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { carriesSecret, tracesOf } from "../src/core/signin/carries";
import {
  closeLetterbox,
  createLetterbox,
  letterboxList,
  lookAtLetterbox,
  sendToLetterbox,
} from "../src/server/access/handover/letterbox";
import { notices, OUTSIDE } from "../src/server/database/schema";
import { journalPage } from "../src/server/journal/page";
import { markLeaver } from "../src/server/people/leaving";
import { entryPage } from "../src/server/vaults/entryPage";
import { binFolder, createFolder } from "../src/server/vaults/folders";
import { revealField } from "../src/server/vaults/revealing";

let app: InProcess;
let f: Fixture;
let folderId: string;
const db = () => app.galtry;
const DAY = 86_400_000;
const SECRET = "canary-of-outside/73 quay";

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());
beforeEach(async () => {
  ({ folderId } = await createFolder.execute(db(), { parentId: f.vaultId, name: "Alarms" }, f.as("steward")));
});

const code = (promise: Promise<unknown>) =>
  promise.then(
    () => "allowed",
    (error) => error.code as string,
  );
const hang = async (more: object = {}, by: Kind = "steward") => {
  const input = { nodeId: folderId, name: "The new alarm", labels: ["Code", "Duress code"], until: Date.now() + DAY };
  const { address } = await createLetterbox.execute(db(), { ...input, ...more }, f.as(by));
  return new URL(address).hash.slice(1);
};
const look = (token: string, at?: number) => lookAtLetterbox.execute(db(), { token }, f.nobody, at);
const drop = (token: string, values = [SECRET, ""], at?: number) =>
  sendToLetterbox.execute(db(), { token, values, from: "Pia of the alarm firm" }, f.nobody, at);
const boxes = () => letterboxList.execute(db(), { nodeId: folderId }, f.as("steward"));

test("a stranger with the link reads who asks for what, drops it in once, and is told nothing of where", async () => {
  const token = await hang();
  const seen = await look(token);
  expect(seen).toMatchObject({
    from: "Person steward",
    name: "The new alarm",
    labels: ["Code", "Duress code"],
    end: null,
  });
  expect(JSON.stringify(seen)).not.toMatch(/Alarms|Shop & Tickets|Pellam/);
  expect(await drop(token)).toBe(null);
  expect(await code(drop(token))).toBe("ended");
  expect(await look(token)).toMatchObject({ end: "dropped", name: "", labels: [] });
  const [box] = await boxes();
  const entryId = box!.entryId!;
  const page = await entryPage.execute(db(), { entryId }, f.as("steward"));
  expect(page).toMatchObject({
    name: "The new alarm",
    description: "received through a letterbox from Pia of the alarm firm",
  });
  // What was left empty is no field; what is there is secret, and known to somebody outside alone.
  const fields = page.fields.filter(({ id }) => id.startsWith("extra:"));
  expect(fields.map(({ label, class: kind, value }) => [label, kind, value])).toEqual([["Code", "secret", null]]);
  expect(page.seenBy).toMatchObject([{ personId: OUTSIDE, name: "Someone outside" }]);
  const { value } = await revealField.execute(
    db(),
    { entryId, field: fields[0]!.id, how: "revealed" },
    f.as("steward"),
  );
  expect(value).toBe(SECRET);
  const told = async (kind: Kind) =>
    (await db().db.select().from(notices).where(eq(notices.personId, f.ids[kind]))).map(({ text }) => text);
  expect(await told("steward")).toContain("The new alarm was received through your letterbox.");
  expect(await told("administrator")).toContain("The new alarm was received from someone outside.");
  const { lines } = await journalPage.execute(db(), {}, f.as("steward"));
  expect(lines.map(({ says }) => says)).toContain("received The new alarm through a letterbox in Alarms");
});

test("what was dropped stands nowhere in the open in the database", async () => {
  const token = await hang();
  await drop(token, [SECRET, "second-canary/55 lime"]);
  const texts: string[] = [];
  const { client } = db().opened;
  const tables = (await client.execute("select name from sqlite_master where type = 'table'")).rows;
  for (const { name } of tables)
    for (const row of (await client.execute(`select * from "${name}"`)).rows)
      for (const value of Object.values(row))
        texts.push(value instanceof ArrayBuffer ? Buffer.from(value).toString("latin1") : String(value));
  expect(texts.length).toBeGreaterThan(200);
  expect(carriesSecret(texts, tracesOf(SECRET, ""))).toBe(false);
  expect(carriesSecret([...texts, Buffer.from(SECRET).toString("base64")], tracesOf(SECRET, ""))).toBe(true);
  // Nor does the link.
  expect(texts.some((text) => text.includes(token))).toBe(false);
});

test("it hangs at a folder, for its stewards, with an end, and takes what it asks for", async () => {
  for (const kind of ["edit", "use", "guest"] as const) expect(await code(hang({}, kind))).toBe("not-found");
  expect(await code(hang({ nodeId: f.vaultId }))).toBe("bad-input");
  expect(await code(hang({ until: Date.now() - 1 }))).toBe("bad-input");
  expect(await code(hang({ until: Date.now() + 91 * DAY }))).toBe("bad-input");
  expect(await code(hang({ labels: ["Code", "code"] }))).toBe("bad-input");
  const token = await hang();
  expect(await code(drop(token, ["only one"]))).toBe("bad-input");
  expect(await code(drop(token, [" ", ""]))).toBe("bad-input");
  expect(await code(drop(token, ["x".repeat(10_001), ""]))).toBe("bad-input");
  expect(await code(look("something else entirely"))).toBe("not-found");
  // HTML is text like any other.
  await drop(token, ["<script>alert(1)</script>", ""]);
  expect((await boxes())[0]).toMatchObject({ end: "dropped" });
});

test("it ends by itself, by its steward, with the folder, and with whoever hung it", async () => {
  const [late, closed, binned] = [await hang(), await hang(), await hang()];
  expect(await code(drop(late, undefined, Date.now() + DAY))).toBe("ended");
  expect((await look(late, Date.now() + DAY)).end).toBe("expired");
  const letterboxId = (await boxes())[1]!.id;
  expect(await code(closeLetterbox.execute(db(), { letterboxId }, f.as("use")))).toBe("not-found");
  await closeLetterbox.execute(db(), { letterboxId }, f.as("steward"));
  expect(await code(drop(closed))).toBe("ended");
  await give(db(), f.as("administrator"), folderId, f.ids.edit, "steward");
  const theirs = await hang({}, "edit");
  await markLeaver.execute(db(), { personId: f.ids.edit, why: "" }, f.as("owner"));
  expect(await code(drop(theirs))).toBe("ended");
  expect((await look(theirs)).end).toBe("closed");
  await binFolder.execute(db(), { folderId }, f.as("steward"));
  expect(await code(drop(binned))).toBe("ended");
});
