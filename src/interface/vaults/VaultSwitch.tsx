"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { runQuery } from "../shared/ask";
import { Button } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Picker } from "../shared/Picker";
import { vaultSwitch as t } from "./strings";

/** To another vault that one reaches, by a few letters of its name. */
export function VaultSwitch({ here }: { here: string }) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const load = async () => {
    const answer = await runQuery("vaults.vaultList", {});
    if (!answer.ok) return null;
    return answer.result
      .filter((vault) => vault.id !== here)
      .map((vault) => ({ ...vault, note: t.entries(vault.entries) }));
  };
  return (
    <>
      <Button onPress={() => setOpen(true)}>{t.switchVault}</Button>
      <Dialog title={t.switchVault} open={open} onClose={() => setOpen(false)}>
        <Picker
          label={t.vault}
          placeholder={t.aFewLettersOfItsName}
          list={t.vaults}
          nothing={t.noVaultMatches}
          load={load}
          all
          onPick={(vault) => {
            setOpen(false);
            router.push(`/vaults/${vault.id}`);
          }}
        />
      </Dialog>
    </>
  );
}
