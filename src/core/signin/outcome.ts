/** What comes of a sealed sign-in: each way has a name, a sentence for the colleague and what can be done next. */

export const FAILURES = {
  "wrong-password": {
    title: "did not accept it",
    says: "The user name or password kept for it is wrong. Galtry tried once and does not try again for anybody until it is put right, because some sites lock.",
    next: "tell-steward",
  },
  "refused-before": {
    title: "did not accept it before",
    says: "The site refused the user name and password that are kept. Nobody sends them again until they change, or somebody who may edit says: try once more.",
    next: "tell-steward",
  },
  "code-refused": {
    title: "did not accept the code",
    says: "The site refused the one-time code. Its secret may have been replaced, or a clock is wrong.",
    next: "tell-steward",
  },
  "code-missing": {
    title: "asks for a code",
    says: "The site asks for a second step that is not kept with this entry: a code from a telephone, for example.",
    next: "open-page",
  },
  challenge: {
    title: "wants a person",
    says: "It asks for a puzzle before it lets anyone in. Galtry does not answer those. Open the page, solve the puzzle, then press Sign in again.",
    next: "open-page",
  },
  "drawn-by-scripts": {
    title: "needs guarded fill",
    says: "Scripts draw its sign-in page, so sealed sign-in cannot work.",
    next: "guarded-fill",
  },
  "http-basic": {
    title: "asks in the browser’s own window",
    says: "This site does not use a sign-in page but the browser’s own window (HTTP Basic). A sealed sign-in cannot hand that over.",
    next: "tell-steward",
  },
  "tied-to-address": {
    title: "keeps its session to one address",
    says: "The site let Galtry in, but not this browser: it ties its session to the address that signed in.",
    next: "guarded-fill",
  },
  "form-unsafe": {
    title: "would put the password in an address",
    says: "Its form sends what is typed as part of an address, where it would be written down in many places. Galtry does not send it.",
    next: "tell-steward",
  },
  "plain-http": {
    title: "is not encrypted",
    says: "Its sign-in page uses plain http. Galtry sends a password there only when the entry’s steward has accepted that.",
    next: "tell-steward",
  },
  "site-down": {
    title: "does not answer",
    says: "The site is down or answers with an error. Try again in a few minutes.",
    next: "later",
  },
  "too-slow": {
    title: "took too long",
    says: "The site did not finish in time. Try again in a few minutes.",
    next: "later",
  },
  "too-much": {
    title: "sent too much",
    says: "The site sent more than a sign-in page ever needs, or redirected without end. Galtry stopped.",
    next: "tell-steward",
  },
  "address-not-allowed": {
    title: "leads somewhere else",
    says: "The sign-in passes through an address that does not belong to this entry. Galtry did not follow it.",
    next: "tell-steward",
  },
  "gave-password-back": {
    title: "gave the password back",
    says: "What the site answered holds the password itself. Handing that to your browser would show it, so Galtry did not.",
    next: "tell-steward",
  },
  "access-ended": {
    title: "is no longer yours to use",
    says: "Your access ended while Galtry was signing in.",
    next: "none",
  },
  "change-wanted": {
    title: "wants a new password",
    says: "The site asks for a new password before it lets anyone in.",
    next: "tell-steward",
  },
  "not-understood": {
    title: "could not be read",
    says: "Galtry did not find its way through the site’s sign-in.",
    next: "tell-steward",
  },
  "broken-off": {
    title: "was broken off",
    says: "Galtry was stopped while it was signing in. Try again.",
    next: "later",
  },
} as const satisfies Record<
  string,
  { title: string; says: string; next: "tell-steward" | "open-page" | "guarded-fill" | "later" | "none" }
>;

export type Failure = keyof typeof FAILURES;
export type SignInOutcome = "signed-in" | Failure;

/** Progress a colleague sees while it works. */
export const PROGRESS = {
  waiting: "Waiting for another sign-in to the same site",
  "page-read": "Sign-in page read",
  "user-name-sent": "User name sent",
  "password-accepted": "User name and password accepted",
  "code-wait": "Waiting for a fresh code",
  "code-accepted": "Code accepted",
} as const;

export type Progress = keyof typeof PROGRESS;

/** What people see when they are not let in, in their words. */
export const DID_NOT_WORK = {
  "asks-again": "it still asks to sign in",
  "wrong-account": "it opened somebody else’s account",
  "an-error": "the site shows an error",
  "nothing-happens": "nothing happens",
} as const;
