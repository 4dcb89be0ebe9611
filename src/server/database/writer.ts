/**
 * Writes queue within the process: a second write transaction in one process fails at once, and waiting for it
 * would block the event loop on which the first must finish. A busy answer from another process is tried again.
 */
import { type Database, isBusy, type Transaction } from "./client";

const LONGEST_WAIT_MS = 15_000;

export class Writer {
  #last: Promise<unknown> = Promise.resolve();

  constructor(private readonly db: Database) {}

  /** Runs `work` in a write transaction of its own, after all that were asked for before. */
  write<T>(work: (tx: Transaction) => Promise<T>): Promise<T> {
    const turn = this.#last.then(() => this.#attempt(work));
    this.#last = turn.catch(() => undefined);
    return turn;
  }

  async #attempt<T>(work: (tx: Transaction) => Promise<T>): Promise<T> {
    const start = Date.now();
    for (let tries = 0; ; tries++) {
      try {
        return await this.db.transaction(work, { behavior: "immediate" });
      } catch (error) {
        if (!isBusy(error) || Date.now() - start > LONGEST_WAIT_MS) throw error;
        await new Promise((resolve) => setTimeout(resolve, Math.min(4 * 1.4 ** tries, 80) * (0.5 + Math.random())));
      }
    }
  }
}
