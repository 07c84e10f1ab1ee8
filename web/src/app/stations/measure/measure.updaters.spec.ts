import { demoPersons, ternPoint } from '../../../../../demo/src/index';
import { keysToShow, readingPatch } from './measure.updaters';
import { exaggerated, layOpening } from './parts/drawing-geometry';

const file = ternPoint();
const pane = (name: string) => file.surfaces.find((s) => s.name === name)!;
const readingsOf = (name: string) => file.readings.filter((r) => r.surfaceId === pane(name).id);
const typed = { typed: '598', lengthMm: 598, unit: 'mm' as const, exactMm: { n: 598n, d: 1n } };
const who = { personId: demoPersons[0]!.id, at: '2026-09-14T08:00:00.000Z' };

describe('which tapes are asked for', () => {
  test('two are enough until somebody wants more', () => {
    expect(keysToShow(readingsOf('W1'), false, null)).toEqual(['widthLargest', 'heightLargest']);
    expect(keysToShow([], false, null)).toHaveLength(2);
    expect(keysToShow([], true, null)).toHaveLength(8);
  });
  test('a pane once taped all round stays so, and a straightedge is asked for where it helps', () => {
    expect(keysToShow(readingsOf('Toilet 3'), false, 'bowRight')).toEqual(expect.arrayContaining(['diagonalUp', 'bowRight']));
  });
});

describe('a typed tape', () => {
  test('supersedes the pane’s own reading and never overwrites it', () => {
    const patch = readingPatch(pane('Toilet 2'), 'widthBottom', typed, readingsOf('Toilet 2'), who);
    const old = readingsOf('Toilet 2').find((r) => r.measure === 'widthBottom')!;
    expect(patch).toMatchObject({ op: 'add', kind: 'reading', value: { supersedesId: old.id, typed: '598', instrument: 'tape' } });
  });
  test('on a pane measured like another is its own exception', () => {
    const patch = readingPatch(pane('W2'), 'widthLargest', typed, readingsOf('W1'), who);
    expect(patch).toMatchObject({ value: { supersedesId: null, surfaceId: pane('W2').id } });
  });
});

describe('the drawing', () => {
  const outline = [
    { x: 0, y: 0 },
    { x: 900, y: 0 },
    { x: 910, y: 1200 },
    { x: 10, y: 1200 },
  ];
  test('is to scale: one factor for both directions', () => {
    const d = layOpening(outline, ['widthTop', 'heightLeft'], 720, 560, false);
    const [a, b] = [d.toPx({ x: 0, y: 0 }), d.toPx({ x: 900, y: 1200 })];
    expect((b.x - a.x) / 900).toBeCloseTo((a.y - b.y) / 1200, 9);
  });
  test('seen from the other side, the left height stands on the right', () => {
    const at = (mirrored: boolean) => layOpening(outline, ['heightLeft'], 720, 560, mirrored).fields[0]!.x;
    expect(at(false)).toBeLessThan(360);
    expect(at(true)).toBeGreaterThan(360);
  });
  test('crookedness ×5 moves the corners five times as far from the rectangle', () => {
    const far = exaggerated(outline, 5);
    expect(far[2]!.x - far[1]!.x).toBeCloseTo(50, 9);
  });
});
