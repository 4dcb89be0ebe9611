/** Steps as they are learned one after another: what is told twice is one step, and the later telling says more. */
import type { PageStep, Sign } from "../../src/core/signin/steps";

const MOST_STEPS = 8;

/** A later step for the same page and the same fields says more of it, unless it knows less of what was sent. */
export function withStep(steps: readonly PageStep[], step: PageStep): PageStep[] {
  const same = (one: PageStep) =>
    one.page === step.page &&
    one.enters.map(({ what }) => what).join() === step.enters.map(({ what }) => what).join() &&
    (step.enters.length > 0 || sameSign(one.presses, step.presses));
  const at = steps.findIndex(same);
  if (at < 0) return [...steps, step].slice(0, MOST_STEPS);
  const before = steps[at]!;
  const merged = { ...step, presses: step.presses ?? before.presses, sends: better(before.sends, step.sends) };
  return steps.toSpliced(at, 1, merged);
}

const sameSign = (a: Sign | null, b: Sign | null): boolean =>
  a?.name === b?.name && a?.id === b?.id && a?.label === b?.label;

/** What a script sent is what the page really does with its form. */
function better(before: PageStep["sends"], now: PageStep["sends"]): PageStep["sends"] {
  if (!now) return before;
  return before?.byScript && !now.byScript ? before : now;
}
