import { notFound } from "next/navigation";
import { UPKEEP_ACTS, type UpkeepAct } from "@/core/upkeep/findings";
import { FIRST_SHOWN } from "@/interface/upkeep/filter";
import { Upkeep } from "@/interface/upkeep/Upkeep";
import { isAdministrator } from "@/server/caller";
import { ask, me } from "@/server/page";
import { ownChangeLists } from "@/server/people/changeLists";
import { ownRuns } from "@/server/signin/runs";
import { upkeepPage } from "@/server/upkeep/findingsPage";
import { houseFindings } from "@/server/upkeep/house";

export const metadata = { title: "Upkeep" };

const isAct = (text: string | undefined): text is UpkeepAct => (UPKEEP_ACTS as readonly string[]).includes(text ?? "");

export default async function UpkeepPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | undefined>>;
}) {
  const [{ role, steward }, search] = await Promise.all([me(), searchParams]);
  if (!steward && !isAdministrator(role)) notFound();
  const filter = {
    act: isAct(search.act) ? search.act : null,
    vaultId: /^[0-9a-f-]{36}$/.test(search.vault ?? "") ? search.vault! : null,
    find: String(search.find ?? "").slice(0, 80),
    most: Math.min(2_000, Math.max(FIRST_SHOWN, Math.trunc(Number(search.most)) || 0)),
  };
  const [view, runs, lists, house] = await Promise.all([
    ask(upkeepPage, filter),
    ask(ownRuns, { aboutId: null }),
    ask(ownChangeLists, {}),
    isAdministrator(role) ? ask(houseFindings, {}) : null,
  ]);
  return (
    <Upkeep {...{ view, runs, lists, filter }} house={house?.rows ?? []} now={Date.now()} owner={role === "owner"} />
  );
}
