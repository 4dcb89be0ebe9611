import { HouseRules } from "@/interface/rules/HouseRules";
import { ask, me } from "@/server/page";
import { houseRules } from "@/server/rules/rules";

export const metadata = { title: "House rules" };

export default async function Rules() {
  const { role } = await me();
  return <HouseRules rules={await ask(houseRules, {})} changes={role === "owner"} />;
}
