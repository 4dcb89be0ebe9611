import { PersonPage } from "@/interface/people/PersonPage";
import { ask, me } from "@/server/page";
import { personPage } from "@/server/people/personPage";

export const metadata = { title: "Person" };

export default async function Person({ params }: { params: Promise<{ personId: string }> }) {
  const { personId } = await params;
  const { zone } = await me();
  return <PersonPage person={await ask(personPage, { personId })} zone={zone} />;
}
