"use client";

import { useState } from "react";
import type { Change } from "@/core/access";
import { Foreseen } from "../access/Foreseen";
import { OntoSlip } from "../access/OntoSlip";
import { findSubjects, type SubjectChoice } from "../entry/subjects";
import { useCommand } from "../shared/ask";
import { Act, CheckField, Row } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { type Step, useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { fromLocal, soonEnds, toLocal } from "../shared/localTime";
import { PickSeveral } from "../shared/PickSeveral";
import { WindowFields } from "../shared/WindowFields";
import type { GroupView, MemberLine } from "./groupView";
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

/** Somebody, or several, come into a group, for a time perhaps, or one leaves it: what that changes stands beside the button. */
export function MemberSheet({ group, one, me, zone, now, onClose }: SheetProps) {
  const change = useCommand("people.changeMembers");
  const done = useDone();
  const [chosen, setChosen] = useState<{ id: string; name: string }[]>(
    one ? [{ id: one.personId, name: one.name }] : [],
  );
  const [from, setFrom] = useState(toLocal(one?.from ?? null, zone));
  const [until, setUntil] = useState(toLocal(one ? one.until : group.until, zone));
  const [keeper, setKeeper] = useState(one?.keeper ?? false);
  const [leaves, setLeaves] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const held = { from: fromLocal(from, zone), until: fromLocal(until, zone) };
  const changes = chosen.map(({ id: personId }): Change => {
    const of = { type: "member", groupId: group.id, personId } as const;
    return leaves ? { ...of, held: null } : { ...of, held, keeper };
  });
  const send = async () => {
    const pairs = chosen.map(({ id: personId }) => ({ groupId: group.id, personId }));
    const answer = await change.run({
      changes: pairs.map((of) => ({ ...of, held: leaves ? null : { ...held, keeper } })),
    });
    if (!answer.ok) return;
    const before = one && { from: one.from, until: one.until, keeper: one.keeper };
    const undo: Step[] = [
      { command: "people.changeMembers", input: { changes: pairs.map((of) => ({ ...of, held: before })) } },
    ];
    const name = chosen.length === 1 ? chosen[0]!.name : null;
    if (leaves) done(t.wasRemovedFrom(name ?? "", group.name), undo);
    else if (!one)
      done(name === null ? t.wereAddedTo(chosen.length, group.name) : t.wasAddedTo(name, group.name), undo);
    onClose();
  };
  const wrongAt = (field: string) => (change.refused?.field?.endsWith(`.${field}`) ? change.refused.message : null);
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
        running={change.running}
        unready={chosen.length === 0}
        wrong={wrong ?? (wrongAt("from") || wrongAt("until") ? null : (change.refused?.message ?? null))}
        onCancel={onClose}
        acts={<OntoSlip changes={changes} onWrong={setWrong} onDone={onClose} />}
        below={
          <Foreseen
            title={
              chosen.length === 1
                ? (leaves ? t.whatChangesWhenLeaves : t.whatChangesFor)(chosen[0]!.name)
                : t.whatChanges
            }
            {...{ changes, zone, now, me }}
          />
        }
      >
        {!one && (
          <PickSeveral<SubjectChoice>
            label={t.people}
            seen
            placeholder={t.aNameOrAnEmailAddress}
            list={t.people}
            nothing={t.nobodyOfThatNameIsHere}
            load={load}
            searches
            chosen={chosen}
            onChange={setChosen}
            remove={t.notThis}
          />
        )}
        {one && <CheckField checked={leaves} onTick={setLeaves} label={t.removeFrom(one.name, group.name)} />}
        {!leaves && (
          <>
            <WindowFields from={from} until={until} onFrom={setFrom} onUntil={setUntil} wrong={wrongAt} />
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
      </Form>
    </Dialog>
  );
}
