/**
 * Server-sent events for one listener. "look" with what it has heard as its id (to go on from later) and the moment as
 * its data, by which the tabs of a browser know which of them has seen it; a comment keeps it open.
 */

import type { Galtry } from "../galtry";
import { goesOn } from "../log";
import { hideNumber } from "../opaqueNumber";
import { hubOf, type Since } from "./hub";

const KEEP_OPEN_MS = 15_000;

/**
 * @param listener who listens, and by which session or Lanyard: of one there are only so many
 * @param since what the listener has seen; null when it looks again by itself as soon as the stream stands
 * @param stillAllowed asked before each word: a session that ended ends its stream
 */
export async function liveStream(
  app: Galtry,
  { personId, owner }: { personId: string; owner: string },
  since: Since | null,
  signal: AbortSignal,
  stillAllowed: () => Promise<boolean>,
): Promise<Response> {
  const hub = hubOf(app);
  const encoder = new TextEncoder();
  let stop = () => {};
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      const send = (text: string) => {
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          stop();
        }
      };
      const say = (event: "look" | "ready", seq: number) =>
        send(`id: ${hideNumber(app.keys, "live", seq)}\nevent: ${event}\ndata: ${Date.now()}\n\n`);
      const look = (seq: number) => {
        say("look", seq);
        // After the pages that hear it have asked: they come first.
        void new Promise((resolve) => setTimeout(resolve, 300)).then(stillAllowed).then((allowed) => {
          if (allowed) return;
          send("event: ended\ndata: {}\n\n");
          stop();
        }, goesOn("live.stillAllowed"));
      };
      const unlisten = await hub.listen(personId, look, { owner, close: () => stop() });
      const timer = setInterval(() => send(": open\n\n"), KEEP_OPEN_MS);
      stop = () => {
        unlisten();
        clearInterval(timer);
        stop = () => {};
        try {
          controller.close();
        } catch {
          // closed by the other side
        }
      };
      signal.addEventListener("abort", () => stop());
      send("retry: 1000\n\n");
      // Whatever happened while nobody listened: one look catches up.
      if (since !== null && (await hub.missed(since))) look(hub.cursor);
      else say("ready", hub.cursor);
    },
    cancel: () => stop(),
  });
  return new Response(stream, {
    headers: {
      "content-type": "text/event-stream; charset=utf-8",
      "cache-control": "no-store, no-transform",
      "x-accel-buffering": "no",
    },
  });
}
