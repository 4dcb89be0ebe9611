import { notFound } from "next/navigation";
import { People } from "@/interface/people/People";
import { isAdministrator } from "@/server/caller";
import { ask, me } from "@/server/page";
import { groupList } from "@/server/people/groups";
import { personList } from "@/server/people/persons";

export const metadata = { title: "People" };

export default async function PeoplePage() {
  const { id, role, zone } = await me();
  if (!isAdministrator(role)) notFound();
  const [people, groups] = await Promise.all([ask(personList, {}), ask(groupList, {})]);
  return <People people={people} groups={groups} me={id} isOwner={role === "owner"} zone={zone} now={Date.now()} />;
}
