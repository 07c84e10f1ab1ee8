import fc from 'fast-check';
import { newSign, type Hardware, type SignLine, type SignMeasure } from '@yellow-pane/contracts';
import { regionArea } from '../geometry/index.js';
import type { TapeReading } from './adjustment.js';
import { areaOfMarksM2, judgeSign, placeMark, readFromM, type PlacedMark, type SignParts } from './sign.js';
import { signDoubtText, signNumbers, signVerdict, signWhy } from './sign-words.js';

const id = (n: number) => `01930000-0000-7000-8000-0000000000${n}`;
type Tapes = Partial<Record<SignMeasure, number>>;
const tapes = (t: Tapes): TapeReading[] => Object.entries(t).map(([measure, lengthMm]) => ({ measure: measure as SignMeasure, lengthMm }));
const canvas: Tapes = { widthTop: 2000, widthMiddle: 2000, widthBottom: 2000, heightLeft: 600, heightRight: 600, diagonalDown: Math.hypot(2000, 600), diagonalUp: Math.hypot(2000, 600) }; // prettier-ignore

/** Two bars and a dot with a hole, a capital 700 high, the dot 100 under the baseline. */
const BARS = 'M0 0V-700H100V0ZM300 0V-700H400V0ZM600 100H800V-100H600ZM650 50V-50H750V50Z';
const letters = (l: Partial<Extract<SignLine, { is: 'letters' }>> = {}): SignLine => ({ is: 'letters', id: id(50), text: 'II.', face: 'plain', spacing: 0, svgPath: BARS, capUnits: 700, heightMm: 140, baselineMm: 200, atMm: 1000, align: 'middle', ...l }); // prettier-ignore
const figure = (l: Partial<Extract<SignLine, { is: 'figure' }>> = {}): SignLine => ({ is: 'figure', id: id(51), what: 'Arrow', svgPath: 'M0 0H200V100H0Z', heightMm: 100, baselineMm: 40, atMm: 100, align: 'left', ...l }); // prettier-ignore
const eyelet: Hardware = {
  id: id(20),
  what: 'Eyelet',
  handling: 'round',
  fromLeftMm: 20,
  fromFootMm: 20,
  widthMm: 30,
  heightMm: 30,
  isElectric: false,
  isRound: true,
};
const parts = (p: Partial<SignParts> = {}): SignParts => ({ lines: [letters()], hardware: [], texture: 'smooth', ...p });
const judge = (p: Partial<SignParts> = {}, t: Tapes = canvas) => judgeSign(parts(p), tapes(t));
const mark = (l: SignLine = letters()): PlacedMark => {
  const m = placeMark(l);
  if ('message' in m) throw new Error(m.message);
  return m;
};
const said = (p: Partial<SignParts>, t: Tapes = canvas) => judge(p, t).doubts.map((d) => signDoubtText(d, parts(p), 'mm'));

describe('where letters stand', () => {
  test('a capital is as high as it is said to be, on its baseline; what goes under that hangs below', () => {
    const { box, region } = mark();
    // 800 units wide at 0.2 mm a unit, its middle at 1000
    expect(box).toEqual({ minX: 920, maxX: 1080, minY: 180, maxY: 340 });
    expect(regionArea(region)).toBeCloseTo((2 * 70_000 + 30_000) * 0.2 ** 2, 6);
  });
  test('placed by its left end, its middle or its right end: by what is drawn, not by the space a face leaves beside it', () => {
    const shifted = letters({ svgPath: 'M50 0V-700H150V0Z', atMm: 300 });
    expect(['left', 'middle', 'right'].map((align) => mark({ ...shifted, align } as SignLine).box.minX)).toEqual([300, 290, 280]);
  });
  test('a figure is as high as all of it, and stands on its lowest point', () => {
    expect(mark(figure()).box).toEqual({ minX: 100, maxX: 300, minY: 40, maxY: 140 });
    expect(mark(figure({ svgPath: 'M0 50L100 0L200 50L100 100Z', heightMm: 200 })).box).toEqual({ minX: 100, maxX: 500, minY: 40, maxY: 240 });
  });
  test('twice as high is twice as wide and four times the film; nothing else changes', () => {
    fc.assert(
      fc.property(fc.double({ min: 10, max: 800, noNaN: true }), fc.double({ min: -500, max: 2000, noNaN: true }), (heightMm, atMm) => {
        const [one, two] = [mark(letters({ heightMm, atMm })), mark(letters({ heightMm: 2 * heightMm, atMm }))];
        expect(regionArea(two.region) / regionArea(one.region)).toBeCloseTo(4, 6);
        expect((two.box.maxX - two.box.minX) / (one.box.maxX - one.box.minX)).toBeCloseTo(2, 9);
        expect(two.strokeMm / one.strokeMm).toBeCloseTo(2, 9);
        expect((two.box.minX + two.box.maxX) / 2).toBeCloseTo(atMm, 6);
      }),
      { numRuns: 40 },
    );
  });
  test('what encloses nothing or does not read is told, and its line stays', () => {
    expect(placeMark(figure({ svgPath: 'M0 0L10 10' }))).toMatchObject({ message: expect.stringContaining('encloses nothing') as string });
    expect(placeMark(figure({ svgPath: 'nonsense' }))).toHaveProperty('message');
    expect(said({ lines: [figure({ svgPath: 'nonsense' })] })[0]).toMatch(/^Arrow cannot be drawn\./);
    // a figure drawn twice over itself is a hole by the even-odd rule
    expect(placeMark(figure({ svgPath: 'M0 0H200V100H0ZM0 0H200V100H0Z' }))).toMatchObject({ message: expect.stringContaining('cover each other') as string });
  });
});

describe('how wide strokes are', () => {
  test('the thinnest part of a line counts', () => {
    expect(mark().strokeMm).toBeCloseTo(10, 6);
    expect(mark(letters({ svgPath: `${BARS}M900 0V-700H930V0Z` })).strokeMm).toBeCloseTo(6, 6);
  });
});

describe('what does not fit', () => {
  test('letters that stand free, keep off everything and are wide enough: nothing', () => {
    expect(judge()).toMatchObject({ status: 'agreeing', doubts: [] });
    expect(judge().clearMm).toBeCloseTo(180, 0);
    // of two lines the nearer one: the figure’s foot
    expect(judge({ lines: [letters(), figure()] }).clearMm).toBeCloseTo(40, 0);
    expect(judge({ lines: [] }).clearMm).toBeNull();
  });
  test('past the edge by how much, on which line; a crooked ground by its slanting side', () => {
    expect(judge({ lines: [letters({ atMm: 60 })] }).status).toBe('doubtful');
    expect(said({ lines: [letters({ atMm: 60 })] })).toEqual(['“II.” would reach 20 mm past the edge of its ground. Make it smaller, or move it.']);
    // it narrows by 200 to its top: the same line fits low and not high
    const leaning: Tapes = { widthTop: 1800, widthBottom: 2000, heightLeft: Math.hypot(100, 600), heightRight: Math.hypot(100, 600), diagonalDown: Math.hypot(1900, 600), diagonalUp: Math.hypot(1900, 600) }; // prettier-ignore
    const at = (baselineMm: number) => judge({ lines: [figure({ atMm: 25, baselineMm })] }, leaning).doubts.map((d) => d.is);
    expect([at(20), at(480)]).toEqual([[], ['outside']]);
  });
  test('on an eyelet; not where it comes off, nor in the hole of a letter', () => {
    const on = { ...eyelet, fromLeftMm: 925, fromFootMm: 250, widthMm: 10, heightMm: 10 };
    expect(said({ hardware: [on] })).toEqual(['“II.” would lie on “Eyelet”. Move it, or say that this comes off.']);
    expect(judge({ hardware: [{ ...on, handling: 'off' }] }).doubts).toEqual([]);
    expect(judge({ hardware: [{ ...on, fromLeftMm: 1055, fromFootMm: 195 }] }).doubts).toEqual([]);
  });
  test('lines on each other, told once; beside each other they may be as close as one likes', () => {
    const other = letters({ id: id(52), text: 'X', baselineMm: 250 });
    expect(judge({ lines: [letters(), other] }).doubts).toEqual([{ is: 'overlap', part: id(50), other: id(52) }]);
    expect(judge({ lines: [letters(), { ...other, baselineMm: 361 }] }).doubts).toEqual([]);
  });
  test('strokes thinner than a ground holds: 1.5 mm smooth, 3 on a fine weave, 5 on a rough one (house rules)', () => {
    const thin = (strokeMm: number, texture: SignParts['texture']) => judge({ texture, lines: [letters({ heightMm: strokeMm * 14 })] }, canvas).doubts.length;
    expect((['smooth', 'fine', 'rough'] as const).map((t) => [1.4, 1.6, 2.9, 3.1, 4.9, 5.1].map((mm) => thin(mm, t)))).toEqual([
      [1, 0, 0, 0, 0, 0],
      [1, 1, 1, 0, 0, 0],
      [1, 1, 1, 1, 1, 0],
    ]);
    expect(said({ texture: 'fine', lines: [letters({ heightMm: 14 })] })[0]).toContain('under 3 mm they are lost on this ground');
  });
  test('an eyelet outside its ground is a slip', () => {
    expect(judge({ hardware: [{ ...eyelet, fromLeftMm: 2100 }] }).doubts).toMatchObject([{ is: 'hardware-outside', part: eyelet.id }]);
  });
  test('a slip among the tapes does not move the letters: they are held against the likeliest ground', () => {
    const slip = judge({ lines: [letters({ atMm: 1900 })] }, { ...canvas, widthBottom: 1700 });
    expect(slip.status).toBe('doubtful');
    expect(slip.doubts).toEqual([]);
    expect(Math.max(...slip.ground!.map((p) => p.x))).toBeCloseTo(2000, 0);
  });
});

describe('what is said of a sign', () => {
  const surface = newSign({ id: id(30), jobId: id(31), placeId: id(32), name: 'Canvas', order: 1, texture: 'smooth' });
  const verdict = (p: Partial<SignParts>, t: Tapes) => signVerdict(judge(p, t), { ...surface, ...parts(p) }, 'mm');
  test('from nothing to agreeing; letters are asked for where there are none', () => {
    expect(verdict({}, {}).headline).toBe('Nothing taped yet.');
    expect(verdict({ lines: [] }, { widthMiddle: 2000, heightMiddle: 600 }).body).toContain('Now write what stands on it.');
    expect(verdict({}, canvas)).toEqual({ headline: 'The tapes agree.', body: 'Square and parallel within 2 mm.' });
    expect(verdict({ lines: [letters({ atMm: 0 })] }, canvas)).toMatchObject({ headline: 'One thing does not fit.' });
    expect(verdict({}, { ...canvas, widthBottom: 1700 }).body).toMatch(/bottom width would be/i);
  });
  test('from how far it is read: four times five minutes of arc (Snellen; from memory)', () => {
    // a letter of 5′ at 6 m is 8.7 mm high: read at a glance from a quarter of that
    expect(readFromM(8.727 * 4)).toBeCloseTo(6, 2);
    expect(signNumbers(judge(), 'mm')).toContainEqual({ name: '“II.” is read', value: 'from about 24 m at a glance' });
    expect(signNumbers(judge(), 'in').find((n) => n.name.endsWith('is read'))!.value).toBe('from about 79 ft at a glance');
    expect(signWhy(judge()).join(' ')).toContain('docs/models/signs.md');
  });
  test('what is wiped is as large as the boxes of its lines', () => {
    expect(areaOfMarksM2(judge({ lines: [letters(), figure()] }).marks)).toBeCloseTo((160 * 160 + 200 * 100) / 1e6, 9);
  });
});
