/** What pages need: the caller from the request, and reads that turn refusals into the right page. */

import { and, eq, isNull, sql } from "drizzle-orm";
import { headers } from "next/headers";
import { notFound, redirect } from "next/navigation";
import { cache } from "react";
import { standingAt } from "./access/person";
import type { Caller } from "./caller";
import type { Query } from "./command";
import type { Role } from "./database/schema";
import { grants, memberships, notices, organisation, outbox, persons, standings } from "./database/schema";
import { pageCaller } from "./http";
import { hideNumber } from "./opaqueNumber";
import { Refused } from "./refused";

/** The outbox number is read before any of the page's queries: what changes later is told by the stream. */
const callerOf = cache(async () => {
  const at = Date.now();
  const found = await pageCaller({ headers: await headers() } as Pick<Request, "headers">);
  const [last] = await found.house.db.select({ seen: sql<number>`coalesce(max(${outbox.seq}), 0)` }).from(outbox);
  return { ...found, seen: hideNumber(found.house.keys, "live", last?.seen ?? 0), at };
});

export interface Me {
  id: string;
  name: string;
  mail: string;
  role: Role;
  /** Some grant of Steward is theirs. */
  steward: boolean;
  /** Keeps a group. */
  keeper: boolean;
  organisation: string;
  zone: string;
  notices: number;
  /** What this page has seen of what was told, for the stream to go on from. */
  seen: string;
  at: number;
  caller: Extract<Caller, { kind: "person" }>;
}

/** The signed-in person; others go to sign-in, or to set-up while there is no organisation. */
export const me = cache(async (): Promise<Me> => {
  const { house, caller, seen, at } = await callerOf();
  const [home] = await house.db.select().from(organisation);
  if (!home) redirect("/set-up");
  if (caller.kind !== "person") redirect("/sign-in");
  const [row] = await house.db
    .select({
      name: persons.name,
      mail: persons.mail,
      role: standings.role,
      standing: standingAt(at),
      steward: sql<number>`exists (select 1 from ${grants} g where g.valid_until is null and g.level = 'steward' and (
        g.subject_kind = 'everyone' or g.subject_id = ${caller.personId} or g.subject_id in (
          select group_id from ${memberships} m where m.person_id = ${caller.personId} and m.valid_until is null)))`,
      keeper: sql<number>`exists (select 1 from ${memberships} m
        where m.person_id = ${caller.personId} and m.valid_until is null and m.keeper)`,
    })
    .from(persons)
    .innerJoin(standings, and(eq(standings.personId, persons.id), isNull(standings.validUntil)))
    .where(eq(persons.id, caller.personId));
  if (row?.standing !== "active") redirect("/sign-in");
  const [count] = await house.db
    .select({ n: sql<number>`count(*)` })
    .from(notices)
    .where(and(eq(notices.personId, caller.personId), isNull(notices.putAwayAt)));
  return {
    id: caller.personId,
    ...row,
    steward: row.steward === 1 && row.role !== "guest",
    keeper: row.keeper === 1 && row.role !== "guest",
    organisation: home.name,
    zone: home.timeZone,
    notices: count?.n ?? 0,
    seen,
    at,
    caller,
  };
});

/** The organisation's name, for pages before sign-in. */
export const organisationName = cache(async (): Promise<string | null> => {
  const { house } = await callerOf();
  return (await house.db.select().from(organisation))[0]?.name ?? null;
});

/** Runs a query for the page's reader; null where there is nothing that they can open. */
export async function askOrNull<I, R>(query: Query<I, R>, input: I): Promise<R | null> {
  const { house, caller } = await callerOf();
  try {
    return await query.execute(house, input, caller);
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    if (error.code === "signed-out") redirect("/sign-in");
    return null;
  }
}

/** Runs a query for the page's reader; the page is "nothing here" where they can open nothing. */
export async function ask<I, R>(query: Query<I, R>, input: I): Promise<R> {
  return (await askOrNull(query, input)) ?? notFound();
}
