/** What the house rules say to drafted changes. */

import { type Broken, brokenBy } from "../../../core/access/houseRules";
import type { Change } from "../../../core/access/index";
import type { Reader } from "../../database/client";
import { loadRules } from "../../organisation";
import { givingTo, isLess, sameTerms } from "../grants";
import { loadPerson, type Person } from "../person";
import { cellRows } from "./slipChanges";

/** Each grant that would be new and breaks a rule, with the first one it breaks. */
export async function brokenRules(
  tx: Reader,
  changes: readonly Change[],
  drafter: Person,
  why: string,
  at: number,
): Promise<{ nodeId: string; broken: Broken }[]> {
  const rules = await loadRules(tx);
  const found: { nodeId: string; broken: Broken }[] = [];
  for (const change of changes) {
    if (change.type !== "set") continue;
    const rows = await cellRows(tx, change);
    const { subject, nodeId } = change;
    const person = subject.kind === "person" ? await loadPerson(tx, subject.id, at) : null;
    for (const terms of change.grants) {
      const given = { ...terms, weekly: terms.weekly ?? null };
      if (rows.some((row) => sameTerms(given, row) || isLess(given, row))) continue;
      const broken = brokenBy(rules, givingTo(subject, person, drafter, { ...terms, why }), at);
      if (broken) found.push({ nodeId, broken });
    }
  }
  return found;
}

/** Nodes at which a second steward must say yes. */
export const needsSecondYes = async (...of: Parameters<typeof brokenRules>): Promise<string[]> =>
  (await brokenRules(...of)).filter(({ broken }) => broken.second).map(({ nodeId }) => nodeId);
