"use client";

import { useEffect, useState } from "react";
import type { MoveEffect } from "@/server/vaults/moving";
import { OntoSlip } from "../access/OntoSlip";
import { runQuery, useCommand } from "../shared/ask";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { Effects } from "./Effects";
import { separateSheet as t } from "./strings";

interface SeparateProps {
  folder: { id: string; name: string; separate: boolean };
  onClose: () => void;
}

/** Access from above stops here, or comes in again: for whom that changes what, before it is done. */
export function SeparateSheet({ folder, onClose }: SeparateProps) {
  const mark = useCommand("vaults.markSeparate");
  const done = useDone();
  const [preview, setPreview] = useState<{ effects: MoveEffect[]; needsGrant: boolean } | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const wanted = !folder.separate;
  useEffect(() => {
    void runQuery("vaults.separatePreview", {
      folderId: folder.id,
      separate: wanted,
    }).then((answer) => (answer.ok ? setPreview(answer.result) : setWrong(answer.refused.message)));
  }, [folder.id, wanted]);
  const send = async () => {
    if (!(await mark.run({ folderId: folder.id, separate: wanted })).ok) return;
    done(wanted ? t.isSeparate(folder.name) : t.inheritsAccessAgain(folder.name), [
      { command: "vaults.markSeparate", input: { folderId: folder.id, separate: !wanted } },
    ]);
    onClose();
  };
  return (
    <Dialog title={wanted ? t.makeSeparate(folder.name) : t.letInheritAccessAgain(folder.name)} open onClose={onClose}>
      <Form
        verb={wanted ? t.makeSeparate2 : t.inheritAccessAgain}
        onSend={send}
        running={mark.running}
        unready={preview === null}
        onCancel={onClose}
        wrong={wrong ?? mark.refused?.message}
        acts={
          <OntoSlip
            changes={[{ type: "separate", nodeId: folder.id, separate: wanted, keeper: null }]}
            onWrong={setWrong}
            onDone={onClose}
          />
        }
      >
        <p>
          {wanted ? t.aSeparateFolderInheritsNo : t.itInheritsAccessToTheVaultAnd}
          {preview?.needsGrant && t.youBecomeItsStewardSoThatIt}
        </p>
        {preview && <Effects effects={preview.effects} none={t.nobodysAccessChanges} />}
      </Form>
    </Dialog>
  );
}
