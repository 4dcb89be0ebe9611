/** Every sentence and label of this area, in one place to be read. */
import { counted } from "../../core/counted";
export const sites = {
  offersCodes: "It offers one-time codes. Upkeep names the logins there that have none.",
  sitesWeUse: "Sites we use",
  addASite: "Add a site",
  forTheSitesYourColleaguesUse:
    "For the sites your colleagues use most: the address, a hint on what to type, and the site’s rules for passwords.",
  noSitesYetAskAnAdministratorTo: "No sites yet. Ask an administrator to add one.",
  change: (name: string) => `Change ${name}`,
  change2: "Change",
  wasRemovedFromTheList: (name: string) => `${name} was removed from the list.`,
  remove: (name: string) => `Remove ${name}`,
  remove2: "Remove",
  save: "Save",
  add: "Add",
  name: "Name",
  signInPage: "Sign-in page",
  thePageWithTheSignInForm: "The page with the sign-in form, not the home page",
  kind: "Kind",
  hint: "Hint",
  customerNumberNotEmailAddress: "“customer number, not email address”",
  theSitesRulesForPasswords: "The site’s rules for passwords",
  asHtmlsPasswordrulesMinlength: "As HTML’s passwordrules: minlength: 12; maxlength: 20; required: digit",
  sites: (count: number) => `${counted(count, "site")} to start a new entry from.`,
};
