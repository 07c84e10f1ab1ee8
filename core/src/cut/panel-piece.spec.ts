import fc from 'fast-check';
import {
  benchCut,
  newPanel,
  type BenchCut,
  type Corrugation,
  type DryAllowances,
  type Groove,
  type Hardware,
  type Panel,
  type PanelMeasure,
} from '@yellow-pane/contracts';
import { demoFirm, ternInterior } from '../../../demo/src/index.js';
import { Memo } from '../ground/index.js';
import { girthOfRibs, grooveGirth, judgePanel, judgeRibs, besidesOf } from '../measure/index.js';
import { filmPlanInput } from './film-plan.js';
import { usualDry } from './dry-allowances.js';
import { checkLayout, layPiecesOnRolls } from './layout/index.js';
import { cornersOfPanel, developed, piecesOfPanel, type PanelToPiece } from './panel-piece.js';
import { runsOn } from './runs-on.js';
import { GRIP_MM, wrapDepth } from './wrapped-edges.js';

const id = (n: number) => `01930000-0000-7000-8000-0000000000${n}`;
const film = {
  id: id(40),
  name: 'Ash Plank',
  direction: 'one-way',
  drying: 'dry-applied',
  mounting: 'not-on-glass',
  patternRepeatMm: 640,
  stretchMaxPct: null,
} as const;
const groove = (g: Partial<Groove>): Groove => ({ id: id(10), run: { way: 'upright', fromLeftMm: 120 }, toFarEdgeMm: null, form: 'square', widthMm: 8, depthMm: 3, flatMm: 0, girthMm: null, ...g }); // prettier-ignore
const lever: Hardware = { id: id(20), what: 'Lock', handling: 'round', fromLeftMm: 780, fromFootMm: 1000, widthMm: 50, heightMm: 220, isElectric: false };
interface Asked extends Partial<Omit<Panel, 'kind'>> {
  readonly wide?: number;
  readonly high?: number;
  readonly edge?: number | null;
  readonly allowances?: Partial<DryAllowances>;
  readonly of?: Partial<PanelToPiece['film']>;
  readonly rolls?: readonly number[];
  readonly units?: 'mm' | 'in';
}
function asked({ wide = 860, high = 2040, edge = 40, allowances, of, rolls = [1220], units = 'mm', ...own }: Asked = {}): PanelToPiece {
  const surface = newPanel({ id: id(30), jobId: id(31), placeId: id(32), name: 'Door 1', order: 1, ...own });
  const tapes = [['widthMiddle', wide], ['heightMiddle', high], ...(edge === null ? [] : [['edgeThickness', edge]])] as [PanelMeasure, number][]; // prettier-ignore
  const survey = judgePanel(surface, tapes.map(([measure, lengthMm]) => ({ measure, lengthMm }))); // prettier-ignore
  return { surface, survey, allowances: { ...usualDry, ...allowances }, film: { ...film, ...of }, rollWidthsMm: rolls, units };
}
function pieces(a: Asked = {}) {
  const made = piecesOfPanel(asked(a));
  if ('blocked' in made) throw new Error(made.blocked);
  return made.pieces;
}
const blocked = (a: Asked): string | null => {
  const made = piecesOfPanel(asked(a));
  return 'blocked' in made ? made.blocked : null;
};
const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const trimmed = { left: 'trimmed', right: 'trimmed', top: 'trimmed', bottom: 'trimmed' } as const;
const all = { left: 'edge', right: 'edge', top: 'edge', bottom: 'edge' } as const;
const boxOf = (c: BenchCut) => ({ left: Math.min(...c.path.map((p) => p.xMm)), right: Math.max(...c.path.map((p) => p.xMm)), foot: Math.min(...c.path.map((p) => p.yMm)), top: Math.max(...c.path.map((p) => p.yMm)) }); // prettier-ignore
/** What the face's tapes err by, twice their standard deviation: in every size. */
const size = (mm: number): number => Math.ceil(mm);
const later = (p: { bench?: readonly BenchCut[] | undefined }) => (p.bench ?? []).filter((c) => c.later);

describe('leaves that stand side by side', () => {
  const turns = (a: Asked) => pieces(a).map((m) => m.piece.turns);
  test('head up and head down lie the other way round on the roll, so that both show the same edge of it where they meet', () => {
    expect(turns({})).toEqual([[0]]);
    expect(turns({ head: 'up' })).toEqual([[0]]);
    expect(turns({ head: 'down' })).toEqual([[180]]);
    expect(turns({ head: 'down', grain: 'level', rolls: [2500] })).toEqual([[270]]);
    // film that runs both ways lies as it is cheapest, unless a head is asked for
    const both = { of: { direction: 'two-way' as const } };
    expect([turns(both), turns({ ...both, head: 'up' }), turns({ ...both, head: 'down' })]).toEqual([[[0, 180]], [[0]], [[180]]]);
    // and plain film knows no head
    expect(turns({ of: { direction: 'none' }, head: 'down' })).toEqual(turns({ of: { direction: 'none' } }));
  });
  test('in strips each lies as the whole would', () => {
    expect(turns({ wide: 1400, head: 'down' })).toEqual([[180], [180]]);
  });
  test('grain that goes on over them: all of it from one lot, its strips too', () => {
    const run = (a: Asked) => {
      const p = asked(a);
      return piecesOfPanel({ ...p, leaves: [{ ...p, surface: { ...p.surface, id: id(77) } }, p] });
    };
    for (const a of [{}, { wide: 1400 }, { faces: 'both' as const }]) {
      const made = run(a);
      if ('blocked' in made) throw new Error(made.blocked);
      expect(new Set(made.pieces.map((m) => m.piece.meets))).toEqual(new Set([id(77)]));
      expect(made.pieces[0]!.piece.why.join(' ')).toContain('one lot, heads at one mark of the pattern');
      expect(made.pieces.every((m) => !m.runsOn)).toBe(true);
    }
    expect(pieces()[0]!.piece.meets).toBeNull();
  });
  test('a run is told from its left; a leaf that was deleted parts it, and a ring ends', () => {
    const leaf = (n: number, left: number | null, more: Partial<Panel> = {}) =>
      newPanel({ id: id(n), jobId: id(31), placeId: id(32), name: `Leaf ${n}`, order: n, besideId: left === null ? null : id(left), ...more });
    const three = [leaf(41, null), leaf(42, 41), leaf(43, 42)];
    const names = (of: Panel, all: Panel[]) => besidesOf(of, { surfaces: all }).map((p) => p.name);
    for (const p of three) expect(names(p, three)).toEqual(['Leaf 41', 'Leaf 42', 'Leaf 43']);
    expect(names(three[2]!, [three[0]!, { ...three[1]!, deletedAt: '2026-12-01T09:00:00.000Z' }, three[2]!])).toEqual(['Leaf 43']);
    expect(names(three[0]!, [{ ...three[0]!, besideId: id(43) }, three[1]!, three[2]!])).toHaveLength(3);
  });
  test('patterned film has their heads at one mark: a shorter leaf starts so much farther on', () => {
    const file = ternInterior();
    const [one, two] = ['Door 1', 'Door 6'].map((name) => file.surfaces.find((s) => s.name === name) as Panel);
    const plan = (besideId: string | null) => {
      const surfaces = file.surfaces.map((s) => (s.id === two!.id ? { ...s, besideId } : s));
      const films = file.films.map((f) => (f.name === 'Ash Plank' ? { ...f, patternRepeatMm: 640, patternMatch: 'straight' as const } : f));
      const records = { ...file, films, surfaces, firm: demoFirm, entries: [], memo: new Memo() } as unknown as Parameters<typeof filmPlanInput>[0];
      const { pieces: all } = filmPlanInput(records, file.job.cut as never, one!.filmId!, undefined);
      return [one!, two!].map((d) => all.find((p) => p.surfaceId === d.id)!);
    };
    const [alone, apart] = plan(null);
    expect([alone!.repeat!.startMm, apart!.repeat!.startMm]).toEqual([0, 0]);
    const [first, second] = plan(one!.id);
    expect(first!.heightMm - second!.heightMm).toBe(5);
    expect([first!.repeat!.startMm, second!.repeat!.startMm]).toEqual([0, 5]);
    expect(first!.meets).toBe(second!.meets);
  });
});

describe('grain that lies level over leaves side by side', () => {
  const trim = { left: 'trimmed', right: 'trimmed', top: 'trimmed', bottom: 'trimmed' } as const;
  /** Fronts of the reception, side by side, as wide as said; the second has its edges wrapped, the third a groove. */
  const planned = (wide: readonly number[], more: Partial<Panel> = {}, of: { repeatMm?: number; match?: 'half-drop' } = {}) => {
    const file = ternInterior();
    const first = file.surfaces.find((s) => s.name === 'Door 1') as Panel;
    const ash = file.films.find((f) => f.name === 'Ash Plank')!;
    const own = { grooves: [], hardware: [], besideId: null, extraPieces: [], grain: 'level' as const, wraps: trim, faces: 'front' as const };
    const leaves = wide.map((_, i): Panel => ({
      ...first,
      ...own,
      id: id(50 + i),
      name: `Front ${i + 1}`,
      order: i,
      besideId: i ? id(49 + i) : null,
      ...more,
    }));
    // unlike on the left and on the right: a piece taken for its mirror image would be 7 mm off; its head reaches 7 farther too
    if (leaves[1]) leaves[1] = { ...leaves[1], wraps: { ...trim, left: 'return', top: 'return' } };
    if (leaves[2]) leaves[2] = { ...leaves[2], grooves: [groove({})] };
    const reading = (surfaceId: string, measure: PanelMeasure, lengthMm: number, n: number) => ({ ...file.readings[0]!, id: `${surfaceId}${n}`, surfaceId, measure, lengthMm, supersededAt: null, believed: null, what: 'length' }); // prettier-ignore
    const readings = leaves.flatMap((l, i) => [
      reading(l.id, 'widthMiddle', wide[i]!, 1),
      reading(l.id, 'heightMiddle', 700, 2),
      reading(l.id, 'edgeThickness', 22, 3),
    ]);
    const films = file.films.map((f) => (f.id === ash.id ? { ...f, patternRepeatMm: of.repeatMm ?? 640, patternMatch: of.match ?? ('straight' as const) } : f));
    const records = { ...file, films, surfaces: leaves, readings, firm: demoFirm, entries: [], memo: new Memo() } as unknown as Parameters<
      typeof filmPlanInput
    >[0];
    const input = filmPlanInput(records, file.job.cut as never, ash.id, undefined);
    const layout = layPiecesOnRolls(input.layout, 200);
    expect(layout.unplaced).toEqual([]);
    expect(checkLayout(layout, { pieces: input.pieces, rolls: input.layout.rolls, settings: input.layout.settings })).toEqual([]);
    const placed = layout.rolls.flatMap((r) => r.drops.flatMap((d) => d.columns.flatMap((c) => c.rows.flatMap((w) => w.pieces))));
    return leaves.map((leaf) => {
      const piece = input.pieces.find((q) => q.surfaceId === leaf.id)!;
      const at = placed.find((q) => q.pieceId === piece.id)!;
      // the pencilled face as it lies, liner up: turned by a quarter the piece begins on the roll at its right side, which is the left of whoever stands before the face
      const face = boxOf(piece.bench![0]!);
      const [fromStartMm, fromEndMm] = [piece.widthMm - face.right, face.left];
      const isHeadDown = at.turn === 270;
      return {
        leaf,
        piece,
        at,
        leftArrisMm: isHeadDown ? at.xMm + at.alongMm - fromStartMm : at.xMm + fromStartMm,
        rightArrisMm: isHeadDown ? at.xMm + fromEndMm : at.xMm + at.alongMm - fromEndMm,
        headMm: piece.heightMm - face.top,
      };
    });
  };
  const between = (a: number, b: number, repeatMm: number) => {
    const off = (((a - b) % repeatMm) + repeatMm) % repeatMm;
    return Math.min(off, repeatMm - off);
  };

  test('on the roll the pattern at the right arris of one is the pattern at the left arris of the next, girth of its grooves and all', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 300, max: 1100 }), { minLength: 2, maxLength: 4 }), fc.constantFrom(64, 530, 640), (wide, repeatMm) => {
        const run = planned(wide, {}, { repeatMm });
        for (const [i, { at, leftArrisMm, leaf }] of run.entries()) {
          expect(at.turn).toBe(90);
          const next = run[i + 1];
          if (!next) continue;
          const slackMm = leaf.grooves.length ? 6 : 0;
          expect(between(leftArrisMm + wide[i]! + slackMm, next.leftArrisMm, repeatMm)).toBeLessThan(0.1);
        }
        // what the roll shows across is at one height on all: heads at one edge, each 57 from its arris (22 of edge, 25 of return, 10 to hold)
        expect(new Set(run.map((r) => r.at.yMm))).toEqual(new Set([0]));
        for (const r of run) expect(Math.abs(r.headMm - 57)).toBeLessThan(1e-6);
      }),
      { numRuns: 12 },
    );
  });
  test('half a drop is between what hangs side by side: along the roll nothing is shifted', () => {
    const start = (match?: 'half-drop') => planned([600, 600, 600], {}, match ? { match } : {}).map((r) => r.piece.repeat!.startMm);
    expect(start('half-drop')).toEqual(start());
    // 600 of the first face, and 7 that the second piece reaches farther past its left arris
    expect(start()[1]).toBe(600 - 7);
  });
  test('with all heads down it runs on too, from the right', () => {
    const run = planned([500, 700], { head: 'down' });
    expect(run.map((r) => r.at.turn)).toEqual([270, 270]);
    const [left, right] = run as [(typeof run)[number], (typeof run)[number]];
    // from the right arris of the last to its left, and on from the right arris of the one before
    expect(between(right.rightArrisMm + 700, left.rightArrisMm, 640)).toBeLessThan(0.1);
  });
  test('a leaf that nobody taped parts the run: what stands behind it begins anew', () => {
    const faces = [{ id: 'a', alongMm: 500 }, { id: 'b', alongMm: null }, { id: 'c', alongMm: 700 }]; // prettier-ignore
    const of = (isHeadDown: boolean) => faces.map((f) => runsOn(faces, f.id, 50, { isHeadDown })).map((r) => [r.row.split('/')[0], r.fromMm]);
    expect(of(false)).toEqual([['a', -50], ['a', 450], ['c alone', -50]]); // prettier-ignore
    expect(of(true)).toEqual([['a alone', -50], ['a', 650], ['a', -50]]); // prettier-ignore
  });
  test('behind them the row is seen from its other end', () => {
    const p = asked({ grain: 'level', high: 700, faces: 'both', wraps: trim });
    const leaves = [p, { ...p, surface: { ...p.surface, id: id(77) } }];
    const made = leaves.map((l) => piecesOfPanel({ ...p, surface: l.surface, leaves }));
    const on = made.map((m) => ('blocked' in m ? [] : m.pieces.map((x) => [x.runsOn!.row.split('/')[1], x.runsOn!.fromMm])));
    expect(on).toEqual([[['front', -50], ['back', 810]], [['front', 810], ['back', -50]]]); // prettier-ignore
    if (!('blocked' in made[0]!)) expect(made[0]!.pieces[0]!.piece.why.join(' ')).toContain('each begins in the repeat where the one before it ends');
    // without a repeat nothing can be matched, and nothing is claimed
    const plain = piecesOfPanel({ ...p, film: { ...p.film, patternRepeatMm: null, stretchMaxPct: null }, leaves });
    if (!('blocked' in plain)) expect(plain.pieces[0]!.piece.why.join(' ')).toContain('in kind only, not line for line');
  });
});

describe('the piece of a panel', () => {
  test('a wide door in strips, in inches, with all that is to be said of it: a plan can keep every word', () => {
    for (const units of ['mm', 'in'] as const)
      for (const { piece } of pieces({
        wide: 1400,
        hinges: 'right',
        faces: 'both',
        wraps: all,
        units,
        grooves: [groove({ run: { way: 'frame', fromLeftMm: 120, fromFootMm: 150, acrossMm: 1100, upMm: 700 } })],
      }))
        // prettier-ignore
        for (const c of piece.bench ?? []) expect(benchCut.safeParse(c).error).toBeUndefined();
  });
  test('reaches 50 mm past the face on every side (common practice: 2 in); an edge of 40 and 10 to hold are in them', () => {
    const [{ piece }] = pieces() as [ReturnType<typeof pieces>[number]];
    const margin = 2 * (1 + 0.0001 * 860);
    expect(piece.widthMm).toBe(size(860 + margin + 100));
    expect(piece.heightMm).toBe(size(2040 + 2 * (1 + 0.0001 * 2040) + 100));
    expect(pieces({ wraps: trimmed, edge: null })[0]!.piece.widthMm).toBe(piece.widthMm);
  });
  test('a thicker edge, and film on to the back, ask for more', () => {
    const narrow = pieces({ wraps: trimmed })[0]!.piece.widthMm;
    expect(pieces({ edge: 60 })[0]!.piece.widthMm - narrow).toBe(2 * (60 + GRIP_MM - 50));
    expect(pieces({ wraps: { ...trimmed, left: 'return' } })[0]!.piece.widthMm - narrow).toBe(40 + 25 + GRIP_MM - 50);
    expect(pieces({ allowances: { panelMm: 80 } })[0]!.piece.widthMm - narrow).toBe(60);
  });
  test('grooves are in it with their girth: upright ones across, level ones upwards, frames as many as one line crosses', () => {
    const plain = pieces()[0]!.piece;
    const frame = (n: number, fromFootMm: number) => groove({ id: id(n), run: { way: 'frame', fromLeftMm: 120, fromFootMm, acrossMm: 620, upMm: 700 } });
    const by = (grooves: Groove[]) => {
      const { piece } = pieces({ grooves })[0]!;
      return [piece.widthMm - plain.widthMm, piece.heightMm - plain.heightMm];
    };
    expect(by([groove({})])).toEqual([6, 0]);
    expect(by([groove({ run: { way: 'level', fromFootMm: 900 } })])).toEqual([0, 6]);
    expect(by([frame(11, 150)])).toEqual([12, 12]);
    // one above the other: a line across goes through one of them, a line up through both
    expect(by([frame(11, 150), frame(12, 1000)])).toEqual([12, 24]);
    expect(by([frame(11, 150), frame(12, 1000), groove({ run: { way: 'upright', fromLeftMm: 60 } })])).toEqual([18, 24]);
  });
  test('nothing is cut from what nobody taped', () => {
    expect(blocked({ edge: null })).toBe('Film is to go over its left and right: tape how thick its edge is first.');
    expect(blocked({ grooves: [groove({ form: 'moulding' })] })).toBe('The girth of the upright moulding 1 is not known: press a string into it.');
    expect(blocked({ grooves: [groove({ run: { way: 'upright', fromLeftMm: 2000 } })] })).toContain('cannot be as it was taped');
    expect(piecesOfPanel({ ...asked(), survey: judgePanel({ grooves: [], recesses: [], corrugation: null, dome: null, hardware: [] }, []) })).toEqual({
      blocked: 'No width and height of its face yet.',
    });
  });
  test('film for glass is no film for a door', () => expect(blocked({ of: { drying: 'reactive', mounting: 'inside' } as never })).toContain('laid wet'));
  test('film on both faces: the front goes 25 mm on to the back, beneath the film there, so that no seam lies on the arris', () => {
    const [front, back] = pieces({ faces: 'both' });
    expect([front!.suffix, back!.suffix]).toEqual(['front', 'back']);
    expect(front!.piece.widthMm - pieces({ wraps: trimmed })[0]!.piece.widthMm).toBe(2 * (40 + 25 + GRIP_MM - 50));
    expect(back!.piece.widthMm).toBe(pieces({ wraps: trimmed })[0]!.piece.widthMm);
    expect(back!.piece.why[0]).toContain('Over what was returned it ends 3 from the arris');
    expect(pieces({ faces: 'both', wraps: trimmed })[1]!.piece.why[0]).not.toContain('arris');
    expect(front!.piece.meets).toBe(back!.piece.meets);
    expect(wrapDepth('edge', 40, true, usualDry)).toBe(65);
    expect(wrapDepth('edge', 40, false, usualDry)).toBe(40);
    expect(wrapDepth('trimmed', 40, true, usualDry)).toBe(0);
  });
  test('the direction of the film runs as it is wanted: along the roll upright, a quarter turned level', () => {
    const turns = (grain: Panel['grain'], direction: 'one-way' | 'two-way' | 'none') => pieces({ grain, of: { direction }, high: 900 })[0]!.piece.turns;
    expect(turns('upright', 'one-way')).toEqual([0]);
    expect(turns('level', 'one-way')).toEqual([90]);
    expect(turns('level', 'two-way')).toEqual([90, 270]);
    expect(turns('level', 'none')).toEqual([0, 90, 180, 270]);
  });
  test('inch jobs round up to a sixteenth', () => {
    const { widthMm } = pieces({ units: 'in' })[0]!.piece;
    expect((widthMm / 25.4) * 16).toBeCloseTo(Math.round((widthMm / 25.4) * 16), 9);
  });
});

describe('a panel wider than its roll', () => {
  const wide = { wide: 1500, wraps: trimmed, edge: null } as const;
  test('is covered by strips that lap; they all go on to the roll and come from one lot', () => {
    const made = pieces(wide);
    expect(made.map((m) => m.suffix)).toEqual(['right', 'left']);
    const whole = pieces({ ...wide, rolls: [2000] })[0]!.piece.widthMm;
    // alike, and a mark at the most is over
    expect(made[0]!.piece.widthMm - made[1]!.piece.widthMm).toBeLessThanOrEqual(1);
    expect(made.reduce((s, m) => s + m.piece.widthMm, 0) - whole - 25).toBeGreaterThanOrEqual(0);
    expect(made.map((m) => m.piece.bench![0]!.words.match(/Of it this strip.*/)![0])).toEqual([
      'Of it this strip has a part: its right end is a seam.',
      'Of it this strip has a part: its left end is a seam.',
    ]);
    for (const m of made) expect([m.piece.widthMm <= 1220, m.piece.meets]).toEqual([true, id(30)]);
  });
  test('the seam goes into a groove that runs its way, where both strips then fit', () => {
    const made = pieces({
      ...wide,
      grooves: [groove({ run: { way: 'upright', fromLeftMm: 600 } }), groove({ id: id(12), run: { way: 'upright', fromLeftMm: 100 } })],
    });
    // seen from the liner the first strip is the panel's right: from its right end to the middle of the groove that is 600 from the left
    const whole = pieces({ ...wide, rolls: [2000], grooves: [groove({ run: { way: 'upright', fromLeftMm: 600 } }), groove({ id: id(12), run: { way: 'upright', fromLeftMm: 100 } })] })[0]!.piece.widthMm; // prettier-ignore
    expect(made[0]!.piece.widthMm - (whole - 50 - 6 - 600 - 7)).toBeCloseTo(0, 0);
    // on the back, seen from its liner, the same groove lies where it is on the front
    const back = pieces({ ...wide, faces: 'both', grooves: [groove({ run: { way: 'upright', fromLeftMm: 600 } }), groove({ id: id(12), run: { way: 'upright', fromLeftMm: 100 } })] }).find((m) => m.suffix === 'back right')!; // prettier-ignore
    expect(back.piece.widthMm - (50 + 6 + 600 + 7)).toBeCloseTo(0, 0);
  });
  test('film without a direction is turned instead', () => expect(pieces({ ...wide, high: 1000, of: { direction: 'none' } })).toMatchObject([{ piece: { turns: [90, 270] } }])); // prettier-ignore
  test('a level direction: strips one above the other', () => {
    expect(pieces({ grain: 'level', wraps: trimmed, edge: null }).map((m) => [m.suffix, m.piece.turns])).toEqual([
      ['foot', [90]],
      ['top', [90]],
    ]);
  });
  test('a lift wall in three strips', () =>
    expect(pieces({ wide: 3000, wraps: trimmed, edge: null }).map((m) => m.suffix)).toEqual(['right', 'middle', 'left']));
});

test('strips of any panel on any roll: none wider than the roll, each over the next by the lap, together as wide as the piece; every cut is in one of them, on its film', () => {
  const drawn = fc.record({ wide: mm(600, 5000), high: mm(600, 3000), roll: fc.constantFrom(610, 1219.2, 1220, 1524), lapMm: mm(5, 60), at: mm(0.05, 0.9), isLevel: fc.boolean(), isBoth: fc.boolean(), isInch: fc.boolean() }); // prettier-ignore
  fc.assert(
    fc.property(drawn, ({ wide, high, roll, lapMm, at, isLevel, isBoth, isInch }) => {
      const run = isLevel ? { way: 'level' as const, fromFootMm: at * high } : { way: 'upright' as const, fromLeftMm: at * wide };
      const a: Asked = {
        wide,
        high,
        wraps: all,
        grain: isLevel ? 'level' : 'upright',
        faces: isBoth ? 'both' : 'front',
        allowances: { lapMm },
        grooves: [groove({ run })],
        hardware: [{ ...lever, fromLeftMm: at * (wide - 50), fromFootMm: at * (high - 220) }],
        units: isInch ? 'in' : 'mm',
      };
      const wholes = pieces({ ...a, rolls: [] });
      const strips = pieces({ ...a, rolls: [roll] });
      const across = (m: (typeof strips)[number]) => (isLevel ? m.piece.heightMm : m.piece.widthMm);
      return wholes.every((whole) => {
        const own = strips.filter((m) => !isBoth || m.suffix.startsWith(whole.suffix));
        const mark = isInch ? 25.4 / 16 : 1;
        const lapped = own.reduce((sum, m) => sum + across(m), 0) - (own.length - 1) * lapMm;
        const isOnFilm = own.every((m) => m.piece.bench!.every((c) => c.path.every((q) => q.xMm >= -1e-6 && q.xMm <= m.piece.widthMm + 1e-6 && q.yMm >= -1e-6 && q.yMm <= m.piece.heightMm + 1e-6))); // prettier-ignore
        return (
          own.every((m) => across(m) <= roll + 1e-6) &&
          lapped >= across(whole) - 1e-6 &&
          // no more than a mark of the rule over, for each strip
          lapped <= across(whole) + own.length * mark + 1e-6 &&
          own.flatMap((m) => later(m.piece)).length === later(whole.piece).length &&
          isOnFilm
        );
      });
    }),
    { numRuns: 400 },
  );
});

describe('the bench drawing of a panel', () => {
  test('is liner up: a lock on the right of the door is cut on the left of it; the back is not mirrored twice', () => {
    const [front, back] = pieces({ faces: 'both', hardware: [lever] });
    const at = (p: typeof front) => boxOf(later(p!.piece).find((c) => c.words.startsWith('Lock'))!);
    expect(at(front).left).toBeCloseTo(front!.piece.widthMm - 75 - 830, 6);
    expect(at(back).left).toBeCloseTo(50 + 780, 6);
    expect(at(front).foot).toBeCloseTo(50 + 1000, 6);
  });
  test('glass in a door is an opening: crossed and trimmed along its sides when the film lies; what comes off is not cut', () => {
    const cross = (handling: Hardware['handling']) => later(pieces({ wraps: trimmed, hardware: [{ ...lever, what: 'Glass', handling }] })[0]!.piece);
    expect(cross('open').map((c) => c.words)).toEqual(
      Array(1).fill('Glass: when the film lies there, a cross over it from corner to corner; then trimmed along its sides.'),
    );
    expect(cross('round')[0]!.words).toContain('trimmed round it');
    expect(cross('off')).toEqual([]);
  });
  test('corners of a frame are named as one stands before that face', () => {
    const run = { way: 'frame', fromLeftMm: 120, fromFootMm: 150, acrossMm: 300, upMm: 700 } as const;
    const [front, back] = pieces({ faces: 'both', grooves: [groove({ run })] });
    const left = (m: typeof front) => boxOf(later(m!.piece).find((c) => c.words.includes('top left'))!).left;
    // liner up the front's left lies at the right; and so does the back's, whose left is the front's right
    const right = (m: typeof front) => boxOf(later(m!.piece).find((c) => c.words.includes('top right'))!).left;
    for (const m of [front, back]) expect(left(m)).toBeGreaterThan(right(m));
  });
  test('hinges are told as they lie there', () => {
    const words = pieces({ faces: 'both', hinges: 'left' }).map((m) => m.piece.bench![0]!.words);
    expect(words[0]).toContain('Its hinges are on the right as it lies.');
    expect(words[1]).toContain('Its hinges are on the left as it lies.');
  });
  test('a pencil line where the face ends, one where the liner is folded back 100 mm (common practice), nothing cut at the bench', () => {
    const { piece } = pieces()[0]!;
    const [face, fold] = piece.bench!;
    expect([face!.layer, fold!.layer]).toEqual(['mark', 'mark']);
    expect(boxOf(face!)).toMatchObject({ left: 50, foot: 50, right: piece.widthMm - 50, top: piece.heightMm - 50 });
    expect(fold!.path[0]!.yMm).toBe(piece.heightMm - 100);
    expect(piece.bench!.filter((c) => c.layer === 'film' && !c.later)).toEqual([]);
  });
  test('where one wrapped edge meets a trimmed one, the film is cut in to the corner; where two meet, by the school', () => {
    const count = (wraps: Panel['wraps'], corner: DryAllowances['corner'] = 'relief') => later(pieces({ wraps, allowances: { corner } })[0]!.piece).length;
    expect(count(trimmed)).toBe(0);
    expect(count({ ...trimmed, left: 'edge', right: 'edge' })).toBe(4);
    expect(count({ ...trimmed, top: 'edge' })).toBe(2);
    expect([count(all, 'relief'), count(all, 'mitre'), count(all, 'envelope')]).toEqual([8, 4, 0]);
  });
  test('relief leaves a tab of 13 mm on the side that goes round first, never deeper than half the film there', () => {
    const tab = (allowances: Partial<DryAllowances>) => later(pieces({ wraps: all, allowances })[0]!.piece)[1]!.path;
    expect(Math.abs(tab({})[0]!.yMm - tab({})[1]!.yMm)).toBeCloseTo(13, 6);
    expect(Math.abs(tab({ cornerTabMm: 50 })[0]!.yMm - tab({ cornerTabMm: 50 })[1]!.yMm)).toBeCloseTo(25, 6);
  });
  test('more slack than lies down over the rails is told, and what to do then', () => {
    const why = (depthMm: number) => pieces({ grooves: [groove({ depthMm, run: { way: 'frame', fromLeftMm: 120, fromFootMm: 150, acrossMm: 620, upMm: 700 } })] })[0]!.piece.why.join(' '); // prettier-ignore
    expect(why(1.5)).toContain('Warm it and press it outwards over the rails');
    expect(why(4)).toContain('in pieces of their own');
  });
});

const grooves = fc.array(
  fc.record({ form: fc.constantFrom('square', 'vee', 'round'), widthMm: mm(3, 30), depthMm: mm(1, 14), flatFrac: mm(0, 1), way: fc.constantFrom('upright', 'level', 'frame'), a: mm(0, 1), b: mm(0, 1), c: mm(0.2, 1), d: mm(0.2, 1) }), // prettier-ignore
  { maxLength: 4 },
);
const panels = fc.record({ wide: mm(300, 1100), high: mm(500, 2400), edge: mm(10, 60), wraps: fc.record({ left: fc.constantFrom('trimmed', 'edge', 'return'), right: fc.constantFrom('trimmed', 'edge', 'return'), top: fc.constantFrom('trimmed', 'edge', 'return'), bottom: fc.constantFrom('trimmed', 'edge', 'return') }), corner: fc.constantFrom('relief', 'mitre', 'envelope'), tab: mm(3, 50), grooves, faces: fc.constantFrom('front', 'both') }); // prettier-ignore
type Drawn = typeof panels extends fc.Arbitrary<infer T> ? T : never;
function drawn(d: Drawn): Asked {
  return {
    wide: d.wide,
    high: d.high,
    edge: d.edge,
    wraps: d.wraps,
    faces: d.faces,
    rolls: [],
    allowances: { corner: d.corner, cornerTabMm: d.tab },
    grooves: d.grooves.map((g, i): Groove => {
      const [across, up] = [Math.max(3 * g.widthMm, g.c * d.wide * 0.9), Math.max(3 * g.widthMm, g.d * d.high * 0.9)];
      const run =
        g.way === 'upright'
          ? { way: 'upright' as const, fromLeftMm: g.a * (d.wide - g.widthMm) }
          : g.way === 'level'
            ? { way: 'level' as const, fromFootMm: g.b * (d.high - g.widthMm) }
            : { way: 'frame' as const, fromLeftMm: g.a * Math.max(0, d.wide - across), fromFootMm: g.b * Math.max(0, d.high - up), acrossMm: Math.min(across, d.wide), upMm: Math.min(up, d.high) }; // prettier-ignore
      return groove({ id: id(50 + i), form: g.form, widthMm: g.widthMm, depthMm: Math.min(g.depthMm, d.edge - 1), flatMm: g.flatFrac * g.widthMm, run });
    }),
  };
}

test('laid back on its panel a piece covers face, every groove along any line across or up, every edge and return, and is still held', () => {
  fc.assert(
    fc.property(panels, (d) => {
      const a = drawn(d);
      const [{ piece } = { piece: null }] = pieces(a);
      const isBoth = d.faces === 'both';
      const depth = (w: 'trimmed' | 'edge' | 'return') => (w === 'trimmed' ? 0 : d.edge + (w === 'return' || isBoth ? 25 : 0));
      // counted anew: the girth along lines across at many heights, and up at many places
      const along = (isAcross: boolean, at: number): number =>
        a.grooves!.reduce((sum, g) => {
          const { slackMm } = grooveGirth(g);
          const { run } = g;
          if (run.way === 'upright') return sum + (isAcross ? slackMm : 0);
          if (run.way === 'level') return sum + (isAcross ? 0 : slackMm);
          const [from, to] = isAcross ? [run.fromFootMm, run.fromFootMm + run.upMm] : [run.fromLeftMm, run.fromLeftMm + run.acrossMm];
          return sum + (at > from && at < to ? 2 * slackMm : 0);
        }, 0);
      for (let i = 0; i < 40; i++) {
        const needX = d.wide + along(true, (d.high * (i + 0.5)) / 40) + depth(d.wraps.left) + depth(d.wraps.right);
        const needY = d.high + along(false, (d.wide * (i + 0.5)) / 40) + depth(d.wraps.top) + depth(d.wraps.bottom);
        if (needX > piece!.widthMm - 1e-6 || needY > piece!.heightMm - 1e-6) return false;
      }
      return true;
    }),
    { numRuns: 300 },
  );
});

test('no cut goes into film that lies on the face, an edge or a return: corners are cut in their own quarter only, frames in theirs', () => {
  fc.assert(
    fc.property(panels, (d) => {
      const [{ piece } = { piece: null }] = pieces(drawn({ ...d, grooves: [] }));
      const face = boxOf(piece!.bench![0]!);
      const inside = (x: number, y: number) => (x > face.left + 1e-6 && x < face.right - 1e-6 ? true : y > face.foot + 1e-6 && y < face.top - 1e-6);
      for (const c of later(piece!))
        for (let i = 1; i < c.path.length; i++)
          for (const k of [0.25, 0.5, 0.75]) {
            const [p, q] = [c.path[i - 1]!, c.path[i]!];
            // the cross of face and flaps is left whole
            if (inside(p.xMm + k * (q.xMm - p.xMm), p.yMm + k * (q.yMm - p.yMm))) return false;
          }
      return piece!.bench!.every((c) => c.path.every((p) => p.xMm >= -1e-6 && p.yMm >= -1e-6 && p.xMm <= piece!.widthMm + 1e-6 && p.yMm <= piece!.heightMm + 1e-6)); // prettier-ignore
    }),
    { numRuns: 300 },
  );
});

/** Where along the girth a place across the mouth lies: by walking down the section in small steps. */
function girthAt(g: Groove, x: number): number {
  const { widthMm: w, depthMm: d, form, flatMm } = g;
  const flat = form === 'square' ? w : Math.min(flatMm, w);
  const slope = (w - flat) / 2;
  const r = (w * w) / (8 * d) + d / 2;
  const depthAt = (t: number): number => {
    if (form !== 'round') return slope === 0 ? d : d * Math.min(1, t / slope, (w - t) / slope);
    return d >= w / 2 ? d - w / 2 + Math.sqrt(Math.max(0, (w / 2) ** 2 - (t - w / 2) ** 2)) : Math.sqrt(Math.max(0, r * r - (t - w / 2) ** 2)) - (r - d);
  };
  let [sum, last] = [depthAt(0), depthAt(0)];
  const n = 400;
  for (let i = 1; i <= n; i++) {
    const next = depthAt((x * i) / n);
    sum += Math.hypot(x / n, next - last);
    last = next;
  }
  return sum;
}

test('what is left of the film over the corner of a frame covers both arms up to their mitre, whatever their section', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('square', 'vee', 'round'),
      mm(4, 30),
      mm(1, 20),
      mm(0, 1),
      fc.oneof(fc.constant(1), mm(0, 1)),
      fc.oneof(fc.constant(1), mm(0, 1)),
      (form, widthMm, depthMm, flat, across, along) => {
        const g = groove({ form, widthMm, depthMm, flatMm: flat * widthMm, run: { way: 'frame', fromLeftMm: 100, fromFootMm: 100, acrossMm: 500, upMm: 600 } });
        const { piece } = pieces({ grooves: [g], rolls: [], edge: 60 })[0]!;
        const { slackMm } = grooveGirth(g);
        const cut = later(piece).find((c) => c.words.includes('top right'));
        if (!cut) return slackMm < 0.5;
        // the square over the corner: from the corner of the field outwards, a bench drawing is mirrored
        const inner = cut.path[0]!;
        const square = boxOf({ ...cut, path: cut.path.slice(1) });
        const gone = { from: Math.min(inner.xMm - square.left, inner.xMm - square.right), to: Math.max(inner.xMm - square.left, inner.xMm - square.right), low: square.foot - inner.yMm, high: square.top - inner.yMm }; // prettier-ignore
        if (Math.abs(gone.to - (widthMm + slackMm)) > 1e-6 || Math.abs(gone.high - (widthMm + slackMm)) > 1e-6) return false;
        // a place of the upright arm, x across its mouth and y along it, no farther than the mitre
        const x = across * widthMm;
        const [u, v] = [girthAt(g, x), along * x];
        const isOnItsSide = v <= u + 1e-6;
        const isGone = u > gone.from + 1e-6 && v > gone.low + 1e-6;
        return isOnItsSide && !isGone;
      },
    ),
    { numRuns: 300 },
  );
});

describe('recesses', () => {
  const recess = { id: id(60), fromLeftMm: 130, fromFootMm: 200, acrossMm: 600, upMm: 700, depthMm: 12, slopeMm: 9, cornerMm: 20, way: null };
  const second = { ...recess, id: id(61), fromFootMm: 1000 };
  test('the piece has the slack of their walls: across as many as one line crosses, upwards all that stand over each other', () => {
    const size = (recesses: (typeof recess)[]) => { const { widthMm, heightMm } = pieces({ recesses })[0]!.piece; return [widthMm, heightMm]; }; // prettier-ignore
    const [wide, high] = size([]) as [number, number];
    expect(size([recess])).toEqual([wide + 12, high + 12]);
    expect(size([recess, second])).toEqual([wide + 12, high + 24]);
    expect(pieces({ recesses: [recess] })[0]!.piece.why.join(' ')).toContain('Recesses take 12 across and 12 upwards');
  });
  test('a place beyond a recess lies farther on the flat film by both of its walls, in its field by one', () => {
    const at = { grooves: [], recesses: [{ recess, slackMm: 6 }], ribs: null, dome: null };
    expect(developed(430, 500, at)).toEqual({ xMm: 436, yMm: 506 });
    expect(developed(800, 500, at)).toEqual({ xMm: 812, yMm: 500 });
    expect(developed(800, 1000, at)).toEqual({ xMm: 800, yMm: 1000 });
  });
  test('one that cannot be blocks the piece', () => {
    expect(blocked({ recesses: [{ ...recess, depthMm: 60 }] })).toBe('A recess cannot be as it was taped: tape its place and its size again.');
    expect(blocked({ recesses: [recess, { ...second, fromFootMm: 500 }] })).toContain('A recess cannot be');
  });
});

describe('a corrugated sheet', () => {
  const sheet = { run: 'upright', form: 'wave', pitchMm: 76, depthMm: 18, crestMm: 0, valleyMm: 0, bendMm: 0, girthMm: null, way: 'fed' } as const;
  test('fed in, its piece is wider by what its ribs take, and a place on it lies farther by as much; stretched over its crests it is no wider', () => {
    const size = (corrugation: Corrugation | null) => { const { widthMm, heightMm } = pieces({ corrugation })[0]!.piece; return [widthMm, heightMm] as const; }; // prettier-ignore
    const [wide, high] = size(null);
    const more = girthOfRibs(sheet) / 76 - 1;
    expect(size(sheet)[0] - wide).toBeCloseTo(more * 860, -1);
    expect(size(sheet)[1]).toBe(high);
    expect(size({ ...sheet, run: 'level' })).toEqual([wide, expect.closeTo(high + more * 2040, -1)]);
    expect(size({ ...sheet, way: 'bridged' })).toEqual([wide, high]);
    const { ribs } = judgeRibs(sheet);
    expect(developed(430, 500, { grooves: [], recesses: [], ribs, dome: null })).toEqual({ xMm: expect.closeTo(430 * (1 + more), 6), yMm: 500 });
    expect(pieces({ corrugation: sheet })[0]!.piece.why.join(' ')).toContain('Ribs take ');
    expect(pieces({ corrugation: { ...sheet, way: 'bridged' } })[0]!.piece.why.join(' ')).toContain('formed into the valleys hot');
  });
  test('over the crests farther than the film stands: the piece comes with a word, fed in or within its figure without', () => {
    const note = (way: 'fed' | 'bridged', stretchMaxPct: number | null) => { const made = piecesOfPanel(asked({ corrugation: { ...sheet, way }, of: { stretchMaxPct } })); return 'blocked' in made ? made.blocked : made.note; }; // prettier-ignore
    expect(note('bridged', 10)).toBe(
      'Over the crests of its ribs it would stretch 14 %, and Ash Plank stands 10 %: have it fed in valley by valley, which takes a larger piece.',
    );
    expect([note('bridged', 20), note('bridged', null), note('fed', 10)]).toEqual([null, null, null]);
  });
  test('no piece from ribs that no sheet has, nor with grooves across them', () => {
    expect(blocked({ corrugation: { ...sheet, depthMm: 40 } })).toContain('No sheet has such ribs');
    expect(blocked({ corrugation: sheet, grooves: [groove({})] })).toContain('not reckoned with');
  });
});

test('over a dome film reaches its corners too; what lies on no ball, or grooves on it, stop the piece', () => {
  const size = (own: Asked) => { const { widthMm, heightMm } = pieces({ wide: 600, high: 450, ...own })[0]!.piece; return [widthMm, heightMm] as const; }; // prettier-ignore
  const [wide, high] = size({});
  // on a ball of 777 its corners, 375 from the axis, are 391 away: 4.2 % more both ways
  expect(size({ dome: { acrossBowMm: 50, upBowMm: 40 } })).toEqual([expect.closeTo(wide + 25.4, -0.5), expect.closeTo(high + 19, -0.5)]);
  expect(size({ dome: { acrossBowMm: 50, upBowMm: 0 } })[1]).toBe(high);
  expect(pieces({ wide: 600, high: 450, dome: { acrossBowMm: 50, upBowMm: 40 } })[0]!.piece.why.join(' ')).toContain('Bows take 2');
  expect(blocked({ wide: 600, high: 450, dome: { acrossBowMm: 320, upBowMm: 40 } })).toContain('lie on no ball');
  expect(blocked({ dome: { acrossBowMm: 50, upBowMm: 40 }, grooves: [groove({})] })).toContain('not reckoned with');
});

test('a place lies farther by the slack of what is before it, inside a groove in proportion', () => {
  const g = {
    grooves: [groove({}), groove({ id: id(11), run: { way: 'frame', fromLeftMm: 300, fromFootMm: 500, acrossMm: 400, upMm: 300 } })].map((x) => ({ groove: x, ...grooveGirth(x) })),
    recesses: [],
    ribs: null,
    dome: null,
  }; // prettier-ignore
  expect(developed(100, 100, g)).toEqual({ xMm: 100, yMm: 100 });
  expect(developed(124, 100, g)).toEqual({ xMm: 127, yMm: 100 });
  expect(developed(250, 100, g)).toEqual({ xMm: 256, yMm: 100 });
  expect(developed(500, 650, g)).toEqual({ xMm: 512, yMm: 656 });
  expect(developed(800, 1000, g)).toEqual({ xMm: 806, yMm: 1000 });
  expect(developed(800, 650, g).xMm).toBe(818);
});

describe('round corners where wrapped edges meet', () => {
  const board = { wide: 600, high: 450, edge: 12, wraps: all, of: { stretchMaxPct: 30 } };
  const cuts = (a: Asked) => later(pieces({ ...board, ...a })[0]!.piece).map((c) => c.words);
  const why = (a: Asked) => pieces({ ...board, ...a })[0]!.piece.why.join(' ');
  test('a round that the film stands is drawn over: no knife at the corner, and the sheet says how far it is stretched', () => {
    const round = { corners: { radiusMm: 80, arrisMm: 5 } };
    expect(cuts(round)).toEqual([]);
    expect(why(round)).toContain('Corners of radius 80, their arris of radius 5: film is drawn over them warm, 23 % at its end, and not cut.');
    // its size is the same: hands have to hold it there
    expect(pieces({ ...board, ...round })[0]!.piece).toMatchObject({ widthMm: pieces(board)[0]!.piece.widthMm, heightMm: pieces(board)[0]!.piece.heightMm });
  });
  test('one it does not stand is folded as a sharp one, its cut begun where film comes to its figure, and said to be', () => {
    const tight = { corners: { radiusMm: 20, arrisMm: 0 } };
    expect(cuts(tight)).toHaveLength(cuts({}).length);
    const plan = cornersOfPanel(asked({ ...board, ...tight }))!;
    const made = (corner: DryAllowances['corner'], a: Asked) =>
      later(pieces({ ...board, ...a, allowances: { corner } })[0]!.piece).filter((c) => c.words.startsWith('Top left'));
    // the front is drawn mirrored: its left lies on the right, so inside is to the left and down
    for (const corner of ['mitre', 'relief'] as const) {
      const [sharp, round] = [made(corner, {}).at(-1)!, made(corner, tight).at(-1)!];
      const at = corner === 'mitre' ? 0 : 1;
      const begin = round.path[corner === 'mitre' ? 0 : 2]!;
      expect(sharp.path[at]!.xMm - begin.xMm).toBeCloseTo(plan.cutInsetMm, 6);
      expect(sharp.path[at]!.yMm - begin.yMm).toBeCloseTo(plan.cutInsetMm, 6);
      expect(round.words).toContain(`${Math.round(plan.cutInsetMm)} inside it, both ways`);
    }
    expect(made('envelope', tight)).toEqual([]);
    expect(why(tight)).toContain('Corners of radius 20, their arris sharp: without a cut film would be stretched farther than the 30 % it stands.');
    expect(why({})).not.toContain('Corners of radius');
  });
  test('what ends at a trimmed edge beside a wrapped one is cut in there all the same; nothing is said where no two edges meet', () => {
    const one = { corners: { radiusMm: 80, arrisMm: 5 }, wraps: { ...all, bottom: 'trimmed' } } as const;
    expect(cuts(one).map((w) => w.slice(0, w.indexOf(':')))).toEqual(['Foot left', 'Foot right']);
    expect(why({ ...one, wraps: { ...trimmed, left: 'edge' } })).not.toContain('Corners of radius');
    expect(cornersOfPanel(asked({ ...board, ...one, edge: null }))).toBeNull();
  });
  test('on to the back, or beneath the film there, it goes towards the middle of the round: the same corner then needs its cut', () => {
    const round = { radiusMm: 80, arrisMm: 5 };
    expect(cornersOfPanel(asked({ ...board, corners: round }))!.is).toBe('draws');
    for (const more of [{ wraps: { ...all, left: 'return' } }, { faces: 'both' }] as const)
      expect(cornersOfPanel(asked({ ...board, corners: round, ...more }))!.is).toBe('folds');
  });
});
