/** Changed by hand at its site: what Lanyard gets for it, who gets it, and that no new password is lost before it is decided. */
import { and, eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, give, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { endAccess } from "../src/server/access/grants";
import { setApproval } from "../src/server/access/requests/approvals";
import { entries, entryVersions, grants, journal, passwordChanges, sightings } from "../src/server/database/schema";
import { keyList } from "../src/server/lanyard/keys";
import { fillChange } from "../src/server/signin/changeByHand";
import { beginChange, decideChange, tryNewPassword } from "../src/server/signin/changePassword";
import { SignInFailure } from "../src/server/signin/guardedClient";
import { addEntry } from "../src/server/vaults/entries";
import { fingerprint, loginOf } from "../src/server/vaults/sealing";
import { setPasswordOnReveal } from "../src/server/vaults/signingIn";
import { openValues } from "../src/server/vaults/vaultKeys";
import { currentVersion } from "../src/server/vaults/writing";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
const OLD = "canary-old/93";
const NEW = "canary-new/94";
const OTHER = "canary-other/95";
const PAGE = "https://mill.example/me/password?from=mail#form";

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

async function keep(more: Record<string, unknown> = {}): Promise<string> {
  const values = { name: "Mill", signInPage: "https://mill.example/in", userName: "office", password: OLD, ...more };
  const { entryId } = await addEntry.execute(db(), { parentId: f.vaultId, captured: false, values }, f.as("steward"));
  for (const level of ["use", "reveal", "edit"] as const)
    await give(db(), f.as("steward"), entryId, f.ids[level], level);
  return entryId;
}

type Who = "use" | "reveal" | "edit" | "steward";
interface How {
  page?: string;
  current?: boolean;
  fresh?: { password: string; another: boolean } | null;
  how?: "filled in" | "copied";
}
const fill = (entryId: string, who: Who = "edit", more: How = {}) =>
  fillChange.execute(
    db(),
    {
      ...{ entryId, page: PAGE, how: "filled in", current: true, fresh: { password: NEW, another: false } },
      ...more,
    },
    f.lanyard(who),
  );
const refusal = (work: Promise<unknown>) =>
  work.then(
    () => "done",
    (error: { code?: string }) => error.code ?? String(error),
  );
const entryOf = async (entryId: string) =>
  (await db().db.select().from(entries).where(eq(entries.nodeId, entryId)))[0]!;
const kept = async (entryId: string): Promise<string> =>
  loginOf(await openValues(db().db, db().keys, await currentVersion(db().db, await entryOf(entryId)))).password;
const changeOf = async (entryId: string) =>
  (await db().db.select().from(passwordChanges).where(eq(passwordChanges.entryId, entryId)))[0];
const seenBy = async (entryId: string, password: string) =>
  (
    await db()
      .db.select()
      .from(sightings)
      .where(
        and(eq(sightings.entryId, entryId), eq(sightings.fingerprint, fingerprint(db().keys, "password", password))),
      )
  ).map(({ personId, how }) => [personId, how]);

describe("filled in", () => {
  test("the new one is kept before it leaves, both are seen by their person, and the current one stays", async () => {
    const entryId = await keep();
    expect(await fill(entryId)).toEqual({ current: OLD, fresh: NEW });
    expect(await changeOf(entryId)).toMatchObject({
      ...{ outcome: "by-hand", at: "https://mill.example/me/password", personId: f.ids.edit },
      sealed: expect.anything(),
    });
    expect(Buffer.from((await changeOf(entryId))!.sealed!).includes(NEW)).toBe(false);
    expect(await kept(entryId)).toBe(OLD);
    for (const one of [OLD, NEW]) expect(await seenBy(entryId, one)).toContainEqual([f.ids.edit, "filled in"]);
  });

  test("again it is the same one, for whoever goes on; another only where it is asked for", async () => {
    const entryId = await keep();
    await fill(entryId);
    expect(await fill(entryId, "steward", { fresh: { password: OTHER, another: false } })).toMatchObject({
      fresh: NEW,
    });
    expect(await fill(entryId, "edit", { fresh: { password: OTHER, another: true } })).toMatchObject({ fresh: OTHER });
    expect(await fill(entryId)).toMatchObject({ fresh: OTHER });
    expect(await seenBy(entryId, NEW)).toContainEqual([f.ids.steward, "filled in"]);
  });

  test("only what the page asks for leaves: one alone is no sighting of the other, and copied is said as such", async () => {
    const entryId = await keep();
    expect(await fill(entryId, "edit", { fresh: null })).toEqual({ current: OLD, fresh: null });
    expect(await changeOf(entryId)).toBeUndefined();
    const copied = await fill(entryId, "steward", { current: false, how: "copied" });
    expect(copied).toEqual({ current: null, fresh: NEW });
    expect(await seenBy(entryId, NEW)).toEqual([[f.ids.steward, "copied"]]);
    expect((await seenBy(entryId, OLD)).map(([id]) => id)).not.toContain(f.ids.use);
  });

  test("its line in the Journal says what and where, without a value", async () => {
    const entryId = await keep();
    await fill(entryId);
    const lines = await db().db.select().from(journal).where(eq(journal.node, entryId));
    const line = lines.find(({ act }) => act === "lanyard.fillChange")!;
    expect(JSON.parse(line.details)).toEqual({ how: "filled in", host: "mill.example", current: true, fresh: true });
    for (const one of [OLD, NEW]) expect(JSON.stringify(lines)).not.toContain(one);
  });
});

describe("decided", () => {
  test("the new one: it is the current version, its page is known the next time, and the old one is among the versions", async () => {
    const entryId = await keep();
    await fill(entryId);
    await decideChange.execute(db(), { entryId, keep: "new" }, f.lanyard("edit"));
    expect(await kept(entryId)).toBe(NEW);
    expect((await changeOf(entryId))!.sealed).toBeNull();
    expect((await entryOf(entryId)).changePage).toBe("https://mill.example/me/password");
    expect(await db().db.select().from(entryVersions).where(eq(entryVersions.entryId, entryId))).toHaveLength(2);
    const keyOf = async (who: "use" | "edit") =>
      (await keyList.execute(db(), {}, f.lanyard(who))).keys.find(({ id }) => id === entryId)!;
    expect((await keyOf("edit")).changePage).toBe("https://mill.example/me/password");
    expect((await keyOf("use")).changePage).toBeNull();
  });

  test("the old one: the new one is forgotten", async () => {
    const entryId = await keep();
    await fill(entryId);
    await decideChange.execute(db(), { entryId, keep: "old" }, f.lanyard("edit"));
    expect(await kept(entryId)).toBe(OLD);
    expect(await changeOf(entryId)).toMatchObject({ outcome: "old-chosen", sealed: null });
    expect((await entryOf(entryId)).changePage).toBe("");
  });

  test("tried before the site has it, both stay, and it is not said that the site has answered", async () => {
    const entryId = await keep();
    await fill(entryId);
    const refuses = {
      signIn: async () => {
        throw new SignInFailure("wrong-password", "the page that follows says so");
      },
    };
    const engines = { signsIn: refuses, changes: { change: refuses.signIn } };
    const { signal } = new AbortController();
    const seenAs = { userAgent: "Mozilla/5.0 Test", acceptLanguage: "en-GB" };
    const ended = await tryNewPassword(db(), f.as("edit"), seenAs, entryId, signal, engines);
    expect(ended).toEqual({ outcome: "by-hand", detail: "the page that follows says so" });
    expect(await fill(entryId)).toMatchObject({ current: OLD, fresh: NEW });
    expect((await currentVersion(db().db, await entryOf(entryId))).refusedAt).toBeNull();
  });

  test("meanwhile Galtry changes nothing itself", async () => {
    const entryId = await keep();
    await fill(entryId);
    expect(await refusal(beginChange.execute(db(), { entryId, again: false }, f.as("edit")))).toBe("conflict");
  });
});

describe("refused, and nothing is seen or kept", () => {
  const nothingOf = async (entryId: string, who: Who) => {
    expect(await changeOf(entryId)).toBeUndefined();
    expect((await seenBy(entryId, OLD)).map(([id]) => id)).not.toContain(f.ids[who]);
  };

  test.each<[string, How]>([
    ["another site", { page: "https://elsewhere.example/password" }],
    ["another site that begins alike", { page: "https://mill.example.elsewhere.example/password" }],
    ["without encryption", { page: "http://mill.example/password" }],
  ])("at %s", async (_, more) => {
    const entryId = await keep();
    expect(await refusal(fill(entryId, "edit", more))).toBe("not-allowed");
    await nothingOf(entryId, "edit");
  });

  test("to who has Use or Reveal, and to who had Edit", async () => {
    const entryId = await keep();
    for (const who of ["use", "reveal"] as const) {
      expect(await refusal(fill(entryId, who))).toBe("not-allowed");
      await nothingOf(entryId, who);
    }
    const [grant] = await db()
      .db.select()
      .from(grants)
      .where(and(eq(grants.nodeId, entryId), eq(grants.subjectId, f.ids.edit)));
    await endAccess.execute(db(), { grantId: grant!.id }, f.as("steward"));
    expect(await refusal(fill(entryId))).not.toBe("done");
    await nothingOf(entryId, "edit");
  });

  test("where a yes or the sign-in password is wanted first", async () => {
    const asks = await keep();
    await setApproval.execute(db(), { entryId: asks, stewards: 1, minutes: 30 }, f.as("steward"));
    expect(await refusal(fill(asks))).toBe("ask-first");
    await nothingOf(asks, "edit");
    const again = await keep();
    await setPasswordOnReveal.execute(db(), { entryId: again, askAgain: true }, f.as("steward"));
    expect(await refusal(fill(again))).toBe("prove-again");
    await nothingOf(again, "edit");
  });

  test("an entry without a site, and one whose other change is open", async () => {
    const door = await keep();
    await db().writer.write((tx) => tx.update(entries).set({ signInPage: "" }).where(eq(entries.nodeId, door)));
    expect(await refusal(fill(door))).toBe("not-allowed");
    const entryId = await keep();
    await fill(entryId);
    await db().writer.write((tx) =>
      tx.update(passwordChanges).set({ outcome: "in-doubt" }).where(eq(passwordChanges.entryId, entryId)),
    );
    expect(await refusal(fill(entryId))).toBe("conflict");
  });
});
