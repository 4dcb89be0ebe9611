/** A site sends its code to a steward: a colleague's sign-in waits while the steward is asked, wherever they are. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, expect, test } from "vitest";
import { give } from "../demo/fixture";
import { DEMO_PASSWORD } from "../demo/organisation";
import { askedCodes } from "../src/server/database/schema";
import { addEntry } from "../src/server/vaults/entries";
import { seriousIn } from "./axe";
import { type Browser, connectLanyard, openBrowser, signInToGaltry } from "./browser";
import { type App, startHouse } from "./house";
import { pressInTag, tagText, waitForTag } from "./tags";

const HOST = "brindlecote.localhost";
let app: App;
let steward: Browser;
let colleague: Browser;
let entryId: string;

beforeAll(async () => {
  app = await startHouse();
  const site = app.standins.sites.find((one) => one.host === HOST)!;
  const by = {
    ...{ kind: "person" as const, personId: app.built.people.get("wilhelmina")!, sessionId: null },
    ...{ provedAt: Date.now(), address: "127.0.0.1", browser: "Chromium" },
  };
  ({ entryId } = await addEntry.execute(
    app.galtry,
    {
      ...{ parentId: app.built.vaults.get("Press & Publishing")!, captured: false },
      values: { name: site.name, signInPage: app.standins.address(HOST, site.signInPath), ...site.account },
    },
    by,
  ));
  await give(app.galtry, by, entryId, app.built.people.get("niall")!, "use");
  steward = await openBrowser({ galtry: app.url });
  await signInToGaltry(steward.page, app.url, "wilhelmina.oosterhuis@tarrowick.example", DEMO_PASSWORD);
  colleague = await openBrowser({ galtry: app.url });
  await signInToGaltry(colleague.page, app.url, "niall.corrigan@tarrowick.example", DEMO_PASSWORD);
  await connectLanyard(colleague, app.url);
});
afterAll(async () => {
  await steward?.close();
  await colleague?.close();
  await app?.close();
});

async function signIn(): Promise<void> {
  await colleague.page.goto(`${app.url}/entry/${entryId}`);
  await colleague.page
    .getByRole("button", { name: /^Sign in/ })
    .first()
    .click();
}

async function textMessage(): Promise<string> {
  const page = await colleague.context.newPage();
  await page.goto(app.standins.address(HOST, "/telephone"));
  const code = await page.locator("#sent").innerText();
  await page.close();
  return code;
}

/** Waits for the tab that the sign-in opens, signed in. */
async function landed(): Promise<void> {
  const page = await colleague.context.waitForEvent(
    "page",
    (one) => one.url().includes(HOST) || one.url() === "about:blank",
  );
  await page.getByText("Three policies are in force.").waitFor();
  await page.close();
}

test("nobody receives the codes yet: the steward is told how to change that, and chooses themselves", async () => {
  await signIn();
  await colleague.page.getByText("Brindlecote Insurance requires a code").waitFor();
  const { page } = steward;
  await page.goto(`${app.url}/entry/${entryId}/steps`);
  await page.getByText("If one of its stewards receives the code, say who").waitFor();
  await page.getByRole("button", { name: "Change", exact: true }).first().click();
  await page.getByLabel(/Codes that the site sends/).selectOption({ label: "Wilhelmina Oosterhuis" });
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await page.getByText("Wilhelmina Oosterhuis enters them").waitFor();
});

test("the steward is asked on whatever page of Galtry they have open, and the colleague gets in", async () => {
  const { page } = steward;
  await page.goto(`${app.url}/journal`);
  await signIn();
  await colleague.page.getByText("Waiting for the code that Wilhelmina Oosterhuis receives").waitFor();
  expect(await seriousIn(colleague.page)).toEqual([]);
  const asked = page.getByRole("region", { name: "Codes to enter" });
  await asked.getByText("Niall Corrigan is signing in to Brindlecote Insurance.").waitFor();
  expect(await seriousIn(page)).toEqual([]);
  const code = await textMessage();
  await asked.getByRole("textbox", { name: "Code" }).fill(code);
  const inside = landed();
  await asked.getByRole("button", { name: "Send code" }).click();
  await page.getByText("The code for Brindlecote Insurance has been sent.").waitFor();
  await inside;
  await asked.waitFor({ state: "detached" });
  // What the colleague's browser was sent holds neither the password nor the code.
  const sent = colleague.received.join("\n");
  const { account } = app.standins.sites.find((one) => one.host === HOST)!;
  expect(sent).not.toContain(account.password);
  expect(sent).not.toContain(code);
  expect(app.log()).not.toContain(code);
});

test("the steward is elsewhere: Lanyard says so on the page in front, and asks in its own window", async () => {
  await connectLanyard(steward, app.url);
  const page = await steward.context.newPage();
  await page.goto(app.standins.address("ashvane.localhost", "/"));
  await steward.page.goto("about:blank");
  await page.bringToFront();
  await signIn();
  await waitForTag(page, "Niall Corrigan is signing in to Brindlecote Insurance");
  const code = await textMessage();
  const window = await steward.context.newPage();
  await window.goto(`chrome-extension://${steward.lanyardId}/popup.html`);
  await window.getByText("Niall Corrigan is signing in to Brindlecote Insurance.").waitFor();
  await window.getByRole("textbox", { name: /Code/ }).fill(code);
  const inside = landed();
  await window.getByRole("button", { name: "Send code" }).click();
  await inside;
  await window.getByText("Niall Corrigan is signing in to Brindlecote Insurance.").waitFor({ state: "detached" });
  await page.bringToFront();
  await pressInTag(page, "Close");
  await expect.poll(() => tagText(page)).toBe("");
  const [row] = await app.galtry.db.select().from(askedCodes).where(eq(askedCodes.entryId, entryId)).limit(1);
  expect(row!.sealed).toBeNull();
  await window.close();
  await page.close();
});

test("no code came: the colleague reads that, and the steward is asked no more", async () => {
  const { page } = steward;
  await page.goto(app.url);
  await signIn();
  const asked = page.getByRole("region", { name: "Codes to enter" });
  await asked.getByRole("button", { name: "I received none" }).click();
  await colleague.page.getByText("Brindlecote Insurance sent a code that nobody entered").waitFor();
  await asked.waitFor({ state: "detached" });
});
