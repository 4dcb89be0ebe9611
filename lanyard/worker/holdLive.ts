/** Where the stream of changes is held, which the browser decides. */
import { hold } from "../live/hold";
import type { LiveAsk } from "../shared/messages";
import { disk } from "./store";
import { connection as t } from "./strings";

const LIVE_PAGE = "live.html";
/** A background page is put to sleep after 30 seconds in which it asked the browser nothing. */
const AWAKE_EVERY_MS = 20_000;

/** Answers what the stream asks, in this very place. */
type Answering = (message: LiveAsk) => Promise<unknown>;

/** Keeps the stream open in a document of its own, as the worker may end any time; without such documents, here. */
export async function holdLive(answering: Answering): Promise<void> {
  if ((await disk("connection")).state !== "connected") return;
  // Firefox has no such documents, and its background page may stay.
  if (chrome.offscreen === undefined) return holdHere(answering);
  const open = await chrome.runtime.getContexts({ contextTypes: ["OFFSCREEN_DOCUMENT" as chrome.runtime.ContextType] });
  if (open.length > 0) return;
  await chrome.offscreen
    .createDocument({
      url: LIVE_PAGE,
      reasons: ["WORKERS" as chrome.offscreen.Reason],
      justification: t.learnsAtOnceWhenAccessToA,
    })
    .catch(() => undefined);
}

let held: AbortController | null = null;

function holdHere(answering: Answering): void {
  if (held) return;
  const holding = new AbortController();
  held = holding;
  const awake = setInterval(() => void chrome.runtime.getPlatformInfo(), AWAKE_EVERY_MS);
  void hold(answering, holding.signal).finally(() => {
    clearInterval(awake);
    if (held === holding) held = null;
  });
}

export async function endLive(): Promise<void> {
  held?.abort();
  held = null;
  await chrome.offscreen?.closeDocument().catch(() => undefined);
}
