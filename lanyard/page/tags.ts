/**
 * What Lanyard hangs over a page: a small tag at the user name's field, and the keeping tag at the lower right.
 * In closed shadow trees, so that the page's scripts and styles do not reach them; only real clicks count.
 */
import { TOKENS } from "../../src/interface/theme/tokens";
import type { LearningView, Offer, PageAsk } from "../shared/messages";
import { tags as t } from "./strings";

const LOOK = `
${TOKENS.replaceAll(":root[data-theme", ":host-never[data-theme").replaceAll(":root", ":host")}
:host { all: initial; position: absolute; z-index: 2147483647; color-scheme: light dark; --text: "Lanyard Text", system-ui, sans-serif; --mono: "Lanyard Mono", ui-monospace, monospace; }
* { box-sizing: border-box; margin: 0; padding: 0; }
.tag { position: relative; color: var(--ink); font: 400 15px/22px var(--text); text-align: left; filter: drop-shadow(0 0 .6px var(--ink)) drop-shadow(0 6px 14px light-dark(#1e242038, #000000b0)); }
.ring { position: absolute; border: 2px solid var(--edge); border-radius: 50%; }
.cord { position: absolute; background: repeating-linear-gradient(135deg, #ffffff1f 0 2px, #0000 2px 5px), var(--baize); }
b { font-weight: 650; }
.soft { color: var(--soft); }
.small { font-size: 13.5px; line-height: 20px; }
.mono { font-family: var(--mono); font-size: 14px; overflow-wrap: anywhere; }
button, input, select { font: inherit; color: inherit; }
button { cursor: pointer; }
:focus-visible { outline: 2px solid var(--copper); outline-offset: 2px; }
.glass { position: absolute; inset: 0; pointer-events: none; }
.field .face { padding: 0 12px 0 40px; background: var(--sheet); clip-path: polygon(12px 0, 100% 0, 100% 100%, 12px 100%, 0 calc(100% - 12px), 0 12px); mask: radial-gradient(circle at 19px 50%, #0000 5.5px, #000 6.2px); }
.field { width: 272px; font-size: 14px; line-height: 19px; }
.field .ring { left: 10px; top: calc(50% - 9px); width: 18px; height: 18px; }
.field .row { display: flex; align-items: center; gap: 10px; min-height: 40px; }
.field .row + .row { border-top: 1px solid var(--rule); }
.field .opt { flex: 1; min-width: 0; padding: 5px 0; border: 0; background: none; text-align: left; }
.field .opt b, .field .opt span { display: block; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.field .says { padding: 8px 0; }
.field .row .act { margin: 0; }
.field .do { margin: 0; padding: 0 0 8px; }
kbd { padding: 0 5px; border: 1px solid; border-radius: 3px; font: 12px/18px var(--mono); }
.capture { width: min(360px, calc(100vw - 24px)); }
.capture .face { padding: 38px 20px 16px; background: var(--sheet); clip-path: polygon(14px 0, calc(100% - 14px) 0, 100% 14px, 100% 100%, 0 100%, 0 14px); mask: radial-gradient(circle at 50% 20px, #0000 7px, #000 7.7px); }
.capture .ring { left: calc(50% - 11px); top: 9px; width: 22px; height: 22px; }
.capture .cord { left: calc(50% - 5px); bottom: calc(100% - 20px); width: 10px; height: 64px; border-radius: 0 0 4px 4px; }
.lead { font: 650 17px/26px var(--text); margin-bottom: 6px; }
.part { max-width: 100%; padding: 0 2px; border: 0; border-bottom: 1.5px dotted var(--ink); border-radius: 0; background: none; font-weight: 650; }
.do { display: flex; flex-wrap: wrap; gap: 8px; align-items: center; margin-top: 14px; }
.btn { min-height: 32px; padding: 0 12px; border: 1px solid var(--edge); border-radius: 6px; background: var(--sheet); font: 650 14px/20px var(--text); }
.btn.go { background: var(--copper); border-color: var(--copper); color: var(--on-copper); }
.act { margin-left: auto; padding: 4px 0; border: 0; background: none; font: 600 13.5px/20px var(--text); text-decoration: underline 1px var(--edge); text-underline-offset: 3px; }
.wrong { color: var(--crimson); font-weight: 600; }
`;

export type Ask = <R = unknown>(message: PageAsk) => Promise<R | null>;

let withFonts = false;

/** Galtry's own letters, once in each page over which something hangs. They come from the worker: no page's rules stop them. */
async function loadFonts(): Promise<void> {
  const given = (await chrome.runtime.sendMessage({ ask: "fonts" })) as Record<string, string> | null;
  for (const [name, font] of Object.entries(given ?? {})) {
    const bytes = Uint8Array.from(atob(font), (letter) => letter.charCodeAt(0));
    document.fonts.add(await new FontFace(name, bytes.buffer, { weight: "200 800" }).load());
  }
}

export function hang(className: string): { host: HTMLElement; root: ShadowRoot; tag: HTMLElement } {
  const host = document.createElement("lanyard-tag");
  const root = host.attachShadow({ mode: "closed" });
  const style = document.createElement("style");
  style.textContent = LOOK;
  const tag = document.createElement("div");
  tag.className = `tag ${className}`;
  root.append(style, tag);
  document.documentElement.append(host);
  if (!withFonts) void loadFonts().catch(() => undefined);
  withFonts = true;
  return { host, root, tag };
}

export type Child = Node | string;

export function element<K extends keyof HTMLElementTagNameMap>(
  name: K,
  attributes: Partial<Record<string, string>>,
  ...children: Child[]
): HTMLElementTagNameMap[K] {
  const made = document.createElement(name);
  for (const [key, value] of Object.entries(attributes)) if (value !== undefined) made.setAttribute(key, value);
  made.append(...children);
  return made;
}

/** Only what a person really pressed. */
export const pressed = (button: HTMLElement, act: () => void) =>
  button.addEventListener("click", (event) => {
    if (event.isTrusted) act();
  });

let captureTag: HTMLElement | null = null;

/** The large tag at the lower right, on its cord. */
export function hangLarge(role: string, label: string) {
  const { host, tag } = hang("capture");
  host.style.cssText = "position:fixed;right:20px;bottom:20px";
  tag.setAttribute("role", role);
  tag.setAttribute("aria-label", `Lanyard: ${label}`);
  const face = element("div", { class: "face" });
  tag.append(element("span", { class: "cord" }), face, element("span", { class: "ring" }));
  return { host, tag, face };
}

let endedTag: HTMLElement | null = null;

/** The key to this site has ended while its page stood open: said here, as the page itself cannot know. */
export function hangEnded(name: string, says: string): void {
  endedTag?.remove();
  captureTag?.remove();
  captureTag = null;
  const { host, face } = hangLarge("alertdialog", t.yourAccessToHasEnded(name));
  endedTag = host;
  const close = element("button", { class: "btn", type: "button" }, "Close");
  pressed(close, () => host.remove());
  face.append(
    element("p", { class: "lead" }, t.yourAccessTo, element("b", {}, name), t.hasEnded),
    element("p", { class: "small" }, t.lanyardHasRemovedItsSession(says).trim()),
    element("div", { class: "do" }, close),
  );
}

let codeTag: HTMLElement | null = null;

/** Somebody's sign-in waits for a code. It is entered in Lanyard's window: a page can read what is typed over it. */
export function hangCodeAsked(person: string | null, name: string, ask: Ask): void {
  codeTag?.remove();
  const { host, face } = hangLarge("alertdialog", t.aCodeIsNeeded);
  codeTag = host;
  const enter = element("button", { class: "btn go", type: "button" }, t.enterTheCode);
  const close = element("button", { class: "btn", type: "button" }, t.close);
  pressed(enter, () => {
    void ask({ ask: "open-window", entryId: null });
    host.remove();
  });
  pressed(close, () => host.remove());
  face.append(
    element("p", { class: "lead" }, t.isSigningInTo(person), element("b", {}, name)),
    element("p", { class: "small" }, t.theSiteHasSentACode),
    element("div", { class: "do" }, enter, close),
  );
}

let learningTag: HTMLElement | null = null;

/** While the person signs in by hand: what has been seen, and the way to save it. */
export function hangLearning({ name, steps, hosts }: LearningView, ask: Ask): void {
  learningTag?.remove();
  const { host, face } = hangLarge("dialog", t.learnTheSteps);
  learningTag = host;
  const wrong = element("p", { class: "small wrong", role: "alert" });
  const save = element("button", { class: "btn go", type: "button" }, t.saveSteps);
  const cancel = element("button", { class: "btn", type: "button" }, t.cancel);
  const close = () => {
    host.remove();
    learningTag = null;
  };
  pressed(save, async () => {
    save.setAttribute("disabled", "");
    const answer = await ask<{ wrong: string | null }>({ ask: "save-steps" });
    save.removeAttribute("disabled");
    if (answer?.wrong !== null) {
      wrong.textContent = answer?.wrong ?? t.itWasNotSavedTryAgain;
      return;
    }
    const done = element("button", { class: "btn", type: "button" }, t.close);
    pressed(done, close);
    face.replaceChildren(element("p", { role: "status" }, t.stepsSaved), element("div", { class: "do" }, done));
  });
  pressed(cancel, () => {
    void ask({ ask: "stop-learning" });
    close();
  });
  face.append(
    element("p", { class: "lead" }, t.learning, element("b", {}, name)),
    element("p", { class: "small" }, steps > 0 ? t.stepsSeen(steps) : t.signInAsUsual),
    ...(hosts.length > 0 ? [element("p", { class: "small" }, t.alsoGoesOver(hosts.join(", ")))] : []),
    element("div", { class: "do" }, ...(steps > 0 ? [save] : []), cancel),
    wrong,
  );
}

/** After the site has accepted a login: the sentence is the form. */
export function hangCapture(offer: Offer, ask: Ask): void {
  // One that hangs already keeps what was typed into it.
  if (captureTag?.isConnected) return;
  const { host, tag, face } = hangLarge("dialog", t.addThisLogin);
  captureTag = host;
  const close = () => {
    host.remove();
    captureTag = null;
  };
  const wrong = element("p", { class: "small wrong", role: "alert" });
  face.append(
    ...(offer.answer === "new" ? newParts(offer, ask, close, wrong) : changedParts(offer, ask, close, wrong)),
    wrong,
  );
  tag.addEventListener("keydown", (event) => {
    event.stopPropagation();
    if (event.key === "Escape" && event.isTrusted) {
      void ask({ ask: "not-now" });
      close();
    }
  });
}

function newParts(offer: Offer, ask: Ask, close: () => void, wrong: HTMLElement): Child[] {
  const name = element("input", {
    class: "part",
    "aria-label": "Name",
    value: offer.name,
    size: String(Math.max(6, offer.name.length)),
  });
  name.addEventListener("input", () => name.setAttribute("size", String(Math.min(26, Math.max(6, name.value.length)))));
  const vault = element(
    "select",
    { class: "part", "aria-label": t.vault },
    ...offer.vaults.map((one) => element("option", { value: one.id }, one.name)),
  );
  const user = element("input", { class: "part mono", "aria-label": t.userName, value: offer.userName, size: "24" });
  const keep = element("button", { class: "btn go", type: "button" }, t.addLogin);
  const later = element("button", { class: "btn", type: "button" }, t.notNow);
  const never = element("button", { class: "act", type: "button" }, t.neverOnThisSite);
  pressed(keep, async () => {
    keep.setAttribute("disabled", "");
    const answer = await ask<Added>({
      ask: "keep",
      name: name.value,
      vaultId: vault.value,
      userName: user.value,
    });
    keep.removeAttribute("disabled");
    if (answer?.kept) {
      const where = vault.selectedOptions[0]?.textContent ?? "";
      keep.closest(".face")?.replaceChildren(...addedParts(name.value, where, answer, ask, close));
      return;
    }
    wrong.textContent = answer?.message ?? t.itWasNotSavedTryAgain;
  });
  pressed(later, () => {
    void ask({ ask: "not-now" });
    close();
  });
  pressed(never, () => {
    void ask({ ask: "never" });
    close();
  });
  return [
    element("p", { class: "lead" }, t.add, name, t.to, vault),
    element("p", { class: "small soft" }, offer.userName ? t.userName2 : t.userNameIfThereIsOne, user),
    element("div", { class: "do" }, keep, later, never),
  ];
}

/** So long it says where it is; then the page is the person's again. */
const SAID_MS = 12_000;

interface Added {
  kept: boolean;
  message?: string;
  entryId?: string;
  /** Pages whose sign-in steps were kept with it. */
  steps?: number;
}

function addedParts(
  name: string,
  where: string,
  { entryId = "", steps = 0 }: Added,
  ask: Ask,
  close: () => void,
): Child[] {
  const open = element("button", { class: "btn", type: "button" }, t.open);
  const undo = element("button", { class: "btn", type: "button" }, t.undo);
  const says = element(
    "p",
    { role: "status" },
    element("b", {}, name),
    t.isIn(where),
    steps > 0 ? t.withSteps(steps) : "",
  );
  let stays = false;
  setTimeout(() => !stays && close(), SAID_MS);
  pressed(open, () => {
    void ask({ ask: "open-entry", entryId });
    close();
  });
  pressed(undo, async () => {
    stays = true;
    undo.setAttribute("disabled", "");
    const answer = await ask<{ wrong: string | null }>({ ask: "undo-add", entryId });
    says.textContent = answer?.wrong === null ? t.undone : (answer?.wrong ?? t.itWasNotSavedTryAgain);
    open.remove();
    undo.remove();
    setTimeout(close, SAID_MS / 3);
  });
  return [says, element("div", { class: "do" }, open, undo)];
}

function changedParts(offer: Offer, ask: Ask, close: () => void, wrong: HTMLElement): Child[] {
  const which = element(
    "select",
    { class: "part", "aria-label": t.entry },
    ...offer.entries.map((one) => element("option", { value: one.id }, one.name)),
  );
  const update = element("button", { class: "btn go", type: "button" }, t.saveTheNewPassword);
  const later = element("button", { class: "btn", type: "button" }, t.notNow);
  pressed(update, async () => {
    const entry = offer.entries.find((one) => one.id === which.value);
    const answer =
      entry &&
      (await ask<{ kept: boolean; message: string }>({ ask: "update", entryId: entry.id, versionId: entry.versionId }));
    if (answer?.kept) return close();
    wrong.textContent = answer?.message ?? t.itWasNotSavedTryAgain;
  });
  pressed(later, () => {
    void ask({ ask: "not-now" });
    close();
  });
  return [
    element(
      "p",
      { class: "lead" },
      t.newPasswordFor,
      offer.entries.length === 1 ? element("b", {}, offer.entries[0]!.name) : which,
    ),
    element(
      "p",
      { class: "small soft" },
      offer.on === "change-password" ? t.youHaveChangedItHere : t.theSiteAcceptedAPasswordThat,
    ),
    element("div", { class: "do" }, update, later),
  ];
}
