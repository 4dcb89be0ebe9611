/** Strength in words and time; without the word lists, which are large. */
export interface Strength {
  /** log10 of the guesses that find it. */
  guesses: number;
  word: "very weak" | "weak" | "fair" | "good" | "strong";
  /** Against somebody who has the site's list of slow hashes, as it should be kept: ten thousand guesses a second. */
  time: string;
}

const GUESSES_A_SECOND = 4;
const WORDS: readonly [number, Strength["word"]][] = [
  [6, "very weak"],
  [9, "weak"],
  [12, "fair"],
  [15, "good"],
];

const SPANS: readonly [number, string][] = [
  [60, "second"],
  [60, "minute"],
  [24, "hour"],
  [30, "day"],
  [12, "month"],
  [100, "year"],
];

/** "3 hours", "a day", "centuries". */
export function sayDuration(seconds: number): string {
  if (seconds < 1) return "less than a second";
  let amount = seconds;
  for (const [many, name] of SPANS) {
    if (amount < many) {
      const whole = Math.floor(amount);
      return whole === 1 ? `${name === "hour" ? "an" : "a"} ${name}` : `${whole} ${name}s`;
    }
    amount /= many;
  }
  return "centuries";
}

export function strengthOf(guesses: number): Strength {
  return {
    guesses,
    word: WORDS.find(([below]) => guesses < below)?.[1] ?? "strong",
    time: sayDuration(10 ** (guesses - GUESSES_A_SECOND)),
  };
}
