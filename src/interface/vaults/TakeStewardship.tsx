"use client";

import { useEffect, useState } from "react";
import styled from "styled-components";
import type { takeableNodes } from "@/server/access/stewardship";
import { runQuery, useCommand } from "../shared/ask";
import { Act, Notice, TextArea } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { takeStewardship as t } from "./strings";

type Takeable = Awaited<ReturnType<(typeof takeableNodes)["execute"]>>[number];

const List = styled.ul`
  li { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 12px; padding: 9px 0; border-top: 1px solid var(--rule); overflow-wrap: anywhere; }
`;

/** For owners: what they are not steward of, and taking it with a reason that every steward reads. */
export function TakeStewardship({ onClose }: { onClose: () => void }) {
  const [all, setAll] = useState<Takeable[] | null>(null);
  const [taking, setTaking] = useState<Takeable | null>(null);
  const [why, setWhy] = useState("");
  const take = useCommand("access.takeStewardship");
  useEffect(() => {
    void runQuery("access.takeableNodes", {}).then((answer) => answer.ok && setAll(answer.result));
  }, []);
  return (
    <Dialog title={t.takeStewardship} open onClose={onClose}>
      {taking ? (
        <Form
          verb={t.takeStewardship}
          look="harm"
          running={take.running}
          wrong={take.wrong()}
          onCancel={() => setTaking(null)}
          onSend={async () => {
            if ((await take.run({ nodeId: taking.nodeId, why })).ok) onClose();
          }}
        >
          <Notice>
            {t.youCanRevealAndEditEverything(
              taking.what === "the whole vault" ? taking.name : taking.what,
              taking.stewards.length > 0 ? t.willReadItAtOnce(taking.stewards.join(", ")) : t.itHasNoStewardNow,
            )}
          </Notice>
          <TextArea label={t.reason} value={why} maxLength={500} onText={setWhy} wrong={take.wrong("why")} />
        </Form>
      ) : all === null ? (
        <p className="soft">{t.searching}</p>
      ) : all.length === 0 ? (
        <p>{t.youAreAStewardOfEverythingThat}</p>
      ) : (
        <List>
          {all.map((one) => (
            <li key={one.nodeId}>
              <span>
                <b>{one.name}</b>, {one.what}
                <span className="small soft" style={{ display: "block" }}>
                  {one.stewards.length > 0 ? t.steward(one.stewards.join(", ")) : t.noSteward}
                </span>
              </span>
              <Act onPress={() => setTaking(one)} aria-label={t.takeStewardshipOf(one.name, one.what)}>
                {t.take}
              </Act>
            </li>
          ))}
        </List>
      )}
    </Dialog>
  );
}
