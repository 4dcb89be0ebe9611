/** Single sign-on in the browser: set up and tested on screen, linked, from the provider's page to a site, signed out there. */
import { and, eq, isNull } from "drizzle-orm";
import type { Page } from "playwright-core";
import { afterAll, afterEach, beforeAll, expect, test } from "vitest";
import { DEMO_PASSWORD } from "../demo/organisation";
import { lanyards, sessions } from "../src/server/database/schema";
import { PROVIDER_CLIENT, PROVIDER_SECRET } from "../standins/provider";
import { seriousIn } from "./axe";
import { type Browser, connectLanyard, openBrowser, patience, signInToGaltry, takenOver } from "./browser";
import { type App, startHouse } from "./house";

let app: App;
const opened: Browser[] = [];
const there = () => app.standins.provider;

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

/** Presses a name on the provider's page. */
const nameThere = (page: Page, name: string) => page.getByRole("button", { name, exact: true }).click();

test("an owner adds it, tests it step by step, proves the domain and switches it on", async () => {
  const { page, context } = await open();
  await signInToGaltry(page, app.url, "hanna.quist@tarrowick.example", DEMO_PASSWORD);
  await page.goto(`${app.url}/people`);
  await page.getByRole("link", { name: "Single sign-on" }).click();
  await page.getByRole("heading", { name: "Single sign-on" }).waitFor();
  await takenOver(page);
  expect(await seriousIn(page)).toEqual([]);
  await page.getByRole("button", { name: "Add a provider" }).click();
  const form = page.getByRole("dialog");
  await form.getByLabel("Name", { exact: true }).fill("Tarrowick accounts");
  await form.getByLabel("Issuer").fill(there().issuer);
  await form.getByLabel("Client ID").fill(PROVIDER_CLIENT);
  await form.getByLabel("Client secret").fill("not this one");
  await form.getByLabel("Scopes").fill("openid email profile groups");
  expect(await seriousIn(page)).toEqual([]);
  await form.getByRole("button", { name: "Add", exact: true }).click();
  const sheet = page.getByRole("article", { name: "Tarrowick accounts" });
  await sheet.waitFor();
  expect(await sheet.getByRole("button", { name: "Switch on" }).isDisabled()).toBe(true);
  const testIt = async (button: string) => {
    const [window] = await Promise.all([
      context.waitForEvent("page"),
      sheet.getByRole("button", { name: button }).click(),
    ]);
    await nameThere(window, "Hanna Quist").catch(() => undefined);
    await expect.poll(() => window.isClosed(), { timeout: 10_000 }).toBe(true);
  };
  await testIt("Test it");
  await sheet.getByText(/The provider said: with status 40[01]: invalid_client/).waitFor();
  expect(await seriousIn(page)).toEqual([]);
  await sheet.getByRole("button", { name: "Change Tarrowick accounts" }).click();
  await page.getByRole("dialog").getByLabel("Client secret").fill(PROVIDER_SECRET);
  await page.getByRole("dialog").getByRole("button", { name: "Save" }).click();
  await sheet.getByText("Not tested since the last change.").waitFor();
  await testIt("Test it");
  await sheet.getByText("tm-hanna, hanna.quist@tarrowick.example").waitFor();
  await sheet.getByLabel("Add a domain").fill("tarrowick.example");
  await sheet.getByRole("button", { name: "Add", exact: true }).click();
  await sheet.getByText("not proven yet").waitFor();
  await sheet.getByRole("button", { name: "Check the record" }).click();
  await sheet.getByText(/was not found yet/).waitFor();
  await sheet.getByRole("button", { name: "State it instead" }).click();
  await page.getByRole("dialog").getByLabel("How you know").fill("The trust has registered it since 2004.");
  await page.getByRole("dialog").getByRole("button", { name: "State it" }).click();
  await sheet.getByText(/stated by Hanna Quist/).waitFor();
  await sheet.getByRole("button", { name: "Switch on" }).click();
  await sheet.getByText("in use", { exact: true }).waitFor();
});

test("somebody who is here already signs in as before, links the account, and from then on presses one button", async () => {
  const { page } = await open();
  await page.goto(`${app.url}/sign-in`);
  await page.getByRole("link", { name: "Sign in with Tarrowick accounts" }).click();
  await nameThere(page, "Bram Oyelaran");
  await page.getByText(/You already sign in to Galtry in another way/).waitFor();
  expect(await seriousIn(page)).toEqual([]);
  await page.getByLabel("Email address").fill("bram.oyelaran@tarrowick.example");
  await page.getByLabel("Sign-in password").fill(DEMO_PASSWORD);
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
  await page.getByText(/Link your account now/).waitFor();
  // Where the provider's answer is no good it comes to nothing, and that is said where it was begun.
  there().wrong = "signature";
  await page.getByRole("button", { name: "Link your account at Tarrowick accounts" }).click();
  await nameThere(page, "Bram Oyelaran");
  await page.getByText(/Signing in with Tarrowick accounts did not work/).waitFor();
  expect(new URL(page.url()).pathname).toBe("/account");
  there().wrong = "none";
  await page.context().clearCookies({ domain: "id.localhost" });
  await page.getByRole("button", { name: "Link your account at Tarrowick accounts" }).click();
  await nameThere(page, "Bram Oyelaran");
  await page.getByText("bram.oyelaran@tarrowick.example, last used today").first().waitFor();
  await page.getByRole("button", { name: "Sign out", exact: true }).first().click();
  await page.getByRole("link", { name: "Sign in with Tarrowick accounts" }).click();
  await page.getByRole("combobox", { name: "Find, and sign in" }).waitFor();
});

test("from the provider's page of applications to a site, signed in, in two presses; signed out there, everything ends", async () => {
  const browser = await open({ lanyard: true });
  const { page, context } = browser;
  const entry = app.built.entries.get("quillbrook.localhost")!;
  // Connected some other day.
  await signInToGaltry(page, app.url, "bram.oyelaran@tarrowick.example", DEMO_PASSWORD);
  await connectLanyard(browser, app.url);
  await page.goto(`${app.url}/account`);
  await page.getByRole("button", { name: "Sign out", exact: true }).first().click();
  await page.getByRole("heading", { name: "Sign in to Galtry" }).waitFor();
  // Signed in at the provider, as in the morning.
  await page.getByRole("link", { name: "Sign in with Tarrowick accounts" }).click();
  await nameThere(page, "Bram Oyelaran");
  await page.getByRole("combobox", { name: "Find, and sign in" }).waitFor();
  await page.goto(`${app.url}/account`);
  await page.getByRole("button", { name: "Sign out", exact: true }).first().click();
  await page.getByRole("heading", { name: "Sign in to Galtry" }).waitFor();
  const [provider] = await app.galtry.db.query.providers.findMany();
  const start = `${app.url}/sso/${provider!.id}/start?${new URLSearchParams({ next: `/entry/${entry}` })}`;
  there().applications = [{ name: "Quillbrook Couriers", address: start }];
  await page.goto(there().issuer);
  await page.getByRole("link", { name: "Quillbrook Couriers" }).click();
  const signIn = page.getByRole("button", { name: "Sign in", exact: true });
  await signIn.waitFor();
  const [tab] = await Promise.all([context.waitForEvent("page"), signIn.click()]);
  await tab.getByText("Today at Quillbrook").waitFor();

  // Signed out at the provider.
  const bram = app.built.people.get("bram")!;
  const openNow = async () => {
    const db = app.galtry.db;
    const [a, b] = await Promise.all([
      db
        .select()
        .from(sessions)
        .where(and(eq(sessions.personId, bram), isNull(sessions.endedAt), eq(sessions.providerId, provider!.id))),
      db
        .select()
        .from(lanyards)
        .where(and(eq(lanyards.personId, bram), isNull(lanyards.endedAt))),
    ]);
    return a.length + b.length;
  };
  expect(await openNow()).toBeGreaterThanOrEqual(2);
  const began = Date.now();
  expect(await there().logOut("tm-bram", `${app.url}/sso/${provider!.id}/logout`)).toBe(200);
  expect(await openNow()).toBe(0);
  await page
    .getByText(/You have been signed out|Sign in to Galtry|signed out/)
    .first()
    .waitFor({ timeout: 5000 });
  expect(Date.now() - began).toBeLessThan(5000);
  expect(await there().logOut("tm-bram", `${app.url}/sso/${provider!.id}/begin`)).not.toBe(200);
});

test("SCIM: an account is confirmed by an administrator; deactivated there, its person is out of everything within seconds", async () => {
  const hanna = await open();
  await signInToGaltry(hanna.page, app.url, "hanna.quist@tarrowick.example", DEMO_PASSWORD);
  await hanna.page.goto(`${app.url}/people/sign-on`);
  await hanna.page.getByRole("button", { name: "Create a token" }).click();
  const shown = hanna.page.getByRole("region", { name: "SCIM" });
  await shown.getByText("It is shown once.").waitFor();
  const [address, token] = await shown.locator("code").allInnerTexts();
  expect(address).toBe(`${app.url}/scim/v2`);
  // From the provider's own administration, as a directory tells: everybody, and then each change.
  const mail = "gwen.hartnoll@tarrowick.example";
  const { page: directory } = await open();
  await directory.goto(`${there().issuer}/administration`);
  await directory.getByLabel("SCIM address").fill(address!);
  await directory.getByLabel("SCIM token").fill(token!);
  await directory.getByRole("button", { name: "Connect and send all" }).click();
  await directory.getByText(`Galtry is told at ${app.url}/scim/v2`).waitFor();
  await directory.getByText("POST Groups: 201").first().waitFor();
  await hanna.page.reload();
  await hanna.page.getByText(`Gwen Hartnoll, ${mail}`).waitFor();
  await takenOver(hanna.page);
  expect(await seriousIn(hanna.page)).toEqual([]);
  await hanna.page.getByRole("button", { name: `Link ${mail}` }).click();
  await hanna.page.getByText(`Gwen Hartnoll, ${mail}`).waitFor({ state: "detached" });

  const gwen = await open({ lanyard: true });
  await gwen.page.goto(`${app.url}/sign-in`);
  await gwen.page.getByRole("link", { name: "Sign in with Tarrowick accounts" }).click();
  await nameThere(gwen.page, "Gwen Hartnoll");
  await gwen.page.getByRole("combobox", { name: "Find, and sign in" }).waitFor();
  await connectLanyard(gwen, app.url);
  await gwen.page.goto(app.url);
  await gwen.page.getByText("Connected in this browser for").waitFor();
  const [tab] = await Promise.all([
    gwen.context.waitForEvent("page"),
    gwen.page
      .getByRole("button", { name: /^Sign in to Quillbrook/ })
      .first()
      .click(),
  ]);
  await tab.getByText("Today at Quillbrook").waitFor();

  // Five seconds, or as many more as pages take on a machine that is busy with other things.
  const limit = Math.max(5000, 2 * (await patience(gwen.context, app.url)));
  const began = Date.now();
  await directory
    .getByRole("row", { name: /Gwen Hartnoll/ })
    .getByRole("button", { name: "Deactivate" })
    .click();
  await gwen.page.getByRole("combobox", { name: "Find, and sign in" }).waitFor({ state: "detached", timeout: limit });
  const pageMs = Date.now() - began;
  // The session at the site, in her own browser.
  await expect
    .poll(
      async () => {
        await tab.reload();
        return tab.getByText("Today at Quillbrook").count();
      },
      { timeout: limit + 1000, interval: 200 },
    )
    .toBe(0);
  const siteMs = Date.now() - began;
  console.log(`deactivated: page ended after ${pageMs} ms, the session at the site after ${siteMs} ms`);
  expect(siteMs).toBeLessThan(limit);
  await gwen.page.goto(app.url);
  await gwen.page.getByRole("heading", { name: "Sign in to Galtry" }).waitFor();
  // What SCIM said counts, even where the provider itself would still let her in.
  there().staff.find(({ name }) => name === "Gwen Hartnoll")!.active = true;
  await gwen.page.getByRole("link", { name: "Sign in with Tarrowick accounts" }).click();
  await gwen.page.getByText("Your account at Tarrowick accounts is deactivated.").waitFor();
}, 120_000);

test("SAML: set up by its metadata, tested, and signed in with from either side", async () => {
  const saml = app.standins.saml;
  const { page, context } = await open();
  await signInToGaltry(page, app.url, "hanna.quist@tarrowick.example", DEMO_PASSWORD);
  await page.goto(`${app.url}/people/sign-on`);
  await page.getByRole("button", { name: "Add a provider" }).click();
  const form = page.getByRole("dialog");
  await form.getByLabel("Protocol").selectOption("saml");
  await form.getByLabel("Name", { exact: true }).fill("Tarrowick SAML");
  await form.getByLabel("The provider’s metadata (XML)").fill(saml.metadata);
  await expect.poll(() => form.getByLabel("Entity ID of the provider").inputValue()).toBe(saml.entityId);
  await form.getByRole("button", { name: "Add", exact: true }).click();
  const sheet = page.getByRole("article", { name: "Tarrowick SAML" });
  const [window] = await Promise.all([
    context.waitForEvent("page"),
    sheet.getByRole("button", { name: "Test it" }).click(),
  ]);
  await nameThere(window, "Hanna Quist");
  await sheet.getByText("tm-hanna, hanna.quist@tarrowick.example").waitFor();
  await sheet.getByRole("button", { name: "Switch on" }).click();
  await sheet.getByText("in use", { exact: true }).waitFor();

  const edwin = await open();
  await edwin.page.goto(`${app.url}/sign-in`);
  await edwin.page.getByRole("link", { name: "Sign in with Tarrowick SAML" }).click();
  await nameThere(edwin.page, "Edwin Marlowe-Tate");
  // Its domain is with the other provider: nobody is found by an address here.
  await edwin.page.getByText(/not in one of your organisation’s domains/).waitFor();
  await signInToGaltry(edwin.page, app.url, "edwin.marlowe.tate@tarrowick.example", DEMO_PASSWORD);
  await edwin.page.goto(`${app.url}/account`);
  await edwin.page.getByRole("button", { name: "Link your account at Tarrowick SAML" }).click();
  await nameThere(edwin.page, "Edwin Marlowe-Tate");
  await edwin.page.getByText("edwin.marlowe.tate@tarrowick.example, last used today").waitFor();
  await edwin.page.getByRole("button", { name: "Sign out", exact: true }).first().click();
  await edwin.page.getByRole("link", { name: "Sign in with Tarrowick SAML" }).click();
  await nameThere(edwin.page, "Edwin Marlowe-Tate");
  await edwin.page.getByRole("combobox", { name: "Find, and sign in" }).waitFor();
  await edwin.page.goto(`${app.url}/account`);
  await edwin.page.getByRole("button", { name: "Sign out", exact: true }).first().click();
  await edwin.page.getByRole("heading", { name: "Sign in to Galtry" }).waitFor();
  // Begun there, with an answer that nobody asked for: Galtry asks itself, and goes on to what was wanted.
  const rows = await app.galtry.db.query.providers.findMany();
  const { id } = rows.find(({ protocol }) => protocol === "saml")!;
  await edwin.page.goto(saml.entityId.replace("/metadata", "/"));
  await edwin.page.setContent(
    `<form method="post" action="${app.url}/sso/${id}/acs"><input name="SAMLResponse" value="PHg+"><input name="RelayState" value="/vaults"><button>Galtry</button></form>`,
  );
  await edwin.page.getByRole("button", { name: "Galtry" }).click();
  await nameThere(edwin.page, "Edwin Marlowe-Tate");
  await edwin.page.getByRole("heading", { name: "Vaults" }).waitFor();
  expect(new URL(edwin.page.url()).pathname).toBe("/vaults");
}, 120_000);

test("a page of another site can neither begin what is more than a sign-in nor frame or redirect", async () => {
  const provider = (await app.galtry.db.query.providers.findMany()).find(({ protocol }) => protocol === "oidc");
  const begin = await fetch(`${app.url}/sso/${provider!.id}/begin`, {
    method: "POST",
    headers: { origin: "https://evil.example", "content-type": "application/json" },
    body: JSON.stringify({ purpose: "link", next: "/" }),
  });
  expect(begin.status).toBe(403);
  for (const next of ["https://evil.example", "//evil.example", "/\\evil.example"]) {
    const start = await fetch(`${app.url}/sso/${provider!.id}/start?${new URLSearchParams({ next })}`, {
      redirect: "manual",
    });
    expect(new URL(start.headers.get("location")!).hostname).toBe("id.localhost");
  }
  const mixed = await fetch(`${app.url}/sso/${provider!.id}/start?iss=https://another.example`, { redirect: "manual" });
  expect(new URL(mixed.headers.get("location")!).pathname).toBe("/sign-in");
  const framed = await fetch(`${app.url}/sso/${provider!.id}/logout?iss=${there().issuer}&sid=unknown`);
  expect(framed.headers.get("content-security-policy")).toContain(`frame-ancestors ${there().issuer}`);
  const replayed = await fetch(`${app.url}/sso/${provider!.id}/return?code=x&state=y`, { redirect: "manual" });
  expect(replayed.headers.get("location")).toContain("/sign-in?sso=ended");
  expect(replayed.headers.getSetCookie().join()).not.toContain("session");
});
