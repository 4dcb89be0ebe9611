/** Every sentence and label of this area, in one place to be read. */
export const api = {
  lanyardIsNotConnectedToGaltry: "Lanyard is not connected to Galtry.",
  galtryDoesNotAnswer: "Galtry does not answer.",
  galtrysAnswerCannotBeRead: "Galtry's answer cannot be read.",
};

export const capture = {
  thatWasMoreThanFiveMinutes: "That was more than five minutes ago: sign in once more.",
  itCouldNotBeKept: "It could not be kept.",
};

export const connection = {
  on: (brand: string, version: string, platform: string) => `${brand} ${version} on ${platform}`,
  aBrowser: "a browser",
  thereIsNoGaltryAtThis: "There is no Galtry at this address.",
  endedInTheBrowser: "ended in the browser",
  hearsAtOnceWhenAccessTo: "Hears at once when access to a key ends.",
};

export const icon = {
  lanyardNotConnected: "Lanyard: not connected",
  lanyardGaltryDoesNotAnswer: "Lanyard: Galtry does not answer",
  forThisPage: (count: number, part: string) => `, ${count} ${part} for this page`,
  lanyardConnectedAs: (person: string, part: string) => `Lanyard: connected as ${person}${part}`,
};

export const main = {
  lanyardIsConnectedToAnother: "Lanyard is connected to another Galtry, or to none.",
};

export const signIn = {
  thisKeyIsNotYoursTo: "This key is not yours to use any more.",
  galtryDoesNotAnswerSigningIn: "Galtry does not answer. Signing in with a key needs it.",
  somethingWentWrongInLanyard: "Something went wrong in Lanyard.",
  galtryCouldNotDoThat: "Galtry could not do that.",
  galtryBrokeOff: "Galtry broke off.",
  theSitesCookiesAreNotFor: "The site's cookies are not for this entry's site. Lanyard set none.",
  guardedFillTypesOnlyAtOpen: (hostOf: string | null | undefined) =>
    `Guarded fill types only at ${hostOf}. Open that page first.`,
  thePageChangedMeanwhileLanyard: "The page changed meanwhile. Lanyard typed nothing.",
  lanyardIsNotReadyInThis: "Lanyard is not ready in this page: reload it.",
  thePageIsGone: "The page is gone.",
};
