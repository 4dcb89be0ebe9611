/**
 * A gate for what is written of every request but need not be: true at most once a minute for each id. What it remembers
 * is forgotten again, so that it does not grow with every session that ever was.
 */
export function onceAMinute(): (id: string, now: number) => boolean {
  const passed = new Map<string, number>();
  return (id, now) => {
    if (now - (passed.get(id) ?? Number.NEGATIVE_INFINITY) < 60_000) return false;
    for (const [other, at] of passed) {
      // Oldest first: a Map keeps the order in which ids came.
      if (now - at < 60_000) break;
      passed.delete(other);
    }
    passed.delete(id);
    passed.set(id, now);
    return true;
  };
}
