/** Sealed sign-in against every practice site: who lets one in, and how each of the others is refused by name. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, give, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { isAllowed } from "../lanyard/worker/cookies";
import { endAccess } from "../src/server/access/grants";
import { signIns } from "../src/server/database/schema";
import { frontDesk } from "../src/server/frontdesk/frontDesk";
import type { SealedAnswer } from "../src/server/signin/sealed";
import { sealedSignIn } from "../src/server/signin/sealed";
import { testEntry } from "../src/server/signin/testing";
import { addEntry, changeEntry } from "../src/server/vaults/entries";
import { entryPage } from "../src/server/vaults/entryPage";
import { tryPasswordAgain } from "../src/server/vaults/signingIn";

let app: InProcess;
let fixture: Fixture;

let never: ReturnType<typeof signIn>;
beforeAll(async () => {
  app = await inProcess();
  fixture = await makeFixture(app.galtry);
  // It takes the whole of its time: the other tests go on meanwhile.
  never = signIn(await keep("marrowgate.localhost", { path: "/never", userName: "waits for ever" }));
});
afterAll(() => app.close());

interface Keep {
  password?: string;
  hosts?: string[];
  choices?: Record<string, string>;
  path?: string;
  /** Another than the site's own: sign-ins to one account wait for each other. */
  userName?: string;
}

async function keep(host: string, { password, hosts = [], choices = {}, path, userName }: Keep = {}): Promise<string> {
  const site = app.standins.sites.find((one) => one.host === host)!;
  const steps = { hosts: hosts.map((name) => new URL(app.standins.address(name)).host), choices, signOutPage: null };
  const { entryId } = await addEntry.execute(
    app.galtry,
    {
      parentId: fixture.vaultId,
      captured: false,
      steps,
      values: {
        name: site.name,
        signInPage: app.standins.address(host, path ?? site.signInPath),
        userName: userName ?? site.account.userName,
        password: password ?? site.account.password,
        code: site.account.code,
      },
    },
    fixture.as("steward"),
  );
  await give(app.galtry, fixture.as("steward"), entryId, fixture.ids.use, "use");
  return entryId;
}

const signIn = (
  entryId: string,
  kind: "use" | "steward" = "use",
  signal = new AbortController().signal,
): Promise<SealedAnswer> => sealedSignIn(app.galtry, fixture.lanyard(kind), entryId, () => undefined, signal);

/** The page that the handed-over cookies open. */
async function landingOf(answer: SealedAnswer): Promise<string> {
  if (answer.outcome !== "signed-in") throw new Error(`not signed in: ${answer.outcome}`);
  const url = new URL(answer.landing);
  const cookie = answer.cookies
    .filter((one) => url.hostname === one.domain || url.hostname.endsWith(`.${one.domain}`))
    .map((one) => `${one.name}=${one.value}`)
    .join("; ");
  const local = new URL(url);
  local.hostname = "127.0.0.1";
  const { request } = await import("undici");
  const reply = await request(local, { headers: { host: url.host, cookie } });
  return reply.body.text();
}

describe("sites that let one in", () => {
  test.each<[string, Keep]>([
    ["pellam.localhost", {}],
    ["stallwright.localhost", {}],
    ["hallslate.localhost", {}],
    ["marlpit.localhost", {}],
    ["ottersby.localhost", {}],
    ["fennick.localhost", { choices: { branch: "harbour" } }],
    ["brightmere.localhost", { hosts: ["brightmere-id.localhost"] }],
    ["tilbrook.localhost", {}],
    ["castlewick.localhost", {}],
  ])("%s", async (host, kept) => {
    const answer = await signIn(await keep(host, kept));
    expect(answer.outcome).toBe("signed-in");
    expect(await landingOf(answer)).toContain("Signed in as");
    expect(JSON.stringify(answer)).not.toContain(app.standins.sites.find((one) => one.host === host)!.account.password);
  });

  test("quillbrook.localhost, with a code; two at once do not send the same one", { timeout: 90_000 }, async () => {
    const entryId = await keep("quillbrook.localhost");
    const answers = await Promise.all([signIn(entryId), signIn(entryId, "steward")]);
    expect(answers.map((answer) => answer.outcome)).toEqual(["signed-in", "signed-in"]);
  });
});

describe("a test", () => {
  const seenAs = { userAgent: "Mozilla/5.0 Test", acceptLanguage: "en-GB" };
  const tested = (entryId: string, kind: "steward" | "use" = "steward") =>
    testEntry(app.galtry, fixture.as(kind), seenAs, entryId, new AbortController().signal);

  test("tries an entry once: the result stands with it, nobody holds a session, and it counts as no use", async () => {
    const entryId = await keep("pellam.localhost");
    expect(await tested(entryId)).toMatchObject({ outcome: "signed-in", detail: "" });
    const [row] = await app.galtry.db.select().from(signIns).where(eq(signIns.entryId, entryId));
    expect(row).toMatchObject({ how: "tested", outcome: "signed-in", jar: null });
    expect(row!.signedOutAt).not.toBeNull();
    const view = await entryPage.execute(app.galtry, { entryId }, fixture.as("steward"));
    expect(view.lastSignIn).toMatchObject({ outcome: "signed-in" });
    expect(view.story[0]!.says).toContain("tested");
    const { lines } = await frontDesk.execute(app.galtry, {}, fixture.as("steward"));
    expect(lines.find((line) => line.id === entryId)!.lastUsedAt).toBeNull();
  });

  test("a wrong password is tried once and then by nobody; below Edit nobody tries", async () => {
    const entryId = await keep("stallwright.localhost", { password: "not-the-one-that-is-kept" });
    expect((await tested(entryId)).outcome).toBe("wrong-password");
    expect((await tested(entryId)).outcome).toBe("refused-before");
    await expect(tested(entryId, "use")).rejects.toMatchObject({ code: "not-allowed" });
  });
});

describe("sites that a sealed sign-in refuses, by name", () => {
  test.each<[string, string, Keep]>([
    ["larkbill.localhost", "drawn-by-scripts", {}],
    ["almery.localhost", "http-basic", {}],
    ["sorrelton.localhost", "challenge", {}],
    ["dunmere.localhost", "gave-password-back", {}],
    ["fennick.localhost", "not-understood", {}],
    ["brightmere.localhost", "address-not-allowed", {}],
    ["hallslate.localhost", "wrong-password", { password: "not-the-one-that-is-kept" }],
    ["stallwright.localhost", "wrong-password", { password: "not-the-one-that-is-kept" }],
    ["marlpit.localhost", "wrong-password", { password: "nicht-das-richtige" }],
    ["marrowgate.localhost", "address-not-allowed", { path: "/internal" }],
    ["marrowgate.localhost", "address-not-allowed", { path: "/to-galtry" }],
    ["marrowgate.localhost", "too-much", { path: "/endless" }],
    ["marrowgate.localhost", "too-much", { path: "/loop/1" }],
    ["marrowgate.localhost", "too-much", { path: "/bomb" }],
    ["marrowgate.localhost", "address-not-allowed", { path: "/elsewhere" }],
    ["marrowgate.localhost", "form-unsafe", { path: "/by-get" }],
    ["marrowgate.localhost", "not-understood", { path: "/again" }],
  ])("%s: %s %o", async (host, outcome, kept) => {
    const answer = await signIn(await keep(host, kept), "steward");
    expect(answer.outcome).toBe(outcome);
    const password = kept.password ?? app.standins.sites.find((one) => one.host === host)!.account.password;
    expect(JSON.stringify(answer)).not.toContain(password);
  });

  test("a colleague with Use reads the name of the failure, not its detail", async () => {
    const entryId = await keep("almery.localhost");
    expect(await signIn(entryId, "use")).toMatchObject({ outcome: "http-basic", detail: null });
    expect(await signIn(entryId, "steward")).toMatchObject({
      outcome: "http-basic",
      detail: expect.stringContaining("401"),
    });
  });
});

describe("what is sent, and how often", () => {
  test("after a refusal nobody sends that version again, until somebody with Edit says so or it changes", async () => {
    const entryId = await keep("tilbrook.localhost", { password: "three-tries-and-out" });
    const posts = () =>
      app.standins.seen.filter((one) => one.host === "tilbrook.localhost" && one.method === "POST").length;
    const before = posts();
    expect((await signIn(entryId)).outcome).toBe("wrong-password");
    expect((await signIn(entryId)).outcome).toBe("refused-before");
    expect((await signIn(entryId, "steward")).outcome).toBe("refused-before");
    expect(posts()).toBe(before + 1);
    await tryPasswordAgain.execute(app.galtry, { entryId }, fixture.as("steward"));
    expect((await signIn(entryId)).outcome).toBe("wrong-password");
    expect(posts()).toBe(before + 2);
    const { reveal, name, signInPage } = await entryPage.execute(app.galtry, { entryId }, fixture.as("steward"));
    const right = app.standins.sites.find((one) => one.host === "tilbrook.localhost")!.account.password;
    await changeEntry.execute(
      app.galtry,
      { entryId, baseVersionId: reveal!.versionId, captured: false, values: { name, signInPage, password: right } },
      fixture.as("steward"),
    );
    expect((await signIn(entryId)).outcome).toBe("signed-in");
  });

  test("cookies for a parent domain or for Galtry's own site go no further", async () => {
    const answer = await signIn(await keep("marrowgate.localhost", { path: "/cookies" }));
    if (answer.outcome !== "signed-in") throw new Error(answer.outcome);
    expect(answer.cookies.map((cookie) => cookie.name)).toEqual(["good"]);
    // Lanyard trusts the server no more than the site.
    const key = { signInPage: "http://marrowgate.localhost:1/x", hosts: [], reach: "site" as const };
    const cookie = { ...answer.cookies[0]!, domain: "localhost" };
    expect(isAllowed(cookie, key, app.url)).toBe(false);
    expect(isAllowed({ ...cookie, domain: "pellam.localhost" }, key, app.url)).toBe(false);
    expect(isAllowed({ ...cookie, domain: "marrowgate.localhost" }, key, app.url)).toBe(true);
  });

  test("cookies end no later than the access", async () => {
    const entryId = await keep("hallslate.localhost");
    const until = Date.now() + 3_600_000;
    await give(app.galtry, fixture.as("steward"), entryId, fixture.ids.reveal, "use", until);
    const answer = await sealedSignIn(
      app.galtry,
      fixture.lanyard("reveal"),
      entryId,
      () => undefined,
      new AbortController().signal,
    );
    if (answer.outcome !== "signed-in") throw new Error(answer.outcome);
    for (const cookie of answer.cookies) expect(cookie.expires).toBe(Math.floor(until / 1000));
  });

  test("access that ends while the site answers hands nothing over", async () => {
    const entryId = await keep("hallslate.localhost");
    const { grantId } = await give(app.galtry, fixture.as("steward"), entryId, fixture.ids.edit, "use");
    const slow = sealedSignIn(
      app.galtry,
      fixture.lanyard("edit"),
      entryId,
      () => undefined,
      new AbortController().signal,
      {
        signIn: async () => {
          await endAccess.execute(app.galtry, { grantId }, fixture.as("steward"));
          return { cookies: [], storage: [], landing: "http://hallslate.localhost/" };
        },
      },
    );
    expect(await slow).toMatchObject({ outcome: "access-ended" });
  });
});

test("a reply that never comes is given up", { timeout: 40_000 }, async () => {
  expect((await never).outcome).toBe("too-slow");
});
