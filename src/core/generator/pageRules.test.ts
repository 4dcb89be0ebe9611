import { describe, expect, test } from "vitest";
import { make, WISHES } from ".";
import { rulesOfPage } from "./pageRules";

const rules = (text: string, more: Partial<Parameters<typeof rulesOfPage>[0]> = {}) =>
  rulesOfPage({ rules: "", shortest: null, longest: null, text, ...more });

describe("what a page says of its passwords", () => {
  test.each([
    ["At least 12 characters, with a digit", "minlength: 12; required: digit; allowed: lower, upper, digit"],
    ["8–16 characters", "minlength: 8; maxlength: 16"],
    [
      "8 to 16 characters, one uppercase letter and one symbol",
      "minlength: 8; maxlength: 16; required: upper; required: special; allowed: lower, upper, digit",
    ],
    [
      "Mindestens 10 Zeichen, höchstens 30, ein Großbuchstabe und eine Ziffer",
      "minlength: 10; maxlength: 30; required: upper; required: digit; allowed: lower, upper, digit",
    ],
    ["Au moins 9 caractères", "minlength: 9"],
    ["Your password", ""],
    ["Open since 1998, minimum 1998 things", ""],
  ])("%s", (text, expected) => expect(rules(text)).toBe(expected));

  test("the site's own rules go before its words, unless they cannot be read", () => {
    expect(rules("at least 30", { rules: "minlength: 9; required: digit" })).toBe("minlength: 9; required: digit");
    expect(rules("at least 30", { rules: "make it good" })).toBe("minlength: 30");
  });

  test("lengths of the field count with its words, and a maximum below the minimum is not believed", () => {
    expect(rules("at least 10", { shortest: 8, longest: 20 })).toBe("minlength: 10; maxlength: 20");
    expect(rules("at least 30", { longest: 20 })).toBe("minlength: 30");
  });

  test("what is made keeps them", () => {
    const siteRules = rules("8 to 12 characters, one capital letter, one digit");
    for (let i = 0; i < 50; i++) {
      const { text } = make({ ...WISHES, website: { ...WISHES.website, siteRules } }, []);
      expect(text).toMatch(/^(?=.*[A-Z])(?=.*\d)[A-Za-z\d]{12}$/);
    }
  });
});
