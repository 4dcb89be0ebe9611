/** What whoever manages this browser has set for Lanyard (`policy.json`), such as by a policy of the browser. */
export interface Policy {
  /** Origin of the one Galtry that it may be connected to. */
  address: string | null;
  offerToAdd: boolean;
}

export async function policy(): Promise<Policy> {
  const set = (await chrome.storage.managed.get(["address", "offerToAdd"]).catch(() => ({}))) as Record<
    string,
    unknown
  >;
  return policyFrom(set);
}

export function policyFrom({ address, offerToAdd }: Record<string, unknown>): Policy {
  return { address: originOf(address), offerToAdd: offerToAdd !== false };
}

function originOf(address: unknown): string | null {
  try {
    const url = new URL(String(address));
    return url.protocol === "https:" || url.protocol === "http:" ? url.origin : null;
  } catch {
    return null;
  }
}
