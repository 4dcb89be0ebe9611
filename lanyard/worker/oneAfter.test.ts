import { expect, test } from "vitest";
import { oneAfter } from "./oneAfter";

/** Looks whose ends are given by hand. */
function byHand() {
  const ends: { good: () => void; bad: () => void }[] = [];
  const look = () => new Promise<void>((good, bad) => ends.push({ good, bad: () => bad(new Error("away")) }));
  return { ends, look };
}
const turn = () => new Promise((done) => setTimeout(done, 0));

test("what is asked for while a look is under way is looked at again, once", async () => {
  const { ends, look } = byHand();
  const ask = oneAfter(look);
  const first = ask();
  let seen = 0;
  const later = [ask(), ask(), ask()].map((one) => one.then(() => seen++));
  expect(ends).toHaveLength(1);
  ends[0]!.good();
  await first;
  await turn();
  // The three heard nothing of the look that began before them.
  expect([ends.length, seen]).toEqual([2, 0]);
  ends[1]!.good();
  await Promise.all(later);
  expect([ends.length, seen]).toEqual([2, 3]);
});

test("one that is asked for in the second look has a third", async () => {
  const { ends, look } = byHand();
  const ask = oneAfter(look);
  void ask();
  const second = ask();
  ends[0]!.good();
  await turn();
  const third = ask();
  ends[1]!.good();
  await second;
  await turn();
  expect(ends).toHaveLength(3);
  ends[2]!.good();
  await third;
});

test("a look that fails tells those who asked for it, and the next one is done all the same", async () => {
  const { ends, look } = byHand();
  const ask = oneAfter(look);
  const first = ask();
  const second = ask();
  ends[0]!.bad();
  await expect(first).rejects.toThrow("away");
  await turn();
  ends[1]!.good();
  await second;
  const third = ask();
  expect(ends).toHaveLength(3);
  ends[2]!.good();
  await third;
});
