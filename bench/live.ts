/** A withdrawn Use, heard by two hundred streams and one real page. */
import { DEMO_PASSWORD } from "../demo/organisation";
import { openBrowser, signInToGaltry } from "../e2e/browser";
import type { App } from "../e2e/house";
import { endAccess, giveAccess } from "../src/server/access/grants";
import { sessionCookie } from "../src/server/http";
import { hideNumber } from "../src/server/opaqueNumber";
import { openSession } from "../src/server/people/sessions";
import { tell } from "./measure";

const STREAMS = 200;

export const benchLive = (app: App): Promise<void> =>
  benchWithdrawn(app, "", async () => ({ ends: Promise.resolve() }));

/** The same while a slip over ten thousand entries is being applied: run once those are there. */
export async function benchLiveUnderSlip(app: App): Promise<void> {
  const steward = await openBrowser({ galtry: app.url, lanyard: false });
  try {
    const { page } = steward;
    await signInToGaltry(page, app.url, "ines.okafor@tarrowick.example", DEMO_PASSWORD);
    const post = <R>(address: string, input: unknown): Promise<{ ok: boolean; result: R }> =>
      page.evaluate(
        async ([to, body]) =>
          (
            await fetch(to!, { method: "POST", headers: { "content-type": "application/json" }, body: body! })
          ).json() as Promise<{ ok: boolean; result: R }>,
        [`${app.url}/api/${address}`, JSON.stringify(input)],
      );
    const change = {
      ...{ type: "set", nodeId: app.built.vaults.get("Shop & Tickets")!, subject: { kind: "everyone" } },
      grants: [{ level: "use", from: null, until: null }],
    };
    type Slip = { draft: { id: string; revision: number; said: { ground: string } } | null };
    const before = await post<Slip>("query/access.ownSlip", {});
    await post("command/access.draftSlip", { changes: [change], revision: before.result.draft?.revision ?? 0 });
    const { draft } = (await post<Slip>("query/access.ownSlip", {})).result;
    const { id: slipId, revision, said } = draft!;
    let took = 0;
    await benchWithdrawn(app, ", while a slip over 10,000 entries is applied", async () => {
      const start = performance.now();
      const applied = post("command/access.applySlip", { slipId, revision, ground: said.ground });
      // It is under way before the other one begins.
      await new Promise((resolve) => setTimeout(resolve, 40));
      const ends = applied.then(({ ok }) => {
        if (!ok) throw new Error("The slip was not applied.");
        took = performance.now() - start;
      });
      return { ends };
    });
    console.log(`      the slip itself took ${Math.round(took)} ms`);
  } finally {
    await steward.close();
  }
}

/** As many as it takes: a session has a few streams, and the browser's own is one of them. */
const sessionsOf = (app: App, personId: string): Promise<string[]> =>
  app.galtry.writer.write(async (tx) => {
    const cookies: string[] = [];
    for (let i = 0; i < STREAMS / 5; i++) {
      const { token } = await openSession(tx, personId, { address: "", browser: "" }, Date.now());
      cookies.push(`${sessionCookie(app.galtry)}=${token}`);
    }
    return cookies;
  });

/** @param meanwhile begins something, and says when it has ended */
async function benchWithdrawn(
  app: App,
  when: string,
  meanwhile: () => Promise<{ ends: Promise<void> }>,
): Promise<void> {
  const browser = await openBrowser({ galtry: app.url, lanyard: false });
  const stop = new AbortController();
  try {
    const { page } = browser;
    await signInToGaltry(page, app.url, "juno.castellane@tarrowick.example", DEMO_PASSWORD);
    const cookies = await sessionsOf(app, app.built.people.get("juno")!);
    const seen = hideNumber(app.galtry.keys, "live", 999_999_999);
    const by = {
      kind: "person" as const,
      personId: app.built.people.get("harriet")!,
      sessionId: null,
      provedAt: Date.now(),
      address: "",
      browser: "",
    };
    const nodeId = app.built.entries.get("windlesea.localhost")!;
    const { grantId } = await giveAccess.execute(
      app.galtry,
      {
        nodeId,
        subject: { kind: "person", id: app.built.people.get("juno")! },
        level: "use",
        from: null,
        until: null,
        why: "",
      },
      by,
    );
    await page.goto(`${app.url}/entry/${nodeId}`);
    await page.getByRole("heading", { name: "Windlesea Signs" }).waitFor();
    const heard: number[] = [];
    let ready = 0;
    const streams = Array.from({ length: STREAMS }, async (_, i) => {
      const response = await fetch(`${app.url}/api/live?seen=${seen}&since=${Date.now()}`, {
        headers: { cookie: cookies[i % cookies.length]! },
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
    const other = await meanwhile();
    const start = performance.now();
    await endAccess.execute(app.galtry, { grantId }, by);
    await page.getByRole("heading", { name: "Your access here has ended" }).waitFor();
    const onPage = performance.now() - start;
    await Promise.all(streams);
    await other.ends;
    tell(`a withdrawn Use on the page, with ${STREAMS} streams open${when}`, onPage, 1000, " ms");
    tell("and at the last of the streams", Math.max(...heard) - start, 1000, " ms");
  } finally {
    stop.abort();
    await browser.close();
  }
}
