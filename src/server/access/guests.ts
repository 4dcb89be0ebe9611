/**
 * Guests, asked into exactly one folder or entry by its steward: by a link with which they make their own sign-in, with
 * an end, and ended in one act that says what they saw.
 */
import { and, desc, eq, gt, inArray, isNull, or } from "drizzle-orm";
import { z } from "zod";
import { isActive, type Level, rank } from "../../core/access";
import { byName } from "../byName";
import { isAdministrator } from "../caller";
import { type Context, command, idSchema, nameSchema, query, type Topic } from "../command";
import type { Reader, Transaction } from "../database/client";
import { entries, grants, memberships, personStates, persons, sessions, sightings, signIns } from "../database/schema";
import { uuidv7 } from "../ids";
import { loadRules } from "../organisation";
import { endAll, mailSchema } from "../people/sessions";
import { makeLink } from "../people/setUp";
import { notFound, Refused } from "../refused";
import { idsBelow } from "../vaults/folders";
import { endAccess, giveAccess } from "./grants";
import { loadPath, loadReachIn, requireLevel } from "./load";
import { nodeName } from "./nodeName";
import { standingAt } from "./person";
import { guests as t } from "./strings";

type Asking = Pick<Context<unknown, Reader>, "tx" | "me" | "at">;

/** A steward of the very folder or entry; the house rules may leave guests to administrators. */
async function requireHost(context: Asking, nodeId: string) {
  const held = await requireLevel(context, nodeId, "steward");
  if (held.path[0].type === "vault") throw new Refused("bad-input", t.aGuestCanBeInvitedToA, "nodeId");
  return { vaultId: held.vaultId, node: await nodeName(context.tx, nodeId) };
}

const personWith = async (tx: Reader, mail: string, at: number) =>
  (
    await tx
      .select({ id: persons.id, name: persons.name, role: personStates.role, standing: standingAt(at) })
      .from(persons)
      .innerJoin(personStates, and(eq(personStates.personId, persons.id), isNull(personStates.validUntil)))
      .where(eq(persons.mail, mail))
  )[0];

/** One who is a guest here already gets the access, and signs in as before: then there is no link. */
export const inviteGuest = command({
  name: "access.inviteGuest",
  input: z.strictObject({
    nodeId: idSchema,
    name: nameSchema,
    mail: mailSchema,
    level: z.enum(["use", "reveal", "edit"]),
    until: z.number({ error: t.chooseAnEndDateAGuestsAccess }).int(),
    why: z.string().trim().max(500).default(""),
  }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, me, at } = context;
    const host = await requireHost(context, input.nodeId);
    const { makes } = await loadRules(tx);
    if (makes.guests === "administrators" && !isAdministrator(me.role))
      throw new Refused("not-allowed", t.theHouseRulesLetOnly);
    const known = await personWith(tx, input.mail, at);
    if (known && known.role !== "guest") throw new Refused("conflict", t.isAMemberOfStaffGiveThem(known.name), "mail");
    if (known?.standing === "leaver" || known?.standing === "suspended")
      throw new Refused("conflict", t.wasAGuestHereAnAdministrator(known.name), "mail");
    return { ...host, known };
  },
  run: async (context) => {
    const { tx, input, me, at, commandId, app, allowed } = context;
    const personId = allowed.known?.id ?? uuidv7();
    let link: string | null = null;
    if (!allowed.known) {
      await tx
        .insert(persons)
        .values({ id: personId, mail: input.mail, name: input.name, createdAt: at, invitedBy: me.id });
      const standing = { role: "guest", standing: "invited", validFrom: at, commandId } as const;
      await tx.insert(personStates).values({ id: uuidv7(), personId, ...standing });
      link = await linkFor(tx, personId, at, app.configuration.publicUrl);
    }
    const { nodeId, level, until, why } = input;
    await giveAccess.within(context, { nodeId, subject: { kind: "person", id: personId }, level, until, why });
    return { personId, name: allowed.known?.name ?? input.name, link };
  },
  journal: ({ input, result, allowed }) => ({
    node: input.nodeId,
    vault: allowed.vaultId,
    subject: result.personId,
    details: { level: input.level, until: input.until, ...(input.why ? { why: input.why } : {}) },
    names: { [result.personId]: result.name, [input.nodeId]: allowed.node },
  }),
  says: ({ subject, place, until, why }) => `invited ${subject} as a guest${place("to")}${until}${why}`,
  tell: () => ["administrators"],
});

async function linkFor(tx: Transaction, personId: string, at: number, publicUrl: URL): Promise<string> {
  const token = await makeLink(tx, "sign-in", personId, at);
  return new URL(`/join#${token}`, publicUrl).href;
}

/** Another link, for a guest who has not come in yet; the one before opens nothing any more. */
export const renewGuestLink = command({
  name: "access.renewGuestLink",
  input: z.strictObject({ nodeId: idSchema, personId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    const host = await requireHost(context, context.input.nodeId);
    const { guest } = await requireGuestHere(context, context.input);
    if (guest.standing !== "invited") throw new Refused("conflict", t.theyHaveAlreadyJoinedAn);
    return { ...host, guest };
  },
  run: async ({ tx, input, at, app }) => ({
    link: await linkFor(tx, input.personId, at, app.configuration.publicUrl),
  }),
  journal: ({ input, allowed }) => ({
    node: input.nodeId,
    vault: allowed.vaultId,
    subject: input.personId,
    names: { [input.personId]: allowed.guest.name, [input.nodeId]: allowed.node },
  }),
  says: ({ subject, place }) => `created a new sign-in link for ${subject}, a guest${place("of")}`,
  tell: () => ["administrators"],
});

/** The node and what is below it, as far as the caller is steward: a separate place in it may have others. */
async function ownBelow({ tx, me, at }: Asking, nodeId: string): Promise<string[]> {
  const below = await idsBelow(tx, nodeId);
  if (tx.access) return below.filter((id) => tx.access!.level(me.id, id, at) === "steward");
  const [node] = await loadPath(tx, nodeId);
  const { levels } = await loadReachIn(tx, me, node ? [node.vaultId] : [], at);
  return below.filter((id) => levels.get(id) === "steward");
}

/** A guest with something set on the node, or on something in it that is the caller's to look after. */
async function requireGuestHere(
  context: Asking,
  { nodeId, personId }: { nodeId: string; personId: string },
): Promise<{ guest: GuestHere; below: string[] }> {
  const below = await ownBelow(context, nodeId);
  const guest = (await guestsIn(context.tx, below, context.at)).find((one) => one.id === personId);
  if (!guest) throw notFound();
  return { guest, below };
}

interface GuestHere {
  id: string;
  name: string;
  mail: string;
  standing: "active" | "invited" | "suspended" | "leaver";
  grants: (typeof grants.$inferSelect)[];
}

async function guestsIn(tx: Reader, nodeIds: readonly string[], at: number): Promise<GuestHere[]> {
  const rows = await tx
    .select({ id: persons.id, name: persons.name, mail: persons.mail, standing: standingAt(at), grant: grants })
    .from(grants)
    .innerJoin(persons, eq(persons.id, grants.subjectId))
    .innerJoin(personStates, and(eq(personStates.personId, persons.id), isNull(personStates.validUntil)))
    .where(
      and(
        eq(grants.subjectKind, "person"),
        isNull(grants.validUntil),
        eq(personStates.role, "guest"),
        inArray(grants.nodeId, [...nodeIds]),
      ),
    );
  const found = new Map<string, GuestHere>();
  for (const { grant, ...guest } of rows) {
    const known = found.get(guest.id);
    if (known) known.grants.push(grant);
    else found.set(guest.id, { ...guest, grants: [grant] });
  }
  return [...found.values()];
}

/** What somebody saw and used of some entries: names, each once, latest first. */
async function whatTheySaw(
  tx: Reader,
  personId: string,
  nodeIds: readonly string[],
): Promise<{ saw: string[]; used: string[] }> {
  const within = [...nodeIds];
  const saw = await tx
    .selectDistinct({ name: entries.name })
    .from(sightings)
    .innerJoin(entries, eq(entries.nodeId, sightings.entryId))
    .where(and(eq(sightings.personId, personId), inArray(sightings.entryId, within)));
  const used = await tx
    .selectDistinct({ name: entries.name })
    .from(signIns)
    .innerJoin(entries, eq(entries.nodeId, signIns.entryId))
    .where(and(eq(signIns.personId, personId), eq(signIns.outcome, "signed-in"), inArray(signIns.entryId, within)));
  const names = (rows: { name: string }[]) => rows.map(({ name }) => name).sort();
  return { saw: names(saw), used: names(used) };
}

/** Guests of a folder or entry, for its stewards. */
export const guestList = query({
  name: "access.guestList",
  input: z.strictObject({ nodeId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    await requireLevel(context, context.input.nodeId, "steward");
    const { makes } = await loadRules(context.tx);
    return { asksIn: makes.guests === "stewards" || isAdministrator(context.me.role) };
  },
  run: async ({ tx, input, me, at, allowed }) => {
    const below = await ownBelow({ tx, me, at }, input.nodeId);
    const guests = await guestsIn(tx, below, at);
    const lines = [];
    for (const { id, name, mail, standing, grants: held } of guests) {
      const here = held.filter((grant) => grant.nodeId === input.nodeId && grant.level !== "blocked");
      const grant = here.sort((a, b) => rank(b.level as Level) - rank(a.level as Level))[0] ?? null;
      const [last] = await tx
        .select({ at: sessions.lastSeenAt })
        .from(sessions)
        .where(eq(sessions.personId, id))
        .orderBy(desc(sessions.lastSeenAt))
        .limit(1);
      lines.push({
        ...{ id, name, mail, standing, lastSeenAt: last?.at ?? null },
        /** Set on the very node; null where it is only on something in it. */
        grant: grant && {
          ...{ id: grant.id, level: grant.level as Level, from: grant.from, until: grant.until, why: grant.why },
          now: isActive(grant, at),
        },
        ...(await whatTheySaw(tx, id, below)),
      });
    }
    return { asksIn: allowed.asksIn, guests: lines.sort(byName) };
  },
});

/**
 * Ends all that a guest has in a folder or entry; whoever has nothing left anywhere leaves. Says what they saw, which is
 * what should be changed now.
 */
export const endGuest = command({
  name: "access.endGuest",
  input: z.strictObject({ nodeId: idSchema, personId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    const host = await requireHost(context, context.input.nodeId);
    return { ...host, ...(await requireGuestHere(context, context.input)) };
  },
  run: async (context) => {
    const { tx, input, me, at, commandId, allowed } = context;
    const seen = await whatTheySaw(tx, input.personId, allowed.below);
    for (const grant of allowed.guest.grants) await endAccess.within(context, { grantId: grant.id });
    const left = !(await hasAnything(tx, input.personId, at));
    if (left) {
      await endAll(tx, input.personId, at, me.id, "access ended");
      await tx
        .update(personStates)
        .set({ validUntil: at })
        .where(and(eq(personStates.personId, input.personId), isNull(personStates.validUntil)));
      await tx.insert(personStates).values({
        ...{ id: uuidv7(), personId: input.personId, role: "guest", standing: "leaver" },
        ...{ validFrom: at, commandId },
      });
    }
    return { ...seen, left };
  },
  journal: ({ input, result, allowed }) => ({
    node: input.nodeId,
    vault: allowed.vaultId,
    subject: input.personId,
    details: { left: result.left },
    names: { [input.personId]: allowed.guest.name, [input.nodeId]: allowed.node },
  }),
  says: ({ details, subject, place }) =>
    `ended the access of ${subject}, a guest${place("of")}${details.left ? "; they have left" : ""}`,
  tell: ({ input }): Topic[] => [`person:${input.personId}`, "administrators"],
});

async function hasAnything(tx: Reader, personId: string, at: number): Promise<boolean> {
  const ahead = <T extends typeof grants | typeof memberships>(table: T) =>
    or(isNull(table.until), gt(table.until, at));
  const [own] = await tx
    .select({ id: grants.id })
    .from(grants)
    .where(and(eq(grants.subjectId, personId), isNull(grants.validUntil), ahead(grants)))
    .limit(1);
  const [held] = await tx
    .select({ id: memberships.id })
    .from(memberships)
    .where(and(eq(memberships.personId, personId), isNull(memberships.validUntil), ahead(memberships)))
    .limit(1);
  return own !== undefined || held !== undefined;
}
