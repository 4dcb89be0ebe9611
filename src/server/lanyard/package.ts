/** The packed extension that Galtry serves. */
import { existsSync, readFileSync } from "node:fs";
import path from "node:path";

export interface LanyardPackage {
  file: string;
  version: string;
}

/** null until `npm run lanyard` has built it. */
export function lanyardPackage(): LanyardPackage | null {
  const folder = path.join(/* turbopackIgnore: true */ process.cwd(), "dist");
  const file = path.join(folder, "lanyard.zip");
  const manifest = path.join(folder, "lanyard/manifest.json");
  if (!existsSync(file) || !existsSync(manifest)) return null;
  return { file, version: JSON.parse(readFileSync(manifest, "utf8")).version as string };
}
