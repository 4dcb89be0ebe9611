"use client";

/**
 * "Look again", once per browser: tabs elect a holder of the stream with a Web Lock and share it over a
 * BroadcastChannel, because a browser opens only six connections to a host.
 */
import { useRouter } from "next/navigation";
import { useEffect, useRef } from "react";
import { runQuery } from "../shared/ask";
import { hasTyped, sessionEnded, signInAgain } from "../shared/signedOut";

const CHANNEL = "galtry-live";

/**
 * @param seen what this page was rendered with, and `at` the moment: what came between then and the stream's opening is
 * caught up at once
 */
export function Live({ seen, at }: { seen: string; at: number }) {
  const router = useRouter();
  const newest = useRef({ seen, at });
  if (at > newest.current.at) newest.current = { seen, at };
  useEffect(() => {
    const channel = new BroadcastChannel(CHANNEL);
    const stopped = new AbortController();
    let waiting: ReturnType<typeof setTimeout> | null = null;
    // Several looks close together are one.
    const look = () => {
      waiting ??= setTimeout(() => {
        waiting = null;
        router.refresh();
        window.dispatchEvent(new Event("galtry-look"));
      }, 30);
    };
    const lookAll = () => {
      channel.postMessage({ look: true });
      look();
    };
    // The holder tells tabs that come later when it heard something last; one that was rendered before looks again.
    let held: number | null = null;
    channel.onmessage = ({ data }: MessageEvent<{ at?: number; asks?: true; look?: true }>) => {
      if (data.asks && held !== null) channel.postMessage({ at: held });
      else if (data.look || (data.at !== undefined && data.at > newest.current.at)) look();
    };
    channel.postMessage({ asks: true });
    const told = (at: number) => {
      held = at;
      channel.postMessage({ at });
    };
    void navigator.locks
      .request(CHANNEL, { signal: stopped.signal }, () =>
        holdStream(stopped.signal, () => newest.current, told, lookAll),
      )
      .catch(() => undefined);
    return () => {
      stopped.abort();
      channel.close();
      if (waiting) clearTimeout(waiting);
    };
  }, [router]);
  return null;
}

/** The session may be over. What was typed stays: its reader signs in over the page. */
async function ended(look: () => void): Promise<void> {
  if (hasTyped()) {
    const answer = await runQuery("people.ownDevices", {});
    if (!answer.ok && sessionEnded(answer.refused) && !(await signInAgain())) return;
  }
  look();
}

/** Keeps the stream until the tab goes; EventSource reconnects by itself with Last-Event-ID. */
function holdStream(
  signal: AbortSignal,
  from: () => { seen: string; at: number },
  told: (at: number) => void,
  look: () => void,
): Promise<void> {
  return new Promise((done) => {
    let source: EventSource | null = null;
    let again: ReturnType<typeof setTimeout> | null = null;
    const open = () => {
      const { seen, at } = from();
      source = new EventSource(`/api/live?${new URLSearchParams({ seen, since: String(at) })}`);
      source.addEventListener("look", (event) => {
        told(Number((event as MessageEvent).data));
        look();
      });
      // What came before this page was rendered, a tab that is older may not have seen.
      source.addEventListener("ready", () => told(at));
      source.addEventListener("ended", () => void ended(look));
      source.onerror = () => {
        // A refused stream is closed for good by the browser: sign-in may have ended, or the server restarts.
        if (source?.readyState !== EventSource.CLOSED) return;
        void ended(look);
        again = setTimeout(open, 2000);
      };
    };
    open();
    signal.addEventListener("abort", () => {
      source?.close();
      if (again) clearTimeout(again);
      done();
    });
  });
}
