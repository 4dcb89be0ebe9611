/** Hosts of addresses; apart from `site` so that pages need not load the public suffix list. */

/** Host with its port unless it is the scheme's own; null when the address is not http or https. */
export function hostOf(address: string): string | null {
  try {
    const url = new URL(address);
    return url.protocol === "https:" || url.protocol === "http:" ? url.host : null;
  } catch {
    return null;
  }
}

/** The host as people read it: without "www." and without a port. */
export function siteName(address: string): string {
  return (hostOf(address) ?? address).replace(/^www\./, "").replace(/:\d+$/, "");
}

/** @returns origin and path, without a final slash; null for what is no web address */
export function plainPage(address: string): string | null {
  try {
    const url = new URL(address.trim());
    if (url.protocol !== "https:" && url.protocol !== "http:") return null;
    return `${url.origin}${url.pathname.replace(/\/+$/, "")}`;
  } catch {
    return null;
  }
}
