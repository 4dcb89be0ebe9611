import { notFound } from "next/navigation";
import { HouseKeys } from "@/interface/rules/HouseKeys";
import { ask, me } from "@/server/page";
import { houseKeys } from "@/server/rules/houseKeys";

export const metadata = { title: "Keys of the house" };

export default async function KeysPage() {
  const { role } = await me();
  if (role !== "owner") notFound();
  return <HouseKeys view={await ask(houseKeys, {})} />;
}
