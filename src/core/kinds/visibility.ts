/** Who sees a value, by the class of its field; and which values a change of classes would show to more people. */
import { CODE, type FieldClass, fieldOf, type Kind } from "./kind";

const HIDDEN: Record<FieldClass, number> = { open: 0, identifier: 1, secret: 2 };

/** Whether a value of class `after` is seen by people who do not see one of class `before`. */
export const isMoreVisible = (after: FieldClass, before: FieldClass): boolean => HIDDEN[after] < HIDDEN[before];

/** The one that fewer people see. */
export const stricter = (a: FieldClass, b: FieldClass): FieldClass => (isMoreVisible(a, b) ? b : a);

/** What says the classes of an entry's values. */
export interface Classes {
  kind: Kind;
  extras: readonly { id: string; label: string; class: FieldClass }[];
}

/**
 * The class of a value.
 * @param id of a field of the kind, or `extra:ID`
 * @returns null where there is no such field
 */
export function classOf({ kind, extras }: Classes, id: string): FieldClass | null {
  if (id.startsWith("extra:")) return extras.find((extra) => `extra:${extra.id}` === id)?.class ?? null;
  return id === CODE ? "secret" : (fieldOf(kind, id)?.class ?? null);
}

/** Of some values, the ids of those that would be seen by more people with other classes than they have now. */
export const shownToMore = (ids: Iterable<string>, before: Classes, after: Classes): string[] =>
  [...ids].filter((id) => {
    const [was, is] = [classOf(before, id), classOf(after, id)];
    return is !== null && isMoreVisible(is, was ?? "secret");
  });
