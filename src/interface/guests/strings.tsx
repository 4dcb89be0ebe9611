/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";

export const guests = {
  guests: "Guests",
  nobodyFromOutsideIsAskedIn: "Nobody from outside is asked in here.",
  notComeInYet: "not come in yet",
  until: "until",
  ended: "ended",
  onSomethingInIt: "on something in it",
  twoWeeksLonger: (name: string) => `Two weeks longer: ${name}`,
  twoWeeksLonger2: "Two weeks longer",
  newLink: "New link",
  end: (name: string) => `End: ${name}`,
  end2: "End",
  askAGuestIn: "Ask a guest in",
  aNewLinkFor: (name: string) => `A new link for ${name}`,
  isAskedInto: (name: string, node: string) => `${name} is asked into ${node}`,
  isAGuestHereAlreadyAnd: (name: string) => `${name} is a guest here already and signs in as before.`,
  done: "Done",
  askAGuestInto: (node: string) => `Ask a guest into ${node}`,
  askIn: "Ask in",
  theyMakeASignInOf: (node: string) =>
    `They make a sign-in of their own with a link that you hand them. They see ${node} and nothing else here: no other names, no other vaults.`,
  name: "Name",
  mailAddress: "Mail address",
  theyMay: "They may",
  useSignInWithoutSeeingA: "Use: sign in without seeing a password",
  revealAlsoSeeAndCopySecrets: "Reveal: also see and copy secrets",
  editAlsoChangeItAndAdd: "Edit: also change it and add to it",
  until2: "Until",
  aGuestsAccessAlwaysEndsYou: "a guest’s access always ends; you can move it on later",
  whatFor: "What for",
  hasNothingInAnyMore: (name: string, name2: string) => `${name} has nothing in ${name2} any more`,
  secretsTheySaw: (listed: ReactNode, part: ReactNode) => (
    <>
      Secrets they saw: {listed}
      {part}
    </>
  ),
  signedInWith: (listed: string) => `Signed in with: ${listed}`,
  theyHadNothingElseHereTheir: "They had nothing else here: their sign-in to Galtry has ended too.",
  endWhatHasIn: (name: string, name2: string) => `End what ${name} has in ${name2}`,
  endItNow: "End it now",
  allTheyHaveHereEndsAt: (listed: string, listed2: string) =>
    `All they have here ends at once. So far they have seen secrets of ${listed} and signed in with ${listed2}. What they added stays.`,
};

export const letterboxes = {
  letterboxes: "Letterboxes",
  forASecretThatSomebodyOutside: "For a secret that somebody outside has and you need.",
  droppedIn: "dropped in",
  until: (time: string) => `until ${time}`,
  close: (name: string) => `Close: ${name}`,
  close2: "Close",
  closed: "closed",
  runOut: "run out",
  hangALetterbox: "Hang a letterbox",
  aLetterboxFor: (name: string) => `A letterbox for ${name}`,
  sendThisLinkToOnePerson: "Send this link to one person. It stands here once, and takes one thing, once.",
  copied: "Copied",
  copyTheLink: "Copy the link",
  hangALetterboxAt: (folder: string) => `Hang a letterbox at ${folder}`,
  hangIt: "Hang it",
  somebodyOutsideDropsASecretIn: (folder: string) =>
    `Somebody outside drops a secret in, without an account; it lands in ${folder} as an entry of this name, sealed, for those who reach the folder.`,
  whatYouAskFor: "What you ask for",
  codeOfTheNewAlarm: "Code of the new alarm",
  itsValues: "Its values",
  oneOrSeveralWithCommasCode: "one, or several with commas: Code, Duress code",
  until2: "Until",
};
