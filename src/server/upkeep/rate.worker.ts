/** Rates secrets beside the server's own thread: one takes up to a third of a second. */
import { setPriority } from "node:os";
import { parentPort } from "node:worker_threads";
import { rate } from "../../core/generator/strength";

export interface RateAsk {
  id: number;
  value: string;
  hints: string[];
}

// On Linux this is the priority of the calling thread alone: whatever else wants the processor goes first.
setPriority(19);

parentPort!.on("message", ({ id, value, hints }: RateAsk) => {
  parentPort!.postMessage({ id, guesses: rate(value, hints).guesses });
});
