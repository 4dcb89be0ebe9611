/** The first owner, by a one-time address that the server prints; and links by which people set a sign-in password. */
import { and, eq, gt, isNull } from "drizzle-orm";
import { z } from "zod";
import type { Caller } from "../caller";
import { command, nameSchema, none, query } from "../command";
import type { Reader, Transaction } from "../database/client";
import { links, organisation, personStates, persons } from "../database/schema";
import type { Galtry } from "../galtry";
import { uuidv7 } from "../ids";
import { Refused } from "../refused";
import { hashPassword, signInPasswordSchema } from "./password";
import { endAll, mailSchema, openSession } from "./sessions";
import { setUp as t } from "./strings";
import { newToken, tokenHash } from "./tokens";

const LINK_DAYS = 7;
const DAY_MS = 24 * 3_600_000;
/** So long a sign-in link works. */
export const LINK_MS = LINK_DAYS * DAY_MS;

/** The organisation's name and zone: known to everyone who can open the page. */
export const organisationQuery = query({
  name: "people.organisationQuery",
  input: none,
  by: ["nobody", "person", "lanyard", "server"],
  allow: () => undefined,
  run: async ({ tx }) => {
    const [row] = await tx.select().from(organisation);
    return row ? { name: row.name, timeZone: row.timeZone } : null;
  },
});

const timeZoneSchema = z.string().refine((zone) => {
  try {
    new Intl.DateTimeFormat("en-GB", { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}, t.thisIsNotATimeZone);

export const setUp = command({
  name: "people.setUp",
  input: z.strictObject({
    token: z.string().max(100),
    organisation: nameSchema,
    timeZone: timeZoneSchema,
    name: nameSchema,
    mail: mailSchema,
    password: signInPasswordSchema,
  }),
  by: ["nobody"],
  mayPrepare: ({ tx, input, at }) => requireLink(tx, input.token, "set-up", at),
  prepare: ({ input }) => hashPassword(input.password),
  allow: async ({ tx, input, caller, at }) => {
    if ((await tx.select().from(organisation)).length > 0)
      throw new Refused("not-allowed", t.thisGaltryHasAlreadyBeenSetUp);
    return {
      link: await requireLink(tx, input.token, "set-up", at),
      caller: caller as Extract<Caller, { kind: "nobody" }>,
    };
  },
  run: async ({ tx, input, at, commandId, prepared, allowed }) => {
    await tx
      .insert(organisation)
      .values({ id: uuidv7(), name: input.organisation, timeZone: input.timeZone, createdAt: at });
    const personId = uuidv7();
    await tx
      .insert(persons)
      .values({ id: personId, mail: input.mail, name: input.name, passwordHash: prepared, createdAt: at });
    await tx
      .insert(personStates)
      .values({ id: uuidv7(), personId, role: "owner", standing: "active", validFrom: at, commandId });
    await tx.update(links).set({ usedAt: at }).where(eq(links.id, allowed.link.id));
    return { personId, ...(await openSession(tx, personId, allowed.caller, at)) };
  },
  journal: ({ input, result }) => ({ person: result.personId, names: { [result.personId]: input.name } }),
  says: () => "set up this Galtry",
  tell: () => [],
});

/** Sets a sign-in password by a one-time link, and signs in. */
export const acceptLink = command({
  name: "people.acceptLink",
  input: z.strictObject({ token: z.string().max(100), password: signInPasswordSchema }),
  by: ["nobody"],
  mayPrepare: ({ tx, input, at }) => requireLink(tx, input.token, "sign-in", at),
  prepare: ({ input }) => hashPassword(input.password),
  allow: async ({ tx, input, caller, at }) => ({
    link: await requireLink(tx, input.token, "sign-in", at),
    caller: caller as Extract<Caller, { kind: "nobody" }>,
  }),
  run: async ({ tx, at, commandId, prepared, allowed }) => {
    const personId = allowed.link.personId!;
    const [current] = await tx
      .select()
      .from(personStates)
      .where(and(eq(personStates.personId, personId), isNull(personStates.validUntil)));
    const ended = current?.until != null && current.until <= at;
    if (!current || ended || current.standing === "leaver" || current.standing === "suspended")
      throw new Refused("not-allowed", t.yourAccessToGaltryHasBeenEnded);
    await endAll(tx, personId, at, personId, "a new sign-in password was set");
    await tx.update(persons).set({ passwordHash: prepared }).where(eq(persons.id, personId));
    await tx.update(links).set({ usedAt: at }).where(eq(links.id, allowed.link.id));
    if (current.standing === "invited") {
      await tx.update(personStates).set({ validUntil: at }).where(eq(personStates.id, current.id));
      await tx.insert(personStates).values({
        ...{ id: uuidv7(), personId, role: current.role, standing: "active", until: current.until },
        ...{ validFrom: at, commandId },
      });
    }
    return { personId, ...(await openSession(tx, personId, allowed.caller, at)) };
  },
  journal: ({ result }) => ({ person: result.personId }),
  says: () => "set a sign-in password",
  tell: ({ result }) => [`person:${result.personId}`, "administrators"],
});

/** Who a link is for, while it holds. */
export const linkFor = query({
  name: "people.linkFor",
  input: z.strictObject({ token: z.string().max(100), purpose: z.enum(["set-up", "sign-in"]) }),
  by: ["nobody", "person"],
  allow: ({ tx, input, at }) => requireLink(tx, input.token, input.purpose, at),
  run: async ({ tx, allowed }) => {
    if (allowed.personId === null) return { name: null, mail: null };
    const [person] = await tx
      .select({ name: persons.name, mail: persons.mail })
      .from(persons)
      .where(eq(persons.id, allowed.personId));
    return { name: person?.name ?? null, mail: person?.mail ?? null };
  },
});

async function requireLink(tx: Reader, token: string, purpose: "set-up" | "sign-in", at: number) {
  const [link] = await tx
    .select()
    .from(links)
    .where(
      and(
        eq(links.tokenHash, tokenHash(token)),
        eq(links.purpose, purpose),
        isNull(links.usedAt),
        isNull(links.withdrawnAt),
        gt(links.expiresAt, at),
      ),
    );
  if (!link) throw new Refused("not-found", t.thisLinkHasBeenUsedOrReplaced);
  return link;
}

/** A new one-time link; earlier ones of the same person stop working. */
export async function makeLink(
  tx: Transaction,
  purpose: "set-up" | "sign-in",
  personId: string | null,
  at: number,
): Promise<string> {
  const token = newToken();
  const earlier = personId === null ? isNull(links.personId) : eq(links.personId, personId);
  await tx
    .update(links)
    .set({ withdrawnAt: at })
    .where(and(earlier, eq(links.purpose, purpose), isNull(links.usedAt), isNull(links.withdrawnAt)));
  await tx.insert(links).values({
    id: uuidv7(),
    tokenHash: tokenHash(token),
    purpose,
    personId,
    createdAt: at,
    expiresAt: at + LINK_MS,
  });
  return token;
}

/** The address that `npm start` prints while there is no organisation yet; null when there is one. */
export async function setUpAddress(app: Galtry, at = Date.now()): Promise<string | null> {
  return app.writer.write(async (tx) => {
    if ((await tx.select().from(organisation)).length > 0) return null;
    const token = await makeLink(tx, "set-up", null, at);
    return new URL(`/set-up#${token}`, app.configuration.publicUrl).href;
  });
}
