import { notFound } from "next/navigation";
import { filterFrom } from "@/core/people/peopleFilter";
import { GroupsOnly, People } from "@/interface/people/People";
import { readsAll } from "@/server/caller";
import { ask, me } from "@/server/page";
import { groupList } from "@/server/people/groupPage";
import { personList } from "@/server/people/peopleList";

export const metadata = { title: "People" };

export default async function PeoplePage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const [{ id, role, zone }, search] = await Promise.all([me(), searchParams]);
  const all = "groups" in search || !readsAll(role);
  const { groups, count } = role === "guest" ? { groups: [], count: 0 } : await ask(groupList, { all });
  const now = Date.now();
  if (readsAll(role)) {
    const filter = filterFrom(search);
    const from = Math.max(0, Math.trunc(Number(search.from ?? 0))) || 0;
    const list = await ask(personList, { ...filter, from });
    return (
      <People
        {...{ list, filter, from, groups, zone, now }}
        groupCount={count}
        me={id}
        isOwner={role === "owner"}
        reads={role === "auditor"}
      />
    );
  }
  if (groups.length === 0) notFound();
  return <GroupsOnly groups={groups} zone={zone} now={now} />;
}
