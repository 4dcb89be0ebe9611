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
  headNotedEarlier: "Head noted earlier (optional)",
  withItTheCheckAlsoFinds: "With it, the check also finds lines cut off at the end.",
  brokenAtLine: (line: number, why: string) =>
    `Broken at line ${line}: ${why}. Tell the person who runs the server, and keep the latest backup.`,
  aNameWasAltered: (hash: string) => `A name was altered: ${hash} is not the name that was written with its line.`,
  complete: (lines: number) => `Complete: ${counted(lines, "line")}.`,
  completeSinceTheHead: (lines: number) => `Complete: ${counted(lines, "line")}, and the noted head is among them.`,
  erased: (names: number) => `${counted(names, "name")} ${agree(names, "has", "have")} been erased.`,
  copied: "Copied",
  copyHead: "Copy head",
  noteItElsewhere: "Note it outside Galtry for the next check.",
};
