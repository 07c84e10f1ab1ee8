import fc from 'fast-check';
import type { LayoutInput } from './layout/index.js';
import { jobOfRepeatedSizes, plainSettings, testPiece, testRoll } from './layout/instances.testing.js';
import { pullCost } from './pull-cost.js';

const input = (pieces: LayoutInput['pieces'], longestPullMm: number, metres = 500): LayoutInput => ({
  filmId: 'film',
  pieces,
  rolls: [testRoll(1500, metres)],
  settings: { ...plainSettings, longestPullMm },
  seed: 1,
  units: 'mm',
});
const upright = { turns: [0 as const] };

describe('What the longest pull costs', () => {
  test('two wide pieces of 3 m and three narrow ones of 1.9 m: one pull of 6 m takes them all, pulls of 3.6 m need 1.9 m more, € 19 at € 10', () => {
    const pieces = [testPiece(1, 900, 3000, upright), testPiece(2, 900, 3000, upright), ...[3, 4, 5].map((n) => testPiece(n, 600, 1900, upright))];
    expect(pullCost(input(pieces, 3600))).toBeCloseTo(19, 6);
    expect(pullCost(input(pieces, 6000))).toBeCloseTo(0, 6);
  });
  test('a pane that no pull of this bench takes is not a matter of money', () => {
    expect(pullCost(input([testPiece(1, 900, 3700, upright)], 3600))).toBeNull();
    expect(pullCost(input([testPiece(1, 900, 7700, upright)], 3600))).toBe(0);
  });
  test('it is never a gain to pull less', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 500 }), (seed) => {
        expect(pullCost(input(jobOfRepeatedSizes(seed, 1500, 20), 2600))).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 15 },
    ));
});
