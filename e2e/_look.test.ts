import { afterAll, beforeAll, test } from "vitest";
import { DEMO_PASSWORD } from "../demo/organisation";
import { USUAL_RULES } from "../src/core/access/houseRules";
import { giveAccess } from "../src/server/access/grants";
import { changeRules } from "../src/server/rules/rules";
import { revealField } from "../src/server/vaults/revealing";
import { type Browser, openBrowser, signInToGaltry, takenOver } from "./browser";
import { type App, startHouse } from "./house";

const HOSTS = ["millgrange", "wrenhollow", "oakrill", "dovecombe", "copperfold", "foxbarrow", "elmsworth"].map(
  (name) => `${name}.localhost`,
);
let app: App;
let hanna: Browser;
let edwin: Browser;
const by = (key: string) => ({
  ...{ kind: "person" as const, personId: app.built.people.get(key)!, sessionId: null },
  ...{ provedAt: Date.now(), address: "127.0.0.1", browser: "Chromium" },
});
beforeAll(async () => {
  app = await startHouse();
  for (const host of HOSTS) {
    const entryId = app.built.entries.get(host)!;
    const subject = { kind: "person" as const, id: app.built.people.get("juno")! };
    await giveAccess.execute(
      app.galtry,
      { nodeId: entryId, subject, level: "reveal", why: "daily work" },
      by(host.startsWith("elms") ? "bram" : "hanna"),
    );
    await revealField.execute(app.galtry, { entryId, field: "password", how: "revealed" }, by("juno"));
  }
  await changeRules.execute(app.galtry, { ...USUAL_RULES, changeEvery: 6 }, by("hanna"));
  [hanna, edwin] = await Promise.all([
    openBrowser({ galtry: app.url, lanyard: false }),
    openBrowser({ galtry: app.url, lanyard: false }),
  ]);
  await signInToGaltry(hanna.page, app.url, "hanna.quist@tarrowick.example", DEMO_PASSWORD);
  await signInToGaltry(edwin.page, app.url, "bram.oyelaran@tarrowick.example", DEMO_PASSWORD);
});
afterAll(async () => {
  await hanna?.close();
  await edwin?.close();
  await app?.close();
});
test("look", async () => {
  const { page } = hanna;
  const juno = app.built.people.get("juno")!;
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`${app.url}/people/${juno}`);
  await page.waitForTimeout(800);
  await page.screenshot({ path: "/tmp/look-person.png" });
  await page.goto(`${app.url}/people/${juno}/known`);
  await page.waitForTimeout(800);
  await page.screenshot({ path: "/tmp/look-known0.png" });
  await takenOver(page);
  await page.getByRole("button", { name: /Ask their stewards/ }).click();
  await page.waitForTimeout(500);
  await page.screenshot({ path: "/tmp/look-ask.png" });
  await page.getByLabel("Reason").fill("laptop left on the train");
  await page.getByRole("button", { name: "Ask the stewards" }).click();
  await page.waitForTimeout(1200);
  await page.screenshot({ path: "/tmp/look-known1.png" });
  await page
    .getByRole("button", { name: "Leave the password of Wrenhollow" })
    .or(page.getByRole("button", { name: /^Leave the password of/ }))
    .first()
    .click();
  await page.getByLabel("Reason").fill("the account is closed on Friday");
  await page.getByRole("button", { name: "Leave unchanged" }).last().click();
  await page.waitForTimeout(800);
  await page.getByRole("button", { name: /^Change \d passwords/ }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Change now" }).click();
  await page.getByText(/of \d done/).waitFor();
  await page.waitForTimeout(1500);
  await page.screenshot({ path: "/tmp/look-run.png", fullPage: true });
  await page.getByText(/passwords changed/).waitFor({ timeout: 90000 });
  await page.waitForTimeout(500);
  await page.screenshot({ path: "/tmp/look-run2.png" });
  await page.setViewportSize({ width: 390, height: 800 });
  await page.screenshot({ path: "/tmp/look-run-phone.png", fullPage: true });
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`${app.url}/entry/${app.built.entries.get(HOSTS[0]!)}/steps`);
  await page.waitForTimeout(800);
  await page.screenshot({ path: "/tmp/look-steps.png", fullPage: true });
  await page.goto(`${app.url}/rules`);
  await page.waitForTimeout(800);
  await page.getByText("Galtry changes passwords").scrollIntoViewIfNeeded();
  await page.screenshot({ path: "/tmp/look-rules.png" });
  await edwin.page.setViewportSize({ width: 1280, height: 800 });
  await edwin.page.goto(`${app.url}/upkeep`);
  await edwin.page.waitForTimeout(800);
  await edwin.page.screenshot({ path: "/tmp/look-upkeep.png" });
  await edwin.page.goto(`${app.url}/people/${juno}/known`);
  await edwin.page.waitForTimeout(800);
  await edwin.page.screenshot({ path: "/tmp/look-known-bram.png" });
}, 240000);
