"use client";

import { Check, X } from "lucide-react";
import { useEffect, useState } from "react";
import styled from "styled-components";
import { atLeast, levelWord } from "@/core/access/level";
import { USER_NAME } from "@/core/kinds/kind";
import { FAILURES } from "@/core/signin/outcome";
import { exactTime, sayTime } from "@/core/time";
import { RequestSheet } from "../requests/RequestSheet";
import { runCommand, useCommand } from "../shared/ask";
import { CutKey } from "../shared/CutKey";
import { Act, Button, ButtonLink, Chip, Row } from "../shared/controls";
import { useLanyard } from "../shared/lanyard";
import { Stamp } from "../shared/Stamp";
import { useCopy } from "../shared/useCopy";
import { SignInNotice, useSignIn } from "../shared/useSignIn";
import { Attachments } from "./Attachments";
import { Before, isReady } from "./Before";
import { Card, CardPage, CardTitle, Fact, Story } from "./Card";
import { DidNotWork } from "./DidNotWork";
import { FieldFacts } from "./FieldFacts";
import { Markdown } from "./Markdown";
import { entryAtUse as t } from "./strings";
import type { EntryView } from "./types";

const Big = styled.div`
  display: flex;
  align-items: center;
  gap: 20px;
  padding: 20px 0;
  border-top: 4px double var(--ink);
  border-bottom: 1px solid var(--rule);
  @media (max-width: 719px) { flex-direction: column; align-items: stretch; gap: 12px; }
`;

const May = styled.section`
  .level { display: flex; align-items: center; gap: 14px; margin: 8px 0; padding-top: 12px; border-top: 1px solid var(--edge); font: 650 18px/24px var(--text); }
  ul { margin: 14px 0; }
  li { display: grid; grid-template-columns: 16px 1fr; gap: 10px; padding: 3px 0; align-items: start; }
  li svg { margin-top: 3px; }
  .not { color: var(--soft); }
  > p + p { margin-top: 8px; }
`;

/** The page most people know: one large act, and in plain words what it does and does not show. */
export function EntryAtUse({ entry, now }: { entry: EntryView; now: number }) {
  const { lanyard } = useLanyard();
  const { signing, start, clear } = useSignIn();
  const { copy, copied } = useCopy();
  const pin = useCommand("frontdesk.pinEntry");
  useEffect(() => void runCommand("frontdesk.markEntrySeen", { entryId: entry.id }), [entry.id]);
  const begin = () => void start({ id: entry.id, name: entry.name, site: entry.site, signInPage: entry.signInPage });
  const connected = lanyard?.state === "connected";
  const signsIn = entry.signInPage !== "";
  const userName = entry.fields.find((field) => field.id === USER_NAME);
  return (
    <CardPage>
      <div>
        <CardTitle>
          <Stamp name={entry.name} picture={entry.picture} large />
          <div>
            <h1>{entry.name}</h1>
            <p className="soft small">{[entry.kind.name, entry.description].filter(Boolean).join(" · ")}</p>
          </div>
        </CardTitle>
        <Before entry={entry} now={now} />
        {signsIn && isReady(entry, now) && (
          <Big>
            {connected || lanyard === null ? (
              <>
                <Button
                  look="go"
                  big
                  onPress={begin}
                  isDisabled={lanyard === null || (signing !== null && signing.report === null)}
                >
                  {t.signInTo(entry.site)}
                </Button>
                <p className="small soft">
                  {t.opensInANewTabAlreadySigned}
                  <br />
                  {connected ? t.lanyardIsConnectedInThis : t.lookingForLanyardInThisBrowser}
                </p>
              </>
            ) : (
              <>
                <ButtonLink
                  href={lanyard.state === "absent" ? "/lanyard" : "/lanyard/connect"}
                  data-look="go"
                  data-big="true"
                >
                  {lanyard.state === "absent" ? t.getLanyardToSignIn : t.connectLanyardToSignIn}
                </ButtonLink>
                <p className="small soft">
                  {lanyard.state === "absent" ? t.signingInNeedsLanyardGaltrys : t.lanyardIsInThisBrowserButNot}
                </p>
              </>
            )}
          </Big>
        )}
        {entry.refused && !signing && (
          <p style={{ padding: "12px 0", borderBottom: "1px solid var(--rule)" }}>
            <Chip data-tone="bad">{t.rejectedByTheSite}</Chip>
            {t.theSiteRejectedTheSaved}
          </p>
        )}
        {signing && (
          <div style={{ padding: "12px 0" }}>
            <SignInNotice signing={signing} stewards={entry.own.stewards} onClose={clear} onAgain={begin} />
          </div>
        )}
        <Card style={signsIn && isReady(entry, now) ? { borderTop: 0 } : undefined}>
          {signsIn && (
            <Fact
              label={t.site}
              act={<Act onPress={() => copy(entry.site)}>{copied === entry.site ? t.copied : t.copy}</Act>}
            >
              <span className="mono">{entry.site}</span>
            </Fact>
          )}
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
          <FieldFacts entry={entry} now={now} blanks={false} />
          <Fact label="">
            {signsIn ? (
              <>
                {userName ? t.itsPasswordStaysInGaltryItIs : t.itsUserNameAndPasswordStayIn}
                {entry.guardedFill && t.withGuardedFillWhichTheSteward}
              </>
            ) : (
              t.itsSecretFieldsStayInGaltryYou
            )}
          </Fact>
          {signsIn && entry.hasCode && <Fact label={t.oneTimeCode}>{t.galtryEntersItForYouWhenThe}</Fact>}
          {entry.notes && (
            <Fact label={t.notes}>
              <Markdown text={entry.notes} />
            </Fact>
          )}
          {entry.tags.length > 0 && <Fact label={t.tags}>{entry.tags.join(", ")}</Fact>}
          {signsIn && <Fact label={t.signingIn}>{howItWent(entry, now)}</Fact>}
        </Card>
        <Attachments entry={entry} now={now} />
        <Story title={t.whatYouDidHere} lines={entry.story} own zone={entry.zone} now={now} />
      </div>
      <aside>
        <WhatYouMayDo entry={entry} />
        <Row style={{ marginTop: 16, paddingTop: 14, borderTop: "1px solid var(--edge)" }}>
          <Button onPress={() => pin.run({ entryId: entry.id, pinned: !entry.pinned })}>
            {entry.pinned ? t.unpin : t.pinToTheFrontDesk}
          </Button>
          {signsIn && <DidNotWork entry={entry} />}
        </Row>
      </aside>
    </CardPage>
  );
}

export function howItWent(entry: EntryView, now: number): string {
  const { lastSignIn } = entry;
  const how = entry.guardedFill ? t.sealedSignInOrGuardedFill : t.sealedSignIn;
  if (!lastSignIn) return t.notUsedYet(how);
  const when = sayTime(lastSignIn.at, now, entry.zone);
  if (lastSignIn.outcome === "signed-in") return t.worked(how, when);
  const failure = FAILURES[lastSignIn.outcome as keyof typeof FAILURES];
  return t.it(how, when, failure?.title ?? "failed", lastSignIn.detail ? ` (${lastSignIn.detail})` : "");
}

/** The reader's own level: its sign, why, and what follows. */
export function WhatYouMayDo({ entry }: { entry: EntryView }) {
  const [asking, setAsking] = useState(false);
  const { own } = entry;
  const signsIn = entry.signInPage !== "";
  const until = own.until === null ? null : exactTime(own.until, entry.zone);
  const may = (needed: "use" | "reveal" | "edit", text: string) => (
    <li className={atLeast(own.level, needed) ? undefined : "not"}>
      {atLeast(own.level, needed) ? (
        <Check size={16} aria-label={t.yes} style={{ color: "var(--moss)" }} />
      ) : (
        <X size={16} aria-label={t.no} />
      )}
      <span>{text}</span>
    </li>
  );
  return (
    <May>
      <h2>{t.whatYouCanDo}</h2>
      <p className="level">
        <CutKey level={own.level === "none" ? "use" : own.level} inherited={own.inherited} until={until} silent />{" "}
        {levelWord(own.level)}
      </p>
      <p>
        {own.sentence}
        {own.until === null && own.level !== "none" ? t.itHasNoEndDate : ""}
      </p>
      <ul>
        {signsIn && may("use", t.signInAsOftenAsYouNeed)}
        {signsIn && entry.hasCode && may("use", t.haveGaltryEnterTheOneTimeCode)}
        {may("use", signsIn ? t.readItsSiteNotesAndTags : t.readItsOtherFieldsNotesAndTags)}
        {may(
          "reveal",
          !signsIn
            ? t.revealOrCopyItsSecretFields
            : entry.useSeesUserName
              ? t.revealOrCopyItsPassword
              : t.revealOrCopyItsUserNameAnd,
        )}
        {may("edit", t.editIt)}
      </ul>
      {own.stewards.length > 0 && own.level !== "steward" && (
        <p>
          <b>{own.stewards.join(", ")}</b>
          {own.stewards.length === 1 ? t.itsStewardCanChangeThat : t.itsStewardsCanChangeThat}
        </p>
      )}
      {own.level !== "steward" && !(entry.guest && own.level === "edit") && entry.binnedAt === null && (
        <Button style={{ marginTop: 12 }} onPress={() => setAsking(true)}>
          {t.requestMoreAccess}
        </Button>
      )}
      {asking && (
        <RequestSheet
          nodeId={entry.id}
          name={entry.name}
          has={own.level}
          guest={entry.guest}
          stewards={own.stewards}
          zone={entry.zone}
          onClose={() => setAsking(false)}
        />
      )}
    </May>
  );
}
