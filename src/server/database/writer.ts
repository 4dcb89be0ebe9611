/**
 * Writes queue within the process: a second write transaction in one process fails at once, and waiting for it
 * would block the event loop on which the first must finish. A busy answer from another process is tried again.
 *
 * Writes have a client of their own. A connection that was once told "busy" keeps a statement that is not done and
 * then commits nothing more ("SQL statements in progress"), so the whole client is given up and a fresh one opened.
 */
import type { OpenDatabase, Transaction } from "./client";
import { isBusy } from "./client";

const LONGEST_WAIT_MS = 15_000;

export class Writer {
  #last: Promise<unknown> = Promise.resolve();
  #current: Pick<OpenDatabase, "client" | "db">;

  /** @param open gives a client that nothing else uses */
  constructor(private readonly open: () => Pick<OpenDatabase, "client" | "db">) {
    this.#current = open();
  }

  /** Runs `work` in a write transaction of its own, after all that were asked for before. */
  write<T>(work: (tx: Transaction) => Promise<T>): Promise<T> {
    const turn = this.#last.then(() => this.#attempt(work));
    this.#last = turn.catch(() => undefined);
    return turn;
  }

  /** After the last write that was asked for. */
  async close(): Promise<void> {
    await this.#last;
    this.#current.client.close();
  }

  async #attempt<T>(work: (tx: Transaction) => Promise<T>): Promise<T> {
    const start = Date.now();
    for (let tries = 0; ; tries++) {
      try {
        return await this.#current.db.transaction(work, { behavior: "immediate" });
      } catch (error) {
        if (!isBusy(error)) throw error;
        this.#reopen();
        if (Date.now() - start > LONGEST_WAIT_MS) throw error;
        await new Promise((resolve) => setTimeout(resolve, Math.min(2 * 1.3 ** tries, 40) * (0.5 + Math.random())));
      }
    }
  }

  #reopen(): void {
    this.#current.client.close();
    this.#current = this.open();
  }
}
