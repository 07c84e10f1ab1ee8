import fc from 'fast-check';
import type { Counter, CounterCorner, CounterMeasure, Hardware } from '@yellow-pane/contracts';
import { ternInterior } from '../../../demo/src/index.js';
import { arcOf, distance, pathArea, pathLength } from '../geometry/index.js';
import { Memo } from '../ground/index.js';
import type { TapeReading } from './adjustment.js';
import { counterCorners, counterModel, coverOfCounter, edgeRunMm, judgeCounter, type CounterParts } from './counter.js';
import { surveyCounter } from './counter-survey.js';
import { counterDoubtText, counterFacts, counterNumbers, counterVerdict, counterWhy } from './counter-words.js';
import { askText, measureTitle, oddLength } from './words.js';

type Tapes = Partial<Record<CounterMeasure, number>>;
const tapes = (t: Tapes): TapeReading[] => Object.entries(t).map(([measure, lengthMm]) => ({ measure: measure as CounterMeasure, lengthMm }));
const parts = (p: Partial<CounterParts> = {}): CounterParts => ({ round: [], hardware: [], ...p });
const judge = (t: Tapes, p: Partial<CounterParts> = {}) => judgeCounter(parts(p), tapes(t));
const verdict = (t: Tapes, p: Partial<CounterParts> = {}) => counterVerdict(judge(t, p), parts(p), 'mm');
const num = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const round: CounterCorner[] = ['frontRight'];
/** 2400 × 700, square; its front right corner a round of 250. */
const R = 250;
const gap = R * (Math.SQRT2 - 1);
const counter: Tapes = {
  widthFront: 2400,
  widthBack: 2400,
  depthLeft: 700,
  depthRight: 700,
  fromFrontLeft: 2500,
  fromBackLeft: 2500 - gap,
  setbackFrontRight: R,
  gapFrontRight: gap,
};

describe('what is taped of a counter top', () => {
  test('a width and a depth give it a size; only from corner to corner says whether it is square', () => {
    expect(judge({ widthFront: 2400 }).status).toBe('nothing');
    const two = judge({ widthFront: 2400, depthLeft: 700 });
    expect(two.status).toBe('unchecked');
    expect(verdict({ widthFront: 2400, depthLeft: 700 }).body).toContain('whether it is square cannot be said');
    expect(verdict({}).headline).toBe('Nothing taped yet.');
    expect(coverOfCounter(two)!.widthMm).toBeGreaterThan(2400);
  });
  test('a round corner is an arc between its two sides: setback r, way to the round r·(√2 − 1) at a square corner', () => {
    const { body, status } = judge(counter, { round });
    expect(status).toBe('agreeing');
    expect(body!.radiusMm).toMatchObject({ frontLeft: 0, frontRight: expect.closeTo(R, 4) as number });
    expect(body!.straightMm.front).toBeCloseTo(2400 - R, 4);
    expect(pathArea(body!.path)).toBeCloseTo(2400 * 700 - R ** 2 * (1 - Math.PI / 4), 1);
    const arc = body!.path.map((p, i, all) => arcOf(p, all[(i + 1) % all.length]!)).find((a) => a !== null)!;
    expect(arc.radius).toBeCloseTo(R, 4);
    expect([arc.centre.x, arc.centre.y].map((v) => Math.round(v))).toEqual([2400 - R, R]);
  });
  test('from corner to corner is taped to the middle of the round: without the round the same tapes would disagree', () => {
    expect(judge(counter, { round: [] }).status).toBe('doubtful');
  });
  test('a way to the round with digits swapped is named: the setback and the tape over the round say so', () => {
    const slip = { ...counter, setbackFrontRight: 250, gapFrontRight: 130 };
    const survey = judge(slip, { round });
    expect(survey.status).toBe('doubtful');
    const [first] = survey.suspects.filter((s) => s.hypothesis.kind !== 'no-slip');
    expect(first!.hypothesis).toEqual({ kind: 'slip', measure: 'gapFrontRight' });
    expect(verdict(slip, { round }).body).toMatch(/way to the round, front right would be 10[34]/i);
    expect(survey.possible.every((b) => b.radiusMm.frontRight > 200)).toBe(true);
  });
  test('a width that was misread is named; the piece covers both until it is taped again', () => {
    const slip = { ...counter, widthFront: 2450 };
    const survey = judge(slip, { round });
    expect(survey.suspects.map((s) => s.hypothesis)).toContainEqual({ kind: 'slip', measure: 'widthFront' });
    expect(survey.next).not.toBeNull();
    expect(coverOfCounter(survey)!.widthMm).toBeGreaterThan(2400);
  });
  test('any top is found again from exact tapes', () => {
    fc.assert(
      fc.property(num(600, 3500), num(350, 1100), num(-20, 20), num(-25, 25), num(-20, 20), fc.array(num(0.1, 0.45), { minLength: 4, maxLength: 4 }), fc.subarray([...counterCorners]), (w, d, wider, rack, deeper, shares, rounded) => {
        const model = counterModel(new Set(), rounded);
        const radii = rounded.map((c) => shares[counterCorners.indexOf(c)]! * Math.min(w, d));
        const true_ = [w, wider, rack, d, deeper, ...radii];
        const t = Object.fromEntries(model.keys.map((k) => [k, model.reading(true_, k)])) as Tapes;
        const { body, status } = judge(t, { round: rounded });
        expect(status).toBe('agreeing');
        rounded.forEach((c, i) => expect(body!.radiusMm[c]).toBeCloseTo(radii[i]!, 2));
        expect(distance(body!.corners.backLeft, body!.corners.backRight)).toBeCloseTo(t.widthBack!, 2);
        expect(body!.rackMm).toBeCloseTo(rack, 2);
        // an arc that touches both its sides has their radius, however far from square its corner is
        const arcs = body!.path.flatMap((p, i, all) => arcOf(p, all[(i + 1) % all.length]!) ?? []);
        expect(arcs.map((a) => a.radius)).toEqual(counterCorners.filter((c) => rounded.includes(c)).map((c) => expect.closeTo(body!.radiusMm[c], 3) as number));
      }), { numRuns: 60 }); // prettier-ignore
  });
  describe('a round table: its widths alone, all four corners round and none taped', () => {
    const all = [...counterCorners];
    test('is a circle', () => {
      const { body, status, doubts } = judge({ widthMiddle: 800, depthMiddle: 800 }, { round: all });
      expect([status, doubts]).toEqual(['unchecked', []]);
      expect(pathArea(body!.path)).toBeCloseTo(Math.PI * 400 ** 2, 1);
      expect(Object.values(body!.radiusMm)).toEqual(all.map(() => expect.closeTo(400, 6) as number));
      expect(edgeRunMm(body!, ['front', 'right', 'back', 'left']).arcs.reduce((sum, a) => sum + a.lengthMm, 0)).toBeCloseTo(Math.PI * 800, 4);
      const said = verdict({ widthMiddle: 800, depthMiddle: 799 }, { round: all });
      expect(said.body).toBe('Round, as far as its two widths tell.');
      expect(counterNumbers(judge({ widthMiddle: 800, depthMiddle: 800 }, { round: all }), 'mm').map((n) => n.name)).toEqual(['Radius']);
    });
    test('a long one ends in half circles; over them it is as long as it is', () => {
      const t: Tapes = { widthMiddle: 2400, depthMiddle: 900 };
      const { body } = judge(t, { round: all });
      expect(pathArea(body!.path)).toBeCloseTo(1500 * 900 + Math.PI * 450 ** 2, 1);
      expect(body!.straightMm).toMatchObject({ front: expect.closeTo(1500, 6), right: expect.closeTo(0, 6) });
      expect(verdict(t, { round: all }).body).toBe('Its ends are taken as half circles: no round of it is taped.');
    });
    test('a tape from corner to corner checks a circle: over the rounds it is as long as its width', () => {
      const t: Tapes = { widthMiddle: 800, depthMiddle: 800, fromFrontLeft: 800 };
      expect(judge(t, { round: all }).status).toBe('agreeing');
      expect(judge({ ...t, fromFrontLeft: 830, fromBackLeft: 830 }, { round: all }).status).toBe('doubtful');
    });
    test('one round of it taped, and the others are asked for', () =>
      expect(judge({ ...counter }, { round: all }).doubts.map((d) => d.is)).toEqual(['round-untaped', 'round-untaped', 'round-untaped']));
  });
  test('what is not square is told with its size and side; what fits says so', () => {
    const said = (t: Tapes) => counterFacts(judge(t).body!, 'mm');
    expect(said({ widthFront: 2400, widthBack: 2412, depthLeft: 700, depthRight: 692 })).toEqual(['Its back is 12 mm longer than its front.', 'It is 8 mm less deep on the right.']); // prettier-ignore
    const racked = said({ widthFront: 2400, depthLeft: 700, fromFrontLeft: Math.hypot(2420, 700) });
    expect(racked).toEqual(['Its back stands 20 mm to the right of its front.']);
    expect(verdict(counter, { round }).body).toBe('Square and parallel, as far as these tapes can tell.');
  });
  test('a round that nobody taped, and rounds that overlap, are told; so is what would stand beside it', () => {
    const bell: Hardware = { id: 'b', what: 'Bell', handling: 'round', fromLeftMm: 2500, fromFootMm: 100, widthMm: 60, heightMm: 60, isElectric: false };
    const { gapFrontRight: _g, setbackFrontRight: _s, fromBackLeft: _f, ...bare } = counter;
    const said = (t: Tapes, p: Partial<CounterParts>) => judge(t, p).doubts.map((d) => counterDoubtText(d, parts(p), 'mm'));
    expect(said(bare, { round })[0]).toContain('Its front right corner is round, and nobody taped it');
    expect(said(counter, { round, hardware: [bell] })[0]).toBe('Bell would stand 160 mm outside the top. Tape its place again.');
    const both: CounterCorner[] = ['frontRight', 'backRight'];
    const tight = { ...bare, setbackFrontRight: 380, setbackBackRight: 360, fromFrontLeft: undefined as never };
    delete (tight as Tapes).fromFrontLeft;
    expect(said(tight, { round: both })[0]).toMatch(/The rounds at its right end would overlap by 40 mm/);
    expect(verdict({ ...counter, edgeThickness: 40, edgeGirth: 30 }, { round }).body).toContain('shorter than the edge is thick');
  });
  test('it is told in inches too, and asked for as one speaks', () => {
    const { body, ...survey } = judge({ ...counter, edgeThickness: 30 }, { round });
    expect(counterNumbers({ ...survey, body }, 'in').map((n) => n.name)).toEqual(['Radius, front right', 'Film over its edge']);
    expect(counterNumbers({ ...survey, body }, 'in')[0]!.value).toMatch(/^9 13\/16" ± /);
    expect(askText('setbackFrontRight', true)).toBe('Tape again where the straight ends, front right');
    expect(measureTitle('fromBackLeft')).toBe('From back left to front right');
    expect(oddLength('depthLeft', 7, 'mm')).toBe('That is a top of 7 mm.');
    expect(counterWhy(judge(counter, { round }))[1]).toContain('8 tapes adjusted together by least squares, 2 of them redundant');
  });
});

test('a survey is kept by its tapes, its rounds and what stands on it: another round, another survey', () => {
  const file = ternInterior();
  const records = { surfaces: file.surfaces, readings: file.readings, memo: new Memo() };
  const top = file.surfaces.find((s): s is Counter => s.kind === 'counter' && s.name === 'Reception counter')!;
  const radius = (own: Partial<Counter>) => surveyCounter({ ...top, ...own }, records).survey.body!.radiusMm.frontRight;
  expect(radius({})).toBeCloseTo(250, -1);
  expect(radius({ round: [] })).toBe(0);
  const beside = top.hardware.map((h) => ({ ...h, fromLeftMm: 5000 }));
  expect(surveyCounter({ ...top, hardware: beside }, records).survey.doubts).toHaveLength(3);
  expect(surveyCounter(top, records).isSigned).toBe(false);
});

describe('the way round an edge', () => {
  test('is the sides without their rounds and the arcs between: in all, the length of the outline', () => {
    const all: CounterCorner[] = [...counterCorners];
    const setbacks = { setbackFrontLeft: 60, setbackFrontRight: 200, setbackBackRight: 90, setbackBackLeft: 30 };
    const { body } = judge({ widthFront: 2400, depthLeft: 700, ...setbacks }, { round: all });
    const ring = edgeRunMm(body!, ['back', 'left', 'front', 'right']);
    expect(ring.lengthMm).toBeCloseTo(pathLength(body!.path), 3);
    expect(ring.arcs.map((a) => [a.corner, Math.round(a.radiusMm)])).toEqual([['backLeft', 30], ['frontLeft', 60], ['frontRight', 200], ['backRight', 90]]); // prettier-ignore
    const run = edgeRunMm(body!, ['front', 'right']);
    expect(run.lengthMm).toBeCloseTo(2400 - 260 + (Math.PI / 2) * 200 + 700 - 290, 1);
    expect(run.arcs[0]!.fromMm).toBeCloseTo(2400 - 260, 1);
  });
});
