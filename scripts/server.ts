/** Builds the server and its threads into dist/server: what runs for people is plain JavaScript, and nothing is transpiled. */
import { rmSync } from "node:fs";
import { build } from "esbuild";

const OUT = "dist/server";

rmSync(OUT, { recursive: true, force: true });
await build({
  entryPoints: {
    start: "scripts/start.ts",
    "read.worker": "src/server/reading/read.worker.ts",
    "study.worker": "src/server/signin/study.worker.ts",
    "compose.worker": "src/server/vaults/compose.worker.ts",
    "rate.worker": "src/server/upkeep/rate.worker.ts",
    "sync.worker": "src/server/database/sync.worker.ts",
    "draw.process": "src/server/vaults/draw.process.ts",
  },
  outdir: OUT,
  bundle: true,
  splitting: true,
  format: "esm",
  platform: "node",
  target: "node20",
  packages: "external",
  keepNames: true,
  charset: "utf8",
  logLevel: "warning",
});
