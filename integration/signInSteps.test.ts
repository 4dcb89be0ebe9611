/** Sign-in steps: learned, changed, brought back; tests with their reports; tests at night. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, give, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { USUAL_RULES } from "../src/core/access/houseRules";
import { stepFrom } from "../src/core/signin/learning";
import { NO_STEPS, type PageStep, type SignInSteps } from "../src/core/signin/steps";
import { setApproval } from "../src/server/access/requests/approvals";
import { entries, entryVersions, journal, notices, signIns, signInTests } from "../src/server/database/schema";
import { Refused } from "../src/server/refused";
import { changeRules } from "../src/server/rules/rules";
import type { SignedIn, SignInEngine } from "../src/server/signin/engine";
import { SignInFailure } from "../src/server/signin/guardedClient";
import { NightTests } from "../src/server/signin/nightTests";
import { entryFor, sealedSignIn } from "../src/server/signin/sealed";
import { testEntry, testOnce, testPicture } from "../src/server/signin/testing";
import { moveAcross } from "../src/server/vaults/copying";
import { addEntry, changeEntry } from "../src/server/vaults/entries";
import { entryPage } from "../src/server/vaults/entryPage";
import { changeSteps, learnSteps, restoreSteps, stepsPage } from "../src/server/vaults/steps";
import { createVault } from "../src/server/vaults/vaults";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
const SEEN_AS = { userAgent: "Mozilla/5.0 Test", acceptLanguage: "en-GB" };

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

const siteOf = (host: string) => app.standins.sites.find((one) => one.host === host)!;
let count = 0;

async function keep(host: string, steps: Partial<SignInSteps> = {}, password?: string): Promise<string> {
  const site = siteOf(host);
  const values = {
    name: `${site.name} ${++count}`,
    signInPage: app.standins.address(host, site.signInPath),
    userName: site.account.userName,
    password: password ?? site.account.password,
  };
  const { entryId } = await addEntry.execute(
    db(),
    { parentId: f.vaultId, captured: false, steps: { ...NO_STEPS, ...steps }, values },
    f.as("steward"),
  );
  for (const kind of ["use", "edit"] as const) await give(db(), f.as("steward"), entryId, f.ids[kind], kind);
  return entryId;
}

/** What Lanyard learns of a sign-in at a site that scripts draw. */
function learnedAt(host: string, sends: { to: string; userName: string; password: string; token?: string }): PageStep {
  const { account, signInPath } = siteOf(host);
  const given = sends.token ? [{ in: "meta" as const, name: "token", value: "a1b2c3d4e5f6" }] : [];
  const field = { name: "", id: "", label: "", placeholder: "" };
  return stepFrom({
    page: app.standins.address(host, signInPath),
    entered: [
      { what: "user-name", field, value: account.userName },
      { what: "password", field, value: account.password },
    ],
    pressed: { name: "", id: "", label: "Log in", value: "" },
    sent: {
      to: app.standins.address(host, sends.to),
      contentType: "application/json",
      body: JSON.stringify({ [sends.userName]: account.userName, [sends.password]: account.password }),
      headers: sends.token ? { [sends.token]: "a1b2c3d4e5f6" } : {},
      byScript: true,
    },
    given,
    typedBesides: [],
  })!;
}

const hazelrow = () =>
  learnedAt("hazelrow.localhost", { to: "/api/session", userName: "login", password: "secret", token: "X-Token" });

const signIn = (entryId: string, engine?: SignInEngine) =>
  sealedSignIn(db(), f.lanyard("use"), entryId, () => undefined, new AbortController().signal, engine);
const tested = (entryId: string, engine?: SignInEngine) =>
  testEntry(db(), f.as("edit"), SEEN_AS, entryId, new AbortController().signal, undefined, engine);

describe("steps that were learned", () => {
  test("sign in over plain HTTP where a script sends JSON with a token of the page, and not without them", async () => {
    expect((await signIn(await keep("hazelrow.localhost"))).outcome).toBe("drawn-by-scripts");
    const lands = app.standins.address("hazelrow.localhost", "/board");
    const answer = await signIn(await keep("hazelrow.localhost", { pages: [hazelrow()], lands }));
    expect(answer.outcome).toBe("signed-in");
    if (answer.outcome !== "signed-in") return;
    expect(answer.cookies.map(({ name }) => name)).toEqual(["fw"]);
    expect(JSON.stringify(answer)).not.toContain(siteOf("hazelrow.localhost").account.password);
  });

  test("call a wrong password wrong, and say so of a token that is gone, and of a session kept elsewhere", async () => {
    const wrong = await keep("hazelrow.localhost", { pages: [hazelrow()] }, "not-the-password-at-all");
    expect((await signIn(wrong)).outcome).toBe("wrong-password");
    const step = hazelrow();
    const lost = { ...step, sends: { ...step.sends!, headers: [{ ...step.sends!.headers[0]! }] } };
    lost.sends.headers[0]!.from = { in: "meta", name: "another" };
    expect((await signIn(await keep("hazelrow.localhost", { pages: [lost] }))).outcome).toBe("drawn-by-scripts");
    const stored = learnedAt("gorsefield.localhost", { to: "/api/tokens", userName: "email", password: "password" });
    expect((await signIn(await keep("gorsefield.localhost", { pages: [stored] }))).outcome).toBe("session-elsewhere");
  });

  test("send nothing to a host that is not the entry's, whatever they say", async () => {
    const step = hazelrow();
    const elsewhere = { ...step, sends: { ...step.sends!, to: app.standins.address("pellam.localhost", "/collect") } };
    const answer = await signIn(await keep("hazelrow.localhost", { pages: [elsewhere] }));
    expect(answer.outcome).toBe("address-not-allowed");
  });
});

describe("changing steps", () => {
  const someSteps = (over: Partial<SignInSteps>): SignInSteps => ({ ...NO_STEPS, ...over });

  test("is kept version by version, with the one that came with the entry, and any of them comes back", async () => {
    const entryId = await keep("pellam.localhost", { choices: { branch: "harbour" } });
    const change = (steps: SignInSteps) => changeSteps.execute(db(), { entryId, steps }, f.as("edit"));
    await change(someSteps({ signOutPage: "/out" }));
    await change(someSteps({ signOutPage: "/out" }));
    const seen = await stepsPage.execute(db(), { entryId }, f.as("edit"));
    expect(seen.versions.map(({ how, steps }) => [how, steps.signOutPage, steps.choices.branch])).toEqual([
      ["edited", "/out", undefined],
      ["learned", null, "harbour"],
    ]);
    await restoreSteps.execute(db(), { entryId, versionId: seen.versions[1]!.id }, f.as("edit"));
    const after = await stepsPage.execute(db(), { entryId }, f.as("edit"));
    expect(after.steps.choices).toEqual({ branch: "harbour" });
    expect(after.versions[0]!.how).toBe("restored");
    const other = await keep("pellam.localhost");
    await expect(
      restoreSteps.execute(db(), { entryId: other, versionId: seen.versions[0]!.id }, f.as("edit")),
    ).rejects.toMatchObject({ code: "not-found" });
  });

  test("is seen from Edit up alone", async () => {
    const entryId = await keep("pellam.localhost", { choices: { branch: "canary-choice" } });
    const page = await entryPage.execute(db(), { entryId }, f.as("use"));
    expect(JSON.stringify(page)).not.toContain("canary-choice");
    await expect(stepsPage.execute(db(), { entryId }, f.as("use"))).rejects.toMatchObject({ code: "not-allowed" });
  });

  test("by Lanyard adds to what is there, and takes no host that the person did not agree to", async () => {
    const entryId = await keep("hazelrow.localhost", { signOutPage: "/out", choices: { a: "1" } });
    const learn = (over: object = {}) =>
      learnSteps.execute(
        db(),
        { entryId, pages: [hazelrow()], lands: null, choices: { b: "2" }, hosts: [], ...over },
        f.lanyard("edit"),
      );
    const strange = { ...hazelrow(), page: "https://login.elsewhere.example/in" };
    await expect(learn({ pages: [strange] })).rejects.toMatchObject({ code: "not-allowed" });
    const sneaking = { ...hazelrow() };
    sneaking.sends = { ...sneaking.sends!, to: "https://login.elsewhere.example/in" };
    await expect(learn({ pages: [sneaking] })).rejects.toMatchObject({ code: "not-allowed" });
    await expect(learn({ pages: [] })).rejects.toMatchObject({ code: "conflict" });
    await learn();
    await learn({ pages: [strange], hosts: ["login.elsewhere.example"] });
    const { steps } = await stepsPage.execute(db(), { entryId }, f.as("edit"));
    expect(steps).toMatchObject({
      signOutPage: "/out",
      choices: { a: "1", b: "2" },
      hosts: ["login.elsewhere.example"],
    });
    await expect(
      learnSteps.execute(db(), { entryId, pages: [hazelrow()], lands: null, choices: {}, hosts: [] }, f.lanyard("use")),
    ).rejects.toMatchObject({ code: "not-allowed" });
  });

  test("of an entry that asks first waits for a steward's yes, as a reveal does", async () => {
    const entryId = await keep("hazelrow.localhost", { signOutPage: "/out" });
    const [first] = await stepsPage
      .execute(db(), { entryId }, f.as("edit"))
      .then(async () => {
        await changeSteps.execute(db(), { entryId, steps: NO_STEPS }, f.as("edit"));
        return stepsPage.execute(db(), { entryId }, f.as("edit"));
      })
      .then(({ versions }) => versions.slice(1));
    await setApproval.execute(db(), { entryId, stewards: 1, minutes: 30 }, f.as("steward"));
    const refused = { code: "ask-first" };
    const learned = { entryId, pages: [hazelrow()], lands: null, choices: {}, hosts: [] };
    await expect(learnSteps.execute(db(), learned, f.lanyard("edit"))).rejects.toMatchObject(refused);
    await expect(restoreSteps.execute(db(), { entryId, versionId: first!.id }, f.as("edit"))).rejects.toMatchObject(
      refused,
    );
    await expect(tested(entryId)).rejects.toMatchObject(refused);
    await expect(testPicture.execute(db(), { entryId }, f.as("edit"))).rejects.toMatchObject(refused);
  });
});

/** An engine that gets in, and takes a picture. */
const PICTURE = Uint8Array.from([0xff, 0xd8, 0xff, 1, 2, 3]);
const engineThat = (outcome: SignedIn | SignInFailure, seen: string[] = []): SignInEngine => ({
  signIn: async (task) => {
    seen.push(task.signInPage);
    task.onPage?.({
      ...{ by: "browser", at: task.signInPage, status: 200, kind: "sign-in", bySteps: false },
      ...{ entered: ["user-name", "password"], pressed: "Sign in", ms: 12 },
    });
    await task.login;
    task.onPicture?.(PICTURE);
    if (outcome instanceof SignInFailure) throw outcome;
    return outcome;
  },
});
const IN: SignedIn = { cookies: [], storage: [], landing: "https://pellam.example/in", by: "browser" };

describe("a test", () => {
  test("leaves a report page by page, without a value, for who may edit", async () => {
    const entryId = await keep("quillbrook.localhost");
    const { account } = siteOf("quillbrook.localhost");
    const values = {
      name: "Quillbrook",
      signInPage: app.standins.address("quillbrook.localhost", siteOf("quillbrook.localhost").signInPath),
      userName: account.userName,
      password: account.password,
      code: account.code,
    };
    const [entry] = await db().db.select().from(entries).where(eq(entries.nodeId, entryId));
    const { versionId } = entry!;
    await changeEntry.execute(db(), { entryId, baseVersionId: versionId, values }, f.as("edit"));
    expect((await tested(entryId)).outcome).toBe("signed-in");
    const { test: report } = await stepsPage.execute(db(), { entryId }, f.as("edit"));
    expect(report!.pages.map(({ kind, entered }) => [kind, entered])).toEqual([
      ["sign-in", ["user-name", "password"]],
      ["one-time-code-step", ["code"]],
      ["none", []],
    ]);
    expect(report).toMatchObject({ outcome: "signed-in", older: false, picture: false });
    expect(JSON.stringify(report)).not.toContain(account.password);
    expect(JSON.stringify(report)).not.toContain(account.userName);
  });

  test("leaves out of its report a password that the site writes into an address or onto a button", async () => {
    const entryId = await keep("pellam.localhost");
    const { password } = siteOf("pellam.localhost").account;
    const hostile: SignInEngine = {
      signIn: async (task) => {
        for (const form of [password, encodeURIComponent(password), btoa(password)])
          task.onPage?.({
            ...{
              by: "http",
              at: `http://pellam.localhost/welcome/${form}/x`,
              status: 200,
              kind: "none",
              bySteps: false,
            },
            ...{ entered: [], pressed: `Go on, ${form}`, ms: 1 },
          });
        throw new SignInFailure("gave-password-back", "it does");
      },
    };
    await tested(entryId, hostile);
    const [row] = await db().db.select().from(signInTests).where(eq(signInTests.entryId, entryId));
    expect(row!.pages.map(({ at, pressed }) => [at, pressed])).toEqual(Array(3).fill(["http://pellam.localhost", "…"]));
  });

  test("keeps its picture sealed, shows it from Edit up, and drops it when the entry moves to another vault", async () => {
    const entryId = await keep("pellam.localhost");
    await tested(entryId, engineThat(IN));
    const [row] = await db().db.select().from(signInTests).where(eq(signInTests.entryId, entryId));
    expect(Buffer.from(row!.picture!).includes(Buffer.from(PICTURE))).toBe(false);
    expect([...(await testPicture.execute(db(), { entryId }, f.as("edit")))]).toEqual([...PICTURE]);
    for (const kind of ["use", "guest", "nothing"] as const)
      await expect(testPicture.execute(db(), { entryId }, f.as(kind))).rejects.toBeInstanceOf(Refused);
    const { vaultId } = await createVault.execute(db(), { name: "Elsewhere", description: "" }, f.as("administrator"));
    await give(db(), f.as("administrator"), vaultId, f.ids.steward, "steward");
    await moveAcross.execute(db(), { nodeIds: [entryId], parentId: vaultId }, f.as("steward"));
    const [moved] = await db().db.select().from(signInTests).where(eq(signInTests.entryId, entryId));
    expect(moved).toMatchObject({ picture: null, keyVersion: null, outcome: "signed-in" });
    await expect(testPicture.execute(db(), { entryId }, f.as("steward"))).rejects.toMatchObject({ code: "not-found" });
  });

  test("of a login that does not open ends as one that came to nothing", async () => {
    const entryId = await keep("pellam.localhost");
    const { entry } = (await entryFor(db().db, entryId, null, Date.now()))!;
    const login = Promise.reject(new Error("does not open"));
    const { signal } = new AbortController();
    const came = await testOnce(db(), f.as("edit"), SEEN_AS, { entry, login }, signal, engineThat(IN));
    expect(came).toMatchObject({ outcome: "not-understood", session: null, picture: null });
    expect(came.detail).not.toContain("does not open");
  });

  test("that the site rejects is the last until something is changed", async () => {
    const entryId = await keep("stallwright.localhost", {}, "wrong-from-the-start-1");
    expect((await tested(entryId)).outcome).toBe("wrong-password");
    expect((await tested(entryId)).outcome).toBe("refused-before");
    expect((await stepsPage.execute(db(), { entryId }, f.as("edit"))).refused).toBe(true);
  });
});

describe("at night", () => {
  const DAY_MS = 24 * 3_600_000;
  /** In the night after next, half past two or half past three in London: colleagues sign in here by today's clock. */
  const NIGHT = (Math.floor(Date.now() / DAY_MS) + 3) * DAY_MS + 2.5 * 3_600_000;
  const nights = (engine: SignInEngine) => new NightTests(db(), () => engine, 0);
  const all = async (engine: SignInEngine, at: number) => {
    const done: string[] = [];
    const tests = nights(engine);
    for (let one = await tests.look(at); one; one = await tests.look(at)) done.push(one);
    return done;
  };
  const allow = (nightTests: boolean) => changeRules.execute(db(), { ...USUAL_RULES, nightTests }, f.as("owner"));

  test("nothing is tested where the house rules do not say so", async () => {
    const seen: string[] = [];
    expect(await all(engineThat(IN, seen), NIGHT)).toEqual([]);
    expect(seen).toEqual([]);
  });

  test("each that has worked is tested once a night, in the night; none that asks first, was rejected or never worked", async () => {
    await allow(true);
    const [works, never, rejected, asks, aside] = await Promise.all(
      ["tilbrook", "tilbrook", "tilbrook", "tilbrook", "tilbrook"].map(() => keep("tilbrook.localhost")),
    );
    for (const entryId of [works, rejected, asks, aside]) await signIn(entryId!, engineThat(IN));
    const [entry] = await db().db.select().from(entries).where(eq(entries.nodeId, rejected!));
    await db().db.update(entryVersions).set({ refusedAt: 1 }).where(eq(entryVersions.id, entry!.versionId));
    await setApproval.execute(db(), { entryId: asks!, stewards: 1, minutes: 30 }, f.as("steward"));
    await db().db.update(entries).set({ asideAt: 1 }).where(eq(entries.nodeId, aside!));
    expect(await all(engineThat(IN), NIGHT + 9 * 3_600_000)).toEqual([]);
    const done = await all(engineThat(IN), NIGHT);
    expect(done).toContain(works);
    for (const entryId of [never, rejected, asks, aside]) expect(done).not.toContain(entryId);
    expect(await all(engineThat(IN), NIGHT + 3_600_000)).toEqual([]);
    expect(await all(engineThat(IN), NIGHT + DAY_MS)).toContain(works);
    const [row] = await db().db.select().from(signIns).where(eq(signIns.entryId, works!)).orderBy(signIns.begunAt);
    expect(row).toBeDefined();
    const lines = await db().db.select().from(journal).where(eq(journal.act, "signIn.endNightTest"));
    expect(lines.length).toBeGreaterThan(0);
    expect(lines.every(({ person }) => person === null)).toBe(true);
  });

  test("a site that changed stands with its stewards once, and a wrong password is never sent again", async () => {
    const entryId = await keep("tilbrook.localhost");
    await signIn(entryId, engineThat(IN));
    const told = async () =>
      (await db().db.select().from(notices).where(eq(notices.personId, f.ids.steward))).filter(
        ({ text, nodeId }) => nodeId === entryId && text.includes("at night"),
      ).length;
    const failing = (name: "came-back" | "site-down" | "wrong-password") =>
      engineThat(new SignInFailure(name, "as it is"));
    await all(failing("site-down"), NIGHT + 2 * DAY_MS);
    expect(await told()).toBe(0);
    await all(failing("site-down"), NIGHT + 3 * DAY_MS);
    const first = await told();
    expect(first).toBeGreaterThan(0);
    await all(failing("came-back"), NIGHT + 4 * DAY_MS);
    expect(await told()).toBe(2 * first);
    // What is known to fail is not tried night after night.
    expect(await all(failing("came-back"), NIGHT + 5 * DAY_MS)).not.toContain(entryId);
    await signIn(entryId, engineThat(IN));
    await db()
      .db.update(signIns)
      .set({ begunAt: NIGHT + 5.5 * DAY_MS })
      .where(eq(signIns.entryId, entryId));
    expect(await all(failing("wrong-password"), NIGHT + 6 * DAY_MS)).toContain(entryId);
    await db()
      .db.update(signIns)
      .set({ begunAt: NIGHT + 6.5 * DAY_MS })
      .where(eq(signIns.entryId, entryId));
    expect(await all(engineThat(IN), NIGHT + 7 * DAY_MS)).not.toContain(entryId);
    await allow(false);
  });
});
