"use client";

import { useEffect, useRef, useState } from "react";
import { runCommand, runQuery } from "../shared/ask";
import { inOwnWindow } from "../shared/atProvider";
import { PasswordDialog } from "../shared/PasswordDialog";
import { givePasskey } from "../shared/passkey";
import { proveWith } from "../shared/proving";
import { ownWindow } from "../shared/strings";
import { proveAgain as t } from "./strings";

/** Asks, over any page, for the sign-in password or another way in, where an act wants it once more. */
export function ProveAgain() {
  const [says, setSays] = useState<string | null>(null);
  const [accounts, setAccounts] = useState<{ id: string; name: string }[]>([]);
  const settle = useRef<((proved: boolean) => void) | null>(null);
  useEffect(() => {
    proveWith((why) => {
      // Where one signs in at a provider, that is a way to show it too.
      void runQuery("provider.ownAccounts", {}).then((own) =>
        setAccounts(own.ok ? own.result.filter(({ account }) => account !== null) : []),
      );
      setSays(why);
      return new Promise((done) => {
        settle.current = done;
      });
    });
    return () => proveWith(null);
  }, []);
  const close = (proved: boolean) => {
    setSays(null);
    settle.current?.(proved);
    settle.current = null;
  };
  const send = async (password: string): Promise<string | null> => {
    const answer = await runCommand("people.proveAgain", { password });
    if (!answer.ok) return answer.refused.message;
    if (!answer.result.right) return t.wrongSignInPassword;
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
  if (says === null) return null;
  return (
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
      {says}
    </PasswordDialog>
  );
}
