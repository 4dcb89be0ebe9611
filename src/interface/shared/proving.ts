/**
 * Acts that want to know anew that it is their reader: asked for over the page, and then the act goes on by itself, with
 * nothing lost of what was typed.
 */

import type { Answer } from "./answer";

/** @returns whether the reader has shown that it is them */
type Ask = (says: string) => Promise<boolean>;

let ask: Ask | null = null;
let asking: Promise<boolean> | null = null;

/** The dialog that asks, while a page with one is there. */
export function proveWith(how: Ask | null): void {
  ask = how;
}

/** Runs an act, and once more after its reader has shown that it is them. */
export async function proving<R>(act: () => Promise<Answer<R>>): Promise<Answer<R>> {
  const answer = await act();
  if (answer.ok || answer.refused.code !== "prove-again" || !ask) return answer;
  // Several acts at once are answered by one dialog.
  asking ??= ask(answer.refused.message).finally(() => {
    asking = null;
  });
  return (await asking) ? act() : { ok: false, refused: { code: GIVEN_UP, message: "" } };
}

/** The reader closed the dialog: nothing is wrong, and nothing was done. */
export const GIVEN_UP = "given-up";
