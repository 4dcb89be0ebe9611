/** Every sentence and label of this area, in one place to be read. */
export const rules = {
  aGroupThatIsGone: "a deleted group",
  aGroupIsGone: "A group in these rules no longer exists. Remove its rule.",
  noLonger: (sentence: string) => `No longer: ${sentence}`,
  confirmFirst: {
    reveal: "The house rules let you see a value only after you confirm that it is you.",
    steward: "The house rules let you give Steward only after you confirm that it is you.",
    role: "The house rules let you give a role only after you confirm that it is you.",
    rules: "The house rules can be changed only after you confirm that it is you.",
  },
  theHouseRulesAreForStaff: "The house rules are for staff.",
  onlyOwnersCanChangeTheHouse: "Only owners can change the house rules.",
  theHouseRulesAlreadySayThis: "The house rules already say this.",
  onlyAnOwnerCanCreate: (what: string) => `Only an owner can create ${what}.`,
  onlyAnAdministratorCanCreate: (what: string) => `Only an administrator can create ${what}.`,
  onlyStaffCanCreate: (what: string) => `Only staff can create ${what}.`,
};

export const houseKeys = {
  onlyOwners: "Only owners see and rotate the keys of the house.",
  allAreBeingRotated: "These keys are being rotated already.",
};
