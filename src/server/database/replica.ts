/**
 * A copy of a remote database on this machine, encrypted like a local one. Whatever is read for a page is read here, after
 * one question to the primary for what has changed, however many statements it takes; what is written goes to the primary.
 */

import { readdirSync, rmSync } from "node:fs";
import path from "node:path";
import type { Config } from "@libsql/client";
import { besideThis } from "../besideThis";
import { failed } from "../log";
import { WorkerThread } from "../workerThread";
import { Unreachable } from "./unreachable";

export const CLOSE = "close";
export type SyncAsk = Config | "sync" | typeof CLOSE;

/** So long a page waits for the primary. */
const PATIENCE_MS = 2_500;
const TRIED_AGAIN_MS = 300;

export class Replica {
  #thread: WorkerThread<SyncAsk, boolean>;
  /** The question that is under way, and the one after it, for those who came later. */
  #running: Promise<void> = Promise.resolve();
  #next: Promise<void> | null = null;
  #failed = false;
  /** Since when the primary has been asked, while it has not answered. */
  #askedAt: number | null = null;
  #closed = false;
  #renewals = 0;

  /** @param file where the copy lies */
  private constructor(
    readonly file: string,
    private readonly opening: Config,
  ) {
    this.#thread = startThread();
  }

  /**
   * Begins anew: what an earlier process left may be of a database that has been replaced since.
   * @throws Unreachable
   */
  static async begin(file: string, primary: { url: string; token?: string; key: string }): Promise<Replica> {
    for (const name of readdirSync(path.dirname(file)))
      if (name.startsWith(path.basename(file))) rmSync(path.join(path.dirname(file), name));
    const { url, token, key } = primary;
    const opening = { url: `file:${file}`, syncUrl: url, ...(token ? { authToken: token } : {}), encryptionKey: key };
    const replica = new Replica(file, opening);
    try {
      await awaited(replica.#thread.ask(opening));
    } catch (error) {
      await replica.close();
      throw new Unreachable(error);
    }
    return replica;
  }

  /**
   * How often the copy was made anew: the primary began another log, after it had been ended abruptly or its database had
   * been replaced. Whatever is held of what was read before is read again.
   */
  get renewals(): number {
    return this.#renewals;
  }

  /** Whether the primary did not answer when it was last asked. */
  get down(): boolean {
    return this.#failed || (this.#askedAt !== null && Date.now() - this.#askedAt > PATIENCE_MS);
  }

  /**
   * Resolves once the copy holds all that had been written when this was called.
   * @throws Unreachable when the primary does not answer; at once while it is known not to
   */
  async fresh(): Promise<void> {
    if (this.down) throw new Unreachable();
    this.#next ??= this.#running.then(() => {
      this.#next = null;
      this.#running = this.#sync();
      return this.#running;
    });
    let timer: NodeJS.Timeout | undefined;
    const tooLong = new Promise<"too long">((done) => {
      timer = setTimeout(() => done("too long"), PATIENCE_MS);
    });
    const ended = await Promise.race([this.#next, tooLong]);
    clearTimeout(timer);
    if (ended === "too long" || this.#failed) throw new Unreachable();
  }

  async close(): Promise<void> {
    this.#closed = true;
    if (this.#thread.over) return;
    await awaited(this.#thread.ask(CLOSE).catch(() => null));
    await awaited(this.#thread.ended);
  }

  /** Never fails: says whether it did, and tries again until it does not. */
  async #sync(): Promise<void> {
    this.#askedAt = Date.now();
    try {
      if (this.#thread.over) {
        // It has ended, for whatever reason: another goes on with the same file.
        this.#thread = startThread();
        await this.#thread.ask(this.opening);
        this.#renewals += 1;
      } else if (await this.#thread.ask("sync")) this.#renewals += 1;
      this.#failed = false;
    } catch (error) {
      this.#failed = true;
      if (this.#closed) return;
      failed("database.sync", error);
      setTimeout(() => {
        if (!this.#closed) this.#running = this.#running.then(() => this.#sync());
      }, TRIED_AGAIN_MS).unref();
    } finally {
      this.#askedAt = null;
    }
  }
}

const startThread = (): WorkerThread<SyncAsk, boolean> =>
  new WorkerThread(besideThis("sync.worker.ts", import.meta.url));

/** A thread keeps no process alive; a command that waits for one does. */
async function awaited<T>(work: Promise<T>): Promise<T> {
  const alive = setInterval(() => undefined, 60_000);
  try {
    return await work;
  } finally {
    clearInterval(alive);
  }
}
