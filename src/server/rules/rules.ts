/** The organisation's house rules: read by all staff, changed by its owners. */
import { confirmsLess, type HouseRules, houseRulesSchema, sayRules } from "../../core/access/houseRules";
import { command, none, query } from "../command";
import { inJson } from "../database/bulk";
import type { Reader } from "../database/client";
import { groups, organisation, type Role } from "../database/schema";
import { loadRules } from "../organisation";
import { Refused } from "../refused";
import { confirmedWithin, requireConfirmed } from "./confirming";
import { rules as t } from "./strings";

export const houseRules = query({
  name: "rules.houseRules",
  input: none,
  by: ["person"],
  allow: ({ role }) => {
    if (!role || role === "guest") throw new Refused("not-allowed", t.theHouseRulesAreForStaff);
  },
  run: async ({ tx }) => loadRules(tx),
});

/** What the groups that the rules speak of are called. */
export const ruleGroups = query({
  name: "rules.ruleGroups",
  input: none,
  by: ["person"],
  allow: ({ role }) => {
    if (!role || role === "guest") throw new Refused("not-allowed", t.theHouseRulesAreForStaff);
  },
  run: async ({ tx }) => namesIn(tx, await loadRules(tx)),
});

async function namesIn(tx: Reader, rules: HouseRules): Promise<Record<string, string>> {
  const { use, add } = rules.lanyard;
  const ids = [...rules.waysIn.flatMap(({ groupId }) => groupId ?? []), ...(use ?? []), ...(add ?? [])];
  const rows = await tx.select({ id: groups.id, name: groups.name }).from(groups).where(inJson(groups.id, ids));
  return Object.fromEntries(rows.map(({ id, name }) => [id, name]));
}

/** All of them at once, as they should be from now on. What was given before stays as it is. */
export const changeRules = command({
  name: "rules.changeRules",
  input: houseRulesSchema,
  by: ["person"],
  allow: async (context) => {
    if (context.role !== "owner") throw new Refused("not-allowed", t.onlyOwnersCanChangeTheHouse);
    await requireConfirmed(context, "rules");
    // Otherwise whoever sits at an open session would take the rule away first.
    const { confirm } = await loadRules(context.tx);
    if (confirmsLess(confirm, context.input.confirm) && !confirmedWithin(context, confirm.minutes))
      throw new Refused("prove-again", t.confirmFirst.rules);
  },
  run: async ({ tx, input }) => {
    const now = await loadRules(tx);
    const names = { ...(await namesIn(tx, now)), ...(await namesIn(tx, input)) };
    const said = (rules: HouseRules) => sayRules(rules, (id) => names[id] ?? t.aGroupThatIsGone);
    if (input.waysIn.some(({ groupId }) => groupId !== null && !names[groupId]))
      throw new Refused("conflict", t.aGroupIsGone, "waysIn");
    if ([...(input.lanyard.use ?? []), ...(input.lanyard.add ?? [])].some((id) => !names[id]))
      throw new Refused("conflict", t.aGroupIsGone, "lanyard");
    const before = said(now);
    const after = said(input);
    // A rule that is gone is a change too.
    const changed = [
      ...after.filter((sentence) => !before.includes(sentence)),
      ...before.slice(after.length).map((sentence) => t.noLonger(sentence)),
    ];
    if (changed.length === 0 && JSON.stringify(now) === JSON.stringify(input))
      throw new Refused("conflict", t.theHouseRulesAlreadySayThis);
    await tx.update(organisation).set({ rules: input });
    return { changed };
  },
  journal: ({ result }) => ({ details: { rules: result.changed.join(" ") } }),
  says: ({ details }) => `changed the house rules: ${details.rules}`,
  tell: () => ["everyone", "administrators"],
});

/** @param what "vaults", as the refusal names it */
export async function requireMaker(tx: Reader, role: Role | null, what: "vaults" | "groups"): Promise<void> {
  const { makes } = await loadRules(tx);
  const may = {
    owners: ["owner"],
    administrators: ["owner", "administrator"],
    staff: ["owner", "administrator", "member"],
  };
  const says = {
    owners: t.onlyAnOwnerCanCreate(what),
    administrators: t.onlyAnAdministratorCanCreate(what),
    staff: t.onlyStaffCanCreate(what),
  };
  if (!role || !may[makes[what]].includes(role)) throw new Refused("not-allowed", says[makes[what]]);
}
