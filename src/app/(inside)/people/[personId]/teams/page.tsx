import { Teams } from "@/interface/people/Teams";
import { ask, me } from "@/server/page";
import { teamsPage } from "@/server/people/teams";

export const metadata = { title: "Changes teams" };

export default async function TeamsPage({ params }: { params: Promise<{ personId: string }> }) {
  const [{ personId }, { id, zone }] = await Promise.all([params, me()]);
  return <Teams view={await ask(teamsPage, { personId })} me={id} zone={zone} now={Date.now()} />;
}
