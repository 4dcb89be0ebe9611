import { notFound } from "next/navigation";
import { Sites } from "@/interface/sites/Sites";
import { ask, me } from "@/server/page";
import { kindList } from "@/server/vaults/kinds";
import { siteList } from "@/server/vaults/sites";

export const metadata = { title: "Sites we use" };

export default async function SitesPage() {
  const { role } = await me();
  if (role === "guest") notFound();
  const [view, { kinds }] = await Promise.all([ask(siteList, {}), ask(kindList, {})]);
  return <Sites view={view} kinds={kinds} />;
}
