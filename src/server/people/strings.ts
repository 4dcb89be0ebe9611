/** Every sentence and label of this area, in one place to be read. */
import { agree, counted, listOf } from "../../core/counted";

export const attempts = {
  tooManyTriesWaitAndTryAgain: (minutes: number, part: string) =>
    `Too many tries. Wait ${minutes} ${part} and try again.`,
};

/** The first few by name, the rest by number. */
const several = (names: string[]) =>
  listOf(names.length <= 3 ? names : [...names.slice(0, 2), counted(names.length - 2, "other")]);

export const groups = {
  theProviderDecidesWhoIsInIt: (group: string) => `The identity provider decides who is in ${group}. Change it there.`,
  theEndDateIsInThePast: "The end date is in the past. Choose a later one.",
  theEndDateMustBeAfterThe: "The end date must be after the start.",
  wereAddedTo: (people: string[], group: string, level: string, node: string) =>
    `${several(people)} ${agree(people.length, "was", "were")} added to ${group}, which has ${level} on ${node}.`,
  wereChangedIn: (people: string[], group: string, level: string, node: string) =>
    `The membership of ${several(people)} in ${group}, which has ${level} on ${node}, was changed.`,
  wereRemovedFrom: (people: string[], group: string, level: string, node: string) =>
    `${several(people)} ${agree(people.length, "was", "were")} removed from ${group}, which has ${level} on ${node}.`,
  thisPersonIsNoLongerInThe: "This person is no longer in the group.",
  aDescriptionHasAtMost300: "A description has at most 300 characters.",
  youAreInThisGroupAndIt:
    "You are in this group, and it gives access. Nobody can change their own access: ask another administrator or keeper.",
  theGroupWhichHasOnHasA: (name: string, level: string, node: string, when: string) =>
    `The group ${name}, which has ${level} on ${node}, has a new end date: ${when}.`,
  onlyAnAdministratorCanDeleteA: "Only an administrator can delete a group.",
  thereAreStillPeopleInThisGroup: "There are still people in this group. Remove them first.",
  thisGroupStillHasAccessIts: "This group still has access. Its stewards must end that first.",
  thereIsAlreadyAGroupWithThis: "There is already a group with this name.",
  onlyAdministratorsAndTheGroups: "Only administrators and the group’s keepers can change who is in it.",
  thisGroupGivesAccessSoYou:
    "This group gives access, so you cannot add or remove yourself. Ask another administrator or keeper.",
  wouldBeLeftWithoutAStewardMake: (part: string) =>
    `${part} would be left without a steward. Make someone else its steward first, with no end date.`,
};

export const password = {
  aSignInPasswordHasAtLeast: "A sign-in password has at least 15 characters: four or five words work well.",
  itIsOnAList: "This password is on a list of leaked ones, so others may try it. Choose another.",
  aSignInPasswordHasAtMost: "A sign-in password has at most 200 characters.",
  tooManyPeopleAreSigningInAt: "Too many people are signing in at this moment. Try again in a few seconds.",
};

export const persons = {
  theyHaveNothingToReset: "They have neither passkeys nor one-time codes.",
  yourWaysWereReset: "An administrator removed your passkeys and one-time codes. Add new ones under your name.",
  theirWaysWereReset: (name: string, vault: string) =>
    `An administrator removed the passkeys and one-time codes of ${name}, who has Reveal or more in ${vault}.`,
  onlyAnOwnerCanNameOwners: "Only an owner can name owners and auditors.",
  reinstateThisPersonFirst: "Reinstate this person first.",
  anAdministratorCreatedANewSign:
    "An administrator created a new sign-in link for you. If you did not ask for one, tell an owner.",
  aNewSignInLinkWasCreated: (name: string, vault: string) =>
    `A new sign-in link was created for ${name}, who has Reveal or more in ${vault}.`,
  thisPersonIsAlready: (state: string) => `This person is already ${state}.`,
  theyAlreadyHaveThisRole: "They already have this role.",
  anOwnerCannotHaveAnEndDate: "An owner cannot have an end date. Remove it first.",
  theEndDateIsInThePast: "The end date is in the past. To end their access now, mark them as a leaver.",
  anOwnerCannotHaveAnEndDate2: "An owner cannot have an end date. Change the role first.",
  thisPersonHasLeftReinstateThem: "This person has left. Reinstate them first.",
  theyAlreadyHaveThisEndDate: "They already have this end date.",
  thereMustBeAtLeastOneActive: "There must be at least one active owner. Name another first.",
  noActiveOwnerHasThisEmail: "No active owner has this email address.",
  aSignInLinkForWasCreated: (name: string) => `A sign-in link for ${name} was created on the server itself.`,
  onlyStaffCanGiveAccess: "Only staff can give access.",
};

export const sessions = {
  thisIsNotAnEmailAddress: "This is not an email address.",
  theEmailAddressOrTheSignIn: "The email address or the sign-in password is wrong.",
  signOutFirst: "Sign out first.",
};

export const setUp = {
  joinWithProvider: (provider: string) => `Your organisation requires ${provider}. Join with it.`,
  yourPasswordWasChanged: "Your sign-in password was changed. If it was not you, tell an administrator at once.",
  thisIsNotATimeZone: "This is not a time zone.",
  thisGaltryHasAlreadyBeenSetUp: "This Galtry has already been set up.",
  yourAccessToGaltryHasBeenEnded: "Your access to Galtry has been ended.",
  thisLinkHasBeenUsedOrReplaced: "This link has been used or replaced, or has expired. Ask for a new one.",
};

export const telling = {
  theVault: (vault: string) => `The vault ${vault}`,
  anEntryIn: (vault: string) => `An entry in ${vault}`,
  hasNoStewardWasTheLastOne: (what: string, name: string) =>
    `${what} has no steward: ${name} was the last one. Nobody can give or end access there.`,
};

export const administrators = {
  onlyAnOwnerCanDoThisTo: "Only an owner can do this to an owner or an auditor.",
  youCannotDoThisToYourselfAsk: "You cannot do this to yourself. Ask another administrator.",
  onlyAnAdministratorCanDoThis: "Only an administrator can do this.",
};

export const adding = {
  onlyAnOwnerCanNameOwners: "Only an owner can name owners and auditors.",
  thisEmailAddressIsAlreadyInUse: "This email address is already in use.",
  thisGroupDoesNotExist: (name: string) => `There is no group called ${name}.`,
  theEndDateIsInThePast: "The end date is in the past. Choose a later one.",
  anOwnerCannotHaveAnEndDate: "An owner cannot have an end date.",
  wasHereBefore: (name: string) => `${name} was here before. Reinstate them instead.`,
  repeated: "This email address is on an earlier line.",
};

export const signInLinks = {
  noMailIsSetUp: "This Galtry sends no email. Copy the sign-in link and pass it on yourself.",
  subject: (organisation: string) => `Your sign-in to Galtry at ${organisation}`,
  hello: (name: string) => `Hello ${name},`,
  hasAddedYou: (by: string, organisation: string) =>
    `${by} has added you to Galtry at ${organisation}. It signs you in to the sites you work with, without passwords to remember.`,
  hasMadeANewLink: (by: string, organisation: string) =>
    `${by} has created a new sign-in link for you at ${organisation}. Your earlier sessions have ended; with the link you set up your sign-in again.`,
  setUpYourSignIn: "Set up your sign-in",
  worksOnceUntil: (time: string) => `The link works once, until ${time}.`,
  ifYouDoNotKnow: (by: string) => `If you do not know ${by} or did not expect this email, do not open the link.`,
  thereIsNoLinkToExtend: "There is no open sign-in link. Create a new one.",
  thereIsNoLinkToWithdraw: "There is no open sign-in link.",
};

export const waysIn = {
  thatTookTooLong: "That took too long. Start again.",
  passkeyCouldNotBeVerified: "This passkey could not be verified. Try again.",
  thisPasskeyIsHereAlready: "This passkey has already been added.",
  passkeyNotRecognised: "This passkey was not recognised. Use another way to sign in.",
  tooManyPasskeys: (most: number) => `You can have at most ${most} passkeys. Remove one first.`,
  aPasskeyWasAdded: (name: string) =>
    `A passkey was added to your sign-in: ${name}. If it was not you, remove it and tell an administrator.`,
  aPasskeyWasRemoved: (name: string) => `A passkey was removed from your sign-in: ${name}.`,
  aPasskeyWasCopied: (name: string) =>
    `A sign-in with your passkey ${name} was refused, because there is probably a copy of it. Remove it and add a new one.`,
  theLastWayIn: "This is your only way to sign in. Add another one first.",
  wrongSignInPassword: "Wrong sign-in password. Try again.",
  proveFirst: "Your ways to sign in can be changed only after you confirm that it is you.",
  youHaveACodeAppAlready: "You already have an app for one-time codes. Remove it first.",
  youHaveNoCodeApp: "You have no app for one-time codes.",
  thisCodeIsNotRight: "This code is not right. Check the clock of your device and try the next code.",
  aNumberHasSixDigits: "The number has six digits.",
  tooManyAtOnce: "Too many sign-ins are waiting at this moment. Try again in two minutes.",
  theNumberRests: "The number was wrong or declined three times. Wait a quarter of an hour and try again.",
  theNumberHasExpired: "This number has expired. Show a new one.",
  itWasDeclined: "The sign-in was declined on the other device.",
  startAgain: "That took too long, or too many codes were wrong. Start again.",
  aRecoveryCodeWasUsed: (left: number) =>
    `A recovery code was used to sign in as you; ${left} of them ${left === 1 ? "is" : "are"} left. If it was not you, tell an administrator.`,
};

export const entering = {
  signInWithProvider: (provider: string) => `Your organisation requires ${provider}. Sign in with it.`,
  anOwnerWentPast: (name: string, provider: string) =>
    `${name} signed in as an owner without ${provider}, which is required.`,
};

export const leaving = {
  inVault: (name: string, vault: string) => `${name} in ${vault}`,
  aFolderIn: (vault: string) => `a folder in ${vault}`,
  anEntryIn: (vault: string) => `an entry in ${vault}`,
  alreadyLeft: "This person has already left.",
  lastOwner: "There must be at least one active owner.",
  endIsPast: "The end date is in the past.",
  successorsChanged: "What they are the only steward of has changed. Check it again.",
  activeStaffOnly: "Choose active members of staff with no end date.",
  notYourself: "Choose someone else: you cannot name yourself.",
  keepersAreMembers: "Choose a member of the group.",
  administratorsOnly: "Only an administrator can do this.",
  accessEnded: "access ended",
  follows: (name: string) => `takes over from ${name}`,
  isStewardNow: (next: string, left: string, by: string) => (node: string) =>
    `${next} is now steward of ${node} or of a place in it: ${by} chose them to take over from ${left}.`,
  ownersRead: (by: string, left: string, places: number) =>
    `${by} chose new stewards for ${counted(places, "place")} that ${left} was the only steward of.`,
  leaves: (name: string, vault: string) =>
    `${name}, who could reveal secrets in ${vault}, is leaving. Check which passwords they have seen.`,
  hasAgain: (name: string, level: string, node: string, by: string) =>
    `${name} is back and has ${level[0]!.toUpperCase()}${level.slice(1)} on ${node} again: ${by} reinstated them.`,
};

export const changeLists = {
  toChange: {
    left: (name: string, count: number, until: string) =>
      `${name} has left and has seen ${counted(count, "password")} of which you are steward and that still ${agree(count, "works", "work")}. Change ${agree(count, "it", "them")} by ${until}.`,
    lowered: (name: string, count: number, until: string) =>
      `${name} has less access than before and has seen ${counted(count, "password")} of which you are steward and that still ${agree(count, "works", "work")}. Change ${agree(count, "it", "them")} by ${until}.`,
    lost: (name: string, count: number, until: string) =>
      `What ${name} has seen may be in other hands: ${counted(count, "password")} that they have seen and of which you are steward still ${agree(count, "works", "work")}. Change ${agree(count, "it", "them")} by ${until}.`,
  },
  reminder: (name: string, count: number, until: string) =>
    `Reminder: ${counted(count, "password")} that ${name} has seen and of which you are steward still ${agree(count, "works", "work")}. They were to be changed by ${until}.`,
  notChangedInTime: (name: string, open: number, of: number) =>
    `${open} of ${counted(of, "password")} that ${name} has seen still ${agree(open, "works", "work")}, and the date by which they were to be changed is over.`,
  allChanged: (name: string, left: number) =>
    left === 0
      ? `Nothing that ${name} has seen works any more.`
      : `Nothing that ${name} has seen works any more, except ${counted(left, "password")} that ${agree(left, "its stewards", "their stewards")} left unchanged.`,
  dateIsPast: "The date is in the past. Choose a later one.",
  atMostAYear: "Choose a date within a year.",
  giveAReason: "Enter a reason. The other stewards see it.",
  nothingToChange: (name: string) => `${name} has seen nothing that still works and has to be changed.`,
  isOver: "This list is done already. Reload the page.",
  worksNoMore: "This password has been changed already.",
  isToBeChanged: "This password is to be changed already.",
};

export const teams = { reinstateFirst: "This person has left. Reinstate them first." };

export const newBrowser = {
  subject: (organisation: string) => `New sign-in to Galtry at ${organisation}`,
  hello: (name: string) => `Hello ${name},`,
  youSignedIn: (browser: string, address: string, time: string) =>
    `You signed in to Galtry from a browser you have not used before: ${browser}, from ${address}, ${time}.`,
  ifItWasNotYou:
    "If it was not you, sign it out under your name, change your sign-in password and tell an administrator.",
  ifItWasYou: "If it was you, there is nothing to do.",
  itWasNotMe: "It was not me",
  whatItDoes:
    "This signs you out everywhere and withdraws your sign-in password; you set a new one at once. Administrators are told.",
  worksOnceUntil: (time: string) => `The link works once, until ${time}.`,
  saysItWasNotThem: (name: string) =>
    `${name} says that a sign-in from a new browser was not theirs. They were signed out everywhere. Look at what was done as ${name} in the Journal.`,
};

export const forgotten = {
  askAnAdministrator: "Here an administrator gives you a new sign-in link.",
  subject: (organisation: string) => `A new sign-in password for Galtry at ${organisation}`,
  hello: (name: string) => `Hello ${name},`,
  someoneAsked: "Someone, probably you, asked for a link to set a new sign-in password for Galtry.",
  setANewPassword: "Set a new sign-in password",
  worksOnceUntil: (time: string) => `The link works once, until ${time}.`,
  ifItWasNotYou: "If you did not ask for it, do nothing: your sign-in password stays as it is.",
  yourAccessHasEnded: "Your access to Galtry has been ended.",
  yourPasswordWasSet:
    "A new sign-in password was set by a link sent to your email address, and you were signed out everywhere. If it was not you, tell an administrator at once.",
};

export const joining = {
  notADomain: (domains: readonly string[]) =>
    domains.length === 0
      ? "Here people join only when they are invited."
      : `Only addresses at ${listOf(domains, "or")} can join without being invited.`,
  signInWith: (provider: string) => `Sign in with ${provider} instead.`,
  subject: (organisation: string) => `Your code to join Galtry at ${organisation}`,
  subjectHere: (organisation: string) => `You are in Galtry at ${organisation} already`,
  someoneWantsToJoin: (organisation: string) =>
    `Someone, probably you, wants to join Galtry at ${organisation} with this email address.`,
  theCodeIs: (code: string) => `The code is ${code.slice(0, 4)} ${code.slice(4)}.`,
  worksUntil: (time: string) => `It works until ${time}. Type it only on the page where you asked for it.`,
  youAreHereAlready: (organisation: string) =>
    `Someone, probably you, wanted to join Galtry at ${organisation} with this email address. You have joined already: sign in instead.`,
  signIn: "Sign in",
  ifItWasNotYou: "If it was not you, do nothing.",
  aCodeHasEightDigits: "A code has eight digits.",
  hasJoined: (name: string, mail: string) =>
    `${name} joined with a code sent to ${mail}. They have no access yet, except what Everyone has.`,
};

export const required = {
  noSuchRule: "The house rules have changed. Check them again.",
  justReminded: "They have just been reminded. Wait a quarter of an hour.",
  youNeed: (day: string, needs: string) =>
    `From ${day} you need ${needs} to sign in to Galtry. Add one under your name, so that the next sign-in is as quick as ever.`,
};

export const erasing = {
  erasedPerson: (end: string) => `Erased person ${end}`,
  onlyALeaver: "Only a leaver can be erased. Mark them as a leaver first.",
  alreadyErased: "This person has already been erased.",
  thisIsNotTheName: "This is not the name.",
  erasedForGood: "This person has been erased. Add them as a new person.",
};
