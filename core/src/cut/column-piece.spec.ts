import fc from 'fast-check';
import type { ColumnMeasure, DryAllowances } from '@yellow-pane/contracts';
import { coverOfColumn, judgeColumn } from '../measure/index.js';
import { usualDry } from './dry-allowances.js';
import { coneSector, piecesOfColumn, type ColumnToPiece } from './column-piece.js';

const dry: DryAllowances = usualDry;
const film = {
  id: '01930000-0000-7000-8000-00000000f001',
  name: 'Ash Plank',
  direction: 'one-way',
  drying: 'dry-applied',
  mounting: 'not-on-glass',
  patternRepeatMm: null,
  stretchMaxPct: null,
} as const;
const surveyed = (foot: number, top: number, high: number) =>
  judgeColumn(
    'round',
    (
      [
        ['girthFoot', foot],
        ['girthMiddle', (foot + top) / 2],
        ['girthTop', top],
        ['heightFront', high],
        ['heightBack', high],
        ['heightRight', high],
        ['heightLeft', high],
        ['acrossFront', (foot + top) / 2 / Math.PI],
        ['acrossSide', (foot + top) / 2 / Math.PI],
      ] as [ColumnMeasure, number][]
    ).map(([measure, lengthMm]) => ({ measure, lengthMm })),
  );
const asked = (foot: number, top = foot, high = 2500, more: Partial<ColumnToPiece> = {}): ColumnToPiece => ({
  surface: { id: '01930000-0000-7000-8000-00000000f002', name: 'Column 1', ends: { foot: 'floor', head: 'ceiling' } },
  survey: surveyed(foot, top, high),
  allowances: dry,
  film,
  rollWidthsMm: [1524],
  units: 'mm',
  ...more,
});
const pieces = (c: ColumnToPiece) => {
  const made = piecesOfColumn(c);
  if ('blocked' in made) throw new Error(made.blocked);
  return made.pieces;
};

describe('a cone lies flat as the sector of a ring', () => {
  test('of 400 mm at the foot, 390 at the top, 2500 high: radius 100 000.2, angle 0.71999°, bulge 1.974 (computed)', () => {
    const s = coneSector(400 * Math.PI, 390 * Math.PI, 2500);
    expect(s.radiusMm).toBeCloseTo(100_000.2, 1);
    expect(s.angleDeg).toBeCloseTo(0.71999, 4);
    expect(s.sagittaMm).toBeCloseTo(1.974, 3);
  });
  test('a cylinder lies flat as a rectangle', () => expect(coneSector(1257, 1257, 2500)).toEqual({ radiusMm: Infinity, angleDeg: 0, sagittaMm: 0 }));
});

describe('the piece of a column', () => {
  test('is the largest girth and the lap wide, the tallest height and both notches long (common practice: 1 in and ½ in)', () => {
    const c = asked(1257);
    const [only] = pieces(c);
    const cover = coverOfColumn(c.survey)!;
    expect(only!.piece.widthMm).toBe(Math.ceil(cover.girthMm + 25));
    expect(only!.piece.heightMm).toBe(Math.ceil(cover.heightMm + 26));
    expect(cover.girthMm - 1257).toBeLessThan(4);
    expect(only!.piece.turns).toEqual([0]);
  });
  test('its notches are told by what they meet: floor or base, ceiling or capital', () => {
    const words = (ends: ColumnToPiece['surface']['ends']) => {
      const made = piecesOfColumn(asked(1200, 1200, 2500, { surface: { ...asked(1200).surface, ends } }));
      if ('blocked' in made) throw new Error(made.blocked);
      return made.pieces[0]!.piece.bench!.filter((c) => c.layer === 'film').map((c) => c.words.split('. ')[1]);
    };
    expect(words({ foot: 'floor', head: 'ceiling' })).toEqual(['It meets the floor.', 'It meets the ceiling.']);
    expect(words({ foot: 'base', head: 'capital' })).toEqual(['It meets the base.', 'It meets the capital.']);
  });
  test('is deeper notched where bases are not level, and longer by as much', () => {
    const [usual] = pieces(asked(1257));
    const [deep] = pieces(asked(1257, 1257, 2500, { allowances: { ...dry, notchMm: 50 } }));
    expect(deep!.piece.heightMm - usual!.piece.heightMm).toBe(2 * (50 - 13));
  });
  test('the strip between the notches is as long as the column is high', () => {
    for (const top of [1257, 1225, 1290]) {
      const c = asked(1257, top);
      const { heightMm } = coverOfColumn(c.survey)!;
      const [, , foot, head] = pieces(c)[0]!.piece.bench!;
      const flat = (path: readonly { yMm: number }[], pick: (...y: number[]) => number) => pick(...path.map((p) => p.yMm));
      const between = flat(head!.path, Math.min) - flat(foot!.path, Math.max);
      // rounding up of the length only
      expect(between - heightMm).toBeGreaterThanOrEqual(-1e-9);
      expect(between - heightMm).toBeLessThan(1 + 1e-9);
    }
  });
  test('the notch is deeper at the narrow end, which its sides reach past when it lies flat: the top of one that narrows, the foot of one that widens', () => {
    const depths = (foot: number, top: number) => {
      const [{ piece } = { piece: null }] = pieces(asked(foot, top));
      const ys = piece!.bench!.filter((c) => c.layer === 'film').map((c) => c.path[1]!.yMm);
      return [ys[0]!, piece!.heightMm - ys[1]!];
    };
    // 1.97 mm for 1257 to 1225 over 2500, and a tenth more with the tapes' own doubt
    const [foot, top] = depths(1257, 1225);
    expect(foot).toBe(13);
    expect(top! - 13).toBeCloseTo(2, 0);
    const [wideFoot, wideTop] = depths(1225, 1257);
    expect(wideTop).toBe(13);
    expect(wideFoot).toBeCloseTo(top!, 6);
  });
  test('wider than the roll it is a wide front and the rest behind, each a lap over the other, never a sliver', () => {
    const c = asked(1300, 1300, 2500, { rollWidthsMm: [1220] });
    const [front, back] = pieces(c);
    expect([front!.suffix, back!.suffix]).toEqual(['front', 'back']);
    expect(front!.piece.widthMm).toBeLessThanOrEqual(1220);
    expect(front!.piece.widthMm + back!.piece.widthMm).toBeGreaterThanOrEqual(coverOfColumn(c.survey)!.girthMm + 50);
    expect(back!.piece.widthMm).toBeGreaterThanOrEqual(300 + 25);
    expect(front!.piece.meets).toBe(back!.piece.meets);
    expect(front!.piece.meets).not.toBeNull();
    expect(pieces(asked(3000, 3000, 2500, { rollWidthsMm: [1220] }))).toHaveLength(3);
  });
  test('film without a direction may go round in its length, with one seam', () => {
    const [only, ...more] = pieces(asked(2000, 2000, 1100, { film: { ...film, direction: 'none' }, rollWidthsMm: [1220] }));
    expect(more).toEqual([]);
    expect(only!.piece.turns).toEqual([90, 270]);
  });
  test('says how the lap of a thinner end grows, and what is done about it', () => {
    const why = (taper: DryAllowances['taper']) => pieces(asked(1257, 1225, 2500, { allowances: { ...dry, taper } }))[0]!.piece.why.join(' ');
    expect(why('trim')).toMatch(/sector of 0\.73°.*lap grows from 25 to 57: trim it straight/);
    expect(why('wedge')).toContain('it stays as a wedge');
    expect(pieces(asked(1257))[0]!.piece.why.join(' ')).not.toContain('narrows');
  });
  test('is none of film for glass, none without a size, none where the strip does not go into it', () => {
    expect(piecesOfColumn(asked(1257, 1257, 2500, { film: { ...film, drying: 'medium', mounting: 'inside' } }))).toMatchObject({ blocked: expect.stringContaining('film for glass') }); // prettier-ignore
    expect(piecesOfColumn({ ...asked(1257), survey: judgeColumn('round', []) })).toMatchObject({ blocked: 'No girth and height yet.' });
    expect(piecesOfColumn(asked(300, 300, 2500, { allowances: { ...dry, linerStripMm: 290 } }))).toMatchObject({
      blocked: expect.stringContaining('narrower'),
    });
  });
});

const column = fc.record({ foot: fc.double({ min: 700, max: 2400, noNaN: true }), taperFrac: fc.double({ min: -0.12, max: 0.12, noNaN: true }), high: fc.double({ min: 1800, max: 4000, noNaN: true }), notchMm: fc.double({ min: 5, max: 60, noNaN: true }) }); // prettier-ignore

test('a piece laid back on its column covers it with its notches’ depth at both ends and its lap at the seam, whatever the taper (property)', () =>
  fc.assert(
    fc.property(column, ({ foot, taperFrac, high, notchMm }) => {
      const c = asked(foot, foot * (1 - taperFrac), high, { rollWidthsMm: [], allowances: { ...dry, notchMm } });
      const [{ piece } = { piece: null }] = pieces(c);
      const [wide, narrow] = [Math.max(foot, foot * (1 - taperFrac)), Math.min(foot, foot * (1 - taperFrac))];
      // the true column flat: sector round its apex, the wide end below; points of its rim against the piece
      const dr = (wide - narrow) / (2 * Math.PI);
      const slant = Math.hypot(high, dr);
      const far = dr < 1e-6 ? 1e12 : (slant * wide) / (2 * Math.PI * dr);
      const half = wide / far / 2;
      for (let i = -10; i <= 10; i++) {
        const t = (half * i) / 10;
        const rise = (r: number) => 2 * r * Math.sin(t / 2) ** 2;
        // how far from the middle line, and how high over the wide end's lowest point
        expect(Math.abs(far * Math.sin(t))).toBeLessThanOrEqual((piece!.widthMm - 25) / 2 + 1e-6);
        expect(slant + rise(far - slant)).toBeLessThanOrEqual(piece!.heightMm - 2 * notchMm + 1e-6);
        expect(rise(far)).toBeGreaterThanOrEqual(0);
      }
    }),
    { numRuns: 150, seed: 17 },
  ));

test('liner-only cuts run beside the notches and cross no film cut; every cut stays on the piece (property)', () =>
  fc.assert(
    fc.property(column, ({ foot, taperFrac, high, notchMm }) => {
      const [{ piece } = { piece: null }] = pieces(asked(foot, foot * (1 - taperFrac), high, { rollWidthsMm: [], allowances: { ...dry, notchMm } }));
      const bench = piece!.bench!;
      for (const cut of bench) for (const p of cut.path) expect(p.xMm >= 0 && p.xMm <= piece!.widthMm && p.yMm >= 0 && p.yMm <= piece!.heightMm).toBe(true);
      const slits = bench.filter((b) => b.layer === 'liner').map((b) => b.path[0]!.xMm);
      for (const notch of bench.filter((b) => b.layer === 'film')) {
        const ends = [notch.path[1]!.xMm, notch.path[2]!.xMm];
        // a slit meets the corner of the notch and goes no way through its slanting sides
        expect(slits).toEqual(ends);
        expect(Math.min(...notch.path.map((p) => p.xMm))).toBeLessThan(slits[0]!);
        expect(Math.max(...notch.path.map((p) => p.xMm))).toBeGreaterThan(slits[1]!);
        // 45°
        const [a, b] = [notch.path[0]!, notch.path[1]!];
        expect(Math.abs(a.xMm - b.xMm)).toBeCloseTo(Math.abs(a.yMm - b.yMm), 9);
      }
    }),
    { numRuns: 100, seed: 18 },
  ));
