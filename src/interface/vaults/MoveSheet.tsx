"use client";

import { useEffect, useState } from "react";
import { levelWord } from "@/core/access/level";
import type { MoveEffect } from "@/server/vaults/moving";
import type { Place } from "@/server/vaults/places";
import { runQuery, useCommand } from "../shared/ask";
import { ChoiceField, Notice } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";

interface Preview {
  may: boolean;
  changes: boolean;
  effects: MoveEffect[];
}

interface MoveSheetProps {
  nodes: { id: string; name: string }[];
  vaultId: string;
  onClose: () => void;
}

/** Where to, and what it would do to whom, before it is done. */
export function MoveSheet({ nodes, vaultId, onClose }: MoveSheetProps) {
  const move = useCommand("vaults.move");
  const [places, setPlaces] = useState<Place[] | null>(null);
  const [parentId, setParentId] = useState("");
  const [preview, setPreview] = useState<Preview | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const nodeIds = nodes.map((node) => node.id);
  const known = nodeIds.join();
  useEffect(() => {
    void runQuery<Place[]>("vaults.places", { vaultId }).then((answer) => {
      if (answer.ok) setPlaces(answer.result);
      else setRefused(answer.refused.message);
    });
  }, [vaultId]);
  useEffect(() => {
    setPreview(null);
    setRefused(null);
    if (parentId === "") return;
    let current = true;
    void runQuery<Preview>("vaults.movePreview", { nodeIds: known.split(","), parentId }).then((answer) => {
      if (!current) return;
      if (answer.ok) setPreview(answer.result);
      else setRefused(answer.refused.message);
    });
    return () => {
      current = false;
    };
  }, [parentId, known]);
  const what = nodes.length === 1 ? nodes[0]!.name : `${nodes.length} things`;
  return (
    <Dialog title={`Move ${what}`} open onClose={onClose}>
      <Form
        verb="Move"
        onSend={async () => {
          if ((await move.run({ nodeIds, parentId })).ok) onClose();
        }}
        running={move.running}
        unready={!preview?.may}
        onCancel={onClose}
        wrong={refused ?? move.refused?.message}
      >
        <ChoiceField label="To" value={parentId} onText={setParentId}>
          <option value="">choose a place</option>
          {places
            ?.filter((place) => !nodeIds.includes(place.id))
            .map((place) => (
              <option key={place.id} value={place.id}>
                {place.name}
              </option>
            ))}
        </ChoiceField>
        {preview && <WhatItDoes preview={preview} />}
      </Form>
    </Dialog>
  );
}

const MOST_NAMED = 12;

function WhatItDoes({ preview }: { preview: Preview }) {
  if (!preview.changes) return <p>Nobody’s access changes.</p>;
  if (!preview.may)
    return <Notice data-tone="bad">This would change who can do what with it: only its steward can do that.</Notice>;
  const { effects } = preview;
  const people = new Set(effects.map((one) => one.personId)).size;
  return (
    <Notice role="status">
      <b>{people === 1 ? "It changes what one person may do:" : `It changes what ${people} people may do:`}</b>
      <ul>
        {effects.slice(0, MOST_NAMED).map((one) => (
          <li key={`${one.personId} ${one.node}`}>
            {one.name}: {levelWord(one.before)} becomes {levelWord(one.after)} on {one.node}
          </li>
        ))}
        {effects.length > MOST_NAMED && <li>and {effects.length - MOST_NAMED} more</li>}
      </ul>
    </Notice>
  );
}
