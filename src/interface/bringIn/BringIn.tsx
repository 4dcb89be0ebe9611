"use client";

import { useRouter } from "next/navigation";
import { type DragEvent, useEffect, useRef, useState } from "react";
import styled from "styled-components";
import { HIDDEN, MEANINGS, type Meaning, wrongMeanings } from "@/core/formats/columns";
import { MOST_ENTRIES } from "@/core/formats/rows";
import type { Place } from "@/server/vaults/places";
import { Button, CheckField, ChoiceField, Notice, Row, Select, Stack } from "../shared/controls";
import { Form } from "../shared/Form";
import type { Opened } from "./bringIn.worker";
import { type Step, useBringIn } from "./useBringIn";

const Drop = styled.div`
  display: grid;
  justify-items: start;
  gap: 14px;
  padding: 28px 24px;
  border: 1.5px dashed var(--edge);
  background: var(--sheet);
  &[data-over="true"] { border-color: var(--copper); background: var(--pick); }
`;

const Columns = styled.table`
  width: 100%;
  border-collapse: collapse;
  border-top: 3px solid var(--ink);
  th, td { padding: 8px 14px 8px 0; border-bottom: 1px solid var(--rule); text-align: left; vertical-align: top; overflow-wrap: anywhere; }
  thead th { color: var(--soft); font-size: 13.5px; }
  td.samples { color: var(--soft); font: 13.5px/20px var(--mono); }
  td.means { width: 240px; }
  @media (max-width: 719px) {
    thead { display: none; }
    tr { display: grid; padding: 10px 0; border-bottom: 1px solid var(--rule); }
    th, td { border: 0; padding: 2px 0; }
    td.means { width: auto; }
  }
`;

interface BringInProps {
  vaultId: string;
  places: Place[];
  start: string;
}

/** A file of logins becomes entries: chosen, understood, looked over, brought in as a whole or not at all. */
export function BringIn({ vaultId, places, start }: BringInProps) {
  const router = useRouter();
  const { step, busy, wrong, open, look, bringIn, stop, again } = useBringIn();
  const [parentId, setParentId] = useState(start);
  useEffect(() => {
    if (step.step === "over") router.push(`/vaults/${vaultId}/brought-in/${step.importId}`);
  }, [step, router, vaultId]);
  return (
    <Stack style={{ maxWidth: 860 }}>
      {wrong && (
        <Notice data-tone="bad" role="alert">
          {wrong}
        </Notice>
      )}
      {busy && (
        <Notice role="status" data-tone="good">
          {busy}
        </Notice>
      )}
      {step.step === "choose" && <Choose onFile={open} busy={busy !== null} />}
      {step.step === "columns" && (
        <ColumnsStep
          file={step.file}
          opened={step.opened}
          places={places}
          parentId={parentId}
          setParentId={setParentId}
          busy={busy !== null}
          onLook={look}
          onAgain={again}
        />
      )}
      {step.step === "look" && <LookStep step={step} onGo={(leave) => bringIn(parentId, leave)} onAgain={again} />}
      {step.step === "running" && (
        <section aria-live="polite">
          <p style={{ marginBottom: 10 }}>
            <b>
              {step.done.toLocaleString("en-GB")} of {step.of.toLocaleString("en-GB")}
            </b>{" "}
            are sealed. Nobody sees any of them until all are there.
          </p>
          <progress value={step.done} max={step.of} style={{ width: "100%" }} aria-label="Brought in" />
          <Row style={{ marginTop: 12 }}>
            <Button onPress={stop} isDisabled={step.stopping}>
              Stop
            </Button>
          </Row>
        </section>
      )}
      {step.step === "over" && <p role="status">All of it is there.</p>}
    </Stack>
  );
}

function Choose({ onFile, busy }: { onFile: (file: File) => void; busy: boolean }) {
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    const file = event.dataTransfer.files[0];
    if (file) onFile(file);
  };
  return (
    <Drop
      data-over={over}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
    >
      <p>
        <b>Drop a CSV file here</b>, or choose one. Browsers and other programs write such files: look for “export”
        where they keep passwords. It is read in this browser; the file itself is sent nowhere.
      </p>
      <Button look="go" onPress={() => input.current?.click()} isDisabled={busy}>
        Choose a file
      </Button>
      <input
        ref={input}
        type="file"
        accept=".csv,.tsv,.txt,text/csv,text/plain"
        aria-label="File"
        hidden
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onFile(file);
          event.target.value = "";
        }}
      />
    </Drop>
  );
}

const SEPARATORS: Record<string, string> = { ",": "commas", ";": "semicolons", "\t": "tabs", "|": "strokes" };

interface ColumnsStepProps {
  file: string;
  opened: Opened;
  places: Place[];
  parentId: string;
  setParentId: (id: string) => void;
  busy: boolean;
  onLook: (meanings: Meaning[], keepFolders: boolean) => void;
  onAgain: () => void;
}

function ColumnsStep({ file, opened, places, parentId, setParentId, busy, onLook, onAgain }: ColumnsStepProps) {
  const [meanings, setMeanings] = useState<Meaning[]>(() => opened.columns.map((column) => column.guess));
  const [keepFolders, setKeepFolders] = useState(true);
  const refused = wrongMeanings(meanings);
  return (
    <Form
      verb="Look it over"
      onSend={() => onLook(meanings, keepFolders)}
      running={busy}
      unready={refused !== null}
      wrong={refused}
      acts={<Button onPress={onAgain}>Another file</Button>}
    >
      <p>
        <b>{file}</b>: {opened.rows.toLocaleString("en-GB")} {opened.rows === 1 ? "row" : "rows"}, {opened.encoding},
        separated by {SEPARATORS[opened.separator] ?? `“${opened.separator}”`}. What is each column?
      </p>
      <Columns>
        <thead>
          <tr>
            <th scope="col">Column</th>
            <th scope="col">Such as</th>
            <th scope="col">Becomes</th>
          </tr>
        </thead>
        <tbody>
          {opened.columns.map((column, i) => (
            <tr key={i}>
              <th scope="row">{column.name}</th>
              <td className="samples">
                {HIDDEN.has(meanings[i]!)
                  ? column.samples.length > 0 && "••••••••••••"
                  : column.samples.map((sample) => <div key={sample}>{sample}</div>)}
              </td>
              <td className="means">
                <Select
                  aria-label={`${column.name} becomes`}
                  value={meanings[i]}
                  onChange={(event) =>
                    setMeanings(meanings.map((one, at) => (at === i ? (event.target.value as Meaning) : one)))
                  }
                >
                  {MEANINGS.map(({ meaning, label }) => (
                    <option key={meaning} value={meaning}>
                      {label}
                    </option>
                  ))}
                </Select>
              </td>
            </tr>
          ))}
        </tbody>
      </Columns>
      <ChoiceField label="Where to" value={parentId} onText={setParentId}>
        {places.map((place) => (
          <option key={place.id} value={place.id}>
            {place.name}
          </option>
        ))}
      </ChoiceField>
      {meanings.includes("folder") && (
        <CheckField
          label="Keep the file’s folders"
          hint="made where they are not there yet"
          checked={keepFolders}
          onTick={setKeepFolders}
        />
      )}
    </Form>
  );
}

interface LookStepProps {
  step: Extract<Step, { step: "look" }>;
  onGo: (leave: number[]) => Promise<void>;
  onAgain: () => void;
}

function LookStep({ step: { looked, alike }, onGo, onAgain }: LookStepProps) {
  const [takeSame, setTakeSame] = useState(false);
  const [takeOther, setTakeOther] = useState(true);
  const [sent, setSent] = useState(false);
  const leave = [...(takeSame ? [] : alike.same), ...(takeOther ? [] : alike.otherPassword)];
  const count = looked.good - leave.length;
  const say = (n: number, one: string, many: string) => `${n.toLocaleString("en-GB")} ${n === 1 ? one : many}`;
  return (
    <Form
      verb={`Bring in ${say(count, "entry", "entries")}`}
      onSend={async () => {
        setSent(true);
        await onGo(leave);
        setSent(false);
      }}
      running={sent}
      unready={count === 0 || count > MOST_ENTRIES}
      wrong={
        count > MOST_ENTRIES
          ? `At most ${MOST_ENTRIES.toLocaleString("en-GB")} entries are brought in at once: cut the file in parts.`
          : null
      }
      acts={<Button onPress={onAgain}>Another file</Button>}
    >
      <p>
        {say(looked.good, "row", "rows")} can be kept
        {looked.folders > 0 && `, in ${say(looked.folders, "folder", "folders")}`}.
      </p>
      {looked.twice > 0 && <p>{say(looked.twice, "row stands", "rows stand")} in the file twice: once is enough.</p>}
      {alike.same.length > 0 && (
        <CheckField
          label={`Bring in again ${say(alike.same.length, "login that is", "logins that are")} kept already`}
          hint="same site, user name and password"
          checked={takeSame}
          onTick={setTakeSame}
        />
      )}
      {alike.otherPassword.length > 0 && (
        <CheckField
          label={`Bring in ${say(alike.otherPassword.length, "login that is", "logins that are")} kept with another password`}
          hint="as entries of their own, beside what is kept"
          checked={takeOther}
          onTick={setTakeOther}
        />
      )}
      {looked.wrongs > 0 && (
        <Notice>
          <b>{say(looked.wrongs, "row", "rows")} cannot be kept</b> and {looked.wrongs === 1 ? "stays" : "stay"} in the
          file:
          <ul>
            {looked.wrong.map(({ row, why }) => (
              <li key={row}>
                Row {row.toLocaleString("en-GB")}: {why}
              </li>
            ))}
            {looked.wrongs > looked.wrong.length && (
              <li>and {(looked.wrongs - looked.wrong.length).toLocaleString("en-GB")} more</li>
            )}
          </ul>
        </Notice>
      )}
      <p className="small soft">It comes in whole or not at all, and can be undone for a day.</p>
    </Form>
  );
}
