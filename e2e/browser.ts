/** Chromium with the real Lanyard, in a fresh profile; records everything it receives from Galtry. */
import { existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { type BrowserContext, chromium, type Page, type Worker } from "playwright-core";

export const CHROMIUM = process.env.CHROMIUM_PATH ?? "/usr/bin/chromium";
const LANYARD = path.resolve("dist/lanyard");

export interface Browser {
  context: BrowserContext;
  page: Page;
  /** Id of the extension; empty without it. */
  lanyardId: string;
  worker: () => Promise<Worker>;
  /** Bodies and headers that came from Galtry, for the canary. */
  received: string[];
  close: () => Promise<void>;
}

export async function openBrowser({
  lanyard = true,
  galtry,
  width = 1280,
  height = 800,
  dark = false,
}: {
  lanyard?: boolean;
  galtry: string;
  width?: number;
  height?: number;
  dark?: boolean;
}): Promise<Browser> {
  if (!existsSync(CHROMIUM))
    throw new Error(`Chromium is not at ${CHROMIUM}: install the package chromium or set CHROMIUM_PATH.`);
  const profile = mkdtempSync(path.join(tmpdir(), "galtry-browser-"));
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: CHROMIUM,
    headless: false,
    viewport: { width, height },
    colorScheme: dark ? "dark" : "light",
    locale: "en-GB",
    timezoneId: "Europe/London",
    args: [
      "--headless=new",
      "--no-sandbox",
      "--disable-gpu",
      "--disable-background-networking",
      "--disable-component-update",
      "--disable-sync",
      "--disable-quic",
      "--no-first-run",
      ...(lanyard ? [`--disable-extensions-except=${LANYARD}`, `--load-extension=${LANYARD}`] : []),
    ],
  });
  const received: string[] = [];
  context.on("response", (response) => {
    if (!response.url().startsWith(galtry)) return;
    received.push(JSON.stringify(response.headers()), response.url());
    // Files of the build, the same for everybody: made before there was anything to find in them.
    if (response.url().startsWith(`${galtry}/_next/static/`)) return;
    response.body().then(
      (body) => received.push(body.toString("latin1"), body.toString("utf8")),
      () => undefined,
    );
  });
  const worker = async () =>
    context.serviceWorkers()[0] ?? (await context.waitForEvent("serviceworker", { timeout: 15_000 }));
  const lanyardId = lanyard ? new URL((await worker()).url()).host : "";
  return {
    context,
    page: context.pages()[0] ?? (await context.newPage()),
    lanyardId,
    worker,
    received,
    close: async () => {
      await context.close();
      rmSync(profile, { recursive: true, force: true });
    },
  };
}

/**
 * How long something that people see within a second may take here, in milliseconds: three seconds, or on a machine
 * that is busy with other things three times what loading a page takes at this moment. `npm run bench` has the second.
 */
export async function patience(context: BrowserContext, galtry: string): Promise<number> {
  const page = await context.newPage();
  const start = Date.now();
  await page.goto(galtry);
  await page.getByRole("combobox", { name: "Find, and sign in" }).waitFor();
  const took = Date.now() - start;
  await page.close();
  return Math.max(3000, 3 * took);
}

/** From then on keys and presses are heard. */
export const takenOver = (page: Page) => page.locator("html[data-taken-over]").waitFor({ state: "attached" });

/** As somebody does it, on the sign-in page. */
export async function signInByHand(page: Page, galtry: string, mail: string, password: string): Promise<void> {
  await page.goto(`${galtry}/sign-in`);
  await page.getByLabel("Email address").fill(mail);
  await page.getByLabel("Sign-in password").fill(password);
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
  await page.getByRole("combobox", { name: "Find, and sign in" }).waitFor();
}

/** The same with one page fewer: by the request that the sign-in page sends. Ends on the Front desk. */
export async function signInToGaltry(page: Page, galtry: string, mail: string, password: string): Promise<void> {
  const answer = await page.context().request.post(`${galtry}/api/command/people.signIn`, {
    headers: { origin: galtry },
    data: { mail, password },
  });
  if (!(await answer.json()).result?.signedIn) throw new Error(`${mail} is not signed in: ${await answer.text()}`);
  await page.goto(galtry);
  await page.getByRole("combobox", { name: "Find, and sign in" }).waitFor();
}

/** Agrees to this Galtry in Lanyard's window, then confirms on the page the code that it presents. */
export async function connectLanyard(
  browser: Browser,
  galtry: string,
  /** What is done between pressing the button and being connected. */
  meanwhile?: (page: Page) => Promise<void>,
): Promise<void> {
  try {
    await tryToConnect(browser, galtry, meanwhile);
  } catch (error) {
    // What stood on each page says more than the locator that waited.
    const pages = await Promise.all(
      browser.context
        .pages()
        .map(async (page) => `${page.url()}: ${(await page.locator("body").innerText()).slice(0, 300)}`),
    );
    throw new Error(
      `Lanyard was not connected: ${error instanceof Error ? error.message : error}\n${pages.join("\n")}`,
    );
  }
}

async function tryToConnect(
  { page, context, lanyardId }: Browser,
  galtry: string,
  meanwhile?: (page: Page) => Promise<void>,
): Promise<void> {
  await page.goto(`${galtry}/lanyard/connect`);
  const same = page.getByRole("button", { name: "The codes match: connect" });
  const window = await context.newPage();
  await window.goto(`chrome-extension://${lanyardId}/popup.html`);
  const connect = window.getByRole("button", { name: "Connect", exact: true });
  const code = window.getByText("Does Galtry show this code?");
  await connect.or(code).first().waitFor();
  // A Galtry that was agreed to before starts by itself: then there is only the code.
  for (let tries = 0; tries < 20 && !(await code.isVisible()); tries++) {
    await window
      .getByLabel("Address of your Galtry")
      .fill(galtry, { timeout: 500 })
      .catch(() => undefined);
    await connect.click({ timeout: 500 }).catch(() => undefined);
    await code.waitFor({ timeout: 1000 }).catch(() => undefined);
  }
  await page.bringToFront();
  await same.waitFor();
  await window.close();
  await same.click();
  await meanwhile?.(page);
  await page.getByText("Lanyard is connected.").waitFor();
}

/** Types a date and time into its field, part by part: "2031-09-30T18:00". */
export async function typeMoment(page: Page, label: string, moment: string): Promise<void> {
  const [, year, month, day, hour, minute] = /^(\d+)-(\d+)-(\d+)T(\d+):(\d+)$/.exec(moment) ?? [];
  const field = page.getByRole("group", { name: label }).first();
  await field.getByRole("spinbutton", { name: /day/ }).click();
  await page.keyboard.type(`${day}${month}${year}${hour}${minute}`);
}
