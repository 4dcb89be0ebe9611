const plain = (text: string): string =>
  text
    .normalize("NFKD")
    .replace(/\p{M}+/gu, "")
    .toLowerCase();

/**
 * Where in a list the letters typed lead: a single letter pressed again goes to the next name that begins with it, as in
 * every list of a browser; more letters go to the first that begins with all of them.
 * @param here the place that has the focus
 * @returns null where no name begins so
 */
export function startingWith(names: readonly string[], typed: string, here: number): number | null {
  const letters = [...plain(typed)];
  const repeated = letters.every((letter) => letter === letters[0]);
  const begins = (text: string) => (at: number) => plain(names[at]!).startsWith(text);
  const order = names.map((_, i) => i);
  const whole = order.filter(begins(letters.join("")));
  if (letters.length > 1 && whole.length > 0) return whole.includes(here) ? here : whole[0]!;
  if (!repeated) return null;
  const all = order.filter(begins(letters[0] ?? ""));
  return all.find((at) => at > here) ?? all[0] ?? null;
}
