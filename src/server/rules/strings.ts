/** Every sentence and label of this area, in one place to be read. */
export const rules = {
  aGroupThatIsGone: "a deleted group",
  aGroupIsGone: "A group in these rules no longer exists. Remove its rule.",
  noLonger: (sentence: string) => `No longer: ${sentence}`,
  theHouseRulesAreForStaff: "The house rules are for staff.",
  onlyOwnersCanChangeTheHouse: "Only owners can change the house rules.",
  theHouseRulesAlreadySayThis: "The house rules already say this.",
  onlyAnOwnerCanCreate: (what: string) => `Only an owner can create ${what}.`,
  onlyAnAdministratorCanCreate: (what: string) => `Only an administrator can create ${what}.`,
  onlyStaffCanCreate: (what: string) => `Only staff can create ${what}.`,
};
