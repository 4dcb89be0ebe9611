/** What the page of findings shows, as its address says it. */
import type { UpkeepAct } from "@/core/upkeep/findings";

export interface UpkeepFilter {
  act: UpkeepAct | null;
  vaultId: string | null;
  find: string;
  most: number;
}

export const FIRST_SHOWN = 200;

export function addressOf({ act, vaultId, find, most }: UpkeepFilter): string {
  const search = new URLSearchParams({
    ...(act && { act }),
    ...(vaultId && { vault: vaultId }),
    ...(find && { find }),
    ...(most > FIRST_SHOWN && { most: String(most) }),
  }).toString();
  return search ? `/upkeep?${search}` : "/upkeep";
}
