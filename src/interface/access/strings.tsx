/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";

export const accessPage = {
  onlyWhatIsSet: "Only what is set",
  onlyWhatEnds: "Only what ends",
  reachedInMoreThanOneWay: "Reached in more than one way",
  atUse: "At Use",
  atReveal: "At Reveal",
  atEdit: "At Edit",
  atSteward: "At Steward",
  thisIsHowItWasNothing: "This is how it was: nothing is set in it. Go back to this moment first.",
  youAreNotItsSteward: "You are not its steward.",
  set: (id: string, subjectKey: string) => `set ${id} ${subjectKey}`,
  nothingIsSetHereARound: "Nothing is set here: a round looks at what is set, where it is set.",
  thereIsNoLevelBelowUse: "There is no level below Use: end it instead.",
  accessTo: (name: string) => `Access to ${name}`,
  accessTo2: (name: ReactNode) => <>Access to {name} </>,
  atThisMoment: "at this moment",
  asItWas: (time: string) => `as it was ${time}`,
  asItWillBe: (time: string) => `as it will be ${time}`,
  n1Entry: "1 entry",
  entries: (toLocaleString: string) => `${toLocaleString} entries`,
  onlyWhatYouAreStewardOf: "Only what you are steward of today is shown.",
  n1Change: "1 change",
  changes: (changesCount: number) => `${changesCount} changes`,
  draftedNoneApplied: (part: string) => `${part} drafted, none applied.`,
  whatIsShown: "What is shown",
  vault: "Vault",
  placesByName: "Places by name",
  places: "Places",
  peopleGroupsByName: "People, groups by name",
  people: "People",
  show: "Show",
  forWord: "For",
  at: "At",
  everybody: "Everybody",
  thisMoment: "This moment",
  rounds: "Rounds",
  print: "Print",
  csv: "CSV",
  solidSetHere: "Solid: set here",
  hollowFromAboveOrFromA: "Hollow: from above, or from a group",
  clockItEnds: "Clock: it ends",
  struckBlankBlocked: "Struck blank: Blocked",
  dashedOnTheSlip: "Dashed: on the slip",
  foldedCornerFollowsFromTheSlip: "Folded corner: follows from the slip",
  n0To4AndBSet: "0 to 4 and B set, Space explains, Enter sets a time",
  cells: (several: number) => `${several} cells`,
  goToACellWhyIt: "Go to a cell: why it is so stands here.",
  setCells: (several: number) => `Set ${several} cells`,
  on: (name: string, name2: string) => `${name} on ${name2}`,
  setTheChosenCells: "Set the chosen cells",
  takeAway: "Take away",
  withATime: "With a time…",
};

export const cellTerms = {
  thisEndIsInThePast: "This end is in the past.",
  itWouldEndBeforeItStarts: "It would end before it starts.",
  chooseADay: "Choose a day.",
  level: "Level",
  nothingChangesUntilTheSlipIs: "Nothing changes until the slip is applied.",
  putItOnTheSlip: "Put it on the slip",
  cancel: "Cancel",
};

export const foreseen = {
  workingOutWhatItWouldDo: "Working out what it would do…",
  wouldBeLeftWithoutASteward: (bare: ReactNode) => <>{bare} would be left without a steward: this cannot be done so.</>,
  nobodysAccessChanges: "Nobody’s access changes.",
};

export const gridTable = {
  cuts1Use2Reveal3: "Cuts: 1 Use, 2 Reveal, 3 Edit, 4 Steward",
  separate: ", separate",
  inTheRound: (mark: string) => `, in the round: ${mark}`,
  notYoursToSee: "not yours to see",
  within: (within: number) => `${within} within`,
  weekly: "weekly",
  setHere: "set here",
  until: (exactTime: string) => `until ${exactTime}`,
  onTheSlip: "on the slip",
  followsFromTheSlip: "follows from the slip",
  was: (part: string, levelWord: string) => `${part}, was ${levelWord}`,
};

export const onlySlip = {
  whoCanDoWhatForThose: "Who can do what, for those who are steward of something.",
  access: "Access",
  youAreStewardOfNothingYet:
    "You are steward of nothing yet. Whoever makes a vault is its first steward, and makes others.",
};

export const ontoSlip = {
  itWaitsOnYourChangeSlip: "It waits on your change slip, under Access.",
  putOnMySlip: "Put on my slip",
};

export const printedGrid = {
  accessTo: (name: string) => `Access to ${name}`,
  theFirstPlacesAllOfThem: (mOST_ROWS: number) => ` The first ${mOST_ROWS} places; all of them are in the CSV.`,
  theFirstColumnsAllOfThem: (mOST_COLUMNS: number) => ` The first ${mOST_COLUMNS} columns; all of them are in the CSV.`,
  asAtPrintedInCapitalsSet: (exactTime: string, exactTime2: string, part: ReactNode, part2: ReactNode) => (
    <>
      As at {exactTime}; printed {exactTime2}.{part}
      {part2} In capitals: set on the very place.
    </>
  ),
  place: "Place",
  until: (exactTime: string) => ` until ${exactTime}`,
};

export const saidLine = {
  people: (namesCount: number) => `${namesCount} people`,
  inWord: (within: string) => ` in ${within}`,
  entries: (toLocaleString: string, part: string) => `${toLocaleString} entries${part}`,
  from: (time: string) => `From ${time}: `,
  andMore: (whatCount: number) => ` and ${whatCount} more`,
  who: (who: string, line: string, what: string) => `Who: ${who} ${line} ${what}`,
  who2: "who",
  oneOfThem: "One of them",
  ofThem: (usedCount: number) => `${usedCount} of them`,
  usedItInTheLast30: (part: string, part2: string) => `${part} used it in the last 30 days: ${part2}`,
  has: (first: string | null | undefined) => `${first} has`,
  ofThemHave: (firstCount: number) => `${firstCount} of them have`,
  neverSeenASecretOfIt: (part: string) => `${part} never seen a secret of it`,
  theyAreAskedForAYes: "they are asked for a yes before any of it is applied.",
  theyAreTold: "they are told.",
  itAlsoTouchesWhatOthersAre: (part: string) => `It also touches what others are stewards of: ${part}`,
  gainOf: (s: string, levelWord: string) => `gain${s} ${levelWord} of`,
  loseOf: (levelWord: string) => `lose ${levelWord} of`,
  losesOf: (levelWord: string) => `loses ${levelWord} of`,
  fromToOn: (part: string, levelWord: string, levelWord2: string) => `${part} from ${levelWord} to ${levelWord2} on`,
  and: (part: string, part2: string | null | undefined) => `${part} and ${part2}`,
};

export const slipFoot = {
  othersAreStewardsOfSomeOf: "Others are stewards of some of it: it waits for their yes.",
  n1ChangeIsApplied: "1 change is applied.",
  changesAreApplied: (count: number) => `${count} changes are applied.`,
  changeSlip: "Change slip",
  changeSlip2: "Change slip ",
  whatItDoes: "what it does",
  its1Change: "its 1 change",
  itsChanges: (count: number) => `its ${count} changes`,
  n1ChangeWaits: "1 change waits",
  changesWait: (changes: number) => `${changes} changes wait`,
  forTheYesOfOtherStewards: (part: string, time: string) => `${part} for the yes of other stewards since ${time}. `,
  takeItBack: "Take it back",
  somebodyElseChangedOneOfThese: "Somebody else changed one of these places meanwhile. ",
  iHaveReadItKeepMy: "I have read it: keep my changes",
  workingOutWhatItWouldDo: "Working out what it would do…",
  itIsDifferentNow: " It is different now.",
  takeOff: (text: string) => `Take off: ${text}`,
  wouldBeLeftWithoutASteward: (bare: ReactNode) => (
    <>
      {bare} would be left without a steward: the slip cannot be applied so. Make somebody else its steward first,
      without an end.
    </>
  ),
  itWouldChangeNothingForAnybody: "It would change nothing for anybody.",
  oneChangeDoesNothing: "One change does nothing",
  changesDoNothing: (idleCount: number) => `${idleCount} changes do nothing`,
  itLastsLongerThanTheHouse:
    "It lasts longer than the house rules let one steward give: another one is asked for a yes.",
  reasonTheHouseRulesAskFor: "Reason: the house rules ask for one",
  reasonForTheJournal: "Reason, for the journal",
  apply: "Apply",
  askForAYes: "Ask for a yes",
  apply1Change: "Apply 1 change",
  applyChanges: (count: number) => `Apply ${count} changes`,
  drop: "Drop",
  askForASecondLook: "Ask for a second look",
  nothingHasChangedYet: "Nothing has changed yet.",
  theyReadWhatItWouldDo:
    "They read what it would do, as far as they are steward of it, and write you a word. You apply it all the same when you like.",
  whom: "Whom",
  aNameOrAMailAddress: "a name or a mail address",
  people: "People",
  nobodyOfThatNameIsHere: "Nobody of that name is here.",
  isAskedForASecondLook: (name: string) => `${name} is asked for a second look.`,
  setALevelInACell:
    "Set a level in a cell: it is written here with what it would do, and changes nothing before you apply it.",
  n1Change: "1 change",
  changes: (changes: number) => `${changes} changes`,
  applied: (time: string, part: string) => `Applied ${time}: ${part}. `,
  takeItBackOnANew: "Take it back on a new slip",
};

export const why = {
  youAreNotItsStewardIt: "You are not its steward: it is shown because something of yours lies in it.",
  isBlocked: "is blocked",
  has: (levelWord: string) => `has ${levelWord}`,
  aGrantOnTheVeryPlace: "a grant on the very place",
  aGrantOn: (node: string) => `a grant on ${node}`,
  hereBy: (who: string, part: string, part2: string) => `${who} ${part} here, by ${part2}.`,
  nothingIsGivenToHereNor: (who: string) => `Nothing is given to ${who} here, nor above.`,
  thisWord: (part: string) => `this ${part}`,
  the: (part: string, part2: string) => `the ${part} ${part2}`,
  thisVault: "this vault",
  on: (levelWord: string, part: string) => `${levelWord} on ${part}`,
  by: (by: string) => ` by ${by}`,
  given: (levelWord: ReactNode, subject: string, day: string, part: string, part2: string) => (
    <>
      {levelWord}, {subject}, given {day}
      {part}
      {part2}
    </>
  ),
  toGiveSomethingHereSetA: (name: string) => `To give ${name} something here, set a level in this cell.`,
  grantsGiveItToTakeIt: (becauseCount: number) =>
    `${becauseCount} grants give it: to take it away, set a level of their own here.`,
  ofOn: (levelWord: string, name: string, part: string) => `${levelWord} of ${name} on ${part}`,
  itWouldChangeSomethingFor: (size: number) => ` It would change something for ${size} people.`,
  withoutTheWouldHaveHere: (what: string, name: string, levelWord: string, whom: string) =>
    `Without the ${what}, ${name} would have ${levelWord} here.${whom}`,
};

export const grid = {
  hasNotJoinedYet: "has not joined yet",
  hasLeft: "has left",
  groups: (groupsCount: number) => `${groupsCount} groups`,
  under: (key: string) => `${key} under`,
  staff: (staff: number) => `${staff} staff`,
  n1Person: "1 person",
  people: (membersCount: number) => `${membersCount} people`,
};
