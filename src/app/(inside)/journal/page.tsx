import { Journal } from "@/interface/journal/Journal";
import { dayAfter, dayOf, fromLocal } from "@/interface/shared/localTime";
import { isAdministrator, readsAll } from "@/server/caller";
import { isActs, journalPage } from "@/server/journal/page";
import { ask, me } from "@/server/page";

export const metadata = { title: "Journal" };

export default async function JournalPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | undefined>>;
}) {
  const [{ role, steward, zone }, search] = await Promise.all([me(), searchParams]);
  const filters = {
    person: search.person ?? null,
    acts: isActs(search.acts) ? search.acts : null,
    node: search.node ?? null,
    words: search.words ?? null,
    from: dayOf(search.from),
    to: dayOf(search.to),
  };
  const view = await ask(journalPage, {
    before: search.before ?? null,
    from: filters.from === null ? null : fromLocal(`${filters.from}T00:00`, zone),
    until: filters.to === null ? null : fromLocal(`${dayAfter(filters.to)}T00:00`, zone),
    personId: filters.person,
    nodeId: filters.node,
    acts: filters.acts,
    words: (filters.words ?? "").slice(0, 200),
  });
  return (
    <Journal
      view={view}
      byPerson={isAdministrator(role)}
      reports={steward || readsAll(role)}
      filters={filters}
      now={Date.now()}
    />
  );
}
