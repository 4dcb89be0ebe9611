/** Values that go into boxes of one character each: a code in a row of them, or chosen letters of a password. */
import type { PageDescription, PageField } from "./page";
import { isFillable } from "./reading/groups";

/**
 * The boxes of one character that begin with a field, in order.
 * @returns empty for an ordinary field
 */
export function boxesFrom(page: PageDescription, selector: string): PageField[] {
  const fields = page.fields.filter(isFillable);
  const first = fields.findIndex((field) => field.selector === selector);
  const begin = fields[first];
  if (begin?.maxLength !== 1) return [];
  let end = first;
  while (fields[end]?.maxLength === 1 && fields[end]!.type === begin.type && fields[end]!.form === begin.form) end++;
  return end - first < 3 ? [] : fields.slice(first, end);
}

/**
 * What goes into each field where a value is asked for: whole, or a character a box.
 * @param value characters are code points
 * @returns null where boxes ask for characters that the value does not have, or do not say for which
 */
export function spread(page: PageDescription, selector: string, value: string): Map<string, string> | null {
  const boxes = boxesFrom(page, selector);
  if (boxes.length === 0) return new Map([[selector, value]]);
  const characters = [...value];
  const places = boxes.map(placeOf);
  const told = places.every((place) => place !== null) && new Set(places).size === places.length;
  // Some of the letters, by their numbers; or all of them in a row, whether or not the boxes are numbered.
  const wanted = told && (places as number[]).some((place, at) => place !== at + 1) ? (places as number[]) : null;
  if (wanted === null && boxes.length < characters.length) return null;
  if (wanted?.some((place) => place < 1 || place > characters.length)) return null;
  const pairs = boxes.flatMap((box, at): [string, string][] => {
    const character = characters[wanted ? wanted[at]! - 1 : at];
    return character === undefined ? [] : [[box.selector, character]];
  });
  return new Map(pairs);
}

/** "3", "3rd letter", "Character 3", "Digit 3 of 6": which character a box is for. */
function placeOf({ label, placeholder }: PageField): number | null {
  const found = /\d+/.exec(`${label} ${placeholder}`);
  return found ? Number(found[0]) : null;
}
