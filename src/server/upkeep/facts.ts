/** What is known of entries and of the access on nodes, as `core/upkeep` looks at it: from the rows, many in one read. */
import { sql } from "drizzle-orm";
import { higher, isLastingSteward, momentsAhead, type Reach } from "../../core/access";
import { PASSWORD } from "../../core/kinds/kind";
import { readMonth } from "../../core/month";
import type { Failure } from "../../core/signin/outcome";
import {
  type AccessFacts,
  type EntryFacts,
  type GrantFacts,
  type Seer,
  TELLING_FAILURES,
} from "../../core/upkeep/findings";
import type { OpenIndex } from "../access/openIndex";
import { isLoopbackHost } from "../configuration";
import { bulk } from "../database/bulk";
import type { Reader } from "../database/client";
import { groupBy } from "../groupBy";
import { isSecret } from "../vaults/composing";
import { kindsById } from "../vaults/kinds";
import { sitesWithCodes } from "../vaults/sites";

/** Fields of an entry that say until when it is good, by what they are called. */
const ENDS = /expir|valid until|ends|renew/i;

interface EntryRow {
  id: string;
  kind: string;
  site: string;
  hasCode: number;
  signInPage: string;
  fields: Record<string, string>;
  createdAt: number;
  writtenAt: number;
  refusedAt: number | null;
  atRest: number;
  leaked: number | null;
  leakedSince: number | null;
  guesses: number | null;
  reused: number;
  asksPerson: number;
  entersCode: number;
  workedAt: number | null;
  usedAt: number | null;
  seenAt: number | null;
}

const inside = (ids: readonly string[]) => sql`(select value from json_each(${JSON.stringify(ids)}))`;

/** @returns by id; entries that are not there any more are not in it */
export async function entryFacts(
  tx: Reader,
  index: OpenIndex,
  ids: readonly string[],
  at: number,
): Promise<Map<string, EntryFacts>> {
  const rows = await bulk<EntryRow>(
    tx,
    {
      ...{
        id: sql`e.node_id`,
        kind: sql`e.kind`,
        site: sql`e.site`,
        hasCode: sql`e.has_code`,
        signInPage: sql`e.sign_in_page`,
        fields: sql`json(e.fields)`,
      },
      ...{ createdAt: sql`e.created_at`, writtenAt: sql`v.created_at`, refusedAt: sql`v.refused_at` },
      asksPerson: sql`e.codes_reach <> ''`,
      // As Lanyard saw somebody sign in: they entered one.
      entersCode: sql`json(e.steps) like '%"what":"code"%'`,
      atRest: sql`e.binned_at is not null or e.aside_at is not null`,
      leaked: sql`(select l.times from leaks l where l.version_id = e.version_id)`,
      leakedSince: sql`(select l.looked_up_at from leaks l where l.version_id = e.version_id)`,
      guesses: sql`(select min(c.guesses) from conditions c where c.version_id = e.version_id and c.field = ${PASSWORD})`,
      reused: sql`exists (
        select 1 from fingerprints f
          join fingerprints g on g.fingerprint = f.fingerprint and g.version_id <> f.version_id
          join entries o on o.version_id = g.version_id
        where f.version_id = e.version_id and f.field = ${PASSWORD} and g.field = ${PASSWORD} and o.binned_at is null and o.aside_at is null)`,
      workedAt: sql`(select max(s.begun_at) from sign_ins s where s.entry_id = e.node_id and s.outcome = 'signed-in')`,
      usedAt: sql`(select max(s.begun_at) from sign_ins s where s.entry_id = e.node_id and s.outcome = 'signed-in' and s.how <> 'tested')`,
      seenAt: sql`(select max(s.at) from sightings s where s.entry_id = e.node_id)`,
    },
    sql`from entries e join entry_versions v on v.id = e.version_id where e.node_id in ${inside(ids)}`,
  );
  const there = rows.map(({ id }) => id);
  const kinds = await kindsById(tx);
  const failures = await failuresOf(tx, there);
  const kindOf = new Map(rows.map(({ id, kind }) => [id, kinds.get(kind)!]));
  const secret = (id: string, field: string) => isSecret(kindOf.get(id)!, field);
  const codes = await sitesWithCodes(tx);
  const ages = await secretsSince(
    tx,
    there.filter((id) => kindOf.get(id)!.oldAfter !== undefined),
    secret,
  );
  const seers = await seersOf(tx, index, there, secret, at);
  return new Map(
    rows.map((row): [string, EntryFacts] => {
      const failed = (failures.get(row.id) ?? []).filter((one) => one.at > (row.workedAt ?? 0));
      const last = failed.at(-1);
      const dated = (kinds.get(row.kind)?.fields ?? []).filter(
        ({ form, label }) => (form === "date" || form === "month") && ENDS.test(label),
      );
      return [
        row.id,
        {
          ...{ atRest: row.atRest === 1, createdAt: row.createdAt, writtenAt: row.writtenAt },
          ...{
            signsIn: row.signInPage !== "",
            plainHttp: isPlainHttp(row.signInPage),
            homePage: isHomePage(row.signInPage),
            codeMissing:
              row.hasCode === 0 &&
              row.signInPage !== "" &&
              (codes.has(row.site) || (row.entersCode === 1 && row.asksPerson === 0)),
            secretSince: ages.get(row.id) ?? null,
            oldAfter: kindOf.get(row.id)!.oldAfter ?? null,
            leaked: row.leaked ?? 0,
            leakedSince: row.leakedSince ?? 0,
          },
          ...{ guesses: row.guesses, reused: row.reused === 1, seers: seers.get(row.id) ?? [] },
          ...{ refusedAt: row.refusedAt, workedAt: row.workedAt },
          asksPerson: row.asksPerson === 1,
          failing: last ? { since: failed[0]!.at, failure: last.outcome } : null,
          usedAt: row.usedAt === null && row.seenAt === null ? null : Math.max(row.usedAt ?? 0, row.seenAt ?? 0),
          dates: dated.flatMap(({ id, label }) => {
            const day = endOfDay(row.fields[id] ?? "");
            return day === null ? [] : [{ field: label, at: day }];
          }),
        },
      ];
    }),
  );
}

/** What is typed there can be read on the way; on this machine there is no way. */
const isPlainHttp = (page: string): boolean => page.startsWith("http:") && !isLoopbackHost(new URL(page).hostname);

const isHomePage = (page: string): boolean => {
  if (!URL.canParse(page)) return false;
  const { pathname, search, hash } = new URL(page);
  return pathname === "/" && search === "" && hash === "";
};

/** When the oldest of the secrets that an entry has now was written, as far back as its versions go. */
async function secretsSince(
  tx: Reader,
  ids: readonly string[],
  secret: (entryId: string, field: string) => boolean,
): Promise<Map<string, number>> {
  if (ids.length === 0) return new Map();
  const rows = await tx.all<{ id: string; field: string; since: number }>(sql`
    select e.node_id as id, f.field as field, min(w.created_at) as since
    from entries e join fingerprints f on f.version_id = e.version_id
      join entry_versions w on w.entry_id = e.node_id
      join fingerprints g on g.version_id = w.id and g.field = f.field and g.fingerprint = f.fingerprint
    where e.node_id in ${inside(ids)} group by e.node_id, f.field`);
  const since = new Map<string, number>();
  for (const row of rows)
    if (secret(row.id, row.field)) since.set(row.id, Math.min(since.get(row.id) ?? row.since, row.since));
  return since;
}

/** The end of a day or month as fields have them, in UTC: a few hours more or less do not matter here. */
function endOfDay(text: string): number | null {
  const day = /^(\d{4})-(\d\d)-(\d\d)$/.exec(text);
  if (day) return Date.UTC(Number(day[1]), Number(day[2]) - 1, Number(day[3]) + 1);
  const month = /^(\d{4})-(\d\d)$/.exec(readMonth(text) ?? "");
  return month ? Date.UTC(Number(month[1]), Number(month[2]), 1) : null;
}

/** Sign-ins that failed because of the entry, the first first. */
async function failuresOf(tx: Reader, ids: readonly string[]) {
  const rows = await tx.all<{ entryId: string; at: number; outcome: Failure }>(sql`
    select s.entry_id as "entryId", s.begun_at as at, s.outcome as outcome from sign_ins s
    where s.entry_id in ${inside(ids)} and s.outcome in ${inside(TELLING_FAILURES)} order by s.begun_at`);
  return groupBy(rows, ({ entryId }) => entryId);
}

/** Who has seen a secret that an entry has now. */
async function seersOf(
  tx: Reader,
  index: OpenIndex,
  ids: readonly string[],
  secret: (entryId: string, field: string) => boolean,
  at: number,
): Promise<Map<string, Seer[]>> {
  const all = await tx.all<{ entryId: string; field: string; personId: string; since: number }>(sql`
    select distinct s.entry_id as "entryId", s.field as field, s.person_id as "personId",
      (select max(t.valid_from) from standings t where t.person_id = s.person_id and t.valid_until is null) as since
    from sightings s
      join entries e on e.node_id = s.entry_id
      join fingerprints f on f.version_id = e.version_id and f.field = s.field and f.fingerprint = s.fingerprint
    where s.entry_id in ${inside(ids)}`);
  const rows = all.filter(({ entryId, field }) => secret(entryId, field));
  const seers = rows.flatMap(({ entryId, personId, since }) => {
    const person = index.person(personId);
    if (!person) return [];
    const { standing } = person;
    const level = levelSoon(index, personId, entryId, at);
    return [{ entryId, personId, standing, level, until: index.end(personId, entryId, "reveal", at), since }];
  });
  return groupBy(seers, ({ entryId }) => entryId);
}

const WEEK = 7 * 86_400_000;

/** What a person has at a node, or will have within a week by a window that opens again. */
function levelSoon(index: OpenIndex, personId: string, nodeId: string, at: number): Reach {
  const now = index.level(personId, nodeId, at);
  const windows = index.path(nodeId).flatMap(({ id }) => index.grantsOn(id).filter(({ weekly }) => weekly));
  if (windows.length === 0) return now;
  return momentsAhead(windows, at, at + WEEK).reduce<Reach>(
    (most, moment) => higher(most, index.level(personId, nodeId, moment)),
    now,
  );
}

/** @returns by id; nodes that are not there any more are not in it */
export async function accessFacts(
  tx: Reader,
  index: OpenIndex,
  nodeIds: readonly string[],
  at: number,
): Promise<Map<string, AccessFacts>> {
  const own = (nodeId: string) => index.grantsOn(nodeId).filter(({ subjectKind }) => subjectKind === "person");
  const people = new Set(nodeIds.flatMap((id) => own(id).map(({ subjectId }) => subjectId)));
  const used = await usesOf(tx, index, [...people]);
  const facts = new Map<string, AccessFacts>();
  const limits = await tx.all<{ id: string; most: number }>(
    sql`select node_id as id, most_people as most from vaults where node_id in ${inside(nodeIds)} and most_people is not null`,
  );
  const mostPeople = new Map(limits.map(({ id, most }) => [id, most]));
  for (const nodeId of nodeIds) {
    const node = index.node(nodeId);
    if (!node) continue;
    const grants = index.grantsOn(nodeId);
    const countsStewards = node.type === "vault" || node.separate;
    facts.set(nodeId, {
      peopleCount: mostPeople.has(nodeId) ? index.countWhoUse(nodeId, at) : 0,
      mostPeople: mostPeople.get(nodeId) ?? null,
      ...{ countsStewards, stewards: countsStewards ? lastingStewards(index, nodeId, at) : [] },
      grants: grants.map(
        (grant): GrantFacts => ({
          ...{ id: grant.id, level: grant.level, subject: grant.subjectKind, personId: grant.subjectId },
          guest: grant.subjectKind === "person" && index.person(grant.subjectId)?.guest === true,
          ...{ from: grant.from, until: grant.until, validFrom: grant.validFrom, why: grant.why },
          usedAt: used(grant.subjectId, nodeId),
        }),
      ),
    });
  }
  return facts;
}

function lastingStewards(index: OpenIndex, nodeId: string, at: number): string[] {
  const steps = index.steps(nodeId);
  return index
    .whoHas(nodeId, "steward", at)
    .filter(({ person }) => isLastingSteward(person, steps, at))
    .map(({ person }) => person.id)
    .sort();
}

/** When somebody used anything at or below a node last, for some people. */
async function usesOf(tx: Reader, index: OpenIndex, people: readonly string[]) {
  const rows =
    people.length === 0
      ? []
      : await tx.all<{ personId: string; entryId: string; at: number }>(sql`
          select person_id as "personId", entry_id as "entryId", max(begun_at) as at from sign_ins
            where person_id in ${inside(people)} and outcome = 'signed-in' and how <> 'tested' group by person_id, entry_id
          union all
          select person_id, entry_id, max(at) from sightings where person_id in ${inside(people)} group by person_id, entry_id`);
  const last = new Map<string, number>();
  for (const { personId, entryId, at } of rows)
    for (const { id } of index.path(entryId)) {
      const key = `${personId} ${id}`;
      if (at > (last.get(key) ?? 0)) last.set(key, at);
    }
  return (personId: string, nodeId: string): number | null => last.get(`${personId} ${nodeId}`) ?? null;
}
