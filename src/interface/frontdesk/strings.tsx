/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";

export const firstSteps = {
  firstSteps: "First steps",
  done: "done:",
};

export const frontDesk = {
  found: "Found",
  nothingHasBeenGivenToYou: "Nothing has been given to you yet.",
  youCan: "You can ",
  signInTo: (count: ReactNode) => <>sign in to {count}</>,
  and: " and ",
  otherThing: "other thing",
  open: (count: ReactNode) => <>open {count}</>,
  oneEnds: "one ends",
  end: (ending: number) => `${ending} end`,
  withinAWeek: (part: string) => `${part} within a week`,
  frontDesk: "Front desk",
  findAndSignIn: "Find, and sign in",
  whereDoYouWantToSign: "Where do you want to sign in?",
  enter: "Enter",
  signsInTo: (name: ReactNode) => <>signs in to {name}</>,
  opens: (name: ReactNode) => <>opens {name}</>,
  shiftEnter: "Shift Enter",
  opensItsEntry: (kbd: ReactNode) => <>{kbd} opens its entry</>,
  nextLine: (kbd: ReactNode) => <>{kbd} next line</>,
  moreTypeAFewLettersAbove: (toLocaleString: string) => `${toLocaleString} more: type a few letters above.`,
  waitingForYou: "Waiting for you",
  getLanyardAndConnectIt: "Get Lanyard and connect it",
  connectLanyard: "Connect Lanyard",
  makeAPassword: "Make a password",
  pinned: "Pinned",
  newToYou: "New to you",
  endingSoon: "Ending soon",
  everything: "Everything",
  sealedSignIn: "Sealed sign-in",
  sealedSignInWithCode: "Sealed sign-in, with code",
  refusedByTheSite: "refused by the site",
  newFrom: (newFrom: string, part: string) => `new, from ${newFrom}${part}`,
  until: (time: string) => `until ${time}`,
  letters: "Letters",
  nothingToSignInToYet: "Nothing to sign in to yet",
  addAnEntryToAVault: "add an entry to a vault",
  signInToASiteAs: (link: ReactNode) => <>Sign in to a site as usual and let Lanyard keep the login, or {link}.</>,
  asSoonAsAColleagueGives:
    "As soon as a colleague gives you access to something, it stands here by itself: no need to load the page again.",
};

export const lanyardSide = {
  lanyard: "Lanyard",
  lookingForLanyardInThisBrowser: "Looking for Lanyard in this browser.",
  connectedInThisBrowserFor: (person: ReactNode) => <>Connected in this browser for {person}.</>,
  lanyardGaltrysBrowserExtension:
    "Lanyard, Galtry’s browser extension, is not in this browser. Without it nothing can be signed in to from here.",
  getLanyard: "Get Lanyard",
  andUnpackIt: (a: ReactNode) => <>{a} and unpack it</>,
  loadItInTheBrowsersOwn: "Load it in the browser’s own page of extensions",
  comeBackHereAndConnectIt: "Come back here and connect it",
  lookAgain: "Look again",
  lanyardIsInThisBrowserBut: "Lanyard is in this browser, but not connected to Galtry.",
  connectLanyard: "Connect Lanyard",
  testTheConnection: "Test the connection",
  testing: "Testing.",
  lanyardDidNotAnswerReloadThis: "Lanyard did not answer. Reload this page; if that does not help, load Lanyard again.",
  lanyardReachesGaltry: "Lanyard reaches Galtry",
  lanyardDoesNotReachGaltry: "Lanyard does not reach Galtry: connect it again",
  itIsConnectedFor: (person: string | null | undefined) => `It is connected for ${person}`,
  itIsConnectedForNobody: "It is connected for nobody",
  itMaySetCookies: "It may set cookies",
  itMayNotSetCookiesAllow: "It may not set cookies: allow it on all sites",
  version: (version: string) => `Version ${version}`,
  works: "works",
  doesNotWork: "does not work",
};

export const line = {
  signInTo: (name: string) => `Sign in to ${name}`,
  open: (name: string) => `Open ${name}`,
  signIn: "Sign in",
  open2: "Open",
};

export const listedFound = {
  canBeAskedFor: "Can be asked for",
  lookedAfterBy: (part: string) => `looked after by ${part}`,
  nobodyLooksAfterItNow: "nobody looks after it now",
  askFor: (name: string) => `Ask for ${name}`,
  ask: "Ask",
};

export const nothingFound = {
  ask: (names: string) => `: ask ${names}.`,
  nothingThatYouCanReachIs: (typed: string, part: string) =>
    `Nothing that you can reach is called “${typed}”. It may be kept where you have no access${part}`,
  or: (part: string, part2: string | null | undefined) => `${part} or ${part2}`,
};
