"use client";

import { type ComponentProps, useState } from "react";
import { SHORTEST_SIGN_IN_PASSWORD } from "@/core/people/signInPassword";
import { TextField } from "../shared/controls";
import { newPassword as t } from "./strings";
import { useStrength } from "./useStrength";

interface SignInPasswordProps
  extends Omit<ComponentProps<typeof TextField>, "type" | "hint" | "autoComplete" | "value"> {
  value: string;
  /** Words that a guesser would try first: the person's name and address, the organisation's name. */
  hints: readonly string[];
}

/** A new sign-in password, with its strength in words as it is typed. No rules of composition: length is what counts. */
export function SignInPasswordField({ value, hints, ...field }: SignInPasswordProps) {
  const missing = SHORTEST_SIGN_IN_PASSWORD - [...value].length;
  const strength = useStrength(missing > 0 ? "" : value, hints);
  const said =
    value === ""
      ? t.atLeast
      : missing > 0
        ? t.more(missing)
        : strength
          ? t.strength(strength.word, strength.time)
          : t.rating;
  return <TextField {...field} type="password" autoComplete="new-password" value={value} hint={said} />;
}

/** A new sign-in password that is typed twice. */
export function useNewPassword() {
  const [password, setPassword] = useState("");
  const [again, setAgain] = useState("");
  const [differ, setDiffer] = useState(false);
  /** Whether both are the same; says so where they are not. */
  const matches = (): boolean => {
    setDiffer(password !== again);
    return password === again;
  };
  return { password, matches, fields: { password, again, differ, setPassword, setAgain } };
}

interface NewPasswordFieldsProps {
  fields: ReturnType<typeof useNewPassword>["fields"];
  label: string;
  hints: readonly string[];
  wrong: string | null | undefined;
}

export function NewPasswordFields({ fields, label, hints, wrong }: NewPasswordFieldsProps) {
  const { password, again, differ, setPassword, setAgain } = fields;
  return (
    <>
      <SignInPasswordField {...{ label, hints, wrong }} value={password} onText={setPassword} autoFocus />
      <TextField
        label={t.enterItAgain}
        type="password"
        autoComplete="new-password"
        value={again}
        onText={setAgain}
        wrong={differ ? t.doNotMatch : null}
      />
    </>
  );
}
