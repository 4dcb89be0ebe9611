/** Which rows are shown: those on which a shown column has what is looked for. */
import { isActive, type Lookup, subjectKey } from "@/core/access";
import { type Column, cellAt } from "./grid";
import { accessPage as t } from "./strings";

export const SHOWS = {
  all: "Everything",
  set: t.setDirectly,
  ends: t.withAnEndDate,
  ways: t.moreThanOneWay,
  guests: "Guests",
  use: t.atUse,
  reveal: t.atReveal,
  edit: t.atEdit,
  steward: t.atSteward,
  blocked: "Blocked",
} as const;
export type Shows = keyof typeof SHOWS;

/** Rows on which a shown column has what is asked for. */
export function showing(
  shows: Shows,
  lookup: Lookup,
  columns: readonly Column[],
  at: number,
): ((node: { id: string; mine: boolean }) => boolean) | null {
  if (shows === "all" || shows === "guests") return null;
  const subjects = new Set(columns.map((column) => subjectKey(column.subject)));
  if (shows === "set" || shows === "ends")
    return ({ id, mine }) =>
      mine &&
      lookup
        .grantsOn(id)
        .some(
          (grant) =>
            subjects.has(subjectKey(grant.subject)) &&
            (shows === "set" ? isActive(grant, at) : grant.until !== null && grant.until > at),
        );
  // What decides about one node decides about all of its region.
  const regions = new Map<string, boolean>();
  return ({ id, mine }) => {
    if (!mine) return false;
    const region = lookup.region(id);
    const known = regions.get(region);
    if (known !== undefined) return known;
    const fits = columns.some((column) => {
      const cell = cellAt(lookup, column, region, at);
      return shows === "ways" ? cell.ways > 1 && column.subject.kind === "person" : cell.level === shows;
    });
    regions.set(region, fits);
    return fits;
  };
}
