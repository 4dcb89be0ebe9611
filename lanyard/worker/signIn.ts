/** Signing in with a key: sealed, or by guarded fill where the steward allows it. */

import { hostOf } from "../../src/core/signin/address";
import type { OnProgress, Progress, WaitsFor } from "../../src/core/signin/outcome";
import { matches } from "../../src/core/signin/site";
import type { SignInReport } from "../../src/interface/shared/lanyard";
import type { KeyLine } from "../../src/server/lanyard/keys";
import type { SealedAnswer } from "../../src/server/signin/sealed";
import { main as inPage } from "../page/strings";
import type { Look, SigningIn } from "../shared/messages";
import { ask, connected, Refusal, send, Unreachable } from "./api";
import { ended } from "./connection";
import { foreignCookies, setCookies } from "./cookies";
import { mayStore, putStorage } from "./storage";
import { memory, setMemory } from "./store";
import { signIn as t } from "./strings";

export async function keyOf(entryId: string): Promise<KeyLine> {
  const key = (await memory("keys"))?.keys.find((one) => one.id === entryId);
  if (!key) throw new Refusal("not-found", t.youNoLongerHaveAccessToThis);
  return key;
}

async function show(signing: Omit<SigningIn, "at">): Promise<void> {
  await setMemory({ signing: { ...signing, at: Date.now() } });
  chrome.runtime.sendMessage({ tell: "changed" }).catch(() => undefined);
}

/**
 * One sealed sign-in: Galtry signs in, the cookies come here, the site opens in a tab.
 * @param replace the person has said that a session which is there already may be replaced
 * @param into the tab that it was begun in: it opens there
 */
export const signIn = async (
  entryId: string,
  replace: boolean,
  onProgress: OnProgress,
  into: number | null = null,
): Promise<SignInReport> => (await signInTo(entryId, replace, onProgress, into)).report;

interface Opened {
  report: SignInReport;
  /** Where the site is open; null where it is not. */
  tabId: number | null;
}

/** The same, and where it has opened. */
export async function signInTo(
  entryId: string,
  replace: boolean,
  onProgress: OnProgress,
  into: number | null = null,
): Promise<Opened> {
  try {
    const key = await keyOf(entryId);
    const signing: Omit<SigningIn, "at"> = {
      entryId,
      name: key.name,
      site: key.site,
      steps: [],
      waitsFor: null,
      report: null,
      asking: false,
    };
    if (!replace && (await isSignedIn(key))) {
      await show({ ...signing, asking: true });
      return { report: { outcome: "asked-first" }, tabId: null };
    }
    await show(signing);
    const answer = await stream(entryId, (progress, waitsFor) => {
      if (!signing.steps.includes(progress)) signing.steps.push(progress);
      signing.waitsFor = waitsFor ? { names: waitsFor.names, until: Date.now() + waitsFor.leftMs } : null;
      onProgress(progress, waitsFor);
      void show(signing);
    });
    const opened = await finish(answer, key, into);
    await show({ ...signing, report: opened.report });
    return opened;
  } catch (error) {
    const report = await asReport(error);
    const signing = await memory("signing");
    if (signing) await show({ ...signing, report });
    return { report, tabId: null };
  }
}

/** With a session of the person's own, as far as can be told. */
export const isSignedIn = async (key: KeyLine): Promise<boolean> =>
  (await foreignCookies(key)) > 0 && !(await showsSignIn(key));

/** A page of the site that is open asks to sign in: what cookies there are of it hold no session. */
async function showsSignIn(key: KeyLine): Promise<boolean> {
  const open = await chrome.tabs.query({ url: ["http://*/*", "https://*/*"], discarded: false });
  const tabs = open.filter((tab) => matches(key, tab.url ?? ""));
  const kindIn = async ({ id }: chrome.tabs.Tab) => {
    const frame = id === undefined ? null : await chrome.webNavigation.getFrame({ tabId: id, frameId: 0 });
    return frame ? (await lookIn(id!, frame.documentId, key))?.kind : undefined;
  };
  // A page that is asleep answers late or never: nobody waits for it.
  const late = new Promise<[]>((done) => setTimeout(() => done([]), LONGEST_LOOK_MS));
  const kinds = await Promise.race([Promise.all(tabs.slice(0, 5).map(kindIn)), late]).catch(() => []);
  // One that is signed in counts more than another that stands open since before.
  return kinds.length > 0 && kinds.every((kind) => kind !== undefined && IN_PAGE.includes(kind));
}

const LONGEST_LOOK_MS = 1_000;

async function asReport(error: unknown): Promise<SignInReport> {
  if (error instanceof Refusal) {
    if (error.data.ended) await ended(error.data);
    return { outcome: "refused", message: error.message };
  }
  if (error instanceof Unreachable) return { outcome: "refused", message: t.galtryIsNotRespondingYouCannot };
  console.error(error instanceof Error ? error.stack : error);
  return { outcome: "refused", message: t.somethingWentWrongInLanyard };
}

/** Reads progress and the answer, line by line. */
async function stream(entryId: string, onProgress: OnProgress): Promise<SealedAnswer> {
  const { address, token } = await connected();
  const response = await send(address, "sign-in", { entryId }, token);
  if (!response.ok || !response.body) {
    const refused = (
      (await response.json().catch(() => null)) as {
        refused?: { code: string; message: string; data?: Record<string, unknown> };
      } | null
    )?.refused;
    throw new Refusal(refused?.code ?? "conflict", refused?.message ?? t.galtryCouldNotDoThisTryAgain, refused?.data);
  }
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let rest = "";
  for (;;) {
    const { done, value } = await reader.read();
    rest += value ?? "";
    const lines = rest.split("\n");
    rest = lines.pop() ?? "";
    for (const line of lines) {
      const said = JSON.parse(line) as {
        progress?: Progress;
        waitsFor?: WaitsFor;
        answer?: SealedAnswer;
        refused?: { code: string; message: string };
      };
      if (said.progress) onProgress(said.progress, said.waitsFor);
      if (said.refused) throw new Refusal(said.refused.code, said.refused.message);
      if (said.answer) return said.answer;
    }
    if (done) throw new Unreachable(t.galtryWasInterruptedTryAgain);
  }
}

async function finish(answer: SealedAnswer, key: KeyLine, into: number | null): Promise<Opened> {
  const refused = (message: string): Opened => ({ report: { outcome: "refused", message }, tabId: null });
  if (answer.outcome !== "signed-in") {
    const { outcome, detail, guardedFill } = answer;
    return { report: { outcome, detail, guardedFill }, tabId: null };
  }
  const { address } = await connected();
  const set = await setCookies(answer.cookies, key, address, answer.signInId);
  const stored = answer.storage.filter(({ origin }) => mayStore(origin, key, address));
  if (set === 0 && stored.length === 0) return refused(t.theSitesCookiesAreNotForThis);
  const fits = matches(key, answer.landing) || key.hosts.includes(hostOf(answer.landing) ?? "");
  const landing = fits ? answer.landing : new URL("/", key.signInPage).href;
  // Before the site's own scripts run: they read it as soon as they begin.
  const staged = stored[0] ? await putStorage(stored[0], key, answer.signInId) : null;
  if (stored.length > 0 && staged === null && set === 0) return refused(t.theSiteLetsNothingBeStored);
  const here = staged ?? into;
  const tab =
    here === null
      ? await chrome.tabs.create({ url: landing })
      : ((await chrome.tabs.update(here, { url: landing, active: true })) ?? { id: here });
  if (tab.id !== undefined)
    await setMemory({
      landings: { ...(await memory("landings")), [tab.id]: { signInId: answer.signInId, entryId: key.id } },
    });
  return { report: { outcome: "signed-in" }, tabId: tab.id ?? null };
}

/** So long after the user name the page that asks for the password belongs to the same press. */
const NEXT_STEP_MS = 60_000;

/** After landing: does the site know the person? A sign-in page again means that it does not. */
export async function landed(tabId: number, kind: string, again: boolean): Promise<void> {
  // The page that was filled may be looked at once more before it has sent anything.
  if (again) return;
  const { [tabId]: landing, ...rest } = await memory("landings");
  if (!landing) return;
  await setMemory({ landings: rest });
  // The user name was taken: the password goes into the page that asks for it.
  if (landing.signInId === null) {
    const soon = Date.now() - (landing.at ?? 0) < NEXT_STEP_MS;
    if (soon && (kind === "password-only-step" || kind === "sign-in"))
      await guardedFill(landing.entryId, tabId, landing.onOpening);
    return;
  }
  const signedIn = !["sign-in", "identifier-first", "password-only-step"].includes(kind);
  await ask("signIn.reportLanding", { signInId: landing.signInId, signedIn }).catch(() => undefined);
  if (signedIn || landing.filled) return;
  const key = await keyOf(landing.entryId).catch(() => null);
  if (key)
    await show({
      entryId: key.id,
      name: key.name,
      site: key.site,
      steps: [],
      waitsFor: null,
      asking: false,
      report: { outcome: "tied-to-address", guardedFill: key.guardedFill },
    });
}

interface Filling {
  /** Null while only the user name has been asked for. */
  signInId: string | null;
  /** Otherwise the person sends the form. */
  send: boolean;
  userName: string;
  password: string | null;
  code: string | null;
  hosts: string[];
}

const IN_PAGE = ["sign-in", "identifier-first", "password-only-step"];

/** What the page of a tab is, before anything is sent to it. @throws Refusal where a fill would find nothing, or go elsewhere */
async function lookAt(tabId: number, documentId: string, key: KeyLine): Promise<Look & { documentId: string }> {
  const look = await lookIn(tabId, documentId, key);
  if (!look) throw new Refusal("conflict", t.lanyardIsNotReadyOnThisPage);
  if (look.kind === "unsure") throw new Refusal("not-allowed", inPage.lanyardIsNotSure);
  if (!IN_PAGE.includes(look.kind)) throw new Refusal("not-allowed", inPage.thisPageShowsNoSignInThat);
  if (look.target !== null && look.target !== hostOf(key.signInPage) && !key.hosts.includes(look.target))
    throw new Refusal("not-allowed", inPage.theFormOnThisPageSendsTo);
  return look;
}

/** The page, or where it shows no sign-in the frame of the very same host that does. */
async function lookIn(
  tabId: number,
  documentId: string,
  key: KeyLine,
): Promise<(Look & { documentId: string }) | null> {
  const host = hostOf(key.signInPage);
  const frames = (await chrome.webNavigation.getAllFrames({ tabId }).catch(() => null)) ?? [];
  const inside = frames.filter((frame) => frame.documentId !== documentId && hostOf(frame.url) === host);
  let first: (Look & { documentId: string }) | null = null;
  for (const id of [documentId, ...inside.slice(0, 5).map((frame) => frame.documentId)]) {
    const [result] = await chrome.scripting
      .executeScript({
        target: { tabId, documentIds: [id] },
        func: () => (globalThis as typeof globalThis & { lanyardLook?: () => Look }).lanyardLook?.() ?? null,
      })
      .catch(() => []);
    const look = result?.result as Look | null | undefined;
    if (!look) continue;
    if (IN_PAGE.includes(look.kind)) return { ...look, documentId: id };
    first ??= { ...look, documentId: id };
  }
  return first;
}

/**
 * Types user name, password and code into the page of one tab at the last moment. Page and document are taken
 * from the browser, never from a message, and checked again before typing.
 */
export async function guardedFill(entryId: string, tabId: number, onOpening = false): Promise<SignInReport> {
  try {
    const key = await keyOf(entryId);
    const before = await topFrame(tabId);
    if (hostOf(before.url) !== hostOf(key.signInPage))
      throw new Refusal("not-allowed", t.guardedFillTypesOnlyAtOpenThat(hostOf(key.signInPage)));
    const look = await lookAt(tabId, before.documentId, key);
    const part = look.kind === "identifier-first" ? "user-name" : "all";
    const filling = await ask<Filling>("lanyard.guardedFill", { entryId, page: before.url, part, onOpening });
    const now = await topFrame(tabId);
    if (now.documentId !== before.documentId || hostOf(now.url) !== hostOf(key.signInPage))
      throw new Refusal("conflict", t.thePageHasChangedLanyardTyped);
    // Whether the site took it, its next page tells.
    if (filling.send)
      await setMemory({
        landings: {
          ...(await memory("landings")),
          [tabId]: { signInId: filling.signInId, entryId, filled: true, onOpening, at: Date.now() },
        },
      });
    const [result] = await chrome.scripting.executeScript({
      target: { tabId, documentIds: [look.documentId] },
      // Within the page nothing of the worker is known: what it may say comes along.
      func: (values: Filling, notReady: string) =>
        (globalThis as typeof globalThis & { lanyardFill?: (values: Filling) => Promise<string> }).lanyardFill?.(
          values,
        ) ?? notReady,
      args: [filling, t.lanyardIsNotReadyOnThisPage],
    });
    // A page that was sent and left before it could answer was filled in.
    if (typeof result?.result === "string" && result.result !== "filled") {
      const { [tabId]: _, ...rest } = await memory("landings");
      await setMemory({ landings: rest });
      throw new Refusal("not-allowed", result.result);
    }
    return { outcome: "signed-in" };
  } catch (error) {
    return asReport(error);
  }
}

export async function topFrame(tabId: number): Promise<{ url: string; documentId: string }> {
  const frame = await chrome.webNavigation.getFrame({ tabId, frameId: 0 });
  if (!frame) throw new Refusal("conflict", t.thePageIsClosed);
  return { url: frame.url, documentId: frame.documentId };
}
