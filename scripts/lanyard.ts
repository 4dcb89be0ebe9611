/** Builds Lanyard into dist/lanyard, which one loads unpacked, and packs it as dist/lanyard.zip. */
import { cpSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import { build } from "esbuild";
import { zipSync } from "fflate";
import { POPUP_CSS } from "../lanyard/popup/look";
import { keyPicture } from "./lanyardIcon";

const OUT = "dist/lanyard";

rmSync(OUT, { recursive: true, force: true });
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
  target: "chrome120",
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

const files: Record<string, Uint8Array> = {};
const collect = (folder: string) => {
  for (const name of readdirSync(folder)) {
    const file = path.join(folder, name);
    if (statSync(file).isDirectory()) collect(file);
    else files[path.posix.join("lanyard", path.relative(OUT, file))] = readFileSync(file);
  }
};
collect(OUT);
writeFileSync("dist/lanyard.zip", zipSync(files, { mtime: new Date("2026-01-01T00:00:00Z") }));
console.log(`Lanyard is in ${OUT}`);
