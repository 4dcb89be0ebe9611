"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { LedgerRow } from "@/server/vaults/vaults";
import { ExportSheet } from "../export/ExportSheet";
import { useCommand } from "../shared/ask";
import { Button, Row, TextArea, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { PictureSheet } from "../shared/PictureSheet";
import { KeySheet } from "./KeySheet";
import type { LedgerOf } from "./ledgerOf";
import { vaultSheet as t } from "./strings";
import { TakersSheet } from "./TakersSheet";

interface VaultSheetProps {
  vault: LedgerOf;
  rows: LedgerRow[];
  onClose: () => void;
}

/** Renamed, described, set aside, deleted: for its stewards. */
export function VaultSheet({ vault, rows, onClose }: VaultSheetProps) {
  const change = useCommand("vaults.changeVault");
  const aside = useCommand("vaults.setVaultAside");
  const done = useDone();
  const [name, setName] = useState(vault.name);
  const [description, setDescription] = useState(vault.description);
  const [mostPeople, setMostPeople] = useState(vault.mostPeople === null ? "" : String(vault.mostPeople));
  const [sheet, setSheet] = useState<"delete" | "out" | "picture" | "takers" | "note" | "key" | null>(null);
  if (sheet === "out") return <ExportSheet nodes={[vault]} onClose={onClose} />;
  if (sheet === "delete") return <DeleteVault vault={vault} rows={rows} onClose={onClose} />;
  if (sheet === "note") return <HouseNote vault={vault} onClose={onClose} />;
  if (sheet === "key") return <KeySheet vault={vault} onClose={onClose} />;
  if (sheet === "takers") return <TakersSheet vault={vault} onClose={onClose} />;
  if (sheet === "picture")
    return (
      <PictureSheet
        name={vault.name}
        picture={vault.picture}
        own={vault.picture !== null}
        command="vaults.setVaultPicture"
        inputOf={(picture) => ({ vaultId: vault.id, picture })}
        onClose={onClose}
      />
    );
  return (
    <Dialog title={t.edit(vault.name)} open onClose={onClose}>
      <Form
        verb={t.save}
        onSend={async () => {
          if (
            (
              await change.run({
                vaultId: vault.id,
                name,
                description,
                mostPeople: mostPeople === "" ? null : Number(mostPeople),
              })
            ).ok
          )
            onClose();
        }}
        running={change.running}
        onCancel={onClose}
        wrong={change.wrong() ?? aside.refused?.message}
      >
        <TextField label={t.name} value={name} onText={setName} wrong={change.wrong("name")} />
        <TextField
          label={t.description}
          value={description}
          onText={setDescription}
          wrong={change.wrong("description")}
        />
        <TextField
          label={t.mostPeople}
          hint={t.mostPeopleHint}
          value={mostPeople}
          onText={(text) => setMostPeople(text.replace(/\D/g, "").slice(0, 6))}
          inputMode="numeric"
          wrong={change.wrong("mostPeople")}
        />
      </Form>
      <Row style={{ marginTop: 20, paddingTop: 16, borderTop: "1px solid var(--rule)" }}>
        {vault.asideAt === null && (
          <Button
            isDisabled={aside.running}
            onPress={async () => {
              if (!(await aside.run({ vaultId: vault.id, aside: true })).ok) return;
              done(t.isSetAside(vault.name), [
                { command: "vaults.setVaultAside", input: { vaultId: vault.id, aside: false } },
              ]);
              onClose();
            }}
          >
            {t.setTheVaultAside}
          </Button>
        )}
        <Button onPress={() => setSheet("picture")}>{t.picture}</Button>
        <Button onPress={() => setSheet("out")}>{t.exportTheVault}</Button>
        <Button onPress={() => setSheet("note")}>{t.houseNote}</Button>
        <Button onPress={() => setSheet("takers")}>{t.whoCanExport}</Button>
        <Button onPress={() => setSheet("key")}>{t.encryptionKey}</Button>
        <Button look="harm" onPress={() => setSheet("delete")}>
          {t.deleteTheVault}
        </Button>
      </Row>
    </Dialog>
  );
}

/** What whoever is given something here confirms first, where the house rules ask for that. */
function HouseNote({ vault, onClose }: Pick<VaultSheetProps, "vault" | "onClose">) {
  const save = useCommand("vaults.setHouseNote");
  const [note, setNote] = useState(vault.houseNote);
  return (
    <Dialog title={t.houseNoteOf(vault.name)} open onClose={onClose}>
      <Form
        verb={t.save}
        onSend={async () => {
          if ((await save.run({ vaultId: vault.id, note })).ok) onClose();
        }}
        running={save.running}
        onCancel={onClose}
        wrong={save.wrong()}
      >
        <p>{t.whereTheHouseRulesRequire}</p>
        <TextArea
          label={t.houseNote}
          value={note}
          maxLength={2000}
          rows={5}
          onText={setNote}
          wrong={save.wrong("note")}
        />
      </Form>
    </Dialog>
  );
}

function DeleteVault({ vault, rows, onClose }: VaultSheetProps) {
  const router = useRouter();
  const remove = useCommand("vaults.deleteVault");
  const [name, setName] = useState("");
  const entries = rows.filter((row) => row.type === "entry").length;
  const binned = vault.bin.filter((row) => row.type === "entry").length;
  return (
    <Dialog title={t.deleteWord(vault.name)} open onClose={onClose}>
      <Form
        verb={t.deleteForGood}
        look="harm"
        onSend={async () => {
          if ((await remove.run({ vaultId: vault.id, name })).ok) router.push("/vaults");
        }}
        running={remove.running}
        unready={name.trim() !== vault.name}
        onCancel={onClose}
        wrong={remove.wrong()}
      >
        <p>{t.whatIsDeleted(entries, rows.length - entries, binned)}</p>
        <TextField
          label={t.typeItsNameToConfirm(vault.name)}
          value={name}
          onText={setName}
          wrong={remove.wrong("name")}
          autoComplete="off"
          autoFocus
        />
      </Form>
    </Dialog>
  );
}
