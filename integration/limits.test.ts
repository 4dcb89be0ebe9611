/** What one person, session or stranger can make Galtry do, and what its files and keys are open to. */
import { mkdirSync, readdirSync, statSync, symlinkSync } from "node:fs";
import path from "node:path";
import { and, eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test, vi } from "vitest";
import { type Fixture, give, makeFixture, PASSWORD } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { createLetterbox } from "../src/server/access/handover/letterbox";
import { draftSlip } from "../src/server/access/slip/slip";
import { readConfiguration } from "../src/server/configuration";
import { journal } from "../src/server/database/schema";
import { startGaltry } from "../src/server/galtry";
import { journalPage } from "../src/server/journal/page";
import { makeRootKey } from "../src/server/keys/rootKey";
import { Hub } from "../src/server/live/hub";
import { createGroup } from "../src/server/people/groups";
import { setMember } from "../src/server/people/members";
import * as password from "../src/server/people/password";
import { proveAgain } from "../src/server/people/sessions";
import { acceptLink } from "../src/server/people/setUp";
import { signIn } from "../src/server/people/signIn";
import { GuardedClient } from "../src/server/signin/guardedClient";
import { addPiece, beginAttachment, finishAttachment } from "../src/server/vaults/attachments";
import { revealField } from "../src/server/vaults/revealing";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
const HOUR = 3_600_000;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

const code = (promise: Promise<unknown>) =>
  promise.then(
    () => "allowed",
    (error) => (error.code as string) ?? String(error),
  );
const tally = (codes: readonly string[]) =>
  Object.fromEntries([...new Set(codes)].map((one) => [one, codes.filter((other) => other === one).length]));

describe("guesses at a sign-in password, all at once", () => {
  const guess = (i: number) =>
    signIn.execute(
      db(),
      { mail: "use@tarrowick.example", password: `guess number ${i}` },
      { ...f.nobody, address: "192.0.2.90" },
    );

  test("are eight tries, and no more are hashed", async () => {
    const verify = vi.spyOn(password, "verifyPassword");
    const codes = await Promise.all(Array.from({ length: 60 }, (_, i) => code(guess(i))));
    expect(tally(codes)).toEqual({ allowed: 8, "too-many": 52 });
    expect(verify.mock.calls.length).toBe(8);
    verify.mockRestore();
  });

  test("so for somebody who is signed in and gives it again", async () => {
    const again = (word: string) => proveAgain.execute(db(), { password: word }, f.as("reveal"));
    const codes = await Promise.all(Array.from({ length: 30 }, (_, i) => code(again(`guess ${i}`))));
    expect(tally(codes)).toEqual({ allowed: 8, "too-many": 22 });
  });

  test("one that is right gives the others back", async () => {
    const right = () =>
      signIn.execute(
        db(),
        { mail: "edit@tarrowick.example", password: PASSWORD },
        { ...f.nobody, address: "192.0.2.91" },
      );
    for (let i = 0; i < 20; i++) expect(await right()).toMatchObject({ signedIn: true });
  });

  test("a link that is none costs no hash", async () => {
    const hash = vi.spyOn(password, "hashPassword");
    expect(await code(acceptLink.execute(db(), { token: "x", password: PASSWORD }, f.nobody))).not.toBe("allowed");
    expect(hash).not.toHaveBeenCalled();
    hash.mockRestore();
  });
});

test("whoever is refused without end fills the Journal no further", async () => {
  const at = Date.now() + HOUR;
  const refused = () =>
    code(revealField.execute(db(), { entryId: f.entryId, field: "password", how: "revealed" }, f.as("use", at), at));
  for (let i = 0; i < 320; i++) expect(await refused()).toBe("not-allowed");
  const lines = await db()
    .db.select()
    .from(journal)
    .where(and(eq(journal.person, f.ids.use), eq(journal.outcome, "refused"), eq(journal.at, at)));
  expect(lines.length).toBe(42);
  expect(lines.slice(-2).map(({ details }) => JSON.parse(details).times)).toEqual([100, 300]);
  const { lines: said } = await journalPage.execute(db(), {}, f.as("owner"));
  expect(said.map(({ says }) => says)).toContainEqual(expect.stringContaining("300 times in a quarter of an hour"));
});

test("of the streams of one session the oldest end where there would be more than six", async () => {
  const hub = new Hub(db());
  const closed: number[] = [];
  for (let i = 0; i < 600; i++)
    await hub.listen(f.ids.use, () => {}, { owner: "one session", close: () => closed.push(i) });
  expect(hub.listening).toBe(6);
  expect(closed).toEqual(Array.from({ length: 594 }, (_, i) => i));
  await hub.listen(f.ids.use, () => {}, { owner: "another session", close: () => {} });
  expect(hub.listening).toBe(7);
});

test("an owner without a level reads that there is a file and a letterbox, and not what they are called", async () => {
  const { attachmentId } = await beginAttachment.execute(
    db(),
    { entryId: f.entryId, name: "canary-file.txt", size: 4 },
    f.as("steward"),
  );
  await addPiece.execute(db(), { attachmentId, number: 0, piece: btoa("plan") }, f.as("steward"));
  await finishAttachment.execute(db(), { attachmentId }, f.as("steward"));
  const until = Date.now() + 24 * HOUR;
  await createLetterbox.execute(
    db(),
    { nodeId: f.folderId, name: "Canary of the alarm", labels: ["Code"], until },
    f.as("steward"),
  );
  const readBy = async (kind: "owner" | "steward") =>
    (await journalPage.execute(db(), {}, f.as(kind))).lines.map(({ says }) => says).join("\n");
  expect(await readBy("owner")).not.toMatch(/canary/i);
  expect(await readBy("owner")).toContain("attached “a file” to an entry in Shop & Tickets");
  expect(await readBy("steward")).toContain("canary-file.txt");
  expect(await readBy("steward")).toContain("Canary of the alarm");
});

test("whose keeping of a group is over drafts no change of it", async () => {
  const { groupId } = await createGroup.execute(db(), { name: "Season" }, f.as("owner"));
  const until = Date.now() + HOUR;
  await setMember.execute(db(), { groupId, personId: f.ids.edit, keeper: true, from: null, until }, f.as("owner"));
  const change = { type: "member" as const, groupId, personId: f.ids.use, held: { from: null, until: null } };
  const draft = (at: number) =>
    code(draftSlip.execute(db(), { changes: [change], revision: 0 } as never, f.as("edit", at), at));
  expect(await draft(Date.now())).toBe("allowed");
  expect(await draft(until)).toBe("not-allowed");
});

describe("files and keys", () => {
  test("what Galtry writes is for its own account alone, also what lay there before", async () => {
    await give(db(), f.as("steward"), f.entryId, f.ids.nothing, "use");
    const data = path.join(app.folder, "data");
    for (const name of readdirSync(data))
      expect(`${name} ${(statSync(path.join(data, name)).mode & 0o077).toString(8)}`).toBe(`${name} 0`);
    expect(statSync(data).mode & 0o077).toBe(0);
  });

  test("a new root key is never written where the data lies, by whatever way", () => {
    const data = path.join(app.folder, "data");
    const link = path.join(app.folder, "elsewhere");
    symlinkSync(data, link);
    for (const place of [path.join(data, "new.key"), path.join(data, "deep", "new.key"), path.join(link, "new.key")])
      expect(() => makeRootKey(place, data)).toThrow("within the data folder");
    mkdirSync(path.join(app.folder, "data-keys"));
    makeRootKey(path.join(app.folder, "data-keys", "new.key"), data);
  });

  test("a data folder that is open to others is closed at the next start", async () => {
    const other = path.join(app.folder, "open");
    mkdirSync(other, { mode: 0o755 });
    const started = await startGaltry(
      readConfiguration({
        ...app.environment,
        GALTRY_DATA: other,
        GALTRY_ROOT_KEY_FILE: path.join(app.folder, "open.key"),
      }),
    );
    await started.writer.close();
    started.opened.client.close();
    expect(statSync(other).mode & 0o077).toBe(0);
  });
});

test.each([
  "[4000::1]",
  "[1fff::1]",
  "[::ffff:10.0.0.1]",
  "[64:ff9b::a00:1]",
  "[fec0::1]",
  "[2001:db8::1]",
  "[3fff::1]",
])("%s is no address of the open internet", async (host) => {
  const client = new GuardedClient({
    allows: () => true,
    allowedTargets: new Set(),
    ownPort: 1,
    plainHttp: true,
  });
  const sent = client.send(`https://${host}/`, { method: "GET", headers: {}, signal: AbortSignal.timeout(2_000) });
  await expect(sent).rejects.toMatchObject({ failure: "address-not-allowed" });
  await client.close();
});
