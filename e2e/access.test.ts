/** The access grid and its slip, by keys and by pointer: read, drafted, applied, seen by whom it concerns, taken back. */
import { readFileSync } from "node:fs";
import type { Page } from "playwright-core";
import { afterAll, beforeAll, expect, test } from "vitest";
import { give } from "../demo/fixture";
import { DEMO_PASSWORD } from "../demo/organisation";
import { seriousIn } from "./axe";
import { type Browser, openBrowser, signInToGaltry, takenOver } from "./browser";
import { type App, startHouse } from "./house";

let app: App;
let ines: Browser;
let bram: Browser;
let maren: Browser;
const grid = (browser: Browser) => browser.page.getByRole("grid");
const slip = (browser: Browser) => browser.page.getByRole("region", { name: "Change slip" });
const address = () => `${app.url}/access/${app.built.vaults.get("Shop & Tickets")}`;

/** The focus goes to a cell by the arrows, and says itself. */
async function goTo({ page }: Browser, place: string, column: string): Promise<void> {
  // Keys and presses are heard once the page has taken over.
  await takenOver(page);
  await page.getByRole("grid").focus();
  await page.keyboard.press("Control+Home");
  const rows = await page.getByRole("rowheader").allInnerTexts();
  const row = rows.findIndex((text) => text.trim().startsWith(place));
  for (let i = 0; i < row; i++) await page.keyboard.press("ArrowDown");
  const columns = (await page.getByRole("columnheader").allInnerTexts()).slice(1);
  const at = columns.findIndex((text) => text.trim().startsWith(column));
  for (let i = 0; i <= at; i++) await page.keyboard.press("ArrowRight");
  await page.getByRole("heading", { name: `${column}, ${place}` }).waitFor();
}

/** Presses a button until its sheet is there: a press in the first moments of a page is not heard. */
async function openSheet(page: Page, name: string): Promise<void> {
  await page.getByRole("button", { name }).click();
  await page.getByRole("dialog").waitFor();
}

/** Until Galtry has it too: a page that is opened before reads the draft that was there, and counts from it. */
const nothingDrafted = () =>
  expect
    .poll(async () =>
      (await app.galtry.db.query.slips.findMany()).filter(
        ({ state, changes }) => state === "draft" && changes.length > 0,
      ),
    )
    .toEqual([]);

/** What the focused cell is called. */
const here = ({ page }: Browser) =>
  page.evaluate(() => {
    const id = document.querySelector("[role=grid]")!.getAttribute("aria-activedescendant")!;
    return document.getElementById(id)!.getAttribute("aria-label");
  });

beforeAll(async () => {
  app = await startHouse();
  [ines, bram, maren] = [
    await openBrowser({ galtry: app.url, lanyard: false }),
    await openBrowser({ galtry: app.url, lanyard: false }),
    await openBrowser({ galtry: app.url, lanyard: false }),
  ];
  await signInToGaltry(ines.page, app.url, "ines.okafor@tarrowick.example", DEMO_PASSWORD);
  await signInToGaltry(bram.page, app.url, "bram.oyelaran@tarrowick.example", DEMO_PASSWORD);
  await signInToGaltry(maren.page, app.url, "maren.pohl@tarrowick.example", DEMO_PASSWORD);
}, 120_000);
afterAll(async () => {
  for (const browser of [ines, bram, maren]) await browser?.close();
  await app?.close();
});

test("a level is set by a key, read on the slip, applied with a reason, gone from her desk, and taken back", async () => {
  const { page } = ines;
  await page.getByRole("navigation", { name: "Areas" }).getByRole("link", { name: "Access" }).click();
  await page.goto(address());
  await maren.page.goto(app.url);
  await maren.page.getByRole("link", { name: "Pellam schools desk" }).first().waitFor();
  await goTo(ines, "Pellam schools desk", "Front of House");
  expect(await here(ines)).toBe("Use, inherited");
  await page.keyboard.press("b");
  expect(await here(ines)).toBe("Blocked, set directly, on the slip, was Use");
  await slip(ines)
    .getByText(/5 people lose Use on/)
    .waitFor();
  await slip(ines).getByText("Used in the last 30 days by Maren Pohl").waitFor();
  expect(await page.getByText("Nothing has changed yet.").isVisible()).toBe(true);
  // The slip takes room from the grid; the cell stays in sight.
  const cell = (await page.locator(".cell.focus").boundingBox())!;
  const room = (await grid(ines).boundingBox())!;
  expect(cell.y + cell.height).toBeLessThanOrEqual(room.y + room.height + 1);
  expect(cell.y).toBeGreaterThanOrEqual(room.y + 58);
  // Its reader sees the same when they come back to it.
  await page.reload();
  await slip(ines)
    .getByText(/5 people lose Use on/)
    .waitFor();
  await slip(ines)
    .getByRole("button", { name: /^Who: 5 people/ })
    .click();
  await slip(ines)
    .getByText(/Maren Pohl/)
    .first()
    .waitFor();
  expect(await maren.page.getByRole("link", { name: "Pellam schools desk" }).count()).toBeGreaterThan(0);
  await page.getByLabel("Reason").fill("Schools are done by Learning");
  await page.getByRole("button", { name: "Apply 1 change" }).click();
  await maren.page.getByRole("link", { name: "Pellam schools desk" }).first().waitFor({ state: "detached" });
  // Undone at once, where nobody has set anything else there since.
  await page.getByRole("status").getByRole("button", { name: "Undo" }).click();
  await page.getByText("Undone.").waitFor();
  await maren.page.getByRole("link", { name: "Pellam schools desk" }).first().waitFor();
  await page.goto(`${app.url}/journal`);
  await page.getByText(/applied a change slip with 1 change: “Schools are done by Learning”/).waitFor();
}, 60_000);

test("two stewards change one cell: the second reads what the first did before anything is applied", async () => {
  for (const browser of [ines, bram]) {
    await browser.page.goto(address());
    await goTo(browser, "Till one", "Learning");
  }
  await ines.page.keyboard.press("2");
  await slip(ines)
    .getByText(/gain Reveal on/)
    .waitFor();
  await bram.page.keyboard.press("1");
  await slip(bram)
    .getByText(/gain Use on/)
    .waitFor();
  await bram.page.getByRole("button", { name: "Apply 1 change" }).click();
  await bram.page.getByText("1 change applied.").waitFor();
  await slip(ines).getByText("Bram Oyelaran has changed one of these places.").waitFor();
  expect(await ines.page.getByRole("button", { name: "Apply 1 change" }).isDisabled()).toBe(true);
  await slip(ines)
    .getByRole("button", { name: /Keep my changes/ })
    .click();
  await slip(ines)
    .getByText(/go from Use to Reveal on/)
    .waitFor();
  await ines.page.getByRole("button", { name: "Apply 1 change" }).click();
  await ines.page.getByText("1 change applied.").waitFor();
}, 60_000);

test("after a press with the mouse the keys go on; what was drafted and discarded comes back", async () => {
  const { page } = ines;
  await page.goto(address());
  await takenOver(page);
  await goTo(ines, "Shop & Tickets", "Learning");
  await page.locator(".cell.focus").click();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("1");
  await page.getByText("1 change drafted, none applied yet.").waitFor();
  await page.getByRole("button", { name: "Discard" }).click();
  await slip(ines).getByText("Set a level in a cell").waitFor();
  await page.getByRole("status").getByRole("button", { name: "Undo" }).click();
  await page.getByText("1 change drafted, none applied yet.").waitFor();
  await page.getByRole("button", { name: "Discard" }).click();
  await slip(ines).getByText("Set a level in a cell").waitFor();
  await nothingDrafted();
}, 60_000);

test("by pointer: cells are dragged over, set together, given a time, and taken off", async () => {
  const { page } = ines;
  await page.goto(address());
  await takenOver(page);
  const columns = (await page.getByRole("columnheader").allInnerTexts()).slice(1);
  const learning = columns.findIndex((text) => text.startsWith("Learning"));
  const at = (place: RegExp) => page.getByRole("row", { name: place }).getByRole("gridcell").nth(learning);
  const [from, to] = [(await at(/^Marlpit/).boundingBox())!, (await at(/^Pellam schools/).boundingBox())!];
  await page.mouse.move(from.x + 50, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(to.x + 50, to.y + 20, { steps: 6 });
  await page.mouse.up();
  await page.getByRole("heading", { name: "2 cells" }).waitFor();
  await page.getByRole("group", { name: "Set the selected cells" }).getByRole("button", { name: "With dates" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Only on some days of the week").check();
  await dialog.getByRole("button", { name: "Add to slip" }).click();
  await dialog.getByText("Choose a day.").waitFor();
  await dialog.getByLabel("Sat").check();
  expect(await seriousIn(page)).toEqual([]);
  await dialog.getByRole("button", { name: "Add to slip" }).click();
  await slip(ines).getByRole("button", { name: "2 changes" }).click();
  await slip(ines).getByText("Give Learning Use on Saturdays, 09:00 to 18:00 on Marlpit Bürobedarf").waitFor();
  expect(await seriousIn(page)).toEqual([]);
  await slip(ines)
    .getByRole("button", { name: /^Remove from slip: .*Marlpit/ })
    .click();
  await page.getByText("1 change drafted, none applied yet.").waitFor();
  await page.getByRole("button", { name: "Discard" }).click();
  await slip(ines).getByText("Set a level in a cell").waitFor();
  await nothingDrafted();
}, 60_000);

test("why is read by Space; the same again by a point; what is shown is narrowed and saved", async () => {
  const { page } = ines;
  await page.goto(address());
  await goTo(ines, "Elmsworth Tills", "Bram Oyelaran");
  await page.getByText(/^Steward, because Bram Oyelaran has had Steward on the vault Shop & Tickets/).waitFor();
  await page.getByText(/Without the Steward of Bram Oyelaran on Shop & Tickets/).waitFor();
  await page.keyboard.press(" ");
  expect(await page.evaluate(() => document.activeElement?.id)).toBe("why-here");
  await goTo(ines, "Elmsworth Tills", "Learning");
  await page.keyboard.press("1");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press(".");
  await page.getByText("2 changes drafted, none applied yet.").waitFor();
  await page.keyboard.press("Delete");
  await page.getByText("1 change drafted, none applied yet.").waitFor();
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("Delete");
  await slip(ines).getByText("Set a level in a cell").waitFor();
  await page.getByLabel("Show", { exact: true }).selectOption("blocked");
  await page.getByRole("rowheader", { name: "Till one" }).waitFor({ state: "detached" });
  expect(await page.getByRole("rowheader").allInnerTexts()).toEqual(["Shop & Tickets", "Elmsworth Tills"]);
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "CSV" }).click(),
  ]);
  const csv = readFileSync(await download.path(), "utf8");
  expect(csv).toContain("Elmsworth Tills,entry");
  expect(csv).toMatch(/^\uFEFF?"?Place, as at /);
  // Complete, also where a folder is closed in the page.
  await page.getByLabel("Show", { exact: true }).selectOption("all");
  const [whole] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "CSV" }).click()]);
  expect(readFileSync(await whole.path(), "utf8")).toMatch(/^· · [^,]+,entry,/m);
  expect(csv).toContain('"Blocked, set directly"');
}, 60_000);

test("as it was before: another moment is shown and nothing is set in it; on a phone one column at a time", async () => {
  const { page } = ines;
  await page.goto(`${address()}?at=${Date.now() - 400 * 86_400_000}`);
  await page.getByText("You see only what you are a steward of today.").waitFor();
  expect(await page.getByRole("gridcell").count()).toBe(0);
  await page.goto(`${address()}?at=${Date.now() + 400 * 86_400_000}`);
  await page.getByText(/as it will be/).waitFor();
  await page.setViewportSize({ width: 390, height: 800 });
  await page.goto(address());
  await takenOver(page);
  await page.getByLabel("For", { exact: true }).selectOption({ label: "Shop Team, 5 people" });
  expect(await page.getByRole("columnheader").allInnerTexts()).toHaveLength(2);
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
  expect(await seriousIn(page)).toEqual([]);
  await page.setViewportSize({ width: 1280, height: 800 });
}, 60_000);

test("whoever is steward of nothing sees no area of that name, and is told nothing by its address", async () => {
  const { page } = maren;
  await page.goto(app.url);
  expect(await page.getByRole("link", { name: "Access", exact: true }).count()).toBe(0);
  await page.goto(address());
  await page.getByText("Page not found").first().waitFor();
});

test("whoever lacks something asks where they noticed; its steward says yes on the Front desk; it is there at once", async () => {
  const { page } = maren;
  await page.goto(app.url);
  await page.getByRole("combobox", { name: "Find, and sign in" }).fill("Pellam schools");
  await page.getByRole("link", { name: "Pellam schools desk" }).first().click();
  await page.waitForURL(/\/entry\//);
  await takenOver(page);
  await openSheet(page, "Request more access");
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("button", { name: "Request access", exact: true }).click();
  await dialog.getByText("Give a reason: its steward decides by it.").waitFor();
  await dialog.getByRole("radio", { name: /^Reveal/ }).check();
  await dialog.getByRole("button", { name: "Tomorrow, 18:00" }).click();
  await dialog.getByLabel("Reason").fill("The schools have no network today");
  expect(await seriousIn(page)).toEqual([]);
  await dialog.getByRole("button", { name: "Request access", exact: true }).click();
  await page.getByText("You will be told when it is answered.").waitFor();
  await ines.page.goto(app.url);
  await takenOver(ines.page);
  const waiting = ines.page.getByRole("region", { name: "Access requests" });
  await waiting.getByText("“The schools have no network today”").waitFor();
  expect(await seriousIn(ines.page)).toEqual([]);
  await waiting.getByRole("button", { name: "Approve Maren Pohl’s request" }).click();
  await ines.page.getByText(/^Maren Pohl has Reveal on Pellam schools desk until /).waitFor();
  await page
    .getByRole("button", { name: /^Reveal/ })
    .first()
    .waitFor();
}, 60_000);

test("what is listed is found by all staff, asked for, and refused with a word", async () => {
  await ines.page.goto(address());
  await ines.page.goto(app.url);
  await ines.page.getByRole("combobox", { name: "Find, and sign in" }).fill("Elmsworth");
  await ines.page.getByRole("link", { name: "Elmsworth Tills" }).first().click();
  await ines.page.waitForURL(/\/entry\//);
  await takenOver(ines.page);
  await ines.page.getByRole("button", { name: "List for all staff" }).click();
  await ines.page.getByText(/^all staff find its name/).waitFor();
  const wilhelmina = await openBrowser({ galtry: app.url, lanyard: false });
  try {
    const { page } = wilhelmina;
    await signInToGaltry(page, app.url, "wilhelmina.oosterhuis@tarrowick.example", DEMO_PASSWORD);
    await page.getByRole("combobox", { name: "Find, and sign in" }).fill("elmsw");
    const found = page.getByRole("region", { name: "You can request these" });
    await found.getByText("Steward:").waitFor();
    expect(await seriousIn(page)).toEqual([]);
    await found.getByRole("button", { name: "Request access to Elmsworth Tills" }).click();
    await page.getByRole("dialog").getByLabel("Reason").fill("The catalogue’s till codes");
    await page.getByRole("dialog").getByRole("button", { name: "Request access", exact: true }).click();
    await ines.page.goto(app.url);
    await takenOver(ines.page);
    const waiting = ines.page.getByRole("region", { name: "Access requests" });
    await waiting.getByRole("button", { name: "Decline…" }).click();
    await ines.page.getByRole("dialog").getByLabel("Reason").fill("Ring the till desk for the codes");
    await ines.page.getByRole("dialog").getByRole("button", { name: "Decline" }).click();
    await page.getByText("“Ring the till desk for the codes”").waitFor();
  } finally {
    await wilhelmina.close();
  }
}, 60_000);

test("what touches another steward’s entry waits for their yes, which they give on their Front desk", async () => {
  const id = (name: string) => [...app.built.people].find(([key]) => key.startsWith(name.toLowerCase()))![1];
  const harriet = await openBrowser({ galtry: app.url, lanyard: false });
  try {
    await signInToGaltry(harriet.page, app.url, "harriet.sowerby@tarrowick.example", DEMO_PASSWORD);
    // Harriet alone looks after the schools desk: Ines has an own, lower say there.
    await ines.page.goto(address());
    await goTo(ines, "Pellam schools desk", "Ines Okafor");
    const entryId = app.built.entries.get("schools.pellam.localhost")!;
    const by = {
      kind: "person" as const,
      personId: id("Bram"),
      sessionId: null,
      provedAt: Date.now(),
      address: "127.0.0.1",
      browser: "Chromium",
    };
    await give(app.galtry, by, entryId, id("Harriet"), "steward");
    await give(app.galtry, by, entryId, id("Ines"), "use");
    await give(app.galtry, by, entryId, id("Bram"), "use");
    await ines.page.goto(address());
    await goTo(ines, "Shop & Tickets", "Learning");
    await ines.page.keyboard.press("1");
    await slip(ines)
      .getByText(/They must approve first/)
      .waitFor();
    expect(await slip(ines).getByText("Pellam schools desk").count()).toBe(0);
    await ines.page.getByRole("button", { name: "Send for approval" }).click();
    await slip(ines)
      .getByText(/1 change has been waiting for approval/)
      .waitFor();
    await harriet.page.goto(app.url);
    await takenOver(harriet.page);
    const waiting = harriet.page.getByRole("region", { name: "Change slips to approve" });
    await waiting.getByText(/gain Use on/).waitFor();
    await waiting.getByText("Pellam schools desk").first().waitFor();
    expect(await seriousIn(harriet.page)).toEqual([]);
    await waiting.getByRole("button", { name: "Approve the change slip of Ines Okafor" }).click();
    await waiting.waitFor({ state: "detached" });
    await ines.page.goto(address());
    await goTo(ines, "Shop & Tickets", "Learning");
    expect(await here(ines)).toBe("Use, set directly");
  } finally {
    await harriet.close();
  }
}, 60_000);

test("chosen values go to one browser outside, with a word and a mailed code, once; the steward sees it opened", async () => {
  const { page } = ines;
  await page.goto(`${app.url}/entry/${app.built.entries.get("elmsworth.localhost")}`);
  await takenOver(page);
  await openSheet(page, "Create a handover link");
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("button", { name: "Create link" }).click();
  await dialog.getByText("Choose what to hand over.").waitFor();
  await dialog.getByLabel("User name").check();
  await dialog.getByLabel("Password").check();
  await dialog.getByLabel("Passphrase (optional)").fill("walnut");
  await dialog.getByLabel("Only for this email address (optional)").fill("frames@ostler.example");
  expect(await seriousIn(page)).toEqual([]);
  await dialog.getByRole("button", { name: "Create link" }).click();
  const address = await dialog.getByTestId("handover-address").innerText();
  const [, key] = new URL(address).hash.slice(1).split(".");
  await dialog.getByRole("button", { name: "Close" }).click();
  await dialog.getByText("can be opened once").waitFor();
  expect(await dialog.getByText(key!).count()).toBe(0);

  const outside = await openBrowser({ galtry: app.url, lanyard: false, width: 390, height: 800 });
  const asked: string[] = [];
  outside.context.on("request", (request) => asked.push(`${request.url()} ${request.postData() ?? ""}`));
  try {
    await outside.page.goto(address);
    await takenOver(outside.page);
    await outside.page.getByText("has sent you something").waitFor();
    expect(outside.page.url()).toBe(`${app.url}/handover`);
    expect(await seriousIn(outside.page)).toEqual([]);
    await outside.page.getByRole("button", { name: "Send the code" }).click();
    await outside.page.getByText("A code has been sent to the email address this is for.").waitFor();
    expect(await seriousIn(outside.page)).toEqual([]);
    // Others get letters besides, and this one goes out after the page has said so.
    const letters = () => app.standins.postRoom.letters.filter(({ to }) => to.includes("frames@ostler.example"));
    await expect.poll(() => letters().length).toBe(1);
    const [letter] = letters();
    await outside.page.getByLabel("Code from the email").fill(/^\d{3} \d{3}/.exec(letter!.text)![0]);
    await outside.page.getByLabel("Passphrase you were told").fill("hazel");
    await outside.page.getByRole("button", { name: "Open" }).click();
    await outside.page.getByText("The passphrase or code is wrong. 4 attempts left.").waitFor();
    await outside.page.getByLabel("Passphrase you were told").fill("walnut");
    await outside.page.getByRole("button", { name: "Open" }).click();
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
  const another = await openBrowser({ galtry: app.url, lanyard: false });
  try {
    await another.page.goto(address);
    await another.page.getByText("This link has already been opened.").waitFor();
    await another.page.getByText(/^It was opened today/).waitFor();
    await another.page.goto("about:blank");
    await another.page.goto(address.slice(0, -30));
    await another.page.getByText(/This link is incomplete/).waitFor();
  } finally {
    await another.close();
  }
  await page.reload();
  await page.getByText("Someone outside").waitFor();
  await takenOver(page);
  await openSheet(page, "Create a handover link");
  await page
    .getByRole("dialog")
    .getByText(/opened today/)
    .waitFor();
  await page.getByRole("dialog").getByText("wrong passphrases or codes: 1").waitFor();
}, 90_000);
