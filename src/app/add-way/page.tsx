import { redirect } from "next/navigation";
import { ownAddress } from "@/core/ownAddress";
import { AddWay } from "@/interface/entrance/AddWay";
import { galtry } from "@/server/galtry";
import { ask, limitedMe } from "@/server/page";
import { ownNeed } from "@/server/people/waysIn/required";
import { ownWays } from "@/server/people/waysIn/ways";
import { ownAccounts } from "@/server/provider/arrivals";

export const metadata = { title: "Add a way to sign in" };

export default async function AddWayPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const { next, sso, provider } = await searchParams;
  const { publicUrl } = (await galtry()).configuration;
  const { limited, organisation, zone } = await limitedMe();
  const { needs } = await ask(ownNeed, {});
  if (!limited || needs === null) redirect(ownAddress(next, publicUrl));
  const [ways, accounts] = await Promise.all([ask(ownWays, {}), ask(ownAccounts, {})]);
  const back = typeof sso === "string" ? { code: sso, provider: typeof provider === "string" ? provider : null } : null;
  return <AddWay {...{ organisation, needs, ways, accounts, back, zone }} now={Date.now()} />;
}
