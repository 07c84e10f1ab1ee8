/** Odds of several explanations of which one holds: shares that add up to 1, in the order of the explanations. */
export type Odds = readonly number[];

const LN2 = Math.log(2);

/** Weights as shares of 1. */
export function asOdds(weights: readonly number[]): Odds {
  const sum = weights.reduce((s, w) => s + w, 0);
  return weights.map((w) => w / sum);
}

/** Odds after something was found. @param likelihoods how likely it is to be found under each explanation @source Bayes */
export const after = (odds: Odds, likelihoods: readonly number[]): Odds => asOdds(odds.map((p, i) => p * likelihoods[i]!));

/** How uncertain it is which one holds, bits. @source Shannon */
export const entropyBits = (odds: Odds): number => odds.reduce((s, p) => (p > 0 ? s - (p * Math.log(p)) / LN2 : s), 0);

/** How likely each answer is. @param table for each answer its likelihoods under the explanations */
export const answerOdds = (odds: Odds, table: readonly (readonly number[])[]): number[] => table.map((row) => row.reduce((s, l, i) => s + l * odds[i]!, 0));

/** What an answer is expected to tell of which explanation holds, bits. */
export function expectedGainBits(odds: Odds, table: readonly (readonly number[])[]): number {
  const left = answerOdds(odds, table).reduce((s, p, a) => (p > 0 ? s + p * entropyBits(after(odds, table[a]!)) : s), 0);
  return Math.max(0, entropyBits(odds) - left);
}
