"use client";

import Link from "next/link";
import { Fragment, useState } from "react";
import styled from "styled-components";
import { exactTime, sayTime } from "@/core/time";
import type { PersonLine } from "@/server/people/peopleList";
import type { personPage } from "@/server/people/personPage";
import { Page } from "../frame/Frame";
import { CutKey } from "../shared/CutKey";
import { Button, ButtonLink, Chip } from "../shared/controls";
import { MaybeLink } from "../shared/MaybeLink";
import { Head } from "../vaults/VaultList";
import { Manage } from "./ManagePerson";
import { type PersonRecord, RecordSide } from "./RecordSide";
import { personPage as t } from "./strings";

type PersonView = Awaited<ReturnType<(typeof personPage)["execute"]>>;

const Lines = styled.ul`
  margin-top: 8px;
  border-top: 3px solid var(--ink);
  background: var(--sheet);
  --ground: var(--sheet);
  li { display: grid; grid-template-columns: 66px minmax(0, 1fr) minmax(0, 1.6fr); gap: 2px 16px; align-items: start; padding: 10px 12px; border-bottom: 1px solid var(--rule); line-height: 20px; overflow-wrap: anywhere; }
  li > svg { margin-top: 2px; }
  .small { display: block; }
  @media (max-width: 719px) { li { grid-template-columns: 66px minmax(0, 1fr); } li > :last-child { grid-column: 2; } }
`;

const ROLES = {
  owner: t.anOwner,
  administrator: t.anAdministrator,
  member: t.aMember,
  auditor: t.anAuditor,
  guest: t.aGuest,
} as const;

interface PersonProps {
  person: PersonView;
  /** For administrators: what they look after at this person. */
  managed: { record: PersonRecord; line: PersonLine; mails: boolean; isOwner: boolean } | null;
  zone: string;
  now: number;
}

const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.7fr) minmax(0, 1fr);
  gap: 28px 48px;
  align-items: start;
  &[data-one] { grid-template-columns: minmax(0, 1fr); }
  @media (max-width: 1023px) { grid-template-columns: minmax(0, 1fr); }
`;

/** Somebody, and what they have with its reason: all of it for themselves, of others what one is steward of. */
export function PersonPage({ person, managed, zone, now }: PersonProps) {
  const { lines, gave } = person;
  const [managing, setManaging] = useState(false);
  return (
    <Page
      where={
        <>
          <b>{person.name}</b>, {person.mail}. {ROLES[person.role]}
          {person.ends !== null && t.until(exactTime(person.ends, zone))}.{!person.self && t.youSeeOnlyWhatYouAreA}
        </>
      }
    >
      <Head>
        <h1>{person.self ? t.yourAccess : t.accessOf(person.name)}</h1>
        {person.standing !== "active" && <Chip data-tone="bad">{STANDING[person.standing]}</Chip>}
        {managed && person.standing !== "leaver" && (
          <ButtonLink href={`/people/${person.id}/known`}>{t.whatTheyHaveSeen}</ButtonLink>
        )}
        {managed && person.standing !== "leaver" && (
          <ButtonLink href={`/people/${person.id}/teams`}>{t.changesTeams}</ButtonLink>
        )}
        {managed && (
          <ButtonLink href={`/people/${person.id}/leave`}>
            {person.standing === "leaver" ? t.whatTheyHad : t.leaves}
          </ButtonLink>
        )}
        {managed && <Button onPress={() => setManaging(true)}>{t.manage}</Button>}
      </Head>
      <Two data-one={managed ? undefined : ""}>
        <div>
          {!managed && person.groups.length > 0 && (
            <p className="soft">
              {t.inWord}
              {person.groups.map((group, i) => (
                <Fragment key={group.id}>
                  {i > 0 && ", "}
                  <Link href={`/people/groups/${group.id}`} prefetch={false}>
                    {group.name}
                  </Link>
                </Fragment>
              ))}
              .
            </p>
          )}
          {lines.length === 0 ? (
            <p style={{ marginTop: 12 }}>
              {person.self ? t.youHaveNoAccessToAnythingYet : t.noAccessToAnythingYouAreA}
            </p>
          ) : (
            <Lines aria-label={t.theirAccess}>
              {lines.map((line) => (
                <li key={line.nodeId}>
                  <CutKey level={line.level === "none" ? "blocked" : line.level} />
                  <span>
                    <MaybeLink to={line.link}>{line.what}</MaybeLink>
                    <span className="small soft">
                      {line.type === "entry"
                        ? line.vault.name
                        : `${t.entries(line.entries)}${line.type === "folder" && line.vault.name ? `, ${line.vault.name}` : ""}`}
                    </span>
                  </span>
                  <span>{line.sentence}</span>
                </li>
              ))}
            </Lines>
          )}
          {person.elsewhere.length > 0 && (
            <p className="soft" style={{ marginTop: 12 }}>
              {t.alsoHas(person.name, person.elsewhere)}
            </p>
          )}
          {gave.count > 0 && (
            <section style={{ marginTop: 32 }}>
              <h2>{person.self ? t.youGave : t.gave(person.name)}</h2>
              <Lines>
                {gave.lines.map((line) => (
                  <li key={line.id}>
                    <CutKey level={line.level} />
                    <span>
                      <MaybeLink to={line.link}>{line.what}</MaybeLink>
                      <span className="small soft">{t.since(sayTime(line.since, now, zone))}</span>
                    </span>
                    <span>
                      {t.to(line.to)}
                      {line.until !== null && t.until(exactTime(line.until, zone))}
                    </span>
                  </li>
                ))}
              </Lines>
              {gave.count > gave.lines.length && (
                <p className="small soft">{t.andMore(gave.count - gave.lines.length)}</p>
              )}
            </section>
          )}
        </div>
        {managed && <RecordSide record={managed.record} personId={person.id} name={person.name} {...{ zone, now }} />}
      </Two>
      {managing && managed && (
        <Manage
          person={managed.line}
          mails={managed.mails}
          isOwner={managed.isOwner}
          {...{ zone, now }}
          onClose={() => setManaging(false)}
        />
      )}
    </Page>
  );
}

const STANDING = { active: "", invited: t.notJoinedYet, suspended: "suspended", leaver: "left" };
