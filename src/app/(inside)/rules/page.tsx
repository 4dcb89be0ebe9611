import { HouseRules } from "@/interface/rules/HouseRules";
import { isAdministrator } from "@/server/caller";
import { galtry } from "@/server/galtry";
import { ask, me } from "@/server/page";
import { waysMissing } from "@/server/people/waysIn/required";
import { houseRules, ruleGroups } from "@/server/rules/rules";

export const metadata = { title: "House rules" };

export default async function Rules() {
  const [{ role }, app] = await Promise.all([me(), galtry()]);
  const [rules, groups, missing] = await Promise.all([
    ask(houseRules, {}),
    ask(ruleGroups, {}),
    isAdministrator(role) ? ask(waysMissing, {}) : [],
  ]);
  return (
    <HouseRules
      {...{ rules, groups, missing }}
      changes={role === "owner"}
      mails={app.configuration.mail !== null}
      now={Date.now()}
    />
  );
}
