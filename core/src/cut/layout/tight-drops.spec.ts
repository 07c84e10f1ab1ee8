import fc from 'fast-check';
import type { Turn } from '@yellow-pane/contracts';
import { packExactly, packInPieces } from './exact.js';
import { dissection, deepDissection, plainSettings, testPiece, testRoll } from './instances.testing.js';
import { layPiecesOnRolls } from './index.js';
import { checkLayout } from './check-layout.js';
import { benchFor, groupPieces } from './model.js';
import { tightDrops } from './tight-drops.js';

const ROLL_MM = 1524;
const bench = benchFor(ROLL_MM, plainSettings);
/** All that are found, and how often the search rested. */
function found(pieces: ReturnType<typeof testPiece>[], mostWaste: number, stages: 3 | 4 = 3) {
  const types = groupPieces(pieces, plainSettings);
  const work = tightDrops(types, types.map((t) => t.pieces.length), { ...bench, stages }, mostWaste); // prettier-ignore
  let rests = 0;
  for (;;) {
    const { done, value } = work.next();
    if (done) return { types, drops: value, rests };
    rests++;
  }
}
const pieceTypes = (d: { columns: readonly { rows: readonly { pieces: readonly { type: number }[] }[] }[] }) =>
  d.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces.map((p) => p.type)));

describe('drops of which hardly anything is thrown away', () => {
  test('each fits the roll, uses pieces that are there, and wastes no more than was allowed', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1000 }), fc.constantFrom(1e-7, 2e-3, 1e-2), fc.constantFrom(3 as const, 4 as const), (seed, mostWaste, stages) => {
        const { types, drops } = found(deepDissection(seed, ROLL_MM, 18, stages).pieces, mostWaste, stages);
        for (const d of drops ?? []) {
          expect(d.columns.reduce((s, c) => s + c.across, 0)).toBeLessThanOrEqual(bench.width);
          for (const c of d.columns) {
            expect(c.along).toBeLessThanOrEqual(d.along);
            expect(c.rows.reduce((s, r) => s + r.along, 0)).toBe(c.along);
            for (const r of c.rows) {
              expect(r.pieces.reduce((s, p) => s + p.way.across, 0)).toBeLessThanOrEqual(c.across);
              if (stages === 3) expect(r.pieces).toHaveLength(1);
            }
          }
          const used = pieceTypes(d);
          for (const t of new Set(used)) expect(used.filter((u) => u === t).length).toBeLessThanOrEqual(types[t]!.pieces.length);
          expect(1 - used.reduce((s, t) => s + types[t]!.area, 0) / (d.along * bench.width)).toBeLessThanOrEqual(mostWaste + 1e-9);
        }
      }),
      { numRuns: 60 },
    ));

  test('four panes that fill a metre of the roll to the millimetre are found, whichever way round they were measured', () => {
    // 900 + 624 across; 600 + 400 and 300 + 700 along
    const pieces = [testPiece(1, 900, 600), testPiece(2, 400, 900), testPiece(3, 624, 300), testPiece(4, 700, 624), testPiece(5, 810, 505)];
    const { types, drops } = found(pieces, 1e-7);
    expect(drops).toHaveLength(1);
    expect(drops![0]!.along).toBe(1000 * 320);
    expect(pieceTypes(drops![0]!).map((t) => types[t]!.pieces[0]!.label).sort()).toEqual(['P1', 'P2', 'P3', 'P4']); // prettier-ignore
    // a millimetre too long and it is none, unless as much may be wasted
    const off = [testPiece(1, 900, 601), ...pieces.slice(1)];
    expect(found(off, 1e-7).drops).toEqual([]);
    expect(found(off, 2e-3).drops).toHaveLength(1);
  });
  test('pieces that want the same factory edge are not put beside each other', () => {
    const edge = (n: number, turns: Turn[]) => testPiece(n, 762, 900, { turns, factoryEdge: 'left' });
    expect(found([edge(1, [0]), testPiece(2, 762, 900, { turns: [0] })], 1e-7).drops).toHaveLength(1);
    expect(found([edge(1, [0]), edge(2, [0])], 1e-7).drops).toEqual([]);
    // the roll has two of them: turned round, the second piece has the other one, and a third has none
    expect(found([edge(1, [0, 180]), edge(2, [0, 180])], 1e-7).drops).toHaveLength(1);
    const third = (n: number) => testPiece(n, 508, 900, { turns: [0, 180], factoryEdge: 'left' });
    expect(found([third(1), third(2), testPiece(3, 508, 900, { turns: [0] })], 1e-7).drops).toHaveLength(1);
    expect(found([third(1), third(2), third(3)], 1e-7).drops).toEqual([]);
  });
  test('sizes of which anything goes with anything are given up soon, and are still laid', () => {
    const pieces = Array.from({ length: 60 }, (_, i) => testPiece(i + 1, 500, 300 + 7 * i));
    expect(found(pieces, 1e-2).drops).toBeNull();
    const layout = layPiecesOnRolls({ filmId: pieces[0]!.filmId, rolls: [testRoll(ROLL_MM)], pieces, settings: plainSettings, seed: 1 }, 40);
    expect(checkLayout(layout, { pieces, rolls: [testRoll(ROLL_MM)], settings: plainSettings })).toEqual([]);
  });
});

describe('what was cut out of full drops goes back into them', () => {
  test.each<[string, () => ReturnType<typeof dissection>]>([
    ['40 pieces', () => dissection(41, ROLL_MM, 40)],
    ['150 pieces', () => dissection(250, ROLL_MM, 150)],
    ['equal drops four times', () => dissection(7, ROLL_MM, 80, { repeats: 4 })],
    ['a film with one direction', () => dissection(8, ROLL_MM, 60, { isFixed: true })],
    ['factory edges here and there', () => dissection(9, ROLL_MM, 60, { hasEdges: true })],
    ['two stages', () => deepDissection(10, ROLL_MM, 60, 2)],
  ])('%s: the known optimum, to the millimetre', (_, make) => {
    const { pieces, optimumMm } = make();
    const rolls = [testRoll(ROLL_MM)];
    const layout = layPiecesOnRolls({ filmId: pieces[0]!.filmId, rolls, pieces, settings: plainSettings, seed: 1 }, 120);
    expect(checkLayout(layout, { pieces, rolls, settings: plainSettings })).toEqual([]);
    expect(layout.usedMm).toBeCloseTo(optimumMm, 6);
  });
});

test('a large re-cut rests now and then, so that it can be left, and comes to the same as without', () => {
  const { pieces } = dissection(3, ROLL_MM, 14);
  const types = groupPieces(pieces, plainSettings);
  const counts = types.map((t) => t.pieces.length);
  const first = layPiecesOnRolls({ filmId: pieces[0]!.filmId, rolls: [testRoll(ROLL_MM)], pieces, settings: plainSettings, seed: 1 }, 0);
  const known = Math.ceil(first.usedMm * 320);
  const work = packInPieces(types, counts, bench, known);
  let rests = 0;
  let last = work.next();
  for (; !last.done; last = work.next()) rests++;
  expect(rests).toBeGreaterThan(1);
  expect(last.value).toEqual(packExactly(types, counts, bench, known));
  expect(last.value).not.toBeNull();
});
