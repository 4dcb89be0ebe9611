/** The order in which names are listed, everywhere alike. */
const { compare } = new Intl.Collator("en-GB");

export const byName = (a: { name: string }, b: { name: string }): number => compare(a.name, b.name);

/** Long lists: each name is folded once, and compared as it is. */
export function sortByName<T extends { name: string }>(rows: readonly T[]): T[] {
  const folded = rows.map((row) => ({ row, key: fold(row.name) }));
  folded.sort((a, b) => (a.key < b.key ? -1 : a.key > b.key ? 1 : byName(a.row, b.row)));
  return folded.map(({ row }) => row);
}

/** Without upper case and accents. */
export const fold = (text: string): string => {
  const lower = text.toLowerCase();
  return /^[\0-\x7f]*$/.test(lower) ? lower : lower.normalize("NFKD").replace(/\p{M}+/gu, "");
};
