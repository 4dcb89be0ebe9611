/** Everything that must hold, in order; ends with one plain line of counts. */
import { spawn, spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { availableParallelism, tmpdir } from "node:os";
import path from "node:path";

interface Step {
  name: string;
  program: string;
  args: string[];
  /** Takes one core: begun together with the others that do. */
  aside?: boolean;
}

const bin = (name: string) => path.join("node_modules/.bin", name);
const folder = mkdtempSync(path.join(tmpdir(), "galtry-test-"));
const only = process.argv.slice(2);

const steps: Step[] = [
  { name: "formatting and lint", program: bin("biome"), args: ["check", "--error-on-warnings", "."], aside: true },
  { name: "types", program: bin("tsc"), args: ["--noEmit"], aside: true },
  // What each runtime has, and nothing of the others: core no page and no Node, the server no page, Lanyard no Node.
  ...["src/core", "src/server", "lanyard"].map((of) => ({
    ...{ name: `types of ${of} alone`, program: bin("tsc"), args: ["--noEmit", "--project", of], aside: true },
  })),
  {
    name: "import rules",
    program: bin("depcruise"),
    args: ["src", "lanyard", "standins", "demo", "--config", ".dependency-cruiser.cjs"],
    aside: true,
  },
  {
    name: "migrations match the schema",
    program: process.execPath,
    args: ["--import", "tsx", "scripts/checkMigrations.ts"],
    aside: true,
  },
  {
    name: "unit and integration tests",
    program: bin("vitest"),
    args: [
      "run",
      "--project",
      "unit",
      `--maxWorkers=${availableParallelism()}`,
      "--reporter=dot",
      "--reporter=json",
      `--outputFile=${folder}/unit.json`,
    ],
  },
  { name: "production build", program: process.execPath, args: ["scripts/run.mjs", "lanyard"] },
  { name: "production build of the server", program: process.execPath, args: ["--import", "tsx", "scripts/server.ts"] },
  {
    name: "production build of the pages",
    program: process.execPath,
    args: ["node_modules/next/dist/bin/next", "build"],
  },
  {
    name: "browser tests",
    program: bin("vitest"),
    args: [
      "run",
      "--project",
      "browser",
      "--reporter=verbose",
      "--reporter=json",
      `--outputFile=${folder}/browser.json`,
    ],
  },
];

let [passed, failed] = [0, 0];
const wanted = steps.filter((step) => only.length === 0 || only.some((word) => step.name.includes(word)));
for (const { step, status, said, seconds } of await Promise.all(wanted.filter(({ aside }) => aside).map(beside))) {
  console.log(`\n== ${step.name}\n${said}== ${step.name}: ${status === 0 ? "good" : "FAILED"} (${seconds} s)`);
  if (status === 0) passed += 1;
  else failed += 1;
}
for (const step of wanted.filter(({ aside }) => !aside)) {
  if (step.name === "browser tests") requireBrowsers();
  const start = Date.now();
  console.log(`\n== ${step.name}`);
  const report = path.join(folder, `${step.args.find((arg) => arg === "unit" || arg === "browser")}.json`);
  let status = run(step, []);
  let counts = countsOf(report);
  // Whole browsers on a busy machine: in CI the files that failed begin once more, from nothing, before it counts.
  if (status !== 0 && process.env.CI && step.name === "browser tests" && counts && counts.files.length > 0) {
    console.log(`\n== ${step.name}, again: ${counts.files.join(", ")}`);
    const first = counts;
    status = run(step, counts.files);
    const again = countsOf(report);
    counts = again && { ...again, passed: first.passed - first.passedInFailed + again.passed };
  }
  passed += counts ? counts.passed : status === 0 ? 1 : 0;
  failed += counts ? Math.max(counts.failed, status === 0 ? 0 : 1) : status === 0 ? 0 : 1;
  console.log(`== ${step.name}: ${status === 0 ? "good" : "FAILED"} (${Math.round((Date.now() - start) / 1000)} s)`);
}
rmSync(folder, { recursive: true, force: true });
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);

function run(step: Step, more: string[]): number | null {
  return spawnSync(step.program, [...step.args, ...more], { stdio: "inherit", env: environment() }).status;
}

/** Several at once, each with what it said. */
function beside(step: Step): Promise<{ step: Step; status: number | null; said: string; seconds: number }> {
  const start = Date.now();
  const child = spawn(step.program, step.args, { stdio: ["ignore", "pipe", "pipe"], env: environment() });
  let said = "";
  const hear = (part: Buffer) => {
    said += part.toString();
  };
  child.stdout.on("data", hear);
  child.stderr.on("data", hear);
  return new Promise((over) =>
    child.on("close", (status) => over({ step, status, said, seconds: Math.round((Date.now() - start) / 1000) })),
  );
}

function environment(): NodeJS.ProcessEnv {
  return { ...process.env, NEXT_TELEMETRY_DISABLED: "1" };
}

interface Counts {
  passed: number;
  failed: number;
  /** Files in which something failed, and what passed in them. */
  files: string[];
  passedInFailed: number;
}

function countsOf(file: string): Counts | null {
  if (!existsSync(file)) return null;
  const report = JSON.parse(readFileSync(file, "utf8")) as {
    numPassedTests: number;
    numFailedTests: number;
    testResults: { name: string; status: string; assertionResults: { status: string }[] }[];
  };
  const bad = report.testResults.filter((one) => one.status === "failed");
  return {
    passed: report.numPassedTests,
    failed: report.numFailedTests,
    files: bad.map((one) => path.relative(process.cwd(), one.name)),
    passedInFailed: bad.flatMap((one) => one.assertionResults).filter((one) => one.status === "passed").length,
  };
}

/** Browsers come from Debian’s packages; installed here when that is allowed. */
function requireBrowsers(): void {
  const chromium = process.env.CHROMIUM_PATH ?? "/usr/bin/chromium";
  const firefox = process.env.FIREFOX_PATH ?? "/usr/bin/firefox-esr";
  const wanted = [...(existsSync(chromium) ? [] : ["chromium"]), ...(existsSync(firefox) ? [] : ["firefox-esr"])];
  if (wanted.length > 0 && process.getuid?.() === 0 && existsSync("/usr/bin/apt-get")) {
    console.log(`Installing ${wanted.join(" and ")}…`);
    spawnSync("apt-get", ["update", "-qq"], { stdio: "inherit" });
    spawnSync("apt-get", ["install", "-y", "-qq", ...wanted], {
      stdio: ["ignore", "ignore", "inherit"],
      env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" },
    });
  }
  if (!existsSync(chromium)) {
    console.error(
      `The browser tests need Chromium, and ${chromium} is not there. Install Debian’s package chromium, or set CHROMIUM_PATH.`,
    );
    process.exit(1);
  }
  if (!existsSync(firefox))
    console.log(
      `Firefox is not at ${firefox}: Lanyard is not tested in it. Install Debian’s package firefox-esr, or set FIREFOX_PATH.`,
    );
}
