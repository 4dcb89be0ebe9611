/** Where new users stumbled: what is typed, copied, imported and asked for by its address is not lost. */
import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, expect, test } from "vitest";
import { DEMO_PASSWORD } from "../demo/organisation";
import { lineHash } from "../src/core/journal/chain";
import { journal, persons, sessions } from "../src/server/database/schema";
import { createGroup } from "../src/server/people/groups";
import { seriousIn } from "./axe";
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

const asInes = () => ({
  ...{ kind: "person" as const, personId: app.built.people.get("ines")!, sessionId: null, provedAt: Date.now() },
  ...{ address: "127.0.0.1", browser: "Chromium" },
});

async function endSessions(): Promise<void> {
  const { db, writer } = app.galtry;
  const [person] = await db.select().from(persons).where(eq(persons.mail, MAIL));
  // In turn with what the server writes.
  await writer.write((tx) => tx.update(sessions).set({ endedAt: Date.now() }).where(eq(sessions.personId, person!.id)));
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
  // By the press, or before it: a page that looks again hears of the end by itself.
  await page
    .getByRole("button", { name: "Save" })
    .click({ timeout: 3_000 })
    .catch(() => undefined);
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
  await page.getByLabel("Words of a reason").fill("zeppelin");
  await page.keyboard.press("Enter");
  await page.getByText("No lines match these filters.").waitFor();
  await page.getByLabel("Words of a reason").fill("");
  await page.keyboard.press("Enter");
  await page
    .getByRole("link", { name: /^imported 1 entry/ })
    .first()
    .click();
  await page.getByRole("heading", { name: "Shop & Tickets" }).waitFor();
}, 60_000);

test("a long form asks before a link or Cancel loses what was typed", async () => {
  const { page } = browser;
  await page.goto(`${entry("stallwright.localhost")}?edit`);
  await takenOver(page);
  const description = page.getByRole("textbox", { name: "Description" });
  const before = await description.inputValue();
  // Nothing typed: nothing is asked.
  await page.getByRole("button", { name: "Cancel" }).click();
  await page.getByRole("heading", { name: "Stallwright Wholesale" }).waitFor();
  await page.goto(`${entry("stallwright.localhost")}?edit`);
  await takenOver(page);
  await description.fill("Typed and not saved");
  await page.getByRole("link", { name: "Vaults", exact: true }).first().click();
  await page.getByRole("dialog", { name: "Leave without saving?" }).waitFor();
  await page.getByRole("button", { name: "Keep editing" }).click();
  expect(await description.inputValue()).toBe("Typed and not saved");
  await page.getByRole("button", { name: "Cancel" }).click();
  await page.getByRole("button", { name: "Leave", exact: true }).click();
  await page.getByRole("heading", { name: "Stallwright Wholesale" }).waitFor();
  await page.goto(`${entry("stallwright.localhost")}?edit`);
  expect(await description.inputValue()).toBe(before);
}, 60_000);

test("the ledger is sorted by its headings, and filtered by words in any order", async () => {
  const { page } = browser;
  await page.goto(vault());
  await takenOver(page);
  const heading = page.getByRole("columnheader", { name: "Name" });
  expect(await heading.getAttribute("aria-sort")).toBe("ascending");
  await heading.getByRole("button").click();
  await expect.poll(() => heading.getAttribute("aria-sort")).toBe("descending");
  await page.getByRole("columnheader", { name: "Changed" }).getByRole("button").click();
  await expect
    .poll(() => page.getByRole("columnheader", { name: "Changed" }).getAttribute("aria-sort"))
    .toBe("descending");
  await heading.getByRole("button").click();
  await page.getByPlaceholder("Filter").fill("burobe marl");
  await page.getByText("Marlpit Bürobedarf").waitFor();
  expect(await page.getByText("Elmsworth Tills").count()).toBe(0);
}, 60_000);

test("the Journal is checked on screen, also against a checkpoint that was kept", async () => {
  const { page } = browser;
  await page.goto(`${app.url}/journal`);
  await takenOver(page);
  await page.getByRole("button", { name: "Check", exact: true }).click();
  const dialog = page.getByRole("dialog", { name: "Check the Journal" });
  const check = async (kept: string) => {
    await dialog.getByLabel("Checkpoint kept earlier (optional)").fill(kept);
    await dialog.getByRole("button", { name: "Check", exact: true }).click();
  };
  await check("");
  await dialog.getByText(/^Complete: [\d,]+ lines\./).waitFor();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    dialog.getByRole("button", { name: "Save checkpoint" }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/^checkpoint-\d+\.txt$/);
  const kept = readFileSync(await download.path(), "utf8");
  // Something happens meanwhile.
  await createGroup.execute(app.galtry, { name: "Night watch" }, asInes());
  await check(`From: Galtry\r\n\r\nKeep this.\r\n\r\n${kept.replaceAll("\n", "\r\n")}`);
  await dialog
    .getByText(/They begin with the [\d,]+ lines of the checkpoint of .*, and your browser has checked/)
    .waitFor();
  await check(kept.replace(/\n\d+\n/, "\n7\n"));
  await dialog.getByText("This checkpoint was changed after it was signed.").waitFor();
  await check("f".repeat(64));
  await dialog.getByText(/the noted head is gone/).waitFor();
}, 60_000);

test("a line is proven by the reader's own browser, and one that was changed in the database is not", async () => {
  const { page } = browser;
  await page.goto(`${app.url}/journal`);
  await takenOver(page);
  const [newest] = await page.locator("li[data-numbered] button").allInnerTexts();
  const seq = Number(newest);
  const open = async (line: number) => {
    await page.getByRole("button", { name: `Proof of line ${line.toLocaleString("en")}`, exact: true }).click();
    return page.getByRole("dialog", { name: /^Proof of line/ });
  };
  let dialog = await open(seq);
  await dialog.getByText("Your browser has checked this itself.").waitFor();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    dialog.getByRole("button", { name: "Save proof" }).click(),
  ]);
  const saved = await download.path();
  expect(execFileSync(process.execPath, ["public/check-proof.mjs", saved], { encoding: "utf8" })).toContain(
    `Line ${seq} is one of the`,
  );
  const script = await fetch(`${app.url}/check-proof.mjs`);
  expect(await script.text()).toBe(readFileSync("public/check-proof.mjs", "utf8"));
  await page.keyboard.press("Escape");
  // Something happens meanwhile, and one more checkpoint is made.
  await createGroup.execute(app.galtry, { name: "Early watch" }, asInes());
  await page.locator("li[data-numbered] button", { hasText: new RegExp(`^${seq + 1}$`) }).waitFor();
  dialog = await open(seq + 1);
  await dialog.getByText(`Nothing in the first ${seq.toLocaleString("en")} lines was changed since`).waitFor();
  await page.keyboard.press("Escape");
  // Somebody with the database changes what a line says, its hash too: the tree that was signed does not hold it.
  const [line] = await app.galtry.db
    .select()
    .from(journal)
    .where(eq(journal.seq, seq - 2));
  const changed = { ...line!, at: line!.at + 60_000 };
  const put = (row: typeof changed, hash: string) =>
    app.galtry.writer.write((tx) => tx.update(journal).set({ at: row.at, hash }).where(eq(journal.seq, row.seq)));
  await put(changed, lineHash(changed, changed.previous));
  try {
    dialog = await open(seq - 2);
    await dialog.getByText(/The line is not one of those that the checkpoint stands for/).waitFor();
    await page.keyboard.press("Escape");
  } finally {
    await put(line!, line!.hash);
  }
}, 60_000);

test("a question is asked from the Journal, its answer printed and saved; its address brings it back", async () => {
  const { page } = browser;
  await page.goto(`${app.url}/journal`);
  await takenOver(page);
  await page.getByRole("link", { name: "Reports" }).click();
  await page.getByRole("link", { name: "Who can use it, and since when?" }).click();
  await page.getByText("Choose an entry, a folder or a vault.").waitFor();
  await takenOver(page);
  await page.getByLabel("Entry, folder or vault").fill("shop & t");
  await page.getByRole("option", { name: /^Shop & Tickets vault/ }).click();
  await page.getByRole("heading", { name: "Shop & Tickets" }).waitFor();
  const line = page.getByRole("row", { name: /Ines Okafor/ });
  await line.getByText(/because Ines Okafor has had Steward on this vault/).waitFor();
  const saved = async (name: string) => {
    const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name }).click()]);
    return { name: download.suggestedFilename(), text: readFileSync(await download.path(), "utf8") };
  };
  const csv = await saved("CSV");
  expect(csv.name).toMatch(/^report-who-.*\.csv$/);
  expect(csv.text).toContain("Ines Okafor");
  const json = await saved("JSON Lines");
  expect(json.name).toMatch(/\.jsonl$/);
  const ines = json.text.split("\n").find((one) => one.includes("Ines Okafor"))!;
  expect(JSON.parse(ines)).toMatchObject({
    level: "Steward",
    since: expect.stringMatching(/^20\d\d-.*Z$/),
    until: null,
  });
  // On paper there are the question, what it is about and the answer, and nothing to press.
  await page.emulateMedia({ media: "print" });
  expect(await page.getByRole("button", { name: "CSV" }).isVisible()).toBe(false);
  expect(await line.isVisible()).toBe(true);
  await page.emulateMedia({ media: "screen" });
  await page.reload();
  await line.waitFor();
  await page.goto(`${app.url}/reports/nothing-like-it`);
  await page
    .getByText(/not found|does not exist|nothing here/i)
    .first()
    .waitFor();
}, 60_000);

test("an owner rotates the keys of two vaults at once, and sees how it goes on", async () => {
  const owner = await openBrowser({ galtry: app.url, lanyard: false });
  const { page } = owner;
  await signInToGaltry(page, app.url, "hanna.quist@tarrowick.example", DEMO_PASSWORD);
  await page.goto(`${app.url}/rules`);
  await takenOver(page);
  await page.getByRole("link", { name: "Keys of the house" }).click();
  await page.getByRole("heading", { name: "Keys of the house" }).waitFor();
  await takenOver(page);
  expect(await seriousIn(page)).toEqual([]);
  await page.getByLabel("Select Shop & Tickets").check();
  await page.getByLabel("Select Buildings").check();
  await page.getByRole("button", { name: "Rotate 2 keys" }).click();
  await page.getByText("2 vaults have new keys.").waitFor();
  const row = page.getByRole("row", { name: /Shop & Tickets/ });
  await row.getByText("number 2").waitFor();
  // The rest is encrypted again in the background, and the page follows.
  await expect.poll(() => row.getByText("being rotated").count(), { timeout: 40_000 }).toBe(0);
  await page.getByText("Number 1; the key file").waitFor();
  await owner.close();
}, 90_000);

test("a date is completed when its field is left, and cleared by its button", async () => {
  const { page } = browser;
  await page.goto(`${app.url}/people/groups/${app.built.groups.get("Shop Team")}`);
  await takenOver(page);
  await page.getByRole("button", { name: "Set an end date" }).click();
  const field = page.getByRole("group", { name: "Until" }).first();
  await field.getByRole("spinbutton", { name: /day/ }).click();
  await page.keyboard.type("2408");
  await page.getByRole("dialog").getByRole("heading").first().click();
  await expect.poll(async () => (await field.innerText()).replace(/[^\d/:]/g, "")).toMatch(/^24\/08\/20\d\d18:00$/);
  await page.getByRole("button", { name: "Clear: Until" }).click();
  await expect.poll(async () => (await field.innerText()).replace(/\s/g, "")).toContain("dd/mm/yyyy");
  await page.getByRole("button", { name: "Cancel" }).click();
}, 60_000);

test("what the grid folds away where it is narrow is found under More", async () => {
  const { page } = browser;
  await page.goto(`${app.url}/access/${app.built.vaults.get("Shop & Tickets")}`);
  await takenOver(page);
  await page.setViewportSize({ width: 640, height: 400 });
  expect(await page.getByRole("button", { name: "Print" }).isVisible()).toBe(false);
  await page.getByRole("button", { name: "More", exact: true }).click();
  await page.getByRole("button", { name: "Print" }).waitFor();
  await page.getByLabel("Filter places").waitFor();
  await page.setViewportSize({ width: 1280, height: 800 });
}, 60_000);
