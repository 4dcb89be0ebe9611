/** Every sentence and label of this area, in one place to be read. */
import { counted } from "../../src/core/counted";
export const main = {
  theButtonStaysOff: "The page’s own button stays switched off. What was typed is still there.",
  thisPageShowsNoSignInThat: "This page shows no sign-in that Lanyard can fill.",
  lanyardIsNotSure: "Lanyard is not sure that this page is for signing in. It typed nothing.",
  thePageAsksForLetters: "This page asks for letters of the password that Lanyard cannot tell. Type them yourself.",
  theFormOnThisPageSendsTo: "The form on this page sends to another site. Lanyard typed nothing.",
};

export const tags = {
  or: (name: string) => `or ${name}`,
  alt: "Alt ↓",
  yourAccessToHasEnded: (name: string) => `your access to ${name} has ended`,
  yourAccessTo: "Your access to ",
  hasEnded: " has ended",
  lanyardHasRemovedItsSession: (says: string) => `${says} Lanyard has removed its session from this browser.`,
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
  loginsForThisPage: (count: number) => `Lanyard: ${counted(count, "login")} for this page`,
  addLogin: "Add login",
  add: "Add ",
  to: " to ",
  vault: "Vault",
  entry: "Entry",
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
