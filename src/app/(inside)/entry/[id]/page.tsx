import { notFound } from "next/navigation";
import { levelWord } from "@/core/access/level";
import { sayDay } from "@/core/time";
import { Ended } from "@/interface/entry/Ended";
import { EntryAtUse } from "@/interface/entry/EntryAtUse";
import { EntryFull } from "@/interface/entry/EntryFull";
import { Page } from "@/interface/frame/Frame";
import { guestList } from "@/server/access/guests";
import { whoCanDoWhat } from "@/server/access/who";
import { whyEnded } from "@/server/access/whyEnded";
import { ask, askOrNull, me } from "@/server/page";
import { openSessions } from "@/server/signin/signingOut";
import { entryPage } from "@/server/vaults/entryPage";

export const metadata = { title: "Entry" };

const MAY = {
  use: "You can sign in with this.",
  reveal: "You can sign in with this and reveal it.",
  edit: "You can edit this.",
  steward: "You are a steward of this.",
} as const;

export default async function EntryPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<Record<string, string>>;
}) {
  const [{ id }, search] = await Promise.all([params, searchParams, me()]);
  const entry = await askOrNull(entryPage, { entryId: id });
  if (!entry) {
    const ended = await askOrNull(whyEnded, { entryId: id });
    return ended ? <Ended says={ended.says} /> : notFound();
  }
  const who = entry.level === "steward" ? await ask(whoCanDoWhat, { nodeId: id }) : null;
  const guests = entry.level === "steward" ? await ask(guestList, { nodeId: id }) : null;
  const left = entry.level === "steward" ? (await ask(openSessions, { entryId: id })).filter((one) => !one.mayUse) : [];
  const now = Date.now();
  return (
    <Page
      where={
        <>
          <a href="/vaults">Vaults</a> · <a href={`/vaults/${entry.vault.id}`}>{entry.vault.name}</a>
          {entry.folders.map((folder) => (
            <span key={folder.id}>
              {" "}
              · <a href={`/vaults/${entry.vault.id}?in=${folder.id}`}>{folder.name}</a>
            </span>
          ))}
          . {entry.reveal && `Changed ${sayDay(entry.changedAt, now, entry.zone)} by ${entry.reveal.changedBy}. `}
          <b>{MAY[entry.level]}</b>
          <span className="unseen"> {levelWord(entry.level)}</span>
        </>
      }
    >
      {entry.level === "use" ? (
        <EntryAtUse entry={entry} now={now} />
      ) : (
        <EntryFull entry={entry} {...{ who, guests, left, now }} edit={"edit" in search} />
      )}
    </Page>
  );
}
