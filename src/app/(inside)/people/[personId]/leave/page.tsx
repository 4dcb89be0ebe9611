import { notFound } from "next/navigation";
import { Leaving } from "@/interface/people/Leaving";
import { isAdministrator } from "@/server/caller";
import { ask, me } from "@/server/page";
import { leavingPage } from "@/server/people/leaving";
import { ownRuns } from "@/server/signin/runs";

export const metadata = { title: "Leaving" };

export default async function LeavePage({ params }: { params: Promise<{ personId: string }> }) {
  const { personId } = await params;
  const { id, role, zone } = await me();
  if (!isAdministrator(role) || id === personId) notFound();
  const [view, runs] = await Promise.all([ask(leavingPage, { personId }), ask(ownRuns, { aboutId: personId })]);
  return <Leaving {...{ view, runs, zone }} me={id} now={Date.now()} />;
}
