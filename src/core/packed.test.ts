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

test("names of fields stand in it once", () => {
  const rows = Array.from({ length: 100 }, (_, i) => ({ identifier: i, description: "" }));
  expect(pack(rows).match(/identifier/g)).toHaveLength(1);
});
