"use client";

import { type ReactNode, useState } from "react";
import { Act, TextField } from "./controls";
import { Dialog } from "./Dialog";
import { Form } from "./Form";
import { passwordDialog as t } from "./strings";

interface PasswordDialogProps {
  title: string;
  verb: string;
  /** What it is needed for. */
  children: ReactNode;
  /** @returns what is wrong, or null where it was right */
  send: (password: string) => Promise<string | null>;
  onCancel: () => void;
  cover?: boolean;
  /** Other ways to show that it is oneself. */
  /** Said by whoever sends it, besides what `send` gives. */
  wrong?: string | null;
  others?: { word: string; use: () => Promise<string | null> }[];
}

/** Asks for the reader's own sign-in password. */
export function PasswordDialog({
  title,
  verb,
  children,
  send,
  onCancel,
  cover,
  others = [],
  wrong: said = null,
}: PasswordDialogProps) {
  const [password, setPassword] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const [running, setRunning] = useState(false);
  const onSend = async () => {
    setRunning(true);
    setWrong(await send(password));
    setRunning(false);
  };
  return (
    <Dialog title={title} open onClose={cover ? () => undefined : onCancel} cover={cover}>
      <Form
        verb={verb}
        onSend={onSend}
        running={running}
        onCancel={onCancel}
        acts={others.map((other) => (
          <Act
            key={other.word}
            onPress={async () => {
              setRunning(true);
              setWrong(await other.use());
              setRunning(false);
            }}
          >
            {other.word}
          </Act>
        ))}
      >
        <p>{children}</p>
        <TextField
          label={t.signInPassword}
          type="password"
          autoComplete="current-password"
          value={password}
          onText={setPassword}
          wrong={wrong ?? said}
          autoFocus
        />
      </Form>
    </Dialog>
  );
}
