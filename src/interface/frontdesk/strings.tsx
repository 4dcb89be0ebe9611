/** Every sentence and label of this area, in one place to be read. */

import type { ReactNode } from "react";
import { agree, counted, listOf } from "../../core/counted";

export const firstSteps = {
  firstSteps: "First steps",
  done: "done:",
  dismissList: "Dismiss list",
  sendIt: "Send it",
  install: {
    what: "Install Lanyard in this browser",
    why: "It signs you in; you never need to see a password. About two minutes.",
  },
  connect: { what: "Connect Lanyard", why: "It is in this browser, but does not know who you are yet." },
  installLanyard: "Install Lanyard",
  connectLanyard: "Connect Lanyard",
  signInTo: (name: string) => `Sign in to ${name}`,
  signInWhy: "Press Sign in, and you are there, without a password.",
  openIt: (name: string) => `Open ${name}`,
  secondWay: { what: "Add a second way to sign in", why: "For the day when a phone or a password is lost." },
  addAWay: "Add a way to sign in",
  ownLogin: {
    what: "Add a login from your own work",
    why: "Sign in to a site as usual, and Lanyard offers to add it. Your team then has it too.",
  },
  vault: { what: "Create a vault", why: "One for each team keeps access simple." },
  createAVault: "Create a vault",
  entries: { what: "Add five entries, or import a file", why: "Browsers can export the passwords they have saved." },
  toTheVaults: "Go to the vaults",
  people: { what: "Add three people", why: "Each gets a link to set up their own sign-in." },
  addPeople: "Add people",
  group: { what: "Create a group", why: "A team gets its access once, as a group." },
  toPeople: "Go to People",
  grant: { what: "Give someone access", why: "To a vault, a folder or one entry; to a person or a group." },
  toAccess: "Go to Access",
  mail: { what: "Send yourself a test email", why: "Links and notices go by email, once it arrives." },
  noMail: {
    what: "Set up email",
    why: "The person who runs Galtry does this on the server. Until then you pass links on yourself.",
  },
  backup: { what: "Make a backup", why: "On the server, by the command npm run backup. Once is enough for this list." },
  doneAlready: {
    lanyard: "Lanyard connected",
    "sign-in": "First sign-in to a site",
    "second-way": "Second way to sign in",
    "own-login": "Login added",
    vault: "Vault created",
    entries: "Entries added",
    people: "People added",
    group: "Group created",
    grant: "Access given",
    mail: "Email works",
    backup: "Backup made",
  },
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
  anAuditorReadsElsewhere:
    "An auditor signs in to no site. Who has what is under Access and People, and what happened in the Journal.",
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
