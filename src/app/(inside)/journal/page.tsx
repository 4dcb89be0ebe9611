import { Journal } from "@/interface/journal/Journal";
import { isAdministrator } from "@/server/caller";
import { journalPage } from "@/server/journal/page";
import { ask, me } from "@/server/page";

export const metadata = { title: "Journal" };

export default async function JournalPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | undefined>>;
}) {
  const [{ role }, search] = await Promise.all([me(), searchParams]);
  const filters = { person: search.person ?? null, acts: search.acts ?? null, node: search.node ?? null };
  const view = await ask(journalPage, {
    before: search.before ?? null,
    personId: filters.person,
    nodeId: filters.node,
    acts: filters.acts as never,
  });
  return <Journal view={view} byPerson={isAdministrator(role)} filters={filters} now={Date.now()} />;
}
