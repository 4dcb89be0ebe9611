/** Learned steps laid over a page: which of them is done on it, and with which of its fields. */

import { plainPage } from "./address";
import type { PageDescription, PageField, PageReading } from "./page";
import { NOTHING_READ } from "./page";
import type { Entered, PageStep, Sign } from "./steps";
import { plain } from "./words";

export interface Followed {
  /** Index of the step in the entry's steps. */
  step: number;
  /** The page as the step has it. Its kind is `none` for a step that enters nothing and only goes on. */
  reading: PageReading;
}

/**
 * The first step from `done` on that is done on this page, with every field that it enters found there.
 * @param done how many steps have been done before
 * @returns null where none is: then what the page says by itself counts
 */
export function followedOn(page: PageDescription, steps: readonly PageStep[], done: number): Followed | null {
  const here = plainPage(page.url);
  for (let step = done; step < steps.length; step++) {
    const one = steps[step]!;
    if (one.page !== here) continue;
    const reading = readingOf(page, one);
    if (reading) return { step, reading };
  }
  return null;
}

function readingOf(page: PageDescription, { enters, presses }: PageStep): PageReading | null {
  const found = new Map<Entered, PageField>();
  for (const { what, field } of enters) {
    const match = findField(page, field);
    if (!match) return null;
    found.set(what, match);
  }
  const button = presses ? findButton(page, presses) : null;
  // A step that enters nothing is known by its button alone.
  if (enters.length === 0 && !button) return null;
  const owner = [...found.values(), ...(button ? [button] : [])].find(({ form }) => form !== null)?.form ?? null;
  return {
    ...NOTHING_READ,
    kind: kindOfEntered(found),
    form: owner === null ? null : page.forms[owner]!.selector,
    userName: found.get("user-name")?.selector ?? null,
    password: found.get("password")?.selector ?? null,
    oneTimeCode: found.get("code")?.selector ?? null,
    submit: button?.selector ?? null,
  };
}

/** What a page is that takes these. */
export function kindOfEntered(found: Pick<ReadonlySet<Entered>, "has">): PageReading["kind"] {
  if (found.has("password")) return found.has("user-name") ? "sign-in" : "password-only-step";
  if (found.has("user-name")) return "identifier-first";
  return found.has("code") ? "one-time-code-step" : "none";
}

const isTyped = ({ control, type, visible, disabled }: PageField): boolean =>
  visible &&
  !disabled &&
  control !== "button" &&
  !["submit", "image", "button", "hidden", "checkbox", "radio"].includes(type);

const isPressed = ({ control, type, visible, standsFor }: PageField): boolean =>
  visible && (control === "button" || ["submit", "image", "button"].includes(type) || standsFor !== "nothing");

const findField = (page: PageDescription, sign: Sign) => find(page.fields.filter(isTyped), sign);
const findButton = (page: PageDescription, sign: Sign) => find(page.fields.filter(isPressed), sign);

/** Name before id before label: what a program gives it changes less than what stands on it. */
function find(fields: readonly PageField[], { name, id, label }: Sign): PageField | null {
  const text = plain(label).trim();
  const ways: ((field: PageField) => boolean)[] = [
    ...(name !== "" && text !== "" ? [(one: PageField) => one.name === name && labelled(one) === text] : []),
    ...(name !== "" ? [(one: PageField) => one.name === name] : []),
    ...(id !== "" ? [(one: PageField) => one.id === id] : []),
    ...(text !== "" ? [(one: PageField) => labelled(one) === text] : []),
  ];
  for (const fits of ways) {
    const match = fields.filter(fits);
    // Several of one name are boxes of one value, or choices that look alike: the first of them stands for them.
    if (match[0]) return match[0];
  }
  return null;
}

const labelled = (field: PageField): string => plain(shownOn(field)).trim();

/** What stands on a field or a button, without the value that a button is sent with. */
export function shownOn({
  label,
  value,
  placeholder,
}: Pick<PageField, "label"> & { value?: string; placeholder?: string }): string {
  const text = (label || placeholder || value || "").replace(/\s+/g, " ").trim();
  return value && text.endsWith(` ${value}`) ? text.slice(0, -value.length - 1) : text;
}
