import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { explain } from "./explain";
import type { Grant, Subject } from "./grant";
import { isActive, nextBoundary } from "./grant";
import { type Given, LEVELS, rank } from "./level";
import { resolve, type Step, type Who } from "./resolve";
import { slowly } from "./slowly.testing";
import { resolveTree } from "./tree";

const NOON = 1_000_000;
const person: Subject = { kind: "person", id: "P" };
const everyone: Subject = { kind: "everyone" };
const group = (id: string): Subject => ({ kind: "group", id });
let counter = 0;
const grant = (
  node: string,
  subject: Subject,
  level: Given,
  from: number | null = null,
  until: number | null = null,
): Grant => ({ id: `g${counter++}`, node, subject, level, from, until });

/** Entry E in folder F in vault V. */
function path(grants: Grant[], separate: string[] = []): Step[] {
  return ["E", "F", "V"].map((node) => ({
    node,
    separate: separate.includes(node),
    grants: grants.filter((one) => one.node === node),
  }));
}

const who = (groups: string[], more: Partial<Who> = {}): Who => ({
  id: "P",
  standing: "active",
  guest: false,
  groups: new Set(groups),
  ...more,
});
const level = (grants: Grant[], of: Who, at = 0, separate: string[] = []) =>
  resolve(of, path(grants, separate), at).level;

describe("worked cases", () => {
  const shop = group("shop");
  const night = group("night");

  test("a group's Reveal on the vault reaches every entry", () =>
    expect(level([grant("V", shop, "reveal")], who(["shop"]))).toBe("reveal"));
  test("a nearer grant of the same group counts", () =>
    expect(level([grant("V", shop, "reveal"), grant("E", shop, "use")], who(["shop"]))).toBe("use"));
  test("of several groups the highest say", () =>
    expect(
      level([grant("V", shop, "reveal"), grant("E", shop, "use"), grant("E", night, "edit")], who(["shop", "night"])),
    ).toBe("edit"));
  test("an own say decides over groups", () =>
    expect(level([grant("E", night, "edit"), grant("E", person, "use")], who(["shop", "night"]))).toBe("use"));
  test("an own say decides however far", () =>
    expect(level([grant("V", person, "use"), grant("F", shop, "edit")], who(["shop"]))).toBe("use"));
  test("Blocked of a nearer group gives nothing there", () => {
    const grants = [grant("V", everyone, "use"), grant("F", group("contractors"), "blocked")];
    expect(level(grants, who(["contractors"]))).toBe("none");
    expect(resolve(who(["contractors"]), path(grants).slice(2), 0).level).toBe("use");
  });
  test("an own grant lifts a group's Blocked", () =>
    expect(
      level(
        [grant("V", everyone, "use"), grant("F", group("contractors"), "blocked"), grant("F", person, "use")],
        who(["contractors"]),
      ),
    ).toBe("use"));
  test("a separate folder is reached by nothing above it", () =>
    expect(level([grant("V", everyone, "steward"), grant("V", person, "edit")], who([]), 0, ["F"])).toBe("none"));
  test("a grant until noon ends at noon, not after it", () => {
    const grants = [grant("E", person, "use"), grant("E", person, "reveal", null, NOON)];
    expect(level(grants, who([]), NOON - 1)).toBe("reveal");
    expect(level(grants, who([]), NOON)).toBe("use");
  });
  test("an ended grant is passed over", () =>
    expect(level([grant("E", person, "reveal", null, NOON), grant("V", shop, "use")], who(["shop"]), NOON)).toBe(
      "use",
    ));
  test("Blocked of any group outranks another group's Use", () =>
    expect(level([grant("V", everyone, "blocked"), grant("E", shop, "use")], who(["shop"]))).toBe("none"));
  test("a guest is not in Everyone", () =>
    expect(level([grant("V", everyone, "steward")], who([], { guest: true }))).toBe("none"));
  test("a guest never has more than Edit", () =>
    expect(resolve(who([], { guest: true }), path([grant("E", person, "steward")]), 0)).toMatchObject({
      level: "edit",
      capped: true,
    }));
  test.each(["suspended", "leaver", "invited"] as const)("a person who is %s has nothing", (standing) =>
    expect(level([grant("E", person, "steward")], who([], { standing }))).toBe("none"),
  );
  test("of one subject on one node Blocked wins", () =>
    expect(level([grant("E", person, "steward"), grant("E", person, "blocked")], who([]))).toBe("none"));
});

const anySubject = fc.oneof(
  fc.constantFrom("P", "Q").map((id): Subject => ({ kind: "person", id })),
  fc.constantFrom("a", "b", "c").map(group),
  fc.constant(everyone),
);
const anyEdge = fc.option(fc.integer({ min: 0, max: 10 }), { nil: null });
const anyTree = fc.integer({ min: 1, max: 9 }).chain((size) =>
  fc.record({
    // Node 0 is the vault; every other hangs under an earlier one.
    parents: fc.tuple(
      ...Array.from({ length: size }, (_, i) => (i === 0 ? fc.constant(-1) : fc.integer({ min: 0, max: i - 1 }))),
    ),
    separate: fc.array(fc.boolean(), { minLength: size, maxLength: size }),
    grants: fc.array(
      fc.record({
        node: fc.integer({ min: 0, max: size - 1 }).map(String),
        subject: anySubject,
        level: fc.constantFrom<Given>(...LEVELS, "blocked"),
        from: anyEdge,
        until: anyEdge,
      }),
      { maxLength: 14 },
    ),
  }),
);
const anyWho = fc.record({
  guest: fc.boolean(),
  standing: fc.constantFrom(
    "active" as const,
    "active" as const,
    "active" as const,
    "suspended" as const,
    "leaver" as const,
  ),
  groups: fc.subarray(["a", "b", "c"]),
});

describe("against the slow implementation", () => {
  test("ten thousand random organisations agree, node by node, singly and as a tree", () => {
    fc.assert(
      fc.property(
        anyTree,
        anyWho,
        fc.integer({ min: -1, max: 11 }),
        ({ parents, separate, grants: drafts }, { guest, standing, groups }, at) => {
          const grants = drafts.map((draft, i): Grant => ({ ...draft, id: String(i) }));
          const of: Who = { id: "P", guest, standing, groups: new Set(groups) };
          const nodes = parents.map((parent, i) => ({
            id: String(i),
            parent: parent < 0 ? null : String(parent),
            separate: separate[i]!,
          }));
          const levels = resolveTree(of, nodes, grants, at);
          for (const node of nodes) {
            const steps: Step[] = [];
            for (
              let walk: (typeof nodes)[number] | undefined = node;
              walk;
              walk = nodes.find((one) => one.id === walk!.parent)
            ) {
              const { id } = walk;
              steps.push({ node: id, separate: walk.separate, grants: grants.filter((one) => one.node === id) });
            }
            const expected = slowly(of, steps, at);
            expect(resolve(of, steps, at).level).toBe(expected);
            expect(levels.get(node.id)).toBe(expected);
          }
        },
      ),
      { numRuns: 10_000 },
    );
  });

  test("nothing that a person has changes between two boundaries", () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            subject: anySubject,
            level: fc.constantFrom<Given>(...LEVELS, "blocked"),
            from: anyEdge,
            until: anyEdge,
          }),
          { maxLength: 8 },
        ),
        fc.integer({ min: 0, max: 10 }),
        (drafts, at) => {
          const grants = drafts.map((draft, i): Grant => ({ ...draft, id: String(i), node: "E" }));
          const next = nextBoundary(grants, at) ?? 12;
          for (let moment = at; moment < next; moment++)
            expect(level(grants, who(["a"]), moment)).toBe(level(grants, who(["a"]), at));
          if (next <= 11)
            expect(
              grants.some((one) => isActive(one, next) !== isActive(one, next - 1)) ||
                grants.some((one) => one.from === one.until || (one.from ?? 0) > (one.until ?? 99)),
            ).toBe(true);
        },
      ),
    );
  });
});

describe("explain", () => {
  const namer = {
    subject: (subject: Subject) =>
      subject.kind === "everyone" ? "Everyone" : subject.kind === "group" ? "Shop Team" : "Bram",
    node: (id: string, distance: number) =>
      distance === 0 ? "this entry" : id === "V" ? "the vault" : "the folder Ticketing",
    since: () => "3 May",
    until: () => null,
  };

  test("tells the walk in a sentence, with what was lower", () => {
    const resolution = resolve(
      who(["shop"]),
      path([grant("F", group("shop"), "reveal"), grant("V", everyone, "use")]),
      0,
    );
    expect(explain(resolution, namer, { name: "you", personId: "P" })).toBe(
      "Reveal, because Shop Team has had Reveal on the folder Ticketing since 3 May. Everyone’s Use on the vault is lower.",
    );
  });
  test("says that an own grant decides, and that Blocked does", () => {
    const own = resolve(who(["shop"]), path([grant("E", person, "use"), grant("F", group("shop"), "edit")]), 0);
    expect(explain(own, namer, { name: "you", personId: "P" })).toBe(
      "Use, because you have had Use on this entry since 3 May. Shop Team’s Edit on the folder Ticketing does not count: your own grant decides.",
    );
    const blocked = resolve(
      who(["shop"]),
      path([grant("E", group("shop"), "blocked"), grant("V", everyone, "use")]),
      0,
    );
    expect(explain(blocked, namer, { name: "Bram", personId: "P" })).toContain(
      "No access, because Shop Team has been blocked on this entry since 3 May. Everyone’s Use on the vault does not count: a block decides.",
    );
  });
  test("says why there is nothing at all", () => {
    expect(explain(resolve(who([]), path([]), 0), namer, { name: "you", personId: "P" })).toBe(
      "No access: you have no grant here or above.",
    );
    expect(explain(resolve(who([], { standing: "leaver" }), path([]), 0), namer, { name: "Bram", personId: "P" })).toBe(
      "No access: Bram has left.",
    );
  });
});

test("levels are ordered", () => expect([...LEVELS].map(rank)).toEqual([1, 2, 3, 4]));
