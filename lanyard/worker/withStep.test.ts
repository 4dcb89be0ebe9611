import { describe, expect, test } from "vitest";
import type { PageStep, Sending } from "../../src/core/signin/steps";
import { withStep } from "./withStep";

const none = { name: "", id: "", label: "" };
const sends = (byScript: boolean): Sending => ({
  ...{ to: "https://a.example/api", encoding: byScript ? "json" : "form", byScript, parts: [], headers: [] },
});
const step = (over: Partial<PageStep> = {}): PageStep => ({
  page: "https://a.example/in",
  enters: [{ what: "password", field: { ...none, name: "pass" } }],
  presses: { ...none, label: "Go" },
  sends: null,
  ...over,
});

describe("steps that are learned", () => {
  test("are one where a press and what it sends are told apart, whichever comes first", () => {
    const both = withStep(withStep([], step()), step({ presses: null, sends: sends(true) }));
    expect(both).toEqual([step({ sends: sends(true) })]);
    expect(withStep(both, step())).toEqual(both);
  });

  test("keep what a script sent before what its form would have sent", () => {
    const script = withStep([], step({ sends: sends(true) }));
    expect(withStep(script, step({ sends: sends(false) }))[0]!.sends!.byScript).toBe(true);
    const form = withStep([], step({ sends: sends(false) }));
    expect(withStep(form, step({ sends: sends(true) }))[0]!.sends!.byScript).toBe(true);
  });

  test("are two where other fields are entered, or another button is pressed; the order of its words does not count", () => {
    const user = step({ enters: [{ what: "user-name", field: none }] });
    expect(withStep([user], step())).toHaveLength(2);
    const press = (label: string) => step({ enters: [], presses: { ...none, label } });
    expect(withStep([press("Yes")], press("No"))).toHaveLength(2);
    const stored = step({ enters: [], presses: { id: "", label: "Yes", name: "" } });
    expect(withStep([press("Yes")], stored)).toHaveLength(1);
  });

  test("are eight at most", () => {
    let steps: PageStep[] = [];
    for (let at = 0; at < 20; at++) steps = withStep(steps, step({ page: `https://a.example/${at}` }));
    expect(steps).toHaveLength(8);
  });
});
