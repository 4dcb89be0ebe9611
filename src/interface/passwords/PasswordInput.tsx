"use client";

import { type ComponentProps, useState } from "react";
import type { Wishes } from "@/core/generator";
import { Act, Row, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { MakePassword } from "./MakePassword";
import { passwordInput as t } from "./strings";
import { useStrength } from "./useStrength";

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
