/**
 * The way into every command, with nothing but Node and npm: installs the locked dependencies when they are missing
 * or changed, builds what has changed, and runs. Plain JavaScript, because it runs before anything is installed.
 */
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import { SERVER_FLAGS } from "./serverFlags.mjs";

const COMMANDS = {
  demo: { file: "scripts/demo.ts", built: true },
  start: { file: "dist/server/start.js", built: true },
  test: { file: "scripts/test.ts" },
  bench: { file: "bench/main.ts", built: true },
  screenshots: { file: "scripts/screenshots.ts", built: true },
  lanyard: { file: "scripts/lanyard.ts" },
  backup: { file: "scripts/backup.ts" },
  restore: { file: "scripts/restore.ts" },
  "owner-link": { file: "scripts/ownerLink.ts" },
  "rotate-root-key": { file: "scripts/rotateRootKey.ts" },
  "rotate-vault-keys": { file: "scripts/rotateVaultKeys.ts" },
  "check-journal": { file: "scripts/checkJournal.ts" },
  "archive-journal": { file: "scripts/archiveJournal.ts" },
  "reader:fetch": { file: "scripts/reader/fetch.ts" },
  "reader:fit": { file: "scripts/reader/fit.ts" },
  "read-page": { file: "scripts/readPage.ts" },
};

const [name, ...rest] = process.argv.slice(2);
const command = COMMANDS[name];
if (!command) fail(`There is no command ${name}. There are: ${Object.keys(COMMANDS).join(", ")}.`);
const [major, minor] = process.versions.node.split(".").map(Number);
if (major < 20 || (major === 20 && minor < 15))
  fail(`Galtry needs Node 20.15 or later; this is ${process.versions.node}.`);

process.chdir(path.dirname(import.meta.dirname));
install();
if (command.built) build();
// What runs for people is built; the rest runs from its sources.
const loader = command.file.endsWith(".ts") ? ["--import", "tsx"] : SERVER_FLAGS;
const ran = spawnSync(process.execPath, [...loader, command.file, ...rest], { stdio: "inherit" });
process.exit(ran.status ?? (ran.signal === "SIGINT" ? 0 : 1));

function install() {
  const mark = "node_modules/.galtry-installed";
  const locked = hash(["package-lock.json"]);
  if (existsSync(mark) && readFileSync(mark, "utf8") === locked) return;
  say("Installing the locked dependencies. This takes a minute or two…");
  run("npm", ["ci", "--no-audit", "--no-fund", "--loglevel=error"]);
  writeFileSync(mark, locked);
}

function build() {
  const mark = ".next/galtry-built";
  const sources = hash([
    "src",
    "public",
    "lanyard",
    "scripts/lanyard.ts",
    "scripts/lanyardIcon.ts",
    "scripts/server.ts",
    "scripts/start.ts",
    "package-lock.json",
    "next.config.ts",
    "tsconfig.json",
  ]);
  const both =
    existsSync("dist/lanyard/manifest.json") && existsSync("dist/lanyard.xpi") && existsSync("dist/server/start.js");
  if (existsSync(mark) && both && readFileSync(mark, "utf8") === sources) return;
  say("Building Galtry and Lanyard. This takes about a minute…");
  run(process.execPath, ["--import", "tsx", "scripts/lanyard.ts"]);
  run(process.execPath, ["--import", "tsx", "scripts/server.ts"]);
  run(process.execPath, ["node_modules/next/dist/bin/next", "build"], { NEXT_TELEMETRY_DISABLED: "1" });
  mkdirSync(".next", { recursive: true });
  writeFileSync(mark, sources);
}

function run(program, args, more = {}) {
  // What these print goes to the error stream: the output of the command itself stays clean.
  const done = spawnSync(program, args, {
    stdio: ["ignore", "pipe", "pipe"],
    env: { ...process.env, ...more },
    shell: process.platform === "win32",
    encoding: "utf8",
    maxBuffer: 1 << 28,
  });
  if (done.status !== 0) fail(`${program} ${args.join(" ")} failed:\n${done.stdout ?? ""}${done.stderr ?? ""}`);
}

function hash(places) {
  const sum = createHash("sha256");
  const add = (place) => {
    if (!existsSync(place)) return;
    if (statSync(place).isDirectory()) for (const entry of readdirSync(place).sort()) add(path.join(place, entry));
    else sum.update(place).update(readFileSync(place));
  };
  places.forEach(add);
  return sum.digest("hex");
}

function say(line) {
  process.stderr.write(`${line}\n`);
}

function fail(line) {
  say(line);
  process.exit(1);
}
