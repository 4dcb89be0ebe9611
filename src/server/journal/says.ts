/** How a line of the Journal is told: each command says the sentence of its own lines. */

import { FORMER_ACTS } from "./formerActs";

export type Details = Record<string, string | number | boolean | null>;

/** What a line can speak of, already in words. */
export interface Told {
  details: Details;
  /** The node with a preposition and a leading space: “ on Post”. Empty where one stands on its page. */
  place: (preposition: string) => string;
  /** The node, or “it” where one stands on its page. */
  it: string;
  subject: string;
  level: string;
  /** “ from 6 May, 18:00”, “ until 6 May, 18:00”, “, on Saturdays”, “: “spring order””; each may be empty. */
  from: string;
  until: string;
  weekly: string;
  why: string;
  /** The line is about the person who did it. */
  own: boolean;
  nameOf: (ref: string | null) => string;
}

/** What follows the person's name, beginning with a verb in the past; null for lines that a later one completes. */
export type Says = (told: Told) => string | null;

const sentences = new Map<string, Says>();

export const setSentence = (act: string, says: Says): void => void sentences.set(act, says);

export const sentenceOf = (act: string): Says | undefined => sentences.get(nowCalled(act));

export const nowCalled = (act: string): string => FORMER_ACTS[act] ?? act;

/** “the password, the notes” from the words a command keeps. */
export const fieldsChanged = (list: unknown): string => (list ? `the ${String(list)}` : "nothing");
