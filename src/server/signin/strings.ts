/** Every sentence and label of this area, in one place to be read. */
export const didNotWork = {
  aNoteHasAtMost300: "A note has at most 300 characters.",
  theyWrite: (note: string) => ` They write: “${note}”`,
  cannotSignInWith: (name: string, entry: string, dID_NOT_WORK: string, noted: string, note: string) =>
    `${name} cannot sign in with ${entry}: ${dID_NOT_WORK}. ${noted}${note}`,
  galtryHasNotSignedThemIn: "Galtry has not signed them in there yet.",
  galtrysLastSignInForThem: "Galtry’s last sign-in for them went through.",
  galtrysLastSignInForThem2: (title: string) => `Galtry’s last sign-in for them: it ${title}.`,
  galtrysLastSignInForThem3: "Galtry’s last sign-in for them broke off.",
};

export const sealed = {
  thisHasNoSignInPage: "This has no sign-in page: nobody signs in with it.",
  thisSignInHasEndedAlready: "This sign-in has ended already.",
  othersAreSigningInToThe: "Others are signing in to the same site. Try again in a minute.",
  thereIsNoSuchSignIn: "There is no such sign-in.",
};
