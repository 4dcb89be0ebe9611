/** Handover links: opened once, by one; closed by wrong words; erased when they end; not opened by the database. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { CANARY, CANARY_USER, type Fixture, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { fromBase64, fromBase64Url, fromUtf8, open, randomBytes, toBase64Url } from "../src/core/crypto";
import {
  createHandover,
  handoverBinding,
  handoverList,
  lookAtHandover,
  openHandover,
  sweepHandovers,
  withdrawHandover,
} from "../src/server/access/handover/handover";
import { handovers, notices, OUTSIDE, sightings } from "../src/server/database/schema";
import { tokenHash } from "../src/server/people/tokens";
import { binEntry } from "../src/server/vaults/bin";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
const MINUTE = 60_000;
const opener = () => toBase64Url(randomBytes(32));

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

async function make(more: object = {}) {
  const input = {
    entryId: f.otherEntryId,
    fields: ["userName", "password"],
    until: Date.now() + 60 * MINUTE,
    openings: 1,
  };
  const { address } = await createHandover.execute(db(), { ...input, ...more }, f.as("steward"));
  const [token, key] = new URL(address).hash.slice(1).split(".");
  return { address, token: token!, key: key! };
}
const press = (token: string, by = opener(), more: object = {}, at = Date.now()) =>
  openHandover.execute(db(), { token, opener: by, ...more }, f.nobody, at);
const read = async (opened: string, token: string, key: string) =>
  JSON.parse(fromUtf8(await open(fromBase64Url(key), fromBase64(opened), handoverBinding(tokenHash(token)))));

describe("a handover link", () => {
  test("gives the copy to the browser whose button was pressed, and only to it", async () => {
    const { token, key } = await make();
    const look = await lookAtHandover.execute(db(), { token, opener: opener() }, f.nobody);
    expect(look).toMatchObject({ from: "Person steward", end: null, taken: false, needsWord: false, openedAt: [] });
    // A robot that looks uses nothing up, and learns neither what it is nor what is in it.
    for (const secret of [CANARY, CANARY_USER, "Quillbrook"]) expect(JSON.stringify(look)).not.toContain(secret);
    const first = opener();
    const outside = () => db().db.select().from(sightings).where(eq(sightings.personId, OUTSIDE));
    expect(await outside()).toEqual([]);
    const { opened } = await press(token, first);
    expect((await read(opened!, token, key)).fields.map((one: { value: string }) => one.value)).toEqual([
      CANARY_USER,
      CANARY,
    ]);
    await expect(press(token)).rejects.toMatchObject({ code: "ended" });
    // A lost answer is fetched again, for ten minutes.
    expect(await press(token, first)).toEqual({ opened, triesLeft: 5 });
    await expect(press(token, first, {}, Date.now() + 11 * MINUTE)).rejects.toMatchObject({ code: "ended" });
    const other = await lookAtHandover.execute(db(), { token, opener: opener() }, f.nobody);
    expect(other).toMatchObject({ taken: true, openedAt: [expect.any(Number)] });
    expect((await outside()).map(({ how, field }) => `${how} ${field}`)).toEqual(["handed over password"]);
  });

  test("of two who open it at the same instant one gets it", async () => {
    const { token } = await make();
    const answers = await Promise.allSettled([press(token), press(token), press(token)]);
    expect(answers.filter((one) => one.status === "fulfilled")).toHaveLength(1);
  });

  test("guesses at the word are stopped at the fifth, all at once too; its maker is told and the copy is erased", async () => {
    const { token } = await make({ word: "walnut" });
    // Nothing of the copy comes with a wrong word: the key is in the link already.
    expect(await press(token, opener(), { word: "hazel" })).toEqual({ opened: null, triesLeft: 4 });
    const many = await Promise.allSettled(
      Array.from({ length: 12 }, (_, i) => press(token, opener(), { word: `guess ${i}` })),
    );
    expect(many.filter((one) => one.status === "fulfilled")).toHaveLength(4);
    await expect(press(token, opener(), { word: "walnut" })).rejects.toMatchObject({ code: "ended" });
    const [row] = await db()
      .db.select()
      .from(handovers)
      .where(eq(handovers.tokenHash, tokenHash(token)));
    expect(row!.sealed).toBeNull();
    const told = await db().db.select().from(notices).where(eq(notices.personId, f.ids.steward));
    expect(told.some(({ text }) => text.includes("was closed after 5 wrong passphrases or codes"))).toBe(true);
    // As it is said on the telephone: nobody says which letters are capitals.
    const right = await make({ word: "Green  Walnut" });
    expect((await press(right.token, opener(), { word: " green walnut " })).opened).not.toBeNull();
  });

  test("the database, stolen before it is opened, does not open the copy, not even with every key of Galtry", async () => {
    const { token, key } = await make();
    const [row] = await db()
      .db.select()
      .from(handovers)
      .where(eq(handovers.tokenHash, tokenHash(token)));
    const { keys } = db();
    for (const known of [keys.vaults, keys.fingerprints, keys.journal, keys.database])
      await expect(open(known, row!.sealed!, handoverBinding(row!.tokenHash))).rejects.toThrow();
    // Neither the key nor the token stand anywhere in it: every column of every table is searched.
    const { rows: tables } = await db().opened.client.execute("select name from sqlite_master where type = 'table'");
    for (const { name } of tables) {
      const { rows } = await db().opened.client.execute(`select * from "${name}"`);
      const text = JSON.stringify(rows, (_, value) =>
        value instanceof ArrayBuffer || ArrayBuffer.isView(value)
          ? Buffer.from(value as ArrayBuffer).toString("base64url")
          : value,
      );
      expect(`${name} ${text.includes(key) || text.includes(token)}`).toBe(`${name} false`);
    }
  });

  test("withdrawn, run out, with its entry in the bin: it opens nothing and is erased, not hidden", async () => {
    const links = [await make(), await make({ until: Date.now() + MINUTE }), await make()];
    const list = () => handoverList.execute(db(), { entryId: f.otherEntryId }, f.as("steward"));
    const {
      links: [latest],
    } = await list();
    await withdrawHandover.execute(db(), { handoverId: latest!.id }, f.as("steward"));
    await expect(press(links[2]!.token)).rejects.toMatchObject({ message: "This link was withdrawn." });
    const late = Date.now() + 2 * MINUTE;
    await expect(press(links[1]!.token, opener(), {}, late)).rejects.toMatchObject({
      message: "This link has expired.",
    });
    await sweepHandovers.execute(db(), {}, { kind: "server" }, late);
    const sealed = async (token: string) =>
      (
        await db()
          .db.select()
          .from(handovers)
          .where(eq(handovers.tokenHash, tokenHash(token)))
      )[0]!.sealed;
    expect(await sealed(links[1]!.token)).toBeNull();
    expect(await sealed(links[0]!.token)).not.toBeNull();
    await binEntry.execute(db(), { entryIds: [f.otherEntryId] }, f.as("steward"));
    await expect(press(links[0]!.token)).rejects.toMatchObject({ code: "ended" });
    await sweepHandovers.execute(db(), {}, { kind: "server" });
    expect(await sealed(links[0]!.token)).toBeNull();
  });

  test("is made by stewards, of values that are there, for a time that ends", async () => {
    const input = { entryId: f.entryId, fields: ["password"], until: Date.now() + MINUTE, openings: 1 };
    for (const kind of ["use", "reveal", "edit"] as const)
      await expect(createHandover.execute(db(), input, f.as(kind))).rejects.toMatchObject({ code: "not-allowed" });
    await expect(createHandover.execute(db(), input, f.as("nothing"))).rejects.toMatchObject({ code: "not-found" });
    for (const more of [
      { until: Date.now() - 1 },
      { until: Date.now() + 100 * 86_400_000 },
      { fields: [] },
      { fields: ["code"] },
      { fields: ["extra:nothing"] },
      { openings: 0 },
    ])
      await expect(createHandover.execute(db(), { ...input, ...more }, f.as("steward"))).rejects.toMatchObject({
        code: "bad-input",
      });
    const several = await createHandover.execute(db(), { ...input, openings: 2 }, f.as("steward"));
    const [token] = new URL(several.address).hash.slice(1).split(".");
    for (const _ of [1, 2]) expect((await press(token!)).opened).not.toBeNull();
    await expect(press(token!)).rejects.toMatchObject({ code: "ended" });
  });
});
