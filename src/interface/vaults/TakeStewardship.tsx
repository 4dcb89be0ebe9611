"use client";

import { useEffect, useState } from "react";
import styled from "styled-components";
import type { takeableNodes } from "@/server/access/stewardship";
import { runQuery, useCommand } from "../shared/ask";
import { Act, Notice, TextArea } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";

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
    void runQuery<Takeable[]>("access.takeable", {}).then((answer) => answer.ok && setAll(answer.result));
  }, []);
  return (
    <Dialog title="Take stewardship" open onClose={onClose}>
      {taking ? (
        <Form
          verb="Take it"
          look="harm"
          running={take.running}
          wrong={take.wrong()}
          onCancel={() => setTaking(null)}
          onSend={async () => {
            if ((await take.run({ nodeId: taking.nodeId, why })).ok) onClose();
          }}
        >
          <Notice>
            You will see and change everything in {taking.what === "the whole vault" ? taking.name : taking.what}. It
            stands in the Journal, and{" "}
            {taking.stewards.length > 0 ? `${taking.stewards.join(", ")} read it at once` : "it has no steward now"}.
          </Notice>
          <TextArea label="Why" value={why} maxLength={500} onText={setWhy} wrong={take.wrong("why")} />
        </Form>
      ) : all === null ? (
        <p className="soft">Looking…</p>
      ) : all.length === 0 ? (
        <p>You are steward of everything that is shared.</p>
      ) : (
        <List>
          {all.map((one) => (
            <li key={one.nodeId}>
              <span>
                <b>{one.name}</b>, {one.what}
                <span className="small soft" style={{ display: "block" }}>
                  {one.stewards.length > 0 ? `looked after by ${one.stewards.join(", ")}` : "nobody looks after it"}
                </span>
              </span>
              <Act onPress={() => setTaking(one)} aria-label={`Take stewardship of ${one.name}, ${one.what}`}>
                Take…
              </Act>
            </li>
          ))}
        </List>
      )}
    </Dialog>
  );
}
