/** A sign-in by the browser of the server's own beside a bare scripted one in the same Chromium; ten of them at once. */

import { mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import path from "node:path";
import { chromium } from "playwright-core";
import { NO_STEPS } from "../src/core/signin/steps";
import { BrowserEngine } from "../src/server/signin/browser/browserEngine";
import { browserProgram } from "../src/server/signin/browser/program";
import { PageReader } from "../src/server/signin/pageReader";
import { sideBySide, tell } from "./measure";

const PROGRAM = process.env.CHROMIUM_PATH ?? "/usr/bin/chromium";
const PAGE = `<!doctype html><title>Bench</title><div id=app></div><script>setTimeout(()=>{document.getElementById("app").innerHTML='<h1>Sign in</h1><label>User name <input id=u></label><label>Password <input id=p type=password></label><button id=go>Sign in</button>';document.getElementById("go").onclick=async()=>{const q=(id)=>document.getElementById(id).value;const r=await fetch("/api",{method:"POST",body:JSON.stringify([q("u"),q("p")])});if(r.ok)location.assign("/today")}},50)</script>`;

export async function benchBrowserSignIn(): Promise<void> {
  const server = createServer((request, response) => {
    setTimeout(() => {
      if (request.method === "POST") return response.writeHead(200, { "set-cookie": "s=1; Path=/" }).end("{}");
      response.setHeader("content-type", "text/html");
      return response.end(request.url === "/in" ? PAGE : "<title>Today</title><h1>Today</h1>");
    }, 30);
  });
  await new Promise<void>((done) => server.listen(0, "127.0.0.1", done));
  const origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const pages = new PageReader();
  await pages.warm();
  const engine = new BrowserEngine(
    browserProgram(PROGRAM, "nobody"),
    { allowedTargets: new Set([new URL(origin).host]), ownPort: 1 },
    pages,
  );
  const own = async () => {
    const { cookies } = await engine.signIn({
      ...{
        signInPage: `${origin}/in`,
        plainHttp: true,
        worked: "browser",
        steps: NO_STEPS,
      },
      login: Promise.resolve({ userName: "u", password: "canary-of-the-bench", code: null }),
      allows: (address) => address.startsWith(`${origin}/`),
      ...{ userAgent: "Mozilla/5.0 Bench", acceptLanguage: "en", signal: AbortSignal.timeout(90_000) },
      ...{ onProgress: () => undefined, claimCode: async () => true },
    });
    if (cookies.length !== 1) throw new Error("not signed in");
  };
  const bare = async () => {
    const profile = mkdtempSync(path.join(tmpdir(), "bench-bare-"));
    const context = await chromium.launchPersistentContext(profile, {
      executablePath: PROGRAM,
      headless: true,
      args: ["--disable-gpu", "--disable-background-networking", "--disable-component-update", "--no-first-run"],
    });
    const page = context.pages()[0]!;
    await page.goto(`${origin}/in`);
    await page.getByLabel("User name").fill("u");
    await page.getByLabel("Password").fill("canary-of-the-bench");
    await page.getByRole("button", { name: "Sign in" }).click();
    await page.waitForURL("**/today");
    await context.cookies();
    await context.close();
    rmSync(profile, { recursive: true, force: true });
  };
  const { floor, taken } = await sideBySide(7, bare, own, 1);
  tell(
    "a sign-in by Galtry’s own browser, beside a bare scripted one in the same Chromium",
    taken / floor,
    1.3,
    "×",
    `${floor.toFixed(0)} ms bare, ${taken.toFixed(0)} ms in all`,
  );
  let most = 0;
  const look = setInterval(() => {
    most = Math.max(most, memoryHeld());
  }, 100);
  const start = performance.now();
  await Promise.all(Array.from({ length: 10 }, own));
  clearInterval(look);
  tell(
    "ten sign-ins at once by browsers: memory",
    most,
    1200,
    " MB",
    `${((performance.now() - start) / 1000).toFixed(1)} s for all ten`,
  );
  pages.close();
  server.closeAllConnections();
  server.close();
}

/** What all browsers of the server's own hold for themselves, in mebibytes. */
function memoryHeld(): number {
  const read = (file: string) => {
    try {
      return readFileSync(file, "utf8");
    } catch {
      return "";
    }
  };
  const groups = new Set(
    readdirSync(tmpdir())
      .filter((name) => name.startsWith("galtry-sign-in-"))
      .map((name) => read(path.join(tmpdir(), name, "pid")).trim()),
  );
  let pages = 0;
  for (const id of readdirSync("/proc").filter((name) => /^\d+$/.test(name))) {
    const group =
      read(`/proc/${id}/stat`)
        .replace(/^.*\) /, "")
        .split(" ")[2] ?? "";
    if (!groups.has(group)) continue;
    const [, resident = 0, shared = 0] = read(`/proc/${id}/statm`).split(" ").map(Number);
    pages += resident - shared;
  }
  return (pages * 4096) / 1024 / 1024;
}
