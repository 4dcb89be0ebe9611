"use client";

import Link from "next/link";
import type { ReactNode } from "react";
import styled from "styled-components";
import { exactTime, sayTime } from "@/core/time";
import type { ResultOf } from "@/server/registry";
import { useCommand } from "../shared/ask";
import { Act, Chip, Notice } from "../shared/controls";
import { recordSide as t } from "./strings";

export type PersonRecord = ResultOf<"people.personRecord">;

const Block = styled.section`
  margin-bottom: 28px;
  h2 { padding-bottom: 6px; border-bottom: 1px solid var(--edge); font-size: 17px; }
  li { display: flex; flex-wrap: wrap; gap: 2px 14px; align-items: baseline; padding: 8px 0; border-bottom: 1px solid var(--rule); line-height: 20px; overflow-wrap: anywhere; }
  li > :first-child { flex: 1 1 60%; min-width: 0; }
  .small { display: block; }
  > p { padding: 8px 0; }
`;

interface SideProps {
  record: PersonRecord;
  personId: string;
  name: string;
  zone: string;
  now: number;
}

/** What an administrator looks after at somebody: groups, ways in, where they are signed in, what waits. */
export function RecordSide({ record, personId, name, zone, now }: SideProps) {
  const endSession = useCommand("people.endSession");
  const endLanyard = useCommand("lanyard.endLanyard");
  const endAll = useCommand("people.endEverything");
  const refused = [endSession, endLanyard, endAll].map((one) => one.refused).find(Boolean);
  const say = (at: number) => sayTime(at, now, zone);
  const { ways, waits, groups, sessions, lanyards } = record;
  const waiting = [
    ...(waits.requests > 0 ? [t.requests(waits.requests)] : []),
    ...(waits.approvals > 0 ? [t.approvals(waits.approvals)] : []),
    ...(waits.slips > 0 ? [t.slips(waits.slips)] : []),
  ];
  return (
    <div>
      {refused && (
        <Notice data-tone="bad" role="alert">
          {refused.message}
        </Notice>
      )}
      <Part title={t.groups} none={groups.length === 0 ? t.inNoGroup : null}>
        {groups.map((group) => (
          <li key={group.id}>
            <span>
              <Link href={`/people/groups/${group.id}`} prefetch={false}>
                {group.name}
              </Link>
              {group.keeper && t.keeper}
              <span className="small soft">{t.since(say(group.since))}</span>
            </span>
            {group.from !== null && group.from > now && <Chip data-tone="plain">{t.from(say(group.from))}</Chip>}
            {group.until !== null && (
              <Chip data-tone="plain">{group.until > now ? t.until(say(group.until)) : t.ended(say(group.until))}</Chip>
            )}
          </li>
        ))}
      </Part>
      <Part
        title={t.waysIn}
        none={!ways.password && ways.keys.length === 0 && ways.accounts.length === 0 ? t.noWayYet : null}
      >
        {ways.accounts.map((account) => (
          <Line
            key={account.provider}
            what={account.provider}
            more={account.linkedAt && t.linked(say(account.linkedAt))}
          />
        ))}
        {ways.password && <Line what={t.password} />}
        {ways.keys.map((key) => (
          <Line
            key={key.id}
            what={t.passkey(key.name)}
            more={key.lastUsedAt === null ? t.neverUsed : t.lastUsed(say(key.lastUsedAt))}
          />
        ))}
        {ways.codeApp && (
          <Line
            what={t.codes}
            more={ways.codeApp.lastUsedAt === null ? t.neverUsed : t.lastUsed(say(ways.codeApp.lastUsedAt))}
          />
        )}
        {ways.recoveryLeft > 0 && <Line what={t.recovery(ways.recoveryLeft)} />}
      </Part>
      <Part
        title={t.signedIn}
        none={sessions.length === 0 ? t.notSignedIn : null}
        act={
          sessions.length + lanyards.length > 1 && (
            <Act onPress={() => endAll.run({ personId, why: "" })}>{t.signOutEverywhere}</Act>
          )
        }
      >
        {sessions.map((session) => (
          <Line
            key={session.id}
            what={session.browser}
            more={t.fromAndSeen(session.address, say(session.createdAt), say(session.lastSeenAt))}
            title={exactTime(session.lastSeenAt, zone)}
          >
            <Act aria-label={t.signOutOf(session.browser)} onPress={() => endSession.run({ sessionId: session.id })}>
              {t.signOut}
            </Act>
          </Line>
        ))}
      </Part>
      <Part title={t.lanyards} none={lanyards.length === 0 ? t.noLanyard : null}>
        {lanyards.map((lanyard) => (
          <Line
            key={lanyard.id}
            what={lanyard.browser}
            more={t.connectedAndUsed(say(lanyard.createdAt), say(lanyard.lastUsedAt))}
            title={exactTime(lanyard.lastUsedAt, zone)}
          >
            <Act
              aria-label={t.disconnectIn(lanyard.browser)}
              onPress={() => endLanyard.run({ lanyardId: lanyard.id, why: "" })}
            >
              {t.disconnect}
            </Act>
          </Line>
        ))}
      </Part>
      <Part title={t.waiting} none={waiting.length === 0 ? t.nothingWaits : null}>
        {waiting.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </Part>
      <p className="small soft">{t.added(say(record.added.at), record.added.by)}</p>
      <p className="small">
        <Link href={`/journal?person=${personId}`} prefetch={false}>
          {t.inTheJournal(name)}
        </Link>
      </p>
    </div>
  );
}

interface PartProps {
  title: string;
  /** What stands there where there is nothing. */
  none: string | null;
  act?: ReactNode;
  children: ReactNode;
}

function Part({ title, none, act, children }: PartProps) {
  return (
    <Block aria-label={title}>
      <h2>{title}</h2>
      {none === null ? <ul>{children}</ul> : <p className="soft">{none}</p>}
      {act}
    </Block>
  );
}

interface LineProps {
  what: string;
  more?: string | number | null;
  title?: string;
  children?: ReactNode;
}

const Line = ({ what, more, title, children }: LineProps) => (
  <li>
    <span title={title}>
      {what}
      {more && <span className="small soft">{more}</span>}
    </span>
    {children}
  </li>
);
