import { atLeast } from "@/core/access/level";
import { pack } from "@/core/packed";
import { EVERYBODY } from "@/core/people/peopleFilter";
import type { FirstStep } from "@/interface/frontdesk/FirstSteps";
import { FrontDesk } from "@/interface/frontdesk/FrontDesk";
import { endingSoon } from "@/server/access/endingSoon";
import { approvalsToGive } from "@/server/access/requests/approvals";
import { requestList } from "@/server/access/requests/requests";
import { roundsToDo } from "@/server/access/rounds/rounds";
import { secondOpinions } from "@/server/access/slip/secondOpinions";
import { waitingSlips } from "@/server/access/slip/slip";
import { isAdministrator } from "@/server/caller";
import type { Role } from "@/server/database/schema";
import { frontDesk } from "@/server/frontdesk/frontDesk";
import { ask, me } from "@/server/page";
import { personList } from "@/server/people/peopleList";
import { vaultList } from "@/server/vaults/vaults";

export const metadata = { title: "Front desk" };

export default async function FrontDeskPage() {
  const person = await me();
  const [{ lines }, vaults, asks, slips, approvals, rounds, shown, ending] = await Promise.all([
    ask(frontDesk, {}),
    ask(vaultList, {}),
    ask(requestList, {}),
    ask(waitingSlips, {}),
    ask(approvalsToGive, {}),
    ask(roundsToDo, {}),
    ask(secondOpinions, {}),
    ask(endingSoon, {}),
  ]);
  const now = Date.now();
  const hour = Number(
    new Intl.DateTimeFormat("en-GB", { timeZone: person.zone, hour: "2-digit", hourCycle: "h23" }).format(now),
  );
  const greeting = hour < 12 ? "Good morning" : hour < 18 ? "Good afternoon" : "Good evening";
  const canAdd = vaults.some((vault) => atLeast(vault.level, "edit"));
  const used = lines.some((line) => line.lastUsedAt !== null);
  // Whoever has signed in to something has settled in: then nothing more is looked up.
  const steps = used ? [] : await firstSteps(person.role, vaults.length, lines.length, canAdd);
  return (
    <FrontDesk
      person={person.name}
      packed={pack(lines)}
      zone={person.zone}
      now={now}
      greeting={greeting}
      canAdd={canAdd}
      steps={steps}
      waiting={{ asks, slips, shown, approvals, rounds, ending }}
      me={person.id}
    />
  );
}

async function firstSteps(role: Role, vaults: number, entries: number, canAdd: boolean): Promise<FirstStep[]> {
  const steps: FirstStep[] = [];
  if (isAdministrator(role)) {
    const { found } = await ask(personList, { ...EVERYBODY, from: 0 });
    steps.push(
      { text: "Create a vault", href: "/vaults", done: vaults > 0 },
      { text: "Add a colleague", href: "/people", done: found > 1 },
    );
  }
  if (canAdd) steps.push({ text: "Add a first login", href: "/vaults", done: entries > 0 });
  return steps;
}
