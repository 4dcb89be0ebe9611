/** What comes of a sealed sign-in: each way has a name, a sentence for the colleague and what can be done next. */

import { listOf } from "../counted";

export const FAILURES = {
  "wrong-password": {
    title: "rejected the user name or password",
    says: "Galtry will not try again until they are corrected, because some sites lock accounts.",
    next: "tell-steward",
    mends: ["edit-entry", "try-again"],
  },
  "refused-before": {
    title: "rejected it last time",
    says: "Galtry waits until it is changed, or someone with Edit presses Try again.",
    next: "tell-steward",
    mends: ["edit-entry", "try-again"],
  },
  "came-back": {
    title: "showed its sign-in page again",
    says: "It did not say that anything is wrong. Its sign-in may only work in a browser.",
    next: "guarded-fill",
    mends: ["learn", "browser", "guarded-fill"],
  },
  "code-refused": {
    title: "rejected the one-time code",
    says: "The secret key of the code may have been replaced, or a clock is wrong.",
    next: "tell-steward",
    mends: ["edit-entry", "test"],
  },
  "code-missing": {
    title: "requires a code",
    says: "The site requires a second step that is not in this entry, such as a code from a telephone.",
    next: "open-page",
    mends: ["add-code", "code-receiver", "guarded-fill"],
  },
  "code-not-given": {
    title: "sent a code that nobody entered",
    says: "The site sends its code to a steward of this login. They did not enter it in time, or did not receive it.",
    next: "later",
    mends: ["code-receiver", "add-code", "guarded-fill"],
  },
  challenge: {
    title: "shows a puzzle",
    says: "Open the page, solve it, then press Sign in again.",
    next: "open-page",
    mends: ["open-page", "guarded-fill"],
  },
  "drawn-by-scripts": {
    title: "needs guarded fill",
    says: "Its sign-in page only works in a browser, so a sealed sign-in is not possible.",
    next: "guarded-fill",
    mends: ["learn", "browser", "guarded-fill"],
  },
  "session-elsewhere": {
    title: "stores its session where Galtry cannot hand it over",
    says: "It let Galtry in, but gave no session that your browser could take up.",
    next: "guarded-fill",
    mends: ["browser", "guarded-fill"],
  },
  "browser-missing": {
    title: "needs a browser, and Galtry’s own did not start",
    says: "Its sign-in page only works in a browser. The person who runs Galtry can see why in its log.",
    next: "guarded-fill",
    mends: ["browser", "test"],
  },
  "http-basic": {
    title: "asks in the browser’s own window",
    says: "This site uses the browser’s own window (HTTP Basic) instead of a sign-in page. A sealed sign-in cannot hand that over.",
    next: "guarded-fill",
    mends: ["guarded-fill"],
  },
  "tied-to-address": {
    title: "ties its session to one address",
    says: "It let Galtry in, but not your browser.",
    next: "guarded-fill",
    mends: ["guarded-fill"],
  },
  "form-unsafe": {
    title: "would put the password in an address",
    says: "Its form sends what is typed as part of an address, where it would be logged in many places. Galtry does not send it.",
    next: "tell-steward",
    mends: ["learn", "change-steps"],
  },
  "plain-http": {
    title: "is not encrypted",
    says: "Its sign-in page uses plain http. Galtry sends a password there only if the entry’s steward allows it.",
    next: "tell-steward",
    mends: ["plain-http"],
  },
  "site-down": {
    title: "does not answer",
    says: "The site is down or answers with an error. Try again in a few minutes.",
    next: "later",
    mends: ["open-page", "test"],
  },
  "too-slow": {
    title: "took too long",
    says: "The site did not finish in time. Try again in a few minutes.",
    next: "later",
    mends: ["test"],
  },
  "too-much": {
    title: "sent too much",
    says: "The site sent more than a sign-in page needs, or redirected endlessly. Galtry stopped.",
    next: "tell-steward",
    mends: ["open-page", "learn"],
  },
  "address-not-allowed": {
    title: "leads somewhere else",
    says: "The sign-in passes through an address that does not belong to this entry. Galtry did not follow it.",
    next: "tell-steward",
    mends: ["change-steps", "learn"],
  },
  "gave-password-back": {
    title: "gave the password back",
    says: "The site’s answer contains the password itself. Passing it to your browser would show it, so Galtry did not.",
    next: "tell-steward",
    mends: ["guarded-fill"],
  },
  "access-ended": {
    title: "is no longer available to you",
    says: "Your access ended while Galtry was signing in.",
    next: "none",
    mends: [],
  },
  "change-wanted": {
    title: "requires a new password",
    says: "The site requires a new password before anyone can sign in.",
    next: "tell-steward",
    mends: ["open-page", "edit-entry"],
  },
  "not-understood": {
    title: "could not be understood",
    says: "Galtry could not follow the site’s sign-in.",
    next: "tell-steward",
    mends: ["learn", "edit-entry", "change-steps"],
  },
  "broken-off": {
    title: "was interrupted",
    says: "Galtry was stopped while it was signing in. Try again.",
    next: "later",
    mends: ["test"],
  },
} as const satisfies Record<
  string,
  {
    /** What the site did, after its name. */
    title: string;
    says: string;
    /** What the colleague can do. */
    next: "tell-steward" | "open-page" | "guarded-fill" | "later" | "none";
    /** What those who look after the entry can do, the likeliest first. */
    mends: readonly Mend[];
  }
>;

export const MENDS = [
  "edit-entry",
  "try-again",
  "add-code",
  "code-receiver",
  "learn",
  "change-steps",
  "browser",
  "guarded-fill",
  "plain-http",
  "open-page",
  "test",
] as const;
export type Mend = (typeof MENDS)[number];

export type Failure = keyof typeof FAILURES;
export type SignInOutcome = "signed-in" | Failure;

/** Progress a colleague sees while it works. */
export const PROGRESS = {
  waiting: "Waiting for another sign-in to the same site",
  "page-read": "Sign-in page opened",
  "user-name-sent": "User name sent",
  "password-accepted": "User name and password accepted",
  "code-wait": "Waiting for a new code",
  "code-asked": "Waiting for the code the site sent",
  "code-accepted": "Code accepted",
} as const;

export type Progress = keyof typeof PROGRESS;

/** Whom a sign-in waits for, that they enter a code, and how long it still does (milliseconds). */
export interface WaitsFor {
  names: string[];
  leftMs: number;
}

export const sayWaitingFor = ({ names }: Pick<WaitsFor, "names">): string =>
  `Waiting for the code that ${names.length > 0 ? listOf(names, "or") : "a steward"} receives`;

/** Says how far a sign-in is. */
export type OnProgress = (progress: Progress, waitsFor?: WaitsFor) => void;

/** What people see when they are not let in, in their words. */
export const DID_NOT_WORK = {
  "asks-again": "it still asks to sign in",
  "wrong-account": "it opened someone else’s account",
  "an-error": "the site shows an error",
  "nothing-happens": "nothing happens",
  "galtry-could-not": "Galtry could not sign them in",
} as const;
