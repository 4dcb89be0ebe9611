/** What is written down of people: their state, and what they are called. */
import { and, eq, isNull } from "drizzle-orm";
import type { Standing } from "../../core/access";
import { inJson } from "../database/bulk";
import type { Reader, Transaction } from "../database/client";
import { personStates, persons, type Role } from "../database/schema";
import { uuidv7 } from "../ids";

/** Role, standing and end of somebody as written down now. */
export async function currentState(tx: Reader, personId: string) {
  const [row] = await tx
    .select({ role: personStates.role, standing: personStates.standing, until: personStates.until })
    .from(personStates)
    .where(and(eq(personStates.personId, personId), isNull(personStates.validUntil)));
  return row ?? null;
}

/** A person's state from now on; the one before it stays as history. */
export async function setStanding(
  tx: Transaction,
  personId: string,
  next: { role: Role; standing: Standing; until: number | null },
  at: number,
  commandId: string,
): Promise<void> {
  await tx
    .update(personStates)
    .set({ validUntil: at })
    .where(and(eq(personStates.personId, personId), isNull(personStates.validUntil)));
  await tx.insert(personStates).values({ id: uuidv7(), personId, ...next, validFrom: at, commandId });
}

/** Whether nobody else is an active owner. */
export async function isLastOwner(tx: Reader, personId: string): Promise<boolean> {
  const owners = await tx
    .select({ id: personStates.personId })
    .from(personStates)
    .where(and(eq(personStates.role, "owner"), eq(personStates.standing, "active"), isNull(personStates.validUntil)));
  return !owners.some((owner) => owner.id !== personId);
}

/** What people are called, by id, for lines of the Journal and for administrators. */
export async function peopleNamed(tx: Reader, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
  if (ids.length === 0) return new Map();
  const rows = await tx
    .select({ id: persons.id, name: persons.name })
    .from(persons)
    .where(inJson(persons.id, [...new Set(ids)]));
  return new Map(rows.map(({ id, name }) => [id, name]));
}
