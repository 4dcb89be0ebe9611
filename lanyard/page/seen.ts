/**
 * Whether a person sees what Lanyard hung over a page. A page can lay something above it, make it see-through or move it
 * under the pointer at the last moment; the browser itself says whether it was drawn, whole and uncovered, for a while.
 * (Intersection Observer v2: where a browser lacks it, nothing counts as seen.)
 */

/** Longer than a page needs to take something away under the hand, shorter than a person takes to read a name. */
const SEEN_FOR_MS = 400;
const LOOK_EVERY_MS = 100;

interface Visibility extends IntersectionObserverEntry {
  isVisible?: boolean;
}

export class Seen {
  #since: number | null = null;
  #place = "";
  readonly #observer: IntersectionObserver;
  readonly #watch: ReturnType<typeof setInterval>;

  /**
   * @param over lies over the tag and under nothing, without taking a press: the browser calls nothing visible that is
   * drawn through a filter or a mask, as the tag itself is
   */
  constructor(private readonly over: Element) {
    const settings = { threshold: [1], trackVisibility: true, delay: 100 } as IntersectionObserverInit;
    this.#observer = new IntersectionObserver((entries) => {
      const { isVisible } = entries.at(-1) as Visibility;
      if (!isVisible) this.#since = null;
      else this.#since ??= performance.now();
    }, settings);
    this.#observer.observe(over);
    this.#watch = setInterval(() => this.#look(), LOOK_EVERY_MS);
  }

  /** Whether what is pressed now was seen. */
  get now(): boolean {
    this.#look();
    return this.#since !== null && performance.now() - this.#since >= SEEN_FOR_MS;
  }

  /** What has moved is seen anew. */
  #look(): void {
    const { x, y, width, height } = this.over.getBoundingClientRect();
    const place = [x, y, width, height].map(Math.round).join(" ");
    if (place !== this.#place && this.#since !== null) this.#since = performance.now();
    this.#place = place;
  }

  end(): void {
    clearInterval(this.#watch);
    this.#observer.disconnect();
  }
}
