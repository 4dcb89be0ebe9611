"use client";

import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { sayTime } from "@/core/time";
import { useCommand } from "../shared/ask";
import { Act, Button, Notice, Row, TextArea } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { before as t } from "./strings";
import type { EntryView } from "./types";

/** Nothing stands between the reader and a sign-in or a reveal but their level. */
export const isReady = (entry: EntryView, now: number): boolean =>
  entry.toAccept === null &&
  (entry.yes === null || (entry.yes.asked?.state === "yes" && (entry.yes.asked.until ?? 0) > now));

/** What has to be done before this works: accepted, or a steward asked. */
export function Before({ entry, now }: { entry: EntryView; now: number }) {
  if (entry.binnedAt !== null) return null;
  if (entry.toAccept !== null) return <Accept entry={entry} note={entry.toAccept} />;
  return entry.yes && <FirstAYes entry={entry} yes={entry.yes} now={now} />;
}

function Accept({ entry, note }: { entry: EntryView; note: string }) {
  const accept = useCommand("access.acceptAccess");
  return (
    <Notice style={{ marginBottom: 16 }} role="status">
      {t.acceptItToStartUsingIt(
        <b>{t.youHaveBeenGivenAccessTo(entry.name)}</b>,
        note === "" ? "." : t.readTheHouseNoteOfFirst(entry.vault.name),
      )}
      {note !== "" && <p style={{ margin: "8px 0", whiteSpace: "pre-wrap" }}>{note}</p>}
      {accept.refused && <p role="alert">{accept.refused.message}</p>}
      <Row style={{ marginTop: 8 }}>
        <Button look="go" isDisabled={accept.running} onPress={() => accept.run({ entryId: entry.id, note })}>
          {note === "" ? "Accept" : t.iHaveReadItAndAccept}
        </Button>
      </Row>
    </Notice>
  );
}

interface YesProps {
  entry: EntryView;
  yes: NonNullable<EntryView["yes"]>;
  now: number;
}

function FirstAYes({ entry, yes, now }: YesProps) {
  const [sheet, setSheet] = useState<"ask" | "emergency" | null>(null);
  const close = useCommand("access.closeApproval");
  const { asked } = yes;
  const over = useOver(asked?.state === "yes" ? asked.until : null);
  const state = over ? undefined : asked?.state;
  return (
    <Notice data-tone={state === "yes" ? "good" : undefined} style={{ marginBottom: 16 }} role="status">
      {state === "yes" && (
        <>
          {t.afterThatItRequiresApproval(
            <b>
              {(asked!.emergency ? t.emergencyUseUntil : t.approvedUntil)(sayTime(asked!.until!, now, entry.zone))}
            </b>,
          )}
          <Act isDisabled={close.running} onPress={() => close.run({ yesId: asked!.id })}>
            {t.endNow}
          </Act>
        </>
      )}
      {state === "waiting" && (
        <>
          {t.thisPageUpdates(
            <b>{t.requested(sayTime(asked!.askedAt, now, entry.zone))}</b>,
            yes.stewards === 2 && asked!.said === 1,
          )}
          <Act isDisabled={close.running} onPress={() => close.run({ yesId: asked!.id })}>
            {t.withdrawRequest}
          </Act>
        </>
      )}
      {(state === undefined || state === "no") && (
        <>
          {state === "no" && (
            <p>
              <b>{t.declined}</b> “{asked!.word}”
            </p>
          )}
          {t.approvalIsValidFor(<b>{t.stewardsMustApprove(yes.stewards)}</b>, sayMinutes(yes.minutes))}
        </>
      )}
      {close.refused && <p role="alert">{close.refused.message}</p>}
      {state !== "yes" && (
        <Row style={{ marginTop: 8 }}>
          {state !== "waiting" && (
            <Button look="go" onPress={() => setSheet("ask")}>
              {t.requestApproval}
            </Button>
          )}
          {yes.emergency && <Act onPress={() => setSheet("emergency")}>{t.thisIsAnEmergency}</Act>}
        </Row>
      )}
      {sheet && <WhySheet entry={entry} yes={yes} how={sheet} onClose={() => setSheet(null)} />}
    </Notice>
  );
}

/** Whether a moment has come, looked at when it comes. */
function useOver(until: number | null): boolean {
  const [over, setOver] = useState(false);
  const router = useRouter();
  useEffect(() => {
    setOver(false);
    if (until === null) return;
    const timer = setTimeout(
      () => {
        setOver(true);
        router.refresh();
      },
      Math.max(0, until - Date.now()),
    );
    return () => clearTimeout(timer);
  }, [until, router]);
  return over;
}

export const sayMinutes = (minutes: number): string =>
  minutes % 60 === 0 ? t.hours(minutes / 60) : t.minutes(minutes);

function WhySheet({
  entry,
  yes,
  how,
  onClose,
}: Omit<YesProps, "now"> & { how: "ask" | "emergency"; onClose: () => void }) {
  const send = useCommand(how === "ask" ? "access.requestApproval" : "access.useInEmergency");
  const [why, setWhy] = useState("");
  return (
    <Dialog
      title={how === "ask" ? t.requestApprovalToUse(entry.name) : t.useWithoutApproval(entry.name)}
      open
      onClose={onClose}
    >
      <Form
        verb={how === "ask" ? t.requestApproval : t.useWithoutApproval2}
        look={how === "ask" ? "go" : "harm"}
        running={send.running}
        onCancel={onClose}
        wrong={send.wrong()}
        onSend={async () => {
          if ((await send.run({ entryId: entry.id, why })).ok) onClose();
        }}
      >
        <p>
          {how === "ask"
            ? t.whatTheStewardsRead(yes.stewards, sayMinutes(yes.minutes))
            : t.youCanUseItAtOnceFor(sayMinutes(yes.minutes))}
        </p>
        <TextArea
          label={how === "ask" ? t.reason : t.whatHasHappened}
          value={why}
          maxLength={500}
          onText={setWhy}
          wrong={send.wrong("why")}
          autoFocus
        />
      </Form>
    </Dialog>
  );
}
