import { notFound } from "next/navigation";
import { Reports } from "@/interface/reports/Reports";
import { isAdministrator, readsAll } from "@/server/caller";
import { me } from "@/server/page";

export const metadata = { title: "Reports" };

export default async function ReportsPage() {
  const { role, steward } = await me();
  if (!steward && !readsAll(role)) notFound();
  return <Reports upkeep={steward || isAdministrator(role)} />;
}
