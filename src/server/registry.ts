import type { z } from "zod";
import { accessCells } from "./access/cells";
import { endingSoon } from "./access/endingSoon";
import { tellOfExpiry } from "./access/expiry";
/** All commands and queries, by name. Tests walk it and try every one as every role. */
import { changeAccess, endAccess, giveAccess } from "./access/grants";
import { accessGrid, gridVaults } from "./access/grid";
import { endGuest, guestList, inviteGuest, renewGuestLink } from "./access/guests";
import {
  createHandover,
  handoverList,
  lookAtHandover,
  openHandover,
  sendHandoverCode,
  sweepHandovers,
  withdrawHandover,
} from "./access/handover/handover";
import {
  closeLetterbox,
  createLetterbox,
  letterboxList,
  lookAtLetterbox,
  sendToLetterbox,
} from "./access/handover/letterbox";
import { acceptAccess, setHouseNote } from "./access/requests/accepting";
import {
  answerApproval,
  approvalsToGive,
  closeApproval,
  requestApproval,
  setApproval,
  useInEmergency,
} from "./access/requests/approvals";
import { requestLogin } from "./access/requests/loginRequests";
import {
  answerRequest,
  listedEntries,
  passRequestOn,
  remindOfRequests,
  requestAccess,
  requestList,
  setListed,
  withdrawRequest,
} from "./access/requests/requests";
import {
  answerInRound,
  continueRounds,
  finishRound,
  passRoundOn,
  roundPage,
  roundsToDo,
  setRounds,
  startRound,
} from "./access/rounds/rounds";
import { askSecondOpinion, giveSecondOpinion, secondOpinions } from "./access/slip/secondOpinions";
import {
  answerSlip,
  applySlip,
  discardSlip,
  draftSlip,
  ownSlip,
  previewChanges,
  undoSlip,
  waitingSlips,
  withdrawSlip,
  workedOut,
} from "./access/slip/slip";
import { takeableNodes, takeStewardship } from "./access/stewardship";
import { whoCanDoWhat } from "./access/who";
import { whyEnded } from "./access/whyEnded";
import type { Command, Query } from "./command";
import { dismissSteps, firstSteps } from "./frontdesk/firstSteps";
import { frontDesk, markEntrySeen, pinEntry } from "./frontdesk/frontDesk";
import { finderWords, whomToAsk } from "./frontdesk/words";
import { journalFailures } from "./housekeeping";
import { checkJournal } from "./journal/check";
import { growthSince, lineProof, makeCheckpoint, newestCheckpoint } from "./journal/checkpoints";
import { journalNodes, journalPage } from "./journal/page";
import { fillForm, formEntries } from "./lanyard/forms";
import { compareLogin, guardedFill, keyList, neverOffer, offerAgain, updatePassword } from "./lanyard/keys";
import {
  confirmPairing,
  endLanyard,
  lanyardFor,
  pairingFor,
  renewLanyard,
  startPairing,
  takeToken,
} from "./lanyard/pairing";
import { mailNotices } from "./mail/noticeMail";
import { mailTried, takeMail } from "./mail/queue";
import { sendTestMail } from "./mail/testMail";
import { addPeople, addPerson, checkPeople } from "./people/adding";
import {
  askForChanges,
  followChangeLists,
  knownPage,
  leaveUnchanged,
  ownChangeLists,
  setChangeListDate,
  undoLeaveUnchanged,
} from "./people/changeLists";
import { erasePerson } from "./people/erasing";
import { forgotPassword, resetPassword, sendReset } from "./people/forgotten";
import { groupList, groupPage } from "./people/groupPage";
import { changeGroup, createGroup, deleteGroup, endGroup } from "./people/groups";
import { askToJoin, joinWithCode, sendJoinCode } from "./people/joining";
import { groupKeepers, leavingPage, markLeaver } from "./people/leaving";
import { changeMembers, removeMember, setMember } from "./people/members";
import { chooseMail, dismissNotices, ownMailChoices, ownNotices } from "./people/notices";
import { wasNotMe } from "./people/notMe";
import { personList, subjectList } from "./people/peopleList";
import { personPage } from "./people/personPage";
import { personRecord } from "./people/personRecord";
import {
  changeRole,
  endEverything,
  leaveDue,
  ownerLink,
  reinstate,
  renewLink,
  resetWays,
  setEnd,
  setEnds,
  suspendPeople,
  suspendPerson,
} from "./people/persons";
import { endSession, ownDevices, proveAgain, renewSession, signOut } from "./people/sessions";
import {
  acceptLink,
  acceptLinkWithPasskey,
  beginJoinPasskey,
  changePassword,
  linkFor,
  organisationQuery,
  setUp,
} from "./people/setUp";
import { signIn } from "./people/signIn";
import { extendLink, noteOpened, withdrawLink } from "./people/signInLinks";
import { teamsPage, teamsPreview } from "./people/teams";
import { beginCodeApp, confirmCodeApp, makeRecoveryCodes, removeCodeApp } from "./people/waysIn/codes";
import {
  answerDevice,
  beginDeviceSignIn,
  deviceState,
  finishDeviceSignIn,
  typeDeviceNumber,
} from "./people/waysIn/device";
import {
  addPasskey,
  beginPasskey,
  beginPasskeyProof,
  beginPasskeySignIn,
  proveWithPasskey,
  removePasskey,
  renamePasskey,
  signInWithPasskey,
} from "./people/waysIn/passkeys";
import { ownNeed, remindWays, waysMissing } from "./people/waysIn/required";
import { beginSecondPasskey, finishSignIn } from "./people/waysIn/secondStep";
import { ownWays } from "./people/waysIn/ways";
import {
  arrive,
  beginFlow,
  confirmAccount,
  endByProvider,
  joinByProvider,
  linkOwn,
  noteFailure,
  ownAccounts,
  proveByProvider,
  takeFlow,
  unlinkOwn,
} from "./provider/arrivals";
import { applyGroup, groupTable, matchGroup, releaseGroup } from "./provider/groups";
import {
  addDomain,
  addProvider,
  changeProvider,
  chooseJoins,
  enableProvider,
  newScimToken,
  noteTest,
  proveDomain,
  providerList,
  providerMetadata,
  removeDomain,
  removeProvider,
  requireProvider,
  signInProviders,
  stopScim,
  tellOfCertificates,
  testProvider,
} from "./provider/providers";
import { dropGroup, dropUser, keepGroup, keepUser } from "./provider/scim/acts";
import { dropReport, mailReport, ownReportMails, sendReport, stopReportMail } from "./reports/mailed";
import { report, reportPlaces } from "./reports/report";
import { changeHelpNote, helpNote } from "./rules/helpNote";
import { houseKeys, rotateVaultKeys, stopVaultKeys } from "./rules/houseKeys";
import { changeRules, houseRules, ruleGroups } from "./rules/rules";
import { askForCode, codeStands, giveCode, takeCode } from "./signin/askedCodes";
import { fillChange } from "./signin/changeByHand";
import { beginChange, decideChange, endChange, markPasswordSent, writeDownPassword } from "./signin/changePassword";
import { didNotWork } from "./signin/didNotWork";
import { beginNightTest, endNightTest } from "./signin/nightTests";
import {
  beginRuleRun,
  beginRun,
  changeRegularly,
  dismissRun,
  endRunItem,
  ownRuns,
  stopRun,
  takeRunItem,
} from "./signin/runs";
import { beginSignIn, claimCode, closeBrokenOff, handOver, reportLanding } from "./signin/sealed";
import { dropJar, openSessions } from "./signin/signingOut";
import { saveTest, testPicture } from "./signin/testing";
import { recordFindings } from "./upkeep/checking";
import { computeStrengths } from "./upkeep/conditions";
import { upkeepPage, upkeepToday } from "./upkeep/findingsPage";
import { houseFindings } from "./upkeep/house";
import { recordAddressLeaks } from "./upkeep/leakedAddresses";
import { recordLeaks } from "./upkeep/leaks";
import { putOffFindings, undoPutOff } from "./upkeep/puttingOff";
import { sweepOld } from "./upkeep/sweeping";
import { tellOfUpkeep } from "./upkeep/weekly";
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
import { binEntry, emptyBins, eraseEntry, eraseFolder, restoreEntry, undoAdd } from "./vaults/bin";
import { compareRows } from "./vaults/comparing";
import { convertEntry } from "./vaults/convert";
import { carryPreview, duplicateNodes, moveAcross } from "./vaults/copying";
import { earlierVersions, restoreVersion, revealEarlier } from "./vaults/earlier";
import { addEntry, changeEntry } from "./vaults/entries";
import { entryPage } from "./vaults/entryPage";
import { folderPage } from "./vaults/folderPage";
import { binFolder, createFolder, renameFolder, restoreFolder } from "./vaults/folders";
import { beginImport, cancelImport, importChunk, publishImport, sweepImports } from "./vaults/importing";
import { importPage, importTestable, undoImport } from "./vaults/importUndo";
import { changeKind, closeKind, createKind, deleteKind, kindList, setKindPicture } from "./vaults/kinds";
import { deleteMapping, mappingList, saveMapping } from "./vaults/mappings";
import { moveNodes, movePreview } from "./vaults/moving";
import { pictureOf, setPicture, setVaultPicture } from "./vaults/pictures";
import { vaultPlaces } from "./vaults/places";
import { revealField } from "./vaults/revealing";
import { dropKeys, keyState, rotateAllKeys, rotateKey, rotateSome, stopRotation } from "./vaults/rotation";
import { markSeparate, separatePreview } from "./vaults/separating";
import { setField, tagEntries } from "./vaults/several";
import { changeSigningIn, setPasswordOnReveal, tryPasswordAgain } from "./vaults/signingIn";
import { removeSite, saveSite, siteList } from "./vaults/sites";
import { changeSteps, learnSteps, restoreSteps, stepsPage } from "./vaults/steps";
import { vaultTags } from "./vaults/tags";
import { exportEntries, exporterList, exportPart, setExporters, sweepExports } from "./vaults/takingOut";
import { tickCode } from "./vaults/ticks";
import { changeVault, createVault, deleteVault, saveLedgerView, vaultLedger, vaultList } from "./vaults/vaults";

const ALL = [
  organisationQuery,
  setUp,
  linkFor,
  acceptLink,
  beginJoinPasskey,
  acceptLinkWithPasskey,
  changePassword,
  signIn,
  beginPasskeySignIn,
  signInWithPasskey,
  beginSecondPasskey,
  finishSignIn,
  wasNotMe,
  forgotPassword,
  askToJoin,
  joinWithCode,
  sendJoinCode,
  sendReset,
  resetPassword,
  beginDeviceSignIn,
  typeDeviceNumber,
  answerDevice,
  deviceState,
  finishDeviceSignIn,
  ownNeed,
  waysMissing,
  remindWays,
  ownWays,
  beginPasskey,
  addPasskey,
  renamePasskey,
  removePasskey,
  beginPasskeyProof,
  proveWithPasskey,
  beginCodeApp,
  confirmCodeApp,
  removeCodeApp,
  makeRecoveryCodes,
  resetWays,
  renewSession,
  signOut,
  proveAgain,
  endSession,
  ownDevices,
  personList,
  personPage,
  personRecord,
  teamsPage,
  teamsPreview,
  addPerson,
  addPeople,
  checkPeople,
  noteOpened,
  extendLink,
  withdrawLink,
  renewLink,
  suspendPerson,
  suspendPeople,
  markLeaver,
  erasePerson,
  reinstate,
  endEverything,
  changeRole,
  setEnd,
  setEnds,
  leaveDue,
  ownerLink,
  subjectList,
  chooseMail,
  dismissNotices,
  ownMailChoices,
  ownNotices,
  groupList,
  groupPage,
  createGroup,
  changeGroup,
  endGroup,
  deleteGroup,
  setMember,
  removeMember,
  changeMembers,
  vaultList,
  vaultLedger,
  createVault,
  changeVault,
  entryPage,
  addEntry,
  changeEntry,
  revealField,
  binEntry,
  undoAdd,
  restoreEntry,
  changeSigningIn,
  changeSteps,
  learnSteps,
  restoreSteps,
  stepsPage,
  tryPasswordAgain,
  giveCode,
  formEntries,
  fillForm,
  vaultTags,
  exportEntries,
  exportPart,
  exporterList,
  setExporters,
  rotateKey,
  rotateAllKeys,
  stopRotation,
  keyState,
  rotateSome,
  dropKeys,
  sweepExports,
  mailNotices,
  firstSteps,
  dismissSteps,
  sendTestMail,
  takeMail,
  mailTried,
  importTestable,
  markSeparate,
  separatePreview,
  pictureOf,
  setPicture,
  setVaultPicture,
  setKindPicture,
  removeSite,
  saveSite,
  siteList,
  finderWords,
  whomToAsk,
  tickCode,
  setPasswordOnReveal,
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
  duplicateNodes,
  moveAcross,
  restoreVersion,
  earlierVersions,
  revealEarlier,
  changeKind,
  closeKind,
  deleteKind,
  kindList,
  createKind,
  setField,
  tagEntries,
  deleteVault,
  saveLedgerView,
  computeStrengths,
  recordFindings,
  recordAddressLeaks,
  dropReport,
  mailReport,
  ownReportMails,
  sendReport,
  stopReportMail,
  recordLeaks,
  tellOfUpkeep,
  upkeepPage,
  upkeepToday,
  houseFindings,
  putOffFindings,
  undoPutOff,
  sweepOld,
  deleteMapping,
  saveMapping,
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
  createFolder,
  renameFolder,
  binFolder,
  restoreFolder,
  movePreview,
  vaultPlaces,
  moveNodes,
  giveAccess,
  changeAccess,
  endAccess,
  accessGrid,
  gridVaults,
  draftSlip,
  ownSlip,
  previewChanges,
  workedOut,
  askSecondOpinion,
  secondOpinions,
  giveSecondOpinion,
  endingSoon,
  accessCells,
  applySlip,
  undoSlip,
  discardSlip,
  waitingSlips,
  answerSlip,
  withdrawSlip,
  createHandover,
  lookAtHandover,
  sendHandoverCode,
  openHandover,
  withdrawHandover,
  handoverList,
  sweepHandovers,
  takeStewardship,
  takeableNodes,
  requestAccess,
  requestLogin,
  withdrawRequest,
  answerRequest,
  passRequestOn,
  requestList,
  listedEntries,
  setListed,
  remindOfRequests,
  createLetterbox,
  lookAtLetterbox,
  sendToLetterbox,
  closeLetterbox,
  letterboxList,
  setRounds,
  startRound,
  answerInRound,
  finishRound,
  roundPage,
  beginFlow,
  takeFlow,
  arrive,
  noteFailure,
  linkOwn,
  joinByProvider,
  proveByProvider,
  endByProvider,
  confirmAccount,
  unlinkOwn,
  ownAccounts,
  groupTable,
  matchGroup,
  applyGroup,
  releaseGroup,
  addProvider,
  changeProvider,
  removeProvider,
  testProvider,
  noteTest,
  enableProvider,
  requireProvider,
  chooseJoins,
  addDomain,
  proveDomain,
  removeDomain,
  newScimToken,
  stopScim,
  signInProviders,
  dropGroup,
  dropUser,
  keepGroup,
  keepUser,
  tellOfCertificates,
  groupKeepers,
  leavingPage,
  providerMetadata,
  providerList,
  passRoundOn,
  roundsToDo,
  continueRounds,
  inviteGuest,
  renewGuestLink,
  guestList,
  endGuest,
  setApproval,
  requestApproval,
  answerApproval,
  closeApproval,
  useInEmergency,
  approvalsToGive,
  acceptAccess,
  setHouseNote,
  houseRules,
  ruleGroups,
  helpNote,
  changeHelpNote,
  changeRules,
  frontDesk,
  pinEntry,
  markEntrySeen,
  pairingFor,
  startPairing,
  confirmPairing,
  takeToken,
  lanyardFor,
  renewLanyard,
  endLanyard,
  keyList,
  compareLogin,
  updatePassword,
  neverOffer,
  offerAgain,
  guardedFill,
  beginSignIn,
  handOver,
  saveTest,
  testPicture,
  beginNightTest,
  beginRuleRun,
  beginRun,
  changeRegularly,
  dismissRun,
  endRunItem,
  ownRuns,
  stopRun,
  takeRunItem,
  askForChanges,
  followChangeLists,
  knownPage,
  leaveUnchanged,
  ownChangeLists,
  setChangeListDate,
  undoLeaveUnchanged,
  endNightTest,
  claimCode,
  reportLanding,
  didNotWork,
  tellOfExpiry,
  beginChange,
  closeBrokenOff,
  decideChange,
  fillChange,
  endChange,
  markPasswordSent,
  writeDownPassword,
  askForCode,
  codeStands,
  takeCode,
  openSessions,
  dropJar,
  journalPage,
  journalNodes,
  checkJournal,
  makeCheckpoint,
  newestCheckpoint,
  growthSince,
  lineProof,
  houseKeys,
  rotateVaultKeys,
  stopVaultKeys,
  report,
  reportPlaces,
  journalFailures,
] as const;

type Registered = (typeof ALL)[number];
type NamesOf<Type extends "command" | "query"> = Extract<Registered, { type: Type }>["name"];

/** The commands and queries that pages may name: each with what is sent, and what comes back. */
export type CommandName = NamesOf<"command">;
export type QueryName = NamesOf<"query">;
type Named<Name extends Registered["name"]> = Extract<Registered, { name: Name }>;
/** What is sent is only read. */
type Sent<T> = T extends readonly (infer E)[]
  ? readonly Sent<E>[]
  : T extends object
    ? { [K in keyof T]: Sent<T[K]> }
    : T;
export type InputOf<Name extends Registered["name"]> = Sent<z.input<Named<Name>["input"]>>;
export type ResultOf<Name extends Registered["name"]> = Awaited<ReturnType<Named<Name>["execute"]>>;

export const registry: ReadonlyMap<string, Command<unknown, unknown> | Query<unknown, unknown>> = new Map(
  ALL.map((one) => [one.name, one as unknown as Command<unknown, unknown>]),
);
