/** A host that looks like one of the person's own but is not: said aloud, and nothing else done there. */
import { siteOf } from "../../src/core/signin/site";
import type { KeyLine } from "../../src/server/lanyard/keys";

const FOLDS: [RegExp, string][] = [
  [/rn/g, "m"],
  [/vv/g, "w"],
  [/[1|]/g, "l"],
  [/0/g, "o"],
  [/5/g, "s"],
  [/[^\x00-\x7f]/g, "?"],
];

const fold = (text: string) => FOLDS.reduce((now, [from, to]) => now.replace(from, to), text.toLowerCase());

export function lookAlike(url: string, keys: readonly KeyLine[]): { here: string; kept: KeyLine } | null {
  const here = siteOf(new URL(url).hostname);
  for (const key of keys) {
    const kept = siteOf(new URL(key.signInPage).hostname);
    if (kept.length < 5 || here === kept) continue;
    const label = kept.split(".")[0]!;
    const sameLabel = here.split(".")[0] === label && label.length >= 6;
    if (fold(here) === fold(kept) || distance(here, kept) === 1 || sameLabel) return { here, kept: key };
  }
  return null;
}

/** Edits between two short texts, transpositions included; stops at two. */
function distance(a: string, b: string): number {
  if (Math.abs(a.length - b.length) > 1) return 2;
  let i = 0;
  while (i < a.length && i < b.length && a[i] === b[i]) i++;
  if (a.slice(i + 1) === b.slice(i + 1) || a.slice(i) === b.slice(i + 1) || a.slice(i + 1) === b.slice(i))
    return a === b ? 0 : 1;
  return a[i] === b[i + 1] && a[i + 1] === b[i] && a.slice(i + 2) === b.slice(i + 2) ? 1 : 2;
}
