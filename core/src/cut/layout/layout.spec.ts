import fc from 'fast-check';
import highsLoader from 'highs';
import type { CutSettings, Edge, Piece, Turn } from '@yellow-pane/contracts';
import { seededRandom, randomInt } from '../../ground/index.js';
import { sampleOf } from '../../ground/sample.testing.js';
import { boundLayout } from './bound.js';
import { checkLayout } from './check-layout.js';
import { packExactly } from './exact.js';
import { dissection, jobOfRepeatedSizes, plainSettings, testPiece, testRoll } from './instances.testing.js';
import { benchFor, groupPieces, rollSideOf } from './model.js';
import { layPiecesOnRolls, ONE_WAY_ROUND, type LayoutInput } from './planner.js';

const inputOf = (pieces: readonly Piece[], rollWidthMm: number, settings: CutSettings = plainSettings, metres = 500): LayoutInput => ({
  filmId: testPiece(0, 1, 1).filmId,
  rolls: [testRoll(rollWidthMm, metres)],
  pieces,
  settings,
  seed: 1,
});
const faultsOf = (input: LayoutInput, layout = layPiecesOnRolls(input, 3)) =>
  checkLayout(layout, { pieces: input.pieces, rolls: input.rolls, settings: input.settings });

describe('the independent checker', () => {
  const input = inputOf([testPiece(1, 700, 900), testPiece(2, 700, 900), testPiece(3, 400, 500, { factoryEdge: 'left' })], 1524);
  const good = layPiecesOnRolls(input, 10);
  const spoil = (change: (copy: typeof good) => void) => {
    const copy = structuredClone(good);
    change(copy);
    return faultsOf(input, copy).join(' ');
  };
  const first = (l: typeof good) => l.rolls[0]!.drops[0]!.columns[0]!.rows[0]!.pieces[0]!;

  test('passes a good plan', () => expect(faultsOf(input, good)).toEqual([]));
  test('finds a piece that is missing, doubled or foreign', () => {
    expect(spoil((l) => void (first(l).pieceId = l.rolls[0]!.drops.at(-1)!.columns.at(-1)!.rows[0]!.pieces[0]!.pieceId))).toMatch(
      /laid 0 times.*laid 2 times|laid 2 times.*laid 0 times/,
    );
  });
  test('finds a piece cut too small', () => expect(spoil((l) => void (first(l).acrossMm -= 1))).toContain('too small'));
  test('finds a turn that is not allowed', () =>
    expect(spoil((l) => void (first(l).turn = first(l).turn === 0 ? 90 : 0))).toMatch(/too small|too large|may not be turned/));
  test('finds overlap', () =>
    expect(
      spoil((l) => l.rolls[0]!.drops.forEach((d) => d.columns.forEach((c) => ((c.yMm = 0), c.rows.forEach((r) => r.pieces.forEach((p) => (p.yMm = 0))))))),
    ).toContain('overlap'));
  test('finds sums that do not add up', () => expect(spoil((l) => void (l.usedMm += 5))).toContain('sum'));
  test('finds more film used than there is', () =>
    expect(checkLayout(good, { ...input, rolls: [{ ...input.rolls[0]!, availableMm: 100 }] }).join(' ')).toContain('are there'));
  test('finds a factory edge in the middle of the roll', () => {
    const edge = spoil((l) => {
      for (const d of l.rolls[0]!.drops)
        for (const c of d.columns) for (const r of c.rows) for (const p of r.pieces) if (p.pieceId === input.pieces[2]!.id) p.yMm = 300;
    });
    expect(edge).toContain('factory edge does not lie on a roll edge');
  });
});

describe('laying pieces on the roll', () => {
  test('every random plan can be cut: right sizes, turns, factory edges, nothing overlapping, sums right', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.constantFrom(1220, 1524, 1829), fc.constantFrom<3 | 4>(3, 4), (seed, width, stages) => {
        const random = seededRandom(seed);
        const edges: (Edge | null)[] = [null, null, null, 'left', 'right', 'top'];
        const turnSets: Turn[][] = [[0, 90, 180, 270], [0, 180], [0]];
        const pieces = Array.from({ length: 1 + randomInt(random, 18) }, (_, i) => {
          const factoryEdge = edges[randomInt(random, edges.length)]!;
          const turns: Turn[] = factoryEdge === 'top' ? [90, 270] : factoryEdge ? [0, 180] : turnSets[randomInt(random, 3)]!;
          return testPiece(i + 1, 200 + randomInt(random, 1100), 200 + randomInt(random, 1500), { turns, factoryEdge });
        });
        const settings: CutSettings = {
          ...plainSettings,
          stages,
          crosscutAllowanceMm: randomInt(random, 4),
          slitAllowanceMm: randomInt(random, 2),
          largestSheetM2: random() < 0.3 ? 3.5 : null,
        };
        expect(faultsOf(inputOf(pieces, width, settings))).toEqual([]);
      }),
      { seed: 11, numRuns: sampleOf(1000, 250) },
    ));

  test('film on roll = pieces + rests: nothing is lost or won', () => {
    const pieces = jobOfRepeatedSizes(4, 1524, 60);
    const layout = layPiecesOnRolls(inputOf(pieces, 1524), 60);
    const area = pieces.reduce((s, p) => s + p.widthMm * p.heightMm, 0);
    const laid = layout.rolls[0]!.drops.flatMap((d) => d.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces))).reduce(
      (s, p) => s + p.acrossMm * p.alongMm,
      0,
    );
    expect(laid).toBeCloseTo(area, 3);
    expect(layout.usedMm * 1524).toBeGreaterThanOrEqual(area);
  });

  test('same input, seed and steps: the same plan to the last grain', () => {
    const input = inputOf(jobOfRepeatedSizes(9, 1524, 60), 1524);
    expect(layPiecesOnRolls(input, 80)).toEqual(layPiecesOnRolls(input, 80));
  });

  test('more steps never make it longer by more than counts as equal', () => {
    const input = inputOf(jobOfRepeatedSizes(12, 1829, 80), 1829);
    const used = [0, 10, 30, 60].map((steps) => layPiecesOnRolls(input, steps).usedMm);
    used.slice(1).forEach((length, i) => expect(length).toBeLessThanOrEqual(used[i]! * 1.002 + 0.001));
  });

  test('of plans that are equally long, the one with fewer cuts', () => {
    for (const seed of [41, 42, 43]) {
      const input = inputOf(jobOfRepeatedSizes(seed, 1524, 16), 1524);
      const [first, later] = [layPiecesOnRolls(input, 0), layPiecesOnRolls(input, 60)];
      if (Math.abs(first.usedMm - later.usedMm) < 0.002 * first.usedMm) expect(later.cutCount).toBeLessThanOrEqual(first.cutCount);
      else expect(later.usedMm).toBeLessThan(first.usedMm);
    }
  });

  test('a piece narrower than the smallest strip is not laid, and says why', () => {
    const layout = layPiecesOnRolls(inputOf([testPiece(1, 45, 900), testPiece(2, 700, 900)], 1524), 5);
    expect(layout.unplaced[0]!.reason).toContain('narrower than the smallest strip');
  });

  test('a piece wider than any roll is named with what to do, and the others are laid', () => {
    const layout = layPiecesOnRolls(inputOf([testPiece(1, 1900, 2100), testPiece(2, 700, 900)], 1524), 10);
    expect(layout.unplaced).toEqual([
      { pieceId: testPiece(1, 1, 1).id, reason: 'It is 1900 mm at its narrowest and the widest roll is 1524 mm: it needs a seam.' },
    ]);
    expect(layout.usedMm).toBeGreaterThan(0);
  });

  describe('a piece left out names the setting without which it would lie on the roll', () => {
    const why = (piece: Piece, more: Partial<CutSettings> = {}, units: 'mm' | 'in' = 'mm') => {
      const input = inputOf([piece], 1524);
      return layPiecesOnRolls({ ...input, settings: { ...input.settings, ...more }, units }, 0).unplaced[0]?.reason ?? null;
    };
    test('the direction of all pieces, that of the film, the pull, the heaviest sheet', () => {
      const lying = testPiece(1, 1900, 1200, { turns: [0, 180] });
      expect(why(lying)).toContain('this film may lie one way only');
      expect(why({ ...lying, why: [ONE_WAY_ROUND] })).toContain('all pieces of this film lie one way round: let them lie any way round');
      expect(why(testPiece(1, 1200, 3700), { longestPullMm: 3600 })).toBe('It is longer than the longest pull of this bench, 3600 mm (“Pull”).');
      expect(why(testPiece(1, 1200, 3700), { longestPullMm: 3800 })).toBeNull();
      expect(why(testPiece(1, 1200, 3000), { largestSheetM2: 3 })).toContain('3 m² is the heaviest that this bench allows');
    });
    test('in the units of the job', () => {
      expect(why(testPiece(1, 1900, 2100), {}, 'in')).not.toContain('mm');
      expect(why(testPiece(1, 1200, 3700), { longestPullMm: 3600 }, 'in')).not.toContain('mm');
    });
  });

  test('a film that may not be turned is not turned to save length', () => {
    const layout = layPiecesOnRolls(inputOf([testPiece(1, 500, 1400, { turns: [0] })], 1524), 10);
    expect(layout.usedMm).toBeCloseTo(1400, 6);
  });

  test('longest pull and heaviest sheet bound every drop', () => {
    const pieces = Array.from({ length: 20 }, (_, i) => testPiece(i + 1, 1400, 600));
    const light = layPiecesOnRolls(inputOf(pieces, 1524, { ...plainSettings, largestSheetM2: 2 }), 60);
    for (const d of light.rolls[0]!.drops) expect((d.alongMm * 1524) / 1e6).toBeLessThanOrEqual(2 + 1e-6);
    const short = layPiecesOnRolls(inputOf(pieces, 1524, { ...plainSettings, longestPullMm: 700 }), 60);
    for (const d of short.rolls[0]!.drops) expect(d.alongMm).toBeLessThanOrEqual(700);
  });

  test('a roll that is too short gives what it has, and the rest is said', () => {
    const layout = layPiecesOnRolls(
      inputOf(
        Array.from({ length: 10 }, (_, i) => testPiece(i + 1, 1500, 1000)),
        1524,
        plainSettings,
        4.5,
      ),
      20,
    );
    expect(layout.rolls[0]!.usedMm).toBeLessThanOrEqual(4500);
    expect(layout.unplaced).toHaveLength(6);
  });

  test('when one roll ends, another of the same film takes over', () => {
    const pieces = Array.from({ length: 6 }, (_, i) => testPiece(i + 1, 1200, 1000));
    const rolls = [{ ...testRoll(1524, 3.2) }, { ...testRoll(1220, 30), id: '00000000-0000-7000-8000-00000000aaaa' }];
    const input = { ...inputOf(pieces, 1524), rolls };
    const layout = layPiecesOnRolls(input, 20);
    expect(layout.unplaced).toEqual([]);
    expect(faultsOf(input, layout)).toEqual([]);
  });

  test('many small pieces in one drop are more than one exact re-cut takes, and are laid all the same', () => {
    const pieces = Array.from({ length: 120 }, (_, i) => testPiece(i + 1, 100 + (i % 9), 120));
    expect(faultsOf(inputOf(pieces, 1524))).toEqual([]);
  });

  test('locked drops stay; the rest is laid behind them', () => {
    const pieces = jobOfRepeatedSizes(3, 1524, 20);
    const before = layPiecesOnRolls(inputOf(pieces, 1524), 30);
    const kept = before.rolls[0]!.drops[2]!;
    const input = { ...inputOf(pieces, 1524), rolls: [{ ...testRoll(1524), fixedDrops: [kept] }] };
    const after = layPiecesOnRolls(input, 30);
    expect(after.rolls[0]!.drops[0]!.columns.map((c) => c.acrossMm)).toEqual(kept.columns.map((c) => c.acrossMm));
    expect(faultsOf(input, after)).toEqual([]);
  });

  test('seen liner up with the top pointing along the roll, the right side lies at the near edge', () => {
    expect(rollSideOf('right', 0)).toBe('low');
    expect(rollSideOf('left', 0)).toBe('high');
    expect(rollSideOf('top', 90)).toBe('low');
    expect(rollSideOf('top', 0)).toBeNull();
  });
});

/** All ways to split a list into groups. */
function* partitions<T>(list: readonly T[]): Generator<T[][]> {
  const [head, ...tail] = list;
  if (head === undefined) return yield [];
  for (const rest of partitions(tail)) {
    yield [[head], ...rest];
    for (let i = 0; i < rest.length; i++) yield rest.map((g, j) => (i === j ? [head, ...g] : g));
  }
}

/** Shortest single drop that holds these pieces, by trying every column split and every turn. */
function shortestDrop(pieces: readonly Piece[], width: number, longest: number): number {
  let best = Infinity;
  for (const columns of partitions(pieces))
    for (let turns = 0; turns < 1 << pieces.length; turns++) {
      let across = 0;
      let along = 0;
      for (const column of columns) {
        let [w, l] = [0, 0];
        for (const p of column) {
          const turned = (turns >> pieces.indexOf(p)) & 1;
          w = Math.max(w, turned ? p.heightMm : p.widthMm);
          l += turned ? p.widthMm : p.heightMm;
        }
        across += w;
        along = Math.max(along, l);
      }
      if (across <= width && along <= longest) best = Math.min(best, along);
    }
  return best;
}

describe('close to the mathematical limit', () => {
  test('small jobs are as short as an integer programme over all drops says (solved with highs)', async () => {
    const highs = await highsLoader();
    for (let seed = 1; seed <= 6; seed++) {
      const random = seededRandom(seed);
      const pieces = Array.from({ length: 5 }, (_, i) => testPiece(i + 1, 300 + randomInt(random, 900), 300 + randomInt(random, 1200)));
      const terms: string[] = [];
      const covers: string[][] = pieces.map(() => []);
      for (let set = 1; set < 1 << pieces.length; set++) {
        const length = shortestDrop(
          pieces.filter((_, i) => (set >> i) & 1),
          1524,
          3600,
        );
        if (!Number.isFinite(length)) continue;
        terms.push(`${length} d${set}`);
        pieces.forEach((_, i) => (set >> i) & 1 && covers[i]!.push(`d${set}`));
      }
      const names = terms.map((t) => t.split(' ')[1]!);
      const solved = highs.solve(
        `Minimize\n obj: ${terms.join(' + ')}\nSubject To\n${covers.map((c, i) => ` p${i}: ${c.join(' + ')} = 1`).join('\n')}\nBinary\n ${names.join(' ')}\nEnd`,
      );
      const layout = layPiecesOnRolls(inputOf(pieces, 1524), 0);
      expect(layout.usedMm).toBeCloseTo(solved.ObjectiveValue, 3);
    }
  });

  test.each([1, 2, 3])('a made dissection of few pieces (seed %i) is found again exactly', (seed) => {
    const { pieces, optimumMm } = dissection(seed, 1524, 7);
    expect(layPiecesOnRolls(inputOf(pieces, 1524), 200).usedMm).toBeCloseTo(optimumMm, 3);
  });

  test('no plan beats the bound, and on a job of repeated sizes the plan is within 3 % of it', () => {
    for (const seed of [21, 22, 23]) {
      const pieces = jobOfRepeatedSizes(seed, 1524, 50);
      const types = groupPieces(pieces, plainSettings);
      const counts = types.map((t) => t.pieces.length);
      const bench = benchFor(1524, plainSettings);
      const bound = boundLayout(types, counts, [{ bench, costPerGrain: 1 }]).cost / 320;
      const layout = layPiecesOnRolls(inputOf(pieces, 1524), 60);
      expect(layout.usedMm).toBeGreaterThanOrEqual(bound - 0.01);
      expect(layout.usedMm).toBeLessThanOrEqual(1.03 * bound);
    }
  });

  test('an unfinished bound is lower, never higher', () => {
    const pieces = jobOfRepeatedSizes(31, 1829, 60);
    const types = groupPieces(pieces, plainSettings);
    const counts = types.map((t) => t.pieces.length);
    const roll = { bench: benchFor(1829, plainSettings), costPerGrain: 1 };
    const full = boundLayout(types, counts, [roll], 80);
    expect(full.isTight).toBe(true);
    for (const rounds of [1, 3, 6]) expect(boundLayout(types, counts, [roll], rounds).cost).toBeLessThanOrEqual(full.cost * (1 + 1e-9));
  });

  test('a fourth stage is never longer than three', () => {
    const pieces = dissection(5, 1220, 6).pieces;
    const types = groupPieces(pieces, plainSettings);
    const counts = types.map((t) => t.pieces.length);
    const along = (drops: readonly { along: number }[]) => drops.reduce((sum, d) => sum + d.along, 0);
    const three = along(packExactly(types, counts, benchFor(1220, plainSettings), 1e8)!);
    const four = along(packExactly(types, counts, benchFor(1220, { ...plainSettings, stages: 4 }), 1e8)!);
    expect(four).toBeLessThanOrEqual(three);
  });
});
