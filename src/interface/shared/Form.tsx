"use client";

import { type ReactNode, useRef, useState } from "react";
import { Button, Notice, Row, Stack } from "./controls";
import { form as t } from "./strings";
import { useTakenOver } from "./useTypedBefore";

interface FormProps {
  children: ReactNode;
  /** The verb on the button that sends it. */
  verb: ReactNode;
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
}

/** Fields, what is wrong, and the verb: sent with Enter or the button, never twice at once. */
export function Form({ children, verb, onSend, running, unready, look = "go", onCancel, wrong, acts }: FormProps) {
  // Before the page is taken over nothing may send it: the browser would put what was typed into an address.
  const takenOver = useTakenOver();
  const form = useRef<HTMLFormElement>(null);
  const [marked, setMarked] = useState(false);
  const send = async () => {
    await onSend();
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
      noValidate
    >
      <Stack>
        {children}
        {wrong && (
          <Notice data-tone="bad" role="alert">
            {wrong}
          </Notice>
        )}
        <Row>
          <Button look={look} type={takenOver ? "submit" : "button"} isDisabled={running || unready}>
            {verb}
          </Button>
          {onCancel && <Button onPress={onCancel}>{t.cancel}</Button>}
          {acts}
          {marked && !running && <span className="small harm">{t.checkTheMarkedField}</span>}
        </Row>
      </Stack>
    </form>
  );
}
