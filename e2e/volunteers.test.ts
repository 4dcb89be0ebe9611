/** The Trust with all its volunteers: lists send what is seen, and what is looked for is found. */
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { buildLarge, type Large, WITH_VOLUNTEERS } from "../demo/large";
import { DEMO_PASSWORD } from "../demo/organisation";
import { seriousIn } from "./axe";
import { type Browser, openBrowser, signInToGaltry, takenOver } from "./browser";
import { type App, startHouse } from "./house";

let app: App;
let built: Large;
let owner: Browser;

beforeAll(async () => {
  app = await startHouse();
  await app.kill();
  built = await buildLarge(app.galtry, WITH_VOLUNTEERS);
  await app.start();
  owner = await openBrowser({ galtry: app.url, lanyard: false });
  await signInToGaltry(owner.page, app.url, "hanna.quist@tarrowick.example", DEMO_PASSWORD);
});
afterAll(async () => {
  await owner?.close();
  await app?.close();
});

describe("People", () => {
  test("fifty at a time, and the way to the others and back", async () => {
    const { page } = owner;
    await page.goto(`${app.url}/people`);
    const rows = page.getByRole("button", { name: /^Manage / });
    await page.getByText(/1 to 50 of \d+/).waitFor();
    expect(await rows.count()).toBeLessThanOrEqual(50);
    const first = await rows.first().getAttribute("aria-label");
    expect(await seriousIn(page)).toEqual([]);
    await page.getByRole("link", { name: "Next" }).click();
    await page.getByText(/51 to 100 of \d+/).waitFor();
    expect(await rows.first().getAttribute("aria-label")).not.toBe(first);
    await page.getByRole("link", { name: "Next" }).click();
    await page.getByText(/101 to 150 of \d+/).waitFor();
    await page.getByRole("link", { name: "Previous" }).click();
    await page.getByText(/51 to 100 of \d+/).waitFor();
    await page.getByRole("link", { name: "Previous" }).click();
    await page.getByText(/1 to 50 of \d+/).waitFor();
    expect(await rows.first().getAttribute("aria-label")).toBe(first);
  });

  test("somebody far down is found by a part of the name, and nobody by what nobody is called", async () => {
    const { page } = owner;
    const { name } = (await app.galtry.access.fresh()).person(built.personIds.at(-1)!)!;
    await page.goto(`${app.url}/people`);
    const find = page.getByLabel("Find a person");
    await find.fill(name.slice(0, -1));
    await find.press("Enter");
    await page.getByRole("button", { name: `Manage ${name}` }).waitFor();
    await find.fill("nobody is called this");
    await find.press("Enter");
    await page.getByText("No match for “nobody is called this”.").waitFor();
    expect(await seriousIn(page)).toEqual([]);
  });

  test("the first groups, and all of them on a press", async () => {
    const { page } = owner;
    await page.goto(`${app.url}/people`);
    const all = page.getByRole("link", { name: /^All \d+ groups$/ });
    const groups = page.locator('a[href^="/people/groups/"]');
    const few = await groups.count();
    await all.click();
    await page.waitForURL(/groups/);
    await expect.poll(() => groups.count()).toBeGreaterThan(few);
  });
});

test("the Journal is looked through for one person, found by a part of their name", async () => {
  const { page } = owner;
  await page.goto(`${app.url}/journal`);
  const picker = page.getByRole("combobox", { name: "Person" });
  await picker.fill("Ines Ok");
  await page.getByRole("option", { name: /Ines Okafor/ }).click();
  await page.waitForURL(/person=/);
  await expect.poll(() => picker.getAttribute("placeholder")).toBe("Ines Okafor");
  await page.getByRole("button", { name: "All people" }).waitFor();
  expect(await seriousIn(page)).toEqual([]);
});

test("the answer to an earlier search does not take the place of that to a later one", async () => {
  const { page } = owner;
  await page.goto(`${app.url}/journal`);
  let late = 0;
  await page.route("**/api/query/people.*", async (route) => {
    if (/"text":""/.test(route.request().postData() ?? "")) {
      late += 1;
      await new Promise((resolve) => setTimeout(resolve, 1_500));
    }
    await route.continue();
  });
  await takenOver(page);
  await page.getByRole("combobox", { name: "Person" }).fill("Ines Ok");
  const option = page.getByRole("option", { name: /Ines Okafor/ });
  await option.waitFor();
  await page.waitForTimeout(2_000);
  expect([late, await option.count()]).toEqual([1, 1]);

  // Until the next answer is here, Enter chooses nobody who was looked for before.
  const address = page.url();
  await page.getByRole("combobox", { name: "Person" }).fill("Maren");
  await page.keyboard.press("Enter");
  expect(await option.count()).toBe(0);
  await page.getByRole("option", { name: /Maren/ }).first().waitFor();
  expect(page.url()).toBe(address);
  await page.unroute("**/api/query/people.*");
});
