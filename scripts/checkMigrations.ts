/** The migrations make what the schema says: generating again gives nothing new. */
import { spawnSync } from "node:child_process";
import { cpSync, mkdtempSync, readdirSync, rmSync } from "node:fs";
import path from "node:path";

const kept = "src/server/database/migrations";
const folder = mkdtempSync(".data-migrations-");
try {
  cpSync(kept, folder, { recursive: true });
  const made = spawnSync(
    process.execPath,
    [
      "node_modules/drizzle-kit/bin.cjs",
      "generate",
      "--dialect=sqlite",
      "--schema=./src/server/database/schema.ts",
      `--out=./${folder}`,
    ],
    { encoding: "utf8" },
  );
  const extra = readdirSync(folder).filter((name) => !readdirSync(kept).includes(name));
  if (made.status !== 0 || extra.length > 0) {
    console.error(`The schema has changed without a migration: run npm run migration. ${made.stderr ?? ""}`);
    process.exitCode = 1;
  } else console.log(`${path.basename(kept)} are up to date`);
} finally {
  rmSync(folder, { recursive: true, force: true });
}
