import { besideThis } from "../besideThis";
import { failed } from "../log";
import { WorkerThread } from "../workerThread";
import { type ComposedRows, composeRows, type RowsToCompose } from "./composingRows";

/** Nothing was brought in for so long: the thread gives its memory back. */
const IDLE_MS = 5 * 60_000;

/** A thread that composes rows which are brought in; where it was never warmed or fails, this one does. */
export class Composer {
  #thread: WorkerThread<RowsToCompose, ComposedRows> | null = null;
  #ready: Promise<unknown> | null = null;
  #started = false;
  #idle: ReturnType<typeof setTimeout> | undefined;

  /** Starts the thread, which takes a moment; resolves when it composes. */
  warm(): Promise<unknown> {
    if (this.#thread && !this.#thread.over) return this.#ready!;
    const thread = new WorkerThread<RowsToCompose, ComposedRows>(besideThis("compose.worker.ts", import.meta.url));
    this.#thread = thread;
    this.#started = false;
    this.#ready = thread.ask(NOTHING).then(
      () => {
        if (this.#thread === thread) this.#started = true;
      },
      () => undefined,
    );
    this.#rest();
    return this.#ready;
  }

  async compose(ask: RowsToCompose): Promise<ComposedRows> {
    this.#rest();
    await this.#ready;
    if (!this.#thread || !this.#started) return composeRows(ask);
    return this.#thread.ask(ask).catch((error) => {
      failed("vaults.compose, apart", error);
      return composeRows(ask);
    });
  }

  /** Whether the thread composes by now. */
  get ready(): boolean {
    return this.#started && !this.#thread?.over;
  }

  close(): Promise<unknown> {
    clearTimeout(this.#idle);
    const thread = this.#thread;
    this.#thread = null;
    this.#started = false;
    return thread?.close() ?? Promise.resolve();
  }

  #rest(): void {
    clearTimeout(this.#idle);
    this.#idle = setTimeout(() => void this.close(), IDLE_MS);
    this.#idle.unref();
  }
}

const NOTHING: RowsToCompose = {
  importId: "",
  vaultId: "",
  personId: "",
  at: 0,
  key: { version: 0, key: new Uint8Array() },
  fingerprints: new Uint8Array(),
  own: [],
  rows: [],
};
