/**
 * Long lists on their way from the server to a page, as one text: React's own form takes each value apart on arrival,
 * and ten thousand rows of it are felt. The rows name their fields once.
 */
export type Packed<R> = string & { readonly packs?: R };

/** @param rows all with the same fields */
export function pack<R extends object>(rows: readonly R[]): Packed<R> {
  const fields = Object.keys(rows[0] ?? {}) as (keyof R)[];
  return JSON.stringify([fields, ...rows.map((row) => fields.map((field) => row[field]))]);
}

export function unpack<R extends object>(packed: Packed<R>): R[] {
  const [fields, ...rows] = JSON.parse(packed) as [string[], ...unknown[][]];
  return rows.map((row) => {
    const made: Record<string, unknown> = {};
    for (let i = 0; i < fields.length; i++) made[fields[i]!] = row[i];
    return made as R;
  });
}
