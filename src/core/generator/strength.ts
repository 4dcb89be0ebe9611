/** How long a typed password stands, guessed by @zxcvbn-ts; of what was made, the process itself says it (bits). */
import { ZxcvbnFactory } from "@zxcvbn-ts/core";
import { adjacencyGraphs, dictionary as common } from "@zxcvbn-ts/language-common";
import { dictionary as english } from "@zxcvbn-ts/language-en";
import { type Strength, strengthOf } from "./strengthWords";

let zxcvbn: ZxcvbnFactory | null = null;

/** @param hints words that a guesser would try first: the entry's name, the site, the user name */
export function rate(password: string, hints: readonly string[] = []): Strength {
  zxcvbn ??= new ZxcvbnFactory({ dictionary: { ...common, ...english }, graphs: adjacencyGraphs });
  return strengthOf(zxcvbn.check(password.slice(0, 256), hints.filter(Boolean)).guessesLog10);
}
