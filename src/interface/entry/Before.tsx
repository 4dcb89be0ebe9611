"use client";

import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { sayTime } from "@/core/time";
import { useCommand } from "../shared/ask";
import { Act, Button, Notice, Row, TextArea } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
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
  const accept = useCommand("access.accept");
  return (
    <Notice style={{ marginBottom: 16 }} role="status">
      <b>You have been given {entry.name}.</b> It works once you have accepted it
      {note === "" ? "." : `, with the house note of ${entry.vault.name}:`}
      {note !== "" && <p style={{ margin: "8px 0", whiteSpace: "pre-wrap" }}>{note}</p>}
      {accept.refused && <p role="alert">{accept.refused.message}</p>}
      <Row style={{ marginTop: 8 }}>
        <Button look="go" isDisabled={accept.running} onPress={() => accept.run({ entryId: entry.id, note })}>
          {note === "" ? "Accept" : "I have read it and accept"}
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
  const close = useCommand("access.closeYes");
  const { asked } = yes;
  const who = yes.stewards === 1 ? "a steward’s yes" : "the yes of two stewards";
  const over = useOver(asked?.state === "yes" ? asked.until : null);
  const state = over ? undefined : asked?.state;
  return (
    <Notice data-tone={state === "yes" ? "good" : undefined} style={{ marginBottom: 16 }} role="status">
      {state === "yes" && (
        <>
          <b>
            {asked!.emergency ? "Past a yes, in an emergency" : "Yes"}, until {sayTime(asked!.until!, now, entry.zone)}.
          </b>{" "}
          After that it asks again.{" "}
          <Act isDisabled={close.running} onPress={() => close.run({ yesId: asked!.id })}>
            I am done with it
          </Act>
        </>
      )}
      {state === "waiting" && (
        <>
          <b>You have asked, {sayTime(asked!.askedAt, now, entry.zone)}.</b> This page says so as soon as{" "}
          {yes.stewards - asked!.said === 1 && yes.stewards === 2
            ? "a second steward says yes too."
            : `you have ${who}.`}{" "}
          <Act isDisabled={close.running} onPress={() => close.run({ yesId: asked!.id })}>
            Take it back
          </Act>
        </>
      )}
      {(state === undefined || state === "no") && (
        <>
          {state === "no" && (
            <p>
              <b>No:</b> “{asked!.word}”
            </p>
          )}
          <b>It takes {who}</b> before it signs in or shows anything, for {sayMinutes(yes.minutes)} each time.
        </>
      )}
      {close.refused && <p role="alert">{close.refused.message}</p>}
      {state !== "yes" && (
        <Row style={{ marginTop: 8 }}>
          {state !== "waiting" && (
            <Button look="go" onPress={() => setSheet("ask")}>
              Ask first
            </Button>
          )}
          {yes.emergency && <Act onPress={() => setSheet("emergency")}>This is an emergency…</Act>}
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
  minutes === 1
    ? "one minute"
    : minutes % 60 === 0
      ? minutes === 60
        ? "one hour"
        : `${minutes / 60} hours`
      : `${minutes} minutes`;

function WhySheet({
  entry,
  yes,
  how,
  onClose,
}: Omit<YesProps, "now"> & { how: "ask" | "emergency"; onClose: () => void }) {
  const send = useCommand(how === "ask" ? "access.askFirst" : "access.passEmergency");
  const [why, setWhy] = useState("");
  return (
    <Dialog
      title={how === "ask" ? `Ask to use ${entry.name}` : `Use ${entry.name} without a yes`}
      open
      onClose={onClose}
    >
      <Form
        verb={how === "ask" ? "Ask" : "Use it without a yes"}
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
            ? `${yes.stewards === 1 ? "Its stewards read" : "Two of its stewards have to say yes. They read"} who asks, what for and from where. A yes holds for ${sayMinutes(yes.minutes)}.`
            : `It works at once, for ${sayMinutes(yes.minutes)}. All its stewards and the owners are told now, with what you write here, and it stands in the Journal.`}
        </p>
        <TextArea
          label={how === "ask" ? "What for" : "What has happened"}
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
