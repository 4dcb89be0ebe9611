"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { Fragment, useEffect, useState } from "react";
import styled from "styled-components";
import { roleWord } from "@/core/people/role";
import { sayTime } from "@/core/time";
import type { PeoplePage } from "@/server/people/persons";
import { Page } from "../frame/Frame";
import { Act, Button, ButtonLink, Chip, Row, TextField } from "../shared/controls";
import { Head } from "../vaults/VaultList";
import { type GroupLine, GroupLines, MakeGroup } from "./Groups";
import { Manage, sayLink } from "./ManagePerson";
import { people as t } from "./strings";

const Rows = styled.ul`
  border-top: 3px solid var(--ink);
  background: var(--sheet);
  --ground: var(--sheet);
  li { display: grid; grid-template-columns: minmax(0, 1.3fr) 120px minmax(0, 1fr) 150px 70px; gap: 16px; align-items: center; min-height: 44px; padding: 4px 12px; border-bottom: 1px solid var(--rule); }
  li > * { min-width: 0; overflow: hidden; text-overflow: ellipsis; }
  @media (max-width: 1023px) { li { grid-template-columns: minmax(0, 1fr) 110px 60px; } .groups, .seen { display: none; } }
`;

const Groups = styled.section`
  margin-top: 40px;
  h3 { margin: 20px 0 6px; font-size: 17px; }
`;

export function People({
  list,
  text,
  from,
  groups,
  groupCount,
  me,
  isOwner,
  zone,
  now,
}: {
  list: PeoplePage;
  /** What was looked for, and where this page of it begins. */
  text: string;
  from: number;
  /** The first of them, or all. */
  groups: GroupLine[];
  groupCount: number;
  me: string;
  isOwner: boolean;
  zone: string;
  now: number;
}) {
  const router = useRouter();
  const [chosen, setChosen] = useState<string | null>(null);
  const [makingGroup, setMakingGroup] = useState(false);
  const { people, active, invited, found, previous, next } = list;
  const selected = people.find((person) => person.id === chosen) ?? null;
  return (
    <Page
      where={
        <>
          <b>{t.active(active)}</b>
          {invited > 0 && t.notJoined(invited)}. {t.groupCount(groupCount)}.
        </>
      }
    >
      <Head>
        <h1>{t.people}</h1>
        <ButtonLink href="/people/sign-on">{t.singleSignOn}</ButtonLink>
        <ButtonLink href="/rules">{t.houseRules}</ButtonLink>
        <Button onPress={() => setMakingGroup(true)}>{t.createAGroup}</Button>
        <Button look="go" onPress={() => router.push("/people/add")}>
          {t.addPeople}
        </Button>
      </Head>
      <FindPeople text={text} />
      {people.length === 0 && <p>{t.noMatchForTryPartOfThe(text)}</p>}
      {people.length > 0 && (
        <Rows>
          {people.map((person) => (
            <li key={person.id}>
              <span title={person.mail}>
                <Link href={`/people/${person.id}`} prefetch={false} style={{ fontWeight: 650 }}>
                  {person.name}
                </Link>{" "}
                <span className="soft small">{person.mail}</span>
              </span>
              <span>
                {person.standing === "active" ? (
                  roleWord(person.role)
                ) : (
                  <Chip data-tone={person.standing === "invited" ? "plain" : "bad"}>
                    {person.standing === "invited"
                      ? t.notJoinedYet2
                      : person.standing === "leaver"
                        ? t.left
                        : person.standing}
                  </Chip>
                )}
              </span>
              <span className="groups soft small" title={person.groups.map((group) => group.name).join(", ")}>
                {person.groups.map((group, i) => (
                  <Fragment key={group.id}>
                    {i > 0 && ", "}
                    <Link href={`/people/groups/${group.id}`} prefetch={false}>
                      {group.name}
                    </Link>
                  </Fragment>
                ))}
              </span>
              <span className="seen soft small">
                {person.until !== null && person.standing !== "leaver" && (
                  <Chip data-tone={person.until - now < 30 * 86_400_000 ? undefined : "plain"}>
                    {t.until(sayTime(person.until, now, zone))}
                  </Chip>
                )}{" "}
                {person.standing === "invited"
                  ? sayLink(person.link, now, zone)
                  : person.lastSeenAt
                    ? t.seen(sayTime(person.lastSeenAt, now, zone))
                    : t.neverSignedIn}
              </span>
              {person.id === me ? (
                <span className="soft small">{t.you}</span>
              ) : (
                <Act onPress={() => setChosen(person.id)} aria-label={t.manage(person.name)}>
                  {t.manage2}
                </Act>
              )}
            </li>
          ))}
        </Rows>
      )}
      {(next !== null || from > 0) && (
        <Row style={{ marginTop: 12 }}>
          <span className="soft small">{t.toOf(from + 1, from + people.length, found.toLocaleString("en-GB"))}</span>
          {previous !== null && <Link href={pageAt(text, previous)}>{t.previous}</Link>}
          {next !== null && <Link href={pageAt(text, next)}>{t.next}</Link>}
        </Row>
      )}
      <Groups>
        <h2>{t.groups}</h2>
        <GroupLines groups={groups} zone={zone} now={now} />
        {groups.length < groupCount && (
          <p style={{ marginTop: 12 }}>
            <Link href="/people?groups">{t.allGroups(groupCount)}</Link>
          </p>
        )}
      </Groups>
      {selected && (
        <Manage
          person={selected}
          mails={list.mails}
          isOwner={isOwner}
          zone={zone}
          now={now}
          onClose={() => setChosen(null)}
        />
      )}
      {makingGroup && <MakeGroup onClose={() => setMakingGroup(false)} />}
    </Page>
  );
}

const pageAt = (text: string, from: number): string =>
  `/people?${new URLSearchParams({ ...(text && { find: text }), ...(from > 0 && { from: String(from) }) })}`;

/** Looked for on the server, as soon as typing pauses. */
function FindPeople({ text }: { text: string }) {
  const router = useRouter();
  const [typed, setTyped] = useState(text);
  useEffect(() => {
    if (typed.trim() === text) return;
    const pause = setTimeout(() => router.replace(pageAt(typed.trim(), 0), { scroll: false }), 250);
    return () => clearTimeout(pause);
  }, [typed, text, router]);
  return (
    <div style={{ maxWidth: 360, marginBottom: 12 }}>
      <TextField
        label={t.findAPerson}
        type="search"
        placeholder={t.partOfANameOrEmailAddress}
        value={typed}
        onText={setTyped}
      />
    </div>
  );
}

/** For keepers who are no administrators: the groups they keep. */
export function GroupsOnly({ groups, zone, now }: { groups: GroupLine[]; zone: string; now: number }) {
  return (
    <Page where={t.youAreKeeperOf(groups.length)}>
      <Head>
        <h1>{t.groups}</h1>
      </Head>
      <GroupLines groups={groups} zone={zone} now={now} />
    </Page>
  );
}
