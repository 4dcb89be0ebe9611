/** Every sentence that single sign-on says from the server, in one place to be read. */

export const providers = {
  anAddressWithHttps: "This must be an address that begins with https.",
  thisIsNeeded: "This is needed.",
  aCertificateIsNeeded: "A certificate is needed.",
  atMostTwoCertificates: "Two certificates at most: the one in use and the one that follows it.",
  thisIsNotACertificate: "This is not a certificate.",
  itIsAlreadyHere: "This provider is already here.",
  theProtocolStays: "The protocol cannot be changed. Add the provider anew.",
  theIssuerStays: "People are linked with accounts of this issuer. To use another, add a new provider.",
  testItFirst: "Test it first: every step must have worked since the last change.",
  onlyOwnersWhereRequired: "While it is required, only an owner can do this.",
  onlyAnOwnerCanRequire: "Only an owner can require it.",
  switchItOnFirst: "Switch it on first.",
  testItYourselfFirst: "Test it yourself first: you must have come through it.",
  ownersNeedAWay: (names: string) =>
    `For the day the provider is down each owner needs a passkey, or a sign-in password with one-time codes. Not yet: ${names}.`,
  thisIsNotADomain: "This is not a domain, such as tarrowick.example.",
  thisDomainIsAlreadyHere: "This domain is already here, or with another provider.",
  tooManyDomains: "There can be at most 50 domains.",
  onlyAnOwnerCanState: "Only an owner can state this.",
  sayHowYouKnow: "Say in a sentence how you know.",
  theRecordIsNotThere: (where: string) =>
    `The TXT record at ${where} was not found yet. A new record can take an hour to be seen.`,
  wasAdded: (who: string, name: string) => `${who} added the identity provider ${name}.`,
  wasChanged: (who: string, name: string) => `${who} changed the settings of the identity provider ${name}.`,
  wasRemoved: (who: string, name: string) => `${who} removed the identity provider ${name}.`,
  wasSwitchedOn: (who: string, name: string) => `${who} switched on single sign-on with ${name}.`,
  wasSwitchedOff: (who: string, name: string) => `${who} switched off single sign-on with ${name}.`,
  isRequired: (who: string, name: string) => `${who} required ${name} for staff. Owners keep a way in of their own.`,
  isNotRequired: (who: string, name: string) => `${who} no longer requires ${name} for staff.`,
  domainProved: (who: string, domain: string, name: string) => `${who} proved the domain ${domain} for ${name}.`,
  certificateEnds: (name: string, date: string) =>
    `The signing certificate of ${name} ends ${date}. Add the one that follows it on the page of single sign-on.`,
  scimTokenMade: (who: string, name: string) => `${who} created a SCIM token for ${name}.`,
};

export const arrivals = {
  itIsSwitchedOff: "This way to sign in is switched off.",
  startAgain: "This sign-in has ended. Start again.",
  notThisBrowser: "This sign-in was started in another browser. Start again in this one.",
  notInvited: (provider: string) =>
    `${provider} knows you, but you have not been added to Galtry. Ask an administrator.`,
  notVerified: (provider: string) =>
    `${provider} does not say that your email address is yours. Ask an administrator to link your account.`,
  wrongDomain: (provider: string) =>
    `Your email address at ${provider} is not of one of its domains. Ask an administrator to link your account.`,
  deactivated: (provider: string) => `Your account at ${provider} is deactivated.`,
  notActive: "Your access to Galtry has been suspended or has ended. Ask an administrator.",
  toLink: (provider: string) =>
    `You already sign in to Galtry in another way. To use ${provider} from now on, sign in again as you do now.`,
  accountWaits: (account: string, provider: string) =>
    `The account ${account} at ${provider} has your email address. Link it under How you sign in if it is yours.`,
  itIsSomebodyElses: "This account is linked with someone else.",
  alreadyLinked: (provider: string) => `You are already linked with ${provider}.`,
  linkedElsewhere: (provider: string) => `You are linked with ${provider} already. Unlink it first.`,
  linkIsOver: "This link has been used, withdrawn or has expired.",
  anotherAddress: (mail: string) => `This link is for ${mail}. Sign in at the provider with that address.`,
  wasLinked: (provider: string) => `Your account at ${provider} was linked with Galtry.`,
  wasUnlinked: (provider: string) => `Your account at ${provider} is no longer linked with Galtry.`,
  lastWay: "This is your only way to sign in. Add another first.",
  notYourAccount: "You signed in there with another account.",
  itWaitsNoLonger: "This account no longer waits to be confirmed.",
  itIsRequired: (provider: string) => `You are required to sign in with ${provider}.`,
  notForYourself: "You cannot confirm an account for yourself. Ask another administrator.",
  onlyAnOwner: "Only an owner can confirm an account for an owner.",
  signInAnew: "The provider did not ask you to sign in anew.",
};

export const providerGroups = {
  releaseItFirst: "The provider decides who is in it. Release it first.",
  matchedAlready: (group: string) => `${group} is matched with another group of a provider.`,
  matchItFirst: "Choose the group in Galtry first.",
  itIsAppliedAlready: "The provider already decides who is in it.",
  somethingHasChanged: "Something has changed since the dry run. Check it again.",
  itWouldChangeYours: "This would change your own access. Ask another administrator to apply it.",
  itIsKeptHere: "Galtry already decides who is in this group.",
};

export const scim = {
  userNameTaken: "This userName is already in use.",
  groupNameTaken: "This displayName is already in use.",
  unknownMember: "A member is no user of this provider.",
  deactivatedAt: (provider: string) => `the account at ${provider} was deactivated`,
  deletedAt: (provider: string) => `the account at ${provider} was deleted`,
  lastOwnerStays: (name: string, provider: string) =>
    `${provider} ended the account of ${name}, the last active owner. They were signed out and are still an owner here.`,
};
