/** In every page's top frame: says what the page is for, sees a login typed, and speaks for Galtry's own page. */

import { boxesFrom, spread } from "../../src/core/signin/boxes";
import type { PageReading } from "../../src/core/signin/page";
import { readPage } from "../../src/core/signin/read";
import { asksToRemember } from "../../src/core/signin/remember";
import type { Look, Offer, PageAsk } from "../shared/messages";
import { describePage, isVisible, type LivePage } from "./describe";
import { main as t } from "./strings";
import { hangCapture, hangEnded, hangFieldTag, takeFieldTag } from "./tags";

const ask = async <R>(message: PageAsk | Record<string, unknown>): Promise<R | null> => {
  try {
    return (await chrome.runtime.sendMessage(message)) as R;
  } catch {
    return null; // Lanyard was reloaded under this page.
  }
};

const galtryAddress = document.querySelector<HTMLMetaElement>("meta[name=galtry]")?.content ?? null;
const isGaltry = galtryAddress === location.origin;

/** Lanyard typed here last, not a person. */
let filledByLanyard = false;
let live: LivePage = describePage();
let reading: PageReading = readPage(live.description);
let keys: { id: string; name: string; description: string }[] = [];

async function arrive(again = false): Promise<void> {
  const answer = await ask<{ forPage: typeof keys; offer: Offer | null }>({
    ask: "arrived",
    url: location.href,
    kind: reading.kind,
    galtry: isGaltry ? galtryAddress : null,
    again,
  });
  keys = answer?.forPage ?? [];
  if (answer?.offer) hangCapture(answer.offer, ask);
  const field = live.elementOf(reading.userName ?? reading.password);
  if (field && document.activeElement === field) showAt(field);
}

if (!isGaltry) {
  watchTyping();
  watchChanges();
  watchFocus();
}
void arrive();

/** A login leaves the page by submit, by a press of its button, or by Enter. */
function watchTyping(): void {
  let last = "";
  document.addEventListener(
    "input",
    (event) => {
      if (event.isTrusted) filledByLanyard = false;
    },
    true,
  );
  const see = () => {
    // What Lanyard typed itself is no login to keep: it goes no further than the page.
    if (filledByLanyard) return;
    live = describePage();
    const now = readPage(live.description);
    // What the page is for may be uncertain: an offer to keep a login asks, and does nothing by itself.
    if (!["sign-in", "identifier-first", "password-only-step", "unsure"].includes(now.kind)) return;
    const value = (selector: string | null) => (live.elementOf(selector) as HTMLInputElement | null)?.value ?? "";
    const [userName, password] = [value(now.userName), now.kind === "identifier-first" ? "" : value(now.password)];
    // A few letters of a password are none to keep.
    if (now.password !== null && boxesFrom(live.description, now.password).length > 0) return;
    if ((userName === "" && password === "") || (now.kind !== "identifier-first" && password === "")) return;
    const mark = `${userName}\u0000${password}`;
    if (mark === last) return;
    last = mark;
    setTimeout(() => {
      last = "";
    }, 1000);
    void ask({ ask: "typed", url: location.href, title: document.title, userName, password, choices: choicesOf(now) });
  };
  document.addEventListener("submit", see, true);
  document.addEventListener(
    "keydown",
    (event) => {
      if (event.key === "Enter" && event.target instanceof HTMLInputElement) see();
    },
    true,
  );
  document.addEventListener(
    "click",
    (event) => {
      const button = (event.target as Element | null)?.closest?.(
        "button, input[type=submit], input[type=button], input[type=image], [role=button], a",
      );
      if (button) see();
    },
    true,
  );
}

/** What was chosen in the sign-in's form besides: a branch, a box ticked. */
function choicesOf(now: PageReading): Record<string, string> {
  const form = live.elementOf(now.form);
  if (!(form instanceof HTMLFormElement)) return {};
  const choices: Record<string, string> = {};
  for (const field of form.elements) {
    if (!(field instanceof HTMLSelectElement || field instanceof HTMLInputElement) || !field.name || !isVisible(field))
      continue;
    if (field instanceof HTMLSelectElement) choices[field.name] = field.value;
    else if (field.type === "radio" && field.checked) choices[field.name] = field.value;
    // What one person wants of their own browser is no step of everybody's sign-in.
    else if (field.type === "checkbox" && field.checked && !asksToRemember(labelled(field)))
      choices[field.name] = field.value;
  }
  return choices;
}

const labelled = ({ name, id, labels }: HTMLInputElement) => ({
  ...{ name, id },
  label: [...(labels ?? [])].map((label) => label.textContent ?? "").join(" "),
});

/** Pages that scripts redraw: looked at again when they have settled. */
function watchChanges(): void {
  let timer: ReturnType<typeof setTimeout> | null = null;
  let address = location.href;
  new MutationObserver(() => {
    if (timer) clearTimeout(timer);
    timer = setTimeout(() => {
      const before = reading.kind;
      live = describePage();
      reading = readPage(live.description);
      if (reading.kind !== before || location.href !== address) {
        address = location.href;
        void arrive();
      }
    }, 300);
  }).observe(document.documentElement, {
    childList: true,
    subtree: true,
    attributes: true,
    attributeFilter: ["style", "class", "hidden", "type"],
  });
}

function showAt(field: HTMLElement): void {
  if (keys.length > 0 && (reading.kind === "sign-in" || reading.kind === "identifier-first"))
    hangFieldTag(field, keys, ask);
}

function watchFocus(): void {
  const isOurs = (target: EventTarget | null) =>
    target !== null && target === live.elementOf(reading.userName ?? reading.password);
  document.addEventListener("focusin", (event) => {
    if (isOurs(event.target)) showAt(event.target as HTMLElement);
    else takeFieldTag();
  });
  document.addEventListener("keydown", (event) => {
    if (!event.isTrusted || !isOurs(event.target) || keys.length === 0) return;
    if (event.key === "Escape") takeFieldTag();
    else if (event.altKey && event.key === "ArrowDown") {
      event.preventDefault();
      void ask({ ask: "open-window", entryId: keys[0]!.id });
    }
  });
}

/** Called by the worker before any value leaves Galtry. */
(globalThis as typeof globalThis & { lanyardLook?: () => Look }).lanyardLook = () => {
  const page = describePage();
  const now = readPage(page.description);
  const form = page.elementOf(now.form);
  return { kind: now.kind, target: form instanceof HTMLFormElement ? targetOf(form) : null };
};

interface Filling {
  send: boolean;
  userName: string;
  /** Null for a page that asks for the user name alone. */
  password: string | null;
  code: string | null;
  hosts: string[];
}

/** A button that a script switches on once it has seen what was typed: so long it is waited for. */
const ENABLED_WITHIN_MS = 2_000;

async function isEnabled(button: HTMLElement): Promise<boolean> {
  const off = () => button.matches(":disabled, [aria-disabled=true]");
  for (let waited = 0; off() && waited < ENABLED_WITHIN_MS; waited += 50)
    await new Promise((done) => setTimeout(done, 50));
  return !off();
}

/** Where a form goes; a form that a script sends goes nowhere by itself. */
function targetOf(form: HTMLFormElement): string | null {
  const action = form.getAttribute("action") ?? "";
  return /^\s*javascript:/i.test(action) ? null : new URL(action || location.href, document.baseURI).host;
}

/** Called by the worker in this very document: types, and sends at once where the entry says so. The values are kept nowhere. */
(globalThis as typeof globalThis & { lanyardFill?: (values: Filling) => Promise<string> }).lanyardFill = async (
  values,
) => {
  const page = describePage();
  const now = readPage(page.description);
  if (now.kind === "unsure") return t.lanyardIsNotSure;
  if (!["sign-in", "identifier-first", "password-only-step"].includes(now.kind)) return t.thisPageShowsNoSignInThat;
  const form = page.elementOf(now.form);
  const target = form instanceof HTMLFormElement ? targetOf(form) : null;
  if (target !== null && !values.hosts.includes(target)) return t.theFormOnThisPageSendsTo;
  const put = (selector: string | null, value: string): boolean => {
    if (selector === null) return true;
    const pieces = spread(page.description, selector, value);
    for (const [box, text] of pieces ?? []) type(box, text);
    return pieces !== null;
  };
  const type = (selector: string, value: string) => {
    const input = page.elementOf(selector) as HTMLInputElement | null;
    if (!input) return;
    input.focus();
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")!.set!.call(input, value);
    input.dispatchEvent(new Event("input", { bubbles: true }));
    input.dispatchEvent(new Event("change", { bubbles: true }));
  };
  filledByLanyard = true;
  put(now.userName, values.userName);
  if (now.kind !== "identifier-first" && values.password !== null && !put(now.password, values.password))
    return t.thePageAsksForLetters;
  if (values.code && now.oneTimeCode) put(now.oneTimeCode, values.code);
  if (!values.send) return "filled";
  const submit = page.elementOf(now.submit);
  if (submit) {
    if (!(await isEnabled(submit))) return t.theButtonStaysOff;
    submit.click();
  } else if (form instanceof HTMLFormElement) form.requestSubmit();
  return "filled";
};

/** Galtry's own page speaks to Lanyard through this script; the worker checks the origin itself. */
if (isGaltry) {
  window.addEventListener("message", (event) => {
    if (event.source !== window || event.origin !== location.origin || event.data?.from !== "galtry") return;
    const {
      id,
      ask: what,
      entryId,
      first,
    } = event.data as { id: string; ask: string; entryId?: string; first?: boolean };
    asking = id;
    void ask({ from: "galtry", ask: what, entryId, first }).then((answer) =>
      window.postMessage({ from: "lanyard", id, answer }, location.origin),
    );
  });
  // The page may have asked before this script was here to answer.
  window.postMessage({ from: "lanyard", changed: true }, location.origin);
}
let asking = "";

chrome.runtime.onMessage.addListener((message: { tell?: string; progress?: string; name?: string; says?: string }) => {
  if (message.tell === "changed") {
    if (isGaltry) window.postMessage({ from: "lanyard", changed: true }, location.origin);
    else void arrive(true);
  } else if (message.tell === "ended" && !isGaltry) hangEnded(message.name ?? "", message.says ?? "");
  else if (message.tell === "progress" && isGaltry)
    window.postMessage({ from: "lanyard", id: asking, progress: message.progress }, location.origin);
});
