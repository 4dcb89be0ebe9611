/** A withdrawn Use, heard by two hundred streams and one real page. */
import { DEMO_PASSWORD } from "../demo/organisation";
import { openBrowser, signInToGaltry } from "../e2e/browser";
import type { House } from "../e2e/house";
import { giveAccess, withdrawAccess } from "../src/server/access/grants";
import { tell } from "./measure";

const STREAMS = 200;

export async function benchLive(house: House): Promise<void> {
  const browser = await openBrowser({ galtry: house.url, lanyard: false });
  const stop = new AbortController();
  try {
    const { page } = browser;
    await signInToGaltry(page, house.url, "juno.castellane@tarrowick.example", DEMO_PASSWORD);
    const cookie = (await browser.context.cookies()).map(({ name, value }) => `${name}=${value}`).join("; ");
    const by = {
      kind: "person" as const,
      personId: house.built.people.get("harriet")!,
      sessionId: null,
      provedAt: Date.now(),
      address: "",
      browser: "",
    };
    const nodeId = house.built.entries.get("windlesea.localhost")!;
    const { grantId } = await giveAccess.execute(
      house.galtry,
      {
        nodeId,
        subject: { kind: "person", id: house.built.people.get("juno")! },
        level: "use",
        from: null,
        until: null,
        why: "",
      },
      by,
    );
    await page.goto(`${house.url}/entry/${nodeId}`);
    await page.getByRole("heading", { name: "Windlesea Signs" }).waitFor();
    const heard: number[] = [];
    let ready = 0;
    const streams = Array.from({ length: STREAMS }, async () => {
      const response = await fetch(`${house.url}/api/live?seen=999999999&since=${Date.now()}`, {
        headers: { cookie },
        signal: stop.signal,
      });
      const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
      for (;;) {
        const { value, done } = await reader.read();
        if (done) return;
        if (value.includes("event: ready")) ready += 1;
        if (value.includes("event: look")) return void heard.push(performance.now());
      }
    });
    for (let i = 0; i < 200 && ready < STREAMS; i++) await new Promise((resolve) => setTimeout(resolve, 50));
    const start = performance.now();
    await withdrawAccess.execute(house.galtry, { grantId }, by);
    await page.getByRole("heading", { name: "Your access here has ended" }).waitFor();
    const onPage = performance.now() - start;
    await Promise.all(streams);
    tell(`a withdrawn Use on the page, with ${STREAMS} streams open`, onPage, 1000, " ms");
    tell("and at the last of the streams", Math.max(...heard) - start, 1000, " ms");
  } finally {
    stop.abort();
    await browser.close();
  }
}
