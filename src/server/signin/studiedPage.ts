/** All that a sealed sign-in needs to know of a stranger's page, as plain data: made in a thread of its own. */
import { createHash } from "node:crypto";
import type { PageDescription, PageReading } from "../../core/signin/page";
import { readPage } from "../../core/signin/read";
import { MARK } from "./browser/snapshot";
import { describeHtml } from "./htmlPage";
import { isChallenge, isDrawnByScripts, offersSignOut, saysCodeWrong, saysLocked, saysWrong } from "./judge";

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
  says: { wrong: boolean; locked: boolean; codeWrong: boolean; signOut: boolean };
  /** The same for two pages that say the same; numbers, such as a clock's, do not count. */
  mark: string;
  challenge: boolean;
  drawnByScripts: boolean;
  /** Where `<meta http-equiv="refresh">` leads, where a browser would go there within a few seconds. */
  refresh: string | null;
}

const LONGEST_TEXT = 20_000;
const MOST_METAS = 60;

/** @throws PageTooLarge, and whatever a parser says to a page that is made to break it */
export function studyPage({ html, url }: PageToStudy): StudiedPage {
  const { description, $, attributeOf } = describeHtml(html, url);
  const text = $("body").text().replace(/\s+/g, " ").slice(0, LONGEST_TEXT);
  return {
    description,
    reading: readPage(description),
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
      signOut: offersSignOut($),
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

function refreshOf(content: string | undefined, url: string): string | null {
  const found = content?.match(/^\s*([0-5])\s*[;,]\s*url\s*=\s*['"]?([^'"]+)/i);
  try {
    return found?.[2] ? new URL(found[2], url).href : null;
  } catch {
    return null;
  }
}
