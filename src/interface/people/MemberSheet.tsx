"use client";

import { useState } from "react";
import type { Change } from "@/core/access";
import { Foreseen } from "../access/Foreseen";
import { OntoSlip } from "../access/OntoSlip";
import { findSubjects, type SubjectChoice } from "../entry/subjects";
import { useCommand } from "../shared/ask";
import { Act, CheckField, Row } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { fromLocal, soonEnds, toLocal } from "../shared/localTime";
import { Picker } from "../shared/Picker";
import { WindowFields } from "../shared/WindowFields";
import type { GroupView, MemberLine } from "./GroupPage";
import { memberSheet as t } from "./strings";

interface SheetProps {
  group: GroupView;
  /** Whose membership changes; null to add somebody. */
  one: MemberLine | null;
  me: string;
  zone: string;
  now: number;
  onClose: () => void;
}

const findPeople = findSubjects("people");

/** Somebody comes into a group, for a time perhaps, or leaves it: what that changes stands beside the button. */
export function MemberSheet({ group, one, me, zone, now, onClose }: SheetProps) {
  const set = useCommand("people.setMember");
  const remove = useCommand("people.removeMember");
  const done = useDone();
  const [chosen, setChosen] = useState<{ id: string; name: string } | null>(
    one && { id: one.personId, name: one.name },
  );
  const [from, setFrom] = useState(toLocal(one?.from ?? null, zone));
  const [until, setUntil] = useState(toLocal(one ? one.until : group.until, zone));
  const [keeper, setKeeper] = useState(one?.keeper ?? false);
  const [leaves, setLeaves] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const held = { from: fromLocal(from, zone), until: fromLocal(until, zone) };
  const changes: Change[] = chosen
    ? [
        leaves
          ? { type: "member", groupId: group.id, personId: chosen.id, held: null }
          : { type: "member", groupId: group.id, personId: chosen.id, held, keeper },
      ]
    : [];
  const send = async () => {
    if (!chosen) return setWrong(t.chooseAPerson);
    const of = { groupId: group.id, personId: chosen.id };
    const answer = leaves ? await remove.run(of) : await set.run({ ...of, ...held, keeper });
    if (!answer.ok) return;
    if (leaves) {
      const back = { ...of, from: one!.from, until: one!.until, keeper: one!.keeper };
      done(t.wasRemovedFrom(chosen.name, group.name), [{ command: "people.setMember", input: back }]);
    } else if (!one) done(t.wasAddedTo(chosen.name, group.name), [{ command: "people.removeMember", input: of }]);
    onClose();
  };
  const load = async (typed: string): Promise<SubjectChoice[] | null> => {
    const all = await findPeople(typed);
    const inIt = new Set((group.members ?? []).map((member) => member.personId));
    return all?.filter((subject) => subject.kind === "person" && subject.id !== me && !inIt.has(subject.id)) ?? null;
  };
  return (
    <Dialog title={one ? t.inWord(one.name, group.name) : t.addTo(group.name)} open onClose={onClose}>
      <Form
        verb={leaves ? t.removeFromGroup : one ? t.change : t.add}
        look={leaves ? "harm" : "go"}
        onSend={send}
        running={set.running || remove.running}
        unready={!chosen}
        wrong={wrong ?? set.wrong() ?? remove.wrong()}
        onCancel={onClose}
        acts={<OntoSlip changes={changes} onWrong={setWrong} onDone={onClose} />}
      >
        {!one && chosen && (
          <p>
            <b>{chosen.name}</b> <Act onPress={() => setChosen(null)}>{t.someoneElse}</Act>
          </p>
        )}
        {!chosen && (
          <Picker<SubjectChoice>
            label={t.person}
            seen
            placeholder={t.aNameOrAnEmailAddress}
            list={t.people}
            nothing={t.nobodyOfThatNameIsHere}
            load={load}
            searches
            onPick={setChosen}
          />
        )}
        {one && <CheckField checked={leaves} onTick={setLeaves} label={t.removeFrom(one.name, group.name)} />}
        {!leaves && (
          <>
            <WindowFields from={from} until={until} onFrom={setFrom} onUntil={setUntil} wrong={set.wrong} />
            <Row>
              {soonEnds(zone).map((preset) => (
                <Act key={preset.says} onPress={() => setUntil(toLocal(preset.at, zone))}>
                  {preset.says}
                </Act>
              ))}
            </Row>
            <CheckField checked={keeper} onTick={setKeeper} label={t.keeperCanChangeWhoIsInThe} />
          </>
        )}
        {chosen && (
          <Foreseen
            title={leaves ? t.whatChangesWhenLeaves(chosen.name) : t.whatChangesFor(chosen.name)}
            {...{ changes, zone, now, me }}
          />
        )}
      </Form>
    </Dialog>
  );
}
