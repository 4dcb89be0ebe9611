/** Who may use Lanyard, and who may add logins with it: the house rules say so by group, and it counts at once. */
import { isAmong } from "../../core/access/houseRules";
import type { Person } from "../access/person";
import type { Reader } from "../database/client";
import { loadRules } from "../organisation";
import { Refused } from "../refused";
import { allowed as t } from "./strings";

/** @returns whether the house rules let them use it, add with it, and have a login filled in without a press */
export async function lanyardRules(
  tx: Reader,
  me: Person,
): Promise<{ use: boolean; add: boolean; neverOn: string[]; fillsOnOpening: boolean }> {
  const { use, add, neverOn, fillsOnOpening } = (await loadRules(tx)).lanyard;
  const may = isAmong(use, me.groups);
  return { use: may, add: may && isAmong(add, me.groups), neverOn, fillsOnOpening: may && fillsOnOpening };
}

/** @throws Refused not-allowed */
export async function requireMayAdd(tx: Reader, me: Person): Promise<void> {
  if (!(await lanyardRules(tx, me)).add) throw new Refused("not-allowed", t.theHouseRulesDoNotLetYouAdd);
}
