/** Coming back from a provider: signing in, joining, linking an account, showing again that it is you, ending what it ends. */
import { and, eq, gt, isNull, lt } from "drizzle-orm";
import { z } from "zod";
import { personIdOf } from "../caller";
import { command, idSchema, none, query, type Topic } from "../command";
import type { Reader, Transaction } from "../database/client";
import {
  lanyards,
  links,
  personStates,
  persons,
  providerAccounts,
  providerFlows,
  providerStatements,
  providers,
  sessions,
} from "../database/schema";
import { uuidv7 } from "../ids";
import type { JournalEntry } from "../journal/append";
import { requireAdministrator } from "../people/administrators";
import { attemptKey, attemptsOf, countAttempt } from "../people/attempts";
import { enter, standingOf } from "../people/entering";
import { peopleNamed } from "../people/state";
import { addNotice } from "../people/telling";
import { loadWays, requireJustProved } from "../people/waysIn/ways";
import { notFound, Refused } from "../refused";
import { type AccountRow, accountOf, linkAccount, waitForPerson, whoseIs } from "./accounts";
import { type GroupChange, linesOf, noteGroups, sayGroup, syncPerson, topicsOf } from "./groups";
import { addPersonOf } from "./joining";
import { loadProvider, otherProviderOf, type ProviderRow } from "./providers";
import { requiredProvider } from "./required";
import { arrivals as t } from "./strings";

export const PURPOSES = ["sign-in", "test", "link", "join", "prove"] as const;
export type Purpose = (typeof PURPOSES)[number];

/** So long somebody has for signing in there. */
export const FLOW_MS = 15 * 60_000;

const identitySchema = z.strictObject({
  subject: z.string().min(1).max(500),
  mail: z.string().max(320),
  mailVerified: z.boolean(),
  name: z.string().max(500),
  groups: z.array(z.string()).nullable(),
  sid: z.string().max(500).nullable(),
  signedInAt: z.number().nullable(),
  claims: z.record(z.string(), z.string()),
});

/** Written down before the browser goes: what comes back is measured by it. */
export const beginFlow = command({
  name: "provider.beginFlow",
  evenFor: ["limited", "auditor"],
  internal: true,
  input: z.strictObject({
    providerId: idSchema,
    purpose: z.enum(PURPOSES),
    stateHash: z.string().max(100),
    browserHash: z.string().max(100),
    nonce: z.string().max(200),
    verifier: z.string(),
    next: z.string().max(2000),
    linkHash: z.string().max(100).nullable(),
  }),
  by: ["nobody", "person"],
  allow: async ({ tx, input, caller, role }) => {
    const row = await loadProvider(tx, input.providerId);
    if (input.purpose === "test") requireAdministrator({ role });
    else if (!row.enabled) throw new Refused("ended", t.itIsSwitchedOff);
    if ((input.purpose === "link" || input.purpose === "prove") && caller.kind !== "person")
      throw new Refused("signed-out", t.startAgain);
  },
  run: async ({ tx, input, caller, at }) => {
    await tx.delete(providerFlows).where(lt(providerFlows.expiresAt, at));
    await tx.delete(providerStatements).where(lt(providerStatements.expiresAt, at));
    const { verifier, ...flow } = input;
    await tx.insert(providerFlows).values({
      ...flow,
      verifier: Buffer.from(verifier, "base64"),
      personId: caller.kind === "person" ? caller.personId : null,
      ...{ createdAt: at, expiresAt: at + FLOW_MS },
    });
  },
  journal: null,
  tell: () => [],
});

/** Takes what was begun, for good: whatever comes of it, it is answered no second time. */
export const takeFlow = command({
  name: "provider.takeFlow",
  evenFor: ["limited", "auditor"],
  internal: true,
  input: z.strictObject({
    providerId: idSchema,
    stateHash: z.string().max(100),
    browserHash: z.string().max(100).nullable(),
  }),
  by: ["nobody", "person"],
  allow: async ({ tx, input, caller, at }) => {
    const [flow] = await tx
      .select()
      .from(providerFlows)
      .where(
        and(
          eq(providerFlows.stateHash, input.stateHash),
          eq(providerFlows.providerId, input.providerId),
          isNull(providerFlows.usedAt),
          gt(providerFlows.expiresAt, at),
        ),
      );
    if (!flow) throw new Refused("ended", t.startAgain);
    if (flow.browserHash !== input.browserHash) throw new Refused("ended", t.notThisBrowser);
    if (flow.personId !== null && flow.personId !== ("personId" in caller ? caller.personId : null))
      throw new Refused("ended", t.startAgain);
    return flow;
  },
  run: async ({ tx, at, allowed: flow }) => {
    await tx.update(providerFlows).set({ usedAt: at }).where(eq(providerFlows.stateHash, flow.stateHash));
    return flow;
  },
  journal: null,
  tell: () => [],
});

/** An assertion or a logout token counts once. @throws Refused ended for the second time */
async function takeStatement(tx: Transaction, id: string, until: number): Promise<void> {
  const [taken] = await tx
    .insert(providerStatements)
    .values({ id, expiresAt: until })
    .onConflictDoNothing()
    .returning({ id: providerStatements.id });
  if (!taken) throw new Refused("ended", t.startAgain);
}

const arrivalInput = z.strictObject({
  providerId: idSchema,
  identity: identitySchema,
  /** Of what counts once, where the protocol does not see to it by itself. */
  statement: z.strictObject({ id: z.string(), until: z.number() }).nullable(),
});

type Why = "not-invited" | "not-verified" | "wrong-domain" | "deactivated" | "not-active" | "to-link";

const WHY: Record<Why, (provider: string) => string> = {
  "not-invited": t.notInvited,
  "not-verified": t.notVerified,
  "wrong-domain": t.wrongDomain,
  deactivated: t.deactivated,
  "not-active": () => t.notActive,
  "to-link": t.toLink,
};

/** Whoever has never been in is in from now on. */
async function join(tx: Transaction, personId: string, at: number, commandId: string): Promise<boolean> {
  const [current] = await tx
    .select()
    .from(personStates)
    .where(and(eq(personStates.personId, personId), isNull(personStates.validUntil)));
  if (current?.standing !== "invited" || (current.until !== null && current.until <= at)) return false;
  await tx.update(personStates).set({ validUntil: at }).where(eq(personStates.id, current.id));
  await tx.insert(personStates).values({
    ...{ id: uuidv7(), personId, role: current.role, standing: "active", until: current.until },
    ...{ validFrom: at, commandId },
  });
  await tx
    .update(links)
    .set({ withdrawnAt: at })
    .where(and(eq(links.personId, personId), isNull(links.usedAt), isNull(links.withdrawnAt)));
  return true;
}

/** Signs in whoever the provider says it is; a refusal is an answer, so that what was seen of the account is kept. */
export const arrive = command({
  name: "provider.arrive",
  internal: true,
  input: arrivalInput,
  by: ["nobody"],
  allow: async ({ tx, input }) => {
    const provider = await loadProvider(tx, input.providerId);
    if (!provider.enabled) throw new Refused("ended", t.itIsSwitchedOff);
    return provider;
  },
  run: async ({ tx, app, input: { identity, statement }, caller, at, commandId, allowed: provider }) => {
    if (statement) await takeStatement(tx, statement.id, statement.until);
    if (identity.groups) await noteGroups(tx, provider.id, identity.groups, at);
    const account = await accountOf(tx, provider, identity, at);
    const no = (why: Why) => ({ signedIn: false as const, why, message: WHY[why](provider.name), account });
    if (!account.active) return no("deactivated");
    let { personId } = account;
    let added = false;
    if (personId === null) {
      const whose = await whoseIs(tx, provider, account, identity.mailVerified);
      if ("claims" in whose) {
        await waitForPerson(tx, provider, account, whose.claims, at);
        return no("to-link");
      }
      if ("refused" in whose) {
        if (whose.refused !== "not-invited" || provider.joins === "invited") return no(whose.refused);
        personId = await addPersonOf(tx, account, at, commandId);
        added = true;
      } else personId = whose.person;
      await linkAccount(tx, provider, account.id, personId, at);
    }
    await join(tx, personId, at, commandId);
    if ((await standingOf(tx, personId, at)) !== "active") return no("not-active");
    const changes = await syncPerson(tx, account.id, at, commandId);
    const entered = await enter(tx, app, personId, caller, at, {
      ...{ providerId: provider.id, sid: identity.sid, signedInAt: identity.signedInAt },
    });
    return entered ? { ...entered, changes, added } : no("not-active");
  },
  journal: ({ result, allowed }) =>
    result.signedIn
      ? [
          {
            person: result.personId,
            details: { what: "signed in", name: allowed.name, ...(result.added && { added: true }) },
            names: { [result.personId]: result.name },
          },
          ...linesOf(result.changes, new Map([[result.personId, result.name]]), allowed.name),
        ]
      : {
          details: {
            what: "refused",
            name: allowed.name,
            account: result.account.mail || result.account.subject || "",
            why: result.message,
          },
        },
  says: (told) => {
    const { details } = told;
    const group = sayGroup(told);
    if (group !== null) return group;
    if (details.what === "refused") return `refused the account ${details.account} at ${details.name}: ${details.why}`;
    return `signed in to Galtry with ${details.name}${details.added ? ", for the first time" : ""}`;
  },
  tell: ({ result }) =>
    result.signedIn ? [`person:${result.personId}`, "administrators", ...topicsOf(result.changes)] : ["administrators"],
});

/** What did not come through: with the step and the provider's own words, for administrators. */
const MOST_TOLD = 30;

export const noteFailure = command({
  name: "provider.noteFailure",
  internal: true,
  input: z.strictObject({ providerId: idSchema, step: z.string().max(30), said: z.string().max(400) }),
  by: ["nobody", "person"],
  allow: ({ tx, input }) => loadProvider(tx, input.providerId),
  run: async ({ tx, input, at, app }) => {
    const key = attemptKey(app.keys, "sign-on-failed", input.providerId);
    await countAttempt(tx, key, at);
    return { lately: await attemptsOf(tx, key, at) };
  },
  // A stranger can let them fail without end, from as many addresses as they like: the Journal does not grow with it.
  journal: ({ input, allowed, result: { lately } }): JournalEntry | null => {
    if (lately > MOST_TOLD + 1) return null;
    const { name } = allowed;
    if (lately > MOST_TOLD) return { details: { name, more: MOST_TOLD } };
    return { details: { name, step: input.step, why: input.said } };
  },
  says: ({ details }) =>
    details.more
      ? `more than ${details.more} sign-ins with ${details.name} failed within a quarter of an hour: no more of them are recorded until it is quieter`
      : `a sign-in with ${details.name} stopped at “${details.step}”: ${details.why}`,
  tell: () => [],
});

/** @throws Refused where the account is somebody else's, or the person has another one */
async function requireFree(tx: Reader, provider: ProviderRow, account: AccountRow, personId: string): Promise<void> {
  if (account.personId !== null)
    throw new Refused("conflict", account.personId === personId ? t.alreadyLinked(provider.name) : t.itIsSomebodyElses);
  const other = await otherProviderOf(tx, personId, provider.id);
  if (other) throw new Refused("conflict", t.linkedElsewhere(other));
  const [own] = await tx
    .select({ id: providerAccounts.id })
    .from(providerAccounts)
    .where(and(eq(providerAccounts.personId, personId), eq(providerAccounts.providerId, provider.id)));
  if (own) throw new Refused("conflict", t.alreadyLinked(provider.name));
}

/** Somebody who is signed in here has signed in there too: both are theirs. */
export const linkOwn = command({
  name: "provider.linkOwn",
  evenFor: ["limited", "auditor"],
  internal: true,
  input: arrivalInput,
  by: ["person"],
  allow: async (context) => {
    requireJustProved(context);
    const provider = await loadProvider(context.tx, context.input.providerId);
    if (!provider.enabled) throw new Refused("ended", t.itIsSwitchedOff);
    return provider;
  },
  run: async ({ tx, input: { identity, statement }, me, at, commandId, allowed: provider }) => {
    if (statement) await takeStatement(tx, statement.id, statement.until);
    if (identity.groups) await noteGroups(tx, provider.id, identity.groups, at);
    const account = await accountOf(tx, provider, identity, at);
    await requireFree(tx, provider, account, me.id);
    await linkAccount(tx, provider, account.id, me.id, at);
    return { name: me.name, changes: await syncPerson(tx, account.id, at, commandId), personId: me.id };
  },
  journal: ({ allowed, result }) => [
    { details: { what: "linked", name: allowed.name } },
    ...linesOf(result.changes, new Map([[result.personId, result.name]]), allowed.name),
  ],
  says: (told) => sayGroup(told) ?? `linked their account at ${told.details.name}`,
  tell: ({ result }) => [`person:${result.personId}`, "administrators", ...topicsOf(result.changes)],
});

/** By the link that an administrator sent, with an account there in place of a password here. */
export const joinByProvider = command({
  name: "provider.joinByProvider",
  internal: true,
  input: arrivalInput.extend({ linkHash: z.string().max(100) }),
  by: ["nobody"],
  allow: async ({ tx, input, at }) => {
    const provider = await loadProvider(tx, input.providerId);
    if (!provider.enabled) throw new Refused("ended", t.itIsSwitchedOff);
    const [link] = await tx
      .select()
      .from(links)
      .where(
        and(
          eq(links.tokenHash, input.linkHash),
          eq(links.purpose, "sign-in"),
          isNull(links.usedAt),
          isNull(links.withdrawnAt),
          gt(links.expiresAt, at),
        ),
      );
    if (!link?.personId) throw new Refused("ended", t.linkIsOver);
    return { provider, link, personId: link.personId };
  },
  run: async ({
    tx,
    app,
    input: { identity, statement },
    caller,
    at,
    commandId,
    allowed: { provider, link, personId },
  }) => {
    if (statement) await takeStatement(tx, statement.id, statement.until);
    const [person] = await tx.select().from(persons).where(eq(persons.id, personId));
    if (!person) throw notFound();
    if (identity.mail !== person.mail) throw new Refused("conflict", t.anotherAddress(person.mail));
    if (identity.groups) await noteGroups(tx, provider.id, identity.groups, at);
    const account = await accountOf(tx, provider, identity, at);
    if (!account.active) throw new Refused("not-allowed", t.deactivated(provider.name));
    await requireFree(tx, provider, account, personId);
    await linkAccount(tx, provider, account.id, personId, at);
    await join(tx, personId, at, commandId);
    await tx.update(links).set({ usedAt: at, withdrawnAt: null }).where(eq(links.id, link.id));
    const changes = await syncPerson(tx, account.id, at, commandId);
    const entered = await enter(tx, app, personId, caller, at, {
      ...{ providerId: provider.id, sid: identity.sid, signedInAt: identity.signedInAt },
    });
    if (!entered) throw new Refused("not-allowed", t.notActive);
    return { ...entered, changes };
  },
  journal: ({ result, allowed }) => [
    {
      person: result.personId,
      details: { what: "joined Galtry", name: allowed.provider.name },
      names: { [result.personId]: result.name },
    },
    ...linesOf(result.changes, new Map([[result.personId, result.name]]), allowed.provider.name),
  ],
  says: (told) => sayGroup(told) ?? `joined Galtry with ${told.details.name}`,
  tell: ({ result }) => [`person:${result.personId}`, "administrators", ...topicsOf(result.changes)],
});

/** For grave acts: the person of this session has signed in there anew. */
export const proveByProvider = command({
  name: "provider.proveByProvider",
  evenFor: ["limited", "auditor"],
  internal: true,
  input: arrivalInput.extend({ begunAt: z.number() }),
  by: ["person"],
  allow: async ({ tx, input, me }) => {
    const provider = await loadProvider(tx, input.providerId);
    const [account] = await tx
      .select()
      .from(providerAccounts)
      .where(and(eq(providerAccounts.providerId, provider.id), eq(providerAccounts.subject, input.identity.subject)));
    if (account?.personId !== me.id) throw new Refused("not-allowed", t.notYourAccount);
    // A minute for clocks that differ.
    if ((input.identity.signedInAt ?? 0) < input.begunAt - 60_000) throw new Refused("not-allowed", t.signInAnew);
    return provider;
  },
  run: async ({ tx, input, caller, at }) => {
    if (input.statement) await takeStatement(tx, input.statement.id, input.statement.until);
    if (caller.sessionId) await tx.update(sessions).set({ provedAt: at }).where(eq(sessions.id, caller.sessionId));
  },
  journal: ({ allowed }) => ({ details: { name: allowed.name } }),
  says: ({ details }) => `signed in again with ${details.name}`,
  tell: () => [],
});

/** Signed out there: sessions that came by it end here, and the person's Lanyards with them. */
export const endByProvider = command({
  name: "provider.endByProvider",
  internal: true,
  input: z.strictObject({
    providerId: idSchema,
    subject: z.string().max(500).nullable(),
    sid: z.string().max(500).nullable(),
    statement: z.strictObject({ id: z.string(), until: z.number() }).nullable(),
  }),
  by: ["server"],
  allow: ({ tx, input }) => loadProvider(tx, input.providerId),
  run: async ({ tx, input, at, allowed: provider }) => {
    if (input.statement) await takeStatement(tx, input.statement.id, input.statement.until);
    const [account] =
      input.subject === null
        ? []
        : await tx
            .select()
            .from(providerAccounts)
            .where(and(eq(providerAccounts.providerId, provider.id), eq(providerAccounts.subject, input.subject)));
    if (input.subject !== null && !account?.personId) return [];
    const rows = await tx
      .update(sessions)
      .set({ endedAt: at })
      .where(
        and(
          eq(sessions.providerId, provider.id),
          isNull(sessions.endedAt),
          input.sid === null ? undefined : eq(sessions.providerSid, input.sid),
          account?.personId ? eq(sessions.personId, account.personId) : undefined,
        ),
      )
      .returning({ personId: sessions.personId });
    const people = new Set(rows.map(({ personId }) => personId));
    if (account?.personId && input.sid === null) people.add(account.personId);
    for (const personId of people)
      await tx
        .update(lanyards)
        .set({ endedAt: at, endedBy: null, endedWhy: `signed out at ${provider.name}` })
        .where(and(eq(lanyards.personId, personId), isNull(lanyards.endedAt)));
    return [...(await peopleNamed(tx, [...people]))].map(([id, name]) => ({ id, name }));
  },
  journal: ({ result, allowed }) =>
    result.map(({ id, name }) => ({ subject: id, details: { name: allowed.name }, names: { [id]: name } })),
  says: ({ subject, details }) => `signed ${subject} out, because they signed out at ${details.name}`,
  tell: ({ result }) => result.map(({ id }): Topic => `person:${id}`),
});

/** An administrator says that an account is whose address it has. */
export const confirmAccount = command({
  name: "provider.confirmAccount",
  input: z.strictObject({ accountId: idSchema, yes: z.boolean() }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, caller } = context;
    requireAdministrator(context);
    requireJustProved(context);
    const [account] = await tx.select().from(providerAccounts).where(eq(providerAccounts.id, input.accountId));
    if (!account) throw notFound();
    const { claims } = account;
    if (claims === null) throw new Refused("conflict", t.itWaitsNoLonger);
    if (claims === personIdOf(caller)) throw new Refused("not-allowed", t.notForYourself);
    const [person] = await tx
      .select({ name: persons.name, role: personStates.role })
      .from(persons)
      .innerJoin(personStates, and(eq(personStates.personId, persons.id), isNull(personStates.validUntil)))
      .where(eq(persons.id, claims));
    // Who could confirm an account for an owner could become one.
    if (person?.role === "owner" && context.role !== "owner") throw new Refused("not-allowed", t.onlyAnOwner);
    return { account, claims, person: person?.name ?? "", provider: await loadProvider(tx, account.providerId) };
  },
  run: async ({ tx, input, at, commandId, allowed: { account, claims, provider } }) => {
    if (!input.yes) {
      await tx.update(providerAccounts).set({ claims: null }).where(eq(providerAccounts.id, account.id));
      return { changes: [] as GroupChange[] };
    }
    await requireFree(tx, provider, account, claims);
    await linkAccount(tx, provider, account.id, claims, at);
    return { changes: await syncPerson(tx, account.id, at, commandId) };
  },
  journal: ({ input, allowed }) => ({
    subject: allowed.claims,
    details: { name: allowed.provider.name, account: allowed.account.mail, yes: input.yes },
    names: { [allowed.claims]: allowed.person },
  }),
  says: ({ details, subject }) =>
    details.yes
      ? `linked the account ${details.account} at ${details.name} with ${subject}`
      : `did not link the account ${details.account} at ${details.name} with ${subject}`,
  tell: ({ allowed, result }) => [`person:${allowed.claims}`, "administrators", ...topicsOf(result.changes)],
});

/** One's own account there is no longer a way in here. */
export const unlinkOwn = command({
  name: "provider.unlinkOwn",
  evenFor: ["auditor"],
  input: z.strictObject({ accountId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, me } = context;
    requireJustProved(context);
    const [account] = await tx.select().from(providerAccounts).where(eq(providerAccounts.id, input.accountId));
    if (account?.personId !== me.id) throw notFound();
    const ways = await loadWays(tx, me.id);
    if (!ways.password && ways.passkeys === 0) throw new Refused("conflict", t.lastWay);
    // Without the account, their password would count again.
    const required = await requiredProvider(tx, me.id);
    if (required?.id === account.providerId && required.role !== "owner")
      throw new Refused("not-allowed", t.itIsRequired(required.name));
    return loadProvider(tx, account.providerId);
  },
  run: async ({ tx, input, me, at, allowed: provider }) => {
    await tx
      .update(providerAccounts)
      .set({ personId: null, linkedAt: null, changedAt: at })
      .where(eq(providerAccounts.id, input.accountId));
    await addNotice(tx, { to: me.id, at, sort: "security", text: t.wasUnlinked(provider.name) });
  },
  journal: ({ allowed }) => ({ details: { name: allowed.name } }),
  says: ({ details }) => `unlinked their account at ${details.name}`,
  tell: () => ["administrators"],
});

/** The providers by which the caller signs in, or could. */
export const ownAccounts = query({
  name: "provider.ownAccounts",
  evenFor: ["limited"],
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me }) => {
    const rows = await tx
      .select({ id: providers.id, name: providers.name })
      .from(providers)
      .where(eq(providers.enabled, true))
      .orderBy(providers.name);
    const own = await tx.select().from(providerAccounts).where(eq(providerAccounts.personId, me.id));
    return rows.map((row) => {
      const account = own.find(({ providerId }) => providerId === row.id);
      const called = account ? account.mail || account.name : "";
      return {
        ...row,
        account: account ? { id: account.id, called, linkedAt: account.linkedAt, lastAt: account.lastAt } : null,
      };
    });
  },
});
