/** Answers to the questions of `core/reports`, as far as their asker may know them: a steward of what they look after, an owner also beyond it with names left out, an auditor all of it. */
import { sql } from "drizzle-orm";
import { z } from "zod";
import {
  explain,
  isActive,
  levelWord,
  passedReason,
  type Reach,
  type Resolution,
  type Subject,
  subjectKey,
} from "../../core/access";
import { QUESTIONS, type Question, type ReportRow } from "../../core/reports/questions";
import { reachOf, requireLevel } from "../access/load";
import { nodeLinks, nodeNames } from "../access/nodeName";
import type { OpenIndex } from "../access/openIndex";
import type { Person } from "../access/person";
import { loadNames, type Names, namedIn, namerFor } from "../access/who";
import { byName as compareNames, fold, sortByName } from "../byName";
import { readsAll } from "../caller";
import { type Context, idSchema, instantSchema, query } from "../command";
import type { Reader } from "../database/client";
import { OUTSIDE } from "../database/schema";
import { timeZone } from "../organisation";
import { notFound, Refused } from "../refused";
import { isSecret } from "../vaults/composing";
import { kindsById } from "../vaults/kinds";
import { reports as t } from "./strings";

/** More nobody reads on a page; the answer says that there are more. */
const MOST = 2_000;
const DAY = 86_400_000;

type Asking = Pick<Context<unknown, Reader>, "tx" | "me" | "at">;

const inputSchema = z.strictObject({
  question: z.enum(Object.keys(QUESTIONS) as [Question]),
  nodeId: idSchema.nullable().default(null),
  personId: idSchema.nullable().default(null),
  from: instantSchema.default(null),
  until: instantSchema.default(null),
});

export interface ReportAnswer {
  /** What it was asked about; null where that is still to be chosen. */
  about: string | null;
  rows: ReportRow[];
  /** There are more than are listed. */
  more: boolean;
  /** Rows whose place is not named, because its asker has no access there. */
  unnamed: number;
  zone: string;
  /** Its moment. */
  at: number;
}

export const report = query({
  name: "reports.report",
  input: inputSchema,
  by: ["person"],
  // It may go over all that somebody reaches.
  offMainThread: true,
  allow: async (context) => {
    const { input, me, role } = context;
    if (me.guest || !(readsAll(role!) || isSteward(context))) throw notFound();
    if (input.question === "who" || input.question === "used" || input.question === "seen")
      if (input.nodeId !== null && role !== "auditor") await requireLevel(context, input.nodeId, "steward");
    if (input.personId !== null && !context.tx.access?.person(input.personId))
      throw new Refused("not-found", t.notFound, "personId");
  },
  run: async (context): Promise<ReportAnswer> => {
    const { tx, input, at } = context;
    const view = new View(context, tx.access!);
    const rows = await ANSWERS[input.question](view, input);
    const about = input.nodeId ?? input.personId;
    return {
      about: about === null ? null : await view.called(about),
      rows: rows.slice(0, MOST),
      more: rows.length > MOST,
      unnamed: rows.filter(({ link, place }) => link === null && place !== undefined).length,
      zone: await timeZone(tx),
      at,
    };
  },
});

/** So many places are offered for what was typed. */
const OFFERED = 12;

/** What can be asked about, by a part of its name. */
export const reportPlaces = query({
  name: "reports.reportPlaces",
  input: z.strictObject({ text: z.string().trim().max(100), vaults: z.boolean() }),
  by: ["person"],
  offMainThread: true,
  allow: (context) => {
    if (context.me.guest || !(context.role === "auditor" || isSteward(context))) throw notFound();
  },
  run: async (context) => {
    const { tx, input } = context;
    const view = new View(context, tx.access!);
    const ids = [...view.nodes(null)].filter((id) => !input.vaults || view.index.node(id)?.type === "vault");
    const [names, vaults] = await Promise.all([nodeNames(tx, ids), nodeNames(tx, view.index.vaultIds)]);
    const fitting = ids.flatMap((id) => {
      const name = names.get(id);
      return name !== undefined && fold(name).includes(fold(input.text)) ? [{ id, name }] : [];
    });
    return sortByName(fitting)
      .slice(0, OFFERED)
      .map(({ id, name }) => {
        const { type, vaultId } = view.index.node(id)!;
        return { id, name, note: type === "vault" ? t.vault : (vaults.get(vaultId) ?? "") };
      });
  },
});

const isSteward = ({ tx, me, at }: Asking): boolean =>
  [...reachOf(tx, me, at).levels.values()].some((level) => level === "steward");

type Input = z.output<typeof inputSchema>;
/** What the asker may see of the places and people of an answer. */
class View {
  readonly tx: Reader;
  readonly at: number;
  readonly me: Person;
  readonly #levels: ReadonlyMap<string, string>;
  /** Knows everything by its name, and opens nothing. */
  readonly #auditor: boolean;
  /** Asks beyond what they look after, with names left out. */
  readonly owner: boolean;

  constructor(
    { tx, me, at }: Asking,
    readonly index: OpenIndex,
  ) {
    this.tx = tx;
    this.at = at;
    this.me = me;
    this.#levels = reachOf(tx, me, at).levels;
    this.#auditor = me.role === "auditor";
    this.owner = me.role === "owner";
  }

  /** Whether all of who can do what there may be told. */
  looksAfter = (nodeId: string): boolean => this.#auditor || this.#levels.get(nodeId) === "steward";

  /** Whether what lies there may be named. */
  names = (nodeId: string): boolean => this.#auditor || this.#levels.has(nodeId);

  async called(id: string): Promise<string | null> {
    const person = this.index.person(id);
    if (person) return person.name;
    return this.names(id) ? ((await nodeNames(this.tx, [id])).get(id) ?? null) : null;
  }

  /** A node and all below it, or everything there is, as far as the asker looks after it. */
  *nodes(nodeId: string | null): Generator<string> {
    const below = nodeId !== null ? [nodeId] : this.#auditor ? this.index.vaultIds : null;
    if (below === null) {
      for (const [id, level] of this.#levels) if (level === "steward") yield id;
      return;
    }
    for (const top of below) for (const { id } of this.index.below(top)) if (this.looksAfter(id)) yield id;
  }

  /** The entries among them, as a JSON array: one value, however many there are. */
  entries = (nodeId: string | null): string =>
    JSON.stringify([...this.nodes(nodeId)].filter((id) => this.index.node(id)?.type === "entry"));

  /** Whom something was given to. */
  async subject(subject: Subject): Promise<Pick<ReportRow, "person" | "note">> {
    if (subject.kind === "person") return { person: this.nameOf(subject.id), note: this.noteOf(subject.id) };
    return { person: (await loadNames(this.tx, subject.kind === "group" ? [subject.id] : [])).subject(subject) };
  }

  /** The names and pages of places, put into the rows that are about them. */
  async place(rows: (ReportRow & { nodeId: string })[]): Promise<ReportRow[]> {
    const known = rows.filter(({ nodeId }) => this.names(nodeId)).map(({ nodeId }) => nodeId);
    const vaultIds = rows.flatMap(({ nodeId }) => this.index.node(nodeId)?.vaultId ?? []);
    const [names, links, vaults] = await Promise.all([
      nodeNames(this.tx, known),
      this.#auditor ? new Map<string, string>() : nodeLinks(this.tx, known),
      nodeNames(this.tx, vaultIds),
    ]);
    return rows.map(({ nodeId, ...row }) => {
      const vault = vaults.get(this.index.node(nodeId)?.vaultId ?? "") ?? "";
      const isVault = this.index.node(nodeId)?.type === "vault";
      const name = this.names(nodeId) ? names.get(nodeId) : undefined;
      const unnamed = isVault ? vault : t.anEntry;
      return { ...row, place: name ?? unnamed, vault, link: name === undefined ? null : (links.get(nodeId) ?? "") };
    });
  }

  /** Why a person has what they have at a place: since when, until when, in a sentence. */
  async reasons(asked: { personId: string; nodeId: string }[]): Promise<Reason[]> {
    const found = asked.flatMap(({ personId, nodeId }) => {
      const resolution = this.index.resolve(personId, nodeId, this.at);
      return resolution && resolution.level !== "none" ? [{ personId, nodeId, resolution }] : [];
    });
    const told = found.filter(({ nodeId }) => this.looksAfter(nodeId));
    // Many people may have the same place: its path is gone along once.
    const above = new Set([...new Set(told.map(({ nodeId }) => nodeId))].flatMap((id) => this.index.path(id)));
    const names = await loadNames(
      this.tx,
      [...above].flatMap(({ id }) => [id, ...namedIn(this.index.grantsOn(id), [])]),
    );
    const members = await this.#members(found);
    return found.map((one) => this.#reason(one, names, members));
  }

  #reason(
    { personId, nodeId, resolution }: { personId: string; nodeId: string; resolution: Resolution },
    names: Names,
    members: ReadonlyMap<string, number>,
  ): Reason {
    const path = this.index
      .path(nodeId)
      .map(({ id, type, parent, vaultId, separate }) => ({ id, type, parentId: parent, vaultId, separate }));
    const rows = path.flatMap(({ id }) => this.index.grantsOn(id));
    const since = resolution.because.map(({ grant, subject }) => {
      const begun = grant.from ?? rows.find(({ id }) => id === grant.id)?.validFrom ?? 0;
      return Math.max(begun, members.get(`${personId} ${subjectKey(subject)}`) ?? 0);
    });
    const person = this.index.person(personId)!;
    return {
      ...{ personId, nodeId, level: resolution.level },
      since: since.length === 0 ? null : Math.min(...since),
      until: this.index.end(personId, nodeId, "use", this.at),
      why: this.looksAfter(nodeId)
        ? explain(resolution, namerFor(names, path, rows, this.at), { name: person.name, personId })
        : "",
    };
  }

  /** Since when people have been in the groups that give them something. */
  async #members(found: { personId: string; resolution: Resolution }[]): Promise<ReadonlyMap<string, number>> {
    const wanted = found.flatMap(({ personId, resolution }) =>
      resolution.because.flatMap(({ subject }) => (subject.kind === "group" ? [`${personId} ${subject.id}`] : [])),
    );
    const pairs = JSON.stringify([...new Set(wanted)].map((pair) => pair.split(" ")));
    const rows = await this.tx.all<{ person: string; group: string; since: number }>(sql`
      select m.person_id as person, m.group_id as "group", max(m.valid_from) as since
      from json_each(${pairs}) w join memberships m
        on m.person_id = json_extract(w.value, '$[0]') and m.group_id = json_extract(w.value, '$[1]')
      where m.valid_until is null group by 1, 2`);
    return new Map(
      rows.map(({ person, group, since }) => [`${person} ${subjectKey({ kind: "group", id: group })}`, since]),
    );
  }

  /** The lines of the Journal that tell of these changes, for those who read all of it. */
  async linesOf(changes: readonly { nodeId: string; since: number | null }[]): Promise<ReadonlyMap<string, number>> {
    if (!readsAll(this.me.role)) return new Map();
    const wanted = JSON.stringify(changes.flatMap(({ nodeId, since }) => (since === null ? [] : [[nodeId, since]])));
    const rows = await this.tx.all<{ nodeId: string; seq: number }>(sql`
      select j.node as nodeId, min(j.seq) as seq from json_each(${wanted}) w
        join journal j on j.node = json_extract(w.value, '$[0]') and j.at = json_extract(w.value, '$[1]') group by j.node`);
    return new Map(rows.map(({ nodeId, seq }) => [nodeId, seq]));
  }

  /** What is said of a person beside their name. */
  noteOf(personId: string): string {
    const person = this.index.person(personId);
    if (!person) return "";
    if (person.standing === "leaver" || person.standing === "suspended") return t.standings[person.standing];
    return person.guest ? t.guest : "";
  }

  nameOf = (personId: string): string =>
    personId === OUTSIDE ? t.someoneOutside : (this.index.person(personId)?.name ?? t.galtry);
}

interface Reason {
  personId: string;
  nodeId: string;
  level: Reach;
  since: number | null;
  until: number | null;
  why: string;
}

const ANSWERS: Record<Question, (view: View, input: Input) => Promise<ReportRow[]>> = {
  who: async (view, { nodeId }) => {
    if (nodeId === null) return [];
    const has = view.index.whoHas(nodeId, "use", view.at).slice(0, MOST + 1);
    const reasons = await view.reasons(has.map(({ person }) => ({ personId: person.id, nodeId })));
    return reasons
      .map(({ personId, level, since, until, why }) => ({
        ...{ person: view.nameOf(personId), note: view.noteOf(personId) },
        ...{ level: levelWord(level), since, until, why },
      }))
      .sort(byName);
  },

  person: async (view, { personId }) => {
    if (personId === null) return [];
    const reached = [...view.index.reached(personId, view.at).keys()].filter(
      (id) => view.index.node(id)?.type === "entry" && (view.owner || view.looksAfter(id)),
    );
    const reasons = await view.reasons(reached.slice(0, MOST + 1).map((nodeId) => ({ personId, nodeId })));
    const rows = reasons.map(({ nodeId, level, since, until, why }) => ({
      ...{ nodeId, level: levelWord(level), since, until, why },
    }));
    return (await view.place(rows)).sort(byPlace);
  },

  used: async (view, { nodeId, from, until }) => {
    if (nodeId === null) return [];
    const ids = view.entries(nodeId);
    const between = (column: string) =>
      sql`${sql.raw(column)} >= ${from ?? 0} and ${sql.raw(column)} < ${until ?? view.at + DAY}`;
    const rows = await view.tx.all<{ nodeId: string; personId: string; at: number; how: string }>(sql`
      select s.entry_id as nodeId, s.person_id as personId, s.begun_at as at, s.how as how
        from json_each(${ids}) e join sign_ins s on s.entry_id = e.value
        where s.outcome = 'signed-in' and s.how <> 'tested' and s.person_id is not null and ${between("s.begun_at")}
      union all
      select s.entry_id, s.person_id, s.at, s.how
        from json_each(${ids}) e join sightings s on s.entry_id = e.value
        where s.how in ('revealed', 'copied', 'filled in') and ${between("s.at")}
      order by 3 desc limit ${MOST + 1}`);
    return view.place(
      rows.map(({ nodeId: id, personId, at, how }) => ({
        ...{ nodeId: id, at, person: view.nameOf(personId), how },
      })),
    );
  },

  seen: async (view, { nodeId }) => {
    if (nodeId === null) return [];
    const kinds = await kindsById(view.tx);
    const ids = view.entries(nodeId);
    const rows = await view.tx.all<Seen>(sql`
      select n.node_id as nodeId, n.kind as kind, s.field as field, s.person_id as personId, s.how as how, max(s.at) as at
      from json_each(${ids}) e
        join entries n on n.node_id = e.value
        join fingerprints f on f.version_id = n.version_id
        join sightings s on s.entry_id = n.node_id and s.field = f.field and s.fingerprint = f.fingerprint
      group by n.node_id, s.field, s.person_id order by 6 desc`);
    const told = new Map<string, Seen>();
    for (const row of rows) {
      const key = `${row.nodeId} ${row.personId}`;
      const kind = kinds.get(row.kind);
      if (kind && isSecret(kind, row.field) && !told.has(key)) told.set(key, row);
    }
    return view.place(
      [...told.values()].slice(0, MOST + 1).map(({ nodeId: id, personId, at, how }) => ({
        ...{ nodeId: id, at, person: view.nameOf(personId), how },
        note: view.noteOf(personId) || (view.index.level(personId, id, view.at) === "none" ? t.noAccessNow : ""),
      })),
    );
  },

  known: async (view, { personId }) => {
    if (personId === null) return [];
    const kinds = await kindsById(view.tx);
    const rows = await view.tx.all<Known>(sql`
      select *, (select v.created_by from entry_versions v where v.entry_id = k.nodeId and v.number = k.changedIn) as "by",
        (select v.created_at from entry_versions v where v.entry_id = k.nodeId and v.number = k.changedIn) as since
      from (
        select s.entry_id as nodeId, e.kind as kind, s.field as field, s.how as how, max(s.at) as at,
          exists (select 1 from fingerprints f
            where f.version_id = e.version_id and f.field = s.field and f.fingerprint = s.fingerprint) as works,
          (select min(v.number) from entry_versions v where v.entry_id = s.entry_id and v.created_at > s.at and not exists (
            select 1 from fingerprints f
            where f.version_id = v.id and f.field = s.field and f.fingerprint = s.fingerprint)) as changedIn
        from sightings s join entries e on e.node_id = s.entry_id
        where s.person_id = ${personId} group by s.entry_id, s.field, s.fingerprint) k
      order by works desc, at desc`);
    const told = new Map<string, Known>();
    for (const row of rows) {
      const kind = kinds.get(row.kind);
      const mayTell = view.owner || view.looksAfter(row.nodeId);
      if (view.index.node(row.nodeId) && mayTell && kind && isSecret(kind, row.field) && !told.has(row.nodeId))
        told.set(row.nodeId, row);
    }
    const lines = await view.linesOf([...told.values()]);
    return view.place(
      [...told.values()].slice(0, MOST + 1).map(({ nodeId, how, at, works, since, by }) => ({
        ...{ nodeId, how, at, note: works === 1 ? t.stillWorks : t.changed },
        ...(works === 1 || by === null ? {} : { since, by: view.nameOf(by), line: lines.get(nodeId) }),
      })),
    );
  },

  unused: async (view, { nodeId, from }) => {
    const ids = view.entries(nodeId);
    const day = from ?? view.at - 90 * DAY;
    const rows = await view.tx.all<{ nodeId: string; at: number | null }>(sql`
      select * from (
        select e.value as nodeId, nullif(max(
          coalesce((select max(s.begun_at) from sign_ins s where s.entry_id = e.value and s.outcome = 'signed-in'
            and s.how <> 'tested'), 0),
          coalesce((select max(s.at) from sightings s where s.entry_id = e.value), 0)), 0) as at
        from json_each(${ids}) e join entries n on n.node_id = e.value where n.created_at < ${day})
      where at is null or at < ${day} order by coalesce(at, 0) limit ${MOST + 1}`);
    return view.place(rows.map((row) => ({ ...row, people: view.index.countWhoUse(row.nodeId, view.at) })));
  },

  over: async (view, { nodeId }) => {
    const rows: (ReportRow & { nodeId: string })[] = [];
    for (const id of view.nodes(nodeId))
      for (const grant of view.index.grantsOn(id))
        if (isActive(grant, view.at) && passedReason(grant.why, grant.validFrom, view.at))
          rows.push({
            ...{ nodeId: id, level: levelWord(grant.level), why: grant.why, since: grant.from ?? grant.validFrom },
            ...{ by: view.nameOf(grant.givenBy), ...(await view.subject(grant.subject)) },
          });
    return (await view.place(rows)).sort(byPlace);
  },

  guests: async (view) => {
    const rows: (ReportRow & { nodeId: string })[] = [];
    for (const guest of view.index.people) {
      if (!guest.guest || guest.standing === "leaver") continue;
      const groups = view.index.who(guest.id, view.at)?.groups ?? [];
      const subjects = [
        { kind: "person", id: guest.id } as const,
        ...[...groups].map((id) => ({ kind: "group", id }) as const),
      ];
      for (const subject of subjects)
        for (const grant of view.index.grantsTo(subject)) {
          const over = grant.until !== null && grant.until <= view.at;
          if (over || !(view.owner || view.looksAfter(grant.nodeId))) continue;
          rows.push({
            ...{ nodeId: grant.nodeId, person: guest.name, level: levelWord(grant.level) },
            ...{ since: grant.from ?? grant.validFrom, until: grant.until, by: view.nameOf(grant.givenBy) },
          });
        }
    }
    return (await view.place(rows)).sort((a, b) => byName(a, b) || byPlace(a, b));
  },
};

interface Known {
  nodeId: string;
  kind: string;
  field: string;
  how: string;
  at: number;
  works: number;
  by: string | null;
  since: number | null;
}

interface Seen {
  nodeId: string;
  kind: string;
  field: string;
  personId: string;
  how: string;
  at: number;
}

const byName = (a: ReportRow, b: ReportRow) => compareNames({ name: a.person ?? "" }, { name: b.person ?? "" });
const byPlace = (a: ReportRow, b: ReportRow) =>
  compareNames({ name: a.vault ?? "" }, { name: b.vault ?? "" }) ||
  compareNames({ name: a.place ?? "" }, { name: b.place ?? "" });
