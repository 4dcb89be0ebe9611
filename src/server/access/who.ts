/** Who can do what at a node, for its stewards; and for anyone, why they have what they have. */

import { eq, sql } from "drizzle-orm";
import { z } from "zod";
import {
  explain,
  type Given,
  type Grant,
  isActive,
  type Namer,
  type Reach,
  type Subject,
  subjectKey,
  type Weekly,
} from "../../core/access";
import { sayDay, sayTime } from "../../core/time";
import { byName } from "../byName";
import { personIdOf } from "../caller";
import { idSchema, query } from "../command";
import type { Reader } from "../database/client";
import { OUTSIDE, persons } from "../database/schema";
import { timeZone } from "../organisation";
import { type PathNode, requireLevel, resolveAt } from "./load";
import type { OpenIndex } from "./openIndex";
import type { Person } from "./person";
import { type GrantRow, toSubject } from "./rows";
import { stewardsAt } from "./stewards";

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
  /** "set directly", "from the vault Shop & Tickets". */
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

/** So many are told one by one, each with why; of more there is the number. */
const MOST_REACHED = 200;

export const whoCanDoWhat = query({
  name: "access.whoCanDoWhat",
  input: z.strictObject({ nodeId: idSchema }),
  by: ["person"],
  allow: (context) => requireLevel(context, context.input.nodeId, "steward"),
  run: async ({ tx, input, caller, at, allowed }) => {
    const index = tx.access!;
    const { rows, path } = allowed;
    const names = await loadNames(tx, namedIn(rows, path));
    const lines = nearest(rows, path, at).map((row) => whoLine(row, path, names, index, personIdOf(caller), at));
    const namer = namerFor(names, path, rows, at);
    const has = index.whoHas(input.nodeId, "use", at).sort((a, b) => byName(a.person, b.person));
    const reached = has.slice(0, MOST_REACHED).map(
      ({ person, resolution }): ReachedLine => ({
        personId: person.id,
        name: person.name,
        note: person.guest ? "guest" : "",
        level: resolution.level,
        sentence: explain(resolution, namer, { name: person.name, personId: person.id }),
      }),
    );
    return { lines: lines.sort(byWeight), reached, people: has.length };
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
  index: OpenIndex,
  me: string,
  at: number,
): WhoLine {
  const subject = toSubject(row.subjectKind, row.subjectId);
  const here = row.nodeId === path[0]!.id;
  return {
    key: row.id,
    subject,
    name: names.subject(subject),
    note: noteOf(subject, index, me, at),
    level: row.level,
    from: row.from,
    until: row.until,
    weekly: row.weekly,
    why: row.why,
    here,
    where: here ? "set directly" : `from ${names.node(row.nodeId)}`,
    grantId: row.id,
    coming: row.from !== null && row.from > at,
  };
}

function noteOf(subject: Subject, index: OpenIndex, me: string, at: number): string {
  if (subject.kind === "group") {
    const holds = (id: string) => {
      const who = index.who(id, at);
      return who?.standing === "active" && who.groups.has(subject.id);
    };
    return people([...index.peopleIn(subject.id)].filter(holds).length);
  }
  if (subject.kind === "everyone") return people(index.staff(at).size);
  if (subject.id === me) return "you";
  const who = index.who(subject.id, at);
  if (who?.standing === "invited") return "has not joined yet";
  if (who?.standing === "suspended") return "suspended";
  if (who?.standing === "leaver") return "has left";
  return who?.guest ? "guest" : "";
}

const people = (n: number) => `${n} ${n === 1 ? "person" : "people"}`;

export interface Names {
  people: Map<string, string>;
  subject(subject: Subject): string;
  node(id: string): string;
  zone: string;
}

/**
 * Names of people, groups, vaults and folders, as many as are asked for.
 * @param ids of any of these; ids of entries are passed over
 */
export async function loadNames(tx: Reader, ids: Iterable<string | null>): Promise<Names> {
  const wanted = [...new Set(ids)].filter((id): id is string => Boolean(id));
  const people = new Map<string, string>();
  const unknown: string[] = [];
  for (const id of wanted) {
    const known = tx.access?.person(id);
    if (known) people.set(id, known.name);
    else unknown.push(id);
  }
  const among = sql`(select value from json_each(${JSON.stringify(unknown)}))`;
  const zone = timeZone(tx);
  const rows =
    unknown.length === 0
      ? []
      : await tx.all<{ id: string; name: string; what: "person" | "group" | "vault" | "folder" }>(sql`
          select id, name, 'person' as what from persons where id in ${among}
          union all select id, name, 'group' from groups where id in ${among}
          union all select node_id, name, 'vault' from vaults where node_id in ${among}
          union all select node_id, name, 'folder' from folders where node_id in ${among}`);
  for (const { id, name, what } of rows) if (what === "person") people.set(id, name);
  people.set(OUTSIDE, "someone outside");
  const others = new Map(
    rows.flatMap(({ id, name, what }) =>
      what === "person" ? [] : [[id, what === "group" ? name : `the ${what} ${name}`] as const],
    ),
  );
  return {
    people,
    subject: (subject) =>
      subject.kind === "everyone"
        ? "Everyone"
        : ((subject.kind === "person" ? people : others).get(subject.id) ?? "somebody"),
    node: (id) => others.get(id) ?? "this entry",
    zone: await zone,
  };
}

/** Whatever an explanation by these grants could name. */
export const namedIn = (rows: readonly GrantRow[], path: readonly PathNode[]): string[] => [
  ...rows.map((row) => row.subjectId),
  ...path.map(({ id }) => id),
];

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
  const { resolution, path, rows, person } = found;
  const names = await loadNames(tx, namedIn(rows, path));
  const stewards = person.guest
    ? await guestContact(tx, personId)
    : (await stewardsAt(tx, nodeId, at)).map(({ name }) => name);
  const ends = resolution.because.map((say) => say.grant.until);
  return {
    level: resolution.level,
    sentence: explain(resolution, namerFor(names, path, rows, at), { name: "you", personId }),
    inherited: resolution.because.every((say) => say.distance > 0),
    until: ends.length > 0 && ends.every((end) => end !== null) ? Math.max(...(ends as number[])) : null,
    stewards: stewards.sort(),
  };
}

/** The names of people, as far as somebody may know them. */
export async function knownTo(tx: Reader, me: Person, people: readonly Person[]): Promise<string[]> {
  const names = people.map(({ name }) => name);
  if (!me.guest) return names;
  const contact = await guestContact(tx, me.id);
  return names.filter((name) => contact.includes(name));
}

/** A guest knows nobody but the person who asked them in. */
async function guestContact(tx: Reader, personId: string): Promise<string[]> {
  const [row] = await tx.select({ by: persons.invitedBy }).from(persons).where(eq(persons.id, personId));
  if (!row?.by) return [];
  return (await tx.select({ name: persons.name }).from(persons).where(eq(persons.id, row.by))).map((one) => one.name);
}
