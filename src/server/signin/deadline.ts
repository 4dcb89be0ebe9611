/** A limit on time that stands still while somebody is waited for. */
export class Deadline {
  readonly #over = new AbortController();
  #leftMs: number;
  #since = 0;
  #timer: ReturnType<typeof setTimeout> | undefined;

  constructor(ms: number) {
    this.#leftMs = ms;
    this.#go();
  }

  get signal(): AbortSignal {
    return this.#over.signal;
  }

  /** What is done meanwhile has a limit of its own. */
  async standStill<R>(work: () => Promise<R>): Promise<R> {
    clearTimeout(this.#timer);
    this.#leftMs -= performance.now() - this.#since;
    try {
      return await work();
    } finally {
      this.#go();
    }
  }

  end(): void {
    clearTimeout(this.#timer);
  }

  #go(): void {
    this.#since = performance.now();
    this.#timer = setTimeout(() => this.#over.abort(), Math.max(0, this.#leftMs));
    this.#timer.unref();
  }
}
