"use client";

import Link from "next/link";
import { useState } from "react";
import styled from "styled-components";
import { exactTime, sayTime } from "@/core/time";
import type { ResultOf } from "@/server/registry";
import { Page } from "../frame/Frame";
import { runCommand, useCommand } from "../shared/ask";
import { Act, Button, ButtonLink, Chip, Row } from "../shared/controls";
import { ApproveDevice } from "./ApproveDevice";
import { NoticeMail } from "./NoticeMail";
import { account as t } from "./strings";
import { WaysIn } from "./WaysIn";

const Lines = styled.ul`
  border-top: 3px solid var(--ink);
  li { display: grid; grid-template-columns: minmax(0, 1fr) auto auto; gap: 16px; align-items: center; padding: 10px 0; border-bottom: 1px solid var(--rule); overflow-wrap: anywhere; }
`;

const Block = styled.section`
  margin-top: 32px;
  max-width: 760px;
  h2 { margin-bottom: 8px; }
`;

interface Devices {
  sessions: { id: string; browser: string; address: string; createdAt: number; lastSeenAt: number; current: boolean }[];
  lanyards: { id: string; browser: string; version: string; createdAt: number; lastUsedAt: number }[];
}

interface NoticeLine {
  id: string;
  at: number;
  text: string;
  nodeId: string | null;
  link: string | null;
}

export function Account({
  id,
  person,
  mail,
  staff,
  devices,
  ways,
  accounts,
  link,
  back,
  approves,
  notices,
  mailed,
  zone,
  now,
}: {
  id: string;
  person: string;
  mail: string;
  staff: boolean;
  devices: Devices;
  ways: ResultOf<"people.ownWays">;
  accounts: ResultOf<"provider.ownAccounts">;
  /** The provider whose account is to be linked. */
  link: string | null;
  back: { code: string; provider: string | null } | null;
  /** Sent here from Lanyard to approve a sign-in. */
  approves: boolean;
  notices: NoticeLine[];
  mailed: ResultOf<"people.ownMailChoices">;
  zone: string;
  now: number;
}) {
  const end = useCommand("people.endSession");
  const endLanyard = useCommand("lanyard.endLanyard");
  const putAway = useCommand("people.dismissNotices");
  const [theme, setTheme] = useState<string | null>(null);
  const [approving, setApproving] = useState(approves);
  const choose = (value: "light" | "dark" | "") => {
    setTheme(value);
    if (value) document.documentElement.dataset.theme = value;
    else delete document.documentElement.dataset.theme;
    document.cookie = `galtry_theme=${value}; Path=/; SameSite=Lax; Max-Age=${value ? 31_536_000 : 0}`;
  };
  const signOut = async () => {
    await runCommand("people.signOut", {});
    location.assign("/sign-in");
  };
  return (
    <Page
      where={
        <>
          <b>{person}</b>, {mail}.
        </>
      }
    >
      <Row style={{ justifyContent: "space-between" }}>
        <h1>{person}</h1>
        <Row>
          <ButtonLink href={`/people/${id}`}>{t.yourAccess}</ButtonLink>
          {staff && <ButtonLink href="/rules">{t.houseRules}</ButtonLink>}
          <Button onPress={signOut}>{t.signOut}</Button>
        </Row>
      </Row>
      {notices.length > 0 && (
        <Block id="notices">
          <Row style={{ justifyContent: "space-between" }}>
            <h2>{t.notices}</h2>
            {notices.length > 1 && (
              <Act onPress={() => putAway.run({ ids: notices.slice(0, 500).map(({ id }) => id) })}>{t.dismissAll}</Act>
            )}
          </Row>
          <Lines>
            {notices.map((notice) => (
              <li key={notice.id}>
                <span>
                  {notice.link ? (
                    <Link href={notice.link} prefetch={false}>
                      {notice.text}
                    </Link>
                  ) : (
                    notice.text
                  )}
                </span>
                <span className="soft small">{sayTime(notice.at, now, zone)}</span>
                <Act onPress={() => putAway.run({ ids: [notice.id] })}>{t.dismiss}</Act>
              </li>
            ))}
          </Lines>
        </Block>
      )}
      <Block>
        <h2>{t.howYouSignIn}</h2>
        <WaysIn {...{ ways, accounts, link, back, zone, now }} />
      </Block>
      <Block>
        <Row style={{ justifyContent: "space-between" }}>
          <h2>{t.whereYouAreSignedInToGaltry}</h2>
          <Button onPress={() => setApproving(true)}>{t.approveASignIn}</Button>
        </Row>
        <Lines>
          {devices.sessions.map((session) => (
            <li key={session.id}>
              <span>
                <b>{session.browser}</b> {session.current && <Chip data-tone="good">{t.thisOne}</Chip>}
                <span className="soft small" style={{ display: "block" }}>
                  {t.fromSince(session.address, sayTime(session.createdAt, now, zone))}
                </span>
              </span>
              <span className="soft small" title={exactTime(session.lastSeenAt, zone)}>
                {t.lastSeen(sayTime(session.lastSeenAt, now, zone))}
              </span>
              {session.current ? <span /> : <Act onPress={() => end.run({ sessionId: session.id })}>{t.signOut}</Act>}
            </li>
          ))}
        </Lines>
      </Block>
      <Block>
        <h2>{t.yourLanyards}</h2>
        {devices.lanyards.length === 0 ? (
          <p>{t.noBrowserIsConnected(<a href="/lanyard">{t.getLanyard}</a>)}</p>
        ) : (
          <Lines>
            {devices.lanyards.map((lanyard) => (
              <li key={lanyard.id}>
                <span>
                  <b>{lanyard.browser}</b>
                  <span className="soft small" style={{ display: "block" }}>
                    {t.versionConnected(lanyard.version, sayTime(lanyard.createdAt, now, zone))}
                  </span>
                </span>
                <span className="soft small">{t.lastUsed(sayTime(lanyard.lastUsedAt, now, zone))}</span>
                <Act
                  onPress={() => endLanyard.run({ lanyardId: lanyard.id, why: "" })}
                  aria-label={t.disconnectLanyardIn(lanyard.browser)}
                >
                  {t.disconnect}
                </Act>
              </li>
            ))}
          </Lines>
        )}
      </Block>
      <Block>
        <h2>{t.noticesByEmail}</h2>
        <NoticeMail mailed={mailed} />
      </Block>
      {approving && <ApproveDevice zone={zone} onClose={() => setApproving(false)} />}
      <Block>
        <h2>{t.lightAndDark}</h2>
        <Row>
          <Button onPress={() => choose("")}>{t.sameAsTheSystem}</Button>
          <Button onPress={() => choose("light")}>{t.light}</Button>
          <Button onPress={() => choose("dark")}>{t.dark}</Button>
          <span role="status" className="soft small">
            {theme === null ? "" : t.savedInThisBrowser}
          </span>
        </Row>
      </Block>
    </Page>
  );
}
