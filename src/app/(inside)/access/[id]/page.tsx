import { AccessPage } from "@/interface/access/AccessPage";
import { accessGrid, gridVaults } from "@/server/access/grid";
import { roundPage } from "@/server/access/rounds/rounds";
import { ownSlip } from "@/server/access/slip/slip";
import { ask, me } from "@/server/page";

export const metadata = { title: "Access" };

export default async function VaultAccess({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ at?: string }>;
}) {
  const [{ id }, search, person] = await Promise.all([params, searchParams, me()]);
  const asked = /^\d{1,15}$/.test(search.at ?? "") ? Number(search.at) : null;
  const [model, slip, vaults] = await Promise.all([
    ask(accessGrid, { vaultId: id, at: asked, everybody: false }),
    ask(ownSlip, {}),
    ask(gridVaults, {}),
  ]);
  const roundView = model.round && asked === null ? await ask(roundPage, { vaultId: id }) : null;
  return <AccessPage key={id} {...{ model, slip, vaults, asked, roundView }} me={person.id} now={Date.now()} />;
}
