import fc from "fast-check";
import { expect, test } from "vitest";
import { pack, unpack } from "./packed";

test("rows come back as they went, whatever stands in them", () => {
  const rows = [
    { id: "a", name: 'Łódź "fair" </script>', tags: ["x", "y"], at: null, on: true },
    { id: "b", name: "", tags: [], at: 3, on: false },
  ];
  expect(unpack(pack(rows))).toEqual(rows);
  expect(unpack(pack([]))).toEqual([]);
});

test("also where values come again and again, and look alike without being so", () => {
  const few = fc.constantFrom<unknown>(null, 1, "1", "text 1", true, "true", "", "null", ["a"], ["a", "b"], '["a"]', {
    a: 1,
  });
  fc.assert(
    fc.property(
      fc.array(fc.record({ id: fc.nat(), few, other: few, name: fc.string() }), { maxLength: 80 }),
      (rows) => {
        expect(unpack(pack(rows))).toEqual(rows);
      },
    ),
  );
});

test("a value that begins to come again only late is no worse off", () => {
  const rows = Array.from({ length: 200 }, (_, i) => ({
    late: i < 40 ? `${i}` : "same",
    early: i < 40 ? "same" : `${i}`,
  }));
  expect(unpack(pack(rows))).toEqual(rows);
});

test("names of fields and what comes again stand in it once", () => {
  const rows = Array.from({ length: 100 }, (_, i) => ({
    identifier: i,
    description: "Website login",
    tags: ["paper"],
  }));
  for (const text of [/identifier/g, /Website login/g, /paper/g]) expect(pack(rows).match(text)).toHaveLength(1);
  expect(pack(rows).length).toBeLessThan(JSON.stringify(rows).length / 6);
});
