import { describe, expect, test } from "vitest";
import {
  type AccessFacts,
  AHEAD_MS,
  type EntryFacts,
  FINDING_KINDS,
  FINDINGS,
  type GrantFacts,
  lookAtAccess,
  lookAtEntry,
  partOf,
  type Seer,
  UNUSED_ACCESS_MS,
  UNUSED_ENTRY_MS,
  UPKEEP_ACTS,
} from "./findings";
import { FINDING_NAMES } from "./names";

const DAY = 86_400_000;
const NOW = Date.UTC(2027, 4, 6, 12);

const quiet: EntryFacts = {
  ...{ atRest: false, createdAt: NOW - 10 * DAY, writtenAt: NOW - 10 * DAY, signsIn: true, plainHttp: false },
  ...{ leaked: 0, leakedSince: 0, guesses: 14, reused: false, seers: [], refusedAt: null, workedAt: NOW - DAY },
  ...{ failing: null, asksPerson: false, usedAt: NOW - DAY, dates: [] },
  ...{ secretSince: NOW - 10 * DAY, oldAfter: null, homePage: false, codeMissing: false },
};
const kinds = (facts: Partial<EntryFacts>, at = NOW) =>
  lookAtEntry({ ...quiet, ...facts }, at).findings.map(({ kind }) => kind);
const seer = (more: Partial<Seer>): Seer => ({
  ...{ personId: "ada", standing: "active", level: "reveal", until: null, since: NOW - 3 * DAY },
  ...more,
});

describe("an entry", () => {
  test("that is well looked after has no findings, and neither has one at rest", () => {
    expect(kinds({})).toEqual([]);
    const bad = {
      leaked: 3,
      guesses: 1,
      reused: true,
      plainHttp: true,
      refusedAt: NOW,
      seers: [seer({ standing: "leaver" })],
    };
    expect(kinds(bad)).toEqual(["leaked", "leaver", "reused", "weak", "rejected", "plain-http"]);
    expect(kinds({ ...bad, atRest: true })).toEqual([]);
  });

  test("is known to a leaver since they left, and to those who can no longer reveal it", () => {
    const seers = [
      seer({ personId: "bo", standing: "leaver", level: "none", since: NOW - 5 * DAY }),
      seer({ personId: "al", standing: "leaver", level: "none", since: NOW - 2 * DAY }),
      seer({ personId: "cy", level: "use" }),
      seer({ personId: "di", standing: "suspended", level: "none" }),
      seer({ personId: "ed", level: "edit" }),
    ];
    const { findings } = lookAtEntry({ ...quiet, seers }, NOW);
    expect(findings).toEqual([
      { kind: "leaver", key: "", since: NOW - 5 * DAY, detail: { people: ["al", "bo"] } },
      { kind: "former", key: "", since: 0, detail: { people: ["cy", "di"] } },
    ]);
  });

  test("is looked at again when somebody who has seen it falls below Reveal", () => {
    const until = NOW + 2 * DAY;
    expect(lookAtEntry({ ...quiet, seers: [seer({ until })] }, NOW).dueAt).toBe(until);
  });

  test("is untested until it worked once; a rejection says more than a failure, and that more than no test", () => {
    const failing = { since: NOW - DAY, failure: "came-back" as const };
    expect(kinds({ workedAt: null })).toEqual(["untested"]);
    expect(kinds({ workedAt: null, failing })).toEqual(["fails"]);
    expect(kinds({ failing, refusedAt: NOW - DAY })).toEqual(["rejected"]);
    expect(kinds({ workedAt: null, signsIn: false, plainHttp: true, failing })).toEqual([]);
  });

  test("a date is told sixty days before, and again when it is over", () => {
    const at = NOW + 100 * DAY;
    const dates = [{ field: "Ends", at }];
    const look = (when: number) => lookAtEntry({ ...quiet, usedAt: when, dates }, when);
    expect(look(NOW)).toEqual({ findings: [], dueAt: at - AHEAD_MS });
    expect(look(at - AHEAD_MS).findings).toMatchObject([{ kind: "ends", detail: { field: "Ends", date: at } }]);
    expect(look(at - AHEAD_MS).dueAt).toBe(at);
    expect(look(at).findings).toMatchObject([{ kind: "over", since: at }]);
  });

  test("nobody has used it for 180 days, or never since it was created", () => {
    const usedAt = NOW - UNUSED_ENTRY_MS;
    expect(kinds({ createdAt: 0, usedAt: usedAt + 1 })).toEqual([]);
    expect(lookAtEntry({ ...quiet, createdAt: 0, usedAt: usedAt + 1 }, NOW).dueAt).toBe(NOW + 1);
    expect(kinds({ createdAt: 0, usedAt })).toEqual(["unused"]);
    expect(kinds({ createdAt: usedAt, usedAt: null })).toEqual(["unused"]);
  });

  test("strength has one border", () => {
    expect(kinds({ guesses: 8.99 })).toEqual(["weak"]);
    expect(kinds({ guesses: 9 })).toEqual([]);
    expect(kinds({ guesses: null })).toEqual([]);
  });
});

describe("what the organisation has said", () => {
  test("a secret is old once it has stood for as long as its kind allows, and not a moment before", () => {
    const secretSince = Date.UTC(2025, 4, 31, 9);
    // Two years later to the day; the last day of February where there is no other.
    const old = Date.UTC(2027, 4, 31, 9);
    expect(lookAtEntry({ ...quiet, secretSince, oldAfter: 24 }, old - 1)).toMatchObject({ findings: [], dueAt: old });
    expect(lookAtEntry({ ...quiet, secretSince, oldAfter: 24 }, old).findings).toMatchObject([
      { kind: "old", since: old, detail: { months: 24 } },
    ]);
    const february = Date.UTC(2026, 1, 28, 9);
    expect(lookAtEntry({ ...quiet, secretSince, oldAfter: 9 }, february).findings).toMatchObject([{ since: february }]);
    expect(kinds({ secretSince: 0, oldAfter: null })).toEqual([]);
    expect(kinds({ secretSince: null, oldAfter: 1 })).toEqual([]);
  });

  test("a home page is one only where nothing on it was understood and nothing ever worked", () => {
    const failing = { since: NOW - DAY, failure: "not-understood" as const };
    expect(kinds({ homePage: true, failing, workedAt: null })).toEqual(["home-page"]);
    expect(kinds({ homePage: true, failing })).toEqual(["fails"]);
    expect(kinds({ failing, workedAt: null })).toEqual(["fails"]);
    expect(kinds({ homePage: true, failing: { ...failing, failure: "challenge" }, workedAt: null })).toEqual(["fails"]);
    expect(kinds({ homePage: true, workedAt: null })).toEqual(["untested"]);
  });

  test("a code is missing only where people sign in", () => {
    expect(kinds({ codeMissing: true })).toEqual(["no-code"]);
    expect(kinds({ codeMissing: true, signsIn: false })).toEqual([]);
  });

  test("more people than a vault may have, and the day on which that changes by itself", () => {
    const many = (peopleCount: number, mostPeople: number | null) =>
      lookAtAccess({ ...node, peopleCount, mostPeople }, NOW).findings;
    expect(many(3, 3)).toEqual([]);
    expect(many(4, null)).toEqual([]);
    expect(many(4, 3)).toMatchObject([{ kind: "too-many", detail: { count: 4, most: 3 } }]);
    const until = NOW + 30 * DAY;
    const held = { ...node, peopleCount: 4, mostPeople: 3, grants: [{ ...grant, subject: "group" as const, until }] };
    expect(lookAtAccess(held, NOW).dueAt).toBe(until);
  });
});

const grant: GrantFacts = {
  ...{ id: "g", level: "reveal", subject: "person", personId: "ada", guest: false, from: null, until: null },
  ...{ validFrom: NOW - 10 * DAY, why: "daily work", usedAt: null },
};
const node: AccessFacts = {
  countsStewards: true,
  stewards: ["ada", "bo"],
  grants: [],
  peopleCount: 3,
  mostPeople: null,
};
const odd = (more: Partial<GrantFacts>, at = NOW) => lookAtAccess({ ...node, grants: [{ ...grant, ...more }] }, at);

describe("access", () => {
  test("needs two stewards where stewards are counted", () => {
    const of = (stewards: string[], countsStewards = true) =>
      lookAtAccess({ ...node, stewards, countsStewards }, NOW).findings.map(({ kind }) => kind);
    expect(of(["ada", "bo"])).toEqual([]);
    expect(of(["ada"])).toEqual(["one-steward"]);
    expect(of([])).toEqual(["no-steward"]);
    expect(of([], false)).toEqual([]);
  });

  test("of Everyone is told from Reveal up", () => {
    expect(odd({ subject: "everyone", level: "use" }).findings).toEqual([]);
    expect(odd({ subject: "everyone" }).findings).toMatchObject([
      { kind: "everyone", key: "g", detail: { level: "reveal" } },
    ]);
  });

  test("that is unused for 90 days is told, a steward's is not, and what is not there yet waits", () => {
    const border = NOW - UNUSED_ACCESS_MS;
    expect(odd({ validFrom: border + 1 })).toEqual({ findings: [], dueAt: NOW + 1 });
    expect(odd({ validFrom: border }).findings).toMatchObject([
      { kind: "unused-access", since: NOW, detail: { people: ["ada"], lastAt: null } },
    ]);
    expect(odd({ validFrom: 0, usedAt: border + 1 }).findings).toEqual([]);
    expect(odd({ validFrom: 0, level: "steward" }).findings).toEqual([]);
    expect(odd({ validFrom: 0, subject: "group" }).findings).toEqual([]);
    expect(odd({ validFrom: 0, from: NOW + 5 })).toEqual({ findings: [], dueAt: NOW + 5 });
    expect(odd({ validFrom: 0, until: NOW }).findings).toEqual([]);
    expect(odd({ validFrom: 0, level: "blocked" }).findings).toEqual([]);
  });

  test("of a guest without an end, and what was given for something that is over", () => {
    expect(odd({ guest: true }).findings.map(({ kind }) => kind)).toEqual(["open-guest"]);
    expect(odd({ guest: true, until: NOW + 8 * DAY })).toEqual({ findings: [], dueAt: NOW + DAY });
    expect(odd({ until: NOW + 7 * DAY })).toMatchObject({
      findings: [{ kind: "ending", since: NOW }],
      dueAt: NOW + 7 * DAY,
    });
    expect(odd({ why: "the fair, April 2027" }).findings.map(({ kind }) => kind)).toEqual(["passed"]);
    expect(odd({ why: "the fair, June 2027" }).findings).toEqual([]);
  });
});

test("each kind has an act and a name of its own", () => {
  for (const kind of FINDING_KINDS) expect(UPKEEP_ACTS).toContain(FINDINGS[kind].act);
  expect(new Set(FINDING_KINDS.map((kind) => FINDING_NAMES[kind])).size).toBe(FINDING_KINDS.length);
});

test("each look finds its own kinds only: those of the other would never be over", () => {
  const bad = { ...quiet, leaked: 1, guesses: 1, reused: true, plainHttp: true, asksPerson: true, workedAt: null };
  for (const { kind } of lookAtEntry(bad, NOW).findings) expect(partOf(kind), kind).toBe("entry");
  const grants = [
    { ...grant, subject: "everyone" as const },
    { ...grant, guest: true },
    { ...grant, why: "the fair, April 2027" },
    { ...grant, validFrom: 0 },
    { ...grant, until: NOW + DAY },
  ];
  const { findings } = lookAtAccess({ ...node, stewards: [], grants }, NOW);
  expect(findings).toHaveLength(6);
  for (const { kind } of findings) expect(partOf(kind), kind).toBe("access");
});
