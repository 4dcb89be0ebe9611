import { afterEach, expect, test, vi } from "vitest";
import type { Answer } from "./ask";
import { GIVEN_UP, proveWith, proving } from "./proving";

afterEach(() => proveWith(null));

const wants = (): Answer<string> => ({ ok: false, refused: { code: "prove-again", message: "Show it." } });

/** An act that wants it shown until it has been. */
function act() {
  let proved = false;
  return {
    run: vi.fn(async (): Promise<Answer<string>> => (proved ? { ok: true, result: "done" } : wants())),
    prove: () => {
      proved = true;
    },
  };
}

test("the act goes on by itself once its reader has shown that it is them", async () => {
  const one = act();
  proveWith(async (says) => {
    expect(says).toBe("Show it.");
    one.prove();
    return true;
  });
  expect(await proving(one.run)).toEqual({ ok: true, result: "done" });
  expect(one.run).toHaveBeenCalledTimes(2);
});

test("a reader who closes the dialog is told of no fault, and nothing is run again", async () => {
  const one = act();
  proveWith(async () => false);
  expect(await proving(one.run)).toEqual({ ok: false, refused: { code: GIVEN_UP, message: "" } });
  expect(one.run).toHaveBeenCalledTimes(1);
});

test("two acts at once are answered by one dialog", async () => {
  const [one, two] = [act(), act()];
  const ask = vi.fn(async () => {
    await new Promise((done) => setTimeout(done, 5));
    one.prove();
    two.prove();
    return true;
  });
  proveWith(ask);
  const answers = await Promise.all([proving(one.run), proving(two.run)]);
  expect(answers.every(({ ok }) => ok)).toBe(true);
  expect(ask).toHaveBeenCalledTimes(1);
  // A later one asks anew.
  await proving(act().run);
  expect(ask).toHaveBeenCalledTimes(2);
});

test("where no page asks, and for every other refusal, the answer stands", async () => {
  expect(await proving(async () => wants())).toEqual(wants());
  proveWith(async () => true);
  const no: Answer<string> = { ok: false, refused: { code: "not-allowed", message: "No." } };
  expect(await proving(async () => no)).toEqual(no);
});
