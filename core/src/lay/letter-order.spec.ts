import fc from 'fast-check';
import { boundingBox, type Region } from '../geometry/index.js';
import { letterOrder, orderText, type LetterTurn } from './letter-order.js';

const box = (x: number, y: number, w: number, h: number) => [{ x, y }, { x: x + w, y }, { x: x + w, y: y + h }, { x, y: y + h }]; // prettier-ignore
const mark = (...rings: ReturnType<typeof box>[]) => ({ region: rings.map((r) => [r]) as Region, box: boundingBox(rings.flat()) });
/** A line of letters so high on a baseline. */
const line = (n: number, baselineMm: number, { from = 0, high = 100, wide = 60, gap = 15 } = {}) =>
  mark(...Array.from({ length: n }, (_, i) => box(from + i * (wide + gap), baselineMm, wide, high)));

/** Looked at place by place, by other means than the planner: does air of a letter come over one whose turn is over? */
function blowsOverFinished(turns: readonly LetterTurn[]): boolean {
  const [dx, dy] = [
    { up: 0, down: 0, right: 1, left: -1 },
    { up: 1, down: -1, right: 0, left: 0 },
  ];
  return turns.some((t, i) =>
    Array.from({ length: 100 }, (_, k) => k).some((k) => {
      const [along, across] = [((k % 10) + 0.5) * 15, (Math.floor(k / 10) + 0.5) / 10];
      const { minX, maxX, minY, maxY } = t.box;
      const x = dx[t.air] === 0 ? minX + across * (maxX - minX) : dx[t.air] > 0 ? maxX + along : minX - along;
      const y = dy[t.air] === 0 ? minY + across * (maxY - minY) : dy[t.air] > 0 ? maxY + along : minY - along;
      return turns.slice(0, i).some(({ box: b }) => x > b.minX && x < b.maxX && y > b.minY && y < b.maxY);
    }),
  );
}

describe('the order of letters under a gun', () => {
  test('one line: as one reads it, every letter’s air goes on to free ground', () => {
    const turns = letterOrder([line(8, 500)]);
    expect(turns.map((t) => t.box.minX)).toEqual([...turns.map((t) => t.box.minX)].sort((a, b) => a - b));
    expect(turns.every((t) => t.onto === 'free' && t.air === 'up')).toBe(true);
    expect(orderText(turns)).toBe('In the order drawn the air of every letter goes on to free ground.');
  });
  test('three lines close together: the middle one blows over what is still to come, never over what is finished', () => {
    const turns = letterOrder([line(5, 800), line(5, 660), line(5, 520)]);
    expect(turns).toHaveLength(15);
    expect(blowsOverFinished(turns)).toBe(false);
    expect(turns.filter((t) => t.onto === 'unheated').length).toBeLessThanOrEqual(5);
    expect(orderText(turns)).toMatch(/^In the order drawn no air goes over a finished letter; \d of 15 blow over letters that are still to come/);
  });
  test('a hand keeps its way along a line as long as that goes', () => {
    // the second line hangs half under the first: all of it blows down, its free end too
    const turns = letterOrder([line(4, 700), line(8, 560)]);
    expect(turns.slice(4).map((t) => t.air)).toEqual(Array.from({ length: 8 }, () => 'down'));
    expect(turns.every((t) => t.onto === 'free')).toBe(true);
  });
  test('a dot belongs to its stroke; a kerned neighbour does not', () => {
    expect(letterOrder([mark(box(0, 0, 20, 70), box(0, 85, 20, 15))])).toHaveLength(1);
    expect(letterOrder([mark(box(0, 0, 60, 100), box(52, 0, 60, 100))])).toHaveLength(2);
  });
  test('one letter alone, or none: nothing to be drawn', () => {
    expect(orderText(letterOrder([line(1, 0)]))).toBe('Aim the air to the free ground beside it.');
    expect(letterOrder([])).toEqual([]);
  });
  test('wherever letters stand, each has its turn once and no air comes over a finished one', () => {
    const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    const one = fc.record({ from: mm(0, 800), base: mm(0, 900), n: fc.integer({ min: 1, max: 9 }), high: mm(20, 200), wide: mm(10, 120), gap: mm(1, 40) });
    fc.assert(
      fc.property(fc.array(one, { minLength: 1, maxLength: 6 }), (lines) => {
        // lines that lie on each other are told apart by the survey
        const apart = lines.map((l, i) => line(l.n, i * 210 + (l.base % 9), { ...l, high: Math.min(l.high, 200) }));
        const turns = letterOrder(apart);
        expect(turns).toHaveLength(lines.reduce((sum, l) => sum + l.n, 0));
        expect(blowsOverFinished(turns)).toBe(false);
      }),
      { numRuns: 150 },
    );
  });
});
