/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";

export const account = {
  galtryThemePathSamesiteLaxMax: (value: string, part: number) =>
    `galtry_theme=${value}; Path=/; SameSite=Lax; Max-Age=${part}`,
  whatYouHave: "What you have",
  houseRules: "House rules",
  signOut: "Sign out",
  notices: "Notices",
  putAway: "Put away",
  whereYouAreSignedInTo: "Where you are signed in to Galtry",
  thisOne: "this one",
  fromSince: (address: string, time: string) => `from ${address}, since ${time}`,
  lastSeen: (time: string) => `last seen ${time}`,
  end: "End",
  yourLanyards: "Your Lanyards",
  getLanyard: "Get Lanyard",
  noBrowserIsConnected: (a: ReactNode) => <>No browser is connected. {a}</>,
  versionConnected: (version: string, time: string) => `version ${version}, connected ${time}`,
  lastUsed: (time: string) => `last used ${time}`,
  endTheLanyardIn: (browser: string) => `End the Lanyard in ${browser}`,
  lightAndDark: "Light and dark",
  asTheSystem: "As the system",
  light: "Light",
  dark: "Dark",
  keptInThisBrowser: "Kept in this browser.",
};

export const connectLanyard = {
  thisIsNotYourSignIn: "This is not your sign-in password.",
  connectingLanyardInThisBrowser: (person: ReactNode) => <>Connecting Lanyard in this browser for {person}.</>,
  connectLanyard: "Connect Lanyard",
  lanyardIsConnected: "Lanyard is connected.",
  frontDesk: "Front desk",
  youCanSignInFromThe: (b: ReactNode, a: ReactNode) => (
    <>
      {b} You can sign in from the {a} and from any site’s own page.
    </>
  ),
  thereIsNoLanyardInThis: "There is no Lanyard in this browser yet.",
  getLanyard: "Get Lanyard",
  connect: "Connect",
  pressInLanyardsWindowTheTag: (b: ReactNode) => (
    <>
      Press {b} in Lanyard’s window: the tag in the browser’s toolbar. It names this Galtry, and shows a code that you
      compare here.
    </>
  ),
  itIsTheSameConnect: "It is the same: connect",
  doNotConnect: "Do not connect",
  lanyardInAsksToWorkFor: (browser: ReactNode, person: ReactNode) => (
    <>
      Lanyard in {browser} asks to work for {person}. Its window shows this code:
    </>
  ),
  confirmOnlyIfLanyardsWindow:
    "Confirm only if Lanyard’s window shows the same eight letters. Whoever uses this browser afterwards can sign in with your keys.",
  yourSignInPassword: "Your sign-in password",
  yourSignInIsMoreThan: "your sign-in is more than five minutes old",
};

export const getLanyard = {
  lanyardIsGaltrysBrowser:
    "Lanyard is Galtry’s browser extension: with it colleagues sign in without being shown a password.",
  getLanyard: "Get Lanyard",
  downloadLanyard: (version: string) => `Download Lanyard ${version}`,
  unpackTheZipIntoAFolder: "Unpack the zip into a folder that stays where it is.",
  askWhoeverRunsGaltryLanyardHas: "Ask whoever runs Galtry: Lanyard has not been built on this server yet.",
  chromeExtensions: "chrome://extensions",
  developerMode: "Developer mode",
  loadUnpacked: "Load unpacked",
  openTheBrowsersPageOf: (span: ReactNode, b: ReactNode, b2: ReactNode) => (
    <>
      Open the browser’s page of extensions ({span}), switch on {b}, press {b2} and choose the folder.
    </>
  ),
  connectLanyard: "Connect Lanyard",
  connect: "Connect",
  comeBackToPressInLanyards: (a: ReactNode, b: ReactNode) => (
    <>
      Come back to {a}, press {b} in Lanyard’s window, and confirm here that both show the same code.
    </>
  ),
  lanyardAsksToReadAndChange:
    "Lanyard asks to read and change data on all sites: it has to see sign-in pages, and to set the cookies of the sessions that Galtry hands over.",
};
