import { Ledger } from "@/interface/vaults/Ledger";
import { whoCanDoWhat } from "@/server/access/who";
import { ask, me } from "@/server/page";
import { vaultLedger } from "@/server/vaults/vaults";

export const metadata = { title: "Vault" };

export default async function VaultPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ in?: string }>;
}) {
  const [{ id }, search, { zone }] = await Promise.all([params, searchParams, me()]);
  const { rows, ...vault } = await ask(vaultLedger, { vaultId: id });
  const who = vault.level === "steward" ? await ask(whoCanDoWhat, { nodeId: id }) : null;
  return <Ledger vault={vault} packed={rows} who={who} zone={zone} now={Date.now()} inside={search.in ?? null} />;
}
