import fc from 'fast-check';
import { pathArea, vec, type Vec } from '../geometry/index.js';
import { seededRandom } from '../ground/index.js';
import { outlineFromDrawing, splinePoint, type DrawnEntity } from './drawn-outline.js';

const line = (ax: number, ay: number, bx: number, by: number): DrawnEntity => ({ kind: 'line', a: vec(ax, ay), b: vec(bx, by) });
const area = (r: ReturnType<typeof outlineFromDrawing>) => (r.ok ? pathArea(r.path) : NaN);
const said = (r: ReturnType<typeof outlineFromDrawing>) => (r.ok ? '' : r.message);

describe('an outline out of a drawing', () => {
  const box = [line(0, 0, 800, 0), line(800, 600, 800, 0), line(0, 600, 800, 600), line(0, 0, 0, 600)];
  test('loose lines in any order and direction are joined; it lies at the origin, anticlockwise', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(box, { minLength: 4 }), fc.integer({ min: -500, max: 500 }), (lines, dx) => {
        const moved = lines.map((l): DrawnEntity => (l.kind === 'line' ? { ...l, a: vec(l.a.x + dx, l.a.y - dx), b: vec(l.b.x + dx, l.b.y - dx) } : l));
        const r = outlineFromDrawing(moved, 1);
        expect(area(r)).toBeCloseTo(480_000, 6);
        expect(r.ok && Math.min(...r.path.map((p) => p.x))).toBeCloseTo(0, 9);
      }),
      { seed: 1, numRuns: 40 },
    );
  });
  test('an arch of three lines and an arc: area in closed form, the arc stays an arc', () => {
    const r = outlineFromDrawing([line(0, 0, 900, 0), line(900, 0, 900, 700), line(0, 700, 0, 0), { kind: 'arc', centre: vec(450, 700), radius: 450, startRad: 0, endRad: Math.PI }], 1); // prettier-ignore
    expect(area(r)).toBeCloseTo(900 * 700 + (Math.PI * 450 ** 2) / 2, 3);
    expect(r.ok && r.path.length).toBe(5);
  });
  test('inches become millimetres', () =>
    expect(area(outlineFromDrawing([{ kind: 'circle', centre: vec(3, 4), radius: 10 }], 25.4))).toBeCloseTo(Math.PI * 254 ** 2, 3));
  test('inches become millimetres both ways, of what was drawn with straight lines too', () => {
    const r = outlineFromDrawing([line(0, 0, 20, 0), line(20, 0, 20, 30), line(20, 30, 0, 30), line(0, 30, 0, 0)], 25.4);
    expect(r.ok && [Math.max(...r.path.map((v) => v.x)), Math.max(...r.path.map((v) => v.y))]).toEqual([508, 762]);
  });
  test('a polyline with bulges, clockwise as drawn, is turned the right way', () => {
    const points = [{ x: 0, y: 0, bulge: 0 }, { x: 0, y: 500, bulge: -1 }, { x: 400, y: 500, bulge: 0 }, { x: 400, y: 0, bulge: 0 }]; // prettier-ignore
    expect(area(outlineFromDrawing([{ kind: 'polyline', points, isClosed: true }], 1))).toBeCloseTo(400 * 500 + (Math.PI * 200 ** 2) / 2, 3);
  });
  test('a spline: de Boor against the closed form of a cubic Bézier, and the area under it by hand', () => {
    const control = [vec(0, 0), vec(0, 600), vec(900, 600), vec(900, 0)];
    const knots = [0, 0, 0, 0, 1, 1, 1, 1];
    for (const t of [0, 0.2, 0.5, 0.9]) {
      const p = splinePoint(control, 3, knots, t);
      const b = [(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t ** 3];
      const sum = (of: (v: Vec) => number) => control.reduce((s, c, i) => s + of(c) * b[i]!, 0);
      expect([p.x, p.y]).toEqual([expect.closeTo(sum((v) => v.x), 9), expect.closeTo(sum((v) => v.y), 9)]); // prettier-ignore
    }
    // ∫ y dx with y = 1800 t(1−t), dx = 5400 t(1−t) dt gives 1800 · 5400 · B(3,3) = 324 000
    const r = outlineFromDrawing([{ kind: 'spline', control, degree: 3, knots, isClosed: false }, line(900, 0, 0, 0)], 1);
    expect(Math.abs(area(r) - 324_000)).toBeLessThan(0.1 * 1600);
  });
  test('an open outline is named by its two ends, a crossing one by where', () => {
    expect(said(outlineFromDrawing([...box.slice(0, 3), line(0, 0.4, 0, 600)], 1))).toContain('0.0 / 0.4');
    expect(said(outlineFromDrawing([...box.slice(0, 3), line(0, 0.4, 0, 600)], 1))).toContain('0.40 mm apart');
    const tie = [line(0, 0, 500, 500), line(500, 500, 500, 0), line(500, 0, 0, 500), line(0, 500, 0, 0)];
    expect(said(outlineFromDrawing(tie, 1))).toContain('crosses itself near 0.0 / 0.0 and 500.0 / 0.0');
  });
  test('the largest ring counts, and what was left out is told', () => {
    const r = outlineFromDrawing([...box, { kind: 'circle', centre: vec(300, 300), radius: 40 }, line(900, 0, 950, 0)], 1);
    expect(area(r)).toBeCloseTo(480_000, 6);
    expect(r.ok && r.note).toBe('1 smaller closed outline was left out: enter cut-outs by their measures. 1 open line was left out.');
  });
  test('a size that no pane has asks for the units; an empty drawing says so', () => {
    expect(said(outlineFromDrawing(box, 25.4))).toContain('units');
    expect(said(outlineFromDrawing([], 1))).toContain('There is no line');
  });
  test('limits come before work: a floor plan of thousands of lines, in any order, is joined or refused without anybody waiting for it', () => {
    // rings far apart, their sides strewn: what was quadratic took half a minute
    const random = seededRandom(3);
    const sides = Array.from({ length: 1250 }, (_, k) => {
      const [x, y] = [50 * (k % 50), 50 * Math.floor(k / 50)];
      return [line(x, y, x + 40, y), line(x + 40, y, x + 40, y + 40), line(x + 40, y + 40, x, y + 40), line(x, y + 40, x, y)];
    }).flat();
    sides.sort(() => random() - 0.5);
    const r = outlineFromDrawing([...sides, ...box], 1);
    expect(r.ok && r.note).toContain('1250 smaller closed outlines were left out');
    expect(area(r)).toBeCloseTo(480_000, 6);
    // one ring of more points than a pane has
    const round = Array.from({ length: 5000 }, (_, k) => {
      const at = (i: number) => vec(450 + 400 * Math.cos((2 * Math.PI * i) / 5000), 450 + 400 * Math.sin((2 * Math.PI * i) / 5000));
      return { kind: 'line' as const, a: at(k), b: at(k + 1) };
    });
    expect(said(outlineFromDrawing(round, 1))).toContain('The outline has 5000 points; 4000 are the most');
    const many = Array.from({ length: 50_001 }, () => box[0]!);
    expect(said(outlineFromDrawing(many, 1))).toContain('50001 lines; 50000 are the most');
  }, 20_000);
  test('splines that are not whole, points that are nowhere, circles without a radius: a sentence, never a crash', () => {
    const control = [vec(0, 0), vec(300, 400), vec(600, 400), vec(900, 0)];
    const spline = (more: object): DrawnEntity => ({ kind: 'spline', control, degree: 3, knots: [0, 0, 0, 0, 1, 1, 1, 1], isClosed: false, ...more });
    for (const more of [{ knots: [] }, { knots: [0, 0, 0, 0, 1, 1, 1] }, { knots: [0, 0, 0, 1, 0, 1, 1, 1] }, { knots: [0, 0, 0, 0, NaN, 1, 1, 1] }, { degree: 0 }, { degree: 40 }, { degree: 2.5 }, { control: control.slice(0, 2) }])
      expect(said(outlineFromDrawing([spline(more), line(900, 0, 0, 0)], 1))).toContain('A spline of the drawing is not whole'); // prettier-ignore
    expect(said(outlineFromDrawing([spline({ control: [vec(0, 0), vec(1e17, 0), vec(1, 1), vec(2, 2)] })], 1))).toContain('a point that is nowhere');
    expect(said(outlineFromDrawing([line(0, NaN, 1, 1)], 1))).toContain('Line 1 of the drawing has a point that is nowhere');
    expect(said(outlineFromDrawing([{ kind: 'circle', centre: vec(0, 0), radius: 0 }], 1))).toContain('no radius');
  });
});
