import { and, eq, isNull } from "drizzle-orm";
import { z } from "zod";
import {
  type Change,
  type Given,
  isActive,
  LEVELS,
  levelWord,
  resolve,
  sayWeekly,
  type Terms,
} from "../../../core/access/index";
import { sayTime } from "../../../core/time";
import { type Context, idSchema, instantSchema } from "../../command";
import type { Reader } from "../../database/client";
import { grants, memberships } from "../../database/schema";
import { nodesOfGroup } from "../../people/telling";
import { Refused } from "../../refused";
import { subjectSchema, weeklySchema } from "../grants";
import { loadPath, requireLevel, resolveAt } from "../load";
import { nodeName } from "../nodeName";
import type { GrantRow } from "../rows";
import { slipChanges as t } from "../strings";
import { loadNames } from "../who";

/** Whoever drafts or looks ahead. */
type Asked = Pick<Context<unknown, Reader>, "tx" | "me" | "at">;

const window = { from: instantSchema.default(null), until: instantSchema.default(null) };
const terms = z.strictObject({
  level: z.enum([...LEVELS, "blocked"]),
  ...window,
  weekly: weeklySchema.nullable().default(null),
});

export const changeSchema = z.discriminatedUnion("type", [
  z.strictObject({
    type: z.literal("set"),
    nodeId: idSchema,
    subject: subjectSchema,
    grants: z.array(terms).max(6, t.atMost6GrantsForOnePerson),
  }),
  z.strictObject({
    type: z.literal("member"),
    groupId: idSchema,
    personId: idSchema,
    held: z.strictObject(window).nullable(),
    /** As it is now, where nothing is said. */
    keeper: z.boolean().optional(),
  }),
  z.strictObject({ type: z.literal("move"), nodeId: idSchema, parentId: idSchema }),
  z.strictObject({ type: z.literal("separate"), nodeId: idSchema, separate: z.boolean() }),
]);
/** More than this nobody reads before applying. */
const MOST_CHANGES = 200;
export const changesSchema = z.array(changeSchema).max(MOST_CHANGES, t.aSlipHasAtMostChanges(MOST_CHANGES));
type ChangeInput = z.output<typeof changeSchema>;

/** Whoever drafts may do it: nothing is previewed that they could not find out. */
export async function requireDraft(context: Asked, change: ChangeInput): Promise<void> {
  if (change.type === "set" || change.type === "separate") await requireLevel(context, change.nodeId, "steward");
  else if (change.type === "move") {
    await requireLevel(context, change.nodeId, "edit");
    await requireLevel(context, change.parentId, "edit");
  } else await requireLevelOfGroup(context, change.groupId);
}

/** Who changes who is in a group; its keepers, and administrators. */
export async function requireLevelOfGroup({ tx, me, at }: Asked, groupId: string): Promise<void> {
  if (me.role === "owner" || me.role === "administrator") return;
  const keeping = await tx
    .select({ from: memberships.from, until: memberships.until })
    .from(memberships)
    .where(
      and(
        eq(memberships.groupId, groupId),
        eq(memberships.personId, me.id),
        eq(memberships.keeper, true),
        isNull(memberships.validUntil),
      ),
    );
  if (!keeping.some((one) => isActive(one, at))) throw new Refused("not-allowed", t.onlyAdministratorsAndTheGroups);
}

export async function completed(context: Asked, change: ChangeInput, zone: string): Promise<Change> {
  const { tx, me, at } = context;
  if (change.type === "set")
    return {
      ...change,
      grants: change.grants.map((one) => ({
        ...one,
        weekly: one.weekly && { ...one.weekly, days: [...one.weekly.days].sort(), zone },
      })),
    };
  if (change.type !== "separate") return change;
  const found = await resolveAt(tx, me, change.nodeId, at);
  const here = found?.steps[0];
  const alone = here && resolve(me, [{ ...here, separate: true }], at).level;
  return { ...change, keeper: change.separate && alone !== "steward" ? me.id : null };
}

/** What stands at the place of a change, as one text: another person may change it before the slip is applied. */
export async function standing(tx: Reader, change: Change): Promise<string> {
  if (change.type === "set") return JSON.stringify((await cellRows(tx, change)).map((row) => row.id).sort());
  if (change.type === "member") return (await membershipOf(tx, change))?.id ?? "";
  const [node] = await loadPath(tx, change.nodeId);
  return change.type === "move" ? (node?.parentId ?? "") : String(node?.separate ?? "");
}

export const cellRows = (tx: Reader, { nodeId, subject }: Extract<Change, { type: "set" }>): Promise<GrantRow[]> =>
  tx
    .select()
    .from(grants)
    .where(
      and(
        eq(grants.nodeId, nodeId),
        eq(grants.subjectKind, subject.kind),
        eq(grants.subjectId, subject.kind === "everyone" ? "" : subject.id),
        isNull(grants.validUntil),
      ),
    );

export const membershipOf = async (tx: Reader, { groupId, personId }: Extract<Change, { type: "member" }>) =>
  (
    await tx
      .select()
      .from(memberships)
      .where(and(eq(memberships.groupId, groupId), eq(memberships.personId, personId), isNull(memberships.validUntil)))
  )[0];

export async function vaultsOf(tx: Reader, changes: readonly Change[]): Promise<string[]> {
  const ids = new Set<string>();
  for (const change of changes) {
    const nodeIds =
      change.type === "member" ? (await nodesOfGroup(tx, change.groupId)).map(({ nodeId }) => nodeId) : [change.nodeId];
    for (const nodeId of nodeIds) {
      const [node] = await loadPath(tx, nodeId);
      if (node) ids.add(node.vaultId);
    }
  }
  return [...ids];
}

/** Each change as it was asked for, in words. */
export async function textsOf(tx: Reader, changes: readonly Change[], at: number): Promise<string[]> {
  const names = await loadNames(
    tx,
    changes.flatMap((change) =>
      change.type === "set"
        ? change.subject.kind === "everyone"
          ? []
          : [change.subject.id]
        : change.type === "member"
          ? [change.personId, change.groupId]
          : [],
    ),
  );
  const texts: string[] = [];
  for (const change of changes) {
    if (change.type === "set") {
      const node = await nodeName(tx, change.nodeId);
      const given = change.grants.map((one) => sayTerms(one, at, names.zone)).join(" and ");
      const rows = await cellRows(tx, change);
      const was = rows.map((row) => sayTerms(row, at, names.zone)).join(" and ");
      const who = names.subject(change.subject);
      const blocked = (grants: readonly { level: Given }[]) => grants.some((one) => one.level === "blocked");
      texts.push(
        given === ""
          ? blocked(rows)
            ? `Unblock ${who} on ${node}`
            : `End ${who}’s ${was || "access"} on ${node}`
          : was === ""
            ? blocked(change.grants)
              ? `Block ${who} on ${node}${given.slice(levelWord("blocked").length)}`
              : `Give ${who} ${given} on ${node}`
            : `Change ${who} from ${was} to ${given} on ${node}`,
      );
    } else if (change.type === "member") {
      const [who, group] = [names.people.get(change.personId), names.subject({ kind: "group", id: change.groupId })];
      const until = change.held?.until ? ` until ${sayTime(change.held.until, at, names.zone)}` : "";
      texts.push(change.held ? `Add ${who} to ${group}${until}` : `Remove ${who} from ${group}`);
    } else if (change.type === "move")
      texts.push(`Move ${await nodeName(tx, change.nodeId)} into ${await nodeName(tx, change.parentId)}`);
    else
      texts.push(
        change.separate
          ? `Make ${await nodeName(tx, change.nodeId)} separate`
          : `Let ${await nodeName(tx, change.nodeId)} inherit access again`,
      );
  }
  return texts;
}

export function sayTerms({ level, from, until, weekly }: Terms | GrantRow, at: number, zone: string): string {
  const time = [
    from !== null && from > at && `from ${sayTime(from, at, zone)}`,
    until !== null && `until ${sayTime(until, at, zone)}`,
    weekly && sayWeekly(weekly),
  ].filter(Boolean);
  return [levelWord(level), ...time].join(" ");
}
