/** What findings are called, in a list and in the Journal. */
import type { FindingKind } from "./findings";

export const FINDING_NAMES: Readonly<Record<FindingKind, string>> = {
  leaked: "leaked password",
  leaver: "known to a leaver",
  former: "known without access",
  reused: "same password twice",
  weak: "weak password",
  old: "old password",
  "no-steward": "no steward",
  "one-steward": "one steward only",
  rejected: "rejected by the site",
  fails: "sign-in fails",
  "home-page": "home page instead of a sign-in page",
  "plain-http": "plain http",
  untested: "sign-in not tested",
  "asks-a-person": "sign-in waits for a person",
  "no-code": "no one-time code",
  "too-many": "too many people",
  everyone: "Everyone has Reveal or more",
  "open-guest": "guest without an end date",
  passed: "the reason is over",
  ending: "access ends soon",
  "unused-access": "access nobody uses",
  over: "date passed",
  ends: "date near",
  unused: "nobody uses it",
};
