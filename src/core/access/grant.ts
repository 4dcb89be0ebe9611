import { clockChanges } from "../zone";
import type { Instant } from "./instant";
import type { Given } from "./level";
import { edgesOf, isOpen, type Weekly } from "./weekly";

export type Subject = { kind: "person"; id: string } | { kind: "group"; id: string } | { kind: "everyone" };

/** Active from `from` (or always) up to, not including, `until` (or without end); within that, perhaps only weekly. */
export interface Window {
  from: Instant | null;
  until: Instant | null;
  weekly?: Weekly | null;
}

/** One line of access on one node. */
export interface Grant extends Window {
  id: string;
  node: string;
  subject: Subject;
  level: Given;
}

/** `from ≤ at < until`; an open side does not limit. */
export function isActive({ from, until, weekly }: Window, at: Instant): boolean {
  return (from === null || from <= at) && (until === null || at < until) && (!weekly || isOpen(weekly, at));
}

/** A subject as one string, for maps and comparison. */
export function subjectKey(subject: Subject): string {
  return subject.kind === "everyone" ? "everyone" : `${subject.kind}:${subject.id}`;
}

const DAY = 86_400_000;
/** Longer than any weekly window takes to come round. */
const ROUND = 8 * DAY;

/** The earliest moment after `at` at which one of the windows opens or closes; null when none does. */
export function nextBoundary(windows: Iterable<Window>, at: Instant): Instant | null {
  let next: Instant | null = null;
  const look = (edge: Instant | null) => {
    if (edge !== null && edge > at && (next === null || edge < next)) next = edge;
  };
  for (const window of windows) {
    look(window.from);
    look(window.until);
    if (window.weekly) look(weeklyEdges(window, at, at + ROUND)[0] ?? null);
  }
  return next;
}

function weeklyEdges({ from, until, weekly }: Window, at: Instant, to: Instant): Instant[] {
  if (!weekly) return [];
  return edgesOf(weekly, at, to).filter((edge) => (from === null || edge > from) && (until === null || edge < until));
}

/**
 * The moments to look at: `at`, and every one after it up to `to` at which a window opens or closes. What comes back
 * each week is looked at once after each other moment, and after each change of the clocks: in between it repeats.
 */
export function momentsAhead(windows: readonly Window[], at: Instant, to: Instant): Instant[] {
  const weekly = windows.filter((window) => window.weekly);
  const zones = new Set(weekly.map((window) => window.weekly!.zone));
  const fixed = new Set([at]);
  for (const { from, until } of windows)
    for (const edge of [from, until]) if (edge !== null && edge > at && edge <= to) fixed.add(edge);
  // A window may begin the day before the clocks are changed, and its first full round ends a week after it.
  for (const zone of zones)
    for (const change of clockChanges(zone, at, to))
      for (const edge of [change - DAY, change, change + DAY]) if (edge > at && edge <= to) fixed.add(edge);
  const all = new Set(fixed);
  for (const start of fixed)
    for (const window of weekly)
      for (const edge of weeklyEdges(window, start, Math.min(to, start + ROUND))) all.add(edge);
  return [...all].sort((a, b) => a - b);
}
