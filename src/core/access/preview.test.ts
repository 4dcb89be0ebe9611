import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { type Change, placeOf, withChanges } from "./change";
import { momentsAhead, type Subject } from "./grant";
import { type Given, LEVELS } from "./level";
import { Lookup, type Organised, windowsOf } from "./organisation";
import { HORIZON_MS, preview } from "./preview";
import { slowlyAt } from "./slowly.testing";
import type { Weekly } from "./weekly";

const DAY = 86_400_000;
/** A Monday, some days before the clocks are changed in London. */
const NOW = Date.UTC(2026, 2, 23, 10);

const anySubject = fc.oneof(
  fc.constantFrom("P", "Q", "R").map((id): Subject => ({ kind: "person", id })),
  fc.constantFrom("a", "b").map((id): Subject => ({ kind: "group", id })),
  fc.constant<Subject>({ kind: "everyone" }),
);
const anyEdge = fc.option(
  fc.integer({ min: -3, max: 12 }).map((days) => NOW + days * DAY),
  { nil: null },
);
const anyWeekly = fc.oneof(
  { weight: 7, arbitrary: fc.constant(null) },
  {
    weight: 1,
    arbitrary: fc.record<Weekly>({
      days: fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1, maxLength: 3 }),
      start: fc.integer({ min: 0, max: 1439 }),
      end: fc.integer({ min: 1, max: 1440 }),
      zone: fc.constant("Europe/London"),
    }),
  },
);
const anyTerms = fc.record({
  level: fc.constantFrom<Given>(...LEVELS, "blocked"),
  from: anyEdge,
  until: anyEdge,
  weekly: anyWeekly,
});
const anyHeld = fc.record({ from: anyEdge, until: anyEdge, weekly: fc.constant(null) });

/** Of each case; the rest is the same over again. */
const MOST_MOMENTS = 24;

/** Node 0 is the vault; every other hangs under an earlier one. Changes keep the tree a tree. */
const anyCase = fc.integer({ min: 2, max: 6 }).chain((size) => {
  const node = fc.integer({ min: 0, max: size - 1 }).map(String);
  const low = fc.integer({ min: 1, max: size - 1 });
  return fc.record({
    parents: fc.tuple(
      ...Array.from({ length: size }, (_, i) => (i === 0 ? fc.constant(-1) : fc.integer({ min: 0, max: i - 1 }))),
    ),
    separate: fc.array(fc.boolean(), { minLength: size, maxLength: size }),
    grants: fc.array(fc.tuple(node, anySubject, anyTerms), { maxLength: 7 }),
    people: fc.tuple(
      ...["P", "Q", "R"].map((id) =>
        fc.record({
          id: fc.constant(id),
          standing: fc.constantFrom("active" as const, "active" as const, "suspended" as const),
          guest: fc.boolean(),
          until: fc.oneof({ weight: 3, arbitrary: fc.constant(null) }, { weight: 1, arbitrary: anyEdge }),
          held: fc.uniqueArray(
            fc.tuple(fc.constantFrom("a", "b"), anyHeld).map(([groupId, held]) => ({ groupId, ...held })),
            { selector: (one) => one.groupId, maxLength: 2 },
          ),
        }),
      ),
    ),
    changes: fc.uniqueArray(
      fc.oneof(
        { weight: 4, arbitrary: fc.tuple(node, anySubject, fc.array(anyTerms, { maxLength: 2 })).map(toSet) },
        { weight: 1, arbitrary: low.chain((id) => fc.nat({ max: id - 1 }).map((parent) => toMove(id, parent))) },
        { weight: 1, arbitrary: fc.tuple(low, fc.boolean(), fc.constantFrom("P", null)).map(toSeparate) },
        {
          weight: 1,
          arbitrary: fc
            .tuple(fc.constantFrom("a", "b"), fc.constantFrom("P", "Q"), fc.option(anyHeld))
            .map(([groupId, personId, held]): Change => ({ type: "member", groupId, personId, held })),
        },
      ),
      { selector: placeOf, minLength: 1, maxLength: 3 },
    ),
  });
});
const toSet = ([nodeId, subject, grants]: [
  string,
  Subject,
  { level: Given; from: number | null; until: number | null }[],
]): Change => ({ type: "set", nodeId, subject, grants });
const toMove = (id: number, parent: number): Change => ({ type: "move", nodeId: String(id), parentId: String(parent) });
const toSeparate = ([id, separate, keeper]: [number, boolean, string | null]): Change => ({
  type: "separate",
  nodeId: String(id),
  separate,
  keeper: separate ? keeper : null,
});

function organisedOf({
  parents,
  separate,
  grants,
  people,
}: Omit<Parameters<Parameters<typeof anyCase.map>[0]>[0], "changes">): Organised {
  return {
    nodes: parents.map((parent, i) => ({
      id: String(i),
      parent: parent < 0 ? null : String(parent),
      separate: separate[i]!,
    })),
    grants: grants.map(([node, subject, terms], i) => ({ id: String(i), node, subject, ...terms })),
    people,
  };
}

const allWindows = ({ grants, people }: Organised) => [...grants, ...people.flatMap(windowsOf)];

describe("preview", () => {
  test("equals what is true after applying, at every boundary, of thousands of organisations and changes", () => {
    fc.assert(
      fc.property(anyCase, ({ changes, ...given }) => {
        const before = organisedOf(given);
        const after = withChanges(before, changes);
        const seen = preview(before, changes, NOW);
        const said = new Map(
          seen.differences.flatMap(({ personIds, region, before: was, after: becomes, at }) =>
            personIds.flatMap((id) =>
              seen.regions.get(region)!.map((node): [string, number] => [`${id} ${node} ${was} ${becomes}`, at]),
            ),
          ),
        );
        const expected = new Map<string, number>();
        const moments = momentsAhead([...allWindows(before), ...allWindows(after)], NOW, NOW + HORIZON_MS);
        for (const at of moments.slice(0, MOST_MOMENTS))
          for (const { id } of before.people)
            for (const node of before.nodes) {
              const [one, other] = [slowlyAt(before, id, node.id, at), slowlyAt(after, id, node.id, at)];
              const key = `${id} ${node.id} ${one} ${other}`;
              if (one !== other && !expected.has(key)) expected.set(key, at);
            }
        for (const [key, at] of expected) expect(said.get(key), key).toBe(at);
        const last = moments[MOST_MOMENTS - 1] ?? Number.POSITIVE_INFINITY;
        for (const [key, at] of said) if (at <= last) expect(expected.get(key), key).toBe(at);
      }),
      { numRuns: Number(process.env.PREVIEW_RUNS ?? 4_000) },
    );
  }, 300_000);

  test("nothing changes between the moments that are looked at", () => {
    fc.assert(
      fc.property(anyCase, fc.integer({ min: 0, max: 13 * 24 * 60 }), ({ changes: _, ...given }, minutes) => {
        const organised = organisedOf(given);
        const at = NOW + minutes * 60_000;
        const moments = momentsAhead(allWindows(organised), NOW, NOW + HORIZON_MS);
        const before = moments.filter((moment) => moment <= at).at(-1)!;
        const lookup = new Lookup(organised);
        for (const person of organised.people)
          for (const node of organised.nodes)
            expect(lookup.level(person, node.id, at)).toBe(lookup.level(person, node.id, before));
      }),
      { numRuns: 1000 },
    );
  });

  test("five hundred people over ten thousand entries, in less than a second", () => {
    const nodes = [
      { id: "V", parent: null, separate: false },
      ...Array.from({ length: 500 }, (_, i) => ({ id: `F${i}`, parent: "V", separate: false })),
      ...Array.from({ length: 10_000 }, (_, i) => ({ id: `E${i}`, parent: `F${i % 500}`, separate: false })),
    ];
    const grants = Array.from({ length: 500 }, (_, i) => ({
      id: String(i),
      node: `F${i}`,
      subject: { kind: "group", id: `g${i % 20}` } as Subject,
      level: LEVELS[i % 4]!,
      from: null,
      until: i % 3 === 0 ? NOW + (i % 30) * DAY : null,
    }));
    const people = Array.from({ length: 500 }, (_, i) => ({
      id: `p${i}`,
      standing: "active" as const,
      guest: false,
      held: ["all", `g${i % 20}`].map((groupId) => ({ groupId, from: null, until: null })),
    }));
    const change: Change = {
      type: "set",
      nodeId: "V",
      subject: { kind: "group", id: "all" },
      grants: [{ level: "reveal", from: null, until: null }],
    };
    const start = performance.now();
    const seen = preview({ nodes, grants, people }, [change], NOW);
    const taken = performance.now() - start;
    const entries = seen.differences.reduce(
      (sum, one) => sum + seen.regions.get(one.region)!.length * one.personIds.length,
      0,
    );
    expect(entries).toBeGreaterThan(500 * 10_000 * 0.5);
    expect(taken).toBeLessThan(1000);
  });
});
