/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";

export const askSheet = {
  signInWithItWithoutSeeing: "sign in with it, without seeing its password",
  alsoSeeItsUserNameAnd: "also see its user name and password",
  alsoChangeIt: "also change it",
  alsoDecideWhoMayDoWhat: "also decide who may do what with it",
  askedForOnYouAreTold: (levelWord: string, name: string) =>
    `Asked for ${levelWord} on ${name}. You are told when it is answered.`,
  askFor: (name: string) => `Ask for ${name}`,
  ask: "Ask",
  toBeAllowedTo: "To be allowed to",
  until: "Until",
  emptyForGood: "empty: for good",
  whatFor: "What for",
  willReadIt: (part: string) => `${part} will read it`,
  itsStewardWillReadIt: "its steward will read it",
};

export const askSide = {
  yesToTheSlipOf: (by: string) => `Yes, to the slip of ${by}`,
  yes: "Yes",
  no: "No…",
  sayNoToTheSlipOf: (by: string) => `Say no to the slip of ${by}`,
  slipsToLookAt: "Slips to look at",
  aSecondLookIsAskedOf: "A second look is asked of you",
  roundsToMake: "Rounds to make",
  roundsThatWaitForYou: "Rounds that wait for you",
  yesesToSay: "Yeses to say",
  askedFirst: "Asked first",
  slipsToAnswer: "Slips to answer",
  waitingForYourYes: "Waiting for your yes",
  requestsToAnswer: "Requests to answer",
  waitingForYourAnswer: "Waiting for your answer",
  endsWithinAWeek: "Ends within a week",
  youGaveEndingSoon: "You gave, ending soon",
  whatYouAskedFor: "What you asked for",
  hasDrafted: (by: ReactNode) => <>{by} has drafted:</>,
  sayIt: "Say it",
  whatShouldKnow: (by: string) => `What ${by} should know`,
  on: (who: ReactNode, levelWord: string) => (
    <>
      {who}: {levelWord} on{" "}
    </>
  ),
  until: (time: string) => `until ${time}`,
  twoWeeksLongerOn: (who: string, what: string) => `Two weeks longer: ${who} on ${what}`,
  twoWeeksLonger: "Two weeks longer",
  youSaidYesToAt: (person: string, entry: string) => `You said yes to ${person} at ${entry}.`,
  asksToUseFor: (person: ReactNode, entry: ReactNode, minutes: string) => (
    <>
      {person} asks to use {entry} for {minutes}
    </>
  ),
  from: (time: string, part: string) => `${time}, from ${part}`,
  youAreOneOfThem: "; you are one of them",
  ofStewardsHaveSaidYes: (said: number, needed: number, part: ReactNode) => (
    <>
      {said} of {needed} stewards have said yes{part}.
    </>
  ),
  yesToAt: (person: string, entry: string) => `Yes, to ${person} at ${entry}`,
  sayNoTo: (person: string) => `Say no to ${person}`,
  until2: (time: string) => ` until ${time}`,
  hasOn: (person: string, levelWord: string, node: string, until: string) =>
    `${person} has ${levelWord} on ${node}${until}.`,
  has: (levelWord: string) => `(has ${levelWord})`,
  asksForOn: (person: ReactNode, levelWord: ReactNode, node: ReactNode, until: string, levelWord2: ReactNode) => (
    <>
      {person} asks for {levelWord} on {node}
      {until} {levelWord2}
    </>
  ),
  theyAskedWhetherThereIsA: (site: string) =>
    `They asked whether there is a login for ${site}, and do not know of this one. Any answer tells them.`,
  yesTo: (person: string) => `Yes, to ${person}`,
  less: "Less…",
  passOn: "Pass on…",
  giveLessThanTheyAskedFor: (person: string) => `Give ${person} less than they asked for`,
  giveIt: "Give it",
  levelOn: (node: string) => `Level on ${node}`,
  until3: "Until",
  emptyNoEnd: "empty: no end",
  notLaterThanTheyAskedFor: "not later than they asked for",
  sayNo: "Say no",
  whyNot: "Why not",
  readsIt: (reader: string) => `${reader} reads it`,
  passItOnToAnotherSteward: "Pass it on to another steward",
  passItOn: "Pass it on",
  to: "To",
  but: (levelWord: string, part: string) => `, but ${levelWord}${part}`,
  on2: (levelWord: ReactNode) => <>{levelWord} on </>,
  notAnsweredYet: "not answered yet",
  takeBack: (node: string) => `Take back: ${node}`,
  takeBack2: "Take back",
  yes2: "yes",
  by: (by: string) => `by ${by}`,
  no2: "no",
  by2: (by: string) => `by ${by}: `,
};
