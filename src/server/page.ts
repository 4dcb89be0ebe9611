/** What pages need: the caller from the request, and reads that turn refusals into the right page. */

import { eq, sql } from "drizzle-orm";
import { headers } from "next/headers";
import { notFound, redirect } from "next/navigation";
import { cache } from "react";
import { type Given, subjectsOf } from "../core/access";
import { UNREACHABLE } from "../core/unreachable";
import type { Person } from "./access/person";
import type { Caller } from "./caller";
import { findKnown, type Known, type Query } from "./command";
import type { Reader } from "./database/client";
import type { Role } from "./database/schema";
import { memberships, notices, outbox, persons } from "./database/schema";
import { isDatabaseAway, Unreachable } from "./database/unreachable";
import { galtry, upToDate } from "./galtry";
import { pageCaller } from "./http";
import { hideNumber } from "./opaqueNumber";
import { findHome, loadHome } from "./organisation";
import { signInProviders } from "./provider/providers";
import { Refused } from "./refused";
import { type AskedCode, codesAskedOf } from "./signin/askedCodes";

/** For the page that says so: of an error on the server only its digest reaches a browser. */
function sayUnreachable(error: unknown): never {
  if (isDatabaseAway(error)) throw Object.assign(new Unreachable(error), { digest: UNREACHABLE });
  throw error;
}

/** The outbox number is read before anything else: what changes later is told by the stream. */
const callerOf = cache(async () => {
  const at = Date.now();
  const app = await galtry();
  await upToDate(app).catch(sayUnreachable);
  const [[last], found] = await Promise.all([
    app.db.select({ seen: sql<number>`coalesce(max(${outbox.seq}), 0)` }).from(outbox),
    pageCaller({ headers: await headers() } as Pick<Request, "headers">),
  ]);
  return { ...found, seen: hideNumber(app.keys, "live", last?.seen ?? 0), at };
});

/** The caller and the access index, found once for all that a page asks for. */
const knownOf = cache(async (): Promise<Known> => {
  const { app, caller, at } = await callerOf();
  return findKnown(app, caller, at);
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
  /** Sign-ins that wait for a code which this person receives. */
  codesAsked: AskedCode[];
  /** What this page has seen of what was told, for the stream to go on from. */
  seen: string;
  at: number;
  caller: Extract<Caller, { kind: "person" }>;
}

/** The sign-in page, and from there to the page that was asked for. */
const signInAddress = (): Promise<string> => pageWith("/sign-in");

/** A page that goes on to the one that was asked for. */
async function pageWith(path: string): Promise<string> {
  const page = (await headers()).get("x-galtry-page") ?? "/";
  return page === "/" ? path : `${path}?${new URLSearchParams({ next: page })}`;
}

/** The signed-in person; others go to sign-in, or to set-up while there is no organisation. */
export const me = cache(async (): Promise<Me> => {
  const { app, caller, seen, at } = await callerOf();
  if (caller.kind !== "person") redirect((await findHome(app.db)) ? await signInAddress() : "/set-up");
  if (caller.limited) redirect(await pageWith("/add-way"));
  const { me: person, tx } = await orSignIn(knownOf());
  if (!person) redirect(await signInAddress());
  const [home, [row]] = await Promise.all([
    loadHome(tx),
    app.db
      .select({
        mail: persons.mail,
        notices: sql<number>`(select count(*) from ${notices} n where n.person_id = ${person.id} and n.put_away_at is null)`,
        keeper: sql<number>`exists (select 1 from ${memberships} m
          where m.person_id = ${person.id} and m.valid_until is null and m.keeper)`,
      })
      .from(persons)
      .where(eq(persons.id, person.id)),
  ]);
  return {
    ...{ id: person.id, name: person.name, role: person.role, mail: row!.mail },
    steward: isStewardSomewhere(person, tx),
    keeper: row!.keeper === 1 && !person.guest,
    organisation: home.name,
    zone: home.zone,
    notices: row!.notices,
    codesAsked: await codesAskedOf(tx, person, at),
    ...{ seen, at, caller },
  };
});

const isStewardSomewhere = (person: Person, tx: Reader): boolean =>
  !person.guest && !person.auditor && subjectsOf(person).some((subject) => isSteward(tx.access?.grantsTo(subject)));

function isSteward(given: Iterable<{ level: Given }> = []): boolean {
  for (const { level } of given) if (level === "steward") return true;
  return false;
}

/** Whoever has just signed in and may still lack a way in; others go to sign-in. */
export async function limitedMe(): Promise<{ limited: boolean; organisation: string; zone: string }> {
  const { app, caller } = await callerOf();
  if (caller.kind !== "person") redirect("/sign-in");
  const { name, zone } = await loadHome(app.db);
  return { limited: caller.limited ?? false, organisation: name, zone };
}

/** Who reads help; null before they are signed in. */
export async function helpReader(): Promise<{ role: Role; steward: boolean } | null> {
  const { caller } = await callerOf();
  if (caller.kind !== "person" || caller.limited) return null;
  try {
    const { me: person, tx } = await knownOf();
    return person && { role: person.role, steward: isStewardSomewhere(person, tx) };
  } catch (error) {
    // Whose session has just ended reads what everybody may.
    if (error instanceof Refused) return null;
    throw error;
  }
}

/** What the sign-in page offers beside a password and a passkey. */
export const forgottenByMail = cache(async (): Promise<boolean> => {
  const { app } = await callerOf();
  return app.configuration.mail !== null && ((await findHome(app.db))?.rules.forgottenByMail ?? false);
});

/** The mail domains whose people can join without being invited; none where no mail can be sent. */
export const openDomains = cache(async (): Promise<readonly string[]> => {
  const { app } = await callerOf();
  return app.configuration.mail === null ? [] : ((await findHome(app.db))?.rules.joinDomains ?? []);
});

/** Identity providers to choose from, for pages before sign-in. */
export const signInChoices = cache(async (): Promise<{ id: string; name: string }[]> => {
  const { app, caller } = await callerOf();
  return signInProviders.execute(app, {}, caller);
});

/** The organisation's name, for pages before sign-in. */
export const organisationName = cache(async (): Promise<string | null> => {
  const { app } = await callerOf();
  return (await findHome(app.db))?.name ?? null;
});

async function orSignIn<T>(asked: Promise<T>): Promise<T> {
  try {
    return await asked;
  } catch (error) {
    if (error instanceof Refused && error.code === "signed-out") redirect(await signInAddress());
    throw error;
  }
}

/** Runs a query for the page's reader; null where there is nothing that they can open. */
export async function askOrNull<I, R>(query: Query<I, R>, input: I): Promise<R | null> {
  const { app, caller, at } = await callerOf();
  try {
    return await orSignIn(knownOf().then((known) => query.execute(app, input, caller, at, known)));
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    return null;
  }
}

/** Runs a query for the page's reader; the page is "nothing here" where they can open nothing. */
export async function ask<I, R>(query: Query<I, R>, input: I): Promise<R> {
  return (await askOrNull(query, input)) ?? notFound();
}
