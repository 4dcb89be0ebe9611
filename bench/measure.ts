import { setTimeout as sleep } from "node:timers/promises";

/** Times of something repeated: the middle of them, in milliseconds. */
export async function middleOf(times: number, work: () => Promise<unknown> | unknown): Promise<number> {
  const taken: number[] = [];
  for (let i = 0; i < times; i++) {
    const start = performance.now();
    await work();
    taken.push(performance.now() - start);
  }
  return taken.sort((a, b) => a - b)[Math.floor(times / 2)]!;
}

/**
 * Something beside its floor, turn by turn, so that both meet the same noise of the machine; after rounds to warm up.
 * @returns the middle of each, in milliseconds
 */
export async function sideBySide(
  rounds: number,
  floor: () => Promise<unknown>,
  work: () => Promise<unknown>,
  warmUp = 8,
): Promise<{ floor: number; taken: number }> {
  for (let i = 0; i < warmUp; i++) {
    await floor();
    await work();
  }
  const taken: [number[], number[]] = [[], []];
  for (let i = 0; i < rounds; i++)
    for (const [which, one] of [floor, work].entries()) {
      const start = performance.now();
      await one();
      taken[which]!.push(performance.now() - start);
    }
  const middle = (times: number[]) => times.sort((a, b) => a - b)[Math.floor(times.length / 2)]!;
  return { floor: middle(taken[0]), taken: middle(taken[1]) };
}

let failed = 0;

/** One line a figure: what was measured, what it may be, and whether it is. */
export function tell(what: string, value: number, limit: number, unit: string, more = ""): void {
  const good = value <= limit;
  if (!good) failed += 1;
  console.log(
    `${good ? "good" : "OVER"}  ${what}: ${value.toFixed(2)}${unit} (at most ${limit}${unit})${more ? `  ${more}` : ""}`,
  );
}

export const overLimit = () => failed;

/** The longest of the commands that were sent one after the other, thirty milliseconds apart, while something was done. */
export async function slowestWhile(
  send: (on: boolean) => Promise<unknown>,
  work: () => Promise<unknown>,
): Promise<number> {
  let over = false;
  let slowest = 0;
  const sending = (async () => {
    for (let on = true; !over; on = !on) {
      const start = performance.now();
      await send(on);
      slowest = Math.max(slowest, performance.now() - start);
      await sleep(30);
    }
  })();
  await work();
  over = true;
  await sending;
  return slowest;
}
