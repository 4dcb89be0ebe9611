/** Which rows are chosen, and from where a range goes on: as lists do everywhere, with Shift and Ctrl. */

export interface Chosen {
  ids: ReadonlySet<string>;
  /** Where a range begins. */
  from: string | null;
  /** What was chosen before the range was begun. */
  before: ReadonlySet<string>;
}

const none: ReadonlySet<string> = new Set();
export const NOTHING_CHOSEN: Chosen = { ids: none, from: null, before: none };

/**
 * @param order ids as they stand on the page
 * @param how `one`: this alone; `turn`: this too, or no more; `through`: all from where one began to this
 */
export function choose(now: Chosen, order: readonly string[], id: string, how: "one" | "turn" | "through"): Chosen {
  if (how === "one") return { ids: new Set([id]), from: id, before: none };
  if (how === "turn") {
    const ids = new Set(now.ids);
    if (!ids.delete(id)) ids.add(id);
    return { ids, from: id, before: new Set([...ids].filter((one) => one !== id)) };
  }
  const [a, b] = [order.indexOf(now.from ?? id), order.indexOf(id)];
  const range = a === -1 ? [id] : order.slice(Math.min(a, b), Math.max(a, b) + 1);
  return { ids: new Set([...now.before, ...range]), from: a === -1 ? id : now.from, before: now.before };
}

export const chooseAll = (ids: readonly string[]): Chosen => ({
  ids: new Set(ids),
  from: ids[0] ?? null,
  before: none,
});
