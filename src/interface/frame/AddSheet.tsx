"use client";

import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { atLeast } from "@/core/access";
import type { VaultLine } from "@/server/vaults/vaults";
import { runQuery } from "../shared/ask";
import { Dialog } from "../shared/Dialog";
import { Picker } from "../shared/Picker";
import { addSheet as t } from "./strings";

/** Which vault a new entry goes to; with only one there is nothing to choose. */
export default function AddSheet({ onClose }: { onClose: () => void }) {
  const router = useRouter();
  const [vaults, setVaults] = useState<VaultLine[] | null>(null);
  useEffect(() => {
    void runQuery("vaults.vaultList", {}).then((answer) => {
      const open = answer.ok ? answer.result.filter((one) => atLeast(one.level, "edit")) : [];
      if (open.length === 1) {
        onClose();
        router.push(`/vaults/${open[0]!.id}/new`);
      } else setVaults(open);
    });
  }, [onClose, router]);
  if (vaults === null) return null;
  return (
    <Dialog title={t.addAnEntry} open onClose={onClose}>
      {vaults.length === 0 ? (
        <p>{t.thereIsNoVault}</p>
      ) : (
        <Picker
          label={t.vault}
          placeholder={t.aFewLettersOfItsName}
          list={t.vaults}
          nothing={t.noVaultMatches}
          load={async () => vaults.map((one) => ({ ...one, note: "" }))}
          all
          onPick={(vault) => {
            onClose();
            router.push(`/vaults/${vault.id}/new`);
          }}
        />
      )}
    </Dialog>
  );
}
