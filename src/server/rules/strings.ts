/** Every sentence and label of this area, in one place to be read. */
export const rules = {
  theHouseRulesAreForStaff: "The house rules are for staff.",
  ownersChangeTheHouseRules: "Owners change the house rules.",
  theseAreTheHouseRulesAlready: "These are the house rules already.",
  onlyAnOwnerMakes: (what: string) => `Only an owner makes ${what}.`,
  anAdministratorMakes: (what: string) => `An administrator makes ${what}.`,
  staffMake: (what: string) => `Staff make ${what}.`,
};
