/** How the reader is fitted: regression over named features, foreign templates, and their words in other languages. */
import { describe, expect, test } from "vitest";
import { fit } from "../scripts/reader/regression";
import { withoutTemplateSigns } from "../scripts/reader/templates";
import { translated } from "../scripts/reader/translations";
import { likely, ranked, reasons } from "../src/core/signin/reading/model";

describe("regression", () => {
  const classes = ["sweet", "sour", "plain"] as const;
  const example = (is: (typeof classes)[number], ...features: string[]) => ({ features, is, weight: 1 });
  const examples = Array.from({ length: 20 }, (_, at) => [
    example("sweet", "fruit", "red", ...(at % 2 ? ["round"] : [])),
    example("sour", "fruit", "yellow", ...(at % 3 ? ["round"] : [])),
    example("plain", "bread", ...(at % 2 ? ["round"] : [])),
  ]).flat();
  const weights = fit(classes, examples);

  test("tells what it was fitted to, and by what", () => {
    for (const { features, is } of examples) expect(ranked(likely(classes, weights, features))[0]).toBe(is);
    expect(reasons(weights, ["fruit", "red", "round"], "sweet")[0]!.feature).toBe("red");
  });

  test("chances make one, and what it has never seen changes nothing", () => {
    const scores = likely(classes, weights, ["fruit", "red"]);
    expect(scores.sweet + scores.sour + scores.plain).toBeCloseTo(1);
    expect(likely(classes, weights, ["fruit", "red", "toString", "constructor"])).toEqual(scores);
    expect(Object.values(likely(classes, weights, [])).every((one) => Math.abs(one - 1 / 3) < 1e-9)).toBe(true);
  });

  test("what was seen twice is chance, and gets no weight", () => {
    const odd = [...examples, example("sour", "blue"), example("sour", "blue")];
    expect(fit(classes, odd)).not.toHaveProperty("blue");
  });
});

test("a template's own signs go, and the words that they show stay", () => {
  expect(
    withoutTemplateSigns(
      `{# note #}<label>{% trans "User name" %}</label><input value="<?php echo esc_attr($x); ?>"><b><?= __('Password') ?></b>{{ form.token }}{{ 'Sign in'|trans }}[% loc('Send') %]`,
    ),
  ).toBe('<label>User name</label><input value=""><b>Password</b>Sign inSend');
});

test("a page is said in another language where enough of it can be, and otherwise not at all", () => {
  const html = '<form><label>Username</label><input placeholder="Password"><button>Log in</button></form>';
  const german = new Map([
    ["username", "Benutzername"],
    ["password", "Kennwort"],
    ["log in", "Anmelden"],
  ]);
  expect(translated(html, german)).toContain('placeholder="Kennwort"');
  expect(translated(html, german)).toContain("Anmelden");
  expect(translated(html, new Map([["username", "Benutzername"]]))).toBeNull();
});
