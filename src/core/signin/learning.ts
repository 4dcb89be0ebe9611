/**
 * One step learned from what happened on a page while a person signed in. What they typed is only compared with what
 * left the page: the step says which part of it held what, and holds no value of theirs.
 */
import { plainPage } from "./address";
import { carriesSecret, tracesOf } from "./carries";
import { shownOn } from "./following";
import type { PageField } from "./page";
import { isOwnHeader } from "./sending";
import type { Entered, PageStep, Sending, SentPart, Sign, TokenPlace } from "./steps";

/** A request as it left the page. */
export interface SentRequest {
  to: string;
  /** `Content-Type` as the page gave it; "" where it gave none. */
  contentType: string;
  /** Text as it was sent, or the pairs of a form. */
  body: string | [string, string][];
  headers: Record<string, string>;
  byScript: boolean;
}

export interface Happened {
  /** Address of the page, or of the frame, in which it was typed. */
  page: string;
  entered: { what: Entered; field: Pick<PageField, "name" | "id" | "label" | "placeholder">; value: string }[];
  pressed: Pick<PageField, "name" | "id" | "label" | "value"> | null;
  sent: SentRequest | null;
  /** What the page itself gives along: hidden fields, metas, cookies that its scripts can read. */
  given: (TokenPlace & { value: string })[];
  /** All else that was typed into the page: none of it may become part of a step. */
  typedBesides: string[];
}

/** @returns null for a page that has no web address, or one that holds what was typed */
export function stepFrom(happened: Happened): PageStep | null {
  const page = plainPage(happened.page);
  const { entered, pressed, sent } = happened;
  if (page === null) return null;
  const step: PageStep = {
    page,
    enters: entered.map(({ what, field }) => ({ what, field: signOf(field, shownOn(field)) })),
    presses: pressed && signOf(pressed, shownOn(pressed)),
    sends: sent && sendingFrom(sent, happened),
  };
  return withoutTyped(
    step,
    entered.map(({ value }) => value),
  );
}

/**
 * A page can write anything into its addresses and labels, also what was typed: that is no part of a step.
 * @returns null where the step is not to be told without it
 */
export function withoutTyped(step: PageStep, typed: readonly string[]): PageStep | null {
  const holds = holdsAny(typed);
  const sign = (one: Sign): Sign =>
    holds(`${one.name} ${one.id} ${one.label}`) ? { name: "", id: "", label: "" } : one;
  if (holds(step.page)) return null;
  return {
    ...step,
    enters: step.enters.map(({ what, field }) => ({ what, field: sign(field) })),
    presses: step.presses && sign(step.presses),
    sends: step.sends && holds(`${step.sends.to} ${JSON.stringify(step.sends.parts)}`) ? null : step.sends,
  };
}

/** Whether a text holds one of these, as it is or as addresses have it. */
export function holdsAny(typed: readonly string[]): (text: string) => boolean {
  const told = typed.filter((value) => value.length > 2).flatMap((value) => [value, encodeURIComponent(value)]);
  return (text) => told.some((value) => text.toLowerCase().includes(value.toLowerCase()));
}

const signOf = ({ name, id }: { name: string; id: string }, label: string): Sign => ({
  name: name.slice(0, 200),
  id: isMadeUp(id) ? "" : id.slice(0, 200),
  label: label.slice(0, 120),
});

/** Ids that a framework numbers anew each time: ":r3:", "mat-input-7", "field_8f3a91c2". */
const isMadeUp = (id: string): boolean => /^:.*:$|\d{3,}|[-_:]\d+$|[0-9a-f]{8}/i.test(id);

const ENCODINGS: [RegExp, Sending["encoding"]][] = [
  [/json/i, "json"],
  [/multipart\/form-data/i, "multipart"],
  [/text\/plain/i, "text"],
];

function sendingFrom({ to, contentType, body, headers, byScript }: SentRequest, happened: Happened): Sending | null {
  const address = plainPage(to);
  // What stands in an address and is not its path is part of the request too.
  if (address === null || (byScript && new URL(to).search !== "")) return null;
  const tell = teller(happened);
  const encoding = ENCODINGS.find(([pattern]) => pattern.test(contentType))?.[1] ?? encodingOf(body);
  const pairs = encoding === "json" ? jsonLeaves(body) : formPairs(body);
  if (pairs === null) return null;
  const parts = pairs.slice(0, 40).map(([name, value, text]) => tell(name.slice(0, 200) || "?", value, text));
  const known = parts.some(({ holds }) => holds === "user-name" || holds === "password" || holds === "code");
  if (!known) return null;
  return {
    to: address,
    encoding,
    byScript,
    parts: pairs.length > 40 ? [...parts.slice(0, 39), part("…", "unknown")] : parts,
    headers: Object.entries(headers)
      .map(([name, value]) => [name.toLowerCase(), value] as const)
      .filter(([name]) => isOwnHeader(name))
      .slice(0, 10)
      .map(([name, value]) => tell(name, value, value)),
  };
}

const encodingOf = (body: SentRequest["body"]): Sending["encoding"] =>
  typeof body === "string" && /^\s*\{/.test(body) ? "json" : "form";

const part = (name: string, holds: SentPart["holds"], more: Partial<SentPart> = {}): SentPart => ({
  ...{ name, holds, from: null, value: "" },
  ...more,
});

/** Says of a value what it is; `text` is how it is written down where it is always the same. */
function teller({ entered, given, typedBesides }: Happened) {
  const traces = entered
    .filter(({ what }) => what !== "user-name")
    .map(({ value }) => tracesOf(value, entered.find(({ what }) => what === "user-name")?.value ?? ""));
  return (name: string, value: string, text: string): SentPart => {
    const typed = entered.find((one) => one.value !== "" && one.value === value);
    if (typed) return part(name, typed.what);
    const place = value.length < 6 ? undefined : given.find((one) => one.value === value);
    if (place) return part(name, "token", { from: { in: place.in, name: place.name.slice(0, 200) } });
    const personal = typedBesides.some((other) => other !== "" && value.includes(other));
    const derived =
      traces.some((one) => carriesSecret([value], one)) ||
      entered.some((one) => one.value.length > 2 && value.includes(one.value));
    if (personal || derived || text.length > 2000 || !isAlwaysTheSame(value)) return part(name, "unknown");
    return part(name, "fixed", { value: text });
  };
}

/** Words, numbers and switches; not what is drawn anew for each visit. */
const isAlwaysTheSame = (value: string): boolean =>
  !(value.match(/[A-Za-z0-9+/_=.-]{16,}/g) ?? []).some((run) => /\d/.test(run) && /[A-Za-z]/.test(run)) &&
  !/\d{6,}/.test(value);

/** Leaves of a JSON object by pointer, as text and as JSON has them; null for what is no object, or holds lists. */
function jsonLeaves(body: SentRequest["body"]): [string, string, string][] | null {
  if (typeof body !== "string" || body.length > 20_000) return null;
  let parsed: unknown;
  try {
    parsed = JSON.parse(body);
  } catch {
    return null;
  }
  const leaves: [string, string, string][] = [];
  const walk = (value: unknown, pointer: string, depth: number): boolean => {
    if (Array.isArray(value) || depth > 6) return false;
    if (value !== null && typeof value === "object")
      return Object.entries(value).every(([key, inner]) => walk(inner, `${pointer}/${escapePointer(key)}`, depth + 1));
    leaves.push([pointer, typeof value === "string" ? value : JSON.stringify(value), JSON.stringify(value)]);
    return true;
  };
  return typeof parsed === "object" && parsed !== null && walk(parsed, "", 0) ? leaves : null;
}

const escapePointer = (key: string) => key.replaceAll("~", "~0").replaceAll("/", "~1");

function formPairs(body: SentRequest["body"]): [string, string, string][] | null {
  if (typeof body !== "string") return body.map(([name, value]) => [name, value, value]);
  if (body.length > 20_000) return null;
  return [...new URLSearchParams(body)].map(([name, value]) => [name, value, value]);
}
