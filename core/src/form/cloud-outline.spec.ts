import fc from 'fast-check';
import { signedArea, type Polygon, type Vec } from '../geometry/index.js';
import { seededRandom } from '../ground/index.js';
import { convexHull, leastBoxTurn, rolledOutline, simplified } from './cloud-outline.js';

const vec = ([x, y]: readonly [number, number]): Vec => ({ x, y });
const key = (p: Vec): string => `${p.x} ${p.y}`;
/** How far a point lies outside a ring that runs anticlockwise; 0 within. */
function outsideBy(ring: Polygon, p: Vec): number {
  let [isIn, nearest] = [false, Infinity];
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length]!;
    if (a.y > p.y !== b.y > p.y && p.x < a.x + ((p.y - a.y) / (b.y - a.y)) * (b.x - a.x)) isIn = !isIn;
    const l2 = (b.x - a.x) ** 2 + (b.y - a.y) ** 2;
    const t = Math.min(1, Math.max(0, ((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / (l2 || 1)));
    nearest = Math.min(nearest, Math.hypot(p.x - a.x - t * (b.x - a.x), p.y - a.y - t * (b.y - a.y)));
  });
  return isIn ? 0 : nearest;
}
/** Points on a grid over 1000 × 600 mm where there is glass, each moved a little. */
const grid = (isGlass: (x: number, y: number) => boolean, { seed = 1, everyMm = 10 } = {}): Vec[] => {
  const random = seededRandom(seed);
  const across = 1000 / everyMm;
  return Array.from({ length: across * (600 / everyMm) }, (_, i) => ({
    x: everyMm * (i % across) + 2 * random(),
    y: everyMm * Math.floor(i / across) + 2 * random(),
  })).filter((p) => isGlass(p.x, p.y));
};

test('hull: the corners of a square with points on its sides and inside', () => {
  const square = ([[0, 0], [1, 0], [2, 0], [2, 2], [0, 2], [1, 1], [0, 1]] as const).map(vec); // prettier-ignore
  expect(convexHull(square)).toEqual(([[0, 0], [2, 0], [2, 2], [0, 2]] as const).map(vec)); // prettier-ignore
});

describe('a disc that rolls round the points', () => {
  const cloud = fc.uniqueArray(fc.tuple(fc.integer({ min: 0, max: 300 }), fc.integer({ min: 0, max: 300 })), { minLength: 5, maxLength: 60, selector: String });
  test('as wide as a house it touches the corners of the hull, in the same order', () =>
    fc.assert(
      fc.property(cloud, (list) => {
        const hull = convexHull(list.map(vec));
        fc.pre(hull.length > 2 && signedArea(hull) > 50);
        const ring = rolledOutline(list.map(vec), 1e6)!.map(key);
        // points on a side may be touched too; the corners come in the order of the hull
        const corners = hull.map(key);
        const met = ring.filter((k) => corners.includes(k));
        const at = met.indexOf(corners[0]!);
        expect([...met.slice(at), ...met.slice(0, at)]).toEqual(corners);
      }),
    ));
  test('no point lies outside what it touched, whatever the shape (glasses nobody chose)', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 180 }),
        fc.integer({ min: 60, max: 900 }),
        fc.integer({ min: 25, max: 600 }),
        fc.integer(),
        (deep, wide, radius, seed) => {
          const points = grid((x, y) => y > deep * Math.exp(-(((x - 500) / wide) ** 2)), { seed, everyMm: 20 });
          const ring = rolledOutline(points, radius)!;
          expect(Math.max(...convexHull(points).map((p) => outsideBy(ring, p)))).toBe(0);
          expect(Math.max(...points.filter((_, i) => i % 29 === 0).map((p) => outsideBy(ring, p)))).toBeLessThan(1e-9);
          // tighter than the hull, never looser
          expect(signedArea(ring)).toBeLessThanOrEqual(signedArea(convexHull(points)) + 1e-6);
        },
      ),
      { numRuns: 20 },
    ));
  test('into a bay as wide as itself it goes to the ground; a bay narrower than it is bridged but for the depth of the arc', () => {
    const bay = (radius: number) =>
      rolledOutline(
        grid((x, y) => Math.hypot(x - 500, y) > 150),
        radius,
      )!;
    const depth = (ring: Polygon) => Math.min(...ring.filter((p) => Math.abs(p.x - 500) < 20 && p.y < 300).map((p) => p.y));
    expect(depth(bay(100))).toBeGreaterThan(145);
    // nothing of its ground is touched: the ring goes from rim to rim
    expect(bay(1000).some((p) => Math.abs(p.x - 500) < 100 && p.y > 5 && p.y < 300)).toBe(false);
  });
  test('a hole inside is never come to; heaps that lie farther apart than the disc is wide are no one outline', () => {
    const ring = rolledOutline(
      grid((x, y) => Math.hypot(x - 500, y - 300) > 120),
      60,
    )!;
    expect(ring.some((p) => Math.hypot(p.x - 500, p.y - 300) < 140)).toBe(false);
    expect(signedArea(ring)).toBeGreaterThan(0.97 * 990 * 590);
    const heaps = ([[0, 0], [10, 0], [10, 10], [500, 0], [510, 0], [510, 10]] as const).map(vec); // prettier-ignore
    expect(rolledOutline(heaps, 50)).toBeNull();
    // the gap lets it in as far as a point that it has been at from below
    expect(rolledOutline(heaps, 300)).toBeNull();
    expect(rolledOutline(heaps, 1000)).toHaveLength(6);
    expect(rolledOutline([{ x: 0, y: 0 }, { x: 1, y: 1 }], 5)).toBeNull(); // prettier-ignore
  });
});

test('the smallest box finds the turn that a pane was scanned at', () =>
  fc.assert(
    fc.property(fc.double({ min: -0.78, max: 0.78, noNaN: true }), (turn) => {
      const [c, s] = [Math.cos(turn), Math.sin(turn)];
      const sheet = ([[0, 0], [1200, 0], [1200, 500], [600, 520], [0, 500]] as const).map(([x, y]) => ({ x: c * x - s * y, y: s * x + c * y })); // prettier-ignore
      expect(Math.abs(leastBoxTurn(sheet) - turn)).toBeLessThan(1e-9);
    }),
  ));

test('corners that stand out by less than a third of a millimetre go; the outline stays where it was', () => {
  const circle = Array.from({ length: 2000 }, (_, i) => ({ x: 400 * Math.cos((i * Math.PI) / 1000), y: 400 * Math.sin((i * Math.PI) / 1000) }));
  const fewer = simplified(circle, 0.3);
  expect(fewer.length).toBeLessThan(150);
  expect(signedArea(fewer) / signedArea(circle)).toBeGreaterThan(0.997);
});
