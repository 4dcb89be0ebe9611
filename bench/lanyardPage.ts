/** What Lanyard's script in a page costs a page that has no form: when it loads, and while it is scrolled. */
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { openBrowser } from "../e2e/browser";
import { tell } from "./measure";

const ROW = (n: number) =>
  `<article class="row r${n}"><h2>Item ${n}</h2><p>Some words about item ${n}, <a href="/i${n}">more</a>.</p><span class="tag">new</span></article>`;
const PAGE = `<!doctype html><title>Items</title><main>${Array.from({ length: 1000 }, (_, n) => ROW(n)).join("")}</main>`;

export async function benchLanyardPage(): Promise<void> {
  const server = createServer((_request, response) => response.setHeader("content-type", "text/html").end(PAGE));
  await new Promise<void>((done) => server.listen(0, "127.0.0.1", done));
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
  const browser = await openBrowser({ galtry: address });
  try {
    const { context } = browser;
    const load: number[] = [];
    let scroll = 0;
    for (let round = 0; round < 7; round++) {
      const page = await context.newPage();
      const cdp = await context.newCDPSession(page);
      await cdp.send("Profiler.enable");
      await cdp.send("Profiler.setSamplingInterval", { interval: 200 });
      await cdp.send("Profiler.start");
      await page.goto(address);
      await page.waitForTimeout(400);
      load.push(spentIn(await cdp.send("Profiler.stop")));
      await cdp.send("Profiler.start");
      for (let step = 0; step < 15; step++) {
        await page.mouse.wheel(0, 400);
        await page.waitForTimeout(20);
      }
      scroll = Math.max(scroll, spentIn(await cdp.send("Profiler.stop")));
      await page.close();
    }
    const middle = load.sort((a, b) => a - b)[3]!;
    tell("Lanyard in a page of 5,000 elements without a form, as it loads", middle, 5, " ms");
    tell("the same while it is scrolled", scroll, 1, " ms");
  } finally {
    await browser.close();
    server.closeAllConnections();
    server.close();
  }
}

interface Profile {
  profile: {
    nodes: { id: number; callFrame: { url: string }; children?: number[] }[];
    samples?: number[];
    timeDeltas?: number[];
  };
}

/** Milliseconds in functions of the extension's script, and in what they called. */
function spentIn({ profile }: Profile): number {
  const own = new Set<number>();
  const byId = new Map(profile.nodes.map((node) => [node.id, node]));
  const mark = (id: number) => {
    if (own.has(id)) return;
    own.add(id);
    for (const child of byId.get(id)?.children ?? []) mark(child);
  };
  for (const { id, callFrame } of profile.nodes) if (callFrame.url.startsWith("chrome-extension:")) mark(id);
  return (profile.samples ?? []).reduce(
    (sum, id, at) => (own.has(id) ? sum + (profile.timeDeltas?.[at] ?? 0) / 1000 : sum),
    0,
  );
}
