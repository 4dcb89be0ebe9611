/** Finding entries as one types: every word typed must begin a word of the line, or stand within its name. */

export interface Findable {
  id: string;
  name: string;
  description: string;
  site: string;
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

const fold = (text: string) =>
  text
    .normalize("NFKD")
    .replace(/\p{M}+/gu, "")
    .toLowerCase();

export type Index<L> = Prepared<L>[];

/** Folds case and accents once, so that a keystroke only compares. */
export function prepare<L extends Findable>(lines: readonly L[]): Index<L> {
  return lines.map((line) => {
    const name = fold(line.name);
    return {
      line,
      name,
      text: ` ${name} ${fold([line.description, line.site, line.vault, ...line.tags].join(" "))}`.replace(
        /[^\p{L}\p{N}]+/gu,
        " ",
      ),
    };
  });
}

/** Best first: names that begin so, then names that hold it, then the rest; each by pin, last use, name. */
export function find<L extends Findable>(index: Index<L>, typed: string, most = 200): L[] {
  const words = fold(typed)
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);
  if (words.length === 0) return [];
  const whole = words.join(" ");
  const found: { line: L; name: string; score: number }[] = [];
  for (const { line, name, text } of index) {
    if (!words.every((word) => text.includes(` ${word}`) || name.includes(word))) continue;
    found.push({
      line,
      name,
      score: name.startsWith(whole) ? 3 : name.includes(whole) ? 2 : words.every((word) => name.includes(word)) ? 1 : 0,
    });
  }
  found.sort(
    (a, b) =>
      b.score - a.score ||
      Number(b.line.pinned) - Number(a.line.pinned) ||
      (b.line.lastUsedAt ?? 0) - (a.line.lastUsedAt ?? 0) ||
      (a.name < b.name ? -1 : 1),
  );
  return found.slice(0, most).map(({ line }) => line);
}
