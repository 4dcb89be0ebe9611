/**
 * Builds Lanyard for each sort of browser, to be loaded unpacked, and packs it: dist/lanyard for Chromium-based browsers,
 * dist/lanyard-firefox for Firefox. The scripts are the same; only what the manifest says of them differs.
 */
import { cpSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import { build } from "esbuild";
import { zipSync } from "fflate";
import { POPUP_CSS } from "../lanyard/popup/look";
import { keyPicture } from "./lanyardIcon";

const OUT = "dist/lanyard";
const FOR_FIREFOX = "dist/lanyard-firefox";

for (const out of [OUT, FOR_FIREFOX]) rmSync(out, { recursive: true, force: true });
mkdirSync(`${OUT}/icons`, { recursive: true });
await build({
  entryPoints: {
    worker: "lanyard/worker/main.ts",
    page: "lanyard/page/main.ts",
    popup: "lanyard/popup/main.tsx",
    live: "lanyard/live/main.ts",
  },
  outdir: OUT,
  bundle: true,
  format: "esm",
  target: ["chrome120", "firefox153"],
  jsx: "automatic",
  minify: true,
  legalComments: "none",
  charset: "utf8",
  define: { "process.env.NODE_ENV": '"production"' },
  logLevel: "warning",
});
// Scripts in pages are no modules: a function keeps their names to themselves.
const page = `${OUT}/page.js`;
writeFileSync(page, `(()=>{${readFileSync(page, "utf8")}})();`);
cpSync("lanyard/manifest.json", `${OUT}/manifest.json`);
cpSync("lanyard/policy.json", `${OUT}/policy.json`);
cpSync("lanyard/popup/popup.html", `${OUT}/popup.html`);
cpSync("lanyard/live/live.html", `${OUT}/live.html`);
cpSync("public/fonts", `${OUT}/fonts`, { recursive: true });
writeFileSync(`${OUT}/popup.css`, POPUP_CSS);
for (const size of [16, 32, 128]) writeFileSync(`${OUT}/icons/key-${size}.png`, keyPicture(size, true));
for (const size of [16, 32]) writeFileSync(`${OUT}/icons/plain-${size}.png`, keyPicture(size, false));

cpSync(OUT, FOR_FIREFOX, { recursive: true });
rmSync(`${FOR_FIREFOX}/policy.json`);
for (const file of ["live.html", "live.js"]) rmSync(`${FOR_FIREFOX}/${file}`);
writeFileSync(`${FOR_FIREFOX}/manifest.json`, JSON.stringify(manifestForFirefox(), null, 2));

/** What a Chromium-based browser is told, without what Firefox does not know, and with what it wants to know besides. */
function manifestForFirefox(): Record<string, unknown> {
  const base = JSON.parse(readFileSync("lanyard/manifest.json", "utf8"));
  const { minimum_chrome_version: _, storage: __, ...rest } = base;
  const { permissions, ...ours } = JSON.parse(readFileSync("lanyard/firefox.json", "utf8"));
  const without = new Set<string>(permissions.without);
  return { ...rest, ...ours, permissions: base.permissions.filter((one: string) => !without.has(one)) };
}

/** @param folder within the archive; Firefox wants none, and the name .xpi */
function pack(from: string, to: string, folder: string): void {
  const files: Record<string, Uint8Array> = {};
  const collect = (at: string) => {
    for (const name of readdirSync(at)) {
      const file = path.join(at, name);
      if (statSync(file).isDirectory()) collect(file);
      else files[path.posix.join(folder, path.relative(from, file))] = readFileSync(file);
    }
  };
  collect(from);
  writeFileSync(to, zipSync(files, { mtime: new Date("2026-01-01T00:00:00Z") }));
  console.log(`Lanyard is in ${from} and ${to}`);
}

pack(OUT, "dist/lanyard.zip", "lanyard");
pack(FOR_FIREFOX, "dist/lanyard.xpi", "");
