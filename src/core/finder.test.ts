import { describe, expect, test } from "vitest";
import { type Findable, find, matcherOf, prepare } from "./finder";

const line = (name: string, more: Partial<Findable> = {}): Findable => ({
  id: name,
  name,
  description: "",
  site: "",
  kind: "",
  vault: "",
  tags: [],
  lastUsedAt: null,
  pinned: false,
  ...more,
});
const names = (lines: Findable[], typed: string) => find(prepare(lines), typed).map((one) => one.name);

describe("finding", () => {
  test("by the beginning of any word, in any order, over every field", () => {
    const lines = [
      line("Pellam Tickets", { description: "box office", vault: "Shop" }),
      line("Quillbrook Couriers", { site: "quillbrook.example", kind: "Website login", tags: ["post"] }),
    ];
    expect(names(lines, "tick")).toEqual(["Pellam Tickets"]);
    expect(names(lines, "off pel")).toEqual(["Pellam Tickets"]);
    expect(names(lines, "website login")).toEqual(["Quillbrook Couriers"]);
    expect(names(lines, "post")).toEqual(["Quillbrook Couriers"]);
    expect(names(lines, "quillbrook.ex")).toEqual(["Quillbrook Couriers"]);
    expect(names(lines, "office couriers")).toEqual([]);
    expect(names(lines, "   ")).toEqual([]);
  });

  test("without regard to case and accents, in any script", () => {
    expect(names([line("Größe & Café")], "grosse")).toEqual([]);
    expect(names([line("Größe & Café")], "große cafe")).toEqual(["Größe & Café"]);
    expect(names([line("博物館ショップ")], "博物")).toEqual(["博物館ショップ"]);
    expect(names([line("متجر المتحف")], "المتحف")).toEqual(["متجر المتحف"]);
  });

  test("a slip of the finger is forgiven where nothing fits as it is", () => {
    const lines = [line("Pellam Tickets"), line("Quillbrook Couriers"), line("Brightmere Energy"), line("Till one")];
    for (const typed of ["pelam", "pellma", "pellum tick", "quilbrok", "brightmeer", "couriers quillbroko"])
      expect(names(lines, typed), typed).toHaveLength(1);
    // Short words, and more than a slip, are not guessed at.
    for (const typed of ["tyll", "pxllxm", "zzzz", "one two"])
      expect(names(lines, typed), typed).toEqual(typed === "tyll" ? ["Till one"] : []);
    expect(names([line("Harbour"), line("Harbor")], "harbor")).toEqual(["Harbor"]);
  });

  test("by what else is known of a line", () => {
    const index = prepare([line("Pellam"), line("Tills")], new Map([["Tills", "Suppliers desk@tarrowick.example"]]));
    expect(find(index, "suppl desk").map((one) => one.name)).toEqual(["Tills"]);
  });

  test("names that begin so come first, then pinned, then lately used", () => {
    const lines = [
      line("The Paper Shop"),
      line("Paper Mill", { lastUsedAt: 5 }),
      line("Paper Bag", { lastUsedAt: 9 }),
      line("Paper Aeroplane", { pinned: true }),
      line("Wraps", { description: "paper" }),
    ];
    expect(names(lines, "paper")).toEqual(["Paper Aeroplane", "Paper Bag", "Paper Mill", "The Paper Shop", "Wraps"]);
  });

  test("no more than asked for, the best of them", () => {
    const lines = Array.from({ length: 300 }, (_, i) => line(i === 299 ? "Zebra" : `Has zebra ${i}`));
    expect(find(prepare(lines), "zebra", 5)).toHaveLength(5);
    expect(find(prepare(lines), "zebra", 5)[0]!.name).toBe("Zebra");
  });
});

test("rows that stay in their order are matched by the same words", () => {
  const cafe = ["Café till", "Front of House · payments cardreader.example"] as const;
  expect(matcherOf("  ")).toBeNull();
  for (const typed of ["cafe", "till caf", "pay", "house till", "CARDR", "afé"])
    expect(matcherOf(typed)!(...cafe)).toBe(true);
  for (const typed of ["ouse", "till post", "example.org"]) expect(matcherOf(typed)!(...cafe)).toBe(false);
});
