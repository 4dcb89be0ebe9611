"use client";

import styled from "styled-components";
import { Act, CheckField, ChoiceField, Stack, TextArea, TextField } from "../shared/controls";
import { alwaysSecret, type Draft, FORMS, isRole } from "./kindDraft";
import { kindDesigner as t } from "./strings";

const FieldBox = styled.fieldset`
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr) minmax(0, 1fr);
  gap: 10px 14px;
  align-items: start;
  padding: 12px 0 14px;
  border-top: 1px solid var(--edge);
  > .wide { grid-column: 1 / -1; }
  > .do { grid-column: 1 / -1; display: flex; flex-wrap: wrap; gap: 8px 20px; align-items: center; }
  @media (max-width: 719px) { grid-template-columns: minmax(0, 1fr); }
`;

interface OneFieldProps {
  field: Draft;
  inUse: boolean;
  isTitle: boolean;
  wrong: (part?: string) => string | null;
  onChange: (part: Partial<Draft>) => void;
  onTitle: (wanted: boolean) => void;
  onUp: (() => void) | undefined;
  onDown: (() => void) | undefined;
  onRemove: (() => void) | undefined;
}

export function OneField({ field, inUse, isTitle, wrong, onChange, onTitle, onUp, onDown, onRemove }: OneFieldProps) {
  const called = field.label || t.thisField;
  return (
    <FieldBox aria-label={field.label || t.newField}>
      <TextField label={t.name} value={field.label} onText={(label) => onChange({ label })} wrong={wrong("label")} />
      <ChoiceField
        label={t.type}
        value={field.form}
        onText={(form) => onChange({ form, ...(alwaysSecret(form) && { class: "secret" }) })}
        wrong={wrong("role")}
        disabled={inUse && isRole(field.form)}
      >
        {FORMS.filter((one) => !inUse || isRole(field.form) || !isRole(one.value)).map((one) => (
          <option key={one.value} value={one.value}>
            {one.word}
          </option>
        ))}
      </ChoiceField>
      {!isRole(field.form) && (
        <ChoiceField
          label={t.seenFrom}
          value={field.class}
          onText={(text) => onChange({ class: text as Draft["class"] })}
          wrong={wrong("class")}
          disabled={inUse || alwaysSecret(field.form)}
        >
          <option value="open">{t.use}</option>
          <option value="identifier">{t.reveal}</option>
          <option value="secret">{t.revealHidden}</option>
        </ChoiceField>
      )}
      {field.form === "choice" && (
        <div className="wide">
          <TextArea
            label={t.choices}
            rows={3}
            value={field.choices}
            onText={(choices) => onChange({ choices })}
            wrong={wrong("choices")}
            hint={t.onePerLine}
          />
        </div>
      )}
      <div className="wide">
        <TextField
          label={t.hint}
          value={field.hint}
          onText={(hint) => onChange({ hint })}
          wrong={wrong("hint")}
          hint={t.shownBelowTheFieldWhileSomeone}
        />
      </div>
      {field.form === "line" && (
        <ChoiceField
          label={t.checkedAs}
          value={field.check}
          onText={(text) => onChange({ check: text as Draft["check"] })}
        >
          <option value="">{t.nothing}</option>
          <option>{t.cardNumber}</option>
          <option>{t.iban}</option>
        </ChoiceField>
      )}
      <div className="do">
        <Stack style={{ gap: 6 }}>
          <CheckField
            checked={field.required || isTitle}
            disabled={isTitle}
            onTick={(required) => onChange({ required })}
            label={t.required}
          />
          {field.form === "line" && field.class === "open" && (
            <CheckField checked={isTitle} onTick={onTitle} label={t.useAsTheEntrysTitle} />
          )}
        </Stack>
        {onUp && (
          <Act onPress={onUp} aria-label={t.moveUp(called)}>
            {t.up}
          </Act>
        )}
        {onDown && (
          <Act onPress={onDown} aria-label={t.moveDown(called)}>
            {t.down}
          </Act>
        )}
        {onRemove && (
          <Act onPress={onRemove} aria-label={t.remove(called)}>
            {t.remove2}
          </Act>
        )}
      </div>
    </FieldBox>
  );
}
