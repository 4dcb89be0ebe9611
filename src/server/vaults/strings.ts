/** Every sentence and label of this area, in one place to be read. */
export const aside = {
  isSetAsideWithItsVault: (name: string) => `${name} is set aside with its vault. Bring the vault back.`,
  itIsSetAsideAlready: "It is set aside already.",
  itIsNotSetAside: "It is not set aside.",
};

export const attachments = {
  thisFileIsEmpty: "This file is empty.",
  aFileHasAtMostMb: (floor: number) => `A file has at most ${floor} MB here.`,
  anEntryHasAtMostAttachments: (mOST_AN_ENTRY: number) => `An entry has at most ${mOST_AN_ENTRY} attachments.`,
  theEntryWasMovedToAnother: "The entry was moved to another vault meanwhile. Attach the file again.",
  aPieceHasAtMostOne: "A piece has at most one mebibyte.",
  thisPieceDoesNotFitThe: "This piece does not fit: the file changed while it was read.",
  someOfTheFileIsMissing: "Some of the file is missing. Attach it again.",
  whoeverAttachedItOrASteward: "Whoever attached it, or a steward, can take it away.",
  openTheAttachmentAgainThisTook: "Open the attachment again: this took too long.",
};

export const bin = {
  isNotInTheBin: (name: string) => `${name} is not in the bin.`,
  itIsRestoredWithinItsVault: "It is restored within its vault, and moved from there.",
  itLiesInTheFolderWhich: (name: string) =>
    `It lies in the folder ${name}, which is in the bin too: restore that first, or say another place.`,
  deletedForGood: (name: string, node: string) => `${name} deleted ${node} for good.`,
  thisFolderIsNotInThe: "This folder is not in the bin.",
  deletedTheFolderForGoodWith: (name: string, node: string) =>
    `${name} deleted the folder ${node} for good, with all that lay in it.`,
};

export const comparing = {
  moreThanFivePasswordsWere:
    "More than five passwords were compared with one login in a quarter of an hour. Wait, or leave these rows out.",
};

export const composing = {
  morePeopleWouldSeeRevealIt: (label: string) => `More people would see ${label}. Reveal it and enter it here again.`,
};

export const composingRows = {
  thereIsNoSuchKind: "There is no such kind.",
};

export const convert = {
  somebodyChangedThisEntry: "Somebody changed this entry meanwhile. Look at it again first.",
  itIsOfThisKindAlready: "It is of this kind already.",
  isClosedToNewEntries: (name: string) => `${name} is closed to new entries.`,
};

export const copying = {
  aVaultIsNotMovedOr: "A vault is not moved or copied.",
  aFolderDoesNotGoInto: "A folder does not go into itself.",
  whatLiesInTheBinStays: "What lies in the bin stays where it is.",
  foldersNestAtMostDeep: (dEEPEST: number) => `Folders nest at most ${dEEPEST} deep.`,
  atMostEntriesAtOnceThis: (mOST_CARRIED: number, entriesCount: number) =>
    `At most ${mOST_CARRIED} entries at once: this would be ${entriesCount}.`,
  morePeopleWouldReachTheCopy: "More people would reach the copy: only a steward can do that.",
  itIsInThisVaultAlready: "It is in this vault already.",
  moveFromOneVaultAtA: "Move from one vault at a time.",
  movedToAnotherVault: (name: string, node: string) => `${name} moved ${node} to another vault.`,
  movedToFromAnotherVault: (name: string, what: string | null | undefined, node: string) =>
    `${name} moved ${what} to ${node} from another vault.`,
};

export const drawPicture = {
  thisPictureHasTooManyPixels: "This picture has too many pixels. Make it smaller first.",
  thisIsNotAPicturePng: "This is not a picture: PNG, JPEG, WebP and SVG are.",
  pngJpegWebpAndSvgPictures: "PNG, JPEG, WebP and SVG pictures can be kept.",
  thisPictureCannotBeDrawnIt: "This picture cannot be drawn: it is broken, or has too many pixels.",
};

export const drawing = {
  aPictureHasAtMost2: "A picture has at most 2 MB.",
};

export const earlier = {
  name: "Name",
  whatItIsFor: "What it is for",
  notes: "Notes",
  tags: "Tags",
  somebodyChangedMeanwhileLookAt: (name: string) => `Somebody changed ${name} meanwhile. Look at it again first.`,
  morePeopleCouldSeeThenThan: (label: string) =>
    `More people could see ${label} then than now. Restore the other fields one at a time; reveal ${label} and enter it anew.`,
  thisEntryIsOfAnotherKind: "This entry is of another kind now: bring all of it back, or none.",
};

export const entries = {
  isSetAsideWhoeverMayEdit: (name: string) => `${name} is set aside. Whoever may edit it can bring it back.`,
  chooseAnEntry: "Choose an entry.",
  atMost500EntriesAtOnce: "At most 500 entries at once.",
  thisEntryIsInTheBin: "This entry is in the bin. Restore it first.",
  isClosedToNewEntries: (name: string) => `${name} is closed to new entries.`,
  aGuestAdded: (name: string, name2: string) => `${name}, a guest, added ${name2}.`,
  changedThisEntryWhileYouWere: (part: string) => `${part} changed this entry while you were editing it.`,
};

export const folders = {
  thisFolderIsInTheBin: "This folder is in the bin. Restore it first.",
  thisVaultIsSetAsideBring: "This vault is set aside. Bring it back first.",
  foldersNestAtMostDeep: (dEEPEST: number) => `Folders nest at most ${dEEPEST} deep.`,
  thisFolderIsInTheBin2: "This folder is in the bin already.",
  somethingInThisFolderHasOther: "Something in this folder has other stewards. They would have to take it out first.",
  thisFolderIsNotInThe: "This folder is not in the bin.",
  itWentIntoTheBinWith: "It went into the bin with the folder around it: restore that one.",
};

export const importUndo = {
  itHasBeenUndoneAlready: "It has been undone already.",
  itCanBeUndoneForA: "It can be undone for a day. That is over.",
};

export const importUpdates = {
  anEntryThatWouldBeChanged: "An entry that would be changed is gone. Look the file over again.",
  wasMovedToAnotherVault: (name: string) => `${name} was moved to another vault meanwhile. Look the file over again.`,
  somebodyChangedMeanwhileLook: (name: string) => `Somebody changed ${name} meanwhile. Look the file over again.`,
};

export const importing = {
  thisBringingInIsOverIt: "This bringing in is over: it was finished, stopped or left alone for too long.",
  foldersNestAtMostDeep: (dEEPEST: number) => `Folders nest at most ${dEEPEST} deep.`,
  atMostEntriesAreBroughtIn: (toLocaleString: string) => `At most ${toLocaleString} entries are brought in at once.`,
  thereIsNothingToBringIn: "There is nothing to bring in.",
};

export const kinds = {
  thereIsNoSuchKind: "There is no such kind.",
  anAdministratorMakesKinds: "An administrator makes kinds.",
  thereIsAKindCalledAlready: (name: string) => `There is a kind called ${name} already.`,
  ofThisKindItCannotBe: (toLocaleString: string, part: string) =>
    `${toLocaleString} ${part} of this kind: it cannot be deleted, only closed to new ones.`,
  earlierVersionsOfEntriesAreOf:
    "Earlier versions of entries are of this kind: it cannot be deleted, only closed to new ones.",
};

export const mappings = {
  atMostAreKeptForgetOne: (mOST: number) => `At most ${mOST} are kept. Forget one first.`,
};

export const moving = {
  aVaultIsNotMoved: "A vault is not moved.",
  itStaysInItsVault: "It stays in its vault.",
  aFolderDoesNotGoInto: "A folder does not go into itself.",
  itIsThereAlready: "It is there already.",
  whatLiesInTheBinIs: "What lies in the bin is not moved.",
  foldersNestAtMostDeep: (dEEPEST: number) => `Folders nest at most ${dEEPEST} deep.`,
  thisWouldChangeWhoCanDo: "This would change who can do what with it: only its steward can do that.",
};

export const places = {
  sharedWithYou: (first: string, part: string) => `Shared with you: ${first}${part}`,
};

export const revealGates = {
  asksForYourSignInPassword: (name: string) => `${name} asks for your sign-in password again before it shows anything.`,
};

export const rotation = {
  theKeyOfThisVaultIs: "The key of this vault is being rotated already.",
};

export const separating = {
  thisFolderIsInTheBin: "This folder is in the bin. Restore it first.",
  itIsSeparateAlready: "It is separate already.",
  itIsNotSeparate: "It is not separate.",
};

export const several = {
  atMostEntriesAtOnce: (mOST_REWRITTEN: number) => `At most ${mOST_REWRITTEN} entries at once.`,
  aTagHasAtMost50: "A tag has at most 50 characters.",
  aTagHasAName: "A tag has a name.",
  wouldHaveMoreThan20Tags: (name: string) => `${name} would have more than 20 tags.`,
  hasNoSuchFieldItIs: (name: string, name2: string) => `${name} has no such field: it is of the kind ${name2}.`,
};

export const sites = {
  thisCannotBeRead: "This cannot be read.",
  aHintHasAtMost300: "A hint has at most 300 characters.",
  rulesHaveAtMost500Characters: "Rules have at most 500 characters.",
  anAdministratorKeepsThisList: "An administrator keeps this list.",
  sayWhereOneSignsIn: "Say where one signs in.",
  atMostSites: (mOST: number) => `At most ${mOST} sites.`,
};

export const takingOut = {
  sayWhatForItStandsIn: "Say what for: it stands in the journal.",
  takeOutOfOneVaultAt: "Take out of one vault at a time.",
  itsStewardsTakeItOutAnd: "Its stewards take it out, and whom a rule of its vault names.",
  somethingInItHasOtherStewards: "Something in it has other stewards: take out only what you may take.",
  takingOutShowsEverythingAtOnce: "Taking out shows everything at once. Give your sign-in password first.",
  atMostEntriesAtOnce: (toLocaleString: string) => `At most ${toLocaleString} entries at once.`,
  thisTookTooLongTakeIt: "This took too long. Take it out again.",
  somethingOfItChangedMeanwhile: "Something of it changed meanwhile. Take it out again.",
  atMost50PeopleAndGroups: "At most 50 people and groups.",
  thereIsNoSuchPersonOr: "There is no such person or group.",
};

export const ticks = {
  somebodyChangedTheseCodes: "Somebody changed these codes meanwhile. Reveal them again.",
};

export const vaults = {
  writeTheVaultsNameToDelete: (name: string) => `Write the vault's name, ${name}, to delete it.`,
  somethingInThisVaultHasOther: "Something in this vault has other stewards. They would have to take it out first.",
  deletedTheVaultForGood: (name: string, name2: string) => `${name} deleted the vault ${name2} for good.`,
};
