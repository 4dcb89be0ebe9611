/** A steward has Galtry change a password at its site; a colleague with Use notices nothing. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, expect, test } from "vitest";
import { DEMO_PASSWORD } from "../demo/organisation";
import { giveAccess } from "../src/server/access/grants";
import { entryVersions } from "../src/server/database/schema";
import { addEntry } from "../src/server/vaults/entries";
import { loginOf } from "../src/server/vaults/sealing";
import { openValues } from "../src/server/vaults/vaultKeys";
import { seriousIn } from "./axe";
import { type Browser, connectLanyard, openBrowser, signInToGaltry, takenOver } from "./browser";
import { everythingReceived, sightingsOf } from "./canary";
import { type App, startHouse } from "./house";
import { pressInTag, tagText, waitForTag } from "./tags";

const HOST = "mossbeck.localhost";
let app: App;
let steward: Browser;
let colleague: Browser;
let entryId: string;

beforeAll(async () => {
  app = await startHouse();
  [steward, colleague] = await Promise.all([openBrowser({ galtry: app.url }), openBrowser({ galtry: app.url })]);
  await signInToGaltry(steward.page, app.url, "wilhelmina.oosterhuis@tarrowick.example", DEMO_PASSWORD);
  await signInToGaltry(colleague.page, app.url, "maren.pohl@tarrowick.example", DEMO_PASSWORD);
  await connectLanyard(colleague, app.url);
  const wilhelmina = {
    ...{ kind: "person" as const, personId: app.built.people.get("wilhelmina")!, sessionId: null },
    ...{ provedAt: Date.now(), address: "127.0.0.1", browser: "Chromium" },
  };
  const { name, account, signInPath } = app.standins.sites.find(({ host }) => host === HOST)!;
  const values = { name, signInPage: app.standins.address(HOST, signInPath), ...account };
  const parentId = app.built.vaults.get("Press & Publishing")!;
  ({ entryId } = await addEntry.execute(app.galtry, { parentId, captured: false, values }, wilhelmina));
  const subject = { kind: "person" as const, id: app.built.people.get("maren")! };
  await giveAccess.execute(app.galtry, { nodeId: entryId, subject, level: "use", why: "post" }, wilhelmina);
});
afterAll(async () => {
  await steward?.close();
  await colleague?.close();
  await app?.close();
});

async function passwords(): Promise<string[]> {
  const versions = await app.galtry.db.select().from(entryVersions).where(eq(entryVersions.entryId, entryId));
  return Promise.all(
    versions.map(async (version) => loginOf(await openValues(app.galtry.db, app.galtry.keys, version)).password),
  );
}

async function colleagueSignsIn(): Promise<void> {
  const { page, context } = colleague;
  await page.goto(`${app.url}/entry/${entryId}`);
  const opened = context.waitForEvent("page");
  await page.getByRole("button", { name: /^Sign in to / }).click();
  await (await opened).getByText("No parcels today.").waitFor();
  for (const one of await passwords()) expect(await sightingsOf(one, await everythingReceived(colleague))).toEqual([]);
}

test("with two presses, and nobody is shown the new one", async () => {
  const { page } = steward;
  await page.goto(`${app.url}/entry/${entryId}/steps`);
  await page.getByRole("heading", { name: "Password at the site" }).waitFor();
  await page.getByRole("button", { name: "Change now" }).click();
  expect(await seriousIn(page)).toEqual([]);
  // A page of another site is refused, in words.
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Page where the password is changed").fill("https://elsewhere.example/password");
  await dialog.getByRole("button", { name: "Change now" }).click();
  await page.getByText(`Enter the address of a page at ${HOST}`).waitFor();
  await page.getByRole("button", { name: "Change now" }).click();
  await dialog.getByLabel("Page where the password is changed").fill("");
  await dialog.getByRole("button", { name: "Change now" }).click();
  await page.getByText("The password has been changed").waitFor();
  const [old, fresh] = (await passwords()) as [string, string];
  expect(fresh).not.toBe(old);
  await page.goto(`${app.url}/entry/${entryId}`);
  await page.getByText("had Galtry change the password of it at its site").first().waitFor();
  expect(await sightingsOf(fresh, await everythingReceived(steward))).toEqual([]);
});

test("a colleague with Use is signed in as before", colleagueSignsIn);

test("by hand: Lanyard opens the site's page and fills in both; once the site has taken it, it is the current version", async () => {
  await connectLanyard(steward, app.url);
  const { page, context } = steward;
  await page.goto(`${app.url}/entry/${entryId}/steps`);
  await takenOver(page);
  const before = await passwords();
  const opened = context.waitForEvent("page");
  await page.getByRole("button", { name: "Change by hand" }).click();
  const site = await opened;
  // Signed in, and on the page that the site itself names.
  await site.waitForURL(/\/settings\/password$/);
  await waitForTag(site, "Lanyard fills in the current password and a new one");
  await pressInTag(site, "Fill in");
  await waitForTag(site, "Filled in. Now send");
  const fields = site.locator("input[type=password]");
  const [current, fresh, repeat] = await fields.evaluateAll((all) => all.map((one) => (one as HTMLInputElement).value));
  expect(current).toBe(before.at(-1));
  expect([before.includes(fresh!), repeat]).toEqual([false, fresh]);
  expect(await passwords()).toEqual(before);
  await page.reload();
  await page.getByText("A new password was filled in at the site by hand").waitFor();
  expect(await seriousIn(page)).toEqual([]);
  expect(await page.content()).not.toContain(fresh);
  // Typed wrong, the site asks again, and the same new one goes in once more.
  await fields.first().fill("mistyped");
  await site.getByRole("button", { name: "Change password" }).click();
  await waitForTag(site, "The page asks again");
  await pressInTag(site, "Fill in again");
  await waitForTag(site, "Filled in. Now send");
  expect(await fields.nth(1).inputValue()).toBe(fresh);
  await site.getByRole("button", { name: "Change password" }).click();
  await waitForTag(site, "Has the site accepted the new password?");
  for (const one of [current!, fresh!]) expect(await tagText(site)).not.toContain(one);
  await pressInTag(site, "Use new password");
  await waitForTag(site, "The new password is the current version");
  expect(await passwords()).toEqual([...before, fresh]);
  await site.close();
});

test("after that the colleague is signed in as before, still without a password", colleagueSignsIn);
