/** People: added, suspended, brought back, marked as leavers; their links renewed, their sessions ended. */
import { and, eq, isNull, lte, sql } from "drizzle-orm";
import { z } from "zod";
import type { Standing } from "../../core/access";
import { ROLES } from "../../core/people/role";
import type { IndexPerson, OpenIndex } from "../access/openIndex";
import { byName, sortByName } from "../byName";
import { personIdOf } from "../caller";
import { command, idSchema, instantSchema, none, query, type Topic } from "../command";
import { inJson } from "../database/bulk";
import type { Reader } from "../database/client";
import { codeApps, groups, passkeys, personStates, persons, type Role, recoveryCodes } from "../database/schema";
import { decideHere, linkKnownAccount } from "../provider/accounts";
import { Refused } from "../refused";
import { requireAdministrator, requireOther } from "./administrators";
import { endBelongings, giveAgain } from "./belongings";
import { endAll, mailSchema } from "./sessions";
import { makeLink } from "./setUp";
import { makeSignInLink } from "./signInLinks";
import { isLastOwner, setStanding } from "./state";
import { persons as t } from "./strings";
import { addNotice, tellingOwners, tellStewards, vaultsRevealedTo } from "./telling";
import { hasOwnWay, loadWays, needsSecondStep } from "./waysIn/ways";

const ofPerson = z.strictObject({ personId: idSchema });

/** A new link to set a sign-in password; ends what the person has open and is told to them. */
export const renewLink = command({
  name: "people.renewLink",
  input: ofPerson.extend({ send: z.boolean().default(false) }),
  by: ["person"],
  allow: (context) => requireOther(context, context.input.personId),
  run: async ({ tx, me, input, caller, at, allowed, app }) => {
    if (allowed.standing.standing === "leaver") throw new Refused("conflict", t.reinstateThisPersonFirst);
    await endAll(tx, input.personId, at, personIdOf(caller), "a new sign-in link was created");
    await addNotice(tx, { to: input.personId, at, sort: "security", text: t.anAdministratorCreatedANewSign });
    const revealed = await vaultsRevealedTo(tx, input.personId, at);
    await tellStewards(
      tx,
      revealed,
      (vault) => t.aNewSignInLinkWasCreated(allowed.person.name, vault),
      at,
      personIdOf(caller),
    );
    return makeSignInLink(tx, app, {
      ...{ personId: input.personId, by: me, send: input.send, at },
      joined: allowed.standing.standing !== "invited",
    });
  },
  journal: ({ input, allowed, result }) => ({
    subject: input.personId,
    details: { ...(result.sentTo !== null && { sent: true }) },
    names: { [input.personId]: allowed.person.name },
  }),
  says: ({ subject, details }) =>
    details.sent ? `emailed ${subject} a new sign-in link` : `created a new sign-in link for ${subject}`,
  tell: ({ input }) => [`person:${input.personId}`, "administrators"],
});

const changesPerson = ({ personId }: { personId: string }): Topic[] => [
  `person:${personId}`,
  "administrators",
  "everyone",
];

/** Out of everything, with nothing taken away: it is all there again once they are reinstated. */
export const suspendPerson = command({
  name: "people.suspend",
  input: z.strictObject({ personId: idSchema, why: z.string().trim().max(300).default("") }),
  by: ["person"],
  allow: (context) => requireOther(context, context.input.personId),
  run: async ({ tx, input, caller, at, commandId, allowed }) => {
    const { personId } = input;
    const { standing, role, until } = allowed.standing;
    if (standing !== "active" && standing !== "invited")
      throw new Refused("conflict", t.thisPersonIsAlready(STATE_WORDS[standing]));
    if (role === "owner") await requireAnotherOwner(tx, personId);
    await endAll(tx, personId, at, personIdOf(caller), input.why || "suspended");
    await tellingOwners(tx, personId, allowed.person.name, at, () =>
      setStanding(tx, personId, { role, standing: "suspended", until }, at, commandId),
    );
  },
  journal: ({ input, allowed }) => ({
    subject: input.personId,
    details: { why: input.why },
    names: { [input.personId]: allowed.person.name },
  }),
  says: ({ subject, why }) => `suspended ${subject}${why}`,
  tell: ({ input }) => changesPerson(input),
});

/** Role and sign-in; of the access and groups that somebody who left had, what is ticked. */
export const reinstate = command({
  name: "people.reinstate",
  input: z.strictObject({
    personId: idSchema,
    why: z.string().trim().max(300).default(""),
    grantIds: z.array(idSchema).max(1000).default([]),
    membershipIds: z.array(idSchema).max(1000).default([]),
  }),
  by: ["person"],
  allow: (context) => requireOther(context, context.input.personId),
  run: async ({ tx, input, me, at, commandId, allowed }) => {
    const { personId, grantIds, membershipIds } = input;
    const { standing, role, until, validFrom: leftAt } = allowed.standing;
    if (standing !== "suspended" && standing !== "leaver")
      throw new Refused("conflict", t.thisPersonIsAlready(STATE_WORDS[standing]));
    // Someone who never set up a way in comes back as invited.
    const next = (await hasOwnWay(tx, personId)) ? "active" : "invited";
    const ends = until !== null && until > at ? until : null;
    await setStanding(tx, personId, { role, standing: next, until: ends }, at, commandId);
    await decideHere(tx, personId);
    if (standing !== "leaver") return;
    await giveAgain(tx, { personId, leftAt, grantIds, membershipIds, by: me, at, commandId });
    await linkKnownAccount(tx, personId, allowed.person.mail, at);
  },
  journal: ({ input, allowed }) => ({
    subject: input.personId,
    details: { why: input.why },
    names: { [input.personId]: allowed.person.name },
  }),
  says: ({ subject, why }) => `reinstated ${subject}${why}`,
  tell: ({ input }) => changesPerson(input),
});

export const STATE_WORDS: Record<Standing, string> = {
  active: "active",
  invited: "invited",
  suspended: "suspended",
  leaver: "a leaver",
};

/** For whoever has lost what they sign in with: passkeys, one-time codes and recovery codes go, the password stays. */
export const resetWays = command({
  name: "people.resetWays",
  input: ofPerson,
  by: ["person"],
  allow: async (context) => {
    const found = await requireOther(context, context.input.personId);
    const ways = await loadWays(context.tx, context.input.personId);
    if (!needsSecondStep(ways)) throw new Refused("conflict", t.theyHaveNothingToReset);
    return found;
  },
  run: async ({ tx, input, at, caller, allowed }) => {
    for (const table of [passkeys, codeApps, recoveryCodes])
      await tx.delete(table).where(eq(table.personId, input.personId));
    await addNotice(tx, { to: input.personId, at, sort: "security", text: t.yourWaysWereReset });
    const revealed = await vaultsRevealedTo(tx, input.personId, at);
    const says = (vault: string) => t.theirWaysWereReset(allowed.person.name, vault);
    await tellStewards(tx, revealed, says, at, personIdOf(caller));
  },
  journal: ({ input, allowed }) => ({ subject: input.personId, names: { [input.personId]: allowed.person.name } }),
  says: ({ subject }) => `removed passkeys and one-time codes of ${subject}`,
  tell: ({ input }) => [`person:${input.personId}`, "administrators"],
});

export const endEverything = command({
  name: "people.endEverything",
  input: z.strictObject({ personId: idSchema, why: z.string().trim().max(300).default("") }),
  by: ["person"],
  allow: (context) => requireOther(context, context.input.personId),
  run: async ({ tx, input, caller, at }) =>
    endAll(tx, input.personId, at, personIdOf(caller), input.why || "an administrator ended it"),
  journal: ({ input, allowed }) => ({
    subject: input.personId,
    details: { why: input.why },
    names: { [input.personId]: allowed.person.name },
  }),
  says: ({ subject, why }) => `signed ${subject} out everywhere${why}`,
  tell: ({ input }) => [`person:${input.personId}`],
});

export const changeRole = command({
  name: "people.changeRole",
  input: z.strictObject({ personId: idSchema, role: z.enum(ROLES) }),
  by: ["person"],
  allow: async (context) => {
    const found = await requireOther(context, context.input.personId);
    if (context.input.role === "owner" && context.role !== "owner")
      throw new Refused("not-allowed", t.onlyAnOwnerCanNameOwners, "role");
    return found;
  },
  run: async ({ tx, input, at, commandId, allowed }) => {
    if (allowed.standing.role === input.role) throw new Refused("conflict", t.theyAlreadyHaveThisRole, "role");
    if (allowed.standing.role === "owner") await requireAnotherOwner(tx, input.personId);
    const { standing, until } = allowed.standing;
    if (input.role === "owner" && until !== null)
      throw new Refused("not-allowed", t.anOwnerCannotHaveAnEndDate, "role");
    await setStanding(tx, input.personId, { role: input.role, standing, until }, at, commandId);
  },
  journal: ({ input, allowed }) => ({
    subject: input.personId,
    details: { before: allowed.standing.role, role: input.role },
    names: { [input.personId]: allowed.person.name },
  }),
  says: ({ details, subject }) => `changed ${subject} from ${details.before} to ${details.role}`,
  tell: ({ input }) => [`person:${input.personId}`, "administrators", "everyone"],
});

/**
 * All of a person's access ends at a moment, by itself: the contract of somebody who is here for a season. Moving the
 * date on extends it in one act; no date takes it away.
 */
export const setEnd = command({
  name: "people.setEnd",
  input: z.strictObject({ personId: idSchema, until: instantSchema }),
  by: ["person"],
  allow: async (context) => {
    const { input, at } = context;
    const found = await requireOther(context, input.personId);
    if (input.until !== null && input.until <= at) throw new Refused("bad-input", t.theEndDateIsInThePast, "until");
    if (input.until !== null && found.standing.role === "owner")
      throw new Refused("not-allowed", t.anOwnerCannotHaveAnEndDate2, "until");
    if (found.standing.standing === "leaver" || (found.standing.until ?? at + 1) <= at)
      throw new Refused("conflict", t.thisPersonHasLeftReinstateThem);
    return found;
  },
  run: async ({ tx, input, at, commandId, allowed }) => {
    const { role, standing } = allowed.standing;
    if (allowed.standing.until === input.until) throw new Refused("conflict", t.theyAlreadyHaveThisEndDate, "until");
    await setStanding(tx, input.personId, { role, standing, until: input.until }, at, commandId);
  },
  journal: ({ input, allowed }) => ({
    subject: input.personId,
    details: {
      ...(input.until === null ? {} : { until: input.until }),
      ...(allowed.standing.until === null ? {} : { before: allowed.standing.until }),
    },
    names: { [input.personId]: allowed.person.name },
  }),
  says: ({ subject, until }) =>
    until ? `set the end date of ${subject} to${until.slice(" until".length)}` : `removed the end date of ${subject}`,
  tell: ({ input }): Topic[] => [`person:${input.personId}`, "administrators", "everyone"],
});

/** Writes down, as leavers, those whose end has come: it counted from that moment on. */
export const leaveDue = command({
  name: "people.leaveDue",
  input: none,
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, at, commandId }) => {
    const due = await tx
      .select({ person: persons, standing: personStates })
      .from(personStates)
      .innerJoin(persons, eq(persons.id, personStates.personId))
      .where(and(isNull(personStates.validUntil), lte(personStates.until, at)));
    for (const { person, standing } of due) {
      await endAll(tx, person.id, at, null, "their end date was reached");
      const next = { role: standing.role, standing: "leaver", until: null } as const;
      await setStanding(tx, person.id, next, at, commandId);
      await endBelongings(tx, person.id, at);
    }
    return due.map(({ person }) => ({ personId: person.id, name: person.name }));
  },
  journal: ({ result }) => result.map(({ personId, name }) => ({ subject: personId, names: { [personId]: name } })),
  says: ({ subject }) => `ended all access of ${subject} on the date set for it`,
  tell: ({ result }): Topic[] =>
    result.length === 0
      ? []
      : [...result.map(({ personId }): Topic => `person:${personId}`), "administrators", "everyone"],
});

async function requireAnotherOwner(tx: Reader, personId: string): Promise<void> {
  if (await isLastOwner(tx, personId)) throw new Refused("not-allowed", t.thereMustBeAtLeastOneActive);
}

/** A link for a locked-out owner, made on the server itself; told to all owners. */
export const ownerLink = command({
  name: "people.ownerLink",
  input: z.strictObject({ mail: mailSchema }),
  by: ["server"],
  allow: async ({ tx, input }) => {
    const [row] = await tx
      .select({ id: persons.id, name: persons.name, role: personStates.role, standing: personStates.standing })
      .from(persons)
      .innerJoin(personStates, and(eq(personStates.personId, persons.id), isNull(personStates.validUntil)))
      .where(eq(persons.mail, input.mail));
    if (row?.role !== "owner" || row.standing !== "active") throw new Refused("not-found", t.noActiveOwnerHasThisEmail);
    return row;
  },
  run: async ({ tx, at, allowed, app }) => {
    const owners = await tx
      .select({ id: personStates.personId })
      .from(personStates)
      .where(and(eq(personStates.role, "owner"), eq(personStates.standing, "active"), isNull(personStates.validUntil)));
    for (const owner of owners)
      await addNotice(tx, { to: owner.id, at, sort: "security", text: t.aSignInLinkForWasCreated(allowed.name) });
    const token = await makeLink(tx, "sign-in", allowed.id, at);
    return { link: new URL(`/join#${token}`, app.configuration.publicUrl).href };
  },
  journal: ({ allowed }) => ({ subject: allowed.id, names: { [allowed.id]: allowed.name } }),
  says: ({ subject }) => `a sign-in link for ${subject} was created on the server`,
  tell: () => ["administrators"],
});

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
  /** They have passkeys or one-time codes. */
  second: boolean;
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
  /** Where the pages before and after begin; null at the ends. */
  previous: number | null;
  next: number | null;
  /** In the whole organisation. */
  active: number;
  invited: number;
  /** Sign-in links can be mailed. */
  mails: boolean;
}

export const personList = query({
  name: "people.personList",
  input: z.strictObject({
    /** Part of a name or an address. */
    text: z.string().trim().max(200).default(""),
    from: z.number().int().min(0).default(0),
  }),
  by: ["person"],
  allow: ({ role }) => requireAdministrator({ role }),
  run: async ({ tx, input, at, app }): Promise<PeoplePage> => {
    const index = tx.access!;
    const everybody = peopleByName(index);
    const found = input.text === "" ? everybody : everybody.filter(matching(await idsLike(tx, input.text)));
    const some = found.slice(input.from, input.from + PAGE);
    const ids = JSON.stringify(some.map(({ id }) => id));
    const wanted = sql`(select value from json_each(${ids}))`;
    const rows = await tx.all<{
      id: string;
      mail: string;
      since: number;
      standing: Standing;
      lastSeenAt: number | null;
      lanyards: number;
      groups: string;
      second: number;
      link: string | null;
    }>(sql`
      select p.id as id, p.mail as mail, s.valid_from as since,
        case when s.until_at <= ${at} then 'leaver' else s.standing end as standing,
        (select max(last_seen_at) from sessions where person_id = p.id) as "lastSeenAt",
        (select count(*) from lanyards l where l.person_id = p.id and l.ended_at is null and l.expires_at > ${at}) as lanyards,
        (select json_group_array(json_object('id', g.id, 'name', g.name)) from memberships m join groups g on g.id = m.group_id
          where m.person_id = p.id and m.valid_until is null) as groups,
        (exists (select 1 from passkeys k where k.person_id = p.id)
          or exists (select 1 from code_apps c where c.person_id = p.id and c.confirmed_at is not null)) as second,
        (select json_object('until', l.expires_at, 'opened', l.opened_at, 'mailed', l.mail_id is not null,
            'sent', e.sent_at, 'failed', e.failed_at)
          from links l left join mails e on e.id = l.mail_id
          where l.person_id = p.id and l.purpose = 'sign-in' and l.used_at is null and l.withdrawn_at is null
          order by l.created_at desc limit 1) as link
      from persons p join standings s on s.person_id = p.id and s.valid_until is null where p.id in ${wanted}`);
    const details = new Map(rows.map((row) => [row.id, row]));
    // A leaver from their end on, before anybody has written it down.
    const standing = (one: IndexPerson) => (one.until !== null && one.until <= at ? "leaver" : one.standing);
    const counts = { active: 0, invited: 0 };
    for (const one of everybody) {
      const now = standing(one);
      if (now === "active" || now === "invited") counts[now]++;
    }
    return {
      people: some.flatMap(({ id, name, role, until }): PersonLine[] => {
        const row = details.get(id);
        if (!row) return [];
        const held = (JSON.parse(row.groups) as { id: string; name: string }[]).sort(byName);
        const link = row.link === null ? null : (JSON.parse(row.link) as LinkState);
        return [
          {
            ...row,
            second: row.second === 1,
            name,
            role,
            until,
            groups: held,
            link: link && { ...link, mailed: Boolean(link.mailed) },
          },
        ];
      }),
      found: found.length,
      previous: input.from > 0 ? Math.max(0, input.from - PAGE) : null,
      next: input.from + PAGE < found.length ? input.from + PAGE : null,
      ...counts,
      mails: app.configuration.mail !== null,
    };
  },
});

const sorted = new WeakMap<OpenIndex, { version: number; people: readonly IndexPerson[] }>();

/** Everybody in the order of their names; kept until somebody changes. */
function peopleByName(index: OpenIndex): readonly IndexPerson[] {
  const kept = sorted.get(index);
  if (kept?.version === index.version) return kept.people;
  const people = sortByName([...index.people]);
  sorted.set(index, { version: index.version, people });
  return people;
}

const matching =
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
      .filter((one) => only !== "staff" || !one.guest)
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
