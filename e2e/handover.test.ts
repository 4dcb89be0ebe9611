/** A handover link, from a steward's page to a browser outside that knows nothing of Galtry. */
import { afterAll, beforeAll, expect, test } from "vitest";
import { DEMO_PASSWORD } from "../demo/organisation";
import { seriousIn } from "./axe";
import { type Browser, openBrowser, signInToGaltry } from "./browser";
import { type House, startHouse } from "./house";

let house: House;
let ines: Browser;
beforeAll(async () => {
  house = await startHouse();
  ines = await openBrowser({ galtry: house.url, lanyard: false });
  await signInToGaltry(ines.page, house.url, "ines.okafor@tarrowick.example", DEMO_PASSWORD);
}, 120_000);
afterAll(async () => {
  await ines?.close();
  await house?.close();
});

test("chosen values go to one browser outside, with a word, once; the steward sees it opened", async () => {
  const { page } = ines;
  await page.goto(`${house.url}/entry/${house.built.entries.get("elmsworth.localhost")}`);
  await page.waitForLoadState("networkidle");
  await page.getByRole("button", { name: "Hand over" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("button", { name: "Make the link" }).click();
  await dialog.getByText("Choose what is handed over.").waitFor();
  await dialog.getByLabel("User name").check();
  await dialog.getByLabel("Password").check();
  await dialog.getByLabel("A word, if wanted").fill("walnut");
  expect(await seriousIn(page)).toEqual([]);
  await dialog.getByRole("button", { name: "Make the link" }).click();
  const address = await dialog.getByTestId("handover-address").innerText();
  const [, key] = new URL(address).hash.slice(1).split(".");
  await dialog.getByRole("button", { name: "Done" }).click();
  await dialog.getByText("may be opened once").waitFor();
  expect(await dialog.getByText(key!).count()).toBe(0);

  const outside = await openBrowser({ galtry: house.url, lanyard: false, width: 390, height: 800 });
  const asked: string[] = [];
  outside.context.on("request", (request) => asked.push(`${request.url()} ${request.postData() ?? ""}`));
  try {
    await outside.page.goto(address);
    await outside.page.getByText("hands something over to you").waitFor();
    expect(outside.page.url()).toBe(`${house.url}/handover`);
    expect(await seriousIn(outside.page)).toEqual([]);
    await outside.page.getByLabel("The word you were told").fill("hazel");
    await outside.page.getByRole("button", { name: "Open it" }).click();
    await outside.page.getByText("This is not the word. 4 tries are left.").waitFor();
    await outside.page.getByLabel("The word you were told").fill("walnut");
    await outside.page.getByRole("button", { name: "Open it" }).click();
    await outside.page.getByRole("button", { name: "Show Password" }).click();
    expect(await outside.page.getByRole("heading", { level: 1 }).innerText()).toBe("Elmsworth Tills");
    expect((await outside.page.locator("dd").last().innerText()).length).toBeGreaterThan(7);
    expect(await seriousIn(outside.page)).toEqual([]);
    // The key went nowhere: not to the server, not into anything that is kept.
    expect(asked.some((one) => one.includes(key!))).toBe(false);
    const kept = await outside.page.evaluate(() => JSON.stringify([{ ...localStorage }, { ...sessionStorage }]));
    expect(kept).not.toContain(key!);
  } finally {
    await outside.close();
  }
  const another = await openBrowser({ galtry: house.url, lanyard: false });
  try {
    await another.page.goto(address);
    await another.page.getByText("This link has been opened already.").waitFor();
    await another.page.getByText(/^It was opened today/).waitFor();
    await another.page.goto("about:blank");
    await another.page.goto(address.slice(0, -30));
    await another.page.getByText(/This link is not whole/).waitFor();
  } finally {
    await another.close();
  }
  await page.reload();
  await page.getByText("Somebody outside").waitFor();
  await page.waitForLoadState("networkidle");
  await page.getByRole("button", { name: "Hand over" }).click();
  await page
    .getByRole("dialog")
    .getByText(/opened today/)
    .waitFor();
  await page.getByRole("dialog").getByText("1 wrong word").waitFor();
}, 90_000);
