"use client";

import { useState } from "react";
import styled from "styled-components";
import { askedFor, PURPOSES } from "@/core/kinds/kind";
import { useCommand } from "../shared/ask";
import { Button, ChoiceField, TextField } from "../shared/controls";
import { Form } from "../shared/Form";
import { blank, type Draft, draftOf, titleAt, toInput } from "./kindDraft";
import { OneField } from "./OneField";
import { kindDesigner as t } from "./strings";
import type { KindsView } from "./types";

type OwnKind = KindsView["own"][number];

const Sheet = styled.div`
  max-width: 860px;
  h1 { margin-bottom: 20px; padding-bottom: 16px; border-bottom: 4px double var(--ink); }
`;

/** Makes a kind, or changes one: values that entries hold already are never lost. */
export function KindDesigner({ kind, onClose }: { kind: OwnKind | null; onClose: () => void }) {
  const change = useCommand("vaults.changeKind");
  const create = useCommand("vaults.createKind");
  const save = kind ? change : create;
  const [name, setName] = useState(kind?.name ?? "");
  const [purpose, setPurpose] = useState(kind?.purpose ?? "keep");
  const [oldAfter, setOldAfter] = useState(kind?.oldAfter === undefined ? "" : String(kind.oldAfter));
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
    const drawn = {
      name,
      purpose,
      oldAfter: oldAfter === "" ? null : Number(oldAfter),
      fields: fields.map(toInput),
      title: titleAt(fields, title),
    };
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
        <TextField
          label={t.oldAfter}
          hint={t.oldAfterHint}
          value={oldAfter}
          onText={(text) => setOldAfter(text.replace(/\D/g, "").slice(0, 3))}
          inputMode="numeric"
          wrong={save.wrong("kind.oldAfter")}
        />
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
