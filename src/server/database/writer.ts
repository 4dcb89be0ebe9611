/**
 * Writes queue within the process: a second write transaction in one process fails at once, and waiting for it
 * would block the event loop on which the first must finish. A busy answer from another process is tried again.
 *
 * Writes have a client of their own. A connection that was once told "busy" keeps a statement that is not done and
 * then commits nothing more ("SQL statements in progress"), so the whole client is given up and a fresh one opened.
 */

import { goesOn } from "../log";
import { yieldToEventLoop } from "../yieldToEventLoop";
import type { OpenDatabase, Transaction } from "./client";
import { isBusy } from "./client";
import { isUnreachable, Unreachable } from "./unreachable";

const LONGEST_WAIT_MS = 15_000;

/** Between two turns of what can wait. */
const BREATH_MS = 4;

/** What can wait has waited for so long: now it goes first. */
const PATIENT_FOR_MS = 500;

interface Turn {
  take: () => Promise<void>;
  asked: number;
}

export class Writer {
  readonly #turns: Turn[] = [];
  /** Those of commands that can wait: nobody sits before them. */
  readonly #patient: Turn[] = [];
  #taking: Promise<void> | null = null;
  #current: Pick<OpenDatabase, "client" | "db">;

  /**
   * @param open gives a client that nothing else uses
   * @param written of a remote database: what is waited for after each write, before whoever asked for it hears of it
   */
  constructor(
    private readonly open: () => Pick<OpenDatabase, "client" | "db">,
    private readonly written?: () => Promise<unknown>,
  ) {
    this.#current = open();
  }

  /** How many wait for their turn. */
  get waiting(): number {
    return this.#turns.length + this.#patient.length;
  }

  /**
   * Runs `work` in a write transaction of its own, after all that were asked for before.
   * @param patient lets those go first that are asked for meanwhile
   */
  write<T>(work: (tx: Transaction) => Promise<T>, lowPriority = false): Promise<T> {
    return new Promise<T>((done, failed) => {
      const told = async (result: T) => {
        // It is written, whatever becomes of this.
        await this.written?.().catch(goesOn("database.written"));
        done(result);
      };
      const take = () => this.#attempt(work).then((result) => void told(result), failed);
      (lowPriority ? this.#patient : this.#turns).push({ take, asked: Date.now() });
      this.#taking ??= this.#takeTurns();
    });
  }

  /** After the last write that was asked for. */
  async close(): Promise<void> {
    while (this.#taking) await this.#taking;
    this.#current.client.close();
  }

  async #takeTurns(): Promise<void> {
    for (let turn = await this.#next(); turn; turn = await this.#next()) await turn.take();
    // One may have been asked for after the last look.
    this.#taking = this.#turns.length + this.#patient.length > 0 ? this.#takeTurns() : null;
  }

  async #next(): Promise<Turn | undefined> {
    const [waiting] = this.#patient;
    if (!waiting) return this.#turns.shift();
    if (Date.now() - waiting.asked > PATIENT_FOR_MS) return this.#patient.shift();
    // Whoever's request has come by now is heard before it; and another Galtry on the same file, which waits for a moment
    // in which nobody writes, finds one: one such turn straight after the other would leave it none.
    await yieldToEventLoop();
    await new Promise((resolve) => setTimeout(resolve, BREATH_MS));
    return this.#turns.shift() ?? this.#patient.shift();
  }

  async #attempt<T>(work: (tx: Transaction) => Promise<T>): Promise<T> {
    const start = Date.now();
    for (let tries = 0; ; tries++) {
      try {
        return await this.#current.db.transaction(work, { behavior: "immediate" });
      } catch (error) {
        if (!isBusy(error)) throw this.written && isUnreachable(error) ? new Unreachable(error) : error;
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
