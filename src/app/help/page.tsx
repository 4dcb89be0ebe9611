import { HelpPage } from "@/interface/help/HelpPage";
import { readerOf } from "@/interface/help/topics";
import { askOrNull, helpReader, organisationName } from "@/server/page";
import { helpNote } from "@/server/rules/helpNote";

export const metadata = { title: "Help" };

export default async function Help() {
  const [organisation, who, note] = await Promise.all([organisationName(), helpReader(), askOrNull(helpNote, {})]);
  return <HelpPage organisation={organisation} note={note ?? ""} reader={who && readerOf(who)} />;
}
