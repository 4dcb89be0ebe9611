/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";

export const bringIn = {
  ofWord: (toLocaleString: string, toLocaleString2: string) => `${toLocaleString} of ${toLocaleString2}`,
  broughtIn: "Brought in",
  stop: "Stop",
  allOfItIsThere: "All of it is there.",
  whereTo: "Where to",
  dropAFileHere: "Drop a file here",
  orChooseOneBrowsersAndOther: (b: ReactNode) => (
    <>
      {b}, or choose one. Browsers and other programs write such files: look for “export” where they keep passwords. It
      is read in this browser; the file itself is sent nowhere.
    </>
  ),
  chooseAFile: "Choose a file",
  csvOfAnyOriginXmlOr:
    "CSV of any origin, XML or JSON of any shape, credential exchange JSON, a list of otpauth addresses, vCard; or one of these encrypted with age.",
  file: "File",
  aFolderOfFilesAsDocuments: "A folder of files, as documents",
  folderOfFiles: "Folder of files",
  openIt: "Open it",
  anotherFile: "Another file",
  isEncryptedWithAgeItIs: (file: ReactNode) => (
    <>{file} is encrypted with age. It is opened in this browser: neither the file nor what opens it is sent.</>
  ),
  itsPassphraseOrAnIdentity: "Its passphrase, or an identity",
  anIdentityBeginsWithAgeSecret: "an identity begins with AGE-SECRET-KEY-1",
  bringIn: (toLocaleString: string, part: string) => `Bring in ${toLocaleString} ${part}`,
  somethingElse: "Something else",
  filesMbInAllEachBecomes: (toLocaleString: string, toFixed: string) =>
    `${toLocaleString} files, ${toFixed} MB in all. Each becomes a document with the file attached, sealed as secrets are.`,
  keepTheFoldersOfTheDisk: "Keep the folders of the disk",
  madeWhereTheyAreNotThere: "made where they are not there yet",
};

export const broughtIn = {
  updated: (toLocaleString: string) => `, ${toLocaleString} updated`,
  broughtIn: (count: string, part: ReactNode) => (
    <>
      {count} brought in{part}
    </>
  ),
  seeThemInTheirPlace: "See them in their place",
  undoIt: "Undo it",
  theFileStillLiesOnYour: "The file still lies on your disk, in the clear.",
  deleteItEmptyTheBinOf: (b: ReactNode) => (
    <>
      {b} Delete it, empty the bin of your computer, and look into the downloads of your browser. Then turn off the
      browser’s own keeping of passwords, in its settings under passwords, so that there is one place for them.
    </>
  ),
  n1NeedsALook: "1 needs a look",
  needALook: (toLocaleString: string) => `${toLocaleString} need a look`,
  andMore: (toLocaleString: string) => `and ${toLocaleString} more`,
  noneOfThemNeedsALook: "None of them needs a look.",
  undoBringingIn: "Undo bringing in",
  putInTheBin: (count: string) => `Put ${count} in the bin`,
  thatItUpdatedGetTheirPassword: (count: string) => ` ${count} that it updated get their password of before back.`,
  whatWasBroughtInGoesTo: (part: ReactNode) => (
    <>
      What was brought in goes to the bin, from which it can be restored; folders that it made go where they are empty.
      {part}
    </>
  ),
  theseStayUnlessYouTickThem: "These stay, unless you tick them:",
  since: (since: string | null | undefined) => `${since} since`,
};

export const columnsStep = {
  credentialExchangeJsonItSays: "credential exchange JSON: it says itself what everything is",
  otpauthAddressesOneALine: "otpauth addresses, one a line",
  vcardEachBecomesAContact: "vCard: each becomes a contact",
  lookItOver: "Look it over",
  anotherFile: "Another file",
  separatedBy: (part: string) => `, separated by ${part}`,
  column: "column",
  partOfIt: "part of it",
  whatIsEach: (file: ReactNode, rows: string, format: string, encoding: string, part: ReactNode, part2: string) => (
    <>
      {file}: {rows}, {format}, {encoding}
      {part}. What is each {part2}?
    </>
  ),
  whatRepeatsInIt: "What repeats in it",
  eachOfTheseBecomesAnEntry: "each of these becomes an entry",
  times: (name: string, toLocaleString: string) => `${name}, ${toLocaleString} times`,
  column2: "Column",
  suchAs: "Such as",
  becomes: "Becomes",
  becomes2: (name: string) => `${name} becomes`,
  keepTheFilesFolders: "Keep the file’s folders",
  madeWhereTheyAreNotThere: "made where they are not there yet",
  asSaidBefore: "As said before",
  noneOfThem: "none of them",
  forget: (taken: ReactNode) => <>Forget “{taken}”</>,
  keepItAs: "Keep it as",
  forTheNextFileLikeIt: "for the next file like it",
  keep: "Keep",
  keepWhatIsSaidHereUnder: "Keep what is said here under a name",
  theFileHasEntriesOfThe: (name: ReactNode) => (
    <>
      The file has entries of the kind {name}, which is not here. As it stands they come in as passwords and notes, and
      what they hold in fields of that kind as extra fields.{" "}
    </>
  ),
  makeTheKind: (name: string) => `Make the kind ${name}`,
  anAdministratorCanMakeItFirst: "An administrator can make it first.",
};

export const lookStep = {
  bringIn: (fresh: string) => `Bring in ${fresh}`,
  bringInNothing: "Bring in nothing",
  atMostEntriesAreBroughtIn: (toLocaleString: string) =>
    `At most ${toLocaleString} entries are brought in at once: cut the file in parts.`,
  anotherFile: "Another file",
  inWord: (folders: string) => `, in ${folders}`,
  cannotAndInTheFile: (wrongs: string, part: string) => `; ${wrongs} cannot, and ${part} in the file`,
  canBeKept: (good: string, part: ReactNode, part2: ReactNode) => (
    <>
      {good} can be kept{part}
      {part2}.
    </>
  ),
  rowStands: "row stands",
  rowsStand: "rows stand",
  inTheFileTwiceOnceIs: (twice: string) => `${twice} in the file twice: once is enough.`,
  loginIs: "login is",
  loginsAre: "logins are",
  keptAlready: (sames: string) => `${sames} kept already`,
  sameSiteUserNameAndPassword: "same site, user name and password",
  leaveOut: "leave out",
  bringInAgainBesideWhatIs: "bring in again, beside what is kept",
  keptWithAnotherPassword: (others: string) => `${others} kept with another password`,
  updatedWhereYouMayEditWhat:
    "updated where you may edit what is kept; its old password stays among its earlier versions",
  giveWhatIsKeptThePassword: "give what is kept the password of the file",
  bringInAsEntriesOfTheir: "bring in as entries of their own",
  seeEveryRow: "See every row",
  itComesInWholeOrNot: "It comes in whole or not at all, and can be undone for a day.",
  rowsOfTheFile: "Rows of the file",
  whatHappensWith: (name: string) => `What happens with ${name}`,
  keptAlreadyLeaveOut: "kept already: leave out",
  updateWhatIsKept: "update what is kept",
  bringInBesideIt: "bring in beside it",
  newWord: "new",
};

export const prove = {
  proveThem: "Prove them",
  oneCan: "One can",
  can: (toLocaleString: string) => `${toLocaleString} can`,
  galtryCanSignInWithEach: (part: string) =>
    `Galtry can sign in with each of them once, slowly, and throw the session away: then every entry says whether it works. ${part} be tried.`,
  goOn: "Go on",
  tryingOf: (name: ReactNode, toLocaleString: string, toLocaleString2: string) => (
    <>
      Trying {name}: {toLocaleString} of {toLocaleString2}
    </>
  ),
  stop: "Stop",
  ofLetOneIn: (toLocaleString: ReactNode, toLocaleString2: string) => (
    <>
      {toLocaleString} of {toLocaleString2} let one in.
    </>
  ),
  notTried: "not tried",
};

export const bringInWorker = {
  standsInTheFileOnceMore: "stands in the file once more, to the letter",
  thisFileCannotBeRead: "This file cannot be read.",
};

export const useBringIn = {
  readingTheFile: "Reading the file.",
  openingTheFile: "Opening the file.",
  hasMbAtMost64Mb: (name: string, toLocaleString: string) =>
    `${name} has ${toLocaleString} MB; at most 64 MB are read. Cut it in parts.`,
  thereIsNoFileInIt: "There is no file in it that holds anything.",
  thereAreFilesInItAt: (toLocaleString: string) =>
    `There are ${toLocaleString} files in it; at most 2,000 are brought in at once.`,
  lookingOverEveryRow: "Looking over every row.",
  comparingWithWhatIsKeptOf: (toLocaleString: string, toLocaleString2: string) =>
    `Comparing with what is kept: ${toLocaleString} of ${toLocaleString2}.`,
  nothingWasBroughtIn: (refused: string) => `${refused} Nothing was brought in.`,
  stoppedNothingWasBroughtIn: "Stopped. Nothing was brought in.",
  nothingWasBroughtIn2: (message: string) => `${message} Nothing was brought in.`,
  areSealedNobodySeesAnyOf: "are sealed. Nobody sees any of them until all are there.",
  haveTheirEntry: "have their entry.",
  areSealed: "are sealed.",
  cannotBeRead: (name: string) => `${name} cannot be read.`,
  whatWasBroughtInOfIt: (refused: string) => `${refused} What was brought in of it is in the bin.`,
};
