/** The keys of the house: an owner sees how old each is and rotates them, and is told of nothing that lies in a vault. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, expect, test } from "vitest";
import { CANARY, type Fixture, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { entryVersions, journal } from "../src/server/database/schema";
import { houseKeys, rotateVaultKeys, stopVaultKeys } from "../src/server/rules/houseKeys";
import { revealField } from "../src/server/vaults/revealing";
import { Rotating } from "../src/server/vaults/rotation";
import { createVault } from "../src/server/vaults/vaults";

let app: InProcess;
let f: Fixture;
let otherVault: string;
const db = () => app.galtry;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  const made = await createVault.execute(db(), { name: "Depot", description: "" }, f.as("administrator"));
  otherVault = made.vaultId;
});
afterAll(() => app.close());

const read = (kind: Kind = "owner") => houseKeys.execute(db(), {}, f.as(kind));
const stateOf = async (vaultId = f.vaultId) => (await read()).vaults.find((row) => row.vaultId === vaultId)!;
const rotate = (vaultIds: string[], caller = f.as("owner")) => rotateVaultKeys.execute(db(), { vaultIds }, caller);

test("an owner reads how old each key is, by the names of vaults and nothing in them", async () => {
  const seen = await read();
  expect(seen.vaults.map(({ name }) => name)).toContain("Depot");
  expect(seen.vaults.every(({ version, rotating }) => version === 1 && !rotating)).toBe(true);
  expect(seen.root.number).toBe(1);
  expect(Math.abs(seen.root.at - Date.now())).toBeLessThan(600_000);
  for (const text of ["Pellam", CANARY]) expect(JSON.stringify(seen)).not.toContain(text);
  for (const kind of ["administrator", "steward", "auditor", "guest"] as const)
    await expect(read(kind)).rejects.toMatchObject({ code: "not-allowed" });
});

test("several are rotated at once, after showing that it is them; what is under way is passed over", async () => {
  const longAgo = { ...f.as("owner"), provedAt: Date.now() - 3_600_000 };
  await expect(rotate([f.vaultId], longAgo)).rejects.toMatchObject({ code: "prove-again" });
  expect((await rotate([f.vaultId, otherVault])).map(({ name }) => name)).toContain("Depot");
  expect(await stateOf()).toMatchObject({ version: 2, rotating: true, stopped: false });
  await expect(rotate([f.vaultId, otherVault])).rejects.toMatchObject({ code: "conflict" });
  const lines = await db().db.select().from(journal).where(eq(journal.act, "rules.rotateVaultKeys"));
  expect(
    lines
      .filter(({ outcome }) => outcome === "done")
      .map(({ vault }) => vault)
      .sort(),
  ).toEqual([f.vaultId, otherVault].sort());
});

test("it is stopped and resumed; at the end everything lies under the new key and opens", async () => {
  const stop = (stopped: boolean) =>
    stopVaultKeys.execute(db(), { vaultIds: [f.vaultId, otherVault], stopped }, f.as("owner"));
  expect(await stop(true)).toHaveLength(2);
  expect(await stop(true)).toHaveLength(0);
  expect(await stateOf()).toMatchObject({ rotating: true, stopped: true });
  await new Rotating(db()).look();
  const under = async () =>
    new Set(
      (await db().db.select().from(entryVersions).where(eq(entryVersions.vaultId, f.vaultId))).map(
        ({ keyVersion }) => keyVersion,
      ),
    );
  expect(await under()).toEqual(new Set([1]));
  await stop(false);
  const rotating = new Rotating(db());
  await rotating.look();
  await rotating.look(Date.now() + 120_000);
  expect(await under()).toEqual(new Set([2]));
  expect(await stateOf()).toMatchObject({ version: 2, rotating: false, stopped: false });
  const input = { entryId: f.entryId, field: "password", how: "revealed" } as const;
  expect((await revealField.execute(db(), input, f.as("reveal"))).value).toBe(CANARY);
});

test("keys of vaults that are not there are none", async () => {
  await expect(rotate([f.entryId])).rejects.toMatchObject({ code: "conflict" });
});
