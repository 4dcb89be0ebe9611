/** Who signs in by an identity provider and in no other way. */
import { and, eq, isNull } from "drizzle-orm";
import type { Reader } from "../database/client";
import { personStates, persons, providerAccounts, providers, type Role } from "../database/schema";
import type { ProviderDomain } from "../database/stored";

export const domainOf = (mail: string): string => mail.slice(mail.lastIndexOf("@") + 1).toLowerCase();

export const holdsDomain = (domains: readonly ProviderDomain[], mail: string): boolean =>
  mail.includes("@") && domains.some(({ domain, provedAt }) => provedAt !== null && domain === domainOf(mail));

/** The provider that is required for somebody: staff who have an account there, or an address in one of its domains. */
export async function requiredProvider(
  tx: Reader,
  personId: string,
): Promise<{ id: string; name: string; role: Role } | null> {
  const asked = await tx
    .select({ id: providers.id, name: providers.name, domains: providers.domains })
    .from(providers)
    .where(and(eq(providers.enabled, true), eq(providers.required, true)));
  if (asked.length === 0) return null;
  const [person] = await tx
    .select({ mail: persons.mail, role: personStates.role })
    .from(persons)
    .innerJoin(personStates, and(eq(personStates.personId, persons.id), isNull(personStates.validUntil)))
    .where(eq(persons.id, personId));
  if (!person || person.role === "guest") return null;
  const linked = await tx
    .select({ providerId: providerAccounts.providerId })
    .from(providerAccounts)
    .where(eq(providerAccounts.personId, personId));
  const found = asked.find(
    ({ id, domains }) => linked.some(({ providerId }) => providerId === id) || holdsDomain(domains, person.mail),
  );
  return found ? { id: found.id, name: found.name, role: person.role } : null;
}
