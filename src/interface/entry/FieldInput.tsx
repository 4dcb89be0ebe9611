"use client";

import { adviceOn } from "@/core/kinds/checks";
import type { Field } from "@/core/kinds/kind";
import { sayMonth } from "@/core/month";
import { PasswordInput } from "../passwords/PasswordInput";
import { ChoiceField, TextArea, TextField } from "../shared/controls";
import { DayField } from "../shared/DateFields";
import { fieldInput as t } from "./strings";

interface FieldInputProps {
  field: Field;
  value: string;
  onText: (text: string) => void;
  wrong: string | null;
  /** A secret stands there already: left empty it stays. */
  kept: boolean;
  /** Words that a guesser would try first. */
  hints: string[];
  disabled?: boolean;
  /** Of the site, for passwords that are made here: HTML `passwordrules`. */
  siteRules?: string;
}

/** What a field is filled in with, by its form and class. */
export function FieldInput({ field, value, onText, wrong, kept, hints, disabled, siteRules }: FieldInputProps) {
  const secret = field.class === "secret";
  const around = {
    label: field.label,
    value,
    onText,
    wrong,
    disabled,
    required: field.required,
    hint: (secret && kept && t.leaveEmptyToKeepTheCurrent) || adviceOn(field.check, value) || field.hint,
  };
  const plain = { autoComplete: "off", spellCheck: false };
  switch (field.form) {
    case "choice":
      return (
        <ChoiceField {...around}>
          <option value="">{t.notSet}</option>
          {field.choices!.map((choice) => (
            <option key={choice}>{choice}</option>
          ))}
        </ChoiceField>
      );
    case "codes":
      return <TextArea {...around} rows={6} className="mono" spellCheck={false} />;
    case "text":
      return <TextArea {...around} rows={4} className={secret ? "mono" : undefined} />;
    case "address":
      return <TextField {...around} {...plain} className="mono" inputMode="url" autoCapitalize="none" />;
    case "date":
      return <DayField {...around} />;
    case "month":
      return (
        <TextField
          {...around}
          {...plain}
          value={sayMonth(value)}
          inputMode="numeric"
          hint={around.hint ?? t.monthAndYear}
        />
      );
    case "one-time code":
      return <TextField {...around} {...plain} className="mono" hint={around.hint ?? t.theSecretKeyTheSiteShowsOr} />;
    case "mail":
      return <TextField {...around} {...plain} inputMode="email" autoCapitalize="none" />;
    case "phone":
      return <TextField {...around} {...plain} inputMode="tel" />;
    case "digits":
    case "password":
      if (secret)
        return (
          <PasswordInput
            {...around}
            {...plain}
            name={field.label}
            purpose={field.form === "digits" ? "keypad" : "website"}
            hints={hints}
            siteRules={siteRules}
            issued={field.issued || field.check !== undefined}
            autoComplete="new-password"
            inputMode={field.form === "digits" ? "numeric" : undefined}
            className="mono"
          />
        );
      return <TextField {...around} {...plain} inputMode={field.form === "digits" ? "numeric" : undefined} />;
    case "line":
      return <TextField {...around} {...plain} className={field.class === "open" ? undefined : "mono"} />;
  }
}
