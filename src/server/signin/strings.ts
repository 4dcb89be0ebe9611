/** Every sentence and label of this area, in one place to be read. */
import { counted } from "../../core/counted";

export const didNotWork = {
  aNoteHasAtMost300Characters: "A note has at most 300 characters.",
  theyWrite: (note: string) => ` They write: “${note}”`,
  cannotSignInWith: (name: string, entry: string, did: string, noted: string, note: string) =>
    `${name} cannot sign in with ${entry}: ${did}. ${noted}${note}`,
  galtryHasNotSignedThemInThere: "Galtry has not signed them in there yet.",
  galtrysLastSignInForThemWorked: "Galtry’s last sign-in for them worked.",
  galtrysLastSignInForThemIt: (title: string) => `Galtry’s last sign-in for them: it ${title}.`,
  galtrysLastSignInForThemWas: "Galtry’s last sign-in for them was interrupted.",
};

export const sealed = {
  thisEntryHasNoSignInPage: "This entry has no sign-in page.",
  thisSignInHasAlreadyEnded: "This sign-in has already ended.",
  othersAreSigningInToTheSame: "Others are signing in to the same site. Try again in a minute.",
  thisSignInDoesNotExist: "This sign-in does not exist.",
};

export const askedCodes = {
  thisSignInHasAlreadyEnded: "This sign-in has already ended.",
  aCodeHasThreeTo20: "A code has 3 to 20 letters and digits.",
  theSignInNoLongerWaits: "The sign-in no longer waits for this code.",
  someoneElseHasEnteredIt: "Someone else has entered the code.",
};

export const testing = {
  couldNotSignInAtNight: (entry: string, title: string) =>
    `Galtry tested ${entry} at night and could not sign in: the site ${title}. Its sign-in steps show what happened.`,
};

export const nightTests = {
  isNotTestedAtNight: "This entry is not tested at night.",
  thisTestHasAlreadyEnded: "This test has already ended.",
};

export const changePassword = {
  hasAlreadyEnded: "This change has already ended.",
  noRuleAnyMore: "This password is not changed regularly any more.",
  isBeingChanged: "This password is being changed already.",
  firstDecide: "First decide which of the two passwords works.",
  notOfThisSite: (host: string) => `Enter the address of a page at ${host}, with https://.`,
  nothingToDecide: "Nothing has to be decided here any more.",
  someoneChangedIt: "Someone else has changed this entry. Nothing was sent.",
  othersAreSigningIn: "Others are signing in to the same site. Try again in a minute.",
  rejectedBefore: "The site rejected this password before. Correct it first, or press Try again on its sign-in steps.",
  enteredMeanwhile: "someone has entered another password",
  unexpected: "something unexpected went wrong",
  wasStopped: "Galtry was stopped",
  wouldBeInAnAddress: "the page would put the password into an address",
  asksForACode: "the site asks for a code that confirms the change",
  doubt: {
    accepted: "the site accepted it, but does not let Galtry in with it",
    rejected: "the site rejected it, and the old one could not be tried",
    stopped: "the page would put it into an address, and the old one could not be tried",
    "asks-code": "the site asks for a code that confirms the change, and the old one could not be tried",
    mails: "the site has sent an email: follow the link in it, then try the new password",
    unclear: "the site did not say",
  },
  whichOneWorks: (name: string) =>
    `Galtry changed the password of ${name} at its site, and it is not certain which one works. Galtry has both: decide on its sign-in steps.`,
};

export const changeByHand = {
  isBeingChanged: changePassword.isBeingChanged,
  firstDecide: changePassword.firstDecide,
  notOfThisSite: (host: string) => `This page does not belong to ${host}. Nothing was filled in.`,
  notEncrypted: "This page is not encrypted. Nothing was filled in.",
};

export const runs = {
  noSignInPage: (name: string) => `${name} has no sign-in page.`,
  waitForOne: "Five runs of yours are under way. Wait until one of them has ended.",
  hasAlreadyEnded: "This run has already ended.",
  notOverYet: "This run is still under way. Stop it first.",
  anEntry: "An entry to which you no longer have access",
  galtryWasStopped: "Galtry was stopped in the middle of it",
  unexpected: "Something unexpected went wrong",
  signedIn: "Galtry signed in",
  theSite: (title: string) => `The site ${title}`,
  isOver: (what: "change" | "test", good: number, of: number) =>
    what === "change"
      ? `The run has ended: ${good} of ${counted(of, "password")} changed.`
      : `The run has ended: ${good} of ${counted(of, "login")} signed in.`,
  notChangedByRule: (name: string, says: string) =>
    `The house rules say that Galtry changes the password of ${name} regularly. It was not changed: ${says}.`,
};
