import fc from 'fast-check';
import { crossOver, crossWords } from './cross-over.js';

const at = (xMm: number, yMm: number) => ({ xMm, yMm });
const num = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('a cross over something that film does not cover', () => {
  test('goes from corner to corner of a thing with corners', () => {
    const cut = crossOver(at(100, 200), at(300, 500), 'a lock');
    expect(cut).toMatchObject({ layer: 'film', later: true, words: 'a lock' });
    expect(cut.path.map((p) => [p.xMm, p.yMm])).toEqual([[100, 200], [300, 500], [300, 200], [100, 500], [100, 200]]); // prettier-ignore
  });
  test('never leaves the rim of a round one: a slit past it would stay seen; it reaches it on all four sides', () => {
    fc.assert(
      fc.property(num(0, 2000), num(0, 2000), num(5, 600), num(5, 600), (x, y, w, h) => {
        const { path } = crossOver(at(x, y), at(x + w, y + h), '', { isRound: true });
        const off = path.map((p) => Math.hypot((p.xMm - x - w / 2) / (w / 2), (p.yMm - y - h / 2) / (h / 2)));
        expect(Math.max(...off)).toBeLessThanOrEqual(1 + 1e-9);
        expect(off.filter((o) => o > 1 - 1e-9)).toHaveLength(4);
      }),
    );
  });
  test('ends short of the corners where film is turned down into the hole, however small it is', () => {
    const { path } = crossOver(at(0, 0), at(300, 400), '', { shortMm: 10 });
    expect(path[0]).toMatchObject({ xMm: 6, yMm: 8 });
    expect(path[1]).toMatchObject({ xMm: 294, yMm: 392 });
    const small = crossOver(at(0, 0), at(8, 8), '', { shortMm: 10 });
    expect(small.path[1]!.xMm - small.path[0]!.xMm).toBeCloseTo(4);
  });
  test('is told as it is done', () => {
    expect(crossWords({ what: 'Peephole', handling: 'round', isRound: true })).toBe(
      'Peephole: when the film lies there, a cross over it from rim to rim; then trimmed round it.',
    );
    expect(crossWords({ what: 'Glass', handling: 'open' })).toContain('from corner to corner; then trimmed along its sides.');
  });
});
