import { notFound } from "next/navigation";
import { GroupsOnly, People } from "@/interface/people/People";
import { isAdministrator } from "@/server/caller";
import { ask, me } from "@/server/page";
import { groupList } from "@/server/people/groupPage";
import { personList } from "@/server/people/persons";

export const metadata = { title: "People" };

export default async function PeoplePage() {
  const { id, role, zone } = await me();
  const groups = role === "guest" ? [] : await ask(groupList, {});
  const now = Date.now();
  if (isAdministrator(role)) {
    const people = await ask(personList, {});
    return <People people={people} groups={groups} me={id} isOwner={role === "owner"} zone={zone} now={now} />;
  }
  if (groups.length === 0) notFound();
  return <GroupsOnly groups={groups} zone={zone} now={now} />;
}
