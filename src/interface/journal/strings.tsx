/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";

export const journal = {
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
};
