import { chiSquareCdf, chiSquareLimit, matchedLevels, nonCentralChiSquareCdf } from './statistics.js';
import { OutOfRange } from './result.js';

describe('χ² against published tables', () => {
  // @source Abramowitz & Stegun, table 26.8 (from memory)
  test.each([
    [0.05, 1, 3.84146],
    [0.01, 1, 6.6349],
    [0.05, 3, 7.81473],
    [0.001, 5, 20.515],
    [0.95, 10, 3.9403],
  ])('exceeded with probability %d at %i degrees: %d', (alpha, freedom, limit) => expect(chiSquareLimit(alpha, freedom)).toBeCloseTo(limit, 3));

  test('a level outside 0 … 1 is refused, NaN too', () => {
    expect(() => chiSquareLimit(0, 1)).toThrow(OutOfRange);
    expect(() => chiSquareLimit(Number.NaN, 1)).toThrow(OutOfRange);
  });

  test('without non-centrality the non-central one is the plain one', () => expect(nonCentralChiSquareCdf(5, 3, 0)).toBeCloseTo(chiSquareCdf(5, 3), 10));
});

describe('matched levels', () => {
  // @source Baarda 1968: α₀ 0.001 with power 0.80 has λ₀ = 17.07; 0.01 with 0.80 has 11.68 (from memory)
  test('λ₀ is the published one', () => {
    expect(matchedLevels(0.001, 0.8, 1).noncentrality).toBeCloseTo(17.07, 2);
    expect(matchedLevels(0.01, 0.8, 1).noncentrality).toBeCloseTo(11.68, 2);
  });

  test('the global test finds the same slip with the same power, so its α grows with the redundancy', () => {
    const { noncentrality, limit, alpha } = matchedLevels(0.01, 0.8, 3);
    expect(1 - nonCentralChiSquareCdf(limit, 3, noncentrality)).toBeCloseTo(0.8, 6);
    expect(alpha).toBeGreaterThan(0.01);
  });
});
