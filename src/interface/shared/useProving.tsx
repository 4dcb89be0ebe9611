"use client";

import { type ReactNode, useState } from "react";
import { type Answer, runCommand } from "./ask";
import { PasswordDialog } from "./PasswordDialog";
import { givePasskey } from "./passkey";
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
  const close = (proved: boolean) => {
    waiting?.settle(proved);
    setWaiting(null);
  };
  const prove = async <R,>(act: () => Promise<Answer<R>>): Promise<Answer<R>> => {
    const answer = await act();
    if (answer.ok || answer.refused.code !== "prove-again") return answer;
    const proved = await new Promise<boolean>((settle) => setWaiting({ says: answer.refused.message, settle }));
    return proved ? act() : { ok: false, refused: { code: "given-up", message: "" } };
  };
  const send = async (password: string): Promise<string | null> => {
    const answer = await runCommand("people.proveAgain", { password });
    if (!answer.ok) return answer.refused.message;
    if (!answer.result.right) return t.wrongSignInPasswordTryAgain;
    close(true);
    return null;
  };
  const withPasskey = async (): Promise<string | null> => {
    const given = await givePasskey(await runCommand("people.beginPasskeyProof", {}));
    if (!given.ok) return given.refused.message;
    const answer = await runCommand("people.proveWithPasskey", given.result);
    if (!answer.ok) return answer.refused.message;
    if (!answer.result.right) return t.thatPasskeyIsNotYours;
    close(true);
    return null;
  };
  return {
    prove,
    sheet: waiting && (
      <PasswordDialog
        title={t.enterYourSignInPasswordAgain}
        verb={t.continueWord}
        send={send}
        onCancel={() => close(false)}
        other={{ word: t.orUseAPasskey, use: withPasskey }}
      >
        {waiting.says}
      </PasswordDialog>
    ),
  };
}
