const PASSING =
  /^(return|redirect|next|continue|goto|back|from|ref|state|nonce|token|session|sid|csrf|code|utm_\w+|_\w+)/i;

/** The sign-in page's own address, without what belongs to one visit only. */
export function plainAddress(page: string): string {
  const url = new URL(page);
  url.hash = "";
  url.username = "";
  url.password = "";
  for (const [name, value] of [...url.searchParams])
    if (PASSING.test(name) || value.length > 24) url.searchParams.delete(name);
  return url.href;
}
