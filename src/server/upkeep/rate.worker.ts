/** Rates secrets beside the server's own thread: one takes up to a third of a second. */
import { setPriority } from "node:os";
import { rate } from "../../core/generator/strength";
import { answerAsks } from "../workerThread";

export interface RateAsk {
  value: string;
  hints: string[];
}

// On Linux this is the priority of the calling thread alone: whatever else wants the processor goes first.
setPriority(19);

answerAsks(({ value, hints }: RateAsk) => rate(value, hints).guesses);
