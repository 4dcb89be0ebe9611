"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import styled from "styled-components";
import { sayWeekly } from "@/core/access/explain";
import { levelWord } from "@/core/access/level";
import { exactTime, sayTime } from "@/core/time";
import { SlipFoot } from "../access/SlipFoot";
import { type OwnSlip, useSlip } from "../access/useSlip";
import { Page } from "../frame/Frame";
import { useCommand } from "../shared/ask";
import { CutKey } from "../shared/CutKey";
import { Act, Button, Chip, Row, TextField } from "../shared/controls";
import { MomentField } from "../shared/DateFields";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { fromLocal, toLocal } from "../shared/localTime";
import { MaybeLink } from "../shared/MaybeLink";
import { Head } from "../vaults/VaultList";
import type { GroupView, MemberLine } from "./groupView";
import { MemberSheet } from "./MemberSheet";
import { groupPage as t } from "./strings";

const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr);
  gap: 48px;
  margin-top: 24px;
  @media (max-width: 1023px) { grid-template-columns: minmax(0, 1fr); gap: 32px; }
`;

const Lines = styled.ul`
  margin-top: 8px;
  border-top: 3px solid var(--ink);
  background: var(--sheet);
  --ground: var(--sheet);
  li { display: flex; flex-wrap: wrap; gap: 2px 14px; align-items: baseline; min-height: 40px; padding: 9px 12px; border-bottom: 1px solid var(--rule); line-height: 20px; overflow-wrap: anywhere; }
  li > :last-child { margin-left: auto; }
`;

const Gives = styled.ul`
  margin-top: 8px;
  li { display: grid; grid-template-columns: 66px minmax(0, 1fr); gap: 0 10px; padding: 8px 0; border-top: 1px solid var(--rule); line-height: 20px; overflow-wrap: anywhere; }
  li > svg { margin: 3px 0 0; }
  .small { display: block; }
`;

interface Props {
  group: GroupView;
  slip: OwnSlip;
  me: string;
  zone: string;
  now: number;
}

/** A group: who is in it, until when, and all that it gives; who changes it sees first what that would change. */
export function GroupPage({ group, slip: start, me, zone, now }: Props) {
  const [adding, setAdding] = useState(false);
  const [changing, setChanging] = useState<MemberLine | null>(null);
  const [renaming, setRenaming] = useState(false);
  const [ending, setEnding] = useState(false);
  const slip = useSlip(start);
  const router = useRouter();
  const members = group.members ?? [];
  const count = members.filter((one) => one.now).length;
  return (
    <>
      <Page
        where={t.isAGroup(
          <b>{group.name}</b>,
          group.members && t.ofPeople(count),
          group.keepers.length > 0 && t.itsKeepers(group.keepers.join(", ")),
          group.changes ? t.youCanChangeWhoIsInIt : t.itsKeepersAndAdministratorsCan,
        )}
      >
        <Head>
          <h1>{group.name}</h1>
          {group.changes && <Button onPress={() => setRenaming(true)}>{t.rename}</Button>}
          {group.changes && (
            <Button look="go" onPress={() => setAdding(true)}>
              {t.addToGroup}
            </Button>
          )}
        </Head>
        {group.description && <p className="soft">{group.description}</p>}
        {(group.changes || group.until !== null) && (
          <p style={{ marginTop: 6 }}>
            {group.until === null ? t.noEndDate : t.allPeopleLeaveTheGroupAtThe(exactTime(group.until, zone))}
            {group.changes && (
              <Act onPress={() => setEnding(true)}>{group.until === null ? t.setAnEndDate : t.changeTheEndDate}</Act>
            )}
          </p>
        )}
        <Two>
          <section aria-label={t.peopleInThisGroup}>
            <h2>{t.peopleInThisGroup}</h2>
            {group.members === null && <p className="soft">{t.youAreInItOnlyItsKeepers}</p>}
            {group.members?.length === 0 && <p className="soft">{t.nobodyYet}</p>}
            {members.length > 0 && (
              <Lines>
                {members.map((one) => (
                  <li key={one.personId}>
                    <b>{one.name}</b>
                    {one.personId === me && <span className="soft">{t.you}</span>}
                    {one.keeper && <span className="soft">{t.keeper}</span>}
                    {one.standing !== "active" && <Chip data-tone="plain">{STANDING[one.standing]}</Chip>}
                    {one.from !== null && one.from > now && (
                      <Chip data-tone="plain">{t.from(sayTime(one.from, now, zone))}</Chip>
                    )}
                    {one.until !== null &&
                      (one.until > now ? (
                        <Chip data-tone={one.until - now < WEEK ? undefined : "plain"}>
                          {t.until(sayTime(one.until, now, zone))}
                        </Chip>
                      ) : (
                        <Chip data-tone="plain">{t.ended(sayTime(one.until, now, zone))}</Chip>
                      ))}
                    <span>
                      {group.changes && one.personId !== me && (
                        <Act onPress={() => setChanging(one)} aria-label={t.change(one.name)}>
                          {t.change2}
                        </Act>
                      )}
                    </span>
                  </li>
                ))}
              </Lines>
            )}
          </section>
          <section aria-label={t.accessItGives}>
            <h2>{t.accessItGives}</h2>
            {group.gives.length === 0 && <p className="soft">{t.noAccessThatYouCanSee}</p>}
            <Gives>
              {group.gives.map((one) => (
                <li key={one.grantId}>
                  <CutKey level={one.level} until={one.until === null ? null : exactTime(one.until, zone)} />
                  <span>
                    <MaybeLink to={one.link}>{one.what}</MaybeLink>
                    <span className="small soft">
                      {levelWord(one.level)}
                      {one.from !== null && one.from > now && t.from2(sayTime(one.from, now, zone))}
                      {one.until !== null && t.until2(sayTime(one.until, now, zone))}
                      {one.weekly && `, ${sayWeekly(one.weekly)}`}
                    </span>
                  </span>
                </li>
              ))}
            </Gives>
            <p className="small soft" style={{ borderTop: "1px solid var(--rule)", paddingTop: 9 }}>
              {t.theStewardsOfThesePlacesAre}
            </p>
          </section>
        </Two>
      </Page>
      {slip.changes.length > 0 && (
        <SlipFoot state={slip} zone={zone} now={now} me={me} why={null} onApplied={() => router.refresh()} />
      )}
      {adding && (
        <MemberSheet group={group} one={null} me={me} zone={zone} now={now} onClose={() => setAdding(false)} />
      )}
      {changing && (
        <MemberSheet group={group} one={changing} me={me} zone={zone} now={now} onClose={() => setChanging(null)} />
      )}
      {renaming && <Rename group={group} onClose={() => setRenaming(false)} />}
      {ending && <End group={group} zone={zone} onClose={() => setEnding(false)} />}
    </>
  );
}

const WEEK = 7 * 86_400_000;
const STANDING = { active: "", invited: t.notJoinedYet, suspended: "suspended", leaver: "left" };

function Rename({ group, onClose }: { group: GroupView; onClose: () => void }) {
  const save = useCommand("people.changeGroup");
  const remove = useCommand("people.deleteGroup");
  const router = useRouter();
  const [name, setName] = useState(group.name);
  const [description, setDescription] = useState(group.description);
  return (
    <Dialog title={t.rename2(group.name)} open onClose={onClose}>
      <Form
        verb={t.rename}
        onSend={async () => {
          if ((await save.run({ groupId: group.id, name, description })).ok) onClose();
        }}
        running={save.running}
        onCancel={onClose}
        wrong={save.wrong() ?? remove.refused?.message ?? null}
        acts={
          group.deletes && (
            <Button
              look="harm"
              onPress={async () => {
                if ((await remove.run({ groupId: group.id })).ok) router.push("/people");
              }}
            >
              {t.deleteTheGroup}
            </Button>
          )
        }
      >
        <TextField label={t.name} value={name} onText={setName} wrong={save.wrong("name")} autoFocus />
        <TextField
          label={t.description}
          value={description}
          onText={setDescription}
          wrong={save.wrong("description")}
        />
      </Form>
    </Dialog>
  );
}

function End({ group, zone, onClose }: { group: GroupView; zone: string; onClose: () => void }) {
  const save = useCommand("people.endGroup");
  const [until, setUntil] = useState(toLocal(group.until, zone));
  return (
    <Dialog title={t.endDateOf(group.name)} open onClose={onClose}>
      <Form
        verb={until === "" ? t.removeEndDate : t.setEndDate}
        onSend={async () => {
          if ((await save.run({ groupId: group.id, until: fromLocal(until, zone) })).ok) onClose();
        }}
        running={save.running}
        onCancel={onClose}
        wrong={save.wrong()}
      >
        <p>{t.allPeopleLeaveTheGroupOnThis}</p>
        <MomentField
          label={t.until3}
          value={until}
          onText={setUntil}
          wrong={save.wrong("until")}
          hint={t.leaveEmptyForNoEndDate}
          autoFocus
        />
        {group.until !== null && (
          <Row>
            <Act onPress={() => setUntil(toLocal(group.until! + 4 * WEEK, zone))}>{t.fourWeeksLater}</Act>
          </Row>
        )}
      </Form>
    </Dialog>
  );
}
