import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { choose, chooseAll, NOTHING_CHOSEN } from "./chosen";

const ORDER = ["a", "b", "c", "d", "e", "f"];
const ids = ({ ids: chosen }: { ids: ReadonlySet<string> }) => [...chosen].sort().join("");

describe("choosing rows", () => {
  test("Ctrl turns one on and off and leaves the others", () => {
    let now = choose(NOTHING_CHOSEN, ORDER, "b", "turn");
    now = choose(now, ORDER, "d", "turn");
    expect(ids(now)).toBe("bd");
    expect(ids(choose(now, ORDER, "b", "turn"))).toBe("d");
  });

  test("Shift takes all between, either way, and the range shrinks again", () => {
    const begun = choose(NOTHING_CHOSEN, ORDER, "c", "turn");
    const down = choose(begun, ORDER, "e", "through");
    expect(ids(down)).toBe("cde");
    expect(ids(choose(down, ORDER, "d", "through"))).toBe("cd");
    expect(ids(choose(down, ORDER, "a", "through"))).toBe("abc");
  });

  test("what was chosen before the range stays", () => {
    let now = choose(NOTHING_CHOSEN, ORDER, "a", "turn");
    now = choose(now, ORDER, "d", "turn");
    now = choose(now, ORDER, "f", "through");
    expect(ids(now)).toBe("adef");
    expect(ids(choose(now, ORDER, "e", "through"))).toBe("ade");
  });

  test("a range whose beginning is not shown any more begins anew", () => {
    const now = choose(choose(NOTHING_CHOSEN, ORDER, "a", "turn"), ORDER.slice(1), "c", "through");
    expect(now.ids.has("c")).toBe(true);
    expect(now.from).toBe("c");
  });

  test("one alone, and all", () => {
    const all = chooseAll(ORDER);
    expect(ids(all)).toBe("abcdef");
    expect(ids(choose(all, ORDER, "e", "one"))).toBe("e");
    expect(ids(chooseAll([]))).toBe("");
  });

  test("whatever is pressed, only rows that are there are chosen, and the last one pressed decides", () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom(...ORDER), fc.constantFrom("one", "turn", "through" as const)), {
          minLength: 1,
          maxLength: 20,
        }),
        (presses) => {
          let now = NOTHING_CHOSEN;
          for (const [id, how] of presses) {
            const had = now.ids.has(id);
            now = choose(now, ORDER, id, how);
            expect(now.ids.has(id)).toBe(how === "turn" ? !had : true);
            for (const one of now.ids) expect(ORDER).toContain(one);
          }
        },
      ),
    ));
});
