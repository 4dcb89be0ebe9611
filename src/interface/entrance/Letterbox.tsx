"use client";

import { useEffect, useRef, useState } from "react";
import { sayTime } from "@/core/time";
import type { LetterboxEnd, lookAtLetterbox } from "@/server/access/handover/letterbox";
import { runQuery, useCommand } from "../shared/ask";
import { Notice, TextArea, TextField } from "../shared/controls";
import { Form } from "../shared/Form";
import { Entrance } from "./Entrance";
import { letterbox as t } from "./strings";
import { takeLink } from "./takeLink";

type Look = Awaited<ReturnType<(typeof lookAtLetterbox)["execute"]>>;

const ENDED: Record<LetterboxEnd, string> = {
  dropped: t.somethingHasAlreadyBeenSent,
  closed: t.thisLetterboxIsClosedAskThe,
  expired: t.thisLetterboxHasExpiredAskForA,
};

/** Somebody outside drops a secret in: no account, as text, once. */
export function Letterbox() {
  const token = useRef("");
  const [look, setLook] = useState<Look | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [values, setValues] = useState<readonly string[]>([]);
  const [from, setFrom] = useState("");
  const [done, setDone] = useState(false);
  const drop = useCommand("access.sendToLetterbox");
  useEffect(() => {
    token.current ||= takeLink();
    void runQuery("access.lookAtLetterbox", { token: token.current }).then((answer) => {
      if (!answer.ok) return setWrong(t.linkIncomplete);
      setLook(answer.result);
      setValues(answer.result.labels.map(() => ""));
    });
  }, []);
  const send = async () => {
    if (!(await drop.run({ token: token.current, values, from })).ok) return;
    setDone(true);
    setValues([]);
  };
  return (
    <Entrance organisation={look?.organisation ?? null} title={done ? t.received : t.aLetterboxForYou}>
      {wrong && (
        <Notice data-tone="bad" role="alert">
          {wrong}
        </Notice>
      )}
      {done && <p>{t.itWasEncryptedWhenItArrived}</p>}
      {look && !done && look.end !== null && <p>{ENDED[look.end]}</p>}
      {look && !done && look.end === null && (
        <Form
          verb={t.send}
          onSend={send}
          running={drop.running}
          unready={values.every((value) => value.trim() === "")}
          wrong={drop.wrong() ?? drop.wrong("values")}
        >
          <p>
            {t.ofAsksYouForOnlyTheyAnd(
              <b>{look.from}</b>,
              look.organisation,
              <b>{look.name}</b>,
              sayTime(look.expiresAt, Date.now(), look.zone),
            )}
          </p>
          {look.labels.map((label, i) => (
            <TextArea
              key={label}
              label={label}
              rows={2}
              value={values[i] ?? ""}
              maxLength={10_000}
              autoComplete="off"
              spellCheck={false}
              onText={(text) => setValues(values.map((value, at) => (at === i ? text : value)))}
            />
          ))}
          <TextField label={t.yourName} value={from} maxLength={100} onText={setFrom} hint={t.optional} />
        </Form>
      )}
    </Entrance>
  );
}
