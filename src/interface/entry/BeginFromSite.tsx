"use client";

import { useRouter } from "next/navigation";
import { runQuery } from "../shared/ask";
import { Picker } from "../shared/Picker";
import type { Site } from "../sites/Sites";

/** Three letters of a site that the organisation uses, and the form stands there half filled in. */
export function BeginFromSite({ vaultId, place }: { vaultId: string; place: { id: string } }) {
  const router = useRouter();
  const load = async () => {
    const answer = await runQuery<{ sites: Site[] }>("vaults.sites", {});
    return answer.ok ? answer.result.sites.map((site) => ({ ...site, note: site.signInPage })) : null;
  };
  return (
    <div style={{ maxWidth: 480, marginBottom: 24 }}>
      <Picker
        label="Begin from a site we use"
        seen
        placeholder="a few letters of its name"
        list="Sites we use"
        nothing="No site of that name is on the list. Choose a kind below."
        load={load}
        onPick={(site) => router.push(`/vaults/${vaultId}/new?kind=${site.kind}&in=${place.id}&site=${site.id}`)}
      />
    </div>
  );
}
