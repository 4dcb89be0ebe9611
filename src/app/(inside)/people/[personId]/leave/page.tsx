import { notFound } from "next/navigation";
import { Leaving } from "@/interface/people/Leaving";
import { isAdministrator } from "@/server/caller";
import { ask, me } from "@/server/page";
import { leavingPage } from "@/server/people/leaving";

export const metadata = { title: "Leaving" };

export default async function LeavePage({ params }: { params: Promise<{ personId: string }> }) {
  const { personId } = await params;
  const { id, role, zone } = await me();
  if (!isAdministrator(role) || id === personId) notFound();
  return <Leaving view={await ask(leavingPage, { personId })} me={id} zone={zone} now={Date.now()} />;
}
