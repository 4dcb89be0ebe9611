/** Identity providers as an administrator keeps them: set up, tested, switched on, required, taken away. */
import { randomBytes } from "node:crypto";
import { resolveTxt } from "node:dns/promises";
import { and, count, eq, gt, inArray, isNotNull, isNull, ne } from "drizzle-orm";
import { z } from "zod";
import { sayDate } from "../../core/time";
import { loadByRole } from "../access/person";
import { type Context, command, idSchema, nameSchema, none, query, type Topic } from "../command";
import type { Reader, Transaction } from "../database/client";
import {
  groups,
  notices,
  personStates,
  persons,
  providerAccounts,
  providerGroups,
  providerMembers,
  providers,
  sessions,
} from "../database/schema";
import type { ProviderSettings, ProviderTest } from "../database/stored";
import type { Galtry } from "../galtry";
import { uuidv7 } from "../ids";
import { timeZone } from "../organisation";
import { mayCall } from "../outgoingFetch";
import { requireAdministrator } from "../people/administrators";
import { addNotice } from "../people/telling";
import { newToken, tokenHash } from "../people/tokens";
import { loadWays, requireJustProved } from "../people/waysIn/ways";
import { notFound, Refused } from "../refused";
import { ProviderError } from "./identity";
import { forget, type OidcProvider, readProvider } from "./oidc";
import { MOST_SAML_BYTES, readCertificate, readMetadata, samlFacts } from "./saml";
import { openText, sealText } from "./secrets";
import { providers as t } from "./strings";

export type ProviderRow = typeof providers.$inferSelect;

/** @throws Refused not-found */
export async function loadProvider(tx: Reader, providerId: string): Promise<ProviderRow> {
  const [row] = await tx.select().from(providers).where(eq(providers.id, providerId));
  if (!row) throw notFound();
  return row;
}

/** With its secret, for calling it. */
export async function openProvider(app: Galtry, row: ProviderRow): Promise<OidcProvider> {
  if (row.settings.protocol !== "oidc") throw new Error(`${row.id} does not speak OpenID Connect`);
  const secret = row.secret === null ? null : await openText(app.keys, row.secret, "client secret", row.id);
  return { id: row.id, issuer: row.issuer, settings: row.settings, secret };
}

/** Where the provider sends the browser back to: one address each, so that none answers for another. */
export const returnAddress = (app: Galtry, providerId: string): string =>
  new URL(`/sso/${providerId}/return`, app.configuration.publicUrl).href;

export const testPassed = (test: ProviderTest | null): boolean =>
  (test?.steps.some(({ step }) => step === "person") && test.steps.every(({ ok }) => ok)) ?? false;

type Kept = Pick<Context<unknown, Reader, "person">, "tx" | "role" | "caller" | "at">;

/** Administrators who have just shown that it is them. */
async function requireKeeper(context: Kept, providerId: string): Promise<ProviderRow> {
  requireAdministrator(context);
  requireJustProved(context);
  return loadProvider(context.tx, providerId);
}

/** A change of how people get in is told to all owners. */
async function tellOwners(tx: Transaction, text: string, at: number, except: string): Promise<void> {
  for (const owner of await loadByRole(tx, ["owner"], at))
    if (owner.standing === "active" && owner.id !== except)
      await addNotice(tx, { to: owner.id, at, sort: "security", text });
}

const addressSchema = z
  .string()
  .trim()
  .max(500)
  .refine((text) => {
    try {
      return mayCall(new URL(text));
    } catch {
      return false;
    }
  }, t.anAddressWithHttps);
const claimSchema = z.string().trim().max(200);

const oidcInput = z.strictObject({
  protocol: z.literal("oidc"),
  name: nameSchema,
  issuer: addressSchema,
  clientId: z.string().trim().min(1, t.thisIsNeeded).max(300),
  /** Empty to keep the one that is there, or where the client has none. */
  secret: z.string().max(1000).default(""),
  secretIn: z.enum(["header", "body", "none"]).default("header"),
  scopes: z.string().trim().max(300).default("openid email profile"),
  groupsClaim: claimSchema.default("groups"),
});
const samlInput = z.strictObject({
  protocol: z.literal("saml"),
  name: nameSchema,
  issuer: z.string().trim().min(1, t.thisIsNeeded).max(500),
  signOnUrl: addressSchema,
  certificates: z.array(z.string().max(20_000)).min(1, t.aCertificateIsNeeded).max(2, t.atMostTwoCertificates),
  mailAttribute: claimSchema.default("email"),
  nameAttribute: claimSchema.default("name"),
  groupsAttribute: claimSchema.default("groups"),
});
const providerInput = z.discriminatedUnion("protocol", [oidcInput, samlInput]);
type ProviderInput = z.output<typeof providerInput>;

function settingsOf(input: ProviderInput): ProviderSettings {
  if (input.protocol === "oidc") {
    const { clientId, secretIn, groupsClaim } = input;
    const scopes = [...new Set(["openid", ...input.scopes.split(/[\s,]+/).filter(Boolean)])].join(" ");
    return { protocol: "oidc", clientId, secretIn, scopes, groupsClaim };
  }
  const { signOnUrl, mailAttribute, nameAttribute, groupsAttribute } = input;
  const certificates = input.certificates.map((text, i) => {
    const read = readCertificate(text);
    if (!read) throw new Refused("bad-input", t.thisIsNotACertificate, `certificates.${i}`);
    return read.body;
  });
  return { protocol: "saml", signOnUrl, certificates, mailAttribute, nameAttribute, groupsAttribute };
}

export const addProvider = command({
  name: "provider.addProvider",
  input: providerInput,
  by: ["person"],
  allow: async (context) => {
    requireAdministrator(context);
    requireJustProved(context);
    const all = await context.tx.select({ issuer: providers.issuer }).from(providers);
    if (all.some(({ issuer }) => issuer === context.input.issuer))
      throw new Refused("conflict", t.itIsAlreadyHere, "issuer");
  },
  run: async ({ tx, input, at, me, app }) => {
    const id = uuidv7();
    const secret =
      input.protocol === "oidc" && input.secret !== ""
        ? await sealText(app.keys, input.secret, "client secret", id)
        : null;
    await tx.insert(providers).values({
      ...{ id, name: input.name, protocol: input.protocol, issuer: input.issuer, settings: settingsOf(input) },
      ...{ secret, secretAt: secret && at, createdAt: at },
    });
    await tellOwners(tx, t.wasAdded(me.name, input.name), at, me.id);
    return { providerId: id };
  },
  journal: ({ input }) => ({ details: { name: input.name, issuer: input.issuer, protocol: input.protocol } }),
  says: ({ details }) => `added the identity provider ${details.name} (${details.issuer})`,
  tell: () => ["administrators"],
});

/** Everything but the issuer: accounts are known by what it calls them. */
export const changeProvider = command({
  name: "provider.changeProvider",
  input: z.strictObject({ providerId: idSchema, settings: providerInput }),
  by: ["person"],
  allow: async (context) => {
    const row = await requireKeeper(context, context.input.providerId);
    const { settings } = context.input;
    if (settings.protocol !== row.protocol) throw new Refused("bad-input", t.theProtocolStays, "protocol");
    if (settings.issuer !== row.issuer) {
      const [linked] = await context.tx
        .select({ id: providerAccounts.id })
        .from(providerAccounts)
        .where(eq(providerAccounts.providerId, row.id))
        .limit(1);
      if (linked) throw new Refused("conflict", t.theIssuerStays, "issuer");
    }
    return row;
  },
  run: async ({ tx, input: { settings }, at, me, app, allowed: row }) => {
    const secret =
      settings.protocol === "oidc" && settings.secret !== ""
        ? await sealText(app.keys, settings.secret, "client secret", row.id)
        : row.secret;
    forget(row.issuer);
    const secretAt = secret === row.secret ? row.secretAt : at;
    await tx
      .update(providers)
      .set({
        secretAt,
        name: settings.name,
        issuer: settings.issuer,
        settings: settingsOf(settings),
        secret,
        lastTest: null,
      })
      .where(eq(providers.id, row.id));
    await tellOwners(tx, t.wasChanged(me.name, row.name), at, me.id);
  },
  journal: ({ input }) => ({ details: { name: input.settings.name } }),
  says: ({ details }) => `changed the settings of the identity provider ${details.name}`,
  tell: () => ["administrators"],
});

/** Whoever signs in by it needs another way from then on; its groups are kept here again. */
export const removeProvider = command({
  name: "provider.removeProvider",
  input: z.strictObject({ providerId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    const row = await requireKeeper(context, context.input.providerId);
    if (row.required && context.role !== "owner") throw new Refused("not-allowed", t.onlyOwnersWhereRequired);
    return row;
  },
  run: async ({ tx, at, me, allowed: row }) => {
    forget(row.issuer);
    await tx
      .update(sessions)
      .set({ endedAt: at })
      .where(and(eq(sessions.providerId, row.id), isNull(sessions.endedAt)));
    await tx.update(groups).set({ providerId: null }).where(eq(groups.providerId, row.id));
    const own = tx.select({ id: providerGroups.id }).from(providerGroups).where(eq(providerGroups.providerId, row.id));
    await tx.delete(providerMembers).where(inArray(providerMembers.providerGroupId, own));
    await tx.delete(providerGroups).where(eq(providerGroups.providerId, row.id));
    await tx.delete(providerAccounts).where(eq(providerAccounts.providerId, row.id));
    await tx.delete(providers).where(eq(providers.id, row.id));
    await tellOwners(tx, t.wasRemoved(me.name, row.name), at, me.id);
  },
  journal: ({ allowed }) => ({ details: { name: allowed.name } }),
  says: ({ details }) => `removed the identity provider ${details.name}`,
  tell: () => ["administrators", "everyone"],
});

/** Reads what the provider offers and its keys; the rest of the test is a sign-in there, in a window of its own. */
export const testProvider = command({
  name: "provider.testProvider",
  input: z.strictObject({ providerId: idSchema }),
  by: ["person"],
  mayPrepare: async (context) => {
    requireAdministrator(context);
    await loadProvider(context.tx, context.input.providerId);
  },
  prepare: async ({ input, app }): Promise<ProviderTest["steps"]> => {
    const row = await loadProvider(app.db, input.providerId);
    const steps: ProviderTest["steps"] = [];
    let began = performance.now();
    const stepped = (step: "discovery" | "keys", said: string, ok = true) => {
      steps.push({ step, ok, ms: Math.round(performance.now() - began), said });
      began = performance.now();
    };
    try {
      if (row.settings.protocol === "oidc") await readProvider(await openProvider(app, row), stepped);
      else for (const { step, said } of samlFacts(row.settings, Date.now())) stepped(step, said);
    } catch (error) {
      if (!(error instanceof ProviderError)) throw error;
      stepped(error.step as "discovery" | "keys", error.said, false);
    }
    return steps;
  },
  allow: (context) => {
    requireAdministrator(context);
    return loadProvider(context.tx, context.input.providerId);
  },
  run: async ({ tx, at, me, allowed: row, prepared: steps }) => {
    await tx
      .update(providers)
      .set({ lastTest: { at, by: me.id, steps, claims: {} } })
      .where(eq(providers.id, row.id));
    return { ok: steps.every(({ ok }) => ok) };
  },
  journal: null,
  tell: () => ["administrators"],
});

/** What the sign-in of a test came to. */
export const noteTest = command({
  name: "provider.noteTest",
  internal: true,
  input: z.strictObject({
    providerId: idSchema,
    steps: z.array(
      z.strictObject({
        step: z.enum(["sign-in", "exchange", "token", "person"]),
        ok: z.boolean(),
        ms: z.number(),
        said: z.string().max(400),
      }),
    ),
    claims: z.record(z.string(), z.string()),
  }),
  by: ["person"],
  allow: (context) => {
    requireAdministrator(context);
    return loadProvider(context.tx, context.input.providerId);
  },
  run: async ({ tx, at, me, input, allowed: row }) => {
    const before = (row.lastTest?.steps ?? []).filter(({ step }) => step === "discovery" || step === "keys");
    await tx
      .update(providers)
      .set({ lastTest: { at, by: me.id, steps: [...before, ...input.steps], claims: input.claims } })
      .where(eq(providers.id, row.id));
  },
  journal: ({ input, allowed }) => ({
    details: { name: allowed.name, ok: input.steps.every(({ ok }) => ok) },
  }),
  says: ({ details }) =>
    `tested the identity provider ${details.name}: ${details.ok ? "everything worked" : "it stopped at a step"}`,
  tell: () => ["administrators"],
});

/** On only after a test that passed; off ends what came by it. */
export const enableProvider = command({
  name: "provider.enableProvider",
  input: z.strictObject({ providerId: idSchema, enabled: z.boolean() }),
  by: ["person"],
  allow: async (context) => {
    const row = await requireKeeper(context, context.input.providerId);
    if (context.input.enabled && !testPassed(row.lastTest)) throw new Refused("conflict", t.testItFirst);
    if (row.required && context.role !== "owner") throw new Refused("not-allowed", t.onlyOwnersWhereRequired);
    return row;
  },
  run: async ({ tx, input, at, me, allowed: row }) => {
    await tx
      .update(providers)
      .set({ enabled: input.enabled, ...(!input.enabled && { required: false }) })
      .where(eq(providers.id, row.id));
    if (!input.enabled)
      await tx
        .update(sessions)
        .set({ endedAt: at })
        .where(and(eq(sessions.providerId, row.id), isNull(sessions.endedAt)));
    await tellOwners(
      tx,
      input.enabled ? t.wasSwitchedOn(me.name, row.name) : t.wasSwitchedOff(me.name, row.name),
      at,
      me.id,
    );
  },
  journal: ({ input, allowed }) => ({ details: { name: allowed.name, on: input.enabled } }),
  says: ({ details }) => `switched the identity provider ${details.name} ${details.on ? "on" : "off"}`,
  tell: () => ["administrators", "everyone"],
});

/** Owners who could not get in while the provider is down. */
async function ownersWithoutAWay(tx: Reader): Promise<string[]> {
  const owners = await tx
    .select({ id: persons.id, name: persons.name })
    .from(persons)
    .innerJoin(personStates, and(eq(personStates.personId, persons.id), isNull(personStates.validUntil)))
    .where(and(eq(personStates.role, "owner"), eq(personStates.standing, "active")));
  const without: string[] = [];
  for (const { id, name } of owners) {
    const ways = await loadWays(tx, id);
    if (ways.passkeys === 0 && !(ways.password && ways.codes)) without.push(name);
  }
  return without;
}

/** An owner's house rule, and only for one who has just come through it themselves. */
export const requireProvider = command({
  name: "provider.requireProvider",
  input: z.strictObject({ providerId: idSchema, required: z.boolean() }),
  by: ["person"],
  allow: async (context) => {
    const row = await requireKeeper(context, context.input.providerId);
    if (context.role !== "owner") throw new Refused("not-allowed", t.onlyAnOwnerCanRequire);
    if (!context.input.required) return row;
    if (!row.enabled) throw new Refused("conflict", t.switchItOnFirst);
    if (!testPassed(row.lastTest) || row.lastTest?.by !== context.me.id)
      throw new Refused("conflict", t.testItYourselfFirst);
    const without = await ownersWithoutAWay(context.tx);
    if (without.length > 0) throw new Refused("conflict", t.ownersNeedAWay(without.join(", ")));
    return row;
  },
  run: async ({ tx, input, at, me, allowed: row }) => {
    await tx.update(providers).set({ required: input.required }).where(eq(providers.id, row.id));
    await tellOwners(
      tx,
      input.required ? t.isRequired(me.name, row.name) : t.isNotRequired(me.name, row.name),
      at,
      me.id,
    );
  },
  journal: ({ input, allowed }) => ({ details: { name: allowed.name, required: input.required } }),
  says: ({ details }) =>
    details.required
      ? `required the identity provider ${details.name} for staff`
      : `no longer required the identity provider ${details.name}`,
  tell: () => ["administrators", "everyone"],
});

export const chooseJoins = command({
  name: "provider.chooseJoins",
  input: z.strictObject({ providerId: idSchema, joins: z.enum(["invited", "themselves"]) }),
  by: ["person"],
  allow: (context) => requireKeeper(context, context.input.providerId),
  run: async ({ tx, input }) => {
    await tx.update(providers).set({ joins: input.joins }).where(eq(providers.id, input.providerId));
  },
  journal: ({ input, allowed }) => ({ details: { name: allowed.name, joins: input.joins } }),
  says: ({ details }) =>
    details.joins === "themselves"
      ? `let people join by themselves through ${details.name}`
      : `let only people who were added sign in through ${details.name}`,
  tell: () => ["administrators"],
});

const domainSchema = z
  .string()
  .trim()
  .toLowerCase()
  .regex(/^(?=.{1,253}$)([a-z\d]([a-z\d-]{0,61}[a-z\d])?\.)+[a-z\d-]{2,63}$/, t.thisIsNotADomain);

export const addDomain = command({
  name: "provider.addDomain",
  input: z.strictObject({ providerId: idSchema, domain: domainSchema }),
  by: ["person"],
  allow: async (context) => {
    const row = await requireKeeper(context, context.input.providerId);
    const all = await context.tx.select({ domains: providers.domains }).from(providers);
    if (all.some(({ domains }) => domains.some(({ domain }) => domain === context.input.domain)))
      throw new Refused("conflict", t.thisDomainIsAlreadyHere, "domain");
    if (row.domains.length >= 50) throw new Refused("conflict", t.tooManyDomains, "domain");
    return row;
  },
  run: async ({ tx, input, allowed: row }) => {
    const token = `galtry-domain=${randomBytes(18).toString("base64url")}`;
    const added = { domain: input.domain, token, provedAt: null, how: null, by: null };
    await tx
      .update(providers)
      .set({ domains: [...row.domains, added] })
      .where(eq(providers.id, row.id));
    return { record: token };
  },
  journal: ({ input, allowed }) => ({ details: { name: allowed.name, domain: input.domain } }),
  says: ({ details }) => `added the domain ${details.domain} to ${details.name}`,
  tell: () => ["administrators"],
});

/** By a record that only whoever runs the domain can write; or by an owner's word, where Galtry cannot look it up. */
export const proveDomain = command({
  name: "provider.proveDomain",
  input: z.strictObject({
    providerId: idSchema,
    domain: domainSchema,
    /** An owner's statement in place of the record. */
    statement: z.string().trim().max(500).default(""),
  }),
  by: ["person"],
  mayPrepare: (context) => requireKeeper(context, context.input.providerId),
  prepare: async ({ input }) =>
    input.statement !== ""
      ? []
      : (await resolveTxt(`_galtry.${input.domain}`).catch(() => [])).map((parts) => parts.join("")),
  allow: async (context) => {
    const row = await requireKeeper(context, context.input.providerId);
    const { input, prepared } = context;
    const found = row.domains.find(({ domain }) => domain === input.domain);
    if (!found) throw notFound();
    if (input.statement !== "") {
      if (context.role !== "owner") throw new Refused("not-allowed", t.onlyAnOwnerCanState);
      if (input.statement.length < 10) throw new Refused("bad-input", t.sayHowYouKnow, "statement");
    } else if (!prepared.some((text) => text.trim() === found.token))
      throw new Refused("conflict", t.theRecordIsNotThere(`_galtry.${input.domain}`));
    return row;
  },
  run: async ({ tx, input, at, me, allowed: row }) => {
    const how = input.statement === "" ? ("dns" as const) : ("statement" as const);
    const domains = row.domains.map((one) =>
      one.domain === input.domain ? { ...one, provedAt: at, how, by: me.name } : one,
    );
    await tx.update(providers).set({ domains }).where(eq(providers.id, row.id));
    await tellOwners(tx, t.domainProved(me.name, input.domain, row.name), at, me.id);
  },
  journal: ({ input, allowed }) => ({
    details: { name: allowed.name, domain: input.domain, ...(input.statement && { why: input.statement }) },
  }),
  says: ({ details, why }) =>
    details.why
      ? `stated that the organisation owns the domain ${details.domain}, for ${details.name}${why}`
      : `proved the domain ${details.domain} for ${details.name} by its DNS record`,
  tell: () => ["administrators"],
});

export const removeDomain = command({
  name: "provider.removeDomain",
  input: z.strictObject({ providerId: idSchema, domain: domainSchema }),
  by: ["person"],
  allow: async (context) => {
    const row = await requireKeeper(context, context.input.providerId);
    // Whoever has an address there could sign in by a password again.
    if (row.required && context.role !== "owner") throw new Refused("not-allowed", t.onlyOwnersWhereRequired);
    return row;
  },
  run: async ({ tx, input, allowed: row }) => {
    const domains = row.domains.filter(({ domain }) => domain !== input.domain);
    await tx.update(providers).set({ domains }).where(eq(providers.id, row.id));
  },
  journal: ({ input, allowed }) => ({ details: { name: allowed.name, domain: input.domain } }),
  says: ({ details }) => `removed the domain ${details.domain} from ${details.name}`,
  tell: () => ["administrators"],
});

/** The token before it counts for a day more, so that the provider can be given the new one. */
const OVERLAP_MS = 24 * 3_600_000;

export const newScimToken = command({
  name: "provider.newScimToken",
  input: z.strictObject({ providerId: idSchema }),
  by: ["person"],
  allow: (context) => requireKeeper(context, context.input.providerId),
  run: async ({ tx, at, me, app, allowed: row }) => {
    const token = newToken();
    await tx
      .update(providers)
      .set({ scimHash: tokenHash(token), scimBefore: row.scimHash, scimBeforeUntil: at + OVERLAP_MS, scimAt: at })
      .where(eq(providers.id, row.id));
    await tellOwners(tx, t.scimTokenMade(me.name, row.name), at, me.id);
    return { scimToken: token, address: new URL("/scim/v2", app.configuration.publicUrl).href };
  },
  journal: ({ allowed }) => ({ details: { name: allowed.name } }),
  says: ({ details }) => `created a SCIM token for ${details.name}`,
  tell: () => ["administrators"],
});

export const stopScim = command({
  name: "provider.stopScim",
  input: z.strictObject({ providerId: idSchema }),
  by: ["person"],
  allow: (context) => requireKeeper(context, context.input.providerId),
  run: async ({ tx, allowed: row }) => {
    await tx
      .update(providers)
      .set({ scimHash: null, scimBefore: null, scimBeforeUntil: null, scimAt: null })
      .where(eq(providers.id, row.id));
  },
  journal: ({ allowed }) => ({ details: { name: allowed.name } }),
  says: ({ details }) => `ended the SCIM tokens of ${details.name}`,
  tell: () => ["administrators"],
});

const CERTIFICATE_DAYS = 30;

/** Thirty days before a certificate ends administrators are told; once. */
export const tellOfCertificates = command({
  name: "provider.tellOfCertificates",
  input: z.strictObject({}),
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, at }) => {
    const told: string[] = [];
    for (const row of await tx.select().from(providers).where(eq(providers.protocol, "saml"))) {
      if (row.settings.protocol !== "saml") continue;
      const read = row.settings.certificates.flatMap((body) => readCertificate(body) ?? []);
      // One that follows is here already.
      const last = Math.max(...read.map(({ until }) => until));
      if (read.length === 0 || last > at + CERTIFICATE_DAYS * 86_400_000) continue;
      const text = t.certificateEnds(row.name, sayDate(last, at, await timeZone(tx)));
      for (const person of await loadByRole(tx, ["owner", "administrator"], at)) {
        const [known] = await tx
          .select({ id: notices.id })
          .from(notices)
          .where(and(eq(notices.personId, person.id), eq(notices.about, row.id), gt(notices.at, at - 40 * 86_400_000)))
          .limit(1);
        if (known || person.standing !== "active") continue;
        await addNotice(tx, { to: person.id, at, sort: "watch", text, about: row.id });
        told.push(person.id);
      }
    }
    return told;
  },
  journal: null,
  tell: ({ result }): Topic[] => result.map((id): Topic => `person:${id}`),
});

/** What a provider's metadata says, for the form; null where it is no metadata. */
export const providerMetadata = query({
  name: "provider.readMetadata",
  input: z.strictObject({ xml: z.string().max(MOST_SAML_BYTES) }),
  by: ["person"],
  allow: (context) => requireAdministrator(context),
  run: async ({ input }) => readMetadata(input.xml),
});

/** Providers that people can choose on the sign-in page. */
export const signInProviders = query({
  name: "provider.signInProviders",
  input: none,
  by: ["nobody", "person"],
  allow: () => undefined,
  run: ({ tx }) =>
    tx
      .select({ id: providers.id, name: providers.name })
      .from(providers)
      .where(eq(providers.enabled, true))
      .orderBy(providers.name),
});

const MOST_WAITING = 200;

/** Everything an administrator needs to see of them; never a secret. */
export const providerList = query({
  name: "provider.providerList",
  input: none,
  by: ["person"],
  allow: (context) => requireAdministrator(context),
  run: async ({ tx, app, at }) => {
    const rows = await tx.select().from(providers).orderBy(providers.name);
    const names = await tx
      .select({ id: persons.id, name: persons.name })
      .from(persons)
      .where(
        inArray(
          persons.id,
          rows.flatMap(({ lastTest }) => (lastTest ? [lastTest.by] : [])),
        ),
      );
    const waiting = await tx
      .select({
        ...{ id: providerAccounts.id, providerId: providerAccounts.providerId, mail: providerAccounts.mail },
        ...{ name: providerAccounts.name, at: providerAccounts.changedAt, personId: persons.id, person: persons.name },
      })
      .from(providerAccounts)
      .innerJoin(persons, eq(persons.id, providerAccounts.claims))
      .where(isNotNull(providerAccounts.claims))
      .limit(MOST_WAITING);
    const without = await ownersWithoutAWay(tx);
    return {
      ownersWithoutAWay: without,
      returns: new URL("/sso/", app.configuration.publicUrl).href,
      providers: await Promise.all(
        rows.map(async ({ secret, scimHash, scimBefore, scimBeforeUntil, ...row }) => ({
          ...row,
          hasSecret: secret !== null,
          returnAddress: returnAddress(app, row.id),
          startAddress: new URL(`/sso/${row.id}/start`, app.configuration.publicUrl).href,
          logoutAddress: new URL(`/sso/${row.id}/logout`, app.configuration.publicUrl).href,
          metadataAddress: new URL(`/sso/${row.id}/metadata`, app.configuration.publicUrl).href,
          passed: testPassed(row.lastTest),
          testedBy: names.find(({ id }) => id === row.lastTest?.by)?.name ?? "",
          scim: scimHash !== null,
          scimOverlapUntil: scimBefore !== null && (scimBeforeUntil ?? 0) > at ? scimBeforeUntil : null,
          linked: await countOf(tx, row.id),
          waiting: waiting.filter(({ providerId }) => providerId === row.id),
          certificates:
            row.settings.protocol === "saml"
              ? row.settings.certificates
                  .map((body) => readCertificate(body))
                  .map((read) => read && { until: read.until, subject: read.subject })
              : [],
        })),
      ),
    };
  },
});

async function countOf(tx: Reader, providerId: string): Promise<number> {
  const [row] = await tx
    .select({ n: count() })
    .from(providerAccounts)
    .where(and(eq(providerAccounts.providerId, providerId), isNotNull(providerAccounts.personId)));
  return row?.n ?? 0;
}

/** Another provider that somebody is linked with: each has one at home. */
export async function otherProviderOf(tx: Reader, personId: string, providerId: string): Promise<string | null> {
  const [row] = await tx
    .select({ name: providers.name })
    .from(providerAccounts)
    .innerJoin(providers, eq(providers.id, providerAccounts.providerId))
    .where(and(eq(providerAccounts.personId, personId), ne(providerAccounts.providerId, providerId)));
  return row?.name ?? null;
}
