"use client";

import { useState } from "react";
import styled from "styled-components";
import { sayTime } from "@/core/time";
import type { groupList } from "@/server/people/groups";
import type { PersonLine } from "@/server/people/persons";
import { Page } from "../frame/Frame";
import { useCommand } from "../shared/ask";
import { Act, Button, CheckField, Chip, ChoiceField, Notice, Row, Stack, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { fromLocal, toLocal } from "../shared/localTime";
import { useCopy } from "../shared/useCopy";
import { WindowFields } from "../shared/WindowFields";
import { Head } from "../vaults/VaultList";

type GroupLine = Awaited<ReturnType<(typeof groupList)["execute"]>>[number];

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
  people,
  groups,
  me,
  isOwner,
  zone,
  now,
}: {
  people: PersonLine[];
  groups: GroupLine[];
  me: string;
  isOwner: boolean;
  zone: string;
  now: number;
}) {
  const [adding, setAdding] = useState(false);
  const [chosen, setChosen] = useState<string | null>(null);
  const [makingGroup, setMakingGroup] = useState(false);
  const [member, setMember] = useState<GroupLine | null>(null);
  const active = people.filter((person) => person.standing === "active").length;
  const invited = people.filter((person) => person.standing === "invited").length;
  const selected = people.find((person) => person.id === chosen) ?? null;
  return (
    <Page
      where={
        <>
          <b>{active} people</b> are active
          {invited > 0 && `; ${invited} ${invited === 1 ? "has" : "have"} not joined yet`}. {groups.length} groups.
        </>
      }
    >
      <Head>
        <h1>People</h1>
        <Button onPress={() => setMakingGroup(true)}>Make a group</Button>
        <Button look="go" onPress={() => setAdding(true)}>
          Add a person
        </Button>
      </Head>
      <Rows>
        {people.map((person) => (
          <li key={person.id}>
            <span title={person.mail}>
              <b>{person.name}</b> <span className="soft small">{person.mail}</span>
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
            <span className="groups soft small" title={person.groups.join(", ")}>
              {person.groups.join(", ")}
            </span>
            <span className="seen soft small">
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
      <Groups>
        <h2>Groups</h2>
        {groups.length === 0 && (
          <p style={{ marginTop: 6 }}>
            A group holds people who get the same access: a team, a place, the volunteers of a season.
          </p>
        )}
        {groups.map((group) => (
          <div key={group.id}>
            <Row>
              <h3>{group.name}</h3>
              <span className="soft small" style={{ marginTop: 14 }}>
                {group.members.length} {group.members.length === 1 ? "person" : "people"}
              </span>
              <span style={{ marginTop: 12 }}>
                <Act onPress={() => setMember(group)} aria-label={`Add to ${group.name}`}>
                  Add
                </Act>
              </span>
            </Row>
            <p>
              {group.members.length === 0 ? (
                <span className="soft">Nobody yet.</span>
              ) : (
                group.members.map((one) => (
                  <MemberTag
                    key={one.personId}
                    group={group}
                    one={one}
                    zone={zone}
                    now={now}
                    mine={one.personId === me}
                  />
                ))
              )}
            </p>
          </div>
        ))}
      </Groups>
      {adding && <AddPerson isOwner={isOwner} onClose={() => setAdding(false)} />}
      {selected && <Manage person={selected} isOwner={isOwner} onClose={() => setChosen(null)} />}
      {makingGroup && <MakeGroup onClose={() => setMakingGroup(false)} />}
      {member && <AddMember group={member} people={people} me={me} zone={zone} onClose={() => setMember(null)} />}
    </Page>
  );
}

function MemberTag({
  group,
  one,
  zone,
  now,
  mine,
}: {
  group: GroupLine;
  one: GroupLine["members"][number];
  zone: string;
  now: number;
  mine: boolean;
}) {
  const remove = useCommand("people.removeMember");
  return (
    <span style={{ display: "inline-block", marginRight: 18, padding: "3px 0" }}>
      {one.name}
      {one.keeper && <span className="soft small"> keeper</span>}
      {one.from !== null && one.from > now && <span className="soft small"> from {sayTime(one.from, now, zone)}</span>}
      {one.until !== null && <span className="soft small"> until {sayTime(one.until, now, zone)}</span>}
      {!mine && (
        <>
          {" "}
          <Act
            style={{ fontWeight: 400, fontSize: 13 }}
            onPress={() => remove.run({ groupId: group.id, personId: one.personId })}
            aria-label={`take out ${one.name} of ${group.name}`}
          >
            take out
          </Act>
        </>
      )}
      {remove.refused && (
        <span role="alert" className="small" style={{ color: "var(--crimson)", display: "block" }}>
          {remove.refused.message}
        </span>
      )}
    </span>
  );
}

function LinkToHandOver({ link, name }: { link: string; name: string }) {
  const { copy, copied } = useCopy();
  return (
    <Stack>
      <p>Hand this link to {name}. It works once, for seven days, and is shown only now.</p>
      <p className="mono" style={{ overflowWrap: "anywhere" }} data-link>
        {link}
      </p>
      <Row>
        <Button look="go" onPress={() => copy(link)}>
          {copied ? "Copied" : "Copy the link"}
        </Button>
      </Row>
    </Stack>
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

function Manage({ person, isOwner, onClose }: { person: PersonLine; isOwner: boolean; onClose: () => void }) {
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

function MakeGroup({ onClose }: { onClose: () => void }) {
  const make = useCommand("people.makeGroup");
  const [name, setName] = useState("");
  return (
    <Dialog title="Make a group" open onClose={onClose}>
      <Form
        verb="Make the group"
        onSend={async () => {
          if ((await make.run({ name })).ok) onClose();
        }}
        running={make.running}
        onCancel={onClose}
      >
        <TextField label="Name" value={name} onText={setName} wrong={make.wrong("name") ?? make.wrong()} autoFocus />
      </Form>
    </Dialog>
  );
}

function AddMember({
  group,
  people,
  me,
  zone,
  onClose,
}: {
  group: GroupLine;
  people: PersonLine[];
  me: string;
  zone: string;
  onClose: () => void;
}) {
  const set = useCommand("people.setMember");
  const candidates = people.filter(
    (person) =>
      person.id !== me && person.standing !== "leaver" && !group.members.some((one) => one.personId === person.id),
  );
  const [personId, setPersonId] = useState(candidates[0]?.id ?? "");
  const [from, setFrom] = useState("");
  const [until, setUntil] = useState(toLocal(null, zone));
  const [keeper, setKeeper] = useState(false);
  return (
    <Dialog title={`Add to ${group.name}`} open onClose={onClose}>
      <Form
        verb="Add"
        onSend={async () => {
          const window = { from: fromLocal(from, zone), until: fromLocal(until, zone) };
          if ((await set.run({ groupId: group.id, personId, ...window, keeper })).ok) onClose();
        }}
        running={set.running}
        unready={personId === ""}
        wrong={set.wrong()}
        onCancel={onClose}
      >
        <ChoiceField label="Person" value={personId} onText={setPersonId}>
          {candidates.map((person) => (
            <option key={person.id} value={person.id}>
              {person.name}
            </option>
          ))}
        </ChoiceField>
        <WindowFields from={from} until={until} onFrom={setFrom} onUntil={setUntil} wrong={set.wrong} />
        <CheckField checked={keeper} onTick={setKeeper} label="Keeper: may change who is in the group" />
      </Form>
    </Dialog>
  );
}
