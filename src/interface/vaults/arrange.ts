/** A ledger as one likes it: sorted, grouped, filtered. Ten thousand rows are arranged within a frame or two. */

import { type Reach, rank } from "@/core/access/level";
import type { LedgerSort, LedgerView } from "@/core/ledgerView";
import { siteName } from "@/core/signin/address";
import { BY_HARM, type FindingKind } from "@/core/upkeep/findings";
import { arrange as t } from "./strings";
import { growTree, matchingRows, type Shown, shownRows, type Tree } from "./tree";

export interface Arrangeable {
  id: string;
  type: "folder" | "entry";
  parentId: string | null;
  name: string;
  kind: string;
  tags: string[];
  createdAt: number;
  usedAt: number | null;
  signInPage: string;
  people: number | null;
  guesses: number | null;
  finding: FindingKind | null;
  changedAt: number;
  level: Reach;
}

/** A line over what stands together. */
export interface Heading {
  heading: string;
  count: number;
}

export type Line<R> = Shown<R> | Heading;

export const isHeading = <R>(line: Line<R>): line is Heading => "heading" in line;

type Compared = (row: Arrangeable) => number | string;

/** What a row is sorted by, smallest first: newest, most people, weakest and highest level stand first. */
const SORTED_BY: Record<Exclude<LedgerSort, "name" | "own">, Compared> = {
  used: (row) => -(row.usedAt ?? 0),
  new: (row) => -row.createdAt,
  kind: (row) => row.kind.toLowerCase(),
  address: (row) => (row.signInPage === "" ? "\uffff" : siteName(row.signInPage).toLowerCase()),
  who: (row) => -(row.people ?? 0),
  strength: (row) => row.guesses ?? Number.POSITIVE_INFINITY,
  upkeep: (row) => (row.finding === null ? BY_HARM.length : BY_HARM.indexOf(row.finding)),
  changed: (row) => -row.changedAt,
  you: (row) => (row.level === "none" ? 0 : -rank(row.level)),
};

const compare = (a: number | string, b: number | string): number => (a < b ? -1 : a > b ? 1 : 0);

/** @param rows by name, as the server gives them: equals stay so */
export function sortRows<R extends Arrangeable>(
  rows: readonly R[],
  view: Pick<LedgerView, "sort" | "own" | "reverse">,
): R[] {
  const sorted = inOrder(rows, view);
  return view.reverse ? sorted.reverse() : sorted;
}

function inOrder<R extends Arrangeable>(rows: readonly R[], view: Pick<LedgerView, "sort" | "own">): R[] {
  switch (view.sort) {
    case "name":
      return [...rows];
    case "own": {
      const place = new Map(view.own.map((id, at) => [id, at]));
      const after = view.own.length;
      return rows.toSorted((a, b) => (place.get(a.id) ?? after) - (place.get(b.id) ?? after));
    }
    default: {
      const by = SORTED_BY[view.sort];
      return rows
        .map((row) => ({ row, value: by(row) }))
        .sort((a, b) => compare(a.value, b.value))
        .map(({ row }) => row);
    }
  }
}

interface Wanted<R> {
  view: Pick<LedgerView, "sort" | "own" | "reverse" | "group">;
  open: ReadonlySet<string>;
  /** Null where nothing is filtered. */
  matches: ((row: R, way: string) => boolean) | null;
}

export function arrange<R extends Arrangeable>(
  rows: readonly R[],
  { view, open, matches }: Wanted<R>,
): { lines: Line<R>[]; tree: Tree<R> } {
  const sorted = sortRows(rows, view);
  const tree = growTree(sorted);
  const entriesOnly = () => sorted.filter((row) => row.type === "entry");
  const all: Shown<R>[] =
    view.group === "folder"
      ? matches
        ? matchingRows(tree, sorted, matches)
        : shownRows(tree, open)
      : matchingRows(tree, entriesOnly(), matches ?? (() => true));
  if (view.group === "kind") return { lines: underHeadings(all, (row) => [row.kind]), tree };
  if (view.group === "tag")
    return { lines: underHeadings(all, (row) => (row.tags.length > 0 ? row.tags : [t.withoutATag])), tree };
  return { lines: all, tree };
}

/** Headings by name; what stands under several is shown under each. */
function underHeadings<R extends Arrangeable>(shown: readonly Shown<R>[], headings: (row: R) => string[]): Line<R>[] {
  const under = new Map<string, Shown<R>[]>();
  for (const one of shown)
    for (const heading of headings(one.row)) {
      const there = under.get(heading);
      if (there) there.push(one);
      else under.set(heading, [one]);
    }
  return [...under]
    .sort(([a], [b]) => a.localeCompare(b, "en-GB"))
    .flatMap(([heading, there]): Line<R>[] => [{ heading, count: there.length }, ...there]);
}

/** The person's own order after one row went to another's place. */
export function withMoved(order: readonly string[], id: string, by: -1 | 1): string[] {
  const at = order.indexOf(id);
  const to = at + by;
  if (at === -1 || to < 0 || to >= order.length) return [...order];
  const after = [...order];
  [after[at], after[to]] = [after[to]!, after[at]!];
  return after;
}
