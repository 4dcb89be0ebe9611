/** Steps learned by Lanyard from what pages did, used by both engines, and shown, tested and changed in Galtry. */
import { eq } from "drizzle-orm";
import type { Page } from "playwright-core";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { DEMO_PASSWORD } from "../demo/organisation";
import type { SignInSteps } from "../src/core/signin/steps";
import { entries, signInTests } from "../src/server/database/schema";
import { addEntry } from "../src/server/vaults/entries";
import { seriousIn } from "./axe";
import { type Browser, connectLanyard, openBrowser, signInToGaltry, takenOver } from "./browser";
import { type App, startHouse } from "./house";
import { pressInTag, tagText, waitForTag } from "./tags";

let app: App;
let steward: Browser;

beforeAll(async () => {
  app = await startHouse({ GALTRY_SIGN_IN_BROWSER: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium" });
  steward = await openBrowser({ galtry: app.url });
  await signInToGaltry(steward.page, app.url, "wilhelmina.oosterhuis@tarrowick.example", DEMO_PASSWORD);
  await connectLanyard(steward, app.url);
});
afterAll(async () => {
  await steward?.close();
  await app?.close();
});

const site = (host: string) => app.standins.sites.find((one) => one.host === host)!;
const at = (host: string, path?: string) => app.standins.address(host, path ?? site(host).signInPath);
const as = () => ({
  ...{ kind: "person" as const, personId: app.built.people.get("wilhelmina")!, sessionId: null },
  ...{ provedAt: Date.now(), address: "127.0.0.1", browser: "Chromium" },
});

async function keep(host: string, path?: string): Promise<string> {
  const { name, account } = site(host);
  const { entryId } = await addEntry.execute(
    app.galtry,
    {
      ...{ parentId: app.built.vaults.get("Press & Publishing")!, captured: false },
      values: { name, signInPage: at(host, path), ...account },
    },
    as(),
  );
  return entryId;
}

const stepsOf = async (entryId: string): Promise<SignInSteps> =>
  (await app.galtry.db.select().from(entries).where(eq(entries.nodeId, entryId)))[0]!.steps;

/** Nothing of what was typed may be part of a step. */
function expectNoValues(steps: SignInSteps, host: string): void {
  const { account } = site(host);
  expect(JSON.stringify(steps)).not.toContain(account.password);
  expect(JSON.stringify(steps)).not.toContain(account.userName);
}

describe("with a login that is added", () => {
  test("a form that a script sends as JSON is learned, with where its token comes from", async () => {
    const host = "hazelrow.localhost";
    const { account } = site(host);
    const page = await steward.context.newPage();
    // At a person's pace: nobody types before Lanyard listens to what the page sends, from the first page after it is ready.
    await expect
      .poll(
        async () => {
          await page.goto(at(host));
          const listens = () => !String(window.fetch).includes("[native code]");
          return page.waitForFunction(listens, undefined, { timeout: 3_000 }).then(Boolean, () => false);
        },
        { timeout: 60_000 },
      )
      .toBe(true);
    await page.getByLabel("Username").fill(account.userName);
    await page.getByLabel("Password").pressSequentially(account.password, { delay: 50 });
    await page.getByRole("button", { name: "Log in" }).click();
    await page.waitForURL("**/board");
    await waitForTag(page, "Add login");
    await pressInTag(page, "Add login");
    await expect.poll(() => tagText(page)).toBe("");
    const [entry] = await app.galtry.db
      .select()
      .from(entries)
      .where(eq(entries.signInPage, at(host)));
    const { pages, lands } = entry!.steps;
    expect(pages).toHaveLength(1);
    expect(pages[0]!.sends).toMatchObject({
      ...{ to: at(host, "/api/session"), encoding: "json", byScript: true },
      parts: [
        { name: "/login", holds: "user-name" },
        { name: "/secret", holds: "password" },
      ],
      headers: [{ name: "x-token", holds: "token", from: { in: "meta", name: "token" } }],
    });
    expect(lands).toBe(at(host, "/board"));
    expectNoValues(entry!.steps, host);
    await page.close();
  });
});

/** Galtry's page of the steps, with Lanyard's answer to *Learn with Lanyard* as a new tab. */
async function learn(entryId: string): Promise<{ galtry: Page; site: Page }> {
  const galtry = steward.page;
  await galtry.goto(`${app.url}/entry/${entryId}/steps`);
  await takenOver(galtry);
  const opened = steward.context.waitForEvent("page");
  await galtry.getByRole("button", { name: "Learn with Lanyard" }).click();
  const page = await opened;
  await page.waitForURL(/localhost/);
  await waitForTag(page, "Sign in as you always do");
  return { galtry, site: page };
}

describe("asked to learn,", () => {
  test("a question after the password is one of the steps, and a sealed sign-in answers it", async () => {
    const host = "tollbarrow.localhost";
    const { account } = site(host);
    const entryId = await keep(host);
    const { galtry, site: page } = await learn(entryId);
    expect(await tagText(page)).toContain("Learning how to sign in to Tollbarrow Post Counter");
    // A wrong try is none of the steps.
    await page.getByLabel("User name").fill(account.userName);
    await page.getByLabel("Password").fill("not-the-password");
    await page.getByRole("button", { name: "Continue" }).click();
    await page.getByText("Wrong user name or password.").waitFor();
    await page.getByLabel("User name").fill(account.userName);
    await page.getByLabel("Password").fill(account.password);
    await page.getByRole("button", { name: "Continue" }).click();
    await page.getByRole("button", { name: "Glassworks" }).click();
    await page.getByText("Eleven letters").waitFor();
    await expect.poll(() => tagText(page)).toContain("2 steps seen");
    await pressInTag(page, "Save steps");
    await expect.poll(() => tagText(page)).toContain("Steps saved");
    const steps = await stepsOf(entryId);
    expect(steps.pages.map(({ page: where, enters, presses }) => [where, enters.length, presses?.label])).toEqual([
      [at(host), 2, "Continue"],
      [at(host, "/house"), 0, "Glassworks"],
    ]);
    expectNoValues(steps, host);
    await page.close();

    await galtry.reload();
    await galtry.getByText("press “Glassworks”").waitFor();
    await galtry.getByRole("button", { name: "Test", exact: true }).click();
    await galtry.getByText(/It works\. Tested/).waitFor({ timeout: 60_000 });
    const report = await galtry.getByRole("table").innerText();
    expect(report).toContain("entered the user name and the password, pressed “Continue”");
    expect(report).toContain("pressed “Glassworks”");
    const picture = galtry.getByRole("img", { name: "The last page, as the test saw it" });
    await expect.poll(() => picture.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(1280);
    expect(await seriousIn(galtry)).toEqual([]);
    const [row] = await app.galtry.db.select().from(signInTests).where(eq(signInTests.entryId, entryId));
    expect(JSON.stringify(row!.pages)).not.toContain(account.password);
  });

  test("steps can be changed by hand, and brought back", async () => {
    const host = "tollbarrow.localhost";
    const [entry] = await app.galtry.db
      .select()
      .from(entries)
      .where(eq(entries.signInPage, at(host)));
    const galtry = steward.page;
    await galtry.goto(`${app.url}/entry/${entry!.nodeId}/steps`);
    await galtry.getByRole("button", { name: "Change steps" }).click();
    const form = galtry.getByRole("dialog");
    await form.getByLabel("Button").nth(1).fill("Loom House");
    await form.getByRole("button", { name: "Save" }).click();
    await galtry.getByText("press “Loom House”").waitFor();
    await galtry
      .getByRole("button", { name: /Restore the steps of/ })
      .first()
      .click();
    await galtry.getByText("press “Glassworks”").waitFor();
    const { pages } = await stepsOf(entry!.nodeId);
    expect(pages[1]!.presses).toMatchObject({ name: "house", label: "Glassworks" });
  });

  test("a page that is read as something else is learned by what was typed into it", async () => {
    const host = "oakrill.localhost";
    const { account } = site(host);
    const html = (body: string) => ({ contentType: "text/html", body: `<!doctype html><title>Oakrill</title>${body}` });
    const form =
      "<h1>Create your account</h1><form method=post action=/odd-done><label>Email <input name=ref></label><label>Choose a password <input name=word type=password></label><label>Repeat password <input name=again type=password></label><button>Create account</button></form>";
    await steward.context.route("**/odd", (route) => route.fulfill(html(form)));
    await steward.context.route("**/odd-done", (route) => route.fulfill(html("<h1>Six lines</h1>")));
    const entryId = await keep(host, "/odd");
    const { site: page } = await learn(entryId);
    await page.getByLabel("Email").fill(account.userName);
    await page.getByLabel("Choose a password").fill(account.password);
    await page.getByRole("button", { name: "Create account" }).click();
    await page.getByText("Six lines").waitFor();
    await waitForTag(page, "1 step seen");
    await pressInTag(page, "Save steps");
    await waitForTag(page, "Steps saved");
    const { pages } = await stepsOf(entryId);
    expect(pages[0]!.enters.map(({ what, field }) => [what, field.name])).toEqual([
      ["user-name", "ref"],
      ["password", "word"],
    ]);
    expectNoValues(await stepsOf(entryId), host);
    await page.close();
  });

  test("what fails says at which page, and what can be done about it", async () => {
    const entryId = await keep("sorrelton.localhost");
    const galtry = steward.page;
    await galtry.goto(`${app.url}/entry/${entryId}/steps`);
    await galtry.getByRole("button", { name: "Test", exact: true }).click();
    await galtry.getByText(/The site shows a puzzle/).waitFor({ timeout: 60_000 });
    await galtry.getByText("Open the sign-in page yourself").waitFor();
    await galtry.getByText("Allow guarded fill, if").waitFor();
    expect(await galtry.getByRole("table").innerText()).toContain(new URL(at("sorrelton.localhost")).host);
  });
});

test("a code in six boxes, sent by a script with its last digit, is typed by Galtry's own browser", async () => {
  const entryId = await keep("penwarren.localhost");
  const galtry = steward.page;
  await galtry.goto(`${app.url}/entry/${entryId}/steps`);
  await galtry.getByRole("button", { name: "Test", exact: true }).click();
  await galtry.getByText(/It works\. Tested/).waitFor({ timeout: 90_000 });
  expect(await galtry.getByRole("table").innerText()).toContain("entered the one-time code");
});
