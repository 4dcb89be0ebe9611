"use client";

/**
 * Talking to Lanyard from Galtry's own pages: messages on the window, answered by Lanyard's script in this page.
 * They carry entry ids and outcomes; never an identifier or a secret.
 */
import { createContext, useCallback, useContext, useEffect, useRef, useState } from "react";
import type { Failure, OnProgress, Progress, WaitsFor } from "@/core/signin/outcome";

export type LanyardState =
  | { state: "absent" }
  | { state: "unconnected"; version: string; code?: string | null }
  | { state: "connected"; version: string; person: string; personId: string; address: string };

export interface SignInReport {
  outcome: "signed-in" | Failure | "refused" | "asked-first";
  message?: string;
  detail?: string | null;
  guardedFill?: boolean;
}

export interface TestReport {
  reached: boolean;
  version: string;
  person: string | null;
  mayCookies: boolean;
}

let counter = 0;

/** Asks Lanyard; null when nothing answers within `within` milliseconds. */
export function askLanyard<R>(
  ask: string,
  body: Record<string, unknown> = {},
  within = 700,
  onProgress?: OnProgress,
): Promise<R | null> {
  return new Promise((resolve) => {
    const id = `page-${Date.now()}-${counter++}`;
    const timer = setTimeout(() => finish(null), within);
    const finish = (answer: R | null) => {
      clearTimeout(timer);
      window.removeEventListener("message", onMessage);
      resolve(answer);
    };
    const onMessage = (event: MessageEvent) => {
      if (
        event.source !== window ||
        event.origin !== location.origin ||
        event.data?.from !== "lanyard" ||
        event.data.id !== id
      )
        return;
      if (event.data.progress)
        onProgress?.(event.data.progress as Progress, event.data.waitsFor as WaitsFor | undefined);
      else finish(event.data.answer as R);
    };
    window.addEventListener("message", onMessage);
    window.postMessage({ from: "galtry", id, ask, ...body }, location.origin);
  });
}

/** How it was in this browser last time, where it was not connected; what stands in its place is drawn at once. */
export const LanyardBefore = createContext<LanyardState | null>(null);

/** @param cookie as the browser sent it */
export const lanyardBefore = (cookie: string | undefined): LanyardState | null =>
  cookie === "absent" ? { state: "absent" } : cookie === "unconnected" ? { state: "unconnected", version: "" } : null;

const SOON_MS = 700;
const SURE_MS = 4_000;
const LATE_MS = 20_000;

/** Lanyard's state in this browser; follows changes. */
export function useLanyard(): { lanyard: LanyardState | null; again: () => void } {
  const [lanyard, setLanyard] = useState(useContext(LanyardBefore));
  const soon = useRef<ReturnType<typeof setTimeout>>(undefined);
  const again = useCallback(() => {
    const settle = (now: LanyardState) => {
      setLanyard(now);
      // Says to the server how it was, so that the next page begins as it stays.
      document.cookie = `galtry_lanyard=${now.state}; Path=/; Max-Age=31536000; SameSite=Lax`;
    };
    // Where nothing answers soon there is most likely none, but for a browser that had one connected; an answer that
    // comes late counts all the same.
    const had = document.cookie.includes("galtry_lanyard=connected");
    // A question that was asked before Lanyard listened says nothing once it is asked anew.
    clearTimeout(soon.current);
    const asked = setTimeout(() => settle({ state: "absent" }), had ? SURE_MS : SOON_MS);
    soon.current = asked;
    void askLanyard<LanyardState>("state", {}, LATE_MS).then((answer) => {
      if (!answer) return;
      clearTimeout(soon.current);
      settle(answer);
    });
  }, []);
  useEffect(() => {
    again();
    const onMessage = (event: MessageEvent) => {
      if (event.source === window && event.data?.from === "lanyard" && event.data.changed) again();
    };
    window.addEventListener("message", onMessage);
    window.addEventListener("galtry-look", again);
    return () => {
      window.removeEventListener("message", onMessage);
      window.removeEventListener("galtry-look", again);
    };
  }, [again]);
  return { lanyard, again };
}

/** Longer than any sign-in takes, also one that waits for a steward. */
const LONGEST_MS = 240_000;

export const signInWithLanyard = (entryId: string, onProgress: OnProgress) =>
  askLanyard<SignInReport>("sign-in", { entryId }, LONGEST_MS, onProgress);
