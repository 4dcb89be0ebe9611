"use client";

import { type ReactNode, useRef, useState } from "react";
import styled from "styled-components";
import { Button, Notice, Row, Stack } from "./controls";
import { form as t } from "./strings";
import { useLeaveGuard } from "./useLeaveGuard";
import { useTakenOver } from "./useTypedBefore";

/** Two fields beside each other where there is room, and the verb always in sight. */
const Wide = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 12px 28px;
  align-items: start;
  > .whole { grid-column: 1 / -1; }
  @media (max-width: 899px) { grid-template-columns: minmax(0, 1fr); gap: 16px; }
`;

const Verbs = styled.div`
  &[data-wide] {
    position: sticky;
    bottom: 0;
    z-index: 2;
    margin: 0 -12px;
    padding: 10px 12px;
    background: var(--ground);
    border-top: 1px solid var(--edge);
  }
`;

interface FormProps {
  children: ReactNode;
  /** The verb on the button that sends it. */
  verb: ReactNode;
  /** What it gives is not looked at, but for false: it was refused, and what was typed is still unsaved. */
  onSend: () => unknown;
  running?: boolean;
  /** Nothing can be sent yet. */
  unready?: boolean;
  look?: "go" | "harm";
  onCancel?: () => void;
  /** What is wrong with the whole; a field's own message stands at the field. */
  wrong?: string | null;
  /** Other acts beside the verb. */
  acts?: ReactNode;
  /** What comes in while the form is open, below the verb: what one is about to press stays where it is. */
  below?: ReactNode;
  /** A long one, which asks before what was typed is lost: its fields stand in two columns; what is as wide as both has the class “whole”. */
  wide?: boolean;
}

/** Fields, what is wrong, and the verb: sent with Enter or the button, never twice at once. */
export function Form({
  children,
  verb,
  onSend,
  running,
  unready,
  look = "go",
  onCancel,
  wrong,
  acts,
  below,
  wide,
}: FormProps) {
  // Before the page is taken over nothing may send it: the browser would put what was typed into an address.
  const takenOver = useTakenOver();
  const form = useRef<HTMLFormElement>(null);
  const [marked, setMarked] = useState(false);
  const typed = useRef(false);
  const guard = useLeaveGuard(() => Boolean(wide) && typed.current);
  const send = async () => {
    typed.current = false;
    const went = await onSend();
    if (went === false) typed.current = true;
    // What was refused is drawn by now; on a long form it may be far from the button.
    requestAnimationFrame(() => {
      const field = form.current?.querySelector<HTMLElement>('[aria-invalid="true"]');
      setMarked(Boolean(field));
      if (field) field.focus();
      (field ?? form.current?.querySelector('[role="alert"]'))?.scrollIntoView({ block: "nearest" });
    });
  };
  return (
    <form
      ref={form}
      method="post"
      onSubmit={(event) => {
        event.preventDefault();
        // A date typed by half has an empty value: sent, it would mean "no end date".
        const half = [...event.currentTarget.elements].find((one) => (one as HTMLInputElement).validity?.badInput);
        if (half) (half as HTMLInputElement).reportValidity();
        else if (!running && !unready) void send();
      }}
      onInput={() => {
        typed.current = true;
      }}
      noValidate
    >
      {guard.sheet}
      <Stack>
        {wide ? <Wide>{children}</Wide> : children}
        {wrong && (
          <Notice data-tone="bad" role="alert">
            {wrong}
          </Notice>
        )}
        <Verbs data-wide={wide || undefined}>
          <Row>
            <Button look={look} type={takenOver ? "submit" : "button"} isDisabled={running || unready}>
              {verb}
            </Button>
            {onCancel && <Button onPress={() => guard.ask(onCancel)}>{t.cancel}</Button>}
            {acts}
            {marked && !running && <span className="small harm">{t.checkTheMarkedField}</span>}
          </Row>
        </Verbs>
        {below}
      </Stack>
    </form>
  );
}
