/** A vault with three folders and ten entries of different kinds, by keys alone: what each takes is counted. */
import type { Page } from "playwright-core";
import { afterAll, beforeAll, expect, test } from "vitest";
import { DEMO_PASSWORD } from "../demo/organisation";
import { type Browser, openBrowser, signInToGaltry, takenOver } from "./browser";
import { type App, startHouse } from "./house";

let app: App;
let browser: Browser;
beforeAll(async () => {
  app = await startHouse();
  browser = await openBrowser({ galtry: app.url, lanyard: false });
  await signInToGaltry(browser.page, app.url, "hanna.quist@tarrowick.example", DEMO_PASSWORD);
});
afterAll(async () => {
  await browser?.close();
  await app?.close();
});

/** Presses keys and counts those that are no typing. */
class Hand {
  keys = 0;
  constructor(readonly page: Page) {}

  async press(...keys: string[]): Promise<void> {
    for (const key of keys) {
      this.keys += 1;
      await this.page.keyboard.press(key);
    }
  }

  type = (text: string) => this.page.keyboard.type(text);

  /** What has the focus is called. */
  focused = () =>
    this.page.evaluate(() => {
      if (document.activeElement === document.body || document.activeElement?.id === "content") return "";
      const here = document.activeElement as (HTMLElement & { labels?: NodeListOf<HTMLLabelElement> }) | null;
      const by = here?.getAttribute("aria-labelledby")?.split(" ") ?? [];
      return [
        here?.getAttribute("aria-label"),
        ...by.map((id) => document.getElementById(id)?.textContent),
        ...[...(here?.labels ?? [])].map((label) => label.textContent),
        here?.textContent,
      ]
        .map((text) => text?.trim() ?? "")
        .find(Boolean);
    });

  /** By Tab to what is called so; no further than a person would look. */
  async to(name: RegExp, most = 30, key = "Tab"): Promise<void> {
    const passed: string[] = [];
    for (let i = 0; i <= most; i++) {
      const here = (await this.focused()) ?? "";
      if (name.test(here)) return;
      passed.push(here.slice(0, 30));
      await this.press(key);
    }
    throw new Error(`${name} was not reached: ${passed.join(" | ")}`);
  }
}

/** What is asked for first, as an office has it: the fields by their labels, in the order of the form. */
const ENTRIES: { kind: string; letters: string; name: string; fields: [RegExp, string][] }[] = [
  {
    ...{ kind: "Website login", letters: "", name: "Ferrybridge Vans" },
    fields: [
      [/^Sign-in page/, "https://ferrybridge.example/desk"],
      [/^User name/, "tarrowick"],
      [/^Password/, "canary-keys/11"],
    ],
  },
  { ...{ kind: "Password", letters: "pass", name: "Till drawer" }, fields: [[/^Password/, "canary-keys/12"]] },
  { ...{ kind: "Safe", letters: "sa", name: "Safe in the office" }, fields: [[/^Combination/, "40-22-17"]] },
  { ...{ kind: "Door or alarm", letters: "do", name: "Side door" }, fields: [[/^Code/, "7714"]] },
  { ...{ kind: "Wi-Fi", letters: "wi", name: "Visitors" }, fields: [[/^Network/, "Loom House"]] },
  { ...{ kind: "Bank account", letters: "ba", name: "Petty cash" }, fields: [] },
  { ...{ kind: "Membership", letters: "me", name: "Wholesale card" }, fields: [] },
  { ...{ kind: "Licence", letters: "lic", name: "Drawing program" }, fields: [] },
  { ...{ kind: "Contact", letters: "con", name: "Locksmith" }, fields: [] },
  { ...{ kind: "Note", letters: "no", name: "Closing in the evening" }, fields: [] },
];

test("all of it, and how many keys it took", async () => {
  const { page } = browser;
  const hand = new Hand(page);
  await page.goto(`${app.url}/vaults`);
  await takenOver(page);
  await hand.to(/^Create a vault/);
  await hand.press("Enter");
  await hand.type("Evening classes");
  await hand.press("Enter");
  await page.getByRole("heading", { name: "Evening classes" }).waitFor();
  for (const folder of ["Tutors", "Rooms", "Suppliers"]) {
    await hand.to(/^Create a folder/);
    await hand.press("Enter");
    await expect.poll(hand.focused).toMatch(/^Name/);
    await hand.type(folder);
    await hand.press("Enter");
    await page.getByRole("button", { name: new RegExp(`^${folder}`) }).waitFor();
  }
  const forTheVault = hand.keys;
  const begun: number[] = [];
  for (const { kind, letters, name, fields } of ENTRIES) {
    const before = hand.keys;
    await hand.press("n");
    await page.getByRole("heading", { name: /What do you want to add/ }).waitFor();
    await expect.poll(hand.focused).toMatch(/^Website login/);
    await hand.type(letters);
    hand.keys += letters.length;
    await hand.press("Enter");
    await page.getByRole("heading", { name: `Add ${kind}` }).waitFor();
    await takenOver(page);
    await expect.poll(hand.focused).toMatch(/^Name/);
    begun.push(hand.keys - before);
    await hand.type(name);
    for (const [label, value] of fields) {
      await hand.to(label, 12);
      await hand.type(value);
    }
    await hand.press("Enter");
    await page.getByRole("heading", { name }).waitFor();
    await takenOver(page);
    // The focus has gone on to the content: what is above it is one key back.
    await expect.poll(() => page.evaluate(() => document.activeElement?.id)).toBe("content");
    await hand.to(/^Evening classes$/, 2, "Shift+Tab");
    await hand.press("Enter");
    await page.getByRole("heading", { name: "Evening classes" }).waitFor();
  }
  console.log({ forTheVault, begun, all: hand.keys });
  // Two keys for a login, three letters more at most for anything else.
  expect(begun[0]).toBe(2);
  expect(Math.max(...begun)).toBeLessThanOrEqual(8);
  expect(forTheVault).toBeLessThanOrEqual(24);
}, 120_000);
