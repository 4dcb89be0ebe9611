/** What a provider says of its people and groups, done here: each a command of the server's own, with its line. */
import { and, eq, inArray, ne } from "drizzle-orm";
import { z } from "zod";
import type { Standing } from "../../../core/access";
import { plainName } from "../../../core/plainName";
import { loadByRole } from "../../access/person";
import { command, idSchema, type Topic } from "../../command";
import { inJson } from "../../database/bulk";
import type { Reader, Transaction } from "../../database/client";
import { groups, providerAccounts, providerGroups, providerMembers, type Role } from "../../database/schema";
import { scimUser } from "../../database/stored";
import { uuidv7 } from "../../ids";
import type { JournalEntry } from "../../journal/append";
import { endBelongings } from "../../people/belongings";
import { openChangeList } from "../../people/changeLists";
import { endAll } from "../../people/sessions";
import { currentState, isLastOwner, peopleNamed, setStanding } from "../../people/state";
import { addNotice, tellingOwners } from "../../people/telling";
import { hasOwnWay } from "../../people/waysIn/ways";
import { Refused } from "../../refused";
import { linkAccount, waitForPerson, whoseIs } from "../accounts";
import { type GroupChange, linesOf, sayGroup, syncGroup, syncPerson, topicsOf } from "../groups";
import { addPersonOf } from "../joining";
import { loadProvider, type ProviderRow } from "../providers";
import { holdsDomain } from "../required";
import { scim as t } from "../strings";
import type { AccountRow } from "./resources";

const userInput = z.strictObject({
  userName: z.string(),
  externalId: z.string().nullable(),
  active: z.boolean(),
  name: z.string(),
  mail: z.string(),
  kept: scimUser,
});

/** What became of the person of an account. */
interface Done {
  account: AccountRow;
  person: { id: string; name: string } | null;
  what: "created" | "changed" | "suspended" | "reinstated" | "left" | "none";
  changes: GroupChange[];
}

const userLines = ({ account, person, what, changes }: Done, provider: string): JournalEntry[] => [
  ...(what === "none"
    ? []
    : [
        {
          ...(person && { subject: person.id }),
          details: { what, name: provider, account: account.userName ?? account.mail },
          names: person ? { [person.id]: person.name } : {},
        },
      ]),
  ...(person ? linesOf(changes, new Map([[person.id, person.name]]), provider) : []),
];

const tellOf = ({ person, what, changes }: Done): Topic[] => [
  ...(person ? [`person:${person.id}` as const] : []),
  ...(what === "none" ? [] : (["administrators"] as const)),
  ...(person && (what === "suspended" || what === "reinstated" || what === "left") ? (["everyone"] as const) : []),
  ...topicsOf(changes),
];

async function personNamed(tx: Reader, id: string | null): Promise<{ id: string; name: string } | null> {
  const name = id === null ? undefined : (await peopleNamed(tx, [id])).get(id);
  return id === null || name === undefined ? null : { id, name };
}

async function requireFreeName(tx: Reader, providerId: string, userName: string, except: string): Promise<void> {
  const [taken] = await tx
    .select({ id: providerAccounts.id })
    .from(providerAccounts)
    .where(
      and(
        eq(providerAccounts.providerId, providerId),
        eq(providerAccounts.userNameLower, userName.toLowerCase()),
        ne(providerAccounts.id, except),
      ),
    );
  if (taken) throw new Refused("conflict", t.userNameTaken, "userName");
}

/** A user is made, or said anew. Whose the account is is decided as at a sign-in; only what is certain is linked. */
export const keepUser = command({
  name: "provider.keepUser",
  internal: true,
  input: z.strictObject({ providerId: idSchema, accountId: idSchema.nullable(), user: userInput }),
  by: ["server"],
  lowPriority: true,
  allow: async ({ tx, input }) => {
    const provider = await loadProvider(tx, input.providerId);
    await requireFreeName(tx, provider.id, input.user.userName, input.accountId ?? "");
    return provider;
  },
  run: async ({ tx, input: { accountId, user }, at, commandId, allowed: provider }): Promise<Done> => {
    const before = accountId === null ? await seenBefore(tx, provider.id, user) : await accountById(tx, accountId);
    const values = {
      ...{ userName: user.userName, userNameLower: user.userName.toLowerCase(), externalId: user.externalId },
      ...{ mail: user.mail, name: plainName(user.name).slice(0, 120), active: user.active, scimUser: user.kept },
      ...{ scim: true, changedAt: at },
    };
    const [account] = before
      ? await tx.update(providerAccounts).set(values).where(eq(providerAccounts.id, before.id)).returning()
      : await tx
          .insert(providerAccounts)
          .values({ id: uuidv7(), providerId: provider.id, createdAt: at, ...values })
          .returning();
    const created = accountId === null;
    const personId =
      account!.personId ?? (user.active ? await findPerson(tx, provider, account!, at, commandId) : null);
    const whose = { ...account!, personId };
    const state = personId === null ? null : await follow(tx, provider, whose, at, commandId);
    const changes = personId === null ? [] : await syncPerson(tx, account!.id, at, commandId);
    const changed =
      !before || before.userName !== user.userName || before.mail !== user.mail || before.active !== user.active;
    return {
      account: (await accountById(tx, account!.id))!,
      person: await personNamed(tx, personId),
      what: state ?? (created ? "created" : changed ? "changed" : "none"),
      changes,
    };
  },
  journal: ({ result, allowed }) => userLines(result, allowed.name),
  says: (told) => {
    const { subject, details } = told;
    const { what, name, account } = details;
    const group = sayGroup(told);
    if (group !== null) return group;
    if (what === "suspended") return `suspended ${subject}: ${account} was deactivated at ${name}`;
    if (what === "reinstated") return `reinstated ${subject}: ${account} was activated at ${name}`;
    return `${what === "created" ? "received" : "updated"} the account ${account} from ${name}`;
  },
  tell: ({ result }) => tellOf(result),
});

async function accountById(tx: Reader, id: string): Promise<AccountRow | null> {
  return (await tx.select().from(providerAccounts).where(eq(providerAccounts.id, id)))[0] ?? null;
}

/** An account that a sign-in has shown before SCIM tells of it: of the same id there, or linked with the same address. */
async function seenBefore(
  tx: Reader,
  providerId: string,
  user: z.output<typeof userInput>,
): Promise<AccountRow | null> {
  const here = and(eq(providerAccounts.providerId, providerId), eq(providerAccounts.scim, false));
  if (user.externalId !== null) {
    const [same] = await tx
      .select()
      .from(providerAccounts)
      .where(and(here, eq(providerAccounts.subject, user.externalId)));
    if (same) return same;
  }
  if (user.mail === "") return null;
  const [known] = await tx
    .select()
    .from(providerAccounts)
    .where(and(here, eq(providerAccounts.mail, user.mail)));
  return known ?? null;
}

/** Whom it belongs to, where that is certain; made where people join by themselves. */
async function findPerson(
  tx: Transaction,
  provider: ProviderRow,
  account: AccountRow,
  at: number,
  commandId: string,
): Promise<string | null> {
  const whose = await whoseIs(tx, provider, account, true);
  if ("claims" in whose) {
    await waitForPerson(tx, provider, account, whose.claims, at);
    return null;
  }
  let personId: string;
  if ("person" in whose) personId = whose.person;
  else if (
    whose.refused === "not-invited" &&
    provider.joins === "themselves" &&
    holdsDomain(provider.domains, account.mail)
  )
    personId = await addPersonOf(tx, account, at, commandId);
  else return null;
  await linkAccount(tx, provider, account.id, personId, at);
  return personId;
}

/** The person here is let in or not as the account there is. @returns what changed; null for nothing */
async function follow(
  tx: Transaction,
  provider: ProviderRow,
  account: AccountRow & { personId: string | null },
  at: number,
  commandId: string,
): Promise<"suspended" | "reinstated" | null> {
  const { personId } = account;
  if (personId === null) return null;
  const now = await currentState(tx, personId);
  if (!now) return null;
  if (!account.active && (now.standing === "active" || now.standing === "invited"))
    return (await endAccess(tx, provider, personId, now, "suspended", at, commandId, account.id)) ? "suspended" : null;
  if (account.active && now.standing === "suspended" && account.suspendedAt !== null) {
    const next: Standing = account.lastAt !== null || (await hasOwnWay(tx, personId)) ? "active" : "invited";
    await setStanding(tx, personId, { role: now.role, standing: next, until: now.until }, at, commandId);
    await tx.update(providerAccounts).set({ suspendedAt: null }).where(eq(providerAccounts.id, account.id));
    return "reinstated";
  }
  return null;
}

/** Out of every session, Lanyard and stream. The last owner is signed out and stays one: owners are told. */
async function endAccess(
  tx: Transaction,
  provider: ProviderRow,
  personId: string,
  now: { role: Role; until: number | null },
  to: "suspended" | "leaver",
  at: number,
  commandId: string,
  accountId: string | null,
): Promise<boolean> {
  await endAll(tx, personId, at, null, to === "leaver" ? t.deletedAt(provider.name) : t.deactivatedAt(provider.name));
  const who = (await personNamed(tx, personId))?.name ?? "";
  if (now.role === "owner" && (await isLastOwner(tx, personId))) {
    for (const owner of await loadByRole(tx, ["owner"], at))
      await addNotice(tx, { to: owner.id, at, sort: "security", text: t.lastOwnerStays(who, provider.name) });
    return false;
  }
  await tellingOwners(tx, personId, who, at, async () => {
    await setStanding(
      tx,
      personId,
      { role: now.role, standing: to, until: to === "leaver" ? null : now.until },
      at,
      commandId,
    );
    if (to === "leaver") await endBelongings(tx, personId, at);
  });
  if (to === "leaver") {
    const person = { id: personId, name: who };
    await openChangeList(tx, { person, sort: "left", why: "", dueAt: null, by: null, at });
  }
  if (accountId !== null)
    await tx.update(providerAccounts).set({ suspendedAt: at }).where(eq(providerAccounts.id, accountId));
  return true;
}

/** Deleted there: a leaver here, never erased. */
export const dropUser = command({
  name: "provider.dropUser",
  internal: true,
  input: z.strictObject({ providerId: idSchema, accountId: idSchema }),
  by: ["server"],
  lowPriority: true,
  allow: ({ tx, input }) => loadProvider(tx, input.providerId),
  run: async ({ tx, input, at, commandId, allowed: provider }): Promise<Done | null> => {
    const account = await accountById(tx, input.accountId);
    if (!account) return null;
    const person = await personNamed(tx, account.personId);
    const now = account.personId === null ? null : await currentState(tx, account.personId);
    let left = false;
    if (now && account.personId !== null && now.standing !== "leaver")
      left = await endAccess(tx, provider, account.personId, now, "leaver", at, commandId, null);
    await tx.delete(providerMembers).where(eq(providerMembers.accountId, account.id));
    await tx.delete(providerAccounts).where(eq(providerAccounts.id, account.id));
    return { account, person, what: left ? "left" : "changed", changes: [] };
  },
  journal: ({ result, allowed }) =>
    result && {
      ...(result.person && { subject: result.person.id }),
      details: { what: result.what, name: allowed.name, account: result.account.userName ?? "" },
      names: result.person ? { [result.person.id]: result.person.name } : {},
    },
  says: ({ details, subject }) =>
    details.what === "left"
      ? `marked ${subject} as a leaver: ${details.account} was deleted at ${details.name}`
      : `removed the account ${details.account}, which was deleted at ${details.name}`,
  tell: ({ result }) => (result ? tellOf(result) : []),
});

const groupInput = z.strictObject({
  name: z.string(),
  externalId: z.string().nullable(),
  members: z.array(z.string()).nullable(),
});

/** A group is made, or said anew, with all its members or without a word of them. */
export const keepGroup = command({
  name: "provider.keepGroup",
  internal: true,
  input: z.strictObject({ providerId: idSchema, groupId: idSchema.nullable(), group: groupInput }),
  by: ["server"],
  lowPriority: true,
  allow: async ({ tx, input }) => {
    const provider = await loadProvider(tx, input.providerId);
    const [same] = await tx
      .select()
      .from(providerGroups)
      .where(and(eq(providerGroups.providerId, provider.id), eq(providerGroups.name, input.group.name)));
    if (same && same.id !== input.groupId && (same.scim || input.groupId !== null))
      throw new Refused("conflict", t.groupNameTaken, "displayName");
    // One that a sign-in has told of is from now on told of by SCIM.
    return { provider, id: input.groupId ?? same?.id ?? null };
  },
  run: async ({ tx, input: { group }, at, commandId, allowed: { provider, id } }) => {
    const values = { name: group.name, externalId: group.externalId, scim: true, changedAt: at };
    const [row] =
      id === null
        ? await tx
            .insert(providerGroups)
            .values({ id: uuidv7(), providerId: provider.id, createdAt: at, ...values })
            .returning()
        : await tx.update(providerGroups).set(values).where(eq(providerGroups.id, id)).returning();
    if (group.members) await setMembers(tx, provider.id, row!.id, group.members);
    const changes = await syncGroup(tx, row!, at, commandId);
    const names = await peopleNamed(
      tx,
      changes.map(({ personId }) => personId),
    );
    return { row: row!, changes, names };
  },
  journal: ({ result, allowed }) => linesOf(result.changes, result.names, allowed.provider.name),
  says: (told) => sayGroup(told) ?? "",
  tell: ({ result }) => topicsOf(result.changes),
});

/** Exactly these; ids that are no users of this provider are refused. */
async function setMembers(tx: Transaction, providerId: string, groupId: string, members: string[]): Promise<void> {
  const here = await tx
    .select({ id: providerMembers.accountId })
    .from(providerMembers)
    .where(eq(providerMembers.providerGroupId, groupId));
  const [now, wanted] = [new Set(here.map(({ id }) => id)), new Set(members)];
  const added = [...wanted].filter((id) => !now.has(id));
  const gone = [...now].filter((id) => !wanted.has(id));
  if (added.length > 0) {
    const known = await tx
      .select({ id: providerAccounts.id })
      .from(providerAccounts)
      .where(and(eq(providerAccounts.providerId, providerId), inJson(providerAccounts.id, added)));
    if (known.length < added.length) throw new Refused("bad-input", t.unknownMember, "members");
    for (let i = 0; i < added.length; i += 400)
      await tx
        .insert(providerMembers)
        .values(added.slice(i, i + 400).map((accountId) => ({ providerGroupId: groupId, accountId })))
        .onConflictDoNothing();
  }
  for (let i = 0; i < gone.length; i += 400)
    await tx
      .delete(providerMembers)
      .where(
        and(eq(providerMembers.providerGroupId, groupId), inArray(providerMembers.accountId, gone.slice(i, i + 400))),
      );
}

/** Deleted there: whoever was in it by the provider's word is no longer. */
export const dropGroup = command({
  name: "provider.dropGroup",
  internal: true,
  input: z.strictObject({ providerId: idSchema, groupId: idSchema }),
  by: ["server"],
  lowPriority: true,
  allow: ({ tx, input }) => loadProvider(tx, input.providerId),
  run: async ({ tx, input, at, commandId }) => {
    const [row] = await tx.select().from(providerGroups).where(eq(providerGroups.id, input.groupId));
    if (!row) return { name: "", changes: [] as GroupChange[] };
    await setMembers(tx, input.providerId, row.id, []);
    const changes = await syncGroup(tx, row, at, commandId);
    // From now on it is changed here again.
    if (row.groupId !== null) await tx.update(groups).set({ providerId: null }).where(eq(groups.id, row.groupId));
    await tx.delete(providerGroups).where(eq(providerGroups.id, row.id));
    return { name: row.name, changes };
  },
  journal: ({ result, allowed }) =>
    result.name === "" ? null : { details: { group: result.name, name: allowed.name, left: result.changes.length } },
  says: ({ details }) => `the group ${details.group} was deleted at ${details.name}: ${details.left} left it here`,
  tell: ({ result }) => topicsOf(result.changes),
});
