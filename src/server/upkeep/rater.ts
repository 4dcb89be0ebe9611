import { Worker } from "node:worker_threads";
import type { RateAsk } from "./rate.worker";

/** A worker of Node 20 does not take up the loader of the thread that starts it: it registers its own. */
const START = `import("tsx/esm/api").then(({ tsImport }) => tsImport(${JSON.stringify(
  new URL("./rate.worker.ts", import.meta.url).href,
)}, ${JSON.stringify(import.meta.url)}))`;

/** A worker thread that rates, one value at a time. */
export class Rater {
  readonly #worker = new Worker(START, { eval: true });
  readonly #waiting = new Map<number, { done: (guesses: number) => void; failed: (error: unknown) => void }>();
  #last = 0;
  #over = false;

  constructor() {
    this.#worker.unref();
    this.#worker.on("message", ({ id, guesses }: { id: number; guesses: number }) => {
      this.#waiting.get(id)?.done(guesses);
      this.#waiting.delete(id);
    });
    const over = (error: unknown) => {
      this.#over = true;
      for (const { failed } of this.#waiting.values()) failed(error);
      this.#waiting.clear();
    };
    this.#worker.on("error", over);
    this.#worker.on("exit", over);
  }

  rate(value: string, hints: string[]): Promise<number> {
    if (this.#over) return Promise.reject(new Error("the rater has ended"));
    const id = ++this.#last;
    return new Promise((done, failed) => {
      this.#waiting.set(id, { done, failed });
      this.#worker.postMessage({ id, value, hints } satisfies RateAsk);
    });
  }

  close = () => this.#worker.terminate();
}
