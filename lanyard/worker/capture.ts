/** Keeping a login: seen as it is typed, offered once the site has accepted it. */

import { fromBase64 } from "../../src/core/crypto";
import { plainPage, siteName } from "../../src/core/signin/address";
import { keptAlready, userMarkOf } from "../../src/core/signin/keptAlready";
import { holdsAny } from "../../src/core/signin/learning";
import type { PageKind } from "../../src/core/signin/page";
import { isBelow, matches, siteOf } from "../../src/core/signin/site";
import type { Keys, Offer, TypedOn } from "../shared/messages";
import { ask, Refusal } from "./api";
import { refreshKeys } from "./connection";
import { nameFor } from "./nameFor";
import { plainAddress } from "./plainAddress";
import { policy } from "./policy";
import { type Captured, captured, disk, memory, setCaptured, setDisk } from "./store";
import { capture as t } from "./strings";

const site = (address: string) => siteOf(new URL(address).hostname);

/** User name on one page and password on the next are one login. */
export async function typed(
  tabId: number,
  page: string,
  title: string,
  userName: string,
  password: string,
  choices: Record<string, string>,
  on: TypedOn,
  inFrame = false,
): Promise<void> {
  const connection = await disk("connection");
  if (connection.state !== "connected" || new URL(page).origin === connection.address) return;
  const earlier = await captured(tabId);
  const same = earlier !== null && site(earlier.page) === site(page);
  // The page on which it began: a sign-in that starts from the second step fails later.
  const began = same && earlier.password === "" ? earlier : { page, title };
  await setCaptured(tabId, {
    page: began.page,
    title: began.title,
    userName: userName || (same ? earlier.userName : ""),
    password,
    choices: { ...(same ? earlier.choices : {}), ...choices },
    on,
    steps: same ? earlier.steps : [],
    inFrame,
    at: Date.now(),
    offered: false,
  });
}

/**
 * The next page: accepted, still on the way, or refused.
 * Of it, `again` is the same page looked at once more: what was typed there may not have left it yet.
 */
export async function arrived(
  tabId: number,
  url: string,
  { kind, again, saysWrong }: { kind: PageKind; again: boolean; saysWrong: boolean },
): Promise<Offer | null> {
  const login = await captured(tabId);
  if (!login || login.password === "" || !/^https?:/.test(url)) return null;
  if (site(url) !== site(login.page)) return null;
  if (kind === "one-time-code-step") return null;
  if (saysWrong || (login.on !== "sign-in" ? kind === login.on : ASKS_TO_SIGN_IN.has(kind))) {
    // Asked for anew: the site did not accept it.
    if (!again) await setCaptured(tabId, null);
    return null;
  }
  return offerFor(tabId);
}

/** A frame that asks again did not accept what was typed in it. */
export async function refusedInFrame(tabId: number): Promise<void> {
  if ((await captured(tabId))?.inFrame) await setCaptured(tabId, null);
}

const ASKS_TO_SIGN_IN: ReadonlySet<PageKind> = new Set<PageKind>(["sign-in", "password-only-step", "identifier-first"]);

async function offerFor(tabId: number): Promise<Offer | null> {
  const login = await captured(tabId);
  const keys = await memory("keys");
  if (!login || !keys) return null;
  if (keys.neverOn.includes(site(login.page)) || isBelow(login.page, keys.neverOnForAll)) {
    await setCaptured(tabId, null);
    return null;
  }
  const compared = login.on === "change-password" ? changedAt(keys, login) : await comparedWith(keys, login);
  const mayAdd = keys.mayAdd.length > 0 && (await policy()).offerToAdd;
  if (compared.answer === "kept" || (compared.answer === "new" && !mayAdd)) {
    await setCaptured(tabId, null);
    return null;
  }
  await setCaptured(tabId, { ...login, offered: true });
  return {
    answer: compared.answer,
    on: login.on,
    name: nameFor(login.page, login.title),
    site: siteName(login.page),
    userName: login.userName,
    vaults: await placesFirst(keys.mayAdd),
    entries: compared.answer === "changed" ? compared.entries : [],
  };
}

/** The place that was chosen last before the others. */
async function placesFirst(places: Keys["mayAdd"]): Promise<Keys["mayAdd"]> {
  const last = await disk("lastPlace");
  return [...places].sort((a, b) => Number(b.id === last) - Number(a.id === last));
}

type Compared = { answer: "kept" | "new" } | { answer: "changed"; entries: Offer["entries"] };

/**
 * A page that changes a password does not say whose: the person chooses which login it was. Nothing leaves the browser
 * before they do.
 */
function changedAt(keys: Keys, { page }: Captured): Compared {
  const entries = keys.keys
    .filter((key) => matches(key, page))
    .flatMap(({ id, name, versionId }) => (versionId === null ? [] : [{ id, name, versionId }]));
  return entries.length > 0 ? { answer: "changed", entries } : { answer: "kept" };
}

/**
 * Told from what Lanyard has. The password leaves this browser only to be compared with logins that its person may
 * Reveal, and whose site and user name are those that were typed; anything else waits until they say that it is added.
 */
async function comparedWith(keys: Keys, { page, userName, password }: Captured): Promise<Compared> {
  const kept = keptAlready(keys.keys, page, userMarkOf(fromBase64(keys.markKey), userName));
  if (kept.answer !== "compare") return kept;
  return ask<Compared>("lanyard.compareLogin", { entryIds: kept.ids.slice(0, 20), password }).catch((error) => {
    if (error instanceof Refusal) return { answer: "kept" as const };
    throw error;
  });
}

export async function keep(
  tabId: number,
  name: string,
  vaultId: string,
  userName: string,
  url: string,
): Promise<{ kept: true; entryId: string; steps: number } | { kept: false; message: string }> {
  const login = await captured(tabId);
  if (!login) return { kept: false, message: t.noLongerHeld };
  const lands = plainPage(url);
  const shown = holdsAny([login.userName, login.password, userName])(lands ?? "");
  try {
    const { entryId } = await ask<{ entryId: string }>("vaults.addEntry", {
      parentId: vaultId,
      captured: true,
      steps: { choices: login.choices, pages: login.steps, lands: shown ? null : lands },
      values: {
        name,
        signInPage: plainAddress(login.page),
        userName: userName || login.userName,
        password: login.password,
      },
    });
    await setDisk({ lastPlace: vaultId });
    await setCaptured(tabId, null);
    await refreshKeys();
    return { kept: true, entryId, steps: login.steps.length };
  } catch (error) {
    return { kept: false, message: error instanceof Error ? error.message : t.itWasNotSavedTryAgain };
  }
}

/** Into the bin, as its person would there; only what was added in this tab a moment ago. */
export async function undoAdd(entryId: string): Promise<{ wrong: string | null }> {
  try {
    await ask("vaults.undoAdd", { entryId });
    await refreshKeys();
    return { wrong: null };
  } catch (error) {
    return { wrong: error instanceof Error ? error.message : t.itWasNotSavedTryAgain };
  }
}

export async function update(
  tabId: number,
  entryId: string,
  versionId: string,
): Promise<{ kept: boolean; message: string }> {
  const login = await captured(tabId);
  if (!login) return { kept: false, message: t.noLongerHeld };
  try {
    const changePage = login.on === "change-password" ? plainAddress(login.page) : "";
    await ask("lanyard.updatePassword", { entryId, versionId, password: login.password, changePage });
    await setCaptured(tabId, null);
    return { kept: true, message: "" };
  } catch (error) {
    return { kept: false, message: error instanceof Error ? error.message : t.itWasNotSavedTryAgain };
  }
}

export async function never(tabId: number): Promise<void> {
  const login = await captured(tabId);
  await setCaptured(tabId, null);
  if (login) await ask("lanyard.neverOffer", { page: plainAddress(login.page) }).catch(() => undefined);
  await refreshKeys();
}
