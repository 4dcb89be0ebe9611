/** Access worked out a second time, slowly and as literally as the rules are written. For tests alone. */
import type { Grant, Subject } from "./grant";
import { type Given, LEVELS, type Reach } from "./level";
import type { Organised } from "./organisation";
import type { Step, Who } from "./resolve";
import type { Weekly } from "./weekly";

const group = (id: string): Subject => ({ kind: "group", id });
const everyone: Subject = { kind: "everyone" };

/**
 * A second implementation, slow and as literal as the rules are written: for each subject it looks along the whole
 * path afresh, and it sorts instead of comparing.
 */
export function slowly(of: Who, steps: Step[], at: number): Reach {
  if (of.standing !== "active") return "none";
  const subjects: Subject[] = [
    { kind: "person", id: of.id },
    ...[...of.groups].map(group),
    ...(of.guest ? [] : [everyone]),
  ];
  const reachable: Step[] = [];
  for (const step of steps) {
    reachable.push(step);
    if (step.separate) break;
  }
  const same = (a: Subject, b: Subject) => JSON.stringify(a) === JSON.stringify(b);
  const says = subjects.map((subject) => {
    for (const step of reachable) {
      const here = step.grants
        .filter((one) => same(one.subject, subject) && slowlyActive(one, at))
        .map((one) => one.level);
      if (here.includes("blocked")) return "blocked" as const;
      if (here.length > 0) return here.sort((a, b) => LEVELS.indexOf(b as never) - LEVELS.indexOf(a as never))[0]!;
    }
    return null;
  });
  const [own, ...others] = says;
  let answer: Reach;
  if (own) answer = own === "blocked" ? "none" : own;
  else if (others.includes("blocked")) answer = "none";
  else
    answer =
      others
        .filter((say): say is Exclude<Given, "blocked"> => say !== null)
        .sort((a, b) => LEVELS.indexOf(b) - LEVELS.indexOf(a))[0] ?? "none";
  return of.guest && answer === "steward" ? "edit" : answer;
}

const clocks = new Map<string, Intl.DateTimeFormat>();

function wallClock(zone: string): Intl.DateTimeFormat {
  const known =
    clocks.get(zone) ??
    new Intl.DateTimeFormat("en-GB", {
      timeZone: zone,
      weekday: "short",
      hour: "2-digit",
      minute: "2-digit",
      hourCycle: "h23",
    });
  clocks.set(zone, known);
  return known;
}

/** Looks at the clock on the wall, minute by minute, back to when the window began. */
export function slowlyOpen({ days, start, end, zone }: Weekly, at: number): boolean {
  const wall = (moment: number) => {
    const text = wallClock(zone).format(moment);
    const [day, time] = [text.slice(0, 3), text.slice(-5)];
    const [hours, minutes] = time.split(":").map(Number);
    return {
      day: ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"].indexOf(day) + 1,
      minute: hours! * 60 + minutes!,
    };
  };
  const { day, minute } = wall(at);
  const before = day === 1 ? 7 : day - 1;
  const overnight = end <= start;
  if (days.includes(day) && minute >= start && (overnight || minute < end)) return true;
  return overnight && days.includes(before) && minute < end;
}

export function slowlyActive({ from, until, weekly }: Pick<Grant, "from" | "until" | "weekly">, at: number): boolean {
  if (from !== null && at < from) return false;
  if (until !== null && at >= until) return false;
  return weekly ? slowlyOpen(weekly, at) : true;
}

/** What a person has at a node of an organisation. */
export function slowlyAt(organised: Organised, personId: string, nodeId: string, at: number): Reach {
  const person = organised.people.find((one) => one.id === personId)!;
  const groups = new Set(person.held.filter((one) => slowlyActive(one, at)).map((one) => one.groupId));
  const steps: Step[] = [];
  for (let walk = organised.nodes.find((one) => one.id === nodeId); walk; ) {
    const { id, separate, parent } = walk;
    steps.push({ node: id, separate, grants: organised.grants.filter((one) => one.node === id) });
    walk = organised.nodes.find((one) => one.id === parent);
  }
  const ended = typeof person.until === "number" && at >= person.until;
  const standing = ended ? "leaver" : person.standing;
  return slowly({ id: person.id, standing, guest: person.guest, groups }, steps, at);
}
