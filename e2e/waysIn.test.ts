/** How people sign in: a passkey (a virtual authenticator), one-time codes and recovery codes, in a real browser. */
import type { CDPSession } from "playwright-core";
import { afterAll, afterEach, beforeAll, describe, expect, test } from "vitest";
import { DEMO_PASSWORD } from "../demo/organisation";
import { codeAt } from "../src/core/signin/code";
import { sessions } from "../src/server/database/schema";
import { seriousIn } from "./axe";
import { type Browser, connectLanyard, openBrowser, signInByHand, signInToGaltry, takenOver } from "./browser";
import { type App, startHouse } from "./house";

let app: App;
const opened: Browser[] = [];

beforeAll(async () => {
  app = await startHouse();
});
// Pages that stay open are drawn anew at every change that the next test makes.
afterEach(async () => {
  for (const browser of opened.splice(0)) await browser.close();
});
afterAll(() => app?.close());

async function open(options: { lanyard?: boolean } = {}): Promise<Browser> {
  const browser = await openBrowser({ galtry: app.url, lanyard: false, ...options });
  opened.push(browser);
  return browser;
}

/** A phone's authenticator that verifies its owner. */
async function authenticatorOf({ context, page }: Browser): Promise<CDPSession> {
  const cdp = await context.newCDPSession(page);
  await cdp.send("WebAuthn.enable");
  await cdp.send("WebAuthn.addVirtualAuthenticator", {
    options: {
      protocol: "ctap2",
      transport: "internal",
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  });
  return cdp;
}

describe("a passkey", () => {
  test("invited by mail: joined with a passkey, Lanyard connected, signed in to a site; the way is short", async () => {
    const administrator = await open();
    await signInToGaltry(administrator.page, app.url, "ines.okafor@tarrowick.example", DEMO_PASSWORD);
    await administrator.page.goto(`${app.url}/people`);
    await administrator.page.getByRole("button", { name: "Add people" }).click();
    await administrator.page
      .getByLabel("People to add")
      .fill("Anneke Visser, anneke.visser@tarrowick.example, Shop Team\nmaren.pohl@tarrowick.example");
    await administrator.page.getByText("This email address is already in use.").waitFor();
    expect(await seriousIn(administrator.page)).toEqual([]);
    await administrator.page.getByRole("button", { name: "Add 1 person" }).click();
    await administrator.page.getByText("1 person added. 1 email is on the way.").waitFor();
    // The line that could not go is there still.
    expect(await administrator.page.getByLabel("People to add").inputValue()).toBe("maren.pohl@tarrowick.example");

    const letters = () =>
      app.standins.postRoom.letters.filter(({ to }) => to.includes("anneke.visser@tarrowick.example"));
    await expect.poll(() => letters().length).toBe(1);
    const link = /https?:\S+\/join#\S+/.exec(letters()[0]!.text)![0];
    const start = Date.now();
    let presses = 0;
    const newcomer = await open({ lanyard: true });
    const { page } = newcomer;
    await authenticatorOf(newcomer);
    await page.goto(link);
    await page.getByText("Welcome, Anneke").waitFor();
    expect(await seriousIn(page)).toEqual([]);
    await page.getByRole("button", { name: "Use a passkey instead" }).click();
    presses++;
    await page.getByRole("combobox", { name: "Find, and sign in" }).waitFor();
    await connectLanyard(newcomer, app.url);
    presses += 3;
    await page.goto(app.url);
    await page.getByText("Connected in this browser for").waitFor();
    const [tab] = await Promise.all([
      newcomer.context.waitForEvent("page"),
      page
        .getByRole("button", { name: /^Sign in to Quillbrook/ })
        .first()
        .click(),
    ]);
    presses++;
    await tab.getByText("Today at Quillbrook").waitFor();
    expect(presses).toBeLessThanOrEqual(5);
    expect(Date.now() - start).toBeLessThan(5 * 60_000);
    await tab.close();

    // Signed out, and in again with nothing typed.
    await page.goto(`${app.url}/account`);
    await page.getByText(/^Passkey: Chrome/).waitFor();
    expect(await seriousIn(page)).toEqual([]);
    await page.getByRole("button", { name: "Sign out", exact: true }).first().click();
    await page.getByRole("heading", { name: "Sign in to Galtry" }).waitFor();
    await page.getByRole("button", { name: "Sign in with a passkey" }).click();
    await page.getByRole("combobox", { name: "Find, and sign in" }).waitFor();
    // The adder sees that they have joined.
    await administrator.page.goto(`${app.url}/people?find=anneke`);
    await administrator.page.getByText("Anneke Visser").waitFor();
    const row = administrator.page.getByRole("row", { name: /Anneke Visser/ });
    expect(await row.getByText("not joined yet").count()).toBe(0);
  });

  test("over a session that has ended, another person's passkey neither sends what was typed nor sees the page", async () => {
    const browser = await open();
    const { page } = browser;
    await authenticatorOf(browser);
    const add = async (mail: string) => {
      await signInToGaltry(page, app.url, mail, DEMO_PASSWORD);
      await page.goto(`${app.url}/account`);
      await page.getByRole("button", { name: "Add a passkey" }).click();
      await page.getByText(/^The passkey .* has been added/).waitFor();
    };
    // The only passkey of this device is Bram's; the page is that of Wilhelmina.
    await add("bram.oyelaran@tarrowick.example");
    await page.context().clearCookies();
    await signInToGaltry(page, app.url, "wilhelmina.oosterhuis@tarrowick.example", DEMO_PASSWORD);
    await page.goto(`${app.url}/entry/${app.built.entries.get("harrowmere.localhost")}?edit`);
    await takenOver(page);
    await page.getByRole("textbox", { name: "Description" }).fill("Typed by Wilhelmina");
    await app.galtry.writer.write((tx) => tx.update(sessions).set({ endedAt: Date.now() }));
    // By the press, or before it: a page that looks again hears of the end by itself.
    await page
      .getByRole("button", { name: "Save" })
      .click({ timeout: 3_000 })
      .catch(() => undefined);
    await page.getByRole("dialog", { name: "Your session has ended" }).waitFor();
    page.once("dialog", (asked) => void asked.accept());
    await page.getByRole("button", { name: "Use a passkey instead" }).click();
    await page.getByRole("combobox", { name: "Find, and sign in" }).waitFor();
    await page.getByText(/Good \w+,/).waitFor();
    expect(await page.locator("header").innerText()).toContain("BO");
    const row = (await app.galtry.db.query.entries.findMany()).find((one) => one.description === "Typed by Wilhelmina");
    expect(row).toBeUndefined();
  });

  test("a browser without one says so, and the password still signs in", async () => {
    const browser = await open();
    const { page } = browser;
    await authenticatorOf(browser);
    await page.goto(`${app.url}/sign-in`);
    await page.getByRole("button", { name: "Sign in with a passkey" }).click();
    await page.getByText("No passkey was used. Try again, or use another way.").waitFor();
    await signInByHand(page, app.url, "maren.pohl@tarrowick.example", DEMO_PASSWORD);
  });
});

describe("one-time codes", () => {
  test("set up after confirming, asked for at the next sign-in; a recovery code when the phone is lost", async () => {
    const { page } = await open();
    const mail = "silas.penhale@tarrowick.example";
    await signInToGaltry(page, app.url, mail, DEMO_PASSWORD);
    await page.goto(`${app.url}/account`);
    await page.getByRole("button", { name: "Set up one-time codes" }).click();
    await page.getByRole("dialog").getByText("Scan this").waitFor();
    const secret = (await page.getByRole("dialog").locator(".mono").first().innerText()).replace(/\s/g, "");
    const shown = (ahead = 0) =>
      codeAt({ secret, digits: 6, period: 30, algorithm: "SHA1" }, Date.now() + ahead * 30_000).code;
    await page.getByLabel("Code the app shows").fill(shown(-1));
    expect(await seriousIn(page)).toEqual([]);
    await page.getByRole("button", { name: "Turn on" }).click();
    await page.getByText("One-time codes are on.").waitFor();
    await page.getByRole("button", { name: "Create recovery codes" }).click();
    await page.getByRole("dialog").locator("ol li").first().waitFor();
    const codes = await page.getByRole("dialog").locator("ol li").allInnerTexts();
    expect(codes).toHaveLength(10);
    await page.getByRole("button", { name: "Done" }).click();
    await page.getByText("10 codes left; each works once.").waitFor();

    const enter = async (code: string) => {
      await page.context().clearCookies();
      await page.goto(`${app.url}/sign-in`);
      await page.getByLabel("Email address").fill(mail);
      await page.getByLabel("Sign-in password").fill(DEMO_PASSWORD);
      await page.getByRole("button", { name: "Sign in", exact: true }).click();
      await page.getByRole("heading", { name: "Second step" }).waitFor();
      await page.getByLabel("One-time code").fill(code);
      await page.getByRole("button", { name: "Sign in", exact: true }).click();
    };
    await enter("000000");
    await page.getByText("This code is not right.").waitFor();
    expect(await seriousIn(page)).toEqual([]);
    await page.getByLabel("One-time code").fill(shown(1));
    await page.getByRole("button", { name: "Sign in", exact: true }).click();
    await page.getByRole("combobox", { name: "Find, and sign in" }).waitFor();
    await enter(codes[0]!);
    await page.getByRole("combobox", { name: "Find, and sign in" }).waitFor();
    await page.goto(`${app.url}/account`);
    await page.getByText("9 codes left; each works once.").waitFor();
    await page.getByText("A recovery code was used to sign in as you").first().waitFor();
  });
});
