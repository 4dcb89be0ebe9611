"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { LedgerRow } from "@/server/vaults/vaults";
import { useCommand } from "../shared/ask";
import { Button, Row, TextArea, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { PictureSheet } from "../shared/PictureSheet";
import { TakeOutSheet } from "../takeOut/TakeOutSheet";
import { KeySheet } from "./KeySheet";
import type { LedgerOf } from "./Ledger";
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
  const [sheet, setSheet] = useState<"delete" | "out" | "picture" | "takers" | "note" | "key" | null>(null);
  if (sheet === "out") return <TakeOutSheet nodes={[vault]} onClose={onClose} />;
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
        input={{ vaultId: vault.id }}
        onClose={onClose}
      />
    );
  return (
    <Dialog title={`Change ${vault.name}`} open onClose={onClose}>
      <Form
        verb="Save"
        onSend={async () => {
          if ((await change.run({ vaultId: vault.id, name, description })).ok) onClose();
        }}
        running={change.running}
        onCancel={onClose}
        wrong={change.wrong() ?? aside.refused?.message}
      >
        <TextField label="Name" value={name} onText={setName} wrong={change.wrong("name")} />
        <TextField
          label="What it holds"
          value={description}
          onText={setDescription}
          wrong={change.wrong("description")}
        />
      </Form>
      <Row style={{ marginTop: 20, paddingTop: 16, borderTop: "1px solid var(--rule)" }}>
        {vault.asideAt === null && (
          <Button
            isDisabled={aside.running}
            onPress={async () => {
              if (!(await aside.run({ vaultId: vault.id, aside: true })).ok) return;
              done(`${vault.name} is set aside.`, [
                { command: "vaults.setVaultAside", input: { vaultId: vault.id, aside: false } },
              ]);
              onClose();
            }}
          >
            Set the vault aside
          </Button>
        )}
        <Button onPress={() => setSheet("picture")}>Picture</Button>
        <Button onPress={() => setSheet("out")}>Take the vault out</Button>
        <Button onPress={() => setSheet("note")}>House note</Button>
        <Button onPress={() => setSheet("takers")}>Who takes out</Button>
        <Button onPress={() => setSheet("key")}>Encryption key</Button>
        <Button look="harm" onPress={() => setSheet("delete")}>
          Delete the vault
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
    <Dialog title={`House note of ${vault.name}`} open onClose={onClose}>
      <Form
        verb="Save"
        onSend={async () => {
          if ((await save.run({ vaultId: vault.id, note })).ok) onClose();
        }}
        running={save.running}
        onCancel={onClose}
        wrong={save.wrong()}
      >
        <p>
          Where the house rules let people accept what they are given, they read and confirm this note first; after a
          change of it, once more.
        </p>
        <TextArea
          label="What they confirm"
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
    <Dialog title={`Delete ${vault.name}`} open onClose={onClose}>
      <Form
        verb="Delete for good"
        look="harm"
        onSend={async () => {
          if ((await remove.run({ vaultId: vault.id, name })).ok) router.push("/vaults");
        }}
        running={remove.running}
        unready={name.trim() !== vault.name}
        onCancel={onClose}
        wrong={remove.wrong()}
      >
        <p>
          {entries.toLocaleString("en-GB")} {entries === 1 ? "entry" : "entries"}
          {rows.length > entries && ` in ${rows.length - entries} folders`}
          {binned > 0 && ` and ${binned} more in its bin`} go for good, with their earlier versions and attachments.
          There is no bin for a vault, and nobody can bring it back.
        </p>
        <TextField
          label={`Write its name, ${vault.name}`}
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
