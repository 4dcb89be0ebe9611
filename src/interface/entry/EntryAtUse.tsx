"use client";

import { Check, X } from "lucide-react";
import { useEffect, useState } from "react";
import styled from "styled-components";
import { atLeast, levelWord } from "@/core/access/level";
import { USER_NAME } from "@/core/kinds/kind";
import { FAILURES } from "@/core/signin/outcome";
import { exactTime, sayTime } from "@/core/time";
import { AskSheet } from "../asking/AskSheet";
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
  const pin = useCommand("frontdesk.pin");
  useEffect(() => void runCommand("frontdesk.meet", { entryId: entry.id }), [entry.id]);
  const begin = () => void start({ id: entry.id, name: entry.name, site: entry.site });
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
                  Sign in to {entry.site}
                </Button>
                <p className="small soft">
                  Opens in a new tab, already signed in.
                  <br />
                  {connected ? "Lanyard is connected in this browser." : "Looking for Lanyard in this browser."}
                </p>
              </>
            ) : (
              <>
                <ButtonLink
                  href={lanyard.state === "absent" ? "/lanyard" : "/lanyard/connect"}
                  data-look="go"
                  data-big="true"
                >
                  {lanyard.state === "absent" ? "Get Lanyard to sign in" : "Connect Lanyard to sign in"}
                </ButtonLink>
                <p className="small soft">
                  {lanyard.state === "absent"
                    ? "Signing in needs Lanyard, Galtry’s browser extension, in this browser. On a phone there is none yet: sign in on a computer."
                    : "Lanyard is in this browser, but not connected yet."}
                </p>
              </>
            )}
          </Big>
        )}
        {entry.refused && !signing && (
          <p style={{ padding: "12px 0", borderBottom: "1px solid var(--rule)" }}>
            <Chip data-tone="bad">refused by the site</Chip> The site did not accept the password that is kept. Nobody
            sends it again until it is put right.
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
              label="Site"
              act={<Act onPress={() => copy(entry.site)}>{copied === entry.site ? "Copied" : "Copy"}</Act>}
            >
              <span className="mono">{entry.site}</span>
            </Fact>
          )}
          {entry.alike.length > 0 && (
            <Fact label="At the same site">
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
                {userName
                  ? "Its password stays with Galtry. It is not sent to this browser, so there is nothing here to keep safe or to pass on."
                  : "Its user name and password stay with Galtry. Neither is sent to this browser, so there is nothing here to keep safe or to pass on."}
                {entry.guardedFill &&
                  " With guarded fill, which the steward has switched on, they are sent to this browser at that moment, and you count among those who have seen them."}
              </>
            ) : (
              "What is kept secret in it stays with Galtry. To see it you need Reveal."
            )}
          </Fact>
          {signsIn && entry.hasCode && <Fact label="One-time code">Galtry enters it for you when the site asks</Fact>}
          {entry.notes && (
            <Fact label="Notes">
              <Markdown text={entry.notes} />
            </Fact>
          )}
          {entry.tags.length > 0 && <Fact label="Tags">{entry.tags.join(", ")}</Fact>}
          {signsIn && <Fact label="Signing in">{howItWent(entry, now)}</Fact>}
        </Card>
        <Attachments entry={entry} now={now} />
        <Story title="What you did here" lines={entry.story} own zone={entry.zone} now={now} />
      </div>
      <aside>
        <WhatYouMayDo entry={entry} />
        <Row style={{ marginTop: 16, paddingTop: 14, borderTop: "1px solid var(--edge)" }}>
          <Button onPress={() => pin.run({ entryId: entry.id, pinned: !entry.pinned })}>
            {entry.pinned ? "Unpin" : "Pin to the Front desk"}
          </Button>
          {signsIn && <DidNotWork entry={entry} />}
        </Row>
      </aside>
    </CardPage>
  );
}

export function howItWent(entry: EntryView, now: number): string {
  const { lastSignIn } = entry;
  const how = entry.guardedFill ? "Sealed sign-in, or guarded fill" : "Sealed sign-in";
  if (!lastSignIn) return `${how}; not used yet`;
  const when = sayTime(lastSignIn.at, now, entry.zone);
  if (lastSignIn.outcome === "signed-in") return `${how}, worked ${when.replace(", ", " at ")}`;
  const failure = FAILURES[lastSignIn.outcome as keyof typeof FAILURES];
  return `${how}. ${when}: it ${failure?.title ?? "failed"}${lastSignIn.detail ? ` (${lastSignIn.detail})` : ""}`;
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
        <Check size={16} aria-label="yes:" style={{ color: "var(--moss)" }} />
      ) : (
        <X size={16} aria-label="no:" />
      )}
      <span>{text}</span>
    </li>
  );
  return (
    <May>
      <h2>What you may do</h2>
      <p className="level">
        <CutKey level={own.level === "none" ? "use" : own.level} inherited={own.inherited} until={until} silent />{" "}
        {levelWord(own.level)}
      </p>
      <p>
        {own.sentence}
        {own.until === null && own.level !== "none" ? " It has no end date." : ""}
      </p>
      <ul>
        {signsIn && may("use", "Sign in, as often as you need")}
        {signsIn && entry.hasCode && may("use", "Leave its one-time code to Galtry")}
        {may("use", signsIn ? "Read its site, notes and tags" : "Read what is open in it, its notes and tags")}
        {may(
          "reveal",
          !signsIn
            ? "See or copy what is kept secret in it"
            : entry.useSeesUserName
              ? "See or copy its password"
              : "See or copy its user name or password",
        )}
        {may("edit", "Change anything in it")}
      </ul>
      {own.stewards.length > 0 && own.level !== "steward" && (
        <p>
          <b>{own.stewards.join(", ")}</b>
          {own.stewards.length === 1 ? ", its steward, can change that." : ", its stewards, can change that."}
        </p>
      )}
      {own.level !== "steward" && !(entry.guest && own.level === "edit") && entry.binnedAt === null && (
        <Button style={{ marginTop: 12 }} onPress={() => setAsking(true)}>
          Ask for more
        </Button>
      )}
      {asking && (
        <AskSheet
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
