/** Every sentence and label of this area, in one place to be read. */

import type { ReactNode } from "react";
import { agree, counted } from "../../core/counted";

export const bringIn = {
  ofWord: (count: string, of: string) => `${count} of ${of}`,
  imported: "Imported",
  stop: "Stop",
  theImportIsComplete: "The import is complete.",
  importTo: "Import to",
  dropAFileHere: "Drop a file here",
  orChooseOneBrowsersAndOther: (b: ReactNode) => (
    <>{b}, or choose one. Browsers and other programs can export one. It is read in this browser and not uploaded.</>
  ),
  chooseAFile: "Choose a file",
  csvXmlOrJsonFromAnyProgram:
    "CSV, XML or JSON from any program, credential exchange JSON, a list of otpauth addresses, vCard; or one of these encrypted with age.",
  file: "File",
  aFolderOfFilesAsDocuments: "A folder of files, as documents",
  folderOfFiles: "Folder of files",
  open: "Open",
  chooseAnotherFile: "Choose another file",
  isEncryptedWithAgeItIsOpened: (file: ReactNode) => (
    <>{file} is encrypted with age. It is opened in this browser: neither the file nor its passphrase is uploaded.</>
  ),
  passphraseOrIdentity: "Passphrase or identity",
  anIdentityBeginsWithAgeSecret: "An identity begins with AGE-SECRET-KEY-1.",
  createTheFoldersOfTheDisk: "Create the folders of the disk",
  foldersThatDoNotExistYetAre: "Folders that do not exist yet are created.",
  importDocuments: (count: number) => `Import ${counted(count, "document")}`,
  filesToImport: (count: number, megabytes: string) =>
    `${counted(count, "file")}, ${megabytes} MB in all. Each becomes a document with the file attached and encrypted.`,
};

export const broughtIn = {
  showThemInTheVault: "Show them in the vault",
  undoImport: "Undo import",
  theFileIsStillOnYourDisk: "The file is still on your disk, unencrypted.",
  deleteItEmptyYourComputersBin: (b: ReactNode) => (
    <>{b} Delete it, empty your computer’s bin, check your downloads, then switch off password saving in the browser.</>
  ),
  andMore: (count: string) => `and ${count} more`,
  noneNeedsAttention: "None needs attention.",
  undoTheImport: "Undo the import",
  putInTheBin: (count: string) => `Put ${count} in the bin`,
  thatItUpdatedGetTheirPrevious: (count: string) => ` ${count} that it updated get their previous password back.`,
  theImportedEntriesGoToTheBin: (part: ReactNode) => (
    <>
      The imported entries go to the bin and can be restored from there; empty folders that the import created are
      deleted.{part}
    </>
  ),
  theseStayUnlessYouSelectThem: "These stay unless you select them:",
  since: (since: string | null | undefined) => `${since} since`,
  imported: (count: number, updated: number) =>
    `${counted(count, "entry")} imported${updated > 0 ? `, ${updated.toLocaleString("en-GB")} updated` : ""}`,
  needAttention: (count: number) => `${counted(count, "entry")} ${agree(count, "needs", "need")} attention`,
};

export const columnsStep = {
  credentialExchangeJsonItNames: "credential exchange JSON: it names its own fields",
  otpauthAddressesOnePerLine: "otpauth addresses, one per line",
  vcardEachBecomesAContact: "vCard: each becomes a contact",
  checkTheRows: "Check the rows",
  chooseAnotherFile: "Choose another file",
  separatedBy: (part: string) => `, separated by ${part}`,
  column: "column",
  part: "part",
  whatIsEach: (file: ReactNode, rows: string, format: string, encoding: string, part: ReactNode, part2: string) => (
    <>
      {file}: {rows}, {format}, {encoding}
      {part}. What is each {part2}?
    </>
  ),
  thePartThatRepeats: "The part that repeats",
  eachOfTheseBecomesAnEntry: "Each of these becomes an entry.",
  column2: "Column",
  forExample: "For example",
  becomes: "Becomes",
  becomes2: (name: string) => `${name} becomes`,
  keepTheFilesFolders: "Keep the file’s folders",
  foldersThatDoNotExistYetAre: "Folders that do not exist yet are created.",
  useSavedSettings: "Use saved settings",
  none: "none",
  deleteWord: (taken: ReactNode) => <>Delete “{taken}”</>,
  nameOfTheSettings: "Name of the settings",
  forTheNextFileLikeThisOne: "For the next file like this one.",
  save: "Save",
  saveTheseSettingsForTheNext: "Save these settings for the next file",
  theFileHasEntriesOfTheKind: (name: ReactNode) => (
    <>
      The file has entries of the kind {name}, which does not exist here. They will be imported as passwords and notes,
      with extra fields for the rest.{" "}
    </>
  ),
  createTheKind: (name: string) => `Create the kind ${name}`,
  anAdministratorCanCreateIt: "An administrator can create it first.",
  rows: (count: number) => counted(count, "row"),
  times: (name: string, count: number) => `${name}, ${counted(count, "time")}`,
};

export const lookStep = {
  backToTheColumns: "Back to the columns",
  checkRows: (count: number) =>
    `${counted(count, "row")} may have been read wrongly. Check ${agree(count, "it", "them")} below.`,
  importNothing: "Import nothing",
  atMostEntriesCanBeImportedAt: (count: string) => `At most ${count} entries can be imported at once. Split the file.`,
  chooseAnotherFile: "Choose another file",
  sameSiteUserNameAndPassword: "same site, user name and password",
  skip: "skip",
  importAgainAsNewEntries: "import again as new entries",
  updatedWhereYouHaveEditTheOld: "updated where you have Edit; the old password stays among the earlier versions",
  updateTheSavedPassword: "update the saved password",
  importAsNewEntries: "import as new entries",
  seeEveryRow: "See every row",
  eitherEverythingIsImportedOr: "Either everything is imported or nothing. You can undo it for a day.",
  rowsOfTheFile: "Rows of the file",
  whatToDoWith: (name: string) => `What to do with ${name}`,
  alreadyInGaltrySkip: "already in Galtry: skip",
  importAsANewEntry: "import as a new entry",
  newWord: "new",
  importEntries: (count: number) => `Import ${counted(count, "entry")}`,
  updateEntries: (count: number, alone: boolean) => `${alone ? "Update" : "update"} ${counted(count, "entry")}`,
  canBeImported: (good: number, folders: number, wrong: number) =>
    `${counted(good, "row")} can be imported${folders > 0 ? `, in ${counted(folders, "folder")}` : ""}${wrong > 0 ? `; ${counted(wrong, "row")} cannot` : ""}.`,
  repeatedInTheFile: (count: number) =>
    `${counted(count, "row")} ${agree(count, "is", "are")} repeated in the file: each is imported once.`,
  alreadyInGaltry: (count: number) => `${counted(count, "login")} ${agree(count, "is", "are")} already in Galtry`,
  inGaltryWithAnotherPassword: (count: number) =>
    `${counted(count, "login")} ${agree(count, "is", "are")} in Galtry with another password`,
};

export const testLogins = {
  testTheLogins: "Test the logins",
  continueWord: "Continue",
  testingOf: (name: ReactNode, count: string, of: string) => (
    <>
      Testing {name}: {count} of {of}
    </>
  ),
  stop: "Stop",
  ofWork: (count: ReactNode, of: string) => (
    <>
      {count} of {of} work.
    </>
  ),
  notTested: "not tested",
  galtrySignsInWithEachLoginOnce: (count: number) =>
    `Galtry signs in with each login once and ends the session. Each entry then shows whether it works. ${counted(count, "login")} can be tested.`,
};

export const importWorker = {
  repeatedInTheFile: "repeated in the file",
  cells: (here: number) =>
    `It has ${counted(here, "cell")}, unlike the first row: check that values stand in their columns.`,
  thisFileCannotBeRead: "This file cannot be read.",
};

export const useImport = {
  readingTheFile: "Reading the file…",
  openingTheFile: "Opening the file…",
  hasMbAtMost64MbCan: (name: string, count: string) =>
    `${name} has ${count} MB; at most 64 MB can be read. Split the file.`,
  thereAreNoFilesInItOr: "There are no files in it, or all are empty.",
  checkingEveryRow: "Checking every row…",
  comparingWithTheEntriesIn: (count: string, of: string) => `Comparing with the entries in Galtry: ${count} of ${of}.`,
  nothingWasImported: (refused: string) => `${refused} Nothing was imported.`,
  stoppedNothingWasImported: "Stopped. Nothing was imported.",
  nothingWasImported2: (message: string) => `${message} Nothing was imported.`,
  areEncryptedNobodySeesAnyOf: "are encrypted. Nobody sees any of them until all are done.",
  haveTheirEntry: "have their entry.",
  areEncrypted: "are encrypted.",
  cannotBeRead: (name: string) => `${name} cannot be read.`,
  whatWasImportedOfItIsIn: (refused: string) => `${refused} What was imported of it is in the bin.`,
  tooManyFiles: (count: number) => `The folder has ${counted(count, "file")}. At most 2,000 can be imported at once.`,
};
