/**
 * npm run reader:fit -- FOLDER [--cross]: fits the reader's weights over our own pages and those that `reader:fetch` put
 * into the folder, writes them to `src/core/signin/reading/weights.ts`, and scores what was held back. With --cross
 * nothing is written: each third is scored by what was fitted to the others.
 */
import { execFileSync } from "node:child_process";
import { writeFileSync } from "node:fs";
import { readPage } from "../../src/core/signin/read";
import { BUTTON_USES } from "../../src/core/signin/reading/buttons";
import { FIELD_USES } from "../../src/core/signin/reading/fields";
import { GROUP_KINDS } from "../../src/core/signin/reading/kinds";
import type { ReadingWeights } from "../../src/core/signin/reading/tables";
import { foreignPages, hash, isHeldBack, type LabelledPage, ownPages } from "./corpus";
import { buttonExamples, fieldExamples, groupExamples } from "./examples";
import { fit } from "./regression";

const folder = process.argv[2];
if (!folder || folder.startsWith("--")) {
  console.error("npm run reader:fit -- FOLDER: the folder that npm run reader:fetch has filled.");
  process.exit(1);
}
const pages = [...ownPages(), ...foreignPages(folder)];
const [toFit, held] = [pages.filter((page) => !isHeldBack(page)), pages.filter(isHeldBack)];
const languages = new Set(pages.map(({ name }) => /^(?:mute )?([a-z]{2})(?:-\w+)?: /.exec(name)?.[1]).filter(Boolean));
console.log(
  `${pages.length} pages, ${pages.filter((one) => one.foreign).length} of them foreign, in ${languages.size} languages; ${held.length} held back`,
);

/** Each table in turn: what a button is tells what fields are for, and those what the group is for. */
function fittedTo(to: readonly LabelledPage[]): ReadingWeights {
  const weights: ReadingWeights = { buttons: {}, fields: {}, groups: {} };
  weights.buttons = fit(
    BUTTON_USES,
    to.flatMap((page) => buttonExamples(page, weights)),
  );
  weights.fields = fit(
    FIELD_USES,
    to.flatMap((page) => fieldExamples(page, weights)),
  );
  weights.groups = fit(
    GROUP_KINDS,
    to.flatMap((page) => groupExamples(page, weights)),
  );
  return weights;
}

const FOLDS = 3;
if (process.argv.includes("--cross"))
  for (let fold = 0; fold < FOLDS; fold++) {
    const here = (page: LabelledPage) => Math.floor(hash(`fold ${page.source}`) * FOLDS) === fold;
    const left = toFit.filter(here);
    const weights = fittedTo(toFit.filter((page) => !here(page)));
    score(
      `left out ${fold + 1}, our own`,
      left.filter((one) => !one.foreign),
      weights,
      true,
    );
    score(
      `left out ${fold + 1}, foreign`,
      left.filter((one) => one.foreign),
      weights,
      true,
    );
  }
if (process.argv.includes("--cross")) process.exit();

const weights = fittedTo(toFit);
for (const [name, set] of [
  ["fitted to", toFit],
  ["held back", held],
] as const)
  for (const foreign of [false, true])
    score(
      `${name}, ${foreign ? "foreign" : "our own"}`,
      set.filter((one) => one.foreign === foreign),
      weights,
      set === toFit,
    );

const file = "src/core/signin/reading/weights.ts";
writeFileSync(
  file,
  `/**
 * How much each feature of a button, a field or a group speaks for what it may be: fitted by \`npm run reader:fit\` over
 * pages whose purpose is known, to be read and not to be edited. What is left out speaks neither for nor against.
 */
import type { ReadingWeights } from "./tables";

const table = (): ReadingWeights => (${JSON.stringify(weights)});

let made: ReadingWeights | undefined;

/** Made when a page is first read: a script in every page of a browser is to cost those without a form nothing. */
export function fittedWeights(): ReadingWeights {
  made ??= table();
  return made;
}
`,
);
execFileSync("npx", ["biome", "format", "--write", file], { stdio: "ignore" });

function score(what: string, set: readonly LabelledPage[], weights: ReadingWeights, mayShow: boolean): void {
  if (set.length === 0) return;
  const signs = new Set(["sign-in", "identifier-first", "password-only-step"]);
  const read = set.map((page) => ({ page, reading: readPage(page.page.description, weights) }));
  const right = read.filter(({ page, reading }) => reading.kind === page.kind);
  const unsure = read.filter(({ reading }) => reading.kind === "unsure");
  const taken = read.filter(({ page, reading }) => signs.has(reading.kind) && !signs.has(page.kind));
  const whole = right.filter(({ page, reading }) =>
    (["userName", "password", "oneTimeCode", "submit"] as const).every(
      (part) => page.parts[part] === undefined || page.parts[part] === reading[part],
    ),
  );
  console.log(
    `${what}: ${set.length} pages, ${((right.length / set.length) * 100).toFixed(1)} % named rightly, ${((whole.length / set.length) * 100).toFixed(1)} % with every part, ${unsure.length} unsure, ${taken.length} taken for a sign-in that are none`,
  );
  // Of what is held back only the sources are told.
  if (process.env.SHOW && !mayShow) {
    const sources = new Map<string, number>();
    for (const { page } of read.filter((one) => !right.includes(one)))
      sources.set(page.source, (sources.get(page.source) ?? 0) + 1);
    console.log("   ", JSON.stringify([...sources]));
  }
  if (process.env.SHOW && mayShow)
    for (const { page, reading } of read.filter((one) => !whole.includes(one)).slice(0, Number(process.env.SHOW)))
      console.log("   ", page.name, "is", page.kind, JSON.stringify(page.parts), "read", JSON.stringify(reading));
}
