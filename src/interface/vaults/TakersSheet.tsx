"use client";

import { useEffect, useState } from "react";
import styled from "styled-components";
import type { exporterList } from "@/server/vaults/takingOut";
import { findSubjects, type SubjectChoice } from "../entry/subjects";
import { runQuery, useCommand } from "../shared/ask";
import { Act, Notice } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { Picker } from "../shared/Picker";
import { takersSheet as t } from "./strings";

const List = styled.ul`
  border-top: 1px solid var(--edge);
  li { display: flex; gap: 16px; align-items: center; justify-content: space-between; padding: 7px 0; border-bottom: 1px solid var(--rule); overflow-wrap: anywhere; }
`;

type Taker = Awaited<ReturnType<(typeof exporterList)["execute"]>>[number];
type Choice = SubjectChoice & { kind: Taker["kind"] };

const findTakers = findSubjects("people and groups");

const loadTakers = async (typed: string): Promise<Choice[] | null> =>
  (await findTakers(typed))?.filter((one): one is Choice => one.kind !== "everyone") ?? null;

/** A rule of the vault: who besides its stewards takes out what they may reveal. Nobody, until somebody is named. */
export function TakersSheet({ vault, onClose }: { vault: { id: string; name: string }; onClose: () => void }) {
  const set = useCommand("vaults.setExporters");
  const [takers, setExporters] = useState<Taker[] | null>(null);
  useEffect(() => {
    void runQuery("vaults.exporterList", { vaultId: vault.id }).then(
      (answer) => answer.ok && setExporters(answer.result),
    );
  }, [vault.id]);
  return (
    <Dialog title={t.whoCanExportFrom(vault.name)} open onClose={onClose}>
      {takers && (
        <Form
          verb={t.save}
          onSend={async () => {
            const named = takers.map(({ kind, id }) => ({ kind, id }));
            if ((await set.run({ vaultId: vault.id, takers: named })).ok) onClose();
          }}
          running={set.running}
          wrong={set.wrong() ?? set.wrong("takers")}
          onCancel={onClose}
        >
          <p>{t.itsStewardsCanExportEntries}</p>
          {takers.length === 0 ? (
            <Notice>{t.onlyItsStewardsCanExport}</Notice>
          ) : (
            <List>
              {takers.map((taker) => (
                <li key={taker.id}>
                  <span>{taker.name || t.someoneWhoIsNoLongerHere}</span>
                  <Act
                    onPress={() => setExporters(takers.filter((one) => one.id !== taker.id))}
                    aria-label={t.remove(taker.name)}
                  >
                    {t.remove2}
                  </Act>
                </li>
              ))}
            </List>
          )}
          <Picker<Choice>
            label={t.add}
            seen
            placeholder={t.aPersonOrAGroup}
            list={t.peopleAndGroups}
            nothing={t.noMatchTryPartOfTheName}
            load={loadTakers}
            searches
            onPick={({ kind, id, name }) =>
              setExporters([...takers.filter((one) => one.id !== id), { kind, id, name }])
            }
          />
        </Form>
      )}
    </Dialog>
  );
}
