/** Where new users stumbled: what is typed, copied, imported and asked for by its address is not lost. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, expect, test } from "vitest";
import { DEMO_PASSWORD } from "../demo/organisation";
import { persons, sessions } from "../src/server/database/schema";
import { type Browser, openBrowser, signInToGaltry, takenOver } from "./browser";
import { type App, startHouse } from "./house";

const MAIL = "ines.okafor@tarrowick.example";

let app: App;
let browser: Browser;
beforeAll(async () => {
  app = await startHouse();
  browser = await openBrowser({ galtry: app.url, lanyard: false });
  await signInToGaltry(browser.page, app.url, MAIL, DEMO_PASSWORD);
});
afterAll(async () => {
  await browser?.close();
  await app?.close();
});

const vault = (name = "Shop & Tickets") => `${app.url}/vaults/${app.built.vaults.get(name)}`;
const entry = (host: string) => `${app.url}/entry/${app.built.entries.get(host)}`;

async function endSessions(): Promise<void> {
  const { db } = app.galtry;
  const [person] = await db.select().from(persons).where(eq(persons.mail, MAIL));
  await db.update(sessions).set({ endedAt: Date.now() }).where(eq(sessions.personId, person!.id));
}

test("a secret in the clipboard is cleared after 30 seconds, also when its page has been left", async () => {
  const { page } = browser;
  await page.context().grantPermissions(["clipboard-read", "clipboard-write"]);
  await page.clock.install();
  await page.goto(entry("stallwright.localhost"));
  await takenOver(page);
  await page.getByRole("button", { name: "Copy Password" }).click();
  const clipboard = () => page.evaluate(() => navigator.clipboard.readText());
  await expect.poll(clipboard).not.toBe("");
  await page.getByRole("link", { name: "Vaults", exact: true }).first().click();
  await page.getByRole("heading", { name: "Vaults" }).waitFor();
  await page.clock.fastForward(20_000);
  expect(await clipboard()).not.toBe("");
  await page.clock.fastForward(11_000);
  await expect.poll(clipboard).toBe("");
  await page.clock.resume();
}, 60_000);

test("a session that ends while a form is full is begun again over it, and what was typed is saved", async () => {
  const { page } = browser;
  await page.goto(`${entry("stallwright.localhost")}?edit`);
  await takenOver(page);
  await page.getByRole("textbox", { name: "Description" }).fill("Typed before the session ended");
  await endSessions();
  await page.getByRole("button", { name: "Save" }).click();
  const dialog = page.getByRole("dialog", { name: "Your session has ended" });
  await dialog.waitFor();
  await dialog.getByLabel("Sign-in password").fill("not this one");
  await dialog.getByRole("button", { name: "Sign in", exact: true }).click();
  await dialog.getByText(/wrong/).waitFor();
  await dialog.getByLabel("Sign-in password").fill(DEMO_PASSWORD);
  await dialog.getByRole("button", { name: "Sign in", exact: true }).click();
  await page.getByRole("heading", { name: "Stallwright Wholesale" }).waitFor();
  await page.getByText("Typed before the session ended").first().waitFor();
}, 60_000);

test("a page that is asked for by its address is there after signing in, and no other site's", async () => {
  const { page } = browser;
  await endSessions();
  await page.goto(`${vault()}?in=${app.built.folders.get("Suppliers")}`);
  await page.getByLabel("Email address").fill(MAIL);
  await page.getByLabel("Sign-in password").fill(DEMO_PASSWORD);
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
  await page.waitForURL(/\/vaults\/[\w-]+\?in=/);
  await page.getByRole("heading", { name: "Shop & Tickets" }).waitFor();
  await page.context().clearCookies();
  const answer = await page.request.get(`${app.url}/vaults`, {
    headers: { "x-galtry-page": "https://elsewhere.example/" },
    maxRedirects: 0,
  });
  expect(decodeURIComponent(answer.headers().location!)).not.toContain("elsewhere");
  await signInToGaltry(page, app.url, MAIL, DEMO_PASSWORD);
}, 60_000);

test("a login is begun with few keys, in the place one is at", async () => {
  const { page } = browser;
  await page.goto(vault());
  await takenOver(page);
  await page.keyboard.press("n");
  await page.getByRole("heading", { name: /What do you want to add/ }).waitFor();
  await expect.poll(() => page.evaluate(() => document.activeElement?.textContent)).toContain("Website login");
  await page.keyboard.press("Enter");
  await page.getByRole("heading", { name: /Add Website login/ }).waitFor();
  await takenOver(page);
  expect(await page.evaluate(() => document.activeElement?.tagName)).toBe("INPUT");
  expect(await page.getByLabel("Place").inputValue()).toBe(app.built.vaults.get("Shop & Tickets"));
  // All of it is seen at once, and what is refused is gone to.
  expect(await page.getByRole("button", { name: "Add", exact: true }).isVisible()).toBe(true);
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await page.getByText("Check the marked field.").waitFor();
  expect(await page.evaluate(() => document.activeElement?.getAttribute("aria-invalid"))).toBe("true");
  await page.goto(`${app.url}/`);
  await takenOver(page);
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press("n");
  await page.getByRole("dialog", { name: "Add an entry" }).waitFor();
}, 60_000);

test("an import is found from its vault and undone from there", async () => {
  const { page } = browser;
  await page.goto(`${vault()}/import`);
  await takenOver(page);
  await page.getByLabel("File", { exact: true }).setInputFiles({
    name: "browser.csv",
    mimeType: "text/csv",
    buffer: Buffer.from("name,url,username,password\nLarkmoor,https://larkmoor.example/in,desk,canary-larkmoor 7\n"),
  });
  await page.getByRole("button", { name: "Check the rows" }).click();
  await page.getByRole("button", { name: "Import 1 entry" }).click();
  await page.getByRole("heading", { name: "1 entry imported" }).waitFor();
  await page.goto(vault());
  await page.getByRole("link", { name: "Check or undo the import" }).click();
  await takenOver(page);
  await page.getByRole("button", { name: "Undo import" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Put 1 entry in the bin" }).click();
  await page.waitForURL(/\/vaults\/[\w-]+$/);
  await page.getByRole("link", { name: "Check or undo the import" }).waitFor({ state: "detached" });
}, 60_000);

test("the Journal is narrowed by days, leads to what it is about, and is saved", async () => {
  const { page } = browser;
  await page.goto(`${app.url}/journal`);
  await takenOver(page);
  const about = page.getByRole("link", { name: /^added Larkmoor|^imported 1 entry/ }).first();
  await about.waitFor();
  const tomorrow = new Date(Date.now() + 2 * 86_400_000).toISOString().slice(0, 10);
  await page.goto(`${app.url}/journal?from=${tomorrow}`);
  await page.getByText("No lines match these filters.").waitFor();
  await page.goto(`${app.url}/journal?to=${tomorrow}`);
  await takenOver(page);
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "CSV" }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/^journal-.*\.csv$/);
  await page
    .getByRole("link", { name: /^imported 1 entry/ })
    .first()
    .click();
  await page.getByRole("heading", { name: "Shop & Tickets" }).waitFor();
}, 60_000);
