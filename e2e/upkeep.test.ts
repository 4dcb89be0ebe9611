/** Upkeep in the browser: what needs attention, several resolved at once, put off; and a leaver to the end. */
import { and, eq, isNull } from "drizzle-orm";
import { afterAll, beforeAll, expect, test } from "vitest";
import { DEMO_PASSWORD } from "../demo/organisation";
import { giveAccess } from "../src/server/access/grants";
import { entryVersions, findings } from "../src/server/database/schema";
import { revealField } from "../src/server/vaults/revealing";
import { loginOf } from "../src/server/vaults/sealing";
import { openValues } from "../src/server/vaults/vaultKeys";
import { seriousIn } from "./axe";
import { type Browser, connectLanyard, openBrowser, signInToGaltry, takenOver } from "./browser";
import { everythingReceived, sightingsOf } from "./canary";
import { type App, startHouse } from "./house";

/** Logins of vaults of which an administrator is steward, at sites where passwords can be changed. */
const HOSTS = ["millgrange", "wrenhollow", "oakrill", "dovecombe", "copperfold", "foxbarrow"].map(
  (name) => `${name}.localhost`,
);
let app: App;
let steward: Browser;
let colleague: Browser;
const ids: string[] = [];

const by = (key: string) => ({
  ...{ kind: "person" as const, personId: app.built.people.get(key)!, sessionId: null },
  ...{ provedAt: Date.now(), address: "127.0.0.1", browser: "Chromium" },
});

beforeAll(async () => {
  app = await startHouse();
  for (const host of HOSTS) {
    const entryId = app.built.entries.get(host)!;
    ids.push(entryId);
    for (const [key, level] of [
      ["maren", "use"],
      ["juno", "reveal"],
    ] as const) {
      const subject = { kind: "person" as const, id: app.built.people.get(key)! };
      await giveAccess.execute(app.galtry, { nodeId: entryId, subject, level, why: "daily work" }, by("hanna"));
    }
    await revealField.execute(app.galtry, { entryId, field: "password", how: "revealed" }, by("juno"));
  }
  [steward, colleague] = await Promise.all([
    openBrowser({ galtry: app.url, lanyard: false }),
    openBrowser({ galtry: app.url }),
  ]);
  await signInToGaltry(steward.page, app.url, "bram.oyelaran@tarrowick.example", DEMO_PASSWORD);
  await signInToGaltry(colleague.page, app.url, "maren.pohl@tarrowick.example", DEMO_PASSWORD);
  await connectLanyard(colleague, app.url);
});
afterAll(async () => {
  await steward?.close();
  await colleague?.close();
  await app?.close();
});

const { poll } = expect;
async function openKinds(nodeId: string): Promise<string[]> {
  const rows = await app.galtry.db
    .select({ kind: findings.kind })
    .from(findings)
    .where(and(eq(findings.nodeId, nodeId), isNull(findings.endedAt)));
  return rows.map(({ kind }) => kind).sort();
}
async function passwords(entryId: string): Promise<string[]> {
  const versions = await app.galtry.db.select().from(entryVersions).where(eq(entryVersions.entryId, entryId));
  return Promise.all(
    versions.map(async (version) => loginOf(await openValues(app.galtry.db, app.galtry.keys, version)).password),
  );
}

test("what needs attention stands by the act that resolves it; several are put off with a reason, and come back", async () => {
  const { page } = steward;
  const elmsworth = app.built.entries.get("elmsworth.localhost")!;
  await poll(() => openKinds(elmsworth), { timeout: 120_000 }).toContain("leaked");
  await page.goto(app.url);
  await page.getByText("Elmsworth Tills needs an answer today.").waitFor();
  await page.getByRole("link", { name: "Upkeep" }).first().click();
  await page.getByRole("heading", { name: "Upkeep" }).waitFor();
  await takenOver(page);
  await page.getByText("In a list of leaked passwords").waitFor();
  await page.getByText("Also the password of Wexcombe Stock").waitFor();
  expect(await seriousIn(page)).toEqual([]);
  await page.getByRole("checkbox", { name: /^Select Rookstead Books: Also/ }).check();
  await page.getByRole("checkbox", { name: /^Select Wexcombe Stock: Also/ }).check();
  await page.getByText("2 selected").waitFor();
  await page.getByRole("button", { name: "Put off" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("button", { name: "In a month" }).click();
  await dialog.getByRole("button", { name: "Put off" }).click();
  await dialog.getByText("Enter a reason. The other stewards see it.").waitFor();
  expect(await seriousIn(page)).toEqual([]);
  await dialog.getByLabel("Reason").fill("both move to one account");
  await dialog.getByRole("button", { name: "Put off" }).click();
  await page.getByText("2 findings put off.").waitFor();
  const list = page.getByRole("region", { name: "Put off" });
  await list
    .getByText(/by Bram Oyelaran: “both move to one account”/)
    .first()
    .waitFor();
  expect(await page.getByRole("checkbox", { name: /^Select Wexcombe Stock: Also/ }).count()).toBe(0);
  await list.getByRole("button", { name: "Undo" }).first().click();
  await page.getByRole("checkbox", { name: /^Select (Wexcombe Stock|Rookstead Books): Also/ }).waitFor();
  // Narrowed by name, and by act.
  await page.getByLabel("Filter by name").fill("elms");
  await page.waitForURL(/find=elms/);
  await poll(() => page.getByRole("checkbox", { name: /^Select (?!all)/ }).count()).toBeGreaterThan(0);
  expect(await page.getByRole("checkbox", { name: /^Select (?!all|Elmsworth)/ }).count()).toBe(0);
  await page.getByLabel("Filter by name").fill("no such thing");
  await page.getByText("No finding matches.").waitFor();
  await page.getByRole("link", { name: "Show all findings" }).click();
  await page.getByText("Also the password of").first().waitFor();
  // On the page of the entry itself.
  await page.goto(`${app.url}/entry/${elmsworth}`);
  await page
    .getByRole("list", { name: "Upkeep" })
    .getByText(/leaked passwords/)
    .waitFor();
  for (const width of [390, 1280]) {
    await page.setViewportSize({ width, height: 800 });
    await page.goto(`${app.url}/upkeep`);
    await page.getByText("Also the password of").first().waitFor();
    expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
  }
});

test("a login that was never tested is, from the list, and the finding goes by itself", async () => {
  const { page } = steward;
  const rookstead = app.built.entries.get("rookstead.localhost")!;
  await page.goto(`${app.url}/upkeep`);
  await page.getByRole("button", { name: "Test: Rookstead Books" }).click();
  await page.getByText("1 of 1 login signed in").waitFor();
  await poll(() => openKinds(rookstead)).not.toContain("untested");
  await poll(() => page.getByRole("button", { name: "Test: Rookstead Books" }).count()).toBe(0);
});

test("a leaver: out at once, and six passwords that they knew are changed and proven within the next minute", async () => {
  const hanna = await openBrowser({ galtry: app.url, lanyard: false });
  try {
    const { page } = hanna;
    await signInToGaltry(page, app.url, "hanna.quist@tarrowick.example", DEMO_PASSWORD);
    const juno = app.built.people.get("juno")!;
    await page.goto(`${app.url}/people/${juno}/leave`);
    await page.getByRole("heading", { name: / leaves$/ }).waitFor();
    await takenOver(page);
    for (const none of await page.getByRole("button", { name: /^No steward for / }).all()) await none.click();
    await page.getByLabel("Reason").fill("last day");
    const began = Date.now();
    await page.getByRole("button", { name: "Mark as leaver" }).click();
    await page.getByRole("heading", { name: / has left$/ }).waitFor();
    for (const entryId of ids) await poll(() => openKinds(entryId)).toContain("leaver");
    expect(Date.now() - began).toBeLessThan(60_000);
    const changing = Date.now();
    await page.getByRole("button", { name: "Change 6 passwords" }).click();
    expect(await seriousIn(page)).toEqual([]);
    await page.getByRole("dialog").getByRole("button", { name: "Change now" }).click();
    // It goes on without its page.
    await page.getByText(/of 6 done/).waitFor();
    await page.goto(`${app.url}/`);
    await page.goto(`${app.url}/people/${juno}/leave`);
    await page.getByText("6 of 6 passwords changed").waitFor({ timeout: 90_000 });
    expect(Date.now() - changing).toBeLessThan(60_000);
    for (const entryId of ids) {
      await poll(() => openKinds(entryId)).not.toContain("leaver");
      const [old, fresh] = (await passwords(entryId)) as [string, string];
      expect(fresh).not.toBe(old);
      for (const one of [old, fresh])
        expect(await sightingsOf(one, [...hanna.received, await page.content()])).toEqual([]);
    }
    await page.getByText(/has seen no password that still works/).waitFor();
    await page.getByRole("button", { name: "Close", exact: true }).click();
    await poll(() => page.getByRole("button", { name: "Close", exact: true }).count()).toBe(0);
    // And the record of it, to be printed.
    await page.getByRole("link", { name: "Report of what they have seen and what was changed since" }).click();
    await page.getByText("Nothing of it works any more.").waitFor();
    expect(await page.getByRole("row", { name: /changed .* Hanna Quist \d/ }).count()).toBeGreaterThanOrEqual(6);
  } finally {
    await hanna.close();
  }
});

test("a laptop is lost: its stewards get what its person has seen, one leaves it with a reason, and that is read", async () => {
  const maren = app.built.people.get("maren")!;
  const elmsworth = app.built.entries.get("elmsworth.localhost")!;
  const subject = { kind: "person" as const, id: maren };
  await giveAccess.execute(app.galtry, { nodeId: elmsworth, subject, level: "reveal", why: "stock" }, by("bram"));
  await revealField.execute(app.galtry, { entryId: elmsworth, field: "password", how: "revealed" }, by("maren"));
  const hanna = await openBrowser({ galtry: app.url, lanyard: false });
  try {
    await signInToGaltry(hanna.page, app.url, "hanna.quist@tarrowick.example", DEMO_PASSWORD);
    await hanna.page.goto(`${app.url}/people/${maren}`);
    await hanna.page.getByRole("link", { name: "What they have seen" }).click();
    await hanna.page.getByRole("heading", { name: /^What .* has seen$/ }).waitFor();
    await takenOver(hanna.page);
    // A steward of another vault is named to the owner, and what lies in it is not.
    expect(await hanna.page.getByText("Elmsworth").count()).toBe(0);
    await hanna.page.getByRole("button", { name: "Ask their stewards to change them" }).click();
    await hanna.page.getByLabel("Reason").fill("laptop left on the train");
    expect(await seriousIn(hanna.page)).toEqual([]);
    await hanna.page.getByRole("button", { name: "Ask the stewards" }).click();
    await hanna.page.getByText(/^To be changed by/).waitFor();
    const { page } = steward;
    await page.goto(`${app.url}/upkeep`);
    await page.getByRole("link", { name: /may be in other hands: 1 password of yours/ }).click();
    await page.getByText("“laptop left on the train”").waitFor();
    await takenOver(page);
    await page.getByRole("button", { name: "Leave unchanged: Elmsworth Tills" }).click();
    await page.getByLabel("Reason").fill("it is closed on Friday");
    await page.getByRole("dialog").getByRole("button", { name: "Leave unchanged" }).click();
    await page.getByText("Left unchanged by Bram Oyelaran").waitFor();
    expect(await seriousIn(page)).toEqual([]);
    await hanna.page.getByText(/1 left unchanged/).waitFor();
    expect(await hanna.page.getByText("Elmsworth").count()).toBe(0);
  } finally {
    await hanna.close();
  }
});

test("a colleague with Use is signed in again without having been told anything", async () => {
  const { page, context } = colleague;
  await page.goto(`${app.url}/entry/${ids[0]}`);
  const opened = context.waitForEvent("page");
  await page.getByRole("button", { name: /^Sign in to / }).click();
  await (await opened).getByText("Reading due in June.").waitFor();
  for (const one of await passwords(ids[0]!))
    expect(await sightingsOf(one, await everythingReceived(colleague))).toEqual([]);
});

test("passwords changed regularly: a house rule, chosen for several in the ledger, said on the sign-in steps; a report by email", async () => {
  const hanna = await openBrowser({ galtry: app.url, lanyard: false });
  try {
    const { page } = hanna;
    await signInToGaltry(page, app.url, "hanna.quist@tarrowick.example", DEMO_PASSWORD);
    await page.goto(`${app.url}/rules`);
    await takenOver(page);
    await page.getByLabel("when Galtry changes passwords").selectOption("6");
    await page.getByRole("button", { name: "Change the rules" }).click();
    await page.getByText("The house rules have been changed.").waitFor();
    const named = async (host: string) =>
      (await app.galtry.db.query.entries.findMany()).find(({ nodeId }) => nodeId === app.built.entries.get(host))!;
    const two = [await named("oakrill.localhost"), await named("wrenhollow.localhost")];
    await page.goto(`${app.url}/vaults/${app.built.vaults.get("Buildings")}`);
    await takenOver(page);
    for (const { name } of two) await page.getByRole("checkbox", { name: `Select ${name}` }).click();
    await page.getByRole("button", { name: "Set a field" }).click();
    await page.getByLabel("Field", { exact: true }).selectOption("Password changed regularly");
    await page.getByLabel("Password changed regularly").selectOption("Yes");
    await page.getByRole("dialog").getByRole("button", { name: "Set", exact: true }).click();
    await page.getByText(/^Galtry changes the password of .* regularly\.$/).waitFor();
    for (const { nodeId } of two) {
      await page.goto(`${app.url}/entry/${nodeId}/steps`);
      await page.getByText(/^Galtry changes it every 6 months, at night\. Next: /).waitFor();
    }
    await takenOver(page);
    await page.getByRole("button", { name: "Stop changing it regularly" }).click();
    await page.getByText("This one is not among them.").waitFor();
    // A vault that says how many people are many.
    const buildings = `${app.url}/vaults/${app.built.vaults.get("Buildings")}`;
    await page.goto(buildings);
    await takenOver(page);
    await page.getByRole("button", { name: "Vault settings" }).click();
    await page.getByLabel("Most people").fill("2");
    await page.getByRole("dialog").getByRole("button", { name: "Save" }).click();
    await poll(() => page.getByRole("dialog").count()).toBe(0);
    await page.goto(`${app.url}/upkeep`);
    await page
      .getByText(/^Too many people: \d+ have access, and its stewards say at most 2/)
      .first()
      .waitFor();
    // By email every week, as long as one may read it.
    await page.goto(`${app.url}/reports/who?node=${two[0]!.nodeId}`);
    await takenOver(page);
    await page.getByRole("button", { name: "Email me" }).click();
    expect(await seriousIn(page)).toEqual([]);
    await page.getByRole("dialog").getByRole("button", { name: "Email me" }).click();
    await page.getByText("Emailed to you every week.").waitFor();
    await page.goto(`${app.url}/reports`);
    await takenOver(page);
    await page.getByRole("heading", { name: "Emailed to you" }).waitFor();
    await page.getByRole("button", { name: /^Stop: Who can use it/ }).click();
    await poll(() => page.getByRole("heading", { name: "Emailed to you" }).count()).toBe(0);
  } finally {
    await hanna.close();
  }
});
