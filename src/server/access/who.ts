/** Who can do what at a node, for its stewards; and for anyone, why they have what they have. */
import { eq } from "drizzle-orm";
import { z } from "zod";
import {
  atLeast,
  explain,
  type Given,
  type Grant,
  isActive,
  type Namer,
  type Reach,
  resolve,
  type Subject,
  subjectKey,
  type Weekly,
} from "../../core/access";
import { sayDay, sayTime } from "../../core/time";
import { byName } from "../byName";
import { personIdOf } from "../caller";
import { idSchema, query } from "../command";
import type { Reader } from "../database/client";
import { folders, groups, OUTSIDE, organisation, persons, vaults } from "../database/schema";
import { type PathNode, requireLevel, resolveAt } from "./load";
import { loadEverybody } from "./person";
import { type GrantRow, toSubject } from "./rows";

export interface WhoLine {
  key: string;
  subject: Subject;
  name: string;
  /** "5 people", "you", "guest". */
  note: string;
  level: Given;
  from: number | null;
  until: number | null;
  weekly: Weekly | null;
  why: string;
  /** Set on this very node. */
  here: boolean;
  /** "set here", "from the vault Shop & Tickets". */
  where: string;
  grantId: string;
  /** Starts later. */
  coming: boolean;
}

export interface ReachedLine {
  personId: string;
  name: string;
  note: string;
  level: Reach;
  sentence: string;
}

export const whoCanDoWhat = query({
  name: "access.who",
  input: z.strictObject({ nodeId: idSchema }),
  by: ["person"],
  allow: (context) => requireLevel(context, context.input.nodeId, "steward"),
  run: async ({ tx, input, caller, at, allowed }) => {
    const names = await loadNames(tx);
    const everybody = await loadEverybody(tx, at);
    const { steps, rows, path } = allowed;
    const lines = nearest(rows, path, at).map((row) => whoLine(row, path, names, everybody, personIdOf(caller)!, at));
    const namer = namerFor(names, path, rows, at);
    const reached = everybody
      .map((person) => ({ person, resolution: resolve(person, steps, at) }))
      .filter(({ resolution }) => atLeast(resolution.level, "use"))
      .map(
        ({ person, resolution }): ReachedLine => ({
          personId: person.id,
          name: names.people.get(person.id) ?? "",
          note: person.guest ? "guest" : "",
          level: resolution.level,
          sentence: explain(resolution, namer, { name: names.people.get(person.id) ?? "", personId: person.id }),
        }),
      )
      .sort(byName);
    return { lines: lines.sort(byWeight), reached };
  },
});

const ORDER: Record<Given, number> = { steward: 0, edit: 1, reveal: 2, use: 3, blocked: 4 };
const byWeight = (a: WhoLine, b: WhoLine) => ORDER[a.level] - ORDER[b.level] || byName(a, b);

/** Each subject's own says: the nearest node at which it has a grant now, and every grant that is still to come. */
function nearest(rows: readonly GrantRow[], path: readonly PathNode[], at: number): GrantRow[] {
  const cut = path.findIndex((node) => node.separate);
  const seen = path.slice(0, cut < 0 ? path.length : cut + 1).map((node) => node.id);
  const chosen: GrantRow[] = [];
  const decided = new Set<string>();
  for (const nodeId of seen) {
    const here = rows.filter((row) => row.nodeId === nodeId);
    for (const row of here) {
      const key = subjectKey(toSubject(row.subjectKind, row.subjectId));
      const over = row.until !== null && row.until <= at;
      if (!over && (!isActive(row, at) || !decided.has(key))) chosen.push(row);
    }
    for (const row of here) if (isActive(row, at)) decided.add(subjectKey(toSubject(row.subjectKind, row.subjectId)));
  }
  return chosen;
}

function whoLine(
  row: GrantRow,
  path: readonly PathNode[],
  names: Names,
  everybody: Awaited<ReturnType<typeof loadEverybody>>,
  me: string,
  at: number,
): WhoLine {
  const subject = toSubject(row.subjectKind, row.subjectId);
  const here = row.nodeId === path[0]!.id;
  return {
    key: row.id,
    subject,
    name: names.subject(subject),
    note: noteOf(subject, everybody, me),
    level: row.level,
    from: row.from,
    until: row.until,
    weekly: row.weekly,
    why: row.why,
    here,
    where: here ? "set here" : `from ${names.node(row.nodeId)}`,
    grantId: row.id,
    coming: row.from !== null && row.from > at,
  };
}

function noteOf(subject: Subject, everybody: Awaited<ReturnType<typeof loadEverybody>>, me: string): string {
  const active = everybody.filter((person) => person.standing === "active");
  if (subject.kind === "group") return people(active.filter((person) => person.groups.has(subject.id)).length);
  if (subject.kind === "everyone") return people(active.filter((person) => !person.guest).length);
  if (subject.id === me) return "you";
  const person = everybody.find((one) => one.id === subject.id);
  if (person?.standing === "invited") return "has not joined yet";
  if (person?.standing === "suspended") return "suspended";
  if (person?.standing === "leaver") return "has left";
  return person?.guest ? "guest" : "";
}

const people = (n: number) => `${n} ${n === 1 ? "person" : "people"}`;

export interface Names {
  people: Map<string, string>;
  subject(subject: Subject): string;
  node(id: string): string;
  zone: string;
}

export async function loadNames(tx: Reader): Promise<Names> {
  const [personRows, groupRows, vaultRows, folderRows, [house]] = await Promise.all([
    tx.select({ id: persons.id, name: persons.name }).from(persons),
    tx.select({ id: groups.id, name: groups.name }).from(groups),
    tx.select({ id: vaults.nodeId, name: vaults.name }).from(vaults),
    tx.select({ id: folders.nodeId, name: folders.name }).from(folders),
    tx.select().from(organisation),
  ]);
  const peopleNames = new Map(personRows.map((row) => [row.id, row.name]));
  const groupNames = new Map(groupRows.map((row) => [row.id, row.name]));
  const nodeNames = new Map([
    ...vaultRows.map((row): [string, string] => [row.id, `the vault ${row.name}`]),
    ...folderRows.map((row): [string, string] => [row.id, `the folder ${row.name}`]),
  ]);
  peopleNames.set(OUTSIDE, "somebody outside");
  return {
    people: peopleNames,
    subject: (subject) =>
      subject.kind === "everyone"
        ? "Everyone"
        : ((subject.kind === "person" ? peopleNames : groupNames).get(subject.id) ?? "somebody"),
    node: (id) => nodeNames.get(id) ?? "this entry",
    zone: house?.timeZone ?? "UTC",
  };
}

/** The organisation's own zone. */
export async function timeZone(tx: Reader): Promise<string> {
  const [home] = await tx.select({ zone: organisation.timeZone }).from(organisation);
  return home?.zone ?? "UTC";
}

export function namerFor(names: Names, path: readonly PathNode[], rows: readonly GrantRow[], at: number): Namer {
  const given = new Map(rows.map((row) => [row.id, row.validFrom]));
  return {
    subject: names.subject,
    node: (id, distance) => (distance === 0 ? `this ${path[0]?.type ?? "entry"}` : names.node(id)),
    since: (grant: Grant) => {
      const start = grant.from ?? given.get(grant.id) ?? null;
      return start === null ? null : sayDay(start, at, names.zone);
    },
    until: (grant: Grant) => (grant.until === null ? null : sayTime(grant.until, at, names.zone)),
  };
}

export interface OwnLevel {
  level: Reach;
  sentence: string;
  inherited: boolean;
  until: number | null;
  stewards: string[];
}

/** What the caller has at a node, in a sentence, and who could change it. */
export async function ownLevel(tx: Reader, personId: string, nodeId: string, at: number): Promise<OwnLevel | null> {
  const found = await resolveAt(tx, personId, nodeId, at);
  if (!found) return null;
  const names = await loadNames(tx);
  const { resolution, path, rows, steps, person } = found;
  const stewards = person.guest
    ? await guestContact(tx, personId)
    : (await loadEverybody(tx, at))
        .filter((one) => resolve(one, steps, at).level === "steward")
        .map((one) => names.people.get(one.id) ?? "");
  const ends = resolution.because.map((say) => say.grant.until);
  return {
    level: resolution.level,
    sentence: explain(resolution, namerFor(names, path, rows, at), { name: "you", personId }),
    inherited: resolution.because.every((say) => say.distance > 0),
    until: ends.length > 0 && ends.every((end) => end !== null) ? Math.max(...(ends as number[])) : null,
    stewards: stewards.sort(),
  };
}

/** A guest knows nobody but the person who asked them in. */
async function guestContact(tx: Reader, personId: string): Promise<string[]> {
  const [row] = await tx.select({ by: persons.invitedBy }).from(persons).where(eq(persons.id, personId));
  if (!row?.by) return [];
  return (await tx.select({ name: persons.name }).from(persons).where(eq(persons.id, row.by))).map((one) => one.name);
}
