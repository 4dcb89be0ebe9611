/** Lanyard in Firefox: the same scripts, in a browser that runs an extension in other ways. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { DEMO_PASSWORD } from "../demo/organisation";
import { endAccess, giveAccess } from "../src/server/access/grants";
import { entries, grants, lanyards, sightings, signIns } from "../src/server/database/schema";
import { addEntry } from "../src/server/vaults/entries";
import { changeSigningIn } from "../src/server/vaults/signingIn";
import { CHROMIUM } from "./browser";
import { Firefox, firefoxIsThere } from "./firefox";
import { type App, startHouse } from "./house";

let app: App;
let firefox: Firefox;
let home: string;

describe.skipIf(!firefoxIsThere())("Lanyard in Firefox", () => {
  beforeAll(async () => {
    app = await startHouse({ GALTRY_SIGN_IN_BROWSER: CHROMIUM });
    firefox = await Firefox.open({ address: app.url });
    await firefox.goto(`${app.url}/sign-in`);
    home = await firefox.tab();
    const signIn = `return (await (await fetch("/api/command/people.signIn", {
    method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(arguments[0]),
  })).json()).result.signedIn`;
    const account = { mail: "maren.pohl@tarrowick.example", password: DEMO_PASSWORD };
    expect(await firefox.run(signIn, [account])).toBe(true);
  });
  afterAll(async () => {
    await firefox?.close();
    await app?.close();
  });

  const site = (host: string) => app.standins.sites.find((one) => one.host === host)!;
  const at = (host: string, path?: string) => app.standins.address(host, path ?? site(host).signInPath);
  const as = (key: string) => ({
    ...{ kind: "person" as const, personId: app.built.people.get(key)!, sessionId: null },
    ...{ provedAt: Date.now(), address: "127.0.0.1", browser: "Firefox" },
  });

  /** A login that Maren may use, and its grant. */
  async function given(host: string, level: "use" | "reveal" = "use"): Promise<string> {
    const { name, account } = site(host);
    const values = { name, signInPage: at(host), ...account };
    const parentId = app.built.vaults.get("Press & Publishing")!;
    const { entryId } = await addEntry.execute(app.galtry, { parentId, captured: false, values }, as("wilhelmina"));
    const subject = { kind: "person" as const, id: app.built.people.get("maren")! };
    await giveAccess.execute(app.galtry, { nodeId: entryId, subject, level, why: "the stalls" }, as("wilhelmina"));
    return entryId;
  }

  async function end(entryId: string): Promise<void> {
    const rows = await app.galtry.db.select().from(grants).where(eq(grants.nodeId, entryId));
    for (const { id, subjectId } of rows)
      if (subjectId === app.built.people.get("maren"))
        await endAccess.execute(app.galtry, { grantId: id }, as("wilhelmina"));
  }

  /** Opens a page in front, and Lanyard's window behind it. */
  async function windowFor(address: string): Promise<{ page: string; window: string }> {
    const page = await firefox.newTab(address);
    const window = await firefox.openWindow();
    await firefox.inTab(page);
    await firefox.inTab(window, false);
    return { page, window };
  }

  async function closeAll(): Promise<void> {
    for (const tab of await firefox.tabs())
      if (tab !== home) {
        await firefox.inTab(tab);
        await firefox.closeTab();
      }
    await firefox.inTab(home);
  }

  const lastSignIn = async (entryId: string) =>
    (await app.galtry.db.select().from(signIns).where(eq(signIns.entryId, entryId))).at(-1);

  test("is offered as Firefox takes it, and to others as they do", async () => {
    await firefox.goto(`${app.url}/lanyard`);
    await firefox.waitForText("for Firefox");
    const link = "return document.querySelector('a[download]').getAttribute('href')";
    expect(await firefox.run(link)).toBe("/lanyard/download?for=firefox");
    const types = await firefox.run(
      "return Promise.all(['', '?for=chromium'].map(async (one) => (await fetch('/lanyard/download' + one)).headers.get('content-type')))",
    );
    expect(types).toEqual(["application/x-xpinstall", "application/zip"]);
    await firefox.press("Lanyard for Chrome, Edge and others");
    await firefox.waitForText("Developer mode");
  });

  test("is connected by the code that Galtry shows as well", async () => {
    await firefox.goto(`${app.url}/lanyard/connect`);
    await firefox.waitForText("Open Lanyard from the browser’s toolbar");
    await firefox.openWindow();
    // The organisation has set which Galtry this browser connects to.
    await firefox.waitForText("Your organisation has set this address");
    await firefox.press("Connect");
    await firefox.waitForText("Does Galtry show this code?");
    await firefox.inTab(home);
    await firefox.takenOver();
    await firefox.press("The codes match: connect");
    await firefox.waitForText("Lanyard is connected.");
    const rows = await app.galtry.db
      .select()
      .from(lanyards)
      .where(eq(lanyards.personId, app.built.people.get("maren")!));
    expect(
      rows
        .map((row) => row.browser)
        .sort()
        .at(-1),
    ).toMatch(/^Firefox 1\d\d on Linux$/);
    await closeAll();
  });

  describe("sealed sign-in", () => {
    let entryId: string;

    test("from Lanyard's window, into a tab of its own; the password never comes here", async () => {
      entryId = await given("millgrange.localhost");
      const { account, name } = site("millgrange.localhost");
      // Galtry's stream has said that there is a new login: nothing was asked for meanwhile.
      await firefox.newTab(at("millgrange.localhost"));
      await firefox.run("document.querySelector('input').focus()");
      await firefox.waitForTag(name);
      await closeAll();
      const { window } = await windowFor(at("millgrange.localhost"));
      await firefox.waitForText("1 login");
      await firefox.opened(() => firefox.press("Sign in"));
      await firefox.waitForText(`Today at ${name}`);
      expect((await lastSignIn(entryId))?.outcome).toBe("signed-in");
      await firefox.inTab(window);
      await firefox.waitForText(`Signed in to ${name}`);
      const held = (await firefox.run(
        "return JSON.stringify([await chrome.storage.local.get(null), await chrome.storage.session.get(null)])",
      )) as string;
      expect(held).toContain(name);
      expect(held).not.toContain(account.password);
    });

    test("its session is taken out of the browser as Use ends, and the page says why", async () => {
      const page = (await firefox.tabs()).at(-1)!;
      await firefox.inTab(page);
      const cookies = () => firefox.run("return (await chrome.cookies.getAll({ name: 'visit' })).length");
      const inWindow = async () => {
        const window = await firefox.openWindow();
        const found = await cookies();
        await firefox.closeTab();
        return { window, found };
      };
      expect((await inWindow()).found).toBe(1);
      await end(entryId);
      await expect.poll(async () => (await inWindow()).found, { timeout: 15_000 }).toBe(0);
      await closeAll();
    });

    test("what a site keeps in its storage goes there before its scripts run, and goes with Use", async () => {
      const host = "gorsefield.localhost";
      const id = await given(host);
      await windowFor(at(host));
      await firefox.waitForText("1 login");
      await firefox.opened(() => firefox.press("Sign in"));
      await firefox.waitForText("Stall 9 on Saturday.");
      const stored = () => firefox.run("return localStorage.length");
      expect(await stored()).toBe(1);
      await end(id);
      await expect.poll(stored, { timeout: 15_000 }).toBe(0);
      await closeAll();
    });
  });

  describe("at the field", () => {
    test("a press opens Lanyard's window with that login: Firefox cannot say whether a page covered the tag", async () => {
      const host = "dovecombe.localhost";
      const entryId = app.built.entries.get(host)!;
      await firefox.newTab(at(host));
      await firefox.run("document.querySelector('input').focus()");
      await firefox.waitForTag(site(host).name);
      const before = await lastSignIn(entryId);
      await new Promise((done) => setTimeout(done, 700));
      await firefox.pressInTag(site(host).name);
      const window = await firefox.openWindow();
      await expect
        .poll(() => firefox.run("return (await chrome.storage.session.get('chosen')).chosen ?? null"))
        .toBe(entryId);
      expect(await lastSignIn(entryId)).toEqual(before);
      expect(window).not.toBe("");
      await closeAll();
    });
  });

  test("a login that was typed and accepted is offered to be added, and is added", async () => {
    const host = "wrenhollow.localhost";
    const { account, name } = site(host);
    const vault = app.built.vaults.get("Press & Publishing")!;
    const subject = { kind: "person" as const, id: app.built.people.get("maren")! };
    await giveAccess.execute(app.galtry, { nodeId: vault, subject, level: "edit", why: "stands in" }, as("wilhelmina"));
    await firefox.newTab(at(host));
    await firefox.fill("form input:not([type=password])", account.userName);
    await firefox.fill("form input[type=password]", account.password);
    await firefox.run("document.querySelector('form button').click()");
    await firefox.waitForText(`Today at ${name}`);
    await firefox.waitForTag("Never on this site");
    const added = () => app.galtry.db.select().from(entries).where(eq(entries.site, host));
    const before = (await added()).length;
    await firefox.pressInTag("Add");
    await expect.poll(async () => (await added()).length, { timeout: 10_000 }).toBe(before + 1);
    await closeAll();
  });

  describe("guarded fill", () => {
    const allow = (entryId: string) =>
      changeSigningIn.execute(app.galtry, { entryId, guardedFill: true, plainHttp: true }, as("wilhelmina"));

    test("reaches a form in a frame, within a closed shadow tree", async () => {
      const host = "vellacott.localhost";
      const entryId = await given(host);
      await allow(entryId);
      const { page, window } = await windowFor(at(host, "/"));
      await firefox.press("Fill and sign in");
      await firefox.inTab(page);
      await firefox.waitForText("The green room is free.");
      await firefox.inTab(window);
      expect((await lastSignIn(entryId))?.how).toBe("guarded");
      await closeAll();
    });

    test("answers a site that asks in the browser's own window", async () => {
      const host = "almery.localhost";
      const entryId = await given(host);
      await allow(entryId);
      await firefox.openWindow();
      await firefox.fill("input", site(host).name);
      await firefox.press(`Sign in to ${site(host).name}`);
      await firefox.waitForText("asks in the browser’s own window");
      await firefox.opened(() => firefox.press("Open the site and answer"));
      await firefox.waitForText("Lift contract: in force.");
      const seen = await app.galtry.db.select().from(sightings).where(eq(sightings.entryId, entryId));
      expect(seen.some(({ how }) => how === "guarded fill")).toBe(true);
      await closeAll();
    });
  });

  test("an address opened while the page looks again is the one that opens", async () => {
    await firefox.goto(`${app.url}/account`);
    for (const [host, path] of [
      ["almery.localhost", "/lanyard"],
      ["vellacott.localhost", "/account"],
      ["gorsefield.localhost", "/lanyard"],
    ] as const) {
      // The stream says that there is a login more: the page asks for itself again.
      await given(host);
      await firefox.goto(app.url + path);
      await firefox.takenOver();
      expect(await firefox.url()).toBe(app.url + path);
    }
  });

  test("ended in Galtry, Lanyard follows at once", async () => {
    const window = await firefox.openWindow();
    await firefox.inTab(home);
    await firefox.goto(`${app.url}/account`);
    await firefox.takenOver();
    await firefox.run("document.querySelector(\"button[aria-label^='Disconnect Lanyard in Firefox']\").click()");
    await firefox.inTab(window);
    await firefox.waitForText("Not connected to Galtry");
  });
});
