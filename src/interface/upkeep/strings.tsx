/** Every sentence and label of this area, in one place to be read. */
import type { ReactNode } from "react";
import { agree, counted, listOf } from "@/core/counted";
import type { UpkeepAct } from "@/core/upkeep/findings";

export const finding = {
  leaked: (times: number) => `In a list of leaked passwords, ${times === 1 ? "once" : counted(times, "time")}`,
  old: (months: number, since: string) =>
    `Older than ${counted(months, "month")}, since ${since}: its kind is to be changed by then`,
  homePage: "Opens the home page of its site, and there is nothing there to sign in with",
  noCode: "Its site offers one-time codes, and it has none",
  tooMany: (count: number, most: number) =>
    `Too many people: ${count} ${agree(count, "has", "have")} access, and its stewards say at most ${most}`,
  knownToALeaver: (names: string[]) =>
    names.length === 0
      ? "Known to someone who has left"
      : `Known to ${several(names)}, who ${agree(names.length, "has", "have")} left`,
  knownWithoutAccess: (names: string[]) =>
    names.length === 0
      ? "Known to someone who can no longer reveal it"
      : `Known to ${several(names)}, who can no longer reveal it`,
  alsoThePasswordOf: (names: string[]) => `Also the password of ${several(names)}`,
  weak: (time: string) => `Weak: would take ${time} to guess`,
  noSteward: "No steward without an end date",
  oneSteward: (name: string) => (name ? `Only one steward: ${name}` : "Only one steward"),
  rejected: "The site rejected the user name or password",
  fails: (title: string) => `Sign-in fails: the site ${title}`,
  plainHttp: "Its sign-in page is not encrypted (http)",
  untested: "Its sign-in has not been tested",
  asksAPerson: "Each sign-in waits until a person enters the code",
  ending: (whose: string, level: string, when: string) => `${whose} ${level} ends ${when}`,
  everyone: (level: string) => `Everyone has ${level}`,
  openGuest: (name: string, level: string) => `${name || "A guest"}, a guest, has ${level} with no end date`,
  passed: (whose: string, level: string, why: string) => `${whose} ${level}: “${why}” is over`,
  neverUsed: (whose: string, level: string) => `${whose} ${level}, never used`,
  notUsed: (whose: string, level: string, when: string) => `${whose} ${level}, last used ${when}`,
  whose: (name: string) => (name ? `${name}’s` : "Someone’s"),
  theGroups: "A group’s",
  date: "Date",
  over: (field: string, day: string) => `${field}: over since ${day}`,
  ends: (field: string, day: string, days: number) => `${field} ${day}, ${counted(days, "day")} left`,
  nobodyUsesIt: (when: string | null) =>
    when === null ? "Nobody has ever used it" : `Nobody has used it since ${when}`,
};

/** The first two by name, the rest by number. */
const several = (names: string[]) =>
  listOf(names.length <= 3 ? names : [...names.slice(0, 2), counted(names.length - 2, "other")]);

export const upkeep = {
  upkeep: "Upkeep",
  whereNothing: "You see here what needs attention where you are a steward.",
  where: (vaults: ReactNode, findings: number, entries: number) => (
    <>
      Upkeep of {vaults}. {counted(findings, "finding")} in {entries === 1 ? "1 entry" : counted(entries, "entry")}.
    </>
  ),
  yourVaults: (count: number) => `your ${counted(count, "vault")}`,
  leaksRead: (when: string) => `Leaked passwords looked up ${when}.`,
  leaksNotYet: "Leaked passwords have not been looked up yet.",
  leaksOff: "Leaked passwords are not looked up here.",
  nothingAtAll: "Nothing needs attention.",
  nothingAtAllSays:
    "When a password is weak, known to a leaver or rejected by its site, or access is no longer used, it appears here.",
  noneForToday: (open: number) => `Nothing has to be resolved today. ${counted(open, "finding")} can wait.`,
  resolveToday: (names: ReactNode, today: number, rest: number) => (
    <>
      {names} {agree(today, "needs", "need")} an answer today.
      {rest > 0 && ` The other ${rest === 1 ? "one" : rest} can wait.`}
    </>
  ),
  andMore: (names: ReactNode, more: number) => (
    <>
      {names} and {counted(more, "other")}
    </>
  ),
  filter: "Filter",
  filterBy: "Filter by name",
  showing: (act: ReactNode, vault: ReactNode) => (
    <>
      Showing {act} in {vault}
    </>
  ),
  which: "Which findings",
  inWhich: "In which vaults",
  allFindings: "all findings",
  allMyVaults: (count: number) => (count === 1 ? "my vault" : `my ${counted(count, "vault")}`),
  acts: {
    change: "passwords to change",
    steward: "stewards to add",
    "sign-in": "sign-ins to correct",
    access: "access to end",
    date: "dates to review",
  } satisfies Record<UpkeepAct, string>,
  groups: {
    change: "Change the password",
    steward: "Add a steward",
    "sign-in": "Correct the sign-in",
    access: "End or limit access",
    date: "Review or renew",
  } satisfies Record<UpkeepAct, string>,
  groupCount: (count: number) => `${counted(count, "finding")}:`,
  groupSays: {
    change: "someone knows it who should not, or could guess it",
    steward: "nobody, or only one person, is in charge",
    "sign-in": "people cannot sign in, or nobody knows whether they can",
    access: "more access than the work needs",
    date: "a date has come, or nobody uses it",
  } satisfies Record<UpkeepAct, string>,
  nothingFits: "No finding matches.",
  showAll: "Show all findings",
  showMore: (left: number) => `Show more (${left.toLocaleString("en-GB")} left)`,
  selectAll: (count: number) => `Select all ${count} shown`,
  select: (name: string, why: string) => `Select ${name}: ${why}`,
  what: "Entry",
  why: "Why",
  since: "Since",
  who: "Who",
  whatYouCanDo: "What you can do",
  today: "today",
  people: (count: number) => counted(count, "person"),
  cannotSignIn: (count: number) => `${counted(count, "person")} cannot sign in`,
  givenBy: (name: string) => (name ? `given by ${name}` : ""),
  changeNow: "Change now",
  changeByHand: "Change by hand",
  addSteward: "Add a steward",
  correctSteps: "Correct steps",
  correctLogin: "Correct the login",
  addCodes: "Add codes",
  test: "Test",
  testName: (name: string) => `Test ${name}`,
  endAccess: "End access",
  reviewAccess: "Review access",
  enterNewDate: "Enter new date",
  openEntry: "Open",
  selected: (count: number) => `${count} selected`,
  changePasswords: (count: number) => `Change ${counted(count, "password")}`,
  testLogins: (count: number) => `Test ${counted(count, "login")}`,
  endGrants: (count: number) => `End ${counted(count, "grant")}`,
  putOff: "Put off",
  clear: "Clear selection",
  putOffTitle: (count: number) => `Put off ${counted(count, "finding")}`,
  theyComeBack: "They come back on that day. A new finding about the same entry is not put off.",
  until: "Until",
  inAWeek: "In a week",
  inAMonth: "In a month",
  reason: "Reason",
  stewardsSeeIt: "The other stewards see it.",
  cancel: "Cancel",
  putOffList: "Put off",
  putOffUntil: (what: ReactNode, why: string, until: string, by: string, reason: string) => (
    <>
      {what}: {why}. Put off until {until} by {by || "someone"}: “{reason}”
    </>
  ),
  undo: "Undo",
  toChange: "Passwords to change",
  hasSeen: {
    left: (name: string, count: number) => `${name} has left and has seen ${counted(count, "password")} of yours.`,
    lowered: (name: string, count: number) =>
      `${name} has seen ${counted(count, "password")} of yours that they can no longer reveal.`,
    lost: (name: string, count: number) =>
      `What ${name} has seen may be in other hands: ${counted(count, "password")} of yours.`,
  },
  changeBy: (day: string) => `To be changed by ${day}.`,
  showInUpkeep: "Show in Upkeep",
  sinceWhen: (time: string) => `since ${time}`,
  putOffHere: (time: string) => `put off until ${time}`,
  theHouse: "The house",
  houseRules: "House rules",
  peoplePage: "People",
  journal: "Journal",
  singleSignOn: "Single sign-on",
  saveAsCsv: "Save as CSV",
  csvHead: ["Finding", "Where", "Vault", "Why", "Since", "Today", "People with access"],
  csvYes: "yes",
  csvNo: "no",
  elsewhere: "Other vaults",
  elsewhereSays: "You are not a steward of these vaults. Their stewards see what was found.",
  elsewhereLine: (open: number, today: number) =>
    today > 0 ? `${counted(open, "finding")}, ${today} for today` : counted(open, "finding"),
  noSteward: "no steward",
  takeStewardship: "Take stewardship",
  whenDone: (done: number) => `${counted(done, "finding")} put off.`,
  undone: "It is back in the list.",
  ended: (count: number) => `${counted(count, "grant")} ended.`,
};

export const house = {
  journal: (made: string) =>
    `The Journal is no longer what its checkpoint of ${made} says: lines were changed, added or removed in the database, and no checkpoint is signed. Check it, and keep the latest backup.`,
  forwarding: (since: string) =>
    `Lines of the Journal have not been sent on since ${since}: the address that they go to does not take them. None is lost; they go once it does.`,
  ways: (count: number, needs: "second-step" | "passkey", group: string | null) =>
    `${counted(count, "person")}${group === null ? "" : ` in ${group}`} ${agree(count, "has", "have")} no ${needs === "passkey" ? "passkey" : "second step"}, which the house rules require.`,
  addresses: (names: readonly string[]) =>
    `${agree(names.length, "The address", "The addresses")} of ${listOf(names.length > 6 ? [...names.slice(0, 5), counted(names.length - 5, "other person")] : names)} ${agree(names.length, "is", "are")} in lists of leaked accounts. They have been told to change their passwords.`,
  lanyards: (count: number) =>
    `${counted(count, "Lanyard")} ${agree(count, "has", "have")} not been used for 60 days. Disconnect those that nobody needs.`,
  noCheckpoint:
    "No checkpoint of the Journal has been kept outside the database. Check the Journal, or set up a folder or an address for them.",
  oldCheckpoint: (at: string) =>
    `The last checkpoint of the Journal was kept outside the database ${at}. Check the Journal, or set up a folder or an address for them.`,
  noMail: "Email is not set up, so nobody is told of anything outside Galtry.",
  mail: (count: number, since: string, wrong: string) =>
    `${counted(count, "email")} could not be sent since ${since}. The mail server said: ${wrong}`,
  certificate: (name: string, until: string) => `The certificate of ${name} ends ${until}.`,
  noBackup: "No backup has been made yet.",
  oldBackup: (at: string) => `The last backup was made ${at}.`,
};

export const run = {
  changeTitle: (count: number) => `Change ${counted(count, "password")}`,
  changeSays:
    "Galtry signs in to each site, creates a new password to its rules, writes it down before it is sent, and signs in with it. Only then is it the current version. Colleagues are not shown it and sign in as before.",
  oneAfterTheOther: "One at a time at each site. You can leave this page: it goes on.",
  change: "Change now",
  underWay: {
    change: (names: readonly string[], done: number, of: number) =>
      `${names.length === 0 ? "Changing passwords" : `Changing the ${agree(names.length, "password", "passwords")} of ${listOf(names)}`}: ${done} of ${of} done`,
    test: (names: readonly string[], done: number, of: number) =>
      `${names.length === 0 ? "Testing logins" : `Testing ${listOf(names)}`}: ${done} of ${of} done`,
  },
  howFar: "How far the run is",
  goesOn: "You can leave this page: it goes on.",
  stop: "Stop after these",
  stopping: "Stopping after these",
  done: (good: number, of: number, what: "change" | "test") =>
    what === "change"
      ? `${good} of ${counted(of, "password")} changed`
      : `${good} of ${counted(of, "login")} signed in`,
  stopped: (left: number) => `Stopped. ${left} ${agree(left, "was", "were")} not begun.`,
  close: "Close",
  line: (name: ReactNode, title: string) => (
    <>
      {name}: {title}
    </>
  ),
};

export const years = {
  theYear: "The year, vault by vault",
  how: "How many findings were open at the end of each month; for this month, now.",
  today: "Needed an answer that day",
  later: "Could wait",
  month: "Month",
  openNow: "Open now",
  found: "Found in a year",
  resolved: "Resolved",
  half: "Half within",
  days: (count: number) => counted(count, "day"),
  none: "none",
  chartOf: (name: string) => `Findings open in ${name} at the end of each month`,
  asTable: "Show as a table",
};
