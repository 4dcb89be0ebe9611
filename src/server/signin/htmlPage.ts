/** Reads HTML text into the plain description of a page that `core/signin` understands. */
import { type CheerioAPI, load } from "cheerio";
import { type AnyNode, type Element, isTag } from "domhandler";
import type { PageContainer, PageDescription, PageField, PageForm, PageReading } from "../../core/signin/page";
import { readPage } from "../../core/signin/read";
import { isButton } from "../../core/signin/reading/groups";
import { LOOKS_LIKE_BUTTON, STANDS_FOR_BUTTON } from "../../core/signin/reading/standsFor";
import { groupBy } from "../groupBy";
import { rulings, saysHidden } from "./styleRules";

export interface HtmlPage {
  /** Its selectors are handles: short names that hold for this description only. */
  description: PageDescription;
  $: CheerioAPI;
  /** The CSS selector of what a handle names; matches exactly one element of the source. */
  cssOf: (handle: string | null) => string | null;
  attributeOf: (handle: string, name: string) => string | undefined;
}

/** What a page is for, its parts named by CSS selectors. */
export function readHtml(html: string, url: string): PageReading {
  const { description, cssOf } = describeHtml(html, url);
  const reading = readPage(description);
  return {
    kind: reading.kind,
    confidence: reading.confidence,
    form: cssOf(reading.form),
    userName: cssOf(reading.userName),
    password: cssOf(reading.password),
    oneTimeCode: cssOf(reading.oneTimeCode),
    submit: cssOf(reading.submit),
    newPasswords: reading.newPasswords.flatMap((one) => cssOf(one) ?? []),
  };
}

const isNativeControl = ({ name }: Element): boolean => /^(input|select|textarea|button)$/.test(name);
const isControl = (element: Element): boolean =>
  isNativeControl(element) || element.attribs.role === "textbox" || standsFor(element) !== "nothing";

/** What makes something that is no button stand for one. */
function standsFor(element: Element): PageField["standsFor"] {
  const { name, attribs } = element;
  if (isNativeControl(element) || !STANDS_FOR_BUTTON.test(name)) return "nothing";
  if (attribs.role === "button") return "role";
  const looks = LOOKS_LIKE_BUTTON.test(attribs.class ?? "") || LOOKS_LIKE_BUTTON.test(attribs.id ?? "");
  const leadsNowhere = name === "a" && /^(#.*|javascript:.*|)$/i.test(attribs.href?.trim() ?? "");
  if (leadsNowhere && (attribs.href !== undefined || attribs.onclick !== undefined || looks)) return "script";
  if (name === "a") return attribs.onclick !== undefined ? "script" : looks ? "link" : "nothing";
  if (attribs.onclick === undefined && !looks) return "nothing";
  if (!isShortLeaf(element)) return "nothing";
  return attribs.onclick === undefined ? "look" : "script";
}

/** So few words a button carries. */
const LONGEST_BUTTON_TEXT = 60;

/** A few words and perhaps a picture: no panel that happens to be pressed, none that holds the real button. */
function isShortLeaf(element: Element): boolean {
  let length = 0;
  let many = 0;
  const walk = (node: AnyNode): boolean => {
    if (++many > 12) return false;
    if (node.type === "text") {
      length += node.data.trim().length;
      return length <= LONGEST_BUTTON_TEXT;
    }
    if (!isTag(node)) return true;
    if (node !== element && (isNativeControl(node) || node.name === "a" || node.attribs.role === "button"))
      return false;
    return node.children.every(walk);
  };
  return walk(element) && length > 0;
}
const isInvisible = ({ name, attribs }: Element): boolean =>
  /^(template|noscript|script|style|head|datalist)$/.test(name) ||
  attribs.hidden !== undefined ||
  (name === "dialog" && attribs.open === undefined) ||
  (name === "input" && attribs.type?.toLowerCase() === "hidden");

/** More than any page that is meant for people; browsers themselves nest no deeper. */
const MOST_ELEMENTS = 20_000;
const DEEPEST_ELEMENT = 512;

/** The page holds more than is read. */
export class PageTooLarge extends Error {
  override name = "PageTooLarge";
}

/**
 * Every element, in the order of the source.
 * @throws PageTooLarge
 */
function elementsOf($: CheerioAPI): Element[] {
  const found: Element[] = [];
  const open: { nodes: readonly AnyNode[]; at: number }[] = [{ nodes: $.root().toArray(), at: 0 }];
  for (let level = open.at(-1); level; level = open.at(-1)) {
    const node = level.nodes[level.at++];
    if (!node) {
      open.pop();
      continue;
    }
    if (isTag(node)) found.push(node);
    if (found.length > MOST_ELEMENTS) throw new PageTooLarge(`more than ${MOST_ELEMENTS} elements`);
    if (!("children" in node)) continue;
    if (open.length > DEEPEST_ELEMENT) throw new PageTooLarge(`elements nested more than ${DEEPEST_ELEMENT} deep`);
    open.push({ nodes: node.children, at: 0 });
  }
  return found;
}

/** Elements a visitor does not see: hidden themselves, or within what is. */
function invisibleElements(elements: readonly Element[], hidden: ReadonlySet<AnyNode>): Set<AnyNode> {
  const invisible = new Set<AnyNode>();
  // What an element stands in comes before it.
  for (const element of elements)
    if (hidden.has(element) || (element.parent && invisible.has(element.parent))) invisible.add(element);
  return invisible;
}

/** What is looked up again and again while a page is described. */
interface Around {
  $: CheerioAPI;
  isVisible: (element: Element) => boolean;
  labels: ReadonlyMap<string, readonly Element[]>;
  byId: ReadonlyMap<string, Element>;
  isMasked: (element: Element) => boolean;
  /** A label's own text, worked out once. */
  textOfLabel: (label: AnyNode) => string;
}

export function describeHtml(html: string, url: string): HtmlPage {
  const $ = load(html);
  const elements = elementsOf($);
  const called = (name: string) => elements.filter((element) => element.name === name);
  const invisible = invisibleElements(elements, hiddenElements($, elements));
  const isVisible = (element: Element): boolean => !invisible.has(element);
  const formElements = called("form");
  const formIndex = new Map<AnyNode, number>(formElements.map((form, index) => [form, index]));
  const byId = new Map(
    elements.toReversed().flatMap((one) => (one.attribs.id ? [[one.attribs.id, one] as const] : [])),
  );
  const labelTexts = new Map<AnyNode, string>();
  const masking = maskingClasses($, called("style"));
  const around: Around = {
    $,
    isVisible,
    labels: groupBy(called("label"), (label) => label.attribs.for ?? ""),
    byId,
    isMasked: (element) => isMasked(element, masking),
    textOfLabel: (label) => {
      const known = labelTexts.get(label);
      if (known !== undefined) return known;
      const text = $(label).clone().find("select, option, script, style").remove().end().text();
      labelTexts.set(label, text);
      return text;
    },
  };
  const named = new Map<string, Element>();
  const handle = (element: Element): string => {
    const name = `@${named.size}`;
    named.set(name, element);
    return name;
  };
  const ids = new Map<AnyNode, number>();
  const containers: PageContainer[] = [];
  const containerId = (node: Element): number => {
    const known = ids.get(node);
    if (known !== undefined) return known;
    ids.set(node, containers.length);
    containers.push({
      hints: hintsOf(node),
      text: `${introduction($, node, isVisible)} | ${visibleText(node, isVisible, 1500)}`,
      links: linksOf($, node, isVisible),
    });
    return containers.length - 1;
  };
  const controls = elements
    .filter((element) => isControl(element) && !isInert(element))
    .map((element) => ({ element, form: ownerForm(element, formIndex, byId), field: fieldOf(around, element) }));
  // What stands around a form matters where nothing in it could send it.
  const withButton = new Set(controls.flatMap(({ form, field }) => (field.visible && isButton(field) ? [form] : [])));
  const fields = controls.map(
    ({ element, form, field }): PageField => ({
      selector: handle(element),
      ...field,
      form,
      within:
        isVisible(element) && (form === null || (field.visible && !withButton.has(form)))
          ? ancestors(element).map(containerId)
          : [],
    }),
  );
  const forms = formElements.map(
    (element): PageForm => ({
      selector: handle(element),
      action: element.attribs.action ?? "",
      method: methodOf(element.attribs.method),
      enctype: (element.attribs.enctype ?? "").toLowerCase(),
      hints: hintsOf(element),
      text: `${introduction($, element, isVisible)} | ${visibleText(element, isVisible, 1500)}`,
      links: linksOf($, element, isVisible),
      visible: isVisible(element),
    }),
  );
  return {
    description: {
      url,
      base: called("base").find((base) => base.attribs.href !== undefined)?.attribs.href ?? null,
      title: $(called("title").slice(0, 1)).text().trim(),
      forms,
      fields,
      containers,
    },
    $,
    cssOf: (name) => (name === null ? null : selectorOf($, named.get(name)!)),
    attributeOf: (name, attribute) => named.get(name)?.attribs[attribute],
  };
}

function isInert(element: Element): boolean {
  for (let at: AnyNode | null = element.parent; at; at = at.parent)
    if (at.type === "tag" && (at.name === "template" || at.name === "noscript")) return true;
  return false;
}

function methodOf(method: string | undefined): PageForm["method"] {
  const lower = (method ?? "get").toLowerCase();
  return lower === "post" || lower === "dialog" ? lower : "get";
}

function ownerForm(
  element: Element,
  forms: ReadonlyMap<AnyNode, number>,
  byId: ReadonlyMap<string, Element>,
): number | null {
  const named = element.attribs.form;
  if (named) return forms.get(byId.get(named)!) ?? null;
  for (let at: AnyNode | null = element.parent; at; at = at.parent) {
    const index = forms.get(at);
    if (index !== undefined) return index;
  }
  return null;
}

function fieldOf(around: Around, element: Element): Omit<PageField, "selector" | "form" | "within"> {
  const { $ } = around;
  const visible = around.isVisible(element);
  const node = $(element);
  const control =
    element.name === "input" || element.name === "select" || element.name === "textarea"
      ? element.name
      : element.attribs.role === "textbox"
        ? "input"
        : "button";
  const type =
    control === "button"
      ? element.name === "button"
        ? (element.attribs.type ?? "submit").toLowerCase()
        : "button"
      : control === "input"
        ? (element.attribs.type ?? "text").toLowerCase()
        : control;
  const maxLength = Number(element.attribs.maxlength);
  return {
    control,
    type: KNOWN_TYPES.has(type) || control !== "input" ? type : "text",
    name: element.attribs.name ?? "",
    id: element.attribs.id ?? "",
    autocomplete: (element.attribs.autocomplete ?? "").toLowerCase(),
    placeholder: element.attribs.placeholder ?? "",
    label: labelOf(around, element, control),
    hints: [
      element.attribs.class,
      element.attribs["data-testid"],
      element.attribs["data-test"],
      element.attribs["aria-hidden"] === "true" || element.attribs.role === "presentation" ? "aria-hidden" : "",
    ]
      .filter(Boolean)
      .join(" "),
    inputMode: (element.attribs.inputmode ?? "").toLowerCase(),
    maxLength: Number.isInteger(maxLength) && maxLength > 0 ? maxLength : null,
    value:
      type === "password"
        ? ""
        : control === "textarea"
          ? node.text()
          : (element.attribs.value ?? (type === "checkbox" || type === "radio" ? "on" : "")),
    checked: element.attribs.checked !== undefined,
    options:
      control === "select"
        ? node
            .find("option")
            .toArray()
            .map((option) => ({
              value: option.attribs.value ?? $(option).text().trim(),
              text: $(option).text().trim(),
              selected: option.attribs.selected !== undefined,
            }))
        : [],
    visible: visible && type !== "hidden",
    disabled: element.attribs.disabled !== undefined || node.closest("fieldset[disabled]").length > 0,
    readOnly: element.attribs.readonly !== undefined,
    required: element.attribs.required !== undefined,
    masked: control === "input" && around.isMasked(element),
    standsFor: standsFor(element),
  };
}

const KNOWN_TYPES = new Set([
  "text",
  "password",
  "email",
  "tel",
  "number",
  "url",
  "search",
  "hidden",
  "checkbox",
  "radio",
  "submit",
  "image",
  "button",
  "reset",
  "file",
  "date",
  "month",
  "week",
  "time",
  "datetime-local",
  "color",
  "range",
]);

/** So many elements are looked at that name one field. */
const MOST_LABELLING = 10;

function labelOf(around: Around, element: Element, control: string): string {
  const { $, byId } = around;
  const node = $(element);
  const parts = [
    element.attribs["aria-label"],
    ...(element.attribs["aria-labelledby"] ?? "")
      .split(/\s+/)
      .filter(Boolean)
      .slice(0, MOST_LABELLING)
      .flatMap((id) => (byId.has(id) ? [around.textOfLabel(byId.get(id)!)] : [])),
    element.attribs.title,
  ];
  const type = (element.attribs.type ?? "").toLowerCase();
  if (control === "button" || ["submit", "button", "image", "reset"].includes(type))
    parts.push(node.text(), element.attribs.value, element.attribs.alt, node.find("img").attr("alt"));
  else parts.push(...labelsFor(around, element));
  return parts.filter(Boolean).join(" ").replace(/\s+/g, " ").trim();
}

function labelsFor(around: Around, element: Element): string[] {
  const { $, labels } = around;
  const id = element.attribs.id;
  const direct = (id && labels.get(id)) || [];
  const within = $(element).closest("label").toArray();
  const texts = [...new Set([...direct, ...within])].slice(0, MOST_LABELLING).map(around.textOfLabel);
  if (texts.length > 0) return texts;
  return element.attribs.placeholder || element.attribs["aria-label"] ? [] : [textBefore($, element)];
}

/** So far back text is looked for that introduces something. */
const MOST_BEFORE = 20;

/** Without a label: the text just before the field, or in the table cell before its own. */
function textBefore($: CheerioAPI, element: Element): string {
  for (let at: AnyNode | null = element, up = 0; at && up < 3; at = at.parent, up++) {
    for (let before = at.prev, back = 0; before && back < MOST_BEFORE; before = before.prev, back++) {
      if (before.type === "text" && before.data.trim()) return before.data.trim().slice(-80);
      if (before.type !== "tag") continue;
      if (
        /^(input|select|textarea|button|form|h[1-6]|legend)$/.test(before.name) ||
        $(before).find("input:not([type=hidden]), select, textarea, button").length > 0
      )
        return "";
      const text = $(before).text().trim();
      if (text && before.name !== "script" && before.name !== "style") return text.length > 80 ? "" : text;
    }
    if (at.type === "tag" && /^(form|body|fieldset)$/.test(at.name)) break;
  }
  return "";
}

function hintsOf(element: Element): string {
  return ["id", "name", "class", "role", "aria-label", "data-testid"]
    .map((name) => element.attribs[name] ?? "")
    .filter(Boolean)
    .join(" ");
}

function visibleText(element: Element, isVisible: (element: Element) => boolean, most: number): string {
  const pieces: string[] = [];
  // White space is folded at the end: twice as much is surely enough.
  let left = most * 2;
  const put = (text: string) => {
    pieces.push(text);
    left -= text.length;
  };
  const walk = (node: AnyNode) => {
    if (left <= 0) return;
    if (node.type === "text") put(node.data.replace(/\s+/g, " "));
    else if (
      node.type === "tag" &&
      !/^(script|style|template|noscript|option|select|button|label|textarea|a)$/.test(node.name) &&
      isVisible(node)
    ) {
      node.children.forEach(walk);
      put(" | ");
    }
  };
  element.children.forEach(walk);
  return pieces.join("").replace(/\s+/g, " ").slice(0, most);
}

/** What stands before an element to introduce it: the text beside it, and a heading within its containers. */
function introduction($: CheerioAPI, element: Element, isVisible: (element: Element) => boolean): string {
  const pieces: string[] = [];
  for (let at: AnyNode | null = element, up = 0; at && up < 4; at = at.parent, up++) {
    for (let before = at.prev, back = 0; before && back < MOST_BEFORE * 3; before = before.prev, back++) {
      if (before.type !== "tag") continue;
      if (before.name === "form" || $(before).find("form, input:not([type=hidden]), textarea").length > 0)
        return pieces.join("");
      if (!isVisible(before)) continue;
      if (up === 0 && pieces.join("").length < 300) pieces.unshift(` | ${visibleText(before, isVisible, 200)}`);
      const heading = /^h[1-6]$|^legend$/.test(before.name) ? $(before) : $(before).find("h1, h2, h3, h4").last();
      const first = heading.get(0);
      if (first && isVisible(first as Element)) return ` | ${heading.text().trim()}${pieces.join("")}`;
    }
    if (at.type === "tag" && at.name === "body") break;
  }
  return pieces.join("");
}

/** The most that is looked at of links beside a form. */
const MOST_LINK_TEXT = 300;

/** Text of the links within an element, and of those that stand beside it where no other form does. */
function linksOf($: CheerioAPI, element: Element, isVisible: (element: Element) => boolean): string {
  const pieces: string[] = [];
  let left = MOST_LINK_TEXT;
  const collect = (from: Element) => {
    for (const link of $(from).find("a").toArray()) {
      if (left <= 0) return;
      if (!isVisible(link) || standsFor(link) !== "nothing") continue;
      const text = $(link).text().replace(/\s+/g, " ").trim();
      pieces.push(text);
      left -= text.length + 3;
    }
  };
  collect(element);
  for (let at: Element = element, up = 0; up < 2; up++) {
    const parent = at.parent;
    if (!parent || !isTag(parent) || parent.name === "body") break;
    const beside = parent.children.filter((one): one is Element => isTag(one) && one !== at);
    if (beside.length > MOST_BEFORE) break;
    if (beside.some((one) => one.name === "form" || $(one).find("form, input:not([type=hidden])").length > 0)) break;
    for (const one of beside) {
      if (one.name === "a" && isVisible(one)) pieces.push($(one).text().replace(/\s+/g, " ").trim());
      else collect(one);
    }
    at = parent;
  }
  return pieces.join(" | ").slice(0, MOST_LINK_TEXT);
}

const MASKED = /-webkit-text-security\s*:\s*(?!none)/i;

/** Classes, ids and names by which the page's own style sheets put dots in place of what is typed. */
function maskingClasses($: CheerioAPI, sheets: readonly Element[]): ReadonlySet<string> {
  const found = new Set<string>();
  for (const sheet of sheets)
    for (const [, selector = "", body = ""] of $(sheet)
      .text()
      .slice(0, 200_000)
      .matchAll(/([^{}]{1,400})\{([^{}]{0,2000})\}/g))
      if (MASKED.test(body)) for (const [name] of selector.matchAll(/[.#][\w-]+/g)) found.add(name);
  return found;
}

function isMasked({ attribs }: Element, masking: ReadonlySet<string>): boolean {
  if (MASKED.test(attribs.style ?? "")) return true;
  if (masking.size === 0) return false;
  return masking.has(`#${attribs.id}`) || (attribs.class ?? "").split(/\s+/).some((name) => masking.has(`.${name}`));
}

function ancestors(element: Element): Element[] {
  const found: Element[] = [];
  for (let at: AnyNode | null = element.parent; at; at = at.parent)
    if (at.type === "tag" && at.name !== "html") found.unshift(at);
  return found;
}

/** Elements that a visitor does not see: by attribute, inline style, or a rule of the page's own style sheets. */
function hiddenElements($: CheerioAPI, elements: readonly Element[]): Set<AnyNode> {
  const hidden = new Set<AnyNode>(elements.filter(isInvisible));
  for (const { name, attribs, children } of elements)
    if (name === "details" && attribs.open === undefined)
      for (const child of children) if (isTag(child) && child.name !== "summary") hidden.add(child);
  const sheets = elements
    .filter(({ name, attribs }) => name === "style" && !/print/.test(attribs.media ?? ""))
    .map((sheet) => $(sheet).text());
  const ruled = rulings(sheets, elements);
  // A page that hides all of itself is shown by a script, once it is in no stranger's frame: nobody serves an empty page.
  const isWhole = ({ name }: Element) => name === "html" || name === "body";
  for (const [element, { hides }] of ruled) if (hides && !isWhole(element)) hidden.add(element);
  for (const element of elements) {
    const says = saysHidden(element.attribs.style ?? "");
    if (says === true && !isWhole(element)) hidden.add(element);
    else if (says === false && ruled.get(element)?.hides) hidden.delete(element);
  }
  return hidden;
}

const cssString = (text: string) => text.replace(/["\\]/g, "\\$&").replace(/\n/g, "\\a ");

/** A selector that matches exactly this element: by id, by name, else by its place. */
function selectorOf($: CheerioAPI, element: Element): string {
  const tag = element.name;
  const id = element.attribs.id;
  const name = element.attribs.name;
  const candidates = [
    id && (/^[A-Za-z_][\w-]*$/.test(id) ? `#${id}` : `[id="${cssString(id)}"]`),
    name && `${tag}[name="${cssString(name)}"]`,
    tag,
    element.attribs.type && `${tag}[type="${cssString(element.attribs.type!)}"]`,
  ];
  for (const candidate of candidates) if (candidate && $(candidate).length === 1) return candidate;
  return pathOf($, element);
}

function pathOf($: CheerioAPI, element: Element): string {
  const steps: string[] = [];
  for (let at: Element | null = element; at && at.name !== "html"; at = at.parent?.type === "tag" ? at.parent : null) {
    const id = $(at).attr("id");
    if (at !== element && id && /^[A-Za-z_][\w-]*$/.test(id) && $(`#${id}`).length === 1) {
      steps.unshift(`#${id}`);
      break;
    }
    const place = $(at).prevAll(at.name).length + 1;
    steps.unshift(`${at.name}:nth-of-type(${place})`);
  }
  return steps.join(" > ");
}
