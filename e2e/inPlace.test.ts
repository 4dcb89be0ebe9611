/** Lanyard in the page itself: signing in from the field, new passwords at theirs, forms; and a page that covers the tag. */
import { and, eq } from "drizzle-orm";
import type { Page } from "playwright-core";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { DEMO_PASSWORD } from "../demo/organisation";
import { USUAL_RULES } from "../src/core/access/houseRules";
import { entries, journal, sightings, signIns } from "../src/server/database/schema";
import { changeRules } from "../src/server/rules/rules";
import { addEntry } from "../src/server/vaults/entries";
import { changeSigningIn } from "../src/server/vaults/signingIn";
import { type Browser, connectLanyard, openBrowser, signInToGaltry } from "./browser";
import { type App, startHouse } from "./house";
import { pressInTag, tagText, waitForTag } from "./tags";

const HOST = "stallwright.localhost";
let app: App;
let browser: Browser;
let page: Page;

beforeAll(async () => {
  app = await startHouse();
  browser = await openBrowser({ galtry: app.url });
  await signInToGaltry(browser.page, app.url, "wilhelmina.oosterhuis@tarrowick.example", DEMO_PASSWORD);
  await connectLanyard(browser, app.url);
});
afterAll(async () => {
  await browser?.close();
  await app?.close();
});
beforeEach(async () => {
  for (const other of browser.context.pages()) if (other !== browser.page) await other.close();
  await browser.context.clearCookies({ domain: /localhost/ });
  page = await browser.context.newPage();
});

const site = (host: string) => app.standins.sites.find((one) => one.host === host)!;
const at = (host: string, path?: string) => app.standins.address(host, path ?? site(host).signInPath);
const wilhelmina = () => ({
  ...{ kind: "person" as const, personId: app.built.people.get("wilhelmina")!, sessionId: null },
  ...{ provedAt: Date.now(), address: "127.0.0.1", browser: "Chromium" },
});
const vaultId = () => app.built.vaults.get("Press & Publishing")!;

async function keep(host: string): Promise<string> {
  const { name, account } = site(host);
  const values = { name, signInPage: at(host), ...account };
  return (await addEntry.execute(app.galtry, { parentId: vaultId(), captured: false, values }, wilhelmina())).entryId;
}

/** Until the browser has said for long enough that the tag is seen. */
const read = () => page.waitForTimeout(700);

const signInsOf = async (entryId: string) =>
  (await app.galtry.db.select().from(signIns).where(eq(signIns.entryId, entryId))).length;
/** The login that Lanyard's window was opened for. */
const chosen = async () =>
  (await browser.worker()).evaluate(async () => (await chrome.storage.session.get("chosen")).chosen ?? null);

describe("at the field of a sign-in page", () => {
  let entryId: string;
  beforeAll(async () => {
    entryId = await keep(HOST);
  });
  beforeEach(async () => {
    await (await browser.worker()).evaluate(() => chrome.storage.session.set({ chosen: null }));
  });

  const openTag = async () => {
    await page.goto(at(HOST));
    await page.getByLabel("Customer number").focus();
    await waitForTag(page, site(HOST).name);
  };

  test("a press signs in, in this very tab; a cookie of the sign-in page itself is no session to ask about", async () => {
    await browser.context.addCookies([{ name: "seen", value: "1", url: at(HOST) }]);
    await openTag();
    await read();
    const before = browser.context.pages().length;
    await pressInTag(page, site(HOST).name);
    await page.waitForURL("**/orders");
    expect(browser.context.pages().length).toBe(before);
  });

  test("by keys as well: Alt and arrow down, then Enter; Escape goes back to the field", async () => {
    await openTag();
    await page.keyboard.press("Alt+ArrowDown");
    await page.keyboard.press("Escape");
    await expect.poll(() => tagText(page)).toBe("");
    expect(await page.getByLabel("Customer number").evaluate((one) => one === document.activeElement)).toBe(true);
    await page.keyboard.press("Alt+ArrowDown");
    await read();
    await page.keyboard.press("Enter");
    await page.waitForURL("**/orders");
  });

  test.each([
    [
      "laid something over it",
      "const d=document.createElement('div');d.style.cssText='position:fixed;inset:0;background:#fff;pointer-events:none';d.popover='manual';document.body.append(d);d.showPopover()",
    ],
    ["made it see-through", "document.documentElement.style.opacity='0.05'"],
    ["moved it here a moment ago", "document.querySelector('lanyard-tag').style.transform='translate(3px, 3px)'"],
  ])("a page that has %s gets nothing by a press: Lanyard’s window opens instead", async (what, script) => {
    await openTag();
    await read();
    await page.evaluate(script);
    await page.waitForTimeout(what.startsWith("moved") ? 20 : 400);
    const before = await signInsOf(entryId);
    await pressInTag(page, site(HOST).name);
    // Lanyard's window opens, with this login first; the page gets no session.
    await expect.poll(() => chosen()).toBe(entryId);
    await page.waitForTimeout(1_500);
    expect(await signInsOf(entryId)).toBe(before);
    expect(page.url()).toBe(at(HOST));
  });

  test("Fill stands beside a login as soon as its steward allows it, also where the tag hangs, and types into the page", async () => {
    await openTag();
    await changeSigningIn.execute(
      app.galtry,
      { entryId, guardedFill: true, plainHttp: true, filling: "type" },
      wilhelmina(),
    );
    await waitForTag(page, "Fill");
    await read();
    await pressInTag(page, "Fill");
    await expect.poll(() => page.getByLabel("Customer number").inputValue()).toBe(site(HOST).account.userName);
  });
});

describe("as its page opens", () => {
  const rules = (fillsOnOpening: boolean) =>
    changeRules.execute(
      app.galtry,
      { ...USUAL_RULES, lanyard: { ...USUAL_RULES.lanyard, fillsOnOpening } },
      { ...wilhelmina(), personId: app.built.people.get("hanna")! },
    );
  const open = async () => {
    await page.bringToFront();
    await page.goto(at(HOST));
    await page.waitForTimeout(1_500);
    return page.getByLabel("Customer number").inputValue();
  };

  test("a login is filled in where steward, house rules and person have said so, and once", async () => {
    const window = await browser.context.newPage();
    await window.goto(`chrome-extension://${browser.lanyardId}/popup.html`);
    expect(await open()).toBe("");
    await window.getByRole("button", { name: "Fill and sign in" }).first().waitFor();
    expect(await window.getByLabel("Fill in as this page opens").count()).toBe(0);
    await rules(true);
    await window.getByLabel("Fill in as this page opens").check();
    expect(await open()).toBe(site(HOST).account.userName);
    // The page is opened once more: it may have asked again, and is the person's.
    expect(await open()).toBe("");
    await rules(false);
    await window.getByLabel("Fill in as this page opens").waitFor({ state: "detached" });
    await (await browser.worker()).evaluate(() => chrome.storage.session.set({ opened: {} }));
    expect(await open()).toBe("");
  });

  test("at a person's wish nothing is shown at fields by itself; asked for, it is", async () => {
    const window = await browser.context.newPage();
    await window.goto(`chrome-extension://${browser.lanyardId}/popup.html`);
    await window.getByRole("button", { name: "Wilhelmina Oosterhuis" }).click();
    await window.getByLabel(/Show my logins at a page’s fields/).uncheck();
    await page.goto(at(HOST));
    await page.getByLabel("Customer number").focus();
    await page.waitForTimeout(800);
    expect(await tagText(page)).toBe("");
    await page.keyboard.press("Alt+ArrowDown");
    await waitForTag(page, site(HOST).name);
    await window.getByLabel(/Show my logins at a page’s fields/).check();
  });
});

test("at a field for a new password one is created to the page's rules, and offered to be added", async () => {
  await page.goto(at("mossbeck.localhost", "/join"));
  await page.getByLabel("Your name").fill("Wilhelmina");
  await page.getByLabel("Email").fill("press@tarrowick.example");
  await page.getByLabel("Password", { exact: true }).focus();
  await waitForTag(page, "Create a password");
  await pressInTag(page, "Create a password");
  await waitForTag(page, "Created and filled in");
  const created = await page.getByLabel("Password", { exact: true }).inputValue();
  expect(created).toMatch(/^(?=.*\d)(?=.*[A-Z])[A-Za-z\d-]{12,24}$/);
  expect(await page.getByLabel("Confirm password").inputValue()).toBe(created);
  await page.getByRole("button", { name: "Create account" }).click();
  await waitForTag(page, "Add login");
});

describe("in a form", () => {
  const form = (more = "") =>
    `<!doctype html><title>Pay</title><form><label>Name on card <input autocomplete="cc-name"></label><label>Number <input id="number" autocomplete="billing cc-number"></label><label>Expires <input autocomplete="cc-exp" placeholder="MM/YY"></label><input id="trap" style="position:absolute;left:-500px" autocomplete="cc-csc">${more}<button>Pay</button></form>`;
  let cardId: string;
  beforeAll(async () => {
    const values = {
      ...{ name: "Press card", holder: "W OOSTERHUIS", number: "9999000000000012", expires: "2031-04" },
      ...{ "security-code": "907" },
    };
    cardId = (await addEntry.execute(app.galtry, { parentId: vaultId(), kind: "card", values }, wilhelmina())).entryId;
  });
  const openForm = async (address: string, html: string) => {
    await page.route(address, (route) => route.fulfill({ contentType: "text/html", body: html }));
    await page.goto(address);
    const window = await browser.context.newPage();
    await window.goto(`chrome-extension://${browser.lanyardId}/popup.html`);
    await page.bringToFront();
    return window;
  };

  test("a card goes into the fields that are shown, on a press in Lanyard's window, and nothing else is sent", async () => {
    const window = await openForm("https://shop.tarrowick.example/pay", form());
    await window.getByRole("button", { name: "Fill in Press card" }).click();
    await window.getByText("Filled in: 3 fields.").waitFor();
    expect(await page.locator("#number").inputValue()).toBe("9999000000000012");
    expect(await page.getByLabel("Expires").inputValue()).toBe("04/31");
    expect(await page.locator("#trap").inputValue()).toBe("");
    const seen = await app.galtry.db.select().from(sightings).where(eq(sightings.entryId, cardId));
    // The page hides a field for the security code: it was not even sent to this browser.
    expect(seen.filter(({ how }) => how === "filled in").map(({ field }) => field)).toEqual(["number"]);
    const lines = await app.galtry.db
      .select()
      .from(journal)
      .where(and(eq(journal.act, "lanyard.fillForm"), eq(journal.node, cardId)));
    expect(lines.at(-1)!.details).toContain("shop.tarrowick.example");
  });

  test("over http a card is refused, in words", async () => {
    const window = await openForm("http://shop.tarrowick.example/pay", form());
    await window.getByRole("button", { name: "Fill in Press card" }).click();
    await window.getByText("This page is not encrypted. Lanyard does not fill in cards and papers here.").waitFor();
    expect(await page.locator("#number").inputValue()).toBe("");
  });

  test("a page that asks for none of it is offered none", async () => {
    const window = await openForm(
      "https://shop.tarrowick.example/news",
      "<form><input autocomplete=name><button>Go</button></form>",
    );
    await window.getByText("No login for this page").waitFor();
    expect(await window.getByText("Fill in this form").count()).toBe(0);
    expect((await app.galtry.db.select().from(entries).where(eq(entries.nodeId, cardId))).length).toBe(1);
  });
});

describe("at a site that asks in the browser's own window", () => {
  const BASIC = "almery.localhost";

  test("with guarded fill Lanyard answers it in a tab of its own, once", async () => {
    const entryId = await keep(BASIC);
    const window = await browser.context.newPage();
    await window.goto(`chrome-extension://${browser.lanyardId}/popup.html`);
    const signIn = async () => {
      await window.getByLabel("Find another login").fill(site(BASIC).name);
      await window.getByRole("button", { name: `Sign in to ${site(BASIC).name}` }).click();
      await window.getByText("asks in the browser’s own window").waitFor();
    };
    await signIn();
    // Off: nothing is offered.
    expect(await window.getByRole("button", { name: "Open the site and answer" }).count()).toBe(0);
    await changeSigningIn.execute(app.galtry, { entryId, guardedFill: true, plainHttp: true }, wilhelmina());
    await window.getByRole("button", { name: "Close" }).click();
    await signIn();
    const opened = browser.context.waitForEvent("page");
    await window.getByRole("button", { name: "Open the site and answer" }).click();
    const tab = await opened;
    await tab.getByText("Lift contract: in force.").waitFor();
    const seen = await app.galtry.db.select().from(sightings).where(eq(sightings.entryId, entryId));
    expect(seen.some(({ how }) => how === "guarded fill")).toBe(true);
  });
});

test("what was chosen in a browser is forgotten with the connection", async () => {
  const kept = async () =>
    (await browser.worker()).evaluate(async () => chrome.storage.local.get(["choices", "lastPlace"]));
  await (await browser.worker()).evaluate(() =>
    chrome.storage.local.set({ choices: { atFields: false, onOpening: ["one"] }, lastPlace: "place" }),
  );
  const window = await browser.context.newPage();
  await window.goto(`chrome-extension://${browser.lanyardId}/popup.html`);
  await window.getByRole("button", { name: "Wilhelmina Oosterhuis" }).click();
  await window.getByRole("button", { name: "Disconnect" }).click();
  await window.getByText("Not connected to Galtry").waitFor();
  expect(await kept()).toEqual({ choices: { atFields: true, onOpening: [] }, lastPlace: null });
});
