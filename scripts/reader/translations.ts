/** What other programs' catalogues say for a phrase, by language: the words of real pages in forty languages. */
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import type { CheerioAPI } from "cheerio";
import { load } from "cheerio";
import { mo } from "gettext-parser";

/** By language (ISO 639-1), then by the English phrase in lower case. */
export type Catalogues = ReadonlyMap<string, ReadonlyMap<string, string>>;

const LONGEST_PHRASE = 80;
const LANGUAGE_IN_PATH = /\/(?:locale|localization|languages?|po|l10n)\/([a-z]{2})(?:[-_]\w+)?(?:@\w+)?[/.]/i;

/** @param files of programs that were fetched */
export function readCatalogues(files: readonly string[]): Catalogues {
  const found = new Map<string, Map<string, string>>();
  const put = (language: string, phrase: string, text: string) => {
    if (phrase === "" || text === "" || phrase.length > LONGEST_PHRASE || phrase === text) return;
    const catalogue = found.get(language) ?? new Map<string, string>();
    found.set(language, catalogue);
    const key = fold(phrase);
    if (!catalogue.has(key)) catalogue.set(key, text.replace(/&(?!\w+;)/g, ""));
  };
  for (const file of files.filter((one) => one.endsWith(".mo"))) {
    const language = LANGUAGE_IN_PATH.exec(file)?.[1]?.toLowerCase() ?? /-([a-z]{2})(?:_\w+)?\.mo$/.exec(file)?.[1];
    if (!language || language === "en") continue;
    try {
      const { translations } = mo.parse(readFileSync(file));
      for (const context of Object.values(translations))
        for (const { msgid, msgstr } of Object.values(context)) put(language, msgid, msgstr[0] ?? "");
    } catch {
      // A catalogue that cannot be read has nothing to say.
    }
  }
  for (const folder of new Set(
    files.filter((one) => /\/language\/en-GB\//.test(one)).map((one) => one.replace(/\/en-GB\/.*$/, "")),
  ))
    readJson(folder, put);
  return found;
}

/** Folders of JSON files by language, the same keys in each. */
function readJson(folder: string, put: (language: string, phrase: string, text: string) => void): void {
  const english = join(folder, "en-GB");
  for (const file of readdirSync(english).filter((one) => one.endsWith(".json"))) {
    const phrases = JSON.parse(readFileSync(join(english, file), "utf8")) as Record<string, unknown>;
    for (const language of readdirSync(folder).filter(
      (one) => /^[a-z]{2}(-[A-Z]{2})?$/.test(one) && !one.startsWith("en"),
    )) {
      let texts: Record<string, unknown> = {};
      try {
        texts = JSON.parse(readFileSync(join(folder, language, file), "utf8")) as Record<string, unknown>;
      } catch {
        continue;
      }
      for (const [key, phrase] of Object.entries(phrases))
        if (typeof phrase === "string" && typeof texts[key] === "string") put(language.slice(0, 2), phrase, texts[key]);
    }
  }
}

const fold = (text: string) =>
  text
    .replace(/\s+/g, " ")
    .trim()
    .toLowerCase()
    .replace(/[:.…*!?]+$/, "")
    .trim();

const SHOWN_ATTRIBUTES = ["placeholder", "value", "title", "aria-label", "alt"];

/**
 * The page in another language, phrase by phrase.
 * @returns null where too little of it can be said in that language
 */
export function translated(html: string, catalogue: ReadonlyMap<string, string>): string | null {
  const $ = load(html);
  let said = 0;
  let unsaid = 0;
  const say = (text: string): string => {
    const phrase = fold(text);
    if (!/\p{L}{3}/u.test(phrase) || phrase.length > LONGEST_PHRASE) return text;
    const other = catalogue.get(phrase) ?? catalogue.get(SAME[phrase] ?? "");
    if (other === undefined) {
      unsaid++;
      return text;
    }
    said++;
    return other;
  };
  translateTexts($, say);
  for (const element of $("input, button, img, a, title").toArray())
    for (const name of SHOWN_ATTRIBUTES) {
      const text = $(element).attr(name);
      const isShown = name !== "value" || /^(submit|button)$/.test($(element).attr("type") ?? "");
      if (text && isShown) $(element).attr(name, say(text));
    }
  return said >= 2 && said >= unsaid ? $.html() : null;
}

/** The same said otherwise, where catalogues say it the other way. */
const SAME: Readonly<Record<string, string>> = {
  "sign in": "log in",
  login: "log in",
  "log in": "sign in",
  "sign up": "register",
  "create account": "register",
  "create new account": "register",
  "remember me on this device": "remember me",
  "keep me signed in": "remember me",
  "your email": "email",
  "e-mail address": "email address",
  "email address": "email",
  "enter email": "email",
  "your password": "password",
  "confirm password": "password confirmation",
  "forgot password": "forgot your password",
  "forgot your password": "lost your password",
};

function translateTexts($: CheerioAPI, say: (text: string) => string): void {
  for (const element of $("body *, title").toArray()) {
    if (/^(script|style)$/.test(element.name)) continue;
    for (const node of element.children)
      if (node.type === "text" && node.data.trim() !== "") node.data = ` ${say(node.data)} `;
  }
}
