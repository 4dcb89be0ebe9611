"use client";

import { type ComponentProps, useEffect, useState } from "react";
import type { Wishes } from "@/core/generator";
import type { Strength } from "@/core/generator/strengthWords";
import { Act, Row, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { ratePassword } from "./ask";
import { MakePassword } from "./MakePassword";
import { passwordInput as t } from "./strings";

/** After the last key, in milliseconds: nobody wants to be judged letter by letter. */
const PAUSE_MS = 250;

interface PasswordInputProps extends Omit<ComponentProps<typeof TextField>, "value" | "onText"> {
  name: string;
  value: string;
  onText: (text: string) => void;
  purpose: Wishes["purpose"];
  /** Words that a guesser would try first. */
  hints: string[];
  siteRules?: string | undefined;
  /** Given by whoever issued it: none is created here. */
  issued?: boolean;
}

/** A field for a secret: shown on demand, made on demand, and what is typed is rated in words and time. */
export function PasswordInput(props: PasswordInputProps) {
  const { name, value, onText, purpose, hints, siteRules, issued = false, hint, ...field } = props;
  const [shown, setShown] = useState(false);
  const [making, setMaking] = useState(false);
  const strength = useStrength(purpose === "keypad" ? "" : value, hints);
  return (
    <div>
      <TextField
        {...field}
        value={value}
        onText={onText}
        type={shown ? "text" : "password"}
        hint={strength ? t.wouldTakeToGuessFromAStolen(strength.word, strength.time) : hint}
      />
      <Row style={{ gap: 16, marginTop: 4 }}>
        {!issued && (
          <Act onPress={() => setMaking(true)} isDisabled={field.disabled}>
            {t.createOne}
          </Act>
        )}
        {value !== "" && (
          <Act onPress={() => setShown(!shown)} aria-label={`${shown ? "Hide" : "Show"} ${name}`}>
            {shown ? t.hide : t.show}
          </Act>
        )}
      </Row>
      <Dialog
        title={t.createThe(name.charAt(0).toLowerCase(), name.slice(1))}
        open={making}
        onClose={() => setMaking(false)}
      >
        <MakePassword
          first={purpose}
          siteRules={siteRules}
          onTake={(text) => {
            onText(text);
            setMaking(false);
          }}
        />
      </Dialog>
    </div>
  );
}

function useStrength(text: string, hints: string[]): Strength | null {
  const [strength, setStrength] = useState<Strength | null>(null);
  const known = hints.join("\n");
  useEffect(() => {
    if (text === "") return setStrength(null);
    let current = true;
    const timer = setTimeout(() => {
      void ratePassword(text, known.split("\n")).then((answer) => {
        if (current) setStrength(answer.answer);
      });
    }, PAUSE_MS);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [text, known]);
  return strength;
}
