/** Pages that open with what stands after the # of their address. */
const BY_LINK = ["/handover", "/letterbox", "/join", "/set-up", "/reset", "/not-me"];

/**
 * Runs in the head, before anything else reads the address: what stands after the # goes out of the address bar, the
 * history, and everything that keeps an address, and is held for `takeLink`.
 */
export const HOLD_LINK = `(() => {
  if (!${JSON.stringify(BY_LINK)}.includes(location.pathname) || location.hash.length < 2) return;
  window.galtryLink = location.hash.slice(1);
  history.replaceState(null, "", location.pathname);
})();`;

type Holding = typeof window & { galtryLink?: string };

/** Keeps what stood after the # for `takeLink`. */
export function holdLink(link: string): void {
  (window as Holding).galtryLink = link;
}

/** Gives it once. A link that was put into the address later is taken from there. */
export function takeLink(): string {
  const page = window as Holding;
  const held = page.galtryLink ?? location.hash.slice(1);
  delete page.galtryLink;
  if (location.hash !== "") history.replaceState(null, "", location.pathname);
  return held;
}
