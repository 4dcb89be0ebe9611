"use client";

import { useState } from "react";
import type { SecondStep } from "@/server/people/waysIn/secondStep";
import { type Refusal, runCommand } from "./ask";
import { givePasskey } from "./passkey";

/** Signing in by any way: who came in, what is wrong, and the second step once the password was right. */
export function useSigningIn(onIn: (personId: string) => void) {
  const [running, setRunning] = useState(false);
  const [wrong, setWrong] = useState<Refusal | null>(null);
  const [second, setSecond] = useState<SecondStep | null>(null);
  const busy = async (work: () => Promise<Refusal | null>): Promise<void> => {
    setRunning(true);
    const refused = await work();
    setWrong(refused);
    setRunning(false);
    // Too long, or too often: from the beginning.
    if (refused?.code === "ended") setSecond(null);
  };
  const said = (message: string): Refusal => ({ code: "bad-input", message });
  return {
    running,
    wrong,
    second,
    startAgain: () => {
      setSecond(null);
      setWrong(null);
    },
    withPassword: (mail: string, password: string) =>
      busy(async () => {
        const answer = await runCommand("people.signIn", { mail, password });
        if (!answer.ok) return answer.refused;
        if (answer.result.signedIn) onIn(answer.result.personId);
        else if ("second" in answer.result && answer.result.second) setSecond(answer.result.second);
        else return said(answer.result.message);
        return null;
      }),
    withPasskey: () =>
      busy(async () => {
        const given = await givePasskey(await runCommand("people.beginPasskeySignIn", {}));
        if (!given.ok) return given.refused;
        const answer = await runCommand("people.signInWithPasskey", given.result);
        if (!answer.ok) return answer.refused;
        if (!answer.result.signedIn) return said(answer.result.message);
        onIn(answer.result.personId);
        return null;
      }),
    secondCode: (code: string) =>
      busy(async () => {
        const answer = await runCommand("people.finishSignIn", { token: second?.token ?? "", code });
        if (!answer.ok) return answer.refused;
        if (!answer.result.signedIn) return said(answer.result.message);
        onIn(answer.result.personId);
        return null;
      }),
    secondPasskey: () =>
      busy(async () => {
        const token = second?.token ?? "";
        const given = await givePasskey(await runCommand("people.beginSecondPasskey", { token }));
        if (!given.ok) return given.refused;
        const answer = await runCommand("people.finishSignIn", { token, passkey: given.result });
        if (!answer.ok) return answer.refused;
        if (!answer.result.signedIn) return said(answer.result.message);
        onIn(answer.result.personId);
        return null;
      }),
  };
}

export type SigningIn = ReturnType<typeof useSigningIn>;
