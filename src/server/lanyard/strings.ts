/** Every sentence and label of this area, in one place to be read. */
export const http = {
  thereIsNothingOfThisName: "There is nothing of this name.",
  lanyardIsNotConnected: "Lanyard is not connected.",
  thisLanyardIsNotConnectedAny: "This Lanyard is not connected any more.",
  thisNamesNoEntry: "This names no entry.",
  somethingWentWrongIfItHappens: (unexpected: string) =>
    `Something went wrong. If it happens again, quote ${unexpected}.`,
};

export const keys = {
  takesMoreThanRevealNothingIs: (name: string) => `${name} takes more than Reveal: nothing is compared with it.`,
  somebodyChangedThisEntry: "Somebody changed this entry meanwhile. Sign in once more to keep the password.",
  guardedFillIsOffForThis: "Guarded fill is off for this entry. Its steward can switch it on.",
  guardedFillTypesOnlyAt: (host: string) => `Guarded fill types only at ${host}.`,
  thisPageIsNotEncryptedLanyard: "This page is not encrypted: Lanyard does not type a password here.",
  theSiteRefusedThePasswordThat: "The site refused the password that is kept. It has to be put right first.",
};

export const pairing = {
  thisIsNotACodeThat: "This is not a code that Lanyard gave.",
  giveYourSignInPasswordOnce: "Give your sign-in password once more: connecting a browser needs a fresh sign-in.",
  thisCodeHasRunOutOr: "This code has run out or was used. Start again in Lanyard.",
  thisConnectionWasNotConfirmed: "This connection was not confirmed in time. Start again.",
};

export const proof = {
  lanyardsProofIsNotAccepted: (why: string) => `Lanyard's proof is not accepted: ${why}.`,
};
