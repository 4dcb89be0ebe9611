"use client";

import { useState } from "react";
import styled from "styled-components";
import { askedFor, type Field, PURPOSES } from "@/core/kinds/kind";
import { ROLES, type Role } from "@/core/kinds/own";
import type { InputOf } from "@/server/registry";
import { useCommand } from "../shared/ask";
import { Act, Button, CheckField, ChoiceField, Stack, TextArea, TextField } from "../shared/controls";
import { Form } from "../shared/Form";
import type { KindsView } from "./Kinds";
import { kindDesigner as t } from "./strings";

type OwnKind = KindsView["own"][number];

const Sheet = styled.div`
  max-width: 860px;
  h1 { margin-bottom: 20px; padding-bottom: 16px; border-bottom: 4px double var(--ink); }
`;

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

/** How a field is filled in, and what Galtry does with it where it signs in. */
const FORMS: { value: string; word: string }[] = [
  { value: "line", word: t.oneLine },
  { value: "text", word: t.text },
  { value: "password", word: t.passwordPinOrCombination },
  { value: "digits", word: t.digits },
  { value: "choice", word: t.choiceFromAList },
  { value: "date", word: t.date },
  { value: "month", word: t.month },
  { value: "mail", word: t.emailAddress },
  { value: "phone", word: t.telephoneNumber },
  { value: "codes", word: t.codesToTickOffOneByOne },
  { value: "role:signInPage", word: t.signInPage },
  { value: "role:userName", word: t.userNameForSigningIn },
  { value: "role:password", word: t.passwordForSigningIn },
  { value: "role:code", word: t.oneTimeCode },
];

interface Draft {
  key: string;
  id: string | undefined;
  label: string;
  /** A form, or `role:…`. */
  form: string;
  class: Field["class"];
  hint: string;
  choices: string;
  check: "" | "card number" | "IBAN";
  required: boolean;
  issued: boolean;
}

type DrawnForm = InputOf<"vaults.createKind">["kind"]["fields"][number]["form"];

const isRole = (form: string) => form.startsWith("role:");
/** What is written this way is a secret, whatever it is called. */
const alwaysSecret = (form: string) => form === "password" || form === "codes";

const blank = (): Draft => ({
  key: crypto.randomUUID(),
  id: undefined,
  label: "",
  form: "line",
  class: "open",
  hint: "",
  choices: "",
  check: "",
  required: false,
  issued: false,
});

const draftOf = (field: Field): Draft => ({
  key: field.id,
  id: field.id,
  label: field.label,
  form: (ROLES as readonly string[]).includes(field.id) ? `role:${field.id}` : field.form,
  class: field.class,
  hint: field.hint ?? "",
  choices: field.choices?.join("\n") ?? "",
  check: field.check ?? "",
  required: field.required ?? false,
  issued: field.issued ?? false,
});

/** Makes a kind, or changes one: values that entries hold already are never lost. */
export function KindDesigner({ kind, onClose }: { kind: OwnKind | null; onClose: () => void }) {
  const change = useCommand("vaults.changeKind");
  const create = useCommand("vaults.createKind");
  const save = kind ? change : create;
  const [name, setName] = useState(kind?.name ?? "");
  const [purpose, setPurpose] = useState(kind?.purpose ?? "keep");
  const [fields, setFields] = useState<Draft[]>(() => (kind ? askedFor(kind).map(draftOf) : [blank()]));
  const [title, setTitle] = useState<string | null>(kind?.title ?? null);
  const inUse = (kind?.entries ?? 0) > 0;
  const setField = (key: string, part: Partial<Draft>) =>
    setFields(fields.map((field) => (field.key === key ? { ...field, ...part } : field)));
  const shift = (at: number, by: number) => {
    const after = [...fields];
    const [moved] = after.splice(at, 1);
    after.splice(at + by, 0, moved!);
    setFields(after);
  };
  const send = async () => {
    const drawn = { name, purpose, fields: fields.map(toInput), title: titleAt(fields, title) };
    const answer = kind ? await change.run({ kindId: kind.id, kind: drawn }) : await create.run({ kind: drawn });
    if (answer.ok) onClose();
  };
  const atField = save.refused?.field?.startsWith("kind.fields.") || save.refused?.field === "kind.name";
  return (
    <Sheet>
      <h1>{kind ? t.changeTheKind(kind.name) : t.createAKind}</h1>
      <Form
        verb={kind ? t.save : t.createKind}
        onSend={send}
        running={save.running}
        onCancel={onClose}
        wrong={atField ? null : save.refused?.message}
      >
        <TextField
          label={t.name}
          value={name}
          onText={setName}
          wrong={save.wrong("kind.name")}
          hint={t.theNameOfOneSuchAsFilm}
          autoFocus
        />
        <ChoiceField label={t.listedUnder} value={purpose} onText={(text) => setPurpose(text as typeof purpose)}>
          {PURPOSES.map((one) => (
            <option key={one.purpose} value={one.purpose}>
              {one.title}
            </option>
          ))}
        </ChoiceField>
        <div>
          <h2 style={{ marginBottom: 8 }}>{t.fields}</h2>
          {fields.map((field, at) => (
            <OneField
              key={field.key}
              field={field}
              inUse={inUse && field.id !== undefined}
              isTitle={title === field.key}
              wrong={(part) => save.wrong(`kind.fields.${at}${part ? `.${part}` : ""}`)}
              onChange={(part) => setField(field.key, part)}
              onTitle={(wanted) => setTitle(wanted ? field.key : null)}
              onUp={at > 0 ? () => shift(at, -1) : undefined}
              onDown={at < fields.length - 1 ? () => shift(at, 1) : undefined}
              onRemove={fields.length > 1 ? () => setFields(fields.filter((one) => one !== field)) : undefined}
            />
          ))}
          <Button onPress={() => setFields([...fields, blank()])}>{t.addAField}</Button>
        </div>
        {inUse && <p className="soft small">{t.entriesOfThisKind(kind!.entries!)}</p>}
      </Form>
    </Sheet>
  );
}

function titleAt(fields: readonly Draft[], title: string | null): number | null {
  const at = fields.findIndex((field) => field.key === title);
  return at === -1 || fields[at]!.form !== "line" || fields[at]!.class !== "open" ? null : at;
}

function toInput(field: Draft) {
  const role = isRole(field.form) ? (field.form.slice("role:".length) as Role) : undefined;
  return {
    id: field.id,
    role,
    label: field.label,
    class: alwaysSecret(field.form) ? "secret" : field.class,
    form: role ? "line" : (field.form as DrawnForm),
    hint: field.hint,
    choices:
      field.form === "choice"
        ? field.choices
            .split("\n")
            .map((choice) => choice.trim())
            .filter(Boolean)
        : [],
    check: field.check === "" ? undefined : field.check,
    required: field.required,
    issued: field.issued,
  };
}

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

function OneField({ field, inUse, isTitle, wrong, onChange, onTitle, onUp, onDown, onRemove }: OneFieldProps) {
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
