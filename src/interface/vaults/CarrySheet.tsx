"use client";

import { useEffect, useState } from "react";
import type { MoveEffect } from "@/server/vaults/moving";
import type { Place } from "@/server/vaults/places";
import type { VaultLine } from "@/server/vaults/vaults";
import { OntoSlip } from "../access/OntoSlip";
import { runCommand, runQuery } from "../shared/ask";
import { ChoiceField, Notice } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { type Step, useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { Effects } from "./Effects";
import { carrySheet as t } from "./strings";

interface Preview {
  may: boolean;
  changes: boolean;
  effects: MoveEffect[];
  grantsDropped: number | null;
}

interface CarrySheetProps {
  how: "move" | "copy";
  nodes: { id: string; name: string }[];
  vaultId: string;
  /** A place that was chosen already, in the same vault. */
  to?: string | undefined;
  onClose: () => void;
  onDone?: () => void;
}

/** Where to, and what it would do to whom, before it is done. To another vault all of it is sealed anew. */
export function CarrySheet({ how, nodes, vaultId, to, onClose, onDone }: CarrySheetProps) {
  const done = useDone();
  const [vaults, setVaults] = useState<VaultLine[]>([]);
  const [toVault, setToVault] = useState(vaultId);
  const [places, setPlaces] = useState<Place[] | null>(null);
  const [parentId, setParentId] = useState(to ?? "");
  const [running, setRunning] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  const nodeIds = nodes.map((node) => node.id);
  const within = how === "move" && toVault === vaultId;
  const { preview, wrong } = usePreview(nodeIds, parentId, within ? "within" : how);
  useEffect(() => {
    void runQuery("vaults.vaultList", {}).then((answer) => setVaults(answer.ok ? answer.result : []));
  }, []);
  useEffect(() => {
    setPlaces(null);
    setParentId(toVault === vaultId ? (to ?? "") : "");
    void runQuery("vaults.vaultPlaces", { vaultId: toVault }).then((answer) =>
      setPlaces(answer.ok ? answer.result : []),
    );
  }, [toVault, vaultId, to]);
  const what = nodes.length === 1 ? nodes[0]!.name : t.entriesAndFolders(nodes.length);
  const send = async () => {
    setRunning(true);
    const [said, undo] = await carry(within ? "within" : how, nodeIds, parentId, what);
    setRunning(false);
    if (undo === null) return setRefused(said);
    done(said, undo);
    onDone?.();
    onClose();
  };
  return (
    <Dialog title={how === "move" ? t.moveWhat(what) : t.duplicateWhat(what)} open onClose={onClose}>
      <Form
        verb={how === "move" ? t.move : t.duplicate}
        onSend={send}
        running={running}
        unready={!preview?.may}
        onCancel={onClose}
        wrong={refused ?? wrong}
        acts={
          within && (
            <OntoSlip
              changes={parentId === "" ? [] : nodeIds.map((nodeId) => ({ type: "move", nodeId, parentId }))}
              onWrong={setRefused}
              onDone={onClose}
            />
          )
        }
      >
        {vaults.length > 1 && (
          <ChoiceField label={t.vault} value={toVault} onText={setToVault}>
            {vaults.map((vault) => (
              <option key={vault.id} value={vault.id}>
                {vault.name}
              </option>
            ))}
          </ChoiceField>
        )}
        {places?.length === 0 ? (
          <p>{t.thereIsNoPlaceInThisVault}</p>
        ) : (
          <ChoiceField label={t.to} value={parentId} onText={setParentId}>
            <option value="">{t.chooseAPlace}</option>
            {places
              ?.filter((place) => !nodeIds.includes(place.id))
              .map((place) => (
                <option key={place.id} value={place.id}>
                  {place.name}
                </option>
              ))}
          </ChoiceField>
        )}
        {preview && <WhatItDoes preview={preview} how={how} />}
      </Form>
    </Dialog>
  );
}

type How = "within" | "move" | "copy";

function usePreview(nodeIds: readonly string[], parentId: string, how: How) {
  const [preview, setPreview] = useState<Preview | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const known = nodeIds.join();
  useEffect(() => {
    setPreview(null);
    setWrong(null);
    if (parentId === "") return;
    let current = true;
    const input = { nodeIds: known.split(","), parentId };
    const asked =
      how === "within" ? runQuery("vaults.movePreview", input) : runQuery("vaults.carryPreview", { ...input, how });
    void asked.then((answer) => {
      if (!current) return;
      if (answer.ok) setPreview(complete(answer.result));
      else setWrong(answer.refused.message);
    });
    return () => {
      current = false;
    };
  }, [known, parentId, how]);
  return { preview, wrong };
}

/** A move within the vault drops nothing; what may not be carried elsewhere is refused and has no preview. */
const complete = (read: Partial<Preview> & Pick<Preview, "changes" | "effects">): Preview => ({
  may: read.may ?? true,
  changes: read.changes,
  effects: read.effects,
  grantsDropped: read.grantsDropped ?? null,
});

/** What it says when done, and how it is taken back; null where it was refused. */
async function carry(how: How, nodeIds: string[], parentId: string, what: string): Promise<[string, Step[] | null]> {
  const input = { nodeIds, parentId };
  if (how === "within") {
    const answer = await runCommand("vaults.moveNodes", input);
    if (!answer.ok) return [answer.refused.message, null];
    return [t.moved(what), answer.result.back.map((one) => ({ command: "vaults.moveNodes", input: one }))];
  }
  if (how === "move") {
    const answer = await runCommand("vaults.moveAcross", input);
    return answer.ok ? [t.moved(what), []] : [answer.refused.message, null];
  }
  const answer = await runCommand("vaults.duplicateNodes", input);
  if (!answer.ok) return [answer.refused.message, null];
  const entryIds = answer.result.made.map((one) => one.entryId);
  return [t.duplicated(what), entryIds.length > 0 ? [{ command: "vaults.binEntry", input: { entryIds } }] : []];
}

function WhatItDoes({ preview, how }: { preview: Preview; how: "move" | "copy" }) {
  const { effects, grantsDropped } = preview;
  const none = how === "move" ? t.nobodysAccessChanges : t.theDuplicateGivesNobodyNew;
  if (!preview.may) return <Notice data-tone="bad">{t.thisWouldChangeWhoHasAccessTo}</Notice>;
  return (
    <>
      {grantsDropped ? (
        <p>
          {t.grantsOnIt(grantsDropped)} {how === "move" ? t.willEndGrantsDoNotMoveTo : t.willNotBeDuplicated}
        </p>
      ) : null}
      <Effects effects={effects} none={none} about={how === "copy" ? t.ofTheDuplicate : ""} />
    </>
  );
}
