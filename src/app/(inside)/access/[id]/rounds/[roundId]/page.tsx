import { notFound } from "next/navigation";
import { RoundRecord } from "@/interface/rounds/RoundRecord";
import { roundPage } from "@/server/access/rounds/rounds";
import { ask } from "@/server/page";

export const metadata = { title: "Record of a round" };

export default async function Record({ params }: { params: Promise<{ id: string; roundId: string }> }) {
  const { id, roundId } = await params;
  const { vault, zone, finished } = await ask(roundPage, { vaultId: id });
  const one = finished.find((round) => round.id === roundId);
  if (!one) notFound();
  return <RoundRecord vault={vault} one={one} zone={zone} now={Date.now()} />;
}
