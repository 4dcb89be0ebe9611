/**
 * Long lists on their way from the server to a page, as one text: React's own form takes each value apart on arrival,
 * and ten thousand rows of it are felt. Fields are named once, and go column by column: of one whose values come again and
 * again each is written once, and then its number.
 */
export type Packed<R> = string & { readonly packs?: R };

/** All values in their order; or those that there are, and for each row the number of its own. */
type Column = unknown[] | { values: unknown[]; of: number[] };

/** Rows by which is judged whether the values of a column come again. */
const LOOKED_AT = 24;

/** @param rows all with the same fields */
export function pack<R extends object>(rows: readonly R[]): Packed<R> {
  const fields = Object.keys(rows[0] ?? {}) as (keyof R)[];
  return JSON.stringify([fields, rows.length, ...fields.map((field) => columnOf(rows.map((row) => row[field])))]);
}

function columnOf(all: unknown[]): Column {
  const some = new Set(all.slice(0, LOOKED_AT).map(markOf));
  if (all.length < 4 || some.size > Math.min(all.length, LOOKED_AT) / 2) return all;
  const places = new Map<unknown, number>();
  const values: unknown[] = [];
  const of = all.map((value) => {
    const mark = markOf(value);
    const known = places.get(mark);
    if (known !== undefined) return known;
    places.set(mark, values.length);
    return values.push(value) - 1;
  });
  return { values, of };
}

/** Tells values apart that JSON tells apart. */
const markOf = (value: unknown): unknown =>
  typeof value === "object" && value !== null
    ? `object ${JSON.stringify(value)}`
    : typeof value === "string"
      ? `text ${value}`
      : value;

/** Values that came more than once are one and the same in all rows: nobody changes them. */
export function unpack<R extends object>(packed: Packed<R>): R[] {
  const [fields, count, ...columns] = JSON.parse(packed) as [string[], number, ...Column[]];
  const rows = Array.from({ length: count }, () => ({}) as Record<string, unknown>);
  for (let c = 0; c < fields.length; c++) {
    const [field, column] = [fields[c]!, columns[c]!];
    if (Array.isArray(column)) for (let i = 0; i < count; i++) rows[i]![field] = column[i];
    else for (let i = 0; i < count; i++) rows[i]![field] = column.values[column.of[i]!];
  }
  return rows as R[];
}
