/** Somebody leaves, on one page: what ends, who takes over, what they have seen; and what comes back. */
import { afterAll, beforeAll, expect, test } from "vitest";
import { DEMO_PASSWORD } from "../demo/organisation";
import { createVault } from "../src/server/vaults/vaults";
import { seriousIn } from "./axe";
import { type Browser, openBrowser, signInToGaltry, takenOver } from "./browser";
import { type App, startHouse } from "./house";

let app: App;
const opened: Browser[] = [];

beforeAll(async () => {
  app = await startHouse();
});
afterAll(async () => {
  for (const browser of opened) await browser.close();
  await app?.close();
});

async function as(mail: string): Promise<Browser> {
  const browser = await openBrowser({ galtry: app.url, lanyard: false });
  opened.push(browser);
  await signInToGaltry(browser.page, app.url, `${mail}@tarrowick.example`, DEMO_PASSWORD);
  return browser;
}

test("a colleague is out at once, a new steward is in, and only what is selected comes back", async () => {
  // A vault of which nobody else is a steward.
  const edwin = app.built.people.get("edwin")!;
  const by = { kind: "person" as const, personId: edwin, sessionId: null, provedAt: Date.now() };
  await createVault.execute(
    app.galtry,
    { name: "Bank accounts", description: "" },
    { ...by, address: "127.0.0.1", browser: "Chromium on Linux" },
  );
  const gone = await as("edwin.marlowe.tate");
  const { page } = await as("hanna.quist");
  await page.goto(`${app.url}/people?find=edwin`);
  await page.getByRole("button", { name: "Manage Edwin Marlowe-Tate" }).click();
  await page.getByRole("dialog").getByRole("link", { name: "Leaves…" }).click();
  await page.getByRole("heading", { name: "Edwin Marlowe-Tate leaves" }).waitFor();
  await takenOver(page);
  expect(await seriousIn(page)).toEqual([]);
  const done = page.getByRole("button", { name: "Mark as leaver" });
  expect(await done.isDisabled()).toBe(true);
  await page.getByRole("combobox", { name: "New steward of Bank accounts" }).fill("Ines");
  await page.getByRole("option", { name: /Ines Okafor/ }).click();
  await page.getByText("Steward: Ines Okafor").waitFor();
  for (const left of await page.getByRole("button", { name: /^No steward for / }).all()) await left.click();
  await page.getByLabel("Reason").fill("last day");
  await done.click();
  await page.getByRole("heading", { name: "Edwin Marlowe-Tate has left" }).waitFor();
  await gone.page
    .getByRole("heading", { name: "Sign in to Galtry" })
    .or(gone.page.getByText("Your session has ended"))
    .first()
    .waitFor();
  await takenOver(page);
  expect(await seriousIn(page)).toEqual([]);
  await page.setViewportSize({ width: 390, height: 800 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
  await page.getByText("Group Finance").click();
  await page.getByRole("button", { name: "Reinstate" }).click();
  await page.getByText("Edwin Marlowe-Tate is reinstated, with what you selected.").waitFor();
  const ines = await as("ines.okafor");
  await ines.page.goto(`${app.url}/vaults`);
  await ines.page.getByRole("link", { name: "Bank accounts" }).waitFor();
}, 120_000);
