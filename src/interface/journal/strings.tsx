/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";
import { agree, counted } from "../../core/counted";

export const journal = {
  checkTheJournal: "Check",
  revealedAndCopied: "Revealed and copied",
  entriesAndVaults: "Entries and vaults",
  whatHappenedToNewestFirst: (about: ReactNode) => <>What happened to {about}, newest first.</>,
  everythingThatWasDoneNewest: "Everything that was done, newest first. Entries you have no access to are not named.",
  whatYouDidAndWhatHappenedWhere: "What you did, and what happened where you are a steward, newest first.",
  journal: "Journal",
  person: "Person",
  allPeople: "All people",
  people: "People",
  noMatchTryPartOfTheName: "No match. Try part of the name or email address.",
  entryOrVault: "Entry or vault",
  allEntriesAndVaults: "All entries and vaults",
  nothingYouHaveAccessToMatches: "Nothing you have access to matches.",
  act: "Act",
  allActs: "All acts",
  noLinesMatchTheseFilters: "No lines match these filters.",
  galtry: "Galtry",
  refused: "refused",
  earlier: "Earlier",
  days: "Days",
  reports: "Reports",
  exportsAndHandovers: "Exports and handovers",
  wordsOfAReason: "Words of a reason",
  csv: "CSV",
  line: "Line",
  when: "When",
  who: "Who",
  what: "What",
};

export const checkJournal = {
  checkTheJournal: "Check the Journal",
  check: "Check",
  eachLineIsChained:
    "Each line is chained to the one before it. The check finds lines that were changed, added or removed in the database.",
  checkpointKeptEarlier: "Checkpoint kept earlier (optional)",
  pasteTheWholeEmail:
    "Paste the whole email or file; the head of an earlier check works too. With it, the check also finds lines cut off at the end, and a Journal that was written anew.",
  brokenAtLine: (line: number, why: string) =>
    `Broken at line ${line}: ${why}. Tell the person who runs the server, and keep the latest backup.`,
  aNameWasAltered: (hash: string) => `A name was altered: ${hash} is not the name that was written with its line.`,
  complete: (lines: number) => `Complete: ${counted(lines, "line")}.`,
  completeSinceTheHead: (lines: number) => `Complete: ${counted(lines, "line")}, and the noted head is among them.`,
  completeSince: (lines: number, since: string, made: string) =>
    `Complete: ${counted(lines, "line")}. They begin with the ${since} of the checkpoint of ${made}, and your browser has checked that itself.`,
  notSince: (since: string, made: string) =>
    `The Journal does not begin with the ${since} of the checkpoint of ${made}: something before it was changed. Tell the person who runs the server, and keep the latest backup.`,
  shorter: (since: string, made: string) =>
    `The Journal has fewer lines than the ${since} of the checkpoint of ${made}: its tail was cut off, or an older backup was restored.`,
  erased: (names: number) => `${counted(names, "name")} ${agree(names, "has", "have")} been erased.`,
  saveCheckpoint: "Save checkpoint",
  saveProof: "Save proof",
  keepItElsewhere: "Keep the checkpoint outside Galtry for the next check.",
};

export const lineProof = {
  proofOfLine: (seq: string) => `Proof of line ${seq}`,
  checking: "Checking…",
  itIsAsItWasWritten: (lines: string, made: string) =>
    `This line is as it was written. It is one of the ${lines} of the checkpoint of ${made}, which this Galtry signed.`,
  itIsThere: (lines: string, made: string) =>
    `This line is one of the ${lines} of the checkpoint of ${made}, which this Galtry signed. You have no access to what it is about, so the proof covers its hash and not its words.`,
  checkedHere: "Your browser has checked this itself.",
  nothingChangedSince: (lines: string, made: string) =>
    `Nothing in the first ${lines} was changed since ${made}, when this browser last looked.`,
  changedSince: (lines: string, made: string) =>
    `Something in the first ${lines} was changed since ${made}, when this browser last looked. Tell the person who runs the server, and keep the latest backup.`,
  compareFromNowOn: "Compare with this one from now on",
  anotherKey:
    "The key of the checkpoints is not the one that this browser saw before. Ask the person who runs the server whether Galtry’s address or keys have changed.",
  faults: {
    line: "The line does not say what was written. It was changed in the database.",
    name: "A name in this line is not the one that was written with it.",
    path: "The line is not one of those that the checkpoint stands for. The Journal was changed in the database.",
    form: "The checkpoint cannot be read.",
    origin: "The checkpoint is that of another Journal.",
    key: "The checkpoint was not signed by this Galtry.",
    signature: "The checkpoint was changed after it was signed.",
  },
  saveProof: "Save proof",
  theScript: "Script that checks it",
  close: "Close",
  withoutGaltry: "The script reads the saved proof and needs nothing of Galtry, only Node.",
  key: "Key of the checkpoints",
  noteTheKey: "Note it elsewhere: a proof is as good as its key.",
  copyKey: "Copy key",
  copied: "Copied",
};
