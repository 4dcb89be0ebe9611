/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";

export const finderSheet = {
  findAndSignIn: "Find, and sign in",
  found: (id: string) => `found-${id}`,
  findInEveryVault: "Find in every vault",
  whereDoYouWantToSign: "Where do you want to sign in?",
  lookingThroughWhatYouCanReach: "Looking through what you can reach.",
  galtryDoesNotAnswerCloseThis: "Galtry does not answer. Close this and try again.",
  nothingHasBeenGivenToYou: "Nothing has been given to you yet.",
  found2: "Found",
  signsInTo: "signs in to",
  opens: "opens",
  shiftEnterOpensItsEntry: "; Shift Enter opens its entry.",
  enter: (part: string, name: ReactNode, part2: string) => (
    <>
      Enter {part} {name}
      {part2}
    </>
  ),
};

export const frame = {
  frontDesk: "Front desk",
  vaults: "Vaults",
  access: "Access",
  people: "People",
  journal: "Journal",
  galtry: "Galtry",
  areas: "Areas",
  n1Notice: "1 notice",
  notices: (notices: number) => `${notices} notices`,
  yourSessionsLanyardsAnd: (initials: string, name: string) =>
    `${initials}, ${name}: your sessions, Lanyards and settings`,
};

export const keys = {
  find: (kbd: ReactNode) => <>Find {kbd}</>,
};

export const keysSheet = {
  findAndSignIn: "find, and sign in",
  thisList: "this list",
  closeWhatLiesOverThePage: "close what lies over the page",
  inTheFinder: "In the finder",
  signInToTheLineThat: "sign in to the line that is marked",
  shiftEnter: "Shift Enter",
  openItsEntry: "open its entry",
  altN: "Alt N",
  copyTheUserNameOfThe: "copy the user name of the line that is marked",
  altP: "Alt P",
  copyItsPasswordWithoutShowing: "copy its password, without showing it",
  altO: "Alt O",
  copyItsOneTimeCode: "copy its one-time code",
  nextLineLineBefore: "next line, line before",
  emptyIt: "empty it",
  inAVaultsLedger: "In a vault’s ledger",
  nextRowRowBeforeWithShift: "next row, row before; with Shift the rows between are chosen",
  chooseTheRowOrNoMore: "choose the row, or no more",
  ctrlA: "Ctrl A",
  chooseAllThatAreShown: "choose all that are shown",
  openTheFolderCloseIt: "open the folder, close it",
  openTheRow: "open the row",
  alt: "Alt ↓ ↑",
  moveTheRowInYourOwn: "move the row, in your own order",
  chooseNone: "choose none",
  inTheAccessGrid: "In the access grid",
  nextCellWithShiftTheCells: "next cell; with Shift the cells between are chosen",
  useRevealEditStewardOnThe: "Use, Reveal, Edit, Steward, on the slip",
  takeAwayWhatIsSetThere: "take away what is set there",
  levelAndTimeOfTheChosen: "level and time of the chosen cells",
  theSameAsLastTime: "the same as last time",
  takeTheCellsOffTheSlip: "take the cells off the slip",
  readWhyItIsSo: "read why it is so",
  onAWebsiteWithLanyard: "On a website, with Lanyard",
  alt2: "Alt ↓",
  inTheUserNamesFieldOpen: "in the user name’s field: open Lanyard’s window with the key that fits",
  keys: "Keys",
};
