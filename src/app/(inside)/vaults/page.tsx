import { VaultList } from "@/interface/vaults/VaultList";
import { isAdministrator } from "@/server/caller";
import { ask, me } from "@/server/page";
import { vaultList } from "@/server/vaults/vaults";

export const metadata = { title: "Vaults" };

export default async function VaultsPage() {
  const { role } = await me();
  return (
    <VaultList
      vaults={await ask(vaultList, {})}
      mayMake={isAdministrator(role)}
      staff={role !== "guest"}
      owner={role === "owner"}
    />
  );
}
