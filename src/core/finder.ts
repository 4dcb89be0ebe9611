/** Finding entries as one types: every word typed must begin a word of the line, or stand within its name. */

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

const fold = (text: string) =>
  text
    .normalize("NFKD")
    .replace(/\p{M}+/gu, "")
    .toLowerCase();

/** Lines in the order in which equals are shown: pinned, lately used, by name. */
export type Index<L> = Prepared<L>[];

/** Folds case and accents and puts in order once, so that a keystroke only compares. */
export function prepare<L extends Findable>(lines: readonly L[]): Index<L> {
  const index = lines.map((line) => {
    const name = fold(line.name);
    const rest = fold([line.description, line.site, line.kind, line.vault, ...line.tags].join(" "));
    return { line, name, text: ` ${name} ${rest}`.replace(/[^\p{L}\p{N}]+/gu, " ") };
  });
  return index.sort(
    (a, b) =>
      Number(b.line.pinned) - Number(a.line.pinned) ||
      (b.line.lastUsedAt ?? 0) - (a.line.lastUsedAt ?? 0) ||
      (a.name < b.name ? -1 : 1),
  );
}

/** Best first: names that begin so, then names that hold it, then the rest; among equals the index's order. */
export function find<L extends Findable>(index: Index<L>, typed: string, most = 200): L[] {
  const words = fold(typed)
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);
  if (words.length === 0) return [];
  const whole = words.join(" ");
  const starts = words.map((word) => ` ${word}`);
  const shelves: L[][] = [[], [], [], []];
  for (const { line, name, text } of index) {
    if (!words.every((word, i) => text.includes(starts[i]!) || name.includes(word))) continue;
    const at = name.indexOf(whole);
    const shelf = at === 0 ? 0 : at > 0 ? 1 : words.every((word) => name.includes(word)) ? 2 : 3;
    if (shelves[shelf]!.length < most) shelves[shelf]!.push(line);
    if (shelves[0]!.length === most) break;
  }
  return shelves.flat().slice(0, most);
}
