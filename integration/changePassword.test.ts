/** Galtry changes a password at its site: on sites of awkward kinds, stopped at any step, and by nobody who may not. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, give, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import type { ChangeOutcome } from "../src/core/signin/changing";
import { endAccess } from "../src/server/access/grants";
import { setApproval } from "../src/server/access/requests/approvals";
import type { Caller } from "../src/server/caller";
import {
  entries,
  entryVersions,
  grants,
  journal,
  notices,
  passwordChanges,
  sightings,
  signIns,
} from "../src/server/database/schema";
import { updatePassword } from "../src/server/lanyard/keys";
import {
  beginChange,
  type ChangeEngines,
  changePasswordOf,
  decideChange,
  markPasswordSent,
  tryNewPassword,
  writeDownPassword,
} from "../src/server/signin/changePassword";
import type { ChangeTask, SignInTask } from "../src/server/signin/engine";
import { SignInFailure } from "../src/server/signin/guardedClient";
import { closeBrokenOff } from "../src/server/signin/sealed";
import { binEntry, eraseEntry } from "../src/server/vaults/bin";
import { moveAcross } from "../src/server/vaults/copying";
import { addEntry, changeEntry } from "../src/server/vaults/entries";
import { Rotating, rotateKey } from "../src/server/vaults/rotation";
import { loginOf } from "../src/server/vaults/sealing";
import { stepsPage } from "../src/server/vaults/steps";
import { openValues } from "../src/server/vaults/vaultKeys";
import { createVault } from "../src/server/vaults/vaults";
import { currentVersion } from "../src/server/vaults/writing";
import type { ChangeWay, ChangingSite } from "../standins/sites/changing";
import { type ChangingSites, startChangingSites } from "./changingSites";

const WAYS: ChangeWay[] = [
  ...(["ordinary", "current-not-wanted", "behind-links", "rules-after-refusal", "signs-out", "lies"] as const),
  ...(["late", "by-get", "asks-again", "by-mail", "answer-lost", "refuses", "code-after", "mail-after"] as const),
];
let app: InProcess;
let f: Fixture;
let sites: ChangingSites;
let port: number;
const db = () => app.galtry;
const SEEN_AS = { userAgent: "Mozilla/5.0 Test", acceptLanguage: "en-GB" };
const OLD = "canary-before/71";
type Person = Extract<Caller, { kind: "person" }>;
const as = (who: Parameters<Fixture["as"]>[0]) => f.as(who) as Person;

/** A site of its own for each test: what one changes no other sees. */
const siteOf = (way: ChangeWay, name: string = way): ChangingSite => sites.add(way, name, OLD);

const NAMES = [
  ...WAYS,
  ...["twice", "stopped", "asks", "edited", "rotated", "sent", "unsent", "used", "told", "moved", "coded"],
];

beforeAll(async () => {
  sites = await startChangingSites();
  ({ port } = sites);
  app = await inProcess({ GALTRY_ALLOWED_TARGETS: NAMES.map((name) => `${name}.localhost:${port}`).join(",") });
  f = await makeFixture(app.galtry);
});
afterAll(async () => {
  await app.close();
  await sites.close();
});

async function keep(site: ChangingSite): Promise<string> {
  const values = { name: site.name, signInPage: sites.addressOf(site), ...site.account };
  const { entryId } = await addEntry.execute(db(), { parentId: f.vaultId, captured: false, values }, f.as("steward"));
  for (const level of ["use", "reveal", "edit"] as const)
    await give(db(), f.as("steward"), entryId, f.ids[level], level);
  return entryId;
}

const change = (entryId: string, by = as("edit"), engines?: ChangeEngines) =>
  changePasswordOf(db(), by, SEEN_AS, entryId, new AbortController().signal, "", engines);
const tryAgain = (entryId: string) => tryNewPassword(db(), as("edit"), SEEN_AS, entryId, new AbortController().signal);

/** What Galtry would sign in with now. */
async function kept(entryId: string): Promise<string> {
  const [entry] = await db().db.select().from(entries).where(eq(entries.nodeId, entryId));
  return loginOf(await openValues(db().db, db().keys, await currentVersion(db().db, entry!))).password;
}
const rowOf = async (entryId: string) =>
  (await db().db.select().from(passwordChanges).where(eq(passwordChanges.entryId, entryId)))[0];
const pageOf = (entryId: string) => stepsPage.execute(db(), { entryId }, f.as("edit"));

describe("at a site", () => {
  test.each<[ChangeWay, ChangeOutcome]>([
    ["ordinary", "changed"],
    ["current-not-wanted", "changed"],
    ["behind-links", "changed"],
    ["signs-out", "changed"],
    ["asks-again", "changed"],
    ["answer-lost", "changed"],
    ["refuses", "rejected"],
    ["rules-after-refusal", "changed"],
    ["lies", "in-doubt"],
    ["late", "in-doubt"],
    ["by-get", "only-by-hand"],
    ["by-mail", "no-change-page"],
    ["code-after", "only-by-hand"],
    ["mail-after", "in-doubt"],
  ])("%s: %s, and what is kept is what works", async (way, outcome) => {
    const site = siteOf(way);
    const entryId = await keep(site);
    const found = await change(entryId);
    expect(found.outcome).toBe(outcome);
    expect(await kept(entryId)).toBe(site.password());
    expect(site.password() === OLD).toBe(outcome !== "changed");
    // Never more than once each: sites lock accounts.
    expect(site.tries().wrong).toBeLessThanOrEqual(1);
    const row = (await rowOf(entryId))!;
    expect([row.outcome, row.sealed !== null]).toEqual([outcome, outcome === "in-doubt"]);
    expect((await pageOf(entryId)).change).toMatchObject({ outcome, open: outcome === "in-doubt", running: false });
    const open = await db().db.select().from(signIns).where(eq(signIns.entryId, entryId));
    expect(open.filter(({ endedAt }) => endedAt === null)).toEqual([]);
  });

  test("a letter and a code are named", async () => {
    for (const [way, detail] of [
      ["by-mail", "the site sends an email with a link instead"],
      ["code-after", "the site asks for a code that confirms the change"],
      ["mail-after", "the site has sent an email: follow the link in it, then try the new password"],
    ] as const)
      expect((await change(await keep(siteOf(way)))).detail).toBe(detail);
  });

  test("a second page with a code gets the entry's own", async () => {
    const code = "JBSWY3DPEHPK3PXP";
    const site = sites.add("code-after", "coded", OLD, code);
    const entryId = await keep(site);
    expect((await change(entryId)).outcome).toBe("changed");
    expect(site.password()).not.toBe(OLD);
    expect(await kept(entryId)).toBe(site.password());
  });

  test("the next time it goes where it was changed before, and the old one is among the versions", async () => {
    const site = siteOf("behind-links", "twice");
    const entryId = await keep(site);
    expect((await change(entryId)).outcome).toBe("changed");
    const first = site.password();
    expect((await rowOf(entryId))!.at).toBe(`http://twice.localhost:${port}/me/secrets/new`);
    expect((await change(entryId)).outcome).toBe("changed");
    expect(site.password()).not.toBe(first);
    const versions = await db().db.select().from(entryVersions).where(eq(entryVersions.entryId, entryId));
    const passwords = await Promise.all(
      versions.map(async (version) => loginOf(await openValues(db().db, db().keys, version)).password),
    );
    expect(passwords).toEqual([OLD, first, site.password()]);
    expect((await db().db.select().from(passwordChanges).where(eq(passwordChanges.entryId, entryId))).length).toBe(1);
    // Nobody has seen it, and nothing says it.
    expect(await db().db.select().from(sightings).where(eq(sightings.entryId, entryId))).toHaveLength(1);
    const lines = JSON.stringify(await db().db.select().from(journal).where(eq(journal.node, entryId)));
    expect(lines).toContain("signIn.endChange");
    for (const password of passwords) expect(lines).not.toContain(password);
  });
});

test("a person may say where it is changed; a page of another site gets nothing", async () => {
  const site = siteOf("behind-links", "told");
  const entryId = await keep(site);
  const signal = new AbortController().signal;
  const at = (page: string) => changePasswordOf(db(), as("edit"), SEEN_AS, entryId, signal, page);
  for (const page of ["http://elsewhere.localhost/password", "javascript:alert(1)", "/settings", "about:blank"])
    await expect(at(page)).rejects.toMatchObject({ code: "bad-input", field: "page" });
  expect(site.tries().all).toBe(0);
  expect((await at(`http://told.localhost:${port}/me/secrets/new`)).outcome).toBe("changed");
  expect(await kept(entryId)).toBe(site.password());
});

test("where Lanyard saw it changed by hand, Galtry changes it the next time; never at a page of another site", async () => {
  const site = siteOf("behind-links", "told");
  const entryId = await keep(site);
  const learn = async (changePage: string, by: "edit" | "reveal" = "edit") => {
    const [entry] = await db().db.select().from(entries).where(eq(entries.nodeId, entryId));
    const input = { entryId, versionId: entry!.versionId, password: site.password(), changePage };
    await updatePassword.execute(db(), input, f.lanyard(by));
  };
  const page = async () => (await pageOf(entryId)).changePage;
  for (const other of [
    "http://elsewhere.localhost/password",
    "javascript:alert(1)",
    "ftp://told.localhost/x",
    "none",
  ]) {
    await learn(other);
    expect(await page()).toBe("");
  }
  await expect(learn(`http://told.localhost:${port}/elsewhere`, "reveal")).rejects.toThrow();
  await learn(`http://told.localhost:${port}/me/secrets/new?session=abc#top`);
  expect(await page()).toBe(`http://told.localhost:${port}/me/secrets/new`);
  expect((await change(entryId)).outcome).toBe("changed");
  expect(await kept(entryId)).toBe(site.password());
});

describe("where it is open which one works", () => {
  test("stewards are told, another change waits, and the new one is tried once more until it works", async () => {
    const entryId = await keep(siteOf("late", "stopped"));
    const site = sites.at.get("stopped.localhost")!;
    expect((await change(entryId)).outcome).toBe("in-doubt");
    const told = await db().db.select().from(notices).where(eq(notices.personId, f.ids.steward));
    expect(told.filter(({ text, nodeId }) => nodeId === entryId && text.includes("not certain"))).toHaveLength(1);
    await expect(change(entryId)).rejects.toMatchObject({ code: "conflict" });
    expect((await tryAgain(entryId)).outcome).toBe("in-doubt");
    // That the new one was turned away says nothing of the current version.
    const version = await currentVersion(
      db().db,
      (await db().db.select().from(entries).where(eq(entries.nodeId, entryId)))[0]!,
    );
    expect(version.refusedAt).toBeNull();
    site.catchUp();
    expect((await tryAgain(entryId)).outcome).toBe("changed");
    expect(await kept(entryId)).toBe(site.password());
    await expect(tryAgain(entryId)).rejects.toMatchObject({ code: "ended" });
  });

  test("its people decide: the old one stands, or the new one becomes a version", async () => {
    const entryId = await keep(siteOf("lies", "used"));
    expect((await change(entryId)).outcome).toBe("in-doubt");
    for (const who of ["use", "reveal", "nothing"] as const)
      await expect(decideChange.execute(db(), { entryId, keep: "old" }, f.as(who))).rejects.toThrow();
    await decideChange.execute(db(), { entryId, keep: "old" }, f.as("edit"));
    expect(await kept(entryId)).toBe(OLD);
    expect(await rowOf(entryId)).toMatchObject({ outcome: "old-chosen", sealed: null });
    expect((await change(entryId)).outcome).toBe("in-doubt");
    await decideChange.execute(db(), { entryId, keep: "new" }, f.as("edit"));
    expect(await kept(entryId)).not.toBe(OLD);
    // What a person decided is no proof, and is not called one.
    expect((await pageOf(entryId)).change).toMatchObject({ outcome: "new-chosen", open: false });
    await expect(decideChange.execute(db(), { entryId, keep: "new" }, f.as("edit"))).rejects.toMatchObject({
      code: "ended",
    });
  });

  test("what someone enters meanwhile is not written over", async () => {
    const site = siteOf("ordinary", "edited");
    const entryId = await keep(site);
    const [entry] = await db().db.select().from(entries).where(eq(entries.nodeId, entryId));
    const real = (await import("../src/server/signin/sealed")).defaultEngine(db());
    const signsIn = (await import("../src/server/signin/sealed")).defaultEngine(db());
    const meanwhile: ChangeEngines = {
      signsIn,
      changes: {
        change: async (task: ChangeTask) => {
          const sent = await real.change(task);
          const values = {
            name: site.name,
            signInPage: entry!.signInPage,
            userName: "office",
            password: "entered by hand",
          };
          await changeEntry.execute(db(), { entryId, baseVersionId: entry!.versionId, values }, f.as("steward"));
          return sent;
        },
      },
    };
    expect((await change(entryId, as("edit"), meanwhile)).outcome).toBe("in-doubt");
    expect(await kept(entryId)).toBe("entered by hand");
    expect((await tryAgain(entryId)).outcome).toBe("in-doubt");
    await decideChange.execute(db(), { entryId, keep: "new" }, f.as("edit"));
    expect(await kept(entryId)).toBe(site.password());
  });
});

describe("stopped", () => {
  const begun = async (name: string) => {
    const site = siteOf("ordinary", name);
    const entryId = await keep(site);
    const change = await beginChange.execute(db(), { entryId, again: false }, f.as("edit"));
    if (!change.begun) throw new Error("busy");
    const changeId = change.row.id;
    await writeDownPassword.execute(db(), { changeId, password: "written-down/55" }, f.as("edit"));
    return { site, entryId, changeId };
  };
  const stop = () => closeBrokenOff.execute(db(), { deadProcesses: [db().process] }, { kind: "server" });

  test("before it was sent: the old one stands, and nothing is asked", async () => {
    const { entryId } = await begun("unsent");
    await expect(change(entryId)).rejects.toMatchObject({ code: "conflict" });
    await stop();
    expect(await rowOf(entryId)).toMatchObject({ outcome: "stopped", sealed: null });
    expect((await change(entryId)).outcome).toBe("changed");
  });

  test("after it was sent: both stay, and it is asked which works", async () => {
    const { entryId, changeId } = await begun("sent");
    await markPasswordSent.execute(db(), { changeId }, f.as("edit"));
    await stop();
    const row = (await rowOf(entryId))!;
    expect([row.outcome, row.sealed !== null, await kept(entryId)]).toEqual(["in-doubt", true, OLD]);
    expect((await tryAgain(entryId)).outcome).toBe("in-doubt");
  });

  test("the new one survives a new key of its vault", async () => {
    const { entryId, changeId } = await begun("rotated");
    await markPasswordSent.execute(db(), { changeId }, f.as("edit"));
    await stop();
    const before = (await rowOf(entryId))!;
    await rotateKey.execute(db(), { vaultId: f.vaultId }, f.as("steward"));
    const rotating = new Rotating(db());
    await rotating.look();
    const after = (await rowOf(entryId))!;
    expect(after.keyVersion).toBeGreaterThan(before.keyVersion!);
    await decideChange.execute(db(), { entryId, keep: "new" }, f.as("edit"));
    expect(await kept(entryId)).toBe("written-down/55");
  });
});

test("the new one goes along to another vault, and away with its entry", async () => {
  const entryId = await keep(siteOf("lies", "moved"));
  expect((await change(entryId)).outcome).toBe("in-doubt");
  const { vaultId } = await createVault.execute(db(), { name: "Another vault" }, f.as("owner"));
  await give(db(), f.as("owner"), vaultId, f.ids.steward, "steward");
  const before = (await rowOf(entryId))!.sealed;
  await moveAcross.execute(db(), { nodeIds: [entryId], parentId: vaultId }, f.as("steward"));
  expect((await rowOf(entryId))!.sealed).not.toEqual(before);
  await decideChange.execute(db(), { entryId, keep: "new" }, f.as("steward"));
  expect(await kept(entryId)).not.toBe(OLD);
  await binEntry.execute(db(), { entryIds: [entryId] }, f.as("steward"));
  await eraseEntry.execute(db(), { entryIds: [entryId] }, f.as("steward"));
  expect(await rowOf(entryId)).toBeUndefined();
});

describe("nobody who may not", () => {
  test("Edit is needed, and a yes where an entry asks first", async () => {
    const site = siteOf("ordinary", "asks");
    const entryId = await keep(site);
    for (const who of ["use", "reveal", "nothing"] as const) await expect(change(entryId, as(who))).rejects.toThrow();
    await setApproval.execute(db(), { entryId, stewards: 1, minutes: 30 }, f.as("steward"));
    await expect(change(entryId)).rejects.toMatchObject({ code: "ask-first" });
    expect([site.tries().all, site.password()]).toEqual([0, OLD]);
  });

  test("whose access ends before it is sent sends nothing", async () => {
    const site = siteOf("ordinary");
    const entryId = await keep(site);
    const before = site.password();
    const { defaultEngine } = await import("../src/server/signin/sealed");
    const ends: ChangeEngines = {
      signsIn: defaultEngine(db()),
      changes: {
        change: async (task: ChangeTask) => {
          const theirs = await db().db.select().from(grants).where(eq(grants.nodeId, entryId));
          for (const { id, subjectId } of theirs)
            if (subjectId === f.ids.edit) await endAccess.execute(db(), { grantId: id }, f.as("steward"));
          return defaultEngine(db()).change(task);
        },
      },
    };
    expect((await change(entryId, as("edit"), ends)).outcome).toBe("stopped");
    expect([site.password(), await kept(entryId)]).toEqual([before, before]);
  });

  test("a current password that is wrong is sent once, and no new one is made", async () => {
    const failing: ChangeEngines = {
      signsIn: { signIn: (_: SignInTask) => Promise.reject(new Error("must not be asked")) },
      changes: { change: () => Promise.reject(new SignInFailure("wrong-password", "the site asks for them again")) },
    };
    const entryId = await keep(siteOf("ordinary", "unsent"));
    expect((await change(entryId, as("edit"), failing)).outcome).toBe("not-signed-in");
    await expect(change(entryId)).rejects.toMatchObject({ code: "conflict" });
    expect((await rowOf(entryId))!.sealed).toBeNull();
  });
});
