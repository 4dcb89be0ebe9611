/**
 * Reads strangers' pages in threads of their own, one page at a time in each, with an end in time and in memory: a page
 * that is made to take for ever costs its own sign-in and nothing else.
 */
import { besideThis } from "../besideThis";
import { ThreadError, WorkerThread } from "../workerThread";
import type { PageToStudy, StudiedPage } from "./studiedPage";

/** A page of five thousand elements takes a fiftieth of it. */
const LONGEST_MS = 2_500;
const MOST_MEMORY_MB = 256;
const MOST_THREADS = 2;

/** The page took too long, or broke the reader. */
export class PageUnreadable extends Error {
  override name = "PageUnreadable";
}

type Thread = WorkerThread<PageToStudy, StudiedPage>;

interface Waiting {
  page: PageToStudy;
  done: (page: StudiedPage) => void;
  failed: (error: unknown) => void;
}

const NO_PAGE: PageToStudy = { html: "", url: "https://page.invalid/" };

export class PageReader {
  readonly #waiting: Waiting[] = [];
  readonly #idle: Thread[] = [];
  #threads = 0;
  #closed = false;

  /** @param longestMs for one page, once a thread has taken it up */
  constructor(private readonly longestMs = LONGEST_MS) {}

  /** Starts a thread before it is needed. */
  async warm(): Promise<void> {
    await this.read(NO_PAGE);
  }

  /** @throws PageUnreadable */
  read(page: PageToStudy): Promise<StudiedPage> {
    return new Promise((done, failed) => {
      this.#waiting.push({ page, done, failed });
      this.#serve();
    });
  }

  close(): void {
    this.#closed = true;
    for (const { failed } of this.#waiting.splice(0)) failed(new PageUnreadable("Galtry is stopping"));
    for (const thread of this.#idle.splice(0)) void thread.close();
  }

  #serve(): void {
    while (this.#waiting.length > 0 && !this.#closed) {
      const thread = this.#idle.pop();
      if (thread) void this.#study(thread, this.#waiting.shift()!);
      else if (this.#threads < MOST_THREADS) void this.#start();
      else return;
      if (!thread) return;
    }
  }

  /** What a thread needs to start does not count against the page that waits for it. */
  async #start(): Promise<void> {
    this.#threads++;
    const thread: Thread = new WorkerThread(besideThis("study.worker.ts", import.meta.url), {
      maxOldGenerationSizeMb: MOST_MEMORY_MB,
      maxYoungGenerationSizeMb: 32,
      stackSizeMb: 4,
    });
    try {
      await thread.ask(NO_PAGE);
      this.#free(thread);
    } catch (error) {
      this.#threads--;
      void thread.close();
      for (const { failed } of this.#waiting.splice(0)) failed(error);
    }
  }

  async #study(thread: Thread, { page, done, failed }: Waiting): Promise<void> {
    let late: ReturnType<typeof setTimeout> | undefined;
    const tooLong = new Promise<never>((_, over) => {
      late = setTimeout(
        () => over(new PageUnreadable(`reading it took more than ${this.longestMs} ms`)),
        this.longestMs,
      );
    });
    try {
      done(await Promise.race([thread.ask(page), tooLong]));
      this.#free(thread);
    } catch (error) {
      failed(error instanceof ThreadError ? new PageUnreadable(error.message) : error);
      if (error instanceof ThreadError && !thread.over) this.#free(thread);
      else {
        this.#threads--;
        void thread.close();
        this.#serve();
      }
    } finally {
      clearTimeout(late);
    }
  }

  #free(thread: Thread): void {
    if (this.#closed) void thread.close();
    else {
      this.#idle.push(thread);
      this.#serve();
    }
  }
}
