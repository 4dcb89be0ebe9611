/** People as they are looked at and looked for: the list with its filters, and whom access can be given to. */
import { sql } from "drizzle-orm";
import { z } from "zod";
import type { Standing } from "../../core/access";
import {
  PEOPLE_IN,
  PEOPLE_ROLES,
  PEOPLE_SEEN,
  PEOPLE_SORTS,
  PEOPLE_WAYS,
  type PeopleFilter,
} from "../../core/people/peopleFilter";
import type { IndexPerson, OpenIndex } from "../access/openIndex";
import { byName, sortByName } from "../byName";
import { idSchema, query } from "../command";
import { inJson } from "../database/bulk";
import type { Reader } from "../database/client";
import { groups, persons, type Role } from "../database/schema";
import { Refused } from "../refused";
import { requireReader } from "./administrators";
import { persons as t } from "./strings";

export interface PersonLine {
  id: string;
  name: string;
  mail: string;
  role: Role;
  standing: Standing;
  since: number;
  /** When all of their access ends. */
  until: number | null;
  groups: { id: string; name: string }[];
  lastSeenAt: number | null;
  lanyards: number;
  /** What they sign in with. */
  ways: { password: boolean; passkeys: number; codes: boolean; providers: string[] };
  /** The sign-in link that they have and have not used. */
  link: LinkState | null;
}

export interface LinkState {
  until: number;
  opened: number | null;
  mailed: boolean;
  /** When the mail left, or could not. */
  sent: number | null;
  failed: number | null;
}

/** Lines of one page. */
const PAGE = 50;

export interface PeoplePage {
  people: PersonLine[];
  /** Of all that were looked for. */
  found: number;
  /** Of those who have left, where the list is of the others. */
  leavers: number;
  /** Where the pages before and after begin; null at the ends. */
  previous: number | null;
  next: number | null;
  /** In the whole organisation. */
  active: number;
  invited: number;
  /** The name of the group that is asked for. */
  group: string | null;
  /** Sign-in links can be mailed. */
  mails: boolean;
}

const filterSchema = z.strictObject({
  /** Part of a name or an address. */
  text: z.string().trim().max(200).default(""),
  role: z.enum(PEOPLE_ROLES).default("any"),
  state: z.enum(PEOPLE_IN).default("here"),
  group: idSchema.nullable().default(null),
  way: z.enum(PEOPLE_WAYS).default("any"),
  seen: z.enum(PEOPLE_SEEN).default("any"),
  sort: z.enum(PEOPLE_SORTS).default("name"),
});

interface Detail {
  id: string;
  mail: string;
  since: number;
  standing: Standing;
  lastSeenAt: number | null;
  lanyards: number;
  groups: string;
  password: number;
  passkeys: number;
  codes: number;
  providers: string;
  link: string | null;
}

export const personList = query({
  name: "people.personList",
  input: filterSchema.extend({ from: z.number().int().min(0).default(0) }),
  by: ["person"],
  allow: ({ role }) => requireReader({ role }),
  run: async ({ tx, input, at, app }): Promise<PeoplePage> => {
    const index = tx.access!;
    const everybody = peopleByName(index);
    // A leaver from their end on, before anybody has written it down.
    const standing = (one: IndexPerson) => (one.until !== null && one.until <= at ? "leaver" : one.standing);
    const any = await filtered(tx, index, everybody, input, at);
    const { found, seen } = await sortedBy(
      tx,
      any.filter((one) => inState(input.state, standing(one))),
      input,
    );
    const some = found.slice(input.from, input.from + PAGE);
    const details = await detailsOf(tx, some, at);
    const counts = { active: 0, invited: 0 };
    for (const one of everybody) {
      const now = standing(one);
      if (now === "active" || now === "invited") counts[now]++;
    }
    return {
      people: some.flatMap(({ id, name, role, until }): PersonLine[] => {
        const row = details.get(id);
        if (!row) return [];
        const { password, passkeys, codes, providers, ...rest } = row;
        const held = (JSON.parse(row.groups) as { id: string; name: string }[]).sort(byName);
        const link = row.link === null ? null : (JSON.parse(row.link) as LinkState);
        return [
          {
            ...rest,
            ...{ name, role, until, groups: held, lastSeenAt: seen.get(id) || row.lastSeenAt },
            ways: {
              ...{ password: password === 1, passkeys, codes: codes === 1 },
              providers: (JSON.parse(providers) as string[]).sort(),
            },
            link: link && { ...link, mailed: Boolean(link.mailed) },
          },
        ];
      }),
      found: found.length,
      leavers: input.state === "here" ? any.filter((one) => standing(one) === "leaver").length : 0,
      previous: input.from > 0 ? Math.max(0, input.from - PAGE) : null,
      next: input.from + PAGE < found.length ? input.from + PAGE : null,
      ...counts,
      group: input.group === null ? null : await groupNamed(tx, input.group),
      mails: app.configuration.mail !== null,
    };
  },
});

const inState = (wanted: PeopleFilter["state"], standing: Standing): boolean =>
  wanted === "any" || (wanted === "here" ? standing !== "leaver" : standing === wanted);

/** Those that a filter leaves, whatever their state: what the index knows first, then what has to be looked up. */
async function filtered(
  tx: Reader,
  index: OpenIndex,
  people: readonly IndexPerson[],
  { text, role, group, way, seen }: z.output<typeof filterSchema>,
  at: number,
): Promise<readonly IndexPerson[]> {
  let left = people;
  if (role !== "any") left = left.filter((one) => (role === "staff" ? one.role !== "guest" : one.role === role));
  if (group !== null) {
    const inIt = new Set(index.peopleIn(group));
    left = left.filter(({ id }) => inIt.has(id));
  }
  if (text !== "") left = left.filter(within(await idsLike(tx, text)));
  if (way !== "any") left = left.filter(within(await idsWith(tx, way, left)));
  if (seen !== "any") {
    const last = await lastSeen(tx, left);
    const after = at - SEEN_MS[seen];
    left = left.filter(({ id }) => {
      const when = last.get(id) ?? 0;
      return seen === "never" ? when === 0 : seen === "week" ? when >= after : when < after;
    });
  }
  return left;
}

const DAY = 86_400_000;
const SEEN_MS = { week: 7 * DAY, "not-month": 30 * DAY, "not-quarter": 90 * DAY, never: 0 };

async function sortedBy(
  tx: Reader,
  people: readonly IndexPerson[],
  { sort }: { sort: PeopleFilter["sort"] },
): Promise<{ found: readonly IndexPerson[]; seen: ReadonlyMap<string, number> }> {
  if (sort === "name") return { found: people, seen: new Map() };
  if (sort === "role") {
    const rank = (one: IndexPerson) => ROLE_ORDER.indexOf(one.role);
    return { found: people.toSorted((a, b) => rank(a) - rank(b)), seen: new Map() };
  }
  const seen = await lastSeen(tx, people);
  const when = ({ id }: IndexPerson) => seen.get(id) ?? 0;
  const found = people.toSorted((a, b) => (sort === "seen" ? when(b) - when(a) : when(a) - when(b)));
  return { found, seen };
}

const ROLE_ORDER: readonly Role[] = ["owner", "administrator", "auditor", "member", "guest"];

const idsOf = (people: readonly { id: string }[]) =>
  sql`(select value as id from json_each(${JSON.stringify(people.map(({ id }) => id))}))`;

/** When each was last here, in Galtry or by a Lanyard; 0 for never. */
async function lastSeen(tx: Reader, people: readonly IndexPerson[]): Promise<ReadonlyMap<string, number>> {
  const rows = await tx.all<{ id: string; at: number }>(sql`
    select p.id as id, max(
      coalesce((select max(last_seen_at) from sessions where person_id = p.id), 0),
      coalesce((select max(last_used_at) from lanyards where person_id = p.id), 0)) as at
    from ${idsOf(people)} p`);
  return new Map(rows.map(({ id, at }) => [id, at]));
}

/** Those who sign in in a certain way. */
async function idsWith(
  tx: Reader,
  way: Exclude<PeopleFilter["way"], "any">,
  people: readonly IndexPerson[],
): Promise<ReadonlySet<string>> {
  const key = sql`exists (select 1 from passkeys k where k.person_id = p.id)`;
  const code = sql`exists (select 1 from code_apps c where c.person_id = p.id and c.confirmed_at is not null)`;
  const account = sql`exists (select 1 from provider_accounts a where a.person_id = p.id)`;
  const password = sql`p.password_hash is not null`;
  const holds = {
    passkey: key,
    code,
    provider: account,
    "password-only": sql`${password} and not ${key} and not ${code} and not ${account}`,
    none: sql`not ${password} and not ${key} and not ${account}`,
  }[way];
  const rows = await tx.all<{ id: string }>(
    sql`select p.id as id from ${idsOf(people)} w cross join persons p on p.id = w.id where ${holds}`,
  );
  return new Set(rows.map(({ id }) => id));
}

async function groupNamed(tx: Reader, id: string): Promise<string | null> {
  const [row] = await tx.all<{ name: string }>(sql`select name from groups where id = ${id}`);
  return row?.name ?? null;
}

async function detailsOf(tx: Reader, people: readonly IndexPerson[], at: number): Promise<ReadonlyMap<string, Detail>> {
  const rows = await tx.all<Detail>(sql`
    select p.id as id, p.mail as mail, s.valid_from as since,
      case when s.until_at <= ${at} then 'leaver' else s.standing end as standing,
      nullif(max(
        coalesce((select max(last_seen_at) from sessions where person_id = p.id), 0),
        coalesce((select max(last_used_at) from lanyards where person_id = p.id), 0)), 0) as "lastSeenAt",
      (select count(*) from lanyards l where l.person_id = p.id and l.ended_at is null and l.expires_at > ${at}) as lanyards,
      (select json_group_array(json_object('id', g.id, 'name', g.name)) from memberships m join groups g on g.id = m.group_id
        where m.person_id = p.id and m.valid_until is null) as groups,
      p.password_hash is not null as password,
      (select count(*) from passkeys k where k.person_id = p.id) as passkeys,
      exists (select 1 from code_apps c where c.person_id = p.id and c.confirmed_at is not null) as codes,
      (select json_group_array(v.name) from provider_accounts a join providers v on v.id = a.provider_id
        where a.person_id = p.id) as providers,
      (select json_object('until', l.expires_at, 'opened', l.opened_at, 'mailed', l.mail_id is not null,
          'sent', e.sent_at, 'failed', e.failed_at)
        from links l left join mails e on e.id = l.mail_id
        where l.person_id = p.id and l.purpose = 'sign-in' and l.used_at is null and l.withdrawn_at is null
        order by l.created_at desc limit 1) as link
    from persons p join standings s on s.person_id = p.id and s.valid_until is null
    where p.id in (select id from ${idsOf(people)})`);
  return new Map(rows.map((row) => [row.id, row]));
}

const sorted = new WeakMap<OpenIndex, { version: number; people: readonly IndexPerson[] }>();

/** Everybody in the order of their names; kept until somebody changes. */
function peopleByName(index: OpenIndex): readonly IndexPerson[] {
  const kept = sorted.get(index);
  if (kept?.version === index.version) return kept.people;
  const people = sortByName([...index.people]);
  sorted.set(index, { version: index.version, people });
  return people;
}

const within =
  (ids: ReadonlySet<string>) =>
  ({ id }: { id: string }): boolean =>
    ids.has(id);

/** People whose name or address holds a text, whatever its capitals. */
async function idsLike(tx: Reader, text: string): Promise<ReadonlySet<string>> {
  const wanted = text.toLowerCase();
  const rows = await tx
    .select({ id: persons.id })
    .from(persons)
    .where(sql`instr(lower(${persons.mail}), ${wanted}) > 0`);
  const ids = new Set(rows.map((row) => row.id));
  for (const { id, name } of tx.access!.people) if (name.toLowerCase().includes(wanted)) ids.add(id);
  return ids;
}

/** So many are offered at once. */
const MOST_SUBJECTS = 20;

/** Whom access can be given to, by a part of their name or address: staff may find staff, groups and Everyone; guests nobody. */
export const subjectList = query({
  name: "people.subjectList",
  input: z.strictObject({
    text: z.string().trim().max(200).default(""),
    only: z.enum(["people", "staff", "people and groups", "all"]).default("all"),
  }),
  by: ["person"],
  allow: ({ role }) => {
    if (role === "guest") throw new Refused("not-allowed", t.onlyStaffCanGiveAccess);
  },
  run: async ({ tx, input: { text, only }, at }) => {
    const index = tx.access!;
    const wanted = text.toLowerCase();
    const fits = (name: string) => name.toLowerCase().includes(wanted);
    const like = text === "" ? null : await idsLike(tx, text);
    const people = peopleByName(index)
      .filter((one) => like === null || like.has(one.id))
      // An auditor can have nothing.
      .filter((one) => !one.auditor && (only !== "staff" || !one.guest))
      .filter(({ id }) => ["active", "invited"].includes(index.who(id, at)!.standing))
      .slice(0, MOST_SUBJECTS);
    const mails = new Map(
      (
        await tx
          .select({ id: persons.id, mail: persons.mail })
          .from(persons)
          .where(
            inJson(
              persons.id,
              people.map(({ id }) => id),
            ),
          )
      ).map((row) => [row.id, row.mail]),
    );
    const withGroups = only === "all" || only === "people and groups";
    const groupRows = withGroups
      ? sortByName(
          (await tx.select({ id: groups.id, name: groups.name }).from(groups)).filter(({ name }) => fits(name)),
        )
      : [];
    const inGroup = (id: string) => [...index.peopleIn(id)].filter((one) => index.who(one, at)?.groups.has(id)).length;
    return [
      ...(only === "all" && fits("Everyone")
        ? [{ kind: "everyone" as const, id: "", name: "Everyone", note: `${index.staff(at).size} members of staff` }]
        : []),
      ...groupRows.slice(0, MOST_SUBJECTS).map(({ id, name }) => ({
        kind: "group" as const,
        ...{ id, name, note: `group, ${count(inGroup(id))}` },
      })),
      ...people.map(({ id, name, guest }) => ({
        kind: "person" as const,
        ...{ id, name, note: guest ? `guest, ${mails.get(id)}` : (mails.get(id) ?? "") },
      })),
    ].sort(byName);
  },
});

const count = (n: number) => `${n} ${n === 1 ? "person" : "people"}`;
