/**
 * Upkeep: what needs attention, of an entry and of the access on a node. Each finding says what kind it is, since when,
 * and what is known of it, never a secret. What a reader may be told of it is decided where it is read.
 */
import type { Given, Level, Reach } from "../access/level";
import { atLeast } from "../access/level";
import { passedReason } from "../access/passedReason";
import type { Failure } from "../signin/outcome";
import { FAILURES } from "../signin/outcome";
import { monthsAfter } from "../time";

/** The act that resolves a finding, those that do most harm first. */
export const UPKEEP_ACTS = ["change", "steward", "sign-in", "access", "date"] as const;
export type UpkeepAct = (typeof UPKEEP_ACTS)[number];

/** Which of the two looks finds it: at an entry, or at the access on a node. */
export type Part = "entry" | "access";

/** `today`: it needs an answer on the day on which it is found; the others can wait. */
export const FINDINGS = {
  leaked: { part: "entry", act: "change", today: true },
  leaver: { part: "entry", act: "change", today: true },
  former: { part: "entry", act: "change", today: false },
  reused: { part: "entry", act: "change", today: false },
  weak: { part: "entry", act: "change", today: false },
  old: { part: "entry", act: "change", today: false },
  "no-steward": { part: "access", act: "steward", today: true },
  "one-steward": { part: "access", act: "steward", today: false },
  rejected: { part: "entry", act: "sign-in", today: true },
  fails: { part: "entry", act: "sign-in", today: true },
  "home-page": { part: "entry", act: "sign-in", today: true },
  "plain-http": { part: "entry", act: "sign-in", today: false },
  untested: { part: "entry", act: "sign-in", today: false },
  "asks-a-person": { part: "entry", act: "sign-in", today: false },
  "no-code": { part: "entry", act: "sign-in", today: false },
  "too-many": { part: "access", act: "access", today: false },
  everyone: { part: "access", act: "access", today: false },
  "open-guest": { part: "access", act: "access", today: false },
  passed: { part: "access", act: "access", today: false },
  ending: { part: "access", act: "access", today: false },
  "unused-access": { part: "access", act: "access", today: false },
  over: { part: "entry", act: "date", today: true },
  ends: { part: "entry", act: "date", today: false },
  unused: { part: "entry", act: "date", today: false },
} as const satisfies Record<string, { part: Part; act: UpkeepAct; today: boolean }>;

export type FindingKind = keyof typeof FINDINGS;
export const FINDING_KINDS = Object.keys(FINDINGS) as FindingKind[];
/** What needs an answer that day first, and in the order above. */
export const BY_HARM = FINDING_KINDS.toSorted((a, b) => Number(FINDINGS[b].today) - Number(FINDINGS[a].today));

export const partOf = (kind: FindingKind): Part => FINDINGS[kind].part;

/** What is known of a finding; each kind has some of it. */
export interface FindingDetail {
  /** How often it stands in the list of leaked passwords. */
  times?: number;
  /** log10 of the guesses that find it. */
  guesses?: number;
  /** Ids of people: who knows it, who is the only steward, whose access it is. */
  people?: string[];
  /** How the last sign-in ended. */
  failure?: Failure;
  level?: Level;
  /** When it was used last; null for never. */
  lastAt?: number | null;
  /** When access ends. */
  until?: number;
  /** After how many months it is old. */
  months?: number;
  /** How many people have access, and more than how many are too many. */
  count?: number;
  most?: number;
  /** A date that the entry carries: its field, and the day. */
  field?: string;
  date?: number;
}

export interface Finding {
  kind: FindingKind;
  key: string;
  since: number;
  detail: FindingDetail;
}

/** What one look comes to, and when to look again although nothing changes. */
export interface Look {
  findings: Finding[];
  dueAt: number | null;
}

const DAY = 86_400_000;
/** Passwords that need fewer guesses than these (log10) are weak, as strength is worded. */
export const WEAK_BELOW = 9;
export const UNUSED_ENTRY_MS = 180 * DAY;
export const UNUSED_ACCESS_MS = 90 * DAY;
/** So long before access ends it is told. */
export const ENDING_MS = 7 * DAY;
/** So long before a date of an entry it is told. */
export const AHEAD_MS = 60 * DAY;

export interface Seer {
  personId: string;
  standing: "active" | "suspended" | "leaver" | "invited";
  /** What they have, or have again within a week: a window that is closed tonight takes nothing from anybody. */
  level: Reach;
  /** When they fall below Reveal, as far as it is known; null for never. */
  until: number | null;
  /** Since when they are a leaver. */
  since: number;
}

export interface EntryFacts {
  /** In the bin, or set aside: nothing is asked of anybody. */
  atRest: boolean;
  createdAt: number;
  /** When the current version was written. */
  writtenAt: number;
  /** It has a sign-in page, and whether that is read by plain http from elsewhere. */
  signsIn: boolean;
  plainHttp: boolean;
  leaked: number;
  leakedSince: number;
  /** The weakest of its passwords, log10 of guesses; null where it has none or it is not rated yet. */
  guesses: number | null;
  /** Another entry that is not in the bin has the same password. */
  reused: boolean;
  /** When the oldest of its secrets was written, and after how many months those of its kind are old; null for never. */
  secretSince: number | null;
  oldAfter: number | null;
  /** Its sign-in page is the site's home page. */
  homePage: boolean;
  /** The site is known to offer one-time codes, or asked for one as Lanyard looked on, and the entry has none. */
  codeMissing: boolean;
  /** Who has seen a secret that it has now. */
  seers: readonly Seer[];
  refusedAt: number | null;
  /** The last sign-in of any kind that worked. */
  workedAt: number | null;
  /** The first and the last that failed since then, but for what is over by itself. */
  failing: { since: number; failure: Failure } | null;
  /** Each sign-in waits for a code that a person enters. */
  asksPerson: boolean;
  /** When anybody but a test used it. */
  usedAt: number | null;
  dates: readonly { field: string; at: number }[];
}

/** Failures that say something of the entry, and not of the moment or the person. */
export const TELLING_FAILURES = (Object.keys(FAILURES) as Failure[]).filter(
  (name) =>
    FAILURES[name].next !== "later" &&
    name !== "access-ended" &&
    name !== "wrong-password" &&
    name !== "refused-before",
);

export function lookAtEntry(facts: EntryFacts, at: number): Look {
  if (facts.atRest) return { findings: [], dueAt: null };
  const found: Finding[] = [];
  const add = (kind: FindingKind, since: number, detail: FindingDetail = {}) =>
    found.push({ kind, key: "", since, detail });
  const due = new Soonest(at);
  secretsOf(facts, add);
  ageOf(facts, add, due);
  for (const { until, level } of facts.seers) if (until !== null && atLeast(level, "reveal")) due.passed(until);
  signInOf(facts, add);
  for (const { field, at: date } of soonestOfEach(facts.dates)) {
    if (date <= at) add("over", date, { field, date });
    else if (due.passed(date - AHEAD_MS)) {
      add("ends", date - AHEAD_MS, { field, date });
      due.passed(date);
    }
  }
  const usedAt = Math.max(facts.usedAt ?? 0, facts.createdAt);
  if (due.passed(usedAt + UNUSED_ENTRY_MS)) add("unused", usedAt + UNUSED_ENTRY_MS, { lastAt: facts.usedAt });
  return { findings: found, dueAt: due.at };
}

/** Since when is not known: since it was found. */
const UNKNOWN = 0;

type Add = (kind: FindingKind, since: number, detail?: FindingDetail) => void;

function secretsOf(facts: EntryFacts, add: Add): void {
  if (facts.leaked > 0) add("leaked", facts.leakedSince, { times: facts.leaked });
  const outside = facts.seers.filter(({ standing }) => standing === "leaver");
  if (outside.length > 0) add("leaver", Math.min(...outside.map(({ since }) => since)), { people: idsOf(outside) });
  const lowered = facts.seers.filter(({ standing, level }) => standing !== "leaver" && !atLeast(level, "reveal"));
  if (lowered.length > 0) add("former", UNKNOWN, { people: idsOf(lowered) });
  if (facts.reused) add("reused", facts.writtenAt);
  if (facts.guesses !== null && facts.guesses < WEAK_BELOW) add("weak", facts.writtenAt, { guesses: facts.guesses });
}

function ageOf({ secretSince, oldAfter }: EntryFacts, add: Add, due: Soonest): void {
  if (secretSince === null || oldAfter === null) return;
  const since = monthsAfter(secretSince, oldAfter);
  if (due.passed(since)) add("old", since, { months: oldAfter });
}

function signInOf(facts: EntryFacts, add: Add): void {
  if (!facts.signsIn) return;
  if (facts.refusedAt !== null) add("rejected", facts.refusedAt);
  else if (facts.failing) {
    const { since, failure } = facts.failing;
    // Where nothing on a home page was understood, the page to sign in at is another one.
    const home = facts.homePage && facts.workedAt === null && failure === "not-understood";
    add(home ? "home-page" : "fails", since, { failure });
  } else if (facts.workedAt === null) add("untested", facts.createdAt);
  if (facts.asksPerson) add("asks-a-person", facts.createdAt);
  if (facts.plainHttp) add("plain-http", facts.createdAt);
  if (facts.codeMissing) add("no-code", UNKNOWN);
}

const idsOf = (seers: readonly Seer[]): string[] => [...new Set(seers.map(({ personId }) => personId))].sort();

/** Of several dates the one that comes first. */
const soonestOfEach = (dates: EntryFacts["dates"]) => [...dates].sort((a, b) => a.at - b.at).slice(0, 1);

/** The nearest moment still to come, of those that are asked about. */
class Soonest {
  at: number | null = null;
  constructor(private readonly now: number) {}
  /** Whether a moment is over; if not, it is looked at again then. */
  passed(moment: number): boolean {
    if (moment <= this.now) return true;
    if (this.at === null || moment < this.at) this.at = moment;
    return false;
  }
}

export interface GrantFacts {
  id: string;
  level: Given;
  subject: "person" | "group" | "everyone";
  /** Of a person's own grant. */
  personId: string;
  guest: boolean;
  from: number | null;
  until: number | null;
  validFrom: number;
  why: string;
  usedAt: number | null;
}

export interface AccessFacts {
  /** A vault, or a node that inherits nothing: stewards are counted there. */
  countsStewards: boolean;
  /** How many people have access to it or to something in it, and more than how many its stewards say are too many. */
  peopleCount: number;
  mostPeople: number | null;
  /** Active members of staff who are steward without an end. */
  stewards: readonly string[];
  grants: readonly GrantFacts[];
}

export function lookAtAccess(facts: AccessFacts, at: number): Look {
  const found: Finding[] = [];
  const due = new Soonest(at);
  if (facts.countsStewards && facts.stewards.length < 2)
    found.push({
      kind: facts.stewards.length === 0 ? "no-steward" : "one-steward",
      ...{ key: "", since: UNKNOWN, detail: { people: [...facts.stewards] } },
    });
  const { peopleCount: count, mostPeople: most } = facts;
  if (most !== null && count > most) found.push({ kind: "too-many", key: "", since: UNKNOWN, detail: { count, most } });
  if (most !== null) for (const { until } of facts.grants) if (until !== null) due.passed(until);
  for (const grant of facts.grants) {
    const kind = oddity(grant, due, at);
    if (kind === null) continue;
    found.push({
      ...{ kind: kind.kind, key: grant.id, since: kind.since },
      detail: {
        ...(grant.level === "blocked" ? {} : { level: grant.level }),
        ...(grant.subject === "person" ? { people: [grant.personId] } : {}),
        ...(kind.kind === "unused-access" ? { lastAt: grant.usedAt } : {}),
        ...(kind.kind === "ending" ? { until: grant.until! } : {}),
      },
    });
  }
  return { findings: found, dueAt: due.at };
}

/** The one thing that is said of a grant: what most likely ends it. */
function oddity(grant: GrantFacts, due: Soonest, at: number): { kind: FindingKind; since: number } | null {
  const { level, validFrom } = grant;
  if (level === "blocked" || (grant.until !== null && grant.until <= at)) return null;
  if (grant.from !== null && !due.passed(grant.from)) return null;
  if (grant.subject === "everyone") return atLeast(level, "reveal") ? { kind: "everyone", since: validFrom } : null;
  if (passedReason(grant.why, validFrom, at)) return { kind: "passed", since: validFrom };
  if (grant.subject !== "person") return null;
  if (grant.until !== null && due.passed(grant.until - ENDING_MS)) {
    due.passed(grant.until);
    return { kind: "ending", since: Math.max(grant.until - ENDING_MS, validFrom) };
  }
  if (grant.guest && grant.until === null) return { kind: "open-guest", since: validFrom };
  // Stewards look after it, whether they use it or not.
  if (level === "steward") return null;
  const unusedSince = Math.max(grant.usedAt ?? 0, validFrom, grant.from ?? 0) + UNUSED_ACCESS_MS;
  return due.passed(unusedSince) ? { kind: "unused-access", since: unusedSince } : null;
}
