import { defaultLeftoverRule } from '@yellow-pane/contracts';
import fc from 'fast-check';
import { jobOfRepeatedSizes, plainSettings, testPiece, testRoll } from './layout/instances.testing.js';
import { layPiecesOnRolls } from './layout/index.js';
import { knifeOrder, restsOf, startEdge } from './knife-order.js';
import { randomInt, seededRandom } from '../ground/index.js';
import { trimCount, workMinutes } from './minutes.js';

const lay = (pieces: ReturnType<typeof jobOfRepeatedSizes>, width = 1524, stages: 3 | 4 = 3) =>
  layPiecesOnRolls({ filmId: pieces[0]!.filmId, rolls: [testRoll(width)], pieces, settings: { ...plainSettings, stages }, seed: 1 }, 30);

/** What lies on the bench: size, and where on the roll, from the mark it was squared at, it began. */
interface Sheet {
  readonly along: number;
  readonly across: number;
  readonly start: number;
}

/**
 * A person with a knife and no drawing: reads each step's words, cuts what lies on the bench, and keeps every sheet.
 * @returns the sheets that lie there at the end, whole mm
 */
function followTheWords(steps: readonly { text: string; kind: string }[], widthMm: number, crosscutMm = 0): Sheet[] {
  const bench: Sheet[] = [];
  let drop: { along: number; start: number; slits: number[] } | null = null;
  let strips: { along: number; across: number }[] = [];
  let ends: number[] = [];
  let x = 0;
  const open = () => {
    if (!drop || strips.length) return;
    const at = [0, ...[...drop.slits].sort((a, b) => a - b), widthMm];
    strips = at.slice(1).map((y, i) => ({ along: drop!.along, across: y - at[i]! }));
    ends = strips.map(() => 0);
  };
  const rests = (): Sheet[] => strips.map((s, i) => ({ along: s.along - ends[i]!, across: s.across, start: drop!.start + ends[i]! }));
  const close = () => {
    open();
    bench.push(...rests());
    strips = [];
  };
  let last: Sheet[] = [];
  for (const { text } of steps) {
    const n = (pattern: RegExp) => pattern.exec(text)?.slice(1).map(Number);
    const pull = n(/^(?:Square the start at a mark of the pattern\. )?(?:Cut (\d+) off first: the pattern begins there\. )?Pull (\d+), cut across$/);
    const slit = n(/^Slit at (\d+)$/);
    const off = n(/^Slit (\d+) off the far edge$/);
    const across = /^(?:Strip (\d+): cut|Cut) across at (\d+)$/.exec(text);
    const trim = /^Trim (.+) to (\d+) (across|along)$/.exec(text);
    const start = n(/^Trim (\d+) off the start of .+: the pattern begins there$/);
    if (pull) {
      if (drop) close();
      x += pull[0] || 0;
      drop = { along: pull[1]!, start: x, slits: [] };
      x += pull[1]! + crosscutMm;
      last = [];
    } else if (slit) drop!.slits.push(slit[0]!);
    else if (off) drop!.slits.push(widthMm - off[0]!);
    else if (across) {
      open();
      const i = Number(across[1] ?? 1) - 1;
      last = [{ along: Number(across[2]) - ends[i]!, across: strips[i]!.across, start: drop!.start + ends[i]! }];
      ends[i] = Number(across[2]) + crosscutMm;
      bench.push(...last);
    } else if (trim || start) {
      open();
      // the words name the piece, which a person reads off the label: it is the sheet just cut, or the rest of a strip
      const sheets = [...last, ...rests()];
      const trimmed = sheets.map((s) =>
        start
          ? { ...s, along: s.along - start[0]!, start: s.start + start[0]! }
          : { ...s, along: trim![3] === 'along' ? Number(trim![2]) : s.along, across: trim![3] === 'across' ? Number(trim![2]) : s.across },
      );
      bench.push(...trimmed);
      // more than one trim of one piece: each goes on from the one before
      last = [...last, ...trimmed];
    } else throw new Error(`These words do not tell what to cut: ${text}`);
  }
  if (drop) close();
  return bench;
}
const sizes = (sheets: readonly Sheet[]) => sheets.map((s) => `${Math.round(s.along)} x ${Math.round(s.across)}`);

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
    const [liner, film] = [false, true].map((isFilmUp) =>
      knifeOrder(
        lay(pieces),
        pieces,
        () => 1524,
        'mm',
        () => isFilmUp,
      ),
    );
    expect(film!.map((s) => s.text)).toContain('Slit 700 off the near edge');
    expect(film!.map((s) => s.key)).toEqual(liner!.map((s) => s.key));
    expect([startEdge(false), startEdge(true)]).toEqual(['near', 'far']);
  });

  test('a film that may lie only one way with its factory edge on the left: the lone piece lies at the far edge and is slit off there', () => {
    const pieces = [testPiece(1, 700, 900, { turns: [0], factoryEdge: 'left' })];
    expect(knifeOrder(lay(pieces), pieces, () => 1524, 'mm').map((s) => s.text)).toEqual(['Pull 900, cut across', 'Slit 700 off the far edge']);
  });

  test('whoever follows the words alone, knowing nothing of the plan, ends with every piece at its size', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5000 }), fc.boolean(), (seed, withEdges) => {
        const pieces = jobOfRepeatedSizes(seed, 1524, 16).map((p, i) =>
          withEdges && i % 3 === 0 ? { ...p, turns: [0 as const], factoryEdge: i % 2 ? ('left' as const) : ('right' as const) } : p,
        );
        const layout = lay(pieces);
        const cutOut = sizes(followTheWords(knifeOrder(layout, pieces, () => 1524, 'mm'), 1524)); // prettier-ignore
        for (const drop of layout.rolls[0]!.drops)
          for (const p of drop.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces)))
            expect(cutOut).toContainEqual(`${Math.round(p.alongMm)} x ${Math.round(p.acrossMm)}`);
      }),
      { seed: 4, numRuns: 30 },
    ));

  test('whoever follows the words over a patterned film has every piece at its size, begun at its place of the pattern', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5000 }), fc.constantFrom(0, 3), (seed, crosscutAllowanceMm) => {
        const random = seededRandom(seed);
        const repeatMm = [64, 530, 640][randomInt(random, 3)]!;
        const pieces = Array.from({ length: 8 }, (_, i) => ({
          ...testPiece(i + 1, 300 + 10 * randomInt(random, 90), 400 + 10 * randomInt(random, 150), { turns: [0] }),
          repeat: { repeatMm, startMm: 10 * randomInt(random, repeatMm / 10) },
        }));
        const settings = { ...plainSettings, crosscutAllowanceMm };
        const layout = layPiecesOnRolls({ filmId: pieces[0]!.filmId, rolls: [testRoll(1524)], pieces, settings, seed: 1 }, 5);
        const cutOut = followTheWords(knifeOrder(layout, pieces, () => 1524, 'mm'), 1524, crosscutAllowanceMm); // prettier-ignore
        for (const p of pieces)
          expect(cutOut.some((s) => Math.abs(s.along - p.heightMm) < 1 && Math.abs(s.across - p.widthMm) < 1 && Math.abs((s.start - p.repeat.startMm) % repeatMm) < 0.5)).toBe(true); // prettier-ignore
      }),
      { seed: 6, numRuns: 60 },
    ));

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
    const rests = restsOf(d, 1524, defaultLeftoverRule).reduce((s, r) => s + r.alongMm * r.acrossMm, 0);
    expect(columns + rests).toBeCloseTo(d.alongMm * 1524, -1);
  }
});

test('fewer trimmed sides take fewer minutes', () => {
  const four = { ...testPiece(1, 900, 1200), trimmedEdges: ['top', 'right', 'bottom', 'left'] as ('top' | 'right' | 'bottom' | 'left')[] };
  const three = { ...four, trimmedEdges: four.trimmedEdges.slice(1) };
  expect(trimCount([four, three])).toBe(7);
  expect(workMinutes([three], 2)).toBeLessThan(workMinutes([four], 2));
});
