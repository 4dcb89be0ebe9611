/** Reads the live page into the plain description that `core/signin` understands. */

import type { PageContainer, PageDescription, PageField, PageForm } from "../../src/core/signin/page";
import { isButton } from "../../src/core/signin/reading/groups";
import { LOOKS_LIKE_BUTTON, STANDS_FOR_BUTTON } from "../../src/core/signin/reading/standsFor";

const NATIVE = "input, select, textarea, button";
/** Native controls, and what may stand for a button; `standsFor` says whether it does. */
const CONTROLS = `${NATIVE}, [role=button], [role=textbox], [onclick], a[href^="#"], a[href^="javascript:"], a:not([href]), [class*=btn], [class*=button], [class*=submit], [class*=Btn], [class*=Button], [class*=Submit], [id*=btn], [id*=button], [id*=submit], [id*=Btn], [id*=Button], [id*=Submit]`;
/** More than any form has: what else stands for a button is left out. */
const MOST_STANDING = 400;

export interface LivePage {
  description: PageDescription;
  elementOf: (selector: string | null) => HTMLElement | null;
}

/** @param all also a page on which nothing can be filled in */
export function describePage(root: Document = document, all = false): LivePage {
  const elements = new Map<string, HTMLElement>();
  const roots = rootsOf(root);
  // Most pages ask for nothing: there the rest is spared.
  if (!all && !roots.some((one) => one.querySelector(FILLED_IN)))
    return { description: emptyPage(root), elementOf: () => null };
  const formElements = roots.flatMap((one) => [...one.querySelectorAll("form")]);
  const ids = new Map<Element, number>();
  const containers: PageContainer[] = [];
  const containerId = (node: Element): number => {
    const known = ids.get(node);
    if (known !== undefined) return known;
    ids.set(node, containers.length);
    containers.push({
      hints: hintsOf(node),
      text: `${introduction(node)} | ${textOf(node)}`,
      links: linksOf(node),
    });
    return containers.length - 1;
  };
  let counter = 0;
  const name = (element: HTMLElement): string => {
    const selector = `@${counter++}`;
    elements.set(selector, element);
    return selector;
  };
  const forms = formElements.map(
    (form): PageForm => ({
      selector: name(form),
      action: form.getAttribute("action") ?? "",
      method: (form.getAttribute("method") ?? "get").toLowerCase() === "post" ? "post" : "get",
      enctype: form.enctype,
      hints: hintsOf(form),
      text: `${introduction(form)} | ${textOf(form)}`,
      links: linksOf(form),
      visible: isVisible(form),
    }),
  );
  const controls = roots.flatMap(controlsOf).map((element) => {
    const owner = "form" in element ? (element as HTMLInputElement).form : element.closest("form");
    const form = owner ? formElements.indexOf(owner) : -1;
    return { element, form: form < 0 ? null : form, field: fieldOf(element, name(element)) };
  });
  // What stands around a form matters where nothing in it could send it.
  const withButton = new Set(controls.flatMap(({ form, field }) => (field.visible && isButton(field) ? [form] : [])));
  const fields = controls.map(
    ({ element, form, field }): PageField => ({
      ...field,
      form,
      within: form === null || (field.visible && !withButton.has(form)) ? ancestors(element).map(containerId) : [],
    }),
  );
  return {
    description: {
      url: location.href,
      base: root.querySelector("base[href]")?.getAttribute("href") ?? null,
      title: root.title,
      forms,
      fields,
      containers,
    },
    elementOf: (selector) => (selector === null ? null : (elements.get(selector) ?? null)),
  };
}

const FILLED_IN = "input:not([type=hidden]), textarea, [role=textbox]";

/** A page in which nothing can be filled in. */
export const emptyPage = ({ title }: { title: string }): PageDescription => ({
  ...{ url: location.href, base: null, title },
  ...{ forms: [], fields: [], containers: [] },
});

/** More shadow trees than a page for signing in is made of. */
const MOST_ROOTS = 60;

/** The page, and the shadow trees of its own elements, open or closed: what a person sees in them is part of the page. */
function rootsOf(page: Document): (Document | ShadowRoot)[] {
  const found: (Document | ShadowRoot)[] = [page];
  for (let at = 0; at < found.length && found.length < MOST_ROOTS; at++)
    for (const element of ownElements(found[at]!)) {
      // Lanyard's own tag is not the page.
      if (element.localName === "lanyard-tag") continue;
      const shadow = shadowOf(element);
      if (shadow) found.push(shadow);
    }
  return found;
}

/** Open or closed, as each browser lets an extension ask. */
function shadowOf(element: HTMLElement & { openOrClosedShadowRoot?: ShadowRoot | null }): ShadowRoot | null {
  return (
    globalThis.chrome?.dom?.openOrClosedShadowRoot?.(element) ?? element.openOrClosedShadowRoot ?? element.shadowRoot
  );
}

/** Elements of a page's own making, by the hyphen in their names: only their shadow trees matter here. */
function ownElements(root: Document | ShadowRoot): HTMLElement[] {
  if (!(root instanceof Document))
    return [...root.querySelectorAll<HTMLElement>("*")].filter(({ localName }) => localName.includes("-"));
  // No selector can say it, and to look at each of thousands of elements takes milliseconds in every page.
  const found = root.evaluate("//*[contains(name(), '-')]", root, null, XPathResult.ORDERED_NODE_SNAPSHOT_TYPE);
  return Array.from({ length: found.snapshotLength }, (_, at) => found.snapshotItem(at)).filter(
    (node): node is HTMLElement => node instanceof HTMLElement,
  );
}

function controlsOf(root: Document | ShadowRoot): HTMLElement[] {
  let standing = 0;
  return [...root.querySelectorAll<HTMLElement>(CONTROLS)].filter(
    (element) =>
      element.matches(`${NATIVE}, [role=textbox]`) || (standsFor(element) !== "nothing" && ++standing <= MOST_STANDING),
  );
}

/** What makes something that is no button stand for one. */
function standsFor(element: HTMLElement): PageField["standsFor"] {
  if (element.matches(NATIVE) || !STANDS_FOR_BUTTON.test(element.localName)) return "nothing";
  if (element.getAttribute("role") === "button") return "role";
  const looks = LOOKS_LIKE_BUTTON.test(element.getAttribute("class") ?? "") || LOOKS_LIKE_BUTTON.test(element.id);
  const acts = element.hasAttribute("onclick");
  if (element.localName === "a") {
    const address = element.getAttribute("href");
    if (/^(#.*|javascript:.*|)$/i.test(address?.trim() ?? "") && (address !== null || acts || looks)) return "script";
    return acts ? "script" : looks ? "link" : "nothing";
  }
  if (!acts && !looks) return "nothing";
  const text = element.textContent?.trim() ?? "";
  const short = text !== "" && text.length <= 60 && element.querySelector(`${NATIVE}, a, [role=button]`) === null;
  return !short ? "nothing" : acts ? "script" : "look";
}

/** Text of the links within an element, and of those that stand beside it where no other form does. */
function linksOf(element: Element): string {
  const within = (from: Element) => [...from.querySelectorAll("a")].slice(0, 40);
  const links = within(element);
  for (let at = element, up = 0; up < 2; up++) {
    const parent = at.parentElement;
    if (!parent || parent === document.body) break;
    const beside = [...parent.children].filter((one) => one !== at);
    const others = "form, input:not([type=hidden])";
    if (beside.length > 20 || beside.some((one) => one.matches(others) || one.querySelector(others))) break;
    links.push(...beside.flatMap((one) => (one instanceof HTMLAnchorElement ? [one] : within(one))));
    at = parent;
  }
  return links
    .filter((link) => standsFor(link) === "nothing" && link.checkVisibility())
    .map((link) => link.textContent?.replace(/\s+/g, " ").trim() ?? "")
    .join(" | ")
    .slice(0, 300);
}

function fieldOf(element: HTMLElement, selector: string): Omit<PageField, "form" | "within"> {
  const input = element as HTMLInputElement;
  const control =
    element instanceof HTMLInputElement
      ? "input"
      : element instanceof HTMLSelectElement
        ? "select"
        : element instanceof HTMLTextAreaElement
          ? "textarea"
          : element.getAttribute("role") === "textbox"
            ? "input"
            : "button";
  const type =
    control === "button"
      ? element instanceof HTMLButtonElement
        ? element.type
        : "button"
      : control === "input"
        ? (input.type ?? "text")
        : control;
  return {
    selector,
    control,
    type,
    name: element.getAttribute("name") ?? "",
    id: element.id,
    autocomplete: (element.getAttribute("autocomplete") ?? "").toLowerCase(),
    placeholder: element.getAttribute("placeholder") ?? "",
    label: labelOf(element, control, type),
    hints: `${element.className} ${element.dataset.testid ?? ""} ${element.getAttribute("aria-hidden") === "true" || element.role === "presentation" ? "aria-hidden" : ""}`,
    inputMode: element.inputMode ?? "",
    maxLength: input.maxLength > 0 ? input.maxLength : null,
    value: type === "password" ? "" : (input.value ?? ""),
    checked: input.checked ?? false,
    options: [],
    visible: type !== "hidden" && isVisible(element),
    disabled: input.disabled ?? false,
    readOnly: input.readOnly ?? false,
    required: input.required ?? false,
    masked: control === "input" && type !== "password" && isMasked(element),
    standsFor: standsFor(element),
  };
}

const isMasked = (element: HTMLElement): boolean =>
  !["", "none"].includes(getComputedStyle(element).getPropertyValue("-webkit-text-security"));

function labelOf(element: HTMLElement, control: string, type: string): string {
  const described = (element.getAttribute("aria-labelledby") ?? "")
    .split(/\s+/)
    .filter(Boolean)
    .map((id) => (element.getRootNode() as Document | ShadowRoot).getElementById(id)?.textContent ?? "");
  const labels = [...((element as HTMLInputElement).labels ?? [])].map((label) => label.textContent ?? "");
  const own =
    control === "button" || type === "submit" || type === "button"
      ? [element.textContent ?? "", (element as HTMLInputElement).value ?? ""]
      : labels.length > 0 || element.getAttribute("placeholder") || element.getAttribute("aria-label")
        ? labels
        : [textBefore(element)];
  return [element.getAttribute("aria-label") ?? "", ...described, element.title, ...own]
    .join(" ")
    .replace(/\s+/g, " ")
    .trim()
    .slice(0, 300);
}

/** Without a label: the text just before the field, or in the table cell before its own. */
function textBefore(element: HTMLElement): string {
  for (let at: Node | null = element, up = 0; at && up < 3; at = at.parentNode, up++) {
    for (let before: Node | null = at.previousSibling; before; before = before.previousSibling) {
      const text = before.textContent?.trim() ?? "";
      if (before.nodeType === Node.TEXT_NODE && text) return text.slice(-80);
      if (!(before instanceof Element)) continue;
      const closed = "input:not([type=hidden]), select, textarea, button, form, h1, h2, h3, h4, h5, h6, legend";
      if (before.matches(closed) || before.querySelector(closed)) return "";
      if (text && !before.matches("script, style")) return text.length > 80 ? "" : text;
    }
    if (at instanceof Element && at.matches("form, body, fieldset")) break;
  }
  return "";
}

export function isVisible(element: Element): boolean {
  if (!element.checkVisibility({ opacityProperty: true, visibilityProperty: true })) return false;
  const box = element.getBoundingClientRect();
  return box.width > 2 && box.height > 2 && box.right + scrollX > 0 && box.bottom + scrollY > 0;
}

const hintsOf = (element: Element) =>
  `${element.id} ${element.getAttribute("name") ?? ""} ${element.className} ${element.getAttribute("aria-label") ?? ""}`;
/** Visible text without that of labels, buttons and links: those speak of other things. */
function textOf(element: Element): string {
  const pieces: string[] = [];
  const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT, (node) => {
    const parent = node.parentElement;
    return !parent ||
      parent.closest("script, style, template, noscript, option, select, button, label, textarea, a") ||
      !parent.checkVisibility()
      ? NodeFilter.FILTER_REJECT
      : NodeFilter.FILTER_ACCEPT;
  });
  for (let length = 0; length < 1500 && walker.nextNode(); ) {
    const text = walker.currentNode.textContent ?? "";
    pieces.push(text);
    length += text.length;
  }
  return pieces.join(" | ").replace(/\s+/g, " ").slice(0, 1500);
}

/** What stands before an element to introduce it: the text beside it, and a heading within its containers. */
function introduction(element: Element): string {
  const pieces: string[] = [];
  for (let at: Element | null = element, up = 0; at && up < 4; at = at.parentElement, up++)
    for (let before = at.previousElementSibling; before; before = before.previousElementSibling) {
      const others = "form, input:not([type=hidden]), textarea";
      if (before.matches(others) || before.querySelector(others)) return pieces.join("");
      if (!before.checkVisibility()) continue;
      if (up === 0 && pieces.join("").length < 300) pieces.unshift(` | ${textOf(before).slice(0, 200)}`);
      const heading = before.matches("h1, h2, h3, h4, h5, h6, legend")
        ? before
        : before.querySelector("h1, h2, h3, h4");
      if (heading) return ` | ${heading.textContent ?? ""}${pieces.join("")}`;
    }
  return pieces.join("");
}

function ancestors(element: Element): Element[] {
  const found: Element[] = [];
  for (let at = element.parentElement; at && at !== document.documentElement; at = at.parentElement) found.unshift(at);
  return found;
}
