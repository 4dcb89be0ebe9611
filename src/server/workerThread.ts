/** A thread beside the server's own, for work that would keep everybody waiting. */
import { parentPort, type ResourceLimits, Worker } from "node:worker_threads";

/** From the sources a worker of Node 20 does not take up the loader of the thread that starts it: it registers its own. */
const startOf = (file: URL) =>
  file.href.endsWith(".js")
    ? `import(${JSON.stringify(file.href)})`
    : `import("tsx/esm/api").then(({ tsImport }) => tsImport(${JSON.stringify(file.href)}, ${JSON.stringify(import.meta.url)}))`;

type Asked<A> = { id: number; ask: A };
type Answered<R> = { id: number; answer: R } | { id: number; failed: string };

/** The thread has ended, or what it was asked failed; the reason is its own. */
export class ThreadError extends Error {
  override name = "ThreadError";
}

/** Questions to one thread, each answered in its own time. */
export class WorkerThread<A, R> {
  readonly #worker: Worker;
  readonly #waiting = new Map<number, { done: (answer: R) => void; failed: (error: unknown) => void }>();
  #last = 0;
  #over = false;

  /**
   * @param file a module that calls `answerAsks`
   * @param limits of its memory; it ends where it would take more
   */
  constructor(file: URL, limits?: ResourceLimits) {
    this.#worker = new Worker(startOf(file), { eval: true, ...(limits && { resourceLimits: limits }) });
    this.#worker.unref();
    this.#worker.on("message", (answered: Answered<R>) => {
      const asked = this.#waiting.get(answered.id);
      this.#waiting.delete(answered.id);
      // In a turn of its own: answers that wait are all handed over in one, and what follows them would run in it too.
      setImmediate(() => {
        if ("failed" in answered) asked?.failed(new ThreadError(answered.failed));
        else asked?.done(answered.answer);
      });
    });
    const over = (why: unknown) => {
      this.#over = true;
      for (const { failed } of this.#waiting.values()) failed(new ThreadError(`the thread has ended: ${why}`));
      this.#waiting.clear();
    };
    this.#worker.on("error", over);
    this.#worker.on("exit", over);
  }

  /** @throws ThreadError */
  ask(ask: A): Promise<R> {
    if (this.#over) return Promise.reject(new ThreadError("the thread has ended"));
    const id = ++this.#last;
    return new Promise((done, failed) => {
      this.#waiting.set(id, { done, failed });
      this.#worker.postMessage({ id, ask } satisfies Asked<A>);
    });
  }

  /** Resolves when the thread is no more. */
  get ended(): Promise<unknown> {
    return this.#over ? Promise.resolve() : new Promise((done) => this.#worker.once("exit", done));
  }

  get over(): boolean {
    return this.#over;
  }

  close = () => this.#worker.terminate();
}

/** In the thread: it ends by itself after its last answer. */
export const stopAnswering = (): void => parentPort!.unref();

/** In the thread: answers each question that comes. */
export function answerAsks<A, R>(answer: (ask: A) => Promise<R> | R): void {
  parentPort!.on("message", async ({ id, ask }: Asked<A>) => {
    try {
      parentPort!.postMessage({ id, answer: await answer(ask) } satisfies Answered<R>);
    } catch (error) {
      parentPort!.postMessage({ id, failed: String(error) } satisfies Answered<R>);
    }
  });
}
