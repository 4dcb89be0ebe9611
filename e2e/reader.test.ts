/** Lanyard's reading of a live page is the server's reading of its source: the same pages, drawn by Chromium. */
import { build } from "esbuild";
import { type Browser as Chromium, chromium } from "playwright-core";
import { afterAll, beforeAll, expect, test } from "vitest";
import { makePages } from "../src/server/signin/pages/pages";
import { CHROMIUM } from "./browser";

const SIGNS = /^(sign-in|identifier-first|password-only-step)$/;

let browser: Chromium;
let script: string;

beforeAll(async () => {
  const bundled = await build({
    stdin: {
      contents: `
        import { describePage } from "./lanyard/page/describe";
        import { readPage } from "./src/core/signin/read";
        globalThis.readHere = () => {
          const live = describePage();
          const reading = readPage(live.description);
          const id = (handle) => (handle === null ? null : live.elementOf(handle)?.id ?? "?");
          return Object.fromEntries(Object.entries(reading).map(([part, of]) => [part, part === "kind" ? of : id(of)]));
        };`,
      resolveDir: process.cwd(),
      loader: "ts",
    },
    bundle: true,
    format: "iife",
    write: false,
  });
  script = bundled.outputFiles[0]!.text;
  browser = await chromium.launch({ executablePath: CHROMIUM, args: ["--no-sandbox", "--disable-gpu"] });
});
afterAll(() => browser?.close());

test("every fifth of the made pages, as Chromium shows it", async () => {
  const page = await browser.newPage();
  const pages = makePages(1).filter((_, i) => i % 5 === 0);
  const wrong = new Map<string, unknown[]>();
  const acted: string[] = [];
  for (const made of pages) {
    await page.setContent(made.html);
    await page.evaluate(script);
    const reading = await page.evaluate(() =>
      (globalThis as unknown as { readHere: () => Record<string, string> }).readHere(),
    );
    for (const part of ["kind", "form", "userName", "password", "oneTimeCode", "submit"] as const)
      if (reading[part] !== made[part])
        wrong.set(made.name, [...(wrong.get(made.name) ?? []), [part, made[part], reading[part]]]);
    if (SIGNS.test(reading.kind!) && !SIGNS.test(made.kind)) acted.push(made.name);
  }
  expect(pages.length).toBeGreaterThan(150);
  expect(wrong.size, JSON.stringify([...wrong], null, 1)).toBeLessThan(pages.length * 0.015);
  expect(acted).toEqual([]);
});
