"use client";

import { useEffect, useMemo, useState } from "react";
import { CARRIES } from "@/core/formats/takenCsv";
import type { Kind } from "@/core/kinds/kind";
import { runCommand, runQuery } from "../shared/ask";
import { Button, ChoiceField, Notice, Row, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { fileName, save } from "../shared/save";
import { workerCall } from "../shared/workerCall";
import type { TakenFile, TakeOutAsk } from "./export.worker";
import { exportSheet as t } from "./strings";

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
export function ExportSheet({ nodes, onClose }: TakeOutProps) {
  const [format, setFormat] = useState<Format>("exchange");
  const [lock, setLock] = useState<Lock>("passphrase");
  const [secret, setSecret] = useState("");
  const [why, setWhy] = useState("");
  const [running, setRunning] = useState(false);
  const [refused, setRefused] = useState<{ message: string; field?: string } | null>(null);
  const [done, setDone] = useState<Taken | null>(null);
  const worker = useMemo(
    () => workerCall<TakeOutAsk>(() => new Worker(new URL("./export.worker.ts", import.meta.url), { type: "module" })),
    [],
  );
  // Closed on the way, nothing of it is kept or written any further.
  useEffect(() => () => worker.end(), [worker]);
  const what = nodes.length === 1 ? nodes[0]!.name : t.entriesAndFolders(nodes.length);
  const [fetched, setFetched] = useState<{ part: number; of: number } | null>(null);
  /** Gives a sentence where it did not come to a file. */
  const write = async (taken: Taken, key: TakenFile["lock"]): Promise<string | null> => {
    const app = await runQuery("people.organisationQuery", {});
    const organisation = (app.ok && app.result?.name) || "";
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
      const part = await runQuery("vaults.exportPart", { takingId: taken.takingId, number });
      if (!part.ok) return t.noFileWasSaved(part.refused.message);
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
    const answer = await runCommand("vaults.exportEntries", input);
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
    <Dialog title={t.exportWord(what)} open onClose={onClose}>
      {done ? (
        <WhatWasTaken taken={done} encrypted={lock !== "none"} onClose={onClose} />
      ) : (
        <Form
          verb={t.exportWord2}
          look="harm"
          onSend={send}
          running={running}
          unready={lock !== "none" && (secret === "" || weak)}
          onCancel={onClose}
          wrong={refused?.field === "why" ? null : refused?.message}
        >
          <Notice data-tone="bad">{t.anyoneWithTheFileHasEvery(<b>{t.theValuesLeaveGaltry}</b>)}</Notice>
          <ChoiceField
            label={t.format}
            value={format}
            onText={(text) => setFormat(text as Format)}
            hint={t.containsNotIncluded(CARRIES[format].carries, CARRIES[format].not)}
          >
            <option value="exchange">{t.credentialExchangeJsonFor}</option>
            <option value="csv">{t.csvForASpreadsheet}</option>
            <option value="page">{t.aPageToBePrinted}</option>
          </ChoiceField>
          <ChoiceField label={t.encrypted} value={lock} onText={(text) => setLock(text as Lock)}>
            <option value="passphrase">{t.withAgeUsingAPassphrase}</option>
            <option value="recipients">{t.withAgeToRecipients}</option>
            <option value="none">{t.noUnencrypted}</option>
          </ChoiceField>
          {lock !== "none" && (
            <TextField
              label={lock === "passphrase" ? t.passphraseOfTheFile : t.recipients}
              type={lock === "passphrase" ? "password" : "text"}
              className={lock === "recipients" ? "mono" : undefined}
              autoComplete="off"
              value={secret}
              onText={setSecret}
              hint={
                weak
                  ? t.atLeast12Characters
                  : lock === "passphrase"
                    ? t.galtryDoesNotStoreItWithoutIt
                    : t.age1SeparatedBySpaces
              }
            />
          )}
          <TextField
            label={t.reason}
            value={why}
            onText={setWhy}
            wrong={refused?.field === "why" ? refused.message : null}
            hint={t.writtenInTheJournal}
          />
          {fetched && (
            <p role="status" className="small soft">
              {t.writingPartOf(fetched.part + 1, fetched.of)}
            </p>
          )}
        </Form>
      )}
    </Dialog>
  );
}

function WhatWasTaken({ taken, encrypted, onClose }: { taken: Taken; encrypted: boolean; onClose: () => void }) {
  const { entries, leftOut, attachments } = taken;
  return (
    <>
      <p role="status">{t.exported(<b>{t.entries(entries)}</b>, attachments > 0 && t.attachmentsLeft(attachments))}</p>
      {leftOut.length > 0 && (
        <Notice style={{ marginTop: 12 }}>
          <b>{t.leftOutBecauseTheyRequireThe}</b>
          <ul>
            {leftOut.map((name, at) => (
              <li key={at}>{name}</li>
            ))}
          </ul>
        </Notice>
      )}
      {!encrypted && (
        <Notice data-tone="bad" style={{ marginTop: 12 }}>
          {t.deleteItWhenYouNoLongerNeed(<b>{t.theFileIsInYourDownloads}</b>)}
        </Notice>
      )}
      <Row style={{ marginTop: 16 }}>
        <Button onPress={onClose}>{t.close}</Button>
      </Row>
    </>
  );
}
