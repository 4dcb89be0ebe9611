/** Steps learned from pages: kept with a login that is added, or for an entry whose sign-in Lanyard was asked to learn. */
import { hostOf, plainPage } from "../../src/core/signin/address";
import { holdsAny, withoutTyped } from "../../src/core/signin/learning";
import type { PageKind } from "../../src/core/signin/page";
import { matches } from "../../src/core/signin/site";
import type { PageStep } from "../../src/core/signin/steps";
import type { KeyLine } from "../../src/server/lanyard/keys";
import type { LearningView } from "../shared/messages";
import { ask, Refusal } from "./api";
import { refreshKeys } from "./connection";
import { forwardSends } from "./forwardSends";
import { keysFor } from "./icon";
import { plainAddress } from "./plainAddress";
import { captured, disk, memory, setCaptured, setMemory } from "./store";
import { learning as t } from "./strings";
import { withStep } from "./withStep";

const LONGEST_MS = 15 * 60_000;

async function typedIn(tabId: number): Promise<string[]> {
  const login = await captured(tabId);
  return login ? [login.userName, login.password] : [];
}

async function learningIn(tabId: number) {
  const learning = await memory("learning");
  return learning?.tabId === tabId && Date.now() - learning.at < LONGEST_MS ? learning : null;
}

/** A page has said what it did. */
export async function stepSeen(tabId: number, seen: PageStep): Promise<void> {
  const learning = await learningIn(tabId);
  // A later page may show what was typed into an earlier one.
  const step = withoutTyped(seen, await typedIn(tabId));
  if (!step || (step.enters.length === 0 && step.presses === null)) return;
  if (learning) return setMemory({ learning: { ...learning, steps: withStep(learning.steps, step) } });
  const login = await captured(tabId);
  // Beside a login that was typed; a press that enters nothing may be anything.
  if (login && step.enters.length > 0) await setCaptured(tabId, { ...login, steps: withStep(login.steps, step) });
}

/** What the page of a tab shows of it. A sign-in page again after the password: it was wrong, and none of it counts. */
export async function learningView(tabId: number, kind: PageKind, again: boolean): Promise<LearningView | null> {
  const learning = await learningIn(tabId);
  if (!learning) return null;
  const sent = learning.steps.some(({ enters }) => enters.some(({ what }) => what === "password"));
  if (sent && !again && (kind === "sign-in" || kind === "identifier-first")) {
    await setMemory({ learning: { ...learning, steps: [] } });
    return { name: learning.name, steps: 0, hosts: [] };
  }
  return { name: learning.name, steps: sent ? learning.steps.length : 0, hosts: otherHosts(learning, learning.steps) };
}

/** Hosts that the entry does not know of yet. */
function otherHosts(key: Pick<KeyLine, "signInPage" | "reach" | "hosts">, steps: readonly PageStep[]): string[] {
  const addresses = steps.flatMap(({ page, sends }) => [page, ...(sends ? [sends.to] : [])]);
  const hosts = addresses.filter((one) => !matches(key, one)).flatMap((one) => hostOf(one) ?? []);
  return [...new Set(hosts)].filter((host) => !key.hosts.includes(host));
}

/** Opens the sign-in page, to be signed in to by hand. @returns what to say where it cannot be */
export async function learn(entryId: string): Promise<{ message?: string }> {
  const key = (await memory("keys"))?.keys.find((one) => one.id === entryId);
  if (!key || key.signInPage === "") return { message: t.youHaveNoAccessToThis };
  const tab = await chrome.tabs.create({ url: "about:blank" });
  const { name, signInPage, reach, hosts } = key;
  await setMemory({ learning: { tabId: tab.id!, entryId, name, signInPage, reach, hosts, steps: [], at: Date.now() } });
  await chrome.tabs.update(tab.id!, { url: signInPage });
  return {};
}

/** @returns what went wrong; null once they are saved */
export async function saveSteps(tabId: number, url: string): Promise<string | null> {
  const learning = await learningIn(tabId);
  if (!learning) return t.notLearningAnyMore;
  try {
    const lands = plainPage(plainAddress(url));
    await ask("vaults.learnSteps", {
      entryId: learning.entryId,
      pages: learning.steps,
      lands: holdsAny(await typedIn(tabId))(lands ?? "") ? null : lands,
      choices: {},
      hosts: otherHosts(learning, learning.steps).slice(0, 10),
    });
    await setMemory({ learning: null });
    await refreshKeys();
    return null;
  } catch (error) {
    return error instanceof Refusal || error instanceof Error ? error.message : t.notSaved;
  }
}

export const stopLearning = (): Promise<void> => setMemory({ learning: null });

/**
 * Into a page that asks to sign in, beside its own scripts. Only where something is to be learned: scripts that look
 * after strangers could take it for one.
 */
export async function watchSends(
  tabId: number,
  documentId: string | undefined,
  url: string,
  channel: string,
): Promise<void> {
  if (documentId === undefined || (await disk("connection")).state !== "connected") return;
  if (!(await learningIn(tabId)) && !(await mayBeAdded(url))) return;
  await chrome.scripting
    .executeScript({
      target: { tabId, documentIds: [documentId] },
      world: "MAIN",
      injectImmediately: true,
      func: forwardSends,
      args: [channel],
    })
    .catch(() => undefined);
}

/** A login at a site of which the person has none yet, and may add one. */
async function mayBeAdded(url: string): Promise<boolean> {
  const keys = await memory("keys");
  if (!keys || keys.mayAdd.length === 0) return false;
  return (await keysFor(url)).length === 0;
}
