/**
 * The small tag at a field: what fits the page, and one press on it signs in. Only what a person has really seen counts;
 * where the page may have covered the tag, a press opens Lanyard's own window, which no page can draw over.
 */
import type { CreatedHere, HereReport } from "../shared/messages";
import { Seen } from "./seen";
import { fieldTag as t } from "./strings";
import { type Ask, element, hang, pressed } from "./tags";

/** A login that fits the page. */
export interface Fitting {
  id: string;
  name: string;
  description: string;
  /** Its steward allows guarded fill, and this is its very host. */
  fills: boolean;
}

interface FieldTag {
  host: HTMLElement;
  field: HTMLElement;
  face: HTMLElement;
  seen: Seen;
  /** Something is under way or has been said: it stays when the field is left. */
  busy: boolean;
  /** The logins in it, as they were. */
  shows: string;
}

let tag: FieldTag | null = null;
const WIDTH = 272;
const MOST_LINES = 6;

export function takeFieldTag(evenBusy = true): void {
  if (!tag || (tag.busy && !evenBusy)) return;
  tag.seen.end();
  tag.host.remove();
  tag = null;
}

export const hangsAt = (field: HTMLElement): boolean => tag?.field === field && tag.host.isConnected;
export const isFieldTag = (target: EventTarget | null): boolean => target !== null && target === tag?.host;

/** Hangs it at the field, or leaves it where it hangs there with the same logins, or with what is under way. */
export function hangFieldTag(field: HTMLElement, keys: readonly Fitting[], ask: Ask): void {
  const shows = JSON.stringify(keys);
  if (tag?.field === field && tag.host.isConnected && (tag.busy || tag.shows === shows)) return;
  const hadKeys = tag?.field === field && document.activeElement === tag.host;
  takeFieldTag();
  const made = hangAt(field, t.loginsForThisPage(keys.length));
  made.shows = shows;
  const { face } = made;
  face.append(...keys.slice(0, MOST_LINES).map((key, at) => line(made, key, at === 0, ask)));
  if (keys.length > MOST_LINES) {
    const all = element("button", { class: "opt", type: "button", tabindex: "-1" }, t.allLogins(keys.length));
    pressed(all, () => void ask({ ask: "open-window", entryId: null }));
    face.append(element("div", { class: "row" }, all));
  }
  // Someone was in it with the keys.
  if (hadKeys) enterFieldTag();
}

function hangAt(field: HTMLElement, label: string): FieldTag {
  const { host, tag: hung } = hang("field");
  hung.setAttribute("role", "group");
  hung.setAttribute("aria-label", label);
  const face = element("div", { class: "face" });
  hung.append(face, element("span", { class: "ring" }));
  const glass = element("div", { class: "glass" });
  hung.getRootNode().appendChild(glass);
  const made: FieldTag = { host, field, face, seen: new Seen(glass), busy: false, shows: "" };
  face.addEventListener("keydown", (event) => byKeys(made, event));
  place(host, field);
  tag = made;
  return made;
}

/** At a field for a new password: one is created to the page's own rules. */
export function hangCreateTag(field: HTMLElement, ask: Ask): void {
  if (tag?.field === field && tag.host.isConnected) return;
  takeFieldTag();
  const made = hangAt(field, t.newPassword);
  const option = element(
    "button",
    { class: "opt", type: "button", tabindex: "-1" },
    element("b", {}, t.createAPassword),
    element("span", { class: "soft" }, t.byThePagesRules),
  );
  option.addEventListener("mousedown", (event) => event.preventDefault());
  pressed(option, async () => {
    const created = await ask<CreatedHere>({ ask: "create-here" });
    say(made, created && created.fields > 0 ? t.created(created.characters) : t.couldNotBeFilledIn);
    // What follows is for the person and the page.
    made.busy = false;
  });
  made.face.append(element("div", { class: "row" }, option, element("kbd", {}, t.altDown)));
}

/** The first of its lines gets the keys. */
export function enterFieldTag(): void {
  tag?.face.querySelector<HTMLElement>(".opt")?.focus();
}

function byKeys({ face, field }: FieldTag, event: KeyboardEvent): void {
  if (!event.isTrusted) return;
  event.stopPropagation();
  const all = [...face.querySelectorAll<HTMLElement>("button")];
  const at = all.indexOf(
    (event.target as HTMLElement).getRootNode() === face.getRootNode() ? (event.target as HTMLElement) : all[0]!,
  );
  const next = event.key === "ArrowDown" ? all[at + 1] : event.key === "ArrowUp" ? all[at - 1] : undefined;
  if (next || event.key === "Escape" || (event.key === "ArrowUp" && at === 0)) {
    event.preventDefault();
    if (next) next.focus();
    else {
      field.focus();
      if (event.key === "Escape") takeFieldTag();
    }
  }
}

function line(made: FieldTag, key: Fitting, first: boolean, ask: Ask): HTMLElement {
  const option = element(
    "button",
    { class: "opt", type: "button", tabindex: "-1", "aria-label": t.signInWith(key.name) },
    element("b", {}, key.name),
    element("span", { class: "soft" }, key.description),
  );
  const row = element("div", { class: "row" }, option);
  act(made, option, () => begin(made, key, ask, "sign-in-here"), ask, key);
  if (key.fills) {
    const fill = element(
      "button",
      { class: "act", type: "button", tabindex: "-1", "aria-label": t.fillWith(key.name) },
      t.fill,
    );
    act(made, fill, () => begin(made, key, ask, "fill-here"), ask, key);
    row.append(fill);
  } else if (first) row.append(element("kbd", {}, t.altDown));
  return row;
}

/** A press that was seen acts here; another leaves it to Lanyard's window. */
function act(made: FieldTag, button: HTMLElement, work: () => Promise<void>, ask: Ask, key: Fitting): void {
  // The field keeps the focus, and the tag with it.
  button.addEventListener("mousedown", (event) => event.preventDefault());
  pressed(button, () => {
    if (made.seen.now) void work();
    else void ask({ ask: "open-window", entryId: key.id });
  });
}

function say(made: FieldTag, ...parts: (Node | string)[]): void {
  made.busy = true;
  made.face.replaceChildren(element("div", { class: "says", role: "status" }, ...parts));
}

/** By a sealed sign-in or by guarded fill, in this very tab. */
async function begin(made: FieldTag, key: Fitting, ask: Ask, how: "sign-in-here" | "fill-here"): Promise<void> {
  say(made, how === "fill-here" ? t.filling(key.name) : t.signingIn(key.name));
  const report = await ask<HereReport>({ ask: how, entryId: key.id });
  if (report?.outcome === "signed-in") return takeFieldTag();
  ended(made, key, ask, report);
}

/** How it ended, and what can be done here. */
function ended(made: FieldTag, key: Fitting, ask: Ask, report: HereReport | null): void {
  const { title, says, fills } = report ?? { title: t.lanyardWasReloaded, says: t.reloadThePage, fills: false };
  const close = element("button", { class: "btn", type: "button" }, t.close);
  pressed(close, () => takeFieldTag());
  const acts = [close];
  if (fills) {
    const fill = element("button", { class: "btn go", type: "button" }, t.fillAndSignIn);
    act(made, fill, () => begin(made, key, ask, "fill-here"), ask, key);
    acts.unshift(fill);
  }
  say(made, element("b", {}, title), element("p", { class: "small" }, says));
  made.face.append(element("div", { class: "do" }, ...acts));
}

/** How far the sign-in is that was begun here. */
export function tellProgress(says: string): void {
  if (tag?.busy) say(tag, says);
}

function place(host: HTMLElement, field: HTMLElement): void {
  const box = field.getBoundingClientRect();
  const right = box.right + 12 + WIDTH < innerWidth;
  const left = right ? box.right + 12 : Math.max(4, Math.min(box.left, innerWidth - WIDTH - 8));
  host.style.cssText = `position:absolute;left:${scrollX + left}px;top:${scrollY + (right ? box.top - 6 : box.bottom + 8)}px`;
}
