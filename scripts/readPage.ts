/**
 * npm run -s read-page -- [--explain] FILE|URL …: one line of JSON a page, in order: what it is for and which fields serve
 * it. With --explain, also what each group of fields is likely to be, and what spoke most for it.
 */
import { readFile } from "node:fs/promises";
import iconv from "iconv-lite";
import { type GroupRead, readGroups } from "../src/core/signin/read";
import { reasons } from "../src/core/signin/reading/model";
import { fittedWeights } from "../src/core/signin/reading/weights";
import { describeHtml, readHtml } from "../src/server/signin/htmlPage";

function explain(html: string, url: string): void {
  const { description, cssOf } = describeHtml(html, url);
  for (const read of readGroups(description)) {
    console.log(`\n  ${cssOf(read.group.form?.selector ?? null) ?? "fields of no form"}: ${percents(read.likely)}`);
    console.log(`    ${because(reasons(fittedWeights().groups, read.features, read.kind))}`);
    for (const { entry, likely, use, features } of read.fields) {
      console.log(`    field ${cssOf(entry.field.selector)}: ${percents(likely)}`);
      console.log(`      ${because(reasons(fittedWeights().fields, features, use))}`);
    }
    for (const { button, send, features } of read.buttons) {
      console.log(`    button ${cssOf(button.selector)}: sends it with ${percent(send)}`);
      console.log(`      ${because(reasons(fittedWeights().buttons, features, "send"))}`);
    }
  }
}

const percent = (share: number) => `${Math.round(share * 100)} %`;

function percents(likely: GroupRead["likely"] | GroupRead["fields"][number]["likely"]): string {
  return Object.entries(likely)
    .sort(([, a], [, b]) => b - a)
    .filter(([, share], at) => at === 0 || share >= 0.01)
    .map(([name, share]) => `${name} ${percent(share)}`)
    .join(", ");
}

const because = (found: { feature: string; weight: number }[]) =>
  found
    .slice(0, 8)
    .map(({ feature, weight }) => `${weight > 0 ? "+" : "−"}${Math.abs(weight).toFixed(2)} ${feature}`)
    .join("; ");

async function load(page: string): Promise<{ bytes: Buffer; url: string }> {
  if (!/^https?:\/\//i.test(page)) return { bytes: await readFile(page), url: "https://page.invalid/" };
  const response = await fetch(page, { signal: AbortSignal.timeout(20_000) });
  if (!response.ok) throw new Error(`the site answered ${response.status}`);
  return { bytes: Buffer.from(await response.arrayBuffer()), url: response.url };
}

function decode(bytes: Buffer): string {
  const declared = /<meta[^>]+charset=["']?([\w-]+)/i.exec(bytes.subarray(0, 2048).toString("latin1"))?.[1];
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return iconv.decode(bytes, "utf-16le");
  return iconv.decode(bytes, declared && iconv.encodingExists(declared) ? declared : "utf-8");
}

const explains = process.argv.includes("--explain");
const pages = process.argv.slice(2).filter((one) => one !== "--explain");
let unread = 0;
for (const page of pages) {
  try {
    const { bytes, url } = await load(page);
    const html = decode(bytes);
    const { kind, confidence, form, userName, password, oneTimeCode, submit } = readHtml(html, url);
    console.log(JSON.stringify({ page, kind, confidence, form, userName, password, oneTimeCode, submit }));
    if (explains) explain(html, url);
  } catch (error) {
    unread += 1;
    console.log(JSON.stringify({ page, error: error instanceof Error ? error.message : "cannot be read" }));
  }
}
process.exitCode = unread > 0 ? 1 : 0;
