import fc from 'fast-check';
import { isWithin, packed } from './within.js';

const square = packed([{ x: 0, y: 0 }, { x: 10, y: 0 }, { x: 10, y: 10 }, { x: 0, y: 10 }]); // prettier-ignore

describe('within an outline', () => {
  test('every side and every corner belongs to it: the last thread on a straight side is not dropped', () => {
    for (const [u, v] of [[0, 5], [10, 5], [5, 0], [5, 10], [0, 0], [10, 0], [10, 10], [0, 10]] as const) expect(isWithin(square, u, v)).toBe(true); // prettier-ignore
  });
  test('what is clearly outside is out, what is clearly inside is in', () =>
    fc.assert(
      fc.property(fc.double({ min: -20, max: 20, noNaN: true }), fc.double({ min: -20, max: 20, noNaN: true }), (u, v) => {
        const out = Math.max(-u, u - 10, -v, v - 10);
        fc.pre(Math.abs(out) > 1e-3);
        return isWithin(square, u, v) === out < 0;
      }),
    ));
});
