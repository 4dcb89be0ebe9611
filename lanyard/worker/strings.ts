/** Every sentence and label of this area, in one place to be read. */
import { counted } from "../../src/core/counted";
export const api = {
  lanyardIsNotConnectedToGaltry: "Lanyard is not connected to Galtry.",
  galtryIsNotResponding: "Galtry is not responding.",
  galtrysResponseCouldNotBe: "Galtry’s response could not be understood.",
};

export const capture = {
  noLongerHeld: "Lanyard keeps what was typed for five minutes at most, and no longer has it. Sign in again to add it.",
  itWasNotSavedTryAgain: "It was not saved. Try again.",
};

export const connection = {
  thisBrowserConnectsOnlyTo: (host: string) => `Your organisation lets this browser connect to ${host} only.`,
  on: (brand: string, version: string, platform: string) => `${brand} ${version} on ${platform}`,
  aBrowser: "a browser",
  thereIsNoGaltryAtThisAddress: "There is no Galtry at this address. Check the spelling.",
  disconnectedInTheBrowser: "disconnected in the browser",
  learnsAtOnceWhenAccessToA: "Learns at once when access to a login ends.",
};

export const icon = {
  lanyardNotConnected: "Lanyard: not connected",
  lanyardTheHouseRulesSayNo: "Lanyard: the house rules do not let you use it",
  code: "code",
  lanyardACodeIsNeeded: "Lanyard: someone waits for a code that you receive",
  lanyardGaltryIsNotResponding: "Lanyard: Galtry is not responding",
  lanyardConnectedAs: (person: string, part: string) => `Lanyard: connected as ${person}${part}`,
  forThisPage: (count: number) => `, ${counted(count, "login")} for this page`,
};

export const main = {
  loginsForThisPage: "Logins for this page",
  youAreSignedInHere: "You are already signed in here",
  lanyardsWindowAsks: "Lanyard’s window asks whether to replace that session.",
  notSignedIn: "Not signed in",
  lanyardIsConnectedToAnother: "Lanyard is connected to another Galtry, or to none.",
};

export const signIn = {
  youNoLongerHaveAccessToThis: "You no longer have access to this login.",
  galtryIsNotRespondingYouCannot: "Galtry is not responding. You cannot sign in with its logins until it does.",
  somethingWentWrongInLanyard: "Something went wrong in Lanyard.",
  galtryCouldNotDoThisTryAgain: "Galtry could not do this. Try again.",
  galtryWasInterruptedTryAgain: "Galtry was interrupted. Try again.",
  theSiteLetsNothingBeStored: "The site’s session could not be put into this browser. Try again.",
  theSitesCookiesAreNotForThis: "The site’s cookies are not for this entry’s site. Lanyard set none.",
  guardedFillTypesOnlyAtOpenThat: (hostOf: string | null | undefined) =>
    `Guarded fill types only at ${hostOf}. Open that page first.`,
  thePageHasChangedLanyardTyped: "The page has changed. Lanyard typed nothing.",
  lanyardIsNotReadyOnThisPage: "Lanyard is not ready on this page. Reload it.",
  thePageIsClosed: "The page is closed.",
};

export const basicAuth = {
  guardedFillIsOff: "Guarded fill is off for this entry. Its steward can switch it on.",
  theSiteRejectedThem: "The site rejected the user name or password.",
  theSiteDidNotAsk: "The site did not ask for a user name and password. Perhaps it knows you already.",
  galtryDidNotAnswer: "Galtry did not answer. Nothing was sent.",
};

export const forms = {
  thePageIsClosed: "The page is closed.",
  theFormIsGone: "This page shows no form that Lanyard can fill in any more.",
  thePageHasChanged: "The page has changed. Nothing was filled in.",
  couldNotBeFilledIn: "It could not be filled in. Try again.",
};

export const changing = {
  youHaveNoAccessToThis: "You have no access to this login.",
  notChangingAnyMore: "This password is not being changed here any more. Start again from its sign-in steps in Galtry.",
  nothingToFillIn: "This page asks for no password that Lanyard can fill in. Copy them from Lanyard’s window.",
  anotherSite: (site: string) => `This page does not belong to ${site}. Nothing was filled in.`,
  thePageHasChanged: "The page has changed. Press Fill in again.",
  notDone: "Lanyard could not do this. Try again.",
};

export const learning = {
  youHaveNoAccessToThis: "You have no access to this login.",
  notLearningAnyMore: "Lanyard is not learning here any more. Start again from the entry’s sign-in steps in Galtry.",
  notSaved: "The steps were not saved. Try again.",
};
