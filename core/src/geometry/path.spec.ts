import ClipperLib from 'clipper-lib';
import fc from 'fast-check';
import {
  anticlockwise,
  arcOf,
  boundingBox,
  cornerAngleDeg,
  CHORD_ERROR_MM,
  crossingSides,
  flatten,
  isConvex,
  mirroredPath,
  offsetOutline,
  pathArea,
  pathLength,
  signedArea,
  vec,
  type ArcPath,
  type Polygon,
  type Vec,
} from './index.js';

const square = (s: number): ArcPath => [vec(0, 0), vec(s, 0), vec(s, s), vec(0, s)].map((p) => ({ ...p, bulge: 0 }));
/** Two half circles. */
const disc = (r: number): ArcPath => [
  { x: r, y: 0, bulge: 1 },
  { x: -r, y: 0, bulge: 1 },
];
const inside = (p: Vec, polygon: Polygon): boolean => {
  let odd = false;
  polygon.forEach((a, i) => {
    const b = polygon[(i + 1) % polygon.length]!;
    if (a.y > p.y !== b.y > p.y && p.x < ((b.x - a.x) * (p.y - a.y)) / (b.y - a.y) + a.x) odd = !odd;
  });
  return odd;
};
/** Star-shaped outlines: simple, with corners that point inwards. */
const star = fc
  .array(fc.double({ min: 250, max: 900, noNaN: true }), { minLength: 4, maxLength: 9 })
  .map((radii) => radii.map((r, i) => vec(r * Math.cos((2 * Math.PI * i) / radii.length), r * Math.sin((2 * Math.PI * i) / radii.length))));

describe('outlines with arcs', () => {
  test('area and length against closed forms: square, circle, half-round window, pointed arch', () => {
    expect(pathArea(square(1000))).toBeCloseTo(1e6, 6);
    expect(pathArea(disc(450))).toBeCloseTo(Math.PI * 450 ** 2, 4);
    expect(pathLength(disc(450))).toBeCloseTo(2 * Math.PI * 450, 6);
    const halfRound: ArcPath = [vec(0, 0), vec(900, 0)].map((p) => ({ ...p, bulge: 0 })).concat([{ x: 900, y: 1000, bulge: 1 }, { x: 0, y: 1000, bulge: 0 }]); // prettier-ignore
    expect(pathArea(halfRound)).toBeCloseTo(900 * 1000 + (Math.PI * 450 ** 2) / 2, 4);
    // equilateral pointed arch over a base b: two 60° segments on an equilateral triangle
    const b = 800;
    const bulge = Math.tan(Math.PI / 3 / 4);
    const pointed: ArcPath = [
      { x: 0, y: 0, bulge: 0 },
      { x: b, y: 0, bulge },
      { x: b / 2, y: (b * Math.sqrt(3)) / 2, bulge },
    ];
    expect(pathArea(pointed)).toBeCloseTo((b ** 2 * Math.sqrt(3)) / 4 + 2 * (b ** 2 / 2) * (Math.PI / 3 - Math.sin(Math.PI / 3)), 3);
  });
  test('a bulge is the tangent of a quarter of the angle: 1 is a half circle, the centre lies left of a positive one', () => {
    const arc = arcOf({ x: 0, y: 0, bulge: Math.tan(Math.PI / 8) }, vec(100, 0))!;
    expect([arc.angle, arc.radius, arc.centre.x, arc.centre.y]).toEqual([
      expect.closeTo(Math.PI / 2, 12),
      expect.closeTo(100 / Math.SQRT2, 9),
      50,
      expect.closeTo(50, 9),
    ]);
  });
  test('chords leave an arc by no more than the error allowed, and are no more than needed', () =>
    fc.assert(
      fc.property(fc.double({ min: 20, max: 3000, noNaN: true }), fc.constantFrom(0.05, CHORD_ERROR_MM, 0.2), (r, error) => {
        const flat = flatten(disc(r), error);
        const worst = Math.max(...flat.map((p, i) => r - Math.hypot((p.x + flat[(i + 1) % flat.length]!.x) / 2, (p.y + flat[(i + 1) % flat.length]!.y) / 2)));
        expect(worst).toBeLessThanOrEqual(error + 1e-9);
        expect(flat.length).toBeLessThan(2 + (2 * Math.PI) / (2 * Math.acos(1 - error / r)) + 2);
      }),
      { seed: 1 },
    ));
  test('mirrored twice it is itself; the other way round it keeps its area', () => {
    const path: ArcPath = [
      { x: 0, y: 0, bulge: 0 },
      { x: 900, y: 0, bulge: 0.3 },
      { x: 700, y: 800, bulge: -0.1 },
    ];
    const twice = mirroredPath(mirroredPath(path));
    expect(pathArea(mirroredPath(path))).toBeCloseTo(pathArea(path), 6);
    for (const p of path) expect(twice.some((q) => Math.hypot(p.x - q.x, p.y - q.y) < 1e-9 && Math.abs(p.bulge - q.bulge) < 1e-9)).toBe(true);
    expect(pathArea(anticlockwise([...square(10)].reverse()))).toBeCloseTo(100, 9);
  });
  // a knife that comes back onto its own line cuts the piece off: touching counts as crossing, near it does not
  test('an outline that touches itself, corner on side, corner on corner or side along side, is caught, whichever way it lies', () => {
    const touching: readonly (readonly (readonly [number, number])[])[] = [
      // the tip of a notch on the far side
      [[0, 0], [10, 0], [10, 10], [5, 0], [0, 10]],
      // two tips that meet in the middle
      [[0, 0], [10, 0], [5, 5], [10, 10], [0, 10], [5, 5]],
      // a slit without width
      [[0, 0], [10, 0], [10, 10], [6, 10], [6, 4], [6, 10.000000001], [0, 10]],
      // two sides of a slot on one line
      [[0, 0], [10, 0], [10, 4], [4, 4], [4, 6], [10, 6], [10, 3], [12, 3], [12, 8], [0, 8]],
    ]; // prettier-ignore
    for (const ring of touching)
      for (const turn of [0, 1, 2, 3]) {
        const quarter = (x: number, y: number) => [{ x, y }, { x: -y, y: x }, { x: -x, y: -y }, { x: y, y: -x }][turn]!; // prettier-ignore
        expect(crossingSides(ring.map(([x, y]) => quarter(x, y)))).not.toBeNull();
      }
  });
  test('an outline that comes near itself without touching is simple: a notch that ends short, a slot, a side on the line of another one', () => {
    const near: readonly (readonly (readonly [number, number])[])[] = [
      [[0, 0], [10, 0], [10, 10], [5, 0.001], [0, 10]],
      [[0, 0], [10, 0], [10, 4], [4, 4], [4, 6], [10, 6], [10, 10], [0, 10]],
      // the two ends of a U stand on one line, and so do its arms’ inner feet
      [[0, 0], [10, 0], [10, 6], [7, 6], [7, 3], [3, 3], [3, 6], [0, 6]],
    ]; // prettier-ignore
    for (const ring of near)
      for (const turn of [0, 1, 2, 3]) {
        const quarter = (x: number, y: number) => [{ x, y }, { x: -y, y: x }, { x: -x, y: -y }, { x: y, y: -x }][turn]!; // prettier-ignore
        expect(crossingSides(ring.map(([x, y]) => quarter(x, y)))).toBeNull();
      }
  });
  test('a needle-sharp corner is cut square at four offsets from it, not drawn out for metres: by hand for a tip of 10°', () => {
    const half = (5 * Math.PI) / 180;
    const tip = [vec(0, 0), vec(1000, -1000 * Math.tan(half)), vec(1000, 1000 * Math.tan(half))];
    const moved = offsetOutline(tip, 10)!;
    const leftMost = Math.min(...moved.map((p) => p.x));
    // a mitre would reach 10 / sin 5° = 115 mm
    expect(leftMost).toBeCloseTo(-40, 6);
    const cut = moved.filter((p) => Math.abs(p.x - leftMost) < 1e-6);
    expect(cut).toHaveLength(2);
    // the cut lies square on the two moved sides: half its length is 10 / cos 5° − 40 · tan 5°
    expect(Math.abs(cut[0]!.y - cut[1]!.y) / 2).toBeCloseTo(10 / Math.cos(half) - 40 * Math.tan(half), 6);
  });
  test('a bow tie crosses itself, and says between which sides', () => {
    expect(crossingSides([vec(0, 0), vec(100, 100), vec(100, 0), vec(0, 100)])).toEqual([0, 2]);
    expect(crossingSides([vec(0, 0), vec(100, 0), vec(100, 100), vec(0, 100)])).toBeNull();
  });
});

describe('an outline made larger or smaller', () => {
  test('a rectangle gains the allowance on each side, an L keeps its inward corner', () => {
    expect(boundingBox(offsetOutline([vec(0, 0), vec(800, 0), vec(800, 1200), vec(0, 1200)], 25)!)).toEqual({ minX: -25, minY: -25, maxX: 825, maxY: 1225 });
    const l = [vec(0, 0), vec(600, 0), vec(600, 300), vec(300, 300), vec(300, 900), vec(0, 900)];
    // by hand: the area grows by the perimeter times d, and 4 − … corners: five outward squares less one inward
    expect(signedArea(offsetOutline(l, 10)!)).toBeCloseTo(signedArea(l) + 3000 * 10 + 4 * 100, 6);
    expect(offsetOutline(l, -150)).toBeNull();
    expect(isConvex(l)).toBe(false);
  });
  test('the two corners of a shape that vanish are dropped, not turned inside out', () => {
    // a house: the two roof sides meet earlier once the walls have vanished
    const house = [vec(0, 0), vec(1000, 0), vec(1000, 60), vec(500, 700), vec(0, 60)];
    const small = offsetOutline(house, -120)!;
    expect(small.length).toBe(3);
    expect(small.every((p) => inside(p, house))).toBe(true);
  });
  test('against Clipper 6 (general-purpose polygon library, Boost licence), mitred, inwards and outwards: same area within 0.01 %', () => {
    let compared = 0;
    fc.assert(
      fc.property(star, fc.constantFrom(-30, -8, 3, 25), (polygon, by) => {
        const ours = offsetOutline(polygon, by);
        const scaled = polygon.map((p) => ({ X: Math.round(p.x * 1000), Y: Math.round(p.y * 1000) }));
        const clipper = new ClipperLib.ClipperOffset(4, 1);
        clipper.AddPath(scaled, ClipperLib.JoinType.jtMiter, ClipperLib.EndType.etClosedPolygon);
        const theirs: { X: number; Y: number }[][] = [];
        clipper.Execute(theirs, by * 1000);
        const area = theirs.reduce((sum, path) => sum + Math.abs(signedArea(path.map((q) => vec(q.X, q.Y)))), 0) / 1e6;
        // needles are cut square at different places
        if (theirs.length !== 1 || !ours || polygon.some((_, i) => cornerAngleDeg(polygon, i) < 30)) return;
        compared++;
        expect(Math.abs(signedArea(ours) - area)).toBeLessThan(1e-4 * area + 1);
      }),
      { seed: 11, numRuns: 300 },
    );
    expect(compared).toBeGreaterThan(200);
  });
  test('what is moved outwards holds the old outline, what is moved inwards lies in it', () =>
    fc.assert(
      fc.property(star, fc.double({ min: 1, max: 40, noNaN: true }), (polygon, by) => {
        const out = offsetOutline(polygon, by);
        if (out) expect(polygon.every((p) => inside(p, out))).toBe(true);
        const inn = offsetOutline(polygon, -by);
        if (inn) expect(inn.every((p) => inside(p, polygon))).toBe(true);
      }),
      { seed: 5, numRuns: 200 },
    ));
});
