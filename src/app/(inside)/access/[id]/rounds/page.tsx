import { RoundsPage } from "@/interface/rounds/RoundsPage";
import { roundPage } from "@/server/access/rounds/rounds";
import { ask } from "@/server/page";

export const metadata = { title: "Rounds" };

export default async function Rounds({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <RoundsPage view={await ask(roundPage, { vaultId: id })} now={Date.now()} />;
}
