/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";

export const entrance = {
  galtry: "Galtry",
};

export const handover = {
  thisLinkWasWithdrawnByWhoever: "This link was withdrawn by whoever made it.",
  thisLinkIsClosedAWrong: "This link is closed: a wrong word or code was given five times. Ask for a new one.",
  thisLinkHasRunOutAsk: "This link has run out. Ask for a new one.",
  thisLinkHasBeenOpenedAlready: "This link has been opened already.",
  whatThisLinkWasForIs: "What this link was for is not there any more.",
  thisLinkIsNotWholeCopy: "This link is not whole. Copy all of it, up to its end.",
  oneTryIs: "One try is",
  triesAre: (triesLeft: number) => `${triesLeft} tries are`,
  theIsNotRightLeft: (asked: string, left: string) => `The ${asked} is not right. ${left} left.`,
  theEndOfThisLinkIs: "The end of this link is damaged: it does not open what was sent. Ask for a new one.",
  somethingForYou: "Something for you",
  ofHandsSomethingOverToYou: (from: ReactNode, organisation: string) => (
    <>
      {from} of {organisation} hands something over to you.
    </>
  ),
  itWasOpened: (times: string) => `It was opened ${times}.`,
  wasThatNotYouTellAt: (from: string) => `Was that not you? Tell ${from} at once.`,
  itCanBeOpenedUntilOpen: (time: string) =>
    `It can be opened until ${time}. Open it when you are alone with your screen.`,
  openIt: "Open it",
  theCodeFromTheMail: "The code from the mail",
  theWordYouWereTold: "The word you were told",
  aCodeIsOnItsWay: "A code is on its way to the mail address that this is for.",
  aCodeHasGoneToThe: "A code has gone to the mail address that this is for. It works for ten minutes, in this browser.",
  theCodeCouldNotBeMailed: "The code could not be mailed. Ask whoever sent you the link.",
  thisIsForOneMailAddress: "This is for one mail address, and opens with a code that is sent there.",
  sendAnotherCode: "Send another code",
  sendMeTheCode: "Send me the code",
  keepItWhereNobodyElseReads:
    "Keep it where nobody else reads it. For ten minutes it can be opened again in this browser.",
  show: (label: string) => `Show ${label}`,
  show2: "Show",
  copy: (label: string) => `Copy ${label}`,
  copied: "Copied",
  copy2: "Copy",
};

export const letterbox = {
  somethingWasDroppedInHere: "Something was dropped in here already. It takes one thing, once.",
  thisLetterboxIsClosedAsk: "This letterbox is closed. Ask whoever sent you the link.",
  thisLetterboxHasRunOutAsk: "This letterbox has run out. Ask for a new one.",
  itIsIn: "It is in",
  aLetterboxForYou: "A letterbox for you",
  itWasSealedAsItArrived: "It was sealed as it arrived. Nothing of it is kept in this browser; you can close the page.",
  dropItIn: "Drop it in",
  ofAsksYouForWhatYou: (from: ReactNode, organisation: string, name: ReactNode, time: string) => (
    <>
      {from} of {organisation} asks you for {name}. What you drop in can be read by those whom they let, and not by you
      again. It takes one thing, once, until {time}.
    </>
  ),
  yourName: "Your name",
  ifYouLike: "if you like",
};

export const signIn = {
  signInToGaltry: "Sign in to Galtry",
  signIn: "Sign in",
  mailAddress: "Mail address",
  signInPassword: "Sign-in password",
  noSignInPasswordYetOr: "No sign-in password yet, or forgotten? Ask an administrator for a new link.",
};

export const withLink = {
  atLeast12CharactersThreeOr: "at least 12 characters; three or four words do well. It is for Galtry alone.",
  theTwoAreNotTheSame: "The two are not the same.",
  welcome: (split: string | null | undefined) => `Welcome, ${split}`,
  welcome2: "Welcome",
  setItAndSignIn: "Set it and sign in",
  setTheSignInPasswordWith: (mail: ReactNode) => (
    <>Set the sign-in password with which you come in from now on, as {mail}.</>
  ),
  signInPassword: "Sign-in password",
  onceMore: "Once more",
  setUpGaltry: "Set up Galtry",
  setUp: "Set up",
  youBecomeTheFirstOwnerThis: "You become the first owner. This page works once.",
  nameOfTheOrganisation: "Name of the organisation",
  yourName: "Your name",
  yourMailAddress: "Your mail address",
  yourSignInPassword: "Your sign-in password",
};

export const takeLink = {
  ifIncludesLocationPathname: (stringify: string) => `(() => {
  if (!${stringify}.includes(location.pathname) || location.hash.length < 2) return;
  window.galtryLink = location.hash.slice(1);
  history.replaceState(null, "", location.pathname);
})();`,
};
