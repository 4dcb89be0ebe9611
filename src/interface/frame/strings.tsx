/** Every sentence and label of this area, in one place to be read. */

import type { ReactNode } from "react";
import { counted } from "../../core/counted";

export const finderSheet = {
  findAndSignIn: "Find, and sign in",
  findInEveryVault: "Find in every vault",
  whereDoYouWantToSignIn: "Where do you want to sign in?",
  searchingEverythingYouHave: "Searching everything you have access to.",
  galtryIsNotRespondingCloseThis: "Galtry is not responding. Close this and try again.",
  youHaveNoAccessToAnythingYet: "You have no access to anything yet.",
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

export const codesAsked = {
  codesToEnter: "Codes to enter",
  isSigningInTo: (person: string | null, entry: string) =>
    person === null ? `You are signing in to ${entry}.` : `${person} is signing in to ${entry}.`,
  theSiteHasSentACode: "The site has sent a code. Enter it here, and Galtry passes it on to the site alone.",
  code: "Code",
  sendCode: "Send code",
  iReceivedNone: "I received none",
  left: (time: string) => `${time} left`,
  codeSent: (entry: string) => `The code for ${entry} has been sent.`,
  youReceivedNone: "Galtry no longer asks you for this code.",
};

export const frame = {
  frontDesk: "Front desk",
  vaults: "Vaults",
  access: "Access",
  people: "People",
  upkeep: "Upkeep",
  journal: "Journal",
  galtry: "Galtry",
  areas: "Areas",
  yourSessionsLanyardsAnd: (initials: string, name: string) =>
    `${initials}, ${name}: your sessions, Lanyards and settings`,
  notices: (count: number) => counted(count, "notice"),
  skipToTheContent: "Skip to the content",
};

export const keys = {
  help: "Help",
  find: (kbd: ReactNode) => <>Find {kbd}</>,
};

export const keysSheet = {
  findAndSignIn: "find, and sign in",
  showThisList: "help with this page, and all keys",
  closeTheDialogOrMenu: "close the dialog or menu",
  inTheFinder: "In the finder",
  signInToTheHighlightedLine: "sign in to the highlighted line",
  shiftEnter: "Shift Enter",
  openItsEntry: "open its entry",
  altN: "Alt N",
  copyTheUserNameOfThe: "copy the user name of the highlighted line",
  altP: "Alt P",
  copyItsPasswordWithoutShowing: "copy its password without showing it",
  altO: "Alt O",
  copyItsOneTimeCode: "copy its one-time code",
  nextOrPreviousLine: "next or previous line",
  clearTheSearch: "clear the search",
  inAVaultsLedger: "In a vault’s ledger",
  nextOrPreviousRowHoldShiftTo: "next or previous row; hold Shift to select the rows between",
  selectOrDeselectTheRow: "select or deselect the row",
  ctrlA: "Ctrl A",
  selectAllRowsShown: "select all rows shown",
  openOrCloseTheFolder: "open or close the folder",
  openTheRow: "open the row",
  alt: "Alt ↓ ↑",
  moveTheRowInYourOwnOrder: "move the row in your own order",
  clearTheSelection: "clear the selection",
  inTheAccessGrid: "In the access grid",
  nextCellHoldShiftToSelectThe: "next cell; hold Shift to select the cells between",
  addUseRevealEditOrStewardTo: "add Use, Reveal, Edit or Steward to the slip",
  endWhatIsSetDirectlyThere: "end what is set directly there",
  setLevelAndDatesOfTheSelected: "set level and dates of the selected cells",
  repeatTheLastLevelAndDates: "repeat the last level and dates",
  removeTheCellsFromTheSlip: "remove the cells from the slip",
  explainWhy: "explain why",
  unfoldTheGroup: "show or hide the people of the group",
  onAWebsiteWithLanyard: "On a website, with Lanyard",
  alt2: "Alt ↓",
  inTheUserNameFieldOpenLanyard: "in the user name field: open Lanyard with the matching login",
  keyboardShortcuts: "Keyboard shortcuts",
  anywhere: "Anywhere",
  addAnEntry: "add an entry",
};

export const signInAgain = {
  secondStep: "Second step",
  useAPasskey: "Use a passkey instead",
  yourSessionHasEnded: "Your session has ended",
  signInToContinue: (mail: string) =>
    `Sign in again as ${mail} to continue. What you typed is still here. Cancel discards it.`,
  signIn: "Sign in",
};

export const addSheet = {
  addAnEntry: "Add an entry",
  thereIsNoVault: "There is no vault you can add entries to. Ask a steward for Edit.",
  vault: "Vault",
  aFewLettersOfItsName: "A few letters of its name",
  vaults: "Vaults",
  noVaultMatches: "No vault matches.",
};

export const proveAgain = {
  wrongSignInPassword: "Wrong sign-in password. Try again.",
  enterYourSignInPasswordAgain: "Enter your sign-in password again",
  continueWord: "Continue",
  orUseAPasskey: "Use a passkey instead",
  thatPasskeyIsNotYours: "This passkey was not recognised.",
  orSignInWith: (provider: string) => `Sign in with ${provider} instead`,
};
