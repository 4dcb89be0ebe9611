import { notFound } from "next/navigation";
import { AddPeople } from "@/interface/people/AddPeople";
import { isAdministrator } from "@/server/caller";
import { galtry } from "@/server/galtry";
import { me } from "@/server/page";

export const metadata = { title: "Add people" };

export default async function AddPeoplePage() {
  const [{ role, zone }, app] = await Promise.all([me(), galtry()]);
  if (!isAdministrator(role)) notFound();
  return <AddPeople mails={app.configuration.mail !== null} zone={zone} now={Date.now()} />;
}
