/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";

export const journal = {
  revealedAndCopied: "Revealed and copied",
  entriesAndVaults: "Entries and vaults",
  whatHappenedWithLatestFirst: (about: ReactNode) => <>What happened with {about}, latest first.</>,
  everythingThatWasDoneLatest:
    "Everything that was done, latest first. Entries that you do not reach have no name here.",
  whatYouDidAndWhatHappened: "What you did, and what happened where you are a steward, latest first.",
  journal: "Journal",
  person: "Person",
  allPeople: "All people",
  people: "People",
  nobodyMatchesTryAPartOf: "Nobody matches. Try a part of the name or of the mail address.",
  entryOrVault: "Entry or vault",
  allOfThem: "All of them",
  nothingThatYouReachIsCalled: "Nothing that you reach is called so.",
  act: "Act",
  allActs: "All acts",
  allEntriesAndVaults: "All entries and vaults",
  nothingOfThisKindHasHappened: "Nothing of this kind has happened.",
  galtry: "Galtry",
  refused: "refused",
  earlier: "Earlier",
};
