/** What is handed over after a sign-in, searched first for the password in any form. */
import { carriesSecret, type SecretTraces } from "../../core/signin/carries";
import { mayHoldCookie } from "../../core/signin/site";
import type { HandedCookie, HandedStorage, SignedIn } from "./engine";
import { SignInFailure } from "./guardedClient";

/** Every text and number in it, wherever it stands. */
function textsIn(value: unknown): string[] {
  if (typeof value === "string" || typeof value === "number") return [String(value)];
  return typeof value === "object" && value !== null ? Object.values(value).flatMap(textsIn) : [];
}

/**
 * @param allows whether an address belongs to the entry or its steps: nothing is handed over for another
 * @throws SignInFailure where there is no session, or where it holds the password
 */
export function sessionFrom(
  { cookies, landing: address, storage }: SignedIn,
  traces: SecretTraces,
  allows: (address: string) => boolean,
): SignedIn {
  if (cookies.length === 0 && storage.length === 0)
    throw new SignInFailure("session-elsewhere", "the site gave no cookie and stored nothing that can be handed over");
  const landing = new URL(address);
  const values = [
    ...cookies.flatMap((cookie) => [cookie.name, cookie.value, cookie.domain, cookie.path]),
    ...storage.flatMap(({ local, session, databases }) => [...[...local, ...session].flat(), ...textsIn(databases)]),
    landing.href,
    ...landing.searchParams.values(),
    ...landing.pathname.split("/"),
    landing.hash,
  ];
  if (carriesSecret(values, traces))
    throw new SignInFailure("gave-password-back", "a cookie, what is stored or the landing address holds the password");
  const fits = (cookie: HandedCookie) =>
    mayHoldCookie(landing.hostname, cookie.domain) || allows(`https://${cookie.domain}/`);
  const belongs = ({ origin }: HandedStorage) => allows(`${origin}/`);
  return { cookies: cookies.filter(fits), storage: storage.filter(belongs), landing: landing.href };
}
