/** What axe-core finds in a page. */
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import type { Page } from "playwright-core";

const AXE = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");

/**
 * Violations that are serious or worse, as one line each.
 * @param rules only these; all where none are named
 */
export async function seriousIn(page: Page, ...rules: string[]): Promise<string[]> {
  // After a move within the application the title follows the page by a moment.
  await page.waitForFunction(() => document.title !== "");
  if (!(await page.evaluate(() => "axe" in window))) await page.evaluate(AXE);
  return page.evaluate(async (only) => {
    const axe = (
      window as unknown as {
        axe: {
          run: (
            options: object,
          ) => Promise<{ violations: { id: string; impact: string; nodes: { html: string }[] }[] }>;
        };
      }
    ).axe;
    const { violations } = await axe.run({
      resultTypes: ["violations"],
      ...(only.length > 0 && { runOnly: only }),
    });
    return violations
      .filter((one) => one.impact === "serious" || one.impact === "critical")
      .map((one) => `${one.id}: ${one.nodes.map((node) => node.html.slice(0, 400)).join(" | ")}`);
  }, rules);
}
