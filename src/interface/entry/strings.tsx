/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";

export const askAgain = {
  beforeAReveal: "Before a reveal",
  stopAskingBeforeEachReveal: "Stop asking before each reveal",
  askAgainBeforeEachReveal: "Ask again before each reveal",
  stopAsking: "Stop asking",
  askAgain: "Ask again",
  onesSignInPasswordIsAsked: "one’s sign-in password is asked for again",
  nothingMoreIsAsked: "nothing more is asked",
};

export const asksFirst = {
  beforeEachUse: "Before each use",
  changeWhatIsAskedBeforeEach: "Change what is asked before each use",
  change: "Change",
  aStewardsYes: "a steward’s yes",
  theYesOfTwoStewards: "the yes of two stewards",
  forEachTime: (part: string, minutes: string) => `${part}, for ${minutes} each time`,
  nobodyIsAskedFirst: "nobody is asked first",
  beforeEachUseOf: (name: string) => `Before each use of ${name}`,
  save: "Save",
  aSignInARevealAn:
    "A sign-in, a reveal, an attachment, an earlier version, a copy and a handover link then take a yes first, also from its stewards: nobody says yes to themselves. It is never taken out with others. Asking less later takes the same yes.",
  whoIsAsked: "Who is asked",
  nobody: "nobody",
  oneOfItsStewards: "one of its stewards",
  twoOfItsStewards: "two of its stewards",
  aYesHoldsFor: "A yes holds for",
};

export const attachmentPreview = {
  save: "Save",
  close: "Close",
  thisPdfCannotBeDrawnHere: "This PDF cannot be drawn here. Save it instead.",
};

export const attachments = {
  bytes: (bytes: number) => `${bytes} bytes`,
  kb: (round: number) => `${round} KB`,
  mb: (toFixed: string) => `${toFixed} MB`,
  attachments: "Attachments",
  by: (by: string) => `by ${by} `,
  open: (name: string) => `Open ${name}`,
  open2: "Open",
  save: (name: string) => `Save ${name}`,
  save2: "Save",
  youCanSeeThatTheyAre: "You can see that they are there, but not open them.",
  dropFilesHere: "Drop files here",
  sealingOf: (name: string, part: number, ofWord: number) => `Sealing ${name}: ${part} of ${ofWord}`,
  stop: "Stop",
  attachFiles: "Attach files",
  orDropThemHereSealedAs: "or drop them here; sealed as secrets are, opened from Reveal up",
  takeAway: (name: string) => `Take away ${name}`,
  takeAway2: "Take away",
  takeAway3: (name: string) => `Take ${name} away`,
  itIsDeletedForGoodThere: "It is deleted for good: there is no earlier version of an attachment.",
  leaveIt: "Leave it",
  thisFileCannotBeRead: (name: string) => `${name}: This file cannot be read.`,
};

export const before = {
  youHaveBeenGiven: (name: string) => `You have been given ${name}.`,
  withTheHouseNoteOf: (name: string) => `, with the house note of ${name}:`,
  itWorksOnceYouHaveAccepted: (name: ReactNode, part: string) => (
    <>
      {name} It works once you have accepted it{part}
    </>
  ),
  iHaveReadItAndAccept: "I have read it and accept",
  aStewardsYes: "a steward’s yes",
  theYesOfTwoStewards: "the yes of two stewards",
  pastAYesInAnEmergency: "Past a yes, in an emergency",
  yes: "Yes",
  until: (part: string, time: string) => `${part}, until ${time}.`,
  afterThatItAsksAgain: (part: ReactNode) => <>{part} After that it asks again. </>,
  iAmDoneWithIt: "I am done with it",
  youHaveAsked: (time: string) => `You have asked, ${time}.`,
  aSecondStewardSaysYesToo: "a second steward says yes too.",
  youHave: (who: string) => `you have ${who}.`,
  thisPageSaysSoAsSoon: (time: ReactNode, part: string) => (
    <>
      {time} This page says so as soon as {part}{" "}
    </>
  ),
  takeItBack: "Take it back",
  no: "No:",
  itTakes: (who: string) => `It takes ${who}`,
  beforeItSignsInOrShows: (who: ReactNode, minutes: string) => (
    <>
      {who} before it signs in or shows anything, for {minutes} each time.
    </>
  ),
  askFirst: "Ask first",
  thisIsAnEmergency: "This is an emergency…",
  oneMinute: "one minute",
  oneHour: "one hour",
  hours: (part: number) => `${part} hours`,
  minutes: (minutes: number) => `${minutes} minutes`,
  askToUse: (name: string) => `Ask to use ${name}`,
  useWithoutAYes: (name: string) => `Use ${name} without a yes`,
  ask: "Ask",
  useItWithoutAYes: "Use it without a yes",
  itsStewardsRead: "Its stewards read",
  twoOfItsStewardsHaveTo: "Two of its stewards have to say yes. They read",
  whoAsksWhatForAndFrom: (part: string, minutes: string) =>
    `${part} who asks, what for and from where. A yes holds for ${minutes}.`,
  itWorksAtOnceForAll: (minutes: string) =>
    `It works at once, for ${minutes}. All its stewards and the owners are told now, with what you write here, and it stands in the Journal.`,
  whatFor: "What for",
  whatHasHappened: "What has happened",
};

export const beginFromSite = {
  beginFromASiteWeUse: "Begin from a site we use",
  aFewLettersOfItsName: "a few letters of its name",
  sitesWeUse: "Sites we use",
  noSiteOfThatNameIs: "No site of that name is on the list. Choose a kind below.",
};

export const bin = {
  itIsDeletedForGoodToday: "it is deleted for good today",
  itIsDeletedForGoodIn: (left: number, part: string) => `it is deleted for good in ${left} ${part}`,
  restoreItTo: "Restore it to",
  chooseAPlace: "choose a place",
  restore: "Restore",
  deleteForGood: "Delete for good",
  deleteForGood2: (name: string) => `Delete ${name} for good`,
  itsValuesAllVersions: (part: number, attachmentsCount: number) =>
    `Its values, all ${part} versions, ${attachmentsCount} attachments and who has seen it are deleted. Nobody can bring them back, not even from here.`,
  writeItsName: (name: string) => `Write its name, ${name}`,
  putInTheBin: (name: string) => `Put ${name} in the bin`,
  seeIt: "see it",
  signInWithItOrSee: "sign in with it or see it",
  sessionsThatAreOpenAtThe: " Sessions that are open at the site stay open.",
  nobodyCanAnyMoreUntilOne: (part: string, bIN_DAYS: number, part2: ReactNode) => (
    <>
      Nobody can {part} any more, until one of its stewards restores it; after {bIN_DAYS} days it is deleted for good.
      {part2}
    </>
  ),
  isInTheBin: (name: string) => `${name} is in the bin.`,
  putInTheBin2: "Put in the bin",
  leaveIt: "Leave it",
};

export const card = {
  you: "You ",
  galtry: "Galtry ",
};

export const chooseKind = {
  whatDoYouWantToKeep: (name: string) => `What do you want to keep in ${name}?`,
  kindsOfYourOwn: "Kinds of your own",
  sitesWeUse: "sites we use",
  nothingFitsHaveTheFieldsYou: (link: ReactNode, link2: ReactNode) => (
    <>
      Nothing fits? {link} have the fields you want; what colleagues sign in to again and again stands ready among the{" "}
      {link2}.
    </>
  ),
};

export const codes = {
  ofLeftTickOneOffWhen: (usedCount: number, codesCount: number) =>
    `${usedCount} of ${codesCount} left; tick one off when you have used it`,
};

export const convertSheet = {
  isOfTheKindNow: (name: string, name2: string) => `${name} is of the kind ${name2} now.`,
  anotherKindFor: (name: string) => `Another kind for ${name}`,
  changeTheKind: "Change the kind",
  kind: "Kind",
  chooseAKind: "choose a kind",
  signInPage: "Sign-in page",
  theVeryAddressWhereOneSigns: "the very address where one signs in, not the home page",
  itIs: "it is",
  theyAre: "they are",
  hasNoKeptAsExtraFields: (name: string, part: string, part2: string) =>
    `${name} has no ${part}: ${part2} kept as extra fields.`,
};

export const didNotWork = {
  itsStewards: "its stewards",
  itDidNotWork: "It did not work",
  have: "have",
  has: "has",
  beenTold: (stewards: string, part: string) => `${stewards} ${part} been told.`,
  didNotLetYouIn: (name: string) => `${name} did not let you in`,
  tell: (stewards: string) => `Tell ${stewards}`,
  whatDoYouSee: "What do you see?",
  anythingElseNotAPassword: "Anything else (not a password)",
};

export const earlier = {
  version: "version",
  versions: "versions",
  its: (name: ReactNode, number: number, part: string) => (
    <>
      {name}. Its {number} {part}.
    </>
  ),
  earlierVersions: "Earlier versions",
  backToTheEntry: "Back to the entry",
  versions2: "Versions",
  now: "now",
  refusedByTheSite: "; refused by the site",
  showOlderOnes: "Show older ones",
  firstKept: "first kept",
  nothingThatShowsHere: "nothing that shows here",
  broughtBackFromVersion: (number: number) => `Brought back from version ${number}.`,
  field: "Field",
  versionNow: (number: number) => `Version ${number}, now`,
  version2: (number: number) => `Version ${number}`,
  now2: "Now",
  bringBack: (label: string) => `Bring back ${label}`,
  bringBack2: "Bring back",
  theSame: "the same",
  bringBackAllOfVersion: (number: number) => `Bring back all of version ${number}`,
  whatStandsThereNowStaysAmong: "What stands there now stays among the earlier versions.",
  none: "none ",
  showCode: "Show code",
  ofVersion: (part: string, label: string, number: number) => `${part} ${label} of version ${number}`,
  reveal: "Reveal",
  hide: "Hide",
};

export const ended = {
  youCouldSignInWithThis: "You could sign in with this. You cannot any more.",
  yourAccessHereHasEnded: "Your access here has ended",
  whatLanyardHadSetForThe: (says: string) => `${says} What Lanyard had set for the site in your browser goes with it.`,
  frontDesk: "Front desk",
  doYouStillNeedItAsk: (a: ReactNode) => (
    <>Do you still need it? Ask whoever gave it to you. Everything else is at the {a}.</>
  ),
};

export const entryAtUse = {
  signInTo: (site: string) => `Sign in to ${site}`,
  opensInANewTabAlready: "Opens in a new tab, already signed in.",
  lanyardIsConnectedInThis: "Lanyard is connected in this browser.",
  lookingForLanyardInThisBrowser: "Looking for Lanyard in this browser.",
  getLanyardToSignIn: "Get Lanyard to sign in",
  connectLanyardToSignIn: "Connect Lanyard to sign in",
  signingInNeedsLanyardGaltrys:
    "Signing in needs Lanyard, Galtry’s browser extension, in this browser. On a phone there is none yet: sign in on a computer.",
  lanyardIsInThisBrowserBut: "Lanyard is in this browser, but not connected yet.",
  refusedByTheSite: "refused by the site",
  theSiteDidNotAcceptThe:
    " The site did not accept the password that is kept. Nobody sends it again until it is put right.",
  site: "Site",
  copied: "Copied",
  copy: "Copy",
  atTheSameSite: "At the same site",
  itsPasswordStaysWithGaltryIt:
    "Its password stays with Galtry. It is not sent to this browser, so there is nothing here to keep safe or to pass on.",
  itsUserNameAndPasswordStay:
    "Its user name and password stay with Galtry. Neither is sent to this browser, so there is nothing here to keep safe or to pass on.",
  withGuardedFillWhichTheSteward:
    " With guarded fill, which the steward has switched on, they are sent to this browser at that moment, and you count among those who have seen them.",
  whatIsKeptSecretInIt: "What is kept secret in it stays with Galtry. To see it you need Reveal.",
  oneTimeCode: "One-time code",
  galtryEntersItForYouWhen: "Galtry enters it for you when the site asks",
  notes: "Notes",
  tags: "Tags",
  signingIn: "Signing in",
  whatYouDidHere: "What you did here",
  unpin: "Unpin",
  pinToTheFrontDesk: "Pin to the Front desk",
  sealedSignInOrGuardedFill: "Sealed sign-in, or guarded fill",
  sealedSignIn: "Sealed sign-in",
  notUsedYet: (how: string) => `${how}; not used yet`,
  worked: (how: string, replace: string) => `${how}, worked ${replace}`,
  it: (how: string, when: string, part: string, part2: string) => `${how}. ${when}: it ${part}${part2}`,
  yes: "yes:",
  no: "no:",
  whatYouMayDo: "What you may do",
  itHasNoEndDate: " It has no end date.",
  signInAsOftenAsYou: "Sign in, as often as you need",
  leaveItsOneTimeCodeTo: "Leave its one-time code to Galtry",
  readItsSiteNotesAndTags: "Read its site, notes and tags",
  readWhatIsOpenInIt: "Read what is open in it, its notes and tags",
  seeOrCopyWhatIsKept: "See or copy what is kept secret in it",
  seeOrCopyItsPassword: "See or copy its password",
  seeOrCopyItsUserName: "See or copy its user name or password",
  changeAnythingInIt: "Change anything in it",
  itsStewardCanChangeThat: ", its steward, can change that.",
  itsStewardsCanChangeThat: ", its stewards, can change that.",
  askForMore: "Ask for more",
};

export const entryForm = {
  change: (name: string) => `Change ${name}`,
  newIn: (name: string, name2: string) => `${name}, new in ${name2}`,
  save: "Save",
  add: "Add",
  name: "Name",
  whatItIsFor: "What it is for",
  tellsTwoSimilarOnesApartBox: "tells two similar ones apart: “box office, season desk”",
  offeredAt: "Offered at",
  whereLanyardOffersIt: "where Lanyard offers it",
  theWholeSiteWithItsSub: "the whole site, with its sub-domains",
  thisHostOnly: "this host only",
  peopleWithUseMaySeeThe: (fieldWord: string) => `People with Use may see the ${fieldWord}`,
  takeTheOneTimeCodeAway: "Take the one-time code away",
  notes: "Notes",
  whoeverCanUseTheEntryCan:
    "whoever can use the entry can read them; **bold**, - lists and [links](https://…) are shown as such",
  extraFields: "Extra fields",
  seenFrom: "Seen from",
  use: "Use",
  reveal: "Reveal",
  revealHidden: "Reveal, hidden",
  value: "Value",
  leftEmptyStaysAsItIs: "left empty: stays as it is",
  remove: (part: string) => `Remove ${part}`,
  remove2: "Remove",
  addAField: "Add a field",
  nothingOfYoursIsLostTake: "Nothing of yours is lost. Take over what you want of theirs, then save.",
  field: "Field",
  theirs: "Theirs",
  yours: "Yours",
  takeTheirs: (label: string) => `Take theirs: ${label}`,
  takeTheirs2: "Take theirs",
  youLeftItAsItIs: "You left it as it is: theirs stays.",
  savingPutsYoursInItsPlace: "Saving puts yours in its place; theirs stays among the earlier versions.",
  theyAlsoChangedThe: (fieldWord: string, part: string) => `They also changed the ${fieldWord}. ${part}`,
  saveWhatStandsBelow: "Save what stands below",
};

export const entryFull = {
  edit: "Edit",
  signIn: "Sign in",
  inTheBin: "In the bin",
  sinceNobodyCanUseItUntil: (b: ReactNode, time: string, daysLeft: string) => (
    <>
      {b} since {time}. Nobody can use it until it is restored; {daysLeft}.
    </>
  ),
  setAside: "Set aside",
  sinceItIsKeptButOffered: (b: ReactNode, time: string) => (
    <>
      {b} since {time}. It is kept, but offered nowhere, and nobody signs in with it.
    </>
  ),
  bringBack: "Bring back",
  getLanyard: "Get Lanyard",
  connectIt: "Connect it",
  signingInNeedsLanyardInThis: (part: ReactNode) => <>Signing in needs Lanyard in this browser. {part}</>,
  theSiteRefusedThisUserName: "The site refused this user name and password.",
  galtrySendsThemForNobodyUntil: (b: ReactNode) => <>{b} Galtry sends them for nobody until they change.</>,
  tryOnceMore: "Try once more",
  signInPage: "Sign-in page",
  copied: "Copied",
  copy: "Copy",
  offeredAt: "Offered at",
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
  keptSince: "Kept since",
  by: (createdBy: string) => `, by ${createdBy}`,
  time: "time",
  times: "times",
  changed: (part: number, part2: string) => `changed ${part} ${part2}`,
  unpin: "Unpin",
  pinToTheFrontDesk: "Pin to the Front desk",
  move: "Move",
  changeTheKind: "Change the kind",
  picture: "Picture",
  isSetAside: (name: string) => `${name} is set aside.`,
  handOver: "Hand over",
  putInTheBin: "Put in the bin",
  story: "Story",
  whatYouDidHere: "What you did here",
  thisEntry: "this entry",
  mayStillBeSignedIn: "May still be signed in",
  theirAccessHasEndedAndLanyard: (site: string) =>
    `Their access has ended and Lanyard removes what it set. A copied session, or a browser that is offline, stays signed in at ${site} until the site ends it.`,
  signedIn: (name: ReactNode, time: string) => (
    <>
      {name}, signed in {time}
    </>
  ),
  seenBy: "Seen by",
  nobodyHasSeenTheCurrentValues: "Nobody has seen the current values.",
  n1Person: "1 person",
  people: (seenByCount: number) => `${seenByCount} people`,
  has: "has",
  have: "have",
  seenTheCurrentValues: (part: ReactNode, part2: string) => (
    <>
      {part} {part2} seen the current values:
    </>
  ),
};

export const fieldFacts = {
  qrCodeToJoin: "QR code to join",
  none: "none",
  n1Code: "1 code",
  codes: (codes: number) => `${codes} codes`,
  copy: (label: string) => `Copy ${label}`,
  copied: "Copied",
  copy2: "Copy",
};

export const fieldInput = {
  leftEmptyStaysAsItIs: "left empty: stays as it is",
  notSaid: "not said",
  theSecretTheSiteShowsOr: "the secret the site shows, or a pasted otpauth address",
};

export const handOver = {
  closedFiveWrongWordsOrCodes: "closed: five wrong words or codes",
  runOut: "run out",
  openedAndErased: "opened, and erased",
  endedTheEntryIsNotThere: "ended: the entry is not there any more",
  handOverACopyOf: (name: string) => `Hand over a copy of ${name}`,
  andWhoeverHasItHasWhat: ", and whoever has it has what is in it",
  andTellThemTheWordAnother: ", and tell them the word another way",
  itOpensWithACodeThat: (mailTo: string) => ` It opens with a code that goes to ${mailTo}.`,
  thisIsTheLinkItStands: (part: string, part2: string, part3: ReactNode) => (
    <>
      This is the link. It stands here once: Galtry does not keep it{part}. Send it to one person{part2}.{part3}
    </>
  ),
  copiedFor30Seconds: "Copied, for 30 seconds",
  copyTheLink: "Copy the link",
  done: "Done",
  linksOfThisEntry: "Links of this entry",
  withAWord: ", with a word",
  forWord: (mailTo: string) => `, for ${mailTo}`,
  by: (part: ReactNode, by: string, time: ReactNode, part2: ReactNode, part3: ReactNode) => (
    <>
      {part}, by {by}, {time}
      {part2}
      {part3}
    </>
  ),
  until: (time: string) => `until ${time}`,
  mayBeOpenedOnce: "may be opened once",
  mayBeOpenedTimes: (openings: number) => `may be opened ${openings} times`,
  opened: (part: string) => `opened ${part}`,
  wrongWordsOrCodes: (wrongWords: number) => `wrong words or codes: ${wrongWords}`,
  withdrawTheLinkWith: (part: string) => `Withdraw the link with ${part}`,
  withdraw: "Withdraw",
  signInPage: "Sign-in page",
  sayUntilWhenALinkAlways: "Say until when: a link always ends.",
  makeTheLink: "Make the link",
  whoeverOpensTheLinkSeesThese:
    "Whoever opens the link sees these values as they are now, and counts among those who have seen them. Change them afterwards if they should not go on knowing.",
  whatIsHandedOver: "What is handed over",
  until2: "Until",
  thisEvening: "This evening",
  howOftenItMayBeOpened: "How often it may be opened",
  aWordIfWanted: "A word, if wanted",
  askedForBeforeItOpensSay: "asked for before it opens; say it on the telephone. Five wrong ones close the link",
  onlyForThisMailAddressIf: "Only for this mail address, if wanted",
  itOpensWithACodeThat2: "it opens with a code that goes there",
};

export const listed = {
  whoMayKnowOfIt: "Who may know of it",
  unlistIt: "Unlist it",
  listItForAllStaff: "List it for all staff",
  unlist: "Unlist",
  list: "List",
  listedAllStaffFindItsName: "listed: all staff find its name, site and stewards, and can ask for it",
  whoeverCanUseItAndNobody: "whoever can use it, and nobody else",
};

export const makeSshKey = {
  makeAKeyHere: "Make a key here",
  ed25519: "Ed25519",
  rsa4096: "RSA 4096",
  makingIt: "Making it",
  makeTheKey: "Make the key",
  made: "made",
  thisBrowserCannotMakeSuchA: "This browser cannot make such a key. Choose the other sort.",
};

export const qr = {
  thisIsTooLongForA: "This is too long for a QR code.",
};

export const qrReader = {
  readingThePicture: "Reading the picture.",
  thereIsNoQrCodeIn: "There is no QR code in this picture.",
  thisQrCodeHoldsSomethingOther: "This QR code holds something other than a one-time code.",
  thisPictureCannotBeRead: "This picture cannot be read.",
  readAQrPicture: "Read a QR picture",
};

export const secret = {
  hide: (label: string) => `Hide ${label}`,
  hide2: "Hide",
  reveal: (label: string) => `Reveal ${label}`,
  reveal2: "Reveal",
  spell: (label: string) => `Spell ${label}`,
  spell2: "Spell",
  qrCode: "QR code",
  qr: "QR",
  copy: (label: string) => `Copy ${label}`,
  copy2: "Copy",
  then: (inThrees: ReactNode) => <>then {inThrees}</>,
  copiedTheClipboardIsClearedIn: "Copied. The clipboard is cleared in 30 seconds.",
  asAQrCode: (label: string) => `${label} as a QR code`,
  condition: "Condition",
  conditionOf: (ofWord: string) => `Condition of ${ofWord}`,
  beingWorkedOut: "being worked out",
  guessedInBySomebodyWhoHas: (time: string) =>
    ` guessed in ${time} by somebody who has stolen the site’s list, if the site keeps it well`,
  theSame: "the same",
  asThatOf: " as that of ",
  andMore: (part: number) => ` and ${part} more`,
  s: (left: number) => `${left} s`,
};

export const signingIn = {
  howIsSignedInTo: (name: string) => `How ${name} is signed in to`,
  save: "Save",
  galtrySignsInToTheSite:
    "Galtry signs in to the site itself and hands the colleague’s browser the finished session. The password is not sent to that browser.",
  otherHostsItPassesThrough: "Other hosts it passes through",
  onlyTheEntrysOwnSiteIs: "only the entry’s own site is called otherwise; separated by commas",
  whatItChooses: "What it chooses",
  oneALineNameOfThe: "one a line: name of the page’s field = value, such as branch=harbour",
  pageThatSignsOut: "Page that signs out",
  visitedByGaltryWhenSomebodys: "visited by Galtry when somebody’s access ends; empty: none",
  allowGuardedFillAsWell: "Allow guarded fill as well",
  forSitesWhereASealedSign:
    "For sites where a sealed sign-in cannot work. Lanyard types the password into the page and sends it at once. Somebody with developer tools can see it then; whoever uses it counts among those who have seen it.",
  inTheSitesPage: "In the site’s page",
  aSealedSignInFromGaltry: "a sealed sign-in from Galtry works with each of them",
  lanyardOffersItGuardedFill: "Lanyard offers it; guarded fill types and sends",
  lanyardOffersItGuardedFill2: "Lanyard offers it; guarded fill types, and the person sends",
  lanyardDoesNotOfferItThere: "Lanyard does not offer it there, and never fills it in",
  thisSiteHasNoHttpsSend: "This site has no https: send the password over plain http",
  anybodyOnTheWayBetweenGaltry: "Anybody on the way between Galtry and the site can read it.",
};

export const spellingCard = {
  ofWord: (part: number, groupsCount: number) => `${part} of ${groupsCount}`,
  back: "Back",
  fromTheStart: "From the start",
  next: "Next",
  readAloud: "Read aloud",
};

export const tagField = {
  separatedByCommas: "separated by commas",
  inUseHere: "in use here:",
  addTheTag: (tag: string) => `Add the tag ${tag}`,
};

export const termsDialog = {
  signInWithoutSeeingUserName: "sign in, without seeing user name or password",
  alsoSeeTheUserNameAnd: "also see the user name and show the password; each time is written in the journal",
  alsoChangeIt: "also change it",
  alsoGiveAndWithdrawAccessAnd: "also give and withdraw access, and bin it",
  nothingWhateverOtherGroupsHave: "nothing, whatever other groups have",
  withdraw: "Withdraw",
  onTheyMay: (nodeWord: string) => `On ${nodeWord} they may`,
  whatFor: "What for",
  standsInTheStoryOfThe: "stands in the story of the entry",
  whatChanges: "What changes",
};

export const whoCanDoWhat = {
  whoCanDoWhat: "Who can do what",
  giveAccess: "Give access",
  giveToAPersonAGroup: "Give to a person, a group, Everyone",
  peopleAndGroups: "People and groups",
  nobodyOfThatNameIsHere: "Nobody of that name is here.",
  from: (time: string) => `from ${time}`,
  until: (time: string) => `until ${time}`,
  setHere: "Set here",
  change: "Change",
  nobodyCanUseIt: "Nobody can use it.",
  inAllCanUseIt: (users: number, part: string) => `${users} ${part} in all can use it.`,
  hideThem: "Hide them",
  seeEachOfThem: "See each of them",
  giveAccessTo: (name: string) => `Give access to ${name}`,
  changeAccessOf: (name: string) => `Change access of ${name}`,
  setAccessOfHere: (name: string) => `Set access of ${name} here`,
};
