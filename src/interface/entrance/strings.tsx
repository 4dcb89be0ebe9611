/** Every sentence and label of this area, in one place to be read. */

import type { ReactNode } from "react";
import { counted, listOf } from "../../core/counted";

export const entrance = {
  galtry: "Galtry",
};

export const handover = {
  thisLinkWasWithdrawnByThe: "This link was withdrawn by the person who created it.",
  thisLinkIsClosedAfterFiveWrong: "This link is closed after five wrong passphrases or codes. Ask for a new one.",
  thisLinkHasExpiredAskForA: "This link has expired. Ask for a new one.",
  thisLinkHasAlreadyBeenOpened: "This link has already been opened.",
  theEntryBehindThisLinkNoLonger: "The entry behind this link no longer exists.",
  thisLinkIsIncompleteCopyAllOf: "This link is incomplete. Copy all of it.",
  theEndOfThisLinkIsDamaged: "The end of this link is damaged. Copy it again, or ask for a new one.",
  somethingForYou: "Something for you",
  ofHasSentYouSomething: (from: ReactNode, organisation: string) => (
    <>
      {from} of {organisation} has sent you something.
    </>
  ),
  itWasOpened: (times: string) => `It was opened ${times}.`,
  ifThatWasNotYouTellAt: (from: string) => `If that was not you, tell ${from} at once.`,
  itCanBeOpenedUntilOpenIt: (time: string) =>
    `It can be opened until ${time}. Open it when you are alone with your screen.`,
  openIt: "Open it",
  codeFromTheEmail: "Code from the email",
  passphraseYouWereTold: "Passphrase you were told",
  aCodeIsOnItsWayTo: "A code is on its way to the email address this is for.",
  aCodeHasBeenSentToThe:
    "A code has been sent to the email address this is for. It works for ten minutes, in this browser.",
  theCodeCouldNotBeSentAsk: "The code could not be sent. Ask the person who sent you the link.",
  thisIsForOneEmailAddressAnd: "This is for one email address and opens with a code that is sent there.",
  sendAnotherCode: "Send another code",
  sendTheCode: "Send the code",
  saveItWhereNobodyElseCanRead:
    "Save it where nobody else can read it. For ten minutes you can open it again in this browser.",
  show: (label: string) => `Show ${label}`,
  show2: "Show",
  copy: (label: string) => `Copy ${label}`,
  copied: "Copied",
  copy2: "Copy",
  wrong: (what: string, left: number) => `The ${what} is wrong. ${counted(left, "attempt")} left.`,
};

export const letterbox = {
  somethingHasAlreadyBeenSent: "Something has already been sent through this letterbox. It can be used once.",
  thisLetterboxIsClosedAskThe: "This letterbox is closed. Ask the person who sent you the link.",
  thisLetterboxHasExpiredAskForA: "This letterbox has expired. Ask for a new one.",
  received: "Received",
  aLetterboxForYou: "A letterbox for you",
  itWasEncryptedWhenItArrived:
    "It was encrypted when it arrived. Nothing of it stays in this browser; you can close the page.",
  send: "Send",
  ofAsksYouForOnlyTheyAnd: (from: ReactNode, organisation: string, name: ReactNode, time: string) => (
    <>
      {from} of {organisation} asks you for {name}. Only they and the people they choose can read it; you cannot open it
      again. You can send once, until {time}.
    </>
  ),
  yourName: "Your name",
  optional: "Optional.",
  linkIncomplete: "This link is incomplete, or the letterbox no longer exists. Copy all of it.",
};

export const signIn = {
  signInWith: (provider: string) => `Sign in with ${provider}`,
  secondStep: "Second step",
  or: "or",
  signInWithAPasskey: "Sign in with a passkey",
  joinWithYourWorkEmail: "Join with your work email",
  signInToGaltry: "Sign in to Galtry",
  signIn: "Sign in",
  emailAddress: "Email address",
  signInPassword: "Sign-in password",
  approveOnAnotherDevice: "Approve on another device",
  forgottenPassword: "Forgotten your sign-in password?",
  helpWithSigningIn: "Help with signing in",
  noSignInPasswordYet: "No sign-in password yet? Ask an administrator for a sign-in link.",
  noSignInPasswordYetOrForgotten:
    "No sign-in password yet, or forgotten it? Ask an administrator for a new sign-in link.",
};

export const withLink = {
  joinWith: (provider: string) => `Join with ${provider}`,
  useAPasskeyInstead: "Use a passkey instead",
  welcome: (split: string | null | undefined) => `Welcome, ${split}`,
  welcome2: "Welcome",
  saveAndSignIn: "Save and sign in",
  chooseTheSignInPasswordFor: (mail: ReactNode) => <>Choose the sign-in password for {mail}.</>,
  signInPassword: "Sign-in password",
  setUpGaltry: "Set up Galtry",
  setUp: "Set up",
  youBecomeTheFirstOwnerThisPage: "You become the first owner. This page works once.",
  nameOfTheOrganisation: "Name of the organisation",
  yourName: "Your name",
  yourEmailAddress: "Your email address",
  yourSignInPassword: "Your sign-in password",
};

export const onOtherDevice = {
  approveOnAnotherDevice: "Approve on another device",
  typeThisNumber:
    "Where you are signed in already, open the page under your name, choose “Approve a sign-in” and enter this number:",
  theNumber: (number: string) => `The number: ${number.split("").join(" ")}`,
  validFor: (seconds: number) => `Valid for ${counted(seconds, "second")}. This page continues by itself.`,
  declined: "The sign-in was declined on the other device.",
  expired: "The number has expired.",
  showANewNumber: "Show a new number",
  back: "Back",
};

export const joinByMail = {
  joinGaltry: "Join Galtry",
  whoCanJoin: (domains: readonly string[]) =>
    `With an email address at ${listOf(domains, "or")} you can join without being invited. We email you a code.`,
  yourName: "Your name",
  emailAddress: "Email address",
  emailMeACode: "Email me a code",
  aCodeIsOnItsWay: (mail: string) => `A code is on its way to ${mail}. Check the spam folder too.`,
  code: "Code",
  theCodeHint: "Eight digits, from the email. It works for 15 minutes.",
  join: "Join",
  back: "Back",
  thisIsNotTheCode: "This is not the code, or it no longer works. Check it, or go back and ask for a new one.",
};

export const forgotten = {
  forgottenPassword: "Forgotten password",
  youGetALink: "You get an email with a link to set a new sign-in password. It works for one hour.",
  emailAddress: "Email address",
  emailMeALink: "Email me a link",
  aLinkIsOnItsWay: (mail: string) =>
    `If someone here signs in with ${mail}, a link is on its way. Check the spam folder too.`,
  back: "Back",
};

export const notMe = {
  itWasNotMe: "It was not me",
  whatHappens: (name: string) =>
    `${name}, this signs you out of Galtry everywhere, with every Lanyard, and withdraws your sign-in password. You set a new one next.`,
  administratorsAreTold: "Administrators are told, so that they can look at what was done.",
  signOutEverywhere: "Sign out everywhere",
  everythingHasEnded: "You are signed out everywhere.",
  changeItAt: (provider: string) =>
    `You are signed out everywhere. You sign in with ${provider}: change your password there now.`,
};

export const newPassword = {
  setANewPassword: "Set a new sign-in password",
  forWhom: (mail: string) => `For ${mail}. You are signed out everywhere, and sign in with it next.`,
  signInPassword: "Sign-in password",
  setPassword: "Set password",
  yourNewPasswordIsSet: "Your new sign-in password is set.",
  signIn: "Sign in",
};

export const addWay = {
  addAWayToSignIn: "Add a way to sign in",
  required: (needs: "second-step" | "passkey") =>
    needs === "passkey"
      ? "Your organisation requires a passkey or single sign-on. Add one here, then you continue where you were going."
      : "Your organisation requires a passkey, one-time codes or single sign-on beside the password. Add one here, then you continue where you were going.",
  signOut: "Sign out",
};
