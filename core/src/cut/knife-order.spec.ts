import fc from 'fast-check';
import { jobOfRepeatedSizes, plainSettings, testPiece, testRoll } from './layout/instances.testing.js';
import { layPiecesOnRolls } from './layout/index.js';
import { knifeOrder, restsOf, startEdge } from './knife-order.js';
import { trimCount, workMinutes } from './minutes.js';

const lay = (pieces: ReturnType<typeof jobOfRepeatedSizes>, width = 1524, stages: 3 | 4 = 3) =>
  layPiecesOnRolls({ filmId: pieces[0]!.filmId, rolls: [testRoll(width)], pieces, settings: { ...plainSettings, stages }, seed: 1 }, 30);

describe('the knife order', () => {
  test('one pane on a wider roll: pull, cut across, slit', () => {
    const pieces = [testPiece(1, 1260, 2150, { turns: [0] })];
    const steps = knifeOrder(lay(pieces), pieces, () => 1524, 'mm');
    expect(steps.map((s) => s.text)).toEqual(['Pull 2150, cut across', 'Slit at 1260']);
    expect(steps[1]!.finishes).toEqual([pieces[0]!.id]);
  });

  test('inches are cut by sixteenths', () => {
    const pieces = [testPiece(1, 20.5 * 25.4, 30 * 25.4, { turns: [0] })];
    expect(knifeOrder(lay(pieces), pieces, () => 1524, 'in').map((s) => s.text)).toEqual(['Pull 30", cut across', 'Slit at 20 1/2"']);
  });

  test('a piece against the far edge is slit off from there', () => {
    const pieces = [testPiece(1, 700, 900, { turns: [0], factoryEdge: 'left' }), testPiece(2, 500, 900, { turns: [0], factoryEdge: 'right' })];
    const texts = knifeOrder(lay(pieces), pieces, () => 1524, 'mm').map((s) => s.text);
    expect(texts).toContain('Slit 700 off the far edge');
    expect(texts).toContain('Slit at 500');
  });

  test('with the film side up the sheet lies turned over: the same cuts count from the other edge, under the same keys', () => {
    const pieces = [testPiece(1, 700, 900, { turns: [0], factoryEdge: 'left' }), testPiece(2, 500, 900, { turns: [0], factoryEdge: 'right' })];
    const [liner, film] = [false, true].map((isFilmUp) => knifeOrder(lay(pieces), pieces, () => 1524, 'mm', isFilmUp));
    expect(film!.map((s) => s.text)).toContain('Slit 700 off the near edge');
    expect(film!.map((s) => s.key)).toEqual(liner!.map((s) => s.key));
    expect([startEdge(false), startEdge(true)]).toEqual(['near', 'far']);
  });

  test('every piece is finished exactly once, drops in order, keys told apart', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5000 }), fc.constantFrom<3 | 4>(3, 4), (seed, stages) => {
        const pieces = jobOfRepeatedSizes(seed, 1524, 14);
        const steps = knifeOrder(lay(pieces, 1524, stages), pieces, () => 1524, 'mm');
        expect(steps.flatMap((s) => s.finishes).sort()).toEqual(pieces.map((p) => p.id).sort());
        expect(new Set(steps.map((s) => s.key)).size).toBe(steps.length);
        expect(steps.map((s) => s.dropIndex)).toEqual([...steps.map((s) => s.dropIndex)].sort((a, b) => a - b));
      }),
      { seed: 2, numRuns: 60 },
    ));

  test('drops come in the order the panes are hung', () => {
    const pieces = jobOfRepeatedSizes(8, 1524, 30);
    const layout = lay(pieces);
    const firsts = layout.rolls[0]!.drops.map((d) =>
      Math.min(...d.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces.map((p) => pieces.findIndex((x) => x.id === p.pieceId))))),
    );
    expect(firsts).toEqual([...firsts].sort((a, b) => a - b));
  });
});

test('rests and pieces fill the drop', () => {
  const pieces = jobOfRepeatedSizes(5, 1524, 25);
  for (const d of lay(pieces).rolls[0]!.drops) {
    const columns = d.columns.reduce((s, c) => s + c.rows.reduce((t, r) => t + r.alongMm * c.acrossMm, 0), 0);
    const rests = restsOf(d, 1524).reduce((s, r) => s + r.alongMm * r.acrossMm, 0);
    expect(columns + rests).toBeCloseTo(d.alongMm * 1524, -1);
  }
});

test('fewer trimmed sides take fewer minutes', () => {
  const four = { ...testPiece(1, 900, 1200), trimmedEdges: ['top', 'right', 'bottom', 'left'] as ('top' | 'right' | 'bottom' | 'left')[] };
  const three = { ...four, trimmedEdges: four.trimmedEdges.slice(1) };
  expect(trimCount([four, three])).toBe(7);
  expect(workMinutes([three], 2)).toBeLessThan(workMinutes([four], 2));
});
