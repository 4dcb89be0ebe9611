/** The access grid before it is drawn: rows, columns and cells from what the server sent. */
import type { Change, Grant, Lookup, Member, Organised, Subject, Weekly } from "@/core/access";
import { type Given, isActive, subjectKey } from "@/core/access";
import { unpack } from "@/core/packed";
import { sayShortDay } from "@/core/time";
import type { GridGrant, GridModel, GridNode, GridPerson } from "@/server/access/grid";
import { grid as t } from "./strings";

export interface Grid {
  vault: { id: string; name: string };
  zone: string;
  /** A moment that is over, shown as it was. */
  past: number | null;
  node: ReadonlyMap<string, GridNode>;
  /** Folders first, each by name. */
  below: ReadonlyMap<string, readonly GridNode[]>;
  /** Entries at and below. */
  entries: ReadonlyMap<string, number>;
  grant: ReadonlyMap<string, GridGrant>;
  people: readonly GridPerson[];
  /** Active members of staff, whether they have a column or not. */
  staff: number;
  groups: GridModel["groups"];
  organised: Organised;
}

const collator = new Intl.Collator("en-GB", { numeric: true });
const byName = (a: { name: string }, b: { name: string }) => collator.compare(a.name, b.name);

/** Puts an item with those of its key. */
function put<V>(map: Map<string, V[]>, key: string, item: V): void {
  const here = map.get(key);
  if (here) here.push(item);
  else map.set(key, [item]);
}

export const subjectOf = ({ kind, subjectId }: Pick<GridGrant, "kind" | "subjectId">): Subject =>
  kind === "everyone" ? { kind } : { kind, id: subjectId };

export function gridOf(model: GridModel): Grid {
  const nodes = unpack(model.nodes);
  const grants = unpack(model.grants);
  const people = unpack(model.people);
  const held = new Map<string, Member["held"][number][]>();
  for (const { personId, ...one } of unpack(model.memberships)) put(held, personId, one);
  const below = new Map<string, GridNode[]>();
  for (const node of nodes) if (node.parent !== null) put(below, node.parent, node);
  for (const some of below.values())
    some.sort((a, b) => Number(a.type === "entry") - Number(b.type === "entry") || byName(a, b));
  const node = new Map(nodes.map((one) => [one.id, one]));
  const entries = new Map<string, number>();
  for (const one of nodes)
    if (one.type === "entry")
      for (let up: GridNode | undefined = one; up; up = up.parent === null ? undefined : node.get(up.parent))
        entries.set(up.id, (entries.get(up.id) ?? 0) + 1);
  return {
    ...{ vault: model.vault, zone: model.zone, past: model.past, node, below, entries, people },
    ...{ groups: model.groups, staff: model.staff },
    grant: new Map(grants.map((grant) => [grant.id, grant])),
    organised: {
      nodes,
      grants: grants.map(
        ({ id, node: at, level, from, until, weekly, ...subject }): Grant => ({
          ...{ id, node: at, level, from, until, weekly },
          subject: subjectOf(subject),
        }),
      ),
      people: people.map(({ id, guest, auditor, standing, until }) => ({
        id,
        guest,
        auditor,
        standing,
        until,
        held: held.get(id) ?? [],
      })),
    },
  };
}

export interface Row {
  node: GridNode;
  depth: number;
  open: boolean;
}

export interface RowChoice {
  open: ReadonlySet<string>;
  text: string;
  /** Only these, and what is above them; null for all. */
  only: ((node: GridNode) => boolean) | null;
}

/** From the vault down, as far as folders are open. What is looked for is shown with the folders around it. */
export function rowsOf(grid: Grid, { open, text, only }: RowChoice): Row[] {
  const wanted = text.trim().toLowerCase();
  const looking = wanted !== "" || only !== null;
  const kept = looking ? new Set<string>() : null;
  if (kept)
    for (const node of grid.node.values()) {
      if (wanted !== "" && !node.name.toLowerCase().includes(wanted)) continue;
      if (only && !only(node)) continue;
      for (let up: GridNode | undefined = node; up; up = up.parent === null ? undefined : grid.node.get(up.parent))
        kept.add(up.id);
    }
  const rows: Row[] = [];
  const walk = (node: GridNode, depth: number) => {
    if (kept && !kept.has(node.id)) return;
    const isOpen = looking || node.type === "vault" || open.has(node.id);
    rows.push({ node, depth, open: isOpen });
    if (isOpen) for (const one of grid.below.get(node.id) ?? []) walk(one, depth + 1);
  };
  const top = grid.node.get(grid.vault.id);
  if (top) walk(top, 0);
  return rows;
}

export interface Column {
  key: string;
  subject: Subject;
  name: string;
  note: string;
  /** Groups end here, people begin. */
  first: boolean;
  /** Of an unfolded group: stands beside it. */
  under: boolean;
  members: number;
}

export interface ColumnChoice {
  /** Everybody, not only whom a grant names. */
  all: boolean;
  text: string;
  guests: boolean;
  unfolded: ReadonlySet<string>;
}

const STANDING: Record<Member["standing"], string> = {
  active: "",
  invited: t.hasNotJoinedYet,
  suspended: "suspended",
  leaver: t.hasLeft,
};

/** Everyone, groups, people. */
export function columnsOf(grid: Grid, lookup: Lookup, choice: ColumnChoice, at: number, me: string): Column[] {
  const named = new Set(lookup.of.grants.map((grant) => subjectKey(grant.subject)));
  const wanted = choice.text.trim().toLowerCase();
  const matches = (name: string) => wanted === "" || name.toLowerCase().includes(wanted);
  const groupNames = new Map(grid.groups.map(({ id, name }) => [id, name]));
  const membersOf = (groupId: string) =>
    lookup.of.people.filter((person) => person.held.some((one) => one.groupId === groupId && isActive(one, at)));
  const name = new Map(grid.people.map((person) => [person.id, person]));
  const groupsOf = (person: Member) =>
    person.held
      .filter((one) => isActive(one, at))
      .map((one) => groupNames.get(one.groupId) ?? "")
      .filter(Boolean);
  // First, because there is little room: whatever stands below ends then.
  const ending = (until: number | null, note: string) =>
    [until === null ? "" : `${until > at ? "until" : "ended"} ${sayShortDay(until, grid.zone)}`, note]
      .filter(Boolean)
      .join(", ");
  const personColumn = (id: string, under: boolean): Column | null => {
    const person = name.get(id);
    const member = lookup.person.get(id);
    if (!person || !member) return null;
    const groups = groupsOf(member);
    const note =
      STANDING[person.standing] ||
      (id === me ? "you" : person.guest ? "guest" : groups.length > 1 ? t.groups(groups.length) : (groups[0] ?? ""));
    const subject: Subject = { kind: "person", id };
    const key = subjectKey(subject);
    return {
      ...{ key: under ? `${key} under` : key, subject, name: person.name, note: ending(person.until, note) },
      ...{ first: false, under, members: 0 },
    };
  };
  const columns: Column[] = [];
  if (!choice.guests && matches("Everyone"))
    columns.push({
      ...{ key: "everyone", subject: { kind: "everyone" }, name: "Everyone", note: t.staff(grid.staff) },
      ...{ first: false, under: false, members: 0 },
    });
  for (const group of [...grid.groups].sort(byName)) {
    const subject: Subject = { kind: "group", id: group.id };
    const members = membersOf(group.id);
    const shown = choice.all || named.has(subjectKey(subject));
    if (!shown || (choice.guests && !members.some((one) => one.guest))) continue;
    const found = members
      .map((one) => personColumn(one.id, true))
      .filter((one): one is Column => one !== null)
      .sort(byName);
    if (matches(group.name))
      columns.push({
        ...{ key: subjectKey(subject), subject, name: group.name, first: false, under: false },
        note: ending(group.until, t.people(members.length)),
        members: members.length,
      });
    if (choice.unfolded.has(group.id) && (matches(group.name) || found.some((one) => matches(one.name))))
      columns.push(...found);
  }
  const people = grid.people
    .filter((person) => (!choice.guests || person.guest) && matches(person.name))
    .filter((person) => choice.all || wanted !== "" || choice.guests || named.has(`person:${person.id}`))
    .map((person) => personColumn(person.id, false))
    .filter((one): one is Column => one !== null)
    .sort(
      (a, b) =>
        Number(b.subject.kind === "person" && b.subject.id === me) -
          Number(a.subject.kind === "person" && a.subject.id === me) || byName(a, b),
    );
  return [...columns, ...people.map((column, i) => ({ ...column, first: i === 0 && columns.length > 0 }))];
}

export interface Cell {
  level: Given | "none";
  /** By a grant of this subject on this very node. */
  set: boolean;
  until: number | null;
  weekly: Weekly | null;
  /** How many says were looked at. */
  ways: number;
}

const NOTHING: Cell = { level: "none", set: false, until: null, weekly: null, ways: 0 };

/** What stands at a row and a column at a moment: a group's own say, or all that a person has. */
export function cellAt(lookup: Lookup, { subject }: Pick<Column, "subject">, nodeId: string, at: number): Cell {
  if (subject.kind !== "person") {
    const say = lookup.say(subject, nodeId, at);
    if (!say) return NOTHING;
    const { level, until, weekly = null } = say.grant;
    return { level, set: say.distance === 0, until, weekly, ways: 1 };
  }
  const person = lookup.person.get(subject.id);
  if (!person) return NOTHING;
  const { level, because, lost } = lookup.resolve(person, nodeId, at);
  const blocked = because.some((say) => say.grant.level === "blocked");
  const ends = because.map((say) => say.grant.until);
  return {
    level: level === "none" && blocked && person.standing === "active" ? "blocked" : level,
    set: because.some((say) => say.subject.kind === "person" && say.grant.node === nodeId),
    until: ends.length > 0 && ends.every((end) => end !== null) ? Math.max(...(ends as number[])) : null,
    // One that holds at any time makes the hours of the others no matter.
    weekly: because.every((say) => say.grant.weekly) ? (because[0]?.grant.weekly ?? null) : null,
    ways: because.length + lost.length,
  };
}

export const sameCell = (a: Cell, b: Cell): boolean =>
  a.level === b.level &&
  a.set === b.set &&
  a.until === b.until &&
  JSON.stringify(a.weekly) === JSON.stringify(b.weekly);

/** How many grants of each subject stand below a node: a closed folder says so, or the grid would lie by omission. */
export function grantsBelow(lookup: Lookup, at: number): Map<string, Map<string, number>> {
  const counts = new Map<string, Map<string, number>>();
  for (const grant of lookup.of.grants) {
    if (!isActive(grant, at)) continue;
    const key = subjectKey(grant.subject);
    for (let up = lookup.node.get(grant.node)?.parent ?? null; up !== null; up = lookup.node.get(up)?.parent ?? null) {
      const here = counts.get(up) ?? new Map<string, number>();
      counts.set(up, here.set(key, (here.get(key) ?? 0) + 1));
    }
  }
  return counts;
}

/** The folders that a place is in, the nearest first, and the vault. */
export function placesAbove(grid: Grid, nodeId: string): string[] {
  const above: string[] = [];
  for (let up = grid.node.get(nodeId)?.parent; up; up = grid.node.get(up)?.parent) above.push(up);
  return above;
}

/** Of drafted changes those of this vault: others change nothing here. */
export const knownIn = (grid: Grid, changes: readonly Change[]): Change[] =>
  changes.filter((change) => change.type === "member" || grid.node.has(change.nodeId));
