/** Which pages an entry is for: hosts compared by the public suffix list, private suffixes included. */
import { parse } from "tldts";
import { hostOf } from "./address";

/** `site`: the registrable domain and everything under it; `host`: that host (and port) only. */
export type Reach = "site" | "host";

export interface EntrySite {
  signInPage: string;
  reach: Reach;
}

/** The registrable domain ("pellam.example" of "www.pellam.example"); the host itself where there is none. */
export function siteOf(host: string): string {
  const withoutPort = host.replace(/:\d+$/, "");
  return parse(withoutPort, { allowPrivateDomains: true }).domain ?? withoutPort;
}

/** Whether a page is one of the entry's: a look-alike host or another suffix never is. */
export function matches(entry: EntrySite, pageAddress: string): boolean {
  const here = hostOf(pageAddress);
  const kept = hostOf(entry.signInPage);
  if (here === null || kept === null) return false;
  if (here === kept) return true;
  if (entry.reach === "host") return false;
  const [hereUrl, keptUrl] = [new URL(pageAddress), new URL(entry.signInPage)];
  if (isAddress(hereUrl.hostname) || isAddress(keptUrl.hostname)) return false;
  return hereUrl.port === keptUrl.port && siteOf(hereUrl.hostname) === siteOf(keptUrl.hostname);
}

/** Whether a page lies at one of these names, or below it. */
export function isBelow(pageAddress: string, names: readonly string[]): boolean {
  const host = hostOf(pageAddress)?.replace(/:\d+$/, "");
  return host !== undefined && names.some((name) => host === name || host.endsWith(`.${name}`));
}

function isAddress(hostname: string): boolean {
  return parse(hostname).isIp === true;
}

/**
 * An address as typed, made whole: `https://` where no scheme stands.
 * @throws RangeError when it cannot be an http or https address
 */
export function wholeAddress(typed: string): string {
  const text = typed.trim();
  const hasScheme = /^[a-z][a-z0-9+.-]*:/i.test(text) && !/^[^/:]+:\d+(\/|$)/.test(text);
  let url: URL;
  try {
    url = new URL(hasScheme ? text : `https://${text}`);
  } catch {
    throw new RangeError("This is not the address of a page.");
  }
  if (url.protocol !== "https:" && url.protocol !== "http:")
    throw new RangeError("An address begins with https:// or http://.");
  if (url.username || url.password) throw new RangeError("An address must not hold a user name or a password.");
  if (!url.hostname.includes(".") && url.hostname !== "localhost" && !isAddress(url.hostname))
    throw new RangeError("This address has no full host name.");
  return url.href;
}

/** Whether a host may set a cookie for `domain`: itself or a parent, up to its registrable domain (RFC 6265 5.3). */
export function mayHoldCookie(host: string, domain: string): boolean {
  const withoutPort = host.replace(/:\d+$/, "").toLowerCase();
  const wanted = domain.replace(/^\./, "").toLowerCase();
  if (withoutPort === wanted) return true;
  if (isAddress(withoutPort) || !withoutPort.endsWith(`.${wanted}`)) return false;
  const site = siteOf(withoutPort);
  return wanted === site || wanted.endsWith(`.${site}`);
}
