/** Every sentence and label of this area, in one place to be read. */

import type { ReactNode } from "react";
import { agree, counted, listOf } from "../../core/counted";

export const accessPage = {
  setDirectly: "Set directly",
  withAnEndDate: "With an end date",
  moreThanOneWay: "More than one way",
  atUse: "At Use",
  atReveal: "At Reveal",
  atEdit: "At Edit",
  atSteward: "At Steward",
  youRead: "You are an auditor: you see all of it and change nothing.",
  thisIsAPastDateAndCannot: "This is a past date and cannot be changed. Go back to Now.",
  youAreNotAStewardOfIt: "You are not a steward of it.",
  nothingIsSetDirectlyHereARound: "Nothing is set directly here. A round reviews each grant where it is set.",
  reviewsYours: (name: string) => `${name} reviews this one: it is your own access.`,
  thereIsNoLevelBelowUseEnd: "There is no level below Use. End it instead.",
  accessTo: (name: string) => `Access to ${name}`,
  accessTo2: (name: ReactNode) => <>Access to {name} </>,
  now: "now",
  asItWas: (time: string) => `as it was ${time}`,
  asItWillBe: (time: string) => `as it will be ${time}`,
  youSeeOnlyWhatYouAreA: "You see only what you are a steward of today.",
  draftedNoneAppliedYet: (part: string) => `${part} drafted, none applied yet.`,
  filters: "Filters",
  vault: "Vault",
  filterPlaces: "Filter places",
  places: "Places",
  filterPeopleAndGroups: "Filter people and groups",
  people: "People",
  show: "Show",
  forWord: "For",
  at: "At",
  allPeopleAndGroups: "All people and groups",
  more: "More",
  less: "Less",
  now2: "Now",
  rounds: "Rounds",
  print: "Print",
  csv: "CSV",
  solidSetDirectly: "Solid: set directly",
  hollowInheritedOrFromAGroup: "Hollow: inherited, or from a group",
  clockHasAnEndDate: "Clock: has an end date",
  struckThroughBlocked: "Struck through: Blocked",
  dashedOnTheSlip: "Dashed: on the slip",
  foldedCornerAnEffectOfTheSlip: "Folded corner: an effect of the slip",
  n0To4AndBSetA: "0 to 4 and B set a level, Space explains, Enter sets dates",
  cells: (several: number) => `${several} cells`,
  chooseACellToSeeWhyIt: "Choose a cell to see why it is so.",
  setCells: (several: number) => `Set ${several} cells`,
  on: (name: string, name2: string) => `${name} on ${name2}`,
  setTheSelectedCells: "Set the selected cells",
  end: "End",
  withDates: "With dates…",
  entries: (count: number) => counted(count, "entry"),
  changes: (count: number) => counted(count, "change"),
};

export const cellTerms = {
  theEndDateIsInThePast: "The end date is in the past. Choose a later one.",
  theEndDateMustBeAfterThe: "The end date must be after the start.",
  chooseADay: "Choose a day.",
  level: "Level",
  nothingChangesUntilYouApplyThe: "Nothing changes until you apply the slip.",
  addToSlip: "Add to slip",
  cancel: "Cancel",
};

export const foreseen = {
  checkingTheEffects: "Checking the effects…",
  wouldBeLeftWithoutAStewardMake: (withoutSteward: ReactNode) => (
    <>{withoutSteward} would be left without a steward. Make someone else its steward first, with no end date.</>
  ),
  nobodysAccessChanges: "Nobody’s access changes.",
};

export const gridTable = {
  cuts1Use2Reveal3Edit: "Cuts: 1 Use, 2 Reveal, 3 Edit, 4 Steward",
  separate: ", separate",
  inTheRound: (mark: string) => `, in the round: ${mark}`,
  notShownToYou: "not shown to you",
  inside: (within: number) => `${within} inside`,
  weekly: "weekly",
  setDirectly: "set directly",
  until: (exactTime: string) => `until ${exactTime}`,
  onTheSlip: "on the slip",
  effectOfTheSlip: "effect of the slip",
  was: (part: string, levelWord: string) => `${part}, was ${levelWord}`,
};

export const onlySlip = {
  whoCanDoWhatForTheStewards: "Who can do what, for the stewards of a vault.",
  access: "Access",
  youAreNotAStewardOfAnything:
    "You are not a steward of anything yet. The person who creates a vault becomes its first.",
};

export const ontoSlip = {
  itIsOnYourChangeSlipUnder: "It is on your change slip, under Access.",
  addToMySlip: "Add to my slip",
};

export const printedGrid = {
  accessTo: (name: string) => `Access to ${name}`,
  theFirstPlacesTheCsvHasAll: (most: number) => ` The first ${most} places; the CSV has all of them.`,
  theFirstColumnsTheCsvHasAll: (most: number) => ` The first ${most} columns; the CSV has all of them.`,
  asAtPrintedCapitalsSetDirectly: (exactTime: string, exactTime2: string, part: ReactNode, part2: ReactNode) => (
    <>
      As at {exactTime}; printed {exactTime2}.{part}
      {part2} Capitals: set directly on that place.
    </>
  ),
  place: "Place",
  until: (exactTime: string) => ` until ${exactTime}`,
};

export const saidLine = {
  from: (time: string) => `From ${time}: `,
  andMore: (whatCount: number) => ` and ${whatCount} more`,
  theyMustApproveFirst: "They must approve first.",
  theyAreTold: "They are told.",
  itAlsoAffectsEntriesWithOther: (part: string) => `It also affects entries with other stewards. ${part}`,
  people: (count: number) => counted(count, "person"),
  entries: (count: number, within: string) => `${counted(count, "entry")}${within && ` in ${within}`}`,
  who: "Who",
  whoIsThat: (line: string) => `Who: ${line}`,
  usedInTheLast30Days: (names: string[]) => `Used in the last 30 days by ${listOf(names)}.`,
  firstToSee: (names: string[], entries: number) =>
    `${names.length === 1 ? names[0] : `${names.length} of them`} would see ${agree(entries, "its", "their")} secret fields for the first time.`,
  gains: (many: boolean, level: string) => `${many ? "gain" : "gains"} ${level} on`,
  loses: (many: boolean, level: string) => `${many ? "lose" : "loses"} ${level} on`,
  goes: (many: boolean, from: string, to: string) => `${many ? "go" : "goes"} from ${from} to ${to} on`,
};

export const slipFoot = {
  someOfItHasOtherStewardsIt: "Some of it has other stewards. It waits for their approval.",
  changeSlip: "Change slip",
  changeSlip2: "Change slip ",
  withdraw: "Withdraw",
  keepMyChanges: "Keep my changes",
  checkingTheEffects: "Checking the effects…",
  theEffectsHaveChanged: " The effects have changed.",
  removeFromSlip: (text: string) => `Remove from slip: ${text}`,
  wouldBeLeftWithoutAStewardMake: (withoutSteward: ReactNode) => (
    <>{withoutSteward} would be left without a steward. Make someone else its steward first, with no end date.</>
  ),
  nobodysAccessChanges: "Nobody’s access changes.",
  itLastsLongerThanTheHouseRules: "It lasts longer than the house rules allow. A second steward must approve.",
  reasonRequiredByTheHouseRules: "Reason (required by the house rules)",
  reason: "Reason",
  apply: "Apply",
  sendForApproval: "Send for approval",
  discard: "Discard",
  askForASecondOpinion: "Ask for a second opinion",
  nothingHasChangedYet: "Nothing has changed yet.",
  theySeeItsEffectsWhereTheyAre:
    "They see its effects where they are a steward and send you a comment. You can apply the slip without waiting for it.",
  colleague: "Colleague",
  aNameOrAnEmailAddress: "A name or an email address",
  people: "People",
  noMatchTryPartOfTheName: "No match. Try part of the name or email address.",
  hasBeenAskedForASecondOpinion: (name: string) => `${name} has been asked for a second opinion.`,
  setALevelInACellIt: "Set a level in a cell. It appears here with its effects and changes nothing until you apply it.",
  changesApplied: (count: number) => `${counted(count, "change")} applied.`,
  effects: "Effects",
  changes: (count: number) => counted(count, "change"),
  waitingForApprovalSince: (count: number, time: string) =>
    `${counted(count, "change")} ${agree(count, "has", "have")} been waiting for approval since ${time}. `,
  noEffect: (count: number) => `${counted(count, "change")} ${agree(count, "has", "have")} no effect`,
  applyChanges: (count: number) => `Apply ${counted(count, "change")}`,
  applied: (time: string, count: number) => `Applied ${time}: ${counted(count, "change")}. `,
  someoneHasChangedOneOfThese: (names: string[]) =>
    `${names.length > 0 ? listOf([...new Set(names)]) : "Someone else"} ${agree(Math.max(1, new Set(names).size), "has", "have")} changed one of these places. `,
  undo: "Undo",
  discarded: (count: number) => `${counted(count, "change")} discarded.`,
  backOnTheSlip: "Back on the slip.",
};

export const why = {
  youAreNotAStewardOfIt: "You are not a steward of it. It is shown because something inside it is yours.",
  isBlocked: "is blocked",
  has: (levelWord: string) => `has ${levelWord}`,
  aGrantOnThePlaceItself: "a grant on the place itself",
  aGrantOn: (node: string) => `a grant on ${node}`,
  hereBecauseOf: (who: string, part: string, part2: string) => `${who} ${part} here, because of ${part2}.`,
  hasNoAccessHereOrAbove: (who: string) => `${who} has no access here or above.`,
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
  toGiveAccessHereSetALevel: (name: string) => `To give ${name} access here, set a level in this cell.`,
  grantsGiveThisAccessToChangeIt: (becauseCount: number) =>
    `${becauseCount} grants give this access. To change it here, set a level directly in this cell.`,
  ofOn: (levelWord: string, name: string, part: string) => `${levelWord} of ${name} on ${part}`,
  withoutTheWouldHaveHere: (what: string, name: string, levelWord: string, whom: string) =>
    `Without the ${what}, ${name} would have ${levelWord} here.${whom}`,
  peopleWouldBeAffected: (count: number) => ` ${counted(count, "person")} would be affected.`,
};

export const grid = {
  hasNotJoinedYet: "has not joined yet",
  hasLeft: "has left",
  staff: (staff: number) => `${staff} staff`,
  groups: (count: number) => counted(count, "group"),
  people: (count: number) => counted(count, "person"),
};

export const undoSlip = {
  undone: "Undone.",
  reason: "Undo",
  onYourSlip: "Not undone yet: check the reversal on your change slip and apply it.",
};

export const gridCsv = {
  placeAsAt: (time: string) => `Place, as at ${time}`,
  kind: "Kind",
  person: "person",
};
