"use client";

import styled from "styled-components";
import { Act, Button, ChoiceField, Stack, TextField } from "../shared/controls";
import type { ExtraDraft } from "./entryDraft";
import { entryForm as t } from "./strings";

const Extra = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 140px minmax(0, 1.4fr) auto;
  gap: 12px;
  align-items: start;
  > button { margin-top: 26px; }
  @media (max-width: 719px) { grid-template-columns: minmax(0, 1fr); > button { margin: 0; justify-self: start; } }
`;

export function Extras({
  extras,
  set,
  wrong,
}: {
  extras: ExtraDraft[];
  set: (extras: ExtraDraft[]) => void;
  wrong: string | null;
}) {
  const change = (id: string, part: Partial<ExtraDraft>) =>
    set(extras.map((extra) => (extra.id === id ? { ...extra, ...part } : extra)));
  return (
    <fieldset className="whole">
      <legend style={{ fontWeight: 650, marginBottom: 8 }}>{t.extraFields}</legend>
      <Stack>
        {extras.map((extra) => (
          <Extra key={extra.id}>
            <TextField label={t.name} value={extra.label} onText={(text) => change(extra.id, { label: text })} />
            <ChoiceField
              label={t.seenFrom}
              value={extra.class}
              onText={(text) => change(extra.id, { class: text as ExtraDraft["class"], kept: false })}
            >
              <option value="open">{t.use}</option>
              <option value="identifier">{t.reveal}</option>
              <option value="secret">{t.revealHidden}</option>
            </ChoiceField>
            <TextField
              label={t.value}
              type={extra.class === "secret" ? "password" : "text"}
              autoComplete="off"
              value={extra.value}
              onText={(text) => change(extra.id, { value: text })}
              hint={extra.kept ? t.leaveEmptyToKeepTheCurrent : undefined}
            />
            <Act
              onPress={() => set(extras.filter((one) => one.id !== extra.id))}
              aria-label={t.remove(extra.label || "field")}
            >
              {t.remove2}
            </Act>
          </Extra>
        ))}
        {wrong && (
          <p role="alert" style={{ color: "var(--crimson)", fontWeight: 600 }}>
            {wrong}
          </p>
        )}
        <div>
          <Button
            onPress={() =>
              set([...extras, { id: crypto.randomUUID(), label: "", class: "open", value: "", kept: false }])
            }
          >
            {t.addAField}
          </Button>
        </div>
      </Stack>
    </fieldset>
  );
}
