import { notFound } from "next/navigation";
import { Page } from "@/interface/frame/Frame";
import { ImportFile } from "@/interface/import/ImportFile";
import { ask, me } from "@/server/page";
import { kindList } from "@/server/vaults/kinds";
import { vaultPlaces } from "@/server/vaults/places";

export const metadata = { title: "Import a file" };

export default async function BringInPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ in?: string }>;
}) {
  const [{ id }, search] = await Promise.all([params, searchParams, me()]);
  const places = await ask(vaultPlaces, { vaultId: id });
  const { mayMake } = await ask(kindList, {});
  const place = places.find((one) => one.id === search.in) ?? places[0] ?? notFound();
  return (
    <Page
      where={
        <>
          <a href="/vaults">Vaults</a> · <a href={`/vaults/${id}`}>{places[0]!.name}</a>. Import a file.
        </>
      }
    >
      <h1 style={{ marginBottom: 20 }}>Import a file</h1>
      <ImportFile vaultId={id} places={places} start={place.id} mayMakeKinds={mayMake} />
    </Page>
  );
}
