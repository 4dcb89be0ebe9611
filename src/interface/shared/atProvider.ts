import { type Answer, post } from "./ask";

/** What a page tells another of this browser that it came back from a provider. */
const CHANNEL = "galtry-provider";

export type Purpose = "sign-in" | "test" | "link" | "join" | "prove";

/** Begins something at a provider; gives where the browser goes. */
export const beginAtProvider = (
  providerId: string,
  begin: { purpose: Purpose; next?: string; token?: string },
): Promise<Answer<{ address: string }>> => post(`/sso/${providerId}/begin`, begin);

/** Says in the window of its own that it is back, and closes it. */
export function sayBack(what: "proved" | "tested"): void {
  const channel = new BroadcastChannel(CHANNEL);
  channel.postMessage(what);
  channel.close();
  setTimeout(() => window.close(), 50);
}

/**
 * At the provider in a window of its own, so that nothing of this page is lost.
 * @returns null once it is back, or what stood in the way
 */
export async function inOwnWindow(
  providerId: string,
  purpose: "prove" | "test",
  says: { blocked: string; closed: string },
): Promise<string | null> {
  // Opened at once, while the press still counts as one.
  const opened = window.open("about:blank", "_blank", "width=520,height=680");
  if (!opened) return says.blocked;
  const answer = await beginAtProvider(providerId, { purpose });
  if (!answer.ok) {
    opened.close();
    return answer.refused.message;
  }
  const channel = new BroadcastChannel(CHANNEL);
  const wanted = purpose === "prove" ? "proved" : "tested";
  return new Promise((resolve) => {
    const end = (said: string | null) => {
      clearInterval(looking);
      channel.close();
      resolve(said);
    };
    channel.onmessage = ({ data }) => data === wanted && end(null);
    let gone = 0;
    // A window that went to another site may say that it is closed while it is not: only for good counts.
    const looking = setInterval(() => {
      gone = opened.closed ? gone + 1 : 0;
      if (gone > 240) end(says.closed);
    }, 500);
    opened.location.href = answer.result.address;
  });
}
