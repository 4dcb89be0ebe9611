/** Fits multinomial logistic regression by gradient descent (Adam), with a price on large and on many weights. */
import type { Weights } from "../../src/core/signin/reading/model";

export interface Example<Class extends string> {
  features: readonly string[];
  is: Class;
  /** How much it counts. */
  weight: number;
}

const STEPS = 350;
const RATE = 0.08;
/** Price of the square of a weight, and of its size: the second leaves out what hardly matters. */
const SQUARE = 0.00004;
const SIZE = 0.000015;
/** A feature seen less often than this is chance. */
const FEWEST = 3;

export function fit<Class extends string>(
  classes: readonly Class[],
  examples: readonly Example<Class>[],
): Weights<Class> {
  const counts = new Map<string, number>();
  for (const { features } of examples) for (const one of features) counts.set(one, (counts.get(one) ?? 0) + 1);
  const names = [...counts]
    .filter(([, count]) => count >= FEWEST)
    .map(([name]) => name)
    .sort();
  const index = new Map(names.map((name, at) => [name, at]));
  const width = classes.length;
  const rows = examples.map(({ features, is, weight }) => ({
    at: Int32Array.from(features.flatMap((one) => index.get(one) ?? [])),
    is: classes.indexOf(is),
    weight,
  }));
  const total = rows.reduce((sum, row) => sum + row.weight, 0);
  const weights = new Float64Array(names.length * width);
  const [mean, square] = [new Float64Array(weights.length), new Float64Array(weights.length)];
  const gradient = new Float64Array(weights.length);
  const score = new Float64Array(width);
  for (let step = 1; step <= STEPS; step++) {
    gradient.fill(0);
    for (const { at, is, weight } of rows) {
      score.fill(0);
      for (const one of at) for (let c = 0; c < width; c++) score[c]! += weights[one * width + c]!;
      const highest = Math.max(...score);
      let sum = 0;
      for (let c = 0; c < width; c++) sum += score[c] = Math.exp(score[c]! - highest);
      for (let c = 0; c < width; c++) score[c] = (weight * (score[c]! / sum - (c === is ? 1 : 0))) / total;
      for (const one of at) for (let c = 0; c < width; c++) gradient[one * width + c]! += score[c]!;
    }
    for (let i = 0; i < weights.length; i++) {
      const pull = gradient[i]! + SQUARE * weights[i]!;
      mean[i] = 0.9 * mean[i]! + 0.1 * pull;
      square[i] = 0.999 * square[i]! + 0.001 * pull * pull;
      const by = mean[i]! / (1 - 0.9 ** step) / (Math.sqrt(square[i]! / (1 - 0.999 ** step)) + 1e-8);
      const moved = weights[i]! - RATE * by;
      weights[i] = Math.sign(moved) * Math.max(0, Math.abs(moved) - RATE * SIZE * 100);
    }
  }
  const found: Record<string, Partial<Record<Class, number>>> = {};
  names.forEach((name, at) => {
    const row: Partial<Record<Class, number>> = {};
    classes.forEach((one, c) => {
      const rounded = Math.round(weights[at * width + c]! * 100) / 100;
      if (Math.abs(rounded) >= 0.05) row[one] = rounded;
    });
    if (Object.keys(row).length > 0) found[name] = row;
  });
  return found;
}
