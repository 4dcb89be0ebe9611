import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { PLAIN_VIEW } from "@/core/ledgerView";
import { type Arrangeable, arrange, isHeading, type Line, sortRows, withMoved } from "./arrange";
import { type Chosen, choose, NOTHING_CHOSEN } from "./chosen";

const row = (id: string, more: Partial<Arrangeable> = {}): Arrangeable => ({
  id,
  type: "entry",
  parentId: null,
  name: id,
  kind: "Website login",
  tags: [],
  createdAt: 0,
  usedAt: null,
  signInPage: "",
  people: null,
  guesses: null,
  finding: null,
  changedAt: 0,
  level: "use",
  ...more,
});
const ROWS = [
  row("Almery", { createdAt: 3, tags: ["season"] }),
  row("Bank", { createdAt: 1, usedAt: 9, kind: "Bank account", parentId: "Money" }),
  row("Money", { type: "folder" }),
  row("Pellam", { createdAt: 2, usedAt: 5, tags: ["season", "desk"] }),
];
const said = (lines: Line<Arrangeable>[]) =>
  lines.map((line) => (isHeading(line) ? `# ${line.heading} ${line.count}` : line.row.id));
const wanted = (view: Partial<typeof PLAIN_VIEW>, matches: ((one: Arrangeable) => boolean) | null = null) => ({
  view: { ...PLAIN_VIEW, ...view },
  open: new Set<string>(),
  matches,
});

describe("arranged", () => {
  test("by name, use, newness and one's own order", () => {
    const by = (view: Partial<typeof PLAIN_VIEW>) => said(arrange(ROWS, wanted({ group: "none", ...view })).lines);
    expect(by({})).toEqual(["Almery", "Bank", "Pellam"]);
    expect(by({ sort: "used" })).toEqual(["Bank", "Pellam", "Almery"]);
    expect(by({ sort: "new" })).toEqual(["Almery", "Pellam", "Bank"]);
    expect(by({ sort: "own", own: ["Pellam", "Almery"] })).toEqual(["Pellam", "Almery", "Bank"]);
  });

  test("by any column, and the other way round; equals stay by name", () => {
    const rows = [
      row("a", { signInPage: "https://zinnia.example/in", people: 3, guesses: 12, changedAt: 5, level: "edit" }),
      row("b", { signInPage: "", people: 9, changedAt: 7, kind: "Bank account" }),
      row("c", { signInPage: "https://www.almond.example/", people: 3, guesses: 4, changedAt: 7, level: "steward" }),
    ];
    const by = (sort: typeof PLAIN_VIEW.sort, reverse = false) =>
      said(arrange(rows, wanted({ group: "none", sort, reverse })).lines).join("");
    expect(by("address")).toBe("cab");
    expect(by("who")).toBe("bac");
    expect(by("strength")).toBe("cab");
    expect(by("changed")).toBe("bca");
    expect(by("you")).toBe("cab");
    expect(by("kind")).toBe("bac");
    expect(by("name", true)).toBe("cba");
    expect(by("strength", true)).toBe("bac");
  });

  test("under kinds and tags, what has two tags under both", () => {
    expect(said(arrange(ROWS, wanted({ group: "kind" })).lines)).toEqual([
      "# Bank account 1",
      "Bank",
      "# Website login 2",
      "Almery",
      "Pellam",
    ]);
    expect(said(arrange(ROWS, wanted({ group: "tag" })).lines)).toEqual([
      "# desk 1",
      "Pellam",
      "# season 2",
      "Almery",
      "Pellam",
      "# Without a tag 1",
      "Bank",
    ]);
    expect(
      said(
        arrange(
          ROWS,
          wanted({ group: "tag" }, (one) => one.id === "Bank"),
        ).lines,
      ),
    ).toEqual(["# Without a tag 1", "Bank"]);
  });

  test("no order loses or repeats a row", () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.string({ minLength: 1, maxLength: 4 })),
        fc.array(fc.string({ maxLength: 4 })),
        fc.constantFrom("name", "used", "new", "own" as const),
        (ids, own, sort) => {
          const sorted = sortRows(
            ids.map((id) => row(id)),
            { sort: sort as "own", own, reverse: false },
          );
          expect(sorted.map((one) => one.id).sort()).toEqual([...ids].sort());
        },
      ),
    );
  });

  test("one's own order moves by one place and stops at the ends", () => {
    expect(withMoved(["a", "b", "c"], "b", 1)).toEqual(["a", "c", "b"]);
    expect(withMoved(["a", "b", "c"], "a", -1)).toEqual(["a", "b", "c"]);
    expect(withMoved(["a"], "x", 1)).toEqual(["a"]);
  });
});

describe("choosing", () => {
  const order = ["a", "b", "c", "d", "e"];
  const after = (...acts: [string, "one" | "turn" | "through"][]): Chosen =>
    acts.reduce((now, [id, how]) => choose(now, order, id, how), NOTHING_CHOSEN);
  test.each([
    [[["b", "one"]], ["b"]],
    [
      [
        ["b", "one"],
        ["d", "through"],
      ],
      ["b", "c", "d"],
    ],
    // The range is from where one began: shorter again takes away what the longer one had.
    [
      [
        ["b", "one"],
        ["e", "through"],
        ["c", "through"],
      ],
      ["b", "c"],
    ],
    [
      [
        ["d", "one"],
        ["b", "through"],
      ],
      ["b", "c", "d"],
    ],
    [
      [
        ["a", "turn"],
        ["c", "turn"],
        ["a", "turn"],
      ],
      ["c"],
    ],
    [
      [
        ["a", "turn"],
        ["c", "turn"],
        ["e", "through"],
      ],
      ["a", "c", "d", "e"],
    ],
  ] as [[string, "one" | "turn" | "through"][], string[]][])("%j", (acts, ids) => {
    expect([...after(...acts).ids].sort()).toEqual(ids);
  });
});
