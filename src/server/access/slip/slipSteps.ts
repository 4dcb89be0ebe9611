/** How changes are carried out, each by its own command, and what takes each back. */
import { type Change, rank, type Terms } from "../../../core/access/index";
import type { Context } from "../../command";
import type { Transaction } from "../../database/client";
import { removeMember, setMember } from "../../people/members";
import { moveNodes } from "../../vaults/moving";
import { markSeparate } from "../../vaults/separating";
import { changeAccess, endAccess, giveAccess, sameTerms } from "../grants";
import { loadPath } from "../load";
import { cellRows, membershipOf } from "./slipChanges";

export interface Step {
  /** Whoever becomes steward does so before another one ceases to be. */
  order: number;
  run: (context: Context<unknown>) => Promise<unknown>;
}

export async function stepsOf(tx: Transaction, changes: readonly Change[], why: string): Promise<Step[]> {
  const steps: Step[] = [];
  for (const change of changes) {
    if (change.type === "set") steps.push(...(await stepsOfSet(tx, change, why)));
    else if (change.type === "member") {
      const { groupId, personId, held } = change;
      const keeper = change.keeper ?? (await membershipOf(tx, change))?.keeper ?? false;
      steps.push(
        held
          ? {
              order: 1,
              run: (c) => setMember.within(c, { groupId, personId, from: held.from, until: held.until, keeper }),
            }
          : { order: 2, run: (c) => removeMember.within(c, { groupId, personId }) },
      );
    } else if (change.type === "move")
      steps.push({
        order: 3,
        run: (c) => moveNodes.within(c, { nodeIds: [change.nodeId], parentId: change.parentId }),
      });
    else
      steps.push({
        order: 3,
        run: (c) => markSeparate.within(c, { folderId: change.nodeId, separate: change.separate }),
      });
  }
  return steps.sort((a, b) => a.order - b.order);
}

/** The grants of a cell become those that are wanted: what is there already stays as it is. */
export async function stepsOfSet(
  tx: Transaction,
  change: Extract<Change, { type: "set" }>,
  why: string,
): Promise<Step[]> {
  const rows = await cellRows(tx, change);
  const wanted = change.grants.map((one) => ({ ...one, weekly: one.weekly ?? null }));
  const ending = rows.filter((row) => !wanted.some((one) => sameTerms(one, row)));
  const coming = wanted.filter((one) => !rows.some((row) => sameTerms(one, row)));
  const termsOf = ({ level, from, until, weekly }: (typeof wanted)[number]) => ({
    level,
    from,
    until,
    weekly: weekly && { days: [...weekly.days], start: weekly.start, end: weekly.end },
    why,
  });
  const orderOf = (one: Terms) => (one.level === "blocked" ? 2 : 4 - rank(one.level));
  const [end, ...otherEnds] = ending;
  const [come, ...otherComes] = coming;
  const { nodeId } = change;
  const subject = change.subject;
  return [
    ...(end && come
      ? [
          {
            order: orderOf(come),
            run: (c: Context<unknown>) => changeAccess.within(c, { grantId: end.id, ...termsOf(come) }),
          },
        ]
      : []),
    ...(end && come ? otherComes : coming).map((one) => ({
      order: orderOf(one),
      run: (c: Context<unknown>) => giveAccess.within(c, { nodeId, subject, ...termsOf(one) }),
    })),
    ...(end && come ? otherEnds : ending).map((row) => ({
      order: 5,
      run: (c: Context<unknown>) => endAccess.within(c, { grantId: row.id }),
    })),
  ];
}

/** What takes a change back, from what is there before it. */
export async function backOf(tx: Transaction, change: Change): Promise<Change[]> {
  if (change.type === "set") return [await cellBack(tx, change)];
  if (change.type === "member") {
    const held = await membershipOf(tx, change);
    return [{ ...change, held: held ? { from: held.from, until: held.until } : null, keeper: held?.keeper ?? false }];
  }
  const [node] = await loadPath(tx, change.nodeId);
  if (change.type === "move") return node?.parentId ? [{ ...change, parentId: node.parentId }] : [];
  const own = change.keeper === null ? [] : [await cellBack(tx, { nodeId: change.nodeId, keeper: change.keeper })];
  return [{ ...change, separate: !change.separate, keeper: null }, ...own];
}

export async function cellBack(
  tx: Transaction,
  of: Extract<Change, { type: "set" }> | { nodeId: string; keeper: string },
): Promise<Change> {
  const subject = "keeper" in of ? ({ kind: "person", id: of.keeper } as const) : of.subject;
  const cell = { type: "set", nodeId: of.nodeId, subject, grants: [] } as const;
  const rows = await cellRows(tx, cell);
  return { ...cell, grants: rows.map(({ level, from, until, weekly }) => ({ level, from, until, weekly })) };
}
