/** From page to page with what an entry's steps say; notes what was done on each, so that a test can tell it. */

import { plainPage } from "../../core/signin/address";
import { type Followed, followedOn, kindOfEntered } from "../../core/signin/following";
import { NOTHING_READ, type PageDescription, type PageReading } from "../../core/signin/page";
import type { TriedPage } from "../../core/signin/report";
import { canBeSent } from "../../core/signin/sending";
import type { Entered, PageStep, SignInSteps } from "../../core/signin/steps";
import type { EngineName } from "./engine";

interface Seen {
  url: string;
  status: number;
  reading: PageReading;
  description: PageDescription;
}

/** The step that is done on a page; null where the page goes by what it says itself. */
export interface OnCourse {
  followed: (PageStep & { number: number }) | null;
}

export class Course {
  #done = 0;
  #since = performance.now();
  #now: TriedPage | null = null;

  constructor(
    private readonly steps: SignInSteps,
    private readonly by: EngineName,
    private readonly onPage: ((page: TriedPage) => void) | undefined,
  ) {}

  /** The page as the next of the steps reads it, where one is done on it. */
  onto<P extends Seen>(page: P): P & OnCourse {
    return this.#with(page, followedOn(page.description, this.steps.pages, this.#done));
  }

  /** The same for an engine without scripts: a step that a script sends is known by its page alone. */
  ontoWithoutScripts<P extends Seen>(page: P): P & OnCourse {
    const here = plainPage(page.url);
    const step = this.steps.pages.findIndex(
      ({ page: where, sends }, at) => at >= this.#done && where === here && sends?.byScript && canBeSent(sends),
    );
    if (step < 0) return this.onto(page);
    const kind = kindOfEntered(new Set(this.steps.pages[step]!.enters.map(({ what }) => what)));
    return this.#with(page, { step, reading: { ...NOTHING_READ, kind } });
  }

  #with<P extends Seen>(page: P, followed: Followed | null): P & OnCourse {
    if (!followed) return { ...page, followed: null };
    const step = { ...this.steps.pages[followed.step]!, number: followed.step };
    const { reading } = followed;
    // A button that is called otherwise by now is the one that the page itself names for the same form.
    const submit = reading.submit ?? (reading.form === page.reading.form ? page.reading.submit : null);
    return { ...page, reading: { ...reading, submit }, followed: step };
  }

  /** A page has come to rest. */
  saw({ url, status, reading, followed }: Pick<Seen, "url" | "status" | "reading"> & OnCourse): void {
    const now = performance.now();
    this.#now = {
      ...{ by: this.by, at: plainPage(url) ?? "", status, kind: reading.kind, bySteps: followed !== null },
      ...{ entered: [], pressed: null, ms: Math.round(now - this.#since) },
    };
    this.#since = now;
    this.onPage?.(this.#now);
  }

  /** What is done on the page that was seen last. */
  does(step: OnCourse["followed"], entered: Entered[], pressed: string | null): void {
    if (step) this.#done = step.number + 1;
    if (this.#now) Object.assign(this.#now, { entered, pressed });
  }

  /** Whether a step that a script sends comes next on the same page, as a code after a password. */
  goesOnAt(url: string): boolean {
    const next = this.steps.pages[this.#done];
    return next !== undefined && next.page === plainPage(url) && next.sends?.byScript === true && canBeSent(next.sends);
  }
}
