/** All that a sealed sign-in needs to know of a stranger's page, as plain data: made in a thread of its own. */
import { createHash } from "node:crypto";
import type { CheerioAPI } from "cheerio";
import { rulesOfPage } from "../../core/generator/pageRules";
import { nearness } from "../../core/signin/changing";
import type { PageDescription, PageReading } from "../../core/signin/page";
import { readPage } from "../../core/signin/read";
import { ERROR_PLACES } from "../../core/signin/saysWrong";
import { plain } from "../../core/signin/words";
import { MARK } from "./browser/snapshot";
import { describeHtml } from "./htmlPage";
import { isChallenge, isDrawnByScripts, offersSignOut, saysCodeWrong, saysLocked, saysMails, saysWrong } from "./judge";

export interface PageToStudy {
  html: string;
  /** Where it came from, after redirects. */
  url: string;
}

export interface StudiedPage {
  description: PageDescription;
  reading: PageReading;
  /** `<meta name content>`: where pages give their scripts a token. */
  metas: Record<string, string>;
  /** By handle, where the page was marked to find its fields again (`snapshot.ts`). */
  marks: Record<string, string>;
  says: { wrong: boolean; locked: boolean; codeWrong: boolean; signOut: boolean; mails: boolean };
  /** The same for two pages that say the same; numbers, such as a clock's, do not count. */
  mark: string;
  challenge: boolean;
  drawnByScripts: boolean;
  /** Where `<meta http-equiv="refresh">` leads, where a browser would go there within a few seconds. */
  refresh: string | null;
  /** Links to where a password may be changed, the likeliest first; whole addresses without a fragment. */
  changeLinks: string[];
  /** What the page asks of a new password, in the `passwordrules` syntax; empty where it says nothing. */
  newPasswordRules: string;
}

const LONGEST_TEXT = 20_000;
const MOST_METAS = 60;

/** @throws PageTooLarge, and whatever a parser says to a page that is made to break it */
export function studyPage({ html, url }: PageToStudy): StudiedPage {
  const { description, $, attributeOf } = describeHtml(html, url);
  const text = $("body").text().replace(/\s+/g, " ").slice(0, LONGEST_TEXT);
  const reading = readPage(description);
  return {
    description,
    reading,
    changeLinks: changeLinksOf($, description.base ? new URL(description.base, url).href : url),
    newPasswordRules: rulesOf(description, reading, attributeOf, () => $(ERROR_PLACES).text()),
    marks: Object.fromEntries(
      description.fields.flatMap(({ selector }) => {
        const mark = attributeOf(selector, MARK);
        return mark === undefined ? [] : [[selector, mark]];
      }),
    ),
    metas: Object.fromEntries(
      $("meta[name][content]")
        .toArray()
        .slice(0, MOST_METAS)
        .map((meta) => [$(meta).attr("name")!, $(meta).attr("content")!.slice(0, 1_000)]),
    ),
    says: {
      ...{ wrong: saysWrong($), locked: saysLocked(text), codeWrong: saysCodeWrong(text) },
      ...{ signOut: offersSignOut($), mails: saysMails(text) },
    },
    mark: createHash("sha256").update(text.replace(/\d+/g, "")).digest("base64url"),
    challenge: isChallenge({ $, html, text }),
    drawnByScripts: isDrawnByScripts($),
    refresh: refreshOf(
      $("meta[http-equiv]")
        .filter((_, meta) => ($(meta).attr("http-equiv") ?? "").toLowerCase() === "refresh")
        .attr("content"),
      url,
    ),
  };
}

const MOST_LINKS = 600;
const MOST_CHANGE_LINKS = 8;

function changeLinksOf($: CheerioAPI, base: string): string[] {
  const found = new Map<string, number>();
  for (const element of $("a[href]").toArray().slice(0, MOST_LINKS)) {
    const link = $(element);
    const to = URL.parse(link.attr("href") ?? "", base);
    if (!to || !/^https?:$/.test(to.protocol)) continue;
    to.hash = "";
    const said = [link.text().slice(0, 200), link.attr("title"), link.attr("aria-label"), to.pathname, to.search];
    const near = nearness(plain(said.filter(Boolean).join(" | ").slice(0, 400)));
    if (near > (found.get(to.href) ?? 0)) found.set(to.href, near);
  }
  return [...found]
    .sort(([, a], [, b]) => b - a)
    .slice(0, MOST_CHANGE_LINKS)
    .map(([to]) => to);
}

/** Of a page that asks for a new password: its fields' attributes, the words of their form, and why it said no before. */
function rulesOf(
  { fields, forms }: PageDescription,
  { newPasswords, form }: PageReading,
  attributeOf: (handle: string, name: string) => string | undefined,
  errors: () => string,
): string {
  if (newPasswords.length === 0) return "";
  const length = (name: string) =>
    newPasswords
      .map((one) => Number(attributeOf(one, name)))
      .find((number) => Number.isInteger(number) && number > 0) ?? null;
  const labels = fields.filter(({ selector }) => newPasswords.includes(selector)).map(({ label }) => label);
  const titles = newPasswords.map((one) => attributeOf(one, "title") ?? "");
  return rulesOfPage({
    rules: newPasswords.map((one) => attributeOf(one, "passwordrules") ?? "").find(Boolean) ?? "",
    shortest: length("minlength"),
    longest: length("maxlength"),
    text: [forms.find(({ selector }) => selector === form)?.text ?? "", ...labels, ...titles, errors()]
      .join(" | ")
      .slice(0, 3_000),
  });
}

function refreshOf(content: string | undefined, url: string): string | null {
  const found = content?.match(/^\s*([0-5])\s*[;,]\s*url\s*=\s*['"]?([^'"]+)/i);
  try {
    return found?.[2] ? new URL(found[2], url).href : null;
  } catch {
    return null;
  }
}
