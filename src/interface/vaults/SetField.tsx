"use client";

import { useEffect, useState } from "react";
import { askedFor, CODE, type Field, type Kind } from "@/core/kinds/kind";
import type { LedgerRow } from "@/server/vaults/vaults";
import { FieldInput } from "../entry/FieldInput";
import { runQuery } from "../shared/ask";
import { ChoiceField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import type { Step } from "../shared/Done";
import { Form } from "../shared/Form";
import { setField as t } from "./strings";
import { undoRewrites } from "./undoRewrites";
import { useInPieces } from "./useInPieces";

interface SetFieldProps {
  rows: LedgerRow[];
  onClose: () => void;
  onDone: (says: string, undo: Step[]) => void;
}

const COMMON: Field[] = [
  { id: "description", label: t.description, class: "open", form: "line" },
  { id: "notes", label: t.notes, class: "open", form: "text" },
];

/** No field of a version: what their stewards choose for them. */
const REGULARLY: Field = {
  ...{ id: "changed-regularly", label: t.changedRegularly, class: "open", form: "choice" },
  choices: [t.yes, t.no],
};

/** One value for a field that all of them have. */
export function SetField({ rows, onClose, onDone }: SetFieldProps) {
  const shared = useSharedFields(rows);
  const chooses = rows.every((row) => row.level === "steward" && row.signInPage !== "");
  const fields = chooses ? [...shared, REGULARLY] : shared;
  const [id, setId] = useState("");
  const [value, setValue] = useState("");
  const { running, refused, inPieces } = useInPieces();
  const field = fields.find((one) => one.id === id);
  const what = rows.length === 1 ? rows[0]!.name : t.entries(rows.length);
  const ids = rows.map((row) => row.id);
  const choose = async () => {
    const regularly = value === t.yes;
    const chosen = await inPieces(
      ids,
      500,
      "signIn.changeRegularly",
      (entryIds) => ({ entryIds, regularly }),
      () => null,
    );
    if (chosen) onDone(regularly ? t.changedRegularlyNow(what) : t.notChangedRegularly(what), []);
  };
  const send = async () => {
    if (id === REGULARLY.id) return choose();
    const undo = await inPieces(
      ids,
      100,
      "vaults.setField",
      (entryIds) => ({ entryIds, field: id, value }),
      (_ids, result: { rows: { entryId: string; before: string; versionId: string }[] }) => undoRewrites(result.rows),
    );
    if (undo) onDone(t.ofSet(field!.label, what), undo);
  };
  return (
    <Dialog title={t.setAFieldOf(what)} open onClose={onClose}>
      <Form
        verb={t.set}
        onSend={send}
        running={running !== null}
        unready={!field || (id === REGULARLY.id && value === "")}
        onCancel={onClose}
        wrong={refused}
      >
        <ChoiceField
          label={t.field}
          value={id}
          onText={(text) => {
            setId(text);
            setValue("");
          }}
        >
          <option value="">{t.chooseAField}</option>
          {fields.map((one) => (
            <option key={one.id} value={one.id}>
              {one.label}
            </option>
          ))}
        </ChoiceField>
        {field && (
          <FieldInput
            key={field.id}
            field={{ ...field, required: false }}
            value={value}
            onText={setValue}
            wrong={null}
            kept={false}
            hints={[]}
          />
        )}
        {field && (
          <p className="soft small">{id === REGULARLY.id ? t.asTheHouseRulesSay : t.itReplacesTheCurrentValueWhich}</p>
        )}
        {running && <p role="status">{t.ofWord(running.done, running.of)}</p>}
      </Form>
    </Dialog>
  );
}

/** Fields that every one of their kinds has, by id and class. */
function useSharedFields(rows: readonly LedgerRow[]): Field[] {
  const [kinds, setKinds] = useState<Kind[]>([]);
  useEffect(() => {
    void runQuery("vaults.kindList", {}).then((answer) => {
      if (answer.ok) setKinds([...answer.result.kinds, ...answer.result.own]);
    });
  }, []);
  const wanted = [...new Set(rows.map((row) => row.kindId))].map((id) => kinds.find((kind) => kind.id === id));
  if (wanted.length === 0 || wanted.some((kind) => !kind)) return COMMON;
  const [first, ...others] = wanted as Kind[];
  const shared = askedFor(first!).filter(
    (field) =>
      field.id !== CODE &&
      field.id !== first!.title &&
      others.every((kind) => askedFor(kind).some((one) => one.id === field.id && one.class === field.class)),
  );
  return [...COMMON, ...shared];
}
