/** People: added, suspended, brought back, marked as leavers; their links renewed, their sessions ended. */
import { and, eq, isNull, lte } from "drizzle-orm";
import { z } from "zod";
import type { Standing } from "../../core/access";
import { NAMED_BY_OWNERS, ROLES } from "../../core/people/role";
import { personIdOf } from "../caller";
import { command, idSchema, instantSchema, none, type Topic } from "../command";
import type { Reader } from "../database/client";
import { codeApps, passkeys, personStates, persons, recoveryCodes } from "../database/schema";
import { decideHere, linkKnownAccount } from "../provider/accounts";
import { Refused } from "../refused";
import { requireConfirmed } from "../rules/confirming";
import { requireAdministrator, requireOther } from "./administrators";
import { endBelongings, giveAgain, givesSteward } from "./belongings";
import { endListOf, openChangeList } from "./changeLists";
import { endAll, mailSchema } from "./sessions";
import { makeLink } from "./setUp";
import { makeSignInLink } from "./signInLinks";
import { currentState, isLastOwner, peopleNamed, setStanding } from "./state";
import { erasing, persons as t } from "./strings";
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
  allow: async (context) => {
    const found = await requireOther(context, context.input.personId);
    if (found.standing.role !== "member" && found.standing.role !== "guest") await requireConfirmed(context, "role");
    if (await givesSteward(context.tx, context.input)) await requireConfirmed(context, "steward");
    return found;
  },
  run: async ({ tx, input, me, at, commandId, allowed }) => {
    const { personId, grantIds, membershipIds } = input;
    const { standing, role, until, validFrom: leftAt } = allowed.standing;
    if (allowed.person.erasedAt !== null) throw new Refused("conflict", erasing.erasedForGood);
    if (standing !== "suspended" && standing !== "leaver")
      throw new Refused("conflict", t.thisPersonIsAlready(STATE_WORDS[standing]));
    // Someone who never set up a way in comes back as invited.
    const next = (await hasOwnWay(tx, personId)) ? "active" : "invited";
    const ends = until !== null && until > at ? until : null;
    await setStanding(tx, personId, { role, standing: next, until: ends }, at, commandId);
    await decideHere(tx, personId);
    if (standing !== "leaver") return;
    await endListOf(tx, personId, at);
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
    if (NAMED_BY_OWNERS.has(context.input.role) && context.role !== "owner")
      throw new Refused("not-allowed", t.onlyAnOwnerCanNameOwners, "role");
    await requireConfirmed(context, "role");
    return found;
  },
  run: async ({ tx, input, at, commandId, allowed }) => {
    if (allowed.standing.role === input.role) throw new Refused("conflict", t.theyAlreadyHaveThisRole, "role");
    if (allowed.standing.role === "owner") await requireAnotherOwner(tx, input.personId);
    const { standing, until } = allowed.standing;
    if (input.role === "owner" && until !== null)
      throw new Refused("not-allowed", t.anOwnerCannotHaveAnEndDate, "role");
    const change = () => setStanding(tx, input.personId, { role: input.role, standing, until }, at, commandId);
    // An auditor has nothing: what they looked after may be left without anybody.
    if (input.role === "auditor") await tellingOwners(tx, input.personId, allowed.person.name, at, change);
    else await change();
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

const MOST_AT_ONCE = 200;
const several = z.array(idSchema).min(1).max(MOST_AT_ONCE);

/** All of them, or none; each is a line of its own. */
export const suspendPeople = command({
  name: "people.suspendPeople",
  input: z.strictObject({ personIds: several, why: z.string().trim().max(300).default("") }),
  by: ["person"],
  allow: ({ role }) => requireAdministrator({ role }),
  run: (context) =>
    forEach(context, context.input.personIds, (personId) =>
      suspendPerson.within(context, { personId, why: context.input.why }),
    ),
  journal: null,
  tell: () => ["administrators"],
});

/** One end date for all of them, or for none; each is a line of its own. */
export const setEnds = command({
  name: "people.setEnds",
  input: z.strictObject({ personIds: several, until: instantSchema }),
  by: ["person"],
  allow: ({ role }) => requireAdministrator({ role }),
  run: (context) =>
    forEach(context, context.input.personIds, async (personId) => {
      // Whoever has this date already keeps it: the others are what is meant.
      const now = await currentState(context.tx, personId);
      if (now?.until !== context.input.until) await setEnd.within(context, { personId, until: context.input.until });
    }),
  journal: null,
  tell: () => ["administrators"],
});

/** A refusal names whom it is about. */
async function forEach(
  { tx }: { tx: Reader },
  personIds: readonly string[],
  act: (personId: string) => Promise<unknown>,
): Promise<void> {
  for (const personId of new Set(personIds))
    try {
      await act(personId);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      const name = (await peopleNamed(tx, [personId])).get(personId);
      throw new Refused(error.code, name ? `${name}: ${error.message}` : error.message, error.field, error.data);
    }
}

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
      await openChangeList(tx, { person, sort: "left", why: "", dueAt: null, by: null, at });
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
