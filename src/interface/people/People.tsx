"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import styled from "styled-components";
import { addressOf, type PeopleFilter } from "@/core/people/peopleFilter";
import type { PeoplePage, PersonLine } from "@/server/people/peopleList";
import { Page } from "../frame/Frame";
import { Button, ButtonLink, Row } from "../shared/controls";
import { Head } from "../vaults/VaultList";
import { type GroupLine, GroupLines, MakeGroup } from "./Groups";
import { Manage } from "./ManagePerson";
import { PeopleFilters } from "./PeopleFilters";
import { PeopleRows } from "./PeopleRows";
import { SeveralPeople } from "./SeveralPeople";
import { people as t } from "./strings";

const Groups = styled.section`
  margin-top: 40px;
  h3 { margin: 20px 0 6px; font-size: 17px; }
`;

export function People({
  list,
  filter,
  from,
  groups,
  groupCount,
  me,
  isOwner,
  reads,
  zone,
  now,
}: {
  list: PeoplePage;
  /** What was looked for, and where this page of it begins. */
  filter: PeopleFilter;
  from: number;
  /** The first of them, or all. */
  groups: GroupLine[];
  groupCount: number;
  me: string;
  isOwner: boolean;
  /** An auditor: looks, and manages nobody. */
  reads: boolean;
  zone: string;
  now: number;
}) {
  const router = useRouter();
  const [managed, setManaged] = useState<string | null>(null);
  /** Over all pages of the list. */
  const [chosen, setChosen] = useState<ReadonlyMap<string, PersonLine>>(new Map());
  const [makingGroup, setMakingGroup] = useState(false);
  const { people, active, invited, found, previous, next } = list;
  const selected = people.find((person) => person.id === managed) ?? null;
  const choose = (those: readonly PersonLine[], wanted: boolean) =>
    setChosen((before) => {
      const after = new Map(before);
      for (const one of those)
        if (wanted) after.set(one.id, one);
        else after.delete(one.id);
      return after;
    });
  return (
    <Page
      where={
        <>
          <b>{t.active(active)}</b>
          {invited > 0 && t.notJoined(invited)}. <a href="#groups">{t.groupCount(groupCount)}</a>.
        </>
      }
    >
      <Head>
        <h1>{t.people}</h1>
        {!reads && <ButtonLink href="/people/sign-on">{t.singleSignOn}</ButtonLink>}
        <ButtonLink href="/rules">{t.houseRules}</ButtonLink>
        {!reads && <Button onPress={() => setMakingGroup(true)}>{t.createAGroup}</Button>}
        {!reads && (
          <Button look="go" onPress={() => router.push("/people/add")}>
            {t.addPeople}
          </Button>
        )}
      </Head>
      <PeopleFilters filter={filter} group={list.group} />
      {people.length === 0 ? (
        <p>{filter.text === "" ? t.nobodyMatches : t.noMatchForTryPartOfThe(filter.text)}</p>
      ) : (
        <PeopleRows {...{ people, filter, chosen, me, reads, zone, now }} onChoose={choose} onManage={setManaged} />
      )}
      {list.leavers > 0 && (filter.text !== "" || people.length === 0) && (
        <p style={{ marginTop: 8 }}>
          <Link href={`/people${addressOf({ ...filter, state: "leaver" })}`} replace prefetch={false}>
            {t.leaversToo(list.leavers)}
          </Link>
        </p>
      )}
      {(next !== null || from > 0) && (
        <Row style={{ marginTop: 12 }}>
          <span className="soft small">{t.toOf(from + 1, from + people.length, found.toLocaleString("en-GB"))}</span>
          {previous !== null && <Link href={`/people${addressOf(filter, previous)}`}>{t.previous}</Link>}
          {next !== null && <Link href={`/people${addressOf(filter, next)}`}>{t.next}</Link>}
        </Row>
      )}
      {chosen.size > 0 && <SeveralPeople {...{ chosen, me, zone, now }} onNone={() => setChosen(new Map())} />}
      <Groups id="groups">
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
          onClose={() => setManaged(null)}
        />
      )}
      {makingGroup && <MakeGroup onClose={() => setMakingGroup(false)} />}
    </Page>
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
