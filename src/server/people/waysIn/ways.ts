/** The ways in that a person has, and what of them is asked for. */
import { eq, sql } from "drizzle-orm";
import { PROVED_FOR_MS } from "../../caller";
import { type Context, none, query } from "../../command";
import type { Reader } from "../../database/client";
import { codeApps, passkeys, persons, recoveryCodes } from "../../database/schema";
import { Refused } from "../../refused";
import { waysIn as t } from "../strings";

/** For grave acts on one's own ways in: the reader has just shown that it is them. */
export function requireJustProved({ caller, at }: Pick<Context<unknown, Reader, "person">, "caller" | "at">): void {
  if (at - caller.provedAt > PROVED_FOR_MS) throw new Refused("prove-again", t.proveFirst);
}

export interface Ways {
  password: boolean;
  passkeys: number;
  /** A code app that counts. */
  codes: boolean;
  recoveryLeft: number;
}

export async function loadWays(tx: Reader, personId: string): Promise<Ways> {
  const [row] = await tx
    .select({
      password: sql<number>`${persons.passwordHash} is not null`,
      passkeys: sql<number>`(select count(*) from ${passkeys} k where k.person_id = ${personId})`,
      codes: sql<number>`exists (select 1 from ${codeApps} c where c.person_id = ${personId} and c.confirmed_at is not null)`,
      left: sql<number>`(select count(*) from ${recoveryCodes} r where r.person_id = ${personId} and r.used_at is null)`,
    })
    .from(persons)
    .where(eq(persons.id, personId));
  return {
    password: row?.password === 1,
    passkeys: row?.passkeys ?? 0,
    codes: row?.codes === 1,
    recoveryLeft: row?.left ?? 0,
  };
}

/** Whether somebody can sign in by a way of their own, and not by an identity provider alone. */
export async function hasOwnWay(tx: Reader, personId: string): Promise<boolean> {
  const { password, passkeys: keys } = await loadWays(tx, personId);
  return password || keys > 0;
}

/** After the sign-in password comes a second step, for whoever has one. */
export const needsSecondStep = (ways: Ways): boolean => ways.passkeys > 0 || ways.codes;

/** One's own ways in, with what they are called and when they were last used. */
export const ownWays = query({
  name: "people.ownWays",
  evenFor: ["limited"],
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me }) => {
    const [ways, keys, [app]] = await Promise.all([
      loadWays(tx, me.id),
      tx.select().from(passkeys).where(eq(passkeys.personId, me.id)).orderBy(passkeys.createdAt),
      tx.select().from(codeApps).where(eq(codeApps.personId, me.id)),
    ]);
    return {
      ...ways,
      keys: keys.map(({ id, name, createdAt, lastUsedAt }) => ({ id, name, createdAt, lastUsedAt })),
      codeApp: app?.confirmedAt ? { since: app.confirmedAt, lastUsedAt: app.lastUsedAt } : null,
    };
  },
});
