/** Every sentence and label of this area, in one place to be read. */
export const attempts = {
  tooManyTriesWaitAndTry: (minutes: number, part: string) => `Too many tries. Wait ${minutes} ${part} and try again.`,
};

export const groups = {
  thisEndIsInThePast: "This end is in the past.",
  itWouldEndBeforeItStarts: "It would end before it starts.",
  wasPutInWhichHasOn: (person: string, group: string, level: string, node: string) =>
    `${person} was put in ${group}, which has ${level} on ${node}.`,
  wasTakenOutOfWhichHas: (person: string, group: string, level: string, node: string) =>
    `${person} was taken out of ${group}, which has ${level} on ${node}.`,
  thisPersonIsNotInThe: "This person is not in the group any more.",
  aDescriptionHasAtMost300: "A description has at most 300 characters.",
  thisGroupGivesAccessAndYou:
    "This group gives access and you are in it: nobody changes their own. Ask another administrator or keeper.",
  theGroupWhichHasOnHas: (name: string, level: string, node: string, when: string) =>
    `The group ${name}, which has ${level} on ${node}, has a new end: ${when}.`,
  anAdministratorDeletesGroups: "An administrator deletes groups.",
  somebodyIsInThisGroupStill: "Somebody is in this group still. Take them out first.",
  thisGroupIsGivenAccessStill: "This group is given access still. Its stewards withdraw that first.",
  thereIsAGroupOfThis: "There is a group of this name already.",
  administratorsAndTheGroups: "Administrators and the group's keepers change who is in it.",
  thisGroupGivesAccessNobodyAdds:
    "This group gives access: nobody adds or removes themselves. Ask another administrator or keeper.",
  wouldBeLeftWithoutASteward: (part: string) =>
    `${part} would be left without a steward. Make somebody else its steward first, without an end.`,
};

export const password = {
  aSignInPasswordHasAt: "A sign-in password has at least 12 characters: three or four words do well.",
  aSignInPasswordHasAt2: "A sign-in password has at most 200 characters.",
  tooManyPeopleAreSigningIn: "Too many people are signing in at this moment. Try again in a few seconds.",
};

export const persons = {
  anAdministratorDoesThat: "An administrator does that.",
  onlyAnOwnerMayDoThat: "Only an owner may do that to an owner.",
  nobodyDoesThatToThemselvesAsk: "Nobody does that to themselves. Ask another administrator.",
  onlyAnOwnerNamesOwners: "Only an owner names owners.",
  somebodyWithThisMailAddressIs: "Somebody with this mail address is here already.",
  bringThisPersonBackFirst: "Bring this person back first.",
  anAdministratorMadeANewSign:
    "An administrator made a new sign-in link for you. If you did not ask for it, tell an owner.",
  aNewSignInLinkWas: (name: string, vault: string) =>
    `A new sign-in link was made for ${name}, who has Reveal or more in ${vault}.`,
  thisPersonIsAlready: (sTATE_WORDS: string) => `This person is ${sTATE_WORDS} already.`,
  thatIsTheirRoleAlready: "That is their role already.",
  anOwnerHasNoEndDate: "An owner has no end date. Take it away first.",
  thisEndIsInThePast: "This end is in the past. To end it now, mark them as a leaver.",
  anOwnerHasNoEndDate2: "An owner has no end date. Change the role first.",
  thisPersonHasLeftBringThem: "This person has left. Bring them back first.",
  thatIsTheirEndAlready: "That is their end already.",
  thereIsAlwaysAtLeastOne: "There is always at least one active owner. Name another first.",
  noActiveOwnerHasThisMail: "No active owner has this mail address.",
  aSignInLinkForWas: (name: string) => `A sign-in link for ${name} was made on the server itself.`,
  onlyStaffGiveAccess: "Only staff give access.",
};

export const sessions = {
  thisIsNotAMailAddress: "This is not a mail address.",
  mailAddressOrSignInPassword: "Mail address or sign-in password is wrong.",
  signOutFirst: "Sign out first.",
};

export const setUp = {
  thisIsNotATimeZone: "This is not a time zone.",
  thisGaltryHasBeenSetUp: "This Galtry has been set up already.",
  yourAccessToGaltryHasBeen: "Your access to Galtry has been ended.",
  thisLinkHasBeenUsedReplaced: "This link has been used, replaced or has run out. Ask for a new one.",
};

export const telling = {
  theVault: (vault: string) => `The vault ${vault}`,
  anEntryIn: (vault: string) => `An entry in ${vault}`,
  hasNoStewardAnyMoreWas: (what: string, name: string) =>
    `${what} has no steward any more: ${name} was its last one. Nobody can give or withdraw access there.`,
};
