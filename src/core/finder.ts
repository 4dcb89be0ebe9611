/**
 * Finding entries as one types: every word typed must begin a word of the line, or stand within its name. Where nothing
 * does, words of names and sites that differ by a slip of the finger count as well.
 */

export interface Findable {
  id: string;
  name: string;
  description: string;
  site: string;
  kind: string;
  vault: string;
  tags: readonly string[];
  lastUsedAt: number | null;
  pinned: boolean;
}

interface Prepared<L> {
  line: L;
  name: string;
  text: string;
}

interface Word {
  word: string;
  /** Which letters are in it: two words that differ by one slip differ in two letters at most. */
  letters: number;
  /** Places in the index of the lines that have it. */
  at: number[];
}

/** Lines in the order in which equals are shown: pinned, lately used, by name. */
export interface Index<L> {
  lines: Prepared<L>[];
  words: Word[];
}

const fold = (text: string) =>
  text
    .normalize("NFKD")
    .replace(/\p{M}+/gu, "")
    .toLowerCase();

const split = (text: string) => text.split(/[^\p{L}\p{N}]+/u).filter(Boolean);

/**
 * Folds case and accents and puts in order once, so that a keystroke only compares.
 * @param more other words of a line, by its id: folders, open fields, the user name where one may see it
 */
export function prepare<L extends Findable>(lines: readonly L[], more?: ReadonlyMap<string, string>): Index<L> {
  const prepared = lines.map((line) => {
    const name = fold(line.name);
    const rest = fold(
      [line.description, line.site, line.kind, line.vault, ...line.tags, more?.get(line.id) ?? ""].join(" "),
    );
    return { line, name, text: ` ${name} ${rest}`.replace(/[^\p{L}\p{N}]+/gu, " ") };
  });
  prepared.sort(
    (a, b) =>
      Number(b.line.pinned) - Number(a.line.pinned) ||
      (b.line.lastUsedAt ?? 0) - (a.line.lastUsedAt ?? 0) ||
      (a.name < b.name ? -1 : 1),
  );
  const words = new Map<string, Word>();
  for (const [at, { line, name }] of prepared.entries())
    for (const word of new Set(split(`${name} ${line.site}`))) {
      // Numbers are not guessed at.
      if (word.length < SHORTEST || /\d/.test(word)) continue;
      const known = words.get(word);
      if (known) known.at.push(at);
      else words.set(word, { word, letters: lettersOf(word), at: [at] });
    }
  return { lines: prepared, words: [...words.values()] };
}

/** The first lines, where nothing has been typed. */
export const first = <L>(index: Index<L>, most: number): L[] => index.lines.slice(0, most).map(({ line }) => line);

/**
 * The same for rows that stay in their order: every word typed begins a word of the text or stands within the name.
 * @returns null where nothing is typed
 */
export function matcherOf(typed: string): ((name: string, rest: string) => boolean) | null {
  const words = split(fold(typed));
  if (words.length === 0) return null;
  return (name, rest) => {
    const folded = foldedOnce(name);
    const text = foldedOnce(rest);
    return words.every((word) => folded.includes(word) || ` ${text}`.includes(` ${word}`));
  };
}

const MOST_FOLDED = 50_000;
const foldedTexts = new Map<string, string>();

/** Texts stay the same from key to key. */
function foldedOnce(text: string): string {
  const known = foldedTexts.get(text);
  if (known !== undefined) return known;
  if (foldedTexts.size >= MOST_FOLDED) foldedTexts.clear();
  const folded = split(fold(text)).join(" ");
  foldedTexts.set(text, folded);
  return folded;
}

/** Best first: names that begin so, then names that hold it, then the rest; among equals the index's order. */
export function find<L extends Findable>(index: Index<L>, typed: string, most = 200): L[] {
  const words = split(fold(typed));
  if (words.length === 0) return [];
  const whole = words.join(" ");
  const starts = words.map((word) => ` ${word}`);
  const shelves: L[][] = [[], [], [], []];
  for (const { line, name, text } of index.lines) {
    if (!words.every((word, i) => text.includes(starts[i]!) || name.includes(word))) continue;
    const at = name.indexOf(whole);
    const shelf = at === 0 ? 0 : at > 0 ? 1 : words.every((word) => name.includes(word)) ? 2 : 3;
    if (shelves[shelf]!.length < most) shelves[shelf]!.push(line);
    if (shelves[0]!.length === most) break;
  }
  const found = shelves.flat();
  return found.length > 0 ? found.slice(0, most) : withSlips(index, words, most);
}

/** Shorter words have too many neighbours. */
const SHORTEST = 4;
const LONG = 8;

/**
 * Each word begins a word of the line but for one slip, or two in long ones; words that fit as they are count too. It
 * goes by the word that the fewest lines come near to, so that the others are looked for in few.
 */
function withSlips<L extends Findable>(index: Index<L>, words: readonly string[], most: number): L[] {
  const each = words.map((word) => ({ word, near: linesNear(index, word) }));
  const [rarest, ...others] = each.sort((a, b) => (a.near.size || Infinity) - (b.near.size || Infinity));
  const found = [...rarest!.near].filter((at) =>
    others.every(({ word, near }) => near.has(at) || index.lines[at]!.text.includes(` ${word}`)),
  );
  return found
    .sort((a, b) => a - b)
    .slice(0, most)
    .map((at) => index.lines[at]!.line);
}

function linesNear(index: Index<unknown>, typed: string): Set<number> {
  const near = new Set<number>();
  if (typed.length < SHORTEST) return near;
  const slips = typed.length >= LONG ? 2 : 1;
  const letters = lettersOf(typed);
  for (const { word, letters: its, at } of index.words)
    if (
      sameStart(typed, word) &&
      word.length + slips >= typed.length &&
      missing(letters, its) <= slips &&
      isNear(typed, word, slips)
    )
      for (const line of at) near.add(line);
  return near;
}

/** Hardly anybody gets the first letter wrong but by swapping it, doubling it or leaving it out. */
const sameStart = (typed: string, word: string): boolean =>
  typed[0] === word[0] || typed[0] === word[1] || typed[1] === word[0];

/** A bit for each of thirty-two sorts of letters. */
function lettersOf(word: string): number {
  let bits = 0;
  for (let i = 0; i < word.length; i++) bits |= 1 << (word.charCodeAt(i) & 31);
  return bits;
}

/** How many letters of one the other has not. */
function missing(one: number, other: number): number {
  let left = one & ~other;
  let count = 0;
  while (left !== 0) {
    left &= left - 1;
    count++;
  }
  return count;
}

/**
 * Whether `typed` is the beginning of `word` but for so many slips: a letter too many, too few, another, or two that
 * changed places (Damerau's distance, cut off).
 */
function isNear(typed: string, word: string, slips: number): boolean {
  const width = Math.min(word.length, typed.length + slips);
  let before: number[] = [];
  let row = Array.from({ length: width + 1 }, (_, i) => i);
  for (let i = 1; i <= typed.length; i++) {
    const next = [i];
    let least = i;
    for (let j = 1; j <= width; j++) {
      const same = typed[i - 1] === word[j - 1];
      let cost = Math.min(row[j]! + 1, next[j - 1]! + 1, row[j - 1]! + (same ? 0 : 1));
      if (i > 1 && j > 1 && typed[i - 1] === word[j - 2] && typed[i - 2] === word[j - 1])
        cost = Math.min(cost, before[j - 2]! + 1);
      next.push(cost);
      least = Math.min(least, cost);
    }
    if (least > slips) return false;
    before = row;
    row = next;
  }
  return Math.min(...row) <= slips;
}
