/** People as `core/access` needs them: standing, role and the groups they hold. */
import { type SQL, sql } from "drizzle-orm";
import { type Standing, type Subject, type Who, type Window, whoAt } from "../../core/access";
import type { Reader } from "../database/client";
import { personStates, type Role } from "../database/schema";
import { groupBy } from "../groupBy";
import type { IndexPerson } from "./openIndex";

export interface Person extends Who {
  name: string;
  role: Role;
  /** Every membership that is kept, also those whose time has not come or is over. */
  held: readonly (Window & { groupId: string })[];
  /** When all of their access ends. */
  ends: number | null;
}

interface Row {
  id: string;
  name: string;
  role: Role;
  standing: Who["standing"];
  groupId: string | null;
  from: number | null;
  until: number | null;
  ends: number | null;
  holds: number;
  /** Number of the last change of access. */
  lastChange: number;
}

/** Written out, as this is read at the start of every act: building it anew each time takes longer than running it. */
const select = (tx: Reader, where: SQL, holds: SQL = sql`1`) =>
  tx.all<Row>(sql`
    select s.person_id as id, p.name as name, s.role as role, s.standing as standing, s.until_at as ends,
      m.group_id as "groupId", m.from_at as "from", m.until_at as until, ${holds} as holds,
      coalesce((select max(seq) from access_changes), 0) as "lastChange"
    from standings s
    join persons p on p.id = s.person_id
    left join memberships m on m.person_id = s.person_id and m.valid_until is null
    where s.valid_until is null ${where}`);

const kindOf = (role: Role) => ({ guest: role === "guest", auditor: role === "auditor" });

function personOf(rows: readonly Row[], at: number): Person {
  const { id, name, role, standing, ends } = rows[0]!;
  const held = rows.flatMap(({ groupId, from, until }) => (groupId === null ? [] : [{ groupId, from, until }]));
  return { name, role, held, ends, ...whoAt({ id, standing, ...kindOf(role), held, until: ends }, at) };
}

/** How a person stands at a moment: a leaver from their end on, before anybody has written it down. */
export const standingAt = (at: number) =>
  sql<Standing>`case when ${personStates.until} <= ${at} then 'leaver' else ${personStates.standing} end`;

/** A person at another moment. */
export const personAt = (person: Person, at: number): Who => whoAt({ ...person, until: person.ends }, at);

const fromIndex = ({ id, name, role, standing, guest, auditor, held, until }: IndexPerson, at: number): Person => ({
  ...{ name, role, held, ends: until },
  ...whoAt({ id, standing, guest, auditor, held, until }, at),
});

/** A person with the groups held at `at`. */
export async function loadPerson(tx: Reader, personId: string, at: number): Promise<Person | null> {
  if (tx.access) {
    const known = tx.access.person(personId);
    return known ? fromIndex(known, at) : null;
  }
  const rows = await select(tx, sql`and s.person_id = ${personId}`);
  return rows.length > 0 ? personOf(rows, at) : null;
}

/**
 * Whoever asks, and whether what they came in with still holds.
 * @param holds a condition, looked at in the same statement
 */
export async function loadCaller(
  tx: Reader,
  personId: string,
  holds: SQL,
  at: number,
): Promise<{ me: Person; holds: boolean; lastChange: number } | null> {
  const rows = await select(tx, sql`and s.person_id = ${personId}`, holds);
  return rows.length > 0
    ? { me: personOf(rows, at), holds: rows[0]!.holds === 1, lastChange: rows[0]!.lastChange }
    : null;
}

/** Those whom grants to these subjects could concern: named, in one of the groups at any time, or staff for Everyone. */
export async function loadConcerned(tx: Reader, subjects: readonly Subject[], at: number): Promise<Person[]> {
  if (subjects.length === 0) return [];
  if (tx.access) {
    const found = new Set<string>();
    for (const one of subjects)
      if (one.kind === "person") found.add(one.id);
      else if (one.kind === "group") for (const id of tx.access.peopleIn(one.id)) found.add(id);
      else for (const { id, guest } of tx.access.people) if (!guest) found.add(id);
    return [...found].flatMap((id) => tx.access!.person(id) ?? []).map((person) => fromIndex(person, at));
  }
  const ids = (kind: "person" | "group") =>
    JSON.stringify([...new Set(subjects.flatMap((one) => (one.kind === kind ? [one.id] : [])))]);
  const everyone = subjects.some(({ kind }) => kind === "everyone");
  const rows = await select(
    tx,
    everyone
      ? sql`and (s.role <> 'guest' or s.person_id in (select value from json_each(${ids("person")})) or s.person_id in (
          select x.person_id from memberships x where x.valid_until is null
            and x.group_id in (select value from json_each(${ids("group")}))))`
      : sql`and s.person_id in (
          select value from json_each(${ids("person")})
          union select x.person_id from memberships x where x.valid_until is null
            and x.group_id in (select value from json_each(${ids("group")})))`,
  );
  return [...groupBy(rows, (row) => row.id).values()].map((own) => personOf(own, at));
}

/** Those with one of these roles, with the groups they hold at `at`. */
export async function loadByRole(tx: Reader, roles: readonly Role[], at: number): Promise<Person[]> {
  const rows = await select(tx, sql`and s.role in (select value from json_each(${JSON.stringify(roles)}))`);
  return [...groupBy(rows, (row) => row.id).values()].map((own) => personOf(own, at));
}

/** Everybody, with the groups they hold at `at`. */
export async function loadEverybody(tx: Reader, at: number): Promise<Person[]> {
  if (tx.access) return [...tx.access.people].map((person) => fromIndex(person, at));
  const rows = await select(tx, sql``);
  return [...groupBy(rows, (row) => row.id).values()].map((own) => personOf(own, at));
}
