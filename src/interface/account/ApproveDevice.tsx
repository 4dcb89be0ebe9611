"use client";

import { useState } from "react";
import { sayTime } from "@/core/time";
import type { ResultOf } from "@/server/registry";
import { runCommand, useCommand } from "../shared/ask";
import { Button, Row, Stack, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { GIVEN_UP } from "../shared/proving";
import { approveDevice as t } from "./strings";

type Found = NonNullable<ResultOf<"people.typeDeviceNumber">>;

/** Types the number that another device shows, sees from where it comes, and approves or declines. */
export function ApproveDevice({ zone, onClose }: { zone: string; onClose: () => void }) {
  const type = useCommand("people.typeDeviceNumber");
  const done = useDone();
  const [number, setNumber] = useState("");
  const [found, setFound] = useState<Found | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const look = async () => {
    setWrong(null);
    const answer = await type.run({ number });
    if (!answer.ok) return;
    setFound(answer.result);
    if (!answer.result) setWrong(t.noSuchNumber);
  };
  const answer = async (approve: boolean) => {
    const said = await runCommand("people.answerDevice", { number, approve });
    if (!said.ok) return setWrong(said.refused.code === GIVEN_UP ? null : said.refused.message);
    done(approve ? t.approved : t.declined);
    onClose();
  };
  return (
    <Dialog title={t.approveASignIn} open onClose={onClose}>
      {found ? (
        <Stack>
          <p>{t.itComesFrom(<b>{found.browser}</b>, found.address, sayTime(found.since, Date.now(), zone))}</p>
          <p className="soft">{t.onlyYourOwn}</p>
          {wrong && <p role="alert">{wrong}</p>}
          <Row>
            <Button look="go" onPress={() => void answer(true)}>
              {t.approve}
            </Button>
            <Button onPress={() => void answer(false)}>{t.decline}</Button>
          </Row>
        </Stack>
      ) : (
        <Form
          verb={t.continueWord}
          onSend={look}
          running={type.running}
          unready={number.replace(/\s/g, "").length !== 6}
          wrong={wrong ?? type.wrong()}
          onCancel={onClose}
        >
          <TextField
            label={t.number}
            value={number}
            onText={setNumber}
            hint={t.shownOnTheOther}
            inputMode="numeric"
            autoComplete="off"
            maxLength={7}
            wrong={type.wrong("number")}
            autoFocus
          />
        </Form>
      )}
    </Dialog>
  );
}
