/** Every sentence and label of this area, in one place to be read. */
export const http = {
  thereIsNothingAtThisAddress: "There is nothing at this address.",
  lanyardIsNotConnected: "Lanyard is not connected.",
  thisLanyardIsNoLongerConnected: "This Lanyard is no longer connected.",
  thisDoesNotNameAnEntry: "This does not name an entry.",
  somethingWentWrongIfItHappens: (unexpected: string) =>
    `Something went wrong. If it happens again, quote ${unexpected}.`,
};

export const keys = {
  requiresMoreThanRevealSo: (name: string) => `${name} requires more than Reveal, so nothing is compared with it.`,
  someoneElseHasChangedThisEntry: "Someone else has changed this entry. Sign in again to save the password.",
  guardedFillIsOffForThisEntry: "Guarded fill is off for this entry. Its steward can switch it on.",
  nothingIsFilledInByItself: "The house rules let nothing be filled in before its person asks for it.",
  guardedFillTypesOnlyAt: (host: string) => `Guarded fill types only at ${host}.`,
  thisPageIsNotEncryptedLanyard: "This page is not encrypted. Lanyard does not type a password here.",
  theSiteRejectedTheSaved: "The site rejected the saved password. It must be corrected first.",
};

export const pairing = {
  thisIsNotACodeThatLanyard: "This is not a code that Lanyard showed.",
  connectingWantsARecentSignIn: "A browser can be connected only after you confirm that it is you.",
  thisCodeHasExpiredOrWasUsed: "This code has expired or was used. Start again in Lanyard.",
  thisConnectionWasNotConfirmed: "This connection was not confirmed in time. Start again.",
};

export const proof = {
  lanyardsProofWasNotAccepted: (why: string) => `Lanyard’s proof was not accepted: ${why}.`,
};

export const allowed = {
  theHouseRulesDoNotLetYouAdd: "The house rules do not let you add logins with Lanyard. Add it in Galtry.",
};

export const forms = {
  thisEntryGoesIntoNoForm: "This entry is of a kind that goes into no form.",
  thisPageIsNotEncrypted: "This page is not encrypted. Lanyard does not fill in cards and papers here.",
  nothingOfItCanBeFilledIn: "The form asks for nothing that you can see of this entry.",
};
