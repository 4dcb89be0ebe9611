/**
 * A leaver's name and address go for good, from everywhere but the lines of the Journal that say what was done: those
 * keep a number in place of the name, and the chain stays whole, because it holds only salted hashes of names.
 */
import { eq, or, sql } from "drizzle-orm";
import { z } from "zod";
import { command, idSchema, nameSchema } from "../command";
import type { Transaction } from "../database/client";
import {
  approvals,
  codeApps,
  deviceSignIns,
  failedSignIns,
  journalNames,
  knownBrowsers,
  lanyards,
  ledgerViews,
  links,
  mails,
  notices,
  passkeys,
  persons,
  pins,
  providerAccounts,
  recoveryCodes,
  sessions,
} from "../database/schema";
import { Refused } from "../refused";
import { requireOther } from "./administrators";
import { erasing as t } from "./strings";

/** What stands where the name stood: tells several apart, and nobody. */
const erasedName = (personId: string): string => t.erasedPerson(personId.slice(-4));

export const erasePerson = command({
  name: "people.erase",
  input: z.strictObject({
    personId: idSchema,
    /** Typed, so that it is not done by a slip of the hand. */
    name: nameSchema,
  }),
  by: ["person"],
  allow: async (context) => {
    const found = await requireOther(context, context.input.personId);
    if (found.standing.standing !== "leaver") throw new Refused("conflict", t.onlyALeaver);
    if (found.person.erasedAt !== null) throw new Refused("conflict", t.alreadyErased);
    if (context.input.name !== found.person.name) throw new Refused("bad-input", t.thisIsNotTheName, "name");
    return found;
  },
  run: async ({ tx, input: { personId }, at, allowed: { person } }) => {
    const name = erasedName(personId);
    await tx
      .update(persons)
      .set({
        ...{ name, mail: `erased-${personId}@invalid`, passwordHash: null, mailChoices: null },
        ...{ erasedAt: at, stepsDismissedAt: null, addressLeaks: 0, addressLeakedAt: null },
      })
      .where(eq(persons.id, personId));
    for (const table of [passkeys, codeApps, recoveryCodes, knownBrowsers, failedSignIns, pins, ledgerViews, links])
      await tx.delete(table).where(eq(table.personId, personId));
    await tx.delete(deviceSignIns).where(eq(deviceSignIns.approvedBy, personId));
    await blankDevices(tx, personId);
    await forgetThere(tx, personId, person.mail);
    await forgetSaid(tx, personId, person);
    return { name };
  },
  // The line itself must not bring the name back.
  journal: ({ input, result }) => ({ subject: input.personId, names: { [input.personId]: result.name } }),
  says: ({ subject }) => `erased the name and email address of a leaver, now called ${subject}`,
  tell: ({ input }) => [`person:${input.personId}`, "administrators", "everyone"],
});

/** Where from and with what they were here. */
async function blankDevices(tx: Transaction, personId: string): Promise<void> {
  await tx.update(sessions).set({ browser: "", address: "" }).where(eq(sessions.personId, personId));
  await tx.update(lanyards).set({ browser: "" }).where(eq(lanyards.personId, personId));
  await tx.update(approvals).set({ browser: "", address: "" }).where(eq(approvals.personId, personId));
}

/** What identity providers told of them. */
async function forgetThere(tx: Transaction, personId: string, mail: string): Promise<void> {
  await tx
    .update(providerAccounts)
    .set({ name: "", mail: "", userName: null, externalId: null, scimUser: null, groups: null })
    .where(
      or(
        eq(providerAccounts.personId, personId),
        eq(providerAccounts.claims, personId),
        eq(providerAccounts.mail, mail),
      ),
    );
}

/** Names in the Journal's own table, notices to and about them, and mail to them. */
async function forgetSaid(tx: Transaction, personId: string, person: { name: string; mail: string }): Promise<void> {
  await tx.delete(journalNames).where(eq(journalNames.ref, personId));
  await tx.delete(notices).where(eq(notices.personId, personId));
  await tx
    .delete(notices)
    .where(sql`instr(${notices.text}, ${person.name}) > 0 or instr(${notices.text}, ${person.mail}) > 0`);
  await tx.delete(mails).where(eq(mails.to, person.mail));
}
