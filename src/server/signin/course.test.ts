import { describe, expect, test } from "vitest";
import { NOTHING_READ } from "../../core/signin/page";
import { NO_STEPS, type PageStep, stepsSchema } from "../../core/signin/steps";
import type { TestedPage } from "../../core/signin/testReport";
import { Course } from "./course";
import { describeHtml } from "./htmlPage";

const URL_ = "https://desk.oakrill.example/in";
const part = (name: string, holds: "password" | "unknown") => ({ name, holds, from: null, value: "" });
const sends = (holds: "password" | "unknown"): NonNullable<PageStep["sends"]> => ({
  ...{ to: "https://desk.oakrill.example/api", encoding: "json", byScript: true, headers: [] },
  parts: [part("/p", holds)],
});
const sign = (name: string) => ({ name, id: "", label: "" });
const USER: PageStep = {
  ...{ page: URL_, presses: null, sends: null },
  enters: [{ what: "user-name", field: sign("who") }],
};
const PASSWORD: PageStep = { ...USER, enters: [{ what: "password", field: sign("word") }], sends: sends("password") };

const pageOf = (html: string) => {
  const { description } = describeHtml(html, URL_);
  return { url: URL_, status: 200, reading: NOTHING_READ, description };
};
const ASKS = pageOf('<form method="post"><input name="who"><button>Next</button></form>');
const along = (pages: PageStep[], seen: TestedPage[] = []) =>
  new Course(stepsSchema.parse({ ...NO_STEPS, pages }), "http", (page) => seen.push(page));
const NOTHING = { userName: false, password: false, code: false };

describe("the course of a sign-in", () => {
  test("takes the steps of one address in their order, also where a script sends the second of them", () => {
    const seen: TestedPage[] = [];
    const course = along([USER, PASSWORD], seen);
    const first = course.ontoWithoutScripts(ASKS);
    expect([first.followed?.number, first.sends, first.reading.kind]).toEqual([0, null, "identifier-first"]);
    course.saw(first);
    course.does(first, { ...NOTHING, userName: true });
    const second = course.ontoWithoutScripts(pageOf("<div id=app></div>"));
    expect([second.followed?.number, second.sends?.to, second.reading.kind]).toEqual([
      1,
      "https://desk.oakrill.example/api",
      "password-only-step",
    ]);
    course.saw(second);
    expect(course.goesOnAt(`${URL_}?x`)).toBe(true);
    course.does(second, { ...NOTHING, password: true });
    expect(course.goesOnAt(URL_)).toBe(false);
    expect(course.ontoWithoutScripts(ASKS).followed).toBeNull();
    expect(seen[0]).toMatchObject({ entered: ["user-name"], bySteps: true });
  });

  test("leaves to a browser what only the page's own script can send", () => {
    const course = along([{ ...PASSWORD, sends: sends("unknown") }]);
    expect(course.ontoWithoutScripts(pageOf("<div id=app></div>"))).toMatchObject({ followed: null, sends: null });
    const inBrowser = along([PASSWORD]).onto(pageOf('<input name="word" type="text">'));
    expect([inBrowser.followed?.number, inBrowser.sends]).toEqual([0, null]);
  });
});
