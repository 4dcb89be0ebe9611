"use client";

import { useEffect, useState } from "react";
import { fieldOf, type Kind, PURPOSES, SIGN_IN_PAGE } from "@/core/kinds/kind";
import { runQuery, useCommand } from "../shared/ask";
import { ChoiceField, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { convertSheet as t } from "./strings";
import type { EntryView } from "./types";

/** Another kind for an entry: what does not fit is kept as extra fields, and finds its way back. */
export function ConvertSheet({ entry, onClose }: { entry: EntryView; onClose: () => void }) {
  const convert = useCommand("vaults.convertEntry");
  const done = useDone();
  const [kinds, setKinds] = useState<Kind[]>([]);
  const [kind, setKind] = useState("");
  const [signInPage, setSignInPage] = useState("");
  useEffect(() => {
    void runQuery("vaults.kindList", {}).then((answer) => {
      if (answer.ok) setKinds(answer.result.kinds);
    });
  }, []);
  const to = kinds.find((one) => one.id === kind);
  const needsPage = to && fieldOf(to, SIGN_IN_PAGE)?.required && entry.signInPage === "";
  const left = to
    ? entry.fields.filter((field) => field.filled && !field.id.startsWith("extra:") && !fieldOf(to, field.id))
    : [];
  const send = async () => {
    const answer = await convert.run({ entryId: entry.id, baseVersionId: entry.reveal!.versionId, kind, signInPage });
    if (!answer.ok) return;
    const { before, versionId } = answer.result;
    const items = [{ entryId: entry.id, baseVersionId: versionId, versionId: before }];
    done(t.isNowOfTheKind(entry.name, to!.name), [
      { command: "vaults.restoreVersion", input: { items, fields: null } },
    ]);
    onClose();
  };
  return (
    <Dialog title={t.changeTheKindOf(entry.name)} open onClose={onClose}>
      <Form
        verb={t.changeTheKind}
        onSend={send}
        running={convert.running}
        unready={kind === ""}
        onCancel={onClose}
        wrong={convert.refused?.field === "signInPage" && needsPage ? null : convert.refused?.message}
      >
        <ChoiceField label={t.kind} value={kind} onText={setKind}>
          <option value="">{t.chooseAKind}</option>
          {PURPOSES.map(({ purpose, title }) => (
            <optgroup key={purpose} label={title}>
              {kinds
                .filter((one) => one.purpose === purpose && one.id !== entry.kind.id)
                .map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.name}
                  </option>
                ))}
            </optgroup>
          ))}
        </ChoiceField>
        {needsPage && (
          <TextField
            label={t.signInPage}
            className="mono"
            value={signInPage}
            onText={setSignInPage}
            wrong={convert.refused?.field === "signInPage" ? convert.refused.message : null}
            hint={t.thePageWithTheSignInForm}
          />
        )}
        {left.length > 0 && (
          <p>
            {t.hasNoSuchFields(
              to!.name,
              left.map((field) => `“${field.label}”`),
            )}
          </p>
        )}
      </Form>
    </Dialog>
  );
}
