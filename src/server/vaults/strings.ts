/** Every sentence and label of this area, in one place to be read. */
export const aside = {
  isSetAsideWithItsVaultBring: (name: string) => `${name} is set aside with its vault. Bring the vault back.`,
  itIsAlreadySetAside: "It is already set aside.",
  itIsNotSetAside: "It is not set aside.",
};

export const attachments = {
  thisFileIsEmpty: "This file is empty.",
  aFileHasAtMostMbHere: (floor: number) => `A file has at most ${floor} MB here.`,
  anEntryHasAtMostAttachments: (most: number) => `An entry has at most ${most} attachments.`,
  theEntryHasBeenMovedToAnother: "The entry has been moved to another vault. Attach the file again.",
  aPieceHasAtMostOneMebibyte: "A piece has at most one mebibyte.",
  theFileChangedWhileItWasBeing: "The file changed while it was being read. Attach it again.",
  someOfTheFileIsMissingAttach: "Some of the file is missing. Attach it again.",
  onlyThePersonWhoAttachedItOr: "Only the person who attached it or a steward can delete it.",
  openTheAttachmentAgainThisTook: "Open the attachment again: this took too long.",
};

export const bin = {
  thisCanNoLongerBeUndone: "This can no longer be undone here. Open the entry in Galtry.",
  isNotInTheBin: (name: string) => `${name} is not in the bin.`,
  restoreItWithinItsVaultFirst: "Restore it within its vault first, then move it.",
  itIsInTheFolderWhichIs: (name: string) =>
    `It is in the folder ${name}, which is also in the bin. Restore that first, or choose another place.`,
  deletedForGood: (name: string, node: string) => `${name} deleted ${node} for good.`,
  thisFolderIsNotInTheBin: "This folder is not in the bin.",
  deletedTheFolderForGoodWith: (name: string, node: string) =>
    `${name} deleted the folder ${node} for good, with everything in it.`,
};

export const comparing = {
  moreThan5PasswordsWereCompared:
    "More than 5 passwords were compared with one login in a quarter of an hour. Wait, or skip these rows.",
};

export const composing = {
  morePeopleWouldSeeRevealItAnd: (label: string) =>
    `More people would see ${label}. Reveal it and enter it here again.`,
};

export const composingRows = {
  thisKindDoesNotExist: "This kind does not exist.",
};

export const convert = {
  someoneElseHasChangedThisEntry: "Someone else has changed this entry. Check it and try again.",
  itIsAlreadyOfThisKind: "It is already of this kind.",
  isNoLongerOfferedForNewEntries: (name: string) => `${name} is no longer offered for new entries.`,
};

export const copying = {
  aVaultCannotBeMovedOr: "A vault cannot be moved or duplicated.",
  aFolderCannotGoIntoItself: "A folder cannot go into itself.",
  whatIsInTheBinCannotBe: "What is in the bin cannot be moved or duplicated.",
  foldersNestAtMostDeep: (deepest: number) => `Folders nest at most ${deepest} deep.`,
  atMostEntriesAtOnceThisWould: (most: number, entriesCount: number) =>
    `At most ${most} entries at once. This would be ${entriesCount}.`,
  morePeopleWouldHaveAccessToThe: "More people would have access to the duplicate. Only a steward can do that.",
  itIsAlreadyInThisVault: "It is already in this vault.",
  moveFromOneVaultAtATime: "Move from one vault at a time.",
  movedToAnotherVault: (name: string, node: string) => `${name} moved ${node} to another vault.`,
  movedToFromAnotherVault: (name: string, what: string | null | undefined, node: string) =>
    `${name} moved ${what} to ${node} from another vault.`,
};

export const drawPicture = {
  thisPictureHasTooManyPixels: "This picture has too many pixels. Make it smaller first.",
  thisIsNotAPictureChooseA: "This is not a picture. Choose a PNG, JPEG, WebP or SVG file.",
  chooseAPngJpegWebpOrSvg: "Choose a PNG, JPEG, WebP or SVG picture.",
  thisPictureCannotBeReadItIs: "This picture cannot be read: it is damaged, or has too many pixels.",
};

export const drawing = {
  aPictureHasAtMost2Mb: "A picture has at most 2 MB.",
};

export const earlier = {
  name: "Name",
  description: "Description",
  notes: "Notes",
  tags: "Tags",
  someoneElseHasChangedCheckIt: (name: string) => `Someone else has changed ${name}. Check it and try again.`,
  morePeopleCouldSeeThenThanNow: (label: string) =>
    `More people could see ${label} then than now. Restore the other fields one at a time; reveal ${label} and enter it again.`,
  thisEntryIsOfAnotherKindNow: "This entry is of another kind now. Restore all of the version, or none.",
};

export const entries = {
  isSetAsideAnyoneWithEditOn: (name: string) => `${name} is set aside. Anyone with Edit on it can bring it back.`,
  chooseAnEntry: "Choose an entry.",
  atMost500EntriesAtOnce: "At most 500 entries at once.",
  thisEntryIsInTheBinRestore: "This entry is in the bin. Restore it first.",
  isNoLongerOfferedForNewEntries: (name: string) => `${name} is no longer offered for new entries.`,
  aGuestAdded: (name: string, name2: string) => `${name}, a guest, added ${name2}.`,
  changedThisEntryWhileYouWere: (part: string) => `${part} changed this entry while you were editing it.`,
};

export const folders = {
  thisFolderIsInTheBinRestore: "This folder is in the bin. Restore it first.",
  thisVaultIsSetAsideBringIt: "This vault is set aside. Bring it back first.",
  foldersNestAtMostDeep: (deepest: number) => `Folders nest at most ${deepest} deep.`,
  thisFolderIsAlreadyInTheBin: "This folder is already in the bin.",
  somethingInThisFolderHasOther: "Something in this folder has other stewards. They must move it out first.",
  thisFolderIsNotInTheBin: "This folder is not in the bin.",
  itWentIntoTheBinWithThe: "It went into the bin with the folder around it. Restore that folder.",
};

export const importUndo = {
  itHasAlreadyBeenUndone: "It has already been undone.",
  itCanBeUndoneForADay: "It can be undone for a day. That is over.",
};

export const importUpdates = {
  anEntryThatWouldBeUpdatedNo: "An entry that would be updated no longer exists. Check the file again.",
  hasBeenMovedToAnotherVault: (name: string) => `${name} has been moved to another vault. Check the file again.`,
  someoneElseHasChangedCheckThe: (name: string) => `Someone else has changed ${name}. Check the file again.`,
};

export const importing = {
  thisImportIsOverItWasFinished: "This import is over: it was finished, stopped or left for too long.",
  foldersNestAtMostDeep: (deepest: number) => `Folders nest at most ${deepest} deep.`,
  atMostEntriesCanBeImportedAt: (count: string) => `At most ${count} entries can be imported at once.`,
  thereIsNothingToImport: "There is nothing to import.",
};

export const kinds = {
  thisKindDoesNotExist: "This kind does not exist.",
  onlyAnAdministratorCanCreate: "Only an administrator can create kinds.",
  thereIsAlreadyAKindCalled: (name: string) => `There is already a kind called ${name}.`,
  ofThisKindItCannotBeDeleted: (count: string, part: string) =>
    `${count} ${part} of this kind: it cannot be deleted, but you can stop offering it.`,
  earlierVersionsOfEntriesAreOf:
    "Earlier versions of entries are of this kind: it cannot be deleted, but you can stop offering it.",
};

export const mappings = {
  atMostCanBeSavedDeleteOne: (most: number) => `At most ${most} can be saved. Delete one first.`,
};

export const moving = {
  aVaultCannotBeMoved: "A vault cannot be moved.",
  itStaysInItsVault: "It stays in its vault.",
  aFolderCannotGoIntoItself: "A folder cannot go into itself.",
  itIsAlreadyThere: "It is already there.",
  whatIsInTheBinCannotBe: "What is in the bin cannot be moved.",
  foldersNestAtMostDeep: (deepest: number) => `Folders nest at most ${deepest} deep.`,
  thisWouldChangeWhoHasAccessTo: "This would change who has access to it. Only its steward can do that.",
};

export const places = {
  sharedWithYou: (first: string, part: string) => `Shared with you: ${first}${part}`,
};

export const revealGates = {
  requiresYourSignInPassword: (name: string) =>
    `${name} requires your sign-in password again before it shows anything.`,
};

export const rotation = {
  theKeyOfThisVaultIsAlready: "The key of this vault is already being rotated.",
};

export const separating = {
  thisFolderIsInTheBinRestore: "This folder is in the bin. Restore it first.",
  itIsAlreadySeparate: "It is already separate.",
  itIsNotSeparate: "It is not separate.",
};

export const several = {
  atMostEntriesAtOnce: (most: number) => `At most ${most} entries at once.`,
  aTagHasAtMost50Characters: "A tag has at most 50 characters.",
  aTagHasAName: "Give the tag a name.",
  wouldHaveMoreThan20Tags: (name: string) => `${name} would have more than 20 tags.`,
  doesNotHaveThisFieldItIs: (name: string, name2: string) =>
    `${name} does not have this field: it is of the kind ${name2}.`,
};

export const sites = {
  thisCannotBeUnderstood: "This cannot be understood.",
  aHintHasAtMost300Characters: "A hint has at most 300 characters.",
  rulesHaveAtMost500Characters: "Rules have at most 500 characters.",
  onlyAnAdministratorCanChange: "Only an administrator can change this list.",
  enterTheAddressOfTheSignIn: "Enter the address of the sign-in page.",
  atMostSites: (most: number) => `At most ${most} sites.`,
};

export const signingIn = {
  onlyAStewardCanBeAsked: "Choose one of the entry’s stewards: only they can be asked for its codes.",
};

export const steps = {
  nothingWasLearned: "Lanyard has seen no step of a sign-in yet. Sign in to the site by hand first.",
  isNotOfThisEntry: (host: string) => `${host} does not belong to this entry. Add it to the other hosts first.`,
};

export const takingOut = {
  giveAReasonItIsWrittenIn: "Give a reason: it is written in the Journal.",
  exportFromOneVaultAtATime: "Export from one vault at a time.",
  onlyItsStewardsAndThePeopleIts: "Only its stewards, and the people its vault names, can export it.",
  somethingInItHasOtherStewards: "Something in it has other stewards. Export only what you can.",
  anExportShowsEverythingAtOnce: "An export shows everything at once. Enter your sign-in password first.",
  atMostEntriesAtOnce: (count: string) => `At most ${count} entries at once.`,
  thisTookTooLongExportItAgain: "This took too long. Export it again.",
  somethingInItHasChangedExport: "Something in it has changed. Export it again.",
  atMost50PeopleAndGroups: "At most 50 people and groups.",
  thisPersonOrGroupDoesNotExist: "This person or group does not exist.",
};

export const ticks = {
  someoneElseHasChangedThese: "Someone else has changed these codes. Reveal them again.",
};

export const vaults = {
  typeTheVaultsNameToDeleteIt: (name: string) => `Type the vault’s name, ${name}, to delete it.`,
  somethingInThisVaultHasOther: "Something in this vault has other stewards. They must move it out first.",
  deletedTheVaultForGood: (name: string, name2: string) => `${name} deleted the vault ${name2} for good.`,
};
