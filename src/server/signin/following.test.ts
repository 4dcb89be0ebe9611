import { describe, expect, it } from "vitest";
import { followedOn } from "../../core/signin/following";
import type { PageStep, Sign } from "../../core/signin/steps";
import { describeHtml } from "./htmlPage";

const URL_ = "https://desk.mossbeck.example/door";
const sign = (over: Partial<Sign>): Sign => ({ name: "", id: "", label: "", ...over });
const step = (over: Partial<PageStep> = {}): PageStep => ({
  page: URL_,
  enters: [
    { what: "user-name", field: sign({ name: "a1" }) },
    { what: "password", field: sign({ label: "Word of the day" }) },
  ],
  presses: sign({ label: "Come in" }),
  sends: null,
  ...over,
});

const FORM = `<form method="post" action="/x"><input name="q" value="search"><label>Who <input name="a1"></label>
  <label>Word of the day <input name="b2" type="text"></label><button>Go away</button><button id="in">Come in</button></form>`;
const describeAt = (html: string, url = URL_) => describeHtml(html, url).description;
const nameOf = (page: ReturnType<typeof describeAt>, selector: string | null) =>
  page.fields.find((one) => one.selector === selector)?.name;

describe("learned steps on a page", () => {
  it("say what a page is that says nothing by itself", () => {
    const page = describeAt(FORM);
    const followed = followedOn(page, [step()], 0)!;
    expect(followed.reading.kind).toBe("sign-in");
    expect(nameOf(page, followed.reading.userName)).toBe("a1");
    expect(nameOf(page, followed.reading.password)).toBe("b2");
    expect(page.fields.find((one) => one.selector === followed.reading.submit)?.label).toContain("Come in");
    expect(followed.reading.form).toBe(page.forms[0]!.selector);
  });

  it("count on their own page alone, whatever its query, and once each", () => {
    expect(followedOn(describeAt(FORM, `${URL_}/?again=1#x`), [step()], 0)).not.toBeNull();
    expect(followedOn(describeAt(FORM, "https://desk.mossbeck.example/other"), [step()], 0)).toBeNull();
    expect(followedOn(describeAt(FORM, "https://elsewhere.example/door"), [step()], 0)).toBeNull();
    expect(followedOn(describeAt(FORM), [step()], 1)).toBeNull();
  });

  it("skip a page that did not come, and never one whose fields are gone or hidden", () => {
    const [first, second] = [step({ page: "https://desk.mossbeck.example/notice" }), step()];
    expect(followedOn(describeAt(FORM), [first, second], 0)?.step).toBe(1);
    expect(followedOn(describeAt(FORM.replace("a1", "zz")), [step()], 0)).toBeNull();
    expect(followedOn(describeAt(FORM.replace('name="a1"', 'name="a1" type="hidden"')), [step()], 0)).toBeNull();
  });

  it("know a step that only goes on by its button", () => {
    const going = step({ enters: [], presses: sign({ label: "Not now" }) });
    const dialog = `<h1>Stay signed in?</h1><form method="post" action="/stay"><button name="stay" value="1">Yes</button>
      <button name="stay" value="0">Not now</button></form>`;
    const page = describeAt(dialog);
    const followed = followedOn(page, [going], 0)!;
    expect(followed.reading.kind).toBe("none");
    expect(page.fields.find((one) => one.selector === followed.reading.submit)?.value).toBe("0");
    expect(followedOn(describeAt("<h1>Welcome</h1>"), [going], 0)).toBeNull();
  });
});
