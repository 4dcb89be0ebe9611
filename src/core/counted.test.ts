import { describe, expect, it } from "vitest";
import { agree, counted, listOf } from "./counted";

describe("numbers with nouns", () => {
  it("agrees: one, none and many, and nouns that do not only take an s", () => {
    expect(counted(1, "entry")).toBe("1 entry");
    expect(counted(0, "entry")).toBe("0 entries");
    expect(counted(2345, "entry")).toBe("2,345 entries");
    expect(counted(2, "person")).toBe("2 people");
    expect(counted(2, "day")).toBe("2 days");
    expect(counted(3, "letterbox")).toBe("3 letterboxes");
    expect(counted(2, "earlier version")).toBe("2 earlier versions");
    expect(agree(1, "is", "are")).toBe("is");
    expect(agree(21, "is", "are")).toBe("are");
  });

  it("lists", () => {
    expect(listOf([])).toBe("");
    expect(listOf(["Anna"])).toBe("Anna");
    expect(listOf(["Anna", "Bert", "Cleo"])).toBe("Anna, Bert and Cleo");
    expect(listOf(["Anna", "Bert"], "or")).toBe("Anna or Bert");
  });
});
