/** The sample organisation's identity provider: its accounts there, and setting it up in Galtry as an administrator would. */
import { Cookie, CookieJar } from "tough-cookie";
import type { Caller } from "../src/server/caller";
import type { Galtry } from "../src/server/galtry";
import { outgoingFetch } from "../src/server/outgoingFetch";
import { beginSignIn, finishSignIn } from "../src/server/provider/flows";
import { addDomain, addProvider, enableProvider, proveDomain, testProvider } from "../src/server/provider/providers";
import { PROVIDER_CLIENT, PROVIDER_SECRET, type ProviderStandin, type StaffAccount } from "../standins/provider";
import { mailOf } from "./mailOf";
import { PEOPLE } from "./organisation";

/** Groups there have names of their own. */
export const groupThere = (group: string): string => `tm-${group.toLowerCase().replaceAll(" ", "-")}`;

export const staffAccounts = (): StaffAccount[] =>
  PEOPLE.filter(({ role }) => role !== "guest").map(({ key, name, groups }) => ({
    ...{ sub: `tm-${key}`, name, mail: mailOf(name), active: true },
    groups: ["tm-all-staff", ...groups.map(groupThere)],
  }));

type Person = Extract<Caller, { kind: "person" }>;

/** Signs in at the stand-in as a browser would. @returns where it sends the browser back to */
export async function signInThere(address: string, sub: string): Promise<URL> {
  const jar = new CookieJar(undefined, { allowSpecialUseDomain: true, rejectPublicSuffixes: false });
  let url = address;
  for (let step = 0; step < 12; step += 1) {
    if (/\/sso\/[^/]+\/return/.test(url)) return new URL(url);
    const interaction = url.includes("/interaction/") && !url.includes("done");
    const answer = await outgoingFetch(url, {
      method: interaction ? "POST" : "GET",
      headers: {
        cookie: await jar.getCookieString(url),
        ...(interaction && { "content-type": "application/x-www-form-urlencoded" }),
      },
      ...(interaction && { body: new URLSearchParams({ sub }).toString() }),
    });
    for (const text of answer.headers.getSetCookie()) {
      const cookie = Cookie.parse(text);
      if (cookie) await jar.setCookie(cookie, url);
    }
    const next = answer.headers.get("location");
    if (!next) throw new Error(`the provider answered ${answer.status} at ${url}`);
    url = new URL(next, url).href;
  }
  throw new Error("the provider sends the browser round and round");
}

/** Added, tested and switched on by an owner, as in an office. @returns its id */
export async function setUpProvider(app: Galtry, provider: ProviderStandin, by: Person, sub: string): Promise<string> {
  const settings = {
    ...{ protocol: "oidc" as const, name: "Tarrowick accounts", issuer: provider.issuer, clientId: PROVIDER_CLIENT },
    ...{ secret: PROVIDER_SECRET, scopes: "openid email profile groups" },
  };
  const { providerId } = await addProvider.execute(app, settings, by);
  const domain = { providerId, domain: "tarrowick.example" };
  await addDomain.execute(app, domain, by);
  await proveDomain.execute(app, { ...domain, statement: "The trust has registered it since 2004." }, by);
  await testProvider.execute(app, { providerId }, by);
  const { address, browser } = await beginSignIn(app, by, { providerId, purpose: "test", next: "/", browser: null });
  const back = await signInThere(address, sub);
  await finishSignIn(app, by, { providerId, address: back, saml: null, browser });
  await enableProvider.execute(app, { providerId, enabled: true }, by);
  return providerId;
}

/** Somebody comes by the provider, as far as they get. */
export async function comeThere(app: Galtry, providerId: string, sub: string): Promise<void> {
  const nobody = { kind: "nobody" as const, address: "127.0.0.1", browser: "Chromium on Linux", knownBrowser: null };
  const begin = { providerId, purpose: "sign-in" as const, next: "/", browser: null };
  const { address, browser } = await beginSignIn(app, nobody, begin);
  await finishSignIn(app, nobody, { providerId, address: await signInThere(address, sub), saml: null, browser });
}
