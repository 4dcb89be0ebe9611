/**
 * A session that ends while something is being typed: the page stays, its reader signs in over it, and what was sent goes
 * on. Without anything typed the page is simply left for the sign-in page.
 */

import type { Refusal } from "./answer";

let typed = false;
let ask: (() => Promise<boolean>) | null = null;
let asking: Promise<boolean> | null = null;

/** Whether something was typed into a form of this page since it came, or since the last act that went through. */
export const hasTyped = (): boolean => typed;
export const noteTyped = (now: boolean): void => {
  typed = now;
};

/** The dialog that asks, while a page with one is there. */
export function askWith(how: (() => Promise<boolean>) | null): void {
  ask = how;
}

/** The session is over, and signing in again would help: the person has not left, and is not suspended. */
export const sessionEnded = (refused: Refusal): boolean =>
  refused.code === "signed-out" && refused.data?.access !== "ended";

/** @returns whether the reader is signed in again; false at once where no page asks */
export function signInAgain(): Promise<boolean> {
  if (!ask) return Promise.resolve(false);
  asking ??= ask().finally(() => {
    asking = null;
  });
  return asking;
}
