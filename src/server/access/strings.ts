/** Every sentence and label of this area, in one place to be read. */
export const accepting = {
  acceptFirstOnItsPage: (name: string) => `Accept ${name} first, on its page.`,
  thereIsNothingToAcceptHere: "There is nothing to accept here any more.",
  theHouseNoteHasChanged: "The house note has changed meanwhile. Read it again.",
  aHouseNoteHasAtMost: "A house note has at most 2,000 characters.",
};

export const askFirst = {
  asksFirstAskOnItsPage: (name: string, part: string) => `${name} asks ${part} first. Ask on its page.`,
  youAreItsOnlyStewardNobody:
    "You are its only steward: nobody could say yes to you. Make somebody else its steward first.",
  besidesYouItHasOneSteward:
    "Besides you it has one steward: two could not say yes to you. Make another one its steward first.",
  thatIsSoAlready: "That is so already.",
  letBeUsedWithoutAskingFirst: (name: string, name2: string) => `${name} let ${name2} be used without asking first.`,
  madeAskFirst: (name: string, name2: string, part: string) => `${name} made ${name2} ask ${part} first.`,
  sayWhatForInAFew: "Say what for, in a few words.",
  nobodyHasToBeAskedFirst: "Nobody has to be asked first any more.",
  youHaveAskedAlready: "You have asked already.",
  youHaveAskedForALot: "You have asked for a lot already. Wait for an answer.",
  asksToUseNow: (name: string, name2: string, why: string) => `${name} asks to use ${name2} now: “${why}”`,
  thisWasAnsweredOrTakenBack: "This was answered or taken back meanwhile.",
  whoeverAskedHasNoAccessTo: "Whoever asked has no access to Galtry any more.",
  sayWhyInAWordIt: "Say why, in a word: it is all they learn.",
  youSaidYesAlreadyAnother: "You said yes already: another steward has to say it too.",
  youMayUseUntil: (entry: string, time: string) => `You may use ${entry} until ${time}.`,
  itIsClosedAlready: "It is closed already.",
  sayWhatHappenedAllItsStewards: "Say what happened: all its stewards read it at once.",
  theHouseRulesLetNobodyPast: "The house rules let nobody past a steward’s yes.",
  emergencyGotPastTheYesOf: (name: string, what: string, why: string) =>
    `EMERGENCY: ${name} got past the yes of ${what}: “${why}”`,
};

export const asking = {
  sayWhatForItsStewardDecides: "Say what for: its steward decides by it.",
  youHaveThereAlready: (levelWord: string) => `You have ${levelWord} there already.`,
  aGuestNeverHasMoreThan: "A guest never has more than Edit.",
  thisEndIsInThePast: "This end is in the past.",
  youHaveAskedForThisAlready: "You have asked for this already, and it is not answered yet.",
  youWaitForManyAnswersAlready: "You wait for many answers already.",
  asksForOn: (who: string, levelWord: string, node: string, until: string, why: string) =>
    `${who} asks for ${levelWord} on ${node}${until}: “${why}”`,
  thisWasAnsweredOrTakenBack: "This was answered or taken back meanwhile.",
  whoeverAskedHasNoAccessTo: "Whoever asked has no access to Galtry any more.",
  sayWhyInAWordIt: "Say why, in a word: it is all they learn.",
  saidNoTo: (part: string, what: string, word: string) => `${part} said no to ${what}: “${word}”`,
  theyAskedFor: (levelWord: string) => `They asked for ${levelWord}.`,
  theyAskedForAShorterTime: "They asked for a shorter time.",
  gaveYouOn: (part: string, levelWord: string, node: string, end: string) =>
    `${part} gave you ${levelWord} on ${node}${end}.`,
  thatWouldLowerWhatTheyHave: (levelWord: string, levelWord2: string) =>
    `That would lower what they have: they would go from ${levelWord} to ${levelWord2}. Give at least ${levelWord}, or nothing.`,
  thisPersonIsNoStewardOf: "This person is no steward of it.",
  passedItOnToYou: (text: string, name: string) => `${text} ${name} passed it on to you.`,
  onlyItsStewardCanDoThat: "Only its steward can do that.",
  itWaitsForYourAnswerSince: "It waits for your answer since yesterday.",
  nobodyHasAnsweredForThreeDays: "Nobody has answered for three days.",
  askedForSomethingInThreeDays: (part: string, vault: string) =>
    `${part} asked for something in ${vault} three days ago, and none of its stewards has answered.`,
};

export const askingForSite = {
  sayWhatForWhoeverLooksAfter: "Say what for: whoever looks after it decides by it.",
  thisIsNotTheAddressOf: "This is not the address of a website.",
  youHaveAskedForThisSite: "You have asked for this site already, and it is not answered yet.",
  asksWhetherThereIsALogin: (name: string, site: string, name2: string, why: string) =>
    `${name} asks whether there is a login for ${site}; you look after ${name2}: “${why}”`,
  asksWhetherThereIsALogin2: (name: string, site: string, why: string) =>
    `${name} asks whether there is a login for ${site}: “${why}” Whoever looks after one, if anybody does, is asked too.`,
};

export const expiry = {
  willHaveNoStewardFromThe: (what: string, when: string) =>
    `${what} will have no steward from ${when}: the last stewardship ends then. Extend it, or make somebody else its steward.`,
  hasNoStewardAnyMoreThe: (what: string, when: string) =>
    `${what} has no steward any more: the last stewardship ended ${when}. Nobody can give or withdraw access there.`,
};

export const grants = {
  chooseADay: "Choose a day.",
  eachDayOnce: "Each day once.",
  aReasonHasAtMost500: "A reason has at most 500 characters.",
  thatIsSetHereAlready: "That is set here already.",
  thisGrantHasBeenChangedOr: "This grant has been changed or withdrawn meanwhile.",
  hasLeftBringThemBackFirst: (name: string) => `${name} has left: bring them back first.`,
  aGuestNeverHasMoreThan: "A guest never has more than Edit.",
  thisEndIsInThePast: "This end is in the past.",
  itWouldEndBeforeItStarts: "It would end before it starts.",
  youAreItsStewardForA: "You are its steward for a time yourself: what you give cannot outlast that.",
  wouldBeLeftWithoutASteward: (name: string) =>
    `${name} would be left without a steward. Make somebody else its steward first, without an end.`,
};

export const guests = {
  aGuestIsAskedIntoOne: "A guest is asked into one folder or entry, not into a whole vault.",
  sayUntilWhenAGuestsAccess: "Say until when: a guest’s access ends.",
  theHouseRulesLeaveAskingGuests: "The house rules leave asking guests in to administrators.",
  isStaffHereGiveThemAccess: (name: string) => `${name} is staff here: give them access as such.`,
  wasAGuestHereAnAdministrator: (name: string) => `${name} was a guest here. An administrator can bring them back.`,
  theyHaveComeInAlreadyAn: "They have come in already: an administrator makes a new sign-in link.",
};

export const handover = {
  chooseWhatIsHandedOver: "Choose what is handed over.",
  thisIsNotAMailAddress: "This is not a mail address.",
  theHouseRulesLetNobodyMake: "The house rules let nobody make handover links.",
  noMailGoesOutFromHere: "No mail goes out from here: the operator has set no mail server.",
  thisEndIsInThePast: "This end is in the past.",
  aLinkEndsWithinNinetyDays: "A link ends within ninety days.",
  oneOfTheseIsEmptyOr: "One of these is empty or not there any more.",
  thisLinkAsksForNoCode: "This link asks for no code.",
  aCodeHasJustBeenSent: "A code has just been sent. Another can be asked for after half a minute.",
  tooManyCodesWereAskedFor: "Too many codes were asked for: this link sends no more. Ask for a new link.",
  aCodeFrom: (name: string) => `A code from ${name}`,
  thisCodeOpensWhatOfHands: (from: string, name: string) =>
    `This code opens what ${from} of ${name} hands over to you by a link. It works for ten minutes, in the browser that asked for it.`,
  didYouNotAskForA: (from: string) =>
    `Did you not ask for a code? Then somebody else has the link: tell ${from} at once, and tell nobody the code.`,
  thereIsNoCodeThatStill: "There is no code that still works: let one be sent to you.",
  aHandoverLinkOfIsClosed: (name: string, mOST_WRONG: number) =>
    `A handover link of ${name} is closed: a wrong word or code was given ${mOST_WRONG} times.`,
  aHandoverLinkOfWasOpened: (name: string) => `A handover link of ${name} was opened.`,
  thisLinkWasWithdrawn: "This link was withdrawn.",
  thisLinkIsClosedAWrong: "This link is closed: a wrong word or code was given five times.",
  thisLinkHasRunOut: "This link has run out.",
  thisLinkHasBeenOpenedAlready: "This link has been opened already.",
  whatThisLinkWasForIs: "What this link was for is not there any more.",
  itIsWithdrawnAlready: "It is withdrawn already.",
};

export const letterbox = {
  aLetterboxHangsAtAFolder: "A letterbox hangs at a folder: what is dropped in lands there.",
  sayWhatIsAskedFor: "Say what is asked for.",
  atMostValuesAtOnce: (mOST_LABELS: number) => `At most ${mOST_LABELS} values at once.`,
  eachByANameOfIts: "Each by a name of its own.",
  thisEndIsInThePast: "This end is in the past.",
  aLetterboxEndsWithinNinetyDays: "A letterbox ends within ninety days.",
  atMostLetterboxesHangAtOne: (mOST_OPEN: number) => `At most ${mOST_OPEN} letterboxes hang at one folder.`,
  somethingWasDroppedInHere: "Something was dropped in here already.",
  thisLetterboxIsClosed: "This letterbox is closed.",
  thisLetterboxHasRunOut: "This letterbox has run out.",
  atMost10000CharactersEach: "At most 10,000 characters each.",
  aNameHasAtMost100: "A name has at most 100 characters.",
  thereIsNothingToDropIn: "There is nothing to drop in yet.",
  wasDroppedIntoYourLetterbox: (name: string) => `${name} was dropped into your letterbox.`,
  wasDroppedInBySomebodyOutside: (name: string) => `${name} was dropped in by somebody outside.`,
  itHasEndedAlready: "It has ended already.",
};

export const load = {
  youCannotUseThis: "You cannot use this.",
  youCanSignInWithThis: "You can sign in with this, but not see what is kept secret in it.",
  youCanUseThisButNot: "You can use this, but not change it.",
  onlyItsStewardCanDoThat: "Only its steward can do that.",
};

export const rounds = {
  itIsTimeForARound: (part: string) => `It is time for a round of ${part}: look through who has what.`,
  aRoundIsUnderWayAlready: "A round is under way already.",
  thereIsNoRoundUnderWay: "There is no round under way here.",
  thisGrantWasChangedOrWithdrawn: "This grant was changed or withdrawn meanwhile. Look again.",
  thereIsNoLevelBelowUse: "There is no level below Use: end it instead.",
  noAnswerYet: (part: string) => `${part} no answer yet.`,
  theRoundOfBegunComesTo: (name: string, since: string) =>
    `The round of ${name}, begun ${since}, comes to you: look through who has what.`,
  theRoundOfWaitsForYou: (name: string) => `The round of ${name} waits for you still.`,
};

export const secondLook = {
  aSecondLookIsForAnother: "A second look is for another member of staff.",
  isAskedAlready: (name: string) => `${name} is asked already.`,
  asksYouForASecondLook: (name: string) => `${name} asks you for a second look at a change slip.`,
  sayWhatYouThinkOfIt: "Say what you think of it.",
  itWasAppliedOrDroppedMeanwhile: "It was applied or dropped meanwhile.",
  lookedAtYourChangeSlip: (name: string, word: string) => `${name} looked at your change slip: “${word}”`,
};

export const slip = {
  thisSlipWasChangedOnAnother: "This slip was changed on another page or device. Here it is as it is now.",
  thereIsNothingToLookAhead: "There is nothing to look ahead to.",
  somethingChangedSinceItWas: "Something changed since it was drafted: whoever drafted it must read it again.",
  somethingChangedMeanwhileAnd:
    "Something changed meanwhile, and this slip would do something else than you read. Read it again.",
  aReasonHasAtMost500: "A reason has at most 500 characters.",
  wouldBeLeftWithoutASteward: (bare: string | null | undefined) =>
    `${bare} would be left without a steward. Make somebody else its steward first, without an end.`,
  theHouseRulesAskForA:
    "The house rules ask for a second steward’s yes, and there is no other steward there. Give it for a shorter time, or make somebody else a steward first.",
  draftedChangesThatTouchWhatYou: (name: string) =>
    `${name} drafted changes that touch what you are steward of. Say yes or no to them.`,
  sayWhyInAWordIt: "Say why, in a word: it is all they learn.",
  whoeverDraftedItHasNoAccess: "Whoever drafted it has no access any more.",
  saidNoToYourChangeSlip: (name: string, word: string) => `${name} said no to your change slip: “${word}”`,
  saidYesToYourChangeSlip: (name: string) => `${name} said yes to your change slip: it is applied.`,
  itCanBeUndoneForA: "It can be undone for a day. That is over.",
  itDoesNotWaitAnyMore: "It does not wait any more.",
};

export const slipChanges = {
  atMostSixGrantsOfOne: "At most six grants of one subject at one place.",
  aSlipHasAtMostChanges: (mOST_CHANGES: number) => `A slip has at most ${mOST_CHANGES} changes.`,
  administratorsAndTheGroups: "Administrators and the group's keepers change who is in it.",
};

export const stewardship = {
  writeDownWhyEveryStewardReads: "Write down why: every steward reads it.",
  onlyAnOwnerTakesStewardship: "Only an owner takes stewardship.",
  youAreItsStewardAlready: "You are its steward already.",
  anOwnerTookStewardshipOf: (name: string, node: string, why: string) =>
    `${name}, an owner, took stewardship of ${node}: “${why}”`,
};

export const whyEnded = {
  itWasPutInTheBin: (binnedAt: string) => `It was put in the bin (${binnedAt}).`,
  whatItCameThroughHasEnded: "What it came through has ended.",
  setYouToBlocked: (by: string, when: string) => `${by} set you to Blocked (${when}).`,
  itWasGivenUntil: (when: string) => `It was given until ${when}.`,
  itIsGivenToYou: (weekly: string) => `It is given to you ${weekly}.`,
  youAreNoLongerIn: (group: string, when: string) => `You are no longer in ${group} (${when}).`,
};
