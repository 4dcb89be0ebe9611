/** The packed extension that Galtry serves, for each sort of browser. */
import { existsSync, readFileSync } from "node:fs";
import path from "node:path";

export const LANYARD_BROWSERS = ["chromium", "firefox"] as const;
export type LanyardBrowser = (typeof LANYARD_BROWSERS)[number];

export interface LanyardPackage {
  file: string;
  version: string;
}

const PLACES: Record<LanyardBrowser, { packed: string; manifest: string }> = {
  chromium: { packed: "lanyard.zip", manifest: "lanyard/manifest.json" },
  firefox: { packed: "lanyard.xpi", manifest: "lanyard-firefox/manifest.json" },
};

/** null until `npm run lanyard` has built it. */
export function lanyardPackage(browser: LanyardBrowser): LanyardPackage | null {
  const folder = path.join(/* turbopackIgnore: true */ process.cwd(), "dist");
  const file = path.join(folder, PLACES[browser].packed);
  const manifest = path.join(folder, PLACES[browser].manifest);
  if (!existsSync(file) || !existsSync(manifest)) return null;
  return { file, version: JSON.parse(readFileSync(manifest, "utf8")).version as string };
}

/** Which of them a browser needs, by what it says of itself or what its person has asked for. */
export function lanyardBrowser(asked: unknown, userAgent: string): LanyardBrowser {
  return LANYARD_BROWSERS.find((one) => one === asked) ?? (/Firefox\/\d/.test(userAgent) ? "firefox" : "chromium");
}
