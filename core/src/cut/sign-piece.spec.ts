import fc from 'fast-check';
import { benchCut, newSign, type DryAllowances, type Sign, type SignLine } from '@yellow-pane/contracts';
import { demoFirm, ternInterior } from '../../../demo/src/index.js';
import { boundingBox, regionArea } from '../geometry/index.js';
import { Memo } from '../ground/index.js';
import { judgeSign, surveySign } from '../measure/index.js';
import { cutOfSign, sheetsOfSign } from './cut-of-kind.js';
import { usualDry } from './dry-allowances.js';
import type { JobRecords } from './job-pieces.js';
import { plotOfSurface } from './plot-of-kind.js';
import { letterSheets, partLetters, piecesOfSign, type SignToPiece } from './sign-piece.js';

const id = (n: number) => `01930000-0000-7000-8000-0000000000${n}`;
const film = {
  id: id(40),
  name: 'Pier Letters',
  direction: 'none',
  drying: 'dry-applied',
  mounting: 'either',
  patternRepeatMm: null,
  stretchMaxPct: null,
} as const;
/** Bars 100 wide and 700 high at these places. */
const bars = (...at: number[]): string => at.map((x) => `M${x} 0V-700H${x + 100}V0Z`).join('');
const letters = (l: Partial<Extract<SignLine, { is: 'letters' }>> = {}): SignLine => ({ is: 'letters', id: id(50), text: 'IIII', face: 'plain', spacing: 0, svgPath: bars(0, 300, 1500, 1800), capUnits: 700, heightMm: 140, baselineMm: 200, atMm: 1500, align: 'middle', ...l }); // prettier-ignore

interface Asked extends Partial<Omit<Sign, 'kind'>> {
  readonly allowances?: Partial<DryAllowances>;
  readonly of?: Partial<SignToPiece['film']>;
  readonly rolls?: readonly number[];
  readonly high?: number;
  readonly units?: 'mm' | 'in';
}
function asked({ allowances, of, rolls = [610], high = 600, units = 'mm', ...own }: Asked = {}): SignToPiece {
  const surface = newSign({ id: id(30), jobId: id(31), placeId: id(32), name: 'Canvas', order: 1, lines: [letters()], ...own });
  const survey = judgeSign(surface, [{ measure: 'widthMiddle', lengthMm: 3000 }, { measure: 'heightMiddle', lengthMm: high }]); // prettier-ignore
  return { surface, survey, allowances: { ...usualDry, ...allowances }, film: { ...film, ...of }, rollWidthsMm: rolls, units };
}
function pieces(a: Asked = {}) {
  const made = piecesOfSign(asked(a));
  if ('blocked' in made) throw new Error(made.blocked);
  return made.pieces;
}
const blocked = (a: Asked) => {
  const made = piecesOfSign(asked(a));
  return 'blocked' in made ? made.blocked : null;
};

describe('a sheet of letters', () => {
  test('as large as the letters and 15 mm round them; plotted, any way round on the roll, from one lot with its neighbours', () => {
    const [only, ...more] = pieces();
    expect(more).toEqual([]);
    // 1900 units at 0.2
    expect(only!.piece).toMatchObject({ widthMm: 410, heightMm: 170, isPlotted: true, turns: [0, 90, 180, 270], meets: id(30), method: 'pre-cut' });
    expect(only!.suffix).toBe('IIII');
    expect(pieces({ allowances: { weedMm: 30 } })[0]!.piece).toMatchObject({ widthMm: 440, heightMm: 200 });
    expect(pieces({ of: { direction: 'one-way' } })[0]!.piece.turns).toEqual([0]);
  });
  test('what is pencilled on it: the line it stands on and where that comes on the ground, and the hinge; mirrored, as a piece is seen from its liner', () => {
    const [base, hinge] = pieces({ lines: [letters({ align: 'left', atMm: 700 })] })[0]!.piece.bench!;
    expect(base!.words).toBe('Pencil on the transfer tape: the line it stands on, 15 above the lower edge of the sheet. On the ground it is 200 above the foot; the sheet’s left edge comes 685 from the left side.'); // prettier-ignore
    expect(base!.path.map((p) => [p.xMm, p.yMm])).toEqual([[410, 15], [0, 15]]); // prettier-ignore
    expect(hinge!.words).toContain('along the upper edge');
    for (const c of pieces()[0]!.piece.bench!) expect(() => benchCut.parse(c)).not.toThrow();
  });
  test('longer than 600 mm it is hinged in its middle (house rule)', () => {
    const at = (heightMm: number) => letterSheets(asked({ lines: [letters({ heightMm })] }))[0]!;
    // 1900 units: 570 mm of letters at 210, and 30 round them
    expect([at(210).hinge, at(211).hinge]).toEqual(['top', 'middle']);
    const [, hinge] = pieces({ lines: [letters({ heightMm: 250 })] })[0]!.piece.bench!;
    expect(new Set(hinge!.path.map((p) => p.xMm))).toEqual(new Set([709 / 2]));
  });
  test('in an inch job its sizes go to sixteenths', () => {
    const { widthMm, heightMm } = pieces({ units: 'in' })[0]!.piece;
    for (const mm of [widthMm, heightMm]) expect((mm / 25.4) * 16).toBeCloseTo(Math.round((mm / 25.4) * 16), 9);
    expect(widthMm).toBeGreaterThanOrEqual(410);
  });
});

describe('a long line in several sheets', () => {
  test('it is parted in its widest gap, never in a letter; both sheets stand on one line', () => {
    const parted = pieces({ allowances: { sheetMm: 300 } });
    expect(parted.map((p) => [p.suffix, p.piece.widthMm, p.piece.heightMm])).toEqual([
      ['IIII, 1 of 2', 110, 170],
      ['IIII, 2 of 2', 110, 170],
    ]);
    const sheets = letterSheets(asked({ allowances: { sheetMm: 300 } }));
    expect(sheets.map((s) => [s.leftMm, s.baselineMm])).toEqual([[1295, 15], [1595, 15]]); // prettier-ignore
  });
  test('no sheet is longer than is said, what is left round the letters reckoned in', () => {
    const widths = (sheetMm: number) => pieces({ allowances: { sheetMm } }).map((p) => p.piece.widthMm);
    expect([widths(410), widths(409)]).toEqual([[410], [110, 110]]);
  });
  test('a letter and its dot stay together, and so does what is longer by itself', () => {
    const dotted = letters({ svgPath: `M0 0V-500H100V0ZM20 -600V-700H80V-600ZM90 -550V-580H150V-550Z${bars(400)}` });
    expect(letterSheets(asked({ lines: [dotted], allowances: { sheetMm: 40 } })).map((s) => s.region.length)).toEqual([3, 1]);
    expect(letterSheets(asked({ lines: [letters({ svgPath: 'M0 0V-700H9000V0Z', heightMm: 140 })], allowances: { sheetMm: 300 }, rolls: [] }))).toHaveLength(1);
  });
  test('what is higher than the roll is wide stands along it, in sheets no wider than the roll', () => {
    const sheets = letterSheets(asked({ lines: [letters({ heightMm: 700, baselineMm: 20 })], high: 800, rolls: [610] }));
    // 410 mm pairs, 1000 apart
    expect(sheets.map((s) => [s.widthMm, s.heightMm])).toEqual([[430, 730], [430, 730]]); // prettier-ignore
    expect(blocked({ lines: [letters({ heightMm: 1100, baselineMm: 20 })], high: 1300, rolls: [300] })).toBeNull();
    expect(blocked({ lines: [letters({ svgPath: 'M0 0V-700H900V0Z', heightMm: 700, baselineMm: 20 })], high: 800 })).toBe('“IIII” takes a sheet of 930 × 730, and the widest roll of Pier Letters is 610. Make it smaller.'); // prettier-ignore
  });
  test('of all partings into fewest sheets the one with the widest gaps, against trying all of them', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 5, max: 90 }), fc.integer({ min: 1, max: 60 })), { minLength: 1, maxLength: 9 }),
        fc.integer({ min: 90, max: 400 }),
        (list, longest) => {
          let x = 0;
          const clusters = list.map(([wide, gap]) => {
            const c = { from: x, to: x + wide };
            x += wide + gap;
            return c;
          });
          const n = clusters.length;
          let best = { sheets: Infinity, gaps: -1 };
          for (let cuts = 0; cuts < 2 ** (n - 1); cuts++) {
            const starts = [0, ...Array.from({ length: n - 1 }, (_, i) => i + 1).filter((i) => cuts & (1 << (i - 1)))];
            const fits = starts.every((s, i) => (starts[i + 1] ?? n) - s === 1 || clusters[(starts[i + 1] ?? n) - 1]!.to - clusters[s]!.from <= longest);
            const gaps = starts.slice(1).reduce((sum, s) => sum + clusters[s]!.from - clusters[s - 1]!.to, 0);
            if (fits && (starts.length < best.sheets || (starts.length === best.sheets && gaps > best.gaps))) best = { sheets: starts.length, gaps };
          }
          const got = partLetters(clusters, longest);
          expect(got.flatMap(([a, b]) => Array.from({ length: b - a }, (_, i) => a + i))).toEqual(clusters.map((_, i) => i));
          expect({ sheets: got.length, gaps: got.slice(1).reduce((sum, [a]) => sum + clusters[a]!.from - clusters[a - 1]!.to, 0) }).toEqual(best);
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe('when nothing is cut', () => {
  test('what is missing or wrong is said before film is cut', () => {
    expect(blocked({ lines: [] })).toBe('Nothing is written on it yet.');
    expect(blocked({ of: { drying: 'security', mounting: 'room' } as never })).toContain('letters take film that is laid dry');
    expect(blocked({ lines: [letters({ atMm: 0 })] })).toContain('would reach');
    expect(blocked({ lines: [letters(), letters({ id: id(51) })] })).toContain('would lie on each other');
    expect(piecesOfSign({ ...asked(), survey: judgeSign(asked().surface, []) })).toEqual({ blocked: 'No width and height of its ground yet.' });
  });
  test('thin strokes and eyelets are told beside the piece', () => {
    const made = piecesOfSign(asked({ texture: 'rough', lines: [letters({ heightMm: 21 })] }));
    expect(made).toMatchObject({ note: expect.stringContaining('under 5 mm') as string });
  });
});

describe('the canvas sign of the demo', () => {
  const file = ternInterior();
  const records: JobRecords = { ...file, firm: demoFirm, memo: new Memo() } as JobRecords;
  const surface = file.surfaces.find((s): s is Sign => s.kind === 'sign')!;
  const letterFilm = file.films.find((f) => f.id === surface.filmId)!;
  test('its long line is parted between its words', () => {
    const cut = cutOfSign(surface, records, letterFilm);
    expect(cut.pieces.map((p) => p.label)).toEqual([
      'Gate canvas TERN POINT, 1 of 2',
      'Gate canvas TERN POINT, 2 of 2',
      'Gate canvas Departures',
      'Gate canvas Arrow',
    ]);
    expect(sheetsOfSign(surface, records, letterFilm).map((s) => s.region.length)).toEqual([4, 5, 10, 1]);
    // the p of “Departures” hangs under its baseline
    expect(sheetsOfSign(surface, records, letterFilm)[2]!.baselineMm).toBeCloseTo(15 + 26.7, 0);
  });
  test('the plotter cuts every outline once, on its sheet, as it is read; one more of a sheet is the same one', () => {
    const cut = cutOfSign({ ...surface, extraPieces: [{ id: id(60), reason: 'crease', part: 1 } as never] }, records, letterFilm);
    const sheets = sheetsOfSign(surface, records, letterFilm);
    const { marks } = surveySign(surface, records).survey;
    let area = 0;
    cut.pieces.slice(0, 4).forEach((p, i) => {
      const plot = plotOfSurface(surface, records, letterFilm, p.id, { weeding: false, registration: false })!;
      const rings = plot.paths.map((path) => path.points.slice(0, -2));
      expect(rings).toHaveLength(sheets[i]!.region.flat().length);
      for (const q of rings.flat()) expect(q.x >= 15 - 1e-6 && q.x <= p.widthMm - 14 && q.y >= 15 - 1e-6 && q.y <= p.heightMm - 14).toBe(true);
      area += regionArea(sheets[i]!.region);
    });
    expect(area).toBeCloseTo(
      marks.reduce((s, m) => s + regionArea(m.region), 0),
      6,
    );
    // the T comes before the N: read from the left on the film side
    const [first] = sheets;
    expect(boundingBox(first!.region[0]![0]!).minX).toBeLessThan(boundingBox(first!.region[3]![0]!).minX);
    const again = cut.pieces.find((p) => p.id === id(60))!;
    const settings = { weeding: true, registration: true };
    const more = { ...surface, extraPieces: [{ id: id(60), reason: 'crease', part: 1 } as never] };
    expect(plotOfSurface(more, records, letterFilm, again.id, settings)).toEqual(plotOfSurface(more, records, letterFilm, cut.pieces[1]!.id, settings));
  });
  test('what is no sign and has no design is cut by hand', () => {
    const column = file.surfaces.find((s) => s.kind === 'column')!;
    expect(plotOfSurface(column, records, letterFilm, column.id, { weeding: true, registration: true })).toBeNull();
  });
});
