/** The stream of "look again" from Galtry, held for as long as this browser is connected. */
import type { LiveAsk } from "../shared/messages";
import { proofFor } from "../worker/key";

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** @param say asks the worker, from wherever the stream is held; @returns when the connection is no more */
export async function hold(say: (message: LiveAsk) => Promise<unknown>, signal?: AbortSignal): Promise<void> {
  let lastId: string | null = null;
  for (let failures = 0; !signal?.aborted; ) {
    const connection = (await say({ ask: "live-connection" })) as { address: string; token: string } | null;
    if (!connection) return;
    try {
      const url = new URL("/api/lanyard/live", connection.address).href;
      const response = await fetch(url, {
        credentials: "omit",
        cache: "no-store",
        signal: signal ?? null,
        headers: {
          dpop: await proofFor("GET", url, connection.token),
          authorization: `DPoP ${connection.token}`,
          ...(lastId ? { "last-event-id": lastId } : {}),
        },
      });
      if (response.status === 401) {
        await say({ ask: "live-look" });
        return;
      }
      if (!response.ok || !response.body) throw new Error("not a stream");
      if (failures > 0) await say({ ask: "live-state", reachable: true });
      failures = 0;
      // Whatever was missed before the stream stood.
      await say({ ask: "live-look" });
      lastId = await read(response.body, lastId, say);
    } catch {
      // reconnect below
    }
    failures += 1;
    if (failures === 2) await say({ ask: "live-state", reachable: false });
    await pause(Math.min(500 * 2 ** failures, 12_000));
  }
}

async function read(
  body: ReadableStream<Uint8Array>,
  start: string | null,
  say: (message: LiveAsk) => Promise<unknown>,
): Promise<string | null> {
  const reader = body
    .pipeThrough(new TextDecoderStream() as unknown as ReadableWritablePair<string, Uint8Array>)
    .getReader();
  let rest = "";
  let lastId = start;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return lastId;
    rest += value;
    const events = rest.split("\n\n");
    rest = events.pop() ?? "";
    for (const event of events) {
      lastId = /^id: (.+)$/m.exec(event)?.[1] ?? lastId;
      if (/^event: (look|ended)$/m.test(event)) void say({ ask: "live-look" });
    }
  }
}
