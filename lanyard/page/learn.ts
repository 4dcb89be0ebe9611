/**
 * What a page did when a person signed in, told as a step without a value: which field held what, which button was
 * pressed, what was sent where. What was typed is compared here, within the page, and goes no further for it.
 */
import { boxesFrom } from "../../src/core/signin/boxes";
import { type Happened, type SentRequest, stepFrom } from "../../src/core/signin/learning";
import { NOTHING_READ, type PageField, type PageReading } from "../../src/core/signin/page";
import type { Entered, PageStep } from "../../src/core/signin/steps";
import type { LivePage } from "./describe";

/** What a script sends so long after the press belongs to it. */
const SENT_WITHIN_MS = 4_000;

export class Learning {
  #pending: { happened: Happened; at: number } | null = null;

  /** @param tell takes each step as it is learned; a later one for the same page says more */
  constructor(
    channel: string,
    private readonly tell: (step: PageStep) => void,
  ) {
    window.addEventListener(channel, (event) => this.#hear((event as CustomEvent).detail));
  }

  /** Something was sent, or is about to be. */
  sees(page: LivePage, reading: PageReading, event: Event): void {
    const happened = whatHappened(page, reading, event);
    this.#pending = { happened, at: Date.now() };
    this.#learn(event instanceof SubmitEvent ? { ...happened, sent: sentBy(event) } : happened);
  }

  #learn(happened: Happened): void {
    const step = stepFrom(happened);
    if (step) this.tell(step);
  }

  /** The page's own script has sent something: told by the part of Lanyard that runs beside it. */
  #hear(detail: unknown): void {
    const pending = this.#pending;
    if (!pending || typeof detail !== "string" || Date.now() - pending.at > SENT_WITHIN_MS) return;
    let sent: SentRequest;
    try {
      sent = { ...(JSON.parse(detail) as SentRequest), byScript: true };
      sent.to = new URL(sent.to, document.baseURI).href;
    } catch {
      return;
    }
    const step = stepFrom({ ...pending.happened, sent });
    // Of many requests, the one that carried what was typed.
    if (step?.sends) this.tell(step);
  }
}

const TYPED = /^(?:text|email|tel|url|search|number|password)$/;

/** Which field holds what, by what a person typed: a password where it is hidden, and before it the user name. */
export function readingByHand(page: LivePage): PageReading {
  const typed = page.description.fields.filter(
    ({ selector, control, type, visible }) =>
      visible &&
      control === "input" &&
      TYPED.test(type) &&
      (page.elementOf(selector) as HTMLInputElement)?.value !== "",
  );
  const at = typed.findIndex(({ type, masked }) => type === "password" || masked);
  if (at < 0) return NOTHING_READ;
  const userName = typed[at - 1]?.selector ?? null;
  const kind = userName === null ? ("password-only-step" as const) : ("sign-in" as const);
  return { ...NOTHING_READ, kind, userName, password: typed[at]!.selector };
}

function whatHappened(page: LivePage, reading: PageReading, event: Event): Happened {
  const { fields } = page.description;
  const fieldOf = (selector: string | null) => fields.find((one) => one.selector === selector);
  const typedIn = (field: PageField) => (page.elementOf(field.selector) as HTMLInputElement | null)?.value ?? "";
  const entered: Happened["entered"] = [];
  const put = (what: Entered, selector: string | null) => {
    const field = fieldOf(selector);
    if (!field) return;
    // In boxes of a character each the whole is what all of them hold.
    const boxes = boxesFrom(page.description, field.selector);
    const value = boxes.length > 0 ? boxes.map(typedIn).join("") : typedIn(field);
    if (value !== "") entered.push({ what, field, value });
  };
  put("user-name", reading.userName);
  if (reading.kind !== "identifier-first") put("password", reading.password);
  put("code", reading.oneTimeCode);
  const taken = new Set(entered.map(({ value }) => value));
  const button = pressedIn(page, event) ?? fieldOf(reading.submit) ?? null;
  return {
    page: location.href,
    entered,
    pressed: button,
    sent: null,
    given: givenByPage(),
    typedBesides: fields
      .filter(
        ({ control, type, visible }) => visible && control !== "button" && !/^(checkbox|radio|submit)$/.test(type),
      )
      .map(typedIn)
      .filter((value) => value.length > 1 && !taken.has(value)),
  };
}

/** The button that was pressed, as the page is described. */
function pressedIn(page: LivePage, event: Event): PageField | null {
  const at =
    event instanceof SubmitEvent ? event.submitter : event.type === "click" ? (event.composedPath()[0] as Node) : null;
  if (!(at instanceof Node)) return null;
  const buttons = page.description.fields.filter(
    ({ control, type, standsFor }) =>
      control === "button" || /^(submit|image|button)$/.test(type) || standsFor !== "nothing",
  );
  return buttons.find(({ selector }) => page.elementOf(selector)?.contains(at)) ?? null;
}

/** What a browser sends for a form. */
function sentBy(event: SubmitEvent): SentRequest | null {
  const form = event.target;
  if (!(form instanceof HTMLFormElement) || form.method.toLowerCase() !== "post") return null;
  const pairs = [...new FormData(form, event.submitter)].flatMap(([name, value]): [string, string][] =>
    typeof value === "string" ? [[name, value]] : [],
  );
  const to = event.submitter?.getAttribute("formaction") || form.getAttribute("action") || location.href;
  return {
    to: new URL(to, document.baseURI).href,
    contentType: form.enctype,
    body: pairs,
    headers: {},
    byScript: false,
  };
}

const MOST_GIVEN = 80;

/** Tokens and the like: hidden fields, metas, and the cookies that the page's scripts can read. */
function givenByPage(): Happened["given"] {
  const hidden = [...document.querySelectorAll<HTMLInputElement>("input[type=hidden][name]")].map(
    ({ name, value }) => ({ in: "field" as const, name, value }),
  );
  const metas = [...document.querySelectorAll<HTMLMetaElement>("meta[name][content]")].map(({ name, content }) => ({
    ...{ in: "meta" as const, name, value: content },
  }));
  const cookies = document.cookie.split("; ").flatMap((pair) => {
    const at = pair.indexOf("=");
    if (at < 1) return [];
    const [name, value] = [pair.slice(0, at), pair.slice(at + 1)];
    return [{ in: "cookie" as const, name, value: unescaped(value) }];
  });
  return [...hidden, ...metas, ...cookies].filter(({ value }) => value !== "").slice(0, MOST_GIVEN);
}

function unescaped(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
