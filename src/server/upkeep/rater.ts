import { besideThis } from "../besideThis";
import { WorkerThread } from "../workerThread";
import type { RateAsk } from "./rate.worker";

/** A thread that rates, one value at a time. */
export class Rater {
  readonly #thread = new WorkerThread<RateAsk, number>(besideThis("rate.worker.ts", import.meta.url));

  rate = (value: string, hints: string[]): Promise<number> => this.#thread.ask({ value, hints });

  close = () => this.#thread.close();
}
