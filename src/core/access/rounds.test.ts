import fc from "fast-check";
import { describe, expect, test } from "vitest";
import type { Subject } from "./grant";
import { type Given, LEVELS } from "./level";
import { Lookup, type Organised } from "./organisation";
import { passedReason } from "./passedReason";
import { type GivenGrant, lookThrough, type Odd, type Use } from "./rounds";
import { slowlyActive, slowlyAt } from "./slowly.testing";

const DAY = 86_400_000;
const NOW = Date.UTC(2026, 10, 26, 12);

describe("a reason that has passed", () => {
  const GIVEN = Date.UTC(2026, 3, 10);
  test.each([
    ["the fair on 3 May", true],
    ["the fair on 3 May 2027", false],
    ["until 30th September", true],
    ["until September 30, 2026", true],
    ["stocktaking in December 2026", false],
    ["Christmas shop 2025", true],
    ["Christmas shop 2026", false],
    // A date that was over when it was given is next year's.
    ["until 2 February", false],
    ["may look after the till", false],
    ["marches every week", false],
    ["3 May and 4 December", false],
    ["", false],
  ])("%s: %s", (why, passed) => {
    expect(passedReason(why, GIVEN, NOW)).toBe(passed);
  });
});

const subject = fc.oneof(
  fc.constantFrom("P", "Q", "G").map((id): Subject => ({ kind: "person", id })),
  fc.constantFrom("a", "b").map((id): Subject => ({ kind: "group", id })),
  fc.constant<Subject>({ kind: "everyone" }),
);
const edge = fc.option(
  fc.integer({ min: -200, max: 50 }).map((days) => NOW + days * DAY),
  { nil: null },
);
const anyCase = fc.record({
  separate: fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }),
  grants: fc.array(
    fc.record({
      node: fc.constantFrom("0", "1", "2", "3"),
      subject,
      level: fc.constantFrom<Given>(...LEVELS, "blocked"),
      from: edge,
      until: edge,
      since: fc.integer({ min: -300, max: 0 }).map((days) => NOW + days * DAY),
      why: fc.constantFrom("", "the fair on 3 May", "stands in"),
    }),
    { maxLength: 8 },
  ),
  people: fc.tuple(
    ...["P", "Q", "G"].map((id) =>
      fc.record({
        id: fc.constant(id),
        standing: fc.constantFrom("active" as const, "active" as const, "suspended" as const, "leaver" as const),
        guest: fc.constant(id === "G"),
        until: edge,
        held: fc.uniqueArray(fc.record({ groupId: fc.constantFrom("a", "b"), from: edge, until: edge }), {
          selector: (one) => one.groupId,
          maxLength: 2,
        }),
      }),
    ),
  ),
  uses: fc.array(
    fc.record<Use>({
      personId: fc.constantFrom("P", "Q", "G"),
      entryId: fc.constantFrom("2", "3"),
      at: fc.integer({ min: -200, max: 0 }).map((days) => NOW + days * DAY),
    }),
    { maxLength: 6 },
  ),
});

/** Vault 0, folder 1 in it, entry 2 in the folder, entry 3 in the vault. */
const PARENTS: Record<string, string | null> = { 0: null, 1: "0", 2: "1", 3: "0" };
const isUnder = (id: string, top: string): boolean => id === top || (PARENTS[id] != null && isUnder(PARENTS[id]!, top));

/** As literally as the words say it, from the slow implementation of access. */
function slowlyOdd(organised: Organised, grant: GivenGrant, uses: readonly Use[]): Odd[] {
  const has = (id: string) => {
    const person = organised.people.find((one) => one.id === id)!;
    if (grant.subject.kind === "person") return grant.subject.id === id;
    const { subject: of } = grant;
    if (of.kind === "group") return person.held.some((one) => one.groupId === of.id && slowlyActive(one, NOW));
    return !person.guest;
  };
  const ended = (id: string) => {
    const { standing, until } = organised.people.find((one) => one.id === id)!;
    return until != null && until <= NOW ? "leaver" : standing;
  };
  const odd: Odd[] = [];
  const only = grant.subject.kind === "person" ? organised.people.find((one) => has(one.id))! : null;
  const blocked = grant.level === "blocked";
  if (only && !blocked && ended(only.id) !== "active") odd.push("gone");
  if (only?.guest && !blocked && grant.until === null && only.until === null) odd.push("no-end");
  const recent = uses.some(
    (use) =>
      has(use.personId) &&
      ended(use.personId) === "active" &&
      isUnder(use.entryId, grant.node) &&
      use.at > NOW - 90 * DAY,
  );
  const old = grant.since <= NOW - 90 * DAY;
  if (!blocked && grant.level !== "steward" && old && slowlyActive(grant, NOW) && !recent) odd.push("unused");
  if (only && !blocked && slowlyActive(grant, NOW)) {
    // What they would have if none of their own grants were there, were they active and no guest's limit on it.
    const without = organised.grants.filter(({ subject: of }) => of.kind !== "person");
    const people = organised.people.map((one) =>
      one.id === only.id ? { ...one, standing: "active" as const, until: null } : one,
    );
    const level = slowlyAt({ ...organised, grants: without, people }, only.id, grant.node, NOW);
    const capped = only.guest && level === "edit" && grant.level === "steward";
    if (LEVELS.indexOf(level as never) >= LEVELS.indexOf(grant.level as never) || capped) odd.push("ways");
  }
  if (passedReason(grant.why, grant.since, NOW)) odd.push("passed");
  return odd;
}

describe("a round", () => {
  test("finds odd what a slow second look finds odd, in three thousand organisations", () => {
    fc.assert(
      fc.property(anyCase, ({ separate, grants, people, uses }) => {
        const given = grants.map((grant, i): GivenGrant => ({ ...grant, id: String(i) }));
        const nodes = Object.entries(PARENTS).map(([id, parent], i) => ({ id, parent, separate: separate[i]! }));
        const organised: Organised = { nodes, grants: given, people };
        const lines = lookThrough(new Lookup(organised), given, uses, NOW);
        const ahead = given.filter(({ until }) => until === null || until > NOW);
        expect(lines.map(({ grant }) => grant.id).sort()).toEqual(ahead.map(({ id }) => id).sort());
        for (const line of lines) {
          // A guest in a group that is Steward there: which of the two counts is left to the other tests.
          if (line.grant.subject.kind === "person" && line.grant.subject.id === "G" && line.grant.level === "steward")
            continue;
          expect(line.odd).toEqual(slowlyOdd(organised, line.grant, uses));
        }
        const counts = lines.map(({ odd }) => odd.length);
        expect(counts).toEqual(counts.toSorted((a, b) => b - a));
      }),
      { numRuns: 3000 },
    );
  });

  test("says who has it and when any of them used it last", () => {
    const nodes = Object.entries(PARENTS).map(([id, parent]) => ({ id, parent, separate: false }));
    const people = ["P", "Q"].map((id) => ({
      ...{ id, standing: "active" as const, guest: false },
      held: [{ groupId: "a", from: null, until: id === "Q" ? NOW - DAY : null }],
    }));
    const grant: GivenGrant = {
      ...{ id: "g", node: "1", subject: { kind: "group", id: "a" }, level: "use" },
      ...{ from: null, until: null, since: NOW - 200 * DAY, why: "" },
    };
    const uses = [
      { personId: "P", entryId: "2", at: NOW - 100 * DAY },
      { personId: "P", entryId: "3", at: NOW - DAY },
      { personId: "Q", entryId: "2", at: NOW - DAY },
    ];
    const [line] = lookThrough(new Lookup({ nodes, grants: [grant], people }), [grant], uses, NOW);
    expect(line).toMatchObject({ people: ["P"], lastUse: NOW - 100 * DAY, odd: ["unused"] });
  });
});
