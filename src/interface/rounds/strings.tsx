/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";

export const roundAnswer = {
  on: (who: string, what: string) => `${who} on ${what}`,
  lowerTo: (levelWord: string) => `lower, to ${levelWord}`,
  undo: (ofWord: string) => `Undo: ${ofWord}`,
  undo2: "Undo",
  stays: (ofWord: string) => `Stays: ${ofWord}`,
  stays2: "Stays",
  lower: (ofWord: string) => `Lower: ${ofWord}`,
  lower2: "Lower",
  ends: (ofWord: string) => `Ends: ${ofWord}`,
  ends2: "Ends",
};

export const roundInGrid = {
  oddNotSaid: "odd, not said",
  notSaid: "not said",
  aRoundIsUnderWay: "A round is under way.",
  ofLookedThrough: (looked: number, linesCount: number) => `${looked} of ${linesCount} looked through`,
  theNextOne: "The next one",
  finishTheRound: "Finish the round",
  asAList: "As a list",
  theRestInTheList: "The rest, in the list",
  c: "C",
  l: "L",
  e: "E",
  u: "U",
  n: "N",
  staysLowerEndsNotSaidThe: (kbd: ReactNode, kbd2: ReactNode, kbd3: ReactNode, kbd4: ReactNode, kbd5: ReactNode) => (
    <>
      {kbd} stays, {kbd2} lower, {kbd3} ends, {kbd4} not said, {kbd5} the next one
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
  aRecordIsNotChangedAny: (link: ReactNode, link2: ReactNode, name: ReactNode) => (
    <>
      {link} · {link2} · {name}. A record is not changed any more.
    </>
  ),
  roundOf: (name: string) => `Round of ${name}`,
  csv: "CSV",
  print: "Print",
  read: (exactTime: string) => `Read ${exactTime}.`,
  begunFinishedByWhatWasTo: (
    exactTime: string,
    exactTime2: string,
    by: ReactNode,
    counts: string,
    exactTime3: ReactNode,
  ) => (
    <>
      Begun {exactTime}, finished {exactTime2} by {by}: {counts}. What was to be lowered or ended went on a change slip;
      the Journal says when it was applied. {exactTime3}
    </>
  ),
};

export const roundsPage = {
  access: "Access",
  youAreAskedForThisOne: "You are asked for this one.",
  isAskedForThisOneYou: (asked: string | null | undefined) => `${asked} is asked for this one; you may answer too.`,
  inARoundItsStewardsLook: (link: ReactNode, name: ReactNode, part: ReactNode) => (
    <>
      {link} · {name}. In a round its stewards look through who has what. {part}
    </>
  ),
  roundOf: (name: string) => `Round of ${name}`,
  roundsOf: (name: string) => `Rounds of ${name}`,
  beginARoundNow: "Begin a round now",
  finished: "Finished",
  by: (time: string, by: string) => `${time}, by ${by}`,
  theOldestStewardIsAskedTold:
    "The oldest steward is asked, told again after a week, and after two the next one is asked.",
  aRoundBeginsByItself: "A round begins by itself",
  never: "never",
  everyMonth: "every month",
  everyMonths: (months: number) => `every ${months} months`,
  theRoundIsFinishedNothing: "The round is finished: nothing changes.",
  oneChangeWaits: "One change waits",
  changesWait: (changes: number) => `${changes} changes wait`,
  theRoundIsFinishedOnYour: (part: string) => `The round is finished. ${part} on your change slip.`,
  by2: (startedBy: string) => ` by ${startedBy}`,
  asItsTimeHadCome: ", as its time had come",
  didNotAnswer: (part: string) => ` ${part} did not answer.`,
  c: "C",
  l: "L",
  e: "E",
  u: "U",
  inTheGrid: "in the grid",
  begunNothingChangesBeforeThe: (
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
      Begun {time}
      {part}.{part2} Nothing changes before the slip at the end is applied. {kbd} stays, {kbd2} one level lower, {kbd3}{" "}
      ends, {kbd4} not said yet, arrows move. It is also {link}.
    </>
  ),
  lookedThrough: "Looked through",
  ofLookedThrough: (looked: number, linesCount: number) => `${looked} of ${linesCount} looked through`,
  finishTheRound: "Finish the round",
  whoHasWhat: "Who has what",
  notSaidYet: "Not said yet",
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
};

export const words = {
  hasLeftOrIsSuspended: "has left or is suspended",
  guestWithoutAnEnd: "guest without an end",
  notUsedFor90Days: "not used for 90 days",
  hasAsMuchAnotherWay: "has as much another way",
  itsReasonHasPassed: "its reason has passed",
  confirmedToBeLoweredToBe: (count: number, count2: number, count3: number) =>
    `${count} confirmed, ${count2} to be lowered, ${count3} to be ended`,
};
