import { acceptGiven, setHouseNote } from "./access/accepting";
import { askFirst, closeYes, passEmergency, sayYes, setAsksFirst, yesesToSay } from "./access/askFirst";
import {
  answerAsk,
  askForAccess,
  askList,
  listedEntries,
  passAskOn,
  remindOfAsks,
  setListed,
  withdrawAsk,
} from "./access/asking";
import { askForSite } from "./access/askingForSite";
import { cellsOf } from "./access/cells";
import { endingSoon } from "./access/endingSoon";
import { tellOfExpiry } from "./access/expiry";
/** All commands and queries, by name. Tests walk it and try every one as every role. */
import { changeAccess, giveAccess, withdrawAccess } from "./access/grants";
import { accessGrid, gridVaults } from "./access/grid";
import { askGuestIn, endGuest, guestList, renewGuestLink } from "./access/guests";
import {
  handoverList,
  lookAtHandover,
  mailHandoverCode,
  makeHandover,
  openHandover,
  sweepHandovers,
  withdrawHandover,
} from "./access/handover";
import { closeLetterbox, dropIn, hangLetterbox, letterboxList, lookAtLetterbox } from "./access/letterbox";
import { finishRound, keepRounds, roundPage, roundsToDo, sayInRound, setRounds, startRound } from "./access/rounds";
import { sayOfSlip, shownSlips, showSlip } from "./access/secondLook";
import {
  answerSlip,
  applySlip,
  draftSlip,
  dropSlip,
  foresee,
  ownSlip,
  takeSlipBack,
  undoSlip,
  waitingSlips,
  workedOut,
} from "./access/slip";
import { takeableNodes, takeStewardship } from "./access/stewardship";
import { whoCanDoWhat } from "./access/who";
import { whyEnded } from "./access/whyEnded";
import type { Command, Query } from "./command";
import { frontDesk, meetEntry, pinEntry } from "./frontdesk/frontDesk";
import { finderWords, whomToAsk } from "./frontdesk/words";
import { journalFailures } from "./housekeeping";
import { journalNodes, journalPage } from "./journal/page";
import { compareLogin, guardedFill, keyList, neverKeep, updatePassword } from "./lanyard/keys";
import {
  confirmPairing,
  endLanyard,
  keepLanyard,
  lanyardFor,
  pairingFor,
  startPairing,
  takeToken,
} from "./lanyard/pairing";
import { mailTried, takeMail } from "./mail/queue";
import { groupList, groupPage } from "./people/groupPage";
import { changeGroup, deleteGroup, endGroup, makeGroup, removeMember, setMember } from "./people/groups";
import { personPage } from "./people/personPage";
import {
  addPerson,
  bringBack,
  changeRole,
  endEverything,
  leaveDue,
  markLeaver,
  ownerLink,
  ownNotices,
  personList,
  putAwayNotices,
  renewLink,
  setEnd,
  subjectList,
  suspendPerson,
} from "./people/persons";
import { endSession, keepSession, ownDevices, proveAgain, signIn, signOut } from "./people/sessions";
import { acceptLink, linkFor, organisationQuery, setUp } from "./people/setUp";
import { changeRules, houseRules } from "./rules/rules";
import { didNotWork } from "./signin/didNotWork";
import { beginSignIn, claimCode, closeBrokenOff, handOver, reportLanding } from "./signin/sealed";
import { dropJar, openSessions } from "./signin/signingOut";
import { keepConditions } from "./upkeep/conditions";
import { sweepOld } from "./upkeep/sweeping";
import { setAside, setVaultAside } from "./vaults/aside";
import {
  addPiece,
  attachmentPiece,
  beginAttachment,
  finishAttachment,
  openAttachment,
  removeAttachment,
  sweepAttachments,
} from "./vaults/attachments";
import { binEntry, emptyBins, eraseEntry, eraseFolder, restoreEntry } from "./vaults/bin";
import { compareRows } from "./vaults/comparing";
import { convertEntry } from "./vaults/convert";
import { carryPreview, copyNodes, moveAcross } from "./vaults/copying";
import { bringBackVersion, earlierVersions, revealEarlier } from "./vaults/earlier";
import { addEntry, changeEntry } from "./vaults/entries";
import { entryPage } from "./vaults/entryPage";
import { folderPage } from "./vaults/folderPage";
import { binFolder, makeFolder, renameFolder, restoreFolder } from "./vaults/folders";
import { beginImport, cancelImport, importChunk, publishImport, sweepImports } from "./vaults/importing";
import { importPage, importProvable, undoImport } from "./vaults/importUndo";
import { changeKind, closeKind, deleteKind, kindList, makeKind, setKindPicture } from "./vaults/kinds";
import { forgetMapping, keepMapping, mappingList } from "./vaults/mappings";
import { moveNodes, movePreview } from "./vaults/moving";
import { pictureOf, setPicture, setVaultPicture } from "./vaults/pictures";
import { vaultPlaces } from "./vaults/places";
import { revealField } from "./vaults/revealing";
import { dropKeys, keyState, rotateAllKeys, rotateKey, rotateSome, stopRotation } from "./vaults/rotation";
import { markSeparate, separatePreview } from "./vaults/separating";
import { setField, tagEntries } from "./vaults/several";
import { changeAskAgain, changeSigningIn, changeSteps, tryOnceMore } from "./vaults/signingIn";
import { dropSite, keepSite, siteList } from "./vaults/sites";
import { vaultTags } from "./vaults/tags";
import { setTakers, sweepTakings, takenPart, takeOut, takerList } from "./vaults/takingOut";
import { tickCode } from "./vaults/ticks";
import { changeVault, deleteVault, keepLedgerView, makeVault, vaultLedger, vaultList } from "./vaults/vaults";

const ALL = [
  organisationQuery,
  setUp,
  linkFor,
  acceptLink,
  signIn,
  keepSession,
  signOut,
  proveAgain,
  endSession,
  ownDevices,
  personList,
  personPage,
  addPerson,
  renewLink,
  suspendPerson,
  markLeaver,
  bringBack,
  endEverything,
  changeRole,
  setEnd,
  leaveDue,
  ownerLink,
  subjectList,
  ownNotices,
  putAwayNotices,
  groupList,
  groupPage,
  makeGroup,
  changeGroup,
  endGroup,
  deleteGroup,
  setMember,
  removeMember,
  vaultList,
  vaultLedger,
  makeVault,
  changeVault,
  entryPage,
  addEntry,
  changeEntry,
  revealField,
  binEntry,
  restoreEntry,
  changeSigningIn,
  changeSteps,
  tryOnceMore,
  vaultTags,
  takeOut,
  takenPart,
  takerList,
  setTakers,
  rotateKey,
  rotateAllKeys,
  stopRotation,
  keyState,
  rotateSome,
  dropKeys,
  sweepTakings,
  takeMail,
  mailTried,
  importProvable,
  markSeparate,
  separatePreview,
  pictureOf,
  setPicture,
  setVaultPicture,
  setKindPicture,
  dropSite,
  keepSite,
  siteList,
  finderWords,
  whomToAsk,
  tickCode,
  changeAskAgain,
  setAside,
  setVaultAside,
  addPiece,
  attachmentPiece,
  beginAttachment,
  finishAttachment,
  openAttachment,
  removeAttachment,
  sweepAttachments,
  emptyBins,
  eraseEntry,
  eraseFolder,
  convertEntry,
  carryPreview,
  copyNodes,
  moveAcross,
  bringBackVersion,
  earlierVersions,
  revealEarlier,
  changeKind,
  closeKind,
  deleteKind,
  kindList,
  makeKind,
  setField,
  tagEntries,
  deleteVault,
  keepLedgerView,
  keepConditions,
  sweepOld,
  forgetMapping,
  keepMapping,
  mappingList,
  whoCanDoWhat,
  whyEnded,
  folderPage,
  beginImport,
  importChunk,
  publishImport,
  cancelImport,
  sweepImports,
  compareRows,
  importPage,
  undoImport,
  makeFolder,
  renameFolder,
  binFolder,
  restoreFolder,
  movePreview,
  vaultPlaces,
  moveNodes,
  giveAccess,
  changeAccess,
  withdrawAccess,
  accessGrid,
  gridVaults,
  draftSlip,
  ownSlip,
  foresee,
  workedOut,
  showSlip,
  shownSlips,
  sayOfSlip,
  endingSoon,
  cellsOf,
  applySlip,
  undoSlip,
  dropSlip,
  waitingSlips,
  answerSlip,
  takeSlipBack,
  makeHandover,
  lookAtHandover,
  mailHandoverCode,
  openHandover,
  withdrawHandover,
  handoverList,
  sweepHandovers,
  takeStewardship,
  takeableNodes,
  askForAccess,
  askForSite,
  withdrawAsk,
  answerAsk,
  passAskOn,
  askList,
  listedEntries,
  setListed,
  remindOfAsks,
  hangLetterbox,
  lookAtLetterbox,
  dropIn,
  closeLetterbox,
  letterboxList,
  setRounds,
  startRound,
  sayInRound,
  finishRound,
  roundPage,
  roundsToDo,
  keepRounds,
  askGuestIn,
  renewGuestLink,
  guestList,
  endGuest,
  setAsksFirst,
  askFirst,
  sayYes,
  closeYes,
  passEmergency,
  yesesToSay,
  acceptGiven,
  setHouseNote,
  houseRules,
  changeRules,
  frontDesk,
  pinEntry,
  meetEntry,
  pairingFor,
  startPairing,
  confirmPairing,
  takeToken,
  lanyardFor,
  keepLanyard,
  endLanyard,
  keyList,
  compareLogin,
  updatePassword,
  neverKeep,
  guardedFill,
  beginSignIn,
  handOver,
  claimCode,
  reportLanding,
  didNotWork,
  tellOfExpiry,
  closeBrokenOff,
  openSessions,
  dropJar,
  journalPage,
  journalNodes,
  journalFailures,
] as const;

export type Registered = (typeof ALL)[number];

export const registry: ReadonlyMap<string, Command<unknown, unknown> | Query<unknown, unknown>> = new Map(
  ALL.map((one) => [one.name, one as unknown as Command<unknown, unknown>]),
);
