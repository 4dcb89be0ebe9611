"use client";

import { usePathname, useRouter } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import { runCommand } from "../shared/ask";
import { PasswordDialog } from "../shared/PasswordDialog";
import { askWith, noteTyped } from "../shared/signedOut";
import { signInAgain as t } from "./strings";

/** Over a page whose session has ended while something was typed: nothing behind it is seen, and nothing is lost. */
export function SignInAgain({ mail }: { mail: string }) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
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
    settle.current?.(signedIn);
    settle.current = null;
  };
  const giveUp = () => {
    close(false);
    router.refresh();
  };
  const send = async (password: string): Promise<string | null> => {
    const answer = await runCommand("people.signIn", { mail, password });
    if (!answer.ok) return answer.refused.message;
    if (!answer.result.signedIn) return answer.result.message ?? "";
    close(true);
    return null;
  };
  return (
    open && (
      <PasswordDialog title={t.yourSessionHasEnded} verb={t.signIn} send={send} onCancel={giveUp} cover>
        {t.signInToContinue(mail)}
      </PasswordDialog>
    )
  );
}
