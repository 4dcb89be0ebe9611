/** Levels of access, lowest first; each includes the ones before it. */
export const LEVELS = ["use", "reveal", "edit", "steward"] as const;

export type Level = (typeof LEVELS)[number];

/** What a grant gives: a level, or `blocked`, which gives nothing and outranks other groups. */
export type Given = Level | "blocked";

/** What a person ends up with at a node: a level or nothing. */
export type Reach = Level | "none";

/** Position of a level in the order: none 0, use 1 … steward 4. */
export function rank(reach: Reach): number {
  return reach === "none" ? 0 : LEVELS.indexOf(reach) + 1;
}

/** Whether `reach` is at least `needed`. */
export function atLeast(reach: Reach, needed: Level): boolean {
  return rank(reach) >= rank(needed);
}

/** The higher of two. */
export function higher<A extends Reach>(a: A, b: A): A {
  return rank(a) >= rank(b) ? a : b;
}

const WORDS: Record<Given | "none", string> = {
  none: "nothing",
  use: "Use",
  reveal: "Reveal",
  edit: "Edit",
  steward: "Steward",
  blocked: "Blocked",
};

/** A level's word as it stands on the screen. */
export function levelWord(level: Given | "none"): string {
  return WORDS[level];
}
