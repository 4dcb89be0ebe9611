"use client";

import { usePathname, useRouter } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import { runCommand } from "../shared/ask";
import { TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { askWith, noteTyped } from "../shared/signedOut";
import { signInAgain as t } from "./strings";

/** Over a page whose session has ended while something was typed: nothing behind it is seen, and nothing is lost. */
export function SignInAgain({ mail }: { mail: string }) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [password, setPassword] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const [running, setRunning] = useState(false);
  const path = usePathname();
  useEffect(() => noteTyped(false), [path]);
  const settle = useRef<((signedIn: boolean) => void) | null>(null);
  useEffect(() => {
    askWith(
      () =>
        new Promise((done) => {
          settle.current = done;
          setOpen(true);
        }),
    );
    const typing = ({ target }: Event) => {
      if ((target as HTMLElement | null)?.closest("form")) noteTyped(true);
    };
    document.addEventListener("input", typing);
    return () => {
      askWith(null);
      document.removeEventListener("input", typing);
    };
  }, []);
  const close = (signedIn: boolean) => {
    setOpen(false);
    setPassword("");
    setWrong(null);
    settle.current?.(signedIn);
    settle.current = null;
  };
  const giveUp = () => {
    close(false);
    router.refresh();
  };
  const send = async () => {
    setRunning(true);
    const answer = await runCommand<{ signedIn: boolean; message?: string }>("people.signIn", { mail, password });
    setRunning(false);
    if (answer.ok && answer.result.signedIn) close(true);
    else setWrong(answer.ok ? (answer.result.message ?? "") : answer.refused.message);
  };
  return (
    <Dialog title={t.yourSessionHasEnded} open={open} onClose={() => undefined} cover>
      <Form verb={t.signIn} onSend={send} running={running} onCancel={giveUp}>
        <p>{t.signInToContinue(mail)}</p>
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
  );
}
