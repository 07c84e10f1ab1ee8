import ClipperLib from 'clipper-lib';
import fc from 'fast-check';
import { common, evenOdd, regionArea, regionOf, ringsFromSvgPath, ringsOf, signedArea, together, vec, without, type Polygon } from './index.js';

const box = (x: number, y: number, w: number, h: number): Polygon => [vec(x, y), vec(x + w, y), vec(x + w, y + h), vec(x, y + h)];

describe('regions cut out of regions', () => {
  test('areas by hand: common, without, together', () => {
    const [a, b] = [regionOf(box(0, 0, 100, 100)), regionOf(box(50, 50, 100, 100))];
    expect([regionArea(common(a, b)), regionArea(without(a, b)), regionArea(together([a, b]))]).toEqual([2500, 7500, 17_500]);
    expect(regionArea(common(a, regionOf(box(200, 0, 10, 10))))).toBe(0);
  });
  test('a ring in a ring is a hole, a third one in it film again; a hole stays one when it is clipped', () => {
    const target = evenOdd([box(0, 0, 90, 90), box(20, 20, 50, 50), box(40, 40, 10, 10)]);
    expect(regionArea(target)).toBe(8100 - 2500 + 100);
    expect(regionArea(common(target, regionOf(box(0, 0, 45, 90))))).toBe(4050 - 25 * 50 + 50);
    expect(ringsOf(target)).toHaveLength(3);
  });
  test('against Clipper 6 (general-purpose polygon library, Boost licence): random boxes and triangles, same areas', () => {
    const ring = fc.tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 400 }), fc.integer({ min: 20, max: 300 }), fc.integer({ min: 20, max: 300 }), fc.boolean()).map(([x, y, w, h, tri]) => (tri ? box(x, y, w, h).slice(0, 3) : box(x, y, w, h))); // prettier-ignore
    fc.assert(
      fc.property(ring, ring, (a, b) => {
        const clipper = new ClipperLib.Clipper();
        const path = (p: Polygon) => p.map((q) => ({ X: q.x * 1000, Y: q.y * 1000 }));
        clipper.AddPath(path(a), ClipperLib.PolyType.ptSubject, true);
        clipper.AddPath(path(b), ClipperLib.PolyType.ptClip, true);
        const theirs: { X: number; Y: number }[][] = [];
        clipper.Execute(ClipperLib.ClipType.ctIntersection, theirs, ClipperLib.PolyFillType.pftNonZero, ClipperLib.PolyFillType.pftNonZero);
        const area = theirs.reduce((s, p) => s + Math.abs(signedArea(p.map((q) => vec(q.X, q.Y)))), 0) / 1e6;
        expect(Math.abs(regionArea(common(regionOf(a), regionOf(b))) - area)).toBeLessThan(1);
      }),
      { seed: 3, numRuns: 200 },
    );
  });
});

describe('a figure drawn as an SVG path', () => {
  const rings = (d: string, scale = 1) => {
    const read = ringsFromSvgPath(d, scale);
    if (!read.ok) throw new Error(read.message);
    return read.rings;
  };
  test('lines, relative and short forms: a square with a square hole', () => {
    const [outer, inner] = rings('M0 0h100v100h-100z M30 30 l0 40 40 0 0 -40 z');
    expect([Math.abs(signedArea(outer!)), Math.abs(signedArea(inner!))]).toEqual([10_000, 1600]);
  });
  test('two half-circle arcs make a circle within the chord error', () => {
    const [circle] = rings('M-50 0 A50 50 0 0 1 50 0 A50 50 0 0 1 -50 0 Z');
    expect(Math.abs(signedArea(circle!))).toBeGreaterThan(Math.PI * 2500 * 0.994);
    for (const p of circle!) expect(Math.abs(Math.hypot(p.x, p.y) - 50)).toBeLessThan(0.02);
  });
  test('curves are flattened more finely the larger the figure is cut', () => {
    const wave = 'M0 0 C0 50 100 50 100 0 Z';
    expect(rings(wave, 100)[0]!.length).toBeGreaterThan(4 * rings(wave, 1)[0]!.length);
    // closed form: the area under a cubic arch of height 37.5 over 100 is 3750·0.8 = 3000
    expect(Math.abs(signedArea(rings(wave, 100)[0]!))).toBeCloseTo(3000, 0);
  });
  test('what does not read, or encloses nothing, is said in a sentence', () => {
    expect(ringsFromSvgPath('M0 0 L bird')).toMatchObject({ ok: false, message: expect.stringContaining('does not read') });
    expect(ringsFromSvgPath('M0 0 L100 0')).toMatchObject({ ok: false, message: expect.stringContaining('encloses nothing') });
  });
});
