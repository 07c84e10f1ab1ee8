import fc from 'fast-check';
import {
  benchCut,
  newCounter,
  type BenchCut,
  type Counter,
  type CounterCorner,
  type CounterMeasure,
  type DryAllowances,
  type Hardware,
} from '@yellow-pane/contracts';
import { boundingBox, flatten } from '../geometry/index.js';
import { counterCorners, besidesOf, judgeCounter } from '../measure/index.js';
import { usualDry } from './dry-allowances.js';
import { counterDepth, piecesOfCounter, stripRuns, wrappedRounds, type CounterToPiece } from './counter-piece.js';
import { GRIP_MM } from './wrapped-edges.js';

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
const sides = (all: Counter['sides']['front'], more: Partial<Counter['sides']> = {}): Counter['sides'] => ({
  front: all,
  right: all,
  back: all,
  left: all,
  ...more,
});
const hole: Hardware = { id: id(20), what: 'Basin', handling: 'off', fromLeftMm: 1500, fromFootMm: 150, widthMm: 400, heightMm: 300, isElectric: false };
const outlet: Hardware = { ...hole, id: id(21), what: 'Outlet', handling: 'open', fromLeftMm: 300, fromFootMm: 500, widthMm: 80, heightMm: 80, isRound: true };

interface Asked extends Partial<Omit<Counter, 'kind'>> {
  readonly wide?: number;
  readonly deep?: number;
  readonly edge?: number | null;
  /** Setback of every round corner. */
  readonly radius?: number;
  readonly allowances?: Partial<DryAllowances>;
  readonly of?: Partial<CounterToPiece['film']>;
  readonly rolls?: readonly number[];
  readonly units?: 'mm' | 'in';
}
function asked({ wide = 2400, deep = 700, edge = 30, radius = 250, allowances, of, rolls = [1220], units = 'mm', ...own }: Asked = {}): CounterToPiece {
  const surface = newCounter({ id: id(30), jobId: id(31), placeId: id(32), name: 'Top', order: 1, ...own });
  const setbacks = { frontLeft: 'setbackFrontLeft', frontRight: 'setbackFrontRight', backRight: 'setbackBackRight', backLeft: 'setbackBackLeft' } as const;
  const tapes: [CounterMeasure, number][] = [
    ['widthFront', wide],
    ['widthBack', wide],
    ['depthLeft', deep],
    ['depthRight', deep],
    ...(edge === null ? [] : ([['edgeThickness', edge]] as [CounterMeasure, number][])),
    ...surface.round.filter(() => radius > 0).map((c): [CounterMeasure, number] => [setbacks[c], radius]),
  ];
  const survey = judgeCounter(surface, tapes.map(([measure, lengthMm]) => ({ measure, lengthMm }))); // prettier-ignore
  return { surface, survey, allowances: { ...usualDry, ...allowances }, film: { ...film, ...of }, rollWidthsMm: rolls, units };
}
function made(a: Asked = {}) {
  const m = piecesOfCounter(asked(a));
  if ('blocked' in m) throw new Error(m.blocked);
  return m;
}
const pieces = (a: Asked = {}) => made(a).pieces;
const blocked = (a: Asked): string | null => {
  const m = piecesOfCounter(asked(a));
  return 'blocked' in m ? m.blocked : null;
};
const cutsOf = (p: { bench?: readonly BenchCut[] | undefined }, words: RegExp) => (p.bench ?? []).filter((c) => words.test(c.words));
const boxOf = (c: BenchCut) => boundingBox(flatten(c.path.map((q) => ({ x: q.xMm, y: q.yMm, bulge: q.bulge }))));
const num = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const margin = (mm: number) => 2 * (1 + 0.0001 * mm);

test('joined tops: all their film from one lot, the strips of their edges too', () => {
  for (const a of [{}, { sides: sides('strip') }, { deep: 1400 }]) {
    const p = asked(a);
    const joined = piecesOfCounter({ ...p, tops: [{ ...p, surface: { ...p.surface, id: id(77) } }, p] });
    if ('blocked' in joined) throw new Error(joined.blocked);
    expect(new Set(joined.pieces.map((m) => m.piece.meets))).toEqual(new Set([id(77)]));
    expect(joined.pieces.flatMap((m) => m.piece.why).join(' ')).toContain('joined to another top: all their film from one lot');
  }
  expect(pieces()[0]!.piece.meets).toBeNull();
  // an L of two, named from either
  const [left, right] = [
    newCounter({ id: id(41), jobId: id(31), placeId: id(32), name: 'Left', order: 1 }),
    newCounter({ id: id(42), jobId: id(31), placeId: id(32), name: 'Right', order: 2, besideId: id(41) }),
  ];
  for (const top of [left, right]) expect(besidesOf(top, { surfaces: [left, right] }).map((t) => t.id)).toEqual([id(41), id(42)]);
  expect(besidesOf(left, { surfaces: [left] })).toEqual([left]);
});

test('grain along joined tops runs on over the joint; their backs lie at one edge of the roll, each as far from its arris', () => {
  const p = asked({ sides: sides('edge', { right: 'joint' }) });
  const q = { ...asked({ wide: 900, sides: sides('edge', { left: 'joint', back: 'wall' }), edge: 90 }), surface: { ...asked().surface, id: id(77), sides: sides('edge', { left: 'joint', back: 'wall' }) } }; // prettier-ignore
  const tops = [p, q];
  const [left, right] = tops.map((t) => {
    const m = piecesOfCounter({ ...t, tops });
    if ('blocked' in m) throw new Error(m.blocked);
    return m.pieces[0]!;
  });
  const [first, second] = [left!.runsOn!, right!.runsOn!];
  expect([first.row, first.isBeside, second.isBeside]).toEqual([second.row, true, true]);
  // to their left arris each has what reaches past it and one standard deviation of its width on either side
  expect(first.fromMm).toBeCloseTo(-50 - margin(2400) / 2, 6);
  expect(second.fromMm).toBeCloseTo(2400 - 50 - margin(900) / 2, 6);
  const backOf = (part: typeof left) => /from the back/.exec(part!.piece.bench![0]!.words) && /([\d ]+) from the back/.exec(part!.piece.bench![0]!.words)![1];
  expect(backOf(left)).toBe(backOf(right));
  expect(right!.piece.why.join(' ')).toContain('Grain runs on from one to the next');
  // across them it does not
  const across = piecesOfCounter({ ...asked({ wide: 1000, grain: 'across' }), tops });
  expect('blocked' in across ? null : across.pieces[0]!.runsOn).toBeUndefined();
});

describe('the piece of a counter top', () => {
  test('reaches over the edges and on to the underside, with 10 to hold; at a wall 50 past it', () => {
    const [{ piece }] = pieces() as [ReturnType<typeof pieces>[number]];
    const wrap = 30 + 25 + GRIP_MM;
    expect(piece.widthMm).toBe(Math.ceil(2400 + margin(2400) + 2 * wrap));
    expect(piece.heightMm).toBe(Math.ceil(700 + margin(700) + wrap + 50));
    expect(pieces({ sides: sides('trimmed') })[0]!.piece.widthMm).toBe(Math.ceil(2400 + margin(2400) + 100));
    expect(['trimmed', 'wall', 'joint', 'strip', 'edge', 'return'].map((s) => counterDepth(s as never, 30, usualDry))).toEqual([0, 0, 0, 0, 30, 55]);
  });
  test('its direction runs along it, so that it lies along the roll; across on request', () => {
    expect(pieces()[0]!.piece.turns).toEqual([90]);
    expect(pieces({ wide: 1000, grain: 'across' })[0]!.piece.turns).toEqual([0]);
  });
  test('liner is sliced 50 mm from one end (common practice: 2 in), where nothing is folded; seen from its liner, left and right are exchanged', () => {
    const slice = (a: Asked) => cutsOf(pieces(a)[0]!.piece, /^Slice the liner only/)[0]!;
    expect(slice({})).toMatchObject({ layer: 'liner' });
    const { widthMm } = pieces({})[0]!.piece;
    expect(slice({}).path.map((q) => q.xMm)).toEqual([widthMm - 50, widthMm - 50]);
    const open = sides('return', { right: 'joint' });
    expect(slice({ sides: open }).path[0]!.xMm).toBe(50);
    expect(slice({ sides: open }).words).toContain('50 from the left end as it lies');
    expect(slice({ allowances: { endLinerMm: 80 } }).words).toContain('80 from the right end');
  });
  test('nothing is cut from what nobody taped', () => {
    expect(blocked({ edge: null })).toBe('Film is to go over its front, right end and left end: tape how thick its edge is first.');
    expect(blocked({ edge: null, sides: sides('trimmed') })).toBeNull();
    expect(blocked({ round: ['frontLeft'], radius: 0 })).toBe('Its front left corner is round, and film goes over it: tape it first.');
    expect(blocked({ round: ['frontLeft'], radius: 0, sides: sides('trimmed') })).toBeNull();
    expect(blocked({ hardware: [{ ...hole, fromLeftMm: 2600 }] })).toContain('does not stand on this top');
    expect(blocked({ round: ['frontLeft', 'backLeft'], radius: 400, sides: sides('return') })).toContain('rounds of one side overlap');
    expect(blocked({ of: { drying: 'wet-applied', mounting: 'glass' } as never })).toContain('laid wet');
    expect(piecesOfCounter({ ...asked(), survey: judgeCounter({ round: [], hardware: [] }, []) })).toEqual({ blocked: 'No width and depth of this top yet.' });
  });
  test('sharp corners are cut by the school of the corner; at a wall film is slit to it; round ones are not cut to the corner', () => {
    const words = (a: Asked) => (pieces(a)[0]!.piece.bench ?? []).filter((c) => c.layer === 'film').map((c) => c.words);
    expect(words({}).filter((w) => w.startsWith('Front left'))).toHaveLength(2);
    expect(words({}).find((w) => w.startsWith('Back left'))).toContain('in along the back arris to the corner');
    expect(words({ allowances: { corner: 'mitre' } }).find((w) => w.startsWith('Front right'))).toContain('what the front has too much');
    expect(words({ round: ['frontLeft'] }).filter((w) => w.startsWith('Front left'))).toHaveLength(0);
  });
});

describe('a round corner', () => {
  const rounded: Asked = { round: ['frontRight'] };
  test('is pulled over without a fold where it is wide enough; underneath, Vs take out what is too much, never on the edge', () => {
    const [{ piece }] = pieces(rounded) as [ReturnType<typeof pieces>[number]];
    const [vs] = cutsOf(piece, /^Round front right/);
    const { survey, surface } = asked(rounded);
    const [r] = wrappedRounds(survey.body!, surface.sides, 30, usualDry, null);
    expect(r).toMatchObject({ corner: 'frontRight', isTooTight: false, radiusMm: expect.closeTo(250, 6) as number });
    expect(vs!.path).toHaveLength(3 * r!.vs);
    expect(r!.tooMuchMm / r!.vs).toBeLessThanOrEqual(12);
    expect(vs!.words).toContain(`${r!.vs} Vs underneath`);
    // in all as wide as the rim of the film is longer than its place underneath: flat film at the edge’s end and 25 beyond, on a ring 25 inside the round
    const flat = 250 * Math.cbrt(1 + (3 * 30) / 250) + 25;
    const wide = Array.from({ length: r!.vs }, (_, k) => [vs!.path[3 * k]!, vs!.path[3 * k + 2]!]).reduce((sum, [a, b]) => sum + Math.hypot(a!.xMm - b!.xMm, a!.yMm - b!.yMm), 0); // prettier-ignore
    expect(wide / ((Math.PI / 2) * (flat - 225))).toBeCloseTo(1, 2);
    expect(made(rounded).note).toBeNull();
    // seen from above: mirrored back, every point of a V stands on or beyond the edge’s own film, no V beyond the piece
    const box = boxOf(cutsOf(piece, /^Pencil on the liner: the top/)[0]!);
    const centre = { x: box.minX + 250, y: box.minY + 250 };
    for (const q of vs!.path) {
      const away = Math.hypot(q.xMm - centre.x, q.yMm - centre.y);
      expect(away).toBeGreaterThan(250 + 25);
      expect(q.xMm).toBeGreaterThan(0);
      expect(q.yMm).toBeGreaterThan(0);
    }
  });
  test('whether a round is too tight is held to the film’s own figure where its maker names one', () => {
    const { survey, surface } = asked(rounded);
    const of = (stretchMaxPct: number | null) => wrappedRounds(survey.body!, surface.sides, 30, usualDry, { stretchMaxPct })[0]!;
    // (1 + 3·30/250)^(2/3) − 1 = 22.7 %
    expect(of(null)).toMatchObject({ stretchFrac: expect.closeTo(0.2276, 3), mostFrac: 0.3, isTooTight: false });
    expect(of(20)).toMatchObject({ mostFrac: 0.2, isTooTight: true });
    expect(made({ ...rounded, of: { stretchMaxPct: 20 } }).note).toContain('it takes about 20 % (a round of 287 and more)');
    expect(made({ ...rounded, of: { stretchMaxPct: 25 } }).note).toBeNull();
  });
  test('film that only goes over the edge has nothing underneath to cut; a trimmed side has no round to pull over', () => {
    const of = (s: Counter['sides']) => {
      const { survey } = asked({ ...rounded, sides: s });
      return wrappedRounds(survey.body!, s, 30, usualDry, null);
    };
    expect(of(sides('edge'))).toMatchObject([{ vs: 0, tooMuchMm: 0 }]);
    expect(of(sides('return', { right: 'trimmed' }))).toEqual([]);
  });
  test('film does the same on both its sides: a wrapped edge does not stop in the middle of a round', () => {
    expect(blocked({ ...rounded, sides: sides('return', { right: 'strip' }) })).toBe(
      'Its front right corner is round: film does the same on both its sides. Change the front or the right end.',
    );
    expect(blocked({ ...rounded, sides: sides('return', { right: 'trimmed' }) })).toContain('film does the same on both its sides');
    expect(blocked({ ...rounded, sides: sides('return', { right: 'edge' }) })).toBeNull();
    expect(blocked({ ...rounded, sides: sides('wall', { front: 'trimmed' }) })).toBeNull();
  });
  test('one that is too tight is told with what it asks of the film, and what helps', () => {
    const { note } = made({ ...rounded, radius: 60, edge: 40 });
    expect(note).toContain('Front right: over an edge of 40 a round of 60 stretches the film by 108 %');
    expect(note).toContain('a round of 249 and more');
    expect(note).toContain('Give these sides a strip of their own.');
  });
});

describe('a round table', () => {
  const all = [...counterCorners];
  test('film over its edge is stretched as the whole round asks; Vs underneath all round', () => {
    const table: Asked = { wide: 800, deep: 800, radius: 0, round: all, sides: sides('return') };
    const [top] = pieces(table);
    expect([top!.piece.widthMm, top!.piece.heightMm].every((mm) => mm >= 800 + 2 * (30 + 25 + GRIP_MM) && mm < 940)).toBe(true);
    const rounds = wrappedRounds(asked(table).survey.body!, sides('return'), 30, { returnMm: 25 }, null);
    expect(rounds.map((r) => Math.round(r.radiusMm))).toEqual([400, 400, 400, 400]);
    // what is too much of a ring 25 wide that lies inwards is the difference of the two circumferences, and what the stretched film brings with it
    const much = rounds.reduce((sum, r) => sum + r.tooMuchMm, 0);
    expect(much).toBeGreaterThan(2 * Math.PI * 25);
    expect(much).toBeLessThan(2 * Math.PI * (25 + 25 + 30));
    expect(cutsOf(top!.piece, /V/)).not.toEqual([]);
  });
  test('the strip of its edge is its circumference, closed with a lap', () => {
    const strip = pieces({ wide: 800, deep: 800, radius: 0, round: all, sides: sides('strip') }).find((p) => p.suffix === 'edge')!;
    const long = Math.max(strip.piece.widthMm, strip.piece.heightMm);
    expect(long).toBeGreaterThan(Math.PI * 800);
    expect(long).toBeLessThan(Math.PI * 800 + 100);
  });
});

describe('the strip of an edge', () => {
  const round: CounterCorner[] = [...counterCorners];
  test('sides with a strip that follow each other have one', () => {
    expect(stripRuns(sides('trimmed'))).toEqual([]);
    expect(stripRuns(sides('return', { front: 'strip', right: 'strip' }))).toEqual([['front', 'right']]);
    expect(stripRuns(sides('strip', { back: 'wall' }))).toEqual([['left', 'front', 'right']]);
    expect(stripRuns(sides('wall', { front: 'strip', back: 'strip' })).map((r) => r[0])).toEqual(expect.arrayContaining(['front', 'back']));
    expect(stripRuns(sides('strip'))).toEqual([['back', 'left', 'front', 'right']]);
  });
  test('is as long as a tape that lies round it, and wide enough for the lap above, the edge, and what goes underneath', () => {
    const [strip, top] = pieces({ wide: 800, deep: 800, edge: 40, radius: 60, round, sides: sides('strip') });
    expect([strip!.suffix, top!.suffix]).toEqual(['edge', 'top']);
    const girth = 4 * (800 - 120) + 2 * Math.PI * 60;
    expect(strip!.piece.heightMm).toBe(25 + 40 + 25 + GRIP_MM);
    // a lap of 25 closes it; two standard deviations of the tapes are in it
    expect(strip!.piece.widthMm).toBeGreaterThan(girth + 25);
    expect(strip!.piece.widthMm).toBeLessThan(girth + 25 + 4 * margin(800) + 1);
    expect(strip!.piece.turns).toEqual([90]);
    expect(strip!.piece.meets).toBe(id(30));
    expect(top!.piece.why.join(' ')).toContain('ends 3 from the arris');
    const open = pieces({ edge: 40, sides: sides('wall', { front: 'strip' }) })[0]!.piece;
    expect(open.widthMm).toBe(Math.ceil(2400 + 100 + margin(2400)));
  });
  test('at each corner Vs above and underneath, none on the edge; at a sharp one a single V', () => {
    const [strip] = pieces({ wide: 800, deep: 800, edge: 40, radius: 60, round, sides: sides('strip') });
    const vs = (strip!.piece.bench ?? []).filter((c) => c.layer === 'film');
    expect(vs).toHaveLength(8);
    for (const c of vs) {
      const { minY, maxY } = boxOf(c);
      // the edge lies between 35 and 75 of the strip
      expect(maxY <= 35 + 1e-6 || minY >= 75 - 1e-6).toBe(true);
    }
    const [sharp] = pieces({ edge: 40, sides: sides('strip', { back: 'wall' }) });
    const mitres = (sharp!.piece.bench ?? []).filter((c) => /one V, 50 wide/.test(c.words));
    expect(mitres).toHaveLength(4);
  });
  test('a ring begins in the middle of the back: its first corner lies half a back farther, the others each a side and an arc', () => {
    const [strip] = pieces({ wide: 800, deep: 700, edge: 40, radius: 60, round, sides: sides('strip') });
    const at = (name: string) => {
      const { minX, maxX } = boxOf(cutsOf(strip!.piece, new RegExp(`^${name}: .* on to the top`))[0]!);
      // liner up it is seen from behind
      return strip!.piece.widthMm - (minX + maxX) / 2;
    };
    const [half, arc] = [(800 - 120) / 2, 30 * Math.PI];
    const first = 12.5 + half + arc / 2;
    expect(at('Back left')).toBeCloseTo(first, 0);
    expect(at('Front left')).toBeCloseTo(first + arc + 580, 0);
    expect(at('Front right')).toBeCloseTo(first + 2 * arc + 580 + 680, 0);
    expect(at('Back right')).toBeCloseTo(first + 3 * arc + 2 * 580 + 680, 0);
  });
  test('without a direction it still lies along the roll; two of them are told apart', () => {
    const two = pieces({ of: { direction: 'none' }, sides: sides('wall', { front: 'strip', back: 'strip' }) });
    expect(two.map((t) => t.suffix).sort()).toEqual(['edge, back', 'edge, front', 'top']);
    expect(two.find((t) => t.suffix.startsWith('edge'))!.piece.turns).toEqual([90, 270]);
  });
});

describe('holes and seams of a top', () => {
  test('a cross ends 10 short of the corners where film goes down under a rim; round what stays it goes to the corner', () => {
    const [{ piece }] = pieces({ hardware: [hole, outlet, { ...hole, id: id(22), what: 'Bell', handling: 'round', fromLeftMm: 900, widthMm: 60, heightMm: 60 }] }) as [ReturnType<typeof pieces>[number]]; // prettier-ignore
    const size = (what: string) => {
      const { minX, maxX, minY, maxY } = boxOf(cutsOf(piece, new RegExp(`^${what}`))[0]!);
      return [maxX - minX, maxY - minY];
    };
    expect(size('Basin')).toEqual([expect.closeTo(400 - 16, 6), expect.closeTo(300 - 12, 6)]);
    expect(size('Outlet')).toEqual([expect.closeTo(60, 6), expect.closeTo(60, 6)]);
    expect(size('Bell')).toEqual([expect.closeTo(60, 6), expect.closeTo(60, 6)]);
    expect(cutsOf(piece, /^Outlet/)[0]!.words).toContain('ends 10 short of its rim; flaps warmed and down over the rim');
  });
  test('a top deeper than the roll is laid in two, its seam through a hole where one allows it; liner is sliced on both', () => {
    const deep = { deep: 1500, hardware: [{ ...hole, fromFootMm: 500 }] };
    const two = pieces(deep);
    expect(two.map((t) => t.suffix)).toEqual(['front', 'back']);
    // front edge of the piece to the middle of the basin
    expect(two[0]!.piece.heightMm).toBe(Math.ceil(65 + margin(1500) / 2 + 500 + 150));
    expect(two.map((t) => cutsOf(t.piece, /^Slice the liner/).length)).toEqual([1, 1]);
    expect(two.every((t) => t.piece.heightMm <= 1220)).toBe(true);
    // a round beyond the seam is no bulge of the other strip, and a large one no more points than a plan can keep
    const large = { ...deep, round: [...counterCorners], radius: 700, sides: sides('return') };
    for (const { piece } of [...pieces({ ...deep, round: ['frontLeft', 'frontRight'] }), ...pieces(large)])
      for (const c of piece.bench ?? []) {
        const b = boxOf(c);
        expect([b.minX, b.minY, piece.widthMm - b.maxX, piece.heightMm - b.maxY].every((past) => past >= -1e-6)).toBe(true);
        expect(benchCut.safeParse(c).error).toBeUndefined();
      }
    const lap = (seam: Counter['seam']) => {
      const [front, back] = pieces({ ...deep, seam });
      return front!.piece.heightMm + back!.piece.heightMm;
    };
    expect(lap('double-cut') - lap('overlap')).toBe(25);
  });
});

test('the film of any top covers it, with what is asked past every side, wherever its tapes may err', () => {
  const side = fc.constantFrom('trimmed', 'edge', 'return', 'wall', 'joint', 'strip') as fc.Arbitrary<Counter['sides']['front']>;
  fc.assert(
    fc.property(num(500, 3000), num(300, 1100), num(15, 60), fc.record({ front: side, right: side, back: side, left: side }), fc.subarray([...counterCorners]), num(30, 120), fc.constantFrom('mm' as const, 'in' as const), (wide, deep, edge, all, round, radius, units) => {
      const is = (s: Counter['sides']['front']) => (s === 'edge' || s === 'return' ? 'over' : s === 'strip' ? 'strip' : 'ends');
      const beside = { frontLeft: ['left', 'front'], frontRight: ['front', 'right'], backRight: ['right', 'back'], backLeft: ['back', 'left'] } as const;
      const alike = round.filter((c) => is(all[beside[c][0]]) === is(all[beside[c][1]]));
      const p = asked({ wide, deep, edge, radius, round: alike, sides: all, units, rolls: [6000] });
      const m = piecesOfCounter(p);
      if ('blocked' in m) throw new Error(m.blocked);
      const top = m.pieces.find((x) => !x.suffix.startsWith('edge'))!.piece;
      const face = boxOf(cutsOf(top, /^Pencil on the liner: the top/)[0]!);
      const { body } = p.survey;
      const own = boundingBox(body!.outline);
      expect(face.maxX - face.minX).toBeCloseTo(own.maxX - own.minX, 3);
      // liner up: its left is the top’s right
      const past = { left: top.widthMm - face.maxX, right: face.minX, back: top.heightMm - face.maxY, front: face.minY };
      for (const s of ['front', 'right', 'back', 'left'] as const) {
        const depth = counterDepth(all[s], edge, usualDry);
        expect(past[s]).toBeGreaterThanOrEqual((depth === 0 ? 50 : Math.max(50, depth + GRIP_MM)) - 1e-6);
      }
      for (const part of m.pieces)
        for (const c of part.piece.bench ?? []) {
          // what a plan can keep
          expect(benchCut.safeParse(c).error).toBeUndefined();
          const b = boxOf(c);
          expect(b.minX).toBeGreaterThanOrEqual(-1e-6);
          expect(b.minY).toBeGreaterThanOrEqual(-1e-6);
          expect(b.maxX).toBeLessThanOrEqual(part.piece.widthMm + 1e-6);
          expect(b.maxY).toBeLessThanOrEqual(part.piece.heightMm + 1e-6);
        }
    }), { numRuns: 150 }); // prettier-ignore
});
