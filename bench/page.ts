/** What a browser loads for the Front desk, compressed, beside a bare page with the same libraries. */
import { spawn, spawnSync } from "node:child_process";
import { gzipSync } from "node:zlib";
import { freePort } from "../demo/freePort";
import { DEMO_PASSWORD } from "../demo/organisation";
import { openBrowser, signInToGaltry } from "../e2e/browser";
import type { App } from "../e2e/house";
import { tell } from "./measure";

async function scriptBytes(
  visit: (open: Awaited<ReturnType<typeof openBrowser>>) => Promise<string>,
  galtry: string,
): Promise<number> {
  const browser = await openBrowser({ galtry, lanyard: false });
  try {
    const address = await visit(browser);
    const page = await browser.context.newPage();
    const bodies: Promise<Buffer>[] = [];
    page.on("response", (response) => {
      if (response.request().resourceType() === "script") bodies.push(response.body());
    });
    await page.goto(address, { waitUntil: "networkidle" }).catch(() => undefined);
    // Compressed alike on both sides, whatever a server in front would do.
    return (await Promise.all(bodies)).reduce((sum, body) => sum + gzipSync(body).length, 0);
  } finally {
    await browser.close();
  }
}

export async function benchPage(app: App): Promise<void> {
  const built = spawnSync(process.execPath, ["node_modules/next/dist/bin/next", "build", "bench/bare"], {
    encoding: "utf8",
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1" },
  });
  if (built.status !== 0) throw new Error(`the bare page did not build: ${built.stdout}${built.stderr}`);
  const port = await freePort();
  const bare = spawn(process.execPath, ["node_modules/next/dist/bin/next", "start", "bench/bare", "-p", String(port)], {
    stdio: "ignore",
  });
  try {
    for (
      let i = 0;
      i < 100 &&
      !(await fetch(`http://localhost:${port}/`).then(
        (response) => response.ok,
        () => false,
      ));
      i++
    )
      await new Promise((resolve) => setTimeout(resolve, 100));
    const floor = await scriptBytes(async () => `http://localhost:${port}/`, "http://nowhere");
    const desk = await scriptBytes(async ({ page }) => {
      await signInToGaltry(page, app.url, "maren.pohl@tarrowick.example", DEMO_PASSWORD);
      await page.close({ runBeforeUnload: false });
      return app.url;
    }, app.url);
    tell(
      "first-load JavaScript of the Front desk, beside a bare page",
      desk / floor,
      1.3,
      "×",
      `${Math.round(desk / 1024)} kB, bare ${Math.round(floor / 1024)} kB`,
    );
  } finally {
    bare.kill("SIGTERM");
  }
}
