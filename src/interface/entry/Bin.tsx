"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { BIN_DAYS, binDaysLeft } from "@/core/binDays";
import type { Place } from "@/server/vaults/places";
import { runQuery, useCommand } from "../shared/ask";
import { Button, ChoiceField, Notice, Row, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { bin as t } from "./strings";
import type { EntryView } from "./types";

export const sayDaysLeft = (binnedAt: number, now: number): string => {
  const left = binDaysLeft(binnedAt, now);
  return left === 0 ? t.willBeDeletedForGoodToday : t.willBeDeletedForGoodIn(left);
};

/** To where it was; where that is in the bin too, to a place that one says. */
export function Restore({ entry }: { entry: EntryView }) {
  const restore = useCommand("vaults.restoreEntry");
  const [places, setPlaces] = useState<Place[] | null>(null);
  const [parentId, setParentId] = useState("");
  const send = async () => {
    const answer = await restore.run({ entryIds: [entry.id], ...(parentId && { parentId }) });
    if (answer.ok || !answer.refused.data?.placeGone) return;
    const found = await runQuery("vaults.vaultPlaces", { vaultId: entry.vault.id });
    setPlaces(found.ok ? found.result : []);
  };
  return (
    <>
      {places && (
        <ChoiceField label={t.restoreItTo} value={parentId} onText={setParentId}>
          <option value="">{t.chooseAPlace}</option>
          {places.map((place) => (
            <option key={place.id} value={place.id}>
              {place.name}
            </option>
          ))}
        </ChoiceField>
      )}
      <Button onPress={send} isDisabled={restore.running || (places !== null && parentId === "")}>
        {t.restore}
      </Button>
      {restore.refused && (
        <span role="alert" style={{ flexBasis: "100%" }}>
          {restore.refused.message}
        </span>
      )}
    </>
  );
}

export function Erase({ entry }: { entry: EntryView }) {
  const router = useRouter();
  const erase = useCommand("vaults.eraseEntry");
  const [asking, setAsking] = useState(false);
  const [name, setName] = useState("");
  return (
    <>
      <Button look="harm" onPress={() => setAsking(true)}>
        {t.deleteForGood}
      </Button>
      <Dialog title={t.deleteForGood2(entry.name)} open={asking} onClose={() => setAsking(false)}>
        <Form
          verb={t.deleteForGood}
          look="harm"
          onSend={async () => {
            if ((await erase.run({ entryIds: [entry.id] })).ok) router.push(`/vaults/${entry.vault.id}`);
          }}
          running={erase.running}
          unready={name.trim() !== entry.name}
          onCancel={() => setAsking(false)}
          wrong={erase.refused?.message}
        >
          <p>{t.whatIsDeleted(entry.versions?.length ?? 1, entry.attachments.length)}</p>
          <TextField label={t.typeItsNameToConfirm(entry.name)} value={name} onText={setName} autoComplete="off" />
        </Form>
      </Dialog>
    </>
  );
}

export function BinDialog({ entry, open, onClose }: { entry: EntryView; open: boolean; onClose: () => void }) {
  const router = useRouter();
  const done = useDone();
  const bin = useCommand("vaults.binEntry");
  return (
    <Dialog title={t.putInTheBin(entry.name)} open={open} onClose={onClose}>
      <p>
        {t.nobodyCanUntilOneOfItsStewards(
          entry.signInPage === "" ? t.seeIt : t.signInWithItOrSeeIt,
          BIN_DAYS,
          entry.signInPage !== "" && t.openSessionsAtTheSiteStayOpen,
        )}
      </p>
      {bin.refused && (
        <Notice data-tone="bad" role="alert" style={{ marginTop: 12 }}>
          {bin.refused.message}
        </Notice>
      )}
      <Row style={{ marginTop: 16 }}>
        <Button
          look="harm"
          isDisabled={bin.running}
          onPress={async () => {
            if ((await bin.run({ entryIds: [entry.id] })).ok) {
              done(t.isInTheBin(entry.name), [{ command: "vaults.restoreEntry", input: { entryIds: [entry.id] } }]);
              onClose();
              router.push(`/vaults/${entry.vault.id}`);
            }
          }}
        >
          {t.putInTheBin2}
        </Button>
        <Button onPress={onClose}>{t.cancel}</Button>
      </Row>
    </Dialog>
  );
}
