/** What every way in ends with: a session for somebody who is active, in a browser that is known from then on. */
import { and, eq, isNull } from "drizzle-orm";
import { loadByRole, standingAt } from "../access/person";
import type { Caller } from "../caller";
import type { Reader, Transaction } from "../database/client";
import { knownBrowsers, personStates, persons } from "../database/schema";
import type { Galtry } from "../galtry";
import { requiredProvider } from "../provider/required";
import { Refused } from "../refused";
import { tellOfNewBrowser } from "./newBrowser";
import { type ByProvider, openSession, rememberBrowser } from "./sessions";
import { entering as t } from "./strings";
import { addNotice } from "./telling";
import { newToken, tokenHash } from "./tokens";
import { missingNeed } from "./waysIn/required";

export async function standingOf(tx: Reader, personId: string, at: number) {
  const [row] = await tx
    .select({ standing: standingAt(at) })
    .from(personStates)
    .where(and(eq(personStates.personId, personId), isNull(personStates.validUntil)));
  return row?.standing ?? null;
}

/**
 * Where an identity provider is required, nobody gets in past it but owners, of which all owners are told.
 * @throws Refused not-allowed
 */
async function passProvider(tx: Transaction, personId: string, name: string, at: number): Promise<void> {
  const required = await requiredProvider(tx, personId);
  if (!required) return;
  if (required.role !== "owner") throw new Refused("not-allowed", t.signInWithProvider(required.name));
  for (const owner of await loadByRole(tx, ["owner"], at))
    if (owner.standing === "active")
      await addNotice(tx, { to: owner.id, at, sort: "security", text: t.anOwnerWentPast(name, required.name) });
}

/**
 * @param via the identity provider they come by; null for a way of their own
 * @returns null where the person is not active (any more)
 */
export async function enter(
  tx: Transaction,
  app: Galtry,
  personId: string,
  caller: Extract<Caller, { kind: "nobody" }>,
  at: number,
  via: ByProvider | null = null,
) {
  const [person] = await tx
    .select({ name: persons.name, mail: persons.mail })
    .from(persons)
    .where(eq(persons.id, personId));
  if (!person || (await standingOf(tx, personId, at)) !== "active") return null;
  if (!via) await passProvider(tx, personId, person.name, at);
  const browserToken = caller.knownBrowser ?? newToken();
  const known = await tx
    .select({ tokenHash: knownBrowsers.tokenHash })
    .from(knownBrowsers)
    .where(eq(knownBrowsers.personId, personId));
  // The very first one is no news.
  if (known.length > 0 && !known.some((one) => one.tokenHash === tokenHash(browserToken)))
    await tellOfNewBrowser(tx, app, { id: personId, ...person }, caller, at);
  await rememberBrowser(tx, personId, browserToken, at);
  // Whoever comes by the identity provider has what any rule requires.
  const limited = !via && (await missingNeed(tx, personId, at)) !== null;
  return {
    signedIn: true as const,
    personId,
    name: person.name,
    browserToken,
    ...(await openSession(tx, personId, caller, at, via, limited)),
  };
}
