"use client";

import { useState } from "react";
import styled from "styled-components";
import { type Given, levelWord } from "@/core/access/level";
import { useCommand } from "../shared/ask";
import { CutKey } from "../shared/CutKey";
import { Act, Button, CheckField, Row, Stack, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { fromLocal, soonEnds, toLocal } from "../shared/localTime";
import { fromWeeklyText, toWeeklyText, WeeklyFields, type WeeklyTerms } from "../shared/WeeklyFields";
import { WindowFields } from "../shared/WindowFields";

interface Terms {
  level: Given;
  from: number | null;
  until: number | null;
  weekly?: WeeklyTerms | null;
  why: string;
}

interface TermsProps {
  title: string;
  nodeWord: string;
  start: Terms;
  zone: string;
  onClose: () => void;
  command: string;
  /** One, or one for each of several nodes. */
  input: Record<string, unknown> | Record<string, unknown>[];
  verb: string;
  withdraw?: string;
  /** After several, with the ids of the grants; and what was refused then, where not all came through. */
  onGiven?: (grantIds: string[], refused: string | null) => void;
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
export function TermsDialog(props: TermsProps) {
  const { title, nodeWord, start, zone, onClose, command, input, verb, withdraw, onGiven } = props;
  const save = useCommand<{ grantId: string }>(command);
  const several = Array.isArray(input);
  const taking = useCommand("access.withdraw");
  const [level, setLevel] = useState<Given>(start.level);
  const [from, setFrom] = useState(toLocal(start.from, zone));
  const [until, setUntil] = useState(toLocal(start.until, zone));
  const [weekly, setWeekly] = useState(toWeeklyText(start.weekly));
  const [why, setWhy] = useState(start.why);
  const submit = async () => {
    const pattern = weekly && (fromWeeklyText(weekly) ?? { days: [], start: 0, end: 1440 });
    const terms = { level, from: fromLocal(from, zone), until: fromLocal(until, zone), weekly: pattern, why };
    const given: string[] = [];
    let refused: string | null = null;
    for (const one of several ? input : [input]) {
      const answer = await save.run({ ...one, ...terms });
      if (answer.ok) given.push(answer.result?.grantId);
      // Of several, some may have had it already.
      else if (!several || answer.refused.code !== "conflict") {
        if (given.length === 0) return;
        refused = answer.refused.message;
        break;
      }
    }
    onGiven?.(given, refused);
    onClose();
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
        <WeeklyFields value={weekly} onChange={setWeekly} wrong={save.wrong("weekly")} />
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
