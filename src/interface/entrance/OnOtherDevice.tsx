"use client";

import { useEffect, useState } from "react";
import styled from "styled-components";
import { runCommand, runQuery } from "../shared/ask";
import { Button, Notice, Row, Stack } from "../shared/controls";
import { Entrance } from "./Entrance";
import { onOtherDevice as t } from "./strings";

const LOOK_MS = 2_000;

const BigNumber = styled.p`
  font: 600 44px/56px var(--mono);
  letter-spacing: 0.06em;
  white-space: nowrap;
`;

interface Shown {
  waiting: string;
  number: string;
  until: number;
}

type State = "waiting" | "approved" | "declined" | "expired";

interface OtherProps {
  organisation: string;
  onIn: () => void;
  onBack: () => void;
}

/** A number to type where one is signed in already; once it is approved there, this browser is in. */
export function OnOtherDevice({ organisation, onIn, onBack }: OtherProps) {
  const [shown, setShown] = useState<Shown | null>(null);
  const [state, setState] = useState<State>("waiting");
  const [wrong, setWrong] = useState<string | null>(null);
  const [left, setLeft] = useState(0);
  const begin = async () => {
    setState("waiting");
    setWrong(null);
    const answer = await runCommand("people.beginDeviceSignIn", {});
    if (answer.ok) setShown(answer.result);
    else setWrong(answer.refused.message);
  };
  useEffect(() => void begin(), []);
  useEffect(() => {
    if (!shown || state !== "waiting") return;
    const count = () => setLeft(Math.max(0, Math.ceil((shown.until - Date.now()) / 1000)));
    count();
    const clock = setInterval(count, 1000);
    let current = true;
    const look = setInterval(async () => {
      const answer = await runQuery("people.deviceState", { waiting: shown.waiting });
      if (!current || !answer.ok || answer.result === "waiting") return;
      if (answer.result !== "approved") return setState(answer.result);
      current = false;
      const entered = await runCommand("people.finishDeviceSignIn", { waiting: shown.waiting });
      if (entered.ok) onIn();
      else setWrong(entered.refused.message);
    }, LOOK_MS);
    return () => {
      current = false;
      clearInterval(clock);
      clearInterval(look);
    };
  }, [shown, state, onIn]);
  const over = state === "declined" || state === "expired" || wrong !== null;
  return (
    <Entrance organisation={organisation} title={t.approveOnAnotherDevice}>
      <Stack>
        {shown && !over && (
          <>
            <p>{t.typeThisNumber}</p>
            <BigNumber aria-label={t.theNumber(shown.number)}>
              {shown.number.slice(0, 3)} {shown.number.slice(3)}
            </BigNumber>
            <p className="soft" role="timer">
              {t.validFor(left)}
            </p>
          </>
        )}
        {over && (
          <Notice data-tone="bad" role="alert">
            {wrong ?? (state === "declined" ? t.declined : t.expired)}
          </Notice>
        )}
        <Row>
          {over && (
            <Button look="go" onPress={() => void begin()}>
              {t.showANewNumber}
            </Button>
          )}
          <Button onPress={onBack}>{t.back}</Button>
        </Row>
      </Stack>
    </Entrance>
  );
}
