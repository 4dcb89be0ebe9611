/** Every sentence and label of this area, in one place to be read. */

import type { ReactNode } from "react";
import { agree, counted } from "../../core/counted";

export const arrange = {
  arrangeTheLedger: "Arrange the ledger",
  sortBy: "Sort by",
  altWithTheUpAndDownArrow: "Alt with the up and down arrow keys moves a row.",
  name: "name",
  lastUsed: "last used",
  dateAdded: "date added",
  yourOwnOrder: "your own order",
  sections: "Sections",
  folder: "folder",
  kind: "kind",
  tag: "tag",
  none: "none",
  columns: "Columns",
  withoutATag: "Without a tag",
};

export const carrySheet = {
  entriesAndFolders: (nodesCount: number) => `${nodesCount} entries and folders`,
  move: "Move",
  duplicate: "Duplicate",
  doneOf: (done: string, of: string) => `${done} of ${of}`,
  vault: "Vault",
  thereIsNoPlaceInThisVault: "There is no place in this vault where you can add entries.",
  to: "To",
  chooseAPlace: "Choose a place",
  moved: (what: string) => `Moved ${what}.`,
  duplicated: (what: string) => `Duplicated ${what}.`,
  nobodysAccessChanges: "Nobody’s access changes.",
  theDuplicateGivesNobodyNew: "The duplicate gives nobody new access.",
  thisWouldChangeWhoHasAccessTo: "This would change who has access to it. Only its steward can do that.",
  willEndGrantsDoNotMoveTo: "will end: grants do not move to another vault.",
  willNotBeDuplicated: "will not be duplicated.",
  ofTheDuplicate: "Of the duplicate: ",
  grantsOnIt: (count: number) => `${counted(count, "grant")} on it`,
  moveWhat: (what: string) => `Move ${what}`,
  duplicateWhat: (what: string) => `Duplicate ${what}`,
};

export const effects = {
  goesFromToOn: (name: string, levelWord: string, levelWord2: string, node: string) =>
    `${name} goes from ${levelWord} to ${levelWord2} on ${node}`,
  andMore: (most: number) => `and ${most} more`,
  itChangesTheAccessOf: (people: number) => `It changes the access of ${counted(people, "person")}:`,
};

export const folderPage = {
  separateFolderItInheritsNo: "Separate folder: it inherits no access",
  folder: "Folder",
  showItsContents: "Show its contents",
  inTheBin: "In the bin",
  sinceWithEverythingInIt: (b: ReactNode, time: string) => (
    <>
      {b} since {time}, with everything in it.
    </>
  ),
  restoreEverything: "Restore everything",
  rename: "Rename",
  name: "Name",
  addAnEntry: "Add an entry",
  createAFolder: "Create a folder",
  move: "Move",
  inheritAccessAgain: "Inherit access again",
  makeSeparate: "Make separate",
  putInTheBin: "Put in the bin",
  inTheJournal: "In the Journal",
  whatYouDidHere: "What you did here",
  thisFolder: "this folder",
  whatYouCanDo: "What you can do",
  requestMoreAccess: "Request more access",
  putInTheBin2: (name: string) => `Put ${name} in the bin`,
  everythingInItGoesTooNobodyCan: "Everything in it goes too. Nobody can use it until the folder is restored.",
};

export const foot = {
  entriesAndFolders: (count: string) => `${count} entries and folders`,
  setAside: (what: string) => `${what} set aside.`,
  broughtBack: (what: string) => `${what} brought back.`,
  putInTheBin: (what: string) => `${what} put in the bin.`,
  selection: "Selection",
  ofWord: (count: string, of: string) => `${count} of ${of}`,
  selected: (count: string) => `${count} selected`,
  stop: "Stop",
  move: "Move",
  duplicate: "Duplicate",
  tag: "Tag",
  setAField: "Set a field",
  giveAccess: "Give access",
  exportWord: "Export",
  reinstate: "Bring back",
  setAside2: "Set aside",
  putInTheBin2: "Put in the bin",
  clearSelection: "Clear selection",
  putInTheBin3: (what: string) => `Put ${what} in the bin`,
  tagsOfChanged: (name: string) => `Tags of ${name} changed.`,
  tag2: (name: string) => `Tag ${name}`,
  add: "Add",
  remove: "Remove",
  ofWord2: (done: number, ofWord: number) => `${done} of ${ofWord}`,
  nobodyCanUse: (count: number) =>
    `Nobody can use ${agree(count, "it", "any of them")} until a steward restores ${agree(count, "it", "them")}. A folder goes with everything in it.`,
  entries: (count: number) => counted(count, "entry"),
};

export const giveSeveral = {
  entriesAndFolders: (rowsCount: number) => `${rowsCount} entries and folders`,
  giveAccessTo: (name: string) => `Give access to ${name}`,
  giveAccess: "Give access",
  theOthersAlreadyHadIt: "; the others already had it",
  ofWord: (grantIdsCount: number, what: string, part: string) => `${grantIdsCount} of ${what}${part}`,
  notToTheOthers: (refused: string) => ` Not to the others: ${refused}`,
  wasGivenAccessTo: (name: string, what: string, part: string) => `${name} was given access to ${what}.${part}`,
  giveAccessTo2: (what: string) => `Give access to ${what}`,
  to: "To",
  aPersonAGroupOrEveryone: "A person, a group or Everyone",
  peopleAndGroups: "People and groups",
  noMatchTryPartOfTheName: "No match. Try part of the name or email address.",
};

export const keySheet = {
  encryptionKeyOf: (name: string) => `Encryption key of ${name}`,
  everythingInThisVaultIs:
    "Everything in this vault is encrypted with one key. Rotate it when a backup or a disk may have reached the wrong hands, or as often as your rules require. A new key encrypts what is saved from then on; the rest is encrypted again in the background, and the old key is deleted ten minutes after nothing needs it. People can continue working.",
  theKeyInUseIsNumberCreated: (version: number, time: string) =>
    `The key in use is number ${version}, created ${time}.`,
  encryptedAgain: "Encrypted again",
  ofEncryptedAgain: (count: string, of: string, part: ReactNode) => (
    <>
      {count} of {of} encrypted again{part}.
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
  vaultSettings: "Vault settings",
  exportTheVault: "Export the vault",
  createAFolder: "Create a folder",
  importAFile: "Import a file",
  addAnEntry: "Add an entry",
  showEverything: "Show everything",
  theWholeVault: "the whole vault",
  filter: "Filter",
  arrange: "Arrange",
  tags: "Tags",
  theBinIsEmpty: "The bin is empty.",
  noEntriesYetAddOneOrSign: "No entries yet. Add one, or sign in to a site as usual and let Lanyard add the login.",
  noEntriesYet: "No entries yet.",
  nothingHereMatches: (filter: string) => `Nothing here matches “${filter}”.`,
  vaults: "Vaults",
  youAreAStewardOfIt: "You are a steward of it.",
  youHaveAccessToSingleEntries: "You have access to single entries.",
  youHave: (levelWord: string) => `You have ${levelWord}.`,
  thisVaultIsSetAside: "This vault is set aside",
  sinceItStaysHereButNothingIn: (b: ReactNode, time: string) => (
    <>
      {b} since {time}. It stays here, but nothing in it is offered anywhere.
    </>
  ),
  reinstate: "Bring back",
  entriesAndFolders: (nodesCount: number) => `${nodesCount} entries and folders`,
  moved: (what: string) => `Moved ${what}.`,
  entries: (count: number) => counted(count, "entry"),
  inFolders: (count: number) => ` in ${counted(count, "folder")}`,
  peopleHaveTheWhole: (count: number) =>
    `; ${counted(count, "person")} ${agree(count, "has", "have")} access to all of it`,
  imported: (time: string, rows: number) => `You imported ${counted(rows, "entry")} ${time}. `,
  checkOrUndoIt: "Check or undo the import",
};

export const ledgerTable = {
  andMore: (finding: string, more: number) => `${finding}, ${more} more`,
  chooseAPlace: "Choose another place",
  bin: "Bin",
  entries: "Entries",
  selectAllRowsShown: "Select all rows shown",
  name: "Name",
  putInTheBin: "Put in the bin",
  select: (name: string) => `Select ${name}`,
  drag: (name: string) => `Drag ${name}`,
  edit: (name: string) => `Edit ${name}`,
  edit2: "Edit",
  setAside: "set aside",
  dropAtTheTopOf: (name: string) => `Drop at the top of ${name}`,
  empty: "empty",
  restore: (name: string) => `Restore ${name}`,
  restore2: "Restore",
  count: (count: number) => counted(count, "entry"),
  people: (count: number) => counted(count, "person"),
  addHere: "Add here",
};

export const createFolder = {
  createAFolderIn: (name: string) => `Create a folder in ${name}`,
  createFolder: "Create folder",
  name: "Name",
};

export const separateSheet = {
  isSeparate: (name: string) => `${name} is separate.`,
  inheritsAccessAgain: (name: string) => `${name} inherits access again.`,
  makeSeparate: (name: string) => `Make ${name} separate`,
  letInheritAccessAgain: (name: string) => `Let ${name} inherit access again`,
  makeSeparate2: "Make separate",
  inheritAccessAgain: "Inherit access again",
  aSeparateFolderInheritsNo: "A separate folder inherits no access. Only grants on it and inside it count.",
  itInheritsAccessToTheVaultAnd: "It inherits access to the vault and the folders around it again.",
  youBecomeItsStewardSoThatIt: " You become its steward, so that it has one.",
  nobodysAccessChanges: "Nobody’s access changes.",
};

export const setField = {
  description: "Description",
  notes: "Notes",
  ofSet: (label: string, what: string) => `${label} of ${what} set.`,
  setAFieldOf: (what: string) => `Set a field of ${what}`,
  set: "Set",
  field: "Field",
  chooseAField: "Choose a field",
  itReplacesTheCurrentValueWhich: "It replaces the current value, which stays among the earlier versions.",
  ofWord: (done: number, ofWord: number) => `${done} of ${ofWord}`,
  entries: (count: number) => counted(count, "entry"),
  changedRegularly: "Password changed regularly",
  yes: "Yes",
  no: "No",
  asTheHouseRulesSay: "As often as the house rules say, at night. Entries that require approval are left out.",
  changedRegularlyNow: (what: string) => `Galtry changes the password of ${what} regularly.`,
  notChangedRegularly: (what: string) => `Galtry no longer changes the password of ${what} regularly.`,
};

export const tagList = {
  tags: "Tags",
  showEntriesWithTheTag: (name: string) => `Show entries with the tag ${name}`,
  show: "Show",
  renameTheTag: (name: string) => `Rename the tag ${name}`,
  rename: "Rename",
  close: "Close",
  mergedInto: (name: string, to: string) => `${name} merged into ${to}.`,
  isNowCalled: (name: string, to: string) => `${name} is now called ${to}.`,
  merge: "Merge",
  becomes: (name: string) => `${name} becomes`,
  aTagCannotContainAComma: "A tag cannot contain a comma.",
  alreadyExistsTheTwoBecomeOne: (to: string) => `${to} already exists: the two become one.`,
  entries: (count: number) => counted(count, "entry"),
};

export const takeStewardship = {
  takeStewardship: "Take stewardship",
  willReadItAtOnce: (part: string) => `${part} will read it at once.`,
  itHasNoStewardNow: "It has no steward now.",
  youCanRevealAndEditEverything: (name: string, part: string) =>
    `You can reveal and edit everything in ${name}. The Journal records it. ${part}`,
  reason: "Reason",
  searching: "Searching…",
  youAreAStewardOfEverythingThat: "You are a steward of everything that is shared.",
  steward: (part: string) => `Steward: ${part}`,
  noSteward: "no steward",
  takeStewardshipOf: (name: string, what: string) => `Take stewardship of ${name}, ${what}`,
  take: "Take…",
};

export const takersSheet = {
  whoCanExportFrom: (name: string) => `Who can export from ${name}`,
  save: "Save",
  itsStewardsCanExportEntries:
    "Its stewards can export entries with all their values. So can the people named here, for entries they have Reveal on: with their sign-in password, a reason and a line in the Journal.",
  onlyItsStewardsCanExport: "Only its stewards can export.",
  someoneWhoIsNoLongerHere: "Someone who is no longer here",
  remove: (name: string) => `Remove ${name}`,
  remove2: "Remove",
  add: "Add",
  aPersonOrAGroup: "A person or a group",
  peopleAndGroups: "People and groups",
  noMatchTryPartOfTheName: "No match. Try part of the name or email address.",
};

export const vaultList = {
  youHaveNoAccessToAnyVault: "You have no access to any vault yet.",
  youHaveAccessToIn: (count: ReactNode, vaultsCount: ReactNode) => (
    <>
      You have access to {count} in {vaultsCount}.
    </>
  ),
  createAVault: "Create a vault",
  aVaultHoldsTheLoginsThatOne:
    "A vault holds the logins that one team or one place shares. It has its own stewards and its own encryption key. Create one for the shop, one for the building, one for the accounts.",
  whenSomeoneGivesYouAccessToAn: "When someone gives you access to an entry, its vault appears here.",
  singleEntries: "single entries",
  sitesWeUse: "sites we use",
  kindsOfYourOwn: "kinds of your own",
  forAllVaultsToStartNewEntries: (link: ReactNode, link2: ReactNode) => (
    <>
      For all vaults: {link} to start new entries from, and {link2}.
    </>
  ),
  doesSomethingHaveNoStewardOr: "Does something have no steward, or the wrong one? ",
  takeStewardship: "Take stewardship",
  createVault: "Create vault",
  name: "Name",
  description: "Description",
  youBecomeItsFirstSteward: "You become its first steward.",
  entries: (count: number) => counted(count, "entry"),
  vaults: (count: number) => counted(count, "vault"),
  heading: "Vaults",
};

export const vaultSheet = {
  edit: (name: string) => `Edit ${name}`,
  save: "Save",
  name: "Name",
  description: "Description",
  isSetAside: (name: string) => `${name} is set aside.`,
  mostPeople: "Most people",
  mostPeopleHint: "Upkeep says when more have access to it. Leave empty for any number.",
  setTheVaultAside: "Set the vault aside",
  picture: "Picture",
  exportTheVault: "Export the vault",
  houseNote: "House note",
  whoCanExport: "Who can export",
  encryptionKey: "Encryption key",
  deleteTheVault: "Delete the vault",
  houseNoteOf: (name: string) => `House note of ${name}`,
  whereTheHouseRulesRequire:
    "Where the house rules require people to accept access, they read and confirm this note first, and again after it changes.",
  deleteWord: (name: string) => `Delete ${name}`,
  deleteForGood: "Delete for good",
  typeItsNameToConfirm: (name: string) => `Type its name, ${name}, to confirm`,
  whatIsDeleted: (entries: number, folders: number, binned: number) =>
    `${counted(entries, "entry")}${folders > 0 ? ` in ${counted(folders, "folder")}` : ""}${binned > 0 ? ` and ${binned.toLocaleString("en-GB")} more in its bin` : ""} will be deleted for good, with all earlier versions and attachments. A vault does not go to the bin and cannot be restored.`,
};

export const vaultSwitch = {
  switchVault: "Switch vault",
  vault: "Vault",
  aFewLettersOfItsName: "A few letters of its name",
  vaults: "Vaults",
  noVaultMatches: "No vault matches.",
  entries: (count: number) => counted(count, "entry"),
};

export const useInPieces = {
  doneForOfNotForTheOthers: (count: string, of: string) => `Done for ${count} of ${of}; not for the others.`,
};
