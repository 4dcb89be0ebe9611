"use client";

import { useState } from "react";
import type { Change } from "@/core/access";
import type { PersonLine } from "@/server/people/peopleList";
import { Foreseen } from "../access/Foreseen";
import { useCommand } from "../shared/ask";
import { Button, TextField } from "../shared/controls";
import { MomentField } from "../shared/DateFields";
import { Dialog } from "../shared/Dialog";
import { type Step, useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { fromLocal } from "../shared/localTime";
import { PickSeveral } from "../shared/PickSeveral";
import { SelectionBar } from "../shared/SelectionBar";
import { WindowFields } from "../shared/WindowFields";
import { amongGroups } from "./findGroups";
import { severalPeople as t } from "./strings";

/** So many at once: what is asked for is done whole or not at all. */
const MOST = 200;

interface SeveralProps {
  /** By their ids. */
  chosen: ReadonlyMap<string, PersonLine>;
  me: string;
  zone: string;
  now: number;
  onNone: () => void;
}

type Sheet = "group" | "end" | "suspend";

/** What can be done with several people at once. */
export function SeveralPeople({ chosen, me, zone, now, onNone }: SeveralProps) {
  const [sheet, setSheet] = useState<Sheet | null>(null);
  const tooMany = chosen.size > MOST;
  const props = { chosen, me, zone, now, onClose: () => setSheet(null), onNone };
  return (
    <>
      <SelectionBar role="toolbar" aria-label={t.selection}>
        <span role="status">{tooMany ? t.atMost(chosen.size, MOST) : t.selected(chosen.size)}</span>
        <Button isDisabled={tooMany} onPress={() => setSheet("group")}>
          {t.addToGroups}
        </Button>
        <Button isDisabled={tooMany} onPress={() => setSheet("end")}>
          {t.setAnEndDate}
        </Button>
        <Button isDisabled={tooMany} onPress={() => setSheet("suspend")}>
          {t.suspend}
        </Button>
        <Button onPress={onNone}>{t.clearSelection}</Button>
      </SelectionBar>
      {sheet === "group" && <IntoGroups {...props} />}
      {sheet === "end" && <UntilSheet {...props} />}
      {sheet === "suspend" && <SuspendSheet {...props} />}
    </>
  );
}

type SheetProps = SeveralProps & { onClose: () => void };

const namesOf = (chosen: ReadonlyMap<string, PersonLine>) =>
  [...chosen.values()]
    .map(({ name }) => name)
    .sort()
    .join(", ");

function IntoGroups({ chosen, me, zone, now, onClose, onNone }: SheetProps) {
  const change = useCommand("people.changeMembers");
  const done = useDone();
  const [groups, setGroups] = useState<{ id: string; name: string }[]>([]);
  const [from, setFrom] = useState("");
  const [until, setUntil] = useState("");
  const held = { from: fromLocal(from, zone), until: fromLocal(until, zone) };
  // Whoever is in a group already stays in it as they are, and an undo does not take them out.
  const pairs = groups.flatMap(({ id: groupId }) =>
    [...chosen.values()]
      .filter((person) => !person.groups.some(({ id }) => id === groupId))
      .map(({ id: personId }) => ({ groupId, personId })),
  );
  const already = groups.length * chosen.size - pairs.length;
  const changes = pairs.map((of): Change => ({ type: "member", ...of, held, keeper: false }));
  const send = async () => {
    const answer = await change.run({ changes: pairs.map((of) => ({ ...of, held: { ...held, keeper: false } })) });
    if (!answer.ok) return;
    const undo: Step[] = [
      { command: "people.changeMembers", input: { changes: pairs.map((of) => ({ ...of, held: null })) } },
    ];
    onClose();
    onNone();
    done(t.wereAdded(chosen.size, groups.map(({ name }) => name).join(", ")), undo);
  };
  return (
    <Dialog title={t.addThemToGroups(chosen.size)} open onClose={onClose}>
      <Form
        verb={t.add}
        onSend={send}
        running={change.running}
        unready={pairs.length === 0 || pairs.length > MOST}
        below={pairs.length <= MOST && <Foreseen title={t.whatChanges} {...{ changes, zone, now, me }} />}
        wrong={pairs.length > MOST ? t.tooManyPairs(MOST) : (change.refused?.message ?? null)}
        onCancel={onClose}
      >
        <p className="soft small">{namesOf(chosen)}</p>
        <PickSeveral label={t.groups} {...amongGroups} chosen={groups} onChange={setGroups} remove={t.notThis} />
        {already > 0 && <p className="small">{t.alreadyThere(already)}</p>}
        <WindowFields
          {...{ from, until }}
          onFrom={setFrom}
          onUntil={setUntil}
          wrong={(field) => (change.refused?.field?.endsWith(`.${field}`) ? change.refused.message : null)}
        />
      </Form>
    </Dialog>
  );
}

function UntilSheet({ chosen, zone, onClose, onNone }: SheetProps) {
  const save = useCommand("people.setEnds");
  const done = useDone();
  const [until, setUntil] = useState("");
  const send = async () => {
    const answer = await save.run({ personIds: [...chosen.keys()], until: fromLocal(until, zone) });
    if (!answer.ok) return;
    onClose();
    onNone();
    done(until === "" ? t.noEndDateNow(chosen.size) : t.endDateSet(chosen.size));
  };
  return (
    <Dialog title={t.endDateOfThem(chosen.size)} open onClose={onClose}>
      <Form
        verb={until === "" ? t.removeEndDate : t.setEndDate}
        onSend={send}
        running={save.running}
        wrong={save.wrong()}
        onCancel={onClose}
      >
        <p className="soft small">{namesOf(chosen)}</p>
        <MomentField
          label={t.allAccessEnds}
          value={until}
          onText={setUntil}
          wrong={save.wrong("until")}
          hint={t.leaveEmptyForNoEndDate}
          autoFocus
        />
      </Form>
    </Dialog>
  );
}

function SuspendSheet({ chosen, onClose, onNone }: SheetProps) {
  const suspend = useCommand("people.suspendPeople");
  const done = useDone();
  const [why, setWhy] = useState("");
  const send = async () => {
    const answer = await suspend.run({ personIds: [...chosen.keys()], why });
    if (!answer.ok) return;
    onClose();
    onNone();
    done(
      t.areSuspended(chosen.size),
      [...chosen.keys()].map((personId): Step => ({ command: "people.reinstate", input: { personId } })),
    );
  };
  return (
    <Dialog title={t.suspendThem(chosen.size)} open onClose={onClose}>
      <Form
        verb={t.suspendVerb}
        look="harm"
        onSend={send}
        running={suspend.running}
        wrong={suspend.wrong()}
        onCancel={onClose}
      >
        <p>{t.theyAreSignedOut}</p>
        <p className="soft small">{namesOf(chosen)}</p>
        <TextField label={t.reason} value={why} onText={setWhy} hint={t.writtenInTheJournal} autoFocus />
      </Form>
    </Dialog>
  );
}
