/** Every sentence and label of this area, in one place to be read. */
export const sites = {
  site: "site",
  sites: "sites",
  aNewEntryBeginsFromOne: (toLocaleString: string, part: string) =>
    `${toLocaleString} ${part}. A new entry begins from one of them.`,
  sitesWeUse: "Sites we use",
  addASite: "Add a site",
  whereColleaguesSignInAgainAnd:
    "Where colleagues sign in again and again, the address, a word on what to type, and the site’s own rules for passwords can stand ready here.",
  thereAreNoneYetAnAdministrator: "There are none yet. An administrator keeps this list.",
  change: (name: string) => `Change ${name}`,
  change2: "Change",
  isOffTheList: (name: string) => `${name} is off the list.`,
  takeOff: (name: string) => `Take off ${name}`,
  takeOff2: "Take off",
  save: "Save",
  add: "Add",
  name: "Name",
  signInPage: "Sign-in page",
  theVeryAddressWhereOneSigns: "the very address where one signs in, not the home page",
  kind: "Kind",
  hint: "Hint",
  customerNumberNotMailAddress: "“customer number, not mail address”",
  theSitesRulesForPasswords: "The site’s rules for passwords",
  asHtmlsPasswordrulesHasThem: "as HTML’s passwordrules has them: minlength: 12; maxlength: 20; required: digit",
};
