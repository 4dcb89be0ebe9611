import { describe, expect, test } from "vitest";
import { make, WISHES } from "./purpose";
import { rate } from "./strength";
import { sayDuration, strengthOf } from "./strengthWords";
import { WORDS } from "./wordList";

describe("strength", () => {
  test("what everybody takes falls at once, and so does what stands beside it", () => {
    expect(rate("password1").word).toBe("very weak");
    expect(rate("Summer2026").word).not.toMatch(/good|strong/);
    const name = "tarrowick museums";
    expect(rate(name, ["Tarrowick", "Museums"]).guesses).toBeLessThan(rate(name).guesses);
  });

  test("what is made is strong", () => {
    expect(rate(make(WISHES, WORDS).text).word).toBe("strong");
    expect(rate(make({ ...WISHES, purpose: "words" }, WORDS).text).word).toBe("strong");
  });

  test("more guesses, never a weaker word", () => {
    const order = ["very weak", "weak", "fair", "good", "strong"];
    const words = Array.from({ length: 40 }, (_, i) => order.indexOf(strengthOf(i / 2).word));
    expect(words).toEqual([...words].sort((a, b) => a - b));
    expect(new Set(words).size).toBe(5);
  });

  test.each([
    [0.5, "less than a second"],
    [1, "a second"],
    [59, "59 seconds"],
    [3600, "an hour"],
    [86_400 * 3, "3 days"],
    [86_400 * 31, "a month"],
    [86_400 * 400, "a year"],
    [1e12, "centuries"],
  ])("%s seconds: %s", (seconds, says) => expect(sayDuration(seconds)).toBe(says));
});
