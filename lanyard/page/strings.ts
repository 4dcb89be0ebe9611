/** Every sentence and label of this area, in one place to be read. */
import { counted } from "../../src/core/counted";
export const main = {
  theButtonStaysOff: "The page’s own button stays switched off. What was typed is still there.",
  thisPageShowsNoSignInThat: "This page shows no sign-in that Lanyard can fill.",
  lanyardIsNotSure: "Lanyard is not sure that this page is for signing in. It typed nothing.",
  thePageAsksForLetters: "This page asks for letters of the password that Lanyard cannot tell. Type them yourself.",
  theFormOnThisPageSendsTo: "The form on this page sends to another site. Lanyard typed nothing.",
};

export const fieldTag = {
  loginsForThisPage: (count: number) => `Lanyard: ${counted(count, "login")} for this page`,
  newPassword: "Lanyard: new password",
  createAPassword: "Create a password",
  byThePagesRules: "to the page’s rules, if it has any",
  created: (characters: number) =>
    `Created and filled in: ${counted(characters, "character")}. Lanyard offers to add it once the page accepts it.`,
  couldNotBeFilledIn: "The page has changed. Nothing was filled in.",
  allLogins: (count: number) => `All ${counted(count, "login")}`,
  altDown: "Alt ↓",
  signInWith: (name: string) => `Sign in with ${name}`,
  fillWith: (name: string) => `Fill in ${name}`,
  fill: "Fill",
  fillAndSignIn: "Fill and sign in",
  signingIn: (name: string) => `Signing in with ${name}…`,
  filling: (name: string) => `Filling in ${name}…`,
  close: "Close",
  lanyardWasReloaded: "Lanyard is not responding",
  reloadThePage: "It was updated or disconnected. Reload the page and try again.",
};

export const changingTag = {
  changeThePassword: "change the password",
  changing: "Changing the password of ",
  openItsPage:
    "Open the page where the site lets you change it. Lanyard fills in the current password and a new one there.",
  fillsInBoth: "Lanyard fills in the current password and a new one. Galtry saves the new one first.",
  asksForCurrent: "The site asks for the current password again.",
  filledIn: "Filled in. Now send the page’s form.",
  asksAgain: "The page asks again. If the site has rejected the new password, fill in another one.",
  hasItAccepted: "Has the site accepted the new password? Galtry has both until you decide.",
  fillIn: "Fill in",
  fillInAgain: "Fill in again",
  fillInAnother: "Fill in another",
  useNew: "Use new password",
  keepOld: "Keep old password",
  cancel: "Cancel",
  decideLater: "Decide later",
  close: "Close",
  newStands: "The new password is the current version in Galtry.",
  oldStands: "The old password stays the current version in Galtry.",
  notDone: "Lanyard could not do this. Try again.",
};

export const tags = {
  yourAccessToHasEnded: (name: string) => `your access to ${name} has ended`,
  yourAccessTo: "Your access to ",
  hasEnded: " has ended",
  lanyardHasRemovedItsSession: (says: string) => `${says} Lanyard has removed its session from this browser.`,
  aCodeIsNeeded: "a code is needed",
  isSigningInTo: (person: string | null) =>
    person === null ? "You are signing in to " : `${person} is signing in to `,
  theSiteHasSentACode: "The site has sent a code. Enter it in Lanyard’s window; the sign-in waits for it.",
  enterTheCode: "Enter the code",
  addThisLogin: "add this login",
  userName: "User name",
  notNow: "Not now",
  neverOnThisSite: "Never on this site",
  itWasNotSavedTryAgain: "It was not saved. Try again.",
  userName2: "User name ",
  userNameIfThereIsOne: "User name, if the site has one ",
  saveTheNewPassword: "Save the new password",
  newPasswordFor: "New password for ",
  theSiteAcceptedAPasswordThat: "The site accepted a password that differs from the one in Galtry.",
  youHaveChangedItHere: "You have changed the password here. Without the new one Galtry can no longer sign in.",
  addLogin: "Add login",
  add: "Add ",
  to: " to ",
  vault: "Vault",
  entry: "Entry",
  isIn: (where: string) => ` is in ${where}.`,
  withSteps: (pages: number) =>
    ` Galtry signs in as you did, on ${pages === 1 ? "one page" : `${pages.toLocaleString("en-GB")} pages`}.`,
  open: "Open",
  undo: "Undo",
  undone: "Undone. It is in the bin of its vault.",
  learnTheSteps: "learn the sign-in steps",
  learning: "Learning how to sign in to ",
  signInAsUsual: "Sign in as you always do. Lanyard writes down what the pages do, and nothing that you type.",
  stepsSeen: (count: number) =>
    `${counted(count, "step")} seen. Once you are signed in, and past any question the site asks, save them.`,
  alsoGoesOver: (hosts: string) =>
    `The sign-in also goes over ${hosts}. If you save the steps, Galtry sends the password there too where the steps say so.`,
  saveSteps: "Save steps",
  cancel: "Cancel",
  stepsSaved: "Steps saved. Test them on the entry’s page of sign-in steps in Galtry.",
  close: "Close",
};
