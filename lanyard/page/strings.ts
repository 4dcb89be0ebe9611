/** Every sentence and label of this area, in one place to be read. */
export const main = {
  thisPageShowsNoSignIn: "This page shows no sign-in that Lanyard can fill.",
  theFormOnThisPageSends: "The form on this page sends somewhere else. Lanyard typed nothing.",
};

export const tags = {
  tag: (className: string) => `tag ${className}`,
  or: (name: string) => `or ${name}`,
  alt: "Alt ↓",
  yourAccessToHasEnded: (name: string) => `your access to ${name} has ended`,
  yourAccessTo: "Your access to ",
  hasEnded: " has ended",
  lanyardHasTakenItsSessionOut: (says: string) => `${says} Lanyard has taken its session out of this browser.`,
  keepThisLogin: "keep this login",
  userName: "User name",
  notNow: "Not now",
  neverOnThisSite: "Never on this site",
  itCouldNotBeKeptTry: "It could not be kept. Try again.",
  userName2: "User name ",
  userNameWhichCouldNotBe: "User name, which could not be read ",
  keepTheNewPassword: "Keep the new password",
  thisPasswordIsNewFor: "This password is new for ",
  theSiteAcceptedItWhatIs: "The site accepted it. What is kept is another one.",
};
