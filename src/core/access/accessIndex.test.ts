/** The index against the slow second implementation, while rows come and go in any order. */
import fc from "fast-check";
import { expect, test } from "vitest";
import { AccessIndex, type IndexNode } from "./accessIndex";
import type { Grant, Subject } from "./grant";
import { atLeast, type Given, LEVELS } from "./level";
import type { Member } from "./organisation";
import { slowlyAt } from "./slowly.testing";

const DAY = 86_400_000;
const NOW = Date.UTC(2026, 2, 23, 10);
const PEOPLE = ["P", "Q", "R", "S"];
const NODES = 9;
/** 0 and 1 are vaults; every other lies in one of an earlier number. */
const isVault = (node: number) => node < 2;

const anyEdge = fc.option(
  fc.integer({ min: -3, max: 3 }).map((days) => NOW + days * DAY),
  { nil: null, freq: 2 },
);
const anySubject = fc.oneof(
  fc.constantFrom(...PEOPLE).map((id): Subject => ({ kind: "person", id })),
  fc.constantFrom("a", "b", "c").map((id): Subject => ({ kind: "group", id })),
  fc.constant<Subject>({ kind: "everyone" }),
);
const anyGrant = fc.record({
  subject: anySubject,
  level: fc.constantFrom<Given>(...LEVELS, "steward", "blocked"),
  from: anyEdge,
  until: anyEdge,
});
const anyPerson = fc.record({
  id: fc.constantFrom(...PEOPLE),
  standing: fc.constantFrom("active" as const, "active" as const, "active" as const, "suspended" as const),
  guest: fc.boolean(),
  until: fc.oneof({ weight: 4, arbitrary: fc.constant(null) }, { weight: 1, arbitrary: anyEdge }),
  held: fc.uniqueArray(fc.record({ groupId: fc.constantFrom("a", "b", "c"), from: anyEdge, until: anyEdge }), {
    selector: (one) => one.groupId,
    maxLength: 3,
  }),
});
type Step =
  | { put: "node"; node: number; parent: number; separate: boolean; gone: boolean; grants: object[] }
  | { put: "person"; person: Member };
const anyStep: fc.Arbitrary<Step> = fc.oneof(
  fc
    .record({
      node: fc.integer({ min: 0, max: NODES - 1 }),
      parent: fc.nat(),
      separate: fc.boolean(),
      gone: fc.oneof({ weight: 6, arbitrary: fc.constant(false) }, { weight: 1, arbitrary: fc.constant(true) }),
      grants: fc.array(anyGrant, { maxLength: 2 }),
    })
    .map(({ node, parent, ...rest }) => ({
      put: "node" as const,
      node,
      parent: isVault(node) ? -1 : parent % node,
      ...rest,
    })),
  anyPerson.map((person) => ({ put: "person" as const, person })),
);

/** What is there, as plain lists. */
class Plain {
  nodes = new Map<string, Omit<IndexNode, "vaultId" | "type">>();
  grants: Grant[] = [];
  people = new Map<string, Member>();

  vaultOf(id: string): string {
    const parent = this.nodes.get(id)?.parent ?? null;
    return parent === null ? id : this.vaultOf(parent);
  }
  below = (id: string, top: string): boolean =>
    id === top || (this.nodes.get(id)?.parent != null && this.below(this.nodes.get(id)!.parent!, top));
}

let count = 0;

/** As the rows would: a node that goes takes what lies in it along, and one that moves to another vault as well. */
function put(plain: Plain, index: AccessIndex, step: Step): void {
  if (step.put === "person") {
    plain.people.set(step.person.id, step.person);
    index.putPerson(step.person);
    return;
  }
  const id = String(step.node);
  const parent = isVault(step.node) ? null : String(step.parent);
  if (step.gone || (parent !== null && !plain.nodes.has(parent))) {
    for (const one of [...plain.nodes.keys()].filter((other) => plain.below(other, id)).reverse()) {
      plain.nodes.delete(one);
      plain.grants = plain.grants.filter((grant) => grant.node !== one);
      index.putNode(one, null, []);
    }
    return;
  }
  const grants = step.grants.map((grant) => ({
    ...(grant as Omit<Grant, "id" | "node">),
    id: `g${count++}`,
    node: id,
  }));
  plain.nodes.set(id, { id, parent, separate: step.separate });
  plain.grants = [...plain.grants.filter((grant) => grant.node !== id), ...grants];
  for (const one of [...plain.nodes.keys()].filter((other) => plain.below(other, id))) {
    const node = plain.nodes.get(one)!;
    index.putNode(
      one,
      { type: "folder", parent: node.parent, separate: node.separate, vaultId: plain.vaultOf(one) },
      plain.grants.filter((grant) => grant.node === one),
    );
  }
}

const sorted = (ids: Iterable<string>) => [...ids].sort();

test("after any sequence of changes each question has the answer that a fresh look gives", () => {
  fc.assert(
    fc.property(fc.array(anyStep, { minLength: 4, maxLength: 30 }), (steps) => {
      const [plain, index] = [new Plain(), new AccessIndex()];
      for (const [i, step] of steps.entries()) {
        put(plain, index, step);
        if (i % 3 !== 2 && i < steps.length - 1) continue;
        const organised = {
          nodes: [...plain.nodes.values()],
          grants: plain.grants,
          people: [...plain.people.values()],
        };
        const has = (person: string, node: string, at: number) => slowlyAt(organised, person, node, at);
        for (const at of [NOW, NOW + DAY, NOW - DAY]) {
          for (const person of plain.people.keys()) {
            const reached = index.reached(person, at);
            for (const node of plain.nodes.keys()) {
              const level = has(person, node, at);
              expect(index.level(person, node, at)).toBe(level);
              expect(reached.get(node) ?? "none").toBe(level);
              expect(index.level(person, index.region(node), at)).toBe(level);
            }
            for (const id of reached.keys()) expect(plain.nodes.has(id)).toBe(true);
          }
          for (const node of plain.nodes.keys()) {
            const who = [...plain.people.keys()].filter((person) => has(person, node, at) !== "none");
            expect(index.countWhoUse(node, at)).toBe(who.length);
            for (const needed of LEVELS)
              expect(sorted(index.whoHas(node, needed, at).map(({ person }) => person.id))).toEqual(
                sorted(who.filter((person) => atLeast(has(person, node, at), needed))),
              );
          }
        }
        const lasting = (person: Member, node: string) =>
          !person.guest &&
          person.standing === "active" &&
          [NOW, ...edgesOf(organised)].every((moment) => has(person.id, node, moment) === "steward");
        for (const node of plain.nodes.keys()) {
          const withoutSteward = [...plain.nodes.keys()].filter(
            (one) => plain.below(one, node) && !organised.people.some((person) => lasting(person, one)),
          );
          const told = index.withoutSteward(node, NOW);
          // Nodes without grants of their own answer as what is above them, and are not named.
          expect(withoutSteward).toEqual(expect.arrayContaining(told));
          for (const one of withoutSteward)
            expect(told).toContain(plain.below(index.region(one), node) ? index.region(one) : node);
        }
        expect(sorted([...index.organised(index.vaultIds)!.nodes].map(({ id }) => id))).toEqual(
          sorted(plain.nodes.keys()),
        );
      }
    }),
    { numRuns: 400 },
  );
});

/** Every moment after now at which something opens or closes. */
function edgesOf({ grants, people }: { grants: Grant[]; people: Member[] }): number[] {
  const windows = [
    ...grants,
    ...people.flatMap((person) => [...person.held, { from: null, until: person.until ?? null }]),
  ];
  return windows
    .flatMap(({ from, until }) => [from, until])
    .filter((edge): edge is number => edge !== null && edge > NOW);
}

test("what a person reaches is kept until it changes, or one of their windows opens or closes", () => {
  const index = new AccessIndex();
  index.putNode("v", { type: "vault", parent: null, vaultId: "v", separate: false }, [
    { id: "g", node: "v", subject: { kind: "person", id: "P" }, level: "use", from: null, until: NOW + DAY },
  ]);
  index.putPerson({ id: "P", standing: "active", guest: false, held: [] });
  const first = index.reached("P", NOW);
  expect(index.reached("P", NOW + DAY - 1)).toBe(first);
  expect([...index.reached("P", NOW + DAY)]).toEqual([]);
  index.putNode("e", { type: "entry", parent: "v", vaultId: "v", separate: false }, []);
  expect([...index.reached("P", NOW).keys()].sort()).toEqual(["e", "v"]);
});

test("what nobody reaches costs nobody: an organisation a thousand times as large is no slower for one person", () => {
  const time = (vaults: number) => {
    const index = new AccessIndex();
    for (let v = 0; v < vaults; v++) {
      index.putNode(`v${v}`, { type: "vault", parent: null, vaultId: `v${v}`, separate: false }, [
        {
          id: `g${v}`,
          node: `v${v}`,
          subject: { kind: "group", id: `team${v}` },
          level: "use",
          from: null,
          until: null,
        },
      ]);
      for (let e = 0; e < 50; e++)
        index.putNode(`e${v}-${e}`, { type: "entry", parent: `v${v}`, vaultId: `v${v}`, separate: false }, []);
    }
    index.putPerson({
      id: "P",
      standing: "active",
      guest: false,
      held: [{ groupId: "team0", from: null, until: null }],
    });
    const times: number[] = [];
    for (let i = 0; i < 30; i++) {
      // So that nothing is kept.
      index.putPerson(index.person("P")!);
      const begun = performance.now();
      expect(index.reached("P", NOW).size).toBe(51);
      times.push(performance.now() - begun);
    }
    return times.sort((a, b) => a - b)[10]!;
  };
  time(1);
  expect(time(1000)).toBeLessThan(time(1) * 4 + 0.1);
});
