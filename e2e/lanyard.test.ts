/** Lanyard on awkward sites: keeping, guarded fill, look-alikes, connecting and ending, and outliving its worker. */
import { eq } from "drizzle-orm";
import type { Page } from "playwright-core";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { DEMO_PASSWORD } from "../demo/organisation";
import { entries, notices, signIns } from "../src/server/database/schema";
import { changeSigningIn } from "../src/server/vaults/signingIn";
import { seriousIn } from "./axe";
import { type Browser, connectLanyard, openBrowser, signInToGaltry, takenOver } from "./browser";
import { everythingReceived, sightingsOf } from "./canary";
import { type App, longAfterSigningIn, startHouse } from "./house";
import { pressInTag, tagText, typeInTag, waitForTag } from "./tags";

let app: App;
let steward: Browser;
let colleague: Browser;

beforeAll(async () => {
  app = await startHouse();
  [steward, colleague] = await Promise.all([openBrowser({ galtry: app.url }), openBrowser({ galtry: app.url })]);
  await signInToGaltry(steward.page, app.url, "wilhelmina.oosterhuis@tarrowick.example", DEMO_PASSWORD);
  await connectLanyard(steward, app.url);
  await signInToGaltry(colleague.page, app.url, "maren.pohl@tarrowick.example", DEMO_PASSWORD);
  await connectLanyard(colleague, app.url);
});
afterAll(async () => {
  await steward?.close();
  await colleague?.close();
  await app?.close();
});

const site = (host: string) => app.standins.sites.find((one) => one.host === host)!;
const at = (host: string, path?: string) => app.standins.address(host, path ?? site(host).signInPath);

/** Lanyard's window as a tab of its own, beside the page it speaks of. */
async function openWindow(browser: Browser, page: Page): Promise<Page> {
  const window = await browser.context.newPage();
  await window.goto(`chrome-extension://${browser.lanyardId}/popup.html`);
  await page.bringToFront();
  return window;
}

/** Ends the worker as the browser does when it is idle: what must live on is elsewhere. */
async function stopWorker(browser: Browser): Promise<void> {
  const page = await browser.context.newPage();
  const cdp = await browser.context.newCDPSession(page);
  await cdp.send("ServiceWorker.enable").catch(() => undefined);
  await cdp.send("ServiceWorker.stopAllWorkers").catch(() => undefined);
  await page.close();
}

describe("keeping", () => {
  test("user name on one page, password on the next, over the worker's end; the page where it begins is kept", async () => {
    const { page } = steward;
    const { account } = site("stallwright.localhost");
    await page.goto(at("stallwright.localhost"));
    await page.getByLabel("Customer number").fill(account.userName);
    await page.getByRole("button", { name: "Next" }).click();
    await page.getByLabel("Password").waitFor();
    await stopWorker(steward);
    await page.getByLabel("Password").fill(account.password);
    await page.getByRole("button", { name: "Log in" }).click();
    await waitForTag(page, "Never on this site");
    expect(await tagText(page)).toContain("Add");
    await typeInTag(page, "Name", "Stallwright, ours");
    await pressInTag(page, "Add login");
    await expect.poll(() => tagText(page)).toBe("");
    const row = (await app.galtry.db.query.entries.findMany()).find((entry) => entry.name === "Stallwright, ours");
    expect(row?.signInPage).toBe(at("stallwright.localhost"));
  });

  test("a form in a frame of the same site, within a closed shadow tree", async () => {
    const { page } = steward;
    const { account } = site("vellacott.localhost");
    await page.goto(at("vellacott.localhost"));
    // No selector reaches into it: by the keyboard, as a person.
    await page.frameLocator("iframe").locator("front-door").waitFor();
    await page.keyboard.press("Tab");
    await page.keyboard.type(account.userName);
    await page.keyboard.press("Tab");
    await page.keyboard.type(account.password);
    await page.keyboard.press("Enter");
    await page.getByText("The green room is free.").waitFor();
    await waitForTag(page, "Never on this site");
    await typeInTag(page, "Name", "Vellacott, ours");
    await pressInTag(page, "Add login");
    await expect.poll(() => tagText(page)).toBe("");
    const row = (await app.galtry.db.query.entries.findMany()).find((entry) => entry.name === "Vellacott, ours");
    expect(row?.signInPage).toBe(at("vellacott.localhost"));
  });

  test("a wrong password typed in a frame is not offered, now or on the next page", async () => {
    const { page, context } = steward;
    await context.clearCookies({ name: "sh" });
    await page.goto(at("vellacott.localhost"));
    await page.frameLocator("iframe").locator("front-door").waitFor();
    await page.keyboard.press("Tab");
    await page.keyboard.type("someone-else");
    await page.keyboard.press("Tab");
    await page.keyboard.type("not the password");
    await page.keyboard.press("Enter");
    await page.getByText("Wrong user name or password.").waitFor();
    await page.goto(at("vellacott.localhost", "/"));
    await page.frameLocator("iframe").locator("front-door").waitFor();
    expect(await tagText(page)).toBe("");
    const held = await (await steward.worker()).evaluate(async () =>
      JSON.stringify(await chrome.storage.session.get(null)),
    );
    expect(held).not.toContain("not the password");
  });

  test("what is typed into a frame of another site is nobody's login at the page", async () => {
    const { page } = steward;
    const { account } = site("harrowmere.localhost");
    await page.goto(at("larchford.localhost", "/"));
    await page.evaluate((address) => {
      const frame = document.createElement("iframe");
      frame.src = address;
      frame.style.cssText = "width: 600px; height: 400px";
      document.body.append(frame);
    }, at("harrowmere.localhost"));
    const frame = page.frameLocator("iframe");
    await frame.getByLabel("E-mail").fill(account.userName);
    await frame.getByLabel("Password").fill("not kept anywhere");
    await frame.getByRole("button", { name: "Sign in" }).click();
    await frame.getByText("is not right").waitFor();
    await page.goto(at("larchford.localhost", "/"));
    const worker = await steward.worker();
    const held = await worker.evaluate(async () => JSON.stringify(await chrome.storage.session.get(null)));
    expect(held).not.toContain("not kept anywhere");
  });

  test("a page drawn by scripts that sends JSON", async () => {
    const { page } = steward;
    const { account } = site("larkbill.localhost");
    await page.goto(at("larkbill.localhost"));
    await page.getByLabel("User name").fill(account.userName);
    await page.getByLabel("Password").fill("not the right one");
    await page.getByRole("button", { name: "Log in" }).click();
    await page.getByText("Wrong user name or password").waitFor();
    // What the site refused is not offered; what is kept already is not offered again.
    await page.getByLabel("Password").fill(account.password);
    await page.getByRole("button", { name: "Log in" }).click();
    await page.getByText("Today at Larkbill Social").waitFor();
    await page.waitForTimeout(1500);
    expect(await tagText(page)).toBe("");
  });

  test("never on this site is remembered; not now is asked again", async () => {
    const { page } = steward;
    const { account } = site("ottersby.localhost");
    const signIn = async () => {
      await page.context().clearCookies();
      await page.goto(at("ottersby.localhost"));
      const form = page.locator("form[action='/members']");
      await form.getByLabel("E-mail").fill(account.userName);
      await form.getByLabel("Password").fill(account.password);
      await form.getByRole("button", { name: "Sign in", exact: true }).click();
      await page.getByText("Today at Ottersby Catering").waitFor();
    };
    await signIn();
    await waitForTag(page, "Not now");
    await pressInTag(page, "Not now");
    await signInToGaltry(page, app.url, "wilhelmina.oosterhuis@tarrowick.example", DEMO_PASSWORD);
    await signIn();
    await waitForTag(page, "Never on this site");
    await pressInTag(page, "Never on this site");
    await page.waitForTimeout(400);
    await signIn();
    await page.waitForTimeout(1200);
    expect(await tagText(page)).toBe("");
    // Taken back in Lanyard’s window; then it offers again.
    const window = await openWindow(steward, page);
    await window.getByRole("button", { name: "Wilhelmina Oosterhuis" }).click();
    await window.getByRole("button", { name: "Offer again: ottersby.localhost" }).click();
    await window.getByRole("button", { name: "Offer again: ottersby.localhost" }).waitFor({ state: "detached" });
    await window.close();
    await signIn();
    await waitForTag(page, "Never on this site");
    await pressInTag(page, "Not now");
    await signInToGaltry(page, app.url, "wilhelmina.oosterhuis@tarrowick.example", DEMO_PASSWORD);
  });

  test("a changed password that the site accepts is offered as such", async () => {
    const entryId = app.built.entries.get("harrowmere.localhost")!;
    const { page } = steward;
    await page.goto(`${app.url}/entry/${entryId}?edit`);
    await page.getByLabel("Password", { exact: true }).fill("an older password of theirs");
    await page.getByRole("button", { name: "Save" }).click();
    await page.getByRole("heading", { name: "Who can do what" }).waitFor();
    const { account } = site("harrowmere.localhost");
    await page.goto(at("harrowmere.localhost"));
    await page.getByLabel("E-mail").fill(account.userName);
    await page.getByLabel("Password").fill(account.password);
    await page.getByRole("button", { name: "Sign in", exact: true }).click();
    await waitForTag(page, "New password for Harrowmere Printing");
    await pressInTag(page, "Save the new password");
    await expect.poll(() => tagText(page)).toBe("");
    await page.goto(`${app.url}/entry/${entryId}`);
    await page.getByText("changed the password of it with Lanyard").first().waitFor();
  });
});

describe("on a page", () => {
  test("the tag at the field names the key, and the window signs in", async () => {
    const { page, context } = colleague;
    await page.goto(at("hallslate.localhost"));
    await page.getByLabel("E-mail").click();
    await waitForTag(page, "Evening hire calendar");
    const window = await openWindow(colleague, page);
    await window.getByText("hallslate.localhost: 1 login").waitFor();
    const [tab] = await Promise.all([
      context.waitForEvent("page"),
      window.getByRole("button", { name: "Sign in", exact: true }).click(),
    ]);
    await tab.getByText("Today at Hallslate Calendar").waitFor();
    await tab.close();
    await window.getByText("Signed in to Evening hire calendar").waitFor();
    await window.getByRole("button", { name: "Close" }).click();
    await window.close();
  });

  test("a window of Lanyard's own that stays open does not hide which page is meant", async () => {
    const { page, context } = colleague;
    await page.goto(at("hallslate.localhost"));
    const worker = await colleague.worker();
    const [own] = await Promise.all([
      context.waitForEvent("page"),
      worker.evaluate(async () => {
        const [tab] = await chrome.tabs.query({ url: "*://hallslate.localhost/*" });
        await chrome.windows.create({ url: `popup.html?tab=${tab?.id}`, type: "popup", focused: true });
      }),
    ]);
    await own.getByText("hallslate.localhost: 1 login").waitFor();
    // The window opened at the toolbar speaks of the page in front, also while the other one has the focus.
    await page.goto(at("dovecombe.localhost"));
    await own.bringToFront();
    const second = await openWindow(colleague, page);
    await own.bringToFront();
    await second.getByText("dovecombe.localhost: 1 login").waitFor();
    await second.close();
    await own.close();
  });

  test("where there is no key, whether there is a login is asked, and nothing is learnt by asking", async () => {
    const { page } = colleague;
    await page.goto(at("castlewick.localhost"));
    const window = await openWindow(colleague, page);
    await window.getByText("No login for this page.").waitFor();
    await window.getByRole("button", { name: "Request a login for this site" }).click();
    await window.getByLabel("Reason").fill("The run of the 28th");
    await window.getByRole("button", { name: "Send request", exact: true }).click();
    await window.getByText("Request sent. If there is a login for castlewick.localhost").waitFor();
    await window.close();
    await page.goto(app.url);
    const asked = page.getByRole("region", { name: "Your requests" });
    await asked.getByText("a login for castlewick.localhost").waitFor();
    expect(await page.getByText("Castlewick Payroll").count()).toBe(0);
    const told = await app.galtry.db.select().from(notices);
    expect(
      told.some(({ text }) => text.includes("you are a steward of Castlewick Payroll: “The run of the 28th”")),
    ).toBe(true);
  });

  test("a session that is there already is replaced only when the person says so", async () => {
    const { page, context } = colleague;
    await context.addCookies([
      { name: "somebody", value: "1", url: at("wrenhollow.localhost", "/") },
      { name: "own_session", value: "1", url: at("dovecombe.localhost", "/") },
    ]);
    // No page that asks to sign in: there the cookies would be none of a session.
    await page.goto(at("dovecombe.localhost", "/robots.txt"));
    const window = await openWindow(colleague, page);
    // Maren is in Learning: Reveal on the whole vault.
    await window.getByRole("button", { name: "Sign in", exact: true }).click();
    await window.getByText("You are already signed in at dovecombe.localhost").waitFor();
    const [tab] = await Promise.all([
      context.waitForEvent("page"),
      window.getByRole("button", { name: "Replace session" }).click(),
    ]);
    await tab.getByText("Today at Dovecombe Bookings").waitFor();
    await tab.close();
    await window.close();
  });

  test("a host that looks alike gets nothing but a warning", async () => {
    const { page } = colleague;
    await page.goto(at("hallslate.localhost").replace("hallslate", "hal1slate"));
    const window = await openWindow(colleague, page);
    await window.reload();
    await page.bringToFront();
    await window.getByText("This is not Evening hire calendar").waitFor();
    expect(await window.getByRole("button", { name: "Sign in", exact: true }).count()).toBe(0);
    await window.close();
  });
});

describe("guarded fill", () => {
  const entryAddress = () => `${app.url}/entry/${app.built.entries.get("larkbill.localhost")}`;

  test("a sealed sign-in to a page drawn by scripts says why it cannot work", async () => {
    const { page } = colleague;
    await page.goto(entryAddress());
    await page.getByRole("button", { name: "Sign in to larkbill.localhost" }).click();
    await page.getByText("Larkbill Social needs guarded fill").waitFor();
    await page.getByText("it is off for this entry").waitFor();
    // The colleague says so with one press; those who look after it read what Galtry itself noted.
    await page.getByRole("button", { name: /^Tell / }).click();
    await page.getByText(/ha(s|ve) been told\./).waitFor();
    const told = await app.galtry.db.select().from(notices);
    const text = told.map((notice) => notice.text).find((one) => one.includes("Galtry could not sign them in"));
    expect(text).toContain("Maren Pohl cannot sign in with Larkbill Social");
    expect(text).toContain("needs guarded fill");
  });

  test("switched on by the steward, it types and sends; the value is in the one message and the page, nowhere else", async () => {
    await steward.page.goto(entryAddress());
    await steward.page.getByRole("link", { name: "Sign-in steps" }).click();
    await steward.page.getByText(/The last sign-in failed/).waitFor();
    await steward.page.getByText("Allow guarded fill, if").waitFor();
    await steward.page.getByRole("button", { name: "Change", exact: true }).click();
    await steward.page.getByLabel(/Allow guarded fill as well/).check();
    await steward.page.getByRole("button", { name: "Save" }).click();
    await steward.page.getByRole("dialog").waitFor({ state: "detached" });
    await steward.page.goto(entryAddress());
    await steward.page.getByText("guarded fill on").first().waitFor();
    const { page } = colleague;
    await page.goto(at("larkbill.localhost"));
    await page.getByLabel("Password").waitFor();
    const window = await openWindow(colleague, page);
    await window.getByRole("button", { name: "Fill and sign in" }).click();
    await page.getByText("Today at Larkbill Social").waitFor();
    await window.close();
    const password = site("larkbill.localhost").account.password;
    const seen = await sightingsOf(password, await everythingReceived(colleague));
    // The one answer, recorded once as bytes and once as text.
    expect(seen.filter((text) => !text.includes('"password"'))).toEqual([]);
    expect(new Set(seen).size).toBe(1);
    await steward.page.goto(entryAddress());
    await steward.page.getByText("guarded fill", { exact: true }).waitFor();
    expect(await steward.page.locator("section", { hasText: "Seen by" }).last().innerText()).toContain("Maren Pohl");
  });
});

test("guarded fill reaches a form in a frame of the very same host, within a closed shadow tree", async () => {
  const row = (await app.galtry.db.query.entries.findMany()).find((entry) => entry.name === "Vellacott, ours")!;
  const wilhelmina = {
    ...{ kind: "person" as const, personId: app.built.people.get("wilhelmina")!, sessionId: null },
    ...{ provedAt: Date.now(), address: "127.0.0.1", browser: "Chromium" },
  };
  await changeSigningIn.execute(app.galtry, { entryId: row.nodeId, guardedFill: true, plainHttp: false }, wilhelmina);
  const { page, context } = steward;
  await context.clearCookies({ name: "sh" });
  await page.goto(at("vellacott.localhost"));
  await page.frameLocator("iframe").locator("front-door").waitFor();
  const window = await openWindow(steward, page);
  await expect.poll(() => window.getByRole("button", { name: "Fill and sign in" }).count()).toBe(1);
  await page.bringToFront();
  await window.getByRole("button", { name: "Fill and sign in" }).click();
  await page.getByText("The green room is free.").waitFor();
  await window.close();
});

describe("a new password", () => {
  const given = async (page: Page) => {
    const window = await openWindow(steward, page);
    const section = window.getByRole("region", { name: "New password" });
    const text = await section.locator(".created").innerText();
    expect(text).toMatch(/^(?=.*[A-Z])(?=.*\d)[A-Za-z\d-]{12,24}$/);
    await section.getByText("by this page’s rules").waitFor();
    await section.getByRole("button", { name: "Fill in" }).click();
    await section.getByText("Filled into 2 fields.").waitFor();
    await window.close();
    return text;
  };
  const entry = async () => (await app.galtry.db.query.entries.findMany()).find((one) => one.name === "Mossbeck, ours");
  let first = "";

  test("is created to the words of a page that registers, filled in twice, and the login is offered to be added", async () => {
    const { page } = steward;
    await page.goto(at("mossbeck.localhost", "/join"));
    await page.getByLabel("Your name").fill("Wilhelmina");
    await page.getByLabel("Email").fill("press@tarrowick.example");
    first = await given(page);
    expect(await page.getByLabel("Confirm password").inputValue()).toBe(first);
    await page.getByRole("button", { name: "Create account" }).click();
    await page.getByText("No parcels today.").waitFor();
    await waitForTag(page, "Never on this site");
    await typeInTag(page, "Name", "Mossbeck, ours");
    await pressInTag(page, "Add login");
    await expect.poll(() => tagText(page)).toBe("");
    expect((await entry())?.host).toBe(new URL(at("mossbeck.localhost")).host);
  });

  test("replaces the old one where the site changes it; its person says whose it was, and it is a new version", async () => {
    const { page } = steward;
    const before = (await entry())!.versionId;
    await page.goto(at("mossbeck.localhost", "/.well-known/change-password"));
    await page.getByLabel("Current password").fill(first);
    const fresh = await given(page);
    expect(fresh).not.toBe(first);
    expect(await page.getByLabel("Current password").inputValue()).toBe(first);
    await page.getByRole("button", { name: "Change password" }).click();
    await waitForTag(page, "Save the new password");
    expect(await tagText(page)).toContain("Mossbeck, ours");
    await pressInTag(page, "Save the new password");
    await expect.poll(async () => (await entry())!.versionId).not.toBe(before);
    await expect.poll(() => tagText(page)).toBe("");
    // There Galtry changes it the next time.
    expect((await entry())!.changePage).toBe(at("mossbeck.localhost", "/settings/password"));
  });

  test("that the site refuses is not offered", async () => {
    const { page } = steward;
    await page.goto(at("mossbeck.localhost", "/settings/password"));
    await page.getByLabel("Current password").fill("not the one");
    await given(page);
    await page.getByRole("button", { name: "Change password" }).click();
    await page.getByText("The current password is wrong").waitFor();
    await page.goto(at("mossbeck.localhost", "/desk"));
    await page.getByText("No parcels today.").waitFor();
    expect(await tagText(page)).toBe("");
  });
});

test("where the user name is asked for alone it is typed alone; the password leaves Galtry for the page that asks for it", async () => {
  const { page } = colleague;
  const entryId = app.built.entries.get("stallwright.localhost")!;
  const ines = {
    ...{ kind: "person" as const, personId: app.built.people.get("ines")!, sessionId: null, provedAt: Date.now() },
    ...{ address: "127.0.0.1", browser: "Chromium" },
  };
  await changeSigningIn.execute(app.galtry, { entryId, guardedFill: true, plainHttp: false }, ines);
  await page.goto(at("stallwright.localhost"));
  await page.getByLabel("Customer number").waitFor();
  const window = await openWindow(colleague, page);
  await expect.poll(() => window.getByRole("button", { name: "Fill and sign in" }).count()).toBe(1);
  await window.getByRole("button", { name: "Fill and sign in" }).click();
  await page.getByText("Your last order left on Monday.").waitFor();
  await window.close();
  const rows = await app.galtry.db.select().from(signIns).where(eq(signIns.entryId, entryId));
  expect(rows.at(-1)).toMatchObject({ how: "guarded", outcome: "signed-in" });
  expect(rows.filter(({ how }) => how === "guarded")).toHaveLength(1);
});

test("a fill that the site refuses is not written down as signed in", async () => {
  const entryId = app.built.entries.get("harrowmere.localhost")!;
  await app.galtry.writer.write((tx) =>
    tx.update(entries).set({ guardedFill: true }).where(eq(entries.nodeId, entryId)),
  );
  const { page } = steward;
  await page.goto(`${app.url}/entry/${entryId}?edit`);
  await page.getByLabel("Password", { exact: true }).fill("not the one of the site");
  await page.getByRole("button", { name: "Save" }).click();
  await page.getByRole("heading", { name: "Who can do what" }).waitFor();
  await page.context().clearCookies();
  await page.goto(at("harrowmere.localhost"));
  // As some sites have it: a script says where the form goes, and its button is off until it has seen what is typed.
  await page.evaluate(() => {
    const form = document.querySelector("form")!;
    const button = form.querySelector("button")!;
    const action = form.action;
    form.setAttribute("action", "javascript:void(0)");
    form.addEventListener("submit", () => form.setAttribute("action", action));
    button.disabled = true;
    form.addEventListener("input", () =>
      setTimeout(() => {
        button.disabled = false;
      }, 200),
    );
  });
  const window = await openWindow(steward, page);
  await window.getByRole("button", { name: "Fill and sign in" }).click();
  const rows = () => app.galtry.db.select().from(signIns).where(eq(signIns.entryId, entryId));
  await expect.poll(async () => (await rows()).at(-1)).toMatchObject({ how: "guarded", outcome: "wrong-password" });
  await window.close();
  await signInToGaltry(page, app.url, "wilhelmina.oosterhuis@tarrowick.example", DEMO_PASSWORD);
});

describe("the connection", () => {
  test("a sign-in elsewhere is approved in the window, by the number and the sign-in password", async () => {
    const elsewhere = await openBrowser({ galtry: app.url, lanyard: false });
    try {
      await elsewhere.page.goto(`${app.url}/sign-in`);
      await takenOver(elsewhere.page);
      await elsewhere.page.getByRole("button", { name: "Approve on another device" }).click();
      const shown = elsewhere.page.locator("p[aria-label^='The number']");
      await shown.waitFor();
      const window = await openWindow(colleague, colleague.page);
      await window.getByRole("button", { name: "Maren Pohl" }).click();
      await window.getByRole("button", { name: "Approve a sign-in" }).click();
      await window.getByLabel(/^Number/).fill(await shown.innerText());
      await window.getByRole("button", { name: "Continue" }).click();
      await window.getByText(/has been waiting since/).waitFor();
      expect(await seriousIn(window)).toEqual([]);
      await window.getByLabel("Sign-in password").fill("not this one, surely");
      await window.getByRole("button", { name: "Approve", exact: true }).click();
      await window.getByText("Wrong sign-in password. Try again.").waitFor();
      await window.getByLabel("Sign-in password").fill(DEMO_PASSWORD);
      await window.getByRole("button", { name: "Approve", exact: true }).click();
      await window.getByText("Approved. The other device is signed in.").waitFor();
      await elsewhere.page.getByRole("combobox", { name: "Find, and sign in" }).waitFor();
      await window.close();
    } finally {
      await elsewhere.close();
    }
  });

  test("ended in Galtry, Lanyard follows at once, and its cookies go", async () => {
    const { page, context } = colleague;
    const cookies = async () =>
      (await context.cookies(at("hallslate.localhost", "/"))).filter((cookie) => cookie.name === "visit").length;
    expect(await cookies()).toBe(1);
    await page.goto(`${app.url}/account`);
    await page.getByRole("button", { name: /Disconnect Lanyard in/ }).click();
    await expect.poll(cookies).toBe(0);
    await page.goto(app.url);
    await page.getByText("Lanyard is in this browser, but not connected").waitFor();
    const window = await openWindow(colleague, page);
    await window.getByText("Not connected to Galtry").waitFor();
    await window.close();
  });

  test("connected again, and ended from the browser's side", async () => {
    const { page } = colleague;
    // Long after signing in, one shows once more that it is them, and giving that up is no fault.
    await longAfterSigningIn(app);
    await connectLanyard(colleague, app.url, async (page) => {
      await page.getByText("A browser can be connected only after you confirm that it is you.").waitFor();
      await page.getByRole("button", { name: "Cancel" }).click();
      await page.getByRole("dialog").waitFor({ state: "detached" });
      expect(await page.getByRole("alert").filter({ hasText: /./ }).count()).toBe(0);
      await page.getByRole("button", { name: "The codes match: connect" }).click();
      await page.getByRole("dialog").getByLabel("Sign-in password").fill(DEMO_PASSWORD);
      await page.getByRole("button", { name: "Continue" }).click();
    });
    await page.goto(app.url);
    await page.getByText("Connected in this browser for").waitFor();
    await page.getByRole("button", { name: "Test the connection" }).click();
    await page.getByText("Lanyard can connect to Galtry").waitFor();
    await page.getByText("It is allowed to set cookies").waitFor();
    const window = await openWindow(colleague, page);
    await window.getByRole("button", { name: "Maren Pohl" }).click();
    await window.getByRole("button", { name: "Disconnect" }).click();
    await window.getByText("Not connected to Galtry").waitFor();
    await window.close();
    await page.goto(`${app.url}/account`);
    await page.getByText("No browser is connected.").waitFor();
  });

  test("a page that asked before Lanyard listened is told all the same", async () => {
    await connectLanyard(colleague, app.url);
    const page = await colleague.context.newPage();
    // On a slow machine the page asks first: what it says until Lanyard's script is there is heard by nobody.
    await page.addInitScript(() => {
      let listens = false;
      const post = window.postMessage.bind(window) as (message: { from?: string; ask?: string }, to: string) => void;
      window.addEventListener("message", ({ data }) => {
        if (data?.from === "lanyard" && data.changed) listens = true;
      });
      window.postMessage = ((message: { from?: string; ask?: string }, to: string) => {
        if (listens || message?.ask !== "state") post(message, to);
      }) as typeof window.postMessage;
    });
    await page.clock.install();
    await page.goto(app.url);
    await page.getByText("Connected in this browser for").waitFor();
    // And so it stays when the time is over in which the first question was to be answered.
    await page.clock.fastForward(5_000);
    expect(await page.getByText("Connected in this browser for").isVisible()).toBe(true);
    await page.close();
  });

  test("a stolen token without the key is worth nothing", async () => {
    const worker = await colleague.worker();
    const token = await worker.evaluate(
      async () =>
        ((await chrome.storage.local.get("connection")) as { connection: { token: string } }).connection.token,
    );
    const response = await fetch(`${app.url}/api/lanyard/run/lanyard.keyList`, {
      method: "POST",
      headers: { authorization: `DPoP ${token}`, "content-type": "application/json" },
      body: "{}",
    });
    expect(response.status).toBe(401);
  });
});
