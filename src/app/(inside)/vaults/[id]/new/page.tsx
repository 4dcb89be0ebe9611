import { notFound } from "next/navigation";
import { ChooseKind } from "@/interface/entry/ChooseKind";
import { EntryForm } from "@/interface/entry/EntryForm";
import { Page } from "@/interface/frame/Frame";
import { ask, askOrNull, me } from "@/server/page";
import { kindList } from "@/server/vaults/kinds";
import { vaultPlaces } from "@/server/vaults/places";
import { siteList } from "@/server/vaults/sites";

export const metadata = { title: "New entry" };

export default async function NewEntryPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ kind?: string; in?: string; site?: string }>;
}) {
  const [{ id }, search] = await Promise.all([params, searchParams, me()]);
  const places = await ask(vaultPlaces, { vaultId: id });
  const place = search.in ? places.find((one) => one.id === search.in) : places[0];
  if (!place) notFound();
  const { kinds, own, mayMake } = await ask(kindList, {});
  const kind = kinds.find((one) => one.id === search.kind) ?? null;
  const sites = (await askOrNull(siteList, {}))?.sites ?? [];
  const site = sites.find((one) => one.id === search.site) ?? null;
  return (
    <Page
      where={
        <>
          <a href="/vaults">Vaults</a> ·{" "}
          <a href={place.id === id ? `/vaults/${id}` : `/vaults/${id}?in=${place.id}`}>{place.name}</a>. A new entry.
        </>
      }
    >
      {kind ? (
        <EntryForm kind={kind} entry={null} vaultId={id} parent={place} places={places} site={site} />
      ) : (
        <ChooseKind
          kinds={kinds}
          vaultId={id}
          place={place}
          ownKinds={mayMake || own.length > 0}
          sites={sites.length > 0}
        />
      )}
    </Page>
  );
}
