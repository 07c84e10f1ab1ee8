import fc from 'fast-check';
import { ternInterior } from '../../../demo/src/index.js';
import { evenOdd, vec, type Polygon } from '../geometry/index.js';
import { placeMark } from './sign.js';
import { narrowestStrokeMm, ribbonWidthMm } from './stroke-width.js';

const bar = (x: number, y: number, w: number, h: number): Polygon => [vec(x, y), vec(x + w, y), vec(x + w, y + h), vec(x, y + h)];
const circle = (r: number, n = 720): Polygon =>
  Array.from({ length: n }, (_, i) => vec(r * Math.cos((2 * i * Math.PI) / n), r * Math.sin((2 * i * Math.PI) / n)));
const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const turned = (ring: Polygon, rad: number): Polygon =>
  ring.map((p) => vec(p.x * Math.cos(rad) - p.y * Math.sin(rad), p.x * Math.sin(rad) + p.y * Math.cos(rad)));

describe('how wide a ribbon is', () => {
  test('a bar and a ring exactly, by plane geometry', () => {
    expect(ribbonWidthMm([bar(0, 0, 12, 300)])).toBeCloseTo(12, 9);
    expect(ribbonWidthMm([bar(0, 0, 40, 40)])).toBeCloseTo(40, 6);
    // between circles of 50 and 42: area π(50² − 42²), half outline π(50 + 42)
    expect(ribbonWidthMm([circle(50), [...circle(42)].reverse()])).toBeCloseTo(8, 3);
  });
});

describe('the narrowest stroke', () => {
  test('of bars, rings, squares and discs, whichever way they lie and their outlines run', () => {
    fc.assert(
      fc.property(mm(0.5, 60), mm(1, 12), mm(0, 6.28), (w, times, rad) => {
        const ring = turned(bar(0, 0, w, w * times), rad);
        return [ring, [...ring].reverse()].every((r) => Math.abs(narrowestStrokeMm([r]) - w) < 1e-6 * w + 1e-9);
      }),
      { numRuns: 60 },
    );
    expect(narrowestStrokeMm([circle(50), [...circle(42)].reverse()])).toBeCloseTo(8, 2);
    expect(narrowestStrokeMm([circle(50), circle(42)])).toBeCloseTo(8, 2);
    expect(narrowestStrokeMm([circle(20)])).toBeCloseTo(40, 1);
  });
  test('a hairline at the end of a wide stroke is seen, which a mean of the whole does not', () => {
    const letter = [[vec(0, 0), vec(30, 0), vec(30, 196), vec(70, 196), vec(70, 197.2), vec(30, 197.2), vec(30, 200), vec(0, 200)]];
    expect(narrowestStrokeMm(letter)).toBeCloseTo(1.2, 6);
    expect(ribbonWidthMm(letter)).toBeGreaterThan(10);
  });
  test('a waist of two strokes counts where it is as long as it is wide; a point does not', () => {
    const waist = (long: number) =>
      narrowestStrokeMm([[vec(0, 0), vec(100, 0), vec(100, 40), vec(4, 40), vec(4, 40 + long), vec(100, 40 + long), vec(100, 80 + long), vec(0, 80 + long)]]);
    expect(waist(6)).toBeCloseTo(4, 6);
    expect(waist(1)).toBeGreaterThan(20);
    // a pointed arrow is no hairline
    expect(narrowestStrokeMm([[vec(0, 0), vec(100, 40), vec(0, 80), vec(30, 40)]])).toBeGreaterThan(10);
  });
  test('twice as large is twice as wide', () => {
    const sign = ternInterior().surfaces.find((s) => s.kind === 'sign')!;
    for (const line of sign.lines) {
      const [one, two] = [placeMark(line), placeMark({ ...line, heightMm: 2 * line.heightMm })];
      if (!('region' in one) || !('region' in two)) throw new Error('unread');
      expect(two.strokeMm / one.strokeMm).toBeCloseTo(2, 1);
    }
  });
  test('an outline of thousands of sides has its width too', () => {
    const n = 2400;
    const wavy = Array.from({ length: n }, (_, i) =>
      vec(
        (500 + 20 * Math.sin((40 * 2 * Math.PI * i) / n)) * Math.cos((2 * Math.PI * i) / n),
        (500 + 20 * Math.sin((40 * 2 * Math.PI * i) / n)) * Math.sin((2 * Math.PI * i) / n),
      ),
    );
    const inner = wavy.map((p) => vec(p.x * 0.98, p.y * 0.98));
    // square to waves that rise by 58° a stroke of 10 is 5.3 wide
    const ring = evenOdd([wavy, inner])[0]!;
    expect(narrowestStrokeMm(ring)).toBeGreaterThan(5);
    expect(narrowestStrokeMm(ring)).toBeLessThan(11);
  });
});
