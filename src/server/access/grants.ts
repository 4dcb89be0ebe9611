/** Giving, changing and withdrawing access, by the rules for givers. */
import { and, eq, isNull } from "drizzle-orm";
import { z } from "zod";
import { type Given, type Grant, LEVELS, levelWord, rank, resolve, sayWeekly, type Weekly } from "../../core/access";
import { brokenBy, type Giving } from "../../core/access/houseRules";
import { personIdOf } from "../caller";
import { type Context, command, idSchema, instantSchema, type Topic } from "../command";
import type { Transaction } from "../database/client";
import { grants, groups, persons } from "../database/schema";
import { uuidv7 } from "../ids";
import { loadRules, timeZone } from "../organisation";
import { notFound, Refused } from "../refused";
import { requireConfirmed } from "../rules/confirming";
import { type Allowed, requireLevel } from "./load";
import { nodeName } from "./nodeName";
import { loadPerson, type Person } from "./person";
import { type GrantRow, toSubject } from "./rows";
import { reachEnd, withoutSteward } from "./stewards";
import { grants as t } from "./strings";

export const subjectSchema = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("person"), id: idSchema }),
  z.strictObject({ kind: z.literal("group"), id: idSchema }),
  z.strictObject({ kind: z.literal("everyone") }),
]);

/** In the organisation's time zone. */
export const weeklySchema = z.strictObject({
  days: z
    .array(z.number().int().min(1).max(7))
    .min(1, t.chooseADay)
    .refine((days) => new Set(days).size === days.length, t.eachDayOnce),
  start: z.number().int().min(0).max(1439),
  end: z.number().int().min(1).max(1440),
});

const terms = {
  level: z.enum([...LEVELS, "blocked"]),
  from: instantSchema.default(null),
  until: instantSchema.default(null),
  weekly: weeklySchema.nullable().default(null),
  why: z.string().trim().max(500, t.aReasonHasAtMost500Characters).default(""),
};

type Terms = z.output<z.ZodObject<typeof terms>>;

export const giveAccess = command({
  name: "access.giveAccess",
  input: z.strictObject({ nodeId: idSchema, subject: subjectSchema, ...terms }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, at } = context;
    const held = await requireLevel(context, input.nodeId, "steward");
    const { name, person } = await requireSubject(tx, input.subject, input.level, at);
    requireTerms(input, at);
    requireNoLongerThanGiver(held, input, at);
    await requireByRules(context, input.subject, person, input);
    if (input.level === "steward") await requireConfirmed(context, "steward");
    const careful = couldTakeStewardship(held, input.subject, person, input.level, at);
    const weekly = await inZone(tx, input.weekly);
    const node = await nodeName(tx, input.nodeId);
    return { vaultId: held.vaultId, subject: name, careful, rows: held.rows, node, weekly };
  },
  run: async (context) => {
    const { tx, input, at, caller, commandId } = context;
    const { kind } = input.subject;
    const subjectId = input.subject.kind === "everyone" ? "" : input.subject.id;
    const same = context.allowed.rows.filter(
      (row) => row.nodeId === input.nodeId && row.subjectKind === kind && row.subjectId === subjectId,
    );
    if (same.some((row) => sameTerms(row, { ...input, weekly: context.allowed.weekly })))
      throw new Refused("conflict", t.thatIsAlreadySetHere, "level");
    const grantId = uuidv7();
    const change = async () => {
      await tx.insert(grants).values({
        id: grantId,
        nodeId: input.nodeId,
        subjectKind: kind,
        subjectId,
        level: input.level,
        from: input.from,
        until: input.until,
        weekly: context.allowed.weekly,
        why: input.why,
        givenBy: personIdOf(caller),
        validFrom: at,
        commandId,
      });
    };
    if (context.allowed.careful) await refuseWithoutSteward(context, input.nodeId, change);
    else await change();
    return { grantId };
  },
  journal: ({ input, allowed }) => journalOf(input.nodeId, allowed, input, input.subject),
  says: ({ details, subject, level, place, from, until, weekly, why }) =>
    details.level === "blocked"
      ? `blocked ${subject}${place("on")}${from}${until}${weekly}${why}`
      : `gave ${subject} ${level}${place("on")}${from}${until}${weekly}${why}`,
  tell: ({ input, allowed }) => topicsOf(allowed.vaultId, input.subject),
});

const ofGrant = { grantId: idSchema };

export const changeAccess = command({
  name: "access.changeAccess",
  input: z.strictObject({ ...ofGrant, ...terms }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, at } = context;
    const grant = await requireGrant(tx, input.grantId);
    const held = await requireLevel(context, grant.nodeId, "steward");
    const subject = toSubject(grant.subjectKind, grant.subjectId);
    const { name, person } = await requireSubject(tx, subject, input.level, at);
    requireTerms(input, at);
    requireNoLongerThanGiver(held, input, at);
    if (!isLess(input, grant)) {
      await requireByRules(context, subject, person, input);
      if (input.level === "steward") await requireConfirmed(context, "steward");
    }
    const weekly = await inZone(tx, input.weekly);
    return { grant, vaultId: held.vaultId, subject: name, node: await nodeName(tx, grant.nodeId), weekly };
  },
  run: async (context) => {
    const { tx, input, at, caller, commandId, allowed } = context;
    const { grant } = allowed;
    const grantId = uuidv7();
    await refuseWithoutSteward(context, grant.nodeId, async () => {
      await tx.update(grants).set({ validUntil: at }).where(eq(grants.id, grant.id));
      await tx.insert(grants).values({
        id: grantId,
        nodeId: grant.nodeId,
        subjectKind: grant.subjectKind,
        subjectId: grant.subjectId,
        level: input.level,
        from: input.from,
        until: input.until,
        weekly: allowed.weekly,
        why: input.why,
        givenBy: personIdOf(caller),
        validFrom: at,
        commandId,
      });
    });
    return { grantId };
  },
  journal: ({ input, allowed }) =>
    journalOf(
      allowed.grant.nodeId,
      allowed,
      { ...input, before: allowed.grant.level },
      toSubject(allowed.grant.subjectKind, allowed.grant.subjectId),
    ),
  says: ({ details, subject, level, place, from, until, weekly, why }) =>
    `changed ${subject} from ${levelWord((details.before ?? "use") as Given)} to ${level}${place("on")}${from}${until}${weekly}${why}`,
  tell: ({ allowed }) => topicsOf(allowed.vaultId, toSubject(allowed.grant.subjectKind, allowed.grant.subjectId)),
});

export const endAccess = command({
  name: "access.endAccess",
  input: z.strictObject(ofGrant),
  by: ["person"],
  allow: async (context) => {
    const { tx, input } = context;
    const grant = await requireGrant(tx, input.grantId);
    const held = await requireLevel(context, grant.nodeId, "steward");
    return {
      grant,
      vaultId: held.vaultId,
      subject: await subjectName(tx, grant),
      node: await nodeName(tx, grant.nodeId),
    };
  },
  run: async (context) => {
    const { tx, at, allowed } = context;
    await refuseWithoutSteward(context, allowed.grant.nodeId, async () => {
      await tx.update(grants).set({ validUntil: at }).where(eq(grants.id, allowed.grant.id));
    });
    return { nodeId: allowed.grant.nodeId };
  },
  journal: ({ allowed }) =>
    journalOf(
      allowed.grant.nodeId,
      allowed,
      { level: allowed.grant.level, from: null, until: null, weekly: null, why: "" },
      toSubject(allowed.grant.subjectKind, allowed.grant.subjectId),
    ),
  says: ({ details, subject, level, place }) =>
    details.level === "blocked" ? `unblocked ${subject}${place("on")}` : `ended ${subject}’s ${level}${place("on")}`,
  tell: ({ allowed }) => topicsOf(allowed.vaultId, toSubject(allowed.grant.subjectKind, allowed.grant.subjectId)),
});

/** A weekly window counts in the organisation's time zone, which is kept with it. */
async function inZone(tx: Transaction, weekly: Terms["weekly"]): Promise<Weekly | null> {
  if (!weekly) return null;
  const zone = await timeZone(tx);
  return { ...weekly, days: [...weekly.days].sort(), zone };
}

export const sameTerms = (a: Pick<GrantRow, "level" | "from" | "until" | "weekly">, b: typeof a): boolean =>
  a.level === b.level &&
  a.from === b.from &&
  a.until === b.until &&
  JSON.stringify(a.weekly ?? null) === JSON.stringify(b.weekly ?? null);

async function requireGrant(tx: Transaction, grantId: string): Promise<GrantRow> {
  const [grant] = await tx
    .select()
    .from(grants)
    .where(and(eq(grants.id, grantId), isNull(grants.validUntil)));
  if (!grant) throw new Refused("conflict", t.someoneElseHasChangedOrEnded);
  return grant;
}

/** The subject exists and can hold the level; its name, and the person where it is one. */
async function requireSubject(
  tx: Transaction,
  subject: Grant["subject"],
  level: Terms["level"],
  at: number,
): Promise<{ name: string; person: Person | null }> {
  if (subject.kind === "everyone") return { name: "Everyone", person: null };
  if (subject.kind === "group") {
    const [group] = await tx.select().from(groups).where(eq(groups.id, subject.id));
    if (!group) throw notFound();
    return { name: group.name, person: null };
  }
  const person = await loadPerson(tx, subject.id, at);
  if (!person) throw notFound();
  if (person.standing === "leaver") throw new Refused("bad-input", t.hasLeftReinstateThemFirst(person.name), "subject");
  if (person.auditor) throw new Refused("bad-input", t.anAuditorHasNothing, "subject");
  if (person.guest && level === "steward") throw new Refused("bad-input", t.aGuestCanHaveAtMostEdit, "level");
  return { name: person.name, person };
}

async function subjectName(tx: Transaction, grant: GrantRow): Promise<string> {
  if (grant.subjectKind === "everyone") return "Everyone";
  const table = grant.subjectKind === "group" ? groups : persons;
  const [row] = await tx.select({ name: table.name }).from(table).where(eq(table.id, grant.subjectId));
  return row?.name ?? "somebody";
}

function requireTerms(input: Terms, at: number): void {
  if (input.until !== null && input.until <= at) throw new Refused("bad-input", t.theEndDateIsInThePast, "until");
  if (input.from !== null && input.until !== null && input.until <= input.from)
    throw new Refused("bad-input", t.theEndDateMustBeAfterThe, "until");
}

/** What is lowered or shortened is against no house rule. */
export const isLess = (input: Pick<Terms, "level" | "from" | "until">, grant: GrantRow): boolean =>
  input.level !== "blocked" &&
  grant.level !== "blocked" &&
  rank(input.level) <= rank(grant.level) &&
  (grant.until === null || (input.until !== null && input.until <= grant.until)) &&
  (input.from ?? 0) >= (grant.from ?? 0);

/** What a grant would be, as the house rules look at it. */
export const givingTo = (
  subject: Grant["subject"],
  person: Person | null,
  giver: Person,
  terms: { level: Terms["level"]; until: number | null; why: string },
): Giving => ({
  to:
    subject.kind === "everyone" ? "everyone" : subject.kind === "group" ? "groups" : person?.guest ? "guests" : "staff",
  inIt: subject.kind === "group" && giver.groups.has(subject.id),
  level: terms.level,
  until: terms.until,
  why: terms.why,
});

async function requireByRules(
  { tx, me, at, agreed }: Pick<Context<unknown>, "tx" | "me" | "at" | "agreed">,
  subject: Grant["subject"],
  person: Person | null,
  input: Terms,
): Promise<void> {
  const broken = brokenBy(await loadRules(tx), givingTo(subject, person, me, input), at);
  if (broken && !(broken.second && agreed))
    throw new Refused(broken.second ? "second-yes" : "bad-input", broken.message, broken.field);
}

/** No grant outlasts the giver's own stewardship. */
function requireNoLongerThanGiver(held: Allowed, input: Terms, at: number): void {
  if (input.level === "blocked") return;
  const end = reachEnd(held, "steward", at);
  if (end !== null && (input.until === null || input.until > end))
    throw new Refused("bad-input", t.yourOwnStewardshipHasAnEndDate, "until", { end });
}

/**
 * Whether a new grant could take somebody's stewardship: not when it is a group's and neither blocks nor stands
 * before a stewardship of that group, and not when it is on an entry and a person's who is no steward there.
 */
function couldTakeStewardship(
  { path, rows, steps }: Allowed,
  subject: Grant["subject"],
  person: Person | null,
  level: Terms["level"],
  at: number,
): boolean {
  if (subject.kind !== "person") {
    const id = subject.kind === "everyone" ? "" : subject.id;
    return (
      level === "blocked" ||
      path[0].type !== "entry" ||
      rows.some((row) => row.level === "steward" && row.subjectKind === subject.kind && row.subjectId === id)
    );
  }
  if (path[0].type !== "entry") return true;
  return person !== null && resolve(person, steps, at).level === "steward";
}

/** Does the change and refuses it when a node would be left without a steward that had one. */
export async function refuseWithoutSteward(
  { tx, at }: Pick<Context<unknown>, "tx" | "at">,
  nodeId: string,
  change: () => Promise<void>,
): Promise<void> {
  const before = new Set(await withoutSteward(tx, nodeId, at));
  await change();
  const left = (await withoutSteward(tx, nodeId, at)).filter((id) => !before.has(id));
  if (left.length === 0) return;
  const name = await nodeName(tx, left[0]!);
  throw new Refused("not-allowed", t.wouldBeLeftWithoutAStewardMake(name));
}

function journalOf(
  nodeId: string,
  allowed: { vaultId: string; subject: string; node: string },
  input: Terms & { before?: string },
  subject: Grant["subject"],
) {
  const subjectId = subject.kind === "everyone" ? "everyone" : subject.id;
  return {
    node: nodeId,
    vault: allowed.vaultId,
    subject: subjectId,
    details: {
      level: input.level,
      ...(input.before ? { before: input.before } : {}),
      ...(input.from !== null ? { from: input.from } : {}),
      ...(input.until !== null ? { until: input.until } : {}),
      ...(input.weekly ? { weekly: sayWeekly({ ...input.weekly, zone: "" }) } : {}),
      ...(input.why ? { why: input.why } : {}),
    },
    names: { [nodeId]: allowed.node, ...(subject.kind === "everyone" ? {} : { [subjectId]: allowed.subject }) },
  };
}

function topicsOf(vaultId: string, subject: Grant["subject"]): Topic[] {
  const whom: Topic = subject.kind === "everyone" ? "everyone" : `${subject.kind}:${subject.id}`;
  return [`vault:${vaultId}`, whom];
}
