"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { Fragment, useEffect, useState } from "react";
import styled from "styled-components";
import { sayTime } from "@/core/time";
import type { LinkState, PeoplePage, PersonLine } from "@/server/people/persons";
import { Page } from "../frame/Frame";
import { useCommand } from "../shared/ask";
import { Act, Button, ButtonLink, Chip, ChoiceField, Notice, Row, Stack, TextField } from "../shared/controls";
import { MomentField } from "../shared/DateFields";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { fromLocal, toLocal } from "../shared/localTime";
import { Head } from "../vaults/VaultList";
import { type GroupLine, GroupLines, MakeGroup } from "./Groups";
import { LinkToHandOver } from "./LinkToHandOver";
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

const ROLE_WORDS = { owner: "Owner", administrator: "Administrator", member: "Member", guest: "Guest" } as const;
type Role = keyof typeof ROLE_WORDS;

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
                  ROLE_WORDS[person.role]
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

function RoleChoice({
  value,
  onChange,
  isOwner,
  wrong,
}: {
  value: Role;
  onChange: (role: Role) => void;
  isOwner: boolean;
  wrong: string | null;
}) {
  return (
    <ChoiceField label={t.role} value={value} onText={(role) => onChange(role as Role)} wrong={wrong}>
      <option value="member">{t.member}</option>
      <option value="guest">{t.guestNotInEveryoneAtMostEdit}</option>
      <option value="administrator">{t.administrator}</option>
      {isOwner && <option value="owner">{t.owner}</option>}
    </ChoiceField>
  );
}

/** Where the sign-in link of somebody who has not joined yet is. */
function sayLink(link: LinkState | null, now: number, zone: string): string {
  if (!link) return t.noLink;
  if (link.until <= now) return t.linkExpired(sayTime(link.until, now, zone));
  if (link.failed !== null) return t.linkNotDelivered;
  if (link.opened !== null) return t.linkOpened(sayTime(link.opened, now, zone));
  if (link.sent !== null) return t.linkSent(sayTime(link.sent, now, zone));
  return link.mailed ? t.linkOnItsWay : t.linkCreated;
}

interface ManageProps {
  person: PersonLine;
  /** Links can go by mail. */
  mails: boolean;
  now: number;
  isOwner: boolean;
  zone: string;
  onClose: () => void;
}

function Manage({ person, mails, isOwner, zone, now, onClose }: ManageProps) {
  const done = useDone();
  const extend = useCommand("people.extendLink");
  const withdraw = useCommand("people.withdrawLink");
  const renew = useCommand("people.renewLink");
  const suspend = useCommand("people.suspend");
  const leave = useCommand("people.markLeaver");
  const back = useCommand("people.reinstate");
  const endAll = useCommand("people.endEverything");
  const reset = useCommand("people.resetWays");
  const changeRole = useCommand("people.changeRole");
  const [why, setWhy] = useState("");
  const [link, setLink] = useState<string | null>(null);
  const [typed, setTyped] = useState("");
  const refused = [reset, extend, withdraw, renew, suspend, leave, back, endAll, changeRole]
    .map((one) => one.refused)
    .find(Boolean);
  const here = person.standing === "active" || person.standing === "invited";
  return (
    <Dialog title={person.name} open onClose={onClose}>
      {link ? (
        <LinkToHandOver link={link} name={person.name} />
      ) : (
        <Stack>
          <p className="soft">
            {person.standing === "invited"
              ? t.stateOfLink(
                  person.mail,
                  sayLink(person.link, now, zone),
                  person.link && person.link.until > now ? sayTime(person.link.until, now, zone) : null,
                )
              : t.connected(person.mail, t.lanyards(person.lanyards))}
          </p>
          {here && (
            <RoleChoice
              value={person.role}
              onChange={(role) => void changeRole.run({ personId: person.id, role })}
              isOwner={isOwner}
              wrong={changeRole.wrong("role")}
            />
          )}
          {here && person.role !== "owner" && <PersonEnd person={person} zone={zone} />}
          <TextField label={t.reason} value={why} onText={setWhy} hint={t.writtenInTheJournalLanyard} />
          {refused && (
            <Notice data-tone="bad" role="alert">
              {refused.message}
            </Notice>
          )}
          <Row>
            {person.standing !== "leaver" && (
              <Button
                onPress={async () => {
                  const answer = await renew.run({ personId: person.id });
                  if (answer.ok) setLink(answer.result.link);
                }}
              >
                {t.createANewSignInLink}
              </Button>
            )}
            {person.standing !== "leaver" && mails && (
              <Button
                onPress={async () => {
                  const answer = await renew.run({ personId: person.id, send: true });
                  if (!answer.ok) return;
                  done(t.linkSentTo(answer.result.sentTo ?? ""));
                  onClose();
                }}
              >
                {t.emailANewSignInLink}
              </Button>
            )}
            {person.link && person.standing === "invited" && (
              <>
                <Button onPress={() => extend.run({ personId: person.id })}>{t.extendTheLink}</Button>
                <Button onPress={() => withdraw.run({ personId: person.id })}>{t.withdrawTheLink}</Button>
              </>
            )}
            {here && <Button onPress={() => endAll.run({ personId: person.id, why })}>{t.signOutEverywhere}</Button>}
            {person.second && here && <Button onPress={() => reset.run({ personId: person.id })}>{t.resetWays}</Button>}
            {here && <Button onPress={() => suspend.run({ personId: person.id, why })}>{t.suspend}</Button>}
            {!here && (
              <Button look="go" onPress={() => back.run({ personId: person.id, why })}>
                {t.reinstate}
              </Button>
            )}
          </Row>
          {person.standing !== "leaver" && (
            <Form
              verb={t.markAsLeaver}
              look="harm"
              onSend={() => leave.run({ personId: person.id, why })}
              running={leave.running}
              unready={typed.trim() !== person.name}
            >
              <TextField
                label={t.toMarkAsALeaverTypeThe(person.name)}
                value={typed}
                onText={setTyped}
                hint={t.allAccessEndsAtOnceEverywhere}
              />
            </Form>
          )}
        </Stack>
      )}
    </Dialog>
  );
}

/** The date of a contract: all access ends with it, and moving it on extends all of it in one act. */
function PersonEnd({ person, zone }: { person: PersonLine; zone: string }) {
  const save = useCommand("people.setEnd");
  const [until, setUntil] = useState(toLocal(person.until, zone));
  return (
    <Row style={{ alignItems: "end" }}>
      <MomentField
        label={t.allAccessEnds}
        value={until}
        onText={setUntil}
        wrong={save.wrong("until") ?? save.wrong()}
        hint={t.leaveEmptyForNoEndDate}
      />
      <Button
        isDisabled={save.running || until === toLocal(person.until, zone)}
        onPress={() => save.run({ personId: person.id, until: fromLocal(until, zone) })}
      >
        {until === "" ? t.removeEndDate : t.setEndDate}
      </Button>
    </Row>
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
