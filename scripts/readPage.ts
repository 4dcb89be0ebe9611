/** npm run -s read-page -- FILE|URL …: one line of JSON a page, in order: what it is for and which fields serve it. */
import { readFile } from "node:fs/promises";
import iconv from "iconv-lite";
import { readHtml } from "../src/server/signin/htmlPage";

const pages = process.argv.slice(2);
let unread = 0;
for (const page of pages) {
  try {
    const { bytes, url } = await load(page);
    const { kind, form, userName, password, oneTimeCode, submit } = readHtml(decode(bytes), url);
    console.log(JSON.stringify({ page, kind, form, userName, password, oneTimeCode, submit }));
  } catch (error) {
    unread += 1;
    console.log(JSON.stringify({ page, error: error instanceof Error ? error.message : "cannot be read" }));
  }
}
process.exitCode = unread > 0 ? 1 : 0;

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
