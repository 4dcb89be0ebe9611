"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import styled from "styled-components";
import { type Refusal, useCommand } from "../shared/ask";
import { Act, Button, CheckField, ChoiceField, Notice, Row, Stack, TextArea, TextField } from "../shared/controls";
import { Form } from "../shared/Form";
import { QrReader } from "./QrReader";
import type { EntryView } from "./types";

const Sheet = styled.div`
  max-width: 720px;
  h1 { margin-bottom: 20px; padding-bottom: 16px; border-bottom: 4px double var(--ink); }
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
  signInPage: string;
  reach: "site" | "host";
  userName: string;
  password: string;
  code: string;
  notes: string;
  tags: string;
  useSeesUserName: boolean;
  extras: ExtraDraft[];
}

const EMPTY: Draft = {
  name: "",
  description: "",
  signInPage: "",
  reach: "site",
  userName: "",
  password: "",
  code: "",
  notes: "",
  tags: "",
  useSeesUserName: false,
  extras: [],
};

function draftOf(entry: EntryView): Draft {
  return {
    name: entry.name,
    description: entry.description,
    signInPage: entry.signInPage,
    reach: entry.reach,
    userName: entry.userName ?? "",
    password: "",
    code: "",
    notes: entry.notes,
    tags: entry.tags.join(", "),
    useSeesUserName: entry.useSeesUserName,
    extras: [
      ...entry.openExtras.map((extra) => ({
        id: extra.id,
        label: extra.label,
        class: extra.class,
        value: extra.value ?? "",
        kept: false,
      })),
      ...(entry.reveal?.extras ?? []).map((extra) => ({
        id: extra.id,
        label: extra.label,
        class: extra.class,
        value: extra.value ?? "",
        kept: extra.class === "secret" && extra.filled,
      })),
    ],
  };
}

/** Makes or changes a website login. A secret that is left empty stays as it is. */
export function EntryForm({ entry, parent }: { entry: EntryView | null; parent: { id: string; name: string } }) {
  const router = useRouter();
  const save = useCommand<{ entryId?: string }>(entry ? "vaults.changeEntry" : "vaults.addEntry");
  const [draft, setDraft] = useState<Draft>(entry ? draftOf(entry) : EMPTY);
  const [baseVersionId, setBase] = useState(entry?.reveal?.versionId ?? "");
  const [removeCode, setRemoveCode] = useState(false);
  const set = <K extends keyof Draft>(key: K, value: Draft[K]) => setDraft((now) => ({ ...now, [key]: value }));
  const wrong = (field: string) => save.wrong(`values.${field}`);
  const back = entry ? `/entry/${entry.id}` : `/vaults/${parent.id}`;
  const overtaken = save.refused?.code === "conflict" && save.refused.data?.theirs ? save.refused : null;

  const submit = async (base = baseVersionId) => {
    const values = valuesOf(draft, entry !== null, removeCode);
    const answer = await save.run(
      entry ? { entryId: entry.id, baseVersionId: base, values } : { parentId: parent.id, values },
    );
    if (answer.ok) router.push(entry ? back : `/entry/${answer.result.entryId}`);
  };
  return (
    <Sheet>
      <h1>{entry ? `Change ${entry.name}` : `A new website login in ${parent.name}`}</h1>
      <Form
        verb={entry ? "Save" : "Add"}
        onSend={() => submit()}
        running={save.running}
        onCancel={() => router.push(back)}
        wrong={overtaken || save.refused?.field?.startsWith("values.") ? null : save.refused?.message}
      >
        {overtaken && (
          <Overtaken
            refused={overtaken}
            draft={draft}
            running={save.running}
            onKeepMine={() => {
              const base = String(overtaken.data!.versionId);
              setBase(base);
              void submit(base);
            }}
            onTake={(key, value) => set(key as "name", value)}
          />
        )}
        <TextField
          label="Name"
          value={draft.name}
          onText={(text) => set("name", text)}
          wrong={wrong("name")}
          autoFocus
          required
        />
        <TextField
          label="What it is for"
          value={draft.description}
          onText={(text) => set("description", text)}
          wrong={wrong("description")}
          hint="tells two similar logins apart: “box office, season desk”"
        />
        <TextField
          label="Sign-in page"
          className="mono"
          value={draft.signInPage}
          onText={(text) => set("signInPage", text)}
          wrong={wrong("signInPage")}
          hint="the very address where one signs in, not the home page"
          inputMode="url"
          autoCapitalize="none"
          spellCheck={false}
          required
        />
        <ChoiceField
          label="Offered at"
          value={draft.reach}
          onText={(text) => set("reach", text as Draft["reach"])}
          hint="where Lanyard offers it"
        >
          <option value="site">the whole site, with its sub-domains</option>
          <option value="host">this host only</option>
        </ChoiceField>
        <TextField
          label="User name"
          className="mono"
          value={draft.userName}
          onText={(text) => set("userName", text)}
          wrong={wrong("userName")}
          autoComplete="off"
          spellCheck={false}
        />
        <CheckField
          checked={draft.useSeesUserName}
          onTick={(ticked) => set("useSeesUserName", ticked)}
          label="People with Use may see the user name"
        />
        <TextField
          label="Password"
          className="mono"
          type="password"
          value={draft.password}
          onText={(text) => set("password", text)}
          wrong={wrong("password")}
          autoComplete="new-password"
          hint={entry?.reveal?.hasPassword ? "left empty: stays as it is" : undefined}
        />
        <TextField
          label="One-time code"
          className="mono"
          value={draft.code}
          onText={(text) => set("code", text)}
          wrong={wrong("code")}
          autoComplete="off"
          spellCheck={false}
          hint={
            entry?.hasCode ? "left empty: stays as it is" : "the secret the site shows, or a pasted otpauth address"
          }
          disabled={removeCode}
        />
        <Row>
          <QrReader onRead={(text) => set("code", text)} />
          {entry?.hasCode && (
            <CheckField checked={removeCode} onTick={setRemoveCode} label="Take the one-time code away" />
          )}
        </Row>
        <TextArea
          label="Notes"
          value={draft.notes}
          onText={(text) => set("notes", text)}
          wrong={wrong("notes")}
          hint="whoever can use the entry can read them"
          rows={4}
        />
        <TextField
          label="Tags"
          value={draft.tags}
          onText={(text) => set("tags", text)}
          wrong={wrong("tags")}
          hint="separated by commas"
        />
        <Extras extras={draft.extras} set={(extras) => set("extras", extras)} wrong={wrong("extras")} />
      </Form>
    </Sheet>
  );
}

function valuesOf(draft: Draft, existing: boolean, removeCode: boolean) {
  const kept = (text: string) => (existing && text === "" ? undefined : text);
  return {
    name: draft.name,
    description: draft.description,
    signInPage: draft.signInPage,
    reach: draft.reach,
    userName: draft.userName,
    notes: draft.notes,
    useSeesUserName: draft.useSeesUserName,
    password: kept(draft.password),
    code: removeCode ? "" : draft.code.trim() === "" ? undefined : draft.code,
    tags: draft.tags
      .split(",")
      .map((tag) => tag.trim())
      .filter(Boolean),
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
    <fieldset>
      <legend style={{ fontWeight: 650, marginBottom: 8 }}>Extra fields</legend>
      <Stack>
        {extras.map((extra) => (
          <Extra key={extra.id}>
            <TextField label="Name" value={extra.label} onText={(text) => change(extra.id, { label: text })} />
            <ChoiceField
              label="Seen from"
              value={extra.class}
              onText={(text) => change(extra.id, { class: text as ExtraDraft["class"], kept: false })}
            >
              <option value="open">Use</option>
              <option value="identifier">Reveal</option>
              <option value="secret">Reveal, hidden</option>
            </ChoiceField>
            <TextField
              label="Value"
              type={extra.class === "secret" ? "password" : "text"}
              autoComplete="off"
              value={extra.value}
              onText={(text) => change(extra.id, { value: text })}
              hint={extra.kept ? "left empty: stays as it is" : undefined}
            />
            <Act
              onPress={() => set(extras.filter((one) => one.id !== extra.id))}
              aria-label={`Remove ${extra.label || "field"}`}
            >
              Remove
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
            Add a field
          </Button>
        </div>
      </Stack>
    </fieldset>
  );
}

const LABELS: Record<string, string> = {
  name: "Name",
  description: "What it is for",
  signInPage: "Sign-in page",
  userName: "User name",
  notes: "Notes",
};

/** Somebody saved in between: both stand side by side, and neither is lost. */
function Overtaken({
  refused,
  draft,
  running,
  onKeepMine,
  onTake,
}: {
  refused: Refusal;
  draft: Draft;
  running: boolean;
  onKeepMine: () => void;
  onTake: (key: string, value: string) => void;
}) {
  const theirs = refused.data!.theirs as Record<string, unknown>;
  const differing = Object.keys(LABELS).filter(
    (key) => String(theirs[key] ?? "") !== String(draft[key as keyof Draft] ?? ""),
  );
  return (
    <Notice role="alert">
      <b>{refused.message}</b>
      <p>Nothing of yours is lost. Take over what you want of theirs, then save.</p>
      {differing.length > 0 && (
        <Versus>
          <thead>
            <tr>
              <th>
                <span className="unseen">Field</span>
              </th>
              <th>Theirs</th>
              <th>Yours</th>
            </tr>
          </thead>
          <tbody>
            {differing.map((key) => (
              <tr key={key}>
                <th scope="row">{LABELS[key]}</th>
                <td>
                  {String(theirs[key] ?? "")}
                  <br />
                  <Act
                    onPress={() => onTake(key, String(theirs[key] ?? ""))}
                    aria-label={`Take theirs: ${LABELS[key]}`}
                  >
                    Take theirs
                  </Act>
                </td>
                <td>{String(draft[key as keyof Draft] ?? "")}</td>
              </tr>
            ))}
          </tbody>
        </Versus>
      )}
      {Boolean(refused.data!.passwordChanged) && (
        <p>
          They also changed the password.{" "}
          {draft.password === ""
            ? "You left it as it is: theirs stays."
            : "Saving puts yours in its place; theirs stays among the earlier versions."}
        </p>
      )}
      {Boolean(refused.data!.codeChanged) && <p>They also changed the one-time code.</p>}
      <Row style={{ marginTop: 8 }}>
        <Button isDisabled={running} onPress={onKeepMine}>
          Save what stands below
        </Button>
      </Row>
    </Notice>
  );
}
