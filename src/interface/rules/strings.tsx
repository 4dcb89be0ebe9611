/** Every sentence and label of this area, in one place to be read. */

import type { ReactNode } from "react";
import { agree, counted, every } from "../../core/counted";

export const houseRules = {
  theHouseRulesHaveBeenChanged: "The house rules have been changed. Access given before stays as it is.",
  theHouseRulesSayWhatAccess:
    "The house rules say what access stewards can give, to whom and for how long, and who can create what.",
  keysOfTheHouse: "Keys of the house",
  houseRules: "House rules",
  cancel: "Cancel",
  changeTheRules: "Change the rules",
  onlyOwnersCanChangeThem: "Only owners can change them.",
  upTo: (levelWord: string) => `up to ${levelWord}`,
  allStaff: "all staff",
  accessThatCanBeGiven: "Access that can be given",
  aMemberOfStaff: "a member of staff",
  aStewardCanGiveAMemberOf: (highest: ReactNode) => <>A steward can give a member of staff {highest}.</>,
  aGroup: "a group",
  aGroupCanBeGivenBy: (highest: ReactNode) => <>A group can be given {highest}, by </>,
  whichStewardsCanGiveAccessToA: "which stewards can give access to a group",
  anySteward: "any steward",
  stewardsWhoAreInIt: "stewards who are in it",
  everyoneCanBeGiven: (highest: ReactNode) => <>Everyone can be given {highest}.</>,
  aGuest: "a guest",
  aGuestCanBeGiven: (highest: ReactNode) => <>A guest can be given {highest}.</>,
  howLongStaffHaveAccess: "how long staff have access",
  staffHaveAccess: (longest: ReactNode) => <>Staff have access {longest}.</>,
  howLongGuestsHaveAccess: "how long guests have access",
  guestsHaveAccess: (longest: ReactNode) => <>Guests have access {longest}.</>,
  aReasonIsRequired: "A reason is required ",
  whenAReasonIsRequired: "when a reason is required",
  whenGivingSteward: "when giving Steward",
  whenGivingOrMore: (levelWord: string) => `when giving ${levelWord} or more`,
  whoCanCreateWhat: "Who can create what",
  whoCanCreateVaults: "who can create vaults",
  vaultsCanBeCreatedBy: (makes: ReactNode) => <>Vaults can be created by {makes}.</>,
  whoCanCreateGroups: "who can create groups",
  groupsCanBeCreatedBy: (makes: ReactNode) => <>Groups can be created by {makes}.</>,
  whoCanInviteGuests: "who can invite guests",
  stewardsAndAdministrators: "stewards and administrators",
  guestsCanBeInvitedBy: (makes: ReactNode) => <>Guests can be invited by {makes}.</>,
  whoCanCreateHandoverLinks: "who can create handover links",
  anyoneWithRevealOnIt: "anyone with Reveal on it",
  handoverLinksCanBeCreatedBy: (makes: ReactNode) => <>Handover links can be created by {makes}.</>,
  approvalAndAcceptance: "Approval and acceptance",
  whereAnEntryRequiresApproval: "Where an entry requires approval, ",
  testsOfLogins: "Tests of logins and changes of passwords",
  galtryTestsLogins: "Galtry tests logins ",
  whenGaltryTestsLogins: "when Galtry tests logins",
  onlyWhenAsked: "only when someone asks for it",
  galtryChangesPasswords: (when: ReactNode) => <>Galtry changes passwords {when}.</>,
  whenGaltryChangesPasswords: "when Galtry changes passwords",
  everyMonths: (months: number) => `${every(months, "month")}, at night, of entries whose stewards have chosen that`,
  eachNight: "at night, each that has worked, and tells its stewards if it no longer does",
  whetherEmergencyUseIsPossible: "whether emergency use is possible",
  nobodyCanUseItWithoutApproval: "nobody can use it without approval",
  peopleCanUseItWithoutApproval:
    "people can use it without approval in an emergency, and must give all its stewards a reason",
  accessToAVaultWorks: "Access to a vault works ",
  whenAccessStartsToWork: "when access starts to work",
  atOnce: "at once",
  onceThePersonAcceptsItAndThe: "once the person accepts it and the vault’s house note",
  forAsLongAsTheStewardSets: "for as long as the steward sets, with or without an end date",
  forUpTo: (days: number) => `for up to ${counted(days, "day")}; longer needs a second steward`,
};

export const signingInRules = {
  signingIn: "Signing in",
  aForgottenPasswordIsReset: "A forgotten sign-in password is reset ",
  howAForgottenPasswordIsReset: "how a forgotten sign-in password is reset",
  byAnAdministrator: "by an administrator",
  byEmail: "by email",
  byEmailOnceSetUp: "by email, once email is set up",
  allPeople: "All people",
  peopleIn: (group: string) => `The people in ${group}`,
  aGroup: "a group",
  need: "need ",
  whatTheyNeed: "what they need to sign in",
  needs: {
    "second-step": "a passkey, one-time codes or single sign-on",
    passkey: "a passkey or single sign-on",
  },
  from: "From",
  remove: "Remove",
  requireAWay: "Require a way to sign in…",
  ofWhom: "Who needs it? Until the day you choose, you see here who does not have it yet.",
  ofAllPeople: "All people",
  orOfAGroup: "Or the people in a group",
};

export const ruleLists = {
  remove: "Remove",
};

export const lanyardRules = {
  lanyard: "Lanyard",
  lanyardCanBeUsedBy: "Lanyard can be used by ",
  whoCanUseLanyard: "who can use Lanyard",
  loginsCanBeAddedBy: "Logins can be added with it by ",
  whoCanAddLogins: "who can add logins with Lanyard",
  allPeople: "all people",
  thePeopleInTheseGroups: "the people in these groups",
  aGroup: "a group",
  removeGroup: (group: string) => `Remove ${group}`,
  addAGroup: "Add a group",
  group: "Group",
  offersEverywhere: "Lanyard offers to add logins at any site, unless a person has told it not to.",
  neverOffersAt: "Lanyard never offers to add a login at",
  removeSite: (site: string) => `Remove ${site}`,
  site: "Site",
  addSite: "Add site",
  example: "bank.example",
  guardedFillFillsIn: "A login is filled in by guarded fill ",
  whenGuardedFillFillsIn: "when guarded fill fills in a login",
  onlyWhenAsked: "once its person asks for it",
  asItsPageOpens: "also as its page opens, if its person has chosen that",
};

export const notThereYet = {
  whoIsNotThereYet: "Who is not there yet",
  allPeople: "All people",
  allHaveIt: "all of them have what they need.",
  lack: (count: number, needs: "second-step" | "passkey") =>
    `${counted(count, "person")} ${agree(count, "has", "have")} neither ${
      needs === "passkey" ? "a passkey nor single sign-on" : "a passkey nor one-time codes nor single sign-on"
    }.`,
  ledAtTheNext: " They add one at their next sign-in.",
  andOthers: (count: number) => ` and ${counted(count, "other")}.`,
  remindThem: "Remind them",
  reminded: (count: number) => `${counted(count, "person")} ${agree(count, "was", "were")} reminded.`,
};

export const confirmRule = {
  peopleConfirm: (lasts: ReactNode) => (
    <>Unless they did so within the last {lasts}, people confirm that it is them before:</>
  ),
  howLongItLasts: "how long a confirmation lasts",
  minutes: (minutes: number) => counted(minutes, "minute"),
  alwaysConfirmed: "Exports and changes to ways to sign in always need confirmation.",
};

export const joinRule = {
  onlyInvited: "Nobody can join without being invited. To let people join by themselves, add a mail domain.",
  whoCanJoin: "People can join as members without being invited if they have an email address at:",
  removeDomain: (domain: string) => `Remove ${domain}`,
  mailDomain: "Mail domain",
  addDomain: "Add domain",
  example: "company.example",
  byACode: "They show by an emailed code that the address is theirs. They have no access until they are given some.",
  onceMailIsSetUp: "This works once email is set up: people show by an emailed code that the address is theirs.",
};

export const houseKeys = {
  keysOfTheHouse: "Keys of the house",
  keys: "Keys",
  what: "Each vault has a key of its own. When it is rotated, everything in the vault is encrypted again in the background and stays usable; then the old key is deleted.",
  vault: "Vault",
  key: "Key",
  since: "Since",
  state: "State",
  number: (version: number) => `number ${version}`,
  rotating: "being rotated",
  stopped: "stopped",
  select: (vault: string) => `Select ${vault}`,
  selectAll: "Select all",
  rotate: (count: number) => `Rotate ${counted(count, "key")}`,
  rotateSelected: "Rotate keys",
  stop: "Stop the rotation",
  resume: "Resume the rotation",
  underWay: (count: number) => `${counted(count, "key")} ${agree(count, "is", "are")} being rotated.`,
  rotated: (count: number) => `${counted(count, "vault")} ${agree(count, "has a new key", "have new keys")}.`,
  otherKeys: "Other keys",
  rootKey: "Root key",
  rootKeyIs: (number: number, since: string) =>
    `Number ${number}; the key file was last written on ${since}. It encrypts all other keys.`,
  rootKeyHow: (code: ReactNode) => (
    <>Rotated on the server, while Galtry runs, by {code}. From the next start on Galtry needs the new file.</>
  ),
  clientSecret: (provider: string) => `Client secret of ${provider}`,
  scimToken: (provider: string) => `SCIM token of ${provider}`,
  enteredOn: (since: string) => `Entered on ${since}.`,
  createdOn: (since: string) => `Created on ${since}. The one before it counts for a day more.`,
  change: "Change",
};
