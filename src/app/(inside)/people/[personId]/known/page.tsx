import { KnownPage } from "@/interface/people/KnownPage";
import { ask, me } from "@/server/page";
import { knownPage } from "@/server/people/changeLists";
import { ownRuns } from "@/server/signin/runs";

export const metadata = { title: "Passwords someone has seen" };

export default async function Known({ params }: { params: Promise<{ personId: string }> }) {
  const { personId } = await params;
  const [{ zone }, view, runs] = await Promise.all([
    me(),
    ask(knownPage, { personId }),
    ask(ownRuns, { aboutId: personId }),
  ]);
  return <KnownPage {...{ view, runs, zone }} now={Date.now()} />;
}
