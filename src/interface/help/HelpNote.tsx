"use client";

import { useState } from "react";
import styled from "styled-components";
import { useCommand } from "../shared/ask";
import { Act, TextArea } from "../shared/controls";
import { Form } from "../shared/Form";
import { help as t } from "./strings";

const Box = styled.section`
  padding: 10px 14px;
  border-left: 4px solid var(--moss);
  background: var(--moss-wash);
  white-space: pre-line;
  overflow-wrap: anywhere;
`;

interface NoteProps {
  note: string;
  /** Administrators change it. */
  changes: boolean;
  onChanged: (note: string) => void;
}

/** Whom to ask, in the organisation's own words. */
export function HelpNote({ note, changes, onChanged }: NoteProps) {
  const save = useCommand("rules.changeHelpNote");
  const [typed, setTyped] = useState<string | null>(null);
  if (typed !== null)
    return (
      <Form
        verb={t.save}
        onSend={async () => {
          if (!(await save.run({ note: typed })).ok) return;
          onChanged(typed.trim());
          setTyped(null);
        }}
        running={save.running}
        wrong={save.wrong()}
        onCancel={() => setTyped(null)}
      >
        <TextArea
          label={t.note}
          value={typed}
          onText={setTyped}
          hint={t.readableByAnyone}
          wrong={save.wrong("note")}
          rows={3}
          maxLength={600}
          autoFocus
        />
      </Form>
    );
  if (note === "" && !changes) return null;
  return (
    <Box aria-label={t.whomToAsk}>
      <b>{t.whomToAsk}</b>
      <p>{note === "" ? t.noNoteYet : note}</p>
      {changes && <Act onPress={() => setTyped(note)}>{note === "" ? t.writeANote : t.changeTheNote}</Act>}
    </Box>
  );
}
