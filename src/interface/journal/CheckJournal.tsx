"use client";

import { useState } from "react";
import type { JournalCheck } from "@/server/journal/check";
import { type Refusal, runQuery } from "../shared/ask";
import { Button, Notice, Row, Stack, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { useCopy } from "../shared/useCopy";
import { checkJournal as t } from "./strings";

/** Whether any line was changed, added or removed by somebody who got at the database. */
export function CheckJournal({ onClose }: { onClose: () => void }) {
  const [head, setHead] = useState("");
  const [running, setRunning] = useState(false);
  const [refused, setRefused] = useState<Refusal | null>(null);
  const [found, setFound] = useState<JournalCheck | null>(null);
  const check = async () => {
    setRunning(true);
    const answer = await runQuery("journal.checkJournal", { head });
    setRunning(false);
    setRefused(answer.ok ? null : answer.refused);
    setFound(answer.ok ? answer.result : null);
  };
  return (
    <Dialog title={t.checkTheJournal} open onClose={onClose}>
      <Form
        verb={t.check}
        onSend={check}
        running={running}
        onCancel={onClose}
        wrong={refused && !refused.field ? refused.message : null}
      >
        <p>{t.eachLineIsChained}</p>
        <TextField
          className="mono"
          label={t.headNotedEarlier}
          value={head}
          onText={setHead}
          wrong={refused?.field ? refused.message : null}
          hint={t.withItTheCheckAlsoFinds}
          spellCheck={false}
          autoFocus
        />
        {found && <Found found={found} noted={head !== ""} />}
      </Form>
    </Dialog>
  );
}

function Found({ found, noted }: { found: JournalCheck; noted: boolean }) {
  const { copy, copied } = useCopy();
  if (found.broken || found.altered)
    return (
      <Notice data-tone="bad" role="alert">
        {found.broken ? t.brokenAtLine(found.broken.line, found.broken.why) : t.aNameWasAltered(found.altered ?? "")}
      </Notice>
    );
  return (
    <Stack>
      <Notice data-tone="good" role="status">
        {noted ? t.completeSinceTheHead(found.lines) : t.complete(found.lines)}
        {found.erased > 0 && ` ${t.erased(found.erased)}`}
      </Notice>
      <p className="mono small" style={{ overflowWrap: "anywhere" }}>
        {found.head}
      </p>
      <Row>
        <Button onPress={() => copy(found.head)}>{copied ? t.copied : t.copyHead}</Button>
        <span className="soft small">{t.noteItElsewhere}</span>
      </Row>
    </Stack>
  );
}
