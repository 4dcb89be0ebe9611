/** Lanyard's state at its icon: connected or not, and how many keys fit the page. */
import { hostOf } from "../../src/core/signin/address";
import { matches } from "../../src/core/signin/site";
import type { KeyLine } from "../../src/server/lanyard/keys";
import { disk, memory } from "./store";
import { icon as t } from "./strings";

export async function keysFor(url: string): Promise<KeyLine[]> {
  const keys = await memory("keys");
  if (!keys || !/^https?:/.test(url)) return [];
  const found = keys.keys.filter((key) => key.offered && matches(key, url));
  // Of several hosts of one site, that of the page is most likely meant.
  const here = hostOf(url);
  const isHere = (key: KeyLine) => Number(hostOf(key.signInPage) === here);
  return found.sort(
    (a, b) => isHere(b) - isHere(a) || (b.lastUsedAt ?? 0) - (a.lastUsedAt ?? 0) || a.name.localeCompare(b.name),
  );
}

export async function showOnTab(tab: Pick<chrome.tabs.Tab, "id" | "url">): Promise<void> {
  if (tab.id === undefined) return;
  const [connection, reachable] = [await disk("connection"), await memory("reachable")];
  const ruledOut = (await memory("keys"))?.mayUse === false;
  const count = connection.state === "connected" && tab.url ? (await keysFor(tab.url)).length : 0;
  const asked = ((await memory("keys"))?.codesAsked ?? []).some(({ until }) => until > Date.now());
  const text =
    connection.state !== "connected" ? "" : !reachable ? "?" : asked ? t.code : count > 0 ? String(count) : "";
  const title =
    connection.state !== "connected"
      ? t.lanyardNotConnected
      : !reachable
        ? t.lanyardGaltryIsNotResponding
        : ruledOut
          ? t.lanyardTheHouseRulesSayNo
          : asked
            ? t.lanyardACodeIsNeeded
            : t.lanyardConnectedAs(connection.person, count > 0 ? t.forThisPage(count) : "");
  const kind = connection.state === "connected" ? "key" : "plain";
  await Promise.all([
    chrome.action.setBadgeText({ tabId: tab.id, text }),
    chrome.action.setBadgeBackgroundColor({ tabId: tab.id, color: asked ? "#8a4b1f" : "#22382e" }),
    chrome.action.setTitle({ tabId: tab.id, title }),
    chrome.action.setIcon({ tabId: tab.id, path: { 16: `icons/${kind}-16.png`, 32: `icons/${kind}-32.png` } }),
  ]).catch(() => undefined);
}

/** Every tab's icon, and word to pages and windows that something changed. */
export async function showEverywhere(): Promise<void> {
  const tabs = await chrome.tabs.query({});
  await Promise.all(tabs.map(showOnTab));
  for (const tab of tabs)
    if (tab.id !== undefined && /^https?:/.test(tab.url ?? ""))
      chrome.tabs.sendMessage(tab.id, { tell: "changed" }).catch(() => undefined);
  chrome.runtime.sendMessage({ tell: "changed" }).catch(() => undefined);
}
