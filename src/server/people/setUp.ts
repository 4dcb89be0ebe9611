/** The first owner, by a one-time address that the server prints; and links by which people set a sign-in password. */
import { and, eq, gt, isNull, ne } from "drizzle-orm";
import { z } from "zod";
import type { Caller } from "../caller";
import { type Context, command, idSchema, nameSchema, none, query } from "../command";
import type { Reader, Transaction } from "../database/client";
import { type LinkPurpose, links, organisation, personStates, persons, sessions } from "../database/schema";
import type { Galtry } from "../galtry";
import { uuidv7 } from "../ids";
import { requiredProvider } from "../provider/required";
import { notFound, Refused } from "../refused";
import { newPassword } from "./leaked";
import { signInPasswordSchema } from "./password";
import { endAll, mailSchema, openSession, rememberBrowser } from "./sessions";
import { setUp as t } from "./strings";
import { addNotice } from "./telling";
import { newToken, tokenHash } from "./tokens";
import { responseSchema, takeCeremony } from "./waysIn/ceremonies";
import { keepPasskey, registrationOptions } from "./waysIn/passkeys";
import { missingNeed } from "./waysIn/required";
import { requireJustProved } from "./waysIn/ways";

const LINK_DAYS = 7;
const DAY_MS = 24 * 3_600_000;
/** So long a sign-in link works. */
export const LINK_MS = LINK_DAYS * DAY_MS;

/** The organisation's name and zone: known to everyone who can open the page. */
export const organisationQuery = query({
  name: "people.organisationQuery",
  evenFor: ["limited"],
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
  prepare: ({ input, app }) => newPassword(app, input.password),
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
    const browserToken = allowed.caller.knownBrowser ?? newToken();
    await rememberBrowser(tx, personId, browserToken, at);
    return { personId, browserToken, ...(await openSession(tx, personId, allowed.caller, at)) };
  },
  journal: ({ input, result }) => ({ person: result.personId, names: { [result.personId]: input.name } }),
  says: () => "set up this Galtry",
  tell: () => [],
});

/** What joining by a link ends with, whichever way in was made: all that was open ends, and the person is in. */
async function join(
  { tx, at, commandId, caller }: Pick<Context<unknown, Transaction, "nobody">, "tx" | "at" | "commandId" | "caller">,
  link: typeof links.$inferSelect,
  make: (personId: string) => Promise<unknown>,
) {
  const { personId } = link;
  if (personId === null) throw notFound();
  const [current] = await tx
    .select()
    .from(personStates)
    .where(and(eq(personStates.personId, personId), isNull(personStates.validUntil)));
  const ended = current?.until != null && current.until <= at;
  if (!current || ended || current.standing === "leaver" || current.standing === "suspended")
    throw new Refused("not-allowed", t.yourAccessToGaltryHasBeenEnded);
  const required = await requiredProvider(tx, personId);
  if (required && required.role !== "owner") throw new Refused("not-allowed", t.joinWithProvider(required.name));
  await endAll(tx, personId, at, personId, "a new way to sign in was set up");
  await make(personId);
  await tx.update(links).set({ usedAt: at }).where(eq(links.id, link.id));
  if (current.standing === "invited") {
    await tx.update(personStates).set({ validUntil: at }).where(eq(personStates.id, current.id));
    await tx.insert(personStates).values({
      ...{ id: uuidv7(), personId, role: current.role, standing: "active", until: current.until },
      ...{ validFrom: at, commandId },
    });
  }
  const limited = (await missingNeed(tx, personId, at)) !== null;
  const browserToken = caller.knownBrowser ?? newToken();
  await rememberBrowser(tx, personId, browserToken, at);
  return { personId, browserToken, ...(await openSession(tx, personId, caller, at, null, limited)) };
}

/** Sets a sign-in password by a one-time link, and signs in. */
export const acceptLink = command({
  name: "people.acceptLink",
  input: z.strictObject({ token: z.string().max(100), password: signInPasswordSchema }),
  by: ["nobody"],
  mayPrepare: ({ tx, input, at }) => requireLink(tx, input.token, "sign-in", at),
  prepare: ({ input, app }) => newPassword(app, input.password),
  allow: ({ tx, input, at }) => requireLink(tx, input.token, "sign-in", at),
  run: (context) =>
    join(context, context.allowed, (personId) =>
      context.tx.update(persons).set({ passwordHash: context.prepared }).where(eq(persons.id, personId)),
    ),
  journal: ({ result }) => ({ person: result.personId }),
  says: () => "set a sign-in password",
  tell: ({ result }) => [`person:${result.personId}`, "administrators"],
});

/** A passkey in place of a sign-in password: the link is what proves who makes it. */
export const beginJoinPasskey = command({
  name: "people.beginJoinPasskey",
  input: z.strictObject({ token: z.string().max(100) }),
  by: ["nobody"],
  allow: ({ tx, input, at }) => requireLink(tx, input.token, "sign-in", at),
  run: ({ tx, at, app, allowed }) => registrationOptions(tx, app, "join", allowed.personId ?? "", at),
  journal: null,
  tell: () => [],
});

export const acceptLinkWithPasskey = command({
  name: "people.acceptLinkWithPasskey",
  input: z.strictObject({
    token: z.string().max(100),
    ceremonyId: idSchema,
    response: responseSchema,
    name: nameSchema.optional(),
  }),
  by: ["nobody"],
  allow: ({ tx, input, at }) => requireLink(tx, input.token, "sign-in", at),
  run: async (context) => {
    const { tx, input, at, app, allowed } = context;
    const ceremony = await takeCeremony(tx, input.ceremonyId, "join", at);
    if (ceremony.personId !== allowed.personId) throw notFound();
    const { response, name = context.caller.browser } = input;
    const joined = await join(context, allowed, (personId) =>
      keepPasskey(tx, app, { personId, challenge: ceremony.challenge, response, name, at }),
    );
    return { ...joined, name };
  },
  journal: ({ result }) => ({ person: result.personId, details: { name: result.name } }),
  says: ({ details }) => `joined with the passkey ${details.name}`,
  tell: ({ result }) => [`person:${result.personId}`, "administrators"],
});

/** By oneself, where it was just shown that it is oneself; other sessions end. */
export const changePassword = command({
  name: "people.changePassword",
  evenFor: ["auditor"],
  input: z.strictObject({ password: signInPasswordSchema }),
  by: ["person"],
  mayPrepare: async (context) => requireJustProved(context),
  prepare: ({ input, app }) => newPassword(app, input.password),
  allow: requireJustProved,
  run: async ({ tx, me, caller, at, prepared }) => {
    await tx.update(persons).set({ passwordHash: prepared }).where(eq(persons.id, me.id));
    await tx
      .update(sessions)
      .set({ endedAt: at })
      .where(and(eq(sessions.personId, me.id), isNull(sessions.endedAt), ne(sessions.id, caller.sessionId ?? "")));
    await addNotice(tx, { to: me.id, at, sort: "security", text: t.yourPasswordWasChanged });
  },
  journal: () => ({}),
  says: () => "changed their sign-in password",
  tell: () => [],
});

/** Who a link is for, while it holds. */
export const linkFor = query({
  name: "people.linkFor",
  input: z.strictObject({ token: z.string().max(100), purpose: z.enum(["set-up", "sign-in", "reset", "not-me"]) }),
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

export async function requireLink(tx: Reader, token: string, purpose: LinkPurpose, at: number) {
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
  purpose: LinkPurpose,
  personId: string | null,
  at: number,
  lastsMs = LINK_MS,
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
    expiresAt: at + lastsMs,
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
