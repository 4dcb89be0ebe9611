import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { cpuTime } from "../../../integration/cpuTime";
import { type CharacterRules, countCharacters, makeCharacters } from "./characters";
import { readPasswordRules, within } from "./passwordRules";
import { make, WISHES, websiteRules } from "./purpose";
import { log2, uniform } from "./random";
import { DIGITS, LOOK_ALIKES, LOWER, PRINTABLE, UPPER } from "./sets";
import { WORDS } from "./wordList";
import { makeWords } from "./words";

/** The rules again, slow and obvious. */
function keeps(text: string, rules: CharacterRules): boolean {
  const alphabet = new Set([...rules.allowed, ...rules.required.flatMap(({ set }) => [...set])]);
  const run = rules.mostAlike === 0 ? null : new RegExp(`(.)\\1{${rules.mostAlike}}`, "s");
  return (
    [...text].length === rules.length &&
    [...text].every((one) => alphabet.has(one)) &&
    rules.required.every(({ set, least }) => [...text].filter((one) => set.includes(one)).length >= least) &&
    !run?.test(text)
  );
}

function everyString(alphabet: string[], length: number): string[] {
  return length === 0 ? [""] : everyString(alphabet, length - 1).flatMap((text) => alphabet.map((one) => text + one));
}

const smallRules = fc.record({
  length: fc.integer({ min: 4, max: 5 }),
  allowed: fc.constantFrom("", "a", "ab", "abx1"),
  required: fc.array(
    fc.record({ set: fc.constantFrom("a", "ab", "bc", "12", "x1"), least: fc.integer({ min: 0, max: 3 }) }),
    { minLength: 1, maxLength: 3 },
  ),
  mostAlike: fc.integer({ min: 0, max: 2 }),
});

describe("random numbers", () => {
  test("each below is as likely, and nothing else comes", () => {
    const counts = new Array<number>(10).fill(0);
    for (let i = 0; i < 20_000; i++) counts[Number(uniform(10n))]!++;
    // 2,000 expected of each; seven standard deviations are 297.
    for (const count of counts) expect(Math.abs(count - 2000)).toBeLessThan(297);
    expect(() => uniform(0n)).toThrow(RangeError);
    expect(uniform(1n)).toBe(0n);
  });

  test("what falls outside is drawn again, not folded back", () => {
    const draws = [255, 200, 7];
    expect(uniform(200n, (bytes) => bytes.fill(draws.shift()!))).toBe(7n);
    expect(draws).toEqual([]);
  });

  test("log2 of numbers of any size", () => {
    expect(log2(1n << 900n)).toBeCloseTo(900, 9);
    expect(log2(10n)).toBeCloseTo(Math.log2(10), 12);
  });
});

describe("characters", () => {
  test("the count is that of all strings that keep the rules", () =>
    fc.assert(
      fc.property(smallRules, (rules) => {
        const alphabet = [...new Set([...rules.allowed, ...rules.required.flatMap(({ set }) => [...set])])];
        const all = everyString(alphabet, rules.length).filter((text) => keeps(text, rules));
        expect(countCharacters(rules)).toBe(BigInt(all.length));
        if (all.length === 0) expect(() => makeCharacters(rules)).toThrow("No password fits all of these rules");
        else expect(all).toContain(makeCharacters(rules).text);
      }),
      { numRuns: 300 },
    ));

  test("each of them is as likely", () => {
    const rules: CharacterRules = {
      length: 4,
      allowed: "",
      required: [
        { set: "ab", least: 1 },
        { set: "b1", least: 2 },
      ],
      mostAlike: 2,
    };
    const all = everyString(["a", "b", "1"], 4).filter((text) => keeps(text, rules));
    const counts = new Map(all.map((text) => [text, 0]));
    const each = 400;
    for (let i = 0; i < all.length * each; i++) {
      const { text } = makeCharacters(rules);
      counts.set(text, counts.get(text)! + 1);
    }
    expect(counts.size).toBe(all.length);
    for (const [text, count] of counts)
      expect(`${text} ${Math.abs(count - each) < 7 * Math.sqrt(each)}`).toBe(`${text} true`);
  });

  test("bits are those of the process", () => {
    const plain = { length: 10, allowed: DIGITS, required: [], mostAlike: 0 };
    expect(makeCharacters(plain).bits).toBeCloseTo(10 * Math.log2(10), 9);
    // Rules only ever take away.
    expect(makeCharacters({ ...plain, mostAlike: 2 }).bits).toBeLessThan(10 * Math.log2(10));
  });

  test("at the longest, with everything asked for, it is there at once", () => {
    const website = { ...WISHES.website, length: 128, lower: 3, upper: 3, digits: 3, signs: 3 };
    let made = { text: "", bits: 0 };
    const taken = cpuTime(() => {
      made = makeCharacters(websiteRules(website));
    });
    const { text, bits } = made;
    expect(keeps(text, websiteRules(website))).toBe(true);
    expect(bits).toBeGreaterThan(700);
    expect(taken).toBeLessThan(1500);
  });

  test("lengths out of bounds are refused in words", () => {
    for (const length of [0, 3, 129, 8.5])
      expect(() => makeCharacters({ length, allowed: DIGITS, required: [], mostAlike: 0 })).toThrow("from 4 to 128");
  });
});

describe("what a site says", () => {
  test("the properties and sets of the syntax", () => {
    const rules = readPasswordRules(
      "minlength: 20; required: lower; required: upper, digit; allowed: [-().&@?'#,/\"+]; max-consecutive: 2",
    );
    expect(rules).toEqual({
      required: [LOWER, UPPER + DIGITS],
      allowed: "-().&@?'#,/\"+",
      shortest: 20,
      longest: null,
      mostAlike: 2,
    });
    expect(readPasswordRules("allowed: [a;b,c]; maxlength: 9")).toMatchObject({ allowed: "a;b,c", longest: 9 });
    expect(readPasswordRules("allowed: []]").allowed).toBe("]");
    expect(readPasswordRules("").required).toEqual([]);
  });

  test.each([
    ["lower", "is not a rule"],
    ["required: vowels", "is not a set of characters"],
    ["minlength: many", "whole number"],
    ["minlength: 9; maxlength: 8", "larger than the maximum"],
    ["colour: red", "There is no rule"],
  ])("%s is refused: %s", (text, message) => expect(() => readPasswordRules(text)).toThrow(message));

  test("whatever rules a site gives, what is made keeps them", () =>
    fc.assert(
      fc.property(
        fc.record({
          sets: fc.array(fc.constantFrom("lower", "upper", "digit", "special", "[-_.]"), {
            minLength: 1,
            maxLength: 4,
          }),
          shortest: fc.integer({ min: 6, max: 12 }),
          longest: fc.integer({ min: 12, max: 30 }),
          alike: fc.integer({ min: 1, max: 3 }),
          wanted: fc.integer({ min: 8, max: 40 }),
        }),
        ({ sets, shortest, longest, alike, wanted }) => {
          const said = `${sets.map((set) => `required: ${set}; `).join("")}minlength: ${shortest}; maxlength: ${longest}; max-consecutive: ${alike}`;
          const rules = within(readPasswordRules(said), wanted);
          const { text } = makeCharacters(rules);
          expect(keeps(text, rules)).toBe(true);
          expect(text.length).toBeLessThanOrEqual(longest);
          expect(text.length).toBeGreaterThanOrEqual(Math.min(wanted, shortest));
        },
      ),
      { numRuns: 60 },
    ));

  test("a site that says nothing of characters gets printable ones, without the space", () =>
    expect(within(readPasswordRules("minlength: 8"), 12).allowed).toBe(PRINTABLE.replace(" ", "")));
});

describe("words", () => {
  test("the list holds 7,776 different words", () => {
    expect(new Set(WORDS).size).toBe(7776);
    expect(WORDS.every((word) => /^[a-z-]{3,}$/.test(word))).toBe(true);
  });

  test("as asked for, and so many bits", () => {
    const made = makeWords(WORDS, { count: 6, separator: ".", capitals: true, digit: true });
    expect(made.text).toMatch(/^([A-Z][a-z-]+\d?\.){5}[A-Z][a-z-]+\d?$/);
    expect(made.text.match(/\d/g)).toHaveLength(1);
    expect(made.bits).toBeCloseTo(6 * Math.log2(7776) + Math.log2(60), 9);
    expect(() => makeWords(WORDS, { count: 2, separator: "-", capitals: false, digit: false })).toThrow("From 3 to 12");
  });
});

describe("wishes", () => {
  test("no look-alikes means none, in whatever is asked for", () => {
    for (let i = 0; i < 50; i++) {
      const { text } = make({ ...WISHES, website: { ...WISHES.website, length: 40, noLookAlikes: true } }, WORDS);
      expect([...text].filter((one) => LOOK_ALIKES.includes(one))).toEqual([]);
    }
  });

  test("a keypad has digits, by hand nothing that needs Shift", () => {
    expect(make({ ...WISHES, purpose: "keypad" }, WORDS).text).toMatch(/^\d{6}$/);
    expect(make({ ...WISHES, purpose: "easy" }, WORDS).text).toMatch(/^[a-z346789]{14}$/);
    expect(make({ ...WISHES, purpose: "words" }, WORDS).text.split("-").length).toBeGreaterThanOrEqual(5);
  });
});
