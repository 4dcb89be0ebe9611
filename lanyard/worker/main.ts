/** The worker: hears pages, Galtry's page, Lanyard's window and the stream, and answers. */
import { hostOf } from "../../src/core/signin/address";
import { FAILURES, PROGRESS, type Progress, sayWaitingFor, type WaitsFor } from "../../src/core/signin/outcome";
import type { PageKind } from "../../src/core/signin/page";
import { siteOf } from "../../src/core/signin/site";
import type { SignInReport } from "../../src/interface/shared/lanyard";
import type { KeyLine } from "../../src/server/lanyard/keys";
import type { Found, GaltryAsk, HereReport, LiveAsk, PageAsk, View, WindowAsk } from "../shared/messages";
import { ask as call } from "./api";
import { answerBasic, listenForBasicAuth } from "./basicAuth";
import { arrived, keep, never, refusedInFrame, typed, undoAdd, update } from "./capture";
import { changeByHand, changingHere, changingView, copyChange, endChange, fillChange } from "./changing";
import {
  connect,
  connectionView,
  disconnect,
  ended,
  presentCode,
  refreshKeys,
  refreshOld,
  takeToken,
  testConnection,
} from "./connection";
import { fonts } from "./fonts";
import { entriesForForm, putIntoForm } from "./forms";
import { holdLive } from "./holdLive";
import { keysFor, showEverywhere, showOnTab } from "./icon";
import { learn, learningView, saveSteps, stepSeen, stopLearning, watchSends } from "./learning";
import { lookAlike } from "./lookAlike";
import { createHere, fillNewPassword, newPasswordPlace } from "./newPassword";
import { plainAddress } from "./plainAddress";
import { policy } from "./policy";
import { guardedFill, landed, signIn } from "./signIn";
import { captured, disk, memory, setCaptured, setDisk, setMemory, shutOutPages } from "./store";
import { signIn as inWorker, main as t } from "./strings";

const ready = shutOutPages();

/** `chrome-extension:` or `moz-extension:`, as the browser has it. */
const OWN_ORIGIN = chrome.runtime.getURL("").replace(/\/$/, "");

const MENU = "logins-for-this-page";

/** By the key combination: the one login that may be filled in here, or Lanyard's window to choose and to say why not. */
async function fillOrAsk(tabId: number, url: string): Promise<void> {
  await ready;
  const host = hostOf(url);
  const fitting = (await keysFor(url)).filter((key) => key.guardedFill && hostOf(key.signInPage) === host);
  const [only] = fitting;
  if (!only || fitting.length > 1) return openWindow(tabId);
  const report = await guardedFill(only.id, tabId);
  if (report.outcome !== "signed-in") await openWindow(tabId);
}

listenForBasicAuth();

chrome.runtime.onInstalled.addListener(() => {
  void begin();
  chrome.contextMenus.create({ id: MENU, title: t.loginsForThisPage, contexts: ["editable"] });
});
chrome.contextMenus.onClicked.addListener(({ menuItemId }, tab) => {
  if (menuItemId === MENU && tab?.id !== undefined) void openWindow(tab.id);
});
chrome.commands.onCommand.addListener((command, tab) => {
  if (command === "fill" && tab?.id !== undefined) void fillOrAsk(tab.id, tab.url ?? "");
});
chrome.runtime.onStartup.addListener(() => void begin());
chrome.tabs.onUpdated.addListener(
  (_id, change, tab) => void (change.url || change.status ? showOnTab(tab) : undefined),
);
chrome.tabs.onActivated.addListener(
  ({ tabId }) =>
    void chrome.tabs
      .get(tabId)
      .then(showOnTab)
      .catch(() => undefined),
);
chrome.tabs.onRemoved.addListener((tabId) => void setCaptured(tabId, null));
chrome.alarms.onAlarm.addListener((alarm) => {
  if (alarm.name.startsWith("captured-")) void captured(Number(alarm.name.slice(9)));
  else if (alarm.name === "look") void begin();
});

/** Also after the worker or the browser has started again. */
async function begin(): Promise<void> {
  await ready;
  await chrome.alarms.create("look", { periodInMinutes: 1 });
  await holdLive(fromLive);
  await refreshOld();
  await showEverywhere();
}
void begin();

type Answer = (value: unknown) => void;

chrome.runtime.onMessage.addListener((message: unknown, sender, answer: Answer) => {
  if (typeof message !== "object" || message === null || !("ask" in message)) return false;
  void ready.then(() => route(message as { ask: string; from?: string }, sender)).then(answer, () => answer(null));
  return true;
});

/** Who asks is taken from the browser, never from the message. */
async function route(message: { ask: string; from?: string }, sender: chrome.runtime.MessageSender): Promise<unknown> {
  const own = sender.id === chrome.runtime.id && sender.origin === OWN_ORIGIN;
  if (own && message.ask.startsWith("live-")) return fromLive(message as LiveAsk);
  if (own) return fromWindow(message as WindowAsk);
  if (sender.id !== chrome.runtime.id || sender.tab?.id === undefined) return null;
  if (sender.frameId !== 0) return fromFrame(message as PageAsk, sender);
  if (message.from === "galtry") return fromGaltry(message as unknown as GaltryAsk, sender);
  const { id } = sender.tab;
  const asked = message as PageAsk;
  if (asked.ask === "watch-sends") return watchSends(id, sender.documentId, sender.url ?? "", asked.channel);
  if (asked.ask === "fonts") return fonts();
  if (asked.ask === "sign-in-here" || asked.ask === "fill-here") return here(asked, id);
  return inTurn(id, () => fromPage(asked, id, sender.url ?? "", sender.documentId));
}

/** A frame of the page's own site: what is typed there is typed at the page. Frames of others say nothing. */
function fromFrame(message: PageAsk, { tab, url, documentId }: chrome.runtime.MessageSender): unknown {
  const page = tab?.url ?? "";
  if (message.ask === "frame-asks" && tab?.id !== undefined) return refusedInFrame(tab.id);
  if (tab?.id !== undefined && isOfSite(url ?? "", page)) {
    if (message.ask === "watch-sends") return watchSends(tab.id, documentId, page, message.channel);
    if (message.ask === "step") return inTurn(tab.id, () => stepSeen(tab.id!, message.step));
  }
  if (message.ask !== "typed" || tab?.id === undefined || !isOfSite(url ?? "", page)) return null;
  const { id, title } = tab;
  const { userName, password, choices, on } = message;
  return inTurn(id, () => typed(id, page, title ?? message.title, userName, password, choices, on, true));
}

function isOfSite(frame: string, page: string): boolean {
  if (!/^https?:/.test(frame) || !/^https?:/.test(page)) return false;
  return (
    new URL(frame).protocol === new URL(page).protocol &&
    siteOf(new URL(frame).hostname) === siteOf(new URL(page).hostname)
  );
}

const turns = new Map<number, Promise<unknown>>();

/** One after the other for each tab: what was typed is kept before the next page asks what to offer. */
function inTurn<T>(tabId: number, work: () => Promise<T>): Promise<T> {
  const turn = (turns.get(tabId) ?? Promise.resolve()).then(work);
  turns.set(
    tabId,
    turn.catch(() => undefined),
  );
  return turn;
}

async function fromPage(
  message: PageAsk,
  tabId: number,
  url: string,
  documentId: string | undefined,
): Promise<unknown> {
  switch (message.ask) {
    case "arrived": {
      await setMemory({ galtryPages: { ...(await memory("galtryPages")), [tabId]: message.galtry ?? "" } });
      await landed(tabId, message.kind, message.again);
      const forPage = (await keysFor(url)).map((key) => fitting(key, url));
      const learning = await learningView(tabId, message.kind, message.again);
      // What is typed to be learned is no login to add.
      const { atFields } = await disk("choices");
      if (!learning && !message.again) await fillOnOpening(tabId, url, message.kind);
      const mayCreate = ((await memory("keys"))?.mayAdd.length ?? 0) > 0;
      const changing = learning ? null : await changingView(tabId, documentId, message);
      const offer = learning ? null : await arrived(tabId, url, message);
      return { forPage, atFields, mayCreate, learning, changing, offer };
    }
    case "typed":
      return typed(tabId, url, message.title, message.userName, message.password, message.choices, message.on);
    case "keep":
      return keep(tabId, message.name, message.vaultId, message.userName, url);
    case "undo-add":
      return undoAdd(message.entryId);
    case "open-entry": {
      const { address } = await disk("connection");
      return address ? chrome.tabs.create({ url: new URL(`/entry/${message.entryId}`, address).href }) : null;
    }
    case "step":
      return stepSeen(tabId, message.step);
    case "save-steps":
      return { wrong: await saveSteps(tabId, url) };
    case "stop-learning":
      return stopLearning();
    case "fill-change":
      return fillChange(tabId, message.another);
    case "end-change":
      return endChange(tabId, message.keep);
    case "update":
      return update(tabId, message.entryId, message.versionId);
    case "not-now":
      return setCaptured(tabId, null);
    case "never":
      return never(tabId);
    case "open-window":
      await setMemory({ chosen: message.entryId });
      return openWindow(tabId);
    case "create-here":
      return createHere(tabId);
    case "sign-in-here":
    case "fill-here":
    case "fonts":
    case "watch-sends":
    case "frame-asks":
      return null;
  }
}

/** So soon after it was filled in, a page that asks again has rejected it: what comes next is the person's. */
const ASKS_AGAIN_MS = 120_000;

/** Where the house rules allow it and the person has chosen so: the one login of this very host, once. */
async function fillOnOpening(tabId: number, url: string, kind: PageKind): Promise<void> {
  if (!["sign-in", "identifier-first"].includes(kind) || !(await memory("keys"))?.fillsOnOpening) return;
  const { onOpening } = await disk("choices");
  const chosen = (await keysFor(url)).filter((key) => onOpening.includes(key.id) && fitting(key, url).fills);
  const [key] = chosen;
  const opened = await memory("opened");
  if (!key || chosen.length > 1 || Date.now() - (opened[key.id] ?? 0) < ASKS_AGAIN_MS) return;
  await setMemory({ opened: { ...opened, [key.id]: Date.now() } });
  await guardedFill(key.id, tabId, true);
}

const fitting = ({ id, name, description, guardedFill, signInPage }: KeyLine, url: string) => ({
  ...{ id, name, description },
  fills: guardedFill && hostOf(signInPage) === hostOf(url),
});

/** A press at a page's field: only for a login that fits the page which the browser says is there. */
async function here(
  { ask, entryId }: { ask: "sign-in-here" | "fill-here"; entryId: string },
  tabId: number,
): Promise<HereReport> {
  const url = (await chrome.tabs.get(tabId)).url ?? "";
  const key = (await keysFor(url)).find(({ id }) => id === entryId);
  if (!key) return hereReport({ outcome: "refused", message: inWorker.youNoLongerHaveAccessToThis }, "", false);
  const report =
    ask === "fill-here"
      ? await guardedFill(entryId, tabId)
      : await signIn(
          entryId,
          false,
          (progress, waitsFor) =>
            void chrome.tabs
              .sendMessage(tabId, { tell: "here", says: progressSays(progress, waitsFor) }, { frameId: 0 })
              .catch(() => undefined),
          tabId,
        );
  if (report.outcome === "asked-first") await openWindow(tabId);
  else await setMemory({ signing: null });
  return hereReport(report, key.name, fitting(key, url).fills);
}

const progressSays = (progress: Progress, waitsFor?: WaitsFor): string =>
  waitsFor ? sayWaitingFor(waitsFor) : PROGRESS[progress];

/** In words: the page's script has none of them. */
function hereReport({ outcome, message, guardedFill: may }: SignInReport, name: string, fills: boolean): HereReport {
  if (outcome === "signed-in") return { outcome, title: "", says: "", fills: false };
  if (outcome === "asked-first")
    return { outcome, title: t.youAreSignedInHere, says: t.lanyardsWindowAsks, fills: false };
  if (outcome === "refused") return { outcome, title: t.notSignedIn, says: message ?? "", fills: false };
  const { title, says, next } = FAILURES[outcome];
  return { outcome, title: `${name} ${title}`, says, fills: fills && may !== false && next === "guarded-fill" };
}

/** Lanyard's own window: no page can draw over it. */
async function openWindow(tabId: number): Promise<void> {
  try {
    await chrome.action.openPopup();
  } catch {
    await chrome.windows.create({ url: `popup.html?tab=${tabId}`, type: "popup", width: 404, height: 620 });
  }
}

/** Only the Galtry that this Lanyard is connected to, or that asks to be connected to. */
async function fromGaltry(message: GaltryAsk, sender: chrome.runtime.MessageSender): Promise<unknown> {
  const connection = await disk("connection");
  const version = chrome.runtime.getManifest().version;
  const origin = sender.origin ?? "";
  const isOurs = connection.state === "connected" && connection.address === origin;
  switch (message.ask) {
    case "state":
      if (isOurs)
        return {
          state: "connected",
          version,
          person: connection.person,
          personId: connection.personId,
          address: connection.address,
        };
      return { state: "unconnected", version };
    case "present-code": {
      if (connection.state === "connected" || (await memory("galtryPages"))[sender.tab!.id!] !== origin)
        return { code: null };
      const code = await presentCode(origin);
      // Not agreed to yet: Lanyard's own window asks, where no page can draw over it.
      if (code === null && (message as { first?: boolean }).first) await openWindow(sender.tab!.id!);
      return { code };
    }
    case "confirmed":
      return { connected: connection.state !== "none" && connection.address === origin ? await connectedNow() : false };
    case "test":
      return isOurs ? testConnection() : { reached: false, version, person: null, mayCookies: true };
    case "learn":
      return isOurs ? learn(message.entryId) : { message: t.lanyardIsConnectedToAnother };
    case "change-by-hand":
      return isOurs ? changeByHand(message.entryId) : { message: t.lanyardIsConnectedToAnother };
    case "sign-in": {
      if (!isOurs) return { outcome: "refused", message: t.lanyardIsConnectedToAnother };
      const tabId = sender.tab!.id!;
      const report = await signIn(
        message.entryId,
        false,
        (progress, waitsFor) =>
          void chrome.tabs.sendMessage(tabId, { tell: "progress", progress, waitsFor }).catch(() => undefined),
      );
      if (report.outcome === "asked-first") await openWindow(tabId);
      return report;
    }
  }
}

const wrong = (error: Error) => ({ wrong: error.message });

async function fromWindow(message: WindowAsk): Promise<unknown> {
  switch (message.ask) {
    case "view":
      return view(message.tabId);
    case "connect":
      return connect(message.address).then(() => openConnectPage(), wrong);
    case "stop-connecting":
      return setDisk({ connection: { state: "none", address: (await disk("connection")).address, ended: null } });
    case "open-connect-page":
      return openConnectPage();
    case "disconnect":
      return disconnect();
    case "try-now":
      return refreshKeys();
    case "sign-in":
      return signIn(message.entryId, message.replace, () => undefined);
    case "guarded-fill":
      return guardedFill(message.entryId, message.tabId);
    case "answer-basic":
      return answerBasic(message.entryId);
    case "new-password-place":
      return newPasswordPlace(message.tabId);
    case "fill-new-password":
      return fillNewPassword(message.tabId, message.password);
    case "entries-for-form":
      return entriesForForm(message.tabId);
    case "fill-form":
      return putIntoForm(message.entryId, message.tabId);
    case "ask-for-site":
      // Of the address only what says which site it is.
      return call("access.requestLogin", { page: plainAddress(message.page), why: message.why }).then(
        () => null,
        (error: Error) => error.message,
      );
    case "offer-again":
      await call("lanyard.offerAgain", { site: message.site });
      return refreshKeys();
    case "type-number":
      return call<Found | null>("people.typeDeviceNumber", { number: message.number }).then(
        (found) => ({ found }),
        wrong,
      );
    case "answer-number": {
      const { number, approve, password } = message;
      const input = { number, approve, ...(password !== null && { password }) };
      return call("people.answerDevice", input).then(() => null, wrong);
    }
    case "give-code": {
      const refused = await call("signIn.giveCode", { id: message.id, code: message.code }).then(() => null, wrong);
      await refreshKeys();
      return refused;
    }
    case "choose":
      await setDisk({ choices: { ...(await disk("choices")), ...message.choices } });
      return showEverywhere();
    case "fill-change":
      return fillChange(message.tabId, false);
    case "end-change":
      return endChange(message.tabId, message.keep);
    case "copy-change":
      return copyChange(message.which, message.tabId);
    case "close-report":
      return setMemory({ signing: null, chosen: null });
  }
}

/** The page that confirms: the one that is open, or a new one. */
async function openConnectPage(): Promise<void> {
  const { address } = await disk("connection");
  if (!address) return;
  const url = new URL("/lanyard/connect", address).href;
  const open = (await chrome.tabs.query({})).find((tab) => tab.url?.startsWith(url));
  if (open?.id !== undefined) await chrome.tabs.update(open.id, { active: true });
  else await chrome.tabs.create({ url });
  await showEverywhere();
}

/** Whether the person has confirmed; from then on Galtry's stream is held. */
async function connectedNow(): Promise<boolean> {
  const connected = await takeToken();
  if (connected) await holdLive(fromLive);
  return connected;
}

async function fromLive(message: LiveAsk): Promise<unknown> {
  switch (message.ask) {
    case "live-connection": {
      const connection = await disk("connection");
      return connection.state === "connected" ? { address: connection.address, token: connection.token } : null;
    }
    case "live-look":
      return refreshKeys();
    case "live-ended":
      return ended({});
    case "live-state":
      await setMemory({ reachable: message.reachable });
      return showEverywhere();
  }
}

/**
 * The page that a window of Lanyard's speaks of. Its own window counts as the last focused one, so that the browser
 * is asked for the last window with pages in it.
 */
async function pageOf(tabId: number | null): Promise<chrome.tabs.Tab | undefined> {
  const given = tabId === null ? undefined : await chrome.tabs.get(tabId).catch(() => undefined);
  if (given) return given;
  const front = await chrome.windows.getLastFocused({ windowTypes: ["normal"] }).catch(() => undefined);
  return front && (await chrome.tabs.query({ active: true, windowId: front.id }))[0];
}

/** What the window shows. A token is not part of it. */
async function view(tabId: number | null): Promise<View> {
  // While a code waits for its confirmation, the window asks; so does the page that confirms.
  if ((await disk("connection")).state === "connecting") await connectedNow().catch(() => undefined);
  const active = await pageOf(tabId);
  const [connection, reachable, lastReached, keys, signing, chosen, pages] = await Promise.all([
    connectionView(),
    memory("reachable"),
    memory("lastReached"),
    memory("keys"),
    memory("signing"),
    memory("chosen"),
    memory("galtryPages"),
  ]);
  const url = active?.url ?? "";
  const forPage = await keysFor(url);
  return {
    signing: isStale(signing) ? null : signing,
    onlyAddress: (await policy()).address,
    connection,
    reachable,
    lastReached,
    keys,
    chosen,
    choices: await disk("choices"),
    changing: await changingHere(active?.id ?? null),
    tab: active?.id === undefined ? null : { id: active.id, url, galtry: pages[active.id] || null },
    forPage,
    alike: forPage.length > 0 || !keys || !/^https?:/.test(url) ? null : lookAlike(url, keys.keys),
  };
}

/** A report that has been read, or could have been, gives way to the page's keys. */
function isStale(signing: View["signing"]): boolean {
  if (!signing?.report) return false;
  return Date.now() - signing.at > (signing.report.outcome === "signed-in" ? 5_000 : 120_000);
}
