"use client";

import { useState } from "react";
import { useCommand } from "../shared/ask";
import { Button, Row, TextField } from "../shared/controls";
import { MomentField } from "../shared/DateFields";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { fromLocal, toLocal } from "../shared/localTime";
import { upkeep as t } from "./strings";

const DAY = 86_400_000;

interface PutOffProps {
  ids: readonly string[];
  zone: string;
  onClose: () => void;
  onDone: () => void;
}

/** Until a date, with a reason: nothing is hidden for good. */
export function PutOff({ ids, zone, onClose, onDone }: PutOffProps) {
  const putOff = useCommand("upkeep.putOffFindings");
  const done = useDone();
  const [until, setUntil] = useState("");
  const [why, setWhy] = useState("");
  const inDays = (days: number) => setUntil(`${toLocal(Date.now() + days * DAY, zone).slice(0, 10)}T09:00`);
  const send = async () => {
    const at = fromLocal(until, zone);
    if (at === null) return;
    if (!(await putOff.run({ ids, until: at, why })).ok) return;
    done(t.whenDone(ids.length), [{ command: "upkeep.undoPutOff", input: { ids } }]);
    onDone();
  };
  return (
    <Dialog open title={t.putOffTitle(ids.length)} onClose={onClose}>
      <Form
        verb={t.putOff}
        onSend={send}
        onCancel={onClose}
        running={putOff.running}
        unready={until === ""}
        wrong={putOff.wrong() ?? putOff.wrong("ids")}
      >
        <p>{t.theyComeBack}</p>
        <MomentField label={t.until} value={until} onText={setUntil} time="09:00" wrong={putOff.wrong("until")} />
        <Row>
          <Button onPress={() => inDays(7)}>{t.inAWeek}</Button>
          <Button onPress={() => inDays(30)}>{t.inAMonth}</Button>
        </Row>
        <TextField
          label={t.reason}
          hint={t.stewardsSeeIt}
          value={why}
          onText={setWhy}
          maxLength={300}
          wrong={putOff.wrong("why")}
        />
      </Form>
    </Dialog>
  );
}
