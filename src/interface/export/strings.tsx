/** Every sentence and label of this area, in one place to be read. */

import type { ReactNode } from "react";
import { agree, counted } from "../../core/counted";

export const exportSheet = {
  entriesAndFolders: (nodesCount: number) => `${nodesCount} entries and folders`,
  noFileWasSaved: (message: string) => `${message} No file was saved.`,
  exportWord: (what: string) => `Export ${what}`,
  exportWord2: "Export",
  theValuesLeaveGaltry: "The values leave Galtry.",
  anyoneWithTheFileHasEvery: (b: ReactNode) => (
    <>{b} Anyone with the file has every password in it. You count under Seen by; the Journal records it.</>
  ),
  format: "Format",
  containsNotIncluded: (carries: string, not: string) => `Contains ${carries}. Not included: ${not}.`,
  credentialExchangeJsonFor: "credential exchange JSON, for other programs",
  csvForASpreadsheet: "CSV, for a spreadsheet",
  aPageToBePrinted: "a page to be printed",
  encrypted: "Encrypted",
  withAgeUsingAPassphrase: "with age, using a passphrase",
  withAgeToRecipients: "with age, to recipients",
  noUnencrypted: "no, unencrypted",
  passphraseOfTheFile: "Passphrase of the file",
  recipients: "Recipients",
  atLeast12Characters: "At least 12 characters.",
  galtryDoesNotStoreItWithoutIt: "Galtry does not store it. Without it nobody can open the file.",
  age1SeparatedBySpaces: "age1…, separated by spaces.",
  reason: "Reason",
  writtenInTheJournal: "Written in the Journal.",
  writingPartOf: (part: number, ofWord: number) => `Writing part ${part} of ${ofWord}…`,
  exported: (count: ReactNode, part: ReactNode) => (
    <>
      {count} exported.{part}
    </>
  ),
  leftOutBecauseTheyRequireThe: "Left out because they require the sign-in password before each reveal:",
  theFileIsInYourDownloads: "The file is in your downloads, unencrypted.",
  deleteItWhenYouNoLongerNeed: (b: ReactNode) => <>{b} Delete it when you no longer need it.</>,
  close: "Close",
  entries: (count: number) => counted(count, "entry"),
  attachmentsLeft: (count: number) => ` ${counted(count, "attachment")} ${agree(count, "was", "were")} not included.`,
};

export const exportWorker = {
  isNotARecipientTheyBeginWith: (recipient: string) => `“${recipient}” is not a recipient: they begin with age1.`,
  theFileCouldNotBeWrittenTry: "The file could not be written. Try again.",
};
