/** What pages are for: many small pages, in many languages and shapes, none of them a real site's. */
import { load } from "cheerio";
import { describe, expect, test } from "vitest";
import type { PageReading } from "../../core/signin/page";
import { readHtml } from "./htmlPage";
import { OTHERS, page, REGISTER_WORDS, SIGN_IN, SIGN_IN_WORDS } from "./pages/smallPages";

const read = (html: string): PageReading => readHtml(html, "https://page.example/path");

describe("sign-in pages", () => {
  test.each(SIGN_IN)("%s", (_, html, expected) => expect(read(html)).toMatchObject({ kind: "sign-in", ...expected }));
});

describe("other pages", () => {
  test.each(OTHERS)("%s: %s", (kind, _, html, expected) => expect(read(html)).toMatchObject({ kind, ...expected }));
});

describe("told by the button's word alone", () => {
  const withButton = (word: string) =>
    read(page(`<div class="x"><input type="email" id="a"><button>${word}</button></div>`));
  test.each(SIGN_IN_WORDS)("%s", (word) => expect(withButton(word).kind).toBe("identifier-first"));
  test.each(REGISTER_WORDS)("%s", (word) => expect(withButton(word).kind).toBe("register"));
});

test("selectors match exactly one element of the source", () => {
  for (const html of [...SIGN_IN.map(([, html]) => html), ...OTHERS.map(([, , html]) => html)]) {
    const { form, userName, password, oneTimeCode, submit } = read(html);
    for (const selector of [form, userName, password, oneTimeCode, submit])
      if (selector) expect(load(html)(selector)).toHaveLength(1);
  }
});

test("awkward ids and names are quoted", () => {
  const html = page(
    '<form><input id="a.b:c[0]" name="x"><input type="password" name=\'p"w\'><button>Sign in</button></form>',
  );
  const { userName, password } = read(html);
  expect(load(html)(userName!)).toHaveLength(1);
  expect(load(html)(password!)).toHaveLength(1);
});
