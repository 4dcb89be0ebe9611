/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";

export const arrange = {
  arrangeTheLedger: "Arrange the ledger",
  inOrderOf: "In order of",
  altWithTheUpAndDown: "Alt with the up and down arrows moves a row",
  name: "name",
  lastUse: "last use",
  newness: "newness",
  yourOwn: "your own",
  togetherBy: "Together by",
  folder: "folder",
  kind: "kind",
  tag: "tag",
  nothingOneLongList: "nothing: one long list",
  columns: "Columns",
  withoutATag: "Without a tag",
};

export const carrySheet = {
  things: (nodesCount: number) => `${nodesCount} things`,
  move: "Move",
  copy: "Copy",
  vault: "Vault",
  thereIsNoPlaceInThis: "There is no place in this vault where you may add something.",
  to: "To",
  chooseAPlace: "choose a place",
  moved: (what: string) => `Moved ${what}.`,
  copied: (what: string) => `Copied ${what}.`,
  nobodysAccessChanges: "Nobody’s access changes.",
  nobodyGainsByTheCopy: "Nobody gains by the copy.",
  thisWouldChangeWhoCanDo: "This would change who can do what with it: only its steward can do that.",
  oneGrantThatIsSetOn: "One grant that is set on it is",
  grantsThatAreSetOnIt: (grantsDropped: number) => `${grantsDropped} grants that are set on it are`,
  droppedGrantsDoNotGoTo: "dropped: grants do not go to another vault.",
  notCopied: "not copied.",
  ofTheCopy: "Of the copy: ",
};

export const effects = {
  itChangesWhatOnePersonMay: "It changes what one person may do:",
  itChangesWhatPeopleMayDo: (people: number) => `It changes what ${people} people may do:`,
  becomesOn: (name: string, levelWord: string, levelWord2: string, node: string) =>
    `${name}: ${levelWord} becomes ${levelWord2} on ${node}`,
  andMore: (mOST_NAMED: number) => `and ${mOST_NAMED} more`,
};

export const folderPage = {
  separateFolderAccessFromAbove: "Separate folder: access from above does not reach into it",
  folder: "Folder",
  seeWhatLiesInIt: "See what lies in it",
  inTheBin: "In the bin",
  sinceWithAllThatLiesIn: (b: ReactNode, time: string) => (
    <>
      {b} since {time}, with all that lies in it.
    </>
  ),
  restoreAllOfIt: "Restore all of it",
  rename: "Rename",
  name: "Name",
  addAnEntryInIt: "Add an entry in it",
  makeAFolderInIt: "Make a folder in it",
  move: "Move",
  separateNoMore: "Separate no more",
  makeItSeparate: "Make it separate",
  putInTheBin: "Put in the bin",
  story: "Story",
  whatYouDidHere: "What you did here",
  thisFolder: "this folder",
  whatYouMayDo: "What you may do",
  askForMore: "Ask for more",
  putInTheBin2: (name: string) => `Put ${name} in the bin`,
  allThatLiesInItGoes:
    "All that lies in it goes with it. Nobody can use any of it until the folder is restored, and then all of it comes back to its place.",
};

export const foot = {
  things: (toLocaleString: string) => `${toLocaleString} things`,
  setAside: (what: string) => `${what} set aside.`,
  broughtBack: (what: string) => `${what} brought back.`,
  putInTheBin: (what: string) => `${what} put in the bin.`,
  whatIsChosen: "What is chosen",
  ofWord: (toLocaleString: string, toLocaleString2: string) => `${toLocaleString} of ${toLocaleString2}`,
  chosen: (toLocaleString: string) => `${toLocaleString} chosen`,
  stop: "Stop",
  move: "Move",
  copy: "Copy",
  tag: "Tag",
  setAField: "Set a field",
  giveAccess: "Give access",
  takeOut: "Take out",
  bringBack: "Bring back",
  setAside2: "Set aside",
  putInTheBin2: "Put in the bin",
  chooseNone: "Choose none",
  putInTheBin3: (what: string) => `Put ${what} in the bin`,
  it: "it",
  anyOfThem: "any of them",
  them: "them",
  nobodyCanUseUntilASteward: (part: string, part2: string) =>
    `Nobody can use ${part} until a steward restores ${part2}. A folder goes with all that lies in it.`,
  entries: (rowsCount: number) => `${rowsCount} entries`,
  tagsOfChanged: (name: string) => `Tags of ${name} changed.`,
  tag2: (name: string) => `Tag ${name}`,
  add: "Add",
  takeAway: "Take away",
  ofWord2: (done: number, ofWord: number) => `${done} of ${ofWord}`,
};

export const giveSeveral = {
  things: (rowsCount: number) => `${rowsCount} things`,
  giveAccessTo: (name: string) => `Give access to ${name}`,
  giveAccess: "Give access",
  theOthersHadItAlready: "; the others had it already",
  ofWord: (grantIdsCount: number, what: string, part: string) => `${grantIdsCount} of ${what}${part}`,
  notToTheOthers: (refused: string) => ` Not to the others: ${refused}`,
  wasGivenAccessTo: (name: string, what: string, part: string) => `${name} was given access to ${what}.${part}`,
  giveAccessTo2: (what: string) => `Give access to ${what}`,
  toWhom: "To whom",
  aPersonAGroupEveryone: "a person, a group, Everyone",
  peopleAndGroups: "People and groups",
  nobodyOfThatNameIsHere: "Nobody of that name is here.",
};

export const keySheet = {
  encryptionKeyOf: (name: string) => `Encryption key of ${name}`,
  everythingInThisVaultIs:
    "Everything in this vault is encrypted with one key. Rotate it when a backup or a disk may have reached the wrong hands, or as often as your rules require. A new key encrypts what is saved from then on; the rest is encrypted again in the background, and the old key is deleted ten minutes after nothing needs it any more. People can go on working.",
  theKeyInUseIsNumber: (version: number, time: string) => `The key in use is number ${version}, created ${time}.`,
  encryptedAgain: "Encrypted again",
  ofEncryptedAgain: (toLocaleString: string, toLocaleString2: string, part: ReactNode) => (
    <>
      {toLocaleString} of {toLocaleString2} encrypted again{part}.
    </>
  ),
  rotateTheKey: "Rotate the key",
  resumeTheRotation: "Resume the rotation",
  stopTheRotation: "Stop the rotation",
  close: "Close",
};

export const ledger = {
  backToTheEntries: "Back to the entries",
  bin: (binCount: number) => `Bin (${binCount})`,
  whoCanDoWhat: "Who can do what",
  changeTheVault: "Change the vault",
  takeTheVaultOut: "Take the vault out",
  makeAFolder: "Make a folder",
  bringInAFile: "Bring in a file",
  addAnEntry: "Add an entry",
  allOfItInOneView: "All of it in one view",
  theWholeVault: "the whole vault",
  filter: "Filter",
  arrange: "Arrange",
  tags: "Tags",
  theBinIsEmpty: "The bin is empty.",
  nothingIsKeptHereYetAdd:
    "Nothing is kept here yet. Add an entry, or sign in to a site as usual and let Lanyard keep the login.",
  nothingIsKeptHereYet: "Nothing is kept here yet.",
  nothingHereMatches: (filter: string) => `Nothing here matches “${filter}”.`,
  vaults: "Vaults",
  entry: "entry",
  entries: "entries",
  folder: "folder",
  folders: "folders",
  inWord: (folders: number, part: string) => ` in ${folders} ${part}`,
  personReaches: "person reaches",
  peopleReach: "people reach",
  theWholeVault2: (people: number, part: string) => `; ${people} ${part} the whole vault`,
  youAreAStewardHere: "You are a steward here.",
  youReachSingleEntriesHere: "You reach single entries here.",
  youHaveHere: (levelWord: string) => `You have ${levelWord} here.`,
  thisVaultIsSetAside: "This vault is set aside",
  sinceItIsKeptButNothing: (b: ReactNode, time: string) => (
    <>
      {b} since {time}: it is kept, but nothing of it is offered anywhere.
    </>
  ),
  bringItBack: "Bring it back",
  things: (nodesCount: number) => `${nodesCount} things`,
  moved: (what: string) => `Moved ${what}.`,
};

export const ledgerTable = {
  bin: "Bin",
  entries: "Entries",
  row: (id: string) => `row-${id}`,
  chooseAllThatAreShown: "Choose all that are shown",
  name: "Name",
  binned: "Binned",
  n1Entry: "1 entry",
  entries2: (toLocaleString: string) => `${toLocaleString} entries`,
  choose: (name: string) => `Choose ${name}`,
  drag: (name: string) => `Drag ${name}`,
  change: (name: string) => `Change ${name}`,
  change2: "Change",
  setAside: "set aside",
  dropAtTheTopOf: (name: string) => `Drop at the top of ${name}`,
  empty: "empty",
  entries3: (inside: number) => `${inside} entries`,
  restore: (name: string) => `Restore ${name}`,
  restore2: "Restore",
};

export const makeFolder = {
  makeAFolderIn: (name: string) => `Make a folder in ${name}`,
  makeTheFolder: "Make the folder",
  name: "Name",
};

export const separateSheet = {
  isSeparate: (name: string) => `${name} is separate.`,
  isNotSeparateAnyMore: (name: string) => `${name} is not separate any more.`,
  makeSeparate: (name: string) => `Make ${name} separate`,
  separateNoMore: (name: string) => `${name}: separate no more`,
  makeItSeparate: "Make it separate",
  letAccessInFromAbove: "Let access in from above",
  accessToTheVaultAndTo:
    "Access to the vault and to the folders around it does not reach into a separate folder: only what is set on it and within it counts.",
  accessToTheVaultAndTo2: "Access to the vault and to the folders around it reaches into it again.",
  youAreMadeItsStewardSo: " You are made its steward, so that somebody looks after it.",
  nobodysAccessChanges: "Nobody’s access changes.",
};

export const setField = {
  whatItIsFor: "What it is for",
  notes: "Notes",
  entries: (rowsCount: number) => `${rowsCount} entries`,
  ofSet: (label: string, what: string) => `${label} of ${what} set.`,
  setAFieldOf: (what: string) => `Set a field of ${what}`,
  set: "Set",
  field: "Field",
  chooseAField: "choose a field",
  itTakesThePlaceOfWhat: "It takes the place of what stands there now, which stays among the earlier versions.",
  ofWord: (done: number, ofWord: number) => `${done} of ${ofWord}`,
};

export const tagList = {
  tags: "Tags",
  entry: "entry",
  entries: "entries",
  showWhatHasTheTag: (name: string) => `Show what has the tag ${name}`,
  show: "Show",
  renameTheTag: (name: string) => `Rename the tag ${name}`,
  rename: "Rename",
  close: "Close",
  mergedInto: (name: string, to: string) => `${name} merged into ${to}.`,
  isCalledNow: (name: string, to: string) => `${name} is called ${to} now.`,
  merge: "Merge",
  becomes: (name: string) => `${name} becomes`,
  aTagHasNoCommaIn: "A tag has no comma in it.",
  isThereAlreadyTheTwoBecome: (to: string) => `${to} is there already: the two become one`,
};

export const takeStewardship = {
  takeStewardship: "Take stewardship",
  takeIt: "Take it",
  readItAtOnce: (part: string) => `${part} read it at once`,
  itHasNoStewardNow: "it has no steward now",
  youWillSeeAndChangeEverything: (name: string, part: string) =>
    `You will see and change everything in ${name}. It stands in the Journal, and ${part}.`,
  why: "Why",
  looking: "Looking…",
  youAreStewardOfEverythingThat: "You are steward of everything that is shared.",
  lookedAfterBy: (part: string) => `looked after by ${part}`,
  nobodyLooksAfterIt: "nobody looks after it",
  takeStewardshipOf: (name: string, what: string) => `Take stewardship of ${name}, ${what}`,
  take: "Take…",
};

export const takersSheet = {
  whoTakesOutOf: (name: string) => `Who takes out of ${name}`,
  save: "Save",
  itsStewardsSaveEntriesWithAll:
    "Its stewards save entries with all their values into a file. Whoever is named here may too, of what they may reveal, in the same way: with their sign-in password, a reason, and a line in the journal.",
  onlyItsStewardsTakeOut: "Only its stewards take out.",
  somebodyWhoIsNoLongerHere: "Somebody who is no longer here",
  takeOff: (name: string) => `Take off: ${name}`,
  takeOff2: "Take off",
  somebodyMore: "Somebody more",
  aPersonOrAGroup: "a person or a group",
  peopleAndGroups2: "People and groups",
  nobodyOfThatNameIsHere: "Nobody of that name is here.",
};

export const vaultList = {
  noVaultHoldsAnythingForYou: "No vault holds anything for you yet.",
  entry: "entry",
  entries: "entries",
  vault: "vault",
  vaults: "vaults",
  youReachIn: (toLocaleString: ReactNode, vaultsCount: ReactNode) => (
    <>
      You reach {toLocaleString} in {vaultsCount}.
    </>
  ),
  vaults2: "Vaults",
  makeAVault: "Make a vault",
  aVaultHoldsTheLoginsThat:
    "A vault holds the logins that one team or one place shares, has its own key and its own stewards. Make one for the shop, one for the building, one for the accounts.",
  asSoonAsSomebodyGivesYou: "As soon as somebody gives you access to an entry, its vault stands here.",
  singleEntries: "single entries",
  sitesWeUse: "sites we use",
  kindsOfYourOwn: "kinds of your own",
  forAllOfThemFromWhich: (link: ReactNode, link2: ReactNode) => (
    <>
      For all of them: {link}, from which new entries begin, and {link2}.
    </>
  ),
  somethingHasNoStewardOrThe: "Something has no steward, or the wrong one? ",
  takeStewardship: "Take stewardship",
  makeTheVault: "Make the vault",
  name: "Name",
  whatItHolds: "What it holds",
  youBecomeItsFirstSteward: "You become its first steward.",
};

export const vaultSheet = {
  change: (name: string) => `Change ${name}`,
  save: "Save",
  name: "Name",
  whatItHolds: "What it holds",
  isSetAside: (name: string) => `${name} is set aside.`,
  setTheVaultAside: "Set the vault aside",
  picture: "Picture",
  takeTheVaultOut: "Take the vault out",
  houseNote: "House note",
  whoTakesOut: "Who takes out",
  encryptionKey: "Encryption key",
  deleteTheVault: "Delete the vault",
  houseNoteOf: (name: string) => `House note of ${name}`,
  whereTheHouseRulesLetPeople:
    "Where the house rules let people accept what they are given, they read and confirm this note first; after a change of it, once more.",
  whatTheyConfirm: "What they confirm",
  deleteWord: (name: string) => `Delete ${name}`,
  deleteForGood: "Delete for good",
  entry: "entry",
  entries: "entries",
  inFolders: (entries: number) => ` in ${entries} folders`,
  andMoreInItsBin: (binned: number) => ` and ${binned} more in its bin`,
  goForGoodWithTheirEarlier: (toLocaleString: string, part: string, part2: ReactNode, part3: ReactNode) => (
    <>
      {toLocaleString} {part}
      {part2}
      {part3} go for good, with their earlier versions and attachments. There is no bin for a vault, and nobody can
      bring it back.
    </>
  ),
  writeItsName: (name: string) => `Write its name, ${name}`,
};

export const vaultSwitch = {
  entries: (toLocaleString: string) => `${toLocaleString} entries`,
  anotherVault: "Another vault",
  vault: "Vault",
  aFewLettersOfItsName: "a few letters of its name",
  vaults: "Vaults",
  youReachNoVaultOfThat: "You reach no vault of that name.",
};

export const useInPieces = {
  doneForOfNotForThe: (toLocaleString: string, toLocaleString2: string) =>
    `Done for ${toLocaleString} of ${toLocaleString2}; not for the others.`,
};
