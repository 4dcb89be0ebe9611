import { and, eq, isNull } from "drizzle-orm";
import type { Reader } from "../database/client";
import { personStates } from "../database/schema";

/** Role, standing and end of somebody as written down now. */
export async function currentState(tx: Reader, personId: string) {
  const [row] = await tx
    .select({ role: personStates.role, standing: personStates.standing, until: personStates.until })
    .from(personStates)
    .where(and(eq(personStates.personId, personId), isNull(personStates.validUntil)));
  return row ?? null;
}
