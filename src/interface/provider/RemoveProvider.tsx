"use client";

import { useState } from "react";
import { useCommand } from "../shared/ask";
import { TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { removeSheet as t } from "./strings";
import type { Provider } from "./types";

export function RemoveProvider({ provider, onClose }: { provider: Provider; onClose: () => void }) {
  const remove = useCommand("provider.removeProvider");
  const [typed, setTyped] = useState("");
  return (
    <Dialog title={t.title(provider.name)} open onClose={onClose}>
      <Form
        verb={t.remove}
        look="harm"
        onSend={async () => {
          if ((await remove.run({ providerId: provider.id })).ok) onClose();
        }}
        running={remove.running}
        unready={typed.trim() !== provider.name}
        onCancel={onClose}
        wrong={remove.wrong()}
      >
        <p>{t.says}</p>
        <TextField label={t.typeTheName(provider.name)} value={typed} onText={setTyped} />
      </Form>
    </Dialog>
  );
}
