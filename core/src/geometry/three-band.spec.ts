import fc from 'fast-check';
import { solveSymmetric } from './linear.js';
import { solveThreeBand } from './three-band.js';

test('three unknowns by hand: 2x − y = 1, −x + 2y − z = 0, −y + 2z = 1 are all 1', () =>
  solveThreeBand([0, -1, -1], [2, 2, 2], [-1, -1, 0], [1, 0, 1]).forEach((v) => expect(v).toBeCloseTo(1, 12)));
test('one unknown has no neighbours', () => expect(solveThreeBand([7], [4], [9], [2])).toEqual([0.5]));
test('a symmetric one says what the general library says', () =>
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.double({ min: 0.1, max: 50, noNaN: true }), fc.double({ min: -90, max: 90, noNaN: true })), { minLength: 2, maxLength: 8 }),
      (rows) => {
        const tie = rows.map(([t]) => -t);
        const diagonal = rows.map(([t], i) => 1 + t + (rows[i - 1]?.[0] ?? 0));
        const right = rows.map(([, r]) => r);
        const full = rows.map((_, i) => rows.map((__, j) => (i === j ? diagonal[i]! : j === i + 1 ? tie[i]! : j === i - 1 ? tie[j]! : 0)));
        const own = solveThreeBand([0, ...tie], diagonal, tie, right);
        solveSymmetric(full, right).solution.forEach((v, i) => expect(own[i]).toBeCloseTo(v, 6));
      },
    ),
  ));
