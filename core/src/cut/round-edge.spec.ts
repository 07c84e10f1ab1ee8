import fc from 'fast-check';
import { distance, flatten, offsetOutline, vec, type ArcPath, type Polygon } from '../geometry/index.js';
import { MOST_STRETCH_FRAC } from '../form/index.js';
import { leastRadiusMm, roundEdge, tooMuchMm } from './round-edge.js';

const num = (min: number, max: number) => fc.double({ min, max, noNaN: true });

const perimeter = (p: Polygon): number => p.reduce((sum, q, i) => sum + distance(q, p[(i + 1) % p.length]!), 0);

/** A square top with four equal rounds (0: sharp). */
const top = (side: number, r: number): ArcPath => {
  if (r === 0) return [vec(0, 0), vec(side, 0), vec(side, side), vec(0, side)].map((p) => ({ ...p, bulge: 0 }));
  const b = Math.tan(Math.PI / 8);
  const p = (x: number, y: number, bulge: number) => ({ x, y, bulge });
  return [p(r, 0, 0), p(side - r, 0, b), p(side, r, 0), p(side, side - r, b), p(side - r, side, 0), p(r, side, b), p(0, side - r, 0), p(0, r, b)];
};

describe('film that is turned inwards round a corner', () => {
  test('is too long by what an outline loses to its inner parallel curve: as an independent offset of the outline has it', () => {
    fc.assert(
      fc.property(num(400, 2000), fc.oneof(fc.constant(0), num(20, 150)), num(5, 19), (side, r, past) => {
        const whole = flatten(top(side, r), 0.002);
        const inner = offsetOutline(whole, -past)!;
        // four corners of a quarter turn
        expect(perimeter(whole) - perimeter(inner)).toBeCloseTo(4 * tooMuchMm(Math.PI / 2, r, past), 1);
      }),
    );
  });
  test('past the centre of its round it is as at a sharp corner: a mitre, twice as wide as it is deep', () => {
    expect(tooMuchMm(Math.PI / 2, 0, 25)).toBeCloseTo(50, 9);
    expect(tooMuchMm(Math.PI / 2, 10, 25)).toBeCloseTo((Math.PI / 2) * 10 + 30, 9);
    expect(tooMuchMm(Math.PI / 2, 100, 25)).toBeCloseTo((Math.PI / 2) * 25, 9);
  });
});

describe('film that is pulled down over the edge of a round', () => {
  test('draws in sideways by as much as there is too much of it: followed ring by ring, it comes to lie on the whole edge', () => {
    fc.assert(
      fc.property(num(15, 600), num(5, 80), (r, depth) => {
        const { filmMm, stretchFrac } = roundEdge(r, depth);
        const rings = 4000;
        let lies = 0;
        let stretch = 0;
        for (let i = 0; i < rings; i++) {
          const u = ((i + 0.5) / rings) * filmMm;
          // a ring that has to come from r + u to r keeps its volume: as narrow as it gets, so long it gets
          const width = r / (r + u);
          stretch = 1 / width ** 2;
          lies += stretch * (filmMm / rings);
        }
        expect(lies).toBeCloseTo(depth, 2);
        expect(stretch - 1).toBeLessThanOrEqual(stretchFrac + 1e-9);
        expect(stretch - 1).toBeGreaterThan(stretchFrac - 0.01);
        expect(filmMm).toBeLessThan(depth);
      }),
    );
  });
  test('the tighter the round and the deeper the edge, the more; a sharp corner cannot be pulled over at all', () => {
    expect(roundEdge(250, 30).stretchFrac).toBeCloseTo(1.36 ** (2 / 3) - 1, 9);
    expect(roundEdge(60, 40).stretchFrac).toBeGreaterThan(1);
    expect(roundEdge(0, 30).stretchFrac).toBe(Infinity);
  });
  test('the least round is the one that stretches film as far as it goes: a little over six times the edge', () => {
    expect(roundEdge(leastRadiusMm(30), 30).stretchFrac).toBeCloseTo(MOST_STRETCH_FRAC, 9);
    expect(leastRadiusMm(30) / 30).toBeCloseTo(6.22, 2);
  });
});
