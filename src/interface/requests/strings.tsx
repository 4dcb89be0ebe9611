/** Every sentence and label of this area, in one place to be read. */

import type { ReactNode } from "react";
import { agree, counted, listOf } from "@/core/counted";

export const requestSheet = {
  signInWithItWithoutSeeingIts: "sign in with it, without seeing its password",
  alsoRevealItsUserNameAnd: "also reveal its user name and password",
  alsoEditIt: "also edit it",
  alsoDecideWhoCanDoWhatWith: "also decide who can do what with it",
  requestedOnYouWillBeToldWhen: (levelWord: string, name: string) =>
    `Requested ${levelWord} on ${name}. You will be told when it is answered.`,
  requestAccessTo: (name: string) => `Request access to ${name}`,
  requestAccess: "Request access",
  whatYouNeed: "What you need",
  until: "Until",
  leaveEmptyForNoEndDate: "Leave empty for no end date.",
  reason: "Reason",
  willReadIt: (part: string) => `${part} will read it.`,
  itsStewardWillReadIt: "Its steward will read it.",
};

export const waitingForYou = {
  approveTheChangeSlipOf: (by: string) => `Approve the change slip of ${by}`,
  approve: "Approve",
  decline: "Decline…",
  declineTheChangeSlipOf: (by: string) => `Decline the change slip of ${by}`,
  secondOpinions: "Second opinions",
  upkeep: "Upkeep",
  needAnAnswerToday: (names: string[], of: number) =>
    `${listOf(of > names.length ? [...names, counted(of - names.length, "other")] : names)} ${agree(of, "needs", "need")} an answer today.`,
  canWait: (count: number, more: boolean) =>
    `Nothing for today. ${more ? `More than ${counted(count, "finding")}` : counted(count, "finding")} can wait.`,
  roundsToReview: "Rounds to review",
  waitingForYourApproval: "Waiting for your approval",
  changeSlipsToApprove: "Change slips to approve",
  accessRequests: "Access requests",
  accessThatEndsWithinAWeek: "Access that ends within a week",
  accessYouGaveThatEndsSoon: "Access you gave that ends soon",
  yourRequests: "Your requests",
  hasDrafted: (by: ReactNode) => <>{by} has drafted:</>,
  send: "Send",
  commentFor: (by: string) => `Comment for ${by}`,
  on: (who: ReactNode, levelWord: string) => (
    <>
      {who}: {levelWord} on{" "}
    </>
  ),
  until: (time: string) => `until ${time}`,
  extendByTwoWeeksOn: (who: string, what: string) => `Extend by two weeks: ${who} on ${what}`,
  extendByTwoWeeks: "Extend by two weeks",
  youApprovedSUseOf: (person: string, entry: string) => `You approved ${person}’s use of ${entry}.`,
  requestsToUseFor: (person: ReactNode, entry: ReactNode, minutes: string) => (
    <>
      {person} requests to use {entry} for {minutes}
    </>
  ),
  from: (time: string, part: string) => `${time}, from ${part}`,
  youAreOneOfThem: "; you are one of them",
  ofStewardsHaveApproved: (said: number, needed: number, part: ReactNode) => (
    <>
      {said} of {needed} stewards have approved{part}.
    </>
  ),
  approveSUseOf: (person: string, entry: string) => `Approve ${person}’s use of ${entry}`,
  declineSRequest: (person: string) => `Decline ${person}’s request`,
  until2: (time: string) => ` until ${time}`,
  hasOn: (person: string, levelWord: string, node: string, until: string) =>
    `${person} has ${levelWord} on ${node}${until}.`,
  has: (levelWord: string) => `(has ${levelWord})`,
  requestsOn: (person: ReactNode, levelWord: ReactNode, node: ReactNode, until: string, levelWord2: ReactNode) => (
    <>
      {person} requests {levelWord} on {node}
      {until} {levelWord2}
    </>
  ),
  theyAskedForAnyLoginForAnd: (site: string) =>
    `They asked for any login for ${site} and do not know this one exists. Any answer tells them.`,
  approveSRequest: (person: string) => `Approve ${person}’s request`,
  giveLess: "Give less…",
  passOn: "Pass on…",
  giveLessThanRequested: (person: string) => `Give ${person} less than requested`,
  giveAccess: "Give access",
  levelOn: (node: string) => `Level on ${node}`,
  until3: "Until",
  leaveEmptyForNoEndDate: "Leave empty for no end date.",
  noLaterThanRequested: "No later than requested.",
  decline2: "Decline",
  reason: "Reason",
  willReadIt: (reader: string) => `${reader} will read it.`,
  passOnToAnotherSteward: "Pass on to another steward",
  passOn2: "Pass on",
  to: "To",
  except: (levelWord: string, part: string) => `, but ${levelWord}${part}`,
  on2: (levelWord: ReactNode) => <>{levelWord} on </>,
  notAnsweredYet: "not answered yet",
  withdrawTheRequestFor: (node: string) => `Withdraw the request for ${node}`,
  withdraw: "Withdraw",
  approved: "approved",
  by: (by: string) => `by ${by}`,
  declined: "declined",
  by2: (by: string) => `by ${by}: `,
};
