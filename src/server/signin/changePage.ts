/** Finding the page that changes a password, and what the site's answer says: the same for every engine. */
import { ChangeFailure, type ChangeSent } from "./engine";
import type { StudiedPage } from "./studiedPage";

export interface LookedAt extends Pick<StudiedPage, "reading" | "changeLinks" | "says" | "mark" | "newPasswordRules"> {
  url: string;
  status: number;
}

/** So many pages are looked at for the one that changes a password. */
const MOST_LOOKED_AT = 12;

const WELL_KNOWN = "/.well-known/change-password";
export const isWellKnown = (address: string): boolean => new URL(address).pathname === WELL_KNOWN;

export const asksForNew = ({ reading, status }: Pick<LookedAt, "reading" | "status">): boolean =>
  status < 400 && reading.kind === "change-password" && reading.newPasswords.length > 0;

/**
 * Where the password is changed: what is known, what the site says itself (W3C, A Well-Known URL for Changing
 * Passwords), or what its links lead to.
 * @param lookAt opens an address; null where that leads nowhere
 * @throws ChangeFailure
 */
export async function findChangePage<P extends LookedAt>(
  landing: P,
  known: string | null,
  allows: (address: string) => boolean,
  lookAt: (address: string) => Promise<P | null>,
): Promise<P> {
  if (asksForNew(landing)) return landing;
  const wellKnown = new URL(WELL_KNOWN, landing.url).href;
  const waiting = [...(known ? [known] : []), wellKnown, ...landing.changeLinks];
  const looked = new Set<string>();
  let mails = false;
  for (
    let address = waiting.shift();
    address !== undefined && looked.size < MOST_LOOKED_AT;
    address = waiting.shift()
  ) {
    if (looked.has(address) || !allows(address)) continue;
    looked.add(address);
    const page = await lookAt(address);
    if (page && asksForNew(page)) return page;
    if (page) waiting.push(...page.changeLinks);
    // A page about passwords that has no field for one.
    mails ||= page?.reading.kind === "none" && page.says.mails && page.url !== landing.url;
  }
  throw new ChangeFailure(
    "no-change-page",
    mails ? "the site sends an email with a link instead" : `${looked.size} pages were looked at`,
  );
}

/** The current password is wanted beside the new one. */
export const asksForCurrent = ({ reading }: Pick<LookedAt, "reading">): boolean =>
  reading.password !== null && !reading.newPasswords.includes(reading.password);

/** A second page, with a code: the change counts only with it. */
export const asksForCode = ({ reading, status }: Pick<LookedAt, "reading" | "status">): boolean =>
  status < 400 && reading.kind === "one-time-code-step";

/** What the site says after the new password was sent. */
export function answerOf(next: LookedAt, form: LookedAt): ChangeSent {
  const says = saysOf(next, form);
  const rules = says === "rejected" && next.newPasswordRules !== form.newPasswordRules ? next.newPasswordRules : "";
  return { says, at: form.url, rules };
}

function saysOf(next: LookedAt, form: LookedAt): ChangeSent["says"] {
  if (next.status >= 500 || next.status === 401 || next.status === 403) return "unclear";
  if (asksForNew(next)) return next.says.wrong || next.mark !== form.mark ? "rejected" : "unclear";
  if (asksForCode(next)) return "asks-code";
  if (next.says.wrong || next.status >= 400) return "rejected";
  if (next.says.mails) return "mails";
  return next.reading.kind === "none" || next.says.signOut || next.reading.kind === "sign-in" ? "accepted" : "unclear";
}
