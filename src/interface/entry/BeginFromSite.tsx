"use client";

import { useRouter } from "next/navigation";
import { runQuery } from "../shared/ask";
import { Picker } from "../shared/Picker";
import { beginFromSite as t } from "./strings";

/** Three letters of a site that the organisation uses, and the form stands there half filled in. */
export function BeginFromSite({ vaultId, place }: { vaultId: string; place: { id: string } }) {
  const router = useRouter();
  const load = async () => {
    const answer = await runQuery("vaults.siteList", {});
    return answer.ok ? answer.result.sites.map((site) => ({ ...site, note: site.signInPage })) : null;
  };
  return (
    <div style={{ maxWidth: 480, marginBottom: 24 }}>
      <Picker
        label={t.startFromASiteWeUse}
        seen
        placeholder={t.typeAFewLettersOfItsName}
        list={t.sitesWeUse}
        nothing={t.noSiteMatchesChooseAKindBelow}
        load={load}
        onPick={(site) => router.push(`/vaults/${vaultId}/new?kind=${site.kind}&in=${place.id}&site=${site.id}`)}
      />
    </div>
  );
}
