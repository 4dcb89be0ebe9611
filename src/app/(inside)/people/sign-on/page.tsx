import { notFound } from "next/navigation";
import { SignOn } from "@/interface/provider/SignOn";
import { isAdministrator } from "@/server/caller";
import { ask, me } from "@/server/page";
import { groupTable } from "@/server/provider/groups";
import { providerList } from "@/server/provider/providers";

export const metadata = { title: "Single sign-on" };

export default async function SignOnPage() {
  const { role, zone } = await me();
  if (!isAdministrator(role)) notFound();
  const view = await ask(providerList, {});
  const tables = await Promise.all(
    view.providers.map(async ({ id }) => [id, await ask(groupTable, { providerId: id })] as const),
  );
  return (
    <SignOn view={view} groups={Object.fromEntries(tables)} isOwner={role === "owner"} zone={zone} now={Date.now()} />
  );
}
