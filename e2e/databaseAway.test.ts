/** The database server ends and comes back: pages say so plainly, and come back by themselves. */
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { hasLibsqlServer, type LibsqlServer, startLibsqlServer } from "../demo/libsqlServer";
import { DEMO_PASSWORD } from "../demo/organisation";
import { seriousIn } from "./axe";
import { type Browser, openBrowser, signInToGaltry, takenOver } from "./browser";
import { type App, startHouse } from "./house";

let server: LibsqlServer;
let app: App;
let browser: Browser;

describe.runIf(hasLibsqlServer)("with its database on a server", () => {
  beforeAll(async () => {
    server = await startLibsqlServer();
    app = await startHouse({ GALTRY_DATABASE_URL: server.url, GALTRY_DATABASE_TOKEN: server.token });
    browser = await openBrowser({ galtry: app.url, lanyard: false });
    await signInToGaltry(browser.page, app.url, "ines.okafor@tarrowick.example", DEMO_PASSWORD);
  }, 180_000);
  afterAll(async () => {
    await browser?.close();
    await app?.close();
    await server?.close();
  });

  test("a page says what is wrong and comes back by itself; what was typed stays; nothing is half shown", async () => {
    const { page } = browser;
    const heading = page.getByRole("heading", { name: "Galtry cannot reach its database" });
    await page.goto(`${app.url}/vaults/${app.built.vaults.get("Shop & Tickets")}`);
    await takenOver(page);
    await page.getByRole("button", { name: "Vault settings" }).click();
    await page.getByRole("textbox", { name: "Description" }).fill("Typed before the server ended");
    await server.kill();
    await page.getByRole("button", { name: "Save" }).click();
    await page.getByText("Galtry cannot reach its database. When it is back, check").waitFor();
    expect(await page.getByRole("textbox", { name: "Description" }).inputValue()).toBe("Typed before the server ended");

    const another = await page.context().newPage();
    await another.goto(app.url);
    await another.getByRole("heading", { name: "Galtry cannot reach its database" }).waitFor();
    expect(await seriousIn(another)).toEqual([]);
    expect((await fetch(`${app.url}/readyz`)).status).toBe(503);
    expect((await fetch(`${app.url}/healthz`)).status).toBe(200);

    await server.start();
    await another.getByRole("combobox", { name: "Find, and sign in" }).waitFor();
    await another.close();
    await page.getByRole("button", { name: "Save" }).click();
    await page.getByRole("dialog").waitFor({ state: "detached" });
    await page.getByText("Typed before the server ended").first().waitFor();
    expect(await heading.count()).toBe(0);
  }, 90_000);
});
