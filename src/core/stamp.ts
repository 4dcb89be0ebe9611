/** An entry's stamp: two letters in one of eight inks, both from its name. */

const letters = (word: string) => Array.from(word.normalize("NFC"));

/** "Pellam Tickets" → "PT", "Quillbrook" → "QU"; any script. */
export function stampLetters(name: string): string {
  const words = name.split(/[^\p{L}\p{N}]+/u).filter(Boolean);
  const [first, second] = words;
  if (!first) return "?";
  const picked = second ? [letters(first)[0], letters(second)[0]] : letters(first).slice(0, 2);
  return picked.join("").toUpperCase();
}

/** 1 to 8; FNV-1a over the name, so that a name keeps its ink. */
export function stampInk(name: string): number {
  let hash = 0x811c9dc5;
  for (const character of name) hash = Math.imul(hash ^ character.codePointAt(0)!, 0x01000193) >>> 0;
  return (hash % 8) + 1;
}
