import { atLeast } from "@/core/access/level";
import { pack } from "@/core/packed";
import { FrontDesk } from "@/interface/frontdesk/FrontDesk";
import { readerOf } from "@/interface/help/topics";
import { endingSoon } from "@/server/access/endingSoon";
import { approvalsToGive } from "@/server/access/requests/approvals";
import { requestList } from "@/server/access/requests/requests";
import { roundsToDo } from "@/server/access/rounds/rounds";
import { secondOpinions } from "@/server/access/slip/secondOpinions";
import { waitingSlips } from "@/server/access/slip/slip";
import { firstSteps } from "@/server/frontdesk/firstSteps";
import { frontDesk } from "@/server/frontdesk/frontDesk";
import { ask, askOrNull, me } from "@/server/page";
import { upkeepToday } from "@/server/upkeep/findingsPage";
import { vaultList } from "@/server/vaults/vaults";

export const metadata = { title: "Front desk" };

export default async function FrontDeskPage() {
  const person = await me();
  const [{ lines }, vaults, asks, slips, approvals, rounds, shown, ending, upkeep, steps] = await Promise.all([
    ask(frontDesk, {}),
    ask(vaultList, {}),
    ask(requestList, {}),
    ask(waitingSlips, {}),
    ask(approvalsToGive, {}),
    ask(roundsToDo, {}),
    ask(secondOpinions, {}),
    ask(endingSoon, {}),
    ask(upkeepToday, {}),
    // None for whoever has done all of them.
    askOrNull(firstSteps, {}),
  ]);
  const now = Date.now();
  const hour = Number(
    new Intl.DateTimeFormat("en-GB", { timeZone: person.zone, hour: "2-digit", hourCycle: "h23" }).format(now),
  );
  const greeting = hour < 12 ? "Good morning" : hour < 18 ? "Good afternoon" : "Good evening";
  const canAdd = vaults.some((vault) => atLeast(vault.level, "edit"));
  return (
    <FrontDesk
      person={person.name}
      packed={pack(lines)}
      zone={person.zone}
      now={now}
      greeting={greeting}
      canAdd={canAdd}
      steps={steps}
      waiting={{ asks, slips, shown, approvals, rounds, ending, upkeep }}
      me={person.id}
      reader={readerOf(person)}
    />
  );
}
