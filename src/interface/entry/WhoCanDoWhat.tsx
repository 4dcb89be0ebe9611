"use client";

import { useState } from "react";
import styled from "styled-components";
import type { Given } from "@/core/access";
import { levelWord } from "@/core/access/level";
import { exactTime, sayTime } from "@/core/time";
import type { whoCanDoWhat } from "@/server/access/who";
import { runQuery, useCommand } from "../shared/ask";
import { CutKey } from "../shared/CutKey";
import { Act, Button, CheckField, Chip, Row, Stack, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { fromLocal, toLocal } from "../shared/localTime";
import { Picker } from "../shared/Picker";
import { WindowFields } from "../shared/WindowFields";

export type WhoView = Awaited<ReturnType<(typeof whoCanDoWhat)["execute"]>>;
type WhoLine = WhoView["lines"][number];

interface SubjectChoice {
  kind: "person" | "group" | "everyone";
  id: string;
  name: string;
  note: string;
}

const loadSubjects = async () => {
  const answer = await runQuery<SubjectChoice[]>("people.subjects", {});
  return answer.ok ? answer.result : null;
};

const List = styled.ul`
  li { display: grid; grid-template-columns: 66px minmax(0, 1fr) auto; gap: 0 10px; padding: 8px 0; border-top: 1px solid var(--rule); line-height: 20px; overflow-wrap: anywhere; }
  li > svg { margin: 3px 0 0; }
  .small { display: block; }
  .do { display: flex; flex-wrap: wrap; gap: 4px 12px; justify-content: end; align-items: start; }
  .do button { min-height: 20px; }
  @media (max-width: 719px) {
    li { grid-template-columns: 66px minmax(0, 1fr); }
    .do { grid-column: 2; justify-content: start; margin-top: 4px; }
  }
`;

const People = styled.ul`
  li { padding: 6px 0; border-top: 1px solid var(--rule); font-size: 13.5px; line-height: 20px; overflow-wrap: anywhere; }
`;

interface Props {
  nodeId: string;
  nodeWord: string;
  who: WhoView;
  zone: string;
  now: number;
}

/** Grants that count here, where each comes from, and everybody who is reached through them. */
export function WhoCanDoWhat({ nodeId, nodeWord, who, zone, now }: Props) {
  const [giving, setGiving] = useState<SubjectChoice | null>(null);
  const [changing, setChanging] = useState<WhoLine | null>(null);
  const [each, setEach] = useState(false);
  const users = who.reached.length;
  return (
    <section>
      <h2 style={{ marginBottom: 8 }}>Who can do what</h2>
      <Picker<SubjectChoice>
        label="Give access"
        placeholder="Give to a person, a group, Everyone"
        list="People and groups"
        nothing="Nobody of that name is here."
        load={loadSubjects}
        onPick={setGiving}
      />
      <List style={{ marginTop: 10 }}>
        {who.lines.map((line) => (
          <li key={line.key} data-subject={line.name}>
            <CutKey
              level={line.level}
              inherited={!line.here}
              until={line.until === null ? null : exactTime(line.until, zone)}
            />
            <span>
              <b>{line.name}</b> <span className="soft">{line.note}</span>
              <span className="small">
                {levelWord(line.level)}, {line.where}
                {line.coming && (
                  <>
                    {" "}
                    <Chip data-tone="plain">from {sayTime(line.from!, now, zone)}</Chip>
                  </>
                )}
                {line.until !== null && (
                  <>
                    {" "}
                    <Chip>until {sayTime(line.until, now, zone)}</Chip>
                  </>
                )}
              </span>
              {line.why && <span className="small soft">“{line.why}”</span>}
            </span>
            <span className="do">
              <Act onPress={() => setChanging(line)} aria-label={`${line.here ? "Change" : "Set here"}: ${line.name}`}>
                {line.here ? "Change" : "Set here"}
              </Act>
            </span>
          </li>
        ))}
      </List>
      <p className="small" style={{ borderTop: "1px solid var(--rule)", paddingTop: 9 }}>
        {users === 0 ? "Nobody can use it." : `${users} ${users === 1 ? "person" : "people"} in all can use it.`}{" "}
        {users > 0 && (
          <Act onPress={() => setEach(!each)} aria-expanded={each}>
            {each ? "Hide them" : "See each of them"}
          </Act>
        )}
      </p>
      {each && (
        <People>
          {who.reached.map((one) => (
            <li key={one.personId}>
              <b>{one.name}</b> <span className="soft">{one.note}</span>
              <br />
              {one.sentence}
            </li>
          ))}
        </People>
      )}
      {giving && (
        <TermsDialog
          title={`Give access to ${giving.name}`}
          nodeWord={nodeWord}
          start={{ level: "use", from: null, until: null, why: "" }}
          zone={zone}
          onClose={() => setGiving(null)}
          command="access.give"
          input={{
            nodeId,
            subject: giving.kind === "everyone" ? { kind: "everyone" } : { kind: giving.kind, id: giving.id },
          }}
          verb="Give access"
        />
      )}
      {changing?.here && (
        <TermsDialog
          title={`Change access of ${changing.name}`}
          nodeWord={nodeWord}
          start={changing}
          zone={zone}
          onClose={() => setChanging(null)}
          command="access.change"
          input={{ grantId: changing.grantId }}
          verb="Change"
          withdraw={changing.grantId}
        />
      )}
      {changing && !changing.here && (
        <TermsDialog
          title={`Set access of ${changing.name} here`}
          nodeWord={nodeWord}
          start={{ ...changing, why: "" }}
          zone={zone}
          onClose={() => setChanging(null)}
          command="access.give"
          input={{ nodeId, subject: changing.subject }}
          verb="Set here"
        />
      )}
    </section>
  );
}

interface Terms {
  level: Given;
  from: number | null;
  until: number | null;
  why: string;
}

interface TermsProps {
  title: string;
  nodeWord: string;
  start: Terms;
  zone: string;
  onClose: () => void;
  command: string;
  input: Record<string, unknown>;
  verb: string;
  withdraw?: string;
}

const CHOICES: { level: Given; says: string }[] = [
  { level: "use", says: "sign in, without seeing user name or password" },
  { level: "reveal", says: "also see the user name and show the password; each time is written in the journal" },
  { level: "edit", says: "also change it" },
  { level: "steward", says: "also give and withdraw access, and bin it" },
  { level: "blocked", says: "nothing, whatever other groups have" },
];

const Level = styled.span`
  display: grid;
  grid-template-columns: 52px 1fr;
  gap: 10px;
`;

/** Level, from, until and why; what is wrong is said at its field, and nothing typed is lost. */
function TermsDialog({ title, nodeWord, start, zone, onClose, command, input, verb, withdraw }: TermsProps) {
  const save = useCommand(command);
  const taking = useCommand("access.withdraw");
  const [level, setLevel] = useState<Given>(start.level);
  const [from, setFrom] = useState(toLocal(start.from, zone));
  const [until, setUntil] = useState(toLocal(start.until, zone));
  const [why, setWhy] = useState(start.why);
  const submit = async () => {
    const answer = await save.run({ ...input, level, from: fromLocal(from, zone), until: fromLocal(until, zone), why });
    if (answer.ok) onClose();
  };
  const presets = soonEnds(zone);
  return (
    <Dialog title={title} open onClose={onClose}>
      <Form
        verb={verb}
        onSend={submit}
        running={save.running}
        onCancel={onClose}
        wrong={save.wrong() ?? save.wrong("subject") ?? taking.wrong()}
        acts={
          withdraw && (
            <Button
              look="harm"
              isDisabled={taking.running}
              onPress={async () => {
                if ((await taking.run({ grantId: withdraw })).ok) onClose();
              }}
            >
              Withdraw
            </Button>
          )
        }
      >
        <fieldset>
          <legend className="small soft" style={{ marginBottom: 6 }}>
            On {nodeWord} they may
          </legend>
          <Stack style={{ gap: 8 }}>
            {CHOICES.map((choice) => (
              <CheckField
                key={choice.level}
                type="radio"
                name="level"
                value={choice.level}
                checked={level === choice.level}
                onChange={() => setLevel(choice.level)}
                label={
                  <Level>
                    <CutKey level={choice.level} silent />
                    <span>
                      <b>{levelWord(choice.level)}</b>{" "}
                      <span className="soft small" style={{ display: "block" }}>
                        {choice.says}
                      </span>
                    </span>
                  </Level>
                }
              />
            ))}
          </Stack>
          {save.wrong("level") && (
            <p role="alert" style={{ color: "var(--crimson)", fontWeight: 600 }}>
              {save.wrong("level")}
            </p>
          )}
        </fieldset>
        <WindowFields from={from} until={until} onFrom={setFrom} onUntil={setUntil} wrong={save.wrong} />
        <Row>
          {presets.map((preset) => (
            <Act key={preset.says} onPress={() => setUntil(toLocal(preset.at, zone))}>
              {preset.says}
            </Act>
          ))}
        </Row>
        <TextField
          label="What for"
          value={why}
          maxLength={500}
          onText={setWhy}
          wrong={save.wrong("why")}
          hint="stands in the story of the entry"
        />
      </Form>
    </Dialog>
  );
}

/** Ends that people name: tonight, Sunday, the end of the month. */
function soonEnds(zone: string): { says: string; at: number }[] {
  const at = (days: number) => fromLocal(`${toLocal(Date.now() + days * 86_400_000, zone).slice(0, 10)}T18:00`, zone)!;
  const weekday = new Intl.DateTimeFormat("en-GB", { timeZone: zone, weekday: "short" }).format(Date.now());
  const toSunday = (7 - ["Sun", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat"].indexOf(weekday)) % 7 || 7;
  return [
    { says: "Tomorrow, 18:00", at: at(1) },
    { says: "Sunday, 18:00", at: at(toSunday) },
    { says: "In two weeks", at: at(14) },
  ];
}
