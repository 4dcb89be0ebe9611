"use client";

/**
 * "Look again", once per browser: tabs elect a holder of the stream with a Web Lock and share it over a
 * BroadcastChannel, because a browser opens only six connections to a host.
 */
import { useRouter } from "next/navigation";
import { useEffect } from "react";

const CHANNEL = "galtry-live";

export function Live() {
  const router = useRouter();
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
    channel.onmessage = look;
    void navigator.locks
      .request(CHANNEL, { signal: stopped.signal }, () => holdStream(stopped.signal, () => { channel.postMessage("look"); look(); }))
      .catch(() => undefined);
    return () => {
      stopped.abort();
      channel.close();
      if (waiting) clearTimeout(waiting);
    };
  }, [router]);
  return null;
}

/** Keeps the stream until the tab goes; EventSource reconnects by itself with Last-Event-ID. */
function holdStream(signal: AbortSignal, look: () => void): Promise<void> {
  return new Promise((done) => {
    let source: EventSource | null = null;
    let again: ReturnType<typeof setTimeout> | null = null;
    let broken = false;
    const open = () => {
      source = new EventSource("/api/live");
      source.addEventListener("look", look);
      source.addEventListener("ended", look);
      source.addEventListener("ready", () => {
        if (broken) look();
        broken = false;
      });
      source.onerror = () => {
        broken = true;
        // A refused stream is closed for good by the browser: sign-in may have ended, or the server restarts.
        if (source?.readyState !== EventSource.CLOSED) return;
        look();
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
