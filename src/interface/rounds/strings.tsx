/** Every sentence and label of this area, in one place to be read. */

import type { ReactNode } from "react";
import { agree, counted } from "../../core/counted";

export const roundAnswer = {
  on: (who: string, what: string) => `${who} on ${what}`,
  lowerTo: (levelWord: string) => `lower to ${levelWord}`,
  undo: (ofWord: string) => `Undo: ${ofWord}`,
  undo2: "Undo",
  confirm: (ofWord: string) => `Confirm: ${ofWord}`,
  confirm2: "Confirm",
  lower: (ofWord: string) => `Lower: ${ofWord}`,
  lower2: "Lower",
  end: (ofWord: string) => `End: ${ofWord}`,
  end2: "End",
  reviewsYours: (name: string) => `${name} reviews this one.`,
};

export const roundInGrid = {
  unusualNoAnswerYet: "unusual, no answer yet",
  noAnswerYet: "no answer yet",
  aRoundIsUnderWay: "A round is under way.",
  ofReviewed: (looked: number, linesCount: number) => `${looked} of ${linesCount} reviewed`,
  next: "Next",
  finishTheRound: "Finish the round",
  showAsAList: "Show as a list",
  theRestIsInTheList: "The rest is in the list",
  c: "C",
  l: "L",
  e: "E",
  u: "U",
  n: "N",
  confirmLowerEndNoAnswerNext: (kbd: ReactNode, kbd2: ReactNode, kbd3: ReactNode, kbd4: ReactNode, kbd5: ReactNode) => (
    <>
      {kbd} confirm, {kbd2} lower, {kbd3} end, {kbd4} no answer, {kbd5} next
    </>
  ),
  neverUsed: "never used",
  used: (time: string) => `used ${time}`,
  inTheRound: (levelWord: string, part: string, part2: string) => `In the round: ${levelWord}, ${part}${part2}.`,
};

export const roundRecord = {
  until: (exactTime: string) => ` until ${exactTime}`,
  lastUse: "Last use",
  access: "Access",
  rounds: "Rounds",
  aRecordCannotBeChanged: (link: ReactNode, link2: ReactNode, name: ReactNode) => (
    <>
      {link} · {link2} · {name}. A record cannot be changed.
    </>
  ),
  roundOf: (name: string) => `Round of ${name}`,
  csv: "CSV",
  print: "Print",
  read: (exactTime: string) => `Read ${exactTime}.`,
  startedFinishedByAccessToLower: (
    exactTime: string,
    exactTime2: string,
    by: ReactNode,
    counts: string,
    exactTime3: ReactNode,
  ) => (
    <>
      Started {exactTime}, finished {exactTime2} by {by}: {counts}. Access to lower or end went on a change slip; the
      Journal says when it was applied. {exactTime3}
    </>
  ),
};

export const roundsPage = {
  access: "Access",
  thisOneIsYours: "This one is yours.",
  hasBeenAskedYouCanAnswerToo: (asked: string | null | undefined) => `${asked} has been asked; you can answer too.`,
  inARoundItsStewardsReviewWho: (link: ReactNode, name: ReactNode, part: ReactNode) => (
    <>
      {link} · {name}. In a round its stewards review who has what. {part}
    </>
  ),
  roundOf: (name: string) => `Round of ${name}`,
  roundsOf: (name: string) => `Rounds of ${name}`,
  startARoundNow: "Start a round now",
  finishedRounds: "Finished",
  by: (time: string, by: string) => `${time}, by ${by}`,
  theLongestServingStewardIs:
    "The longest-serving steward is asked, and reminded after a week; after two weeks the next one is asked.",
  noneStartsByItself: "No round starts by itself.",
  oneStarts: (months: number) => `A round starts by itself every ${counted(months, "month")}.`,
  aRoundStartsByItself: "A round starts by itself",
  never: "never",
  everyMonth: "every month",
  everyMonths: (months: number) => `every ${months} months`,
  by2: (startedBy: string) => ` by ${startedBy}`,
  becauseItWasDue: " because it was due",
  didNotAnswer: (part: string) => ` ${part} did not answer.`,
  c: "C",
  l: "L",
  e: "E",
  u: "U",
  inTheGrid: "in the grid",
  startedNothingChangesUntilYou: (
    time: string,
    part: string,
    part2: ReactNode,
    kbd: ReactNode,
    kbd2: ReactNode,
    kbd3: ReactNode,
    kbd4: ReactNode,
    link: ReactNode,
  ) => (
    <>
      Started {time}
      {part}.{part2} Nothing changes until you apply the slip at the end. {kbd} confirm, {kbd2} lower by one level,{" "}
      {kbd3} end, {kbd4} no answer yet, arrow keys move. It is also {link}.
    </>
  ),
  reviewed: "Reviewed",
  ofReviewed: (looked: number, linesCount: number) => `${looked} of ${linesCount} reviewed`,
  finishTheRound: "Finish the round",
  askToReviewYours: (name: string) => `Ask ${name} to review yours`,
  waitsFor: (name: string) => `Waiting for ${name}`,
  yourOwnAccess: (alone: boolean) =>
    alone ? "your own access: there is no other steward to review it" : "your own access",
  whoHasWhat: "Who has what",
  noAnswerYet: "No answer yet",
  on: (who: string, levelWord: string, what: string, part: string, part2: string) =>
    `${who}: ${levelWord} on ${what}. ${part}. ${part2}`,
  until: (time: string) => `, until ${time}`,
  on2: (levelWord: string, what: string, part: ReactNode) => (
    <>
      {levelWord} on {what}
      {part}
    </>
  ),
  sinceBy: (time: string, by: string) => `since ${time}, by ${by}`,
  neverUsed: "never used",
  used: (time: string) => `used ${time}`,
  finished: (changes: number) =>
    changes === 0
      ? "The round is finished. Nothing changes."
      : `The round is finished. ${counted(changes, "change")} ${agree(changes, "is", "are")} on your change slip.`,
};

export const words = {
  hasLeftOrIsSuspended: "has left or is suspended",
  guestWithNoEndDate: "guest with no end date",
  notUsedFor90Days: "not used for 90 days",
  hasTheSameAccessAnotherWay: "has the same access another way",
  itsReasonIsOutOfDate: "its reason is out of date",
  confirmed: "confirmed",
  lower: "lower",
  end: "end",
  counts: (confirmed: number, lower: number, end: number) => `${confirmed} confirmed, ${lower} to lower, ${end} to end`,
};
