/** Every sentence and label of this area, in one place to be read. */

import type { ReactNode } from "react";
import { agree, counted, every, listOf } from "../../core/counted";

export const askAgain = {
  beforeAReveal: "Before a reveal",
  stopRequiringTheSignInPassword: "Stop requiring it: the sign-in password before each reveal",
  requireTheSignInPasswordBefore: "Require sign-in password before each reveal",
  stopRequiringIt: "Stop requiring it",
  requireSignInPassword: "Require sign-in password",
  requiresYourSignInPassword: "requires your sign-in password",
  nothingMoreIsRequired: "nothing more is required",
};

export const asksFirst = {
  beforeEachUse: "Before each use",
  changeTheApprovalBeforeEachUse: "Change the approval before each use",
  change: "Change",
  approvalByASteward: "approval by a steward",
  approvalByTwoStewards: "approval by two stewards",
  validFor: (part: string, minutes: string) => `${part}, valid for ${minutes}`,
  noApprovalNeeded: "no approval needed",
  beforeEachUseOf: (name: string) => `Before each use of ${name}`,
  save: "Save",
  eachSignInRevealAttachment:
    "Each sign-in, reveal, attachment, earlier version, duplicate and handover link then needs approval, for stewards too; nobody approves their own. Exports leave it out. Relaxing this needs approval.",
  whoApproves: "Who approves",
  nobody: "nobody",
  oneOfItsStewards: "one of its stewards",
  twoOfItsStewards: "two of its stewards",
  approvalIsValidFor: "Approval is valid for",
};

export const attachmentPreview = {
  save: "Save",
  close: "Close",
  thisPdfCannotBeShownHere: "This PDF cannot be shown here. Download it instead.",
};

export const attachments = {
  bytes: (bytes: number) => `${bytes} bytes`,
  kb: (round: number) => `${round} KB`,
  mb: (size: string) => `${size} MB`,
  attachments: "Attachments",
  by: (by: string) => `by ${by} `,
  open: (name: string) => `Open ${name}`,
  open2: "Open",
  download: (name: string) => `Download ${name}`,
  youNeedRevealToOpenThem: "You need Reveal to open them.",
  dropFilesHere: "Drop files here",
  encryptingOf: (name: string, part: number, ofWord: number) => `Encrypting ${name}: ${part} of ${ofWord}`,
  stop: "Stop",
  attachFiles: "Attach files",
  orDropThemHereTheyAreEncrypted: "Or drop them here. They are encrypted; people with Reveal can open them.",
  deleteWord: (name: string) => `Delete ${name}`,
  deleteWord2: "Delete",
  itIsDeletedForGoodAttachments: "It is deleted for good: attachments have no earlier versions.",
  cancel: "Cancel",
  thisFileCannotBeRead: (name: string) => `${name}: this file cannot be read.`,
  downloadIt: "Download",
};

export const before = {
  youHaveBeenGivenAccessTo: (name: string) => `You have been given access to ${name}.`,
  readTheHouseNoteOfFirst: (name: string) => ` Read the house note of ${name} first:`,
  acceptItToStartUsingIt: (name: ReactNode, part: string) => (
    <>
      {name} Accept it to start using it.{part}
    </>
  ),
  iHaveReadItAndAccept: "I have read it and accept",
  afterThatItRequiresApproval: (part: ReactNode) => <>{part} After that it requires approval again. </>,
  endNow: "End now",
  requested: (time: string) => `Requested ${time}.`,
  withdrawRequest: "Withdraw request",
  declined: "Declined:",
  approvalIsValidFor: (who: ReactNode, minutes: string) => (
    <>
      {who}. Approval is valid for {minutes}.
    </>
  ),
  requestApproval: "Request approval",
  thisIsAnEmergency: "This is an emergency…",
  requestApprovalToUse: (name: string) => `Request approval to use ${name}`,
  useWithoutApproval: (name: string) => `Use ${name} without approval`,
  useWithoutApproval2: "Use without approval",
  youCanUseItAtOnceFor: (minutes: string) =>
    `You can use it at once, for ${minutes}. All its stewards and the owners are told why; the Journal records it.`,
  reason: "Reason",
  whatHasHappened: "What has happened",
  hours: (count: number) => counted(count, "hour"),
  minutes: (count: number) => counted(count, "minute"),
  approvedUntil: (time: string) => `Approved until ${time}.`,
  emergencyUseUntil: (time: string) => `Emergency use until ${time}.`,
  thisPageUpdates: (requested: ReactNode, second: boolean) => (
    <>
      {requested}{" "}
      {second ? "One steward has approved; a second must approve too." : "This page updates when it is answered."}{" "}
    </>
  ),
  stewardsMustApprove: (stewards: number) => `${stewards === 1 ? "A steward" : "Two stewards"} must approve each use`,
  whatTheStewardsRead: (stewards: number, minutes: string) =>
    `${stewards === 1 ? "Its stewards read" : "Two of its stewards must approve. They read"} who requests it, the reason and the network address. Approval is valid for ${minutes}.`,
};

export const beginFromSite = {
  startFromASiteWeUse: "Start from a site we use",
  typeAFewLettersOfItsName: "Type a few letters of its name",
  sitesWeUse: "Sites we use",
  noSiteMatchesChooseAKindBelow: "No site matches. Choose a kind below.",
};

export const bin = {
  willBeDeletedForGoodToday: "will be deleted for good today",
  restoreItTo: "Restore it to",
  chooseAPlace: "Choose a place",
  restore: "Restore",
  deleteForGood: "Delete for good",
  deleteForGood2: (name: string) => `Delete ${name} for good`,
  typeItsNameToConfirm: (name: string) => `Type its name, ${name}, to confirm`,
  putInTheBin: (name: string) => `Put ${name} in the bin`,
  seeIt: "see it",
  signInWithItOrSeeIt: "sign in with it or see it",
  openSessionsAtTheSiteStayOpen: " Open sessions at the site stay open.",
  nobodyCanUntilOneOfItsStewards: (part: string, bin: number, part2: ReactNode) => (
    <>
      Nobody can {part} until one of its stewards restores it. After {bin} days it is deleted for good.{part2}
    </>
  ),
  isInTheBin: (name: string) => `${name} is in the bin.`,
  putInTheBin2: "Put in the bin",
  cancel: "Cancel",
  willBeDeletedForGoodIn: (days: number) => `will be deleted for good in ${counted(days, "day")}`,
  whatIsDeleted: (versions: number, attachments: number) =>
    `${agree(versions, "Its only version", `All ${versions} versions`)}, ${counted(attachments, "attachment")} and the record of who has seen it are deleted. They cannot be restored.`,
};

export const card = {
  you: "You ",
  galtry: "Galtry ",
};

export const chooseKind = {
  whatDoYouWantToAddTo: (name: string) => `What do you want to add to ${name}?`,
  typeItsFirstLetters: "Choose a kind, or type its first letters and press Enter.",
  kindsOfYourOwn: "Kinds of your own",
  sitesWeUse: "sites we use",
  nothingFitsHaveTheFieldsYou: (link: ReactNode, link2: ReactNode) => (
    <>
      Nothing fits? {link} have the fields you choose, and the sites your colleagues use most are ready under {link2}.
    </>
  ),
};

export const codes = {
  ofLeftTickACodeOffWhen: (usedCount: number, codesCount: number) =>
    `${usedCount} of ${codesCount} left. Tick a code off when you have used it.`,
};

export const convertSheet = {
  isNowOfTheKind: (name: string, name2: string) => `${name} is now of the kind ${name2}.`,
  changeTheKindOf: (name: string) => `Change the kind of ${name}`,
  changeTheKind: "Change the kind",
  kind: "Kind",
  chooseAKind: "Choose a kind",
  signInPage: "Sign-in page",
  thePageWithTheSignInForm: "The page with the sign-in form, not the home page",
  hasNoSuchFields: (kind: string, fields: string[]) =>
    `${kind} has no ${listOf(fields, "or")}: ${agree(fields.length, "it is", "they are")} saved as extra fields.`,
};

export const didNotWork = {
  itsStewards: "its stewards",
  reportAProblem: "Report a problem",
  reportAProblemWith: (name: string) => `Report a problem with ${name}`,
  tell: (stewards: string) => `Tell ${stewards}`,
  whatHappens: "What happens?",
  anythingElseDoNotWriteA: "Anything else? Do not write a password.",
  beenTold: (stewards: string, count: number) => `${stewards} ${agree(count, "has", "have")} been told.`,
};

export const earlier = {
  earlierVersions: "Earlier versions",
  backToTheEntry: "Back to the entry",
  versions2: "Versions",
  now: "now",
  rejectedByTheSite: "; rejected by the site",
  showOlderOnes: "Show older ones",
  firstVersion: "first version",
  noVisibleChange: "no visible change",
  restoredFromVersion: (number: number) => `Restored from version ${number}.`,
  field: "Field",
  versionNow: (number: number) => `Version ${number}, now`,
  version2: (number: number) => `Version ${number}`,
  now2: "Now",
  restore: (label: string) => `Restore ${label}`,
  restore2: "Restore",
  theSame: "the same",
  restoreAllOfVersion: (number: number) => `Restore all of version ${number}`,
  theCurrentValuesStayAmongThe: "The current values stay among the earlier versions.",
  noValue: "no value ",
  showCode: "Show code",
  ofVersion: (part: string, label: string, number: number) => `${part} ${label} of version ${number}`,
  reveal: "Reveal",
  hide: "Hide",
  versionsOf: (name: ReactNode, count: number) => (
    <>
      {name}: {counted(count, "version")}.
    </>
  ),
};

export const ended = {
  youNoLongerHaveAccessToThis: "You no longer have access to this login.",
  yourAccessHasEnded: "Your access has ended",
  lanyardRemovesWhatItSetForThe: (says: string) => `${says} Lanyard removes what it set for the site in your browser.`,
  frontDesk: "Front desk",
  ifYouStillNeedItAskThe: (a: ReactNode) => (
    <>If you still need it, ask the person who gave it to you. Everything else is on the {a}.</>
  ),
};

export const entryAtUse = {
  signInTo: (site: string) => `Sign in to ${site}`,
  opensInANewTabAlreadySigned: "Opens in a new tab, already signed in.",
  lanyardIsConnectedInThis: "Lanyard is connected in this browser.",
  lookingForLanyardInThisBrowser: "Looking for Lanyard in this browser.",
  getLanyardToSignIn: "Get Lanyard to sign in",
  connectLanyardToSignIn: "Connect Lanyard to sign in",
  signingInNeedsLanyardGaltrys:
    "Signing in needs Lanyard, Galtry’s browser extension, in this browser. On a phone there is none yet: sign in on a computer.",
  lanyardIsInThisBrowserButNot: "Lanyard is in this browser, but not connected yet.",
  rejectedByTheSite: "rejected by the site",
  theSiteRejectedTheSaved:
    " The site rejected the saved password. Galtry will not send it again until it is corrected.",
  site: "Site",
  copied: "Copied",
  copy: "Copy",
  atTheSameSite: "At the same site",
  itsPasswordStaysInGaltryItIs:
    "Its password stays in Galtry. It is not sent to this browser, so there is nothing here to keep safe or pass on.",
  itsUserNameAndPasswordStayIn:
    "Its user name and password stay in Galtry. Neither is sent to this browser, so there is nothing here to keep safe or pass on.",
  withGuardedFillWhichTheSteward:
    " With guarded fill, which the steward has switched on, they are sent to this browser when you sign in, and you count under Seen by.",
  itsSecretFieldsStayInGaltryYou: "Its secret fields stay in Galtry. You need Reveal to see them.",
  oneTimeCode: "One-time code",
  galtryEntersItForYouWhenThe: "Galtry enters it for you when the site asks for it",
  notes: "Notes",
  tags: "Tags",
  signingIn: "Signing in",
  whatYouDidHere: "What you did here",
  unpin: "Unpin",
  pinToTheFrontDesk: "Pin to the Front desk",
  sealedSignInOrGuardedFill: "Sealed sign-in, or guarded fill",
  sealedSignIn: "Sealed sign-in",
  notUsedYet: (how: string) => `${how}; not used yet`,
  worked: (how: string, when: string) => `${how}, last worked ${when}`,
  it: (how: string, when: string, part: string, part2: string) => `${how}. ${when}: it ${part}${part2}`,
  yes: "Yes:",
  no: "No:",
  whatYouCanDo: "What you can do",
  itHasNoEndDate: " It has no end date.",
  signInAsOftenAsYouNeed: "Sign in, as often as you need",
  haveGaltryEnterTheOneTimeCode: "Have Galtry enter the one-time code",
  readItsSiteNotesAndTags: "Read its site, notes and tags",
  readItsOtherFieldsNotesAndTags: "Read its other fields, notes and tags",
  revealOrCopyItsSecretFields: "Reveal or copy its secret fields",
  revealOrCopyItsPassword: "Reveal or copy its password",
  revealOrCopyItsUserNameAnd: "Reveal or copy its user name and password",
  editIt: "Edit it",
  itsStewardCanChangeThat: ", its steward, can change that.",
  itsStewardsCanChangeThat: ", its stewards, can change that.",
  requestMoreAccess: "Request more access",
};

export const entryForm = {
  edit: (name: string) => `Edit ${name}`,
  addTo: (name: string, name2: string) => `Add ${name} to ${name2}`,
  save: "Save",
  add: "Add",
  name: "Name",
  description: "Description",
  tellsTwoSimilarEntriesApartBox: "Tells two similar entries apart: “box office, season desk”.",
  lanyardOffersItOn: "Lanyard offers it on",
  theWholeSiteWithItsSubdomains: "the whole site, with its subdomains",
  thisHostOnly: "this host only",
  peopleWithUseCanSeeThe: (fieldWord: string) => `People with Use can see the ${fieldWord}`,
  removeTheOneTimeCode: "Remove the one-time code",
  notes: "Notes",
  anyoneWhoCanUseTheEntryCan:
    "Anyone who can use the entry can read them. **Bold**, - lists and [links](https://…) are formatted.",
  extraFields: "Extra fields",
  seenFrom: "Seen from",
  use: "Use",
  reveal: "Reveal",
  revealHidden: "Reveal, hidden",
  value: "Value",
  leaveEmptyToKeepTheCurrent: "Leave empty to keep the current value.",
  remove: (part: string) => `Remove ${part}`,
  remove2: "Remove",
  addAField: "Add a field",
  yourChangesAreStillHereTake: "Your changes are still here. Take what you want from theirs, then save.",
  field: "Field",
  theirs: "Theirs",
  yours: "Yours",
  takeTheirs: (label: string) => `Take theirs: ${label}`,
  takeTheirs2: "Take theirs",
  youDidNotChangeItTheirsStays: "You did not change it: theirs stays.",
  savingReplacesItWithYours: "Saving replaces it with yours; theirs stays among the earlier versions.",
  theyAlsoChangedThe: (fieldWord: string, part: string) => `They also changed the ${fieldWord}. ${part}`,
  saveYourChanges: "Save your changes",
  place: "Place",
};

export const entryFull = {
  edit: "Edit",
  signIn: "Sign in",
  inTheBin: "In the bin",
  sinceNobodyCanUseItUntilIt: (b: ReactNode, time: string, daysLeft: string) => (
    <>
      {b} since {time}. Nobody can use it until it is restored. It {daysLeft}.
    </>
  ),
  setAside: "Set aside",
  sinceItStaysHereButIsNot: (b: ReactNode, time: string) => (
    <>
      {b} since {time}. It stays here, but is not offered anywhere and nobody can sign in with it.
    </>
  ),
  restore: "Restore",
  getLanyard: "Get Lanyard",
  connectIt: "Connect it",
  youNeedLanyardInThisBrowserTo: (part: ReactNode) => <>You need Lanyard in this browser to sign in. {part}</>,
  theSiteRejectedThisUserNameAnd: "The site rejected this user name and password.",
  galtryWillNotSendThemAgain: (b: ReactNode) => <>{b} Galtry will not send them again until they are corrected.</>,
  tryAgain: "Try again",
  signInPage: "Sign-in page",
  copied: "Copied",
  copy: "Copy",
  lanyardOffersItOn: "Lanyard offers it on",
  theWholeSite: "the whole site",
  thisHostOnly: "this host only",
  signingIn: "Signing in",
  signInSteps: "Sign-in steps",
  on: "on",
  off: "off",
  guardedFill: (howItWent: string, part: string) => `${howItWent}; guarded fill ${part}`,
  notes: "Notes",
  tags: "Tags",
  atTheSameSite: "At the same site",
  added: "Added",
  by: (createdBy: string) => `, by ${createdBy}`,
  unpin: "Unpin",
  pinToTheFrontDesk: "Pin to the Front desk",
  move: "Move",
  changeTheKind: "Change the kind",
  picture: "Picture",
  isSetAside: (name: string) => `${name} is set aside.`,
  createAHandoverLink: "Create a handover link",
  putInTheBin: "Put in the bin",
  inTheJournal: "In the Journal",
  whatYouDidHere: "What you did here",
  thisEntry: "this entry",
  mayStillBeSignedIn: "May still be signed in",
  theirAccessHasEndedAndLanyard: (site: string) =>
    `Their access has ended and Lanyard removes what it set. A copied session or an offline browser stays signed in at ${site} until the site ends it.`,
  signedIn: (name: ReactNode, time: string) => (
    <>
      {name}, signed in {time}
    </>
  ),
  seenBy: "Seen by",
  nobodyHasSeenTheCurrentValues: "Nobody has seen the current values.",
  changed: (count: number) => `changed ${counted(count, "time")}`,
  seenTheCurrentValues: (count: number) => (
    <>
      <b>{counted(count, "person")}</b> {agree(count, "has", "have")} seen the current values:
    </>
  ),
  seenHow: {
    revealed: "revealed it",
    copied: "copied it",
    written: "typed it",
    captured: "typed it",
    "brought in": "imported it",
    "guarded fill": "guarded fill",
    "filled in": "filled in with Lanyard",
    "taken out": "exported it",
    "handed over": "handover link",
  },
  duplicate: "Duplicate",
};

export const fieldFacts = {
  qrCodeToJoin: "QR code to join",
  none: "none",
  copy: (label: string) => `Copy ${label}`,
  copied: "Copied",
  copy2: "Copy",
  codes: (count: number) => counted(count, "code"),
};

export const fieldInput = {
  monthAndYear: "Month and year, as on the card: 08/27",
  leaveEmptyToKeepTheCurrent: "Leave empty to keep the current value.",
  notSet: "not set",
  theSecretKeyTheSiteShowsOr: "The secret key the site shows, or a pasted otpauth address.",
};

export const handOver = {
  closedAfterFiveWrong: "closed after five wrong passphrases or codes",
  expired: "expired",
  openedAndErased: "opened, and erased",
  endedTheEntryNoLongerExists: "ended: the entry no longer exists",
  createAHandoverLinkFor: (name: string) => `Create a handover link for ${name}`,
  anyoneWhoHasItCanOpenIt: "; anyone who has it can open it",
  andTellThemThePassphrase: ", and tell them the passphrase another way",
  itOpensWithACodeSentTo: (mailTo: string) => ` It opens with a code sent to ${mailTo}.`,
  copyTheLinkNowGaltryDoesNot: (part: string, part2: string, part3: ReactNode) => (
    <>
      Copy the link now: Galtry does not store it. Send it to one person{part2}
      {part}.{part3}
    </>
  ),
  copied: "Copied",
  copyLink: "Copy link",
  close: "Close",
  linksOfThisEntry: "Links of this entry",
  withAPassphrase: ", with a passphrase",
  forWord: (mailTo: string) => `, for ${mailTo}`,
  by: (part: ReactNode, by: string, time: ReactNode, part2: ReactNode, part3: ReactNode) => (
    <>
      {part}, by {by}, {time}
      {part2}
      {part3}
    </>
  ),
  until: (time: string) => `until ${time}`,
  canBeOpenedOnce: "can be opened once",
  canBeOpenedTimes: (openings: number) => `can be opened ${openings} times`,
  opened: (part: string) => `opened ${part}`,
  wrongPassphrasesOrCodes: (wrongWords: number) => `wrong passphrases or codes: ${wrongWords}`,
  withdrawTheLinkWith: (part: string) => `Withdraw the link with ${part}`,
  withdraw: "Withdraw",
  signInPage: "Sign-in page",
  chooseAnEndDateALinkAlways: "Choose an end date: a link always expires.",
  createLink: "Create link",
  thePersonWhoOpensItSeesThe:
    "The person who opens it sees the current values and counts under Seen by. Change them afterwards if that person should not keep knowing them.",
  whatToHandOver: "What to hand over",
  until2: "Until",
  thisEvening: "This evening",
  howOftenItCanBeOpened: "How often it can be opened",
  passphraseOptional: "Passphrase (optional)",
  requiredToOpenTheLinkTellThem:
    "Required to open the link. Tell them by telephone. Five wrong attempts close the link.",
  onlyForThisEmailAddress: "Only for this email address (optional)",
  itOpensWithACodeSentThere: "It opens with a code sent there.",
};

export const listed = {
  whoCanFindIt: "Who can find it",
  stopListingIt: "Stop listing it",
  listItForAllStaff: "List for all staff: this entry",
  stopListing: "Stop listing",
  listForAllStaff: "List for all staff",
  allStaffFindItsNameSiteAnd: "all staff find its name, site and stewards, and can request it",
  onlyPeopleWithAccess: "only people with access",
};

export const makeSshKey = {
  createAKey: "Create a key",
  ed25519: "Ed25519",
  rsa4096: "RSA 4096",
  creatingIt: "Creating it…",
  createKey: "Create key",
  created: "created",
  thisBrowserCannotCreateSuchA: "This browser cannot create such a key. Choose the other type.",
};

export const qr = {
  thisIsTooLongForAQr: "This is too long for a QR code.",
};

export const qrReader = {
  readingThePicture: "Reading the picture…",
  thereIsNoQrCodeInThis: "There is no QR code in this picture.",
  thisQrCodeHoldsSomethingOther: "This QR code holds something other than a one-time code.",
  thisPictureCannotBeRead: "This picture cannot be read.",
  readAQrPicture: "Read a QR picture",
};

export const secret = {
  hide: (label: string) => `Hide ${label}`,
  hide2: "Hide",
  reveal: (label: string) => `Reveal ${label}`,
  reveal2: "Reveal",
  spellOut: (label: string) => `Spell out ${label}`,
  spellOut2: "Spell out",
  qrCode: "QR code",
  qr: "QR",
  copy: (label: string) => `Copy ${label}`,
  copy2: "Copy",
  nextCode: (inThrees: ReactNode) => <>then {inThrees}</>,
  copiedTheClipboardIsClearedIn: "Copied. The clipboard is cleared in 30 seconds.",
  asAQrCode: (label: string) => `${label} as a QR code`,
  strength: "Strength",
  strengthOf: (ofWord: string) => `Strength of ${ofWord}`,
  beingChecked: "being checked",
  wouldTakeToGuessFromAStolen: (time: string) => ` would take ${time} to guess from a stolen, well-protected list`,
  reused: "reused",
  alsoThePasswordOf: " also the password of ",
  andMore: (part: number) => ` and ${part} more`,
  s: (left: number) => `${left} s`,
};

export const signingIn = {
  signInStepsOf: (name: string) => `Sign-in steps of ${name}`,
  save: "Save",
  galtrySignsInToTheSiteItself:
    "Galtry signs in to the site itself and hands the colleague’s browser the finished session. The password is not sent to that browser.",
  otherHostsTheSignInUses: "Other hosts the sign-in uses",
  separatedByCommasWithoutThem: "Separated by commas. Without them Galtry only calls the entry’s own site.",
  fixedChoices: "Fixed choices",
  onePerLineTheNameOfThe: "One per line: the name of the page’s field = value, such as branch=harbour.",
  signOutPage: "Sign-out page",
  galtryOpensItWhenSomeones: "Galtry opens it when someone’s access ends. Leave empty for none.",
  allowGuardedFillAsWell: "Allow guarded fill as well",
  forSitesWhereASealedSignIn:
    "For sites where a sealed sign-in cannot work. Lanyard types the password into the page and sends it at once. Someone with developer tools can see it then; each person who uses it counts under Seen by.",
  codesFromTheSite: "Codes that the site sends, by text message or email, are received by",
  whileSomeoneSignsIn:
    "While someone signs in, Galtry asks this person for the code, here and in Lanyard, and waits two minutes.",
  codesReachNobody: "nobody who can enter them",
  codesReachAny: "any steward of this entry",
  noStewardAnyMore: "someone who is no longer a steward",
  onTheSitesOwnPage: "On the site’s own page",
  aSealedSignInFromGaltryWorks: "A sealed sign-in from Galtry works with each of these.",
  lanyardOffersItGuardedFill: "Lanyard offers it; guarded fill types and sends",
  lanyardOffersItGuardedFill2: "Lanyard offers it; guarded fill types, and the person sends",
  lanyardDoesNotOfferItThereAnd: "Lanyard does not offer it there, and never fills it in",
  thisSiteHasNoHttpsSendThe: "This site has no https: send the password unencrypted",
  anyoneOnTheNetworkBetween: "Anyone on the network between Galtry and the site can read it.",
};

export const stepsPage = {
  howGaltrySignsInTo: (link: ReactNode) => <>How Galtry signs in to {link}</>,
  signInSteps: "Sign-in steps",
  backToTheEntry: "Back to the entry",
  test: "Test",
  testAgain: "Test again",
  testing: "Testing. This takes up to a minute.",
  testingWithCode:
    "Testing. If the site sends a code to a steward, Galtry asks them for it and waits up to two minutes.",
  changeSteps: "Change steps",
  learnWithLanyard: "Learn with Lanyard",
  lanyardOpensThePage:
    "Lanyard has opened the sign-in page in a new tab. Sign in there by hand, then press Save steps.",
  lanyardIsNotConnected: "Lanyard is not connected in this browser. Connect it first.",
  notTestedYet: "Not tested yet. A test signs in once, as a sealed sign-in does, and nobody gets the session.",
  works: (when: string, by: string) => `It works. Tested ${when}${by}.`,
  workedSince: (when: string) => `It works. Last signed in ${when}, after the test below.`,
  failed: (title: string, when: string, by: string) => `The site ${title}. Tested ${when}${by}.`,
  by: (name: string | null) => (name === null ? " by Galtry, at night" : name === "" ? "" : ` by ${name}`),
  lastFailed: (title: string, when: string) => `The last sign-in failed, ${when}: the site ${title}.`,
  older: "The entry has been edited since this test.",
  details: (detail: string) => `Details: ${detail}.`,
  whatYouCanDo: "What you can do",
  theSteps: "Steps",
  galtryGoesByThePages:
    "Galtry goes by what the pages say. If it gets one wrong, have Lanyard learn the steps: sign in to the site by hand once, and it writes down what the page did. The password is no part of it.",
  open: (address: ReactNode) => <>Open {address}.</>,
  onPage: (page: ReactNode, what: string, button: string) => (
    <>
      On {page}, {what}
      {button}.
    </>
  ),
  enter: (what: string) => `enter ${what}`,
  press: (button: string) => `press “${button}”`,
  thenPress: (button: string) => `, then press “${button}”`,
  thenSend: ", then send it",
  goOn: "go on",
  entered: {
    "user-name": "the user name",
    password: "the password",
    code: "the one-time code",
  },
  sentByScript: (to: ReactNode, encoding: string, token: string) => (
    <>
      The page’s script sends it to {to}
      {encoding}
      {token}.
    </>
  ),
  asJson: " as JSON",
  asForm: " as a form",
  withAToken: " with a token from the page",
  onlyItsScriptKnows: "Only the page’s own script can do this: Galtry uses its browser for it.",
  landsOn: (address: ReactNode) => <>Signed in once {address} opens.</>,
  otherHosts: "Other hosts",
  fixedChoices: "Fixed choices",
  signOutPage: "Sign-out page",
  none: "none",
  withWhat: "Signed in last by",
  engines: { http: "plain HTTP", browser: "Galtry’s own browser" },
  notYet: "nothing yet",
  codesFromTheSite: "Codes from the site",
  codesByGaltry: "Galtry enters them",
  codesReachNobody: "nobody enters them",
  codesReachAny: "a steward enters them",
  codesReachOne: (name: string) => `${name} enters them`,
  guardedFill: "Guarded fill",
  on: "on",
  off: "off",
  lastTest: "Last test",
  page: "Page",
  readAs: "Read as",
  whatWasDone: "What was done",
  time: "Time",
  milliseconds: (ms: number) => `${ms} ms`,
  seconds: (ms: number) => `${(ms / 1000).toFixed(1)} s`,
  bySteps: (what: string) => `${what}, by the steps`,
  kinds: {
    "sign-in": "a sign-in page",
    "identifier-first": "a page that asks for the user name",
    "password-only-step": "a page that asks for the password",
    "one-time-code-step": "a page that asks for a one-time code",
    "change-password": "a page that asks for a new password",
    register: "a page to register on",
    "reset-request": "a page to reset a password",
    unsure: "a page that may be for signing in",
    none: "a page that asks for nothing",
  },
  enteredWhat: (what: string) => `entered ${what}`,
  pressed: (button: string) => `pressed “${button}”`,
  nothingWasDone: "nothing",
  answered: (status: number) => `the site answered ${status}`,
  lastPage: "The last page, as the test saw it",
  noPicture: "There is no picture: this test got by without Galtry’s own browser.",
  noSafePicture: "There is no picture: the page could not be shown without the password.",
  earlierSteps: "Earlier steps",
  noEarlierSteps: "The steps have not been changed yet.",
  how: { learned: "learned by Lanyard", edited: "edited", restored: "restored" },
  versionLine: (when: string, how: string, by: string) => `${when}: ${how}${by ? `, ${by}` : ""}`,
  inForce: "in use now",
  restore: "Restore",
  restored: "The earlier steps are in use again.",
  restoreFrom: (when: string) => `Restore the steps of ${when}`,
  pages: (count: number) => counted(count, "step"),
  mends: {
    "edit-entry": "Edit the entry: its sign-in page, user name or password.",
    "try-again": "Let Galtry send the saved password again, if you know that it is right.",
    "add-code": "Edit the entry and add the secret key of its one-time code.",
    "code-receiver": "If one of its stewards receives the code, say who: Galtry then asks them while someone signs in.",
    learn: "Have Lanyard learn the steps while you sign in by hand.",
    "change-steps": "Change the steps: hosts, choices or pages.",
    browser: "Ask the person who runs Galtry to give it a browser of its own (GALTRY_SIGN_IN_BROWSER).",
    "guarded-fill": "Allow guarded fill, if the password may be sent to your colleagues’ browsers.",
    "plain-http": "Allow plain http, if anyone on the network between may read the password.",
    "open-page": "Open the sign-in page yourself and see what it asks for.",
    test: "Test it again in a few minutes.",
  },
  edit: "Edit",
  tryAgain: "Try again",
  change: "Change",
  openThePage: "Open the page",
  onlyAStewardCan: " Only a steward can.",
};

export const stepsForm = {
  step: (number: number) => `Step ${number}`,
  pageAddress: "Page",
  userNameField: "User name goes into",
  passwordField: "Password goes into",
  codeField: "One-time code goes into",
  button: "Button",
  leaveEmpty: "A field’s name, or the words on it. Leave empty what the page does not ask for.",
  sendAsThePage: (to: string) => `Send it to ${to} as the page’s own script does`,
  removeStep: (number: number) => `Remove step ${number}`,
  addStep: "Add step",
  lands: "Address once signed in",
  landsHint: "The page that opens after signing in. Leave empty if you do not know.",
  thePages: "Without steps Galtry goes by what the pages say.",
};

export const spellingCard = {
  ofWord: (part: number, groupsCount: number) => `${part} of ${groupsCount}`,
  back: "Back",
  startAgain: "Start again",
  next: "Next",
  readAloud: "Read aloud",
};

export const tagField = {
  separatedByCommas: "Separated by commas.",
  usedHere: "Used here:",
  addTheTag: (tag: string) => `Add the tag ${tag}`,
};

export const termsDialog = {
  signInWithoutSeeingTheUserName: "sign in, without seeing the user name or password",
  alsoSeeTheUserNameAndReveal: "also see the user name and reveal the password; the Journal records each reveal",
  alsoChangeIt: "also edit it",
  alsoGiveAndEndAccessExportIt: "also give and end access, export it, put it in the bin",
  noAccessWhateverTheirGroups: "no access, whatever their groups have",
  withdraw: "Withdraw",
  onTheyCan: (nodeWord: string) => `On ${nodeWord} they can`,
  reason: "Reason",
  shownInTheJournalOfTheEntry: "Shown in the Journal of the entry.",
  effects: "Effects",
};

export const whoCanDoWhat = {
  whoCanDoWhat: "Who can do what",
  giveAccess: "Give access",
  giveAccessToAPersonAGroup: "Give access to a person, a group or Everyone",
  peopleAndGroups: "People and groups",
  noMatchTryPartOfTheName: "No match. Try part of the name or email address.",
  from: (time: string) => `from ${time}`,
  until: (time: string) => `until ${time}`,
  setForThisEntry: "Set for this entry",
  change: "Change",
  nobodyCanUseIt: "Nobody can use it.",
  hidePeople: "Hide people",
  showEachPerson: "Show each person",
  giveAccessTo: (name: string) => `Give access to ${name}`,
  changeAccessOf: (name: string) => `Change access of ${name}`,
  setAccessOfForThisEntry: (name: string) => `Set access of ${name} for this entry`,
  canUseItInAll: (count: number) => `${counted(count, "person")} can use it in all.`,
};

export const passwordAtSite = {
  passwordAtTheSite: "Password at the site",
  whatGaltryDoes:
    "Galtry can change it: it signs in, creates a new password to the site’s rules, and saves it before it is sent. It becomes the current version once Galtry has signed in with it. Nobody is shown it. By hand, Lanyard fills in the current password and a new one on the site’s page.",
  changeNow: "Change now",
  changeOf: (name: string) => `Change the password of ${name}`,
  whatHappens: (host: string) =>
    `Galtry signs in at ${host} and changes the password there. Colleagues with Use notice nothing. Anyone who knows the old one can no longer sign in with it.`,
  isChangedAt: (page: ReactNode) => <>It is changed at {page}.</>,
  changeByHand: "Change by hand",
  openToChangeByHand: "Open the site to change it by hand",
  lanyardOpensThePage:
    "Lanyard opens the site in another tab and signs in. There it fills in the current password and a new one, once Galtry has saved it.",
  lanyardDoesNotAnswer: "Lanyard does not answer. Reload this page and try again.",
  whereItIsChanged: "Page where the password is changed",
  leaveEmpty: "Leave empty and Galtry looks for it.",
  changing: "Changing the password. This takes up to two minutes; you can leave this page.",
  trying: "Signing in with the new password.",
  said: (title: string, when: string, by: string) => `${title}, ${when}${by === "" ? "" : `, by ${by}`}.`,
  details: (detail: string) => `Details: ${detail}.`,
  tryNew: "Try the new password",
  useNew: "Use new password",
  keepOld: "Keep old password",
  newStands: "The new password is the current version.",
  oldStands: "The old password stays the current version.",
  noRule: "It is to be changed regularly, but the house rules do not say how often.",
  notRegularly: (months: number) =>
    `The house rules have passwords changed ${every(months, "month")}. This one is not among them.`,
  notWhileItAsksFirst: "It requires approval, so it is not changed regularly: someone has to approve each change.",
  regularly: (months: number, next: string) => `Galtry changes it ${every(months, "month")}, at night. Next: ${next}.`,
  changeRegularly: "Change it regularly",
  stopRegularly: "Stop changing it regularly",
  chosenNow: "Galtry changes this password regularly.",
  notChosenNow: "Galtry no longer changes this password regularly.",
};
