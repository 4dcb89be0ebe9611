import { notFound } from "next/navigation";
import { atLeast } from "@/core/access/level";
import { EntryForm } from "@/interface/entry/EntryForm";
import { Page } from "@/interface/frame/Frame";
import { ask, me } from "@/server/page";
import { vaultLedger } from "@/server/vaults/vaults";

export const metadata = { title: "New entry" };

export default async function NewEntryPage({ params }: { params: Promise<{ id: string }> }) {
  await me();
  const vault = await ask(vaultLedger, { vaultId: (await params).id });
  if (!atLeast(vault.level, "edit")) notFound();
  return (
    <Page
      where={
        <>
          <a href="/vaults">Vaults</a> · <a href={`/vaults/${vault.id}`}>{vault.name}</a>. A new entry.
        </>
      }
    >
      <EntryForm entry={null} parent={{ id: vault.id, name: vault.name }} />
    </Page>
  );
}
