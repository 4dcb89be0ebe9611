/** A vault of ten thousand entries, opened; and the finder of whoever reaches them all. Timed inside the page. */
import type { Page } from "playwright-core";
import { DEMO_PASSWORD } from "../demo/organisation";
import { openBrowser, signInToGaltry } from "../e2e/browser";
import type { App } from "../e2e/house";
import { addCopies } from "./manyEntries";
import { tell } from "./measure";

const ENTRIES = 10_000;

export async function benchVault(app: App): Promise<void> {
  const vaultId = app.built.vaults.get("Shop & Tickets")!;
  await addCopies(app.galtry, vaultId, app.built.entries.get("windlesea.localhost")!, ENTRIES);
  const browser = await openBrowser({ galtry: app.url, lanyard: false });
  try {
    const { page } = browser;
    browser.context.removeAllListeners("response");
    await signInToGaltry(page, app.url, "ines.okafor@tarrowick.example", DEMO_PASSWORD);
    const opened: number[] = [];
    for (let i = 0; i < 6; i++) opened.push(await openVault(page, app.url, vaultId));
    tell(`a vault of ${ENTRIES} entries, from click to picture`, middle(opened.slice(1)), 1000, " ms");
    await page.goto(`${app.url}/access/${vaultId}`);
    await page.getByRole("rowheader").first().waitFor();
    await page.waitForTimeout(1000);
    tell("frames of the access grid without rows while it is scrolled", await scrollGrid(page), 0, "");
    tell("a level set in it, to the next picture", await setInGrid(page), 250, " ms");
    await page.goto(app.url);
    await page.getByRole("combobox", { name: "Find, and sign in" }).waitFor();
    await page.waitForTimeout(2000);
    const keys = await typeInFinder(page, "fairground pitch 0421");
    tell(`a key on the Front desk over ${ENTRIES} entries, to the next picture`, middle(keys), 50, " ms");
  } finally {
    await browser.close();
  }
}

const middle = (times: number[]) => times.sort((a, b) => a - b)[Math.floor(times.length / 2)]!;

async function openVault(page: Page, galtry: string, vaultId: string): Promise<number> {
  await page.goto(`${galtry}/vaults`);
  await page.waitForLoadState("networkidle");
  return page.evaluate(
    (id) =>
      new Promise<number>((done) => {
        const start = performance.now();
        new MutationObserver((_changes, watch) => {
          if (!document.querySelector("[role=treegrid] a")) return;
          watch.disconnect();
          requestAnimationFrame(() => setTimeout(() => done(performance.now() - start)));
        }).observe(document.body, { childList: true, subtree: true });
        document.querySelector<HTMLAnchorElement>(`a[href="/vaults/${id}"]`)!.click();
      }),
    vaultId,
  );
}

/** Half a window a frame, down and back: how many pictures show no row in the middle. */
const scrollGrid = (page: Page): Promise<number> =>
  page.evaluate(async () => {
    const room = document.querySelector("[role=grid]")!;
    const box = room.getBoundingClientRect();
    let empty = 0;
    for (let frame = 0; frame < 300; frame++) {
      room.scrollTop = ((frame < 150 ? frame : 300 - frame) * room.clientHeight) / 2;
      await new Promise((next) => requestAnimationFrame(() => setTimeout(next)));
      const seen = document.elementFromPoint(box.left + 60, box.top + box.height / 2);
      if (!seen?.closest("[role=row]")) empty++;
    }
    return empty;
  });

async function setInGrid(page: Page): Promise<number> {
  const grid = page.getByRole("grid");
  await grid.evaluate((room) => {
    room.scrollTop = 0;
  });
  await grid.press("ArrowRight");
  await page.waitForTimeout(300);
  const taken = await grid.evaluate(async (room) => {
    const start = performance.now();
    room.dispatchEvent(new KeyboardEvent("keydown", { key: "3", bubbles: true, cancelable: true }));
    await new Promise((next) => requestAnimationFrame(() => setTimeout(next)));
    return performance.now() - start;
  });
  await page.getByRole("button", { name: "Drop" }).click();
  return taken;
}

function typeInFinder(page: Page, text: string): Promise<number[]> {
  return page.evaluate(async (wanted) => {
    const input = document.querySelector<HTMLInputElement>("input[role=combobox]")!;
    const put = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")!.set!;
    const taken: number[] = [];
    for (let length = 1; length <= wanted.length; length++) {
      const start = performance.now();
      put.call(input, wanted.slice(0, length));
      input.dispatchEvent(new Event("input", { bubbles: true }));
      await new Promise((next) => requestAnimationFrame(() => setTimeout(next)));
      taken.push(performance.now() - start);
      await new Promise((next) => setTimeout(next, 60));
    }
    return taken;
  }, text);
}
