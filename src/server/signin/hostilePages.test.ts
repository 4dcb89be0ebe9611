/** Pages that are made to take for ever: each costs its own reading, and no more than a moment. */

import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { cpuTime } from "../../../integration/cpuTime";
import { PageTooLarge } from "./htmlPage";
import { PageReader, PageUnreadable } from "./pageReader";
import { studyPage } from "./studiedPage";

const url = "https://page.example/";
const FORM =
  '<form method="post"><label>User name <input name="u"></label><label>Password <input type="password" name="p"></label><button>Sign in</button></form>';
const nested = (count: number, inner = "") => "<div>".repeat(count) + inner + "</div>".repeat(count);
const sheet = (rule: string, count: number) =>
  `<style>${Array.from({ length: count }, (_, i) => rule.replaceAll("#", String(i))).join("\n")}</style>`;

/** What must still be read: the page is large or odd, but not refused. */
const READ: Record<string, string> = {
  "a thousand rules with :has": sheet(":has(.a# :has(b)) div { display: none }", 1000) + nested(200, FORM),
  "sibling combinators over all that stands beside": `${sheet("div ~ div ~ div ~ .a# { display: none }", 800)}${"<div></div>".repeat(3000)}${FORM}`,
  "descendants that might match at every step":
    sheet("x div div div div div div div div { display: none }", 300) + nested(400, FORM),
  "children and descendants by turns":
    sheet("x div > div div > div div > div { display: none }", 300) + nested(400, FORM),
  "ten thousand rules for ten thousand elements": `${sheet("div.a# { display: none }", 10_000)}${'<div class="b c d"></div>'.repeat(10_000)}${FORM}`,
  "everything selects everything": `${sheet("* * * { opacity: 0.9; visibility: visible }", 4000)}${nested(300)}${FORM}`,
  "thousands of fields in one label": `<label>${"<input name=x>".repeat(4000)}</label>${FORM}`,
  "fields named by one long list": `<b id="n">Name</b>${`<input aria-labelledby="${"n ".repeat(500)}">`.repeat(300)}${FORM}`,
  "fields of no form, deep in one another": nested(300, `<input name="q">${FORM}`),
  "empty text boxes in a row": `${'<div role="textbox"></div>'.repeat(6000)}${FORM}`,
  "thousands of forms": `${"<form></form>".repeat(5000)}${"<input form=none>".repeat(4000)}${FORM}`,
};

describe("read all the same", () => {
  test.each(Object.keys(READ))("%s", (name) => {
    let kind = "";
    const taken = cpuTime(() => {
      kind = studyPage({ html: READ[name]!, url }).reading.kind;
    });
    expect(kind).toBe("sign-in");
    // It was minutes, or never. Beside other tests a machine takes twice its time.
    expect(taken).toBeLessThan(8_000);
  });
});

test("a page of more elements than people look at, or nested deeper than browsers nest, is not read", () => {
  expect(() => studyPage({ html: "<br>".repeat(20_001), url })).toThrow(PageTooLarge);
  expect(() => studyPage({ html: nested(600), url })).toThrow(PageTooLarge);
});

describe("in the thread that reads pages", () => {
  // Long enough for a thread to begin anew beside other tests, and for a page that is read at once.
  const reader = new PageReader(1_500);
  beforeAll(() => reader.warm());
  afterAll(() => reader.close());
  /** Formatting elements that are opened again within each other: parsing it alone takes minutes. */
  const ENDLESS = "<a><b><i><u><s><font>".repeat(40_000);

  test("a page that takes for ever is given up, the next one is read, and this thread goes on meanwhile", async () => {
    let turns = 0;
    const turning = setInterval(() => turns++, 5);
    const given = [reader.read({ html: ENDLESS, url }), reader.read({ html: ENDLESS, url })];
    const next = reader.read({ html: FORM, url });
    for (const page of given) await expect(page).rejects.toThrow(PageUnreadable);
    expect((await next).reading.kind).toBe("sign-in");
    clearInterval(turning);
    expect(turns).toBeGreaterThan(20);
  });

  test("a page that breaks the reader says so, and the next one is read", async () => {
    await expect(reader.read({ html: nested(600), url })).rejects.toThrow(PageUnreadable);
    expect((await reader.read({ html: FORM, url })).reading.kind).toBe("sign-in");
  });

  test("what a sealed sign-in asks of a page comes with it", async () => {
    const html = `<meta http-equiv="Refresh" content="0; url=/next"><div role="alert">Wrong password</div><div class="captcha">?</div>${FORM}`;
    expect(await reader.read({ html, url })).toMatchObject({
      says: { wrong: true, locked: false, codeWrong: false, signOut: false, mails: false },
      challenge: true,
      drawnByScripts: false,
      refresh: "https://page.example/next",
      reading: { kind: "sign-in" },
    });
  });
});
