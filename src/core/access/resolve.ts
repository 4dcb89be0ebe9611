/**
 * Who may do what: the walk of the access rules for one person at one node at one moment.
 *
 * A grant sits on a node and is inherited downward. For each subject of the person (the person, each group
 * held, Everyone) the nearest node with an active grant is that subject's say; a separate node ends the walk.
 * The person's own say decides; otherwise a Blocked say of any group gives nothing; otherwise the highest say.
 */
import { type Grant, isActive, type Subject, subjectKey } from "./grant";
import type { Instant } from "./instant";
import { type Given, type Reach, rank } from "./level";

export type Standing = "active" | "suspended" | "leaver" | "invited";

/** A person at one moment: `groups` are those held at that moment. */
export interface Who {
  id: string;
  standing: Standing;
  guest: boolean;
  /** Reads who has what, and has nothing themselves, whatever is given. */
  auditor?: boolean | undefined;
  groups: ReadonlySet<string>;
}

/** A node on the way up: the node asked about first, its vault last. */
export interface Step {
  node: string;
  separate: boolean;
  grants: readonly Grant[];
}

/** What one subject says about the node: its nearest active grant. `distance` 0 is the node itself. */
export interface Say {
  subject: Subject;
  grant: Grant;
  distance: number;
}

export interface Resolution {
  level: Reach;
  /** The says that made it so; empty when there is none. */
  because: Say[];
  /** The says that were looked at and did not decide. */
  lost: Say[];
  /** Why a person has nothing regardless of grants. */
  shut: "suspended" | "leaver" | "invited" | "auditor" | null;
  /** A guest's level was lowered to Edit. */
  capped: boolean;
}

/** Whether grants to this subject are grants to this person. */
export function isSubjectOf(subject: Subject, who: Who): boolean {
  if (subject.kind === "person") return subject.id === who.id;
  if (subject.kind === "group") return who.groups.has(subject.id);
  return !who.guest && !who.auditor;
}

/** Of several active grants of one subject on one node Blocked wins, else the highest. */
export function weightier(a: Grant, b: Grant): Grant {
  if (a.level === "blocked") return a;
  if (b.level === "blocked") return b;
  return rank(a.level) >= rank(b.level) ? a : b;
}

/** The nearest active grant of each of the person's subjects along the path. */
export function saysAlong(who: Who, path: readonly Step[], at: Instant): Say[] {
  const says = new Map<string, Say>();
  for (const [distance, step] of path.entries()) {
    for (const grant of step.grants) {
      if (!isActive(grant, at) || !isSubjectOf(grant.subject, who)) continue;
      const key = subjectKey(grant.subject);
      const known = says.get(key);
      if (!known) says.set(key, { subject: grant.subject, grant, distance });
      else if (known.distance === distance) known.grant = weightier(known.grant, grant);
    }
    if (step.separate) break;
  }
  return [...says.values()];
}

/** Rules 4 to 6 over the says of one person. */
export function decide(who: Who, says: readonly Say[]): Resolution {
  if (who.standing !== "active")
    return { level: "none", because: [], lost: [...says], shut: who.standing, capped: false };
  if (who.auditor) return { level: "none", because: [], lost: [...says], shut: "auditor", capped: false };

  const own = says.filter((say) => say.subject.kind === "person");
  const groups = says.filter((say) => say.subject.kind !== "person");
  const blocks = groups.filter((say) => say.grant.level === "blocked");
  const highest = Math.max(0, ...groups.map((say) => rankGiven(say.grant.level)));
  const because =
    own.length > 0 ? own : blocks.length > 0 ? blocks : groups.filter((say) => rankGiven(say.grant.level) === highest);

  const given = because[0]?.grant.level ?? "blocked";
  const level: Reach = given === "blocked" ? "none" : given;
  const capped = who.guest && level === "steward";
  return {
    level: capped ? "edit" : level,
    because,
    lost: says.filter((say) => !because.includes(say)),
    shut: null,
    capped,
  };
}

/** What a person has at the first node of the path, and why. */
export function resolve(who: Who, path: readonly Step[], at: Instant): Resolution {
  return decide(who, saysAlong(who, path, at));
}

function rankGiven(given: Given): number {
  return given === "blocked" ? 0 : rank(given);
}
