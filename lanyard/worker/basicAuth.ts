/**
 * Sites that ask in the browser's own window (HTTP Basic and Digest, RFC 7617 and RFC 7616): where the entry's steward
 * allows guarded fill, Lanyard answers in the person's place, once, in a tab that it opened for it.
 */
import { hostOf } from "../../src/core/signin/address";
import type { SignInReport } from "../../src/interface/shared/lanyard";
import type { KeyLine } from "../../src/server/lanyard/keys";
import { ask, Refusal } from "./api";
import { memory, setMemory } from "./store";
import { basicAuth as t } from "./strings";

interface Waiting {
  key: KeyLine;
  /** The request that was answered: the same asks again where the site rejected it. */
  answered: string | null;
  over: (report: SignInReport) => void;
}

/** By tab; a worker that ended meanwhile answers nothing, and the browser's own window asks the person. */
const waiting = new Map<number, Waiting>();
const LONGEST_MS = 20_000;

const isAsked = (scheme: string): boolean => /^(basic|digest)$/i.test(scheme);

/** The host that asks is the entry's own, and the page's. */
function isOfEntry({ url, challenger, isProxy }: chrome.webRequest.OnAuthRequiredDetails, key: KeyLine): boolean {
  const host = hostOf(key.signInPage);
  const asks = new URL(url);
  const port = asks.port === "" ? (asks.protocol === "https:" ? 443 : 80) : Number(asks.port);
  return !isProxy && hostOf(url) === host && challenger.host === asks.hostname && challenger.port === port;
}

/** Registered as the worker starts: the browser asks whoever listened before. */
export function listenForBasicAuth(): void {
  chrome.webRequest.onAuthRequired.addListener(
    (details, answer) => {
      const one = waiting.get(details.tabId);
      if (!one || details.frameId !== 0 || !isAsked(details.scheme) || !isOfEntry(details, one.key)) {
        answer?.({});
        return undefined;
      }
      void give(details, one).then((given) => answer?.(given));
      return undefined;
    },
    { urls: ["http://*/*", "https://*/*"], types: ["main_frame"] },
    ["asyncBlocking"],
  );
  chrome.webRequest.onCompleted.addListener(
    ({ tabId, statusCode, requestId }) => {
      const one = waiting.get(tabId);
      if (!one || one.answered !== requestId) return;
      waiting.delete(tabId);
      one.over(statusCode === 401 ? { outcome: "refused", message: t.theSiteRejectedThem } : { outcome: "signed-in" });
    },
    { urls: ["http://*/*", "https://*/*"], types: ["main_frame"] },
  );
}

async function give(
  { url, requestId, tabId }: chrome.webRequest.OnAuthRequiredDetails,
  one: Waiting,
): Promise<chrome.webRequest.BlockingResponse> {
  // Asked again for the same page: they were rejected. What comes next is the site's own answer.
  if (one.answered !== null) return { cancel: true };
  one.answered = requestId;
  try {
    const { signInId, userName, password } = await ask<{
      signInId: string | null;
      userName: string;
      password: string | null;
    }>("lanyard.guardedFill", { entryId: one.key.id, page: url, part: "all" });
    await setMemory({
      landings: {
        ...(await memory("landings")),
        [tabId]: { signInId, entryId: one.key.id, filled: true, at: Date.now() },
      },
    });
    return { authCredentials: { username: userName, password: password ?? "" } };
  } catch (error) {
    waiting.delete(tabId);
    one.over({ outcome: "refused", message: error instanceof Refusal ? error.message : t.galtryDidNotAnswer });
    return { cancel: true };
  }
}

/** Opens the page of an entry and answers in its place once. */
export async function answerBasic(entryId: string): Promise<SignInReport> {
  const key = (await memory("keys"))?.keys.find((one) => one.id === entryId);
  if (!key?.guardedFill) return { outcome: "refused", message: t.guardedFillIsOff };
  const tab = await chrome.tabs.create({ url: "about:blank" });
  const { id } = tab;
  if (id === undefined) return { outcome: "refused", message: t.galtryDidNotAnswer };
  return new Promise((done) => {
    const timer = setTimeout(() => over({ outcome: "refused", message: t.theSiteDidNotAsk }), LONGEST_MS);
    const over = (report: SignInReport) => {
      clearTimeout(timer);
      waiting.delete(id);
      done(report);
    };
    waiting.set(id, { key, answered: null, over });
    void chrome.tabs.update(id, { url: key.signInPage });
  });
}
