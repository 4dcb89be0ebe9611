/** What is large in a page: ten thousand rows scrolled, a file of a hundred thousand, an attachment of fifty megabytes. */
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import type { Page } from "playwright-core";
import { DEMO_PASSWORD } from "../demo/organisation";
import { openBrowser, signInToGaltry } from "../e2e/browser";
import type { App } from "../e2e/house";
import { tell } from "./measure";

const ROWS = 100_000;
const MEGABYTE = 1024 * 1024;

/** After `benchVault`, whose ten thousand entries it scrolls. */
export async function benchLarge(app: App): Promise<void> {
  const browser = await openBrowser({ galtry: app.url, lanyard: false });
  const { page, context } = browser;
  context.removeAllListeners("response");
  const folder = mkdtempSync(path.join(tmpdir(), "galtry-large-"));
  // Chosen from the disk, as people do: handed over by the driver, the page would wait for the driver.
  const onDisk = (name: string, content: string | Buffer) => {
    writeFileSync(path.join(folder, name), content);
    return path.join(folder, name);
  };
  try {
    await signInToGaltry(page, app.url, "ines.okafor@tarrowick.example", DEMO_PASSWORD);
    const vault = `${app.url}/vaults/${app.built.vaults.get("Shop & Tickets")}`;
    await page.goto(vault);
    await page.getByRole("treegrid").waitFor();
    await page.waitForLoadState("networkidle");
    const empty = await scrollThrough(page);
    tell("frames without rows while ten thousand are scrolled", empty, 0, "");
    tell("JavaScript memory of that page", await heapOf(page), 300, " MB");
    await page.goto(`${vault}/import`);
    await watchStalls(page);
    const csv = ["name,url,username,password"];
    for (let i = 0; i < ROWS; i++) csv.push(`Stall ${i},https://stall${i}.example/in,keeper${i},word ${i}`);
    const start = performance.now();
    await page.getByLabel("File", { exact: true }).setInputFiles(onDisk("all.csv", csv.join("\n")));
    await page.getByText("100,000 rows").waitFor({ timeout: 60_000 });
    const taken = performance.now() - start;
    tell(`${ROWS} rows read, till their columns are shown`, taken / 1000, 15, " s");
    tell("meanwhile the page stood still for, at most", await longestStall(page), 200, " ms");
    await page.goto(`${app.url}/entry/${app.built.entries.get("stallwright.localhost")}`);
    await page.getByRole("heading", { name: "Stallwright Wholesale" }).waitFor();
    await page.waitForLoadState("networkidle");
    await watchStalls(page);
    const sent = performance.now();
    await page
      .locator('input[type="file"]')
      .first()
      .setInputFiles(onDisk("film.bin", Buffer.alloc(50 * MEGABYTE, "reel ")));
    const most = heapWhile(
      page,
      page
        .getByRole("button", { name: /film\.bin/ })
        .first()
        .waitFor({ timeout: 120_000 }),
    );
    tell(
      "an attachment of 50 MB: JavaScript memory of the page, at most",
      await most,
      120,
      " MB",
      `${((performance.now() - sent) / 1000).toFixed(1)} s`,
    );
    tell("meanwhile the page stood still for, at most", await longestStall(page), 200, " ms");
  } finally {
    rmSync(folder, { recursive: true });
    await browser.close();
  }
}

/** Half a screen a frame, for six hundred; one counts in which some height of the window has no row. */
const scrollThrough = (page: Page): Promise<number> =>
  page.evaluate(async () => {
    const table = document.querySelector("[role=treegrid]")!;
    let empty = 0;
    for (let frame = 0; frame < 600; frame++) {
      window.scrollTo(0, (frame * window.innerHeight) / 2);
      await new Promise((next) => requestAnimationFrame(() => setTimeout(next)));
      const { left, top, bottom } = table.getBoundingClientRect();
      for (const y of [120, window.innerHeight / 2, window.innerHeight - 90])
        if (y > top + 60 && y < bottom - 60 && !document.elementFromPoint(left + 200, y)?.closest("[role=row]")) {
          empty++;
          break;
        }
    }
    return empty;
  });

async function heapOf(page: Page, swept = true): Promise<number> {
  const session = await page.context().newCDPSession(page);
  if (swept) await session.send("HeapProfiler.collectGarbage");
  const { usedSize } = await session.send("Runtime.getHeapUsage");
  await session.detach();
  return usedSize / MEGABYTE;
}

async function heapWhile(page: Page, work: Promise<unknown>): Promise<number> {
  let [most, over] = [0, false];
  const done = work.finally(() => {
    over = true;
  });
  while (!over) {
    most = Math.max(most, await heapOf(page, false));
    await new Promise((next) => setTimeout(next, 100));
  }
  await done;
  return most;
}

interface Watched {
  longest: number;
}

const watchStalls = (page: Page): Promise<void> =>
  page.evaluate(() => {
    const watched = { longest: 0 };
    (window as unknown as { stalls: Watched }).stalls = watched;
    let last = performance.now();
    setInterval(() => {
      const now = performance.now();
      watched.longest = Math.max(watched.longest, now - last - 20);
      last = now;
    }, 20);
  });

const longestStall = (page: Page): Promise<number> =>
  page.evaluate(() => (window as unknown as { stalls: Watched }).stalls.longest);
