import fc from 'fast-check';
import {
  newWall,
  piece,
  type BenchCut,
  type DryAllowances,
  type Hardware,
  type Piece,
  type Wall,
  type WallEnd,
  type WallMeasure,
} from '@yellow-pane/contracts';
import { demoFirm, ternInterior } from '../../../demo/src/index.js';
import { boundingBox } from '../geometry/index.js';
import { Memo } from '../ground/index.js';
import { cutOfWall } from './cut-of-kind.js';
import { filmPlanInput } from './film-plan.js';
import { matchPattern } from './repeat.js';
import { coverOfWall, judgeWall, wallSpan, type WallCorner } from '../measure/index.js';
import { usualDry } from './dry-allowances.js';
import { dropsOf, endReach, layoutOfWall, mayHangTurned, piecesOfWall, type WallLayout, type WallToPiece } from './wall-piece.js';

const id = (n: number) => `01930000-0000-7000-8000-0000000000${n}`;
const film = {
  id: id(40),
  name: 'Ash Plank',
  direction: 'one-way',
  drying: 'dry-applied',
  mounting: 'not-on-glass',
  patternRepeatMm: null,
  stretchMaxPct: null,
} as const;
const end = (is: WallEnd['is'], isFirst = true, more: Partial<WallCorner> = {}): Omit<WallCorner, 'wanderMm'> & { wanderMm?: number | null } => ({ is, angleDeg: null, isFirst, beside: { name: 'Wall B', heightMm: null }, ...more }); // prettier-ignore
const door: Hardware = { id: id(20), what: 'Door', handling: 'open', fromLeftMm: 1500, fromFootMm: 0, widthMm: 900, heightMm: 2050, isElectric: false };
interface Asked extends Partial<Omit<Wall, 'kind' | 'left' | 'right'>> {
  readonly tapes?: Partial<Record<WallMeasure, number>>;
  readonly left?: ReturnType<typeof end>;
  readonly right?: ReturnType<typeof end>;
  readonly allowances?: Partial<DryAllowances>;
  readonly of?: Partial<WallToPiece['film']>;
  readonly rolls?: readonly number[];
  readonly units?: 'mm' | 'in';
  readonly dropsBefore?: number;
}
const plain = { widthTop: 4000, widthBottom: 4000, heightLeft: 2500, heightRight: 2500 };
function asked({
  tapes = plain,
  left = end('stop'),
  right = end('stop'),
  allowances,
  of,
  rolls = [1220],
  units = 'mm',
  dropsBefore = 0,
  ...own
}: Asked = {}): WallToPiece {
  const surface = newWall({ id: id(30), jobId: id(31), placeId: id(32), name: 'Wall A', order: 1, ...own });
  const readings = Object.entries(tapes).map(([measure, lengthMm]) => ({ measure: measure as WallMeasure, lengthMm }));
  const survey = judgeWall({ hardware: surface.hardware, masonry: null, breaks: surface.breaks, corners: { left, right } }, readings);
  return { surface, survey, allowances: { ...usualDry, ...allowances }, film: { ...film, ...of }, rollWidthsMm: rolls, units, run: 'run', dropsBefore };
}
function pieces(a: Asked = {}) {
  const made = piecesOfWall(asked(a));
  if ('blocked' in made) throw new Error(made.blocked);
  return made.pieces;
}
const blocked = (a: Asked): string | null => {
  const made = piecesOfWall(asked(a));
  return 'blocked' in made ? made.blocked : null;
};
const bench = (m: ReturnType<typeof pieces>[number]): readonly BenchCut[] => m.piece.bench ?? [];
const xs = (c: BenchCut) => [Math.min(...c.path.map((q) => q.xMm)), Math.max(...c.path.map((q) => q.xMm))] as const;
const ys = (c: BenchCut) => [Math.min(...c.path.map((q) => q.yMm)), Math.max(...c.path.map((q) => q.yMm))] as const;
const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('the drops of a wall', () => {
  test('full widths of the roll from the end that is hung first, each 25 mm over the one before (common practice: 1 in)', () => {
    const made = pieces();
    expect(made.map((m) => m.suffix)).toEqual(['drop 1', 'drop 2', 'drop 3', 'drop 4']);
    expect(made.slice(0, 3).map((m) => m.piece.widthMm)).toEqual([1220, 1220, 1220]);
    const lapped = made.reduce((s, m) => s + m.piece.widthMm, 0) - 3 * 25;
    // 50 past both ends, and what the tape errs by
    expect(lapped).toBeGreaterThanOrEqual(4100);
    expect(lapped).toBeLessThan(4100 + 10);
    expect(made[0]!.piece.why.join(' ')).toContain('4 drops from the left, each 25 over the one before it. Hung to a plumb line');
    for (const m of made) expect(m.piece.meets).toBe('run');
  });
  test('from floor to ceiling and 50 past both (2 in); where the floor falls each drop has its own length', () => {
    expect(pieces()[0]!.piece.heightMm).toBeGreaterThanOrEqual(2600);
    expect(pieces()[0]!.piece.heightMm).toBeLessThan(2610);
    const sloping = { widthTop: 4000, widthBottom: 4000, heightLeft: 2500, heightRight: 2560, upLeft: 1500, downLeft: 1000, upRight: 1500, downRight: 1060 };
    const high = pieces({ tapes: sloping }).map((m) => m.piece.heightMm);
    expect(high[3]! - high[0]!).toBeGreaterThan(30);
    expect([...high].sort((a, b) => a - b)).toEqual(high);
  });
  test('a last drop narrower than 300 looks like a mend: it and the first share', () => {
    const widths = pieces({ tapes: { ...plain, widthTop: 3600, widthBottom: 3600 } }).map((m) => m.piece.widthMm);
    expect(widths).toHaveLength(4);
    expect(Math.abs(widths[0]! - widths[3]!)).toBeLessThanOrEqual(1);
    expect(widths[0]!).toBeGreaterThan(600);
    expect(widths.slice(1, 3)).toEqual([1220, 1220]);
  });
  test('hung from the right the first drop is the right one; the edge that is seen is the roll’s own', () => {
    const seen = (hungFrom: Wall['hungFrom']) => pieces({ hungFrom }).map((m) => [m.piece.factoryEdge, m.piece.trimmedEdges.includes('right'), m.piece.trimmedEdges.includes('left')]); // prettier-ignore
    // liner up the left edge lies on the right
    expect(seen('left')).toEqual([[null, false, true], [null, false, false], [null, false, false], ['right', true, false]]); // prettier-ignore
    expect(seen('right')).toEqual([[null, true, false], [null, false, false], [null, false, false], ['left', false, true]]); // prettier-ignore
  });
  test('a double cut takes 50 of both (2 in), and asks for no roll edge', () => {
    const made = pieces({ seam: 'double-cut' });
    expect(made[0]!.piece.why.join(' ')).toContain('50 of both under the double cut');
    expect(made.map((m) => m.piece.factoryEdge)).toEqual([null, null, null, null]);
  });
  test('film without a direction lies along a low wall in one length', () => {
    expect(pieces({ tapes: { ...plain, heightLeft: 1000, heightRight: 1000 }, of: { direction: 'none' } })).toMatchObject([
      { suffix: '', piece: { turns: [90, 270] } },
    ]);
    // as long as the wall, wider than any roll; its straight edge cannot be asked for where the roll has none
    const lying = pieces({ tapes: { ...plain, heightLeft: 1000, heightRight: 1000 }, of: { direction: 'none' }, right: end('outside', false) })[0]!.piece;
    expect(lying.widthMm).toBeGreaterThanOrEqual(4000 + 50 - 25);
    expect(lying.heightMm).toBeLessThanOrEqual(1220);
    expect(lying.factoryEdge).toBeNull();
    expect(pieces({ tapes: { ...plain, heightLeft: 1000, heightRight: 1000 } })[0]!.piece.turns).toEqual([0]);
  });
  test('nothing is cut from what nobody taped, nor from film for glass', () => {
    expect(blocked({ tapes: {} })).toBe('No width and height of this wall yet.');
    expect(blocked({ of: { drying: 'reactive', mounting: 'inside' } as never })).toContain('laid wet');
    expect(blocked({ hardware: [{ ...door, fromLeftMm: 9000 }] })).toContain('does not stand on this wall');
    expect(blocked({ hardware: [{ ...door, fromLeftMm: 0, widthMm: 4100, heightMm: 2600 }] })).toBe('Openings take the whole of this wall.');
    expect(
      blocked({
        tapes: { ...plain, widthTop: 60, widthBottom: 60 },
        left: end('outside', false),
        right: end('outside', false),
        allowances: { outsideWrapMm: 80 },
      }),
    ).toMatch(/Nothing of this wall is left/);
  });
});

describe('book-match: every other drop of a run hangs turned half round', () => {
  const book = { hanging: 'book', of: { direction: 'two-way' } } as const;
  const turns = (a: Asked) => pieces({ ...book, ...a }).map((m) => m.piece.turns[0]);
  test('counted from the left whichever end is hung first, so that each seam shows one edge of the roll twice', () => {
    expect(pieces(book).every((m) => m.piece.turns.length === 1)).toBe(true);
    expect(turns({})).toEqual([0, 180, 0, 180]);
    // hung from the right the first is the fourth from the left
    expect(turns({ hungFrom: 'right' })).toEqual([180, 0, 180, 0]);
    expect(turns({ of: { direction: 'none' } })).toEqual([0, 180, 0, 180]);
    expect((layoutOfWall(asked({ ...book, hungFrom: 'right' })) as WallLayout).isTurned).toEqual([true, false, true, false]);
    // the edge of the roll that the right end of one shows is the one that the left end of the next does
    const edgeAt = (turn: number, side: 'left' | 'right') => ((turn === 180) === (side === 'left') ? 'far' : 'near');
    const inOrder = turns({});
    for (let i = 1; i < inOrder.length; i++) expect(edgeAt(inOrder[i]!, 'left')).toBe(edgeAt(inOrder[i - 1]!, 'right'));
  });
  test('what an opening parts hangs one way; drops of the wall on its left count with it', () => {
    const wide: Hardware = { ...door, fromLeftMm: 1100, widthMm: 1300 };
    const parted = pieces({ ...book, hardware: [wide] }).map((m) => [m.suffix, m.piece.turns[0]]);
    expect(parted).toEqual([['drop 1', 0], ['drop 2 above', 180], ['drop 3', 0], ['drop 4', 180]]); // prettier-ignore
    // a low piece over a high door keeps its arrow on it
    const low = pieces({ ...book, hardware: [{ ...wide, heightMm: 2490 }] }).find((m) => m.suffix === 'drop 2 above')!;
    expect(low.piece.heightMm).toBeLessThan(200);
    for (const c of bench(low)) expect(ys(c)[0] >= 0 && ys(c)[1] <= low.piece.heightMm).toBe(true);
    expect(turns({ dropsBefore: 3 })).toEqual([180, 0, 180, 0]);
  });
  test('an arrow on the liner says which end hangs at the ceiling: turned or not, film without a print looks the same in the hand', () => {
    const arrows = pieces(book).map((m) => bench(m).find((c) => c.words.startsWith('Pencil an arrow'))!);
    expect(arrows.map((c) => c.words.endsWith('this drop hangs turned.'))).toEqual([false, true, false, true]);
    for (const [i, c] of arrows.entries()) {
      expect(c.layer).toBe('mark');
      // as it hangs: its point is above
      expect(c.path[1]!.yMm - c.path[0]!.yMm).toBe(200);
      expect(ys(c)[1]).toBeLessThan(pieces(book)[i]!.piece.heightMm);
    }
    expect(pieces(book)[1]!.piece.why.join(' ')).toContain('This one hangs turned.');
    expect(
      pieces({ of: { direction: 'two-way' } })
        .flatMap(bench)
        .some((c) => c.words.includes('arrow')),
    ).toBe(false);
  });
  test('film with one way up has none, and says so; nor has one length that lies along the wall', () => {
    expect([mayHangTurned({ direction: 'one-way' }), mayHangTurned({ direction: 'none' })]).toEqual([false, true]);
    expect(turns({ of: { direction: 'one-way' } })).toEqual([0, 0, 0, 0]);
    const note = (a: Asked) => (piecesOfWall(asked({ ...book, ...a })) as { note?: string | null }).note ?? null;
    expect(note({ of: { direction: 'one-way' } })).toBe('Ash Plank has one way up: none of its drops can hang turned, so there is no book-match.');
    expect([note({}), note({ of: { direction: 'one-way' }, hanging: 'one-way' })]).toEqual([null, null]);
    expect(turns({ tapes: { ...plain, heightLeft: 1000, heightRight: 1000 }, of: { direction: 'none' } })).toEqual([90]);
  });
  test('over a run of walls it goes on: the count of one begins where that of the wall before it ended; another film does not count', () => {
    const file = ternInterior();
    const two = { ...file.films.find((x) => x.name === 'Ash Plank')!, direction: 'two-way' as const };
    const films = file.films.map((x) => (x.id === two.id ? two : x));
    const named = (name: string) => file.surfaces.find((s) => s.name === name)! as Wall;
    const all = (name: string, change: (s: Wall) => Partial<Wall> = () => ({})) => {
      const surfaces = file.surfaces.map((s) => (s.kind === 'wall' ? { ...s, hanging: 'book' as const, ...change(s) } : s));
      const records = { ...file, firm: demoFirm, films, surfaces, memo: new Memo() };
      return cutOfWall(surfaces.find((s) => s.id === named(name).id) as Wall, records, two).pieces.map((p) => [p.label.replace(`${name} `, '').replace(/ (above|below)/, ''), p.turns[0]] as const); // prettier-ignore
    };
    const left = all('Lobby left');
    const drops = new Set(left.map(([label]) => label)).size;
    expect(all('Lobby back')[0]![1]).toBe(drops % 2 ? 180 : 0);
    const other = file.films.find((x) => x.name === 'Block Wall 60')!.id;
    expect(all('Lobby back', (s) => (s.name === 'Lobby left' ? { filmId: other } : {}))[0]![1]).toBe(0);
    // nor do lengths that lie along the wall before it
    const level = { ...two, direction: 'none' as const };
    const surfaces = file.surfaces.map((s) =>
      s.kind === 'wall' ? { ...s, hanging: 'book' as const, lie: s.name === 'Lobby left' ? ('level' as const) : s.lie } : s,
    );
    const records = { ...file, firm: demoFirm, films: file.films.map((x) => (x.id === two.id ? level : x)), surfaces, memo: new Memo() };
    const cut = (name: string) => cutOfWall(surfaces.find((s) => s.name === name) as Wall, records, level).pieces;
    expect([cut('Lobby left').length % 2, cut('Lobby back')[0]!.turns]).toEqual([1, [0]]);
  });
  test('any heights: marks of a pattern lie at one height on all drops of a row, on those that hang turned as well', () => {
    const drop = fc.record({ heightMm: fc.integer({ min: 300, max: 3500 }), headDropMm: fc.integer({ min: 0, max: 2000 }), isTurned: fc.boolean() });
    fc.assert(
      fc.property(fc.array(drop, { minLength: 2, maxLength: 6 }), fc.integer({ min: 20, max: 700 }), fc.boolean(), (list, repeatMm, isHalf) => {
        const base = pieces()[0]!.piece;
        const made = matchPattern(
          list.map((d, i) => ({ piece: { ...base, id: `p${i}`, label: `p${i}`, heightMm: d.heightMm, turns: [d.isTurned ? 180 : 0] as Piece['turns'] }, row: 'r', place: i, headDropMm: d.headDropMm })),
          { patternRepeatMm: repeatMm, patternMatch: isHalf ? 'half-drop' : 'straight' },
        ); // prettier-ignore
        // height of a mark against the line of the row, by where the piece begins on the roll: its foot, or its head where it hangs turned
        const marks = made.map((p, i) => {
          const { headDropMm, heightMm, isTurned } = list[i]!;
          const toMark = repeatMm - p.repeat!.startMm;
          return isTurned ? -headDropMm - toMark : -headDropMm - heightMm + toMark;
        });
        return marks.every((m, i) => {
          const off = (((m - marks[0]! - (isHalf && i % 2 ? repeatMm / 2 : 0)) % repeatMm) + repeatMm) % repeatMm;
          return Math.min(off, repeatMm - off) < 0.02;
        });
      }),
      { numRuns: 200 },
    );
  });
});

describe('lengths along a wall, one over the other', () => {
  const along = { lie: 'level', of: { direction: 'none' }, rolls: [1370], tapes: { widthTop: 10_000, widthBottom: 10_000, heightLeft: 3000, heightRight: 3000 } } as const; // prettier-ignore
  test('10 × 3 m from a roll of 1370 in three lengths from the foot up, each 25 over the one below (common practice: 1 in), the uppermost past the ceiling', () => {
    const made = pieces(along);
    expect(made.map((m) => m.suffix)).toEqual(['length 1', 'length 2', 'length 3']);
    expect(made.map((m) => [m.piece.turns, m.piece.heightMm <= 1370, m.piece.widthMm >= 10_100])).toEqual(made.map(() => [[90, 270], true, true]));
    const { levels } = layoutOfWall(asked(along)) as WallLayout;
    levels.slice(1).forEach((l, i) => expect(levels[i]!.highMm - l.lowMm).toBeCloseTo(25, 9));
    // and what the tapes may err by
    expect(levels[0]!.lowMm).toBeLessThanOrEqual(-50);
    expect(levels[0]!.lowMm).toBeGreaterThan(-53);
    expect(levels.at(-1)!.highMm).toBeGreaterThanOrEqual(3050);
    // what is seen is the edge of the roll; film is trimmed at floor, ceiling and ends
    expect(made.map((m) => [m.piece.factoryEdge, m.piece.trimmedEdges])).toEqual([
      [null, ['right', 'bottom', 'left']],
      [null, ['right', 'left']],
      ['bottom', ['top', 'right', 'left']],
    ]);
    expect(made[1]!.piece.why.join(' ')).toContain('3 lengths from the foot up, each 25 over the one below it: no edge of them holds dust.');
    for (const m of made) expect(m.piece.meets).toBe('run');
  });
  test('the record takes them: a length of 30 m with all its cuts is promised and kept like any piece', () => {
    const long = pieces({ ...along, tapes: { ...along.tapes, widthTop: 30_000, widthBottom: 30_000 }, hardware: [{ ...door, id: id(24), what: 'Socket', handling: 'off', fromLeftMm: 29_000, fromFootMm: 300, widthMm: 80, heightMm: 80 }] }); // prettier-ignore
    for (const m of long) {
      const read = piece.safeParse({ ...m.piece, id: m.suffix, label: m.suffix, cornerOf: null });
      expect(read.error?.issues ?? []).toEqual([]);
    }
    expect(long.flatMap((m) => m.piece.bench ?? []).length).toBeGreaterThan(0);
  });
  test('the liner is folded back at the end where it begins; what film is cut round lies at its height in the length that covers it', () => {
    const socket: Hardware = { ...door, id: id(23), what: 'Socket', handling: 'off', fromLeftMm: 4000, fromFootMm: 1500, widthMm: 80, heightMm: 80 };
    const made = pieces({ ...along, hardware: [socket], hungFrom: 'right' });
    const folds = made.map((m) => bench(m).find((c) => c.words.startsWith('Fold'))!);
    // told and drawn liner up: the right end lies on the left
    for (const c of folds) {
      expect(c.words).toContain('100 from the left edge as it lies');
      expect(xs(c)).toEqual([100, 100]);
    }
    const crosses = made.map((m) => bench(m).filter((c) => c.words.startsWith('Socket')));
    expect(crosses.map((c) => c.length)).toEqual([0, 1, 0]);
    const { levels } = layoutOfWall(asked({ ...along, hardware: [socket] })) as WallLayout;
    expect(ys(crosses[1]![0]!)[0] + levels[1]!.lowMm).toBeGreaterThan(1499);
    expect(ys(crosses[1]![0]!)[1] + levels[1]!.lowMm).toBeLessThan(1581);
  });
  test('returns at its ends are slit in every length; film of one roll width lies in one, as before', () => {
    const ends = pieces({ ...along, right: end('inside') }).map((m) => bench(m).filter((c) => c.layer === 'liner').length);
    expect(ends).toEqual([1, 1, 1]);
    const low = { ...along, tapes: { ...plain, heightLeft: 1000, heightRight: 1000 } };
    expect(pieces(low).map((m) => m.suffix)).toEqual(['']);
    expect((layoutOfWall(asked(low)) as WallLayout).levels).toEqual([]);
  });
  test('film with a direction hangs; under a ceiling that breaks it hangs as well: both are said', () => {
    expect(blocked({ ...along, of: { direction: 'one-way' } })).toBe('Ash Plank has a direction that stands upright: let its drops hang.');
    const gable = { lie: 'level', of: { direction: 'none' }, tapes: { widthBottom: 6000, upLeft: 1400, downLeft: 1000, upRight: 1400, downRight: 1000 }, breaks: [{ id: id(60), fromLeftMm: 3000, upMm: 3000, downMm: null }] } satisfies Asked; // prettier-ignore
    expect(blocked(gable)).toContain('without breaks');
    expect(pieces({ ...along, of: { direction: 'none', patternRepeatMm: 500 } })[0]!.piece.why.join(' ')).toContain('not matched from one length to the next');
    expect(pieces(along)[0]!.piece.why.join(' ')).not.toContain('pattern');
  });
  test('any wall on any roll: lengths cover it from floor to ceiling with their laps, none wider than the roll', () => {
    const drawn = fc.record({ wide: mm(700, 12_000), high: mm(1500, 4500), rise: mm(-60, 60), roll: fc.constantFrom(610, 1220, 1370, 1524), lapMm: mm(5, 60), isInch: fc.boolean(), isDouble: fc.boolean() }); // prettier-ignore
    fc.assert(
      fc.property(drawn, (d) => {
        const a: Asked = {
          lie: 'level',
          of: { direction: 'none' },
          rolls: [d.roll],
          tapes: { widthTop: d.wide, widthBottom: d.wide, upLeft: d.high - 1000, downLeft: 1000, upRight: d.high - 1000, downRight: 1000 + d.rise },
          allowances: { lapMm: d.lapMm },
          seam: d.isDouble ? 'double-cut' : 'overlap',
          units: d.isInch ? 'in' : 'mm',
        };
        const { levels } = layoutOfWall(asked(a)) as WallLayout;
        if (levels.length === 0) return pieces(a).length === 1;
        const span = wallSpan(asked(a).survey, 0, d.wide)!;
        const lap = d.isDouble ? usualDry.doubleCutMm : d.lapMm;
        const made = pieces(a);
        return (
          levels[0]!.lowMm <= span.lowMm - usualDry.panelMm + 1e-6 &&
          levels.at(-1)!.highMm >= span.highMm + usualDry.panelMm - 1e-6 &&
          levels.slice(1).every((l, i) => Math.abs(levels[i]!.highMm - l.lowMm - lap) < 1e-6) &&
          made.every((m, i) => m.piece.heightMm <= d.roll + 1e-6 && m.piece.heightMm >= levels[i]!.highMm - levels[i]!.lowMm - 1e-6) &&
          made.every((m) => m.piece.widthMm >= d.wide + 2 * usualDry.panelMm - 1e-6) &&
          made.every((m) => bench(m).every((c) => xs(c)[0] >= -1e-6 && xs(c)[1] <= m.piece.widthMm + 1e-6 && ys(c)[0] >= -1e-6 && ys(c)[1] <= m.piece.heightMm + 1e-6))
        ); // prettier-ignore
      }),
      { numRuns: 150 },
    );
  });
});

describe('ends and corners', () => {
  const reach = (e: ReturnType<typeof end>, a: Partial<DryAllowances> = {}) =>
    endReach('right', { wanderMm: null, ...e }, { ...usualDry, ...a }, (v) => String(v));
  test('the first film of an inside corner turns on to the other wall by the guide, the second is trimmed in it; both have 38 mm of liner slit (common practice: 1½ in)', () => {
    expect(reach(end('inside', true, { wanderMm: 0 }))).toMatchObject({ reachMm: 38, returnMm: 13, linerMm: 38 });
    expect(reach(end('inside', false, { wanderMm: 0 }))).toMatchObject({ reachMm: 38, returnMm: 0, linerMm: 38 });
    // a corner that wanders by 30 needs 39 of return, and so more film
    expect(reach(end('inside', true, { wanderMm: 30 }))).toMatchObject({ reachMm: 49, returnMm: 39, linerMm: 49 });
    expect(reach(end('inside', true, { wanderMm: 30 })).words).toContain('the corner wanders 30: the usual 13 would leave less than 6 of lap');
  });
  test('no seam on an arris: the first film goes 50 round it, the other begins 25 from it and lies 25 over', () => {
    expect(reach(end('outside', true))).toMatchObject({ reachMm: 60, returnMm: 50 });
    expect(reach(end('outside', false))).toMatchObject({ reachMm: -25, returnMm: 0 });
    // however wide the lap, it never comes back to the arris
    expect(reach(end('outside', false), { lapMm: 120 }).reachMm).toBe(-5);
  });
  test('the two films of an outside corner overlap by the lap and leave nothing bare', () => {
    fc.assert(
      fc.property(mm(10, 300), mm(5, 150), (outsideWrapMm, lapMm) => {
        const [one, other] = [reach(end('outside', true), { outsideWrapMm, lapMm }), reach(end('outside', false), { outsideWrapMm, lapMm })];
        const over = one.returnMm + other.reachMm;
        return over > 0 && over <= lapMm + 1e-9 && (Math.abs(over - lapMm) < 1e-9 || other.reachMm === -5);
      }),
    );
  });
  test('a left and a right corner piece are mirrored: liner up, the edge that goes into the right corner lies on the left', () => {
    const right = pieces({ right: end('inside') }).at(-1)!;
    const left = pieces({ left: end('inside') })[0]!;
    const slit = (m: typeof right) => bench(m).find((c) => c.layer === 'liner')!;
    expect(xs(slit(right))[0]).toBeCloseTo(38, 6);
    expect(xs(slit(left))[0]).toBeCloseTo(left.piece.widthMm - 38, 6);
    expect(slit(right).words).toBe('Slit the liner only, 38 from the left edge as it lies, from end to end: this edge goes into the corner.');
    expect(slit(left).words).toContain('38 from the right edge as it lies');
    expect(ys(slit(right))).toEqual([0, right.piece.heightMm]);
    // only the drop at the corner has it
    expect(pieces({ right: end('inside') }).map((m) => bench(m).filter((c) => c.layer === 'liner').length)).toEqual([0, 0, 0, 1]);
  });
  test('the arris of an outside corner is pencilled on the film that goes round it', () => {
    const last = pieces({ right: end('outside') }).at(-1)!;
    expect(bench(last).find((c) => c.words.includes('arris'))).toMatchObject({
      layer: 'mark',
      words: 'Pencil on the liner: the arris, 60 from the left edge as it lies; 50 beyond it stay on the other wall.',
    });
    const over = pieces({ tapes: { ...plain, widthTop: 1000, widthBottom: 1000 }, right: end('outside', false) });
    expect(over).toHaveLength(1);
    // its edge is seen: the roll’s own, liner up on the left
    expect(over[0]!.piece.factoryEdge).toBe('left');
  });
});

test('where the wall beside it makes their corner higher, the drop there is long enough for both', () => {
  const at = (heightMm: number | null) => pieces({ right: end('inside', true, { beside: { name: 'Wall B', heightMm } }) }).map((m) => m.piece.heightMm);
  const [alike, higher, lower] = [at(2500), at(2545), at(2455)];
  expect(higher.map((v, i) => v - alike[i]!)).toEqual([0, 0, 0, 45]);
  expect(lower).toEqual(alike);
});

describe('openings and covers', () => {
  test('a cross over each, where it comes to lie when the piece hangs; a cover hides its cut', () => {
    const socket: Hardware = { ...door, id: id(21), what: 'Socket', handling: 'off', fromLeftMm: 300, fromFootMm: 400, widthMm: 80, heightMm: 80 };
    const [first, second] = pieces({ hardware: [socket, door] });
    const cross = bench(first!).filter((c) => c.words.startsWith('Socket'));
    expect(cross).toHaveLength(1);
    // 50 of film to the left of the wall, mirrored
    expect(first!.piece.widthMm - xs(cross[0]!)[1]).toBeCloseTo(350, 6);
    // above the floor, by what its tapes may err
    expect(ys(cross[0]!)[0]).toBeGreaterThanOrEqual(450);
    expect(ys(cross[0]!)[0]).toBeLessThan(453);
    expect(cross[0]!.words).toContain('its cover goes over the cut');
    expect(bench(second!).filter((c) => c.words.startsWith('Door'))).toHaveLength(1);
    expect(bench(second!).every((c) => c.layer !== 'film' || c.later)).toBe(true);
  });
  test('an opening as wide as a drop parts it: one piece above it, one below a window', () => {
    const wide = { ...door, fromLeftMm: 1000, widthMm: 1600 };
    const made = pieces({ hardware: [wide] });
    expect(made.map((m) => m.suffix)).toEqual(['drop 1', 'drop 2 above', 'drop 3', 'drop 4']);
    expect(made[1]!.piece.heightMm).toBeLessThan(2500 - 2050 + 110);
    expect(made[1]!.piece.heightMm).toBeGreaterThanOrEqual(2500 - 2050 + 100);
    // at the end of the wall too, where film reaches past the opening: nothing of it is left to be cut; a second one over it is
    const high = { ...door, id: id(23), what: 'Light', fromLeftMm: 200, fromFootMm: 2150, widthMm: 600, heightMm: 200 };
    const [above] = pieces({ hardware: [{ ...wide, fromLeftMm: 0, widthMm: 1300 }, high] });
    expect(above!.suffix).toBe('drop 1 above');
    expect(
      bench(above!)
        .filter((c) => c.layer === 'film')
        .map((c) => c.words.split(':')[0]),
    ).toEqual(['Light']);
    expect(pieces({ hardware: [{ ...wide, fromFootMm: 900, heightMm: 1000 }] }).map((m) => m.suffix)).toEqual([
      'drop 1',
      'drop 2 above',
      'drop 2 below',
      'drop 3',
      'drop 4',
    ]);
  });
});

describe('drops of a wall that breaks', () => {
  const gable = { widthBottom: 6000, heightLeft: 2400, heightRight: 2400, upLeft: 1400, downLeft: 1000, upRight: 1400, downRight: 1000 };
  const ridge = [{ id: id(51), fromLeftMm: 3000, upMm: 2900, downMm: null }];
  test('under a gable each is as long as the slope is high over its own width, and what is too much is cut off at the bench', () => {
    const made = pieces({ tapes: gable, breaks: ridge });
    expect(made).toHaveLength(6);
    const { drops } = layoutOfWall(asked({ tapes: gable, breaks: ridge })) as WallLayout;
    // 0.5 up for each along, and the ridge in the third and fourth
    for (const [i, m] of made.entries()) {
      const high = Math.max(...[drops[i]!.fromMm, drops[i]!.toMm, 3000].filter((x) => x >= drops[i]!.fromMm && x <= drops[i]!.toMm).map((x) => 3900 - 0.5 * Math.abs(Math.min(6000, Math.max(0, x)) - 3000))); // prettier-ignore
      expect(m.piece.heightMm - high - 100).toBeGreaterThanOrEqual(0);
      expect(m.piece.heightMm - high - 100).toBeLessThan(12);
    }
    const rough = bench(made[0]!)[0]!;
    expect(rough.words).toMatch(
      /^Rough cut, 50 past the ceiling, as it lies: at the left edge 0 below the top end, \d+ from the left edge \d+, at the right edge \d+\. /,
    );
    expect(bench(made[0]!).some((c) => c.words.startsWith('Fold'))).toBe(false);
    // a straight wall is folded and not cut
    expect(bench(pieces({ tapes: gable })[0]!).map((c) => c.words.split(/[:,]/)[0])).toEqual(['Fold']);
  });
  test('a slope that falls by less than 100 over a drop is trimmed on the wall', () =>
    expect(pieces({ tapes: { ...gable, heightRight: 2450, upRight: 1450 }, breaks: [{ ...ridge[0]!, upMm: 1440 }] }).flatMap(bench).map((c) => c.layer)).not.toContain('film')); // prettier-ignore
  test('where the tapes leave more than one wall possible nothing is cut off at the bench', () =>
    expect(
      pieces({ tapes: { ...gable, heightLeft: 2450 }, breaks: ridge })
        .flatMap(bench)
        .filter((c) => c.words.startsWith('Rough')),
    ).toEqual([]));
  test('nothing is cut before both ends of a line that breaks are taped, nor where a break cannot be', () => {
    expect(blocked({ tapes: { widthBottom: 6000, heightLeft: 2400 }, breaks: ridge })).toBe(
      'Its ceiling breaks: tape up from the level line at both ends first.',
    );
    expect(blocked({ tapes: gable, breaks: [{ ...ridge[0]!, fromLeftMm: 6500 }] })).toContain('cannot be as it was taped');
  });
  test('any breaks: what is left of each drop still reaches past ceiling and floor everywhere', () => {
    const broken = fc.array(fc.record({ share: mm(0.05, 0.95), up: fc.option(mm(900, 3500)), down: fc.option(mm(-300, 1200)) }), {
      minLength: 1,
      maxLength: 5,
    });
    fc.assert(
      fc.property(broken, mm(1500, 8000), fc.constantFrom(610, 1220, 1524), fc.boolean(), fc.boolean(), (list, wide, roll, isRight, isInch) => {
        const breaks = list
          .map((b, i) => ({ id: id(60 + i), fromLeftMm: b.share * wide, upMm: b.up, downMm: b.down }))
          .sort((a, b) => a.fromLeftMm - b.fromLeftMm);
        const a: Asked = {
          tapes: { widthBottom: wide, upLeft: 1400, downLeft: 1000, upRight: 1700, downRight: 900 },
          breaks,
          rolls: [roll],
          hungFrom: isRight ? 'right' : 'left',
          units: isInch ? 'in' : 'mm',
        };
        const { survey } = asked(a);
        if (survey.doubts.length) return blocked(a) !== null;
        const made = pieces(a);
        const { drops } = layoutOfWall(asked(a)) as WallLayout;
        return made.every((m, i) => {
          const rough = bench(m).filter((c) => c.words.startsWith('Rough'));
          const span = wallSpan(survey, Math.max(0, drops[i]!.fromMm), Math.min(coverOfWall(survey)!.widthMm, drops[i]!.toMm))!;
          const footMm = span.lowMm - usualDry.panelMm;
          // along its width, as it hangs: the cut is drawn liner up
          return Array.from({ length: 25 }, (_, k) => drops[i]!.fromMm + ((drops[i]!.toMm - drops[i]!.fromMm) * k) / 24).every((x) => {
            if (x < 0 || x > wide || breaks.some((b) => Math.abs(b.fromLeftMm - x) < 5)) return true;
            const { lowMm, highMm } = wallSpan(survey, x, x + 1e-6, 0)!;
            const lies = m.piece.widthMm - (x - drops[i]!.fromMm);
            const cutAt = (line: string, none: number) => {
              const path = rough.find((c) => c.words.includes(line))?.path;
              if (!path) return none;
              const sorted = [...path].reverse();
              const j = Math.max(
                1,
                sorted.findIndex((p) => p.xMm >= lies - 1e-9),
              );
              const [p, q] = [sorted[j - 1]!, sorted[j]!];
              return p.yMm + ((q.yMm - p.yMm) * (lies - p.xMm)) / Math.max(1e-9, q.xMm - p.xMm);
            };
            return footMm + cutAt('ceiling', m.piece.heightMm) >= highMm + usualDry.panelMm - 2 && footMm + cutAt('floor', 0) <= lowMm - usualDry.panelMm + 2;
          });
        });
      }),
      { numRuns: 150 },
    );
  });
});

const corners = fc.record({ is: fc.constantFrom<WallEnd['is']>('stop', 'inside', 'outside'), isFirst: fc.boolean(), wanderMm: fc.option(mm(0, 25)) });
test('any wall on any roll: drops cover it from end to end with their laps, floor to ceiling; none is wider than the roll; no slit of the liner lies on a film cut; every cut is on its film', () => {
  const drawn = fc.record({ wide: mm(700, 9000), left: corners, right: corners, high: mm(1800, 4000), rise: mm(-60, 60), roll: fc.constantFrom(610, 1219.2, 1220, 1524), lapMm: mm(5, 60), isRight: fc.boolean(), isDouble: fc.boolean(), isInch: fc.boolean(), at: mm(0.1, 0.8) }); // prettier-ignore
  fc.assert(
    fc.property(drawn, (d) => {
      const box: Hardware = {
        ...door,
        id: id(22),
        what: 'Box',
        handling: 'round',
        fromLeftMm: d.at * (d.wide - 80),
        fromFootMm: d.at * 1000,
        widthMm: 80,
        heightMm: 80,
      };
      const a: Asked = {
        tapes: { widthTop: d.wide, widthBottom: d.wide, upLeft: d.high - 1000, downLeft: 1000, upRight: d.high - 1000, downRight: 1000 + d.rise },
        left: end(d.left.is, d.left.isFirst, { wanderMm: d.left.wanderMm }),
        right: end(d.right.is, d.right.isFirst, { wanderMm: d.right.wanderMm }),
        rolls: [d.roll],
        allowances: { lapMm: d.lapMm },
        hungFrom: d.isRight ? 'right' : 'left',
        seam: d.isDouble ? 'double-cut' : 'overlap',
        units: d.isInch ? 'in' : 'mm',
        hardware: [box],
      };
      const request = asked(a);
      const made = pieces(a);
      const order = d.isRight ? [...made].reverse() : made;
      const reachOf = (side: 'left' | 'right') => endReach(side, request.survey.corners[side], request.allowances, String).reachMm;
      const lap = d.isDouble ? usualDry.doubleCutMm : d.lapMm;
      const wallMm = boundingBox(request.survey.body!.outline).maxX - boundingBox(request.survey.body!.outline).minX;
      const whole = wallMm + reachOf('left') + reachOf('right');
      const sum = made.reduce((s, m) => s + m.piece.widthMm, 0) - (made.length - 1) * lap;
      const mark = d.isInch ? 25.4 / 16 : 1;
      let from = -reachOf('left');
      const covers = order.every((m) => {
        const to = from + m.piece.widthMm;
        const span = wallSpan(request.survey, Math.max(0, from), Math.min(wallMm, to), 0)!;
        from = to - lap;
        return m.piece.heightMm >= span.highMm - span.lowMm + 2 * usualDry.panelMm - 1e-6;
      });
      const isClear = made.every((m) => {
        const slits = bench(m).filter((c) => c.layer === 'liner');
        const cuts = bench(m).filter((c) => c.layer === 'film' && !c.later);
        const isOn = bench(m).every((c) => c.path.every((q) => q.xMm >= -mark - 1e-6 && q.xMm <= m.piece.widthMm + 1e-6 && q.yMm >= -1e-6 && q.yMm <= m.piece.heightMm + 1e-6)); // prettier-ignore
        return cuts.length === 0 && slits.every((s) => xs(s)[0] > 0 && xs(s)[1] < m.piece.widthMm) && isOn;
      });
      const crosses = made.flatMap(bench).filter((c) => c.words.startsWith('Box'));
      return (
        made.every((m) => m.piece.widthMm <= d.roll + 1e-6) &&
        sum >= whole - 1e-6 &&
        sum <= whole + 8 + made.length * mark &&
        covers &&
        isClear &&
        // in one drop, or in both where it lies on a seam or in a lap
        (crosses.length === 1 || crosses.length === 2)
      );
    }),
    { numRuns: 400 },
  );
});

test('a pattern runs on over all drops of a run, round its corners: every one of them is set to the longest of all, one head beside the other', () => {
  const file = ternInterior();
  const records = { ...file, firm: demoFirm, entries: [], memo: new Memo() } as unknown as Parameters<typeof filmPlanInput>[0];
  const film = file.films.find((f) => f.name === 'Ash Plank')!;
  const { pieces: all } = filmPlanInput(records, file.job.cut as never, film.id, undefined);
  const run = all.filter((p) => p.label.startsWith('Lobby'));
  const longest = Math.max(...run.map((p) => p.heightMm));
  expect(run).toHaveLength(8);
  expect(new Set(run.map((p) => p.meets)).size).toBe(1);
  expect(run.map((p) => p.repeat!.startMm)).toEqual(run.map((p) => Math.round((longest - p.heightMm) * 100) / 100));
  // three walls, not one alone
  expect(new Set(run.map((p) => p.surfaceId)).size).toBe(3);
});

describe('the place in the pattern', () => {
  const file = ternInterior();
  const film = file.films.find((f) => f.name === 'Ash Plank')!;
  const plan = (patternMatch: 'straight' | 'half-drop', change: (w: Wall) => Wall) => {
    const surfaces = file.surfaces.map((s) => (s.kind === 'wall' && s.name === 'Lobby back' ? change(s) : s));
    const films = file.films.map((f) => (f.id === film.id ? { ...f, patternMatch, patternRepeatMm: 640 } : f));
    const records = { ...file, films, surfaces, firm: demoFirm, entries: [], memo: new Memo() } as unknown as Parameters<typeof filmPlanInput>[0];
    return filmPlanInput(records, file.job.cut as never, film.id, undefined).pieces.filter((p) => p.label.startsWith('Lobby'));
  };
  const startOf = (list: ReturnType<typeof plan>, label: string) => list.find((p) => p.label === label)!.repeat!.startMm;
  /** An opening wider than the second drop, a metre above the floor. */
  const hatch: Hardware = { id: id(20), what: 'Hatch', handling: 'open', fromLeftMm: 500, fromFootMm: 1000, widthMm: 1400, heightMm: 600, isElectric: false };
  test('what hangs below an opening goes on where the drop would have gone on, and counts as the same drop', () => {
    for (const match of ['straight', 'half-drop'] as const) {
      const whole = plan(match, (w) => w);
      const parted = plan(match, (w) => ({ ...w, hardware: [hatch] }));
      const below = parted.find((p) => p.label === 'Lobby back drop 2 below')!;
      // its foot is the foot of the whole drop: it starts at the same place of the pattern
      // within the mark of a rule that lengths are rounded up to
      expect(Math.abs(below.repeat!.startMm - startOf(whole, 'Lobby back drop 2'))).toBeLessThanOrEqual(1);
      expect(startOf(parted, 'Lobby back drop 3')).toBe(startOf(whole, 'Lobby back drop 3'));
    }
  });
  test('one more of a spoiled drop goes where that one was to go, and shifts nobody else', () => {
    const whole = plan('half-drop', (w) => w);
    const again = plan('half-drop', (w) => ({ ...w, extraPieces: [{ id: id(70), why: 'spoiled', at: '2026-12-01T08:00:00.000Z', part: 0 } as never] }));
    expect(startOf(again, 'Lobby back drop 1 again')).toBe(startOf(whole, 'Lobby back drop 1'));
    for (const p of whole) expect(startOf(again, p.label)).toBe(p.repeat!.startMm);
  });
});

test('drops share the first and the last width for any length, and never leave a mend', () => {
  fc.assert(
    fc.property(mm(100, 20_000), fc.constantFrom(610, 1220, 1524), mm(5, 60), (whole, widest, lap) => {
      const made = dropsOf({ fromMm: 0, toMm: whole }, widest, lap, 'left');
      const widths = made.map((x) => x.toMm - x.fromMm);
      const joined = made.slice(1).every((x, i) => Math.abs(made[i]!.toMm - x.fromMm - lap) < 1e-6);
      return joined && Math.abs(made.at(-1)!.toMm - whole) < 1e-6 && widths.every((w) => w <= widest + 1e-6 && (made.length === 1 || w >= 300 - 1e-6));
    }),
    { numRuns: 500 },
  );
});
