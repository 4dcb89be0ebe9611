/** People: the list with its filters, several at once, a change of teams; and the odd days of signing in. */
import type { Page } from "playwright-core";
import { afterAll, afterEach, beforeAll, describe, expect, test } from "vitest";
import { DEMO_PASSWORD } from "../demo/organisation";
import { USUAL_RULES } from "../src/core/access/houseRules";
import { changeRules } from "../src/server/rules/rules";
import { seriousIn } from "./axe";
import { type Browser, openBrowser, signInToGaltry, takenOver } from "./browser";
import { type App, longAfterSigningIn, startHouse } from "./house";

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

async function open(): Promise<Browser> {
  const browser = await openBrowser({ galtry: app.url, lanyard: false });
  opened.push(browser);
  return browser;
}
async function as(mail: string): Promise<Page> {
  const { page } = await open();
  await signInToGaltry(page, app.url, `${mail}@tarrowick.example`, DEMO_PASSWORD);
  return page;
}
/** Serious faults, also at phone width and without scrolling sideways there. */
async function sound(page: Page): Promise<void> {
  expect(await seriousIn(page)).toEqual([]);
  const before = page.viewportSize()!;
  await page.setViewportSize({ width: 390, height: 800 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
  await page.setViewportSize(before);
}
const letterTo = async (mail: string, subject: RegExp) => {
  let found: { text: string } | undefined;
  await expect
    .poll(
      () => {
        found = app.standins.postRoom.letters.find(({ to, subject: said }) => to[0] === mail && subject.test(said));
        return found !== undefined;
      },
      { timeout: 15_000 },
    )
    .toBe(true);
  return found!.text;
};

describe("People", () => {
  test("the sentence narrows the list, headings sort it, and the address keeps both", async () => {
    const page = await as("ines.okafor");
    await page.goto(`${app.url}/people`);
    await takenOver(page);
    await page.getByRole("combobox", { name: "Role" }).selectOption("guests");
    await page.getByRole("link", { name: "Kit Ashdown" }).waitFor();
    await expect.poll(() => page.getByRole("row").count()).toBe(2);
    expect(new URL(page.url()).search).toBe("?role=guest");
    await page.getByRole("combobox", { name: "Role" }).selectOption("all people");
    await page.getByRole("button", { name: "any group" }).click();
    await page.getByRole("dialog").getByRole("combobox", { name: "Group" }).fill("Shop");
    await page
      .getByRole("dialog")
      .getByRole("option", { name: /Shop Team/ })
      .click();
    await page.getByRole("link", { name: "Bram Oyelaran" }).waitFor();
    await expect.poll(() => page.getByRole("link", { name: "Ada Brandt" }).count()).toBe(0);
    await page.getByRole("link", { name: "Last seen" }).click();
    await page.locator('th[aria-sort="ascending"]', { hasText: "Last seen" }).waitFor();
    await sound(page);
    await page.reload();
    await page.getByRole("button", { name: "No longer only Shop Team" }).click();
    await page.getByRole("link", { name: "Ada Brandt" }).waitFor();
  });

  test("two come into a group at once, with what changes before; undone in one press", async () => {
    const page = await as("ines.okafor");
    await page.goto(`${app.url}/people`);
    await takenOver(page);
    await page.getByRole("checkbox", { name: "Select Ada Brandt" }).check();
    await page.getByRole("checkbox", { name: "Select Callum Thwaite" }).check();
    await page.getByText("2 people selected").waitFor();
    await page.getByRole("button", { name: "Add to groups…" }).click();
    const dialog = page.getByRole("dialog");
    await dialog.getByRole("combobox", { name: "Groups" }).fill("Shop");
    await dialog.getByRole("option", { name: /Shop Team/ }).click();
    await dialog.getByText(/2 people go from Use to Reveal/).waitFor();
    expect(await seriousIn(page)).toEqual([]);
    await dialog.getByRole("button", { name: "Add", exact: true }).click();
    await page.getByText("2 people were added to Shop Team.").waitFor();
    await page
      .getByRole("row", { name: /Ada Brandt/ })
      .getByRole("link", { name: "Shop Team" })
      .waitFor();
    await page.getByRole("button", { name: "Undo" }).click();
    await expect
      .poll(() =>
        page
          .getByRole("row", { name: /Ada Brandt/ })
          .getByRole("link", { name: "Shop Team" })
          .count(),
      )
      .toBe(0);
  });

  test("somebody changes teams: before and after side by side, from their page", async () => {
    const page = await as("ines.okafor");
    await page.goto(`${app.url}/people?find=maren`);
    await page.getByRole("link", { name: "Maren Pohl" }).click();
    await page.getByRole("heading", { name: "Access of Maren Pohl" }).waitFor();
    await sound(page);
    await page.getByRole("link", { name: "Changes teams…" }).click();
    await page.getByRole("heading", { name: "Maren Pohl changes teams" }).waitFor();
    await takenOver(page);
    await page.getByRole("checkbox", { name: "Front of House" }).click();
    await page.getByRole("row", { name: /Buildings Reveal on 3 entries nothing/ }).waitFor();
    await page.getByRole("combobox", { name: "Joins" }).fill("Shop");
    await page.getByRole("option", { name: /Shop Team/ }).click();
    await page.getByRole("row", { name: /Shop & Tickets .* Reveal on/ }).waitFor();
    await sound(page);
    await page.getByRole("button", { name: "Change teams" }).click();
    await page.getByText("Maren Pohl has changed teams.").waitFor();
    const side = page.getByRole("region", { name: "Groups" });
    await side.getByRole("link", { name: "Shop Team" }).waitFor();
    expect(await side.getByRole("link", { name: "Front of House" }).count()).toBe(0);
  });
});

describe("signing in on odd days", () => {
  test("approved on another device: the number is typed where one is in, and the new browser is told by mail", async () => {
    const known = await as("silas.penhale");
    const { page } = await open();
    await page.goto(`${app.url}/sign-in`);
    await takenOver(page);
    await page.getByRole("button", { name: "Approve on another device" }).click();
    const shown = page.locator("p[aria-label^='The number']");
    await shown.waitFor();
    await sound(page);
    const number = (await shown.innerText()).replace(/\s/g, "");
    await known.goto(`${app.url}/account`);
    await takenOver(known);
    await known.getByRole("button", { name: "Approve a sign-in" }).click();
    await known.getByRole("dialog").getByLabel("Number").fill(number);
    await known.getByRole("dialog").getByRole("button", { name: "Continue" }).click();
    await known.getByText(/has been waiting since/).waitFor();
    expect(await seriousIn(known)).toEqual([]);
    await known.getByRole("button", { name: "Approve", exact: true }).click();
    await page.getByRole("combobox", { name: "Find, and sign in" }).waitFor();
    // It was not: everything ends, and a new password is set at once.
    const letter = await letterTo("silas.penhale@tarrowick.example", /New sign-in to Galtry/);
    const { page: mailbox } = await open();
    await mailbox.goto(/https?:\S+\/not-me#\S+/.exec(letter)![0]);
    await mailbox.getByRole("heading", { name: "It was not me" }).waitFor();
    expect(mailbox.url()).not.toContain("#");
    await sound(mailbox);
    await mailbox.getByRole("button", { name: "Sign out everywhere" }).click();
    await mailbox.getByRole("heading", { name: "Welcome, Silas" }).waitFor();
    await page
      .getByRole("heading", { name: "Sign in to Galtry" })
      .or(page.getByText("Your session has ended"))
      .first()
      .waitFor();
    await mailbox.getByLabel("Sign-in password").fill("museum museum museum");
    await mailbox.getByLabel("Enter it again").fill("museum museum museum");
    await mailbox.getByRole("button", { name: /Save/ }).click();
    await mailbox.getByText(/on a list of leaked ones/).waitFor();
    await mailbox.getByLabel("Sign-in password").fill("four quite different words");
    await mailbox.getByLabel("Enter it again").fill("four quite different words");
    await mailbox.getByRole("button", { name: /Save/ }).click();
    await mailbox.getByRole("combobox", { name: "Find, and sign in" }).waitFor();
  });

  test("a forgotten password is set anew by mail where the house rules say so; then a required way is added first", async () => {
    const hanna = app.built.people.get("hanna")!;
    const owner = {
      ...{ kind: "person" as const, personId: hanna, sessionId: null, provedAt: Date.now() },
      ...{ address: "127.0.0.1", browser: "Chromium on Linux" },
    };
    const today = new Date(Date.now() - 86_400_000).toISOString().slice(0, 10);
    const groupId = app.built.groups.get("Finance")!;
    await changeRules.execute(
      app.galtry,
      { ...USUAL_RULES, forgottenByMail: true, waysIn: [{ groupId, needs: "passkey", from: today }] },
      owner,
    );
    const { page, context } = await open();
    await page.goto(`${app.url}/sign-in`);
    await takenOver(page);
    await page.getByRole("button", { name: "Forgotten your sign-in password?" }).click();
    await page.getByLabel("Email address").fill("clementine.ruddock@tarrowick.example");
    await page.getByRole("button", { name: "Email me a link" }).click();
    await page.getByText(/a link is on its way/).waitFor();
    const letter = await letterTo("clementine.ruddock@tarrowick.example", /A new sign-in password/);
    await page.goto(/https?:\S+\/reset#\S+/.exec(letter)![0]);
    await page.getByLabel("Sign-in password").fill("another four good words");
    await page.getByLabel("Enter it again").fill("another four good words");
    await sound(page);
    await page.getByRole("button", { name: "Set password" }).click();
    await page.getByRole("link", { name: "Sign in" }).click();
    await page.getByRole("heading", { name: "Sign in to Galtry" }).waitFor();
    const cdp = await context.newCDPSession(page);
    await cdp.send("WebAuthn.enable");
    await cdp.send("WebAuthn.addVirtualAuthenticator", {
      options: {
        ...{ protocol: "ctap2", transport: "internal", hasResidentKey: true, hasUserVerification: true },
        ...{ isUserVerified: true, automaticPresenceSimulation: true },
      },
    });
    await page.goto(`${app.url}/sign-in?next=/journal`);
    await page.getByLabel("Email address").fill("clementine.ruddock@tarrowick.example");
    await page.getByLabel("Sign-in password").fill("another four good words");
    await page.getByRole("button", { name: "Sign in", exact: true }).click();
    await page.getByRole("heading", { name: "Add a way to sign in" }).waitFor();
    await takenOver(page);
    await sound(page);
    // Nowhere past it.
    await page.goto(`${app.url}/vaults`);
    await page.getByRole("heading", { name: "Add a way to sign in" }).waitFor();
    await takenOver(page);
    await page.getByRole("button", { name: "Add a passkey" }).click();
    await page.getByRole("heading", { name: "Vaults" }).waitFor();
  });

  test("an owner lets a mail domain join, and has values confirmed: by a code one joins, by the password one sees", async () => {
    const owner = await as("hanna.quist");
    await owner.goto(`${app.url}/rules`);
    await takenOver(owner);
    await owner.getByLabel("Mail domain").fill("friends of tarrowick");
    await owner.getByRole("button", { name: "Add domain" }).click();
    await owner.getByText(/Give a domain/).waitFor();
    await owner.getByLabel("Mail domain").fill("@friends.tarrowick.example");
    await owner.getByRole("button", { name: "Add domain" }).click();
    await owner.getByRole("button", { name: "Remove friends.tarrowick.example" }).waitFor();
    await owner.getByLabel("revealing a value").check();
    await sound(owner);
    await owner.getByRole("button", { name: "Change the rules" }).click();
    await owner.getByText("The house rules have been changed.").waitFor();

    const { page } = await open();
    const mail = "fenella.marsh@friends.tarrowick.example";
    await page.goto(`${app.url}/sign-in`);
    await takenOver(page);
    await page.getByRole("button", { name: "Join with your work email" }).click();
    await page.getByLabel("Your name").fill("Fenella Marsh");
    await page.getByLabel("Email address").fill("fenella.marsh@elsewhere.example");
    await page.getByRole("button", { name: "Email me a code" }).click();
    await page.getByText("Only addresses at friends.tarrowick.example can join without being invited.").waitFor();
    await page.getByLabel("Email address").fill(mail);
    await sound(page);
    await page.getByRole("button", { name: "Email me a code" }).click();
    await page.getByText(/A code is on its way/).waitFor();
    const code = /code is (\d{4} \d{4})/.exec(await letterTo(mail, /Your code to join/))![1]!;
    const wrong = String((Number(code.replace(" ", "")) + 1) % 100_000_000).padStart(8, "0");
    await page.getByLabel("Code").fill(wrong);
    await page.getByRole("button", { name: "Join" }).click();
    await page.getByText(/This is not the code/).waitFor();
    await sound(page);
    await page.getByLabel("Code").fill(code);
    await page.getByRole("button", { name: "Join" }).click();
    await page.getByRole("heading", { name: "Welcome, Fenella" }).waitFor();
    expect(page.url()).not.toContain("#");
    await page.getByLabel("Sign-in password").fill("yet another four good words");
    await page.getByText(/^Long enough, and (good|strong): it would take .* to guess\.$/).waitFor();
    await sound(page);
    await page.getByLabel("Enter it again").fill("yet another four good words");
    await page.getByRole("button", { name: /Save/ }).click();
    await page.getByRole("combobox", { name: "Find, and sign in" }).waitFor();

    const ines = await as("ines.okafor");
    await ines.goto(`${app.url}/entry/${app.built.entries.get("elmsworth.localhost")}`);
    await takenOver(ines);
    await longAfterSigningIn(app);
    await ines.getByRole("button", { name: "Reveal password" }).click();
    await ines.getByRole("heading", { name: "Enter your sign-in password again" }).waitFor();
    await ines.getByText("only after you confirm that it is you").waitFor();
    expect(await seriousIn(ines)).toEqual([]);
    await ines.getByRole("button", { name: "Cancel" }).click();
    await ines.getByRole("dialog").waitFor({ state: "detached" });
    expect(await ines.getByRole("alert").filter({ hasText: /./ }).count()).toBe(0);
    await ines.getByRole("button", { name: "Reveal password" }).click();
    await ines.getByRole("dialog").getByLabel("Sign-in password").fill(DEMO_PASSWORD);
    await ines.getByRole("button", { name: "Continue" }).click();
    await ines.getByRole("button", { name: "Hide password" }).waitFor();
  });
});
