/** The canary rule: a planted secret must be in nothing that a colleague's browser received, in any encoding. */
import { carriesSecret, tracesOf } from "../src/core/signin/carries";
import type { Browser } from "./browser";

/** Everything the browser got from Galtry or keeps for it: answers, storage of Lanyard, cookies, the DOM. */
export async function everythingReceived(browser: Browser): Promise<string[]> {
  const worker = await browser.worker();
  const storage = await worker.evaluate(async () =>
    JSON.stringify([await chrome.storage.local.get(null), await chrome.storage.session.get(null)]),
  );
  const cookies = JSON.stringify(await browser.context.cookies());
  const pages = await Promise.all(
    browser.context
      .pages()
      .map((page) =>
        page
          .evaluate(
            () =>
              document.documentElement.outerHTML +
              JSON.stringify({ ...localStorage }) +
              JSON.stringify({ ...sessionStorage }),
          )
          .catch(() => ""),
      ),
  );
  return [...browser.received, storage, cookies, ...pages];
}

/** Which of the texts hold the secret in any of the forms; their beginnings, for the message. */
export async function sightingsOf(secret: string, texts: readonly string[]): Promise<string[]> {
  const traces = tracesOf(secret, "");
  return texts.filter((text) => carriesSecret([text], traces)).map((text) => text.slice(0, 200));
}
