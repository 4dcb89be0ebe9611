/** Cookies that Lanyard sets: only where the entry says, never for Galtry's own site, and all removed again. */
import { mayHoldCookie, siteOf } from "../../src/core/signin/site";
import type { KeyLine } from "../../src/server/lanyard/keys";
import type { HandedCookie } from "../../src/server/signin/engine";
import { disk, type SetCookie, setDisk } from "./store";

/** Hosts of an entry, without ports: what a cookie may be for. */
export function hostsOf(key: Pick<KeyLine, "signInPage" | "hosts">): string[] {
  return [new URL(key.signInPage).hostname, ...key.hosts.map((host) => host.replace(/:\d+$/, ""))];
}

/** Whether a cookie may be set for this entry. */
export function isAllowed(
  cookie: HandedCookie,
  key: Pick<KeyLine, "signInPage" | "hosts" | "reach">,
  galtry: string,
): boolean {
  const domain = cookie.domain.replace(/^\./, "").toLowerCase();
  const own = new URL(galtry).hostname;
  if (domain === own || own.endsWith(`.${domain}`) || (domain.endsWith(`.${own}`) && siteOf(own) === siteOf(domain)))
    return false;
  return hostsOf(key).some(
    (host) => mayHoldCookie(host, domain) || (key.reach === "site" && siteOf(host) === siteOf(domain)),
  );
}

/** Address by which a cookie is set and removed. */
export function cookieUrl(cookie: Pick<HandedCookie, "domain" | "path" | "secure">): string {
  return `${cookie.secure ? "https" : "http"}://${cookie.domain.replace(/^\./, "")}${cookie.path}`;
}

/** Cookies at the entry's page that Lanyard did not set: somebody is signed in there already. */
export async function foreignCookies(key: KeyLine): Promise<number> {
  const ours = new Set((await disk("cookies")).map((cookie) => cookie.name));
  return (await chrome.cookies.getAll({ url: key.signInPage })).filter((cookie) => !ours.has(cookie.name)).length;
}

/** @returns how many were set; flags as received */
export async function setCookies(
  cookies: HandedCookie[],
  key: KeyLine,
  galtry: string,
  signInId: string,
): Promise<number> {
  const set: SetCookie[] = [];
  for (const cookie of cookies) {
    if (!isAllowed(cookie, key, galtry)) continue;
    const url = cookieUrl(cookie);
    const done = await chrome.cookies
      .set({
        url,
        name: cookie.name,
        value: cookie.value,
        path: cookie.path,
        secure: cookie.secure,
        httpOnly: cookie.httpOnly,
        sameSite: cookie.sameSite,
        ...(cookie.hostOnly ? {} : { domain: cookie.domain }),
        ...(cookie.expires === null ? {} : { expirationDate: cookie.expires }),
      })
      .catch(() => null);
    if (done) set.push({ entryId: key.id, name: cookie.name, url, signInId });
  }
  const known = (await disk("cookies")).filter(
    (old) => !set.some((now) => now.url === old.url && now.name === old.name),
  );
  await setDisk({ cookies: [...known, ...set] });
  return set.length;
}

/**
 * Removes the chosen cookies of those that Lanyard set.
 * @returns the entries they were for
 */
export async function removeCookies(which: (cookie: SetCookie) => boolean): Promise<Set<string>> {
  const all = await disk("cookies");
  const gone = all.filter(which);
  if (gone.length === 0) return new Set();
  for (const cookie of gone) {
    await chrome.cookies.remove({ url: cookie.url, name: cookie.name }).catch(() => undefined);
    // A cookie set over http may meanwhile have been made secure by the site, and the other way about.
    await chrome.cookies
      .remove({
        url: cookie.url.replace(/^https?/, (scheme) => (scheme === "http" ? "https" : "http")),
        name: cookie.name,
      })
      .catch(() => undefined);
  }
  await setDisk({ cookies: all.filter((cookie) => !gone.includes(cookie)) });
  return new Set(gone.map((cookie) => cookie.entryId));
}
