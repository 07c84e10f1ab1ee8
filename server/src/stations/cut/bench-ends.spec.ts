import type { BenchCut } from '@yellow-pane/contracts';
import { benchEndSvgs } from './roll-drawing.js';

/** The notch of a column whose base is not level: 50 deep both ways beside a strip of 100. */
const notch: BenchCut = {
  layer: 'film',
  path: [
    { xMm: 560, yMm: 0, bulge: 0 },
    { xMm: 610, yMm: 50, bulge: 0 },
    { xMm: 710, yMm: 50, bulge: 0 },
    { xMm: 760, yMm: 0, bulge: 0 },
  ],
  words: 'Foot: 45° outwards from 50 above the end, and across between. It meets the base.',
};
const piece = { heightMm: 2600, bench: [notch] };
const A4_MM = (523 * 25.4) / 72;

const windowOf = (svg: string) => /viewBox="([\d.-]+) 0 ([\d.]+) /.exec(svg)!.slice(1).map(Number) as [from: number, width: number];

describe('a cut at true scale on paper', () => {
  test('is one drawing where it goes on the sheet: one unit is one millimetre', () => {
    const [only, ...more] = benchEndSvgs(piece, notch, 'mm', 400);
    expect(more).toEqual([]);
    expect(only!.widthMm).toBe(windowOf(only!.svg)[1]);
    expect(only!.widthMm).toBe(200 + 2 * 14);
    expect(only!.svg).toContain('this line is 50 mm');
  });
  test('is parted into strips where it does not: none wider than the sheet, each joined to the next along a line that both show', () => {
    const strips = benchEndSvgs(piece, notch, 'mm', A4_MM);
    expect(strips).toHaveLength(2);
    const windows = strips.map((s) => windowOf(s.svg));
    for (const [i, s] of strips.entries()) {
      expect(s.widthMm).toBeLessThanOrEqual(A4_MM);
      expect(windows[i]![1]).toBeCloseTo(s.widthMm, 1);
      // the cut itself goes on from strip to strip at one place, and a rule checks each of them
      expect(s.svg).toContain('this line is 50 mm');
      expect(s.svg).toContain('M 14 80 L 64 30 L 164 30 L 214 80');
    }
    const [[, first], [second, width]] = windows as [[number, number], [number, number]];
    expect(first - second).toBeCloseTo(12, 1);
    expect(second + width).toBeCloseTo(228, 1);
    // the line to join by stands in both, in the middle of what they share
    const joinAt = Number(/M ([\d.]+) 0 V/.exec(strips[0]!.svg)![1]);
    expect(joinAt).toBeCloseTo((first + second) / 2, 1);
    expect(strips.every((s) => s.svg.includes('>A</text>'))).toBe(true);
  });
  test('reaches over as many strips as it takes on a narrow sheet', () => {
    const strips = benchEndSvgs(piece, notch, 'mm', 80);
    expect(strips).toHaveLength(4);
    expect(strips.every((s) => s.widthMm <= 80)).toBe(true);
    expect(new Set(strips.flatMap((s) => [...s.svg.matchAll(/>([A-Z])<\/text>/g)].map((m) => m[1])))).toEqual(new Set(['A', 'B', 'C']));
  });
});
