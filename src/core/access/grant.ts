import type { Given } from "./level";

/** Milliseconds since 1970-01-01 UTC. */
export type Instant = number;

export type Subject = { kind: "person"; id: string } | { kind: "group"; id: string } | { kind: "everyone" };

/** Active from `from` (or always) up to, not including, `until` (or without end). */
export interface Window {
  from: Instant | null;
  until: Instant | null;
}

/** One line of access on one node. */
export interface Grant extends Window {
  id: string;
  node: string;
  subject: Subject;
  level: Given;
}

/** `from ≤ at < until`; an open side does not limit. */
export function isActive(window: Window, at: Instant): boolean {
  return (window.from === null || window.from <= at) && (window.until === null || at < window.until);
}

/** A subject as one string, for maps and comparison. */
export function subjectKey(subject: Subject): string {
  return subject.kind === "everyone" ? "everyone" : `${subject.kind}:${subject.id}`;
}

/** The earliest moment after `at` at which one of the windows opens or closes; null when none does. */
export function nextBoundary(windows: Iterable<Window>, at: Instant): Instant | null {
  let next: Instant | null = null;
  for (const { from, until } of windows)
    for (const edge of [from, until]) if (edge !== null && edge > at && (next === null || edge < next)) next = edge;
  return next;
}
