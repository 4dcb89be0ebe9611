/** Reads HTML text into the plain description of a page that `core/signin` understands. */
import { type CheerioAPI, load } from "cheerio";
import { type AnyNode, type Element, isTag } from "domhandler";
import postcss from "postcss";
import type { PageContainer, PageDescription, PageField, PageForm, PageReading } from "../../core/signin/page";
import { readPage } from "../../core/signin/read";
import { groupBy } from "../groupBy";

export interface HtmlPage {
  /** Its selectors are handles: short names that hold for this description only. */
  description: PageDescription;
  $: CheerioAPI;
  /** The CSS selector of what a handle names; matches exactly one element of the source. */
  cssOf: (handle: string | null) => string | null;
}

/** What a page is for, its parts named by CSS selectors. */
export function readHtml(html: string, url: string): PageReading {
  const { description, cssOf } = describeHtml(html, url);
  const reading = readPage(description);
  return {
    kind: reading.kind,
    form: cssOf(reading.form),
    userName: cssOf(reading.userName),
    password: cssOf(reading.password),
    oneTimeCode: cssOf(reading.oneTimeCode),
    submit: cssOf(reading.submit),
  };
}

const isControl = ({ name, attribs }: Element): boolean =>
  /^(input|select|textarea|button)$/.test(name) ||
  /^(button|textbox)$/.test(attribs.role ?? "") ||
  (name === "a" && (attribs.onclick !== undefined || attribs.href === "#" || /^javascript:/.test(attribs.href ?? "")));
const isInvisible = ({ name, attribs }: Element): boolean =>
  /^(template|noscript|script|style|head|datalist)$/.test(name) ||
  attribs.hidden !== undefined ||
  (name === "dialog" && attribs.open === undefined) ||
  (name === "input" && attribs.type?.toLowerCase() === "hidden");

/** Every element, in the order of the source. */
function elementsOf($: CheerioAPI): Element[] {
  const found: Element[] = [];
  const walk = (node: AnyNode) => {
    if (isTag(node)) found.push(node);
    if ("children" in node) node.children.forEach(walk);
  };
  $.root().each((_, root) => walk(root));
  return found;
}

export function describeHtml(html: string, url: string): HtmlPage {
  const $ = load(html);
  const elements = elementsOf($);
  const called = (name: string) => elements.filter((element) => element.name === name);
  const hidden = hiddenElements($, elements);
  const isVisible = (element: Element): boolean => {
    for (let at: AnyNode | null = element; at; at = at.parent) if (hidden.has(at)) return false;
    return true;
  };
  const formElements = called("form");
  const labels = groupBy(called("label"), (label) => label.attribs.for ?? "");
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
    });
    return containers.length - 1;
  };
  const fields = elements
    .filter((element) => isControl(element) && !isInert(element))
    .map((element): PageField => {
      const form = ownerForm($, element, formElements);
      return {
        selector: handle(element),
        ...fieldOf($, element, isVisible(element), labels),
        form,
        within: form === null && isVisible(element) ? ancestors(element).map(containerId) : [],
      };
    });
  const forms = formElements.map(
    (element): PageForm => ({
      selector: handle(element),
      action: element.attribs.action ?? "",
      method: methodOf(element.attribs.method),
      enctype: (element.attribs.enctype ?? "").toLowerCase(),
      hints: hintsOf(element),
      text: `${introduction($, element, isVisible)} | ${visibleText(element, isVisible, 1500)}`,
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
  };
}

type Labels = ReadonlyMap<string, readonly Element[]>;

function isInert(element: Element): boolean {
  for (let at: AnyNode | null = element.parent; at; at = at.parent)
    if (at.type === "tag" && (at.name === "template" || at.name === "noscript")) return true;
  return false;
}

function methodOf(method: string | undefined): PageForm["method"] {
  const lower = (method ?? "get").toLowerCase();
  return lower === "post" || lower === "dialog" ? lower : "get";
}

function ownerForm($: CheerioAPI, element: Element, forms: Element[]): number | null {
  const named = element.attribs.form;
  const index = forms.findIndex((form) => (named ? form.attribs.id === named : contains(form, element)));
  return index < 0 ? null : index;
}

function contains(container: Element, element: Element): boolean {
  for (let at: AnyNode | null = element.parent; at; at = at.parent) if (at === container) return true;
  return false;
}

function fieldOf(
  $: CheerioAPI,
  element: Element,
  visible: boolean,
  labels: Labels,
): Omit<PageField, "selector" | "form" | "within"> {
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
    label: labelOf($, element, control, labels),
    hints: [
      element.attribs.class,
      element.attribs["data-testid"],
      element.attribs["data-test"],
      element.attribs["aria-hidden"] === "true" ? "aria-hidden" : "",
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

function labelOf($: CheerioAPI, element: Element, control: string, labels: Labels): string {
  const node = $(element);
  const parts = [
    element.attribs["aria-label"],
    ...(element.attribs["aria-labelledby"] ?? "")
      .split(/\s+/)
      .filter(Boolean)
      .map((id) => $(`[id="${cssString(id)}"]`).text()),
    element.attribs.title,
  ];
  const type = (element.attribs.type ?? "").toLowerCase();
  if (control === "button" || ["submit", "button", "image", "reset"].includes(type))
    parts.push(node.text(), element.attribs.value, element.attribs.alt, node.find("img").attr("alt"));
  else parts.push(...labelsFor($, element, labels));
  return parts.filter(Boolean).join(" ").replace(/\s+/g, " ").trim();
}

function labelsFor($: CheerioAPI, element: Element, labels: Labels): string[] {
  const id = element.attribs.id;
  const direct = (id && labels.get(id)) || [];
  const around = $(element).closest("label").toArray();
  const texts = [...new Set([...direct, ...around])].map((label) =>
    $(label).clone().find("select, option, script, style").remove().end().text(),
  );
  if (texts.length > 0) return texts;
  return element.attribs.placeholder || element.attribs["aria-label"] ? [] : [textBefore($, element)];
}

/** Without a label: the text just before the field, or in the table cell before its own. */
function textBefore($: CheerioAPI, element: Element): string {
  for (let at: AnyNode | null = element, up = 0; at && up < 3; at = at.parent, up++) {
    for (let before = at.prev; before; before = before.prev) {
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
  const walk = (node: AnyNode) => {
    if (node.type === "text") pieces.push(node.data);
    else if (
      node.type === "tag" &&
      !/^(script|style|template|noscript|option|select|button|label|textarea|a)$/.test(node.name) &&
      isVisible(node)
    ) {
      node.children.forEach(walk);
      pieces.push(" | ");
    }
  };
  element.children.forEach(walk);
  return pieces.join("").replace(/\s+/g, " ").slice(0, most);
}

/** What stands before an element to introduce it: the text beside it, and a heading within its containers. */
function introduction($: CheerioAPI, element: Element, isVisible: (element: Element) => boolean): string {
  const pieces: string[] = [];
  for (let at: AnyNode | null = element, up = 0; at && up < 4; at = at.parent, up++) {
    for (let before = at.prev; before; before = before.prev) {
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
  const ruled = new Map<AnyNode, { hides: boolean; weight: number }>();
  for (const rule of rulesOf($, elements)) {
    let found: AnyNode[] = [];
    try {
      found = $(rule.selector).toArray();
    } catch {
      continue;
    }
    for (const element of found) {
      const known = ruled.get(element);
      if (!known || rule.weight >= known.weight) ruled.set(element, rule);
    }
  }
  for (const [element, { hides }] of ruled) if (hides) hidden.add(element);
  for (const element of elements) {
    const says = saysHidden(element.attribs.style ?? "");
    if (says === true) hidden.add(element);
    else if (says === false && ruled.get(element)?.hides) hidden.delete(element);
  }
  return hidden;
}

/** true: hides; false: shows; null: says nothing about it. */
function saysHidden(style: string): boolean | null {
  const text = style.toLowerCase().replace(/\s+/g, "");
  if (
    /(^|;)display:none|(^|;)visibility:(hidden|collapse)|(^|;)opacity:0(\.0+)?(;|!|$)|(^|;)(left|top|right|text-indent|margin-left|margin-top|inset):-\d{3,}|(^|;)clip:rect\(0|(^|;)clip-path:inset\((50|100)%|(^|;)transform:scale\(0\)/.test(
      text,
    )
  )
    return true;
  if (/(^|;)position:absolute/.test(text) && /(^|;)(width|height):[01](px)?(;|!|$)/.test(text)) return true;
  if (/(^|;)(height|max-height|width):0(px)?(;|!|$)/.test(text) && /overflow:hidden/.test(text)) return true;
  if (/(^|;)display:|(^|;)visibility:visible/.test(text)) return false;
  return null;
}

function rulesOf($: CheerioAPI, elements: readonly Element[]): { selector: string; hides: boolean; weight: number }[] {
  const rules: { selector: string; hides: boolean; weight: number }[] = [];
  let order = 0;
  for (const sheet of elements.filter((element) => element.name === "style")) {
    if (/print/.test($(sheet).attr("media") ?? "")) continue;
    try {
      postcss.parse($(sheet).text()).walkRules((rule) => {
        if (!appliesOnScreen(rule.parent)) return;
        const hides = saysHidden(rule.nodes.map(String).join(";"));
        if (hides === null) return;
        for (const selector of rule.selectors) {
          if (/:(hover|focus|active|target|checked|not\(:checked\)|placeholder|autofill)|::/.test(selector)) continue;
          const important = /!important/.test(rule.toString()) ? 1e9 : 0;
          rules.push({ selector, hides, weight: important + specificity(selector) * 1e4 + order++ });
        }
      });
    } catch {
      // A style sheet that cannot be read hides nothing.
    }
  }
  return rules;
}

/** Rules that hold on a wide screen: no print, no narrow window, no reduced anything. */
function appliesOnScreen(parent: unknown): boolean {
  const at = parent as { type?: string; name?: string; params?: string; parent?: unknown } | undefined;
  if (!at || at.type === "root") return true;
  if (at.type !== "atrule") return appliesOnScreen(at.parent);
  if (at.name === "media")
    return (
      !/print|max-width|max-device|orientation:\s*portrait|prefers-/.test(at.params ?? "") && appliesOnScreen(at.parent)
    );
  return at.name === "supports" || at.name === "layer" ? appliesOnScreen(at.parent) : false;
}

function specificity(selector: string): number {
  const count = (pattern: RegExp) => selector.match(pattern)?.length ?? 0;
  return (
    count(/#[\w-]+/g) * 10_000 +
    count(/\.[\w-]+|\[[^\]]+\]|:(?!not|is|where)[\w-]+/g) * 100 +
    count(/(^|[\s>+~])[a-z][\w-]*/gi)
  );
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
