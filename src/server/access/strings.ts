/** Every sentence and label of this area, in one place to be read. */
import { agree, counted } from "../../core/counted";
export const accepting = {
  acceptYourAccessToFirstOnIts: (name: string) => `Accept your access to ${name} first, on its page.`,
  thereIsNothingLeftToAcceptHere: "There is nothing left to accept here.",
  theHouseNoteHasChangedReadIt: "The house note has changed. Read it again.",
  aHouseNoteHasAtMost2: "A house note has at most 2,000 characters.",
};

export const requestApproval = {
  requiresApprovalByRequestItOn: (name: string, part: string) =>
    `${name} requires approval by ${part}. Request it on its page.`,
  youAreItsOnlyStewardSoNobody:
    "You are its only steward, so nobody could approve your own use. Make someone else its steward first.",
  itHasOnlyOneOtherStewardSo:
    "It has only one other steward, so two could not approve your own use. Make another person its steward first.",
  itIsAlreadySetThisWay: "It is already set this way.",
  stoppedRequiringApprovalFor: (name: string, name2: string) => `${name} stopped requiring approval for ${name2}.`,
  madeRequireApprovalBy: (name: string, name2: string, part: string) =>
    `${name} made ${name2} require approval by ${part}.`,
  giveAReasonInAFewWords: "Give a reason, in a few words.",
  itNoLongerRequiresApproval: "It no longer requires approval.",
  youHaveAlreadyRequested: "You have already requested approval.",
  youHaveTooManyOpenRequestsWait: "You have too many open requests. Wait for an answer.",
  requestsToUseNow: (name: string, name2: string, why: string) => `${name} requests to use ${name2} now: “${why}”`,
  thisRequestHasAlreadyBeen: "This request has already been answered or withdrawn.",
  thePersonWhoSentThisRequestNo: "The person who sent this request no longer has access to Galtry.",
  giveAReasonItIsAllThey: "Give a reason. It is all they are told.",
  youHaveAlreadyApprovedIt: "You have already approved it. Another steward must approve it too.",
  youCanUseUntil: (entry: string, time: string) => `You can use ${entry} until ${time}.`,
  itHasAlreadyEnded: "It has already ended.",
  sayWhatHasHappenedAllIts: "Say what has happened. All its stewards will read it at once.",
  theHouseRulesDoNotAllow: "The house rules do not allow emergency use.",
  emergencyUsedWithoutApproval: (name: string, what: string, why: string) =>
    `EMERGENCY: ${name} used ${what} without approval: “${why}”`,
};

export const requests = {
  giveAReasonItsStewardDecidesBy: "Give a reason: its steward decides by it.",
  youAlreadyHaveThere: (levelWord: string) => `You already have ${levelWord} there.`,
  aGuestCanHaveAtMostEdit: "A guest can have at most Edit.",
  theEndDateIsInThePast: "The end date is in the past. Choose a later one.",
  youHaveAlreadyRequestedThisIt: "You have already requested this. It has not been answered yet.",
  youHaveTooManyOpenRequestsWait: "You have too many open requests. Wait for an answer.",
  requestsOn: (who: string, levelWord: string, node: string, until: string, why: string) =>
    `${who} requests ${levelWord} on ${node}${until}: “${why}”`,
  thisRequestHasAlreadyBeen: "This request has already been answered or withdrawn.",
  thePersonWhoSentThisRequestNo: "The person who sent this request no longer has access to Galtry.",
  giveAReasonItIsAllThey: "Give a reason. It is all they are told.",
  declined: (part: string, what: string, word: string) => `${part} declined ${what}: “${word}”`,
  theyRequested: (levelWord: string) => `They requested ${levelWord}.`,
  theyRequestedAShorterTime: "They requested a shorter time.",
  gaveYouOn: (part: string, levelWord: string, node: string, end: string) =>
    `${part} gave you ${levelWord} on ${node}${end}.`,
  thatWouldLowerTheirAccessFrom: (levelWord: string, levelWord2: string) =>
    `That would lower their access from ${levelWord} to ${levelWord2}. Give at least ${levelWord}, or decline.`,
  thisPersonIsNotAStewardOf: "This person is not a steward of it.",
  passedItOnToYou: (text: string, name: string) => `${text} ${name} passed it on to you.`,
  onlyItsStewardCanDoThat: "Only its steward can do that.",
  itHasBeenWaitingForYourAnswer: "It has been waiting for your answer since yesterday.",
  nobodyHasAnsweredForThreeDays: "Nobody has answered for three days.",
  requestedAccessToSomethingIn: (part: string, vault: string) =>
    `${part} requested access to something in ${vault} three days ago, and none of its stewards has answered.`,
};

export const loginRequests = {
  giveAReasonItsStewardDecidesBy: "Give a reason: its steward decides by it.",
  thisIsNotTheAddressOfA: "This is not the address of a website.",
  youHaveAlreadyRequestedALogin: "You have already requested a login for this site. It has not been answered yet.",
  requestsALoginForAndYouAre: (name: string, site: string, name2: string, why: string) =>
    `${name} requests a login for ${site}, and you are a steward of ${name2}: “${why}”`,
  requestsALoginForIfThereIs: (name: string, site: string, why: string) =>
    `${name} requests a login for ${site}: “${why}” If there is one, its stewards have been asked too.`,
};

export const expiry = {
  willHaveNoStewardFromExtendThe: (what: string, when: string) =>
    `${what} will have no steward from ${when}. Extend the stewardship, or make someone else a steward.`,
  hasNoStewardTheLastStewardship: (what: string, when: string) =>
    `${what} has no steward: the last stewardship ended ${when}. Nobody can give or end access there.`,
};

export const grants = {
  chooseADay: "Choose a day.",
  eachDayOnce: "Each day once.",
  aReasonHasAtMost500Characters: "A reason has at most 500 characters.",
  thatIsAlreadySetHere: "That is already set here.",
  someoneElseHasChangedOrEnded: "Someone else has changed or ended this grant. Check it and try again.",
  anAuditorHasNothing: "An auditor cannot have access to anything.",
  hasLeftReinstateThemFirst: (name: string) => `${name} has left. Reinstate them first.`,
  aGuestCanHaveAtMostEdit: "A guest can have at most Edit.",
  theEndDateIsInThePast: "The end date is in the past. Choose a later one.",
  theEndDateMustBeAfterThe: "The end date must be after the start.",
  yourOwnStewardshipHasAnEndDate: "Your own stewardship has an end date. What you give cannot last longer.",
  wouldBeLeftWithoutAStewardMake: (name: string) =>
    `${name} would be left without a steward. Make someone else its steward first, with no end date.`,
};

export const guests = {
  aGuestCanBeInvitedToA: "A guest can be invited to a folder or an entry, not to a whole vault.",
  chooseAnEndDateAGuestsAccess: "Choose an end date: a guest’s access always has one.",
  theHouseRulesLetOnly: "The house rules let only administrators invite guests.",
  isAMemberOfStaffGiveThem: (name: string) => `${name} is a member of staff. Give them access instead.`,
  wasAGuestHereAnAdministrator: (name: string) => `${name} was a guest here. An administrator can reinstate them.`,
  theyHaveAlreadyJoinedAn: "They have already joined. An administrator can create a new sign-in link.",
};

export const handover = {
  chooseWhatToHandOver: "Choose what to hand over.",
  thisIsNotAnEmailAddress: "This is not an email address.",
  theHouseRulesDoNotAllow: "The house rules do not allow handover links.",
  thisGaltryCannotSendEmailNo: "This Galtry cannot send email: no mail server is set up.",
  theEndDateIsInThePast: "The end date is in the past. Choose a later one.",
  aLinkCanLastAtMost90: "A link can last at most 90 days.",
  oneOfTheseIsEmptyOrNo: "One of these is empty or no longer exists.",
  thisLinkDoesNotRequireACode: "This link does not require a code.",
  aCodeHasJustBeenSentYou: "A code has just been sent. You can ask for another in half a minute.",
  tooManyCodesWereRequestedThis: "Too many codes were requested: this link sends no more. Ask for a new link.",
  aCodeFrom: (name: string) => `A code from ${name}`,
  thisCodeOpensTheHandoverLink: (from: string, name: string) =>
    `This code opens the handover link from ${from} of ${name}. It works for ten minutes, in the browser that asked for it.`,
  ifYouDidNotAskForA: (from: string) =>
    `If you did not ask for a code, someone else has the link. Tell ${from} at once and give nobody the code.`,
  noCodeIsValidAnyMoreSend: "No code is valid any more. Send yourself a new one.",
  aHandoverLinkOfWasClosedAfter: (name: string, most: number) =>
    `A handover link of ${name} was closed after ${most} wrong passphrases or codes.`,
  aHandoverLinkOfWasOpened: (name: string) => `A handover link of ${name} was opened.`,
  thisLinkWasWithdrawn: "This link was withdrawn.",
  thisLinkIsClosedAfterFiveWrong: "This link is closed after five wrong passphrases or codes.",
  thisLinkHasExpired: "This link has expired.",
  thisLinkHasAlreadyBeenOpened: "This link has already been opened.",
  theEntryBehindThisLinkNoLonger: "The entry behind this link no longer exists.",
  itHasAlreadyBeenWithdrawn: "It has already been withdrawn.",
};

export const letterbox = {
  aLetterboxBelongsToAFolder: "A letterbox belongs to a folder. Create it there.",
  nameTheEntry: "Name the entry.",
  aLetterboxHasAtMostFields: (most: number) => `A letterbox has at most ${most} fields.`,
  giveEachFieldADifferentName: "Give each field a different name.",
  theEndDateIsInThePast: "The end date is in the past. Choose a later one.",
  aLetterboxCanLastAtMost90: "A letterbox can last at most 90 days.",
  aFolderHasAtMostOpen: (most: number) => `A folder has at most ${most} open letterboxes.`,
  somethingHasAlreadyBeenSent: "Something has already been sent through this letterbox.",
  thisLetterboxIsClosed: "This letterbox is closed.",
  thisLetterboxHasExpired: "This letterbox has expired.",
  atMost10000CharactersEach: "At most 10,000 characters each.",
  aNameHasAtMost100Characters: "A name has at most 100 characters.",
  fillInAtLeastOneField: "Fill in at least one field.",
  wasReceivedThroughYour: (name: string) => `${name} was received through your letterbox.`,
  wasReceivedFromSomeoneOutside: (name: string) => `${name} was received from someone outside.`,
  itHasAlreadyEnded: "It has already ended.",
};

export const load = {
  youCannotUseThis: "You cannot use this.",
  youCanSignInWithThisBut: "You can sign in with this, but you need Reveal to see its secret fields.",
  youCanUseThisButYouNeed: "You can use this, but you need Edit to edit it.",
  onlyItsStewardCanDoThat: "Only its steward can do that.",
};

export const rounds = {
  aRoundOfIsDueReviewWho: (part: string) => `A round of ${part} is due: review who has what.`,
  aRoundIsAlreadyUnderWay: "A round is already under way.",
  thereIsNoRoundUnderWayHere: "There is no round under way here.",
  someoneElseHasChangedOrEnded: "Someone else has changed or ended this grant. Check it and try again.",
  thereIsNoLevelBelowUseEnd: "There is no level below Use. End it instead.",
  theRoundOfStartedIsNowYours: (name: string, since: string) =>
    `The round of ${name}, started ${since}, is now yours: review who has what.`,
  theRoundOfIsStillWaitingFor: (name: string) => `The round of ${name} is still waiting for you.`,
  noAnswerYet: (lines: number) => `${counted(lines, "line")} ${agree(lines, "has", "have")} no answer yet.`,
  anotherStewardReviewsYours: "Another steward reviews your own access.",
  everythingHasAnAnswer: "Everything has an answer. You can finish the round.",
  asksYouToReviewTheirOwnAccess: (person: string, vault: string) =>
    `${person} asks you to review their own access in the round of ${vault}.`,
};

export const secondOpinions = {
  askAnotherMemberOfStaffForA: "Ask another member of staff for a second opinion.",
  hasAlreadyBeenAsked: (name: string) => `${name} has already been asked.`,
  asksYouForASecondOpinionOn: (name: string) => `${name} asks you for a second opinion on a change slip.`,
  writeAComment: "Write a comment.",
  itHasBeenAppliedOrDiscarded: "It has been applied or discarded.",
  commentedOnYourChangeSlip: (name: string, word: string) => `${name} commented on your change slip: “${word}”`,
};

export const slip = {
  thisSlipWasChangedOnAnother: "This slip was changed on another page or device. This is how it is now.",
  thereIsNothingOnTheSlip: "There is nothing on the slip.",
  somethingHasChangedSinceItWas:
    "Something has changed since it was drafted. The person who drafted it must check it again.",
  somethingHasChangedAndThisSlip:
    "Something has changed, and this slip would have other effects than you read. Check it again.",
  aReasonHasAtMost500Characters: "A reason has at most 500 characters.",
  wouldBeLeftWithoutAStewardMake: (withoutSteward: string | null | undefined) =>
    `${withoutSteward} would be left without a steward. Make someone else its steward first, with no end date.`,
  theHouseRulesRequireApprovalBy:
    "The house rules require approval by a second steward, and there is no other steward. Give it for a shorter time, or make someone else a steward first.",
  draftedChangesThatAffectYouAsA: (name: string) =>
    `${name} drafted changes that affect you as a steward. Approve or decline them.`,
  giveAReasonItIsAllThey: "Give a reason. It is all they are told.",
  thePersonWhoDraftedItNoLonger: "The person who drafted it no longer has access.",
  declinedYourChangeSlip: (name: string, word: string) => `${name} declined your change slip: “${word}”`,
  approvedYourChangeSlipItHas: (name: string) => `${name} approved your change slip. It has been applied.`,
  itCanNoLongerBeUndoneThat: "It can no longer be undone: that was possible for a day.",
  itIsNoLongerWaitingForApproval: "It is no longer waiting for approval.",
};

export const slipChanges = {
  atMost6GrantsForOnePerson: "At most 6 grants for one person or group on one place.",
  aSlipHasAtMostChanges: (most: number) => `A slip has at most ${most} changes.`,
  onlyAdministratorsAndTheGroups: "Only administrators and the group’s keepers can change who is in it.",
};

export const stewardship = {
  giveAReasonEveryStewardWill: "Give a reason. Every steward will read it.",
  onlyAnOwnerCanTakeStewardship: "Only an owner can take stewardship.",
  youAreAlreadyItsSteward: "You are already its steward.",
  anOwnerTookStewardshipOf: (name: string, node: string, why: string) =>
    `${name}, an owner, took stewardship of ${node}: “${why}”`,
};

export const whyEnded = {
  itWasPutInTheBin: (binnedAt: string) => `It was put in the bin (${binnedAt}).`,
  theGrantBehindItHasEnded: "The grant behind it has ended.",
  setYouToBlocked: (by: string, when: string) => `${by} set you to Blocked (${when}).`,
  itWasGivenUntil: (when: string) => `It was given until ${when}.`,
  youHaveIt: (weekly: string) => `You have it ${weekly}.`,
  youAreNoLongerIn: (group: string, when: string) => `You are no longer in ${group} (${when}).`,
};
