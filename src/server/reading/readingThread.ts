/**
 * Reads over thousands of rows, in a thread with a connection of its own: SQLite answers on the thread that asks,
 * and whoever else waits for the server would wait with it.
 */
import { besideThis } from "../besideThis";
import type { Caller } from "../caller";
import type { Configuration } from "../configuration";
import type { Galtry } from "../galtry";
import type { KeyRing } from "../keys/keyFile";
import { goesOn } from "../log";
import type { RefusalCode } from "../refused";
import { WorkerThread } from "../workerThread";

export interface Opening {
  configuration: Omit<Configuration, "publicUrl"> & { publicUrl: string };
  keys: KeyRing;
  process: string;
  /** This machine's copy of a remote database. */
  replica: string | null;
}

/** Closes the connection and ends the thread; one that is torn down with an open connection can take the process along. */
export const CLOSE = "close";

export interface ReadingAsk {
  name: string;
  input: unknown;
  caller: Caller;
  at: number;
  /** How often the copy of a remote database has been made anew. */
  renewals?: number;
}

export type ReadingMessage = Opening | ReadingAsk | typeof CLOSE;

/** As plain data: an error's class does not survive the way between threads. */
export type Reading =
  | { result: unknown }
  | { refused: { code: RefusalCode; message: string; field?: string; data?: Record<string, unknown> } };

export class ReadingThread {
  #thread: WorkerThread<ReadingMessage, Reading | null>;
  #ready = false;

  constructor(private readonly app: Galtry) {
    this.#thread = this.#start();
  }

  /**
   * @returns null where the thread has not started yet or has failed: the asker reads by itself
   * (what failed there for a reason fails here again, with its own error)
   */
  async read(ask: ReadingAsk): Promise<Reading | null> {
    if (this.#thread.over) this.#thread = this.#start();
    if (!this.#ready) return null;
    return this.#thread
      .ask({ ...ask, renewals: this.app.replica?.renewals ?? 0 })
      .catch(goesOn(`${ask.name}, apart`))
      .then((read) => read ?? null);
  }

  get ready(): boolean {
    return this.#ready;
  }

  async close(): Promise<void> {
    this.#ready = false;
    await this.#thread.ask(CLOSE).catch(() => null);
    await this.#thread.ended;
  }

  #start() {
    this.#ready = false;
    const { configuration, keys, process } = this.app;
    const replica = this.app.replica?.file ?? null;
    const thread = new WorkerThread<ReadingMessage, Reading | null>(besideThis("read.worker.ts", import.meta.url));
    thread
      .ask({ configuration: { ...configuration, publicUrl: configuration.publicUrl.href }, keys, process, replica })
      .then(
        () => {
          this.#ready = true;
        },
        () => undefined,
      );
    return thread;
  }
}
