/**
 * A password that its person changes by hand at the site: Lanyard opens the page, fills in the current one and a new one that
 * Galtry keeps before it is filled in, and asks whether the site has taken it.
 */
import { createdPassword } from "../../src/core/generator/createdPassword";
import { hostOf } from "../../src/core/signin/address";
import type { PageKind } from "../../src/core/signin/page";
import { matches } from "../../src/core/signin/site";
import type { KeyLine } from "../../src/server/lanyard/keys";
import { main as inPage } from "../page/strings";
import type { ChangePlace, ChangingView } from "../shared/messages";
import { ask, Refusal } from "./api";
import { refreshKeys } from "./connection";
import { isSignedIn, keyOf, signInTo, topFrame } from "./signIn";
import { memory, setMemory } from "./store";
import { changing as t } from "./strings";

const LONGEST_MS = 30 * 60_000;

async function changingIn(tabId: number | null) {
  const changing = await memory("changing");
  return changing !== null && changing.tabId === tabId && Date.now() - changing.at < LONGEST_MS ? changing : null;
}

const says = (error: unknown): string => (error instanceof Error ? error.message : t.notDone);

/** Opens the site in a tab of its own, signed in where that works. @returns what to say where it cannot be */
export async function changeByHand(entryId: string): Promise<{ message?: string }> {
  const key = await keyOf(entryId).catch(() => null);
  if (!key || key.signInPage === "") return { message: t.youHaveNoAccessToThis };
  const own = await isSignedIn(key);
  const landed = own ? null : (await signInTo(entryId, true, () => undefined)).tabId;
  await setMemory({ signing: null });
  const tabId = landed ?? (await chrome.tabs.create({ url: "about:blank" })).id!;
  await setMemory({ changing: { tabId, entryId, name: key.name, filled: false, documentId: null, at: Date.now() } });
  const page = key.changePage ?? (own || landed !== null ? await saidBySite(key) : null);
  // Where nothing is known its person goes on from where they are, or signs in themselves.
  const url = page ?? (own ? new URL("/", key.signInPage).href : key.signInPage);
  if (page !== null || landed === null) await chrome.tabs.update(tabId, { url });
  return {};
}

const WITHIN_MS = 4_000;

/**
 * W3C, A Well-Known URL for Changing Passwords; believed only where the site knows what it does not have (W3C, Detecting the
 * reliability of HTTP status codes).
 */
async function saidBySite(key: KeyLine): Promise<string | null> {
  const at = (path: string) => new URL(`/.well-known/${path}`, key.signInPage).href;
  const look = (address: string) => fetch(address, { credentials: "include", signal: AbortSignal.timeout(WITHIN_MS) });
  const page = at("change-password");
  try {
    const [found, nothing] = await Promise.all([
      look(page),
      look(at("resource-that-should-not-exist-whose-status-code-should-not-be-200")),
    ]);
    return found.ok && !nothing.ok && belongs(key, found.url) ? page : null;
  } catch {
    return null;
  }
}

const belongs = (key: Pick<KeyLine, "signInPage" | "reach" | "hosts">, url: string): boolean =>
  matches(key, url) || key.hosts.includes(hostOf(url) ?? "");

/** What the page of a tab shows of it. */
export async function changingView(
  tabId: number,
  documentId: string | undefined,
  { kind, saysWrong }: { kind: PageKind; saysWrong: boolean },
): Promise<ChangingView | null> {
  const changing = await changingIn(tabId);
  if (!changing) return null;
  const { name, filled } = changing;
  if (kind === "change-password") {
    const waits = changing.documentId === documentId && !saysWrong;
    return { name, state: !filled ? "asks-new" : waits ? "filled" : "asks-again" };
  }
  if (filled && !saysWrong) return { name, state: "sent" };
  return { name, state: kind === "password-only-step" ? "asks-current" : "looking" };
}

export async function changingHere(tabId: number | null): Promise<{ name: string; filled: boolean } | null> {
  const changing = await changingIn(tabId);
  return changing && { name: changing.name, filled: changing.filled };
}

type InPage = typeof globalThis & {
  lanyardChangePlace?: () => ChangePlace;
  lanyardFillChange?: (values: { current: string | null; fresh: string | null }) => string;
};

async function placeIn(tabId: number, documentId: string): Promise<ChangePlace | null> {
  const [result] = await chrome.scripting
    .executeScript({
      target: { tabId, documentIds: [documentId] },
      func: () => (globalThis as InPage).lanyardChangePlace?.() ?? null,
    })
    .catch(() => []);
  return (result?.result as ChangePlace | null | undefined) ?? null;
}

interface Both {
  current: string | null;
  fresh: string | null;
}

/** Looks, then asks, then types: nothing leaves Galtry for a page that has no place for it. */
export async function fillChange(tabId: number, another: boolean): Promise<{ wrong: string | null }> {
  try {
    const changing = await changingIn(tabId);
    if (!changing) throw new Refusal("conflict", t.notChangingAnyMore);
    const key = await keyOf(changing.entryId);
    const before = await topFrame(tabId);
    const place = await placeIn(tabId, before.documentId);
    if (!place || !(place.current || place.fresh)) throw new Refusal("not-allowed", t.nothingToFillIn);
    if (!belongs(key, before.url)) throw new Refusal("not-allowed", t.anotherSite(key.site));
    const { protocol } = new URL(before.url);
    if (place.target !== null && !belongs(key, `${protocol}//${place.target}/`))
      throw new Refusal("not-allowed", inPage.theFormOnThisPageSendsTo);
    const { current, fresh } = await ask<Both>("lanyard.fillChange", {
      ...{ entryId: key.id, page: before.url, how: "filled in", current: place.current },
      fresh: place.fresh ? { password: createdPassword(place.rules), another } : null,
    });
    const { documentId } = before;
    if (fresh !== null) await setMemory({ changing: { ...changing, filled: true, documentId, at: Date.now() } });
    if ((await topFrame(tabId)).documentId !== documentId) throw new Refusal("conflict", t.thePageHasChanged);
    const [result] = await chrome.scripting.executeScript({
      target: { tabId, documentIds: [documentId] },
      func: (values: Both) => (globalThis as InPage).lanyardFillChange?.(values) ?? "",
      args: [{ current, fresh }],
    });
    if (result?.result !== "filled") throw new Refusal("conflict", t.thePageHasChanged);
    return { wrong: null };
  } catch (error) {
    return { wrong: says(error) };
  }
}

/** For a page in which Lanyard finds no place: into the clipboard, by a press in Lanyard's window. */
export async function copyChange(
  which: "current" | "fresh",
  tabId: number | null,
): Promise<{ password: string } | { wrong: string }> {
  try {
    const changing = await changingIn(tabId);
    if (!changing) throw new Refusal("conflict", t.notChangingAnyMore);
    const { url, documentId } = await topFrame(changing.tabId);
    const rules = (await placeIn(changing.tabId, documentId))?.rules ?? "";
    const answer = await ask<Both>("lanyard.fillChange", {
      ...{ entryId: changing.entryId, page: url, how: "copied", current: which === "current" },
      fresh: which === "fresh" ? { password: createdPassword(rules), another: false } : null,
    });
    // Not sent yet: the page that asks for it is the one that it is pasted into.
    if (which === "fresh") await setMemory({ changing: { ...changing, filled: true, documentId, at: Date.now() } });
    return { password: answer[which]! };
  } catch (error) {
    return { wrong: says(error) };
  }
}

/** @param keep null: not decided here; where a new one waits, Galtry goes on asking */
export async function endChange(tabId: number | null, keep: "new" | "old" | null): Promise<{ wrong: string | null }> {
  const changing = await changingIn(tabId);
  if (!changing) return { wrong: t.notChangingAnyMore };
  try {
    if (keep !== null) await ask("signIn.decideChange", { entryId: changing.entryId, keep });
    await setMemory({ changing: null });
    if (keep !== null) await refreshKeys();
    return { wrong: null };
  } catch (error) {
    return { wrong: says(error) };
  }
}
