"use client";

import { useState } from "react";
import { useCommand } from "../shared/ask";
import { TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { createFolder as t } from "./strings";

interface MakeFolderProps {
  parent: { id: string; name: string };
  onClose: () => void;
  onMade: (folderId: string) => void;
}

export function MakeFolder({ parent, onClose, onMade }: MakeFolderProps) {
  const make = useCommand("vaults.createFolder");
  const [name, setName] = useState("");
  return (
    <Dialog title={t.createAFolderIn(parent.name)} open onClose={onClose}>
      <Form
        verb={t.createFolder}
        onSend={async () => {
          const answer = await make.run({ parentId: parent.id, name });
          if (answer.ok) {
            onClose();
            onMade(answer.result.folderId);
          }
        }}
        running={make.running}
        onCancel={onClose}
        wrong={make.refused?.field === "name" ? null : make.refused?.message}
      >
        <TextField label={t.name} value={name} onText={setName} wrong={make.wrong("name")} autoFocus />
      </Form>
    </Dialog>
  );
}
