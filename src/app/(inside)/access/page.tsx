import { redirect } from "next/navigation";
import { OnlySlip } from "@/interface/access/OnlySlip";
import { gridVaults } from "@/server/access/grid";
import { ownSlip } from "@/server/access/slip/slip";
import { ask, me } from "@/server/page";

export const metadata = { title: "Access" };

export default async function AccessArea() {
  const { id, zone } = await me();
  const [first] = await ask(gridVaults, {});
  if (first) redirect(`/access/${first.id}`);
  return <OnlySlip slip={await ask(ownSlip, {})} me={id} zone={zone} now={Date.now()} />;
}
