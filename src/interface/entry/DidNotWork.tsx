"use client";

import { useState } from "react";
import { DID_NOT_WORK } from "@/core/signin/outcome";
import { useCommand } from "../shared/ask";
import { Button, CheckField, Stack, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { didNotWork as t } from "./strings";
import type { EntryView } from "./types";

type What = Exclude<keyof typeof DID_NOT_WORK, "galtry-could-not">;

/** What Galtry noted itself is told with the sign-in that came to nothing. */
const SEEN = (Object.keys(DID_NOT_WORK) as (keyof typeof DID_NOT_WORK)[]).filter(
  (what): what is What => what !== "galtry-could-not",
);

/** Tells the entry's stewards that somebody was not let in, and how it looked. */
export function DidNotWork({ entry }: { entry: EntryView }) {
  const [open, setOpen] = useState(false);
  const [what, setWhat] = useState<What>("asks-again");
  const [note, setNote] = useState("");
  const [told, setTold] = useState(false);
  const tell = useCommand("signIn.didNotWork");
  const stewards = entry.own.stewards.join(" and ") || t.itsStewards;
  const send = async () => {
    const answer = await tell.run({ entryId: entry.id, what, note });
    if (!answer.ok) return;
    setOpen(false);
    setNote("");
    setTold(true);
  };
  return (
    <>
      <Button onPress={() => setOpen(true)}>{t.reportAProblem}</Button>
      {told && (
        <p className="small" role="status">
          {t.beenTold(stewards, Math.max(1, entry.own.stewards.length))}
        </p>
      )}
      <Dialog title={t.reportAProblemWith(entry.name)} open={open} onClose={() => setOpen(false)}>
        <Form
          verb={t.tell(stewards)}
          onSend={send}
          running={tell.running}
          wrong={tell.wrong()}
          onCancel={() => setOpen(false)}
        >
          <fieldset style={{ border: 0, padding: 0, margin: 0 }}>
            <legend style={{ marginBottom: 6, padding: 0 }}>{t.whatHappens}</legend>
            <Stack style={{ gap: 8 }}>
              {SEEN.map((key) => (
                <CheckField
                  key={key}
                  type="radio"
                  name="what"
                  label={`${DID_NOT_WORK[key].charAt(0).toUpperCase()}${DID_NOT_WORK[key].slice(1)}`}
                  checked={what === key}
                  onChange={() => setWhat(key)}
                />
              ))}
            </Stack>
          </fieldset>
          <TextField
            label={t.anythingElseDoNotWriteA}
            value={note}
            maxLength={300}
            onText={setNote}
            wrong={tell.wrong("note")}
          />
        </Form>
      </Dialog>
    </>
  );
}
