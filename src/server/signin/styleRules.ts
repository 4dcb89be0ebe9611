/**
 * Which elements a page's own style sheets hide or show. The page is a stranger's: only selectors whose cost is known
 * are looked at (compounds with descendant, child and next-sibling combinators), each at those elements alone that its
 * last compound can name, and all of them together only as far as a budget goes. What is not looked at hides nothing.
 */
import { parse, type Selector } from "css-what";
import { type Element, isTag } from "domhandler";
import postcss, { type Rule } from "postcss";

/** Selectors of hiding rules that are looked at in one page. */
const MOST_SELECTORS = 10_000;
/** Compounds that are compared with an element, in one page: a fraction of a second. */
const MOST_COMPARISONS = 1_000_000;

export interface Ruling {
  hides: boolean;
  weight: number;
}

type Test = (element: Element) => boolean;
type Combinator = "descendant" | "child" | "adjacent";

interface Path {
  /** What the last compound names: `#id`, `.class`, a tag, or `*`. */
  key: string;
  /** From the last compound to the first; each with what leads from it to the one before. */
  steps: { tests: Test[]; up: Combinator | null }[];
}

/** For each element that a rule hides or shows: the rule that wins. */
export function rulings(sheets: readonly string[], elements: readonly Element[]): Map<Element, Ruling> {
  const byKey = new Map<string, { path: Path; ruling: Ruling }[]>();
  for (const { path, ruling } of rulesOf(sheets)) {
    const here = byKey.get(path.key);
    if (here) here.push({ path, ruling });
    else byKey.set(path.key, [{ path, ruling }]);
  }
  const found = new Map<Element, Ruling>();
  if (byKey.size === 0) return found;
  const budget = { left: MOST_COMPARISONS };
  for (const element of elements)
    for (const key of keysOf(element))
      for (const { path, ruling } of byKey.get(key) ?? []) {
        if (budget.left <= 0) return found;
        const known = found.get(element);
        if (known && known.weight > ruling.weight) continue;
        if (matches(path, element, budget)) found.set(element, ruling);
      }
  return found;
}

function keysOf({ name, attribs }: Element): string[] {
  const classes = new Set((attribs.class ?? "").split(/\s+/).filter(Boolean));
  return ["*", name, ...(attribs.id ? [`#${attribs.id}`] : []), ...[...classes].slice(0, 50).map((one) => `.${one}`)];
}

/**
 * From the last compound upwards. Of several ancestors that a descendant combinator could mean the nearest is right:
 * it leaves the most ancestors for what stands before it. So nothing is tried twice.
 */
function matches({ steps }: Path, element: Element, budget: { left: number }): boolean {
  const is = (tests: readonly Test[], one: Element | null): one is Element => {
    budget.left--;
    return one !== null && tests.every((test) => test(one));
  };
  /** As far as the next descendant combinator; null where it does not match. */
  const run = (from: number, start: Element | null): { next: number; top: Element } | null => {
    let at = start;
    for (let i = from; i < steps.length; i++) {
      const { tests, up } = steps[i]!;
      if (!is(tests, at)) return null;
      if (up === null || up === "descendant") return { next: i + 1, top: at };
      at = up === "child" ? parentOf(at) : before(at);
    }
    return null;
  };
  let done = run(0, element);
  while (done && done.next < steps.length) {
    const { next } = done;
    let above = parentOf(done.top);
    done = null;
    for (; above && !done && budget.left > 0; above = parentOf(above)) done = run(next, above);
  }
  return done !== null;
}

const parentOf = (element: Element): Element | null =>
  element.parent && isTag(element.parent) ? element.parent : null;

function before(element: Element): Element | null {
  for (let at = element.prev; at; at = at.prev) if (isTag(at)) return at;
  return null;
}

function rulesOf(sheets: readonly string[]): { path: Path; ruling: Ruling }[] {
  const found: { path: Path; ruling: Ruling }[] = [];
  let order = 0;
  for (const sheet of sheets) {
    try {
      postcss.parse(sheet).walkRules((rule) => {
        if (found.length >= MOST_SELECTORS) return false;
        const hides = appliesOnScreen(rule.parent) ? saysHidden(declarationsOf(rule)) : null;
        if (hides === null) return;
        const important = rule.some((node) => node.type === "decl" && node.important === true) ? 1e9 : 0;
        for (const path of pathsOf(rule.selector))
          found.push({ path, ruling: { hides, weight: important + specificity(path.css) * 1e4 + order++ } });
      });
    } catch {
      // A style sheet that cannot be read hides nothing.
    }
  }
  return found;
}

const declarationsOf = (rule: Rule): string =>
  rule.nodes.flatMap((node) => (node.type === "decl" ? [`${node.prop}:${node.value}`] : [])).join(";");

/** Those of a rule's selectors that are looked at. */
function pathsOf(selector: string): (Path & { css: Selector[] })[] {
  let parsed: Selector[][];
  try {
    parsed = parse(selector);
  } catch {
    return [];
  }
  return parsed.flatMap((css) => {
    let steps: Path["steps"] = [{ tests: [], up: null }];
    let key = "*";
    for (const token of css) {
      if (token.type === "descendant" || token.type === "child" || token.type === "adjacent") {
        steps = [{ tests: [], up: token.type }, ...steps];
        key = "*";
        continue;
      }
      const test = testOf(token);
      if (!test) return [];
      steps[0]!.tests.push(test);
      key = keyOf(token, key);
    }
    return [{ key, steps, css }];
  });
}

/** The narrowest name that a compound gives. */
function keyOf(token: Selector, known: string): string {
  if (token.type === "attribute" && token.name === "id" && token.action === "equals") return `#${token.value}`;
  if (known.startsWith("#")) return known;
  if (token.type === "attribute" && token.name === "class" && token.action === "element") return `.${token.value}`;
  if (known.startsWith(".")) return known;
  return token.type === "tag" ? token.name.toLowerCase() : known;
}

/** Null for what is not looked at: states of the page, counting, `:has`, and whatever may cost more than one look. */
function testOf(token: Selector): Test | null {
  switch (token.type) {
    case "universal":
      return () => true;
    case "tag": {
      const name = token.name.toLowerCase();
      return (element) => element.name === name;
    }
    case "attribute":
      return attributeTest(token);
    case "pseudo":
      return pseudoTest(token);
    default:
      return null;
  }
}

type Attribute = Extract<Selector, { type: "attribute" }>;

function attributeTest({ name, action, value, ignoreCase }: Attribute): Test | null {
  const fold = (text: string) => (ignoreCase === true ? text.toLowerCase() : text);
  const wanted = fold(value);
  const compare: Record<string, (held: string) => boolean> = {
    exists: () => true,
    equals: (held) => held === wanted,
    not: (held) => held !== wanted,
    element: (held) => wanted !== "" && ` ${held.replace(/\s+/g, " ")} `.includes(` ${wanted} `),
    start: (held) => wanted !== "" && held.startsWith(wanted),
    end: (held) => wanted !== "" && held.endsWith(wanted),
    any: (held) => wanted !== "" && held.includes(wanted),
    hyphen: (held) => held === wanted || held.startsWith(`${wanted}-`),
  };
  const test = compare[action];
  if (!test) return null;
  const key = name.toLowerCase();
  return ({ attribs }) => (attribs[key] === undefined ? action === "not" : test(fold(attribs[key])));
}

function pseudoTest({ name, data }: Extract<Selector, { type: "pseudo" }>): Test | null {
  if (name === "root") return (element) => element.name === "html";
  if (name === "first-child") return (element) => before(element) === null;
  if (name === "enabled") return ({ attribs }) => attribs.disabled === undefined;
  if (name === "disabled") return ({ attribs }) => attribs.disabled !== undefined;
  if ((name === "not" || name === "is" || name === "where") && Array.isArray(data)) {
    // One compound each: what is within them costs one look as well.
    const alternatives = data.map((compound) =>
      compound.map((token) => (token.type === "pseudo" ? null : testOf(token))),
    );
    if (alternatives.some((tests) => tests.includes(null))) return null;
    const any: Test = (element) => alternatives.some((tests) => tests.every((test) => test!(element)));
    return name === "not" ? (element) => !any(element) : any;
  }
  return null;
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

function specificity(css: readonly Selector[]): number {
  let weight = 0;
  for (const token of css)
    if (token.type === "attribute") weight += token.name === "id" && token.action === "equals" ? 10_000 : 100;
    else if (token.type === "pseudo") weight += 100;
    else if (token.type === "tag") weight += 1;
  return weight;
}

/** true: hides; false: shows; null: says nothing about it. */
export function saysHidden(style: string): boolean | null {
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
