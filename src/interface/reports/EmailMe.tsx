"use client";

import { useState } from "react";
import type { Question, ReportTime } from "@/core/reports/questions";
import type { ResultOf } from "@/server/registry";
import { useCommand } from "../shared/ask";
import { Act, Button, ChoiceField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { reports as t } from "./strings";

export type MailedReports = ResultOf<"reports.ownReportMails">;

interface EmailMeProps {
  question: Question;
  node: string | null;
  person: string | null;
  mailed: MailedReports;
}

/** The same report by email every so often, where email is set up. */
export function EmailMe({ question, node, person, mailed }: EmailMeProps) {
  const send = useCommand("reports.mailReport");
  const stop = useStop();
  const done = useDone();
  const [open, setOpen] = useState(false);
  const [every, setEvery] = useState<ReportTime>("week");
  const there = mailed.rows.find((row) => row.question === question && row.nodeId === node && row.personId === person);
  if (there)
    return (
      <span className="small">
        {t.emailed[there.every]} <Act onPress={() => stop(there.id)}>{t.stop}</Act>
      </span>
    );
  if (!mailed.mails) return null;
  return (
    <>
      <Button onPress={() => setOpen(true)}>{t.emailMe}</Button>
      {open && (
        <Dialog title={t.emailTitle} open onClose={() => setOpen(false)}>
          <Form
            verb={t.emailMe}
            onSend={async () => {
              if (!(await send.run({ question, nodeId: node, personId: person, every })).ok) return;
              setOpen(false);
              done(t.isEmailed);
            }}
            running={send.running}
            onCancel={() => setOpen(false)}
            wrong={send.refused?.message}
          >
            <p>{t.emailSays}</p>
            <ChoiceField label={t.howOften} value={every} onText={(text) => setEvery(text as ReportTime)}>
              <option value="week">{t.everyWeek}</option>
              <option value="month">{t.everyMonth}</option>
            </ChoiceField>
          </Form>
        </Dialog>
      )}
    </>
  );
}

export function useStop() {
  const stop = useCommand("reports.stopReportMail");
  const done = useDone();
  return async (id: string) => {
    if ((await stop.run({ id })).ok) done(t.isNotEmailed);
  };
}
