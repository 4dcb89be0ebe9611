/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";

export const cutKey = {
  setDirectly: "set directly",
  until: (until: string) => ` until ${until}`,
};

export const done = {
  undone: "Undone.",
  undoing: (done: number, of: number) => `Undoing: ${done} of ${of}`,
  undo: "Undo",
  closeThisMessage: "Close this message",
  close: "Close",
};

export const leaveGuard = {
  leaveWithoutSaving: "Leave without saving?",
  whatYouTypedIsLost: "What you typed here has not been saved.",
  keepEditing: "Keep editing",
  leave: "Leave",
};

export const form = {
  cancel: "Cancel",
  checkTheMarkedField: "Check the marked field.",
};

export const pictureSheet = {
  aPictureHasAtMost2Mb: "A picture has at most 2 MB. Make it smaller first.",
  pictureOf: (name: string) => `Picture of ${name}`,
  pngJpegWebpOrSvgAtMost: "PNG, JPEG, WebP or SVG, at most 2 MB. It is reduced to a small picture.",
  picture: "Picture",
  chooseAPicture: "Choose a picture",
  remove: "Remove",
  close: "Close",
};

export const weeklyFields = {
  onlyOnSomeDaysOfTheWeek: "Only on some days of the week",
  days: "Days",
  opens: "Opens",
  closes: "Closes",
  earlierThanTheStartMeansThe: "Earlier than the start means the next day.",
};

export const dateFields = {
  previousMonth: "Previous month",
  nextMonth: "Next month",
  clear: (label: string) => `Clear: ${label}`,
  clearWord: "Clear",
  calendar: (label: string) => `Calendar: ${label}`,
};

export const windowFields = {
  from: "From",
  leaveEmptyToStartAtOnce: "Leave empty to start at once.",
  until: "Until",
  leaveEmptyForNoEndDate: "Leave empty for no end date.",
};

export const ask = {
  galtryIsNotRespondingWhatYou: "Galtry is not responding. What you typed is still here. Try again.",
};

export const localTime = {
  tomorrow1800: "Tomorrow, 18:00",
  friday1800: "Friday, 18:00",
  sunday1800: "Sunday, 18:00",
  inTwoWeeks: "In two weeks",
};

export const ownWindow = {
  blocked: "Your browser did not open a window. Allow windows for Galtry and try again.",
  closed: "The window was closed.",
};

export const useQuickCopy = {
  userName: "user name",
  password: "password",
  oneTimeCode: "one-time code",
  hasNone: (name: string, what: string) => `${name} has no ${what}.`,
  copied: (what: string, name: string) => `The ${what} of ${name} is copied. The clipboard is cleared in 30 seconds.`,
};

export const useSignIn = {
  lanyardIsNotRespondingInThis: "Lanyard is not responding in this browser. Connect it first.",
  signingInTo: (name: string) => `Signing in to ${name}`,
  opening: (site: string) => `Opening ${site}`,
  signedInTo: (name: string) => `Signed in to ${name}.`,
  itIsOpenInItsOwnTab: (name: ReactNode) => <>{name} It is open in its own tab.</>,
  youAreAlreadySignedInAt: (site: string) => `You are already signed in at ${site}.`,
  lanyardAsksWhetherToReplace: (site: ReactNode) => <>{site} Lanyard asks whether to replace that session.</>,
  notSignedInTo: (name: string) => `Not signed in to ${name}`,
  details: (detail: string) => `Details: ${detail}.`,
  guardedFillMayWorkHere: "Guarded fill may work here, but it is off for this entry. Its steward can switch it on.",
  tell: (names: string) => `Tell ${names}`,
  told: (names: string, count: number) => `${names} ${count === 1 ? "has" : "have"} been told.`,
  itsStewards: "its stewards",
  left: (time: string) => `(${time} left)`,
  stoppedAfter: (step: string) => `It stopped after: ${step}.`,
  seeItsSteps: "Sign-in steps",
  openThePage: "Open the page",
  openLanyardFromTheToolbar: "Open the page, then open Lanyard from the browser’s toolbar and press Fill and sign in.",
  tryAgain: "Try again",
  close: "Close",
};

export const passwordDialog = {
  signInPassword: "Sign-in password",
};

export const passkey = {
  noPasskeyWasUsed: "No passkey was used. Try again, or use another way.",
  alreadyHere: "This device already has a passkey for your sign-in.",
};

export const secondStep = {
  useAPasskey: "Use a passkey",
  signIn: "Sign in",
  oneTimeCode: "One-time code",
  recoveryCode: "Recovery code",
  sixDigits: "Six digits from your app.",
  sixDigitsOrARecoveryCode: "Six digits from your app, or a recovery code.",
  eachWorksOnce: "Each works once.",
};

/** Of a sign-in at the identity provider that came to nothing, by its code in the address. */
export const providerBack = {
  theProvider: "the identity provider",
  failed: (provider: string) => `Signing in with ${provider} did not work. Try again, or ask an administrator.`,
  denied: (provider: string) => `${provider} did not let you in.`,
  ended: () => "That sign-in has ended or was started in another browser. Start again.",
  "too-many": () => "Too many attempts. Wait a quarter of an hour and try again.",
  "not-invited": (provider: string) =>
    `${provider} knows you, but you have not been added to Galtry. Ask an administrator.`,
  "not-verified": (provider: string) =>
    `${provider} does not confirm your email address. Ask an administrator to link your account.`,
  "wrong-domain": (provider: string) =>
    `Your email address at ${provider} is not in one of your organisation’s domains. Ask an administrator to link your account.`,
  deactivated: (provider: string) => `Your account at ${provider} is deactivated.`,
  "not-active": () => "Your access to Galtry is suspended or has ended. Ask an administrator.",
  "not-allowed": (provider: string) => `You signed in at ${provider} with another account. Try again.`,
  conflict: (provider: string) =>
    `That account at ${provider} could not be linked: it has another email address, or belongs to someone else.`,
  "prove-again": () => "That took too long. Sign in and try again.",
  "to-link": (provider: string) =>
    `You already sign in to Galtry in another way. Sign in as you do now; then you can link your account at ${provider}.`,
};
