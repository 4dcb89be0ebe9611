import { notFound } from "next/navigation";
import { atLeast } from "@/core/access/level";
import { isReadyKind, READY_KINDS, readyKind } from "@/core/kinds/ready";
import { ChooseKind } from "@/interface/entry/ChooseKind";
import { EntryForm } from "@/interface/entry/EntryForm";
import { Page } from "@/interface/frame/Frame";
import { ask, me } from "@/server/page";
import { vaultLedger } from "@/server/vaults/vaults";

export const metadata = { title: "New entry" };

export default async function NewEntryPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ kind?: string }>;
}) {
  const [{ id }, search] = await Promise.all([params, searchParams, me()]);
  const vault = await ask(vaultLedger, { vaultId: id });
  const kind = search.kind && isReadyKind(search.kind) ? readyKind(search.kind) : null;
  if (!atLeast(vault.level, "edit")) notFound();
  return (
    <Page
      where={
        <>
          <a href="/vaults">Vaults</a> · <a href={`/vaults/${vault.id}`}>{vault.name}</a>. A new entry.
        </>
      }
    >
      {kind ? (
        <EntryForm kind={kind} entry={null} parent={{ id: vault.id, name: vault.name }} />
      ) : (
        <ChooseKind kinds={READY_KINDS} vault={vault} />
      )}
    </Page>
  );
}
