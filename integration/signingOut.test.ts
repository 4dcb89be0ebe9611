/** Kept sessions of people whose access has ended: forgotten, however many are kept of people who still have it. */
import { eq, isNotNull } from "drizzle-orm";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { type Fixture, give, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { endAccess } from "../src/server/access/grants";
import { bulkInsert } from "../src/server/database/bulk";
import { grants, signIns } from "../src/server/database/schema";
import { uuidv7At } from "../src/server/ids";
import { suspendPerson } from "../src/server/people/persons";
import { SigningOut } from "../src/server/signin/signingOut";
import { binEntry } from "../src/server/vaults/bin";

const DAY = 86_400_000;
let app: InProcess;
let f: Fixture;
const db = () => app.galtry;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());
beforeEach(() => db().writer.write((tx) => tx.delete(signIns)));

async function keep(
  kind: "use" | "reveal" | "edit" | "steward",
  count: number,
  begunAt = Date.now(),
  entryId = f.entryId,
) {
  const rows = Array.from({ length: count }, () => ({
    ...{
      id: uuidv7At(begunAt),
      entryId,
      versionId: "v",
      personId: f.ids[kind],
      lanyardId: "l",
      how: "sealed" as const,
    },
    ...{ queueKey: "q", process: "elsewhere:1", begunAt, endedAt: begunAt, outcome: "signed-in" },
    ...{ jar: Buffer.from("sealed"), keyVersion: 1 },
  }));
  await db().writer.write((tx) => bulkInsert(tx, signIns, rows));
}

const kept = async (kind: "use" | "reveal" | "edit" | "steward") =>
  (await db().db.select().from(signIns).where(isNotNull(signIns.jar))).filter((row) => row.personId === f.ids[kind])
    .length;

const grantOf = async (personId: string) =>
  (await db().db.select().from(grants).where(eq(grants.subjectId, personId))).find((row) => row.validUntil === null)!;

describe("with more kept than are looked at in one go", () => {
  test("a withdrawn grant ends its sessions at the next look, and nobody else's", async () => {
    await keep("use", 700);
    const looks = new SigningOut(db());
    await looks.look();
    await keep("reveal", 3);
    await endAccess.execute(db(), { grantId: (await grantOf(f.ids.reveal)).id }, f.as("steward"));
    expect(await looks.look()).toBe(3);
    expect([await kept("use"), await kept("reveal")]).toEqual([700, 0]);
    await give(db(), f.as("steward"), f.entryId, f.ids.reveal, "reveal");
  });

  test("what ended while no Galtry was running is found after a few looks", async () => {
    await keep("use", 1_200, Date.now() - DAY);
    await keep("reveal", 2, Date.now() - DAY, f.otherEntryId);
    const looks = new SigningOut(db());
    let ended = 0;
    for (let i = 0; i < 3; i++) ended += (await looks.look())!;
    expect([ended, await kept("use"), await kept("reveal")]).toEqual([2, 1_200, 0]);
  });

  test("a grant that runs out ends them at that moment", async () => {
    await keep("use", 600);
    await keep("steward", 1);
    await keep("edit", 4);
    const until = Math.ceil(Date.now() / 3_600_000 + 1) * 3_600_000;
    await endAccess.execute(db(), { grantId: (await grantOf(f.ids.edit)).id }, f.as("steward"));
    await give(db(), f.as("steward"), f.entryId, f.ids.edit, "use", until);
    const looks = new SigningOut(db());
    for (let i = 0; i < 3; i++) await looks.look(until - 1_000);
    expect(await kept("edit")).toBe(4);
    expect(await looks.look(until)).toBe(4);
    expect([await kept("use"), await kept("steward"), await kept("edit")]).toEqual([600, 1, 0]);
    await give(db(), f.as("steward"), f.entryId, f.ids.edit, "edit");
  });
});

test("sessions that are a month old are forgotten without a visit", async () => {
  await keep("use", 1, Date.now() - 31 * DAY);
  await keep("use", 1, Date.now() - 29 * DAY);
  expect(await new SigningOut(db()).look()).toBe(1);
  expect(await kept("use")).toBe(1);
});

test("two looks never overlap", async () => {
  await keep("reveal", 20, Date.now(), f.otherEntryId);
  const looks = new SigningOut(db());
  expect((await Promise.all([looks.look(), looks.look()])).sort()).toEqual([20, null]);
});

test("whoever is suspended, and whoever used what is binned now, is signed out at the next look", async () => {
  await keep("use", 2);
  await keep("steward", 2, Date.now(), f.otherEntryId);
  const looks = new SigningOut(db());
  await looks.look();
  await suspendPerson.execute(db(), { personId: f.ids.use, why: "" }, f.as("owner"));
  expect(await looks.look()).toBe(2);
  await binEntry.execute(db(), { entryIds: [f.otherEntryId] }, f.as("steward"));
  expect(await looks.look()).toBe(2);
  expect([await kept("use"), await kept("steward")]).toEqual([0, 0]);
});
