/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";

export const account = {
  yourAccess: "Your access",
  houseRules: "House rules",
  signOut: "Sign out",
  notices: "Notices",
  dismiss: "Dismiss",
  whereYouAreSignedInToGaltry: "Where you are signed in to Galtry",
  thisOne: "this one",
  fromSince: (address: string, time: string) => `from ${address}, since ${time}`,
  lastSeen: (time: string) => `last seen ${time}`,
  yourLanyards: "Your Lanyards",
  getLanyard: "Get Lanyard",
  noBrowserIsConnected: (a: ReactNode) => <>No browser is connected. {a}</>,
  versionConnected: (version: string, time: string) => `version ${version}, connected ${time}`,
  lastUsed: (time: string) => `last used ${time}`,
  disconnectLanyardIn: (browser: string) => `Disconnect Lanyard in ${browser}`,
  lightAndDark: "Light and dark",
  sameAsTheSystem: "Same as the system",
  light: "Light",
  dark: "Dark",
  savedInThisBrowser: "Saved in this browser.",
  dismissAll: "Dismiss all",
  disconnect: "Disconnect",
};

export const connectLanyard = {
  wrongSignInPasswordTryAgain: "Wrong sign-in password. Try again.",
  connectingLanyardInThisBrowser: (person: ReactNode) => <>Connecting Lanyard in this browser for {person}.</>,
  connectLanyard: "Connect Lanyard",
  lanyardIsConnected: "Lanyard is connected.",
  frontDesk: "Front desk",
  youCanSignInFromTheAnd: (b: ReactNode, a: ReactNode) => (
    <>
      {b} You can sign in from the {a} and from any site’s own page.
    </>
  ),
  lanyardIsNotInstalledInThis: "Lanyard is not installed in this browser yet.",
  getLanyard: "Get Lanyard",
  connect: "Connect",
  openLanyardFromTheBrowsers: (b: ReactNode) => (
    <>Open Lanyard from the browser’s toolbar and press {b}. It shows a code to compare here.</>
  ),
  theCodesMatchConnect: "The codes match: connect",
  doNotConnect: "Do not connect",
  lanyardInWantsToConnectForIts: (browser: ReactNode, person: ReactNode) => (
    <>
      Lanyard in {browser} wants to connect for {person}. Its window shows this code:
    </>
  ),
  confirmOnlyIfLanyardsWindow:
    "Confirm only if Lanyard’s window shows the same eight letters. Anyone who uses this browser can then sign in with your logins.",
  yourSignInPassword: "Your sign-in password",
  neededBecauseYouSignedInMore: "needed because you signed in more than five minutes ago",
};

export const getLanyard = {
  lanyardIsGaltrysBrowser:
    "Lanyard is Galtry’s browser extension. With it you sign in to sites without being shown a password.",
  getLanyard: "Get Lanyard",
  downloadLanyard: (version: string) => `Download Lanyard ${version}`,
  unpackTheZipIntoAFolderThat: "Unpack the zip into a folder that stays where it is.",
  lanyardHasNotBeenBuiltOnThis: "Lanyard has not been built on this server yet. Ask the person who runs Galtry.",
  developerMode: "Developer mode",
  loadUnpacked: "Load unpacked",
  openTheBrowsersExtensionsPage: (span: ReactNode, b: ReactNode, b2: ReactNode) => (
    <>
      Open the browser’s extensions page ({span}), switch on {b}, press {b2} and choose the folder.
    </>
  ),
  connectLanyard: "Connect Lanyard",
  connect: "Connect",
  comeBackToPressInLanyards: (a: ReactNode, b: ReactNode) => (
    <>
      Come back to {a}, press {b} in Lanyard’s window, and confirm here that both show the same code.
    </>
  ),
  lanyardAsksForPermissionToRead:
    "Lanyard asks for permission to read and change data on all sites. It needs it to see sign-in pages and to set the cookies of the sessions that Galtry hands over.",
};
