/**
 * Passwords of characters, uniform among all that keep the rules. How many of them there are is counted exactly, and the
 * same counts lead the drawing: nothing is drawn and thrown away, and the bits told are those of the process.
 */
import { type FillRandom, log2, uniform } from "./random";

export interface CharacterRules {
  length: number;
  /** Characters that may stand in it, besides the required ones. */
  allowed: string;
  /** Of each of these sets at least so many; sets may overlap. */
  required: readonly { set: string; least: number }[];
  /** How many of the same character may stand side by side; 0 for as many as it comes to. */
  mostAlike: number;
}

export interface Made {
  text: string;
  /** Bits of strength: log2 of how many equally likely ones it was drawn from. */
  bits: number;
}

export const SHORTEST = 4;
export const LONGEST = 128;

/** Characters that are alike to the rules: all in the same required sets. */
interface Sort {
  characters: string[];
  in: readonly boolean[];
}

function sortsOf({ allowed, required }: CharacterRules): Sort[] {
  const sorts = new Map<string, Sort>();
  for (const character of new Set([...allowed, ...required.flatMap(({ set }) => [...set])])) {
    const membership = required.map(({ set }) => set.includes(character));
    const key = membership.join();
    const sort = sorts.get(key) ?? { characters: [], in: membership };
    sort.characters.push(character);
    sorts.set(key, sort);
  }
  return [...sorts.values()];
}

/** A run: the same character so many times. What a beginning leads to depends on what it lacks and on its last run. */
interface Step {
  sort: number;
  times: number;
  /** How many characters it may be a run of. */
  ways: bigint;
  /** How many endings of the password each of them has. */
  each: bigint;
  lacking: readonly number[];
}

const NONE = -1;

class Counter {
  readonly sorts: Sort[];
  readonly #longestRun: number;
  /** Totals and endings by length left, then by what is lacking and the sort of the last run. */
  readonly #totals: Map<string, bigint>[];
  readonly #endings: Map<string, bigint>[];

  constructor(readonly rules: CharacterRules) {
    this.sorts = sortsOf(rules);
    this.#longestRun = Math.max(1, rules.mostAlike);
    this.#totals = Array.from({ length: rules.length + 1 }, () => new Map());
    this.#endings = Array.from({ length: rules.length + 1 }, () => new Map());
  }

  readonly lackingAtFirst = (): number[] => this.rules.required.map(({ least }) => least);

  #less(lacking: readonly number[], sort: number, times: number): number[] {
    return lacking.map((count, i) => (this.sorts[sort]!.in[i] ? Math.max(0, count - times) : count));
  }

  /** Every run that may come next; a run of one character is not followed by another of the same. */
  *steps(left: number, lacking: readonly number[], last: number): Generator<Step> {
    for (const [sort, { characters }] of this.sorts.entries())
      for (let times = 1; times <= Math.min(left, this.#longestRun); times++) {
        const ways = characters.length - (sort === last && this.rules.mostAlike > 0 ? 1 : 0);
        const next = this.#less(lacking, sort, times);
        if (ways > 0)
          yield { sort, times, ways: BigInt(ways), each: this.count(left - times, next, sort), lacking: next };
      }
  }

  /** How many endings of `left` characters keep the rules, after a run of the sort `last`. */
  count(left: number, lacking: readonly number[], last: number): bigint {
    for (const count of lacking) if (count > left) return 0n;
    if (left === 0) return 1n;
    const limited = this.rules.mostAlike > 0 && last !== NONE;
    if (!limited) return this.#total(left, lacking);
    const known = this.#endings[left]!;
    const key = `${lacking.join()} ${last}`;
    let sum = known.get(key);
    if (sum === undefined) {
      // All runs, less those of the very character that stands last.
      sum = this.#total(left, lacking);
      for (let times = 1; times <= Math.min(left, this.#longestRun); times++)
        sum -= this.count(left - times, this.#less(lacking, last, times), last);
      known.set(key, sum);
    }
    return sum;
  }

  #total(left: number, lacking: readonly number[]): bigint {
    const known = this.#totals[left]!;
    const key = lacking.join();
    let sum = known.get(key);
    if (sum === undefined) {
      sum = 0n;
      for (const { ways, each } of this.steps(left, lacking, NONE)) sum += ways * each;
      known.set(key, sum);
    }
    return sum;
  }
}

/** How many passwords keep the rules. */
export function countCharacters(rules: CharacterRules): bigint {
  const counter = new Counter(rules);
  return counter.count(rules.length, counter.lackingAtFirst(), NONE);
}

/**
 * @throws RangeError with a sentence for people when no password keeps the rules, or the length is out of bounds
 */
export function makeCharacters(rules: CharacterRules, fill?: FillRandom): Made {
  if (!Number.isInteger(rules.length) || rules.length < SHORTEST || rules.length > LONGEST)
    throw new RangeError(`The length is from ${SHORTEST} to ${LONGEST} characters.`);
  const counter = new Counter(rules);
  let [lacking, last, left]: [readonly number[], number, number] = [counter.lackingAtFirst(), NONE, rules.length];
  const all = counter.count(left, lacking, last);
  if (all === 0n) throw new RangeError("No password fits all of these rules. Allow more characters, or require less.");
  const text: string[] = [];
  while (left > 0) {
    let drawn = uniform(counter.count(left, lacking, last), fill);
    for (const step of counter.steps(left, lacking, last)) {
      const here = step.ways * step.each;
      if (drawn >= here) {
        drawn -= here;
        continue;
      }
      const before = rules.mostAlike > 0 ? text.at(-1) : undefined;
      const others = counter.sorts[step.sort]!.characters.filter((one) => one !== before);
      const character = others[Number(drawn / step.each)]!;
      for (let i = 0; i < step.times; i++) text.push(character);
      [lacking, last, left] = [step.lacking, step.sort, left - step.times];
      break;
    }
  }
  return { text: text.join(""), bits: log2(all) };
}
