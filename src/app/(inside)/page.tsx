import { atLeast } from "@/core/access/level";
import { FrontDesk } from "@/interface/frontdesk/FrontDesk";
import { pack } from "@/interface/shared/packed";
import { frontDesk } from "@/server/frontdesk/frontDesk";
import { ask, me } from "@/server/page";
import { vaultList } from "@/server/vaults/vaults";

export const metadata = { title: "Front desk" };

export default async function FrontDeskPage() {
  const person = await me();
  const [{ lines }, vaults] = await Promise.all([ask(frontDesk, {}), ask(vaultList, {})]);
  const now = Date.now();
  const hour = Number(
    new Intl.DateTimeFormat("en-GB", { timeZone: person.zone, hour: "2-digit", hourCycle: "h23" }).format(now),
  );
  const greeting = hour < 12 ? "Good morning" : hour < 18 ? "Good afternoon" : "Good evening";
  return (
    <FrontDesk
      person={person.name}
      packed={pack(lines)}
      zone={person.zone}
      now={now}
      greeting={greeting}
      canAdd={vaults.some((vault) => atLeast(vault.level, "edit"))}
    />
  );
}
