import { and, eq, isNull } from "drizzle-orm";
import { NAMED_BY_OWNERS } from "../../core/people/role";
import { isAdministrator, personIdOf, readsAll } from "../caller";
import type { Context } from "../command";
import type { Reader } from "../database/client";
import { personStates, persons, type Role } from "../database/schema";
import { notFound, Refused } from "../refused";
import { administrators as t } from "./strings";

/** @throws Refused not-allowed for everybody else, in words that may name the act */
export function requireAdministrator({ role }: { role: Role | null }, message = t.onlyAnAdministratorCanDoThis): void {
  if (!role || !isAdministrator(role)) throw new Refused("not-allowed", message);
}

/** For what auditors read as well. @throws Refused not-allowed */
export function requireReader({ role }: { role: Role | null }): void {
  if (!role || !readsAll(role)) throw new Refused("not-allowed", t.onlyAnAdministratorCanDoThis);
}

/** The person an administrator acts on. Only owners act on owners and auditors, whose name an administrator could otherwise read in. */
export async function requireOther(
  { tx, caller, role }: Pick<Context<unknown, Reader>, "tx" | "caller" | "role">,
  personId: string,
) {
  requireAdministrator({ role });
  const [row] = await tx
    .select({ person: persons, standing: personStates })
    .from(persons)
    .innerJoin(personStates, and(eq(personStates.personId, persons.id), isNull(personStates.validUntil)))
    .where(eq(persons.id, personId));
  if (!row) throw notFound();
  if (NAMED_BY_OWNERS.has(row.standing.role) && role !== "owner")
    throw new Refused("not-allowed", t.onlyAnOwnerCanDoThisTo);
  if (personId === personIdOf(caller)) throw new Refused("not-allowed", t.youCannotDoThisToYourselfAsk);
  return row;
}
