"use client";

import { useRouter } from "next/navigation";
import { Fragment, useState } from "react";
import styled from "styled-components";
import { CODE, fieldWord, type Kind, PASSWORD, SIGN_IN_PAGE, USER_NAME } from "@/core/kinds/kind";
import { useCommand } from "../shared/ask";
import { CheckField, ChoiceField, Notice, Row, Stack, TextArea, TextField } from "../shared/controls";
import { Form } from "../shared/Form";
import type { Site } from "../sites/Sites";
import { Extras } from "./ExtraFields";
import { begunFrom, type Draft, draftOf, valuesOf } from "./entryDraft";
import { FieldInput } from "./FieldInput";
import { MakeSshKey } from "./MakeSshKey";
import { Overtaken } from "./Overtaken";
import { QrReader } from "./QrReader";
import { entryForm as t } from "./strings";
import { TagField } from "./TagField";
import type { EntryView } from "./types";

const Sheet = styled.div`
  max-width: 980px;
  h1 { margin-bottom: 14px; padding-bottom: 10px; border-bottom: 4px double var(--ink); }
`;

interface EntryFormProps {
  kind: Kind;
  entry: EntryView | null;
  vaultId: string;
  /** Vault or folder that a new one is added to, until another of the places is chosen. */
  parent: { id: string; name: string };
  places?: readonly { id: string; name: string }[];
  /** A site we use, from which a new entry begins. */
  site?: Site | null;
}

/** Makes or changes an entry. A secret that is left empty stays as it is. */
export function EntryForm({ kind, entry, vaultId, parent: preset, places = [], site = null }: EntryFormProps) {
  const router = useRouter();
  const change = useCommand("vaults.changeEntry");
  const add = useCommand("vaults.addEntry");
  const save = entry ? change : add;
  const [draft, setDraft] = useState(() => begunFrom(draftOf(kind, entry), site));
  const [baseVersionId, setBase] = useState(entry?.reveal?.versionId ?? "");
  const [removeCode, setRemoveCode] = useState(false);
  const [parentId, setParentId] = useState(preset.id);
  const parent = places.find((one) => one.id === parentId) ?? preset;
  const set = <K extends keyof Draft>(key: K, value: Draft[K]) => setDraft((now) => ({ ...now, [key]: value }));
  const setValue = (id: string, value: string) =>
    setDraft((now) => ({ ...now, values: { ...now.values, [id]: value } }));
  const wrong = (field: string) => save.wrong(`values.${field}`);
  const back = entry ? `/entry/${entry.id}` : `/vaults/${vaultId}${parent.id === vaultId ? "" : `?in=${parent.id}`}`;
  const overtaken = save.refused?.code === "conflict" && save.refused.data?.theirs ? save.refused : null;
  const setValues = (values: Record<string, string>) =>
    setDraft((now) => ({ ...now, values: { ...now.values, ...values } }));
  // What was taken out of the kind is shown where the entry still holds a value in it.
  const asked = kind.fields.filter(
    (field) => !field.retired || entry?.fields.some((one) => one.id === field.id && one.filled),
  );
  const kept = (id: string) => entry?.fields.some((field) => field.id === id && field.filled) ?? false;

  const submit = async (base = baseVersionId) => {
    const values = valuesOf(kind, draft, entry !== null, removeCode);
    if (entry) {
      const answer = await change.run({ entryId: entry.id, baseVersionId: base, values });
      if (answer.ok) router.push(back);
      return answer.ok;
    } else {
      const answer = await add.run({ parentId: parent.id, kind: kind.id, values });
      if (answer.ok) router.push(`/entry/${answer.result.entryId}`);
      return answer.ok;
    }
  };
  return (
    <Sheet>
      <h1>{entry ? t.edit(entry.name) : t.addTo(kind.name, parent.name)}</h1>
      <Form
        wide
        verb={entry ? t.save : t.add}
        onSend={() => submit()}
        running={save.running}
        onCancel={() => router.push(back)}
        wrong={overtaken || save.refused?.field?.startsWith("values.") ? null : save.refused?.message}
      >
        {overtaken && (
          <div className="whole">
            <Overtaken
              refused={overtaken}
              kind={kind}
              draft={draft}
              running={save.running}
              onKeepMine={() => {
                const base = String(overtaken.data!.versionId);
                setBase(base);
                void submit(base);
              }}
              onTake={(key, value) => (key in draft.values ? setValue(key, value) : set(key as "name", value))}
            />
          </div>
        )}
        {site?.hint && (
          <Notice role="note" className="whole">
            <b>{site.name}</b>: {site.hint}
          </Notice>
        )}
        {!kind.title && (
          <TextField
            label={t.name}
            value={draft.name}
            onText={(text) => set("name", text)}
            wrong={wrong("name")}
            autoFocus
            required
          />
        )}
        {kind.id === "ssh-key" && !entry && (
          <div className="whole">
            <MakeSshKey comment={draft.name} onMade={(key) => setValues(key)} />
          </div>
        )}
        <TextField
          label={t.description}
          value={draft.description}
          onText={(text) => set("description", text)}
          wrong={wrong("description")}
          hint={t.tellsTwoSimilarEntriesApartBox}
        />
        {asked.map((field) => (
          <Fragment key={field.id}>
            <Stack style={{ gap: 8 }}>
              <FieldInput
                field={field}
                value={draft.values[field.id] ?? ""}
                onText={(text) => setValue(field.id, text)}
                wrong={wrong(field.id)}
                kept={kept(field.id)}
                {...(site && field.id === PASSWORD && { siteRules: site.passwordRules })}
                hints={[draft.name, draft.values[USER_NAME] ?? "", draft.values[SIGN_IN_PAGE] ?? ""]}
                disabled={field.id === CODE && removeCode}
              />
              {field.id === USER_NAME && (
                <CheckField
                  checked={draft.useSeesUserName}
                  onTick={(ticked) => set("useSeesUserName", ticked)}
                  label={t.peopleWithUseCanSeeThe(fieldWord(kind, USER_NAME))}
                />
              )}
              {field.id === CODE && (
                <Row>
                  <QrReader onRead={(text) => setValue(CODE, text)} />
                  {kept(CODE) && (
                    <CheckField checked={removeCode} onTick={setRemoveCode} label={t.removeTheOneTimeCode} />
                  )}
                </Row>
              )}
            </Stack>
            {field.id === SIGN_IN_PAGE && (
              <ChoiceField
                label={t.lanyardOffersItOn}
                value={draft.reach}
                onText={(text) => set("reach", text as Draft["reach"])}
              >
                <option value="site">{t.theWholeSiteWithItsSubdomains}</option>
                <option value="host">{t.thisHostOnly}</option>
              </ChoiceField>
            )}
          </Fragment>
        ))}
        <TextArea
          label={t.notes}
          value={draft.notes}
          onText={(text) => set("notes", text)}
          wrong={wrong("notes")}
          hint={t.anyoneWhoCanUseTheEntryCan}
          rows={3}
        />
        {!entry && places.length > 1 && (
          <ChoiceField label={t.place} value={parent.id} onText={setParentId}>
            {places.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </ChoiceField>
        )}
        <TagField vaultId={vaultId} value={draft.tags} onText={(text) => set("tags", text)} wrong={wrong("tags")} />
        <Extras extras={draft.extras} set={(extras) => set("extras", extras)} wrong={wrong("extras")} />
      </Form>
    </Sheet>
  );
}
