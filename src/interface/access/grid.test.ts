import { describe, expect, test } from "vitest";
import { Lookup, withChanges } from "@/core/access";
import { pack } from "@/core/packed";
import type { GridGrant, GridMembership, GridModel, GridNode, GridPerson } from "@/server/access/grid";
import { cellAt, columnsOf, grantsBelow, gridOf, rowsOf, sameCell } from "./grid";
import { gridCsv } from "./gridCsv";
import { sayCell } from "./sayCell";

const NOW = Date.UTC(2026, 4, 3, 12);
const DAY = 86_400_000;

const node = (id: string, parent: string | null, type: GridNode["type"], more: Partial<GridNode> = {}): GridNode => ({
  ...{ id, parent, type, name: id, separate: false, mine: true },
  ...more,
});
const grant = (at: string, who: string, level: GridGrant["level"], more: Partial<GridGrant> = {}): GridGrant => {
  const [kind, subjectId = ""] = who.split(":") as [GridGrant["kind"], string?];
  return {
    ...{ id: `${at} ${who} ${level}`, node: at, kind, subjectId, level },
    ...{ from: null, until: null, weekly: null, why: "", by: "Ines", since: 0 },
    ...more,
  };
};
const person = (id: string, more: Partial<GridPerson> = {}): GridPerson => ({
  ...{ id, name: `Name ${id}`, guest: false, auditor: false, standing: "active", until: null },
  ...more,
});
const member = (personId: string, groupId: string, more: Partial<GridMembership> = {}): GridMembership => ({
  ...{ personId, groupId, from: null, until: null },
  ...more,
});

const model = (more: Partial<GridModel> = {}): GridModel => ({
  ...{
    vault: { id: "Vault", name: "Vault" },
    zone: "Europe/London",
    reads: false,
    past: null,
    rounds: true,
    round: false,
    staff: 2,
  },
  nodes: pack([
    node("Vault", null, "vault"),
    node("zebra", "Vault", "entry"),
    node("Tickets", "Vault", "folder"),
    node("apple", "Tickets", "entry"),
    node("=cmd()", "Tickets", "entry"),
    node("Closed", "Vault", "folder", { separate: true, mine: false }),
  ]),
  grants: pack([
    grant("Vault", "group:shop", "reveal"),
    grant("Tickets", "everyone", "use", { until: NOW + DAY }),
    grant("apple", "person:a", "blocked"),
    grant("apple", "group:old", "edit", { until: NOW - DAY }),
  ]),
  people: pack([person("a"), person("b"), person("g", { guest: true }), person("i", { standing: "invited" })]),
  memberships: pack([member("b", "shop"), member("a", "shop", { from: NOW + DAY }), member("g", "old")]),
  groups: [
    { id: "shop", name: "Shop", until: NOW + 10 * DAY },
    { id: "old", name: "Old hands", until: NOW - DAY },
    { id: "idle", name: "Idle", until: null },
  ],
  ...more,
});
const grid = gridOf(model());
const lookup = new Lookup(grid.organised);
const all = { open: new Set(["Tickets"]), text: "", only: null };
const names = (rows: ReturnType<typeof rowsOf>) => rows.map((row) => `${"-".repeat(row.depth)}${row.node.name}`);
const columns = (more: object = {}) =>
  columnsOf(grid, lookup, { all: false, text: "", guests: false, unfolded: new Set(), ...more }, NOW, "b");
const column = (name: string) => columns({ all: true }).find((one) => one.name === name)!;

describe("rows", () => {
  test("folders first, each by name, as far as they are open; entries are counted", () => {
    expect(names(rowsOf(grid, all))).toEqual(["Vault", "-Closed", "-Tickets", "--=cmd()", "--apple", "-zebra"]);
    expect(names(rowsOf(grid, { ...all, open: new Set() }))).toEqual(["Vault", "-Closed", "-Tickets", "-zebra"]);
    expect([grid.entries.get("Vault"), grid.entries.get("Tickets")]).toEqual([3, 2]);
  });

  test("what is looked for stands with the folders around it, open or not", () => {
    expect(names(rowsOf(grid, { open: new Set(), text: "APP", only: null }))).toEqual(["Vault", "-Tickets", "--apple"]);
    expect(names(rowsOf(grid, { open: new Set(), text: "", only: (one) => one.id === "zebra" }))).toEqual([
      "Vault",
      "-zebra",
    ]);
  });
});

describe("columns", () => {
  test("Everyone, groups that a grant names, people whom one names; all of them where wanted", () => {
    expect(columns().map(({ name, note, first }) => [name, note, first])).toEqual([
      ["Everyone", "2 staff", false],
      ["Old hands", "ended 2 May, 1 person", false],
      ["Shop", "until 13 May, 1 person", false],
      ["Name a", "", true],
    ]);
    expect(columns({ all: true }).map(({ name, note }) => `${name}: ${note}`)).toEqual([
      "Everyone: 2 staff",
      "Idle: 0 people",
      "Old hands: ended 2 May, 1 person",
      "Shop: until 13 May, 1 person",
      "Name b: you",
      "Name a: ",
      "Name g: guest",
      "Name i: has not joined yet",
    ]);
  });

  test("a group unfolds into its people of that moment; guests and names narrow it", () => {
    expect(columns({ unfolded: new Set(["shop"]) }).map(({ name, under }) => `${name} ${under}`)).toContain(
      "Name b true",
    );
    expect(columns({ guests: true }).map(({ name }) => name)).toEqual(["Old hands", "Name g"]);
    expect(columns({ text: "name b" }).map(({ name }) => name)).toEqual(["Name b"]);
  });
});

describe("cells", () => {
  test("a group has its own say, set or from above; a person all that they have", () => {
    expect(cellAt(lookup, column("Shop"), "Vault", NOW)).toMatchObject({ level: "reveal", set: true });
    expect(cellAt(lookup, column("Shop"), "apple", NOW)).toMatchObject({ level: "reveal", set: false });
    expect(cellAt(lookup, column("Everyone"), "Vault", NOW).level).toBe("none");
    expect(cellAt(lookup, column("Everyone"), "apple", NOW)).toMatchObject({ level: "use", until: NOW + DAY });
    expect(cellAt(lookup, column("Name b"), "apple", NOW)).toMatchObject({ level: "reveal", set: false, ways: 2 });
    expect(cellAt(lookup, column("Name a"), "apple", NOW)).toMatchObject({ level: "blocked", set: true });
    expect(cellAt(lookup, column("Name g"), "zebra", NOW).level).toBe("none");
    expect(cellAt(lookup, column("Name i"), "zebra", NOW).level).toBe("none");
  });

  test("another moment has other cells, and a draft too", () => {
    expect(cellAt(lookup, column("Name a"), "zebra", NOW).level).toBe("none");
    expect(cellAt(lookup, column("Name a"), "zebra", NOW + 2 * DAY).level).toBe("reveal");
    const drafted = new Lookup(
      withChanges(grid.organised, [
        {
          ...{ type: "set", nodeId: "Tickets", subject: { kind: "group", id: "shop" } },
          grants: [{ level: "use", from: null, until: null }],
        },
      ]),
    );
    const [before, after] = [lookup, drafted].map((one) => cellAt(one, column("Name b"), "apple", NOW));
    expect([before!.level, after!.level, sameCell(before!, after!)]).toEqual(["reveal", "use", false]);
    expect(sayCell(after!, before!, 0, false, "Europe/London")).toContain("effect of the slip, was Reveal");
  });

  test("a closed folder says what is set in it, of what counts at that moment", () => {
    const below = grantsBelow(lookup, NOW);
    expect(below.get("Tickets")?.get("person:a")).toBe(1);
    expect(below.get("Vault")?.get("everyone")).toBe(1);
    expect(below.get("Tickets")?.get("group:old")).toBeUndefined();
  });
});

test("as CSV: a line a place, in words; what a spreadsheet would run is made harmless", () => {
  const csv = gridCsv(rowsOf(grid, all), columns(), lookup, NOW, "Europe/London");
  const lines = csv.split("\r\n");
  expect(lines[0]).toMatch(/^"Place, as at [^"]+",Kind,/);
  expect(lines[0]!.replace(/^"[^"]+"/, "Place")).toBe(
    'Place,Kind,Everyone (2 staff),"Old hands (ended 2 May, 1 person)","Shop (until 13 May, 1 person)",Name a (person)',
  );
  expect(lines.find((line) => line.includes("apple"))).toMatch(
    /^· · apple,entry,.*Use, inherited, until .*Reveal, inherited.*Blocked, set directly/,
  );
  expect(lines.find((line) => line.includes("Closed"))).toBe("· Closed,folder,,,,");
  expect(csv).not.toMatch(/^=cmd/m);
});
