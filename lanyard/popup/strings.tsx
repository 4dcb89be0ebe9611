/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";

export const main = {
  galtry: "Galtry",
  thisIsNotTheAddressOf: "This is not the address of a Galtry.",
  notConnectedToGaltry: "Not connected to Galtry",
  endedThisConnection: (by: string) => `${by} ended this connection`,
  thisConnectionWasEnded: "This connection was ended",
  on: (toLocaleString: string) => ` on ${toLocaleString}`,
  thisPageSaysThatItIs: (hostOf: ReactNode) => (
    <>This page says that it is the Galtry at {hostOf}. Connect only if that is your organisation’s.</>
  ),
  noKeyCanBeUsedIn: "No key can be used in this browser until somebody connects it.",
  addressOfYourGaltry: "Address of your Galtry",
  connect: "Connect",
  isThisTheCodeInGaltry: "Is this the code in Galtry?",
  aPageHasOpenedWhereYou:
    "A page has opened where you are signed in. Confirm there if it shows the same eight letters.",
  minute: "minute",
  minutes: "minutes",
  goodForMore: (minutes: number, part: string) => `Good for ${minutes} more ${part}.`,
  openThatPageAgain: "Open that page again",
  stop: "Stop",
  connectedFor: (person: string) => `Connected for ${person}`,
  toAt: (organisation: string, hostOf: ReactNode) => (
    <>
      To {organisation}, at {hostOf}.
    </>
  ),
  endingTheConnectionRemovesThe:
    "Ending the connection removes the cookies that Lanyard set: sites that were opened with a key are left signed out in this browser.",
  endThisConnection: "End this connection",
  back: "Back",
  galtryDoesNotAnswer: "Galtry does not answer",
  lastReachedAt: (toLocaleTimeString: string) => `Last reached at ${toLocaleTimeString}. `,
  lanyardTriesAgainByItself: (part: string) => `${part}Lanyard tries again by itself.`,
  signingInWithAKeyNeeds:
    "Signing in with a key needs Galtry. A login you type by hand now will be offered for keeping once it answers.",
  tryNow: "Try now",
  thisIsNot: (name: string) => `This is not ${name}`,
  youAreAt: "You are at",
  yourKeyIsFor: "Your key is for",
  lanyardDoesNothingHereIf: "Lanyard does nothing here. If somebody sent you this address, tell an administrator.",
  goTo: (site: string) => `Go to ${site}`,
  youAreSignedInAtAlready: (site: string) => `You are signed in at ${site} already`,
  thisBrowserHoldsCookiesOfThat: (site: string, name: string) =>
    `This browser holds cookies of ${site} that Lanyard did not set. Signing in with ${name} replaces that session.`,
  replaceIt: "Replace it",
  leaveIt: "Leave it",
  signingInTo: (name: string) => `Signing in to ${name}`,
  opening: (site: string) => `Opening ${site}`,
  signedInTo: (name: string) => `Signed in to ${name}`,
  itIsOpenInATab: "It is open in a tab of its own.",
  close: "Close",
  notSignedInTo: (name: string) => `Not signed in to ${name}`,
  inDetail: (detail: string) => `In detail: ${detail}.`,
  withGuardedFillLanyardTypesThe:
    "With guarded fill, Lanyard types the password in the page and sends it at once. Somebody with developer tools could see it. You will count among those who have seen it.",
  openThePage: "Open the page",
  openThePageToFill: "Open the page to fill",
  lanyardCouldNotFillThisPage: "Lanyard could not fill this page.",
  fillAndSignIn: "Fill and sign in",
  youAreAt2: (here: ReactNode, part: ReactNode) => (
    <>
      You are at {here}
      {part}
    </>
  ),
  sealedSignInWithCode: "Sealed sign-in, with code.",
  sealedSignIn: "Sealed sign-in.",
  from: (part: string, vault: string) => `${part} From ${vault}.`,
  signIn: "Sign in",
  noKeyForThisPage: "No key for this page.",
  ifYouHaveALoginOf: (b: ReactNode) => (
    <>{b} If you have a login of your own here, sign in, and Lanyard offers to keep it.</>
  ),
  findAnotherKey: "Find another key",
  noKeyOfYoursIsCalled: "No key of yours is called that.",
  askedWhoeverLooksAfterALogin: (here: string) =>
    `Asked. Whoever looks after a login for ${here}, if there is one, answers you in Galtry.`,
  askWhetherThereIsOne: "Ask whether there is one",
  whatDoYouNeedItFor: "What do you need it for?",
  ask: "Ask",
  signInTo: (name: string) => `Sign in to ${name}`,
};
