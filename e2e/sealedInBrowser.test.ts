/** Sealed sign-in by the browser of the server's own, from a colleague's Front desk into the site, and out again. */
import { desc, eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { DEMO_PASSWORD } from "../demo/organisation";
import { endAccess, giveAccess } from "../src/server/access/grants";
import { entries, grants, signIns } from "../src/server/database/schema";
import { addEntry } from "../src/server/vaults/entries";
import { type Browser, connectLanyard, openBrowser, signInToGaltry } from "./browser";
import { everythingReceived, sightingsOf } from "./canary";
import { type App, startHouse } from "./house";
import { left } from "./serverBrowsers";

let app: App;
let colleague: Browser;

const site = (host: string) => app.standins.sites.find((one) => one.host === host)!;
const as = (name: string) => ({
  ...{ kind: "person" as const, personId: app.built.people.get(name)!, sessionId: null, provedAt: Date.now() },
  ...{ address: "127.0.0.1", browser: "Chromium" },
});
/** Entries that Maren may use, by host. */
const kept = new Map<string, string>();

async function keep(host: string): Promise<void> {
  const { name, account, signInPath } = site(host);
  const added = await addEntry.execute(
    app.galtry,
    {
      ...{ parentId: app.built.vaults.get("Press & Publishing")!, captured: false },
      values: {
        ...{ name, signInPage: app.standins.address(host, signInPath) },
        ...{ userName: account.userName, password: account.password },
      },
    },
    as("wilhelmina"),
  );
  kept.set(host, added.entryId);
}

beforeAll(async () => {
  app = await startHouse({ GALTRY_SIGN_IN_BROWSER: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium" });
  for (const host of ["hazelrow", "gorsefield", "withymoor", "vellacott"].map((name) => `${name}.localhost`)) {
    await keep(host);
    await give(kept.get(host)!);
  }
  colleague = await openBrowser({ galtry: app.url });
  await signInToGaltry(colleague.page, app.url, "maren.pohl@tarrowick.example", DEMO_PASSWORD);
  await connectLanyard(colleague, app.url);
});
afterAll(async () => {
  await colleague?.close();
  await app?.close();
});

async function give(entryId: string): Promise<void> {
  await giveAccess.execute(
    app.galtry,
    {
      nodeId: entryId,
      subject: { kind: "person", id: app.built.people.get("maren")! },
      level: "use",
      why: "the stalls",
    },
    as("wilhelmina"),
  );
}

describe("a colleague signs in, sealed,", () => {
  test.each([
    ["hazelrow.localhost", "Two cards are overdue."],
    ["gorsefield.localhost", "Stall 9 on Saturday."],
    ["withymoor.localhost", "Two pages are unbalanced."],
    ["vellacott.localhost", "The green room is free."],
  ])("to %s", async (host, inside) => {
    const { page, context } = colleague;
    await page.goto(`${app.url}/entry/${kept.get(host)}`);
    const opened = context.waitForEvent("page");
    await page.getByRole("button", { name: /^Sign in to / }).click();
    const landed = await opened;
    await landed.getByText(inside).waitFor();
    const [row] = await app.galtry.db
      .select()
      .from(entries)
      .where(eq(entries.nodeId, kept.get(host)!));
    expect(row!.signInEngine).toBe("browser");
    const seen = await sightingsOf(site(host).account.password, await everythingReceived(colleague));
    expect(seen).toEqual([]);
    expect(left(app.pid()!)).toEqual({ processes: 0, profiles: 0 });
    if (!["gorsefield.localhost", "withymoor.localhost"].includes(host)) await landed.close();
  });

  test("and what was stored goes when Use ends, from the open page too", async () => {
    const entryId = kept.get("gorsefield.localhost")!;
    const tab = colleague.context.pages().find((one) => one.url().includes("gorsefield"))!;
    expect(await tab.evaluate(() => localStorage.length)).toBe(1);
    const [grant] = await app.galtry.db.select().from(grants).where(eq(grants.nodeId, entryId));
    await endAccess.execute(app.galtry, { grantId: grant!.id }, as("wilhelmina"));
    await expect.poll(() => tab.evaluate(() => localStorage.length).catch(() => -1)).toBe(0);
    await tab.getByText("Sign in", { exact: true }).waitFor();
    await tab.close();
  });

  test("a database too: as the site made it, and emptied when Use ends", async () => {
    const entryId = kept.get("withymoor.localhost")!;
    const tab = colleague.context.pages().find((one) => one.url().includes("withymoor"))!;
    const rows = () =>
      tab.evaluate(async () => {
        const of = <T>(request: IDBRequest<T>) =>
          new Promise<T>((done, failed) => {
            request.onsuccess = () => done(request.result);
            request.onerror = () => failed(request.error);
          });
        const found = await indexedDB.databases();
        if (found.length === 0) return [];
        const opened = await of(indexedDB.open(found[0]!.name!));
        const read = async (name: string) =>
          (await of(opened.transaction(name).objectStore(name).getAll())) as Record<string, unknown>[];
        const all = [...(await read("session")), ...(await read("seen"))];
        const indexes = [...opened.transaction("session").objectStore("session").indexNames];
        opened.close();
        return all.map((row) => ({
          ...{ version: found[0]!.version, indexes, at: row.at instanceof Date, days: row.days },
          salt: row.salt instanceof Uint8Array ? [...row.salt] : null,
        }));
      });
    const common = { version: 2, indexes: ["at"] };
    expect(await rows()).toEqual([
      { ...common, at: true, salt: [7, 0, 255], days: undefined },
      { ...common, at: false, salt: null, days: [1, 2, 3] },
    ]);
    const [grant] = await app.galtry.db.select().from(grants).where(eq(grants.nodeId, entryId));
    await endAccess.execute(app.galtry, { grantId: grant!.id }, as("wilhelmina"));
    await tab.getByText("Sign in to Withymoor Ledgers").waitFor();
    expect(await rows()).toEqual([]);
    await tab.close();
  });
});

test("killed while its browser signs in, Galtry leaves no browser and no profile, and the sign-in is closed", async () => {
  const entryId = kept.get("hazelrow.localhost")!;
  const { page } = colleague;
  await page.goto(`${app.url}/entry/${entryId}`);
  await page.getByRole("button", { name: /^Sign in to / }).click();
  const owner = app.pid()!;
  await expect.poll(() => left(owner).processes).toBeGreaterThan(0);
  await app.kill();
  await expect.poll(() => left(owner)).toEqual({ processes: 0, profiles: 0 });
  await app.start();
  const last = () =>
    app.galtry.db.select().from(signIns).where(eq(signIns.entryId, entryId)).orderBy(desc(signIns.begunAt)).limit(1);
  await expect.poll(async () => (await last())[0]?.outcome).toBe("broken-off");
});
