/** Every sentence and label of this area, in one place to be read. */

import type { ReactNode } from "react";
import { agree, counted, listOf } from "../../core/counted";

export const firstSteps = {
  firstSteps: "First steps",
  done: "done:",
};

export const frontDesk = {
  found: "Found",
  youHaveNoAccessToAnythingYet: "You have no access to anything yet.",
  frontDesk: "Front desk",
  findAndSignIn: "Find, and sign in",
  whereDoYouWantToSignIn: "Where do you want to sign in?",
  enter: "Enter",
  signsInTo: (name: ReactNode) => <>signs in to {name}</>,
  opens: (name: ReactNode) => <>opens {name}</>,
  shiftEnter: "Shift Enter",
  opensItsEntry: (kbd: ReactNode) => <>{kbd} opens its entry</>,
  nextLine: (kbd: ReactNode) => <>{kbd} next line</>,
  moreTypeAFewLettersAbove: (count: string) => `${count} more: type a few letters above.`,
  waitingForYou: "Waiting for you",
  getLanyardAndConnectIt: "Get Lanyard and connect it",
  connectLanyard: "Connect Lanyard",
  passwordGenerator: "Password generator",
  pinned: "Pinned",
  newToYou: "New to you",
  endingSoon: "Ending soon",
  everything: "Everything",
  sealedSignIn: "Sealed sign-in",
  sealedSignInWithCode: "Sealed sign-in, with code",
  rejectedByTheSite: "rejected by the site",
  newFrom: (newFrom: string, part: string) => `new, from ${newFrom}${part}`,
  until: (time: string) => `until ${time}`,
  letters: "Letters",
  noLoginsYet: "No logins yet",
  addAnEntryToAVault: "add an entry to a vault",
  signInToASiteAsUsual: (link: ReactNode) => <>Sign in to a site as usual and let Lanyard add the login, or {link}.</>,
  whenAColleagueGivesYouAccessIt: "When a colleague gives you access, it appears here at once.",
  youCan: (sites: number, others: number) => (
    <>
      You can{" "}
      {sites > 0 && (
        <>
          sign in to <b>{counted(sites, "site")}</b>
        </>
      )}
      {sites > 0 && others > 0 && " and "}
      {others > 0 && (
        <>
          open <b>{counted(others, sites > 0 ? "other entry" : "entry")}</b>
        </>
      )}
    </>
  ),
  endsWithinAWeek: (count: number) => `${count} ${agree(count, "ends", "end")} within a week`,
  createAVaultThenAddALogin:
    "Create a vault, add a login to it, and give your colleagues access. The first steps lead you there.",
};

export const lanyardSide = {
  lanyard: "Lanyard",
  lookingForLanyardInThisBrowser: "Looking for Lanyard in this browser.",
  connectedInThisBrowserFor: (person: ReactNode) => <>Connected in this browser for {person}.</>,
  lanyardGaltrysBrowserExtension:
    "Lanyard, Galtry’s browser extension, is not installed in this browser. You need it to sign in from here.",
  getLanyard: "Get Lanyard",
  andUnpackIt: (a: ReactNode) => <>{a} and unpack it</>,
  loadItOnTheBrowsersExtensions: "Load it on the browser’s extensions page",
  comeBackHereAndConnectIt: "Come back here and connect it",
  checkAgain: "Check again",
  lanyardIsInThisBrowserButNot: "Lanyard is in this browser, but not connected to Galtry.",
  connectLanyard: "Connect Lanyard",
  testTheConnection: "Test the connection",
  testing: "Testing…",
  lanyardDidNotRespondReloadThis:
    "Lanyard did not respond. Reload this page; if that does not help, load Lanyard again.",
  lanyardCanConnectToGaltry: "Lanyard can connect to Galtry",
  lanyardCannotConnectToGaltry: "Lanyard cannot connect to Galtry: connect it again",
  itIsConnectedFor: (person: string | null | undefined) => `It is connected for ${person}`,
  itIsNotConnectedForAnyone: "It is not connected for anyone",
  itIsAllowedToSetCookies: "It is allowed to set cookies",
  itIsNotAllowedToSetCookies: "It is not allowed to set cookies: allow it on all sites",
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
  youCanRequestThese: "You can request these",
  steward: (part: string) => `Steward: ${part}`,
  noSteward: "No steward",
  requestAccessTo: (name: string) => `Request access to ${name}`,
  request: "Request",
};

export const nothingFound = {
  nothingMatches: (typed: string) => `Nothing you have access to matches “${typed}”.`,
  ifItIsElsewhereAsk: (names: string[]) => ` If it is elsewhere, ask ${listOf(names, "or")}.`,
};
