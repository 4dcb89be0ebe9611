"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { Fragment, useEffect, useState } from "react";
import styled from "styled-components";
import { sayTime } from "@/core/time";
import type { PeoplePage, PersonLine } from "@/server/people/persons";
import { Page } from "../frame/Frame";
import { useCommand } from "../shared/ask";
import { Act, Button, ButtonLink, Chip, ChoiceField, Notice, Row, Stack, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { fromLocal, toLocal } from "../shared/localTime";
import { Head } from "../vaults/VaultList";
import { type GroupLine, GroupLines, MakeGroup } from "./Groups";
import { LinkToHandOver } from "./LinkToHandOver";

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
  const [adding, setAdding] = useState(false);
  const [chosen, setChosen] = useState<string | null>(null);
  const [makingGroup, setMakingGroup] = useState(false);
  const { people, active, invited, found, previous, next } = list;
  const selected = people.find((person) => person.id === chosen) ?? null;
  return (
    <Page
      where={
        <>
          <b>{counted(active, "person is", "people are")} active</b>
          {invited > 0 && `; ${counted(invited, "has", "have")} not joined yet`}.{" "}
          {counted(groupCount, "group", "groups")}.
        </>
      }
    >
      <Head>
        <h1>People</h1>
        <ButtonLink href="/rules">House rules</ButtonLink>
        <Button onPress={() => setMakingGroup(true)}>Make a group</Button>
        <Button look="go" onPress={() => setAdding(true)}>
          Add a person
        </Button>
      </Head>
      <FindPeople text={text} />
      {people.length === 0 && <p>Nobody matches “{text}”. Try a part of the name or of the mail address.</p>}
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
                      ? "not joined yet"
                      : person.standing === "leaver"
                        ? "left"
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
                    until {sayTime(person.until, now, zone)}
                  </Chip>
                )}{" "}
                {person.lastSeenAt ? `seen ${sayTime(person.lastSeenAt, now, zone)}` : "never signed in"}
              </span>
              {person.id === me ? (
                <span className="soft small">you</span>
              ) : (
                <Act onPress={() => setChosen(person.id)} aria-label={`Manage ${person.name}`}>
                  Manage
                </Act>
              )}
            </li>
          ))}
        </Rows>
      )}
      {(next !== null || from > 0) && (
        <Row style={{ marginTop: 12 }}>
          <span className="soft small">
            {from + 1} to {from + people.length} of {found.toLocaleString("en-GB")}
          </span>
          {previous !== null && <Link href={pageAt(text, previous)}>Previous</Link>}
          {next !== null && <Link href={pageAt(text, next)}>Next</Link>}
        </Row>
      )}
      <Groups>
        <h2>Groups</h2>
        <GroupLines groups={groups} zone={zone} now={now} />
        {groups.length < groupCount && (
          <p style={{ marginTop: 12 }}>
            <Link href="/people?groups">All {groupCount} groups</Link>
          </p>
        )}
      </Groups>
      {adding && <AddPerson isOwner={isOwner} onClose={() => setAdding(false)} />}
      {selected && <Manage person={selected} isOwner={isOwner} zone={zone} onClose={() => setChosen(null)} />}
      {makingGroup && <MakeGroup onClose={() => setMakingGroup(false)} />}
    </Page>
  );
}

const counted = (n: number, one: string, more: string) => `${n.toLocaleString("en-GB")} ${n === 1 ? one : more}`;

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
        label="Find a person"
        type="search"
        placeholder="part of a name or mail address"
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
    <ChoiceField label="Role" value={value} onText={(role) => onChange(role as Role)} wrong={wrong}>
      <option value="member">Member</option>
      <option value="guest">Guest: not in Everyone, at most Edit</option>
      <option value="administrator">Administrator</option>
      {isOwner && <option value="owner">Owner</option>}
    </ChoiceField>
  );
}

function AddPerson({ isOwner, onClose }: { isOwner: boolean; onClose: () => void }) {
  const add = useCommand<{ link: string }>("people.add");
  const [name, setName] = useState("");
  const [mail, setMail] = useState("");
  const [role, setRole] = useState<Role>("member");
  const [link, setLink] = useState<string | null>(null);
  return (
    <Dialog title={link ? `${name} is added` : "Add a person"} open onClose={onClose}>
      {link ? (
        <LinkToHandOver link={link} name={name} />
      ) : (
        <Form
          verb="Add"
          onSend={async () => {
            const answer = await add.run({ name, mail, role });
            if (answer.ok) setLink(answer.result.link);
          }}
          running={add.running}
          wrong={add.wrong()}
          onCancel={onClose}
        >
          <TextField label="Name" value={name} onText={setName} wrong={add.wrong("name")} autoFocus />
          <TextField label="Mail address" type="email" value={mail} onText={setMail} wrong={add.wrong("mail")} />
          <RoleChoice value={role} onChange={setRole} isOwner={isOwner} wrong={add.wrong("role")} />
        </Form>
      )}
    </Dialog>
  );
}

interface ManageProps {
  person: PersonLine;
  isOwner: boolean;
  zone: string;
  onClose: () => void;
}

function Manage({ person, isOwner, zone, onClose }: ManageProps) {
  const renew = useCommand<{ link: string }>("people.renewLink");
  const suspend = useCommand("people.suspend");
  const leave = useCommand("people.leave");
  const back = useCommand("people.bringBack");
  const endAll = useCommand("people.endEverything");
  const changeRole = useCommand("people.changeRole");
  const [why, setWhy] = useState("");
  const [link, setLink] = useState<string | null>(null);
  const [typed, setTyped] = useState("");
  const refused = [renew, suspend, leave, back, endAll, changeRole].map((one) => one.refused).find(Boolean);
  const here = person.standing === "active" || person.standing === "invited";
  return (
    <Dialog title={person.name} open onClose={onClose}>
      {link ? (
        <LinkToHandOver link={link} name={person.name} />
      ) : (
        <Stack>
          <p className="soft">
            {person.mail}. {person.lanyards === 1 ? "1 Lanyard" : `${person.lanyards} Lanyards`} connected.
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
          <TextField
            label="Reason"
            value={why}
            onText={setWhy}
            hint="stands in the journal; Lanyard shows it where it was connected"
          />
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
                Make a new sign-in link
              </Button>
            )}
            {here && (
              <Button onPress={() => endAll.run({ personId: person.id, why })}>End sessions and Lanyards</Button>
            )}
            {here && <Button onPress={() => suspend.run({ personId: person.id, why })}>Suspend</Button>}
            {!here && (
              <Button look="go" onPress={() => back.run({ personId: person.id, why })}>
                Bring back
              </Button>
            )}
          </Row>
          {person.standing !== "leaver" && (
            <Form
              verb="Mark as leaver"
              look="harm"
              onSend={() => leave.run({ personId: person.id, why })}
              running={leave.running}
              unready={typed.trim() !== person.name}
            >
              <TextField
                label={`To mark ${person.name} as a leaver, type the name`}
                value={typed}
                onText={setTyped}
                hint="all access ends at once, everywhere"
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
      <TextField
        type="datetime-local"
        label="All access ends"
        value={until}
        onText={setUntil}
        wrong={save.wrong("until") ?? save.wrong()}
        hint="empty: no end"
      />
      <Button
        isDisabled={save.running || until === toLocal(person.until, zone)}
        onPress={() => save.run({ personId: person.id, until: fromLocal(until, zone) })}
      >
        {until === "" ? "Set no end" : "Set this end"}
      </Button>
    </Row>
  );
}

/** For keepers who are no administrators: the groups they keep. */
export function GroupsOnly({ groups, zone, now }: { groups: GroupLine[]; zone: string; now: number }) {
  return (
    <Page where={groups.length === 1 ? "You keep one group." : `You keep ${groups.length} groups.`}>
      <Head>
        <h1>Groups</h1>
      </Head>
      <GroupLines groups={groups} zone={zone} now={now} />
    </Page>
  );
}
