"use client";

import { useState } from "react";
import { useCommand } from "../shared/ask";
import { ChoiceField, TextField } from "../shared/controls";
import { MomentField } from "../shared/DateFields";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { fromLocal } from "../shared/localTime";
import type { Knower } from "./SeenStill";
import { askForChanges as t } from "./strings";

/** What somebody knows is to be changed by its stewards, until a date. */
export function AskForChanges({ person, zone, onClose }: { person: Knower; zone: string; onClose: () => void }) {
  const ask = useCommand("people.askForChanges");
  const done = useDone();
  const [sort, setSort] = useState<"lost" | "lowered">("lost");
  const [why, setWhy] = useState("");
  const [due, setDue] = useState("");
  const send = async () => {
    const dueAt = due === "" ? null : fromLocal(due, zone);
    if (!(await ask.run({ personId: person.id, sort, why, dueAt })).ok) return;
    onClose();
    done(t.areAsked);
  };
  return (
    <Dialog open title={t.title(person.name)} onClose={onClose}>
      <Form
        verb={t.ask}
        onSend={send}
        onCancel={onClose}
        running={ask.running}
        unready={why.trim() === ""}
        wrong={ask.wrong()}
      >
        <p>{t.says}</p>
        {person.standing !== "leaver" && (
          <ChoiceField label={t.what} value={sort} onText={(text) => setSort(text as "lost" | "lowered")}>
            <option value="lost">{t.everything}</option>
            <option value="lowered">{t.onlyLowered}</option>
          </ChoiceField>
        )}
        <TextField
          label={t.reason}
          hint={t.stewardsReadIt}
          value={why}
          onText={setWhy}
          maxLength={300}
          wrong={ask.wrong("why")}
        />
        <MomentField label={t.changeBy} hint={t.inAWeek} value={due} onText={setDue} wrong={ask.wrong("dueAt")} />
      </Form>
    </Dialog>
  );
}

export function ChangeDate({ listId, zone, onClose }: { listId: string; zone: string; onClose: () => void }) {
  const set = useCommand("people.setChangeListDate");
  const done = useDone();
  const [due, setDue] = useState("");
  const send = async () => {
    const dueAt = fromLocal(due, zone);
    if (dueAt === null || !(await set.run({ listId, dueAt })).ok) return;
    onClose();
    done(t.dateIsSet);
  };
  return (
    <Dialog open title={t.dateTitle} onClose={onClose}>
      <Form
        verb={t.setDate}
        onSend={send}
        onCancel={onClose}
        running={set.running}
        unready={due === ""}
        wrong={set.wrong()}
      >
        <MomentField label={t.changeBy} value={due} onText={setDue} wrong={set.wrong("dueAt")} autoFocus />
      </Form>
    </Dialog>
  );
}
