"use client";

import { type ReactNode, useState } from "react";
import { type Answer, runCommand, runQuery } from "./ask";
import { inOwnWindow } from "./atProvider";
import { PasswordDialog } from "./PasswordDialog";
import { givePasskey } from "./passkey";
import { ownWindow, useProving as t } from "./strings";

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
  const [accounts, setAccounts] = useState<{ id: string; name: string }[]>([]);
  const close = (proved: boolean) => {
    waiting?.settle(proved);
    setWaiting(null);
  };
  const prove = async <R,>(act: () => Promise<Answer<R>>): Promise<Answer<R>> => {
    const answer = await act();
    if (answer.ok || answer.refused.code !== "prove-again") return answer;
    // Where one signs in at a provider, that is a way to show it too.
    void runQuery("provider.ownAccounts", {}).then((own) =>
      setAccounts(own.ok ? own.result.filter(({ account }) => account !== null) : []),
    );
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
  const atProvider = async (providerId: string): Promise<string | null> => {
    const wrong = await inOwnWindow(providerId, "prove", ownWindow);
    if (wrong === null) close(true);
    return wrong;
  };
  return {
    prove,
    sheet: waiting && (
      <PasswordDialog
        title={t.enterYourSignInPasswordAgain}
        verb={t.continueWord}
        send={send}
        onCancel={() => close(false)}
        others={[
          { word: t.orUseAPasskey, use: withPasskey },
          ...accounts.map(({ id, name }) => ({ word: t.orSignInWith(name), use: () => atProvider(id) })),
        ]}
      >
        {waiting.says}
      </PasswordDialog>
    ),
  };
}
