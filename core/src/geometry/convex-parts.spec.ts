import ClipperLib from 'clipper-lib';
import fc from 'fast-check';
import { partsArea, partsWithout, signedArea, trapezoidsOf, vec, type Polygon } from './index.js';

const box = (x: number, y: number, w: number, h: number): Polygon => [vec(x, y), vec(x + w, y), vec(x + w, y + h), vec(x, y + h)];

describe('a region as convex parts', () => {
  test('an outline with a hole, by hand; a corner that points inwards is kept', () => {
    expect(partsArea(trapezoidsOf([box(0, 0, 100, 80), box(20, 20, 30, 10)]))).toBeCloseTo(8000 - 300, 6);
    const corner = [vec(0, 0), vec(100, 0), vec(100, 50), vec(50, 50), vec(50, 100), vec(0, 100)];
    expect(partsArea(trapezoidsOf([corner]))).toBeCloseTo(7500, 6);
  });
  test('taking off what only touches, or lies beside, changes nothing; taking off what covers leaves nothing', () => {
    const whole = trapezoidsOf([box(0, 0, 100, 80)]);
    expect(partsWithout(whole, box(100, 0, 50, 80))).toBe(whole);
    expect(partsArea(partsWithout(whole, box(-1, -1, 200, 200)))).toBe(0);
  });
  test('an edge on an edge, as along a stop line, again and again: area is only ever taken once', () => {
    let rest = trapezoidsOf([box(0, 0, 1000, 600)]);
    for (let i = 0; i < 10; i++) rest = partsWithout(rest, box(0, i * 60, 1000, 60));
    expect(partsArea(rest)).toBeLessThan(1e-6);
  });
  test('against Clipper 6 (general-purpose polygon library, Boost licence): what is left of an outline after random boxes and triangles', () => {
    const ring = fc.tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 400 }), fc.integer({ min: 20, max: 300 }), fc.integer({ min: 20, max: 300 }), fc.boolean()).map(([x, y, w, h, tri]) => (tri ? box(x, y, w, h).slice(0, 3) : box(x, y, w, h))); // prettier-ignore
    const outline = [vec(0, 0), vec(500, 30), vec(450, 420), vec(210, 180), vec(40, 380)];
    fc.assert(
      fc.property(fc.array(ring, { minLength: 1, maxLength: 5 }), (cuts) => {
        const ours = partsArea(cuts.reduce((r, c) => partsWithout(r, c), trapezoidsOf([outline])));
        const clipper = new ClipperLib.Clipper();
        const path = (p: Polygon) => p.map((q) => ({ X: q.x * 1000, Y: q.y * 1000 }));
        clipper.AddPath(path(outline), ClipperLib.PolyType.ptSubject, true);
        clipper.AddPaths(cuts.map(path), ClipperLib.PolyType.ptClip, true);
        const theirs: { X: number; Y: number }[][] = [];
        clipper.Execute(ClipperLib.ClipType.ctDifference, theirs, ClipperLib.PolyFillType.pftNonZero, ClipperLib.PolyFillType.pftNonZero);
        const area = theirs.reduce((s, p) => s + signedArea(p.map((q) => vec(q.X, q.Y))), 0) / 1e6;
        expect(Math.abs(ours - area)).toBeLessThan(0.5);
      }),
      { seed: 9, numRuns: 200 },
    );
  });
});
