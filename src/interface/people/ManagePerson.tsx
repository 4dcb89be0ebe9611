"use client";

import { useState } from "react";
import type { Role } from "@/core/people/role";
import { sayTime } from "@/core/time";
import type { LinkState, PersonLine } from "@/server/people/peopleList";
import { useCommand } from "../shared/ask";
import { Button, ButtonLink, ChoiceField, Notice, Row, Stack, TextField } from "../shared/controls";
import { MomentField } from "../shared/DateFields";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { fromLocal, toLocal } from "../shared/localTime";
import { LinkToHandOver } from "./LinkToHandOver";
import { people as t } from "./strings";

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
      {isOwner && <option value="auditor">{t.auditorReadsAndChangesNothing}</option>}
      {isOwner && <option value="owner">{t.owner}</option>}
    </ChoiceField>
  );
}

/** Where the sign-in link of somebody who has not joined yet is. */
export function sayLink(link: LinkState | null, now: number, zone: string): string {
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

export function Manage({ person, mails, isOwner, zone, now, onClose }: ManageProps) {
  const done = useDone();
  const extend = useCommand("people.extendLink");
  const withdraw = useCommand("people.withdrawLink");
  const renew = useCommand("people.renewLink");
  const suspend = useCommand("people.suspend");
  const back = useCommand("people.reinstate");
  const endAll = useCommand("people.endEverything");
  const reset = useCommand("people.resetWays");
  const changeRole = useCommand("people.changeRole");
  const [why, setWhy] = useState("");
  const [link, setLink] = useState<string | null>(null);
  const refused = [reset, extend, withdraw, renew, suspend, back, endAll, changeRole]
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
            {(person.ways.passkeys > 0 || person.ways.codes) && here && (
              <Button onPress={() => reset.run({ personId: person.id })}>{t.resetWays}</Button>
            )}
            {here && <Button onPress={() => suspend.run({ personId: person.id, why })}>{t.suspend}</Button>}
            {person.standing === "suspended" && (
              <Button look="go" onPress={() => back.run({ personId: person.id, why })}>
                {t.reinstate}
              </Button>
            )}
          </Row>
          <Row>
            <ButtonLink href={`/people/${person.id}/leave`}>
              {person.standing === "leaver" ? t.whatTheyHad : t.leavesEllipsis}
            </ButtonLink>
          </Row>
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
