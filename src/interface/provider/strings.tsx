/** Every sentence and label of this area, in one place to be read. */

import type { ReactNode } from "react";
import { counted } from "../../core/counted";

const protocols = { oidc: "OpenID Connect", saml: "SAML 2.0" };

export const back = {
  signedInAgain: "You have signed in again",
  tested: "The test is done",
  closeThisWindow: "You can close this window and go on where you were.",
};

export const signOn = {
  where: (link: ReactNode, count: number) => (
    <>
      {link} · <b>Single sign-on</b>. {count === 0 ? "No identity provider" : counted(count, "identity provider")}.
    </>
  ),
  people: "People",
  singleSignOn: "Single sign-on",
  addAProvider: "Add a provider",
  noneYet:
    "Staff can sign in to Galtry with the account they have at your identity provider, over OpenID Connect or SAML 2.0. Add it here, test it, then switch it on.",
  protocols,
  required: "required for staff",
  inUse: "in use",
  notInUse: "not in use",
  linked: (count: number) => `${counted(count, "person")} linked`,
  change: "Change",
  changeProvider: (name: string) => `Change ${name}`,
  remove: "Remove",
};

export const testSheet = {
  test: "Test",
  testIt: "Test it",
  testAgain: "Test again",
  lastTest: (time: string, by: string) => `Last test ${time}, by ${by}.`,
  notTestedYet: "Not tested since the last change.",
  steps: {
    discovery: "Read what the provider offers",
    keys: "Read its signing keys",
    "sign-in": "You sign in there and come back",
    exchange: "Exchange the code for a token",
    token: "Check the token: signature, issuer, audience, times",
    person: "Read who you are",
  },
  samlSteps: {
    discovery: "Where people sign in",
    keys: "Check its certificates",
    "sign-in": "You sign in there and come back",
    exchange: "Receive the response",
    token: "Check the assertion: signature, audience, recipient, times",
    person: "Read who you are",
  },
  worked: "worked",
  failed: "failed",
  notTested: "not tested",
  theProviderSaid: (said: string) => `The provider said: ${said}`,
  itSaid: (said: string) => said,
  milliseconds: (ms: number) => (ms < 1000 ? `${ms} ms` : `${(ms / 1000).toFixed(1)} s`),
  whatCameBack: "What came back about you",
  continueThere: "Sign in at the provider, in the window that has opened.",
};

export const providerUse = {
  use: "Use",
  switchOn: "Switch on",
  switchOff: "Switch off",
  possibleAfterATest: "Possible once every step of the test has worked.",
  onSays: "Staff see it on the sign-in page, beside their other ways to sign in.",
  staffMustUseIt: "Require it for staff",
  notRequired: "No longer require it",
  requireSays:
    "Once it is required, staff sign in with it and in no other way. Owners keep a way in of their own for the day the provider is down; all owners are told of each use.",
  ownersNeed: (names: string) =>
    `First each owner needs a passkey, or a sign-in password with one-time codes. Not yet: ${names}.`,
  whoJoins: "People Galtry does not know",
  refused: "are refused: add them first",
  added: "are added as members, without access of their own",
};

export const domains = {
  domains: "Domains",
  domainsSay: "An email address counts only in a domain that is proven to be yours.",
  addADomain: "Add a domain",
  add: "Add",
  domain: "Domain",
  example: "tarrowick.example",
  provedBy: (how: "dns" | "statement" | null, by: string, time: string) =>
    how === "dns" ? `proven by its DNS record ${time}, by ${by}` : `stated by ${by}, ${time}`,
  notProved: "not proven yet",
  record: (where: ReactNode, token: ReactNode) => (
    <>
      Add a TXT record at {where} with the text {token}, then check it.
    </>
  ),
  check: "Check the record",
  state: "State it instead",
  stateTitle: (domain: string) => `State that ${domain} is yours`,
  stateSays:
    "For a server that cannot look up DNS. The statement is written in the Journal with your name, and all owners are told.",
  statement: "How you know",
  stateVerb: "State it",
  remove: (domain: string) => `Remove ${domain}`,
  removeWord: "Remove",
};

export const addresses = {
  atTheProvider: "At the provider",
  returnAddress: "Redirect address",
  startAddress: "Start address, for its page of applications",
  logoutAddress: "Logout address (back channel)",
  frontLogoutAddress: "Logout address (front channel)",
  metadata: "Galtry’s metadata",
  answerAddress: "Assertion consumer service",
  entityId: "Entity ID of Galtry",
  startsAtEntry: "With ?next=/entry/… at its end it leads to one entry.",
  copy: (what: string) => `Copy: ${what}`,
  copyWord: "Copy",
  copied: "Copied",
};

export const providerForm = {
  addAProvider: "Add an identity provider",
  change: (name: string) => `Change ${name}`,
  add: "Add",
  save: "Save",
  protocol: "Protocol",
  protocols,
  name: "Name",
  nameHint: "People see it on the sign-in page: “Sign in with …”.",
  issuer: "Issuer",
  issuerHint: "The address that its discovery document names as issuer.",
  clientId: "Client ID",
  secret: "Client secret",
  keepSecret: "Leave empty to keep the one that is saved.",
  noSecret: "Leave empty for a client without one.",
  secretIn: "The secret is sent",
  inHeader: "in the request’s header",
  inBody: "in the request’s body",
  none: "not at all",
  scopes: "Scopes",
  groupsClaim: "Claim with groups",
  groupsHint: "Leave empty if groups do not come from there.",
  pasteMetadata: "The provider’s metadata (XML)",
  pasteHint: "Paste it and the fields below are filled in.",
  notMetadata: "This is not the metadata of an identity provider.",
  entityId: "Entity ID of the provider",
  signOnUrl: "Address for signing in (HTTP-Redirect)",
  certificate: "Signing certificate",
  nextCertificate: "The certificate that follows it",
  nextHint: "Leave empty until there is one. While both are here, either counts.",
  mailAttribute: "Attribute with the email address",
  nameAttribute: "Attribute with the name",
  groupsAttribute: "Attribute with groups",
  testAfterwards: "It stays on after a change. Test it again then.",
};

export const certificates = {
  until: (subject: string, time: string) => `${subject}, until ${time}`,
};

export const waiting = {
  accounts: "Accounts to confirm",
  says: "An account at the provider has the email address of a person in Galtry. Confirm only if you know that it is the same person.",
  isThis: (account: ReactNode, person: ReactNode) => (
    <>
      {account} is {person}?
    </>
  ),
  confirm: "Link",
  decline: "Not the same person",
  confirmFor: (mail: string) => `Link ${mail}`,
};

export const groupTable = {
  groups: "Groups: a dry run",
  from: "Worked out from what SCIM sent, and for the others from what each person’s last sign-in said. Nothing changes until you apply a group.",
  none: "No group has been seen there yet. Groups appear here when people sign in, or when SCIM sends them.",
  there: "At the provider",
  inGaltry: "Group in Galtry",
  noGroup: "no group",
  wouldJoin: "Would join",
  wouldLeave: "Would leave",
  apply: "Apply",
  applyFor: (name: string) => `Apply ${name}`,
  release: "Release",
  releaseFor: (name: string) => `Release ${name}`,
  members: (count: number) => counted(count, "person"),
  bySignIn: "as people sign in",
  byScim: "by SCIM",
  decides: "the provider decides",
  groupFor: (name: string) => `Group in Galtry for ${name}`,
  applied: (name: string, joined: number, left: number) =>
    `The provider decides who is in ${name} now: ${joined} joined, ${left} left.`,
};

export const scim = {
  scim: "SCIM",
  says: "The provider tells Galtry of people and groups as they change. People deactivated there are signed out here within seconds.",
  address: "SCIM address",
  token: "Token",
  create: "Create a token",
  replace: "Create a new token",
  shownOnce: "It is shown once. Give it to the provider now.",
  both: (time: string) => `The token before it works until ${time}.`,
  off: "No token: SCIM is off.",
  on: "SCIM is on.",
  end: "End all tokens",
};

export const removeSheet = {
  title: (name: string) => `Remove ${name}`,
  says: "People who sign in only with it must be given another way in. Its groups stay as they are, changed in Galtry from then on.",
  typeTheName: (name: string) => `To remove it, type ${name}`,
  remove: "Remove the provider",
};
