import { checkRange } from './result.js';

/** ln Γ(x), x > 0. Error below 1e-13. @source Lanczos approximation, g = 7, n = 9 (Press et al., Numerical Recipes, §6.1, from memory) */
function lnGamma(x: number): number {
  const c = [
    0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905, -0.13857109526572012,
    9.9843695780195716e-6, 1.5056327351493116e-7,
  ];
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - lnGamma(1 - x);
  const t = x + 6.5;
  let sum = c[0]!;
  for (let i = 1; i < 9; i++) sum += c[i]! / (x - 1 + i);
  return 0.5 * Math.log(2 * Math.PI) + (x - 0.5) * Math.log(t) - t + Math.log(sum);
}

/** Regularised lower incomplete gamma P(a, x): series below a + 1, continued fraction above. @source Abramowitz & Stegun 6.5.29, 6.5.31 (from memory) */
function lowerGamma(a: number, x: number): number {
  if (x <= 0) return 0;
  const scale = Math.exp(a * Math.log(x) - x - lnGamma(a));
  if (x < a + 1) {
    let term = 1 / a;
    let sum = term;
    for (let n = 1; n < 500 && Math.abs(term) > 1e-16 * Math.abs(sum); n++) sum += term *= x / (a + n);
    return sum * scale;
  }
  let b = x + 1 - a;
  let c = 1e300;
  let d = 1 / b;
  let h = d;
  for (let i = 1; i < 500; i++) {
    const an = -i * (i - a);
    b += 2;
    d = 1 / (an * d + b || 1e-300);
    c = b + an / c || 1e-300;
    h *= d * c;
    if (Math.abs(d * c - 1) < 1e-15) break;
  }
  return 1 - scale * h;
}

/** Probability that a χ² variable with `freedom` degrees stays below x. */
export const chiSquareCdf = (x: number, freedom: number): number => lowerGamma(freedom / 2, x / 2);

/** Non-central χ²: Poisson mixture of central ones. @source Abramowitz & Stegun 26.4.25 (from memory) */
export function nonCentralChiSquareCdf(x: number, freedom: number, noncentrality: number): number {
  let sum = 0;
  for (let j = 0; j < 400; j++) {
    const weight = Math.exp(-noncentrality / 2 + j * Math.log(noncentrality / 2 || 1e-300) - lnGamma(j + 1));
    sum += weight * chiSquareCdf(x, freedom + 2 * j);
    if (j > noncentrality / 2 && weight < 1e-16) break;
  }
  return sum;
}

/** x in [low, high] where the rising function f reaches `target`, by halving. */
function invertRising(f: (x: number) => number, target: number, low: number, high: number): number {
  let [a, b] = [low, high];
  for (let i = 0; i < 80; i++) {
    const middle = (a + b) / 2;
    if (f(middle) < target) a = middle;
    else b = middle;
  }
  return (a + b) / 2;
}

/** The χ² value that is exceeded with probability α. @param alpha 0 < α < 1 */
export function chiSquareLimit(alpha: number, freedom: number): number {
  checkRange('α', alpha, 1e-12, 1 - 1e-12, '');
  return invertRising((x) => chiSquareCdf(x, freedom), 1 - alpha, 0, 1000);
}

/**
 * Baarda's matched levels: one non-centrality λ₀ for the test of a single reading (α₀, power) and the α of the global test
 * with `freedom` redundancies that detects the same λ₀ with the same power.
 * @returns λ₀, and per freedom the limit of the global test with its α
 * @source Baarda, A testing procedure for use in geodetic networks (1968); α₀ = 0.001, power 0.80 gives λ₀ = 17.07 (from memory)
 */
export function matchedLevels(alpha0: number, power: number, freedom: number): MatchedLevels {
  const key = `${alpha0}/${power}/${freedom}`;
  const before = levelsKnown.get(key);
  if (before) return before;
  const levels = computeLevels(alpha0, power, freedom);
  levelsKnown.set(key, levels);
  return levels;
}

interface MatchedLevels {
  readonly noncentrality: number;
  readonly limit: number;
  readonly alpha: number;
}
/** A table of pure numbers that fills as it is asked: one row for each count of redundancies, a few dozen at most. */
const levelsKnown = new Map<string, MatchedLevels>();

function computeLevels(alpha0: number, power: number, freedom: number): MatchedLevels {
  const single = chiSquareLimit(alpha0, 1);
  const noncentrality = invertRising((l) => 1 - nonCentralChiSquareCdf(single, 1, l), power, 0, 200);
  if (freedom === 1) return { noncentrality, limit: single, alpha: alpha0 };
  const limit = invertRising((x) => nonCentralChiSquareCdf(x, freedom, noncentrality), 1 - power, 0, 500);
  return { noncentrality, limit, alpha: 1 - chiSquareCdf(limit, freedom) };
}
