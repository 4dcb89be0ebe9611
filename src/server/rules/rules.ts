/** The organisation's house rules: read by all staff, changed by its owners. */
import { houseRulesSchema, sayRules } from "../../core/access/houseRules";
import { command, none, query } from "../command";
import type { Reader } from "../database/client";
import { organisation, type Role } from "../database/schema";
import { loadRules } from "../organisation";
import { Refused } from "../refused";
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

/** All of them at once, as they should be from now on. What was given before stays as it is. */
export const changeRules = command({
  name: "rules.changeRules",
  input: houseRulesSchema,
  by: ["person"],
  allow: ({ role }) => {
    if (role !== "owner") throw new Refused("not-allowed", t.onlyOwnersCanChangeTheHouse);
  },
  run: async ({ tx, input }) => {
    const before = sayRules(await loadRules(tx));
    const changed = sayRules(input).filter((sentence) => !before.includes(sentence));
    if (changed.length === 0) throw new Refused("conflict", t.theHouseRulesAlreadySayThis);
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
