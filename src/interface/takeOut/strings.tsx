/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";

export const takeOutSheet = {
  things: (nodesCount: number) => `${nodesCount} things`,
  noFileWasSaved: (message: string) => `${message} No file was saved.`,
  takeOut: (what: string) => `Take ${what} out`,
  takeOut2: "Take out",
  allOfItLeavesGaltry: "All of it leaves Galtry.",
  whoeverHasTheFileHasEvery: (b: ReactNode) => (
    <>
      {b} Whoever has the file has every password in it, and you count among those who have seen each of them. The
      journal says so.
    </>
  ),
  as: "As",
  carriesNot: (carries: string, not: string) => `carries ${carries}. Not: ${not}`,
  credentialExchangeJsonFor: "credential exchange JSON, for another program or another Galtry",
  csvForASpreadsheet: "CSV, for a spreadsheet",
  aPageToBePrinted: "a page to be printed",
  encrypted: "Encrypted",
  withAgeByAPassphrase: "with age, by a passphrase",
  withAgeToRecipients: "with age, to recipients",
  notInTheClear: "not: in the clear",
  passphraseOfTheFile: "Passphrase of the file",
  recipients: "Recipients",
  atLeast12Characters: "at least 12 characters",
  itIsNotKeptAnywhereWithout: "it is not kept anywhere: without it nobody opens the file",
  age1SeparatedBySpaces: "age1…, separated by spaces",
  whatFor: "What for",
  standsInTheJournal: "stands in the journal",
  partOfIsBeingWritten: (part: number, ofWord: number) => `Part ${part} of ${ofWord} is being written.`,
  entry: "entry",
  entries: "entries",
  attachmentsStayedHere: (toLocaleString: string) => ` ${toLocaleString} attachments stayed here.`,
  wentIntoTheFile: (toLocaleString: ReactNode, part: ReactNode) => (
    <>
      {toLocaleString} went into the file.{part}
    </>
  ),
  leftOutBecauseTheyAskFor: "Left out, because they ask for the sign-in password before each reveal:",
  theFileLiesInYourDownloads: "The file lies in your downloads, in the clear.",
  deleteItOnceItHasDone: (b: ReactNode) => <>{b} Delete it once it has done its work.</>,
  close: "Close",
};

export const takeOutWorker = {
  isNotARecipientTheyBegin: (recipient: string) => `“${recipient}” is not a recipient: they begin with age1.`,
  itCouldNotBeWritten: "It could not be written.",
};
