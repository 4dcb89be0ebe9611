"use client";

import { useEffect, useState } from "react";
import styled from "styled-components";
import type { Change, Subject, Terms } from "@/core/access";
import { type Given, levelWord } from "@/core/access/level";
import type { CellSet } from "@/server/access/cells";
import { Foreseen } from "../access/Foreseen";
import { OntoSlip } from "../access/OntoSlip";
import { runQuery, useCommand } from "../shared/ask";
import { CutKey } from "../shared/CutKey";
import { Act, Button, CheckField, Row, Stack, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { fromLocal, soonEnds, toLocal } from "../shared/localTime";
import { fromWeeklyText, toWeeklyText, WeeklyFields, type WeeklyTerms } from "../shared/WeeklyFields";
import { WindowFields } from "../shared/WindowFields";
import { termsDialog as t } from "./strings";

interface Start {
  level: Given;
  from: number | null;
  until: number | null;
  weekly?: WeeklyTerms | null;
  why: string;
}

interface TermsProps {
  title: string;
  nodeWord: string;
  start: Start;
  zone: string;
  onClose: () => void;
  /** Where it is set, and for whom. */
  nodeIds: string[];
  subject: Subject;
  /** The grant that is changed; otherwise one is given. */
  changes?: string;
  verb: string;
  /** After several, with the ids of the grants; and what was refused then, where not all came through. */
  onGiven?: (grantIds: string[], refused: string | null) => void;
}

const CHOICES: { level: Given; says: string }[] = [
  { level: "use", says: t.signInWithoutSeeingTheUserName },
  { level: "reveal", says: t.alsoSeeTheUserNameAndReveal },
  { level: "edit", says: t.alsoChangeIt },
  { level: "steward", says: t.alsoGiveAndEndAccessExportIt },
  { level: "blocked", says: t.noAccessWhateverTheirGroups },
];

const Level = styled.span`
  display: grid;
  grid-template-columns: 52px 1fr;
  gap: 10px;
`;

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 20px 32px;
  @media (max-width: 719px) { grid-template-columns: minmax(0, 1fr); }
`;

const plainTerms = ({ level, from, until, weekly }: Terms): Terms => ({ level, from, until, weekly: weekly ?? null });

/** What is set at the places already; null while it is being read. */
function useCells(nodeIds: readonly string[], subject: Subject): CellSet[] | null {
  const [cells, setCells] = useState<CellSet[] | null>(null);
  const asked = JSON.stringify({ nodeIds, subject });
  useEffect(() => {
    let current = true;
    void runQuery("access.accessCells", JSON.parse(asked)).then((answer) => {
      if (current && answer.ok) setCells(answer.result);
    });
    return () => {
      current = false;
    };
  }, [asked]);
  return cells;
}

/** Level, from, until and why, with what they would change; what is wrong is said at its field, and nothing typed is lost. */
export function TermsDialog(props: TermsProps) {
  const { title, nodeWord, start, zone, onClose, nodeIds, subject, changes: changed, verb, onGiven } = props;
  const save = useCommand(changed ? "access.changeAccess" : "access.giveAccess");
  const several = nodeIds.length > 1;
  const cells = useCells(nodeIds, subject);
  const taking = useCommand("access.endAccess");
  const [level, setLevel] = useState<Given>(start.level);
  const [from, setFrom] = useState(toLocal(start.from, zone));
  const [until, setUntil] = useState(toLocal(start.until, zone));
  const [weekly, setWeekly] = useState(toWeeklyText(start.weekly));
  const [why, setWhy] = useState(start.why);
  const [wrong, setWrong] = useState<string | null>(null);
  const window = { from: fromLocal(from, zone), until: fromLocal(until, zone) };
  const pattern = weekly && (fromWeeklyText(weekly) ?? { days: [], start: 0, end: 1440 });
  const set = (grants: readonly Terms[]): Change[] =>
    (cells ?? []).map((cell) => ({
      type: "set",
      nodeId: cell.nodeId,
      subject,
      grants: [...cell.grants.filter(({ id }) => id !== changed), ...grants].map(plainTerms),
    }));
  // A day of the week that is not chosen yet says nothing of what would change.
  const ready = pattern === null || pattern.days.length > 0;
  const wanted = ready ? set([{ level, ...window, weekly: pattern && { ...pattern, zone } }]) : [];
  const submit = async () => {
    const terms = { level, ...window, weekly: pattern, why };
    const given: string[] = [];
    let refused: string | null = null;
    for (const nodeId of nodeIds) {
      const answer = await save.run({ ...(changed ? { grantId: changed } : { nodeId, subject }), ...terms });
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
    <Dialog title={title} open onClose={onClose} wide>
      <Form
        verb={verb}
        onSend={submit}
        running={save.running}
        onCancel={onClose}
        below={wanted.length > 0 && <Foreseen title={t.effects} changes={wanted} zone={zone} now={Date.now()} me="" />}
        wrong={wrong ?? save.wrong() ?? save.wrong("subject") ?? taking.wrong()}
        acts={
          <>
            <OntoSlip changes={wanted} onWrong={setWrong} onDone={onClose} />
            {changed && (
              <Button
                look="harm"
                isDisabled={taking.running}
                onPress={async () => {
                  if ((await taking.run({ grantId: changed })).ok) onClose();
                }}
              >
                {t.withdraw}
              </Button>
            )}
          </>
        }
      >
        <Columns>
          <fieldset>
            <legend className="small soft" style={{ marginBottom: 6 }}>
              {t.onTheyCan(nodeWord)}
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
          <Stack>
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
              label={t.reason}
              value={why}
              maxLength={500}
              onText={setWhy}
              wrong={save.wrong("why")}
              hint={t.shownInTheJournalOfTheEntry}
            />
          </Stack>
        </Columns>
      </Form>
    </Dialog>
  );
}
