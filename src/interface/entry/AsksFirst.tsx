"use client";

import { useState } from "react";
import { useCommand } from "../shared/ask";
import { Act, ChoiceField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { sayMinutes } from "./Before";
import { Fact } from "./Card";
import type { EntryView } from "./types";

const MINUTES = [5, 15, 30, 60, 120, 480];

/** Whether each sign-in and reveal takes a steward's yes: for its steward to say. */
export function AsksFirst({ entry }: { entry: EntryView }) {
  const [open, setOpen] = useState(false);
  return (
    <Fact
      label="Before each use"
      act={
        <Act onPress={() => setOpen(true)} aria-label="Change what is asked before each use">
          Change
        </Act>
      }
    >
      {entry.yes
        ? `${entry.yes.stewards === 1 ? "a steward’s yes" : "the yes of two stewards"}, for ${sayMinutes(entry.yes.minutes)} each time`
        : "nobody is asked first"}
      {open && <Sheet entry={entry} onClose={() => setOpen(false)} />}
    </Fact>
  );
}

function Sheet({ entry, onClose }: { entry: EntryView; onClose: () => void }) {
  const save = useCommand("access.setAsksFirst");
  const [stewards, setStewards] = useState(String(entry.yes?.stewards ?? 1));
  const [minutes, setMinutes] = useState(String(entry.yes?.minutes ?? 30));
  const offered = [...new Set([...MINUTES, Number(minutes)])].sort((a, b) => a - b);
  return (
    <Dialog title={`Before each use of ${entry.name}`} open onClose={onClose}>
      <Form
        verb="Save"
        running={save.running}
        onCancel={onClose}
        wrong={save.wrong()}
        onSend={async () => {
          const input = { entryId: entry.id, stewards: Number(stewards), minutes: Number(minutes) };
          if ((await save.run(input)).ok) onClose();
        }}
      >
        <p>
          A sign-in, a reveal, an attachment, an earlier version, a copy and a handover link then take a yes first, also
          from its stewards: nobody says yes to themselves. It is never taken out with others. Asking less later takes
          the same yes.
        </p>
        <ChoiceField label="Who is asked" value={stewards} onText={setStewards} wrong={save.wrong("stewards")}>
          <option value="0">nobody</option>
          <option value="1">one of its stewards</option>
          <option value="2">two of its stewards</option>
        </ChoiceField>
        {stewards !== "0" && (
          <ChoiceField label="A yes holds for" value={minutes} onText={setMinutes} wrong={save.wrong("minutes")}>
            {offered.map((one) => (
              <option key={one} value={one}>
                {sayMinutes(one)}
              </option>
            ))}
          </ChoiceField>
        )}
      </Form>
    </Dialog>
  );
}
