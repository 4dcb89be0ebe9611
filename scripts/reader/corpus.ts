/**
 * The labelled pages by which the reader is fitted: those made and written for its tests, and templates of other
 * programs, each in every language in which catalogues can say it. A quarter of the sources is held back.
 */
import { createHash } from "node:crypto";
import { readdirSync, readFileSync, statSync } from "node:fs";
import { join } from "node:path";
import { load } from "cheerio";
import type { GroupKind } from "../../src/core/signin/reading/kinds";
import { describeHtml, type HtmlPage } from "../../src/server/signin/htmlPage";
import { ODD, type Part } from "../../src/server/signin/pages/oddPages";
import { makePages } from "../../src/server/signin/pages/pages";
import { OTHERS, page, REGISTER_WORDS, SIGN_IN, SIGN_IN_WORDS } from "../../src/server/signin/pages/smallPages";
import { DEBIAN_PACKAGES, LABELS, LEFT_OUT, NPM_PACKAGES, TEMPLATES } from "./sources";
import { withoutTemplateSigns } from "./templates";
import { type Catalogues, readCatalogues, translated } from "./translations";

export interface LabelledPage {
  name: string;
  /** What the same page in other words and languages shares: all of it is fitted to, or none. */
  source: string;
  html: string;
  kind: GroupKind;
  /** By handle of the description; a part that is not said is not known. */
  parts: Partial<Record<Exclude<Part, "kind">, string | null>>;
  page: HtmlPage;
  /** Of a page made here: what other groups are for is known as well. */
  whole: boolean;
  foreign: boolean;
  /** Written by hand: none of these is held back. */
  written?: boolean;
  /** With every word gone: it counts little, as pages in a language that nobody here knows are few. */
  mute?: boolean;
}

const ADDRESS = "https://page.example/";

export function ownPages(): LabelledPage[] {
  const made = makePages(2).map(({ name, html, kind, ...parts }) =>
    labelled({ ...{ name, html, kind: kind as GroupKind }, source: name, whole: true, foreign: false }, parts, "id"),
  );
  // With every word gone the shape alone is left, and what it tells.
  const mute = makePages(1)
    .filter((_, at) => at % 3 === 0)
    .map(({ name, html, kind, ...parts }) =>
      labelled(
        {
          ...{ name: `mute ${name}`, html: withoutWords(html), kind: kind as GroupKind },
          ...{ source: name, whole: true, foreign: false, mute: true },
        },
        parts,
        "id",
      ),
    );
  const odd = ODD.map(([name, body, { kind, ...parts }]) =>
    labelled(
      {
        ...{ name, html: `<!doctype html><html><head><title>Quillhaven</title></head><body>${body}</body></html>` },
        ...{ kind: kind as GroupKind, source: name, whole: false, foreign: false },
      },
      parts,
      "id",
    ),
  );
  const small = [
    ...SIGN_IN.map(([name, html, parts]) => ({ name, html, kind: "sign-in" as GroupKind, parts })),
    ...OTHERS.map(([kind, name, html, parts]) => ({ name, html, kind: kind as GroupKind, parts })),
  ].map(({ parts: { kind: _, confidence: _c, newPasswords: _n, ...parts }, ...one }) =>
    labelled({ ...one, source: one.name, whole: false, foreign: false }, parts, "css"),
  );
  // The button's word alone must tell: no field has a telling name.
  const byWord = (words: readonly string[], kind: GroupKind) =>
    words.map((word) =>
      labelled(
        {
          ...{ name: word, html: page(`<div class="x"><input type="email" id="a"><button>${word}</button></div>`) },
          ...{ kind, source: word, whole: false, foreign: false },
        },
        {},
        "css",
      ),
    );
  const words = [...byWord(SIGN_IN_WORDS, "identifier-first"), ...byWord(REGISTER_WORDS, "register")];
  // Written one by one for what once went wrong: all of them count, and more than those that are made by the hundred.
  return [...made, ...mute, ...[...odd, ...small, ...words].map((one) => ({ ...one, written: true }))];
}

/** Every word a letter or two, what styles say left as it is. */
const withoutWords = (html: string): string =>
  html
    .split(/(<style>[\s\S]*?<\/style>)/)
    .map((piece) => (piece.startsWith("<style>") ? piece : piece.replace(/\p{L}{2,}(?=[^<>]*<)/gu, "zz")))
    .join("");

/** @param folder where the packages were fetched to, each in a folder of its name */
export function foreignPages(folder: string): LabelledPage[] {
  const packages = [...NPM_PACKAGES, ...DEBIAN_PACKAGES].map((name) => join(folder, name.replace(/[@/]/g, "_")));
  const files = packages.flatMap(filesIn);
  const catalogues = readCatalogues(files);
  const seen = new Set<string>();
  const perPackage = new Map<string, number>();
  return files.flatMap((file) => {
    if (
      !TEMPLATES.test(file) ||
      /node_modules|\/tests?\/|\/docs?\//.test(file) ||
      LEFT_OUT.test(file) ||
      statSync(file).size > 300_000
    )
      return [];
    const label = labelOf(file);
    const html = withoutTemplateSigns(readFileSync(file, "utf8"));
    if (label === null && (!/<input/i.test(html) || /type=.?.?password/i.test(html) || SUSPECT.test(file))) return [];
    const from = packages.find((one) => file.startsWith(one)) ?? "";
    const count = perPackage.get(from) ?? 0;
    if (label === null && count >= MOST_OTHERS) return [];
    const mark = createHash("sha256").update(html.replace(/\s+/g, "")).digest("hex");
    if (seen.has(mark)) return [];
    seen.add(mark);
    if (label === null) perPackage.set(from, count + 1);
    const kind = label ?? "none";
    const base = { source: file.slice(folder.length), kind, whole: false, foreign: true };
    const english = labelled({ ...base, name: base.source, html }, {}, "id");
    if (english.page.description.fields.length === 0) return [];
    return [
      english,
      ...inOtherLanguages(english, catalogues, label === null ? (count % 3 === 0 ? 1 : 0) : MOST_LANGUAGES),
    ];
  });
}

/** Pages of one package that are for something else altogether. */
const MOST_OTHERS = 30;
const MOST_LANGUAGES = 14;
/** It may be for signing in, and nobody has looked: better left out. */
const SUSPECT = /login|sign|auth|passw|regist|account|token|otp|lock/i;

function inOtherLanguages(page: LabelledPage, catalogues: Catalogues, most: number): LabelledPage[] {
  const found: LabelledPage[] = [];
  const order = (language: string) => hash(`${language} ${page.source}`);
  for (const [language, catalogue] of [...catalogues].sort(([a], [b]) => order(a) - order(b))) {
    if (found.length === most) break;
    const html = translated(page.html, catalogue);
    if (html !== null) found.push(labelled({ ...page, name: `${language}: ${page.name}`, html }, {}, "id"));
  }
  return found;
}

function labelOf(file: string): GroupKind | null {
  for (const [kind, ends] of Object.entries(LABELS))
    if (ends.some((end) => file.endsWith(end))) return kind as GroupKind;
  return null;
}

function filesIn(folder: string): string[] {
  try {
    return readdirSync(folder, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile())
      .map((entry) => join(entry.parentPath, entry.name));
  } catch {
    return [];
  }
}

function labelled(
  page: Omit<LabelledPage, "page" | "parts">,
  parts: Partial<Record<Exclude<Part, "kind">, string | null>>,
  by: "id" | "css",
): LabelledPage {
  const described = describeHtml(page.html, ADDRESS);
  const $ = load(page.html);
  // A template's own signs make names that no selector can say: where nothing is named none is made.
  const named = Object.values(parts).some((said) => typeof said === "string");
  const handles = new Map(
    (!named ? [] : [...described.description.fields, ...described.description.forms]).map(({ selector }) => [
      described.cssOf(selector),
      selector,
    ]),
  );
  const handleOf = (said: string): string | null => {
    const element = by === "id" ? $(`[id="${said}"]`) : $(said);
    for (const [css, handle] of handles) if (css && $(css).is(element)) return handle;
    return null;
  };
  return {
    ...page,
    page: described,
    parts: Object.fromEntries(
      Object.entries(parts).map(([part, said]) => [part, said === null ? null : handleOf(said!)]),
    ),
  };
}

/** A number from 0 to 1 that belongs to a text. */
export const hash = (text: string): number => createHash("sha256").update(text).digest().readUInt32BE(0) / 2 ** 32;

/** A quarter of all sources is never looked at while fitting. */
export const isHeldBack = ({ source, written }: LabelledPage): boolean =>
  !written && hash(`held back ${source}`) < 0.25;
