"use client";

import { useEffect, useMemo, useState } from "react";
import type { TakenEntry } from "@/core/formats/taken";
import { CARRIES } from "@/core/formats/takenCsv";
import type { Kind } from "@/core/kinds/kind";
import { runCommand, runQuery } from "../shared/ask";
import { Button, ChoiceField, Notice, Row, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { fileName, save } from "../shared/save";
import { useProving } from "../shared/useProving";
import { workerCall } from "../shared/workerCall";
import type { TakenFile, TakeOutAsk } from "./takeOut.worker";

type Format = TakenFile["format"];
type Lock = "none" | "passphrase" | "recipients";

interface Taken {
  takingId: string;
  parts: number;
  entries: number;
  leftOut: string[];
  attachments: number;
  kinds: Kind[];
  by: { name: string; mail: string };
}

const ENDINGS: Record<Format, string> = { exchange: "json", csv: "csv", page: "html" };

interface TakeOutProps {
  nodes: { id: string; name: string }[];
  onClose: () => void;
}

/** What it carries and what not, a reason, the sign-in password again; then a file on one's own disk. */
export function TakeOutSheet({ nodes, onClose }: TakeOutProps) {
  const [format, setFormat] = useState<Format>("exchange");
  const [lock, setLock] = useState<Lock>("passphrase");
  const [secret, setSecret] = useState("");
  const [why, setWhy] = useState("");
  const [running, setRunning] = useState(false);
  const [refused, setRefused] = useState<{ message: string; field?: string } | null>(null);
  const [done, setDone] = useState<Taken | null>(null);
  const { prove, sheet } = useProving();
  const worker = useMemo(
    () => workerCall<TakeOutAsk>(() => new Worker(new URL("./takeOut.worker.ts", import.meta.url), { type: "module" })),
    [],
  );
  // Closed on the way, nothing of it is kept or written any further.
  useEffect(() => () => worker.end(), [worker]);
  const what = nodes.length === 1 ? nodes[0]!.name : `${nodes.length} things`;
  const [fetched, setFetched] = useState<{ part: number; of: number } | null>(null);
  /** Gives a sentence where it did not come to a file. */
  const write = async (taken: Taken, key: TakenFile["lock"]): Promise<string | null> => {
    const house = await runQuery<{ name: string } | null>("people.organisation", {});
    const organisation = (house.ok && house.result?.name) || "";
    const at = Date.now();
    const about = {
      organisation,
      person: taken.by.name,
      mail: taken.by.mail,
      at,
      title: `${what}, ${organisation}, ${new Date(at).toLocaleDateString("en-GB")}`,
    };
    const begun = await worker.ask<null>({ ask: "begin", format, about, kinds: taken.kinds, lock: key });
    if (begun.wrong !== null) return begun.wrong;
    for (let number = 0; number < taken.parts; number++) {
      setFetched({ part: number, of: taken.parts });
      const part = await runQuery<TakenEntry[]>("vaults.takenPart", { takingId: taken.takingId, number });
      if (!part.ok) return `${part.refused.message} No file was saved.`;
      const added = await worker.ask<null>({ ask: "add", entries: part.result });
      if (added.wrong !== null) return added.wrong;
    }
    const written = await worker.ask<Blob>({ ask: "end" });
    if (written.wrong !== null) return written.wrong;
    save(written.answer, `${fileName(what)}.${ENDINGS[format]}${key === null ? "" : ".age"}`);
    return null;
  };
  const send = async () => {
    setRefused(null);
    setRunning(true);
    const key: TakenFile["lock"] =
      lock === "none"
        ? null
        : lock === "passphrase"
          ? { passphrase: secret }
          : { recipients: secret.split(/[\s,]+/).filter(Boolean) };
    // Before anything counts as taken.
    const checked = await worker.ask<null>({ ask: "check", lock: key });
    if (checked.wrong !== null) {
      setRunning(false);
      return setRefused({ message: checked.wrong });
    }
    const input = { nodeIds: nodes.map((node) => node.id), format, encrypted: lock !== "none", why };
    const answer = await prove(() => runCommand<Taken>("vaults.takeOut", input));
    if (!answer.ok) {
      setRunning(false);
      return setRefused(answer.refused.message ? answer.refused : null);
    }
    const wrong = await write(answer.result, key);
    worker.end();
    setRunning(false);
    setFetched(null);
    if (wrong !== null) return setRefused({ message: wrong });
    setDone(answer.result);
  };
  const weak = lock === "passphrase" && secret !== "" && secret.length < 12;
  return (
    <Dialog title={`Take ${what} out`} open onClose={onClose}>
      {done ? (
        <WhatWasTaken taken={done} encrypted={lock !== "none"} onClose={onClose} />
      ) : (
        <Form
          verb="Take out"
          look="harm"
          onSend={send}
          running={running}
          unready={lock !== "none" && (secret === "" || weak)}
          onCancel={onClose}
          wrong={refused?.field === "why" ? null : refused?.message}
        >
          <Notice data-tone="bad">
            <b>All of it leaves Galtry.</b> Whoever has the file has every password in it, and you count among those who
            have seen each of them. The journal says so.
          </Notice>
          <ChoiceField
            label="As"
            value={format}
            onText={(text) => setFormat(text as Format)}
            hint={`carries ${CARRIES[format].carries}. Not: ${CARRIES[format].not}`}
          >
            <option value="exchange">credential exchange JSON, for another program or another Galtry</option>
            <option value="csv">CSV, for a spreadsheet</option>
            <option value="page">a page to be printed</option>
          </ChoiceField>
          <ChoiceField label="Encrypted" value={lock} onText={(text) => setLock(text as Lock)}>
            <option value="passphrase">with age, by a passphrase</option>
            <option value="recipients">with age, to recipients</option>
            <option value="none">not: in the clear</option>
          </ChoiceField>
          {lock !== "none" && (
            <TextField
              label={lock === "passphrase" ? "Passphrase of the file" : "Recipients"}
              type={lock === "passphrase" ? "password" : "text"}
              className={lock === "recipients" ? "mono" : undefined}
              autoComplete="off"
              value={secret}
              onText={setSecret}
              hint={
                weak
                  ? "at least 12 characters"
                  : lock === "passphrase"
                    ? "it is not kept anywhere: without it nobody opens the file"
                    : "age1…, separated by spaces"
              }
            />
          )}
          <TextField
            label="What for"
            value={why}
            onText={setWhy}
            wrong={refused?.field === "why" ? refused.message : null}
            hint="stands in the journal"
          />
          {fetched && (
            <p role="status" className="small soft">
              Part {fetched.part + 1} of {fetched.of} is being written.
            </p>
          )}
        </Form>
      )}
      {sheet}
    </Dialog>
  );
}

function WhatWasTaken({ taken, encrypted, onClose }: { taken: Taken; encrypted: boolean; onClose: () => void }) {
  const { entries, leftOut, attachments } = taken;
  return (
    <>
      <p role="status">
        <b>
          {entries.toLocaleString("en-GB")} {entries === 1 ? "entry" : "entries"}
        </b>{" "}
        went into the file.
        {attachments > 0 && ` ${attachments.toLocaleString("en-GB")} attachments stayed here.`}
      </p>
      {leftOut.length > 0 && (
        <Notice style={{ marginTop: 12 }}>
          <b>Left out, because they ask for the sign-in password before each reveal:</b>
          <ul>
            {leftOut.map((name, at) => (
              <li key={at}>{name}</li>
            ))}
          </ul>
        </Notice>
      )}
      {!encrypted && (
        <Notice data-tone="bad" style={{ marginTop: 12 }}>
          <b>The file lies in your downloads, in the clear.</b> Delete it once it has done its work.
        </Notice>
      )}
      <Row style={{ marginTop: 16 }}>
        <Button onPress={onClose}>Close</Button>
      </Row>
    </>
  );
}
