/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";

export const cutKey = {
  setHere: "set here",
  until: (until: string) => `, until ${until}`,
};

export const done = {
  takenBack: "Taken back.",
  undo: "Undo",
  closeThisMessage: "Close this message",
  close: "Close",
};

export const form = {
  cancel: "Cancel",
};

export const pictureSheet = {
  aPictureHasAtMost2: "A picture has at most 2 MB. Make it smaller first.",
  pictureOf: (name: string) => `Picture of ${name}`,
  pngJpegWebpOrSvgAt: "PNG, JPEG, WebP or SVG, at most 2 MB. It is drawn anew and small.",
  picture: "Picture",
  chooseAPicture: "Choose a picture",
  takeItAway: "Take it away",
  close: "Close",
};

export const weeklyFields = {
  onlyOnSomeDaysOfThe: "Only on some days of the week",
  days: "Days",
  opens: "Opens",
  closes: "Closes",
  beforeItOpensOnTheNext: "before it opens: on the next day",
};

export const windowFields = {
  from: "From",
  emptyAtOnce: "empty: at once",
  until: "Until",
  emptyNoEnd: "empty: no end",
};

export const ask = {
  galtryDoesNotAnswerWhatYou: "Galtry does not answer. What you typed is still here; try again.",
};

export const lanyard = {
  galtryLanyardPathMaxAge: (state: string) => `galtry_lanyard=${state}; Path=/; Max-Age=31536000; SameSite=Lax`,
};

export const localTime = {
  tomorrow1800: "Tomorrow, 18:00",
  friday1800: "Friday, 18:00",
  sunday1800: "Sunday, 18:00",
  inTwoWeeks: "In two weeks",
};

export const useProving = {
  thisIsNotYourSignIn: "This is not your sign-in password.",
  yourSignInPasswordOnceMore: "Your sign-in password, once more",
  goOn: "Go on",
  signInPassword: "Sign-in password",
};

export const useQuickCopy = {
  userName: "user name",
  password: "password",
  oneTimeCode: "one-time code",
};

export const useSignIn = {
  lanyardDoesNotAnswerInThis: "Lanyard does not answer in this browser. Connect it first.",
  signingInTo: (name: string) => `Signing in to ${name}`,
  opening: (site: string) => `Opening ${site}`,
  signedInTo: (name: string) => `Signed in to ${name}.`,
  itIsOpenInATab: (name: ReactNode) => <>{name} It is open in a tab of its own.</>,
  youAreSignedInAtAlready: (site: string) => `You are signed in at ${site} already.`,
  lanyardsWindowAsksWhetherTo: (site: ReactNode) => <>{site} Lanyard’s window asks whether to replace that.</>,
  notSignedInTo: (name: string) => `Not signed in to ${name}`,
  inDetail: (detail: string) => `In detail: ${detail}.`,
  guardedFillWouldWorkHereIt: "Guarded fill would work here; it is off for this entry. Its steward can switch it on.",
  tellWhoLooksAfterIt: (part: string) => `Tell ${part}, who looks after it.`,
  tryAgain: "Try again",
  close: "Close",
};
