/** From a captured login to a colleague signed in who never saw the password. */
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { DEMO_PASSWORD } from "../demo/organisation";
import { sayTime } from "../src/core/time";
import { type Browser, connectLanyard, openBrowser, patience, signInByHand } from "./browser";
import { everythingReceived, sightingsOf } from "./canary";
import { type App, startHouse } from "./house";
import { chooseInTag, pressInTag, tagText, waitForTag } from "./tags";

let app: App;
let steward: Browser;
let colleague: Browser;

beforeAll(async () => {
  app = await startHouse();
  [steward, colleague] = await Promise.all([openBrowser({ galtry: app.url }), openBrowser({ galtry: app.url })]);
});

afterAll(async () => {
  await steward?.close();
  await colleague?.close();
  await app?.close();
});

describe("the journey", () => {
  const site = () => app.standins.sites.find((one) => one.host === "pellam.localhost")!;

  test("a steward signs in to a supplier's site and Lanyard keeps the login", async () => {
    const { page } = steward;
    await signInByHand(page, app.url, "ines.okafor@tarrowick.example", DEMO_PASSWORD);
    await connectLanyard(steward, app.url);
    await page.goto(app.standins.address("pellam.localhost", site().signInPath));
    await page.getByLabel("E-mail").fill(site().account.userName);
    await page.getByLabel("Password").fill(site().account.password);
    await page.getByRole("button", { name: "Sign in", exact: true }).click();
    await page.getByText("Today at Pellam Tickets").waitFor();
    await waitForTag(page, "Never on this site");
    // The name is suggested from the page's title.
    await chooseInTag(page, "Vault", "Shop & Tickets");
    await pressInTag(page, "Add login");
    await expect.poll(() => tagText(page)).toBe("");
    await page.goto(`${app.url}/vaults/${app.built.vaults.get("Shop & Tickets")}`);
    await page.getByRole("link", { name: "Pellam Tickets" }).waitFor();
  });

  test("the colleague does not see it before", async () => {
    const { page } = colleague;
    await signInByHand(page, app.url, "tobias.renn@tarrowick.example", DEMO_PASSWORD);
    await connectLanyard(colleague, app.url);
    await page.goto(app.url);
    await page.getByText("Connected in this browser").waitFor();
    expect(await page.getByText("Pellam Tickets").count()).toBe(0);
  });

  test("the steward gives Use until Sunday, and it appears at the colleague's without loading the page again", async () => {
    await colleague.page.evaluate(() => {
      (window as unknown as { stayed: boolean }).stayed = true;
    });
    const { page } = steward;
    await page.getByRole("link", { name: "Pellam Tickets" }).click();
    await page.getByPlaceholder("Give access to a person, a group or Everyone").fill("Tobias");
    await page.getByRole("option", { name: /Tobias Renn/ }).click();
    await page.getByRole("button", { name: "Sunday, 18:00" }).click();
    await page.getByLabel("Reason").fill("covering the late opening");
    const limit = await patience(steward.context, app.url);
    const given = Date.now();
    await page.getByRole("button", { name: "Give access" }).click();
    await colleague.page.getByRole("link", { name: "Pellam Tickets" }).first().waitFor();
    expect(Date.now() - given).toBeLessThan(limit);
    await page.locator("[data-subject='Tobias Renn']").getByText("covering the late opening").waitFor();
    // Whatever day it is today: on a Sunday evening the next one is a week away, and said by its date.
    const grants = await app.galtry.db.query.grants.findMany();
    const { until } = grants.find((grant) => grant.why === "covering the late opening")!;
    const home = await app.galtry.db.query.organisation.findFirst();
    expect(await page.locator("[data-subject='Tobias Renn']").textContent()).toContain(
      `Use, set directly until ${sayTime(until!, Date.now(), home!.timeZone)}`,
    );
    expect(await colleague.page.evaluate(() => (window as unknown as { stayed?: boolean }).stayed)).toBe(true);
  });

  test("the colleague presses Enter and lands inside, signed in", async () => {
    const { page, context } = colleague;
    await page.getByRole("combobox", { name: "Find, and sign in" }).fill("pellam tick");
    await page.getByText("signs in to").waitFor();
    const [tab] = await Promise.all([context.waitForEvent("page"), page.keyboard.press("Enter")]);
    await tab.getByText("Today at Pellam Tickets").waitFor();
    expect(await tab.getByText(site().account.userName).count()).toBe(1);
    await page.getByText("Signed in to Pellam Tickets.").waitFor();
    // The entry's own page, as most people know it.
    await page.getByRole("link", { name: "Pellam Tickets" }).first().click();
    await page.getByText("Its user name and password stay in Galtry.").waitFor();
    expect(await page.getByText(/because you have had Use on this entry/).count()).toBe(1);
    expect(await page.getByText("Reveal", { exact: true }).count()).toBe(0);
  });

  test("nothing the colleague's browser received holds the password or the user name", async () => {
    await colleague.page.goto(`${app.url}/vaults`);
    await colleague.page.goto(`${app.url}/journal`);
    await colleague.page.waitForLoadState("networkidle").catch(() => undefined);
    const received = await everythingReceived(colleague);
    expect(received.length).toBeGreaterThan(30);
    // What lies in the site's own tab is the site's: it shows the user name to whom it let in.
    const fromGaltry = received.filter((text) => !text.includes("Today at Pellam Tickets"));
    expect(await sightingsOf(site().account.password, received)).toEqual([]);
    expect(await sightingsOf(site().account.userName, fromGaltry)).toEqual([]);
    // The rule itself works: planted on purpose, it is found, also in disguise.
    const planted = [`<p>${Buffer.from(`x${site().account.password}y`).toString("base64url")}</p>`];
    expect(await sightingsOf(site().account.password, [...received, ...planted])).toHaveLength(1);
  });

  test("neither does the server's log, nor the database in the open", async () => {
    const { client } = app.galtry.opened;
    const tables = (await client.execute("select name from sqlite_master where type = 'table'")).rows.map((row) =>
      String(row.name),
    );
    const texts: string[] = [app.log()];
    for (const table of tables)
      for (const row of (await client.execute(`select * from "${table}"`)).rows)
        for (const value of Object.values(row))
          texts.push(value instanceof ArrayBuffer ? Buffer.from(value).toString("latin1") : String(value));
    expect(texts.length).toBeGreaterThan(1000);
    expect(await sightingsOf(site().account.password, texts)).toEqual([]);
  });

  test("access ends: cookies go, the page follows, the next sign-in is refused", async () => {
    const hasSession = async () =>
      (await colleague.context.cookies(app.standins.address("pellam.localhost", "/"))).some(
        (cookie) => cookie.name === "desk_session",
      );
    expect(await hasSession()).toBe(true);
    const entryAddress = steward.page.url();
    await colleague.page.goto(entryAddress);
    await colleague.page.getByRole("button", { name: "Sign in to pellam.localhost" }).waitFor();
    await steward.page.getByRole("button", { name: "Change: Tobias Renn" }).click();
    const limit = await patience(steward.context, app.url);
    const ended = Date.now();
    await steward.page.getByRole("button", { name: "Withdraw" }).click();
    await expect.poll(hasSession, { interval: 25 }).toBe(false);
    expect(Date.now() - ended).toBeLessThan(limit);
    await colleague.page.getByRole("heading", { name: "Your access has ended" }).waitFor();
    expect(Date.now() - ended).toBeLessThan(2 * limit);
    await colleague.page.getByText("Ines Okafor ended it (today").waitFor();
    // On the site's own page, which cannot know, Lanyard says it.
    const inside = colleague.context.pages().find((one) => one.url().includes("pellam.localhost"))!;
    await waitForTag(inside, "Your access to Pellam Tickets has ended");
    expect(await tagText(inside)).toContain("Ines Okafor ended it");
    const calls = app.standins.seen.filter((one) => one.host === "pellam.localhost").length;
    const worker = await colleague.worker();
    expect(worker).toBeTruthy();
    await colleague.page.goto(app.url);
    const report = await colleague.page.evaluate(
      (entryId) =>
        new Promise<{ outcome: string }>((resolve) => {
          addEventListener("message", (event) => {
            if (event.data?.from === "lanyard" && event.data.id === "t") resolve(event.data.answer);
          });
          postMessage({ from: "galtry", id: "t", ask: "sign-in", entryId }, location.origin);
        }),
      entryAddress.split("/").at(-1),
    );
    expect(report.outcome).toBe("refused");
    expect(app.standins.seen.filter((one) => one.host === "pellam.localhost").length).toBe(calls);
  });
});
