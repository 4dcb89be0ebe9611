/**
 * Whether a person sees what Lanyard hung over a page. A page can lay something above it, make it see-through or move it
 * under the pointer at the last moment; the browser itself says whether it was drawn, whole and uncovered, for a while.
 * (Intersection Observer v2: where a browser lacks it, nothing counts as seen.)
 */

/** Longer than a page needs to take something away under the hand, shorter than a person takes to read a name. */
const SEEN_FOR_MS = 400;

interface Visibility extends IntersectionObserverEntry {
  isVisible?: boolean;
}

export class Seen {
  #since: number | null = null;
  readonly #observer: IntersectionObserver;

  constructor(tag: Element) {
    const settings = { threshold: [1], trackVisibility: true, delay: 100 } as IntersectionObserverInit;
    this.#observer = new IntersectionObserver((entries) => {
      const { isVisible } = entries.at(-1) as Visibility;
      if (!isVisible) this.#since = null;
      else this.#since ??= performance.now();
    }, settings);
    this.#observer.observe(tag);
  }

  /** Whether what is pressed now was seen. */
  get now(): boolean {
    return this.#since !== null && performance.now() - this.#since >= SEEN_FOR_MS;
  }

  end(): void {
    this.#observer.disconnect();
  }
}
