import { EVERYBODY } from "@/core/people/peopleFilter";
import { PersonPage } from "@/interface/people/PersonPage";
import { ask, me } from "@/server/page";
import { personList } from "@/server/people/peopleList";
import { personPage } from "@/server/people/personPage";
import { looksAfter, personRecord } from "@/server/people/personRecord";

export const metadata = { title: "Person" };

export default async function Person({ params }: { params: Promise<{ personId: string }> }) {
  const [{ personId }, { role, zone }] = await Promise.all([params, me()]);
  const person = await ask(personPage, { personId });
  const props = { person, zone, now: Date.now() };
  if (!looksAfter(role, person)) return <PersonPage {...props} managed={null} />;
  const [record, list] = await Promise.all([
    ask(personRecord, { personId }),
    ask(personList, { ...EVERYBODY, text: person.mail, state: "any", from: 0 }),
  ]);
  const line = list.people.find(({ id }) => id === personId) ?? null;
  return <PersonPage {...props} managed={line && { record, line, mails: list.mails, isOwner: role === "owner" }} />;
}
