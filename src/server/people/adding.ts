/** People are added: one or many at once, into groups, until a date; and what they will have on their first day. */

import { and, eq, isNull, ne, sql } from "drizzle-orm";
import { z } from "zod";
import type { Who } from "../../core/access";
import { NAMED_BY_OWNERS, ROLES, type Role } from "../../core/people/role";
import { personIdOf } from "../caller";
import { command, idSchema, instantSchema, nameSchema, query } from "../command";
import { inJson } from "../database/bulk";
import type { Reader } from "../database/client";
import { entries, groups, personStates, persons } from "../database/schema";
import { uuidv7 } from "../ids";
import { linkKnownAccount } from "../provider/accounts";
import { Refused } from "../refused";
import { requireConfirmed } from "../rules/confirming";
import { requireAdministrator } from "./administrators";
import { setMember } from "./members";
import { mailSchema } from "./sessions";
import { makeSignInLink } from "./signInLinks";
import { adding as t } from "./strings";

const MOST_AT_ONCE = 200;

const personSchema = z.strictObject({
  name: nameSchema,
  mail: mailSchema,
  role: z.enum(ROLES),
  groupIds: z.array(idSchema).max(50).default([]),
  /** All of their access ends then. */
  until: instantSchema.default(null),
  /** The sign-in link goes by mail; otherwise it is shown once, to be passed on by hand. */
  send: z.boolean().default(false),
});

export const addPerson = command({
  name: "people.addPerson",
  input: personSchema,
  by: ["person"],
  allow: async (context) => {
    const { tx, input, role, at } = context;
    requireAdministrator({ role });
    if (NAMED_BY_OWNERS.has(input.role) && role !== "owner")
      throw new Refused("not-allowed", t.onlyAnOwnerCanNameOwners, "role");
    if (input.until !== null && input.until <= at) throw new Refused("bad-input", t.theEndDateIsInThePast, "until");
    if (input.until !== null && input.role === "owner")
      throw new Refused("not-allowed", t.anOwnerCannotHaveAnEndDate, "until");
    const [known] = await tx.select({ id: persons.id }).from(persons).where(eq(persons.mail, input.mail));
    if (known) throw new Refused("conflict", t.thisEmailAddressIsAlreadyInUse, "mail");
    if (input.role !== "member" && input.role !== "guest") await requireConfirmed(context, "role");
  },
  run: async (context) => {
    const { tx, me, input, caller, at, commandId, app } = context;
    const { name, mail, role, until } = input;
    const personId = uuidv7();
    await tx.insert(persons).values({ id: personId, mail, name, createdAt: at, invitedBy: personIdOf(caller) });
    await tx
      .insert(personStates)
      .values({ id: uuidv7(), personId, role, standing: "invited", until, validFrom: at, commandId });
    await linkKnownAccount(tx, personId, mail, at);
    for (const groupId of input.groupIds) await setMember.within(context, { groupId, personId });
    return { personId, ...(await makeSignInLink(tx, app, { personId, by: me, send: input.send, joined: false, at })) };
  },
  journal: ({ input, result }) => ({
    subject: result.personId,
    details: {
      role: input.role,
      ...(input.until === null ? {} : { until: input.until }),
      ...(result.sentTo === null ? {} : { sent: true }),
    },
    names: { [result.personId]: input.name },
  }),
  says: ({ subject, until, details }) => `added ${subject}${until}${details.sent ? " and emailed a sign-in link" : ""}`,
  tell: () => ["administrators"],
});

/** All of them, or none: what is wrong names its line as `people.3.mail`. */
export const addPeople = command({
  name: "people.addPeople",
  input: z.strictObject({
    people: z
      .array(personSchema.omit({ send: true }))
      .min(1)
      .max(MOST_AT_ONCE),
    send: z.boolean().default(false),
  }),
  by: ["person"],
  allow: ({ role }) => requireAdministrator({ role }),
  run: async (context) => {
    const { people, send } = context.input;
    const added: { personId: string; name: string; link: string | null; sentTo: string | null }[] = [];
    for (const [at, person] of people.entries())
      try {
        added.push({ name: person.name, ...(await addPerson.within(context, { ...person, send })) });
      } catch (error) {
        if (error instanceof Refused)
          throw new Refused(error.code, error.message, `people.${at}.${error.field ?? "name"}`, error.data);
        throw error;
      }
    return added;
  },
  // Each is a line of its own.
  journal: null,
  tell: () => ["administrators"],
});

export interface CheckedPerson {
  /** What stands in the way, at its field. */
  wrong: { field: "mail" | "groups" | "role" | "until"; message: string; personId?: string } | null;
  groupIds: string[];
  /** What they can sign in to and open on the day they join. */
  firstDay: { sites: number; others: number } | null;
}

/** Each line of a list looked at before anybody is added, with what its person would have. */
export const checkPeople = query({
  name: "people.checkPeople",
  input: z.strictObject({
    people: z
      .array(
        z.strictObject({
          mail: z.string().max(320),
          role: z.enum(ROLES),
          groups: z.array(z.string().max(200)).max(50).default([]),
          groupIds: z.array(idSchema).max(50).default([]),
          until: instantSchema.default(null),
        }),
      )
      .max(MOST_AT_ONCE),
  }),
  by: ["person"],
  offMainThread: true,
  allow: ({ role }) => requireAdministrator({ role }),
  run: async ({ tx, input, role, at }): Promise<CheckedPerson[]> => {
    const mails = input.people.map(({ mail }) => mail.toLowerCase());
    const known = new Map(
      (
        await tx
          .select({ id: persons.id, mail: persons.mail, name: persons.name, standing: personStates.standing })
          .from(persons)
          .innerJoin(personStates, and(eq(personStates.personId, persons.id), isNull(personStates.validUntil)))
          .where(inJson(persons.mail, mails))
      ).map((one) => [one.mail, one]),
    );
    const wanted = [...new Set(input.people.flatMap((one) => one.groups.map((name) => name.toLowerCase())))];
    const named = await tx
      .select({ id: groups.id, name: groups.name })
      .from(groups)
      .where(sql`lower(${groups.name}) in (select value from json_each(${JSON.stringify(wanted)}))`);
    const groupNamed = new Map(named.map((one) => [one.name.toLowerCase(), one.id]));
    const firstDay = firstDays(tx, at);
    const seen = new Set<string>();
    const checked: CheckedPerson[] = [];
    for (const [i, person] of input.people.entries()) {
      const mail = mails[i] ?? "";
      const there = known.get(mail);
      const missing = person.groups.find((name) => !groupNamed.has(name.toLowerCase()));
      const wrong = ((): CheckedPerson["wrong"] => {
        if (there?.standing === "leaver")
          return { field: "mail", message: t.wasHereBefore(there.name), personId: there.id };
        if (there) return { field: "mail", message: t.thisEmailAddressIsAlreadyInUse, personId: there.id };
        if (seen.has(mail)) return { field: "mail", message: t.repeated };
        if (missing !== undefined) return { field: "groups", message: t.thisGroupDoesNotExist(missing) };
        if (NAMED_BY_OWNERS.has(person.role) && role !== "owner")
          return { field: "role", message: t.onlyAnOwnerCanNameOwners };
        if (person.until !== null && person.until <= at) return { field: "until", message: t.theEndDateIsInThePast };
        return null;
      })();
      seen.add(mail);
      const groupIds = [
        ...new Set([...person.groupIds, ...person.groups.flatMap((name) => groupNamed.get(name.toLowerCase()) ?? [])]),
      ];
      checked.push({
        wrong,
        groupIds,
        firstDay: wrong ? null : await firstDay({ role: person.role, groupIds }),
      });
    }
    return checked;
  },
});

/** Counted once for each set of groups. */
function firstDays(tx: Reader, at: number) {
  const known = new Map<string, Promise<{ sites: number; others: number }>>();
  return ({ role, groupIds }: { role: Role; groupIds: string[] }) => {
    const [guest, auditor] = [role === "guest", role === "auditor"];
    const key = JSON.stringify([guest, auditor, groupIds.toSorted()]);
    let counted = known.get(key);
    if (!counted) {
      counted = countReach(tx, { id: "", guest, auditor, standing: "active", groups: new Set(groupIds) }, at);
      known.set(key, counted);
    }
    return counted;
  };
}

async function countReach(tx: Reader, who: Who, at: number): Promise<{ sites: number; others: number }> {
  const reached = [...(tx.access?.reachedBy(who, at).keys() ?? [])];
  const inUse = and(inJson(entries.nodeId, reached), isNull(entries.binnedAt), isNull(entries.asideAt));
  const [row] = await tx
    .select({
      all: sql<number>`count(*)`,
      sites: sql<number>`coalesce(sum(${ne(entries.signInPage, "")}), 0)`,
    })
    .from(entries)
    .where(inUse);
  const sites = row?.sites ?? 0;
  return { sites, others: (row?.all ?? 0) - sites };
}
