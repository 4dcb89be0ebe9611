"use client";

import { useRouter } from "next/navigation";
import { Fragment, useState } from "react";
import styled from "styled-components";
import { CODE, fieldOf, fieldWord, type Kind, PASSWORD, SIGN_IN_PAGE, USER_NAME } from "@/core/kinds/kind";
import { type Refusal, useCommand } from "../shared/ask";
import { Act, Button, CheckField, ChoiceField, Notice, Row, Stack, TextArea, TextField } from "../shared/controls";
import { Form } from "../shared/Form";
import { useProving } from "../shared/useProving";
import type { Site } from "../sites/Sites";
import { FieldInput } from "./FieldInput";
import { MakeSshKey } from "./MakeSshKey";
import { QrReader } from "./QrReader";
import { entryForm as t } from "./strings";
import { TagField, toTags } from "./TagField";
import type { EntryView } from "./types";

const Sheet = styled.div`
  max-width: 980px;
  h1 { margin-bottom: 14px; padding-bottom: 10px; border-bottom: 4px double var(--ink); }
`;

const Extra = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 140px minmax(0, 1.4fr) auto;
  gap: 12px;
  align-items: start;
  > button { margin-top: 26px; }
  @media (max-width: 719px) { grid-template-columns: minmax(0, 1fr); > button { margin: 0; justify-self: start; } }
`;

const Versus = styled.table`
  width: 100%;
  margin: 12px 0;
  border-collapse: collapse;
  table-layout: fixed;
  th, td { padding: 8px 12px 8px 0; border-bottom: 1px solid var(--rule); text-align: left; vertical-align: top; overflow-wrap: anywhere; }
  th[scope="row"] { width: 120px; color: var(--soft); font-weight: 400; font-size: 14px; }
`;

interface ExtraDraft {
  id: string;
  label: string;
  class: "open" | "identifier" | "secret";
  value: string;
  kept: boolean;
}

interface Draft {
  name: string;
  description: string;
  reach: "site" | "host";
  notes: string;
  tags: string;
  useSeesUserName: boolean;
  /** By field id, the sign-in page and the one-time code included; a secret that is kept is empty. */
  values: Record<string, string>;
  extras: ExtraDraft[];
}

function draftOf(kind: Kind, entry: EntryView | null): Draft {
  const views = new Map(entry?.fields.map((field) => [field.id, field]));
  return {
    name: entry?.name ?? "",
    description: entry?.description ?? "",
    reach: entry?.reach ?? "site",
    notes: entry?.notes ?? "",
    tags: entry?.tags.join(", ") ?? "",
    useSeesUserName: entry?.useSeesUserName ?? false,
    values: {
      ...Object.fromEntries(kind.fields.map(({ id }) => [id, views.get(id)?.value ?? ""])),
      ...(entry && { [SIGN_IN_PAGE]: entry.signInPage }),
    },
    extras: (entry?.fields ?? [])
      .filter((field) => field.id.startsWith("extra:"))
      .map((field) => ({
        id: field.id.slice("extra:".length),
        label: field.label,
        class: field.class,
        value: field.value ?? "",
        kept: field.class === "secret" && field.filled,
      })),
  };
}

const begunFrom = (draft: Draft, site: Site | null): Draft =>
  site
    ? {
        ...draft,
        name: site.name,
        values: { ...draft.values, ...(site.signInPage && { [SIGN_IN_PAGE]: site.signInPage }) },
      }
    : draft;

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
  const { prove, sheet } = useProving();
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
      const answer = await prove(() => change.run({ entryId: entry.id, baseVersionId: base, values }));
      if (answer.ok) router.push(back);
      return answer.ok;
    } else {
      const answer = await prove(() => add.run({ parentId: parent.id, kind: kind.id, values }));
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
        wrong={overtaken || sheet || save.refused?.field?.startsWith("values.") ? null : save.refused?.message}
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
      {sheet}
    </Sheet>
  );
}

function valuesOf(kind: Kind, draft: Draft, existing: boolean, removeCode: boolean) {
  const fields = kind.fields.flatMap((field): [string, string][] => {
    const value = draft.values[field.id] ?? "";
    if (field.id === CODE) {
      if (removeCode) return [[CODE, ""]];
      return value.trim() === "" ? [] : [[CODE, value]];
    }
    return existing && field.class === "secret" && value === "" ? [] : [[field.id, value]];
  });
  return {
    name: draft.name,
    description: draft.description,
    notes: draft.notes,
    ...Object.fromEntries(fields),
    ...(fieldOf(kind, SIGN_IN_PAGE) && { reach: draft.reach }),
    ...(fieldOf(kind, USER_NAME) && { useSeesUserName: draft.useSeesUserName }),
    tags: toTags(draft.tags),
    extras: draft.extras.map((extra) => ({
      id: extra.id,
      label: extra.label,
      class: extra.class,
      value: extra.kept && extra.value === "" ? undefined : extra.value,
    })),
  };
}

function Extras({
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

/** Somebody saved in between: both stand side by side, and neither is lost. */
function Overtaken({
  refused,
  kind,
  draft,
  running,
  onKeepMine,
  onTake,
}: {
  refused: Refusal;
  kind: Kind;
  draft: Draft;
  running: boolean;
  onKeepMine: () => void;
  onTake: (key: string, value: string) => void;
}) {
  const theirs = refused.data!.theirs as Record<string, unknown>;
  const mine: Record<string, string> = {
    ...draft.values,
    name: draft.name,
    description: draft.description,
    notes: draft.notes,
  };
  const shown = [
    { id: "name", label: t.name },
    { id: "description", label: t.description },
    ...kind.fields.filter((field) => field.class !== "secret"),
    { id: "notes", label: t.notes },
  ];
  const differing = shown.filter(({ id }) => String(theirs[id] ?? "") !== mine[id]);
  const secrets = kind.fields.filter(({ id }) => (refused.data!.secretsChanged as string[]).includes(id));
  return (
    <Notice role="alert">
      <b>{refused.message}</b>
      <p>{t.yourChangesAreStillHereTake}</p>
      {differing.length > 0 && (
        <Versus>
          <thead>
            <tr>
              <th>
                <span className="unseen">{t.field}</span>
              </th>
              <th>{t.theirs}</th>
              <th>{t.yours}</th>
            </tr>
          </thead>
          <tbody>
            {differing.map(({ id, label }) => (
              <tr key={id}>
                <th scope="row">{label}</th>
                <td>
                  {String(theirs[id] ?? "")}
                  <br />
                  <Act onPress={() => onTake(id, String(theirs[id] ?? ""))} aria-label={t.takeTheirs(label)}>
                    {t.takeTheirs2}
                  </Act>
                </td>
                <td>{mine[id]}</td>
              </tr>
            ))}
          </tbody>
        </Versus>
      )}
      {secrets.map(({ id }) => (
        <p key={id}>
          {t.theyAlsoChangedThe(
            fieldWord(kind, id),
            draft.values[id] === "" ? t.youDidNotChangeItTheirsStays : t.savingReplacesItWithYours,
          )}
        </p>
      ))}
      <Row style={{ marginTop: 8 }}>
        <Button isDisabled={running} onPress={onKeepMine}>
          {t.saveYourChanges}
        </Button>
      </Row>
    </Notice>
  );
}
