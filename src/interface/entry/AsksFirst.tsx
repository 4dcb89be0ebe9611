"use client";

import { useState } from "react";
import { useCommand } from "../shared/ask";
import { Act, ChoiceField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { sayMinutes } from "./Before";
import { Fact } from "./Card";
import { asksFirst as t } from "./strings";
import type { EntryView } from "./types";

const MINUTES = [5, 15, 30, 60, 120, 480];

/** Whether each sign-in and reveal takes a steward's yes: for its steward to say. */
export function AsksFirst({ entry }: { entry: EntryView }) {
  const [open, setOpen] = useState(false);
  return (
    <Fact
      label={t.beforeEachUse}
      act={
        <Act onPress={() => setOpen(true)} aria-label={t.changeTheApprovalBeforeEachUse}>
          {t.change}
        </Act>
      }
    >
      {entry.yes
        ? t.validFor(
            entry.yes.stewards === 1 ? t.approvalByASteward : t.approvalByTwoStewards,
            sayMinutes(entry.yes.minutes),
          )
        : t.noApprovalNeeded}
      {open && <Sheet entry={entry} onClose={() => setOpen(false)} />}
    </Fact>
  );
}

function Sheet({ entry, onClose }: { entry: EntryView; onClose: () => void }) {
  const save = useCommand("access.setApproval");
  const [stewards, setStewards] = useState(String(entry.yes?.stewards ?? 1));
  const [minutes, setMinutes] = useState(String(entry.yes?.minutes ?? 30));
  const offered = [...new Set([...MINUTES, Number(minutes)])].sort((a, b) => a - b);
  return (
    <Dialog title={t.beforeEachUseOf(entry.name)} open onClose={onClose}>
      <Form
        verb={t.save}
        running={save.running}
        onCancel={onClose}
        wrong={save.wrong()}
        onSend={async () => {
          const input = { entryId: entry.id, stewards: Number(stewards), minutes: Number(minutes) };
          if ((await save.run(input)).ok) onClose();
        }}
      >
        <p>{t.eachSignInRevealAttachment}</p>
        <ChoiceField label={t.whoApproves} value={stewards} onText={setStewards} wrong={save.wrong("stewards")}>
          <option value="0">{t.nobody}</option>
          <option value="1">{t.oneOfItsStewards}</option>
          <option value="2">{t.twoOfItsStewards}</option>
        </ChoiceField>
        {stewards !== "0" && (
          <ChoiceField label={t.approvalIsValidFor} value={minutes} onText={setMinutes} wrong={save.wrong("minutes")}>
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
