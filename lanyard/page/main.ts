/** In every page's top frame: says what the page is for, sees a login typed, and speaks for Galtry's own page. */

import { rulesOfPage } from "../../src/core/generator/pageRules";
import { boxesFrom, spread } from "../../src/core/signin/boxes";
import type { Progress, WaitsFor } from "../../src/core/signin/outcome";
import { NOTHING_READ, type PageKind, type PageReading } from "../../src/core/signin/page";
import { readPage } from "../../src/core/signin/read";
import { asksToRemember } from "../../src/core/signin/remember";
import { ERROR_PLACES, saysWrongIn } from "../../src/core/signin/saysWrong";
import type {
  ChangePlace,
  ChangingView,
  LearningView,
  Look,
  NewPasswordPlace,
  Offer,
  PageAsk,
} from "../shared/messages";
import { hangChanging } from "./changingTag";
import { describePage, emptyPage, isVisible, type LivePage } from "./describe";
import {
  enterFieldTag,
  type Fitting,
  hangCreateTag,
  hangFieldTag,
  hangsAt,
  isFieldTag,
  takeFieldTag,
  tellProgress,
} from "./fieldTag";
import { fillForm, formPlace } from "./forms";
import { Learning, readingByHand } from "./learn";
import { main as t } from "./strings";
import { hangCapture, hangCodeAsked, hangEnded, hangLearning } from "./tags";

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
/** Lanyard goes from field to field: nothing is offered at them meanwhile. */
let isTyping = false;
let live: LivePage =
  window === window.top ? describePage() : { description: emptyPage(document), elementOf: () => null };
let reading: PageReading = live.description.fields.length > 0 ? readPage(live.description) : NOTHING_READ;
let keys: Fitting[] = [];
/** Connected: what is created can be added. */
let mayCreate = false;
/** Shown at fields by themselves; otherwise when they are asked for. */
let atFields = true;

async function arrive(again = false): Promise<void> {
  watchSends();
  const answer = await ask<{
    forPage: typeof keys;
    atFields: boolean;
    mayCreate: boolean;
    offer: Offer | null;
    learning: LearningView | null;
    changing: ChangingView | null;
  }>({
    ask: "arrived",
    url: location.href,
    kind: reading.kind,
    galtry: isGaltry ? galtryAddress : null,
    again,
    saysWrong: saysWrongIn(
      [...document.querySelectorAll(ERROR_PLACES)]
        .map((one) => (one.checkVisibility() ? one.textContent : ""))
        .join(" | "),
    ),
  });
  keys = answer?.forPage ?? [];
  atFields = answer?.atFields ?? true;
  mayCreate = answer?.mayCreate ?? false;
  isLearned = answer?.learning != null;
  if (answer?.learning) hangLearning(answer.learning, ask);
  if (answer) hangChanging(answer.changing, ask);
  if (answer?.offer) hangCapture(answer.offer, ask);
  const field = live.elementOf(reading.userName ?? reading.password);
  // Where it hangs already it follows what has changed, also while someone is in it.
  if (field && ((atFields && document.activeElement === field) || hangsAt(field))) showAt(field);
}

/** This tab is there to be learned from: what is pressed counts on every page of it. */
let isLearned = false;
let watched = false;
/** Drawn by hand: pages over http have no `randomUUID`. */
const channel = `lanyard-${[...crypto.getRandomValues(new Uint32Array(4))].map((part) => part.toString(36)).join("-")}`;
let learning: Learning | null = null;

const ASKS_TO_SIGN_IN: ReadonlySet<PageKind> = new Set<PageKind>([
  ...(["sign-in", "identifier-first", "password-only-step", "one-time-code-step"] as const),
]);

/** On a page that asks to sign in, also what its scripts send is looked at, within the page. */
function watchSends(surely = false): void {
  if (watched || isGaltry || !(surely || ASKS_TO_SIGN_IN.has(reading.kind))) return;
  watched = true;
  void ask({ ask: "watch-sends", channel });
}

/** What the page does with it, as a step without a value. */
function learn(now: PageReading, event: Event): void {
  const known = ASKS_TO_SIGN_IN.has(now.kind);
  if (!known && !isLearned) return;
  learning ??= new Learning(channel, (step) => void ask({ ask: "step", step }));
  // Lanyard was asked to learn what it may have read wrong: there what was typed says which field is which.
  learning.sees(live, known ? now : readingByHand(live), event);
}

/** A frame of a page: read when something is typed into it, or is to be. What the page is for, the page says. */
const isFrame = window !== window.top;

if (isFrame) {
  watchTyping();
  const inFrame = describePage();
  const asks = inFrame.description.fields.length > 0 ? readPage(inFrame.description).kind : "none";
  if (asks === "sign-in" || asks === "password-only-step" || asks === "identifier-first") {
    void ask({ ask: "frame-asks" });
    reading = { ...reading, kind: asks };
    watchSends();
  }
} else if (!isGaltry) {
  watchTyping();
  watchChanges();
  watchFocus();
}
if (!isFrame) void arrive();

/** A login leaves the page by submit, by a press of its button, or by Enter. */
function watchTyping(): void {
  let last = "";
  document.addEventListener(
    "input",
    (event) => {
      if (event.isTrusted) filledByLanyard = false;
      // A page may be sent before it has been looked at anew: what its scripts send is listened for from the first letter.
      if ((event.target as HTMLInputElement | null)?.type === "password") watchSends(true);
    },
    true,
  );
  const see = (event: Event) => {
    // Lanyard's own tag is not the page.
    if ((event.target as Element | null)?.localName === "lanyard-tag") return;
    // What Lanyard typed itself is no login to keep: it goes no further than the page.
    if (filledByLanyard && !isLearned) return;
    live = isLearned ? describePage(document, true) : describePage();
    const now = readPage(live.description);
    // A login is told before its step, which is kept beside it.
    queueMicrotask(() => learn(now, event));
    if (filledByLanyard) return;
    // What the page is for may be uncertain: an offer to keep a login asks, and does nothing by itself.
    if (
      !["sign-in", "identifier-first", "password-only-step", "unsure", "register", "change-password"].includes(now.kind)
    )
      return;
    const value = (selector: string | null) => (live.elementOf(selector) as HTMLInputElement | null)?.value ?? "";
    if (now.kind === "register" || now.kind === "change-password") return seeNew(now, value);
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
    const { title } = document;
    const choices = choicesOf(now);
    void ask({ ask: "typed", url: location.href, title, userName, password, choices, on: "sign-in" });
  };
  /** A new password, typed the same wherever the page asks for it. */
  const seeNew = (now: PageReading, value: (selector: string | null) => string) => {
    const typed = new Set(now.newPasswords.map(value));
    const [password = ""] = typed;
    const userName = now.kind === "register" ? value(now.userName) : "";
    const mark = `${now.kind}\u0000${userName}\u0000${password}`;
    if (typed.size !== 1 || password === "" || mark === last) return;
    last = mark;
    const { title } = document;
    const on = now.kind as "register" | "change-password";
    void ask({ ask: "typed", url: location.href, title, userName, password, choices: {}, on });
  };
  document.addEventListener("submit", see, true);
  document.addEventListener(
    "keydown",
    (event) => {
      if (event.key === "Enter" && (event.target instanceof HTMLInputElement || isOfTheirOwn(event.target))) see(event);
    },
    true,
  );
  document.addEventListener(
    "click",
    (event) => {
      const button = (event.target as Element | null)?.closest?.(
        "button, input[type=submit], input[type=button], input[type=image], [role=button], a",
      );
      if (button || isOfTheirOwn(event.target)) see(event);
    },
    true,
  );
}

/** An element of the page's own making: what was pressed within its shadow tree is not said. */
const isOfTheirOwn = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.localName.includes("-");

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
  if (reading.kind !== "sign-in" && reading.kind !== "identifier-first") return;
  if (keys.length > 0) hangFieldTag(field, keys, ask);
  else takeFieldTag(false);
}

function watchFocus(): void {
  const isOurs = (target: EventTarget | null) =>
    target !== null && target === live.elementOf(reading.userName ?? reading.password);
  const isForNew = (target: EventTarget | null) =>
    mayCreate &&
    (target as HTMLInputElement | null)?.value === "" &&
    (reading.kind === "register" || reading.kind === "change-password") &&
    reading.newPasswords.some((one) => live.elementOf(one) === target);
  document.addEventListener("focusin", (event) => {
    if (isTyping) return;
    if (isOurs(event.target)) {
      if (atFields) showAt(event.target as HTMLElement);
    } else if (atFields && isForNew(event.target)) hangCreateTag(event.target as HTMLElement, ask);
    else if (!isFieldTag(event.target)) takeFieldTag(false);
  });
  document.addEventListener("keydown", (event) => {
    if (!event.isTrusted) return;
    if (event.key === "Escape") takeFieldTag();
    else if (event.altKey && event.key === "ArrowDown" && isForNew(event.target)) {
      event.preventDefault();
      hangCreateTag(event.target as HTMLElement, ask);
      enterFieldTag();
    } else if (!isOurs(event.target) || keys.length === 0) return;
    else if (event.altKey && event.key === "ArrowDown") {
      event.preventDefault();
      showAt(event.target as HTMLElement);
      enterFieldTag();
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

/** As a person would: pages that scripts draw hear of it. */
function typeInto(page: LivePage, selector: string, value: string): void {
  const input = page.elementOf(selector) as HTMLInputElement | null;
  if (input) typeIntoField(input, value);
}

function typeIntoField(input: HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement, value: string): void {
  input.focus();
  const prototype =
    input instanceof HTMLSelectElement
      ? HTMLSelectElement
      : input instanceof HTMLTextAreaElement
        ? HTMLTextAreaElement
        : HTMLInputElement;
  Object.getOwnPropertyDescriptor(prototype.prototype, "value")!.set!.call(input, value);
  input.dispatchEvent(new Event("input", { bubbles: true }));
  input.dispatchEvent(new Event("change", { bubbles: true }));
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
    for (const [box, text] of pieces ?? []) typeInto(page, box, text);
    return pieces !== null;
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

/** What the page asks of a new password, for Lanyard's window. */
(globalThis as typeof globalThis & { lanyardNewPasswordPlace?: () => NewPasswordPlace }).lanyardNewPasswordPlace =
  () => {
    const page = describePage();
    const now = readPage(page.description);
    const fields = newFields(page, now);
    if ((now.kind !== "register" && now.kind !== "change-password") || fields.length === 0)
      return { on: null, rules: "", fields: 0 };
    return { on: now.kind, fields: fields.length, rules: rulesBeside(page, now, fields) };
  };

const newFields = (page: LivePage, { newPasswords }: PageReading) =>
  newPasswords.flatMap((one) => (page.elementOf(one) as HTMLInputElement | null) ?? []);

function rulesBeside(page: LivePage, now: PageReading, fields: readonly HTMLInputElement[]): string {
  const form = page.description.forms.find(({ selector }) => selector === now.form);
  const beside = fields.map((field) => `${field.closest("label, div, p, td, li")?.textContent ?? ""} ${field.title}`);
  return rulesOfPage({
    rules: fields.map((field) => field.getAttribute("passwordrules") ?? "").find(Boolean) ?? "",
    shortest: fields[0]!.minLength > 0 ? fields[0]!.minLength : null,
    longest: fields[0]!.maxLength > 0 ? fields[0]!.maxLength : null,
    text: [form?.text ?? "", ...beside].join(" | ").slice(0, 3000),
  });
}

type WithChange = typeof globalThis & {
  lanyardChangePlace?: () => ChangePlace;
  lanyardFillChange?: (values: { current: string | null; fresh: string | null }) => string;
};

/** The field for the current password, where the page has one. */
const currentField = ({ kind, password, newPasswords }: PageReading): string | null =>
  (kind === "change-password" || kind === "password-only-step") && !newPasswords.includes(password ?? "")
    ? password
    : null;

/** Called by the worker before any value leaves Galtry. */
(globalThis as WithChange).lanyardChangePlace = () => {
  const page = describePage();
  const now = readPage(page.description);
  const fields = now.kind === "change-password" ? newFields(page, now) : [];
  const form = page.elementOf(now.form);
  return {
    rules: fields.length > 0 ? rulesBeside(page, now, fields) : "",
    current: currentField(now) !== null,
    fresh: fields.length > 0,
    target: form instanceof HTMLFormElement ? targetOf(form) : null,
  };
};

/** Called by the worker in this very document. What it types is no login to keep: its worker knows of it. */
(globalThis as WithChange).lanyardFillChange = ({ current, fresh }) => {
  const page = describePage();
  const now = readPage(page.description);
  const at = currentField(now);
  if ((current !== null && at === null) || (fresh !== null && now.newPasswords.length === 0)) return "gone";
  filledByLanyard = true;
  isTyping = true;
  if (current !== null) typeInto(page, at!, current);
  if (fresh !== null) for (const selector of now.newPasswords) typeInto(page, selector, fresh);
  isTyping = false;
  return "filled";
};

type WithForms = typeof globalThis & {
  lanyardFormPlace?: typeof formPlace;
  lanyardFillForm?: (values: Record<string, string>) => number;
};
(globalThis as WithForms).lanyardFormPlace = formPlace;
/** Called by the worker in this very document, on a press in Lanyard's window. */
(globalThis as WithForms).lanyardFillForm = (values) => fillForm(values, typeIntoField);

/** Puts a created password into every field for it. It is the person's own, and is seen as if they had typed it. */
(globalThis as typeof globalThis & { lanyardFillNewPassword?: (password: string) => number }).lanyardFillNewPassword = (
  password,
) => {
  const page = describePage();
  const { newPasswords } = readPage(page.description);
  filledByLanyard = false;
  isTyping = true;
  for (const selector of newPasswords) typeInto(page, selector, password);
  isTyping = false;
  return newPasswords.length;
};

/** Galtry's own page speaks to Lanyard through this script; the worker checks the origin itself. */
if (isGaltry && !isFrame) {
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

interface Tell {
  tell?: string;
  progress?: Progress;
  waitsFor?: WaitsFor;
  name?: string;
  says?: string;
  person?: string | null;
}

chrome.runtime.onMessage.addListener((message: Tell) => {
  if (message.tell === "changed") {
    if (isGaltry) window.postMessage({ from: "lanyard", changed: true }, location.origin);
    else if (!isFrame) void arrive(true);
  } else if (message.tell === "ended" && !isGaltry) hangEnded(message.name ?? "", message.says ?? "");
  else if (message.tell === "progress" && isGaltry)
    window.postMessage(
      { from: "lanyard", id: asking, progress: message.progress, waitsFor: message.waitsFor },
      location.origin,
    );
  else if (message.tell === "here" && !isFrame) tellProgress(message.says ?? "");
  else if (message.tell === "code-asked" && !isGaltry && !isFrame)
    hangCodeAsked(message.person ?? null, message.name ?? "", ask);
});
