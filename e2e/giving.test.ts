/** Who may give what, and to whom: groups, house rules, asking first, guests, rounds; each in the browser, by keys too. */
import type { Page, Response } from "playwright-core";
import { afterAll, afterEach, beforeAll, expect, test } from "vitest";
import { DEMO_PASSWORD, PEOPLE, VAULTS } from "../demo/organisation";
import { seriousIn } from "./axe";
import { type Browser, connectLanyard, openBrowser, signInToGaltry, takenOver, typeMoment } from "./browser";
import { everythingReceived, sightingsOf } from "./canary";
import { type App, startHouse } from "./house";

let app: App;
const opened: Browser[] = [];

async function as(mail: string, lanyard = false): Promise<Browser> {
  const browser = await openBrowser({ galtry: app.url, lanyard });
  opened.push(browser);
  await signInToGaltry(browser.page, app.url, `${mail}@tarrowick.example`, DEMO_PASSWORD);
  return browser;
}

/** Keys and presses are heard once the page has taken over. */
async function go(page: Page, address: string): Promise<void> {
  await page.goto(`${app.url}${address}`);
  await takenOver(page);
}

beforeAll(async () => {
  app = await startHouse();
}, 120_000);
// Pages that stay open are drawn anew at every change that the next test makes.
afterEach(async () => {
  for (const browser of opened.splice(0)) await browser.close();
});
afterAll(() => app?.close());

test("somebody joins a group by keys: what it gives them is read first, waits on the slip, and is applied there", async () => {
  const { page } = await as("ines.okafor");
  await go(page, "/people");
  await page.getByRole("list", { name: "Groups" }).getByRole("link", { name: "Shop Team" }).click();
  await page.getByRole("heading", { name: "Shop Team", level: 1 }).waitFor();
  await takenOver(page);
  expect(await page.getByRole("region", { name: "Access it gives" }).innerText()).toContain("Shop & Tickets");
  const add = page.getByRole("button", { name: "Add to group" });
  await add.focus();
  await page.keyboard.press("Enter");
  await page.getByRole("combobox", { name: "People" }).focus();
  await page.keyboard.type("maren");
  await page.getByRole("option", { name: /Maren Pohl/ }).waitFor();
  await page.keyboard.press("Enter");
  await page
    .getByText(/Maren Pohl goes from Use to Reveal on/)
    .first()
    .waitFor();
  expect(await seriousIn(page)).toEqual([]);
  await page.getByRole("button", { name: "Add to my slip" }).focus();
  await page.keyboard.press("Enter");
  await page.getByText("It is on your change slip").waitFor();
  const members = page.getByRole("region", { name: "People in this group" });
  expect(await members.getByText("Maren Pohl").count()).toBe(0);
  // The slip stands on this page too.
  const slip = page.getByRole("region", { name: "Change slip" });
  await slip
    .getByText(/Maren Pohl goes from Use to Reveal/)
    .first()
    .waitFor();
  await slip.getByRole("button", { name: "1 change" }).click();
  await slip.getByText("Add Maren Pohl to Shop Team").waitFor();
  await page.getByRole("button", { name: "Apply 1 change" }).click();
  await members.getByText("Maren Pohl").waitFor();
  expect(await seriousIn(page)).toEqual([]);
  // Out again, at once, with the same sentence beside the button.
  await members.getByRole("button", { name: "Change: Maren Pohl" }).click();
  await page.getByText("Remove Maren Pohl from Shop Team").click();
  await page
    .getByText(/Maren Pohl goes from Reveal to Use on/)
    .first()
    .waitFor();
  await page.getByRole("button", { name: "Remove from group" }).click();
  await members.getByText("Maren Pohl").waitFor({ state: "detached" });
  // A date on the group, moved on in one act.
  await page.getByRole("button", { name: "Set an end date" }).click();
  await typeMoment(page, "Until", "2031-09-30T18:00");
  await page.getByRole("button", { name: "Set end date" }).click();
  await page.getByText("Ask another administrator or keeper").waitFor();
}, 90_000);

test("an owner changes a word in a sentence, and a steward is asked for a reason", async () => {
  const { page: owner } = await as("hanna.quist");
  await go(owner, "/rules");
  expect(await seriousIn(owner)).toEqual([]);
  await owner.getByLabel("when a reason is required").selectOption("use");
  await owner.getByRole("button", { name: "Change the rules" }).click();
  await owner.getByText("The house rules have been changed.").waitFor();
  // Under the pointer it stays for as long as one likes.
  await owner.getByRole("button", { name: "Undo" }).hover();
  const { page } = await as("harriet.sowerby");
  await go(page, "/rules");
  await page.getByText("A reason is required when giving Use or more.").waitFor();
  expect(await page.getByRole("combobox").count()).toBe(0);
  await go(page, `/entry/${app.built.entries.get("thornlea.localhost")}`);
  await page.getByPlaceholder("Give access to a person, a group or Everyone").fill("Juno");
  await page.getByRole("option", { name: /Juno Castellane/ }).click();
  const give = page.getByRole("button", { name: "Give access" });
  await give.click();
  await page.getByText("The house rules require a reason for Use.").waitFor();
  await page.getByLabel("Reason").fill("reads the meters in July");
  await give.click();
  await page.locator("[data-subject='Juno Castellane']").waitFor();
  await owner.getByRole("button", { name: "Undo" }).click();
  await takenOver(page);
  await go(page, "/rules");
  await page.getByText("A reason is required when giving Steward.").waitFor();
  await go(page, "/people");
  // She keeps a group, and sees no more of the area than that.
  await page.getByText("You are keeper of 1 group.").waitFor();
  expect(await page.getByText("Hanna Quist").count()).toBe(0);
}, 90_000);

test("an entry that asks first signs nobody in before a steward says yes, and then without a password in the browser", async () => {
  const entryId = app.built.entries.get("castlewick.localhost")!;
  const site = app.standins.sites.find((one) => one.host === "castlewick.localhost")!;
  const samir = await as("samir.haddad", true);
  const { page, context } = samir;
  await connectLanyard(samir, app.url);
  await go(page, "/");
  await page.getByText("Connected in this browser").waitFor();
  await page.getByRole("combobox", { name: "Find, and sign in" }).fill("castlewick");
  await page.getByText("signs in to").waitFor();
  await page.keyboard.press("Enter");
  await page.getByText("Castlewick Payroll requires approval by a steward. Request it on its page.").waitFor();
  await go(page, `/entry/${entryId}`);
  expect(await page.getByRole("button", { name: /^Sign in to/ }).count()).toBe(0);
  expect(await seriousIn(page)).toEqual([]);
  await page.getByRole("button", { name: "Request approval" }).click();
  await page.getByLabel("Reason").fill("The run of the 28th is not right");
  await page.getByRole("dialog").getByRole("button", { name: "Request approval" }).click();
  await page.getByText("Requested").first().waitFor();
  const { page: steward } = await as("clementine.ruddock");
  const waits = steward.getByRole("region", { name: "Waiting for your approval" });
  await waits.getByText("The run of the 28th is not right").waitFor();
  expect(await waits.innerText()).toMatch(
    /Samir Haddad requests to use Castlewick Payroll for 30 minutes[\s\S]*127\.0\.0\.1/,
  );
  await steward.getByRole("button", { name: "Approve Samir Haddad’s use of Castlewick Payroll" }).click();
  const signIn = page.getByRole("button", { name: "Sign in to castlewick.localhost" });
  await signIn.waitFor();
  const [tab] = await Promise.all([context.waitForEvent("page"), signIn.click()]);
  await tab.getByText("Today at Castlewick Payroll").waitFor();
  expect(await sightingsOf(site.account.password, await everythingReceived(samir))).toEqual([]);
  // Its steward cannot let herself in, nor stop the asking alone.
  await go(steward, `/entry/${entryId}`);
  await steward.getByRole("button", { name: "Change the approval before each use" }).click();
  await steward.getByLabel("Who approves").selectOption("0");
  await steward.getByRole("button", { name: "Save" }).click();
  await steward.getByText("Castlewick Payroll requires approval by a steward.").waitFor();
}, 120_000);

test("a guest is invited to one folder, adds to it, and learns of nothing else; ended, with what they saw", async () => {
  const { page: host } = await as("harriet.sowerby");
  const folder = `/vaults/${app.built.vaults.get("Buildings")}/folder/${app.built.folders.get("Meters")}`;
  await go(host, folder);
  await host.getByRole("button", { name: "Invite a guest" }).click();
  await host.getByLabel("Name", { exact: true }).last().fill("Pia Lunde");
  await host.getByLabel("Email address").fill("pia@lunde-meters.example");
  await host.getByLabel("They can").selectOption("edit");
  await host.getByLabel("Reason").fill("reads the new meters");
  expect(await seriousIn(host)).toEqual([]);
  await host.getByRole("button", { name: "Invite", exact: true }).click();
  const link = await host.locator("[data-link]").innerText();
  const guest = await openBrowser({ galtry: app.url, lanyard: false });
  opened.push(guest);
  const said: string[] = [];
  const hear = async (response: Response) => {
    if (!response.url().startsWith(app.url) || response.url().includes("/_next/static/")) return;
    said.push(response.url(), await response.text().catch(() => ""));
  };
  guest.context.on("response", (response) => void hear(response));
  const { page } = guest;
  await page.goto(link);
  await page.getByLabel("Sign-in password", { exact: true }).fill("meter and mallet 1903");
  await page.getByLabel("Enter it again").fill("meter and mallet 1903");
  await page.keyboard.press("Enter");
  await page.getByRole("combobox", { name: "Find, and sign in" }).waitFor();
  await page
    .getByText(/new, from Harriet Sowerby: “reads the new meters”/)
    .first()
    .waitFor();
  await page.getByRole("link", { name: "Brightmere Energy" }).first().click();
  await page.getByRole("heading", { name: "Brightmere Energy" }).waitFor();
  await takenOver(page);
  await page.getByRole("button", { name: "Reveal Password" }).click();
  await page.getByRole("button", { name: "Hide Password" }).waitFor();
  // To their folder by their own way, and something added there.
  await go(page, "/vaults");
  await page.getByRole("link", { name: "Shared with you: Meters" }).click();
  await page.getByRole("button", { name: /^Meters/ }).click();
  await page.getByRole("link", { name: "Brightmere Energy" }).first().waitFor();
  await go(page, `/vaults/${app.built.vaults.get("Buildings")}/new?in=${app.built.folders.get("Meters")}`);
  await page.getByRole("link", { name: "Door or alarm" }).click();
  await page.getByLabel("Name", { exact: true }).fill("Meter in the cellar");
  await page.getByLabel("Code", { exact: true }).fill("4471");
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await page.getByRole("heading", { name: "Meter in the cellar" }).waitFor();
  for (const address of ["/", "/journal", "/account", "/people", "/access", "/rules", "/sites", folder, "/generator"])
    await go(page, address);
  await page.keyboard.press("/");
  await page.keyboard.type("an");
  await takenOver(page);
  const known = ["Harriet Sowerby", "Brightmere Energy", "Millgrange Water"];
  const others = [
    ...PEOPLE.map(({ name }) => name),
    ...VAULTS.map(({ name }) => name.replaceAll("&", "&amp;")),
    ...VAULTS.map(({ name }) => name),
    ...app.standins.sites.map(({ name }) => name),
    ...["Shop Team", "Front of House", "Volunteers", "Estates", "Doors and alarms", "Suppliers"],
  ].filter((name) => !known.includes(name));
  const inside = new Set(
    VAULTS.find(({ name }) => name === "Buildings")!.folders!.find(({ name }) => name === "Meters")!.holds,
  );
  const outside = others.filter(
    (name) => !app.standins.sites.some((site) => site.name === name && inside.has(site.host)),
  );
  const text = said.join("\n");
  expect(said.length).toBeGreaterThan(40);
  expect(text).toContain("Brightmere Energy");
  expect(outside.filter((name) => new RegExp(`\\b${name.replace(/[^\w ]/g, "\\$&")}\\b`).test(text))).toEqual([]);
  await go(host, "/account");
  await host.getByText("Pia Lunde, a guest, added Meter in the cellar.").waitFor();
  await go(host, folder);
  await host.getByRole("button", { name: "Extend by two weeks: Pia Lunde" }).click();
  await takenOver(host);
  await host.getByRole("button", { name: "End the access of Pia Lunde" }).click();
  await host.getByRole("button", { name: "End access" }).click();
  await host.getByText(/Secret fields they saw: Brightmere Energy/).waitFor();
  await host.getByText("their sign-in to Galtry has ended too").waitFor();
  await page
    .getByRole("heading", { name: /Sign in/ })
    .first()
    .waitFor();
}, 150_000);

test("a round by keys: the odd ones first, each said by one key, then the slip and a record that prints", async () => {
  const { page } = await as("wilhelmina.oosterhuis");
  await page
    .getByRole("region", { name: "Rounds to review" })
    .getByRole("link", { name: "Press & Publishing" })
    .click();
  await page.getByText("0 of 6 reviewed").waitFor();
  await takenOver(page);
  expect(await seriousIn(page)).toEqual([]);
  const lines = page.getByRole("list", { name: "Who has what" }).getByRole("listitem");
  await lines.first().focus();
  const words = await lines.evaluateAll((all) => all.map((one) => one.getAttribute("aria-label") ?? ""));
  const keyFor = (who: string) =>
    (who.startsWith("Digital") ? "l" : who.startsWith("Kit") ? "e" : "c") as "c" | "e" | "l";
  // Her own access is another steward's to answer: her key passes it over.
  const isOwn = (word: string) => word.startsWith("Wilhelmina");
  expect(words.filter(isOwn)).toHaveLength(1);
  await page.getByText("Ines Okafor reviews this one.").waitFor();
  const begun = words.slice(0, 2).filter((word) => !isOwn(word)).length;
  for (const word of words.slice(0, 2)) await page.keyboard.press(keyFor(word));
  await page.getByText(`${begun} of 6 reviewed`).waitFor();
  // The rest in the grid, cell by cell: each says what the round asks of it.
  await page.getByRole("link", { name: "in the grid" }).click();
  const grid = page.getByRole("grid");
  await page.getByText(`${begun} of 6 reviewed`).waitFor();
  await grid
    .getByRole("gridcell", { name: /in the round: no answer yet|in the round: unusual, no answer yet/ })
    .first()
    .waitFor();
  expect(await seriousIn(page)).toEqual([]);
  await grid.focus();
  await page.keyboard.press("n");
  for (const word of words.slice(2).filter((one) => !isOwn(one))) {
    // In the same order as in the list.
    const [, who, what] = /^(.*): .* on (.*?)\. /.exec(word)!;
    await page.getByRole("heading", { name: `${who}, ${what}` }).waitFor();
    await page.getByText(/^In the round: /).waitFor();
    if (keyFor(word) === "e") {
      // Below Use there is nothing: it stays where it is, and says so.
      await page.keyboard.press("l");
      await page.getByText("There is no level below Use. End it instead.").waitFor();
    }
    await page.keyboard.press(keyFor(word));
  }
  await page.getByText("5 of 6 reviewed").waitFor();
  expect(await grid.getByRole("gridcell", { name: /in the round: (unusual, )?no answer yet/ }).count()).toBe(1);
  // Taken back by pointer, and said again.
  const undo = page.getByRole("button", { name: /^Undo: / });
  const taken = (await undo.getAttribute("aria-label"))!.replace("Undo: ", "");
  await undo.click();
  await page.getByText("4 of 6 reviewed").waitFor();
  await page.getByRole("button", { name: "Next" }).click();
  const again = { c: "Confirm", l: "Lower", e: "End" }[keyFor(taken)];
  await page.getByRole("button", { name: `${again}: ${taken}` }).click();
  await page.getByText("5 of 6 reviewed").waitFor();
  await page.getByRole("link", { name: "Finish the round" }).click();
  await page.getByRole("button", { name: "Ask Ines Okafor to review yours" }).click();
  await page.getByRole("button", { name: "Waiting for Ines Okafor" }).waitFor();
  const { page: theirs } = await as("ines.okafor");
  await theirs
    .getByRole("region", { name: "Rounds to review" })
    .getByRole("link", { name: "Press & Publishing" })
    .click();
  await theirs.getByRole("button", { name: /^Confirm: Wilhelmina Oosterhuis/ }).click();
  await theirs.getByText("6 of 6 reviewed").waitFor();
  await theirs.getByRole("button", { name: "Finish the round" }).click();
  await theirs.getByText("2 changes are on your change slip").waitFor();
  const slip = theirs.getByRole("region", { name: "Change slip" });
  await slip.getByText(/Kit Ashdown loses Use on/).waitFor();
  await theirs.getByRole("button", { name: "Apply 2 changes" }).click();
  await theirs.getByText("2 changes applied.").waitFor();
  await theirs.getByRole("link", { name: "Rounds" }).click();
  await theirs.getByRole("link", { name: /by Ines Okafor/ }).click();
  await theirs.getByText("4 confirmed, 1 to lower, 1 to end").waitFor();
  const row = theirs.getByRole("row", { name: /^Kit Ashdown/ });
  expect(await row.innerText()).toMatch(/Redshank Image Library[\s\S]*\bend\b[\s\S]*Wilhelmina Oosterhuis/);
  await theirs.emulateMedia({ media: "print" });
  expect(await theirs.getByRole("button", { name: "Print" }).isVisible()).toBe(false);
  await theirs.emulateMedia({ media: null });
  expect(await seriousIn(theirs)).toEqual([]);
}, 120_000);

test("a stranger drops a secret into a folder by a link, once; its steward has it, sealed, and nobody else was told where", async () => {
  const { page: host } = await as("harriet.sowerby");
  const folder = `/vaults/${app.built.vaults.get("Buildings")}/folder/${app.built.folders.get("Doors and alarms")}`;
  await go(host, folder);
  await host.getByRole("button", { name: "Create a letterbox" }).click();
  await host.getByLabel("Name of the entry").fill("The new alarm");
  await host.getByLabel("Fields").fill("Code, Duress code");
  await host.getByRole("button", { name: "Create letterbox" }).click();
  const link = await host.locator("[data-link]").innerText();
  await host.keyboard.press("Escape");
  const stranger = await openBrowser({ galtry: app.url, lanyard: false });
  opened.push(stranger);
  const { page } = stranger;
  await page.goto(link);
  await page.getByText(/Harriet Sowerby of Tarrowick Museums Trust asks you for The new alarm/).waitFor();
  expect(page.url()).toBe(`${app.url}/letterbox`);
  expect(await seriousIn(page)).toEqual([]);
  await page.getByLabel("Code", { exact: true }).fill("canary-4471-alarm");
  await page.getByLabel("Your name").fill("Pia of the alarm firm");
  await page.getByRole("button", { name: "Send" }).click();
  await page.getByRole("heading", { name: "Received" }).waitFor();
  // Whatever the page has done meanwhile, the link does not come back into the address.
  expect(page.url()).toBe(`${app.url}/letterbox`);
  await page.goto(link);
  await page.getByText("It can be used once.").waitFor();
  await host.getByText("received", { exact: true }).first().waitFor();
  expect(await seriousIn(host)).toEqual([]);
  await host.getByRole("region", { name: "Letterboxes" }).getByRole("link").click();
  await host.getByRole("heading", { name: "The new alarm" }).waitFor();
  await takenOver(host);
  await host.getByRole("button", { name: "Reveal Code" }).click();
  await host.getByText("canary-4471-alarm").waitFor();
  expect(await host.getByText(/Someone outside/).count()).toBeGreaterThan(0);
}, 90_000);

test("a draft is shown to another steward, who reads it on the Front desk and says a word", async () => {
  const { page } = await as("bram.oyelaran");
  await go(page, `/entry/${app.built.entries.get("quillbrook.localhost")}`);
  await page.getByPlaceholder("Give access to a person, a group or Everyone").fill("Volunteers");
  await page.getByRole("option", { name: /Volunteers/ }).click();
  // What it would change stands beside the button.
  await page
    .getByRole("region", { name: "Effects" })
    .getByText(/3 people gain Use on/)
    .waitFor();
  expect(await seriousIn(page)).toEqual([]);
  await page.getByRole("button", { name: "Add to my slip" }).click();
  await page.getByText("It is on your change slip").waitFor();
  await go(page, `/access/${app.built.vaults.get("Shop & Tickets")}`);
  await page
    .getByRole("region", { name: "Change slip" })
    .getByText(/3 people gain Use on/)
    .waitFor();
  await page.getByRole("button", { name: "Ask for a second opinion" }).click();
  await page.getByRole("combobox", { name: "Colleague" }).fill("Ines");
  await page.getByRole("option", { name: /Ines Okafor/ }).click();
  await page.getByText("Ines Okafor has been asked for a second opinion.").waitFor();
  const { page: other } = await as("ines.okafor");
  const shown = other.getByRole("region", { name: "Second opinions" });
  await shown.getByText(/3 people gain Use on/).waitFor();
  expect(await seriousIn(other)).toEqual([]);
  await shown.getByLabel("Comment for Bram Oyelaran").fill("Only until Sunday, please");
  await shown.getByRole("button", { name: "Send" }).click();
  await shown.waitFor({ state: "detached" });
  await go(page, "/account");
  await page.getByText("Ines Okafor commented on your change slip: “Only until Sunday, please”").waitFor();
}, 90_000);
