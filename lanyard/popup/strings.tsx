/** Every sentence and label of this area, in one place to be read. */

import type { ReactNode } from "react";
import { counted } from "../../src/core/counted";
import { approveDevice } from "../../src/interface/account/strings";

export const entriesForForm = {
  heading: "Fill in this form",
  kinds: {
    card: "Payment card",
    "postal-address": "Postal address",
    contact: "Contact",
    "identity-paper": "Identity paper",
  },
  fillIn: "Fill in",
  fillInWith: (name: string) => `Fill in ${name}`,
  filledIn: (fields: number) =>
    fields > 0 ? `Filled in: ${counted(fields, "field")}.` : "The page has changed. Nothing was filled in.",
  showAll: (count: number) => `Show all ${count}`,
};

export { codesAsked } from "../../src/interface/frame/strings";

export const main = {
  galtry: "Galtry",
  thereIsNoGaltryAtThisAddress: "There is no Galtry at this address. Check the spelling.",
  notConnectedToGaltry: "Not connected to Galtry",
  disconnectedLanyardInThis: (by: string) => `${by} disconnected Lanyard in this browser`,
  lanyardWasDisconnectedInThis: "Lanyard was disconnected in this browser",
  on: (count: string) => ` on ${count}`,
  thisPageSaysItIsTheGaltry: (hostOf: ReactNode) => (
    <>This page says it is the Galtry at {hostOf}. Connect only if that is your organisation’s.</>
  ),
  connectLanyardAgainToSignIn: "Connect Lanyard again to sign in from this browser.",
  addressOfYourGaltry: "Address of your Galtry",
  connect: "Connect",
  doesGaltryShowThisCode: "Does Galtry show this code?",
  galtryHasOpenedInATabConfirm: "Galtry has opened in a tab. Confirm there if it shows the same eight letters.",
  openTheTabAgain: "Open the tab again",
  stop: "Stop",
  connectedFor: (person: string) => `Connected for ${person}`,
  toAt: (organisation: string, hostOf: ReactNode) => (
    <>
      To {organisation}, at {hostOf}.
    </>
  ),
  loginsAreNotOffered: "Lanyard never offers to add logins at:",
  offerAgain: "Offer again",
  offerAgainAt: (site: string) => `Offer again: ${site}`,
  disconnectingRemovesTheCookies: "Disconnecting removes the cookies Lanyard set and signs you out of those sites.",
  disconnect: "Disconnect",
  showMyLoginsAtFields: "Show my logins at a page’s fields. Otherwise press Alt and the down arrow there.",
  fillInWhenItOpens: "Fill in as this page opens",
  notices: (count: number) => counted(count, "notice"),
  openInGaltry: "Open in Galtry",
  approveASignIn: "Approve a sign-in…",
  back: "Back",
  galtryIsNotResponding: "Galtry is not responding",
  lastReachedAt: (time: string) => `Last reached at ${time}. `,
  lanyardKeepsTrying: (part: string) => `${part}Lanyard keeps trying.`,
  youCannotSignInWithGaltrys:
    "You cannot sign in with Galtry’s logins until it responds. A login you type yourself now is offered to be added later.",
  tryAgainNow: "Try again now",
  thisIsNot: (name: string) => `This is not ${name}`,
  youAreAt: "You are at",
  yourLoginIsFor: "Your login is for",
  lanyardDoesNothingHereIf: "Lanyard does nothing here. If someone sent you this address, tell an administrator.",
  goTo: (site: string) => `Go to ${site}`,
  youAreAlreadySignedInAt: (site: string) => `You are already signed in at ${site}`,
  thisBrowserHasCookiesOfThat: (site: string, name: string) =>
    `This browser has cookies of ${site} that Lanyard did not set. Signing in with ${name} replaces that session.`,
  replaceSession: "Replace session",
  renewSession: "Keep session",
  signingInTo: (name: string) => `Signing in to ${name}`,
  opening: (site: string) => `Opening ${site}`,
  signedInTo: (name: string) => `Signed in to ${name}`,
  itIsOpenInItsOwnTab: "It is open in its own tab.",
  close: "Close",
  notSignedInTo: (name: string) => `Not signed in to ${name}`,
  details: (detail: string) => `Details: ${detail}.`,
  withGuardedFillLanyardTypesThe:
    "With guarded fill, Lanyard types the password into the page and sends it at once. Someone with developer tools could see it. You count under Seen by.",
  openThePage: "Open the page",
  setByTheOrganisation: "Your organisation has set this address for this browser.",
  theHouseRulesSayNo: "The house rules do not let you use Lanyard.",
  anOwnerCanChangeThat:
    "It stays connected, and works again when you join a group that can use it. Ask an owner of your Galtry.",
  openAndAnswer: "Open the site and answer",
  withGuardedFillLanyardAnswers:
    "With guarded fill Lanyard answers that window with the user name and password. The browser remembers them until it is closed.",
  openThePageAndFill: "Open the page and fill",
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
  noLoginForThisPage: "No login for this page.",
  signInWithOneYouKnowAnd: (b: ReactNode) => <>{b} Sign in with one you know, and Lanyard offers to add it.</>,
  findAnotherLogin: "Find another login",
  noneOfYourLoginsMatches: "None of your logins matches.",
  requestSentIfThereIsALogin: (here: string) =>
    `Request sent. If there is a login for ${here}, its steward answers in Galtry.`,
  requestALoginForThisSite: "Request a login for this site",
  reason: "Reason",
  sendRequest: "Send request",
  signInTo: (name: string) => `Sign in to ${name}`,
  validFor: (minutes: number) => `Valid for ${counted(minutes, "more minute")}.`,
  logins: (count: number) => `: ${counted(count, "login")}`,
};

/** In the words of the page that does the same, and with what only the window needs. */
export const approving = {
  ...approveDevice,
  shownOnTheOther: "Number: the six digits that your other device shows",
  signInPassword: "Sign-in password",
  withoutOne: (inGaltry: ReactNode) => <>Without a password, approve {inGaltry} with a passkey.</>,
  inGaltry: "in Galtry",
  cancel: "Cancel",
  done: "Done",
};

export const changingByHand = {
  changing: (name: string) => `Changing the password of ${name}`,
  says: "Fill in both on the page where the site lets you change it, or copy them: Galtry saves the new one first.",
  fillIn: "Fill in",
  isFilledIn: "Filled in. Now send the page’s form.",
  current: "Current password",
  fresh: "New password",
  copyCurrent: "Copy current password",
  copyNew: "Copy new password",
  copied: (which: string) => `${which} copied.`,
  couldNotBeCopied: "It could not be copied.",
  useNew: "Use new password",
  keepOld: "Keep old password",
  stop: "Stop",
};

export const createPassword = {
  newPassword: "New password",
  createAPassword: "Create password",
  characters: (count: number) => `${counted(count, "character")}.`,
  charactersByRules: (count: number) => `${counted(count, "character")}, by this page’s rules.`,
  thenLanyardOffersToAdd: "Once you have registered, Lanyard offers to add the login.",
  thenLanyardOffersToSave: "Once the site has accepted it, Lanyard offers to save it in Galtry.",
  fillIn: "Fill in",
  filledIn: (fields: number) => `Filled into ${counted(fields, "field")}.`,
  thePageHasChanged: "The page has changed. Nothing was filled in.",
  copy: "Copy",
  copied: "Copied.",
  couldNotBeCopied: "It could not be copied. Select it and copy it yourself.",
  createAnother: "Create another",
};
