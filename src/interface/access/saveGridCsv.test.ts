import { afterEach, expect, test, vi } from "vitest";
import type { Change } from "@/core/access";
import { type Grid, knownIn, placesAbove } from "./grid";
import { saveGridCsv } from "./saveGridCsv";

afterEach(() => vi.unstubAllGlobals());

/** A vault `v` with a folder `f` in it, and an entry `e` in that. */
const grid = {
  vault: { id: "v", name: "Shop" },
  node: new Map([
    ["v", { id: "v", parent: null }],
    ["f", { id: "f", parent: "v" }],
    ["e", { id: "e", parent: "f" }],
  ]),
} as unknown as Grid;

test("a file with people left out is never saved: what stood in the way is said instead", async () => {
  const saved = vi.fn();
  vi.stubGlobal("URL", { ...URL, createObjectURL: saved });
  vi.stubGlobal("fetch", async () =>
    Response.json({ ok: false, refused: { code: "signed-out", message: "Sign in again." } }),
  );
  const columns = { text: "", guests: false, unfolded: new Set<string>() };
  const said = await saveGridCsv({ grid, changes: [], rows: [], columns, asked: null, at: 0, me: "m" });
  expect(said).toBe("Sign in again.");
  expect(saved).not.toHaveBeenCalled();
});

test("what a place is in, from near to far", () => {
  expect(placesAbove(grid, "e")).toEqual(["f", "v"]);
  expect(placesAbove(grid, "v")).toEqual([]);
  expect(placesAbove(grid, "elsewhere")).toEqual([]);
});

test("drafted changes of another vault count for nothing here; who is in a group counts everywhere", () => {
  const changes = [
    { type: "separate", nodeId: "f", separate: true, keeper: null },
    { type: "separate", nodeId: "of another vault", separate: true, keeper: null },
    { type: "member", groupId: "g", personId: "p", held: null },
  ] as Change[];
  expect(knownIn(grid, changes)).toEqual([changes[0], changes[2]]);
});
