/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";

export const guests = {
  chooseAnEndDate: "Choose an end date: a guest’s access always has one.",
  guests: "Guests",
  noGuestsHereYet: "No guests here yet.",
  notJoinedYet: "not joined yet",
  until: "until",
  ended: "ended",
  onSomethingInIt: "on something in it",
  extendByTwoWeeks: (name: string) => `Extend by two weeks: ${name}`,
  extendByTwoWeeks2: "Extend by two weeks",
  newSignInLink: "New sign-in link",
  endTheAccessOf: (name: string) => `End the access of ${name}`,
  end: "End",
  inviteAGuest: "Invite a guest",
  newSignInLinkFor: (name: string) => `New sign-in link for ${name}`,
  isInvitedTo: (name: string, node: string) => `${name} is invited to ${node}`,
  isAlreadyAGuestHereAndSigns: (name: string) => `${name} is already a guest here and signs in as before.`,
  close: "Close",
  inviteAGuestTo: (node: string) => `Invite a guest to ${node}`,
  invite: "Invite",
  theySetUpTheirOwnSignIn: (node: string) =>
    `They set up their own sign-in with a link from you, and see only ${node}: no other names, no other vaults.`,
  name: "Name",
  emailAddress: "Email address",
  theyCan: "They can",
  useSignInWithoutSeeingA: "Use: sign in without seeing a password",
  revealAlsoRevealAndCopySecret: "Reveal: also reveal and copy secret fields",
  editAlsoEditItAndAddTo: "Edit: also edit it and add to it",
  until2: "Until",
  aGuestsAccessAlwaysHasAnEnd: "A guest’s access always has an end date. You can extend it later.",
  reason: "Reason",
  noLongerHasAccessTo: (name: string, name2: string) => `${name} no longer has access to ${name2}`,
  secretFieldsTheySaw: (listed: ReactNode, part: ReactNode) => (
    <>
      Secret fields they saw: {listed}
      {part}
    </>
  ),
  signedInWith: (listed: string) => `Signed in with: ${listed}`,
  theyHadAccessToNothingElseSo: "They had access to nothing else, so their sign-in to Galtry has ended too.",
  endTheAccessOfTo: (name: string, name2: string) => `End the access of ${name} to ${name2}`,
  endAccess: "End access",
  allTheirAccessHereEndsAtOnce: (listed: string, listed2: string) =>
    `All their access here ends at once. So far they have seen secret fields of ${listed} and signed in with ${listed2}. What they added stays.`,
};

export const letterboxes = {
  letterboxes: "Letterboxes",
  forASecretThatSomeoneOutside: "For a secret that someone outside has and you need.",
  received: "received",
  until: (time: string) => `until ${time}`,
  close: (name: string) => `Close: ${name}`,
  close2: "Close",
  closed: "closed",
  expired: "expired",
  createALetterbox: "Create a letterbox",
  chooseAnEndDate: "Choose an end date: a letterbox always expires.",
  letterboxFor: (name: string) => `Letterbox for ${name}`,
  copyTheLinkNowGaltryDoesNot:
    "Copy the link now: Galtry does not store it. Send it to one person. It can be used once.",
  copied: "Copied",
  copyLink: "Copy link",
  createALetterboxIn: (folder: string) => `Create a letterbox in ${folder}`,
  createLetterbox: "Create letterbox",
  someoneOutsideSendsAPasswordOr: (folder: string) =>
    `Someone outside sends a password or code, without an account. It becomes an entry in ${folder}, encrypted, for the people who have access to the folder.`,
  nameOfTheEntry: "Name of the entry",
  codeOfTheNewAlarm: "Code of the new alarm",
  fields: "Fields",
  oneOrSeveralSeparatedByCommas: "One, or several separated by commas: Code, Duress code.",
  until2: "Until",
};
