"use client";

import { type ReactNode, useState } from "react";
import { type Answer, runCommand } from "./ask";
import { TextField } from "./controls";
import { Dialog } from "./Dialog";
import { Form } from "./Form";
import { useProving as t } from "./strings";

interface Waiting {
  says: string;
  /** Settles the act that waits: proved, or given up. */
  settle: (proved: boolean) => void;
}

/**
 * For acts that may want the sign-in password again: asked for where the act is, and then the act goes on by itself.
 * `prove` runs the act; `sheet` stands somewhere in the page.
 */
export function useProving(): { prove: <R>(act: () => Promise<Answer<R>>) => Promise<Answer<R>>; sheet: ReactNode } {
  const [waiting, setWaiting] = useState<Waiting | null>(null);
  const [password, setPassword] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const [running, setRunning] = useState(false);
  const close = (proved: boolean) => {
    waiting?.settle(proved);
    setWaiting(null);
    setPassword("");
    setWrong(null);
  };
  const prove = async <R,>(act: () => Promise<Answer<R>>): Promise<Answer<R>> => {
    const answer = await act();
    if (answer.ok || answer.refused.code !== "prove-again") return answer;
    const proved = await new Promise<boolean>((settle) => setWaiting({ says: answer.refused.message, settle }));
    return proved ? act() : { ok: false, refused: { code: "given-up", message: "" } };
  };
  const send = async () => {
    setRunning(true);
    const answer = await runCommand<{ right: boolean }>("people.proveAgain", { password });
    setRunning(false);
    if (!answer.ok) setWrong(answer.refused.message);
    else if (answer.result.right) close(true);
    else setWrong(t.wrongSignInPasswordTryAgain);
  };
  return {
    prove,
    sheet: waiting && (
      <Dialog title={t.enterYourSignInPasswordAgain} open onClose={() => close(false)}>
        <Form verb={t.continueWord} onSend={send} running={running} onCancel={() => close(false)}>
          <p>{waiting.says}</p>
          <TextField
            label={t.signInPassword}
            type="password"
            autoComplete="current-password"
            value={password}
            onText={setPassword}
            wrong={wrong}
            autoFocus
          />
        </Form>
      </Dialog>
    ),
  };
}
