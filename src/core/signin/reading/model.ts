/**
 * Multinomial logistic regression over named features: what a thing is follows from the sum of what each of its
 * features says for it. The weights are fitted by `npm run reader:fit` and kept in `weights.ts`, to be read.
 */

/** For each feature how much it speaks for each class; what is left out speaks neither for nor against. */
export type Weights<Class extends string> = Readonly<Record<string, Readonly<Partial<Record<Class, number>>>>>;

/** How likely each class is, from 0 to 1; together they make 1. */
export type Likely<Class extends string> = Readonly<Record<Class, number>>;

export function likely<Class extends string>(
  classes: readonly Class[],
  weights: Weights<Class>,
  features: Iterable<string>,
): Likely<Class> {
  const sums = Object.fromEntries(classes.map((one) => [one, 0])) as Record<Class, number>;
  for (const feature of features) {
    const weight = Object.hasOwn(weights, feature) ? weights[feature] : undefined;
    if (weight) for (const one in weight) sums[one] += weight[one]!;
  }
  const highest = Math.max(...classes.map((one) => sums[one]));
  let total = 0;
  for (const one of classes) {
    sums[one] = Math.exp(sums[one] - highest);
    total += sums[one];
  }
  for (const one of classes) sums[one] /= total;
  return sums;
}

/** Classes, the likeliest first. */
export const ranked = <Class extends string>(scores: Likely<Class>): Class[] =>
  (Object.keys(scores) as Class[]).sort((a, b) => scores[b] - scores[a]);

/** What each feature adds for one class, the heaviest first. */
export function reasons<Class extends string>(
  weights: Weights<Class>,
  features: Iterable<string>,
  of: Class,
): { feature: string; weight: number }[] {
  return [...features]
    .map((feature) => ({ feature, weight: (Object.hasOwn(weights, feature) && weights[feature]![of]) || 0 }))
    .filter(({ weight }) => weight !== 0)
    .sort((a, b) => Math.abs(b.weight) - Math.abs(a.weight));
}
