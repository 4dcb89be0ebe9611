"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { atLeast } from "@/core/access/level";
import { sayTime } from "@/core/time";
import { Guests, type GuestsView } from "../guests/Guests";
import { runCommand, useCommand } from "../shared/ask";
import { Act, Button, Notice, Row } from "../shared/controls";
import { useDone } from "../shared/Done";
import { useLanyard } from "../shared/lanyard";
import { PictureSheet } from "../shared/PictureSheet";
import { Stamp } from "../shared/Stamp";
import { useCopy } from "../shared/useCopy";
import { SignInNotice, useSignIn } from "../shared/useSignIn";
import { FindingsHere } from "../upkeep/FindingsHere";
import { CarrySheet } from "../vaults/CarrySheet";
import { AskAgain } from "./AskAgain";
import { AsksFirst } from "./AsksFirst";
import { Attachments } from "./Attachments";
import { Before, isReady } from "./Before";
import { BinDialog, Erase, Restore, sayDaysLeft } from "./Bin";
import { Card, CardPage, CardTitle, capital, Fact, Story } from "./Card";
import { ConvertSheet } from "./ConvertSheet";
import { howItWent, WhatYouMayDo } from "./EntryAtUse";
import { EntryForm } from "./EntryForm";
import { FieldFacts } from "./FieldFacts";
import { HandOver } from "./HandOver";
import { Listed } from "./Listed";
import { Markdown } from "./Markdown";
import { SeenBy } from "./SeenBy";
import { entryFull as t } from "./strings";
import type { EntryView } from "./types";
import { WhoCanDoWhat, type WhoView } from "./WhoCanDoWhat";

/** An entry as who may reveal, edit or steward it sees it: the whole catalogue card. */
export function EntryFull({
  entry,
  who,
  guests,
  left,
  now,
  edit,
}: {
  entry: EntryView;
  who: WhoView | null;
  guests: GuestsView | null;
  left: LeftOpen[];
  now: number;
  edit: boolean;
}) {
  const router = useRouter();
  const done = useDone();
  const { lanyard } = useLanyard();
  const { signing, start, clear } = useSignIn();
  const { copy, copied } = useCopy();
  const once = useCommand("vaults.tryPasswordAgain");
  const pin = useCommand("frontdesk.pinEntry");
  const [binning, setBinning] = useState(false);
  const [handing, setHanding] = useState(false);
  const [carrying, setCarrying] = useState<"move" | "copy" | null>(null);
  const [converting, setConverting] = useState(false);
  const [picturing, setPicturing] = useState(false);
  const aside = useCommand("vaults.setAside");
  useEffect(() => void runCommand("frontdesk.markEntrySeen", { entryId: entry.id }), [entry.id]);
  const signsIn = entry.signInPage !== "";
  const mayEdit = atLeast(entry.level, "edit") && entry.binnedAt === null;
  const steward = entry.level === "steward";
  const begin = () => void start({ id: entry.id, name: entry.name, site: entry.site, signInPage: entry.signInPage });
  if (edit && mayEdit)
    return <EntryForm kind={entry.kind} entry={entry} vaultId={entry.vault.id} parent={entry.vault} />;
  return (
    <CardPage>
      <div>
        <CardTitle>
          <Stamp name={entry.name} picture={entry.picture} large />
          <div>
            <h1>{entry.name}</h1>
            <p className="soft small">{[entry.kind.name, entry.description].filter(Boolean).join(" · ")}</p>
          </div>
          {mayEdit && <Button onPress={() => router.push(`/entry/${entry.id}?edit`)}>{t.edit}</Button>}
          {signsIn && entry.binnedAt === null && entry.asideAt === null && (
            <Button look="go" onPress={begin} isDisabled={lanyard?.state !== "connected" || !isReady(entry, now)}>
              {t.signIn}
            </Button>
          )}
        </CardTitle>
        <Before entry={entry} now={now} />
        {entry.binnedAt !== null && (
          <Notice style={{ marginBottom: 16 }}>
            {t.sinceNobodyCanUseItUntilIt(
              <b>{t.inTheBin}</b>,
              sayTime(entry.binnedAt, now, entry.zone),
              sayDaysLeft(entry.binnedAt, now),
            )}
            <Row style={{ marginTop: 8 }}>
              <Restore entry={entry} />
              <Erase entry={entry} />
            </Row>
          </Notice>
        )}
        {entry.asideAt !== null && entry.binnedAt === null && (
          <Notice style={{ marginBottom: 16 }}>
            {t.sinceItStaysHereButIsNot(<b>{t.setAside}</b>, sayTime(entry.asideAt, now, entry.zone))}
            {mayEdit && (
              <Row style={{ marginTop: 8 }}>
                <Button onPress={() => aside.run({ entryIds: [entry.id], aside: false })}>{t.restore}</Button>
              </Row>
            )}
          </Notice>
        )}
        {signsIn && lanyard && lanyard.state !== "connected" && entry.binnedAt === null && (
          <p className="small soft" style={{ marginBottom: 12 }}>
            {t.youNeedLanyardInThisBrowserTo(
              <a href={lanyard.state === "absent" ? "/lanyard" : "/lanyard/connect"}>
                {lanyard.state === "absent" ? t.getLanyard : t.connectIt}
              </a>,
            )}
          </p>
        )}
        {entry.refused && (
          <Notice data-tone="bad" style={{ marginBottom: 16 }}>
            {t.galtryWillNotSendThemAgain(<b>{t.theSiteRejectedThisUserNameAnd}</b>)}
            {mayEdit && (
              <Row style={{ marginTop: 8 }}>
                <Button onPress={() => once.run({ entryId: entry.id })}>{t.tryAgain}</Button>
              </Row>
            )}
          </Notice>
        )}
        {entry.findings && entry.findings.length > 0 && (
          <FindingsHere rows={entry.findings} now={now} zone={entry.zone} />
        )}
        {signing && (
          <div style={{ marginBottom: 16 }}>
            <SignInNotice
              signing={signing}
              stewards={entry.own.stewards}
              mends={mayEdit}
              onClose={clear}
              onAgain={begin}
            />
          </div>
        )}
        <Card>
          {signsIn && (
            <>
              <Fact
                label={t.signInPage}
                act={
                  <Act onPress={() => copy(entry.signInPage)}>{copied === entry.signInPage ? t.copied : t.copy}</Act>
                }
              >
                <span className="mono">{entry.signInPage}</span>
              </Fact>
              <Fact label={t.lanyardOffersItOn}>{entry.reach === "site" ? t.theWholeSite : t.thisHostOnly}</Fact>
            </>
          )}
          <FieldFacts entry={entry} now={now} blanks />
          {signsIn && (
            <Fact
              label={t.signingIn}
              act={
                mayEdit ? (
                  <Link href={`/entry/${entry.id}/steps`} prefetch={false}>
                    {t.signInSteps}
                  </Link>
                ) : undefined
              }
            >
              {t.guardedFill(howItWent(entry, now), entry.guardedFill ? t.on : t.off)}
            </Fact>
          )}
          {entry.notes && (
            <Fact label={t.notes}>
              <Markdown text={entry.notes} />
            </Fact>
          )}
          {steward && entry.binnedAt === null && <AskAgain entry={entry} />}
          {steward && entry.binnedAt === null && <AsksFirst entry={entry} />}
          {steward && entry.binnedAt === null && <Listed entry={entry} />}
          {entry.tags.length > 0 && <Fact label={t.tags}>{entry.tags.join(", ")}</Fact>}
          {entry.alike.length > 0 && (
            <Fact label={t.atTheSameSite}>
              {entry.alike.map((other) => (
                <span key={other.id} style={{ display: "block" }}>
                  <a href={`/entry/${other.id}`}>{other.name}</a>
                  {other.description && `, ${other.description}`}
                </span>
              ))}
            </Fact>
          )}
          {entry.reveal && (
            <Fact label={t.added}>
              {capital(sayTime(entry.reveal.createdAt, now, entry.zone))}
              {entry.reveal.createdBy && t.by(entry.reveal.createdBy)}
              {entry.versions && entry.versions.length > 1 && (
                <>
                  ;{" "}
                  <Link href={`/entry/${entry.id}/earlier`} prefetch={false}>
                    {t.changed(entry.versions.length - 1)}
                  </Link>
                </>
              )}
            </Fact>
          )}
        </Card>
        <Row style={{ marginTop: 16 }}>
          <Button onPress={() => pin.run({ entryId: entry.id, pinned: !entry.pinned })}>
            {entry.pinned ? t.unpin : t.pinToTheFrontDesk}
          </Button>
          {mayEdit && <Button onPress={() => setCarrying("move")}>{t.move}</Button>}
          {mayEdit && <Button onPress={() => setCarrying("copy")}>{t.duplicate}</Button>}
          {mayEdit && <Button onPress={() => setConverting(true)}>{t.changeTheKind}</Button>}
          {mayEdit && <Button onPress={() => setPicturing(true)}>{t.picture}</Button>}
          {mayEdit && entry.asideAt === null && (
            <Button
              onPress={async () => {
                if ((await aside.run({ entryIds: [entry.id], aside: true })).ok)
                  done(t.isSetAside(entry.name), [
                    { command: "vaults.setAside", input: { entryIds: [entry.id], aside: false } },
                  ]);
              }}
            >
              {t.setAside}
            </Button>
          )}
          {entry.mayHandOver && entry.binnedAt === null && (
            <Button onPress={() => setHanding(true)}>{t.createAHandoverLink}</Button>
          )}
          {steward && entry.binnedAt === null && (
            <Button look="harm" onPress={() => setBinning(true)}>
              {t.putInTheBin}
            </Button>
          )}
        </Row>
        <Attachments entry={entry} now={now} />
        <Story
          title={steward ? t.inTheJournal : t.whatYouDidHere}
          lines={entry.story}
          own={!steward}
          zone={entry.zone}
          now={now}
        />
      </div>
      <aside>
        {who ? (
          <WhoCanDoWhat nodeId={entry.id} nodeWord={t.thisEntry} who={who} zone={entry.zone} now={now} />
        ) : (
          <WhatYouMayDo entry={entry} />
        )}
        {who && entry.binnedAt === null && (
          <Guests first={guests} nodeId={entry.id} name={entry.name} zone={entry.zone} now={now} />
        )}
        {left.length > 0 && <StillSignedIn left={left} site={entry.site} zone={entry.zone} now={now} />}
        {entry.seenBy && <SeenBy seenBy={entry.seenBy} zone={entry.zone} now={now} />}
      </aside>
      {carrying && (
        <CarrySheet how={carrying} nodes={[entry]} vaultId={entry.vault.id} onClose={() => setCarrying(null)} />
      )}
      {picturing && (
        <PictureSheet
          name={entry.name}
          picture={entry.picture}
          own={entry.ownPicture}
          command="vaults.setPicture"
          inputOf={(picture) => ({ entryId: entry.id, picture })}
          onClose={() => setPicturing(false)}
        />
      )}
      {converting && <ConvertSheet entry={entry} onClose={() => setConverting(false)} />}
      <BinDialog entry={entry} open={binning} onClose={() => setBinning(false)} />
      {handing && <HandOver entry={entry} now={now} onClose={() => setHanding(false)} />}
    </CardPage>
  );
}

/** People whose access has ended and whose session at the site Galtry could not end itself. */
export interface LeftOpen {
  personId: string;
  name: string;
  at: number;
}

function StillSignedIn({ left, site, zone, now }: { left: LeftOpen[]; site: string; zone: string; now: number }) {
  return (
    <section style={{ marginTop: 28, paddingTop: 12, borderTop: "1px solid var(--edge)" }}>
      <h2 style={{ marginBottom: 4 }}>{t.mayStillBeSignedIn}</h2>
      <p>{t.theirAccessHasEndedAndLanyard(site)}</p>
      <ul>
        {left.map((one) => (
          <li key={one.personId} className="small">
            {t.signedIn(<b>{one.name}</b>, sayTime(one.at, now, zone))}
          </li>
        ))}
      </ul>
    </section>
  );
}
