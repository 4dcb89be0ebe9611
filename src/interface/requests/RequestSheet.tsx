"use client";

import { useState } from "react";
import { LEVELS, type Level, levelWord, type Reach, rank } from "@/core/access/level";
import { useCommand } from "../shared/ask";
import { CutKey } from "../shared/CutKey";
import { Act, CheckField, Row, Stack, TextArea } from "../shared/controls";
import { MomentField } from "../shared/DateFields";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { fromLocal, soonEnds, toLocal } from "../shared/localTime";
import { requestSheet as t } from "./strings";

const SAYS: Record<Level, string> = {
  use: t.signInWithItWithoutSeeingIts,
  reveal: t.alsoRevealItsUserNameAnd,
  edit: t.alsoEditIt,
  steward: t.alsoDecideWhoCanDoWhatWith,
};

interface AskProps {
  nodeId: string;
  name: string;
  has: Reach;
  /** A guest never has more than Edit. */
  guest?: boolean;
  stewards: readonly string[];
  zone: string;
  onClose: () => void;
}

/** What level, until when, what for: it goes to the stewards. */
export function RequestSheet({ nodeId, name, has, guest = false, stewards, zone, onClose }: AskProps) {
  const ask = useCommand("access.requestAccess");
  const done = useDone();
  const choices = LEVELS.filter((one) => rank(one) > rank(has) && !(guest && one === "steward"));
  const [level, setLevel] = useState<Level>(choices[0] ?? "use");
  const [until, setUntil] = useState("");
  const [why, setWhy] = useState("");
  const send = async () => {
    const answer = await ask.run({ nodeId, level, until: fromLocal(until, zone), why });
    if (!answer.ok) return;
    done(t.requestedOnYouWillBeToldWhen(levelWord(level), name));
    onClose();
  };
  return (
    <Dialog title={t.requestAccessTo(name)} open onClose={onClose}>
      <Form verb={t.requestAccess} onSend={send} running={ask.running} onCancel={onClose} wrong={ask.wrong()}>
        <fieldset>
          <legend className="small soft" style={{ marginBottom: 6 }}>
            {t.whatYouNeed}
          </legend>
          <Stack style={{ gap: 8 }}>
            {choices.map((one) => (
              <CheckField
                key={one}
                type="radio"
                name="level"
                value={one}
                checked={level === one}
                onChange={() => setLevel(one)}
                label={
                  <span style={{ display: "grid", gridTemplateColumns: "52px 1fr", gap: 10 }}>
                    <CutKey level={one} silent />
                    <span>
                      <b>{levelWord(one)}</b>{" "}
                      <span className="soft small" style={{ display: "block" }}>
                        {SAYS[one]}
                      </span>
                    </span>
                  </span>
                }
              />
            ))}
          </Stack>
          {ask.wrong("level") && <p role="alert">{ask.wrong("level")}</p>}
        </fieldset>
        <MomentField
          label={t.until}
          value={until}
          onText={setUntil}
          wrong={ask.wrong("until")}
          hint={t.leaveEmptyForNoEndDate}
        />
        <Row>
          {soonEnds(zone).map((preset) => (
            <Act key={preset.says} onPress={() => setUntil(toLocal(preset.at, zone))}>
              {preset.says}
            </Act>
          ))}
        </Row>
        <TextArea
          label={t.reason}
          value={why}
          maxLength={500}
          onText={setWhy}
          wrong={ask.wrong("why")}
          hint={stewards.length > 0 ? t.willReadIt(stewards.join(", ")) : t.itsStewardWillReadIt}
        />
      </Form>
    </Dialog>
  );
}
