"use client";

import { useEffect, useState } from "react";
import { findSubjects, type SubjectChoice } from "../entry/subjects";
import { runQuery } from "../shared/ask";
import { Act, ChoiceField, Row } from "../shared/controls";
import { Picker } from "../shared/Picker";
import type { LeavingView } from "./leavingView";
import { leaving as t } from "./strings";

const findStaff = findSubjects("staff");

export interface Chosen {
  /** By node: who takes over; an empty id for nobody. Not there while nothing is chosen. */
  successors: Record<string, { id: string | null; name: string }>;
  keepers: Record<string, string | null>;
}

interface SuccessorsProps {
  view: LeavingView;
  me: string;
  chosen: Chosen;
  onChosen: (chosen: Chosen) => void;
}

/** What nobody else looks after: a new steward or keeper for each, chosen there and then. */
export function Successors({ view, me, chosen, onChosen }: SuccessorsProps) {
  if (view.alone.length === 0 && view.keeperAlone.length === 0) return null;
  const load = async (typed: string): Promise<SubjectChoice[] | null> =>
    (await findStaff(typed))?.filter(({ id }) => id !== me && id !== view.id) ?? null;
  const setSteward = (nodeId: string, next: { id: string | null; name: string } | undefined) => {
    const { [nodeId]: _, ...others } = chosen.successors;
    onChosen({ ...chosen, successors: next ? { ...others, [nodeId]: next } : others });
  };
  return (
    <section>
      <h2>{t.successors}</h2>
      <p className="soft small" style={{ marginTop: 8 }}>
        {t.successorsSay}
      </p>
      <ul>
        {view.alone.map(({ nodeId, what }) => {
          const next = chosen.successors[nodeId];
          return (
            <li key={nodeId} style={{ padding: "10px 0", borderBottom: "1px solid var(--rule)" }}>
              <b>{what}</b>
              {next ? (
                <Row style={{ marginTop: 4 }}>
                  <span>{next.id === null ? t.noSteward : t.stewardWillBe(next.name)}</span>
                  <Act onPress={() => setSteward(nodeId, undefined)} aria-label={t.chooseAnotherFor(what)}>
                    {t.chooseAnother}
                  </Act>
                </Row>
              ) : (
                <>
                  <Picker<SubjectChoice>
                    label={t.newStewardOf(what)}
                    placeholder={t.nameOrAddress}
                    list={t.staff}
                    nothing={t.noMatch}
                    load={load}
                    searches
                    onPick={({ id, name }) => setSteward(nodeId, { id, name })}
                  />
                  <Act onPress={() => setSteward(nodeId, { id: null, name: "" })} aria-label={t.nobodyFor(what)}>
                    {t.nobody}
                  </Act>
                </>
              )}
            </li>
          );
        })}
        {view.keeperAlone.map(({ groupId, name }) => (
          <li key={groupId} style={{ padding: "10px 0", borderBottom: "1px solid var(--rule)" }}>
            <Keeper
              {...{ groupId, name, except: view.id }}
              value={chosen.keepers[groupId] ?? ""}
              onChosen={(id) => onChosen({ ...chosen, keepers: { ...chosen.keepers, [groupId]: id || null } })}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}

interface KeeperProps {
  groupId: string;
  name: string;
  except: string;
  value: string;
  onChosen: (id: string) => void;
}

/** One of the group's own people. */
function Keeper({ groupId, name, except, value, onChosen }: KeeperProps) {
  const [people, setPeople] = useState<{ id: string; name: string }[]>([]);
  useEffect(() => {
    void runQuery("people.groupKeepers", { groupId }).then(
      (answer) => answer.ok && setPeople(answer.result.filter(({ id }) => id !== except)),
    );
  }, [groupId, except]);
  return (
    <ChoiceField label={t.newKeeperOf(name)} value={value} onText={onChosen}>
      <option value="">{t.noKeeper}</option>
      {people.map((one) => (
        <option key={one.id} value={one.id}>
          {one.name}
        </option>
      ))}
    </ChoiceField>
  );
}
