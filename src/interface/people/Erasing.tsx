"use client";

import { useState } from "react";
import { useCommand } from "../shared/ask";
import { Button, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import type { LeavingView } from "./leavingView";
import { erasing as t } from "./strings";

/** Name and address of a leaver go for good; what goes and what stays is said before. */
export function Erasing({ view }: { view: LeavingView }) {
  const erase = useCommand("people.erase");
  const done = useDone();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState("");
  const send = async () => {
    const answer = await erase.run({ personId: view.id, name });
    if (!answer.ok) return;
    setOpen(false);
    done(t.isErased(answer.result.name));
  };
  return (
    <section>
      <h2>{t.erase}</h2>
      <p style={{ margin: "8px 0 12px" }}>{t.whatItIs}</p>
      <Button look="harm" onPress={() => setOpen(true)}>
        {t.eraseEllipsis}
      </Button>
      {open && (
        <Dialog title={t.erasePerson(view.name)} open onClose={() => setOpen(false)}>
          <Form
            verb={t.erase}
            look="harm"
            onSend={send}
            running={erase.running}
            unready={name === ""}
            wrong={erase.wrong()}
            onCancel={() => setOpen(false)}
          >
            <p>{t.whatGoes}</p>
            <p>{t.whatStays}</p>
            <TextField
              label={t.typeTheName(view.name)}
              value={name}
              onText={setName}
              wrong={erase.wrong("name")}
              autoComplete="off"
              autoFocus
            />
          </Form>
        </Dialog>
      )}
    </section>
  );
}
