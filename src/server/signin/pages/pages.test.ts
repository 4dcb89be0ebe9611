/** The reader over pages made in every language and shape, and over odd ones written by hand. */
import { load } from "cheerio";
import { describe, expect, test } from "vitest";
import { readHtml } from "../htmlPage";
import { ODD, type Part } from "./oddPages";
import { makePages } from "./pages";

/** The reading with ids in place of selectors; a selector that does not match exactly one element shows itself. */
function readById(html: string): Record<Part, string | null> {
  const reading = readHtml(html, "https://page.example/");
  const $ = load(html);
  const id = (selector: string | null) => {
    if (selector === null) return null;
    const found = $(selector);
    return found.length === 1 ? (found.attr("id") ?? selector) : `${found.length} × ${selector}`;
  };
  return {
    kind: reading.kind,
    form: id(reading.form),
    userName: id(reading.userName),
    password: id(reading.password),
    oneTimeCode: id(reading.oneTimeCode),
    submit: id(reading.submit),
  };
}

const SIGNS = /^(sign-in|identifier-first|password-only-step)$/;

describe("made pages", () => {
  const pages = makePages(2);
  const readings = pages.map((page) => ({ page, reading: readById(page.html) }));

  test("each is read as it was made", () => {
    expect(pages.length).toBeGreaterThan(2500);
    const wrong = readings.filter(({ page, reading }) =>
      (Object.keys(reading) as Part[]).some((part) => page[part] !== reading[part]),
    );
    const told = wrong.map(({ page, reading }) => [page.name, reading]);
    expect(wrong.length, JSON.stringify(told, null, 1)).toBeLessThan(pages.length * 0.005);
    // What is not read as it is, is never acted on as something else.
    const acted = wrong.filter(({ page, reading }) => SIGNS.test(String(reading.kind)) && !SIGNS.test(page.kind));
    expect(acted.map(({ page }) => page.name)).toEqual([]);
  });

  test("no registration, change or reset is taken for a sign-in, either with all letters gone", () => {
    const grave = /^(register|change-password|reset-request)$/;
    const taken = readings.filter(({ page, reading }) => grave.test(page.kind) && SIGNS.test(String(reading.kind)));
    expect(taken.map(({ page }) => page.name)).toEqual([]);
    // Three passwords, or a password and its repeat, tell themselves whatever the language.
    const mute = pages
      .filter((page) =>
        /^(change-password(?! that carries only)|register with a repeat)/.test(page.name.split(": ")[1]!),
      )
      .filter((page) => SIGNS.test(readById(page.html.replace(/\p{L}{2,}(?=[^<>]*<)/gu, "zz")).kind as string));
    expect(mute.map((page) => page.name)).toEqual([]);
  });
});

describe("odd pages", () => {
  test.each(ODD)("%s", (_name, body, expected) => {
    const html = `<!doctype html><html><head><title>Quillhaven</title></head><body>${body}</body></html>`;
    expect(readById(html)).toMatchObject(expected);
  });
});
