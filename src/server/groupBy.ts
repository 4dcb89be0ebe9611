/** Items by key, in the order they came. */
export function groupBy<K, V>(items: readonly V[], key: (item: V) => K): Map<K, V[]> {
  const map = new Map<K, V[]>();
  for (const item of items) {
    const known = map.get(key(item));
    if (known) known.push(item);
    else map.set(key(item), [item]);
  }
  return map;
}
