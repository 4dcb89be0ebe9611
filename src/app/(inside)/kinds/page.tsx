import { notFound } from "next/navigation";
import { Kinds } from "@/interface/kinds/Kinds";
import { ask, me } from "@/server/page";
import { kindList } from "@/server/vaults/kinds";

export const metadata = { title: "Own kinds" };

export default async function KindsPage() {
  const { role } = await me();
  if (role === "guest") notFound();
  return <Kinds view={await ask(kindList, {})} />;
}
