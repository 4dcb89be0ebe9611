import { notFound } from "next/navigation";
import { Reports } from "@/interface/reports/Reports";
import { isAdministrator, readsAll } from "@/server/caller";
import { ask, me } from "@/server/page";
import { ownReportMails } from "@/server/reports/mailed";

export const metadata = { title: "Reports" };

export default async function ReportsPage() {
  const [{ role, steward }, mailed] = await Promise.all([me(), ask(ownReportMails, {})]);
  if (!steward && !readsAll(role)) notFound();
  return <Reports upkeep={steward || isAdministrator(role)} mailed={mailed} />;
}
