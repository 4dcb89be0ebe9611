/** From page to page with what an entry's steps say; notes what was done on each, so that a test can tell it. */

import { plainPage } from "../../core/signin/address";
import { type Followed, followedOn, kindOfEntered, shownOn } from "../../core/signin/following";
import { NOTHING_READ, type PageDescription, type PageReading } from "../../core/signin/page";
import { canBeSent } from "../../core/signin/sending";
import { ENTERED, type Entered, type PageStep, type Sending, type SignInSteps } from "../../core/signin/steps";
import type { TestedPage } from "../../core/signin/testReport";
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
  /** What the page's script would send, where an engine without scripts sends it in its place. */
  sends: Sending | null;
}

/** What is entered on a page. */
export type Entering = Record<"userName" | "password" | "code", boolean>;

export class Course {
  #done = 0;
  #since = performance.now();
  #now: TestedPage | null = null;

  constructor(
    private readonly steps: SignInSteps,
    private readonly by: EngineName,
    private readonly onPage: ((page: TestedPage) => void) | undefined,
  ) {}

  /** The page as the next of the steps reads it, where one is done on it. */
  onto<P extends Seen>(page: P): P & OnCourse {
    return this.#with(page, followedOn(page.description, this.steps.pages, this.#done), null);
  }

  /** The same for an engine without scripts: a step that a script sends is known by its page alone. */
  ontoWithoutScripts<P extends Seen>(page: P): P & OnCourse {
    const here = plainPage(page.url);
    const step = this.steps.pages.findIndex((one, at) => at >= this.#done && one.page === here);
    const sends = this.#sendable(step);
    if (!sends) return this.onto(page);
    const kind = kindOfEntered(new Set(this.steps.pages[step]!.enters.map(({ what }) => what)));
    return this.#with(page, { step, reading: { ...NOTHING_READ, kind } }, sends);
  }

  #sendable(step: number): Sending | null {
    const sends = this.steps.pages[step]?.sends;
    return sends?.byScript && canBeSent(sends) ? sends : null;
  }

  #with<P extends Seen>(page: P, followed: Followed | null, sends: Sending | null): P & OnCourse {
    if (!followed) return { ...page, followed: null, sends: null };
    const step = { ...this.steps.pages[followed.step]!, number: followed.step };
    const { reading } = followed;
    // A button that is called otherwise by now is the one that the page itself names for the same form.
    const submit = reading.submit ?? (reading.form === page.reading.form ? page.reading.submit : null);
    return { ...page, reading: { ...reading, submit }, followed: step, sends };
  }

  /** A page has come to rest. */
  saw({ url, status, reading, followed }: Omit<Seen, "description"> & Pick<OnCourse, "followed">): void {
    const now = performance.now();
    this.#now = {
      ...{ by: this.by, at: plainPage(url) ?? "", status, kind: reading.kind, bySteps: followed !== null },
      ...{ entered: [], pressed: null, ms: Math.round(now - this.#since) },
    };
    this.#since = now;
    this.onPage?.(this.#now);
  }

  /** What is done on the page that was seen last. */
  does({ followed, description, reading, sends }: Seen & OnCourse, entering: Entering): void {
    if (followed) this.#done = followed.number + 1;
    if (!this.#now) return;
    this.#now.entered = ENTERED.filter((what) => entering[FLAG[what]]);
    const button = description.fields.find(({ selector }) => selector === reading.submit);
    const pressed = sends ? followed?.presses?.label : button && shownOn(button);
    this.#now.pressed = pressed?.slice(0, 120) || null;
  }

  /** Whether a step that a script sends comes next on the same page, as a code after a password. */
  goesOnAt(url: string): boolean {
    return this.steps.pages[this.#done]?.page === plainPage(url) && this.#sendable(this.#done) !== null;
  }
}

const FLAG = { "user-name": "userName", password: "password", code: "code" } as const satisfies Record<
  Entered,
  keyof Entering
>;
