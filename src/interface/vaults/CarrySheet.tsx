"use client";

import { useEffect, useState } from "react";
import type { MoveEffect } from "@/server/vaults/moving";
import type { Place } from "@/server/vaults/places";
import type { VaultLine } from "@/server/vaults/vaults";
import { OntoSlip } from "../access/OntoSlip";
import { runQuery } from "../shared/ask";
import { ChoiceField, Notice } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { Effects } from "./Effects";
import { carrySheet as t } from "./strings";
import { useInPieces } from "./useInPieces";

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
  const { running, refused, inPieces, stop } = useInPieces();
  const [notOnSlip, setNotOnSlip] = useState<string | null>(null);
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
  const input = (some: string[]) => ({ nodeIds: some, parentId });
  const what = nodes.length === 1 ? nodes[0]!.name : t.entriesAndFolders(nodes.length);
  const send = async () => {
    const undo = within
      ? await inPieces(nodeIds, AT_ONCE, "vaults.moveNodes", input, (_ids, { back }) =>
          back.map((one) => ({ command: "vaults.moveNodes", input: one })),
        )
      : how === "move"
        ? await inPieces(nodeIds, AT_ONCE, "vaults.moveAcross", input, () => null)
        : await inPieces(nodeIds, AT_ONCE, "vaults.duplicateNodes", input, (_ids, { made }) =>
            made.length > 0
              ? { command: "vaults.binEntry", input: { entryIds: made.map((one) => one.entryId) } }
              : null,
          );
    if (undo === null) return;
    done(how === "move" ? t.moved(what) : t.duplicated(what), undo);
    onDone?.();
    onClose();
  };
  return (
    <Dialog title={how === "move" ? t.moveWhat(what) : t.duplicateWhat(what)} open onClose={onClose}>
      <Form
        verb={how === "move" ? t.move : t.duplicate}
        onSend={send}
        running={running !== null}
        unready={!preview?.may}
        onCancel={running ? stop : onClose}
        wrong={refused ?? notOnSlip ?? wrong}
        acts={
          within && (
            <OntoSlip
              changes={parentId === "" ? [] : nodeIds.map((nodeId) => ({ type: "move", nodeId, parentId }))}
              onWrong={setNotOnSlip}
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
        {running && (
          <p role="status">{t.doneOf(running.done.toLocaleString("en-GB"), running.of.toLocaleString("en-GB"))}</p>
        )}
      </Form>
    </Dialog>
  );
}

/** Several pieces where more is chosen than one act takes. */
const AT_ONCE = 500;

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
    const ids = known.split(",");
    void (async () => {
      let whole: Preview | null = null;
      for (let at = 0; at < ids.length; at += AT_ONCE) {
        const input = { nodeIds: ids.slice(at, at + AT_ONCE), parentId };
        const answer = await (how === "within"
          ? runQuery("vaults.movePreview", input)
          : runQuery("vaults.carryPreview", { ...input, how }));
        if (!current) return;
        if (!answer.ok) return setWrong(answer.refused.message);
        whole = together(whole, complete(answer.result));
      }
      setPreview(whole);
    })();
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

const together = (a: Preview | null, b: Preview): Preview =>
  a === null
    ? b
    : {
        may: a.may && b.may,
        changes: a.changes || b.changes,
        effects: [...a.effects, ...b.effects],
        grantsDropped: a.grantsDropped === null ? b.grantsDropped : a.grantsDropped + (b.grantsDropped ?? 0),
      };

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
