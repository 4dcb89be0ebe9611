/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";
import { counted } from "../../core/counted";

export const account = {
  howYouSignIn: "How you sign in",
  yourAccess: "Your access",
  houseRules: "House rules",
  signOut: "Sign out",
  notices: "Notices",
  dismiss: "Dismiss",
  approveASignIn: "Approve a sign-in",
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
  noticesByEmail: "Notices by email",
  lightAndDark: "Light and dark",
  sameAsTheSystem: "Same as the system",
  light: "Light",
  dark: "Dark",
  savedInThisBrowser: "Saved in this browser.",
  dismissAll: "Dismiss all",
  disconnect: "Disconnect",
};

export const connectLanyard = {
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
};

export const getLanyard = {
  lanyardIsGaltrysBrowser:
    "Lanyard is Galtry’s browser extension. With it you sign in to sites without being shown a password.",
  getLanyard: "Get Lanyard",
  downloadLanyard: (version: string) => `Download Lanyard ${version}`,
  downloadForFirefox: (version: string) => `Download Lanyard ${version} for Firefox`,
  firefoxInstallsIt:
    "Where your organisation has set Firefox up for it, Firefox asks whether to add Lanyard, and step 2 is not needed.",
  loadTemporary: "Load Temporary Add-on",
  untilItIsClosed: (place: ReactNode, button: ReactNode) => (
    <>
      Otherwise Lanyard can be loaded until Firefox is closed: save the file, open {place}, choose This Firefox, press{" "}
      {button} and choose the file.
    </>
  ),
  forFirefox: "Lanyard for Firefox",
  forOthers: "Lanyard for Chrome, Edge and others",
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

export const waysIn = {
  signInPassword: "Sign-in password",
  noneSet: "None set.",
  withASecondStep: "With a second step after it.",
  onItsOwn: "On its own. Add a passkey or one-time codes to make your sign-in stronger.",
  change: "Change",
  setOne: "Set one",
  passkey: "Passkey",
  anotherPasskey: "Another passkey",
  passkeyCalled: (name: string) => `Passkey: ${name}`,
  addedAndUsed: (added: string, used: string | null) =>
    `Added ${added}; ${used === null ? "not used yet" : `last used ${used}`}.`,
  whatAPasskeyIs: "Sign in with this device, a phone or a security key. Nothing to type, and no page can steal it.",
  addAPasskey: "Add a passkey",
  passkeyAdded: (name: string) => `The passkey ${name} has been added.`,
  rename: "Rename",
  renameKey: (name: string) => `Rename: ${name}`,
  remove: "Remove",
  removeKey: (name: string) => `Remove: ${name}`,
  removeCodes: "Remove: one-time codes",
  oneTimeCodes: "One-time codes",
  fromAnAppOnYourPhone: "Six digits from an app on your phone, after your sign-in password.",
  setUpCodes: "Set up one-time codes",
  turnOn: "Turn on",
  codesAreOn: "One-time codes are on. Create recovery codes next.",
  scanThis: "Scan this with any app for one-time codes, then enter the code it shows.",
  qrForTheApp: "QR code for the app",
  orType: "Or type the key:",
  codeOfTheApp: "Code the app shows",
  itCountsOnce: "One-time codes are asked for only after this code was right.",
  recoveryCodes: "Recovery codes",
  codesLeft: (left: number) =>
    left === 0 ? "None. They let you in when your phone is lost." : `${counted(left, "code")} left; each works once.`,
  createCodes: "Create recovery codes",
  createNewCodes: "Create new codes",
  keepThem:
    "Print these or keep them somewhere safe. Each signs you in once, after your sign-in password. They are shown only now.",
  print: "Print",
  copy: "Copy",
  copied: "Copied",
  done: "Done",
  changeSignInPassword: "Sign-in password",
  newPassword: "New sign-in password",
  passwordChanged: "Your sign-in password has been changed. Your other sessions have ended.",
  name: "Name",
};

export const noticeMail = {
  noMailIsSetUp: "This Galtry sends no email: notices are here and in the header only.",
  securityAlways: "Notices about your own sign-in always come by email, at once.",
  sorts: {
    requests: "Requests that wait for you",
    answers: "Answers to your requests",
    emergency: "Emergency use",
    ending: "Access that ends soon",
    rounds: "Rounds",
    upkeep: "What needs attention where you are a steward, once a week",
    watch: "Changes where you are a steward",
  },
  atOnce: "At once",
  daily: "Once a day, in one email",
  onlyInGaltry: "Only in Galtry",
};

export const accounts = {
  linkedAndUsed: (account: string, used: string | null) =>
    used === null ? `${account}, linked` : `${account}, last used ${used}`,
  notLinked: "not linked",
  linkItNow: (provider: string) => `Link your account now: you sign in at ${provider} again to show that it is yours.`,
  link: "Link",
  linkWith: (provider: string) => `Link your account at ${provider}`,
  unlink: "Unlink",
  unlinkFrom: (provider: string) => `Unlink your account at ${provider}`,
};

export const approveDevice = {
  approveASignIn: "Approve a sign-in",
  number: "Number",
  shownOnTheOther: "The six digits that your other device shows.",
  continueWord: "Continue",
  noSuchNumber: "No sign-in is waiting with this number. Check it, or show a new one.",
  itComesFrom: (browser: ReactNode, address: string, time: string) => (
    <>
      {browser}, from {address}, has been waiting since {time}. If you approve, it is signed in as you.
    </>
  ),
  onlyYourOwn: "Approve only a device in front of you. Nobody who works for Galtry or your organisation asks for this.",
  approve: "Approve",
  decline: "Decline",
  approved: "Approved. The other device is signed in.",
  declined: "Declined. The other device stays out.",
};
