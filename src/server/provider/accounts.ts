/** Accounts at a provider, and whose they are. A subject is linked once; an address alone links nobody who is here already. */
import { and, eq, isNull, or } from "drizzle-orm";
import { plainName } from "../../core/plainName";
import type { Reader, Transaction } from "../database/client";
import { personStates, persons, providerAccounts, providers } from "../database/schema";
import { uuidv7 } from "../ids";
import { addNotice } from "../people/telling";
import type { Identity } from "./identity";
import type { ProviderRow } from "./providers";
import { holdsDomain } from "./required";
import { arrivals as t } from "./strings";

export type AccountRow = typeof providerAccounts.$inferSelect;

/** The account that somebody has just signed in with; made where it is new. */
export async function accountOf(
  tx: Transaction,
  provider: ProviderRow,
  identity: Identity,
  at: number,
): Promise<AccountRow> {
  const here = eq(providerAccounts.providerId, provider.id);
  const [known] = await tx
    .select()
    .from(providerAccounts)
    .where(and(here, eq(providerAccounts.subject, identity.subject)));
  // SCIM may have told of it before anybody signed in: by the same id, or by the address that the provider itself verified.
  const [told] = known
    ? [known]
    : await tx
        .select()
        .from(providerAccounts)
        .where(
          and(
            here,
            isNull(providerAccounts.subject),
            or(
              eq(providerAccounts.externalId, identity.subject),
              identity.mailVerified && identity.mail !== "" ? eq(providerAccounts.mail, identity.mail) : undefined,
            ),
          ),
        );
  const seen = {
    subject: identity.subject,
    lastAt: at,
    changedAt: at,
    ...(identity.mail !== "" && { mail: identity.mail }),
    ...(identity.name !== "" && { name: plainName(identity.name).slice(0, 120) }),
    ...(identity.groups !== null && { groups: identity.groups }),
  };
  if (told) {
    const [row] = await tx.update(providerAccounts).set(seen).where(eq(providerAccounts.id, told.id)).returning();
    return row!;
  }
  const [row] = await tx
    .insert(providerAccounts)
    .values({ id: uuidv7(), providerId: provider.id, createdAt: at, ...seen })
    .returning();
  return row!;
}

export type Whose =
  | { person: string }
  /** Somebody here has the address and has not said that it is their account. */
  | { claims: string }
  | { refused: "not-invited" | "not-verified" | "wrong-domain" | "not-active" };

/**
 * Whose an account is, that belongs to nobody yet. Whoever was added by an administrator and has never joined is linked
 * by the address, where the provider verified it and the organisation trusts it with the domain.
 */
export async function whoseIs(
  tx: Reader,
  provider: ProviderRow,
  account: AccountRow,
  mailVerified: boolean,
): Promise<Whose> {
  if (account.mail === "" || !mailVerified) return { refused: "not-verified" };
  if (!holdsDomain(provider.domains, account.mail)) return { refused: "wrong-domain" };
  const [person] = await tx
    .select({ id: persons.id, standing: personStates.standing, hash: persons.passwordHash })
    .from(persons)
    .innerJoin(personStates, and(eq(personStates.personId, persons.id), isNull(personStates.validUntil)))
    .where(eq(persons.mail, account.mail));
  if (!person) return { refused: "not-invited" };
  if (person.standing === "leaver") return { refused: "not-active" };
  const [linked] = await tx
    .select({ id: providerAccounts.id })
    .from(providerAccounts)
    .where(and(eq(providerAccounts.personId, person.id), eq(providerAccounts.providerId, provider.id)));
  // Another account there with the same address: nobody decides that by themselves.
  if (linked) return { claims: person.id };
  return person.standing === "invited" && person.hash === null ? { person: person.id } : { claims: person.id };
}

/** From then on it is this person's; they are told. */
export async function linkAccount(
  tx: Transaction,
  provider: ProviderRow,
  accountId: string,
  personId: string,
  at: number,
): Promise<void> {
  await tx
    .update(providerAccounts)
    .set({ personId, claims: null, linkedAt: at, changedAt: at })
    .where(eq(providerAccounts.id, accountId));
  await addNotice(tx, { to: personId, at, sort: "security", text: t.wasLinked(provider.name) });
}

/** The same address waits for whoever has it to say that the account is theirs; told once. */
export async function waitForPerson(
  tx: Transaction,
  provider: ProviderRow,
  account: AccountRow,
  personId: string,
  at: number,
): Promise<void> {
  if (account.claims === personId) return;
  await tx.update(providerAccounts).set({ claims: personId, changedAt: at }).where(eq(providerAccounts.id, account.id));
  await addNotice(tx, {
    ...{ to: personId, at, sort: "security" as const },
    text: t.accountWaits(account.name || account.mail, provider.name),
  });
}

/** From now on an administrator's word counts: no provider undoes a later suspension by calling its account active. */
export async function decideHere(tx: Transaction, personId: string): Promise<void> {
  await tx.update(providerAccounts).set({ suspendedAt: null }).where(eq(providerAccounts.personId, personId));
}

/** Somebody is added whom a provider has told of by SCIM: who adds them confirms whose the account is. */
export async function linkKnownAccount(tx: Transaction, personId: string, mail: string, at: number): Promise<void> {
  const rows = await tx
    .select({ account: providerAccounts, provider: providers })
    .from(providerAccounts)
    .innerJoin(providers, eq(providers.id, providerAccounts.providerId))
    .where(and(eq(providerAccounts.mail, mail), isNull(providerAccounts.personId), eq(providerAccounts.scim, true)));
  const found = rows.find(({ provider }) => holdsDomain(provider.domains, mail));
  if (found) await linkAccount(tx, found.provider, found.account.id, personId, at);
}
